// @vitest-environment jsdom
import { cleanup, render } from "@testing-library/react";
import fc from "fast-check";
import { afterEach, describe, expect, it } from "vitest";

import type { Shapes } from "@/api/client";
import { CutKey, CutMould, WobbleDisc, type See } from "@/figures/cut-mould";
import { hatched, marksOf, plateOf, strays, wordsOn, type Mark } from "@/test/drawn";

afterEach(cleanup);

type Case = Parameters<typeof CutMould>[0];
const grid = (at: (row: number, column: number) => number) =>
  Array.from({ length: 6 }, (_, i) => Array.from({ length: 8 }, (_, j) => at(i, j)));
/** Set from the wall inwards up to a column, and burnt at the rim's edge. */
const frame = (setTo: number, over = 0): Shapes["FrameOut"] => ({
  t_min: 30, out: false, unset_diameter_mm: 40,
  temp_c: grid((_, j) => 40 + 6 * j),
  set_pct: grid((_, j) => (j >= setTo ? 90 : 0)),
  over_pct: grid((i, j) => (i === 5 && j === 7 ? over : 0)),
}); // prettier-ignore
const RAMEKIN = { name: "ramekin", top_mm: 90, bottom_mm: 80, depth_mm: 50 } as Case["vessel"];
const CASE: Case = {
  left: { frame: frame(4), fillMm: 40 }, vessel: RAMEKIN, wallMm: 5, crustMm: 0, waterMm: 20,
  see: "set", puffs: false, units: "metric", label: "cut open",
}; // prettier-ignore
const cut = (changed: Partial<Case> = {}) =>
  plateOf(render(<CutMould {...CASE} {...changed} />).container);
const half = (marks: readonly Mark[], right: boolean) =>
  marks.filter((m) => (right ? m.left >= -1 : m.right <= 1));

describe("the mould cut open", () => {
  it("shows what has set where it has set, the same on both sides", () => {
    const plate = cut();
    const [liquid, set] = [hatched(plate, "pour"), hatched(plate, "unmould")];
    for (const right of [false, true]) {
      const [inner, outer] = [half(liquid, right)[0], half(set, right)[0]];
      if (!inner || !outer) throw new Error("a half is missing");
      const reach = (m: Mark) => Math.max(Math.abs(m.left), Math.abs(m.right));
      const least = (m: Mark) => Math.min(Math.abs(m.left), Math.abs(m.right));
      expect(least(inner)).toBeLessThan(1);
      expect(reach(inner) / reach(outer)).toBeGreaterThan(0.35);
      expect(reach(inner) / reach(outer)).toBeLessThan(0.55);
      expect(least(outer)).toBeGreaterThan(0.8 * reach(inner));
    }
  });

  it("fills as deep as it is filled, in a wall and a bath to the same scale", () => {
    const plate = cut();
    const shell = hatched(plate, "wall")[0];
    const set = hatched(plate, "unmould")[0];
    const water = hatched(plate, "cold")[0];
    if (!shell || !set || !water) throw new Error("not drawn");
    const per = (shell.right - shell.left) / 100;
    expect(shell.bottom - shell.top).toBeCloseTo(55 * per, 3);
    expect((set.bottom - set.top) / per).toBeCloseTo(40, 0);
    expect((water.bottom - water.top) / per).toBeCloseTo(20, 3);
    expect(shell.bottom - set.bottom).toBeCloseTo(5 * per, 0);
    expect(wordsOn(plate)).toEqual(["40 mm", "100 mm", "water"]);
    expect(hatched(cut({ waterMm: null }), "cold")).toEqual([]);
  });

  it("is overdone from two fifths, however well it has set", () => {
    expect(hatched(cut({ left: { frame: frame(4, 39), fillMm: 40 } }), "over")).toEqual([]);
    expect(hatched(cut({ left: { frame: frame(4, 100), fillMm: 40 } }), "over")).not.toEqual([]);
  });

  it.each([
    [2, "pour"],
    [4, "nappe"],
    [30, "spoon"],
    [60, "pipe"],
    [81, "unmould"],
  ])("of %d per cent set it is hatched as what does %s", (share, hatch) => {
    const even = { ...frame(0), set_pct: grid(() => share) };
    const plate = cut({ left: { frame: even, fillMm: 40 } });
    expect(half(hatched(plate, hatch), false)).toHaveLength(1);
  });

  it("shows heat by its lines: hotter outwards, never by what has set", () => {
    const plate = cut({ see: "heat" });
    const reaches = ["pour", "nappe", "spoon", "pipe", "unmould"].map((k) =>
      Math.max(...half(hatched(plate, k), true).map((m) => m.right)),
    );
    expect([...reaches].sort((a, b) => a - b)).toEqual(reaches);
  });

  it("rises where it puffs, and has another case beside it at its own depth", () => {
    const top = (plate: Element, right: boolean) =>
      Math.min(...half(hatched(plate, "unmould"), right).map((m) => m.top));
    const flat = top(cut(), true);
    expect(top(cut({ puffs: true }), true)).toBeLessThan(flat);
    const both = cut({ right: { frame: frame(4), fillMm: 20 } });
    expect(top(both, true)).toBeGreaterThan(top(both, false) + 10);
    expect(marksOf(both, "path[stroke-dasharray='6 4']")).toHaveLength(1);
    expect(marksOf(cut(), "path[stroke-dasharray='6 4']")).toHaveLength(0);
  });

  it("stays on its plate, in any vessel, with a crust or in a bath", () => {
    const mm = fc.integer({ min: 20, max: 350 });
    const deep = fc.integer({ min: 12, max: 120 });
    fc.assert(
      fc.property(mm, mm, deep, fc.boolean(), fc.boolean(), (top, bottom, depth, wet, crusted) => {
        const vessel = { ...RAMEKIN, top_mm: top, bottom_mm: bottom, depth_mm: depth };
        const plate = cut({
          vessel,
          left: { frame: frame(3), fillMm: depth * 0.8 },
          waterMm: wet ? depth / 2 : null,
          crustMm: crusted ? 3 : 0,
          puffs: true,
        });
        expect(strays(plate)).toEqual([]);
        cleanup();
      }),
      { numRuns: 25 },
    );
  });
});

it("names its swatches in their order, by set or by heat", () => {
  const words = (see: See) => {
    const { container } = render(<CutKey see={see} degrees={(c) => `${c}°`} />);
    return [...container.querySelectorAll("li")].map((li) => li.textContent);
  };
  expect(words("set")[0]).toBe("liquid");
  cleanup();
  const heat = words("heat");
  expect(heat[0]).toContain("45°");
  expect(heat.at(-1)).toContain("85°");
  expect(heat).toHaveLength(6);
});

describe("the disc that wobbles", () => {
  const disc = (discMm: number) =>
    plateOf(render(<WobbleDisc discMm={discMm} widthMm={100} units="metric" />).container);

  it("is as wide in its mould as it is loose", () => {
    const plate = disc(40);
    const [mould] = hatched(plate, "slice");
    const [loose] = hatched(plate, "pour");
    if (!mould || !loose) throw new Error("not drawn");
    expect((loose.right - loose.left) / (mould.right - mould.left)).toBeCloseTo(0.4, 5);
    expect(wordsOn(plate)[0]).toContain("40 mm");
    expect(strays(plate)).toEqual([]);
  });

  it("is none when nothing wobbles, and all of it at most", () => {
    expect(hatched(disc(0.5), "pour")).toEqual([]);
    expect(wordsOn(disc(0.5))).toEqual(["still"]);
    expect(wordsOn(disc(130))).toEqual(["all loose"]);
    expect(strays(disc(130))).toEqual([]);
  });
});
