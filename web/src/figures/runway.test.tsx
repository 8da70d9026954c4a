// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";

import type { Shapes } from "@/api/client";
import { dessertOf, Runway } from "@/figures/runway";
import { hatched, marksOf, plateOf, strays, wordsOn } from "@/test/drawn";

afterEach(cleanup);

type Step = Shapes["DayStepOut"];
const DAY = Date.UTC(2026, 2, 2, 8);
const at = (minute: number) => new Date(DAY + minute * 60_000).toISOString();
const epoch = (minute: number) => DAY / 60_000 + minute;
const step = (key: string, from: number, hands: number, to: number, more: Partial<Step> = {}): Step =>
  ({
    key, what: key.split("/")[1], start: at(from), hands_end: at(from + hands), end: at(to), who: "Runa",
    where: [], after: [], desserts: [], earliest: null, latest: null, oven_c: null, part: "",
    state: "to_do", ...more,
  }) as Step; // prettier-ignore
const FLAN = [
  step("Flan/mix", 0, 30, 30),
  step("Flan/bake", 40, 5, 100, { where: ["deck oven"], oven_c: 160, after: ["Flan/mix"] }),
];
const TART = [step("Tart/crust", 60, 45, 105, { who: "Odo", where: ["mixer"] })];
const PLAN = {
  steps: [...FLAN, ...TART],
  oven_lines: [
    { oven: "deck oven", points: [{ at: at(0), set_c: 160 }, { at: at(90), set_c: 180 }, { at: at(110), set_c: 180 }] },
    { oven: "spare", points: [] },
  ],
} as unknown as Shapes["DayOut"]; // prettier-ignore
type Props = Parameters<typeof Runway>[0];
const choose = vi.fn();
const drawn = (more: Partial<Props> = {}) =>
  plateOf(
    render(<Runway plan={PLAN} units="metric" chosen={null} choose={choose} {...more} />).container,
  );
const blocks = (plate: Element) => marksOf(plate, "rect[fill='var(--set-pipe)']");

describe("the runway", () => {
  it("has a lane for everybody’s hands, each oven that is used, and what is shared", () => {
    const words = wordsOn(drawn());
    const lanes = ["Odo", "Runa", "deck oven"].map((name) => words.indexOf(name));
    expect(lanes.every((n) => n >= 0)).toBe(true);
    expect([...lanes].sort((a, b) => a - b)).toEqual(lanes);
    expect(words).not.toContain("spare");
    expect(dessertOf(TART[0] as Step)).toBe("Tart");
  });

  it("puts each step at its time: as long as the hands take, and in the oven to its end", () => {
    const [mix, load, bake, crust] = blocks(drawn());
    if (!mix || !load || !bake || !crust) throw new Error("a block is missing");
    const perMin = (mix.right - mix.left) / 30;
    expect((load.left - mix.left) / perMin).toBeCloseTo(40, 3);
    expect(bake.left).toBeCloseTo(load.left, 5);
    expect((bake.right - bake.left) / perMin).toBeCloseTo(60, 3);
    expect((crust.left - mix.left) / perMin).toBeCloseTo(60, 3);
    expect(bake.top).toBeGreaterThan(mix.top);
    expect(crust.top).toBeLessThan(mix.top);
    expect(wordsOn(drawn())).toContain("160 °C");
  });

  it("draws the dial of an oven as the line it is, hotter higher", () => {
    const dial = marksOf(drawn(), "path[stroke='var(--burnt)'][stroke-width='1.8']")[0];
    const d = dial?.el.getAttribute("d") ?? "";
    const [first, , second] = [...d.matchAll(/(?:M\S+ |V)(-?[\d.]+)/g)].map((m) => Number(m[1]));
    expect(second).toBeLessThan(first ?? -Infinity);
  });

  it("draws what waits as a line from its end to what comes after it", () => {
    const waits = (steps: Step[]) =>
      marksOf(drawn({ plan: { ...PLAN, steps } }), "path[stroke^='color-mix']");
    expect(waits([...FLAN])).toHaveLength(1); // ten minutes from the mix to the oven
    const soon = step("Flan/bake", 39, 5, 100, { after: ["Flan/mix"] });
    expect(waits([FLAN[0] as Step, soon])).toEqual([]);
    const old = step("Flan/bake", 30 + 360, 5, 400, { after: ["Flan/mix"] });
    expect(waits([FLAN[0] as Step, old])[0]?.el.getAttribute("stroke")).toContain("50%");
  });

  it("fades the others and shows when its own may begin, once a dessert is touched", () => {
    const may = step("Flan/mix", 0, 30, 30, { earliest: at(-5), latest: at(20) });
    const plan = { ...PLAN, steps: [may, ...PLAN.steps.slice(1)] };
    const window = (plate: Element) => marksOf(plate, "path[stroke='var(--cold)']");
    expect(window(drawn({ plan }))).toEqual([]);
    const plate = drawn({ plan, chosen: "Flan" });
    const [bracket, block] = [window(plate)[0], blocks(plate)[0]];
    if (!bracket || !block) throw new Error("no bracket");
    const perMin = (block.right - block.left) / 30;
    expect((bracket.right - block.left) / perMin).toBeCloseTo(20, 3);
    expect((block.left - bracket.left) / perMin).toBeCloseTo(5, 3);
    expect(plate.querySelectorAll("[opacity='0.25']").length).toBeGreaterThan(0);
  });

  it("fades what the other desserts share as well", () => {
    const bars = (chosen: string | null) =>
      [...drawn({ chosen }).querySelectorAll("rect[stroke-width='0.6']")].map((r) =>
        r.getAttribute("opacity"),
      );
    expect(bars(null)).toEqual(["1"]); // the tart's mixer
    expect(bars("Tart")).toEqual(["1"]);
    expect(bars("Flan")).toEqual(["0.25"]);
  });

  it("is chosen by its block, and let go by it", () => {
    const pinnable = { onPin: vi.fn() };
    drawn(pinnable);
    fireEvent.pointerUp(screen.getAllByRole("button")[0] as HTMLElement);
    expect(choose).toHaveBeenLastCalledWith("Flan");
    for (const key of ["Enter", " "]) {
      fireEvent.keyDown(screen.getAllByRole("button")[2] as HTMLElement, { key });
      expect(choose).toHaveBeenLastCalledWith("Tart");
    }
    cleanup();
    drawn({ chosen: "Tart", ...pinnable });
    fireEvent.keyDown(screen.getAllByRole("button")[2] as HTMLElement, { key: "Enter" });
    expect(choose).toHaveBeenLastCalledWith(null);
    expect(pinnable.onPin).not.toHaveBeenCalled();
    cleanup();
    const plate = drawn(); // who may not move anything can still touch it
    fireEvent.click(marksOf(plate, "rect[fill='var(--set-pipe)']")[3]?.el as Element);
    expect(choose).toHaveBeenLastCalledWith("Tart");
  });

  it("moves only what is still to do, and marks what is pinned or done", () => {
    const states = (state: Step["state"]) => {
      const onPin = vi.fn();
      const plan = { ...PLAN, steps: [{ ...(FLAN[0] as Step), state }] };
      const plate = drawn({ plan, onPin });
      const block = screen.queryAllByRole("button")[0];
      if (block) fireEvent.keyDown(block, { key: "ArrowRight" });
      const marks = [
        plate.querySelectorAll("path[d*='m-4 -6']").length,
        plate.querySelectorAll("path[d*='l4 5']").length,
      ];
      cleanup();
      return [onPin.mock.calls.length, ...marks];
    };
    expect(states("to_do")).toEqual([1, 0, 0]);
    expect(states("pinned")).toEqual([1, 1, 0]);
    expect(states("begun")).toEqual([0, 0, 0]);
    expect(states("done")).toEqual([0, 0, 1]);
  });

  it("shows now only while the day lasts", () => {
    const now = (minute: number) =>
      wordsOn(drawn({ now: epoch(minute) })).some((w) => w.startsWith("now"));
    expect([now(-60), now(50), now(104), now(200)]).toEqual([false, true, true, false]);
  });

  it("takes out hours in which nothing is done, and stays on its plate", () => {
    const late = step("Tart/serve", 1500, 30, 1530);
    const plate = drawn({ plan: { ...PLAN, steps: [...PLAN.steps, late] } });
    expect(hatched(plate, "pour").length).toBeGreaterThan(0);
    expect(strays(plate)).toEqual([]);
    expect(strays(drawn())).toEqual([]);
    const shared = PLAN.steps.map((s) => ({ ...s, where: ["mixer"] }));
    expect(strays(drawn({ plan: { ...PLAN, steps: shared } }))).toEqual([]);
  });
});
