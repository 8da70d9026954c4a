import type { Shapes } from "@/api/client";
import { kelvins, type Units } from "@/units";
import { say } from "@/say";

type Lesson = Shapes["LessonOut"];

type Kind = Lesson["kind"];

const [WIDTH, HEIGHT, LEFT, RIGHT] = [260, 84, 46, 8];
const HALF: Record<Kind, number> = {
  ring: 0.5,
  loss: 60,
  pot: 1,
  oven: 25,
  film: 0.8,
  vent: 1,
  recovers: 1,
  set: 1.5,
  line: 1,
};
const ZERO: Record<Kind, number> = {
  ring: 1,
  loss: 0,
  pot: 1,
  oven: 0,
  film: 1,
  vent: 1,
  recovers: 1,
  set: 0,
  line: 0,
};
const ENDS: Partial<Record<Kind, [string, string]>> = {
  ring: ["50 %", "150 %"],
  loss: [say("figures.less"), say("figures.more")],
  pot: [say("figures.nothing"), say("figures.twice")],
  film: [say("figures.stiller"), say("figures.windier")],
  vent: [say("figures.closed"), say("figures.open")],
  recovers: [say("figures.slower"), say("figures.faster")],
  set: [say("figures.softer"), say("figures.firmer")],
  line: [say("figures.softer"), say("figures.firmer")],
};

/**
 * A learned value drawn: what each batch told, oldest on the left, where the books put it, and the
 * band in which it lies here.
 */
export function LessonPlate({ lesson, units }: { lesson: Lesson; units: Units }) {
  const [zero, half] = [ZERO[lesson.kind], HALF[lesson.kind]];
  const ends = ENDS[lesson.kind] ?? [`−${kelvins(half, units, 0)}`, `+${kelvins(half, units, 0)}`];
  const middle = HEIGHT / 2;
  const y = (value: number) =>
    middle - Math.max(-1, Math.min(1, (value - zero) / half)) * (middle - 8);
  const [from, to] = [LEFT, WIDTH - RIGHT];
  const x = (n: number) => from + ((n + 0.5) * (to - from)) / lesson.seen.length;
  const [high, low] = [y(lesson.mean + lesson.sd), y(lesson.mean - lesson.sd)];
  const used = lesson.value;
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} width={WIDTH} height={HEIGHT} aria-hidden="true">
      <rect
        x={from}
        y={high}
        width={to - from}
        height={Math.max(2, low - high)}
        fill="url(#h-slice)"
        opacity="0.6"
      />
      <path d={`M${from} ${y(zero)} H${to}`} stroke="var(--ink)" strokeDasharray="2 4" />
      <path d={`M${from} 4 V${HEIGHT - 4}`} stroke="var(--ink)" />
      {lesson.seen.map((value, n) => (
        <circle key={n} cx={x(n)} cy={y(value)} r="2.2" fill="var(--ink)" />
      ))}
      <path d={`M${from} ${y(lesson.mean)} H${to}`} stroke="var(--burnt)" strokeWidth="2" />
      {used !== null && <circle cx={to} cy={y(used)} r="4" fill="var(--burnt)" />}
      <text x={from - 5} y="13" fontSize="11" textAnchor="end">
        {ends[1]}
      </text>
      <text x={from - 5} y={y(zero) + 4} fontSize="11" textAnchor="end">
        {say("figures.books")}
      </text>
      <text x={from - 5} y={HEIGHT - 5} fontSize="11" textAnchor="end">
        {ends[0]}
      </text>
    </svg>
  );
}
