// @vitest-environment jsdom
import { act, cleanup, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import type { Shapes } from "@/api/client";
import type { Draft } from "@/keep/draft";
import { MapHandle } from "@/screens/formula/map-handle";
import { AWAY, served, type Sent } from "@/test/page";

vi.mock("@/bench", () => ({ useBench: () => ({ kid: "k" }) }));
afterEach(cleanup);

const BOX = { width: 600, height: 400, left: 60, right: 40, top: 0, bottom: 50 };
const MAP = { x: 40, y: 120, x_max: 100, y_max: 200, y_word: "yolk, egg" } as Shapes["SetMap"];
type Content = { lines_text: string };
let sent: Sent[];
let draft: { content: Content; put: (part: Content) => void; amend: (part: Content) => void };
let kept: string[];
let answer: (asked: Sent) => unknown;
const onHold = vi.fn();

beforeEach(() => {
  kept = [];
  onHold.mockClear();
  const keep = (how: string) => (part: Content) => {
    kept.push(how);
    draft.content = { ...draft.content, ...part };
  };
  draft = { content: { lines_text: "was" }, put: keep("put"), amend: keep("amend") };
  let n = 0;
  answer = () => ({ lines: [`bent ${++n}`] });
  sent = served((asked) => answer(asked));
});
const handle = (fresh = true, map = MAP) => (
  <MapHandle box={BOX} family="pastry_cream" draft={draft as unknown as Draft} {...{ map, fresh, onHold }} />
); // prettier-ignore
const button = () => screen.getByRole("button");
const press = (key: string, shiftKey = false) => {
  fireEvent.keyDown(button(), { key, shiftKey });
  fireEvent.keyUp(button(), { key });
};
const wishes = () =>
  sent.map((s) => {
    const { starch_per_1000, egg_per_1000 } = (s.body as { wishes: Record<string, number | null> })
      .wishes;
    return [starch_per_1000, egg_per_1000];
  });
const settled = () => act(async () => await new Promise((done) => setTimeout(done, 0)));

describe("the point of the set map by its keys", () => {
  it.each([
    ["ArrowRight", false, [41, null]],
    ["ArrowLeft", false, [39, null]],
    ["ArrowUp", false, [null, 125]],
    ["ArrowDown", true, [null, 95]],
    ["ArrowRight", true, [45, null]],
  ])(
    "goes one step by %s (with shift: %s), and wishes only for what moved",
    async (key, shift, wish) => {
      render(handle());
      press(key, shift);
      await waitFor(() => expect(kept).toEqual(["put"]));
      expect(wishes()).toEqual([wish]);
      expect(draft.content).toEqual({ lines_text: "bent 1", family: "pastry_cream" });
    },
  );

  it("adds steps up while the answer is on its way, and is taken back as one", async () => {
    render(handle());
    fireEvent.keyDown(button(), { key: "ArrowRight" });
    fireEvent.keyDown(button(), { key: "ArrowRight" });
    fireEvent.keyDown(button(), { key: "ArrowUp" });
    await waitFor(() => expect(kept).toEqual(["put", "amend"]));
    expect(wishes()).toEqual([
      [41, null],
      [42, 125],
    ]);
    expect(onHold).toHaveBeenLastCalledWith({ starch: 42, egg: 125 });
    fireEvent.keyUp(button(), { key: "ArrowUp" });
    expect(onHold).toHaveBeenLastCalledWith(null);
  });

  it("waits for the map of the text as it stands before it counts from it", async () => {
    const view = render(handle(false));
    press("ArrowRight");
    await settled();
    expect(sent).toEqual([]);
    view.rerender(handle(true, { ...MAP, x: 50 }));
    await waitFor(() => expect(wishes()).toEqual([[51, null]]));
  });

  it("does not go under nought, and lets other keys be", async () => {
    render(handle(true, { ...MAP, x: 3 }));
    press("ArrowLeft", true);
    press("Enter");
    await waitFor(() => expect(wishes()).toEqual([[0, null]]));
  });

  it("gives way to what is typed meanwhile: the lines stay as typed", async () => {
    let give: (value: unknown) => void = () => undefined;
    answer = () => new Promise((done) => (give = done));
    render(handle());
    press("ArrowRight");
    draft.content = { lines_text: "typed" };
    give({ lines: ["bent"] });
    await settled();
    expect([kept, draft.content.lines_text]).toEqual([[], "typed"]);
    expect(onHold).toHaveBeenLastCalledWith(null);
  });

  it("goes back where nobody answers, and keeps the lines", async () => {
    answer = () => AWAY;
    render(handle());
    press("ArrowRight");
    await waitFor(() => expect(onHold).toHaveBeenLastCalledWith(null));
    expect([kept, draft.content.lines_text]).toEqual([[], "was"]);
  });
});

describe("the point of the set map by hand", () => {
  const at = (type: string, clientX: number, clientY: number) => {
    const event = new MouseEvent(type, { bubbles: true, clientX, clientY });
    fireEvent(button(), event);
  };
  const grab = () => {
    const view = render(handle());
    const plate = button().parentElement as HTMLElement;
    plate.getBoundingClientRect = () => ({ left: 30, top: 70, width: 600, height: 400 }) as DOMRect;
    let held = false;
    button().setPointerCapture = () => void (held = true);
    button().hasPointerCapture = () => held;
    return view;
  };

  it("stands over the point it moves", () => {
    render(handle());
    expect(button().style.left).toBe(`${(100 * (60 + 0.4 * 500)) / 600}%`);
    expect(button().style.top).toBe(`${(100 * (350 - 0.6 * 350)) / 400}%`);
  });

  it("goes by as much as the hand, wherever it was grabbed, and ignores a tremble across", async () => {
    grab();
    at("pointerdown", 300, 215); // ten to the right of the point
    at("pointermove", 350, 220); // fifty across: ten per 1000; five down: no more than a tremble
    await waitFor(() => expect(wishes()).toEqual([[50, null]]));
    expect(onHold).toHaveBeenCalledWith({ starch: 50, egg: 120 });
    at("pointerup", 350, 220);
    await settled();
    expect(onHold).toHaveBeenLastCalledWith(null);
  });

  it("moves only while it is held, and no further than the plane", async () => {
    grab();
    at("pointermove", 400, 100);
    await settled();
    expect(sent).toEqual([]);
    at("pointerdown", 290, 210);
    at("pointermove", 5000, -5000);
    await waitFor(() => expect(wishes()).toEqual([[100, 200]]));
  });
});
