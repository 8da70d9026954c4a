import { useEffect, useState } from "react";

import type { Shapes } from "@/api/client";
import { localIso } from "@/units";
import { readStored, writeStored } from "@/keep/stored";
import { say } from "@/say";

type Pin = Shapes["PinIn"];

export interface Service {
  hour: string;
  /** ``there``: portions that are made already. */
  items: { id: string; name: string; portions: number; there?: number }[];
}
export interface Hours {
  name: string;
  from: string;
  to: string;
  /** Minutes of a break in the middle of long hours. */
  rest?: number;
  /** What they may do; left out: everything. */
  may?: Work[];
}
export type Work = NonNullable<Shapes["HoursAsk"]["may"]>[number];
export const WORKS: Record<Work, string> = {
  stove: say("day.at_the_stove"),
  oven: say("day.at_the_oven"),
  bench: say("day.on_the_bench"),
  plate: say("day.plating"),
};
export const EVERYTHING = Object.keys(WORKS) as Work[];
export interface Ask {
  date: string;
  ahead: number;
  services: Service[];
  people: Hours[];
  /** What is in the house, a line each. */
  house?: string;
}

const tomorrow = () => {
  const at = new Date(Date.now() + 86_400_000);
  return `${at.getFullYear()}-${(at.getMonth() + 1).toString().padStart(2, "0")}-${at.getDate().toString().padStart(2, "0")}`;
};
const FIRST: () => Ask = () => ({
  date: tomorrow(),
  ahead: 1,
  services: [{ hour: "19:00", items: [] }],
  people: [
    { name: say("day.pastry_chef"), from: "08:00", to: "20:00" },
    { name: say("day.early_cook"), from: "06:00", to: "14:00" },
    { name: say("day.late_cook"), from: "12:00", to: "21:00" },
  ],
});
const minutes = (clock: string) => {
  const [h, m] = clock.split(":").map(Number);
  return (h ?? 0) * 60 + (m ?? 0);
};

/** The question, kept in this browser from day to day. */
export function useAsk(kid: string): [Ask, (part: Partial<Ask>) => void] {
  const place = `bellcrumb.day.${kid}`;
  const [ask, setAsk] = useState<Ask>(() => readStored<Ask>(place) ?? FIRST());
  useEffect(() => {
    writeStored(place, ask);
  }, [ask, place]);
  return [ask, (part) => setAsk((now) => ({ ...now, ...part }))];
}

/** The plan on the screen, as what is planned next starts from. */
export const shownBy = (plan: Shapes["DayOut"]): Shapes["BeforeIn"][] => {
  const ovens = new Set(plan.oven_lines.map((line) => line.oven));
  return plan.steps.map((step) => ({
    key: step.key,
    at: step.start,
    who: step.who,
    oven: step.where.find((place) => ovens.has(place)) ?? null,
    chilled: !!step.chilled_until,
  }));
};

/** The question as the server takes it; ``shown`` is the plan that is to change little. */
export function bodyOf(ask: Ask, pins: Pin[], shown?: Shapes["DayOut"]): Shapes["DayAsk"] {
  const begins = new Date(`${ask.date}T06:00:00`);
  begins.setDate(begins.getDate() - ask.ahead);
  return {
    begins: localIso(begins),
    services: ask.services
      .filter((s) => s.items.length)
      .map((s) => ({
        at: `${ask.date}T${s.hour}:00`,
        name: "",
        items: s.items.map((i) => ({ dessert_id: i.id, portions: i.portions })),
      })),
    people: ask.people.map((p) => ({
      name: p.name,
      from_min: minutes(p.from),
      to_min: minutes(p.to),
      break_min: p.rest ?? 0,
      may: p.may ?? EVERYTHING,
    })),
    mixers: null,
    house: ask.house ?? "",
    stock: ask.services
      .flatMap((s) => s.items)
      .filter((i) => (i.there ?? 0) > 0)
      .map((i) => ({ dessert_id: i.id, portions: i.there ?? 0 })),
    pins,
    before: shown?.feasible ? shownBy(shown) : [],
  };
}

const clock = (min: number) =>
  `${Math.floor(min / 60)
    .toString()
    .padStart(2, "0")}:${(min % 60).toString().padStart(2, "0")}`;
const DAY_MS = 86_400_000;

/** A question as it was written down, on another date: its form again. */
export function askOf(
  body: Shapes["DayAsk"],
  names: readonly Shapes["NamedItem"][],
  date: string,
): Ask {
  const nameOf = (id: string) => names.find((n) => n.id === id)?.name ?? say("day.a_dessert");
  const there = new Map((body.stock ?? []).map((s) => [s.dessert_id, s.portions]));
  const last = body.services.at(-1)?.at.slice(0, 10) ?? date;
  const ahead = Math.round((Date.parse(last) - Date.parse(body.begins.slice(0, 10))) / DAY_MS);
  return {
    date,
    ahead: Math.min(2, Math.max(0, ahead)),
    services: body.services.map((s) => ({
      hour: s.at.slice(11, 16),
      items: s.items.map((i) => ({
        id: i.dessert_id,
        name: nameOf(i.dessert_id),
        portions: i.portions,
        there: there.get(i.dessert_id) ?? 0,
      })),
    })),
    people: body.people.map((p) => ({
      name: p.name,
      from: clock(p.from_min),
      to: clock(p.to_min),
      rest: p.break_min,
      may: p.may ?? EVERYTHING,
    })),
    house: body.house,
  };
}
