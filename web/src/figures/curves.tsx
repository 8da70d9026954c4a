import type { Shapes } from "@/api/client";
import { usePlateWidth } from "@/figures/plate-width";
import { clock, degrees, type Units } from "@/units";
import { say } from "@/say";

type Curve = Shapes["CurveOf"];

const HEIGHT = 200;
const LEFT = 52;
const UNDER = 26;

/** The curves of one dessert over each other as fine lines, the best one inked. */
export function Curves({
  curves,
  units,
  open,
}: {
  curves: readonly Curve[];
  units: Units;
  open: (id: string) => void;
}) {
  const [plate, width] = usePlateWidth(900, 360);
  const all = curves.flatMap((c) => c.points);
  const last = Math.max(...all.map((p) => p.t_s), 60);
  const [low, high] = [
    Math.min(...all.map((p) => p.temp_c)) - 2,
    Math.max(...all.map((p) => p.temp_c)) + 2,
  ];
  const x = (t: number) => LEFT + (t / last) * (width - LEFT - 10);
  const y = (c: number) => 8 + ((high - c) / (high - low)) * (HEIGHT - 8 - UNDER);
  const line = (c: Curve) =>
    c.points
      .map((p, i) => `${i ? "L" : "M"}${x(p.t_s).toFixed(1)} ${y(p.temp_c).toFixed(1)}`)
      .join("");
  const best = curves.find((c) => c.best);
  const rest = curves.filter((c) => c !== best);
  return (
    <svg
      ref={plate}
      viewBox={`0 0 ${width} ${HEIGHT}`}
      className="plate block h-auto w-full"
      role="img"
      aria-label={say("figures.curves_of_this_dessert_over_each", {
        curves: curves.length,
        best: best ? say("figures.the_best_one_inked") : "",
      })}
    >
      {[low + 2, (low + high) / 2, high - 2].map((c) => (
        <g key={c}>
          <path d={`M${LEFT} ${y(c)} H${width - 10}`} stroke="var(--rule)" strokeWidth="0.8" />
          <text x={LEFT - 6} y={y(c) + 4} fontSize="12.5" textAnchor="end">
            {degrees(c, units)}
          </text>
        </g>
      ))}
      {rest.map((c) => (
        <path
          key={c.id}
          d={line(c)}
          fill="none"
          stroke={c.faults.length ? "var(--burnt)" : "var(--soft)"}
          strokeWidth="1.1"
          strokeDasharray={c.faults.length ? "5 3" : undefined}
          className="cursor-pointer"
          onClick={() => open(c.id)}
        />
      ))}
      {best && (
        <path
          d={line(best)}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="3"
          className="cursor-pointer"
          onClick={() => open(best.id)}
        />
      )}
      {[0, last / 2, last].map((t) => (
        <text key={t} x={x(t)} y={HEIGHT - 8} fontSize="12.5" textAnchor={t ? "end" : "start"}>
          {clock(t)}
        </text>
      ))}
    </svg>
  );
}
