import type { Shapes } from "@/api/client";
import { Axes } from "@/figures/axes";
import { usePlateWidth } from "@/figures/plate-width";
import { path, plainTicks, scale, tempTicks } from "@/figures/scale";
import type { Units } from "@/units";
import { say } from "@/say";

type Found = Shapes["BakeOut"];

interface Props {
  found: Found;
  ghost?: Found | undefined;
  /** The minute looked at. */
  at: number;
  units: Units;
  /** Readings of a probe in it, in minutes. */
  probe?: readonly { t_min: number; temp_c: number }[];
  label: string;
}

export const endOf = (found: Found): number =>
  found.after.at(-1)?.t_min ?? found.curve.at(-1)?.t_min ?? 60;

/** Middle and edge against time, the pull window as a band, and what it does after the pull. */
export function BakeTime({ found, ghost, at, units, probe = [], label }: Props) {
  const [plate, W] = usePlateWidth(640);
  const H = 230;
  const box = { left: 48, right: 12, top: 24, bottom: 30 };
  const end = Math.max(endOf(found), ghost ? endOf(ghost) : 0, probe.at(-1)?.t_min ?? 0);
  const x = scale([0, end], [box.left, W - box.right]);
  const y = scale([0, 105], [H - box.bottom, box.top]);
  const line = (points: Found["curve"], key: "centre_c" | "edge_c") =>
    path(points.map((p) => [x(p.t_min), y(p[key])] as const));
  const upTo = (points: Found["curve"], pull: number | null) =>
    pull === null ? points : points.filter((p) => p.t_min <= pull + 0.01);
  const [from, to] = [found.pull_from_min, found.pull_to_min];
  const [low, high] = [found.pull_low_min, found.pull_high_min];
  return (
    <svg
      ref={plate}
      viewBox={`0 0 ${W} ${H}`}
      className="plate block h-auto w-full"
      role="img"
      aria-label={label}
    >
      {low !== null && high !== null && (
        <rect
          x={x(low)}
          y={box.top}
          width={x(Math.min(high, end)) - x(low)}
          height={H - box.top - box.bottom}
          fill="var(--yolk)"
          opacity="0.18"
        />
      )}
      {from !== null && to !== null && (
        <g>
          <rect
            x={x(from)}
            y={box.top}
            width={Math.max(3, x(to) - x(from))}
            height={H - box.top - box.bottom}
            fill="url(#h-over)"
            stroke="var(--burnt)"
            strokeWidth="1.6"
          />
          <text
            x={(x(from) + x(to)) / 2}
            y={box.top - 8}
            fontSize="14"
            textAnchor="middle"
            style={{ fill: "var(--burnt)", fontWeight: 700 }}
          >
            {say("figures.pull")}
          </text>
        </g>
      )}
      <Axes
        {...{ W, H, box, x, y }}
        across={plainTicks(end, Math.max(4, Math.round(W / 90)), [5, 10, 15, 20, 30, 60])}
        up={tempTicks(0, 100, units)}
      />
      {ghost && (
        <g fill="none" stroke="var(--cold)" strokeWidth="1.8" strokeDasharray="7 4">
          <path d={line(upTo(ghost.curve, ghost.pull_min), "centre_c")} />
          <path d={line(ghost.after, "centre_c")} />
          {ghost.pull_from_min !== null && ghost.pull_to_min !== null && (
            <path
              d={`M${x(ghost.pull_from_min)} ${H - box.bottom - 4} H${x(ghost.pull_to_min)}`}
              strokeWidth="6"
              strokeDasharray="none"
            />
          )}
        </g>
      )}
      <g fill="none" strokeLinejoin="round">
        <path
          d={line(upTo(found.curve, found.pull_min), "edge_c")}
          stroke="var(--soft)"
          strokeWidth="1.4"
        />
        <path d={line(found.after, "edge_c")} stroke="var(--soft)" strokeWidth="1.4" />
        <path
          d={line(upTo(found.curve, found.pull_min), "centre_c")}
          stroke="var(--ink)"
          strokeWidth="2.6"
        />
        <path d={line(found.after, "centre_c")} stroke="var(--burnt)" strokeWidth="2.6" />
      </g>
      {probe.length > 1 && (
        <path
          d={path(probe.map((p) => [x(p.t_min), y(p.temp_c)] as const))}
          fill="none"
          stroke="var(--burnt)"
          strokeWidth="3"
        />
      )}
      <path
        d={`M${x(at)} ${box.top - 2} V${H - box.bottom}`}
        stroke="var(--ink)"
        strokeWidth="1.2"
        strokeDasharray="2 3"
      />
      <circle cx={x(at)} cy={H - box.bottom} r="5" fill="var(--ink)" />
    </svg>
  );
}
