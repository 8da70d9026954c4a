import { describe, expect, it } from "vitest";

import type { Shapes } from "@/api/client";
import { say } from "@/say";
import { cuesOf, segments, topOf, zonesOf } from "@/screens/stove/plan-curve";

type Plan = Shapes["PlanOut"];
const point = (t_s: number, temp_c: number) => ({ t_s, temp_c });
const plan = (more: object): Plan =>
  ({
    guide: "custard",
    thickens_c: 78,
    temper_s: 60,
    heat: { points: [point(0, 5), point(300, 95)] },
    cook: { points: [point(0, 70), point(200, 83)] },
    steps: [
      { kind: "heat", low_c: 90, high_c: 95 },
      { kind: "cook", low_c: 82, high_c: 84, never_c: 86, over: "curdling", cues: [
        { from_c: 70, headline: "thickening" }] },
    ],
    ...more,
  }) as unknown as Plan; // prettier-ignore

describe("a plan’s curve", () => {
  it("stands one after the other, tempering between", () => {
    expect(segments(plan({})).map((s) => [s.key, s.from_s])).toEqual([["heat", 0], ["cook", 360]]); // prettier-ignore
    expect(segments(plan({ heat: null })).map((s) => s.from_s)).toEqual([0]);
    expect(segments(plan({ cook: null })).map((s) => s.key)).toEqual(["heat"]);
  });

  it("has the lines of the step everything turns on, and room above them", () => {
    const zones = zonesOf(plan({}));
    expect(zones).toMatchObject({
      thickens_c: 78,
      reach_c: 82,
      never_c: 86,
      never_word: "curdling",
    });
    expect(topOf(plan({}))).toBe(106);
    expect(cuesOf(plan({}))).toEqual([{ c: 70, word: "thickening" }]);
    const sugar = plan({
      guide: "syrup",
      steps: [{ kind: "cook", low_c: 170, high_c: 176, over: "" }],
    });
    expect(zonesOf(sugar)).toMatchObject({ thickens_c: null, reach_c: 170, never_c: null });
    expect(topOf(sugar)).toBe(186);
    const bake = plan({ steps: [{ kind: "bake", low_c: 76, high_c: 79, never_c: 90, over: "" }] });
    expect(zonesOf(bake).never_c).toBeNull(); // a bake is pulled, it never boils over
    expect(zonesOf(bake).reach_word).toBe(say("stove.pull_at"));
    expect(zones.reach_word).toBe(say("stove.there_at"));
  });
});
