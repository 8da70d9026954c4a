// @vitest-environment jsdom
import { cleanup, render } from "@testing-library/react";
import fc from "fast-check";
import { afterEach, describe, expect, it } from "vitest";

import type { Shapes } from "@/api/client";
import { SetMap, type MapBox, type MapPoint } from "@/figures/set-map";
import { marksOf, plateOf, strays, wordsOn } from "@/test/drawn";

afterEach(cleanup);

const ROWS = Array.from({ length: 21 }, (_, i) => 10 * i);
/** Starch it takes to coat, spoon, pipe, slice and stand: less, the more egg. */
const MAP = {
  plane: "starch_egg", classes: ["pour", "nappe", "spoon", "pipe", "slice", "unmould"],
  rows: ROWS, edges: [8, 16, 32, 56, 80].map((at) => ROWS.map((egg) => at - egg / 40)),
  x: 40, x_low: 34, x_high: 47, x_max: 100, x_word: "starch", y: 120, y_max: 200, y_word: "egg",
  guides: [{ axis: "y", at: 150, above: "richer" }, { axis: "x", at: 60, above: "sweeter" }],
} as unknown as Shapes["SetMap"]; // prettier-ignore
const SET = { class: "pipe", low_class: "spoon", high_class: "pipe" } as Shapes["SetOut"];
const drawn = (map: Partial<Shapes["SetMap"]> = {}, others: MapPoint[] = []) =>
  render(<SetMap map={{ ...MAP, ...map }} set={SET} others={others} />).container;
const point = (plate: Element) => marksOf(plate, "[data-testid='set-point']")[0];
const region = (plate: Element, klass: string) =>
  marksOf(plate, `[fill="var(--set-${klass})"]`)[0] ?? { left: NaN, right: NaN };

describe("the set map", () => {
  it("stands the formula where its ratios are, in the region of its class", () => {
    const plate = plateOf(drawn());
    const at = point(plate);
    if (!at) throw new Error("no point");
    const [x, y] = [(at.left + at.right) / 2, (at.top + at.bottom) / 2];
    const pipe = region(plate, "pipe");
    expect(x).toBeGreaterThan(pipe.left);
    expect(x).toBeLessThan(pipe.right);
    const frame = marksOf(plate, "path[stroke-width='1.4']")[0];
    if (!frame) throw new Error("no frame");
    expect((x - frame.left) / (frame.right - frame.left)).toBeCloseTo(40 / 100, 4);
    expect((frame.bottom - y) / (frame.bottom - frame.top)).toBeCloseTo(120 / 200, 4);
    expect(wordsOn(plate)).toContain("40");
    expect(plateOf(drawn()).getAttribute("aria-label")).toContain("starch");
  });

  it("lays its regions side by side without a gap, the thinnest at the left", () => {
    const plate = plateOf(drawn());
    const all = MAP.classes.map((k) => region(plate, k));
    all.slice(1).forEach((r, i) => expect(r.left).toBeLessThanOrEqual((all[i]?.right ?? 0) + 0.1));
    expect([...all].sort((a, b) => a.left - b.left)).toEqual(all);
    expect(strays(plate)).toEqual([]);
  });

  it("shows how sure it is as the starch at either end of the band", () => {
    const plate = plateOf(drawn());
    const frame = marksOf(plate, "path[stroke-width='1.4']")[0];
    const band = marksOf(plate, "path[stroke-width='2.4']")[0];
    if (!frame || !band) throw new Error("no band");
    const per = (frame.right - frame.left) / 100;
    expect((band.left - frame.left) / per).toBeCloseTo(34, 3);
    expect((band.right - frame.left) / per).toBeCloseTo(47, 3);
  });

  it("keeps what lies beyond the plane at its edge, and leaves no mark off the plate", () => {
    const far = fc.double({ min: 0, max: 5000, noNaN: true });
    fc.assert(
      fc.property(far, far, (x, y) => {
        const plate = plateOf(drawn({ x, y, x_low: Math.min(x, 100), x_high: Math.min(x, 100) }));
        expect(strays(plate)).toEqual([]);
        cleanup();
      }),
      { numRuns: 25 },
    );
  });

  it("shows a version as a ring with a line from the one before, a sibling as a square", () => {
    const at = (kind: MapPoint["kind"], x: number): MapPoint => ({ key: kind, name: kind, x, y: 60, kind }); // prettier-ignore
    const marks = (others: MapPoint[]) => {
      const plate = plateOf(drawn({}, others));
      return [
        plate.querySelectorAll("circle[r='6']").length,
        plate.querySelectorAll("rect[transform^='rotate(45']").length,
        plate.querySelectorAll("path[stroke-dasharray='2 5']").length,
      ];
    };
    expect(marks([])).toEqual([0, 0, 0]);
    expect(marks([at("version", 20)])).toEqual([1, 0, 0]);
    expect(marks([at("sibling", 20)])).toEqual([0, 1, 0]);
    expect(marks([at("before", 20)])).toEqual([1, 0, 1]);
    expect(marks([at("sibling", 300)])).toEqual([0, 0, 0]); // off the plane
    expect(marks([{ ...at("before", 40), y: 120 }])).toEqual([0, 0, 0]); // where it stands now
  });

  it("writes where a mix begins to eat differently, by height or by width", () => {
    const words = wordsOn(plateOf(drawn()));
    expect(words).toContain("richer ↑");
    expect(words).toContain("sweeter →");
  });

  it("hands its own measures to what is laid over it", () => {
    let box: MapBox | undefined;
    render(<SetMap map={MAP} set={SET} over={(b) => ((box = b), (<i />))} />);
    expect(box).toMatchObject({ width: 580, left: 62, right: 16 });
    expect(box?.height).toBe(Math.round(580 * 0.724));
  });

  it("leaves the word off a region too narrow for it, and stands it up in a narrow one", () => {
    const narrow = drawn({ edges: [1, 10, 60, 62, 64].map((at) => ROWS.map(() => at)) });
    const words = wordsOn(plateOf(narrow));
    expect(words).not.toContain("Pours");
    expect(words).not.toContain("Slices");
    const turned = [...narrow.querySelectorAll("g[transform*='rotate(-90)'] text")];
    expect(turned.map((t) => t.textContent)).toEqual(["Coats a spoon"]);
  });
});
