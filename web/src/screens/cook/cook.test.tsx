// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import type { CookEvent } from "@/keep/outbox";
import Cook from "@/screens/cook/cook";
import { address, page, read } from "@/test/page";

const course = {
  live: undefined as object | undefined,
  away: false,
  waiting: [] as Partial<CookEvent>[],
  outbox: { add: vi.fn(), refused: null as string | null },
};
const call = vi.fn();
let batch: object;
vi.mock("@/api/queries", () => ({
  useKitchen: () => ({ data: { units: "metric" } }),
  useBatch: () => ({ data: batch }),
}));
vi.mock("@/screens/cook/live", () => ({ useCourse: () => course }));
vi.mock("@/screens/cook/call", () => ({
  useAwake: () => undefined,
  useCall: (...said: unknown[]) => void call(said),
  soundOn: () => false,
  setSound: () => undefined,
}));
vi.mock("@/screens/cook/others", () => ({ OtherPots: () => null }));
vi.mock("@/screens/cook/aside", () => ({ Aside: () => "aside", Ready: () => "what is ready" }));
vi.mock("@/screens/cook/bake-aside", () => ({ BakeAside: () => "the bake" }));
vi.mock("@/screens/cook/watched", () => ({ Watched: () => null }));
afterEach(cleanup);

const step = (key: string, kind = "cook", more: object = {}) => ({
  key, kind, title: `Do ${key}`, low_c: null, high_c: null, never_c: null, hold_s: 0, grams: 0, ...more,
}); // prettier-ignore
const STEPS = [
  step("ready", "ready"),
  step("heat", "heat"),
  step("temper", "temper"),
  step("cook"),
];
const MOMENT = { headline: "Stir", next_move: "slowly", urgency: "calm", figure: 60, figure_unit: "c", hold_left_s: null, done: false, to_target_s: null }; // prettier-ignore
const at = (key: string, more: object = {}) => ({
  step: key, rungs: 0, ended: false, paused: false, now_s: 65, marks: {}, timings: [], all: [],
  moment: MOMENT, probe_age_s: 1, probe_doubt: "", ...more,
}); // prettier-ignore
const shown = () => page(<Cook />, "/k/k/cook/b", "/k/:kid/cook/:batchId");
const moves = () =>
  course.outbox.add.mock.calls.map(([kind, more]) => [kind as string, more as object]);
const onward = () => fireEvent.click(screen.getByTestId("onward"));

beforeEach(() => {
  Object.assign(course, { live: at("heat"), away: false, waiting: [] });
  course.outbox.add.mockClear();
  course.outbox.refused = null;
  call.mockClear();
  batch = {
    id: "b", dessert: "Quince tart", whole: false, simulated: false, time_scale: 1, device: "p", timings: [],
    plan: { guide: "custard", steps: STEPS, ladder: { rungs: [{}, {}] }, pieces: [], curve: [], thickens_c: null, target_c: null, never_c: null, segments: [] },
  }; // prettier-ignore
});

describe("the cook, step by step", () => {
  it("goes on to the next step, by its button or by a key", () => {
    shown();
    expect(read(screen.getByTestId("onward"))).toContain("Do temper");
    onward();
    for (const key of [" ", "Enter", "ArrowRight"]) fireEvent.keyDown(document.body, { key });
    fireEvent.keyDown(document.body, { key: " ", repeat: true }); // a key held down is one move
    expect(moves()).toEqual(Array(4).fill(["step", { step: "temper" }]));
  });

  it("leaves a key to the button or field it was pressed on", () => {
    shown();
    fireEvent.keyDown(screen.getByTestId("onward"), { key: " " });
    fireEvent.click(screen.getByRole("button", { name: /type a reading|reading/i }));
    fireEvent.keyDown(screen.getByRole("textbox"), { key: "ArrowRight" });
    expect(moves()).toEqual([]);
  });

  it("goes back one step, but not from the first", () => {
    shown();
    fireEvent.keyDown(document.body, { key: "ArrowLeft" });
    expect(moves()).toEqual([["step", { step: "ready" }]]);
    cleanup();
    course.live = at("ready");
    shown();
    fireEvent.keyDown(document.body, { key: "ArrowLeft" });
    expect(moves()).toHaveLength(1);
    expect(screen.getByRole<HTMLButtonElement>("button", { name: /back/i }).disabled).toBe(true);
    expect(read(document.body)).toContain("what is ready");
    expect(screen.queryByRole("button", { name: /pause/i })).toBeNull();
  });

  it("counts ladles one by one before it leaves the bowl", () => {
    course.live = at("temper", { rungs: 1 });
    shown();
    expect(read(screen.getByTestId("onward"))).toMatch(/2 of 2/);
    onward();
    expect(moves()).toEqual([["ladle", { step: "temper", value: 2 }]]);
    cleanup();
    course.live = at("temper", { rungs: 2 });
    shown();
    onward();
    expect(moves().at(-1)).toEqual(["step", { step: "cook" }]);
  });

  it("stands where the moves have brought it that nobody has heard yet", () => {
    course.waiting = [{ kind: "step", step: "cook" }];
    shown();
    expect(document.querySelector("[title='Do cook']")?.getAttribute("aria-current")).toBe("step");
    expect(read(screen.getByTestId("onward"))).toMatch(/end/i);
    onward();
    expect(moves()).toEqual([["end", undefined]]);
    expect(read(screen.getByTestId("delivery"))).toMatch(/1 move/);
  });

  it("says that nobody answers, and what was refused before that", () => {
    course.away = true;
    shown();
    expect(read(screen.getByTestId("delivery"))).toMatch(/not answering/);
    cleanup();
    course.outbox.refused = "This cook has ended.";
    shown();
    expect(read(screen.getByRole("alert"))).toBe("This cook has ended.");
    expect(screen.queryByTestId("delivery")).toBeNull();
  });

  it("calls out what the server says of this step, and is calm while it is paused", () => {
    course.live = at("heat", { moment: { ...MOMENT, urgency: "now" } });
    shown();
    expect(call).toHaveBeenLastCalledWith(["Stir", "slowly", "now", false]);
    cleanup();
    course.live = at("heat", { moment: { ...MOMENT, urgency: "now" }, paused: true });
    shown();
    expect(call).toHaveBeenLastCalledWith(["Stir", "slowly", "calm", false]);
    fireEvent.click(screen.getByRole("button", { name: /go on/i }));
    expect(moves()).toEqual([["resume", undefined]]);
    cleanup();
    Object.assign(course, { live: at("heat"), waiting: [{ kind: "step", step: "cook" }] });
    shown(); // its words are of the step before
    expect(call).toHaveBeenLastCalledWith(["", "", "calm", false]);
  });

  it("goes to the book once it has ended and all is delivered", async () => {
    Object.assign(course, {
      live: at("cook", { ended: true }),
      waiting: [{ kind: "typed", value: 80 }],
    });
    const view = shown();
    expect(address()).toBe("/k/k/cook/b");
    onward();
    expect(moves()).toEqual([]);
    course.waiting = [];
    view.again(<Cook />);
    await waitFor(() => expect(address()).toBe("/k/k/book/b"));
  });

  it("says what it is: a rehearsal’s pace, a build, a bake", () => {
    Object.assign(batch, { simulated: true, time_scale: 8 });
    shown();
    expect(read(document.querySelector("header"))).toMatch(/1:05.*×8/);
    cleanup();
    Object.assign(batch, {
      plan: { ...(batch as { plan: object }).plan, guide: "bake", steps: [step("bake", "bake")] },
    });
    course.live = at("bake");
    shown();
    expect(read(document.querySelector("main"))).toContain("the bake");
  });
});
