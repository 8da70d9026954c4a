import type { Shapes } from "@/api/client";
import { Movable } from "@/figures/movable";
import { usePlateWidth } from "@/figures/plate-width";
import { poolsOf } from "@/figures/runway-pools";
import { hour, timeLine } from "@/figures/runway-time";
import { ticks } from "@/figures/scale";
import { degrees, type Units } from "@/units";
import { say } from "@/say";

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
/** The dessert a step belongs to. */
export const dessertOf = (step: Step) => step.key.split("/")[0] ?? "";

interface Props {
  plan: Plan;
  units: Units;
  chosen: string | null;
  choose: (key: string | null) => void;
  /** Where the day is now, as minutes since the epoch. */
  now?: number | null;
  /** Whether a step that was moved is being worked in. */
  asking?: boolean;
  /** Asked for when a step is moved, with its new start in minutes since the epoch. */
  onPin?: (key: string, minute: number) => void;
}

const LEAST_WAIT_MIN = 10; // shorter is no wait
const OLD_MIN = 720; // as old as a line gets in colour

/**
 * The runway: time runs to the last service on the right; a lane for everybody’s hands, one for each
 * oven with its dial drawn as the line it is, and one each for rings, mixers and the cold, as many rows
 * as are in use at once. What waits is a thin line that ages; the dessert that is touched shows when its
 * steps may begin. Every dessert has a hatching of its own.
 */
export function Runway({ plan, units, chosen, choose, now = null, asking = false, onPin }: Props) {
  const [plate, width] = usePlateWidth(1100, 360);
  const names = width > 640 ? 120 : 88;
  const starts = plan.steps.map((s) => minutesOf(s.start));
  const ends = plan.steps.map((s) => minutesOf(s.end));
  const from = Math.min(...starts) - 10;
  const to = Math.max(...ends);
  const people = [...new Set(plan.steps.map((s) => s.who).filter((w) => w !== null))].sort();
  const ovens = plan.oven_lines.filter((line) => line.points.length).map((line) => line.oven);
  const busy = plan.steps.map(
    (s) =>
      [
        minutesOf(s.start),
        minutesOf(ovens.some((o) => s.where.includes(o)) ? s.end : s.hands_end),
      ] as const,
  );
  const line = timeLine(busy, from, to);
  const x = (minute: number) => names + line.at(minute) * (width - names - 12);
  const desserts = [...new Set(plan.steps.map(dessertOf))];
  const hatch = (step: Step) => HATCH[desserts.indexOf(dessertOf(step)) % HATCH.length] ?? "h-wall";
  const pools = poolsOf(plan.steps);
  const lanes = [...people, ...ovens, ...pools.map((p) => p.name)];
  const height = 24 + lanes.length * LANE + 22;
  const most = Math.max(2, Math.floor((width - names) / 56));
  const worked = 1 / line.perMinute;
  const marks = ticks(from, from + worked, most, [60, 120, 180, 360, 720, 1440]);
  const step = (marks[1] ?? from + 60) - (marks[0] ?? from);
  const shown = ticks(from, to, (to - from) / step + 2, [step]).filter(
    (m) => x(m) < width - 36 && !line.idle.some(([a, b]) => m > a && m < b),
  );
  const perMinute = line.perMinute * (width - names - 12);
  return (
    <svg
      ref={plate}
      viewBox={`0 0 ${width} ${height}`}
      className="plate block h-auto w-full"
      role={onPin ? "group" : "img"}
      aria-label={say("figures.the_day_from_to_the_lists", {
        from: hour(from),
        to: hour(to),
        lanes: lanes.join(", "),
      })}
    >
      {line.idle.map(([a, b]) => (
        <rect
          key={a}
          x={x(a)}
          y="20"
          width={x(b) - x(a)}
          height={height - 40}
          fill="url(#h-pour)"
          opacity="0.35"
        >
          <title>{say("figures.nothing_from_to", { a: hour(a), b: hour(b) })}</title>
        </rect>
      ))}
      {shown.map((m) => (
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
                `${n ? "H" : "M"}${x(Math.min(to, minutesOf(p.at)))}${n ? ` V${at(p.set_c)}` : ` ${at(p.set_c)}`}`,
            )
            .join(" ");
          return <path key={line.oven} d={d} fill="none" stroke="var(--burnt)" strokeWidth="1.8" />;
        })}
      <Waits
        steps={plan.steps}
        x={x}
        y={(step) => 24 + people.indexOf(step.who ?? "") * LANE + LANE - 3}
        chosen={chosen}
      />
      {plan.steps
        .filter((step) => chosen === dessertOf(step) && step.who !== null)
        .map((step) => (
          <Window
            key={`window ${step.key}`}
            step={step}
            x={x}
            from={from}
            y={24 + people.indexOf(step.who ?? "") * LANE + 3}
          />
        ))}
      {pools.map((pool, n) => {
        const y = 24 + (people.length + ovens.length + n) * LANE + 3;
        const tall = (LANE - 6) / pool.slots;
        return pool.bars.map((bar) => (
          <rect
            key={`${pool.name}${bar.step.key}`}
            x={x(bar.from)}
            y={y + bar.slot * tall}
            width={Math.max(2, x(bar.to) - x(bar.from))}
            height={Math.max(2, tall - 1)}
            fill={`url(#${hatch(bar.step)})`}
            stroke="var(--ink)"
            strokeWidth="0.6"
            opacity={chosen !== null && chosen !== dessertOf(bar.step) ? 0.25 : 1}
          >
            <title>
              {say("figures.to", {
                pool: pool.name,
                what: bar.step.what,
                from: hour(bar.from),
                to: hour(bar.to),
              })}
            </title>
          </rect>
        ));
      })}
      {plan.steps.map((step) => {
        const lane = step.who === null ? -1 : people.indexOf(step.who);
        const oven = ovens.findIndex((o) => step.where.includes(o));
        const start = minutesOf(step.start);
        const faded = chosen !== null && chosen !== dessertOf(step);
        const done = step.state === "done";
        return (
          <Movable
            key={step.key}
            step={step}
            start={start}
            perMinute={perMinute}
            asking={asking}
            opacity={faded ? 0.25 : done ? 0.45 : 1}
            onChoose={() => choose(chosen === dessertOf(step) ? null : dessertOf(step))}
            onPin={step.state === "to_do" || step.state === "pinned" ? onPin : undefined}
          >
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
            {step.state === "pinned" && lane >= 0 && (
              <path
                d={`M${x(start)} ${24 + lane * LANE + 1} v6 m-4 -6 h8`}
                stroke="var(--ink)"
                strokeWidth="2"
                fill="none"
              />
            )}
            {done && lane >= 0 && (
              <path
                d={`M${x(start) + 3} ${24 + lane * LANE + 17} l4 5 l7 -11`}
                stroke="var(--ink)"
                strokeWidth="2.2"
                fill="none"
              />
            )}
          </Movable>
        );
      })}
      {now !== null && now > from && now < to && (
        <g>
          <path d={`M${x(now)} 18 V${height - 18}`} stroke="var(--cold)" strokeWidth="2" />
          <text x={x(now)} y={height - 4} fontSize="12" textAnchor="middle" fill="var(--cold)">
            {say("figures.now", { now: hour(now) })}
          </text>
        </g>
      )}
      <path d={`M${x(to)} 18 V${height - 18}`} stroke="var(--burnt)" strokeWidth="3" />
      <text x={x(to)} y={height - 4} fontSize="13" textAnchor="end" fontWeight="700">
        {hour(to)}
      </text>
    </svg>
  );
}

/** What is made and waits for what comes after it: a thin line that reddens as it ages. */
function Waits({
  steps,
  x,
  y,
  chosen,
}: {
  steps: readonly Step[];
  x: (minute: number) => number;
  y: (step: Step) => number;
  chosen: string | null;
}) {
  const known = new Map(steps.map((step) => [step.key, step]));
  return steps.flatMap((step) =>
    step.after.flatMap((key) => {
      const before = known.get(key);
      if (!before || before.who === null) return [];
      const [from, to] = [minutesOf(before.end), minutesOf(step.start)];
      if (to - from < LEAST_WAIT_MIN) return [];
      const aged = Math.min(1, (to - from) / OLD_MIN);
      return (
        <path
          key={`${key} ${step.key}`}
          d={`M${x(from)} ${y(before)} H${x(to)}`}
          stroke={`color-mix(in srgb, var(--burnt) ${Math.round(100 * aged)}%, var(--rule))`}
          strokeWidth="1.6"
          opacity={chosen !== null && chosen !== dessertOf(step) ? 0.2 : 0.9}
        >
          <title>{say("figures.waits_from_to", { from: hour(from), to: hour(to) })}</title>
        </path>
      );
    }),
  );
}

/** When a step may begin: a bracket over it. */
function Window({
  step,
  x,
  from,
  y,
}: {
  step: Step;
  x: (minute: number) => number;
  from: number;
  y: number;
}) {
  if (!step.earliest || !step.latest) return null;
  const [a, b] = [Math.max(from, minutesOf(step.earliest)), minutesOf(step.latest)];
  if (b - a < 1) return null;
  return (
    <path
      d={`M${x(a)} ${y + 4} v-4 H${x(b)} v4`}
      fill="none"
      stroke="var(--cold)"
      strokeWidth="1.4"
    >
      <title>{say("figures.may_begin_from_to", { a: hour(a), b: hour(b) })}</title>
    </path>
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
