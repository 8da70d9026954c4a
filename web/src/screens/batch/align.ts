import type { Shapes } from "@/api/client";
import type { Point, Segment } from "@/figures/pot-curve";

type Plan = Shapes["PlanOut"];
type Timing = Shapes["Timing"];

const CURVED = ["heat", "cook"] as const;

/** The longest stay in a step: a step gone back to counts where it was cooked. */
export function longest(timings: readonly Timing[], key: string): Timing | undefined {
  return timings
    .filter((t) => t.key === key)
    .reduce<Timing | undefined>(
      (best, t) => (best && best.left_s - best.entered_s >= t.left_s - t.entered_s ? best : t),
      undefined,
    );
}

/** The predicted curves, each moved to where its step really began. */
export function aligned(plan: Plan, timings: readonly Timing[]): Segment[] {
  return CURVED.flatMap((key) => {
    const timing = longest(timings, key);
    const curve = key === "heat" ? plan.heat : plan.cook;
    return timing && curve ? [{ key, from_s: timing.entered_s, points: curve.points }] : [];
  });
}

/** The curves of an earlier batch, each moved to where this batch began the same step. */
export function ghostOf(
  earlier: Shapes["BatchOut"] | undefined,
  timings: readonly Timing[],
): Segment[] {
  if (!earlier) return [];
  return CURVED.flatMap((key) => {
    const then = longest(earlier.timings, key);
    const now = longest(timings, key);
    if (!then || !now) return [];
    const points: Point[] = earlier.readings
      .filter((p) => p.t_s >= then.entered_s && p.t_s <= then.left_s)
      .map((p) => ({ t_s: p.t_s - then.entered_s, temp_c: p.temp_c }));
    return points.length > 1 ? [{ key, from_s: now.entered_s, points }] : [];
  });
}
