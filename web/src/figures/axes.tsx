import type { Scale, Tick } from "@/figures/scale";

interface Props {
  /** The plate's width and height, and the room the plot leaves at its sides. */
  W: number;
  H: number;
  box: { left: number; right: number; top: number; bottom: number };
  x: Scale;
  y: Scale;
  across: readonly Tick[];
  up: readonly Tick[];
  /** A line on all four sides instead of two. */
  framed?: boolean;
}

/** The axes of a plot, at its left and its foot, each tick with its word. */
export function Axes({ W, H, box, x, y, across, up, framed = false }: Props) {
  const foot = H - box.bottom;
  /** Half of a word's width at most: one that would run off the plate stands before its edge. */
  const runsOff = (at: number, word: Tick["word"]) => x(at) + 3.6 * String(word).length > W - 1;
  return (
    <g>
      <path
        d={`M${box.left} ${box.top} V${foot} H${W - box.right}${framed ? ` V${box.top} Z` : ""}`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="1.4"
      />
      {across.map(({ at, word }) => (
        <g key={at}>
          <path d={`M${x(at)} ${foot} v5`} stroke="var(--ink)" />
          <text
            x={runsOff(at, word) ? W - 2 : x(at)}
            y={foot + 20}
            fontSize="13"
            textAnchor={runsOff(at, word) ? "end" : "middle"}
          >
            {word}
          </text>
        </g>
      ))}
      {up.map(({ at, word }) => (
        <g key={at}>
          <path d={`M${box.left} ${y(at)} h-5`} stroke="var(--ink)" />
          <text x={box.left - 9} y={y(at) + 4.5} fontSize="13" textAnchor="end">
            {word}
          </text>
        </g>
      ))}
    </g>
  );
}
