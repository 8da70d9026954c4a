// @vitest-environment jsdom
import { cleanup, render } from "@testing-library/react";
import fc from "fast-check";
import { afterEach, describe, expect, it } from "vitest";

import type { Shapes } from "@/api/client";
import { BakeTime, endOf } from "@/figures/bake-time";
import { PotCurve } from "@/figures/pot-curve";
import { hatched, marksOf, plateOf, strays, wordsOn } from "@/test/drawn";

afterEach(cleanup);

const HEATS = [0, 60, 120, 300].map((t_s) => ({ t_s, temp_c: 20 + t_s / 4 }));
type Pot = Parameters<typeof PotCurve>[0];
const POT: Pot = {
  units: "metric", label: "the pot", predicted: [{ key: "pot", from_s: 0, points: HEATS }],
  zones: { thickens_c: 78, reach_c: 82, reach_word: "take off", never_c: 86 },
}; // prettier-ignore
const pot = (more: Partial<Pot> = {}) => plateOf(render(<PotCurve {...POT} {...more} />).container);
const level = (plate: Element, dash: string) =>
  marksOf(plate, `path[stroke-dasharray='${dash}']`)[0]?.top ?? NaN;

describe("the pot against time", () => {
  it("has its lines at their temperatures: thickens, then the one to reach, then never", () => {
    const plate = pot();
    const reach = marksOf(plate, "path[stroke='var(--burnt)']:not([stroke-dasharray])")[0];
    expect(level(plate, "2 5")).toBeGreaterThan(reach?.top ?? NaN);
    expect(reach?.top).toBeGreaterThan(level(plate, "8 4"));
    expect((level(plate, "2 5") - (reach?.top ?? 0)) / 4).toBeCloseTo(
      ((reach?.top ?? 0) - level(plate, "8 4")) / 4,
      4,
    );
    expect(hatched(plate, "over")[0]?.bottom).toBeCloseTo(level(plate, "8 4"), 4);
    const words = wordsOn(plate);
    expect(words).toContain("take off 82 °C");
    expect(words.some((w) => w.endsWith("86 °C"))).toBe(true);
  });

  it("has no line for what cannot be in this pot", () => {
    const zones = { thickens_c: 104, reach_c: null, reach_word: "", never_c: 105.5 };
    const plate = pot({ zones });
    expect(hatched(plate, "over")).toEqual([]);
    expect(plate.querySelectorAll("path[stroke-dasharray]")).toHaveLength(0);
  });

  it("breaks the prediction once there are readings, and ends them with a dot", () => {
    const line = (plate: Element) => plate.querySelector("path[stroke-width='1.8']");
    expect(line(pot())?.getAttribute("stroke-dasharray")).toBeNull();
    const plate = pot({ actual: HEATS.slice(0, 3) });
    expect(line(plate)?.getAttribute("stroke-dasharray")).toBe("5 5");
    const [dot, seen] = [
      marksOf(plate, "circle")[0],
      marksOf(plate, "path[stroke-width='2.6']")[0],
    ];
    expect(((dot?.left ?? 0) + (dot?.right ?? 0)) / 2).toBeCloseTo(seen?.right ?? NaN, 0);
    expect(((dot?.top ?? 0) + (dot?.bottom ?? 0)) / 2).toBeCloseTo(seen?.top ?? NaN, 0);
  });

  it("reaches to the latest of what is drawn", () => {
    const right = (more: Partial<Pot>) =>
      marksOf(pot(more), "path[stroke-width='1.8']")[0]?.right ?? 0;
    const alone = right({});
    expect(right({ ghost: [{ key: "g", from_s: 300, points: HEATS }] })).toBeLessThan(alone - 200);
    expect(right({ actual: [...HEATS, { t_s: 600, temp_c: 80 }] })).toBeLessThan(alone - 200);
  });

  it("leaves out cues and marks that would run into others", () => {
    const cues = [{ c: 50, word: "stir" }, { c: 51, word: "slower" }, { c: 81, word: "soon" }]; // prettier-ignore
    const words = wordsOn(pot({ cues }));
    expect(words.filter((w) => /stir|slower|soon/.test(w))).toEqual(["slower 51 °C"]);
    const marks = [{ at_s: 60, word: "boil" }, { at_s: 62, word: "eggs" }, { at_s: 299, word: "off" }]; // prettier-ignore
    const plate = pot({ marks });
    expect(wordsOn(plate).filter((w) => /boil|eggs|off$/.test(w))).toEqual(["boil", "off"]);
    const off = [...plate.querySelectorAll("text")].find((t) => t.textContent === "off");
    expect(off?.getAttribute("text-anchor")).toBe("end");
  });

  it("says a cue at the other edge where its line would run through the words", () => {
    const cues = [{ c: 30, word: "quiet" }, { c: 72, word: "soon" }]; // prettier-ignore
    const said = [...pot({ cues }).querySelectorAll("text")];
    const edge = (word: string) =>
      said.find((t) => t.textContent.startsWith(word))?.getAttribute("text-anchor");
    expect([edge("quiet"), edge("soon")]).toEqual(["end", "start"]);
    const x = (word: string) =>
      Number(said.find((t) => t.textContent.startsWith(word))?.getAttribute("x"));
    expect(x("soon")).toBeGreaterThan(x("take off") + 90);
  });

  it("stays on its plate for any pot", () => {
    const c = fc.double({ min: 0, max: 104, noNaN: true });
    const curve = fc.array(c, { minLength: 2, maxLength: 12 });
    fc.assert(
      fc.property(curve, fc.integer({ min: 1, max: 4000 }), c, (temps, each, reach_c) => {
        const points = temps.map((temp_c, i) => ({ t_s: i * each, temp_c }));
        const zones = { ...POT.zones, reach_c };
        const plate = pot({ predicted: [{ key: "p", from_s: 0, points }], actual: points, zones });
        expect(strays(plate)).toEqual([]);
        cleanup();
      }),
      { numRuns: 30 },
    );
  });
});

const BAKE = {
  curve: [0, 10, 20, 30, 40].map((t_min) => ({ t_min, centre_c: 5 + 2 * t_min, edge_c: 10 + 2 * t_min })),
  after: [30, 40, 50].map((t_min) => ({ t_min, centre_c: 60 + t_min / 10, edge_c: 60 })),
  pull_min: 30, pull_from_min: 26, pull_to_min: 33, pull_low_min: 22, pull_high_min: 90,
} as unknown as Shapes["BakeOut"]; // prettier-ignore
type Bake = Parameters<typeof BakeTime>[0];
const bake = (more: Partial<Bake> = {}) =>
  plateOf(
    render(<BakeTime found={BAKE} at={20} units="metric" label="bake" {...more} />).container,
  );

describe("a bake against time", () => {
  it("ends with what it does after the pull, and shows the oven only up to it", () => {
    expect(endOf(BAKE)).toBe(50);
    expect(endOf({ ...BAKE, after: [] })).toBe(40);
    expect(endOf({ ...BAKE, after: [], curve: [] })).toBe(60);
    const plate = bake();
    const [, before, after] = marksOf(plate, "path[stroke-width='1.4'], path[stroke-width='2.6']")
      .filter((m) => m.el.getAttribute("fill") === null)
      .filter((m) => m.el.getAttribute("stroke-width") === "2.6" || m.left > 48);
    expect(before?.right).toBeLessThanOrEqual((after?.left ?? 0) + 0.2);
  });

  it("has the pull as a band at its minutes, in the wider one of how sure it is", () => {
    const plate = bake();
    const window = hatched(plate, "over")[0];
    const sure = marksOf(plate, "rect[fill='var(--yolk)']")[0];
    if (!window || !sure) throw new Error("no window");
    expect(window.left).toBeGreaterThan(sure.left);
    expect(window.right).toBeLessThan(sure.right);
    const per = (640 - 60) / 50;
    expect(window.left).toBeCloseTo(48 + 26 * per, 3);
    expect(window.right - window.left).toBeCloseTo(7 * per, 3);
    expect(sure.right).toBeCloseTo(48 + 50 * per, 3); // no further than the plate
    expect(hatched(bake({ found: { ...BAKE, pull_from_min: null } }), "over")).toEqual([]);
  });

  it("has the minute looked at, the earlier forecast and the probe on the same clock", () => {
    const at = (minute: number) => marksOf(bake({ at: minute }), "circle")[0]?.left ?? 0;
    expect((at(40) - at(20)) / (at(20) - at(0))).toBeCloseTo(1, 5);
    const ghost = {
      ...BAKE,
      after: [60, 100].map((t_min) => ({ t_min, centre_c: 70, edge_c: 70 })),
    } as never;
    expect(at(40)).toBeGreaterThan(marksOf(bake({ at: 40, ghost }), "circle")[0]?.left ?? Infinity);
    const probe = [0, 25].map((t_min) => ({ t_min, temp_c: 30 }));
    expect(bake({ probe }).querySelectorAll("path[stroke-width='3']")).toHaveLength(1);
    expect(bake({ probe: probe.slice(1) }).querySelectorAll("path[stroke-width='3']")).toHaveLength(
      0,
    );
    expect(strays(bake({ probe, ghost, at: 40 }))).toEqual([]);
  });
});
