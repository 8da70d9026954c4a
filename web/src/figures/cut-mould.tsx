import type { Shapes } from "@/api/client";
import type { Frame } from "@/figures/frame";
import { usePlateWidth } from "@/figures/plate-width";
import { millimetres, type Units } from "@/units";
import { say } from "@/say";

export type See = "set" | "heat";

/** The section is drawn finer than it was computed, so that its zones have smooth edges. */
const FINER = 4;
const HEAT = [45, 60, 70, 78, 85];
const LOOK = ["pour", "nappe", "spoon", "pipe", "unmould", "over"] as const;
const SET_WORDS = [
  say("figures.liquid"),
  say("figures.thickening"),
  say("figures.trembles"),
  say("figures.just_set"),
  say("figures.set_through"),
  say("figures.overdone"),
];

interface Side {
  frame: Frame;
  fillMm: number;
}

interface Props {
  left: Side;
  /** Another case, shown as the right half. */
  right?: Side | undefined;
  vessel: Shapes["StandsIn"];
  wallMm: number;
  crustMm: number;
  /** Water around it, mm from the floor of the pan; null: none. */
  waterMm: number | null;
  see: See;
  /** A pie rises where it has set. */
  puffs: boolean;
  units: Units;
  label: string;
}

function zone(temp: number, set: number, over: number, see: See): number {
  if (see === "heat") return HEAT.filter((line) => temp >= line).length;
  if (over >= 40) return 5;
  return set < 3 ? 0 : set < 20 ? 1 : set < 40 ? 2 : set < 80 ? 3 : 4;
}

function between(grid: readonly (readonly number[])[], row: number, column: number): number {
  const rows = grid.length - 1;
  const columns = (grid[0]?.length ?? 1) - 1;
  const r = Math.min(Math.max(row, 0), rows);
  const c = Math.min(Math.max(column, 0), columns);
  const [r0, c0] = [Math.floor(r), Math.floor(c)];
  const [r1, c1] = [Math.min(r0 + 1, rows), Math.min(c0 + 1, columns)];
  const at = (i: number, j: number) => grid[i]?.[j] ?? 0;
  const low = at(r0, c0) + (at(r0, c1) - at(r0, c0)) * (c - c0);
  const high = at(r1, c0) + (at(r1, c1) - at(r1, c0)) * (c - c0);
  return low + (high - low) * (r - r0);
}

/** One path for each zone of half a section: runs of cells, row by row, following the walls. */
function halves(
  side: Side,
  see: See,
  sign: 1 | -1,
  half: (h: number) => number,
  y: (h: number) => number,
): string[] {
  const { temp_c, set_pct, over_pct } = side.frame;
  const rows = temp_c.length * FINER;
  const columns = (temp_c[0]?.length ?? 1) * FINER;
  const found = LOOK.map(() => "");
  for (let i = 0; i < rows; i++) {
    const row = (i + 0.5) / FINER - 0.5;
    const [low, high] = [i / rows, (i + 1) / rows];
    const wide = half((low + high) / 2) * sign;
    let from = 0;
    let last = -1;
    for (let j = 0; j <= columns; j++) {
      const column = (j + 0.5) / FINER - 0.5;
      const now =
        j === columns
          ? -1
          : zone(
              between(temp_c, row, column),
              between(set_pct, row, column),
              between(over_pct, row, column),
              see,
            );
      if (now === last) continue;
      if (last >= 0) {
        // The two halves meet a hair over the axis, so that no seam shows.
        const [a, b] = [(from / columns) * wide - (from ? 0 : 0.4 * sign), (j / columns) * wide];
        found[last] =
          `${found[last] ?? ""}M${a.toFixed(1)} ${y(low).toFixed(1)}H${b.toFixed(1)}V${(y(high) - 0.4).toFixed(1)}H${a.toFixed(1)}Z`;
      }
      from = j;
      last = now;
    }
  }
  return found;
}

/** The mould cut open: how far each place has set, or how hot it is, as hatching and as colour. */
export function CutMould(props: Props) {
  const { left, right, vessel, wallMm, crustMm, waterMm, see, puffs, units, label } = props;
  const [plate, W] = usePlateWidth(400, 240);
  const across = Math.max(vessel.top_mm, vessel.bottom_mm) + 2 * wallMm;
  const per = Math.min(
    (W - (waterMm === null ? 130 : 150)) / across,
    210 / (vessel.depth_mm + wallMm),
  );
  const floor = 300;
  const wall = Math.max(3, wallMm * per);
  const crust = crustMm * per;
  const base = floor - wall - crust;
  // Each half has its own depth: a shallower case stands beside the deeper one.
  const shape = (side: Side) => {
    const high = side.fillMm * per * (1 + (puffs ? 0.0006 * risen(side.frame) : 0));
    return {
      inner: (h: number) => {
        const share = (h * side.fillMm + crustMm) / vessel.depth_mm;
        const at = vessel.bottom_mm + (vessel.top_mm - vessel.bottom_mm) * Math.min(1, share);
        return (at / 2) * per - (crustMm ? crust : 0);
      },
      y: (h: number) => base - h * high,
    };
  };
  const { inner, y } = shape(left);
  const other = right ? shape(right) : { inner, y };
  const zones = [
    halves(left, see, -1, inner, y),
    halves(right ?? left, see, 1, other.inner, other.y),
  ];
  const top = floor - wall - vessel.depth_mm * per;
  const [outTop, outBottom] = [
    (vessel.top_mm / 2) * per + wall,
    (vessel.bottom_mm / 2) * per + wall,
  ];
  const [inTop, inBottom] = [outTop - wall, outBottom - wall];
  const most = Math.max(outTop, outBottom);
  const water = waterMm === null ? null : floor - waterMm * per;
  const shell = `M${-outTop} ${top} L${-outBottom} ${floor} H${outBottom} L${outTop} ${top} H${inTop} L${inBottom} ${floor - wall} H${-inBottom} L${-inTop} ${top} Z`;
  const H = floor + 40;
  const start = Math.min(top, y(1)) - 34;
  return (
    <svg
      ref={plate}
      viewBox={`${-W / 2} ${start} ${W} ${H - start}`}
      className="plate block h-auto w-full"
      role="img"
      aria-label={label}
    >
      {water !== null && (
        <>
          <path
            d={`M${-W / 2 + 14} ${water} H${W / 2 - 14} V${floor} H${-W / 2 + 14} Z`}
            fill="url(#h-cold)"
          />
          <path
            d={`M${-W / 2 + 14} ${water} H${-outTop} M${outTop} ${water} H${W / 2 - 14}`}
            stroke="var(--cold)"
            strokeWidth="2"
            strokeDasharray="8 4"
          />
          <path
            d={`M${-W / 2 + 14} ${water - 26} V${floor + 2} H${W / 2 - 14} V${water - 26}`}
            fill="none"
            stroke="var(--ink)"
            strokeWidth="2.4"
          />
        </>
      )}
      <path d={shell} fill="var(--paper)" />
      {crustMm > 0 && (
        <path
          d={`M${-inTop} ${top} L${-inBottom} ${floor - wall} H${inBottom} L${inTop} ${top} Z`}
          fill="var(--yolk)"
          opacity="0.5"
        />
      )}
      {crustMm > 0 && (
        <path
          d={`M${-inner(1)} ${y(1)} L${-inner(0)} ${base} H${inner(0)} L${inner(1)} ${y(1)} V${top} H${-inner(1)} Z`}
          fill="var(--paper)"
        />
      )}
      {zones.map((side, n) =>
        side.map((d, klass) =>
          d ? (
            <g key={`${n}${LOOK[klass]}`}>
              <path
                d={d}
                fill={LOOK[klass] === "over" ? "var(--set-unmould)" : `var(--set-${LOOK[klass]})`}
              />
              <path d={d} fill={`url(#h-${LOOK[klass]})`} />
            </g>
          ) : null,
        ),
      )}
      <path
        d={`M${-inner(1)} ${y(1)} H0 V${other.y(1)} H${other.inner(1)}`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="1.2"
      />
      {right && (
        <path
          d={`M0 ${y(1) - 10} V${base}`}
          stroke="var(--ink)"
          strokeWidth="1.4"
          strokeDasharray="6 4"
        />
      )}
      <path d={shell} fill="url(#h-wall)" />
      <path d={shell} fill="none" stroke="var(--ink)" strokeWidth="1.8" strokeLinejoin="round" />
      <g stroke="var(--ink)" strokeWidth="0.9" fill="none">
        <path d={`M${most + 14} ${base} V${y(1)} m-5 0 h10 M${most + 9} ${base} h10`} />
        <path
          d={`M${-most} ${floor + 14} H${most} M${-most} ${floor + 9} v10 M${most} ${floor + 9} v10`}
        />
      </g>
      <g className="halo" style={{ paintOrder: "stroke" }}>
        <text x={most + 19} y={(base + y(1)) / 2 + 5} fontSize="14">
          {millimetres(left.fillMm, units)}
        </text>
        <text y={floor + 33} fontSize="14" textAnchor="middle">
          {millimetres(across, units)}
        </text>
        {water !== null && (
          <text x={-W / 2 + 22} y={water - 6} fontSize="14">
            {say("figures.water")}
          </text>
        )}
      </g>
    </svg>
  );
}

/** How far a frame has set on the whole, per cent. */
function risen(frame: Frame): number {
  const all = frame.set_pct.flat();
  return all.reduce((sum, v) => sum + v, 0) / Math.max(1, all.length);
}

/** What the hatching means: the same swatches as in the section. */
export function CutKey({ see, degrees }: { see: See; degrees: (c: number) => string }) {
  const words =
    see === "set"
      ? SET_WORDS
      : LOOK.map((_, n) =>
          n === 0
            ? say("figures.under", { heat: degrees(HEAT[0] ?? 0) })
            : n === HEAT.length
              ? say("figures.over", { heat: degrees(HEAT[n - 1] ?? 0) })
              : say("figures.to_2", { heat: degrees(HEAT[n] ?? 0) }),
        );
  return (
    <ul className="caption flex flex-wrap gap-x-4 gap-y-1">
      {LOOK.map((klass, n) => (
        <li key={klass} className="inline-flex items-center gap-1.5">
          <svg width="26" height="16" aria-hidden="true">
            <rect
              width="26"
              height="16"
              fill={klass === "over" ? "var(--set-unmould)" : `var(--set-${klass})`}
            />
            <rect
              width="26"
              height="16"
              fill={`url(#h-${klass})`}
              stroke="var(--ink)"
              strokeWidth="1"
            />
          </svg>
          {words[n]}
        </li>
      ))}
    </ul>
  );
}

/** The mould from above: the disc in the middle that still wobbles when it is nudged. */
export function WobbleDisc({
  discMm,
  widthMm,
  units,
}: {
  discMm: number;
  widthMm: number;
  units: Units;
}) {
  const R = 58;
  const r = Math.min(1, discMm / widthMm) * R;
  return (
    <svg
      viewBox="-70 -70 140 160"
      className="plate block h-auto w-full"
      role="img"
      aria-label={
        r < 1
          ? say("figures.from_above_nothing_wobbles_any_more")
          : say("figures.from_above_a_disc_of_mm", { discMm: millimetres(discMm, units) })
      }
    >
      <circle r={R} fill="var(--set-slice)" />
      <circle r={R} fill="url(#h-slice)" stroke="var(--ink)" strokeWidth="2.4" />
      {r >= 1 && (
        <g className="wobbles">
          <circle r={r} fill="var(--set-pour)" />
          <circle
            r={r}
            fill="url(#h-pour)"
            stroke="var(--ink)"
            strokeWidth="1.2"
            strokeDasharray="5 3"
          />
        </g>
      )}
      <text y="82" fontSize="14" textAnchor="middle">
        {r < 1
          ? say("figures.still")
          : r >= R - 1
            ? say("figures.all_loose")
            : say("figures.wobble", { discMm: millimetres(discMm, units) })}
      </text>
    </svg>
  );
}
