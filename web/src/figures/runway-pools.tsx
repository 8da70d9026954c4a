import type { Shapes } from "@/api/client";
import { say } from "@/say";

type Step = Shapes["DayStepOut"];

/** What there is several of: where a step says so, and what its lane is called. */
const POOLS = [
  ["ring", say("figures.rings")],
  ["mixer", say("figures.mixers")],
  [say("figures.blast_chiller"), say("figures.chiller")],
  ["cold", say("figures.cold")],
] as const;

const minutesOf = (iso: string) => new Date(iso).getTime() / 60_000;

interface Bar {
  step: Step;
  from: number;
  to: number;
  slot: number;
}
export interface Pool {
  name: string;
  bars: readonly Bar[];
  slots: number;
}

/**
 * When a step holds a place: the cold once the hands are done, the chiller first where it is; a ring
 * or a mixer as the plan says.
 */
const heldFor = (step: Step, pool: string): [number, number] => {
  const chilled = step.chilled_until ?? step.hands_end;
  if (pool === "blast chiller") return [minutesOf(step.hands_end), minutesOf(chilled)];
  if (pool === "cold") return [minutesOf(chilled), minutesOf(step.end)];
  return [minutesOf(step.start), minutesOf(step.held_until ?? step.hands_end)];
};

/** Each pool with its steps side by side: as many rows as are in use at once. */
export function poolsOf(steps: readonly Step[]): Pool[] {
  return POOLS.map(([key, name]) => {
    const free: number[] = [];
    const bars = steps
      .filter((step) => step.where.includes(key))
      .sort((a, b) => heldFor(a, key)[0] - heldFor(b, key)[0])
      .map((step) => {
        const [from, to] = heldFor(step, key);
        const found = free.findIndex((until) => until <= from);
        const slot = found < 0 ? free.length : found;
        free[slot] = to;
        return { step, from, to, slot };
      });
    return { name, bars, slots: free.length };
  }).filter((pool) => pool.bars.length > 0);
}
