import type { Shapes } from "@/api/client";
import { usePlateWidth } from "@/figures/plate-width";
import { degrees, type Units } from "@/units";
import { CLASSES, DOES } from "@/words";
import { say } from "@/say";
import { region } from "@/say/i18n";

type Chart = Shapes["ChartOut"];

const HEIGHT = 190;
const TOP = 18;
const LEFT = 116;
const UNDER = 26;

interface Props {
  chart: Chart;
  units: Units;
  open: (id: string) => void;
}

/**
 * A dessert’s batches in order: how each came out, the ordinary spread as a band, a line where the
 * version changed. What lies outside the band is no accident.
 */
export function ControlPlate({ chart, units, open }: Props) {
  const [plate, width] = usePlateWidth(900, 360);
  const points = chart.points.filter((p) => p.set_s !== null);
  const values = points.map((p) => p.set_s ?? 0);
  const band = chart.set_limits;
  const low = Math.min(...values, band?.low ?? Infinity, 0.9) - 0.3;
  const high = Math.max(...values, band?.high ?? -Infinity, 5) + 0.3;
  const x = (n: number) => LEFT + ((n + 0.5) / Math.max(1, points.length)) * (width - LEFT - 8);
  const y = (s: number) => TOP + ((high - s) / (high - low)) * (HEIGHT - TOP - UNDER);
  const named = [...new Map(points.map((p) => [p.texture, p.set_s ?? 0])).entries()];
  const odd = (s: number) => band !== null && (s < band.low || s > band.high);
  return (
    <svg
      ref={plate}
      viewBox={`0 0 ${width} ${HEIGHT}`}
      className="plate block h-auto w-full"
      role="group"
      aria-label={say("figures.judged_batches_the_oldest_first", { points: points.length })}
    >
      {band && (
        <rect
          x={LEFT}
          y={y(Math.min(high, band.high))}
          width={width - LEFT - 8}
          height={Math.max(2, y(Math.max(low, band.low)) - y(Math.min(high, band.high)))}
          fill="url(#h-slice)"
          opacity="0.45"
        >
          <title>{say("figures.the_ordinary_spread")}</title>
        </rect>
      )}
      {named
        .filter(([texture]) => texture && CLASSES.includes(texture))
        .map(([texture, s]) => (
          <text key={texture} x="0" y={y(s) + 4} fontSize="13">
            {texture ? DOES[texture].slice(0, 17) : ""}
          </text>
        ))}
      {points.map((p, n) => {
        const before = points[n - 1];
        return (
          before !== undefined &&
          before.version !== p.version && (
            <g key={`v${p.id}`}>
              <path
                d={`M${(x(n - 1) + x(n)) / 2} ${TOP - 6} V${HEIGHT - UNDER}`}
                stroke="var(--ink)"
                strokeDasharray="2 3"
              />
              <text x={(x(n - 1) + x(n)) / 2} y={HEIGHT - 8} fontSize="12" textAnchor="middle">
                {say("figures.version", { version: p.version })}
              </text>
            </g>
          )
        );
      })}
      <path
        d={points.map((p, n) => `${n ? "L" : "M"}${x(n)} ${y(p.set_s ?? 0)}`).join(" ")}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="1"
      />
      {points.map((p, n) => (
        <circle
          key={p.id}
          cx={x(n)}
          cy={y(p.set_s ?? 0)}
          r={odd(p.set_s ?? 0) ? 7 : 5}
          fill={p.faults.length ? "var(--burnt)" : "var(--paper)"}
          stroke="var(--ink)"
          strokeWidth={odd(p.set_s ?? 0) ? 2.4 : 1.4}
          className="cursor-pointer"
          role="button"
          tabIndex={0}
          aria-label={say("figures.version_2", {
            day: new Date(p.at).toLocaleDateString(region),
            version: p.version,
            texture: p.texture ? DOES[p.texture] : "",
            peak_c:
              p.peak_c === null ? "" : say("figures.peak", { peak_c: degrees(p.peak_c, units) }),
            faults: p.faults.length ? say("figures.faults", { faults: p.faults.length }) : "",
          })}
          onClick={() => open(p.id)}
          onKeyDown={(event) => event.key === "Enter" && open(p.id)}
        />
      ))}
    </svg>
  );
}
