// @vitest-environment jsdom
import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import { BAKING } from "@/api/defaults";
import { ApiError } from "@/api/client";
import ColdScreen from "@/screens/cold/cold";
import { page, read } from "@/test/page";

const RULE = { from_c: 57, mid_c: 21, mid_min: 120, end_c: 5, end_min: 360 };
const bench = {
  kid: "k",
  units: "metric",
  canCook: true,
  kitchen: { name: "Weir House", colds: [] as object[], cool_rule: RULE },
};
const set = vi.fn();
let baking: object;
let cool: { data?: { found: object; vessel: object }; error?: unknown };
vi.mock("@/bench", () => ({ useBench: () => bench }));
vi.mock("@/api/queries", () => ({ useCool: () => cool }));
vi.mock("@/screens/place", () => ({
  CUSTARDS: () => true,
  Place: ({ show }: { show: (at: object) => object }) =>
    show({
      dessert: { id: "d", name: "Flan", parts: [{}] },
      part: { id: "p", kind: "cream", name: "" },
    }),
  PlaceHead: ({ problem }: { problem: Error | null }) => <p>{problem?.message}</p>,
  PartSelect: () => null,
  useBaking: () => ({ draft: {}, content: { baking }, set }),
}));
vi.mock("@/screens/formula/part", () => ({ partQuery: () => "" }));
vi.mock("@/screens/formula/saving", () => ({ ConflictDialog: () => null }));
vi.mock("@/screens/cold/label", () => ({
  Label: ({ keepDays, part }: { keepDays: number; part: string | null }) =>
    `keeps ${keepDays}, ${part ?? "whole"}`,
}));
afterEach(cleanup);

const FOUND = {
  complies: true, says: "In time.", to_21_min: 80, to_5_min: 300, cold_enough_min: 360, chill_h: [4, 6],
  can_be_stirred: true, ice_kg: null, release_s: null, keep_days: 3, reasons: [], warnings: [],
  depth_mm: 40, max_depth_mm: 50, curve: [{ t_min: 0, warmest_c: 80, mean_c: 80 }, { t_min: 300, warmest_c: 5, mean_c: 4 }],
}; // prettier-ignore
const VESSEL = { name: "tray", top_mm: 300, bottom_mm: 300, depth_mm: 65 };
beforeEach(() => {
  set.mockClear();
  baking = BAKING;
  cool = { data: { found: FOUND, vessel: VESSEL } };
  Object.assign(bench, { units: "metric", canCook: true });
  bench.kitchen.colds = [];
});
const shown = (found: object = {}) => {
  if (cool.data) cool.data.found = { ...FOUND, ...found };
  return page(<ColdScreen />).container;
};
const said = (word: RegExp) => {
  const dt = [...document.querySelectorAll("dt")].find((d) => word.test(read(d)));
  return dt ? read(dt.nextElementSibling) : null;
};

describe("the cold", () => {
  it("says whether it passes, and when it is through each gate", () => {
    shown();
    expect(read(screen.getByTestId("passes"))).toBe("Passes");
    expect([said(/21 °C/), said(/5 °C$/)]).toEqual(["80 min", "5 h 0 min"]);
    expect(said(/cuts/i)).toMatch(/6 h 0 min.*4–6/);
    cleanup();
    shown({ complies: false, to_21_min: null, to_5_min: null, cold_enough_min: null });
    expect(screen.getByTestId("passes").className).toContain("burnt");
    expect([said(/21 °C/), said(/5 °C$/), said(/cuts/i)]).toEqual([
      "never",
      "never",
      "never, here",
    ]);
  });

  it("never says sixty minutes beside the hours", () => {
    shown({ to_5_min: 119.6 });
    expect(said(/5 °C$/)).toBe("2 h 0 min");
    cleanup();
    shown({ to_5_min: 89.4 });
    expect(said(/5 °C$/)).toBe("89 min");
  });

  it("asks for ice and for letting go only where there is some", () => {
    shown();
    expect([said(/^ice/i), said(/let go/i)]).toEqual([null, null]);
    cleanup();
    shown({ ice_kg: 1.25, release_s: 24.6 });
    expect(said(/^ice/i)).toMatch(/1 250 g/);
    expect(said(/let go/i)).toMatch(/25 s.*60 °C/);
  });

  it("stirs over ice only what can be stirred", () => {
    baking = { ...BAKING, ice: "stirred" };
    shown();
    const ice = () => screen.getByLabelText<HTMLSelectElement>(/ice first/i);
    expect([ice().value, ice().options.length]).toEqual(["stirred", 3]);
    cleanup();
    shown({ can_be_stirred: false });
    expect([ice().value, ice().options.length]).toEqual(["still", 2]);
    fireEvent.change(ice(), { target: { value: "" } });
    expect(set).toHaveBeenLastCalledWith({ ice: "" });
  });

  it("is put away at a temperature in the kitchen’s degrees, kept in ours", () => {
    baking = { ...BAKING, put_away_c: 60 };
    bench.units = "us";
    shown();
    const field = screen.getByLabelText<HTMLInputElement>(/put away/i);
    expect(field.value).toBe("140");
    fireEvent.change(field, { target: { value: "149" } });
    expect(set).toHaveBeenLastCalledWith({ put_away_c: 65 });
    fireEvent.change(field, { target: { value: "213" } });
    expect(set).toHaveBeenCalledTimes(1);
  });

  it("goes into the kitchen’s first refrigerator unless another is chosen", () => {
    shown();
    const cold = () => screen.getByLabelText<HTMLSelectElement>(/refrigerator/i);
    expect(read(cold())).toMatch(/ordinary/);
    cleanup();
    bench.kitchen.colds = [
      { id: "c1", name: "Reach-in", air_c: 4 },
      { id: "c2", name: "Blast", air_c: -20 },
    ];
    shown();
    expect(cold().value).toBe("c1");
    expect(read(cold())).toMatch(/Reach-in, 4 °C/);
    fireEvent.change(cold(), { target: { value: "c2" } });
    expect(set).toHaveBeenLastCalledWith({ cold_id: "c2" });
  });

  it("shows nothing computed while a line is refused, and lets a reader change nothing", () => {
    cool.error = new ApiError(422, "How deep is it?", "lines", null);
    shown();
    expect(screen.queryByTestId("passes")).toBeNull();
    expect(read(document.body)).toContain("How deep is it?");
    cleanup();
    cool = { data: { found: FOUND, vessel: VESSEL } };
    bench.canCook = false;
    shown({ warnings: ["It sweats."] });
    expect(screen.getByLabelText<HTMLInputElement>(/put away/i).disabled).toBe(true);
    expect(read(document.body)).toContain("It sweats.");
    expect(read(document.body)).toContain("keeps 3, whole");
  });
});
