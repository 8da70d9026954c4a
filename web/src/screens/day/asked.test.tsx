// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import { EVERYTHING, type Ask } from "@/screens/day/ask";
import { People, Services } from "@/screens/day/asked";

vi.mock("@/screens/pick", () => ({
  PickDessert: ({ onPick }: { onPick: (card: object) => void }) => (
    <button onClick={() => onPick({ id: "d9", name: "Pie" })}>pick</button>
  ),
}));
afterEach(cleanup);

const FLAN = { id: "d1", name: "Flan", portions: 12 };
const ASK = {
  date: "2026-03-02", ahead: 1, house: "",
  services: [{ hour: "12:00", items: [FLAN, { id: "d2", name: "Tart", portions: 8 }] }, { hour: "19:00", items: [] }],
  people: [{ name: "Runa", from: "06:00", to: "14:00" }, { name: "Odo", from: "10:00", to: "18:00", may: [EVERYTHING[0]] }],
} as unknown as Ask; // prettier-ignore
const change = vi.fn();
beforeEach(() => change.mockClear());
const last = () => change.mock.calls.at(-1)?.[0] as Partial<Ask>;
const type = (label: RegExp, value: string, n = 0) =>
  fireEvent.change(screen.getAllByLabelText(label)[n] as Element, { target: { value } });
const press = (name: RegExp, n = 0) =>
  fireEvent.click(screen.getAllByRole("button", { name })[n] as Element);

describe("what is served on a day", () => {
  const shown = (ask = ASK) => render(<Services ask={ask} change={change} />);

  it("changes one dessert of one service and leaves the rest", () => {
    shown();
    type(/portions/i, "30", 1);
    expect(last().services).toEqual([
      { hour: "12:00", items: [FLAN, { id: "d2", name: "Tart", portions: 30 }] },
      ASK.services[1],
    ]);
    type(/made already/i, "4");
    expect(last().services?.[0]?.items[0]).toEqual({ ...FLAN, there: 4 });
    press(/take out Tart/i);
    expect(last().services?.[0]?.items).toEqual([FLAN]);
    type(/portions/i, "0");
    expect(change).toHaveBeenCalledTimes(3);
  });

  it("adds a dessert to the service it was asked for", () => {
    shown();
    press(/add a dessert/i, 1);
    press(/^pick$/);
    expect(last().services?.[1]?.items).toEqual([{ id: "d9", name: "Pie", portions: 16 }]);
    expect(last().services?.[0]).toEqual(ASK.services[0]);
  });

  it("has services added, moved in time and taken out, but never the last", () => {
    shown();
    type(/service at|at/i, "20:30", 1);
    press(/one more service/i);
    expect(last().services).toHaveLength(3);
    press(/^take it out/i, 0);
    expect(last().services).toEqual([ASK.services[1]]);
    cleanup();
    shown({ ...ASK, services: ASK.services.slice(0, 1) });
    expect(screen.queryByRole("button", { name: /^take it out/i })).toBeNull();
  });

  it("keeps its day when the field is emptied, and may begin days before", () => {
    shown();
    type(/day of service/i, "");
    expect(change).not.toHaveBeenCalled();
    type(/day of service/i, "2026-03-05");
    expect(last()).toEqual({ date: "2026-03-05" });
    type(/work may begin/i, "2");
    expect(last()).toEqual({ ahead: 2 });
  });
});

describe("whose hands there are", () => {
  const shown = (ask = ASK) => render(<People ask={ask} change={change} />);

  it("changes one of them and leaves the others", () => {
    shown();
    type(/who/i, "Rúna");
    expect(last().people).toEqual([{ ...ASK.people[0], name: "Rúna" }, ASK.people[1]]);
    type(/^to/i, "15:00", 1);
    expect(last().people?.[1]).toEqual({ ...ASK.people[1], to: "15:00" });
    type(/^from/i, "", 1);
    type(/break/i, "30");
    expect(last().people?.[0]).toEqual({ ...ASK.people[0], rest: 30 });
    expect(change).toHaveBeenCalledTimes(3);
  });

  it("may all do everything unless something is taken from them, but always something", () => {
    shown();
    const boxes = screen.getAllByRole<HTMLButtonElement>("checkbox");
    const on = (b: Element) => b.getAttribute("aria-checked") === "true";
    const mine = boxes.slice(0, EVERYTHING.length);
    expect(mine.every(on)).toBe(true);
    fireEvent.click(mine[0] as Element);
    expect(last().people?.[0]?.may).toEqual(EVERYTHING.slice(1));
    const his = boxes.slice(EVERYTHING.length);
    const only = his.find(on);
    expect([his.filter(on).length, only?.disabled]).toEqual([1, true]);
    fireEvent.click(his.find((b) => !on(b)) as Element);
    expect(last().people?.[1]?.may).toHaveLength(2);
  });

  it("come and go, but one pair stays", () => {
    shown();
    press(/one more pair/i);
    expect(last().people).toHaveLength(3);
    expect(last().people?.[2]).toMatchObject({ from: "08:00", to: "16:00" });
    press(/without Runa/i);
    expect(last().people).toEqual([ASK.people[1]]);
    cleanup();
    shown({ ...ASK, people: ASK.people.slice(0, 1) });
    expect(screen.getByRole<HTMLButtonElement>("button", { name: /without Runa/i }).disabled).toBe(
      true,
    );
  });
});
