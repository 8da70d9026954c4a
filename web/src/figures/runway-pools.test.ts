import { describe, expect, it } from "vitest";

import type { Shapes } from "@/api/client";
import { poolsOf } from "@/figures/runway-pools";

const at = (minute: number) => new Date(minute * 60_000).toISOString();
const step = (
  start: number,
  hands: number,
  end: number,
  where: string[],
  oven_c: number | null = null,
) =>
  ({
    key: `${start}`,
    what: "",
    desserts: [],
    part: "",
    start: at(start),
    hands_end: at(hands),
    end: at(end),
    who: "a",
    where,
    oven_c,
    after: [],
    earliest: null,
    latest: null,
    held_until: at(hands),
    chilled_until: null,
    own_seen: 0,
    own_factor: 1,
    state: "to_do",
  }) satisfies Shapes["DayStepOut"];

describe("lanes of what there is several of", () => {
  it("puts what is in use at once side by side, and what follows into the same row", () => {
    const [rings] = poolsOf([
      step(0, 10, 10, ["ring"]),
      step(5, 15, 15, ["ring"]),
      step(10, 20, 20, ["ring"]),
    ]);
    expect(rings?.slots).toBe(2);
    expect(rings?.bars.map((bar) => bar.slot)).toEqual([0, 1, 0]);
  });

  it("lets a ring go when the pot is in the cold, and the cold when it comes out", () => {
    const pools = poolsOf([step(0, 20, 200, ["ring", "cold"])]);
    expect(pools.map((p) => [p.name, p.bars[0]?.to])).toEqual([
      ["Rings", 20],
      ["Cold", 200],
    ]);
    const boils = { ...step(0, 5, 60, ["ring"]), held_until: at(60) };
    expect(poolsOf([boils])[0]?.bars[0]?.to).toBe(60);
  });

  it("hands on from the chiller to the refrigerator", () => {
    const hot = step(0, 20, 200, ["ring", "blast chiller", "cold"]);
    const pools = poolsOf([{ ...hot, chilled_until: at(110) }]);
    expect(pools.map((p) => [p.name, p.bars[0]?.from, p.bars[0]?.to])).toEqual([
      ["Rings", 0, 20],
      ["Chiller", 20, 110],
      ["Cold", 110, 200],
    ]);
  });
});
