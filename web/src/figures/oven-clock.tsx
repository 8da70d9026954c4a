import { clock } from "@/units";
import { say } from "@/say";

interface Span {
  from_s: number;
  to_s: number;
}

/** The time in the oven as a line: where it is now, the window, and where that was thought to be. */
export function OvenClock({ now, window, first }: { now: number; window: Span; first: Span }) {
  const W = 420;
  const end = Math.max(window.to_s, first.to_s, now) * 1.12;
  const x = (s: number) => 10 + (s / end) * (W - 20);
  const moved = Math.abs(window.from_s - first.from_s) > 45;
  const words = say("figures.in_the_oven_for_pull_between", {
    now: clock(now),
    from_s: clock(window.from_s),
    to_s: clock(window.to_s),
  });
  return (
    <svg
      viewBox={`0 0 ${W} 84`}
      className="plate block h-auto w-full"
      role="img"
      aria-label={words}
    >
      {moved && (
        <rect
          x={x(first.from_s)}
          y="30"
          width={x(first.to_s) - x(first.from_s)}
          height="22"
          fill="none"
          stroke="var(--soft)"
          strokeDasharray="4 3"
        />
      )}
      <rect
        x={x(window.from_s)}
        y="26"
        width={Math.max(4, x(window.to_s) - x(window.from_s))}
        height="30"
        fill="url(#h-over)"
        stroke="var(--burnt)"
        strokeWidth="1.8"
      />
      <path d={`M10 41 H${W - 10}`} stroke="var(--ink)" strokeWidth="1.4" />
      <path d={`M10 41 H${x(now)}`} stroke="var(--ink)" strokeWidth="6" />
      <circle cx={x(now)} cy="41" r="8" fill="var(--ink)" />
      <text
        x={(x(window.from_s) + x(window.to_s)) / 2}
        y="18"
        fontSize="16"
        textAnchor="middle"
        style={{ fill: "var(--burnt)", fontWeight: 700 }}
      >
        {say("figures.min", {
          from_s: Math.round(window.from_s / 60),
          to_s: Math.round(window.to_s / 60),
        })}
      </text>
      <text x={Math.min(W - 30, Math.max(30, x(now)))} y="76" fontSize="15" textAnchor="middle">
        {clock(now)}
      </text>
    </svg>
  );
}
