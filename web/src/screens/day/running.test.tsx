// @vitest-environment jsdom
import { act, cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import type { Shapes } from "@/api/client";
import RunningDay from "@/screens/day/running";
import { AWAY, page, press, read, Refusal, served, type Sent } from "@/test/page";
import { localIso } from "@/units";

const bench = { kid: "k", units: "metric", canCook: true };
vi.mock("@/bench", () => ({ useBench: () => bench }));
vi.mock("@/figures/runway", () => ({
  Runway: ({ onPin, now, asking }: { onPin?: (key: string, minute: number) => void; now: number | null; asking: boolean }) => (
    <div data-testid="runway" data-now={now} data-asking={asking}>
      {onPin && <button onClick={() => onPin("Flan/bake", NINE / 60_000 + 15)}>later</button>}
      {onPin && <button onClick={() => onPin("Flan/bake", NINE / 60_000 + 30)}>later still</button>}
    </div>
  ),
})); // prettier-ignore

type Day = Shapes["DayRunning"];
const NINE = new Date("2026-03-02T09:00:00").getTime();
const at = (minute: number) => new Date(NINE + minute * 60_000).toISOString();
const step = (key: string, who: string | null, from: number, state = "to_do") => ({
  key, what: key, who, start: at(from), end: at(from + 30), hands_end: at(from + 10), state, where: [], oven_c: null, after: [],
}); // prettier-ignore
const DAY = {
  id: "day", revision: 3, ended_at: null, pins: [], changes: [], opens: {},
  plan: { late_min: 0, warnings: [], oven_lines: [], steps: [step("Flan/mix", "Runa", 0), step("Tart/crust", "Odo", 5), step("Flan/bake", null, 40)] },
} as unknown as Day; // prettier-ignore
let day: Day;
let sent: Sent[];
let answer: (s: Sent) => unknown;
const asked = (what: string) => sent.filter((s) => s.path.endsWith(what));

beforeEach(() => {
  localStorage.clear();
  Object.assign(bench, { canCook: true });
  day = DAY;
  answer = () => day;
  sent = served((s) => (s.path.endsWith("/times") ? [] : s.method === "GET" ? day : answer(s)));
  vi.useFakeTimers({ shouldAdvanceTime: true, advanceTimeDelta: 200, now: NINE });
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});
const shown = async (more: Partial<Day> = {}) => {
  day = { ...DAY, ...more };
  const view = page(<RunningDay />, "/k/k/day/day", "/k/:kid/day/:dayId");
  await screen.findByTestId("runway");
  return view;
};

describe("a day as it happens", () => {
  it("shows one cook’s own steps, those that need nobody among them, and remembers who", async () => {
    await shown();
    fireEvent.change(screen.getByLabelText(/whose hands/i), { target: { value: "Odo" } });
    const things = () => read(screen.getByRole("region", { name: /now/i }));
    expect(things()).toMatch(/Tart\/crust.*Flan\/bake/);
    expect(things()).not.toMatch(/Flan\/mix/);
    cleanup();
    await shown();
    expect(screen.getByLabelText<HTMLSelectElement>(/whose hands/i).value).toBe("Odo");
  });

  it("ticks at once and tells the server, keeping the tick where nobody answers", async () => {
    await shown();
    answer = () => AWAY;
    press(/begin.*Flan\/mix/i);
    expect(read(screen.getByTestId("day-done"))).toMatch(/0 of 3.*1 waiting/);
    expect(
      within(screen.getByRole("region", { name: /now/i })).getByRole("button", {
        name: /take.*back.*mix/i,
      }),
    ).toBeTruthy();
    await waitFor(() => expect(sent.some((s) => s.method === "POST")).toBe(true));
    cleanup();
    await shown(); // the tablet came back
    expect(read(screen.getByTestId("day-done"))).toMatch(/1 waiting/);
  });

  it("works the rest out again from now, keeping what is pinned", async () => {
    const pins = [{ key: "Flan/bake", at: "2026-03-02T10:00:00" }];
    await shown({ pins });
    const changes = Array.from({ length: 8 }, (_, i) => ({
      key: `s${i}`,
      what: `step ${i}`,
      who: "Runa",
      was_who: i ? "Runa" : "Odo",
      now: at(60),
      was: at(50),
    }));
    answer = () => (day = { ...day, revision: 4, changes } as Day);
    press(/plan the rest/i);
    await screen.findByTestId("moved");
    expect(asked("/again")[0]?.body).toMatchObject({ pins, before: null });
    const rows = within(screen.getByTestId("moved")).getAllByRole("listitem").map(read);
    expect(rows).toHaveLength(7);
    expect(rows[0]).toMatch(/Runa.*step 0.*10:00.*9:50.*Odo/);
    expect(rows[1]).not.toMatch(/Odo/);
    expect(rows[6]).toMatch(/2 more/);
  });

  it("asks once for a step that is moved twice, and can take each move back", async () => {
    await shown();
    press("later");
    press("later still");
    expect(screen.getByTestId("runway").dataset["asking"]).toBe("true");
    await waitFor(() => expect(asked("/again")).toHaveLength(1));
    const pin = (n: number) => (asked("/again")[n]?.body as { pins: object[] }).pins;
    expect(pin(0)).toEqual([{ key: "Flan/bake", at: localIso(new Date(NINE + 30 * 60_000)) }]);
    await waitFor(() => expect(screen.getByTestId("runway").dataset["asking"]).toBe("false"));
    press(/take the pin back/i);
    await waitFor(() => expect(asked("/again")).toHaveLength(2));
    expect(pin(1)).toEqual([{ key: "Flan/bake", at: localIso(new Date(NINE + 15 * 60_000)) }]);
    expect((asked("/again")[1]?.body as { before: object | null }).before).not.toBeNull();
    press(/take the pin back/i);
    await waitFor(() => expect(asked("/again")).toHaveLength(3));
    expect(pin(2)).toEqual([]);
    expect(screen.queryByRole("button", { name: /take the pin back/i })).toBeNull();
  });

  it("says why a step cannot be there", async () => {
    await shown();
    answer = () => new Refusal(422, { message: "The oven is taken." });
    press("later");
    expect((await screen.findByText("The oven is taken.")).getAttribute("role")).toBe("alert");
    expect(screen.getByTestId("runway").dataset["asking"]).toBe("false");
  });

  it("says what will be late and every warning", async () => {
    await shown({ plan: { ...DAY.plan, late_min: 75, warnings: ["The cold is full."] } });
    expect(read(screen.getByRole("alert"))).toMatch(/1 h 15/);
    expect(read(document.body)).toContain("The cold is full.");
  });

  it("lets nobody move or tick a day that is over, or one who only reads", async () => {
    await shown({ ended_at: at(600) });
    expect(screen.queryByRole("button", { name: "later" })).toBeNull();
    expect(screen.queryByRole("button", { name: /begin|end the day/i })).toBeNull();
    expect(screen.getByTestId("runway").dataset["now"]).toBeUndefined();
    cleanup();
    bench.canCook = false;
    await shown();
    expect(
      screen.queryByRole("button", { name: /later|begin|plan the rest|end the day/i }),
    ).toBeNull();
  });

  it("sets planned against real once it is over", async () => {
    const times = [
      {
        key: "a",
        what: "Flan",
        planned_start: at(0),
        planned_min: 20,
        real_start: at(7),
        real_min: 35,
      },
      {
        key: "b",
        what: "Tart",
        planned_start: at(5),
        planned_min: 45,
        real_start: null,
        real_min: null,
      },
    ];
    sent = served((s) => (s.path.endsWith("/times") ? times : day));
    await shown({ ended_at: at(600) });
    const table = await screen.findByRole("region", { name: /planned against real/i });
    const rows = within(table).getAllByRole("listitem").map(read);
    expect(rows[0]).toMatch(/9:00 Flan.*20 min.*9:07.*35 min/);
    expect(rows[1]).toMatch(/45 min/);
    expect(rows[1]).not.toMatch(/took|begun/);
  });

  it("is ended on its cook’s word", async () => {
    await shown();
    answer = () => (day = { ...day, ended_at: at(60) });
    await act(async () => {
      press(/end the day/i);
      await Promise.resolve();
    });
    await waitFor(() =>
      expect(screen.getByRole("heading", { level: 1 }).textContent).toMatch(/was/),
    );
    expect(asked("/end")).toHaveLength(1);
  });
});
