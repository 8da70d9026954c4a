import type { SetClass } from "@/words";

/**
 * The hatching is the data: liquid is wavy lines, setting is sparse stipple, set is even stipple,
 * overdone is cross-hatch. Drawn once for the page; figures refer to it by name.
 */
export function Hatches() {
  const wave = { fill: "none", stroke: "var(--ink)", strokeWidth: 0.8, opacity: 0.75 };
  const dot = { fill: "var(--ink)", opacity: 0.8 };
  const dots = (points: number[][], r: number) =>
    points.map(([x, y]) => <circle key={`${x},${y}`} cx={x} cy={y} r={r} {...dot} />);
  return (
    <svg width="0" height="0" style={{ position: "absolute" }} aria-hidden="true" focusable="false">
      <defs>
        <pattern id="h-pour" width="24" height="9" patternUnits="userSpaceOnUse">
          <path d="M0 5 q6 -4 12 0 t12 0" {...wave} />
        </pattern>
        <pattern id="h-nappe" width="24" height="13" patternUnits="userSpaceOnUse">
          <path d="M0 4 q6 -3 12 0 M18 10 q3 -2 6 0 M0 10 q3 2 6 0" {...wave} />
        </pattern>
        <pattern id="h-spoon" width="22" height="22" patternUnits="userSpaceOnUse">
          {dots(
            [
              [4, 5],
              [15, 3],
              [9, 13],
              [19, 15],
            ],
            0.85,
          )}
        </pattern>
        <pattern id="h-pipe" width="16" height="16" patternUnits="userSpaceOnUse">
          {dots(
            [
              [3, 3],
              [11, 2],
              [7, 8],
              [14, 10],
              [3, 13],
            ],
            0.9,
          )}
        </pattern>
        <pattern id="h-slice" width="9" height="9" patternUnits="userSpaceOnUse">
          {dots(
            [
              [2, 2],
              [6.5, 6.5],
            ],
            0.95,
          )}
        </pattern>
        <pattern id="h-unmould" width="6" height="6" patternUnits="userSpaceOnUse">
          {dots(
            [
              [1.5, 1.5],
              [4.5, 4.5],
            ],
            1.05,
          )}
        </pattern>
        <pattern id="h-over" width="8" height="8" patternUnits="userSpaceOnUse">
          <path
            d="M0 0 L8 8 M8 0 L0 8"
            fill="none"
            stroke="var(--burnt)"
            strokeWidth="0.9"
            opacity="0.8"
          />
        </pattern>
        <pattern id="h-cold" width="7" height="7" patternUnits="userSpaceOnUse">
          <path d="M3.5 0 V7" fill="none" stroke="var(--cold)" strokeWidth="0.9" opacity="0.6" />
        </pattern>
        <pattern id="h-wall" width="5" height="5" patternUnits="userSpaceOnUse">
          <path d="M0 5 L5 0" fill="none" stroke="var(--ink)" strokeWidth="0.9" />
        </pattern>
      </defs>
    </svg>
  );
}

export const setFill = (klass: SetClass) => `var(--set-${klass})`;
export const setHatch = (klass: SetClass) => `url(#h-${klass})`;

/** A shape filled with a class: its colour, and its hatching over it. */
export function SetShape({ d, klass }: { d: string; klass: SetClass }) {
  return (
    <>
      <path d={d} fill={setFill(klass)} />
      <path d={d} fill={setHatch(klass)} />
    </>
  );
}
