import type { Shapes } from "@/api/client";
import { usePlateWidth } from "@/figures/plate-width";
import { say } from "@/say";

type Build = Shapes["BuildOut"];
type Step = Shapes["BuildStepOut"];

const LANE = 30;
const NAMES = 118;

/** Minutes as a cook says them: 35 min, 2 h, 3 h 20. */
export function span(minutes: number): string {
  const total = Math.round(minutes);
  if (total < 60) return `${total}\u202fmin`;
  const hours = Math.floor(total / 60);
  if (hours >= 48) return `${Math.round(total / 1440)}\u202fd`;
  const rest = total % 60;
  return rest ? `${hours}\u202fh\u202f${rest.toString().padStart(2, "0")}` : `${hours}\u202fh`;
}

/**
 * The dessert’s own thread: every step at its latest start, the plate on the right. Time is drawn
 * by its root, so that the last minutes have the room they need.
 */
export function Thread({ build }: { build: Build }) {
  const [plate, width] = usePlateWidth(760, 330);
  const names = width > 520 ? NAMES : 64;
  const far = Math.max(...build.steps.map((s) => s.latest_min), 60);
  const x = (before: number) =>
    names + (width - names - 14) * (1 - Math.sqrt(Math.max(0, before) / far));
  const lanes = [...new Set(build.steps.map((s) => s.part))];
  const height = 26 + lanes.length * LANE + 26;
  const marks = [15, 60, 180, 360, 720, 1440, 2880].filter((m) => m < far * 0.97);
  const critical = new Set(build.critical);
  return (
    <svg
      ref={plate}
      viewBox={`0 0 ${width} ${height}`}
      className="plate block h-auto w-full"
      role="img"
      aria-label={say("figures.the_thread_from_nothing_to_the", {
        shortest_min: span(build.shortest_min),
      })}
    >
      {marks.map((m) => (
        <g key={m}>
          <path d={`M${x(m)} 20 V${height - 24}`} stroke="var(--rule)" strokeWidth="1" />
          <text x={x(m)} y="14" fontSize="12" textAnchor="middle" fill="var(--soft)">
            −{span(m)}
          </text>
        </g>
      ))}
      {lanes.map((part, lane) => {
        const y = 26 + lane * LANE + LANE / 2;
        return (
          <g key={part}>
            <text x="2" y={y + 5} fontSize="13.5" className={part ? "" : "italic"}>
              {(part || say("figures.whole")).slice(0, names > 100 ? 15 : 8)}
            </text>
            <path d={`M${names} ${y} H${width - 14}`} stroke="var(--rule)" strokeWidth="0.7" />
            {build.steps
              .filter((s) => s.part === part)
              .map((s) => (
                <Bar key={s.key} step={s} y={y} x={x} critical={critical.has(s.key)} />
              ))}
          </g>
        );
      })}
      <path d={`M${width - 14} 16 V${height - 22}`} stroke="var(--burnt)" strokeWidth="3" />
      <text x={width - 14} y={height - 6} fontSize="13" textAnchor="end" fontWeight="700">
        {say("figures.the_plate")}
      </text>
    </svg>
  );
}

function Bar({
  step,
  y,
  x,
  critical,
}: {
  step: Step;
  y: number;
  x: (before: number) => number;
  critical: boolean;
}) {
  const from = x(step.latest_min);
  const hands = x(step.latest_min - step.hands_min);
  const to = x(step.latest_min - step.hands_min - step.wait_min);
  const ink = critical ? "var(--burnt)" : "var(--ink)";
  return (
    <g>
      <title>
        {say("figures.of_hands_of_waiting", {
          step: step.words,
          hands_min: span(step.hands_min),
          wait_min: span(step.wait_min),
        })}
      </title>
      {step.wait_min > 0 && (
        <rect
          x={hands}
          y={y - 3}
          width={Math.max(1, to - hands)}
          height="6"
          fill="url(#h-wall)"
          stroke={ink}
          strokeWidth="0.8"
        />
      )}
      <rect x={from} y={y - 9} width={Math.max(2.5, hands - from)} height="18" fill={ink} />
    </g>
  );
}
