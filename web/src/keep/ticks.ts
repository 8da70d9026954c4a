import { client, must, type Shapes } from "@/api/client";
import { newId } from "@/keep/id";
import { readStored, writeStored } from "@/keep/stored";
import { localIso } from "@/units";

export type Tick = Shapes["TickAsk"];
type Running = Shapes["DayRunning"];

const place = (dayId: string) => `crumb.ticks.${dayId}`;

/** Ticks of a day that the server does not have yet: on the browser’s disk at the tap. */
export const waitingTicks = (dayId: string): Tick[] => readStored<Tick[]>(place(dayId)) ?? [];

/** Keep a tick; it is sent by `sendTicks`, as often as it takes. */
export function keepTick(dayId: string, key: string, kind: Tick["kind"]): void {
  const tick = { id: newId(), key, kind, at: localIso(new Date()) };
  writeStored(place(dayId), [...waitingTicks(dayId), tick]);
}

/** Send what waits; what the server has is dropped here. Null when nothing waited. */
export async function sendTicks(kid: string, dayId: string): Promise<Running | null> {
  const ticks = waitingTicks(dayId).slice(0, 200);
  if (!ticks.length) return null;
  const day = await must(
    client.POST("/api/k/{kid}/days/{day_id}/ticks", {
      params: { path: { kid, day_id: dayId } },
      body: { ticks },
    }),
  );
  const sent = new Set(ticks.map((tick) => tick.id));
  const left = waitingTicks(dayId).filter((tick) => !sent.has(tick.id));
  writeStored(place(dayId), left.length ? left : null);
  return day;
}

/** A plan with the ticks that wait here in it, so that a tap is seen at once. */
export function withWaiting(day: Running, waiting: readonly Tick[]): Running {
  if (!waiting.length) return day;
  const states = new Map<string, Shapes["DayStepOut"]["state"]>();
  for (const tick of waiting) {
    states.set(tick.key, tick.kind === "undo" ? "to_do" : tick.kind === "begin" ? "begun" : "done");
  }
  const steps = day.plan.steps.map((step) => {
    const state = states.get(step.key);
    return state ? { ...step, state } : step;
  });
  return { ...day, plan: { ...day.plan, steps } };
}
