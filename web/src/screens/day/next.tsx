import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link } from "react-router";

import { client, must, type Shapes } from "@/api/client";
import { readStored } from "@/keep/stored";
import { soundOn, useCall } from "@/screens/cook/call";
import { weekdayTime } from "@/units";
import { say } from "@/say";

type Card = Shapes["DayCard"];

const POLL_MS = 15_000;

/** The days that are running. */
const useRunningDays = (kid: string) =>
  useQuery({
    queryKey: ["days", kid, "running"],
    queryFn: () =>
      must(
        client.GET("/api/k/{kid}/days", { params: { path: { kid }, query: { running: true } } }),
      ),
    refetchInterval: POLL_MS,
  });

/** The next thing of the day and its minute, on every screen’s top line; called out when it is time. */
export function NextThing({ kid }: { kid: string }) {
  const days = useRunningDays(kid);
  const card = days.data?.[0];
  return card?.next.length ? <Line kid={kid} card={card} /> : null;
}

function Line({ kid, card }: { kid: string; card: Card }) {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const beat = setInterval(() => setNow(Date.now()), POLL_MS);
    return () => clearInterval(beat);
  }, []);
  const who = readStored<string>("crumb.day.who");
  const waiting = card.next.filter((s) => s.state !== "begun");
  const step = waiting.find((s) => !who || s.who === who) ?? waiting[0];
  const due = step ? now >= new Date(step.start).getTime() : false;
  // Waiting is heard as calm, so that the first thing that falls due is called out too.
  const words = step ? step.what : "";
  useCall(
    due ? say("day.now_3", { words }) : say("day.waiting"),
    "",
    due ? "now" : "calm",
    soundOn(),
  );
  if (!step) return null;
  return (
    <Link
      to={`/k/${kid}/day/${card.id}`}
      className={`basis-full truncate py-1 text-sm ${due ? "font-semibold text-burnt" : "text-soft"}`}
    >
      {due ? say("day.now_2") : weekdayTime(step.start)}: {step.what}
      {step.who ? `, ${step.who}` : ""}
    </Link>
  );
}
