// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";

import type { Shapes } from "@/api/client";
import { Movable } from "@/figures/movable";

afterEach(cleanup);
const step = { key: "Flan/bake", what: "bake", state: "to_do" } as Shapes["DayStepOut"];

it("counts each stroke from the one before, though the plan still has it where it was", () => {
  const onPin = vi.fn<(key: string, minute: number) => void>();
  const at = (start: number, asking = true) => (
    <svg>
      <Movable
        step={step}
        start={start}
        perMinute={2}
        opacity={1}
        asking={asking}
        onChoose={() => 0}
        onPin={onPin}
      >
        <path />
      </Movable>
    </svg>
  );
  const view = render(at(600));
  const block = screen.getByRole("button");
  for (const key of ["ArrowRight", "ArrowRight", "ArrowRight", "ArrowLeft"])
    fireEvent.keyDown(block, { key });
  expect(onPin.mock.calls.map(([, minute]) => minute)).toEqual([605, 610, 615, 610]);
  view.rerender(at(605)); // the answer to the first stroke
  fireEvent.keyDown(block, { key: "ArrowRight" });
  expect(onPin).toHaveBeenLastCalledWith("Flan/bake", 615);
  view.rerender(at(615));
  fireEvent.keyDown(block, { key: "ArrowRight" });
  expect(onPin).toHaveBeenLastCalledWith("Flan/bake", 620);
  fireEvent.keyDown(block, { key: "Enter" });
  expect(onPin).toHaveBeenCalledTimes(6);
  view.rerender(at(615, false)); // the last stroke was refused: the plan has it where it was
  fireEvent.keyDown(block, { key: "ArrowRight" });
  expect(onPin).toHaveBeenLastCalledWith("Flan/bake", 620);
});

it("is chosen by either key that presses a button, and by no other", () => {
  const onChoose = vi.fn();
  render(
    <svg>
      <Movable
        step={step}
        start={600}
        perMinute={2}
        opacity={1}
        onChoose={onChoose}
        onPin={() => 0}
      >
        <path />
      </Movable>
    </svg>,
  );
  for (const [n, key] of ["Enter", " ", "a"].entries()) {
    fireEvent.keyDown(screen.getByRole("button"), { key });
    expect(onChoose).toHaveBeenCalledTimes(Math.min(n + 1, 2));
  }
});

it("begins from the plan again when it was left", () => {
  const onPin = vi.fn<(key: string, minute: number) => void>();
  render(
    <svg>
      <Movable step={step} start={600} perMinute={2} opacity={1} onChoose={() => 0} onPin={onPin}>
        <path />
      </Movable>
    </svg>,
  );
  const block = screen.getByRole("button");
  fireEvent.keyDown(block, { key: "ArrowLeft" });
  fireEvent.blur(block);
  fireEvent.keyDown(block, { key: "ArrowLeft" });
  expect(onPin.mock.calls.map(([, minute]) => minute)).toEqual([595, 595]);
});

it("follows the finger in steps of five minutes, and is pinned where it is let go", () => {
  const onPin = vi.fn<(key: string, minute: number) => void>();
  const onChoose = vi.fn();
  const view = render(
    <svg>
      <Movable step={step} start={600} perMinute={2} opacity={1} onChoose={onChoose} onPin={onPin}>
        <path />
      </Movable>
    </svg>,
  );
  const plate = view.container.querySelector("svg") as SVGSVGElement;
  Object.defineProperty(plate, "viewBox", { value: { baseVal: { width: 800 } } });
  Object.defineProperty(plate, "clientWidth", { value: 400 });
  const block = screen.getByRole("button");
  block.setPointerCapture = () => undefined;
  const at = (clientX: number) => new MouseEvent("pointermove", { bubbles: true, clientX });
  fireEvent(block, new MouseEvent("pointerdown", { bubbles: true, clientX: 100 }));
  fireEvent(block, at(121)); // 42 of the plate's own units: 21 minutes
  expect(block.getAttribute("transform")).toBe("translate(40 0)");
  fireEvent.pointerUp(block);
  expect(onPin.mock.calls).toEqual([["Flan/bake", 620]]);
  fireEvent(block, new MouseEvent("pointerdown", { bubbles: true, clientX: 100 }));
  fireEvent(block, at(102));
  fireEvent.pointerUp(block); // hardly moved: it was chosen
  expect([onPin.mock.calls.length, onChoose.mock.calls.length]).toEqual([1, 1]);
});
