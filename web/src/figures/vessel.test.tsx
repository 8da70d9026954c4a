// @vitest-environment jsdom
import { cleanup, render } from "@testing-library/react";
import fc from "fast-check";
import { afterEach, describe, expect, it } from "vitest";

import type { Shapes } from "@/api/client";
import { Tray, VesselSection } from "@/figures/vessel";
import { hatched, marksOf, plateOf, strays, wordsOn } from "@/test/drawn";

afterEach(cleanup);

const RAMEKIN = {
  vessel: "ramekin", top_mm: 90, bottom_mm: 80, depth_mm: 45, fill: 0.8, fills: 6, count: 6,
  per_vessel_ml: 120, short_ml: 0,
} as Shapes["FitOut"]; // prettier-ignore
const section = (fit: Partial<Shapes["FitOut"]> = {}) =>
  plateOf(
    render(<VesselSection fit={{ ...RAMEKIN, ...fit }} klass="slice" units="metric" />).container,
  );
const tray = (fit: Partial<Shapes["FitOut"]>) =>
  plateOf(render(<Tray fit={{ ...RAMEKIN, ...fit }} klass="slice" />).container);

describe("a vessel in section", () => {
  it("is as wide to its depth as it is, and filled as high as it is", () => {
    const plate = section();
    const [food] = hatched(plate, "slice");
    const wall = marksOf(plate, "path[stroke-width='3.2']")[0];
    if (!food || !wall) throw new Error("not drawn");
    expect((wall.right - wall.left) / (wall.bottom - wall.top)).toBeCloseTo(90 / 45, 5);
    expect((food.bottom - food.top) / (wall.bottom - wall.top)).toBeCloseTo(0.8, 5);
    expect(food.right - food.left).toBeCloseTo((88 / 90) * (wall.right - wall.left), 4);
    expect(wordsOn(plate)).toEqual(["45 mm", "90 mm", "120 ml each"]);
    expect(plate.getAttribute("aria-label")).toContain("36");
  });

  it("stays on its plate whatever its measures", () => {
    const mm = fc.integer({ min: 8, max: 600 });
    fc.assert(
      fc.property(mm, mm, mm, fc.double({ min: 0, max: 1, noNaN: true }), (top, bottom, deep, fill) => {
        const plate = section({ top_mm: top, bottom_mm: bottom, depth_mm: deep, fill });
        expect(strays(plate)).toEqual([]);
        cleanup();
      }),
      { numRuns: 40 },
    ); // prettier-ignore
  });
});

describe("the tray of vessels", () => {
  const full = (plate: SVGSVGElement) => hatched(plate, "slice").map((m) => m.bottom - m.top);
  const empty = (plate: SVGSVGElement) => plate.querySelectorAll("[stroke-dasharray]").length;

  it("shows every vessel wanted: full ones, the one that is part full, and the empty", () => {
    const plate = tray({ count: 6, short_ml: 210 }); // four full, one quarter
    const levels = full(plate);
    expect(levels).toHaveLength(5);
    expect(levels[4]).toBeCloseTo((levels[0] ?? 0) / 4, 4);
    expect(empty(plate)).toBe(1);
  });

  it("puts ten to a row and draws no more than thirty", () => {
    const tops = marksOf(tray({ count: 44 }), "path[stroke-width='1.3']").map((m) => m.bottom);
    expect(tops).toHaveLength(30);
    expect(new Set(tops.map((t) => t.toFixed(2))).size).toBe(3);
  });

  it("keeps vessels apart and on the plate, wide ones and tall ones", () => {
    const mm = fc.integer({ min: 15, max: 400 });
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 40 }), mm, mm, (count, top, deep) => {
        const plate = tray({ count, top_mm: top, bottom_mm: top * 0.9, depth_mm: deep });
        expect(strays(plate)).toEqual([]);
        const walls = marksOf(plate, "path[stroke-width='1.3']");
        walls.forEach((w, i) => {
          const next = walls[i + 1];
          if (next && Math.abs(next.top - w.top) < 1) expect(w.right).toBeLessThan(next.left);
        });
        cleanup();
      }),
      { numRuns: 40 },
    );
  });
});
