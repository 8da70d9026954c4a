import { describe, expect, it } from "vitest";

import { frameAt, type Frame } from "@/figures/frame";
import { massTicks, path, scale, tempTicks, ticks } from "@/figures/scale";

describe("a plate’s scale", () => {
  it("maps straight, also from one value alone", () => {
    const x = scale([20, 100], [0, 400]);
    expect([20, 60, 100, 110].map(x)).toEqual([0, 200, 400, 450]);
    expect(scale([5, 5], [10, 90])(5)).toBe(10);
    expect([20, 60, 100].map(scale([20, 100], [50, 450]))).toEqual([50, 250, 450]);
  });

  it("has round ticks, no more than asked, both ends counted", () => {
    expect(ticks(0, 100, 5, [10, 25, 50])).toEqual([0, 25, 50, 75, 100]);
    expect(ticks(13, 62, 5, [10, 25])).toEqual([20, 30, 40, 50, 60]);
    expect(ticks(0, 1000, 4, [10, 50]).at(-1)).toBe(1000); // the widest step there is
  });

  it("labels round degrees of the cook’s own scale", () => {
    expect(tempTicks(20, 106, "metric").map((t) => t.word)).toEqual([
      "20°", "40°", "60°", "80°", "100°",
    ]); // prettier-ignore
    const us = tempTicks(20, 106, "us");
    expect(us.map((t) => t.word)).toEqual(["80°", "120°", "160°", "200°"]);
    expect(us[0]?.at).toBeCloseTo(26.67, 2);
  });

  it("weighs in round grams or round ounces, never in two units", () => {
    expect(massTicks(1030, "metric").map((t) => t.word)).toEqual([
      0, 200, 400, 600, 800, 1000,
    ]); // prettier-ignore
    const us = massTicks(1030, "us");
    expect(us.map((t) => t.word)).toEqual([0, 8, 16, 24, 32]);
    expect(us[4]?.at).toBeCloseTo(907.2, 1);
    expect(massTicks(300, "us").map((t) => t.word)).toEqual([0, 2, 4, 6, 8, 10]);
    for (const most of [120, 300, 900, 2600, 6000, 25_000, 90_000, 400_000]) {
      const [, step = 0] = massTicks(most, "metric").map((t) => Number(t.word));
      expect(["1", "2", "5"], `${step}`).toContain(String(step).replace(/0+$/, ""));
    }
    const sack = massTicks(60_000, "us").map((t) => t.word);
    expect(sack).toEqual([0, 640, 1280, 1920]); // forty pounds
  });

  it("draws through its points in order", () => {
    expect(path([[0, 1], [2.26, 3]])).toBe("M0.0 1.0 L2.3 3.0"); // prettier-ignore
  });
});

describe("the cut-open mould between two frames", () => {
  const at = (t_min: number, temp: number, disc: number): Frame =>
    ({ t_min, out: t_min > 40, temp_c: [[temp, temp + 10]], set_pct: [[temp]], over_pct: [],
       unset_diameter_mm: disc }); // prettier-ignore
  const frames = [at(0, 20, 90), at(20, 60, 90), at(50, 90, 30)];

  it("is in proportion", () => {
    const found = frameAt(frames, 35);
    expect(found.temp_c).toEqual([[75, 85]]);
    expect(found.unset_diameter_mm).toBe(60);
    expect(found.out).toBe(false);
  });

  it("is the first before it begins and the last after it ends", () => {
    expect(frameAt(frames, -3)).toBe(frames[0]);
    expect(frameAt(frames, 99)).toBe(frames[2]);
    expect(frameAt(frames, 20).temp_c).toEqual([[60, 70]]);
  });
});
