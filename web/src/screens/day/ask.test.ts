import { describe, expect, it } from "vitest";

import type { Shapes } from "@/api/client";
import { askOf, bodyOf, EVERYTHING, shownBy, type Ask } from "@/screens/day/ask";

const ASK: Ask = {
  date: "2026-12-01",
  ahead: 1,
  services: [
    { hour: "12:30", items: [] },
    { hour: "19:00", items: [{ id: "tart", name: "Rye tart", portions: 24, there: 6 }] },
  ],
  people: [
    { name: "Chef", from: "08:00", to: "20:30", rest: 45 },
    { name: "Early", from: "06:15", to: "14:00", may: ["oven", "bench"] },
  ],
  house: "12 eggs",
};

describe("the question of a day", () => {
  it("begins the wished days ahead at six, also over the end of a month", () => {
    expect(bodyOf(ASK, []).begins).toBe("2026-11-30T06:00:00");
    expect(bodyOf({ ...ASK, ahead: 0 }, []).begins).toBe("2026-12-01T06:00:00");
    expect(bodyOf({ ...ASK, date: "2027-03-01", ahead: 2 }, []).begins).toBe("2027-02-27T06:00:00");
  });

  it("leaves out a service nobody eats at, and says what stands there already", () => {
    const body = bodyOf(ASK, []);
    expect(body.services.map((s) => s.at)).toEqual(["2026-12-01T19:00:00"]);
    expect(body.stock).toEqual([{ dessert_id: "tart", portions: 6 }]);
    expect(body.people.map((p) => [p.from_min, p.to_min, p.break_min])).toEqual([
      [480, 1230, 45],
      [375, 840, 0],
    ]);
    expect(body.people.map((p) => p.may)).toEqual([EVERYTHING, ["oven", "bench"]]);
  });

  it("comes back from what was written down as it was asked, on another date", () => {
    const names = [{ id: "tart", name: "Rye tart" }] as Shapes["NamedItem"][];
    const again = askOf(bodyOf(ASK, []), names, "2026-12-08");
    expect(again).toEqual({
      ...ASK,
      date: "2026-12-08",
      services: [ASK.services[1]],
      people: ASK.people.map((p) => ({ ...p, rest: p.rest ?? 0, may: p.may ?? EVERYTHING })),
    });
    expect(bodyOf(again, []).begins).toBe("2026-12-07T06:00:00");
  });

  it("starts the next plan from the one that is shown, when that can be done", () => {
    const plan = {
      feasible: true,
      oven_lines: [{ oven: "Deck oven" }],
      steps: [
        { key: "a", start: "s", who: "Chef", where: ["ring"], chilled_until: null },
        { key: "b", start: "t", who: null, where: ["tray", "Deck oven"], chilled_until: "u" },
      ],
    } as unknown as Shapes["DayOut"];
    expect(shownBy(plan)).toEqual([
      { key: "a", at: "s", who: "Chef", oven: null, chilled: false },
      { key: "b", at: "t", who: null, oven: "Deck oven", chilled: true },
    ]);
    expect(bodyOf(ASK, [], { ...plan, feasible: false }).before).toEqual([]);
  });
});
