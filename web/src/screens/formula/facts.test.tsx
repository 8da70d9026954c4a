// @vitest-environment jsdom
import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";

import type { Shapes } from "@/api/client";
import type { Draft } from "@/keep/draft";
import { endpoint, Facts } from "@/screens/formula/facts";
import { page, read } from "@/test/page";

const bench = { units: "metric", kitchen: { currency: "€" } };
vi.mock("@/bench", () => ({ useBench: () => bench }));
vi.mock("@/api/queries", () => ({ useCraft: () => ({ data: { families: [], allergens: [] } }) }));
afterEach(cleanup);

type Found = Shapes["FormulaOut"];
const SET = {
  class: "pipe", low_class: "spoon", high_class: "pipe", beaten_class: "spoon", beaten: null,
  shift: 0, index: 3.4,
} as Shapes["SetOut"]; // prettier-ignore
const PER = {
  yolk_g: 120,
  whole_egg_g: 0,
  starch_g: 90,
  corn_starch_equivalent_g: 89,
  sugar_g: 200,
};
const FOUND = {
  set: SET, cook: null, per_1000_liquid: PER, eggs: null, whites_left_g: 0, whites_left_eggs: 0,
  composition_pct: { fat: 8.24, water: 60, alcohol: 0 },
  taste_pct: { dry_matter: 36, sweetness: 18, cocoa: 0 },
  coagulation: null, mass_g: 0, volume_ml: 0, air_ml: 0, density_g_per_ml: 1.1, family: null,
  nutrition: null, cost: null, portions: null, warnings: [], reasons: {}, complete: true,
  whipped: null, allergens: [], allergens_untold: [], lines: [],
} as unknown as Found; // prettier-ignore
const change = vi.fn();
const shown = (
  found: Partial<Found> = {},
  more: { earlier?: Partial<Found>; beaten?: string; readOnly?: boolean } = {},
) => {
  const draft = { content: { beaten: more.beaten ?? "", family: "" }, change } as unknown as Draft;
  const earlier = more.earlier && { ...FOUND, ...more.earlier };
  return page(
    <Facts found={{ ...FOUND, ...found }} {...{ earlier, draft }} readOnly={more.readOnly ?? false} />,
  ).container; // prettier-ignore
};
const ratios = () =>
  Object.fromEntries(
    [...screen.getByTestId("ratios").children].map((c) => [
      read(c.querySelector("dt")),
      read(c.querySelector("dd")),
    ]),
  );

describe("what the numbers decide", () => {
  it.each([
    ["pipe", "pipe", "Pipes"],
    ["pipe", "slice", "Pipes or slices"],
    ["spoon", "pipe", "Pipes or just spoons"],
    ["spoon", "slice", "Pipes between spoons and slices"],
  ] as const)("says how sure the set is, from %s to %s", (low_class, high_class, words) => {
    shown({ set: { ...SET, low_class, high_class } });
    expect(
      read(screen.getByTestId("set-class"))
        .replace(/why\?$/i, "")
        .replace(/[,:]/g, "")
        .trim(),
    ).toBe(words);
  });

  it("leaves out ratios of what is not in it, and says starch as corn where it counts as less", () => {
    shown();
    expect(Object.keys(ratios())).not.toContain("whole egg");
    expect(ratios()["yolk"]).toBe("120");
    expect(ratios()["fat %"]).toBe("8.2");
    cleanup();
    const potato = { ...PER, corn_starch_equivalent_g: 60, whole_egg_g: 50 };
    shown({
      per_1000_liquid: potato,
      taste_pct: { ...FOUND.taste_pct, cocoa: 3 },
    });
    const words = Object.keys(ratios()).join();
    expect(words).toMatch(/whole egg.*60.*cocoa/);
  });

  it("shows what has changed from the version before, from half a unit on", () => {
    const earlier = {
      per_1000_liquid: { ...PER, yolk_g: 100, sugar_g: 200.4, starch_g: 95.5 } as never,
    };
    shown({}, { earlier });
    expect([ratios()["yolk"], ratios()["sugar"], ratios()["starch"]]).toEqual([
      "120+20",
      "200",
      "90−5.5",
    ]);
  });

  it("says eggs to crack as a cook counts them", () => {
    const eggs = (crack: number, have: number) => {
      shown({ eggs: { crack, have } as never });
      const text = read(screen.getByTestId("eggs"));
      cleanup();
      return text;
    };
    expect(eggs(1, 1)).toMatch(/\b1 egg\b/);
    expect(eggs(5.5, 6)).toMatch(/\b5\.5 eggs.*6/);
    expect(eggs(4.02, 5)).toMatch(/\b4 eggs/);
  });

  it("says whites and air only where there are some", () => {
    expect(read(shown({ whites_left_g: 1 }))).not.toMatch(/white/);
    cleanup();
    shown({ whites_left_g: 120, whites_left_eggs: 4 });
    expect(read(screen.getByTestId("whites"))).toMatch(/4.*120 g/);
    cleanup();
    expect(read(shown({ mass_g: 500, volume_ml: 480, air_ml: 0.5 }))).not.toMatch(/air/);
    cleanup();
    expect(read(shown({ mass_g: 500, volume_ml: 900, air_ml: 420 }))).toMatch(/420 ml/);
  });

  it("says where the egg curdles, or that starch keeps it from it", () => {
    const text = (curdle_c: number | null) => {
      const found = read(shown({ coagulation: { onset_c: 74, curdle_c, spread_k: 2 } as never }));
      cleanup();
      return found;
    };
    expect(text(86)).toMatch(/74 °C.*86 °C/);
    expect(text(null)).not.toMatch(/86/);
    expect(text(null)).toMatch(/starch/i);
  });

  it("says a portion and its price, and that more is to come where lines are unknown", () => {
    const nutrition = { grams: 80, kcal: 221.6, kj: 927, fat_g: 9, carbohydrate_g: 30, sugars_g: 20, protein_g: 5, added_salt_g: 0 } as never; // prettier-ignore
    shown({ nutrition, portions: 6, cost: { portion: 0.84, without_price: [] } as never });
    expect(read(screen.getByTestId("portion"))).toMatch(/80 g.*222 kcal.*€ 0\.84$/);
    cleanup();
    shown({
      nutrition,
      portions: null,
      complete: false,
      cost: { portion: 0.84, without_price: ["hay"] } as never,
    });
    expect(read(screen.getByTestId("portion")).match(/so far/g)).toHaveLength(2);
    expect(read(screen.getByTestId("portion"))).toMatch(/^100 g/);
  });

  it("says what a cream does in the whisk instead of how it sets", () => {
    const whipped = {
      whips: true,
      fat_pct: 33,
      volume_ml: 900,
      stands_cold_h: 4,
      stands_h: 0.5,
    } as never;
    shown({ set: null, whipped });
    expect(read(screen.getByTestId("set-class")).trim()).toMatch(
      /Whips firm.*33.*4 h.*30 min.*20 °C/,
    );
    cleanup();
    shown({ set: null, whipped: { ...(whipped as object), whips: false } as never });
    expect(read(screen.getByTestId("set-class")).trim()).not.toMatch(/900/);
  });

  it("says that it has learned, and which way", () => {
    shown({ set: { ...SET, shift: -0.4, index: 3.4 } });
    expect(read(screen.getByTestId("learned-from"))).toMatch(/0\.4.*softer.*3\.4.*3\.8/);
    cleanup();
    shown({ set: { ...SET, shift: 0.4 } });
    expect(read(screen.getByTestId("learned-from"))).toMatch(/firmer/);
    cleanup();
    shown();
    expect(screen.queryByTestId("learned-from")).toBeNull();
  });

  it("asks once whether a starch cream is beaten, showing both until it is said", () => {
    shown();
    expect(read(screen.getByTestId("beaten"))).toMatch(/pipes.*spoons.*both/s);
    fireEvent.click(screen.getAllByRole("radio")[1] as HTMLElement);
    expect(change).toHaveBeenLastCalledWith({ beaten: "yes" });
    cleanup();
    shown({ set: { ...SET, beaten: true } }, { beaten: "yes", readOnly: true });
    expect(read(screen.getByTestId("beaten"))).not.toMatch(/both/);
    expect(
      screen.getAllByRole<HTMLInputElement>("radio").map((r) => [r.checked, r.disabled]),
    ).toEqual([
      [false, true],
      [true, true],
    ]);
    cleanup();
    shown({ set: { ...SET, beaten: false } });
    expect(screen.queryByTestId("beaten")).toBeNull();
  });

  it("shows every warning", () => {
    shown({ warnings: ["Too hot.", "Too sweet."] });
    expect(screen.getAllByTestId("warning").map(read)).toEqual(["Too hot.", "Too sweet."]);
  });
});

describe("where to stop cooking", () => {
  const cook = { low_c: 82, high_c: 84, never_c: 86, hold_s: 120 };
  it.each([
    ["nappe", /82.*84 °C.*86 °C/],
    ["boil_hold", /2 min|120 s/],
    ["double_boiler", /82.*84 °C/],
    ["bake", /82.*84 °C/],
    ["none", /nothing to cook/i],
  ] as const)("is said for what is cooked by %s", (mode, words) => {
    expect(endpoint({ ...cook, mode } as never, "metric").replaceAll("\u202f", " ")).toMatch(words);
  });
});
