// @vitest-environment jsdom
import { cleanup, render } from "@testing-library/react";
import fc from "fast-check";
import { afterEach, describe, expect, it } from "vitest";

import type { Shapes } from "@/api/client";
import { span, Thread } from "@/figures/thread";
import { marksOf, plateOf, strays, wordsOn } from "@/test/drawn";

afterEach(cleanup);

const step = (key: string, part: string, latest: number, hands: number, wait: number) => ({
  key,
  part,
  words: key,
  latest_min: latest,
  hands_min: hands,
  wait_min: wait,
});
const BUILD = {
  shortest_min: 300, critical: ["bake"],
  steps: [step("bake", "Shell", 300, 20, 40), step("cream", "Cream", 200, 30, 120), step("fill", "", 60, 15, 0)],
} as unknown as Shapes["BuildOut"]; // prettier-ignore
const drawn = (build: Partial<Shapes["BuildOut"]> = {}) =>
  plateOf(render(<Thread build={{ ...BUILD, ...build }} />).container);
const hands = (plate: Element) => marksOf(plate, "rect[height='18']");

it.each([
  [0, "0 min"],
  [59.4, "59 min"],
  [59.6, "1 h"],
  [65, "1 h 05"],
  [2879, "47 h 59"],
  [2880, "2 d"],
])("says %d minutes as a cook does", (minutes, words) => {
  expect(span(minutes).replaceAll("\u202f", " ")).toBe(words);
});

describe("the dessert’s own thread", () => {
  it("has every step in the lane of its part, the hands first and then the waiting", () => {
    const plate = drawn();
    const bars = hands(plate);
    const waits = marksOf(plate, "rect[height='6']");
    expect(bars).toHaveLength(3);
    expect(waits).toHaveLength(2); // the last needs none
    waits.forEach((w, i) => expect(w.left).toBeCloseTo(bars[i]?.right ?? NaN, 4));
    expect(new Set(bars.map((b) => b.top)).size).toBe(3);
    const names = wordsOn(plate);
    expect(names).toContain("Shell");
    expect(names).toContain("whole");
  });

  it("runs to the plate on the right, and gives the last minutes the most room", () => {
    const plate = drawn();
    const [bake, cream, fill] = hands(plate);
    if (!bake || !cream || !fill) throw new Error("no bars");
    const end = marksOf(plate, "path[stroke-width='3']")[0]?.left ?? 0;
    expect(end - fill.left).toBeCloseTo((end - bake.left) * Math.sqrt(60 / 300), 3);
    expect(end - cream.left).toBeCloseTo((end - bake.left) * Math.sqrt(200 / 300), 3);
  });

  it("inks what nothing can be later than, and says each step’s times", () => {
    const plate = drawn();
    expect(hands(plate).map((b) => b.el.getAttribute("fill"))).toEqual([
      "var(--burnt)", "var(--ink)", "var(--ink)",
    ]); // prettier-ignore
    const title = plate.querySelector("title")?.textContent.replaceAll("\u202f", " ");
    expect(title).toContain("20 min");
    expect(title).toContain("40 min");
  });

  it("stays on its plate from a quarter of an hour to days", () => {
    const n = fc.integer({ min: 0, max: 5000 });
    fc.assert(
      fc.property(fc.array(fc.tuple(n, n, n), { minLength: 1, maxLength: 8 }), (all) => {
        const steps = all.map(([h, w, rest], i) => step(`s${i}`, `p${i % 3}`, h + w + rest, h, w));
        expect(strays(drawn({ steps: steps as never, critical: [] }))).toEqual([]);
        cleanup();
      }),
      { numRuns: 30 },
    );
  });
});
