import { useEffect, useState } from "react";

import type { Shapes } from "@/api/client";
import { localIso } from "@/units";

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
}
export interface Ask {
  date: string;
  ahead: number;
  services: Service[];
  people: Hours[];
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
    { name: "Pastry chef", from: "08:00", to: "20:00" },
    { name: "Early cook", from: "06:00", to: "14:00" },
    { name: "Late cook", from: "12:00", to: "21:00" },
  ],
});
const minutes = (clock: string) => {
  const [h, m] = clock.split(":").map(Number);
  return (h ?? 0) * 60 + (m ?? 0);
};

/** The question, kept in this browser from day to day. */
export function useAsk(kid: string): [Ask, (part: Partial<Ask>) => void] {
  const place = `bellcrumb.day.${kid}`;
  const [ask, setAsk] = useState<Ask>(() => {
    try {
      return (JSON.parse(localStorage.getItem(place) ?? "null") as Ask | null) ?? FIRST();
    } catch {
      return FIRST();
    }
  });
  useEffect(() => localStorage.setItem(place, JSON.stringify(ask)), [ask, place]);
  return [ask, (part) => setAsk((now) => ({ ...now, ...part }))];
}

/** The question as the server takes it. */
export function bodyOf(ask: Ask, pins: Pin[]): Shapes["DayAsk"] {
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
    })),
    mixers: 1,
    stock: ask.services
      .flatMap((s) => s.items)
      .filter((i) => (i.there ?? 0) > 0)
      .map((i) => ({ dessert_id: i.id, portions: i.there ?? 0 })),
    pins,
  };
}
