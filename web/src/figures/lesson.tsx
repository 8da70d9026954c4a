import type { Shapes } from "@/api/client";
import { kelvins, type Units } from "@/units";

type Lesson = Shapes["LessonOut"];

const WIDTH = 220;
const HALF: Record<Lesson["kind"], number> = { ring: 0.5, pot: 1, oven: 25, set: 1.5 };
const ZERO: Record<Lesson["kind"], number> = { ring: 1, pot: 1, oven: 0, set: 0 };

/** A learned value on its own little plate: where the books put it, where it lies here, how surely. */
export function LessonPlate({ lesson, units }: { lesson: Lesson; units: Units }) {
  const [zero, half] = [ZERO[lesson.kind], HALF[lesson.kind]];
  const x = (value: number) =>
    WIDTH / 2 + (Math.max(-1, Math.min(1, (value - zero) / half)) * (WIDTH - 24)) / 2;
  const ends = {
    ring: ["50 %", "150 %"],
    pot: ["nothing", "twice"],
    oven: [`−${kelvins(half, units, 0)}`, `+${kelvins(half, units, 0)}`],
    set: ["softer", "firmer"],
  }[lesson.kind];
  const used = lesson.value ?? zero;
  return (
    <svg viewBox={`0 0 ${WIDTH} 40`} width={WIDTH} height="40" aria-hidden="true">
      <path d={`M12 18 H${WIDTH - 12}`} stroke="var(--ink)" strokeWidth="1" />
      <path d={`M${x(zero)} 12 v12`} stroke="var(--ink)" strokeWidth="1" />
      <rect
        x={x(lesson.mean - lesson.sd)}
        y="13"
        width={Math.max(2, x(lesson.mean + lesson.sd) - x(lesson.mean - lesson.sd))}
        height="10"
        fill="url(#h-slice)"
        stroke="var(--ink)"
        strokeWidth="0.7"
      />
      <path d={`M${x(lesson.mean)} 11 v14`} stroke="var(--burnt)" strokeWidth="2.4" />
      {lesson.on && <circle cx={x(used)} cy="18" r="4" fill="var(--burnt)" />}
      <text x="0" y="38" fontSize="11">
        {ends[0]}
      </text>
      <text x={WIDTH} y="38" fontSize="11" textAnchor="end">
        {ends[1]}
      </text>
    </svg>
  );
}
