// @vitest-environment jsdom
import { cleanup, fireEvent, render } from "@testing-library/react";
import fc from "fast-check";
import { afterEach, describe, expect, it, vi } from "vitest";

import type { Shapes } from "@/api/client";
import { Slice, SmallSlice } from "@/figures/slice";
import { hatched, marksOf, plateOf, strays, wordsOn } from "@/test/drawn";

afterEach(cleanup);

type Lain = Shapes["LainOut"];
const lain = (name: string, kind: Lain["kind"], from: number, to: number, more = {}): Lain =>
  ({
    name, kind, lies: "poured", from_mm: from, to_mm: to, mm: to - from, g_each: 100,
    width_mm: 180, top_width_mm: 190, walls: false, wall_mm: 0, over_mm: 0, ...more,
  }) as Lain; // prettier-ignore
const STAND = {
  name: "tart ring", cut: "whole", top_mm: 200, bottom_mm: 180, depth_mm: 40, top_of_build_mm: 50,
  cut_width_mm: 200,
} as Shapes["StandOut"]; // prettier-ignore
const LAYERS = [
  lain("Crust", "sweet", 0, 3, { walls: true, wall_mm: 3 }),
  lain("Pastry cream", "folded", 3, 30),
  lain("Meringue", "italian", 30, 50, { lies: "dome" }),
];
const built = (layers = LAYERS, stand: Partial<Shapes["StandOut"]> = {}) => ({
  layers,
  stand: { ...STAND, ...stand },
});
const choose = vi.fn();
const drawn = (build: Shapes["CutOut"], chosen: number | null = null) =>
  plateOf(render(<Slice {...{ build, chosen, choose }} units="metric" />).container);
const bodies = (plate: Element) => marksOf(plate, "path[fill^='var(--']:not([stroke])");

describe("the dessert cut open", () => {
  it("lies layer on layer to one scale, each as high as it is", () => {
    const plate = drawn(built());
    const [crust] = hatched(plate, "slice");
    const [cream] = hatched(plate, "pipe");
    if (!crust || !cream) throw new Error("not drawn");
    const per = (cream.bottom - cream.top) / 27;
    expect(crust.bottom - cream.bottom).toBeCloseTo(3 * per, 3);
    expect(cream.right - cream.left).toBeCloseTo(190 * per, 3);
    expect(strays(plate)).toEqual([]);
  });

  it("gives a lined crust its walls, up to the rim", () => {
    const plate = drawn(built());
    const crusts = hatched(plate, "slice");
    expect(crusts).toHaveLength(3); // the base and a wall at each side
    const rim = marksOf(plate, "path[stroke-dasharray='7 5']")[0];
    for (const wall of crusts.slice(1)) expect(wall.top).toBeCloseTo(rim?.top ?? NaN, 3);
    const bare = drawn(built([lain("Crust", "sweet", 0, 3)]));
    expect(hatched(bare, "slice")).toHaveLength(1);
  });

  it("names every layer beside it with its height and weight, and no label on another", () => {
    const thin = Array.from({ length: 7 }, (_, i) => lain(`Layer ${i + 1}`, "sponge", i, i + 1));
    const plate = drawn(built(thin));
    const words = wordsOn(plate);
    expect(words.filter((w) => w.startsWith("Layer"))).toHaveLength(7);
    expect(words).toContain("1 mm · 100 g");
    const ys = [...plate.querySelectorAll("text[font-size='14.5']")].map((t) =>
      Number(t.getAttribute("y")),
    );
    ys.slice(1).forEach((y, i) => expect((ys[i] ?? 0) - y).toBeGreaterThanOrEqual(21 - 1e-6));
    const long = wordsOn(drawn(built([lain("Toasted hay pastry cream", "folded", 0, 9)])));
    expect(long[0]).toBe("Toasted hay pastr…");
  });

  it("is chosen by its layer, and let go by the same", () => {
    const plate = drawn(built());
    const layers = [...plate.querySelectorAll("g.cursor-pointer")];
    fireEvent.click(layers[1] as Element);
    expect(choose).toHaveBeenLastCalledWith(1);
    cleanup();
    const again = drawn(built(), 1);
    const opacity = [...again.querySelectorAll("g.cursor-pointer")].map((g) =>
      g.getAttribute("opacity"),
    );
    expect(opacity).toEqual(["0.35", "1", "0.35"]);
    fireEvent.click([...again.querySelectorAll("g.cursor-pointer")][1] as Element);
    expect(choose).toHaveBeenLastCalledWith(null);
  });

  it("shows a wedge from its point to the rim, half of what is whole", () => {
    const wide = (plate: Element) => {
      const [cream] = hatched(plate, "pipe");
      return cream ? [cream.left, cream.right - cream.left, cream.bottom - cream.top] : [];
    };
    const [left, across = 0, tall = 1] = wide(
      drawn(built([...LAYERS], { cut: "wedges", cut_width_mm: 100 })),
    );
    expect(left).toBe(8);
    expect(across / tall).toBeCloseTo(95 / 27, 3);
    expect(wordsOn(plateOf(document.body)).join()).toContain("from the middle to the rim");
  });

  it("cuts a square out of a sheet no wider than the square", () => {
    const plate = drawn(
      built([lain("Cream", "folded", 0, 20)], { cut: "squares", cut_width_mm: 60 }),
    );
    const [cream] = hatched(plate, "pipe");
    expect(
      ((cream?.right ?? 0) - (cream?.left ?? 0)) / ((cream?.bottom ?? 0) - (cream?.top ?? 0)),
    ).toBeCloseTo(3, 3);
    expect(marksOf(plate, "path[stroke-dasharray='7 5']")).toEqual([]); // no mould is left about it
  });

  it("pipes swirls side by side, and lays a coat as thick over a dome as at its edge", () => {
    const plate = drawn(built([lain("Cream", "whipped", 0, 25, { lies: "swirls" })]));
    const swirls = hatched(plate, "spoon");
    expect(swirls.length).toBeGreaterThan(3);
    swirls.slice(1).forEach((s, i) => expect(s.left).toBeGreaterThan(swirls[i]?.right ?? 0));
    const coat = hatched(
      drawn(built([lain("Coat", "chocolate_coat", 10, 12, { over_mm: 6 })])),
      "nappe",
    )[0];
    expect(coat && coat.bottom > coat.top).toBe(true);
  });

  it("stays on its plate for any stand and any number of layers", () => {
    const mm = fc.integer({ min: 30, max: 400 });
    const cut = fc.constantFrom<Shapes["StandOut"]["cut"]>("whole", "wedges", "squares", "rings");
    const lies = fc.constantFrom<Lain["lies"]>("poured", "dome", "swirls", "sheet");
    fc.assert(
      fc.property(mm, fc.integer({ min: 5, max: 90 }), fc.integer({ min: 1, max: 9 }), cut, lies, (across, tall, many, way, how) => {
        const each = tall / many;
        const layers = Array.from({ length: many }, (_, i) =>
          lain(`L${i}`, "folded", i * each, (i + 1) * each, {
            width_mm: across, top_width_mm: across, lies: i === many - 1 ? how : "poured",
          }));
        const plate = drawn(built(layers, {
          cut: way, top_mm: across, bottom_mm: across, depth_mm: tall, top_of_build_mm: tall,
          cut_width_mm: way === "wedges" ? across / 2 : way === "squares" ? across / 3 : across,
        }));
        expect(strays(plate)).toEqual([]);
        cleanup();
      }),
      { numRuns: 40 },
    ); // prettier-ignore
  });
});

it("is the same cut on a card: as high as it is, within its square", () => {
  const layers = [
    { kind: "sweet", low_pct: 0, high_pct: 6 },
    { kind: "folded", low_pct: 6, high_pct: 30 },
  ] as Shapes["SliceLayer"][];
  const plate = plateOf(render(<SmallSlice layers={layers} size={80} />).container);
  const [crust, cream] = bodies(plate);
  if (!crust || !cream) throw new Error("not drawn");
  expect((cream.bottom - cream.top) / (crust.bottom - crust.top)).toBeCloseTo(4, 5);
  expect((cream.right - cream.left) / (cream.bottom - cream.top)).toBeCloseTo(100 / 24, 5);
  expect(strays(plate)).toEqual([]);
  cleanup();
  const tall = [{ kind: "folded", low_pct: 0, high_pct: 250 }] as Shapes["SliceLayer"][];
  expect(strays(plateOf(render(<SmallSlice layers={tall} size={80} />).container))).toEqual([]);
});
