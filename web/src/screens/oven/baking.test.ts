import { describe, expect, it } from "vitest";

import type { Shapes } from "@/api/client";
import { BAKING, CONTENT } from "@/api/defaults";
import type { Content } from "@/api/queries";
import { bakingOf, GHOSTS, otherVessels, withBaking } from "@/screens/oven/baking";

const OVENS = [{ id: 3 }, { id: 8 }];
const VESSELS = [
  { id: "glass", name: "Garden glass", kind: "glass" },
  { id: "pan", name: "Deck pan", kind: "pan" },
  { id: "ring", name: "Tea ring", kind: "ring" },
];
const kitchen = (ovens = OVENS) => ({ ovens, vessels: VESSELS }) as Shapes["KitchenOut"];
const content = (baking: Partial<Shapes["Baking"]> = {}, more: Partial<Content> = {}): Content => ({
  ...CONTENT,
  baking: { ...BAKING, set_c: 150, ...baking },
  ...more,
});
const ghost = (name: string, from: Content, of = kitchen()) => {
  const before = JSON.stringify(from);
  const after = GHOSTS[name]?.of(from, of);
  expect(JSON.stringify(from), `${name} changes what it is laid beside`).toBe(before);
  return after as Content;
};
/** What a case says otherwise than the bake itself. */
const apart = (from: Content, to: Content) => {
  const flat = ({ baking, ...rest }: Content): Record<string, unknown> => ({ ...rest, ...baking });
  const [a, b] = [flat(from), flat(to)];
  return Object.fromEntries(
    Object.entries(b).filter(([key, value]) => JSON.stringify(value) !== JSON.stringify(a[key])),
  );
};

describe("a case laid beside a bake", () => {
  it.each([
    ["hotter", { set_c: 170 }],
    ["cooler", { set_c: 130 }],
    ["cold", { poured_c: 5 }],
    ["warm", { poured_c: 50 }],
    ["foil", { covered: true }],
    ["door", { door_min: [15, 20, 25, 30, 35] }],
  ])("%s differs by that and by nothing else", (name, difference) => {
    const from = content({ poured_c: 20, covered: false });
    expect(apart(from, ghost(name, from))).toEqual(difference);
  });

  it("is called by what it does, in whose units it is read", () => {
    const names = (["hotter", "cooler", "cold", "warm"] as const).flatMap((name) => [
      GHOSTS[name]?.name("metric"),
      GHOSTS[name]?.name("us"),
    ]);
    const shown = ["20", "36", "20", "36", "5", "41", "50", "122"];
    expect(names.map((name) => /\d+/.exec(name ?? "")?.[0])).toEqual(shown);
  });

  it("turns a dial that nobody set from where the server would set it", () => {
    expect(ghost("hotter", { ...CONTENT }).baking?.set_c).toBe(BAKING.set_c + 20);
  });

  it("takes a bath away, gives one to a bake that has none, and turns the foil both ways", () => {
    const dry = content({}, { bath_level: "none" });
    const wet = ghost("bath", dry);
    expect(apart(dry, wet)).toEqual({ bath_level: "half" });
    expect(ghost("bath", wet).bath_level).toBe("none");
    expect(ghost("foil", content({ covered: true })).baking?.covered).toBe(false);
  });

  it("is a third shallower by the share it is filled to, however the fill was said", () => {
    const full = content({}, { fill_by: "below_rim", fill_pct: 90 });
    expect(apart(full, ghost("shallow", full))).toEqual({ fill_by: "share", fill_pct: 60 });
  });

  it("goes to the other oven, or stays where there is no other", () => {
    expect(ghost("oven", content({ oven_id: 8 })).baking?.oven_id).toBe(3);
    expect(ghost("oven", content({ oven_id: null })).baking?.oven_id).toBe(8);
    const alone = content({ oven_id: 3 });
    expect(ghost("oven", alone, kitchen([{ id: 3 }]))).toEqual(alone);
  });

  it("may be in any other vessel but a pan, filled and without its tray", () => {
    const now = content(
      {},
      { vessel_key: "glass", tray_key: "gn", fill_by: "below_rim", fill_pct: 70 },
    );
    const [ring, ...more] = otherVessels(now, kitchen());
    expect([ring?.key, more]).toEqual(["in:ring", []]);
    expect(ring && apart(now, ring.of(now))).toEqual({
      vessel_key: "ring",
      fill_by: "share",
      fill_pct: 90,
      tray_key: "",
    });
  });

  it("has the server's own settings when a formula is older than its oven", () => {
    const old: Content = { ...CONTENT };
    expect(bakingOf(old)).toEqual(BAKING);
    expect(withBaking(old, { set_c: 95 }).baking).toEqual({ ...BAKING, set_c: 95 });
  });
});
