/** Minutes of a plan along a line, hours in which nothing is done drawn short. */
export interface TimeLine {
  /** How far along the line a minute is, 0 to 1. */
  at: (minute: number) => number;
  /** The stretches that are drawn short. */
  idle: readonly (readonly [number, number])[];
  /** Share of the line that a minute takes while something is done. */
  perMinute: number;
}

const IDLE_MIN = 180;
const DRAWN_MIN = 40;

/** The line for spans of work (minutes from, to) between two ends. */
export function timeLine(
  spans: readonly (readonly [number, number])[],
  from: number,
  to: number,
): TimeLine {
  const idle: [number, number][] = [];
  let busy = from;
  for (const [a, b] of [...spans].sort((x, y) => x[0] - y[0])) {
    if (a - busy > IDLE_MIN) idle.push([busy, a]);
    busy = Math.max(busy, b);
  }
  const drawn = (minute: number) => {
    let length = minute - from;
    for (const [a, b] of idle) {
      const inside = Math.min(Math.max(minute - a, 0), b - a);
      length -= inside * (1 - DRAWN_MIN / (b - a));
    }
    return length;
  };
  const whole = Math.max(1, drawn(to));
  return { at: (minute) => drawn(minute) / whole, idle, perMinute: 1 / whole };
}

/** A minute since the epoch, as the kitchen’s clock shows it. */
export const hour = (minute: number) => {
  const at = new Date(minute * 60_000);
  return `${at.getHours()}:${at.getMinutes().toString().padStart(2, "0")}`;
};
