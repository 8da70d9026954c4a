import type { Shapes } from "@/api/client";

export type Frame = Shapes["FrameOut"];
type Grid = number[][];

const blend = (a: Grid, b: Grid, share: number): Grid => {
  const shape = a.length ? a : b;
  return shape.map((row, i) =>
    row.map((_, j) => {
      const [from, to] = [a[i]?.[j] ?? 0, b[i]?.[j] ?? 0];
      return from + (to - from) * share;
    }),
  );
};

/** The cut-open mould at a minute: between two frames, in their proportion. */
export function frameAt(frames: readonly Frame[], minute: number): Frame {
  const next = frames.findIndex((f) => f.t_min > minute);
  if (next < 1) return frames.at(next) as Frame;
  const [before, after] = [frames[next - 1] as Frame, frames[next] as Frame];
  const share = (minute - before.t_min) / (after.t_min - before.t_min);
  return {
    t_min: minute,
    out: before.out,
    temp_c: blend(before.temp_c, after.temp_c, share),
    set_pct: blend(before.set_pct, after.set_pct, share),
    over_pct: blend(before.over_pct, after.over_pct, share),
    unset_diameter_mm:
      before.unset_diameter_mm + (after.unset_diameter_mm - before.unset_diameter_mm) * share,
  };
}
