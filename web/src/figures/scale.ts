import { fromCelsius, toCelsius, unitGrams, type Units } from "@/units";

/** A place on an axis and what stands there. */
export interface Tick {
  at: number;
  word: string | number;
}

/** A straight map from data to the plate. */
export type Scale = (value: number) => number;

export function scale(from: [number, number], to: [number, number]): Scale {
  const span = from[1] - from[0] || 1;
  return (value) => to[0] + ((value - from[0]) / span) * (to[1] - to[0]);
}

export function path(points: readonly (readonly [number, number])[]): string {
  return points.map(([x, y], i) => `${i ? "L" : "M"}${x.toFixed(1)} ${y.toFixed(1)}`).join(" ");
}

/** Temperatures with a label at round degrees of either scale. */
export function tempTicks(low: number, high: number, units: Units): Tick[] {
  const [from, to] = [fromCelsius(low, units), fromCelsius(high, units)];
  return ticks(from, to, 7, [20, 40, 60]).map((v) => ({
    at: toCelsius(v, units),
    word: `${Math.round(v)}°`,
  }));
}

/** Masses with a label at round grams, or round ounces. */
export function massTicks(mostG: number, units: Units): Tick[] {
  const each = unitGrams(units);
  const steps =
    units === "us"
      ? [2, 4, 8, 16, 32, 64, 160, 640, 3200]
      : [50, 100, 200, 500, 1000, 2000, 5000, 20_000, 100_000];
  return ticks(0, mostG / each, 6, steps).map((v) => ({ at: v * each, word: v }));
}

/** Numbers from nought with themselves for words. */
export function plainTicks(high: number, most: number, steps: readonly number[]): Tick[] {
  return ticks(0, high, most, steps).map((v) => ({ at: v, word: v }));
}

/** Round steps that give at most `most` ticks. */
export function ticks(low: number, high: number, most: number, steps: readonly number[]): number[] {
  const step = steps.find((s) => (high - low) / s <= most) ?? steps[steps.length - 1] ?? 1;
  const found: number[] = [];
  for (let v = Math.ceil(low / step) * step; v <= high + 1e-9; v += step) found.push(v);
  return found;
}
