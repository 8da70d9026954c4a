import { describe, expect, it } from "vitest";

import type { Shapes } from "@/api/client";
import { aligned, ghostOf, longest } from "@/screens/batch/align";
import { segments, topOf, zonesOf } from "@/screens/stove/plan-curve";

type Plan = Shapes["PlanOut"];
const timing = (key: string, entered_s: number, left_s: number) => ({ key, entered_s, left_s });
const curve = (...temps: number[]) => ({
  points: temps.map((temp_c, i) => ({ t_s: 10 * i, temp_c })),
  thickens_s: null,
  reaches_s: null,
  overshoot_k: 0,
});
const plan = (part: Partial<Plan>) =>
  ({
    heat: null,
    cook: null,
    temper_s: 0,
    steps: [],
    guide: "custard",
    ...part,
  }) as unknown as Plan;

describe("curves laid over each other", () => {
  it("takes the longest stay in a step that was gone back to, the first of two as long", () => {
    const timings = [timing("cook", 0, 5), timing("heat", 5, 9), timing("cook", 9, 60)];
    expect(longest(timings, "cook")?.entered_s).toBe(9);
    expect(longest([timing("cook", 1, 3), timing("cook", 5, 7)], "cook")?.entered_s).toBe(1);
    expect(longest(timings, "temper")).toBeUndefined();
  });

  it("begins each predicted curve where its step really began", () => {
    const found = aligned(plan({ heat: curve(5, 50), cook: curve(60, 98) }), [
      timing("heat", 30, 200),
      timing("cook", 320, 700),
    ]);
    expect(found.map((s) => [s.key, s.from_s])).toEqual([
      ["heat", 30],
      ["cook", 320],
    ]);
    expect(aligned(plan({ cook: curve(1, 2) }), [timing("heat", 0, 9)])).toEqual([]);
  });

  it("moves an earlier batch to the same step of this one, without what lay outside it", () => {
    const earlier = {
      timings: [timing("cook", 100, 130)],
      readings: [90, 100, 110, 130, 140].map((t_s) => ({ t_s, temp_c: t_s })),
    } as unknown as Shapes["BatchOut"];
    expect(ghostOf(earlier, [timing("cook", 500, 600)])).toEqual([
      {
        key: "cook",
        from_s: 500,
        points: [
          { t_s: 0, temp_c: 100 },
          { t_s: 10, temp_c: 110 },
          { t_s: 30, temp_c: 130 },
        ],
      },
    ]);
    expect(ghostOf(undefined, [])).toEqual([]);
  });
});

describe("a plan as one curve", () => {
  it("puts the tempering between the two heatings", () => {
    const found = segments(plan({ heat: curve(5, 40, 90), cook: curve(60, 98), temper_s: 45 }));
    expect(found.map((s) => s.from_s)).toEqual([0, 65]);
    expect(segments(plan({ cook: curve(60, 98), temper_s: 45 }))[0]?.from_s).toBe(0);
  });

  it("draws the line a step must not pass only for what is cooked, and shows room above it", () => {
    const step = {
      key: "cook",
      kind: "cook",
      low_c: 82,
      high_c: 84,
      never_c: 86,
      hold_s: 0,
      over: "curdling",
    };
    const zones = zonesOf(plan({ steps: [step] as never, thickens_c: 78 }));
    expect([zones.reach_c, zones.never_c, zones.never_word, zones.thickens_c]).toEqual([
      82,
      86,
      "curdling",
      78,
    ]);
    expect(topOf(plan({ steps: [{ ...step, high_c: 121 }] as never }))).toBe(131);
    expect(topOf(plan({ steps: [step] as never }))).toBe(106);
  });
});
