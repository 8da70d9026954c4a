// @vitest-environment jsdom
import { cleanup, render } from "@testing-library/react";
import fc from "fast-check";
import { afterEach, describe, expect, it } from "vitest";

import type { Shapes } from "@/api/client";
import { ColdSection, TwoStages } from "@/figures/cooling";
import { hatched, inked, marksOf, plateOf, strays, wordsOn } from "@/test/drawn";

afterEach(cleanup);

const HOTEL = { name: "half hotel pan", top_mm: 325, bottom_mm: 300, depth_mm: 65 } as never;
const FALL = Array.from({ length: 49 }, (_, i) => ({
  t_min: i * 10, warmest_c: 4 + 76 * Math.exp(-i / 12), mean_c: 3 + 70 * Math.exp(-i / 10),
})); // prettier-ignore
const FOUND = {
  depth_mm: 40, max_depth_mm: 50, complies: true, says: "in time", curve: FALL,
  to_21_min: 90, to_5_min: 420,
} as unknown as Shapes["CoolOut"]; // prettier-ignore
const RULE = { from_c: 57, mid_c: 21, mid_min: 120, end_c: 5, end_min: 360 };

const section = (found: Partial<Shapes["CoolOut"]> = {}, ice = false, film = false) =>
  plateOf(
    render(
      <ColdSection found={{ ...FOUND, ...found }} vessel={HOTEL} {...{ ice, film }} units="metric" />,
    ).container,
  ); // prettier-ignore

describe("a container in section", () => {
  it("stands as deep as it is, under the line of the deepest that passes", () => {
    const plate = section();
    const food = hatched(plate, "pipe")[0];
    const wall = marksOf(plate, "path[stroke-width='3.2']")[0];
    const line = marksOf(plate, "path[stroke-dasharray='7 4']")[0];
    if (!food || !wall || !line) throw new Error("not drawn");
    const per = (wall.bottom - wall.top) / 65;
    expect((food.bottom - food.top) / per).toBeCloseTo(40, 4);
    expect((wall.bottom - line.top) / per).toBeCloseTo(50, 4);
    expect(hatched(plate, "over")).toEqual([]);
    expect(wordsOn(plate)).toEqual(["50 mm passes", "40 mm"]);
  });

  it("hatches what is too deep to pass, and says where no depth passes", () => {
    const over = hatched(section({ depth_mm: 60, complies: false }), "over")[0];
    const food = hatched(section({ depth_mm: 60, complies: false }), "pipe")[0];
    if (!over || !food) throw new Error("not drawn");
    expect((over.bottom - over.top) / (food.bottom - food.top)).toBeCloseTo(10 / 60, 4);
    expect(over.top).toBe(food.top);
    expect(wordsOn(section({ max_depth_mm: 0, complies: false }))[0]).toBe("no depth passes");
    expect(wordsOn(section({ max_depth_mm: 120 }))[0]).toBe("120 mm and more pass");
  });

  it("lays its film on the food and ice water around it, where there are any", () => {
    const plate = section({}, true, true);
    const food = hatched(plate, "pipe")[0];
    expect(marksOf(plate, "path[stroke-width='4']")[0]?.top).toBe(food?.top);
    expect(marksOf(plate, "rect[stroke='var(--cold)']")).toHaveLength(10);
    expect(wordsOn(plate)).toContain("film on it");
    expect(inked(section(), "cold")).toEqual([]);
  });

  it("stays on its plate at any depth", () => {
    const mm = fc.integer({ min: 1, max: 300 });
    fc.assert(
      fc.property(mm, mm, fc.boolean(), fc.boolean(), (depth_mm, max_depth_mm, ice, film) => {
        const complies = depth_mm <= max_depth_mm;
        expect(strays(section({ depth_mm, max_depth_mm, complies }, ice, film), 8)).toEqual([]);
        cleanup();
      }),
      { numRuns: 40 },
    );
  });
});

describe("the clock of the two stages", () => {
  const clock = (found: Partial<Shapes["CoolOut"]> = {}, rule = RULE) =>
    plateOf(
      render(<TwoStages found={{ ...FOUND, ...found }} rule={rule} units="metric" />).container,
    );
  const gates = (plate: SVGSVGElement) => marksOf(plate, "path[stroke='var(--burnt)']");

  it("opens its gates so long after the food fell under the rule’s first line", () => {
    const plate = clock();
    const [mid, , end] = gates(plate);
    const hours = [...plate.querySelectorAll("text")].filter((t) => t.textContent.endsWith(" h"));
    const at = (h: number) => Number(hours[h]?.getAttribute("x"));
    const perMin = (at(2) - at(0)) / 120;
    const start = FALL.find((p) => p.warmest_c <= 57)?.t_min ?? 0;
    expect(start).toBe(50);
    expect(((mid?.left ?? 0) - at(0)) / perMin).toBeCloseTo(start + 120, 3);
    expect(((end?.left ?? 0) - at(0)) / perMin).toBeCloseTo(start + 360, 3);
    expect(wordsOn(plate).filter((w) => w.includes("by here"))).toEqual([
      "21 °C by here",
      "5 °C by here",
    ]);
  });

  it("hangs its gates from the temperature that has to be passed", () => {
    const [mid, , end] = gates(clock());
    const none = gates(clock({}, { ...RULE, mid_c: 30 }));
    expect(mid?.bottom).toBeLessThan(end?.bottom ?? 0);
    expect(none[0]?.bottom).toBeLessThan(mid?.bottom ?? 0);
  });

  it("ends soon after the last gate, also where the food is never cold enough", () => {
    expect(strays(clock())).toEqual([]);
    for (const slower of [2, 9, 40]) {
      const warm = FALL.map((p) => ({ ...p, t_min: p.t_min * slower }));
      const plate = clock({ curve: warm, to_5_min: null, to_21_min: null });
      expect(strays(plate)).toEqual([]);
      cleanup();
    }
  });
});
