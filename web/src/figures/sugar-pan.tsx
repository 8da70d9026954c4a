import type { Shapes } from "@/api/client";
import { degrees, minutes, type Units } from "@/units";
import { say } from "@/say";
import { STAGES } from "@/words";

type Syrup = Shapes["SyrupOut"];

/** What sugar looks like at a stage: clear, then straw to brown; the hatching thickens with it. */
const LOOK: Record<string, [string, string]> = {
  thread: ["var(--set-pour)", "h-pour"],
  soft_ball: ["var(--set-pour)", "h-nappe"],
  firm_ball: ["var(--set-nappe)", "h-spoon"],
  hard_ball: ["var(--set-nappe)", "h-pipe"],
  soft_crack: ["var(--set-spoon)", "h-slice"],
  hard_crack: ["var(--set-pipe)", "h-unmould"],
  pale: ["var(--set-slice)", "h-unmould"],
  amber: ["#c07a2c", "h-unmould"],
  deep_amber: ["#94531d", "h-unmould"],
  dark: ["#5f3213", "h-over"],
  burnt: ["#2f1a0c", "h-over"],
};

const ROW = 34;

/**
 * The syrup stage by stage, each a spoonful of its own colour on the clock of this ring: how long it
 * stays in each is how far the spoons lie apart.
 */
export function SugarPan({ syrup, units }: { syrup: Syrup; units: Units }) {
  const end = syrup.time_s ?? syrup.curve.at(-1)?.t_s ?? 1;
  const from = syrup.marks[0]?.t_s ?? 0;
  const tall = Math.max(150, syrup.marks.length * ROW + 20);
  const rows = spoons(
    syrup.marks,
    (t) => 18 + ((t - from) / Math.max(1, end - from)) * (tall - 40),
  );
  const H = Math.max(tall, (rows.at(-1)?.label ?? 0) + 26);
  const words = syrup.marks
    .map((m) => say("figures.after", { stage: STAGES[m.stage] ?? m.stage, t_s: minutes(m.t_s) }))
    .join(", ");
  return (
    <svg
      viewBox={`0 0 430 ${H}`}
      className="plate block h-auto w-full"
      role="img"
      aria-label={say("figures.the_syrup_on_this_ring", { words })}
    >
      <path d={`M26 10 V${H - 10}`} stroke="var(--ink)" strokeWidth="1.4" />
      {rows.map(({ mark, y, label }) => {
        const [fill, hatch] = LOOK[mark.stage] ?? ["var(--set-pour)", "h-pour"];
        return (
          <g key={mark.stage}>
            <path d={`M26 ${y} L56 ${label}`} stroke="var(--ink)" strokeWidth="0.9" fill="none" />
            <circle cx="26" cy={y} r="3" fill="var(--ink)" />
            <ellipse cx="74" cy={label} rx="17" ry="11" fill={fill} />
            <ellipse cx="74" cy={label} rx="17" ry="11" fill={`url(#${hatch})`} />
            <ellipse
              cx="74"
              cy={label}
              rx="17"
              ry="11"
              fill="none"
              stroke="var(--ink)"
              strokeWidth="1.4"
            />
            <path d={`M91 ${label} h14`} stroke="var(--ink)" strokeWidth="2.4" />
            <text x="112" y={label - 1} fontSize="14.5" fontWeight="700">
              {STAGES[mark.stage] ?? mark.stage}
            </text>
            <text x="112" y={label + 13} fontSize="11.5">
              {mark.sign}
            </text>
            <text x="424" y={label + 4} fontSize="14" textAnchor="end">
              {minutes(mark.t_s)}
            </text>
          </g>
        );
      })}
      <title>{say("figures.pull_at", { pull_c: degrees(syrup.pull_c, units) })}</title>
    </svg>
  );
}

/** Where each spoon lies: at its time, moved down where it would cover the one before. */
function spoons(marks: Syrup["marks"], at: (t: number) => number) {
  let below = -ROW;
  return marks.map((mark) => {
    const y = at(mark.t_s);
    below = Math.max(y, below + ROW);
    return { mark, y, label: below };
  });
}
