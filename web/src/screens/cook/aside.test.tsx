// @vitest-environment jsdom
import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import type { Watch } from "@/screens/cook/live";
import { Aside, Ready } from "@/screens/cook/aside";
import { BakeAside } from "@/screens/cook/bake-aside";
import { OtherPots } from "@/screens/cook/others";
import { TypedReading } from "@/screens/cook/typed";
import { Watched } from "@/screens/cook/watched";
import { field, page, press, read, served, type } from "@/test/page";

const call = vi.fn();
let going: object[];
vi.mock("@/screens/cook/call", () => ({ useCall: (...said: unknown[]) => void call(said) }));
vi.mock("@/api/queries", () => ({ useGoing: () => ({ data: going }) }));
afterEach(cleanup);
beforeEach(() => {
  localStorage.clear();
  call.mockClear();
  going = [];
});

const place = (words: string[], grams = 100) => ({
  words,
  us_words: words.map((w) => `${w} (us)`),
  grams,
});
const batch = (plan: object = {}) =>
  ({
    id: "b1",
    dessert: "Flan",
    plan: {
      guide: "custard",
      pot: place(["1 l milk"], 1030),
      bowl: place(["9 yolks"]),
      finish: place([]),
      checks: ["sieve", "ice"],
      ladder: {
        whisk_within_s: 60,
        rungs: [
          { added_g: 100, mix_temp_c: 40 },
          { added_g: 200, mix_temp_c: 55 },
        ],
      },
      ...plan,
    },
  }) as never;
const STEP = {
  key: "ready",
  kind: "ready",
  title: "Everything within reach",
  avoid: "Cold bowls crack.",
  sign: "It coats.",
  caution: "",
} as never;

describe("before the heat", () => {
  const onSugar = vi.fn();
  const shown = (more: Partial<Parameters<typeof Ready>[0]> = {}) =>
    page(
      <Ready
        batch={batch()}
        step={STEP}
        units="metric"
        sugarAt={null}
        now={100}
        onSugar={onSugar}
        {...more}
      />,
    );

  it("says what goes where, only the places that have something, as this kitchen measures", () => {
    shown();
    expect(read(document.body)).toMatch(/pot.*1 l milk.*1 030 g.*bowl.*9 yolks/is);
    expect(read(document.body)).not.toMatch(/at the end/i);
    cleanup();
    shown({ units: "us" });
    expect(read(document.body)).toContain("1 l milk (us)");
    cleanup();
    shown({ batch: batch({ guide: "bake" }) });
    expect(read(document.body)).toMatch(/moulds/i);
  });

  it("keeps what was checked off in this tablet, counted", () => {
    shown();
    fireEvent.click(screen.getByRole("checkbox", { name: "ice" }));
    expect(read(screen.getByRole("heading", { level: 3 }))).toMatch(/1 of 2/);
    cleanup();
    shown();
    expect(screen.getByRole("checkbox", { name: "ice" }).getAttribute("aria-checked")).toBe("true");
    fireEvent.click(screen.getByRole("checkbox", { name: "ice" }));
    expect(read(screen.getByRole("heading", { level: 3 }))).toMatch(/0 of 2/);
  });

  it("counts the minute since the sugar met the yolks, and is loud when it is over", () => {
    shown();
    press(/sugar is on/i);
    expect(onSugar).toHaveBeenCalledOnce();
    const clock = (sugarAt: number) => {
      cleanup();
      shown({ sugarAt });
      return screen.getByTestId("sugar-clock");
    };
    expect(read(clock(70.5))).toMatch(/31 s/);
    expect(clock(70.5).className).toBe("");
    expect(clock(40).className).toBe("");
    expect(read(clock(39.9))).toMatch(/over a minute/i);
    expect(clock(39.9).className).toContain("burnt");
    cleanup();
    shown({ batch: batch({ ladder: null }) });
    expect(screen.queryByRole("button", { name: /sugar/i })).toBeNull();
  });
});

describe("beside the figure", () => {
  it("is the ladder while it is tempered, with the next ladle or the way back", () => {
    const shown = (rungs: number, live?: object) => {
      page(
        <Aside
          kid="k"
          batch={batch({
            ladder: {
              school: "hot_into_eggs",
              bowl_temp_c: 18,
              scramble_c: 72,
              first_safe_g: 0,
              end_temp_c: 55,
              poured_temp_c: 80,
              rungs: [
                { added_g: 100, mix_temp_c: 40, scramble_c: 73 },
                { added_g: 200, mix_temp_c: 55, scramble_c: 74 },
              ],
            },
          })}
          step={{ ...(STEP as object), kind: "temper" } as never}
          live={live as Watch | undefined}
          units="metric"
          rungs={rungs}
        />,
      );
      const text = read(document.body);
      cleanup();
      return text;
    };
    expect(shown(1)).toMatch(/200 g.*55 °C/);
    expect(shown(2)).toMatch(/back to the pot/i);
    expect(shown(1, { moment: { figure: 30 }, poured_g: -4 })).toMatch(/0 g/);
    expect(shown(1, { moment: { figure: 30 }, poured_g: null })).not.toMatch(/scale/i);
  });

  it("is what to look for otherwise, and a way out that lets the cook go on", () => {
    page(
      <Aside
        kid="k"
        batch={batch()}
        step={{ ...(STEP as object), kind: "cook", caution: "Mind the rim." } as never}
        live={undefined}
        units="metric"
        rungs={0}
      />,
    );
    expect(read(document.body)).toMatch(/It coats\.Cold bowls crack\.Mind the rim\./);
    expect(screen.getByRole("link").getAttribute("href")).toBe("/k/k");
  });

  it("is the window of a bake where it is thought now, and every look that was told", () => {
    const add = vi.fn();
    const step = { key: "cook", from_s: 1800, to_s: 2400, sign: "", avoid: "" } as never;
    const shown = (live: object) =>
      page(
        <BakeAside
          kid="k"
          batch={batch()}
          step={step}
          live={
            {
              timings: [{ key: "cook", entered_s: 100 }],
              now_s: 700,
              marks: {},
              refit: null,
              ...live,
            } as unknown as Watch
          }
          units="metric"
          outbox={{ add } as never}
        />,
      );
    shown({});
    expect(screen.getByRole("img").getAttribute("aria-label")).toMatch(/10:00.*30:00.*40:00/);
    press("a coin");
    expect(add).toHaveBeenCalledWith("mark", { step: "disc_25" });
    cleanup();
    shown({
      marks: { disc_60: 1 },
      refit: {
        from_s: 2000,
        to_s: 2300,
        says: "Later.",
        before_rms_k: 0.04,
        after_rms_k: 0,
        points: 9,
      },
    });
    expect(screen.getByRole("img").getAttribute("aria-label")).toMatch(/33:20.*38:20/);
    expect(read(screen.getByTestId("refit"))).toMatch(/Later\..*9/);
    expect(read(screen.getByTestId("refit"))).not.toMatch(/K/);
    expect(screen.getByRole("button", { name: "a big disc" }).getAttribute("aria-pressed")).toBe(
      "true",
    );
    cleanup();
    shown({
      refit: {
        from_s: null,
        to_s: null,
        says: "Never.",
        before_rms_k: 2,
        after_rms_k: 0.5,
        points: 9,
      },
    });
    expect(screen.getByRole("img").getAttribute("aria-label")).toMatch(/30:00.*40:00/);
    expect(read(screen.getByTestId("refit"))).toMatch(/2\.0 K.*0\.5 K/);
  });
});

describe("what else is watched", () => {
  const shown = (live: object | undefined, baking = false) =>
    read(
      page(<Watched live={live as Watch | undefined} units="metric" baking={baking} />).container,
    );

  it("names the channels by their place in a bake, and which is silent", () => {
    const others = [
      { channel: 2, temp_c: 84.06, age_s: 2 },
      { channel: 3, temp_c: 160, age_s: 13 },
    ];
    expect(shown({ safe: null, others })).toMatch(/channel 2: 84\.1 °C.*channel 3.*silent.*0:13/i);
    cleanup();
    expect(shown({ safe: null, others }, true)).toMatch(/water: 84.*oven air/i);
    cleanup();
    expect(shown({ safe: null, others: [] })).toBe("");
    expect(shown(undefined)).toBe("");
  });

  it("calls out another pot that wants somebody, but not one that is paused", async () => {
    const live = (urgency: string, paused = false) => ({
      paused,
      moment: {
        urgency,
        headline: "Off!",
        next_move: "lift it",
        to_target_s: urgency === "calm" ? 65 : null,
      },
    });
    let answer = live("now");
    served(() => answer);
    going = [
      { id: "b1", dessert: "Mine" },
      { id: "b2", dessert: "Tart" },
    ];
    page(<OtherPots kid="k" mine="b1" sound />);
    await screen.findByText("lift it");
    expect(call).toHaveBeenLastCalledWith(["Tart: Off!", "lift it", "now", true]);
    expect(screen.getByRole("link").getAttribute("href")).toBe("/k/k/cook/b2");
    cleanup();
    answer = live("now", true);
    page(<OtherPots kid="k" mine="b1" sound />);
    await screen.findByText("lift it");
    expect(call).toHaveBeenLastCalledWith(["", "", "calm", true]);
    cleanup();
    answer = live("calm");
    page(<OtherPots kid="k" mine="b1" sound />);
    expect(await screen.findByText(/1:05/)).toBeTruthy();
    cleanup();
    going = [{ id: "b1", dessert: "Mine" }];
    expect(page(<OtherPots kid="k" mine="b1" sound />).container.textContent).toBe("");
  });
});

describe("a reading that is typed", () => {
  const onReading = vi.fn();
  const typed = (units: "metric" | "us", text: string) => {
    onReading.mockClear();
    page(<TypedReading units={units} onReading={onReading} />);
    press(/type a reading/i);
    type(/°/, text);
    const wrong = field(/°/).getAttribute("aria-invalid") === "true";
    fireEvent.submit(field(/°/).closest("form") as Element);
    cleanup();
    return [(onReading.mock.calls[0]?.[0] as number | undefined) ?? null, wrong];
  };

  it("is taken in the kitchen’s degrees, to the tenth, and refused where no thermometer reads so", () => {
    expect(typed("metric", "82,46")).toEqual([82.5, false]);
    expect(typed("us", "180")).toEqual([82.2, false]);
    expect(typed("metric", "251")).toEqual([null, true]);
    expect(typed("us", "482")).toEqual([250, false]);
    expect(typed("metric", "hot")).toEqual([null, true]);
    expect(typed("metric", " ")).toEqual([null, false]);
  });
});
