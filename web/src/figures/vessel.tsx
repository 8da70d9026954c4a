import type { Shapes } from "@/api/client";
import { SetShape } from "@/figures/hatches";
import { millilitres, millimetres, type Units } from "@/units";
import type { SetClass } from "@/words";
import { say } from "@/say";

type Fit = Shapes["FitOut"];

/** The outline of one vessel in section and of what is in it, in a box of the given size. */
function section(fit: Fit, height: number, level: number) {
  const per = height / fit.depth_mm;
  const top = (fit.top_mm * per) / 2;
  const bottom = (fit.bottom_mm * per) / 2;
  const at = bottom + (top - bottom) * level;
  return {
    top,
    wall: `M${-top} ${-height} L${-bottom} 0 H${bottom} L${top} ${-height}`,
    food: `M${-at} ${-height * level} L${-bottom} 0 H${bottom} L${at} ${-height * level} Z`,
  };
}

/** The vessel cut open to scale, with its fill line and its real measures. */
export function VesselSection({ fit, klass, units }: { fit: Fit; klass: SetClass; units: Units }) {
  const wide = Math.max(fit.top_mm, fit.bottom_mm);
  const per = Math.min(130 / fit.depth_mm, 190 / wide);
  const height = fit.depth_mm * per;
  const cut = section(fit, height, fit.fill);
  const fillMm = fit.depth_mm * fit.fill;
  const H = Math.max(96, height + 64);
  const floor = H - 34;
  return (
    <svg
      viewBox={`-160 0 320 ${H}`}
      className="plate block h-auto w-full"
      role="img"
      aria-label={say("figures.in_section_mm_across_mm_deep", {
        vessel: fit.vessel,
        top_mm: millimetres(fit.top_mm, units),
        depth_mm: millimetres(fit.depth_mm, units),
        fillMm: millimetres(fillMm, units),
        per_vessel_ml: millilitres(fit.per_vessel_ml, units),
      })}
    >
      <g transform={`translate(0 ${floor})`}>
        <SetShape d={cut.food} klass={klass} />
        <path
          d={`M${-cut.top + 2} ${-height * fit.fill} H${cut.top - 2}`}
          stroke="var(--ink)"
          strokeWidth="1"
        />
        <path
          d={cut.wall}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="3.2"
          strokeLinejoin="round"
        />
        {/* dimension lines */}
        <g stroke="var(--ink)" strokeWidth="0.9" fill="none">
          <path
            d={`M${cut.top + 12} 0 V${-height} M${cut.top + 7} 0 h10 M${cut.top + 7} ${-height} h10`}
          />
          <path
            d={`M${-cut.top} ${-height - 12} H${cut.top} M${-cut.top} ${-height - 17} v10 M${cut.top} ${-height - 17} v10`}
          />
        </g>
        <text x={cut.top + 17} y={-height / 2 + 4} fontSize="13">
          {millimetres(fit.depth_mm, units)}
        </text>
        <g style={{ paintOrder: "stroke" }} stroke="var(--paper)" strokeWidth="6">
          <text y={-height - 8} fontSize="13" textAnchor="middle">
            {millimetres(fit.top_mm, units)}
          </text>
        </g>
        <text y="24" fontSize="15" textAnchor="middle" fontWeight="700">
          {say("figures.each", { per_vessel_ml: millilitres(fit.per_vessel_ml, units) })}
        </text>
      </g>
    </svg>
  );
}

const MOST_DRAWN = 30;

/** The tray: every vessel wanted, full, part full or empty, and what is left over. */
export function Tray({ fit, klass }: { fit: Fit; klass: SetClass }) {
  const drawn = Math.min(fit.count, MOST_DRAWN);
  const have = fit.count - (fit.per_vessel_ml ? fit.short_ml / fit.per_vessel_ml : 0);
  const perRow = Math.min(10, drawn);
  const rows = Math.ceil(drawn / perRow);
  const ratio = Math.max(0.7, Math.min(3.2, fit.top_mm / fit.depth_mm));
  const height = ratio > 1.6 ? 30 / ratio + 6 : 22;
  const scaled = {
    ...fit,
    top_mm: ratio * fit.depth_mm,
    bottom_mm: (ratio * fit.depth_mm * fit.bottom_mm) / fit.top_mm,
  };
  const step = 300 / perRow;
  const fitHeight = Math.min(height, (step * 0.84) / ratio);
  return (
    <svg
      viewBox={`0 0 300 ${rows * (fitHeight + 12)}`}
      className="plate block h-auto w-full"
      aria-hidden="true"
    >
      {Array.from({ length: drawn }, (_, i) => {
        const level = Math.max(0, Math.min(1, have - i)) * fit.fill;
        const cut = section(scaled, fitHeight, level);
        return (
          <g
            key={i}
            transform={`translate(${(i % perRow) * step + step / 2} ${(Math.floor(i / perRow) + 1) * (fitHeight + 12) - 6})`}
          >
            {level > 0.01 && <SetShape d={cut.food} klass={klass} />}
            <path
              d={cut.wall}
              fill="none"
              stroke="var(--ink)"
              strokeWidth="1.3"
              strokeDasharray={level > 0.01 ? undefined : "2 2"}
            />
          </g>
        );
      })}
    </svg>
  );
}
