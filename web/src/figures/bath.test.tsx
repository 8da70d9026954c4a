// @vitest-environment jsdom
import { cleanup, render } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";

import type { Shapes } from "@/api/client";
import { BathPlate } from "@/figures/bath";
import { hatched, marksOf, plateOf, strays, wordsOn } from "@/test/drawn";

afterEach(cleanup);

/** Six moulds of 90 mm in a pan of 400 × 300, and a seventh alone behind them. */
const TRAY = {
  pan: "roasting tin", length_mm: 400, width_mm: 300, depth_mm: 60, level_mm: 30, round: true,
  turned: false, mould_length_mm: 90, mould_width_mm: 90,
  centres: [60, 170, 280].flatMap((x) => [{ x, y: 60 }, { x, y: 170 }]).concat({ x: 60, y: 250 }),
} as Shapes["TrayOut"]; // prettier-ignore
const drawn = (tray: Partial<Shapes["TrayOut"]> = {}, deepMm = 45) =>
  plateOf(
    render(<BathPlate tray={{ ...TRAY, ...tray }} deepMm={deepMm} klass="slice" units="metric" />)
      .container,
  );

describe("the pan of the water bath", () => {
  it("has its moulds from above where the plan puts them, to one scale with the pan", () => {
    const plate = drawn();
    const pan = marksOf(plate, "rect[stroke-width='3']")[0];
    const moulds = marksOf(plate, "ellipse[fill='var(--paper)']");
    if (!pan) throw new Error("no pan");
    const per = (pan.right - pan.left) / 400;
    expect(pan.bottom - pan.top).toBeCloseTo(300 * per, 4);
    expect(moulds).toHaveLength(7);
    moulds.forEach((m, i) => {
      expect(((m.left + m.right) / 2 - pan.left) / per).toBeCloseTo(TRAY.centres[i]?.x ?? 0, 4);
      expect(((m.top + m.bottom) / 2 - pan.top) / per).toBeCloseTo(TRAY.centres[i]?.y ?? 0, 4);
      expect((m.right - m.left) / per).toBeCloseTo(90, 4);
    });
    expect(strays(plate)).toEqual([]);
    expect(wordsOn(plate)).toEqual(["400 mm", "300 mm", "water 30 mm deep"]);
  });

  it("cuts through its fullest row, with the water as high as it stands", () => {
    const plate = drawn();
    const row = marksOf(plate, "rect[fill='var(--paper)']");
    expect(row).toHaveLength(3);
    const water = hatched(plate, "cold").at(-1);
    const pan = marksOf(plate, "path[stroke-width='3']")[0];
    if (!water || !pan) throw new Error("no water");
    const deep = pan.bottom - pan.top;
    expect((water.bottom - water.top) / deep).toBeCloseTo(30 / 60, 5);
    expect(((row[0]?.bottom ?? 0) - (row[0]?.top ?? 0)) / deep).toBeCloseTo(45 / 60, 5);
  });

  it("turns its moulds where they are turned, and is dry where there is no water", () => {
    const long = { round: false, mould_length_mm: 120, mould_width_mm: 60 };
    const straight = marksOf(drawn(long), "rect[fill='var(--set-slice)']")[0];
    const turned = marksOf(drawn({ ...long, turned: true }), "rect[fill='var(--set-slice)']")[0];
    if (!straight || !turned) throw new Error("no moulds");
    expect(straight.right - straight.left).toBeCloseTo(turned.bottom - turned.top, 5);
    expect(turned.right - turned.left).toBeCloseTo((straight.right - straight.left) / 2, 5);
    const dry = drawn({ level_mm: 0 });
    expect(hatched(dry, "cold")).toEqual([]);
    expect(wordsOn(dry)).toEqual(["400 mm", "300 mm"]);
  });

  it("draws a mould deeper than the pan just over its rim", () => {
    const plate = drawn({}, 200);
    expect(strays(plate)).toEqual([]);
    const pan = marksOf(plate, "path[stroke-width='3']")[0];
    const mould = marksOf(plate, "rect[fill='var(--paper)']")[0];
    expect((pan?.top ?? 0) - (mould?.top ?? 0)).toBeCloseTo(6, 5);
  });
});
