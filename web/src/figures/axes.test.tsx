// @vitest-environment jsdom
import { cleanup, render } from "@testing-library/react";
import { afterEach, expect, it } from "vitest";

import { Axes } from "@/figures/axes";
import { scale } from "@/figures/scale";

afterEach(cleanup);
const box = { left: 40, right: 10, top: 20, bottom: 30 };
const plot = {
  W: 400, H: 200, box, x: scale([0, 100], [40, 380]), y: scale([0, 50], [170, 20]),
  across: [{ at: 0, word: 0 }, { at: 100, word: "100 g" }], up: [{ at: 50, word: "50°" }],
}; // prettier-ignore

it("puts every tick where its value is and its word beside it", () => {
  const { container } = render(<svg><Axes {...plot} /></svg>); // prettier-ignore
  const words = [...container.querySelectorAll("text")];
  expect(words.map((w) => w.textContent)).toEqual(["0", "100 g", "50°"]);
  expect(words.map((w) => w.getAttribute("x"))).toEqual(["40", "380", "31"]);
  expect(words[2]?.getAttribute("y")).toBe("24.5");
  const [line, ...ticks] = [...container.querySelectorAll("path")].map((p) => p.getAttribute("d"));
  expect(line).toBe("M40 20 V170 H390");
  expect(ticks).toEqual(["M40 170 v5", "M380 170 v5", "M40 20 h-5"]);
});

it("keeps a word at its edge on the plate, the tick where it is", () => {
  const wide = { ...plot, across: [{ at: 100, word: "3:00:00" }], up: [] };
  const { container } = render(<svg><Axes {...wide} /></svg>); // prettier-ignore
  const word = container.querySelector("text");
  expect([word?.getAttribute("x"), word?.getAttribute("text-anchor")]).toEqual(["398", "end"]);
  expect(container.querySelectorAll("path")[1]?.getAttribute("d")).toBe("M380 170 v5");
});

it("is closed on all sides where it is a frame", () => {
  const { container } = render(<svg><Axes {...plot} framed /></svg>); // prettier-ignore
  expect(container.querySelector("path")?.getAttribute("d")).toBe("M40 20 V170 H390 V20 Z");
});
