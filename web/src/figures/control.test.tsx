// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";

import type { Shapes } from "@/api/client";
import { ControlPlate } from "@/figures/control";
import { Curves } from "@/figures/curves";
import { LessonPlate } from "@/figures/lesson";
import { hatched, marksOf, plateOf, strays, wordsOn } from "@/test/drawn";

afterEach(cleanup);

type Point = Shapes["ChartPoint"];
const point = (id: string, set_s: number | null, more: Partial<Point> = {}): Point => ({
  id, set_s, at: "2026-03-01T10:00:00Z", faults: [], peak_c: 82, texture: "pipe", version: 1, ...more,
}); // prettier-ignore
const CHART = {
  faults: [], peak_limits: null, set_limits: { low: 3, high: 4 },
  points: [point("a", 3.5), point("b", 3.8), point("c", 4.6, { version: 2, faults: ["grainy"] })],
} as unknown as Shapes["ChartOut"]; // prettier-ignore
const open = vi.fn();
const chart = (more: Partial<Shapes["ChartOut"]> = {}) =>
  plateOf(
    render(<ControlPlate chart={{ ...CHART, ...more }} units="metric" open={open} />).container,
  );

describe("a dessert’s batches in order", () => {
  it("has each at how it came out, firmer higher, the oldest on the left", () => {
    const dots = marksOf(chart(), "circle");
    expect(dots).toHaveLength(3);
    dots.slice(1).forEach((d, i) => {
      expect(d.left).toBeGreaterThan(dots[i]?.left ?? 0);
      expect(d.bottom).toBeLessThan(dots[i]?.bottom ?? 0);
    });
  });

  it("marks what lies outside the ordinary spread, and what had faults", () => {
    const plate = chart();
    const dots = [...plate.querySelectorAll("circle")];
    expect(dots.map((d) => d.getAttribute("r"))).toEqual(["5", "5", "7"]);
    expect(dots.map((d) => d.getAttribute("fill"))).toEqual(["var(--paper)", "var(--paper)", "var(--burnt)"]); // prettier-ignore
    const band = hatched(plate, "slice")[0];
    const middle = marksOf(plate, "circle").map((d) => (d.top + d.bottom) / 2);
    expect(middle.map((y) => band && y > band.top && y < band.bottom)).toEqual([true, true, false]);
    const low = chart({ points: [point("a", 2.9)] });
    expect(low.querySelector("circle")?.getAttribute("r")).toBe("7");
    const edge = chart({ points: [point("a", 3), point("b", 4)] });
    expect([...edge.querySelectorAll("circle")].map((d) => d.getAttribute("r"))).toEqual([
      "5",
      "5",
    ]);
  });

  it("draws a line where the version changed, and leaves out what nobody judged", () => {
    const plate = chart({ points: [...CHART.points, point("d", null)] });
    expect(plate.querySelectorAll("circle")).toHaveLength(3);
    expect(plate.querySelectorAll("path[stroke-dasharray='2 3']")).toHaveLength(1);
    expect(wordsOn(plate).some((w) => w.includes("2"))).toBe(true);
  });

  it("opens a batch by hand and by key", () => {
    chart();
    const [first, second] = screen.getAllByRole("button");
    fireEvent.click(first as HTMLElement);
    fireEvent.keyDown(second as HTMLElement, { key: "Enter" });
    fireEvent.keyDown(second as HTMLElement, { key: "a" });
    expect(open.mock.calls).toEqual([["a"], ["b"]]);
    expect(first?.getAttribute("aria-label")).toContain("82");
  });

  it("stays on its plate with one batch, with none, and with a spread off the scale", () => {
    expect(strays(chart({ points: [] }))).toEqual([]);
    expect(strays(chart({ points: [point("a", 1)], set_limits: null }))).toEqual([]);
    expect(strays(chart({ set_limits: { low: -2, mean: 3, high: 9 } }))).toEqual([]);
  });
});

describe("the curves of a dessert over each other", () => {
  const curve = (id: string, best: boolean, faults: string[] = [], hot = 80) => ({
    id, best, faults, at: "2026-03-01T10:00:00Z", texture: "pipe", version: 1,
    points: [{ t_s: 0, temp_c: 20 }, { t_s: 300, temp_c: hot }],
  }) as Shapes["CurveOf"]; // prettier-ignore
  const drawn = (curves: Shapes["CurveOf"][]) =>
    plateOf(render(<Curves curves={curves} units="metric" open={open} />).container);

  it("inks the best one, breaks those with faults, and opens the one that is touched", () => {
    const plate = drawn([curve("a", false), curve("b", true), curve("c", false, ["lumps"])]);
    const lines = [...plate.querySelectorAll("path.cursor-pointer")];
    expect(lines.map((l) => l.getAttribute("stroke"))).toEqual([
      "var(--soft)",
      "var(--burnt)",
      "var(--ink)",
    ]);
    expect(lines.map((l) => l.getAttribute("stroke-dasharray"))).toEqual([null, "5 3", null]);
    fireEvent.click(lines[2] as Element);
    expect(open).toHaveBeenLastCalledWith("b");
    fireEvent.click(lines[1] as Element);
    expect(open).toHaveBeenLastCalledWith("c");
  });

  it("puts the hotter one higher on one clock, and says the temperatures at its lines", () => {
    const plate = drawn([curve("a", false, [], 80), curve("b", false, [], 90)]);
    const [cool, hot] = marksOf(plate, "path.cursor-pointer");
    expect(hot?.top).toBeLessThan(cool?.top ?? 0);
    expect(hot?.right).toBe(cool?.right);
    expect(wordsOn(plate).slice(0, 3)).toEqual(["20 °C", "55 °C", "90 °C"]);
    expect(strays(plate)).toEqual([]);
  });
});

describe("a learned value drawn", () => {
  const lesson = (more: Partial<Shapes["LessonOut"]> = {}) =>
    plateOf(
      render(
        <LessonPlate
          units="metric"
          lesson={
            { kind: "oven", mean: 8, sd: 4, value: 6, n: 3, seen: [5, 9, 10], ...more } as never
          }
        />,
      ).container,
    );
  const at = (plate: Element, what: string) => {
    const m = marksOf(plate, what)[0];
    return m ? (m.top + m.bottom) / 2 : NaN;
  };

  it("lies where it is from the books’ line, with its band about it, one dot to a batch", () => {
    const plate = lesson();
    const [books, mean] = [
      at(plate, "path[stroke-dasharray]"),
      at(plate, "path[stroke='var(--burnt)']"),
    ];
    const used = at(plate, "circle[r='4']");
    expect((books - used) / (books - mean)).toBeCloseTo(6 / 8, 4);
    const band = hatched(plate, "slice")[0];
    expect(mean - (band?.top ?? 0)).toBeCloseTo((books - mean) / 2, 4);
    expect(plate.querySelectorAll("circle[r='2.2']")).toHaveLength(3);
    expect(wordsOn(plate)).toEqual(["+25 K", "books", "−25 K"]);
  });

  it("counts a share from one, not from nought", () => {
    const plate = lesson({ kind: "pot", mean: 1.5, sd: 0.1, value: 1, seen: [] });
    expect(at(plate, "circle[r='4']")).toBeCloseTo(at(plate, "path[stroke-dasharray]"), 5);
    expect(at(plate, "path[stroke='var(--burnt)']")).toBeLessThan(at(plate, "circle[r='4']"));
  });

  it("shows no value where none is used, and nothing off its plate", () => {
    expect(lesson({ value: null }).querySelectorAll("circle[r='4']")).toHaveLength(0);
    for (const kind of [
      "ring",
      "loss",
      "pot",
      "oven",
      "film",
      "vent",
      "recovers",
      "set",
      "line",
    ] as const)
      expect(
        strays(lesson({ kind, mean: 400, sd: 90, value: -300, seen: [900, -900] }), 5),
      ).toEqual([]);
  });
});
