// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import type { Shapes } from "@/api/client";
import { Layers } from "@/screens/dessert/layers";
import { Times } from "@/screens/dessert/times";
import type { LayerSaved } from "@/screens/dessert/use-build";
import { read } from "@/test/page";

vi.mock("@/bench", () => ({ useBench: () => ({ units: "metric" }) }));
afterEach(cleanup);

const [choose, onLayers] = [vi.fn(), vi.fn()];
beforeEach(() => [choose, onLayers].forEach((f) => f.mockClear()));

const layer = (more: Partial<LayerSaved>): LayerSaved => ({
  part_id: null,
  item: "",
  fold: "",
  lies: null,
  value: null,
  walls: null,
  ...more,
});
const CRUST = layer({ part_id: "p1", lies: "lining", value: 3 });
const CREAM = layer({ part_id: "p2" });
const BERRIES = layer({ item: "160 g raspberries", lost_pct: 5 });
const lain = (mm: number, g_each: number, lies = "poured") => ({ mm, g_each, lies });
type Props = Parameters<typeof Layers>[0];
const shown = (more: Partial<Props> = {}) =>
  render(
    <Layers
      layers={[CRUST, CREAM, BERRIES]}
      dessert={
        {
          parts: [
            { id: "p1", name: "Sweet crust" },
            { id: "p2", name: "Pastry cream" },
          ],
        } as Props["dessert"]
      }
      folds={[{ name: "diplomat" }] as Props["folds"]}
      build={
        {
          layers: [lain(3, 180, "lining"), lain(25.4, 600), lain(12, 160, "grams")],
        } as unknown as Props["build"]
      }
      {...{ problem: null, chosen: null, readOnly: false, choose, onLayers }}
      {...more}
    />,
  );
const rows = () => within(screen.getByRole("list")).getAllByRole("listitem");
const given = () => onLayers.mock.calls.at(-1)?.[0] as LayerSaved[];

describe("the layers of a dessert", () => {
  it("are listed as they are seen, the top one first, each with how it lies", () => {
    shown();
    const text = rows().map(read);
    expect(text[0]).toMatch(/160 g raspberries.*12 mm · 160 g/);
    expect(text[1]).toMatch(/Pastry cream.*all of it.*25 mm · 600 g/i);
    expect(text[2]).toMatch(/Sweet crust.*lines the mould/i);
  });

  it("move up and down, and the hand stays on the one that moved", () => {
    shown({ chosen: 1 });
    fireEvent.click(screen.getByRole("button", { name: /^up/i }));
    expect(given()).toEqual([CRUST, BERRIES, CREAM]);
    expect(choose).toHaveBeenLastCalledWith(2);
    fireEvent.click(screen.getByRole("button", { name: /^down/i }));
    expect(given()).toEqual([CREAM, CRUST, BERRIES]);
    expect(choose).toHaveBeenLastCalledWith(0);
    fireEvent.click(screen.getByRole("button", { name: /take it out/i }));
    expect(given()).toEqual([CRUST, BERRIES]);
    cleanup();
    shown({ chosen: 2 });
    expect(screen.getByRole<HTMLButtonElement>("button", { name: /^up/i }).disabled).toBe(true);
  });

  it.each([
    ["grams", 600],
    ["mm", 25],
    ["share", 0.5],
    ["below_rim", 5],
    ["lining", 3],
    ["dusted", 8],
    ["poured", null],
  ])("begin with a likely measure when they come to lie as %s", (lies, value) => {
    shown({ chosen: 1 });
    fireEvent.change(screen.getByLabelText(/how it lies/i), { target: { value: lies } });
    expect(given()[1]).toMatchObject({ lies, value });
    expect([given()[0], given()[2]]).toEqual([CRUST, BERRIES]);
  });

  it("take a measure with a comma and keep what is no number from the build", () => {
    shown({ chosen: 0 });
    const measure = screen.getByLabelText<HTMLInputElement>(/measure/i);
    expect(measure.value).toBe("3");
    fireEvent.change(measure, { target: { value: "2,5" } });
    expect(given()[0]).toMatchObject({ lies: "lining", value: 2.5 });
    for (const wrong of ["thin", "-1", " "]) {
      fireEvent.change(measure, { target: { value: wrong } });
      expect(measure.getAttribute("aria-invalid")).toBe("true");
    }
    expect(onLayers).toHaveBeenCalledTimes(1);
    fireEvent.blur(measure);
    expect(measure.value).toBe(" "); // what was typed stays
  });

  it("ask what is lost only of what is bought, and for a measure only where there is one", () => {
    shown({ chosen: 2 });
    fireEvent.change(screen.getByLabelText(/peel/i), { target: { value: "12" } });
    expect(given()[2]).toMatchObject({ lost_pct: 12 });
    cleanup();
    shown({ chosen: 1 });
    expect([screen.queryByLabelText(/peel/i), screen.queryByLabelText(/measure/i)]).toEqual([
      null,
      null,
    ]);
  });

  it("are added on top: a part once more, a fold, something bought", () => {
    shown();
    const more = screen.getByLabelText(/once more/i);
    fireEvent.change(more, { target: { value: "p2" } });
    expect(given()[3]).toMatchObject({ part_id: "p2", item: "", fold: "" });
    fireEvent.change(more, { target: { value: "fold diplomat" } });
    expect(given()[3]).toMatchObject({ part_id: null, fold: "diplomat" });
    const add = screen.getByRole<HTMLButtonElement>("button", { name: "Add" });
    expect(add.disabled).toBe(true);
    fireEvent.change(screen.getByLabelText(/bought/i), {
      target: { value: " 160 g ladyfingers " },
    });
    fireEvent.click(add);
    expect(given()[3]).toMatchObject({ part_id: null, item: "160 g ladyfingers" });
  });

  it("say what is wrong at the layer it is about, and let a reader change nothing", () => {
    shown({
      problem: { field: "layers[1].value", message: "It runs over." },
      readOnly: true,
      chosen: 1,
    });
    expect(within(rows()[1] as HTMLElement).getByRole("alert").textContent).toBe("It runs over.");
    expect(screen.getAllByRole("alert")).toHaveLength(1);
    expect(screen.queryByRole("button", { name: /up|add|take/i })).toBeNull();
    expect(screen.getByLabelText<HTMLSelectElement>(/how it lies/i).disabled).toBe(true);
  });
});

describe("when everything must begin", () => {
  const change = vi.fn();
  const step = (key: string, part: string, ahead: string, more: object = {}) => ({
    key, part, ahead, words: `${key} it`, hands_min: 20, wait_min: 0, wait_low_min: 0, wait_high_min: 0, latest_min: 300,
    critical: false, own: false, source: "our estimate", after: [], ...more,
  }); // prettier-ignore
  const BUILD = {
    shortest_min: 305, critical: [], minded: ["The cream must be cold."], shorter: [{ key: "chill", saves_min: 60 }],
    steps: [
      step("line", "Crust", "day_before"), step("chill", "Crust", "day_before", { wait_min: 60, wait_low_min: 45, wait_high_min: 90 }),
      step("fill", "", "at_last", { critical: true, own: true, after: [{ key: "chill", at_least_min: 30, at_most_min: 600, why: "Cold shell." }] }),
    ],
  } as unknown as Shapes["BuildOut"]; // prettier-ignore
  const times = (overrules: object[] = [], readOnly = false) =>
    render(
      <Times
        build={BUILD}
        content={{ filling: "cold", meringue: "cold", overrules } as never}
        change={change}
        readOnly={readOnly}
      />,
    );
  const open = (key: string) => {
    fireEvent.click(screen.getByRole("button", { name: `${key} it` }));
    return screen.getByTestId("minutes");
  };
  beforeEach(() => change.mockClear());

  it("says how long the whole takes, what would shorten it, and what to mind", () => {
    times();
    expect(read(screen.getByTestId("shortest"))).toMatch(/5 h 05/);
    expect(read(screen.getByTestId("shorter"))).toMatch(/Crust.*chill it.*1 h/);
    expect(read(document.body)).toContain("The cream must be cold.");
  });

  it("puts each step under how far ahead it may be done, its part’s hands added up", () => {
    times();
    const slot = (name: RegExp) => read(screen.getByRole("heading", { name }).parentElement);
    expect(slot(/the day before/i)).toMatch(/Crust.*40 min.*line it → chill it 1 h/);
    expect(slot(/at the last/i)).toMatch(/the whole.*fill it.*ours/i);
    expect(slot(/two days/i)).toMatch(/nothing/i);
  });

  it("opens a step to where its minutes come from and what it waits for", () => {
    times();
    expect(read(open("chill"))).toMatch(/20 min.*1 h.*45 min.*1 h 30.*our estimate/);
    expect(read(open("fill"))).toMatch(/30 min.*10 h.*Cold shell\./);
    fireEvent.click(screen.getByRole("button", { name: "fill it" }));
    expect(screen.queryByTestId("minutes")).toBeNull();
  });

  it("takes this kitchen’s own minutes, one beside the other, and gives them back", () => {
    times([{ key: "line", hands_min: 9, wait_min: null }]);
    open("chill");
    fireEvent.change(screen.getByLabelText(/our wait/i), { target: { value: "75" } });
    expect(change).toHaveBeenLastCalledWith({
      overrules: [
        { key: "line", hands_min: 9, wait_min: null },
        { key: "chill", hands_min: null, wait_min: 75 },
      ],
    });
    expect(screen.queryByRole("button", { name: /as it was/i })).toBeNull();
    open("line");
    fireEvent.change(screen.getByLabelText(/our wait/i), { target: { value: "5" } });
    expect(change).toHaveBeenLastCalledWith({
      overrules: [{ key: "line", hands_min: 9, wait_min: 5 }],
    });
    fireEvent.click(screen.getByRole("button", { name: /as it was/i }));
    expect(change).toHaveBeenLastCalledWith({ overrules: [] });
  });

  it("leaves who only reads the reasons, not the fields", () => {
    times([], true);
    expect(read(open("chill"))).toMatch(/our estimate/);
    expect(screen.queryByLabelText(/our hands/i)).toBeNull();
  });
});
