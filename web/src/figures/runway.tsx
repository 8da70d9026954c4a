import type { Shapes } from "@/api/client";
import { usePlateWidth } from "@/figures/plate-width";
import { ticks } from "@/figures/scale";
import { degrees, type Units } from "@/units";

type Plan = Shapes["DayOut"];
type Step = Shapes["DayStepOut"];

const LANE = 34;
const HATCH = [
  "h-wall",
  "h-slice",
  "h-pour",
  "h-unmould",
  "h-spoon",
  "h-cold",
  "h-nappe",
  "h-pipe",
];

const minutesOf = (iso: string) => new Date(iso).getTime() / 60_000;
const hour = (minute: number) => {
  const at = new Date(minute * 60_000);
  return `${at.getHours()}:${at.getMinutes().toString().padStart(2, "0")}`;
};

/** The dessert a step belongs to. */
export const dessertOf = (step: Step) => step.key.split("/")[0] ?? "";

interface Props {
  plan: Plan;
  units: Units;
  chosen: string | null;
  choose: (key: string | null) => void;
}

/**
 * The runway: time runs to the last service on the right; a lane for everybody’s hands and one for
 * each oven with its dial drawn as the line it is. Every dessert has a hatching of its own.
 */
export function Runway({ plan, units, chosen, choose }: Props) {
  const [plate, width] = usePlateWidth(1100, 360);
  const names = width > 640 ? 120 : 88;
  const starts = plan.steps.map((s) => minutesOf(s.start));
  const ends = plan.steps.map((s) => minutesOf(s.end));
  const from = Math.min(...starts) - 10;
  const to = Math.max(...ends);
  const x = (minute: number) => names + ((minute - from) / (to - from)) * (width - names - 12);
  const people = [...new Set(plan.steps.map((s) => s.who).filter((w) => w !== null))].sort();
  const ovens = plan.oven_lines.filter((line) => line.points.length).map((line) => line.oven);
  const desserts = [...new Set(plan.steps.map(dessertOf))];
  const hatch = (step: Step) => HATCH[desserts.indexOf(dessertOf(step)) % HATCH.length] ?? "h-wall";
  const lanes = [...people, ...ovens];
  const height = 24 + lanes.length * LANE + 22;
  const most = Math.max(2, Math.floor((width - names) / 56));
  const marks = ticks(from, to, most, [60, 120, 180, 360, 720, 1440]);
  return (
    <svg
      ref={plate}
      viewBox={`0 0 ${width} ${height}`}
      className="plate block h-auto w-full"
      role="img"
      aria-label={`The day from ${hour(from)} to ${hour(to)}: ${people.join(", ")}; ${ovens.join(", ")}. The lists below say the same in words.`}
    >
      {marks.map((m) => (
        <g key={m}>
          <path d={`M${x(m)} 20 V${height - 20}`} stroke="var(--rule)" strokeWidth="0.8" />
          <text x={x(m)} y="14" fontSize="12" textAnchor="middle">
            {hour(m)}
          </text>
        </g>
      ))}
      {lanes.map((name, lane) => (
        <g key={name}>
          <text x="2" y={24 + lane * LANE + LANE / 2 + 5} fontSize={names > 100 ? 14 : 13}>
            {name.slice(0, names > 100 ? 15 : 12)}
          </text>
          <path
            d={`M${names} ${24 + (lane + 1) * LANE} H${width - 12}`}
            stroke="var(--rule)"
            strokeWidth="0.6"
          />
        </g>
      ))}
      {plan.oven_lines
        .filter((line) => line.points.length)
        .map((line, i) => {
          const y = 24 + (people.length + i) * LANE;
          const dials = line.points.map((p) => p.set_c);
          const [low, high] = [Math.min(...dials) - 10, Math.max(...dials) + 10];
          const at = (c: number) => y + LANE - 4 - ((c - low) / (high - low)) * (LANE - 10);
          const d = line.points
            .map(
              (p, n) =>
                `${n ? "H" : "M"}${x(minutesOf(p.at))}${n ? ` V${at(p.set_c)}` : ` ${at(p.set_c)}`}`,
            )
            .join(" ");
          return <path key={line.oven} d={d} fill="none" stroke="var(--burnt)" strokeWidth="1.8" />;
        })}
      {plan.steps.map((step) => {
        const lane = step.who === null ? -1 : people.indexOf(step.who);
        const oven = ovens.findIndex((o) => step.where.includes(o));
        const start = minutesOf(step.start);
        const faded = chosen !== null && chosen !== dessertOf(step);
        return (
          <g
            key={step.key}
            opacity={faded ? 0.25 : 1}
            className="cursor-pointer"
            onClick={() => choose(chosen === dessertOf(step) ? null : dessertOf(step))}
          >
            <title>{`${step.what}, ${hour(start)}`}</title>
            {lane >= 0 && (
              <Block
                x={x(start)}
                y={24 + lane * LANE + 6}
                width={x(minutesOf(step.hands_end)) - x(start)}
                hatch={hatch(step)}
              />
            )}
            {oven >= 0 && (
              <Block
                x={x(start)}
                y={24 + (people.length + oven) * LANE + 6}
                width={x(minutesOf(step.end)) - x(start)}
                hatch={hatch(step)}
                word={degrees(step.oven_c, units)}
              />
            )}
          </g>
        );
      })}
      <path d={`M${x(to)} 18 V${height - 18}`} stroke="var(--burnt)" strokeWidth="3" />
      <text x={x(to)} y={height - 4} fontSize="13" textAnchor="end" fontWeight="700">
        {hour(to)}
      </text>
    </svg>
  );
}

function Block({
  x,
  y,
  width,
  hatch,
  word,
}: {
  x: number;
  y: number;
  width: number;
  hatch: string;
  word?: string;
}) {
  const wide = Math.max(2, width);
  return (
    <g>
      <rect x={x} y={y} width={wide} height={LANE - 12} fill="var(--set-pipe)" />
      <rect
        x={x}
        y={y}
        width={wide}
        height={LANE - 12}
        fill={`url(#${hatch})`}
        stroke="var(--ink)"
        strokeWidth="0.9"
      />
      {word && wide > 52 && (
        <text x={x + 4} y={y + 15} fontSize="12" fontWeight="700">
          {word}
        </text>
      )}
    </g>
  );
}
