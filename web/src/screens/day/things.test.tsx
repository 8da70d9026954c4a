// @vitest-environment jsdom
import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";

import type { Shapes } from "@/api/client";
import { Things } from "@/screens/day/things";
import { page, read } from "@/test/page";

afterEach(cleanup);

type Step = Shapes["DayStepOut"];
const NOW = new Date("2026-03-02T09:00:00");
const local = (minute: number) => new Date(NOW.getTime() + minute * 60_000).toISOString();
const step = (key: string, from: number, state: Step["state"] = "to_do", more: Partial<Step> = {}): Step =>
  ({
    key, what: key, start: local(from), end: local(from + 30), hands_end: local(from + 10), state,
    who: "Runa", where: [], oven_c: null, ...more,
  }) as Step; // prettier-ignore
const tick = vi.fn();
const shown = (steps: Step[], more: Partial<Parameters<typeof Things>[0]> = {}) =>
  page(
    <Things
      {...{ steps, now: NOW, tick, opens: {}, units: "metric", kid: "k", dayId: "day" }}
      {...more}
    />,
  );
const region = (name: RegExp) => screen.getByRole("region", { name });

describe("the things of a day", () => {
  it("shows what goes on, then the next three, then the rest and what is done", () => {
    const steps = [
      step("old", -90, "done"), step("running", -5, "begun"),
      ...["a", "b", "c", "d", "e"].map((k, i) => step(k, 10 * i + 5)),
    ]; // prettier-ignore
    shown(steps);
    const order = (text: string, keys: string[]) =>
      keys
        .map((k) => text.indexOf(` ${k}Runa`))
        .every((n, i, all) => n >= 0 && n > (all[i - 1] ?? -1));
    expect(order(read(region(/now/i)), ["running", "a", "b", "c"])).toBe(true);
    expect(read(region(/now/i))).not.toContain(" dRuna");
    expect(order(read(region(/after/i)), ["d", "e", "old"])).toBe(true);
    cleanup();
    shown([step("old", -90, "done")]);
    expect(read(region(/now/i))).toMatch(/everything is done/i);
  });

  it("says how late what is not begun is, and what should be over", () => {
    const words = (s: Step) => {
      shown([s]);
      const text = read(region(/now/i));
      cleanup();
      return text;
    };
    expect(words(step("a", 5))).not.toMatch(/late|now/);
    expect(words(step("a", -1))).toMatch(/· now/);
    expect(words(step("a", -12))).toMatch(/12 min late/);
    expect(words(step("a", -65))).toMatch(/1 h 05 late/);
    expect(words(step("a", -10, "begun"))).toMatch(/until.*9:20/);
    expect(words(step("a", -40, "begun"))).toMatch(/10 min/);
    expect(words(step("a", -40, "begun"))).not.toMatch(/late|until/);
  });

  it("says who, where and how hot", () => {
    shown([step("a", 5, "to_do", { who: null, where: ["deck oven"], oven_c: 160 })]);
    expect(read(region(/now/i))).toMatch(/by itself · deck oven 160 °C/);
    cleanup();
    shown([step("a", 5, "pinned")]);
    expect(read(region(/now/i))).toMatch(/Runa.*pinned/);
  });

  it("can be begun, ended and taken back, each only when it makes sense", () => {
    const can = (state: Step["state"]) => {
      shown([step("a", 5, state)]);
      const names = screen.queryAllByRole("button", { hidden: true }).map((b) => b.textContent);
      cleanup();
      return names;
    };
    expect(can("to_do")).toEqual(["Begin", "Done"]);
    expect(can("begun")).toEqual(["Done", "Take back"]);
    expect(can("done")).toEqual(["Take back"]);
    shown([step("a", 5)]);
    screen.getAllByRole("button").forEach((b) => fireEvent.click(b));
    expect(tick.mock.calls).toEqual([
      ["a", "begin"],
      ["a", "done"],
    ]);
    cleanup();
    shown([step("a", 5)], { tick: null }); // who only reads
    expect(screen.queryAllByRole("button")).toEqual([]);
  });

  it("leads to the page it is done on, which ticks it, but not once it is done", () => {
    const opens = { a: { place: "stove", dessert_id: "d1", part_id: "p1" } } as never;
    const way = (state: Step["state"]) => {
      shown([step("a", 5, state)], { opens });
      const link = within(document.body).getByRole("link", { hidden: true });
      const found = link.getAttribute("href");
      cleanup();
      return found;
    };
    expect(way("to_do")).toBe("/k/k/d/d1/stove?part=p1&day=day&step=a");
    expect(way("done")).toBe("/k/k/d/d1/stove?part=p1");
    shown([step("a", 5)], {
      opens: { a: { place: "whole", dessert_id: "d1", part_id: null } } as never,
    });
    expect(screen.getByRole("link").getAttribute("href")).toBe("/k/k/d/d1/whole?day=day&step=a");
  });
});
