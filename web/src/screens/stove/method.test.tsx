// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import { ApiError } from "@/api/client";
import { asksMethod, Method } from "@/screens/stove/method";
import { field, has, type } from "@/test/page";

const bench = {
  units: "metric",
  kitchen: { rings: [{ id: "r1", name: "Left ring", rated_w: 2200 }] },
};
vi.mock("@/bench", () => ({ useBench: () => bench }));
vi.mock("@/screens/egg-grades", () => ({
  useEggGrades: () => [
    ["m", "M"],
    ["l", "L"],
  ],
}));
afterEach(cleanup);
beforeEach(() => {
  bench.units = "metric";
  bench.kitchen.rings = [{ id: "r1", name: "Left ring", rated_w: 2200 }];
  [set, setSchool, change].forEach((f) => f.mockClear());
});

const [set, setSchool, change] = [vi.fn(), vi.fn(), vi.fn()];
const CONTENT = {
  school: "hot_into_eggs", hot_c: 85, eggs_c: 18, ladle_ml: 120, held_back_ml: 250, egg_grade: "m",
  heat_setting_pct: 80, cook_setting_pct: 55, ring_id: "r1", target_c: 0, method: "",
}; // prettier-ignore
type Props = Parameters<typeof Method>[0];
const shown = (content: object = {}, more: Partial<Props> = {}) =>
  render(
    <Method
      content={{ ...CONTENT, ...content } as unknown as Props["content"]}
      {...{ setSchool, set, change }}
      {...{
        schoolFixed: false,
        fixed: false,
        problem: null,
        guide: "custard",
        aim: null,
        tempers: true,
        heated: true,
      }}
      {...more}
    />,
  );

describe("how a custard is cooked", () => {
  it("is asked in the kitchen’s units and kept in degrees and millilitres", () => {
    shown();
    expect([field(/liquid at/i).value, field(/eggs at/i).value, field(/ladle/i).value]).toEqual([
      "85",
      "18",
      "120",
    ]);
    type(/liquid at/i, "90");
    type(/ladle/i, "150");
    expect(set.mock.calls).toEqual([[{ hot_c: 90 }], [{ ladle_ml: 150 }]]);
    cleanup();
    set.mockClear();
    bench.units = "us";
    shown();
    expect([field(/liquid at/i).value, field(/eggs at/i).value, field(/ladle/i).value]).toEqual([
      "185",
      "64",
      "4.1",
    ]);
    type(/liquid at/i, "194");
    type(/ladle/i, "5");
    expect(set.mock.calls).toEqual([[{ hot_c: 90 }], [{ ladle_ml: 148 }]]);
  });

  it("refuses what cannot be at the field, and keeps it from the plan", () => {
    shown();
    type(/liquid at/i, "106");
    expect(screen.getByRole("alert").textContent).toMatch(/20.*105/);
    type(/eggs at/i, "-3");
    expect(set).not.toHaveBeenCalled();
  });

  it("asks for what its school needs and nothing else", () => {
    const asks = () => [has(/liquid at/i), has(/eggs at/i), has(/held back/i)];
    shown();
    expect(asks()).toEqual([true, true, false]);
    cleanup();
    shown({ school: "eggs_after_boil" });
    expect(asks()).toEqual([false, true, false]);
    cleanup();
    shown({ school: "held_back_liquid" });
    expect(asks()).toEqual([true, true, true]);
    cleanup();
    shown({}, { tempers: false });
    expect([...asks(), screen.queryByRole("radiogroup") !== null]).toEqual([
      true,
      false,
      false,
      false,
    ]);
  });

  it("goes in steps of what a cook measures by", () => {
    shown({ school: "held_back_liquid" });
    const up = (label: RegExp) => fireEvent.keyDown(field(label), { key: "ArrowUp" });
    up(/held back/i);
    up(/ladle/i);
    up(/heat, liquid|heat.*liquid/i);
    expect(set.mock.calls).toEqual([
      [{ held_back_ml: 275 }],
      [{ ladle_ml: 130 }],
      [{ heat_setting_pct: 85 }],
    ]);
  });

  it("changes the school on the cook’s word, until that is fixed", () => {
    shown();
    fireEvent.click(screen.getAllByRole("radio")[2] as HTMLElement);
    expect(setSchool).toHaveBeenCalledWith("held_back_liquid");
    cleanup();
    shown({}, { schoolFixed: true, fixed: true });
    expect(screen.getAllByRole<HTMLButtonElement>("radio").every((r) => r.disabled)).toBe(true);
    expect(field(/liquid at/i).disabled).toBe(true);
  });

  it.each([
    ["hot.temp_c", /liquid at/i],
    ["eggs_c", /eggs at/i],
    ["egg_grade", /eggs today/i],
    ["ring_id", /^ring$/i],
  ])("says what was refused of %s where it is asked", (name, label) => {
    shown({}, { problem: new ApiError(422, "It cannot be so.", name, null) });
    const said = screen.getAllByText("It cannot be so.");
    expect(said).toHaveLength(1);
    expect(field(label).getAttribute("aria-describedby")).toContain(said[0]?.id);
  });

  it("names the rings with their kilowatts, or says that there is none", () => {
    shown();
    expect(field(/^ring$/i).textContent.replaceAll("\u202f", " ")).toMatch(/Left ring.*2\.2 kW/);
    cleanup();
    bench.kitchen.rings = [];
    shown({ ring_id: null });
    expect(field(/^ring$/i).textContent).toMatch(/no ring/i);
  });
});

const CARAMEL = { usual_c: 172, low_c: 160, high_c: 190 };
describe("how a syrup is cooked", () => {
  it("goes to its own temperature unless the formula says another", () => {
    shown({}, { guide: "caramel", aim: CARAMEL });
    expect(field(/colour/i).value).toBe("172");
    cleanup();
    shown({ target_c: 165 }, { guide: "caramel", aim: CARAMEL });
    expect(field(/colour/i).value).toBe("165");
    type(/colour/i, "180");
    expect(change).toHaveBeenCalledWith({ target_c: 180 });
    type(/colour/i, "159");
    expect(change).toHaveBeenCalledTimes(1);
    cleanup();
    bench.units = "us";
    shown({}, { guide: "italian", aim: { usual_c: 118, low_c: 112, high_c: 125 } });
    expect(field(/to/i).value).toBe("244");
    type(/to/i, "248");
    expect(change).toHaveBeenLastCalledWith({ target_c: 120 });
  });

  it("asks for the school of a meringue and of nothing else", () => {
    shown({}, { guide: "french" });
    fireEvent.change(field(/meringue/i), { target: { value: "swiss" } });
    expect(change).toHaveBeenLastCalledWith({ method: "swiss" });
    cleanup();
    shown({}, { guide: "caramel", aim: CARAMEL });
    expect(has(/meringue/i)).toBe(false);
  });

  it("asks for no ring where nothing is heated, and for nothing of what is mixed cold", () => {
    shown({}, { guide: "french", heated: false });
    expect([has(/^ring$/i), has(/heat/i)]).toEqual([false, false]);
    expect([
      asksMethod("ganache", false),
      asksMethod("french", false),
      asksMethod("custard", false),
      asksMethod("roux", true),
    ]).toEqual([false, true, true, true]);
  });

  it("says what was refused of its temperature there", () => {
    shown(
      {},
      { guide: "caramel", aim: CARAMEL, problem: new ApiError(422, "Too hot.", "syrup_c", null) },
    );
    expect(field(/colour/i).getAttribute("aria-describedby")).toBe(screen.getByText("Too hot.").id);
  });
});
