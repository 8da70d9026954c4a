import type { Shapes } from "@/api/client";
import type { PartKind } from "@/screens/formula/part";
import { say } from "@/say";

type Found = Shapes["FormulaOut"];

const BASE: Partial<Record<PartKind, RegExp>> = {
  crust: /flour|crumb|semolina|starch/i,
  caramel: /sugar/i,
  meringue: /white/i,
};
const FILLS = [
  "h-unmould",
  "h-wall",
  "h-pipe",
  "h-cold",
  "h-nappe",
  "h-slice",
  "h-over",
  "h-spoon",
];

/** What is no custard: its lines as one block cut in layers by weight, against its base. */
export function Makeup({ found, kind }: { found: Found; kind: PartKind }) {
  const lines = found.lines
    .filter((line) => line.grams)
    .sort((a, b) => (b.grams ?? 0) - (a.grams ?? 0));
  const base = lines.filter((line) => BASE[kind]?.test(line.name ?? ""));
  const whole = base.length ? base : lines.slice(0, 1);
  const hundred = whole.reduce((sum, line) => sum + (line.grams ?? 0), 0);
  const word = whole.map((line) => short(line.name ?? "")).join(say("words.and"));
  const rows = layers(lines, found.mass_g);
  return (
    <figure className="m-0">
      <svg
        viewBox="0 0 580 380"
        className="plate block h-auto w-full"
        role="img"
        aria-label={say("figures.made_of", {
          lines: lines
            .map((l) => `${short(l.name ?? "")} ${Math.round(l.grams ?? 0)} g`)
            .join(", "),
        })}
      >
        {rows.map(({ line, top, height, label }, i) => (
          <g key={`${line.text}${i}`}>
            <rect
              x="20"
              y={top}
              width="200"
              height={height}
              fill={`url(#${FILLS[i % FILLS.length] ?? "h-wall"})`}
              stroke="var(--ink)"
              strokeWidth="1.6"
            />
            <path
              d={`M222 ${top + height / 2} L250 ${label} H270`}
              fill="none"
              stroke="var(--ink)"
              strokeWidth="0.9"
            />
            <text x="276" y={label + 5} fontSize="16">
              {short(line.name ?? line.text)}
            </text>
            <text x="560" y={label + 5} fontSize="16" fontWeight="700" textAnchor="end">
              {share(((line.grams ?? 0) / hundred) * 100)}
            </text>
          </g>
        ))}
      </svg>
      <figcaption className="caption text-right">
        {say("figures.grams_for_100_g_of", { word })}
      </figcaption>
    </figure>
  );
}

const short = (name: string) => (name.split(/[,(]/)[0] ?? name).trim().toLowerCase();
const share = (value: number) => value.toFixed(value < 1 ? 1 : 0);
const BLOCK = 350;
const GAP = 27;

/** Layers from the heaviest at the bottom up, with labels that do not run into each other. */
function layers(lines: Found["lines"], mass: number) {
  const shown = lines.slice(0, 12);
  const heights = shown.map((line) => Math.max(3, ((line.grams ?? 0) / mass) * BLOCK));
  // What is too thin to be seen is drawn thicker; the heaviest gives way.
  const over = Math.max(0, heights.reduce((sum, h) => sum + h, 0) - BLOCK);
  let floor = 365;
  const rows = shown.map((line, i) => {
    const height = (heights[i] ?? 0) - (i ? 0 : over);
    floor -= height;
    return { line, top: floor, height, label: floor + height / 2 };
  });
  let below = 372 + GAP;
  for (const row of rows) {
    row.label = Math.min(row.label, below - GAP);
    below = row.label;
  }
  let above = 14 - GAP;
  for (const row of [...rows].reverse()) {
    row.label = Math.max(row.label, above + GAP);
    above = row.label;
  }
  return rows;
}
