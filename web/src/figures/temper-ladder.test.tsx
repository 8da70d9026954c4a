// @vitest-environment jsdom
import { cleanup, render } from "@testing-library/react";
import fc from "fast-check";
import { afterEach, describe, expect, it } from "vitest";

import type { Shapes } from "@/api/client";
import { TemperLadder } from "@/figures/temper-ladder";
import { hatched, inked, marksOf, plateOf, strays, wordsOn } from "@/test/drawn";

afterEach(cleanup);

type Ladder = Shapes["Ladder"];
const rungs = (from: number, to: number, many: number, scramble: number) =>
  Array.from({ length: many }, (_, i) => ({
    added_g: ((i + 1) * 500) / many,
    mix_temp_c: from + ((to - from) * (i + 1)) / many,
    scramble_c: scramble + i,
    margin_k: 10,
  }));
const LADDER = {
  school: "hot_into_eggs", bowl_temp_c: 18, end_temp_c: 60, poured_temp_c: 85, scramble_c: 72,
  first_safe_g: 125, rungs: rungs(18, 60, 5, 72),
} as Ladder; // prettier-ignore
const drawn = (ladder: Partial<Ladder> = {}, more = {}) =>
  plateOf(
    render(<TemperLadder ladder={{ ...LADDER, ...ladder }} units="metric" {...more} />).container,
  );
const treads = (plate: Element) => marksOf(plate, "path[stroke-linecap='round']");

describe("the ladder of ladles", () => {
  it("has a rung for each ladle, each higher and further right, under the line of grains", () => {
    const plate = drawn();
    const steps = treads(plate);
    expect(steps).toHaveLength(5);
    steps.slice(1).forEach((s, i) => {
      expect(s.left).toBeGreaterThan(steps[i]?.left ?? 0);
      expect(s.top).toBeLessThan(steps[i]?.top ?? 0);
    });
    const grains = hatched(plate, "over")[0];
    expect(Math.min(...steps.map((s) => s.top))).toBeGreaterThan(grains?.bottom ?? Infinity);
    expect(wordsOn(plate)).toContain("scrambles from 72 °C");
  });

  it("has its rungs at what was poured and where the bowl then stands", () => {
    const plate = drawn();
    const across = [...plate.querySelectorAll("text[text-anchor='middle']")];
    const at = (word: string) =>
      Number(across.find((t) => t.textContent === word)?.getAttribute("x"));
    const [first, , , , last] = treads(plate);
    if (!first || !last) throw new Error("no rungs");
    const perG = (at("400") - at("0")) / 400;
    expect(((first.left + first.right) / 2 - at("0")) / perG).toBeCloseTo(100, 0);
    expect(((last.left + last.right) / 2 - at("0")) / perG).toBeCloseTo(500, 0);
  });

  it("marks what has been poured, and the next one heaviest of all", () => {
    const widths = (poured?: number) =>
      [...drawn({}, { poured }).querySelectorAll("path[stroke-linecap='round']")].map((p) =>
        Number(p.getAttribute("stroke-width")),
      );
    expect(widths()).toEqual([2.6, 2.6, 2.6, 2.6, 2.6]);
    expect(widths(2)).toEqual([5, 5, 6, 2.6, 2.6]);
    expect(widths(5)).toEqual([5, 5, 5, 5, 5]);
  });

  it("shows the first safe ladle only where there is one to mind", () => {
    const cold = (ladder: Partial<Ladder>) => hatched(drawn(ladder), "cold");
    const [band] = cold({});
    expect(band && band.right - band.left).toBeGreaterThan(50);
    expect(cold({ first_safe_g: 900 })).toEqual([]);
    expect(cold({ first_safe_g: 0 })).toEqual([]);
    expect(cold({ school: "held_back_liquid" })).toEqual([]);
    expect(wordsOn(drawn())).toContain("first ladle: up to 125 g");
  });

  it("says the pot where the eggs go into the pot, and that starch protects where it does", () => {
    expect(wordsOn(drawn()).some((w) => w.startsWith("bowl 18"))).toBe(true);
    const held = wordsOn(drawn({ school: "held_back_liquid" }));
    expect(held.some((w) => w.startsWith("pot 85"))).toBe(true);
    expect(wordsOn(drawn({ scramble_c: 100 })).join()).toContain("starch keeps the egg");
  });

  it("draws the probe where it is, while there is one", () => {
    const live = (c: number) => marksOf(drawn({}, { live: c }), "path[stroke-dasharray='2 4']")[0];
    expect(live(60)?.top).toBeLessThan(live(30)?.top ?? 0);
    expect(marksOf(drawn({}, { live: null }), "path[stroke-dasharray='2 4']")).toEqual([]);
    expect(inked(drawn(), "cold").length).toBe(1);
  });

  it("stays on its plate, and its labels apart, for any bowl and any ladles", () => {
    const c = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(c(2, 40), c(41, 99), c(60, 104), fc.integer({ min: 1, max: 30 }), (a, b, s, n) => {
        const plate = drawn({ bowl_temp_c: a, end_temp_c: b, scramble_c: s, rungs: rungs(a, b, n, s) });
        expect(strays(plate)).toEqual([]);
        const shown = [...plate.querySelectorAll("g[stroke-width='5'] text")];
        const xs = shown.map((t) => Number(t.getAttribute("x")));
        xs.slice(1).forEach((x, i) => expect(x - (xs[i] ?? 0)).toBeGreaterThan(42));
        cleanup();
      }),
      { numRuns: 30 },
    ); // prettier-ignore
  });
});
