// @vitest-environment jsdom
import { act, cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import type { Shapes } from "@/api/client";
import Run from "@/screens/rehearse/run";
import { address, AWAY, page, press, read, Refusal, served, type Sent } from "@/test/page";

vi.mock("@/bench", () => ({ useBench: () => ({ kid: "k", units: "metric" }) }));
vi.mock("@/screens/cook/call", () => ({
  useAwake: () => undefined,
  useCall: () => undefined,
  soundOn: () => false,
  setSound: () => undefined,
}));
vi.mock("@/screens/rehearse/debrief", () => ({
  Debrief: ({ again }: { again: (seed: number) => void }) => (
    <button onClick={() => again(7)}>once more</button>
  ),
}));

type Data = Shapes["RehearsalOut"];
type Act = Shapes["ActIn"];
const RUN = {
  id: "r1", exercise: "pastry_cream", name: "A pastry cream", task: "Cook it.", ended: false, stage: "pot",
  can: ["heat", "stir", "lift", "end"], heat: 5, heats: 9, stirring: false, lifted: false, now_s: 30, speed: 2,
  temp_c: 61.44, figure_word: "°C", goal_c: [82, 84], damage: {}, curve: [], held_s: 0, whites_s: null,
  ladles_g: [], to_pour_g: 0, water_g: 0, poured_g: 0, whipped_share: 0, colour: 0, disc_share: null, looked_s: null,
  step: { title: "Cook", thickens_c: 78, never_c: 86, over: "curdles" },
  moment: { headline: "Stir", next_move: "", urgency: "calm", figure: 61 },
} as unknown as Data; // prettier-ignore
let run: Data;
let answer: (sent: Sent) => unknown;
let sent: Sent[];

beforeEach(() => {
  vi.useFakeTimers({ toFake: ["Date"], now: 1_000_000 });
  run = RUN;
  answer = () => run;
  sent = served((s) => (s.method === "GET" ? run : answer(s)));
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});
const shown = async (more: Partial<Data> = {}) => {
  run = { ...RUN, ...more };
  const view = page(<Run />, "/k/k/rehearse/r1", "/k/:kid/rehearse/:runId");
  await screen.findByRole("heading", { level: 1 });
  return view;
};
const acts = () =>
  sent.filter((s) => s.path.endsWith("/acts")).flatMap((s) => (s.body as { acts: Act[] }).acts);
const done = () => acts().map(({ kind, value }) => [kind, value]);
const key = (k: string) => fireEvent.keyDown(document.body, { key: k });

describe("a rehearsal under the hands", () => {
  it("does what is done, on the exercise’s own clock", async () => {
    await shown();
    vi.setSystemTime(1_000_000 + 4_000); // four seconds here are eight there
    press("Stir");
    await waitFor(() => expect(done()).toEqual([["stir", 1]]));
    expect(acts()[0]?.at_s).toBeCloseTo(38, 5);
    expect(acts()[0]?.id).toMatch(/^[0-9a-f-]{36}$/);
  });

  it("counts turns of the knob from where the hand has it, within its heats", async () => {
    let give: (v: unknown) => void = () => undefined;
    answer = () => new Promise((ok) => (give = ok));
    await shown({ heat: 7 });
    press("More heat");
    press("More heat");
    key("ArrowUp"); // already at its highest
    expect(read(screen.getByTestId("heat"))).toBe("heat 9");
    expect(screen.getByTestId("heat").getAttribute("aria-busy")).toBe("true");
    expect(screen.getByRole<HTMLButtonElement>("button", { name: "More heat" }).disabled).toBe(
      true,
    );
    answer = () => run;
    run = { ...run, heat: 9 };
    await act(async () => {
      give(run);
      await Promise.resolve();
    });
    await waitFor(() =>
      expect(done()).toEqual([
        ["heat", 8],
        ["heat", 9],
        ["heat", 9],
      ]),
    );
    await waitFor(() => expect(screen.getByTestId("heat").getAttribute("aria-busy")).toBe("false"));
  });

  it("says what did not arrive and lets the knob go back", async () => {
    answer = () => AWAY;
    await shown();
    press("Less heat");
    expect(await screen.findByRole("alert")).toBeTruthy();
    await waitFor(() => expect(read(screen.getByTestId("heat"))).toBe("heat 5"));
    answer = () => new Refusal(409, { message: "It is over." });
    press("Stir");
    await waitFor(() => expect(screen.getByRole("alert").textContent).toBe("It is over."));
    answer = () => run;
    press("Stir");
    await waitFor(() => expect(screen.queryByRole("alert")).toBeNull());
  });

  it("stirs by the space bar, or looks where there is a door", async () => {
    await shown({ stirring: true });
    key(" ");
    await waitFor(() => expect(done()).toEqual([["stir", 0]]));
    fireEvent.keyDown(screen.getByRole("button", { name: /more heat/i }), { key: " " });
    expect(done()).toHaveLength(1);
    cleanup();
    sent.length = 0;
    await shown({ stage: "oven", can: ["look", "end"] });
    key(" ");
    await waitFor(() => expect(done()).toEqual([["look", 0]]));
  });

  it("offers only what can be done at this stage", async () => {
    const names = async (more: Partial<Data>) => {
      await shown(more);
      const group = screen.getByRole("group", { name: /what you do/i });
      const found = [...group.querySelectorAll("button")].map(
        (b) => b.getAttribute("aria-label") ?? read(b),
      );
      cleanup();
      return found;
    };
    expect(await names({})).toEqual([
      "Less heat",
      "More heat",
      "Stir",
      "Off the heat",
      "That is it",
    ]);
    const bowl = await names({
      stage: "bowl",
      can: ["stir", "ladle", "end"],
      ladles_g: [60, 120],
      to_pour_g: 400,
    });
    expect(bowl).toEqual(["Whisk", "Pour 60 g", "Pour 120 g", "All of it", "That is it"]);
    expect(await names({ can: ["ladle", "end"], ladles_g: [0.3], to_pour_g: 0 })).toEqual([
      "That is it",
    ]);
    expect(await names({ can: ["whites", "cold_water", "pour", "end"] })).toHaveLength(4);
    expect(await names({ can: ["whites", "end"], whites_s: 12 })).toHaveLength(1);
    expect((await names({ stage: "oven", can: ["look", "end"] })).at(-1)).toMatch(/pull/i);
  });

  it("shows its one figure as its stage has it", async () => {
    const figure = async (more: Partial<Data>) => {
      await shown(more);
      const found = read(screen.getByTestId("figure"));
      cleanup();
      return found;
    };
    expect(await figure({})).toBe("61.4°C");
    expect(await figure({ stage: "syrup" })).toBe("61°C");
    expect(await figure({ stage: "oven", can: ["look"] })).toMatch(/^0:30/);
    expect(await figure({ stage: "mixer", figure_word: "%" })).toBe("61%");
  });

  it("says its aim, what is left to pour, and how long it was held", async () => {
    await shown({ stage: "bowl", to_pour_g: 250 });
    expect(read(screen.getByRole("region", { name: /now/i }))).toMatch(/82 °C.*84 °C.*250 g/);
    cleanup();
    await shown({ held_s: 12.4, whites_s: 65 });
    expect(read(screen.getByRole("region", { name: /now/i }))).toMatch(/12.*1:05/);
    cleanup();
    await shown({ held_s: 12, exercise: "caramel", goal_c: [] });
    expect(read(screen.getByRole("region", { name: /now/i }))).not.toMatch(/held|aim/i);
  });

  it("draws its curve where there is one pot to watch", async () => {
    const drawn = async (stage: Data["stage"]) => {
      await shown({ stage });
      const found = screen.queryByRole("img", { name: /temperature so far/i }) !== null;
      cleanup();
      return found;
    };
    expect([await drawn("pot"), await drawn("syrup")]).toEqual([true, true]);
    expect([await drawn("bowl"), await drawn("mixer"), await drawn("oven")]).toEqual([
      false,
      false,
      false,
    ]);
  });

  it("says why it could not be fetched, and asks again", async () => {
    let there = false;
    served(() => (there ? RUN : new Refusal(404, { message: "This rehearsal is gone." })));
    page(<Run />, "/k/k/rehearse/r1", "/k/:kid/rehearse/:runId");
    expect(read(await screen.findByRole("alert"))).toContain("This rehearsal is gone.");
    there = true;
    press(/try again/i);
    expect(await screen.findByRole("heading", { name: "A pastry cream" })).toBeTruthy();
  });

  it("can be begun again with another seed, in its own place", async () => {
    run = { ...RUN, ended: true };
    const next = { ...RUN, id: "r2", ended: true };
    answer = () => next;
    page(<Run />, "/k/k/rehearse/r1", "/k/:kid/rehearse/:runId");
    fireEvent.click(await screen.findByRole("button", { name: "once more" }));
    await waitFor(() => expect(address()).toBe("/k/k/rehearse/r2"));
    expect(sent.find((s) => s.method === "POST")?.body).toMatchObject({
      exercise: "pastry_cream",
      seed: 7,
      speed: 2,
    });
  });
});
