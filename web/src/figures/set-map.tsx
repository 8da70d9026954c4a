import type { ReactNode } from "react";

import type { Shapes } from "@/api/client";
import { SetShape } from "@/figures/hatches";
import { usePlateWidth } from "@/figures/plate-width";
import { Axes } from "@/figures/axes";
import { path, plainTicks, scale, type Scale } from "@/figures/scale";
import { BRIEF, DOES, SIGN } from "@/words";
import { say } from "@/say";

type SetMapData = Shapes["SetMap"];

/** The plate and its margins in its own units, for what is laid over it. */
export interface MapBox {
  width: number;
  height: number;
  left: number;
  right: number;
  top: number;
  bottom: number;
}

const boxOf = (width: number): MapBox => ({
  width,
  height: Math.max(300, Math.round(width * 0.724)),
  left: 62,
  right: 16,
  top: 6,
  bottom: 48,
});

/** Another formula on the same plane: an earlier version, or one of the family. */
export interface MapPoint {
  key: string;
  name: string;
  x: number;
  y: number;
  kind: "before" | "version" | "sibling";
}

interface Props {
  map: SetMapData;
  set: Shapes["SetOut"];
  /** Where the version before stood, other versions, and formulas of the same family. */
  others?: readonly MapPoint[];
  /** What lies over the plate: the handle of the point. */
  over?: (box: MapBox) => ReactNode;
}

/** Two ratios against each other, with the regions the model draws for this mix and where it stands. */
export function SetMap({ map, set, others = [], over }: Props) {
  const [plate, width] = usePlateWidth(580);
  const box = boxOf(width);
  const { width: W, height: H, ...BOX } = box;
  const x = scale([0, map.x_max], [BOX.left, W - BOX.right]);
  const y = scale([0, map.y_max], [H - BOX.bottom, BOX.top]);
  const clamp = (v: number) => Math.min(map.x_max, Math.max(0, v));
  const edges = [
    map.rows.map(() => 0),
    ...map.edges.map((row) => row.map(clamp)),
    map.rows.map(() => map.x_max),
  ];
  const regions = edges.slice(0, -1).map((left, k) => {
    const right = edges[k + 1] ?? left;
    const down = map.rows.map((egg, i) => [x(left[i] ?? 0), y(egg)] as const);
    const up = map.rows.map((egg, i) => [x(right[i] ?? 0), y(egg)] as const).reverse();
    const middle = Math.floor(map.rows.length * 0.86);
    const from = x(left[middle] ?? 0);
    const to = x(right[middle] ?? 0);
    return {
      klass: map.classes[k] ?? "pour",
      d: `${path([...down, ...up])} Z`,
      at: (from + to) / 2,
      width: to - from,
      high: y(map.rows[middle] ?? 0),
      edge: path(up),
    };
  });
  const px = x(Math.min(map.x, map.x_max));
  const py = y(Math.min(map.y, map.y_max));
  const rightmost = px > W - BOX.right - 46;
  const inside = others.filter((o) => o.x <= map.x_max && o.y <= map.y_max);
  const label = say("figures.set_map_and_each_per_1000", {
    x: map.x.toFixed(0),
    x_word: map.x_word,
    y: map.y.toFixed(0),
    y_word: map.y_word,
    does: DOES[set.class].toLowerCase(),
    dOES2: DOES[set.low_class].toLowerCase(),
    dOES3: DOES[set.high_class].toLowerCase(),
    inside: inside
      .map((o) => say("figures.and", { o: o.name, x: o.x.toFixed(0), y: o.y.toFixed(0) }))
      .join(""),
  });
  return (
    <div className="relative">
      <svg
        ref={plate}
        viewBox={`0 0 ${W} ${H}`}
        className="plate block h-auto w-full"
        role="img"
        aria-label={label}
      >
        {regions.map((r) => (
          <SetShape key={r.klass} d={r.d} klass={r.klass} />
        ))}
        {regions.slice(0, -1).map((r) => (
          <path key={r.klass} d={r.edge} fill="none" stroke="var(--ink)" strokeWidth="1" />
        ))}
        {regions.map((r) =>
          r.width < 26 ? null : (
            <g
              key={r.klass}
              transform={`translate(${r.at} ${r.high + (r.width < 86 ? 44 : 0)})${r.width < 86 ? " rotate(-90)" : ""}`}
              style={{ paintOrder: "stroke" }}
              stroke={`var(--set-${r.klass})`}
              strokeWidth="6"
              strokeLinejoin="round"
            >
              <text className="italic" textAnchor="middle" fontSize="19">
                {BRIEF[r.klass]}
              </text>
              {r.width >= 150 && (
                <text textAnchor="middle" fontSize="12.5" y="18">
                  {SIGN[r.klass]}
                </text>
              )}
            </g>
          ),
        )}
        <Axes
          {...{ W, H, box: BOX, x, y }}
          across={plainTicks(map.x_max, W < 480 ? 5 : 7, [10, 20, 40, 100, 200, 1000])}
          up={plainTicks(map.y_max, 8, [40, 100, 200, 400, 1000, 5000])}
          framed
        />
        <text x={W - BOX.right} y={H - 8} fontSize="14" textAnchor="end">
          {say("figures.per_1000_g_liquid", { x_word: map.x_word })}
        </text>
        <text transform={`translate(15 ${BOX.top}) rotate(-90)`} fontSize="14" textAnchor="end">
          {say("figures.per_1000_g_liquid_2", { y_word: map.y_word })}
        </text>

        {map.guides.map((g) => (
          <Guide key={`${g.axis}${g.at}`} guide={g} x={x} y={y} box={box} />
        ))}
        {inside.map((o) => (
          <Other key={o.key} point={o} at={[x(o.x), y(o.y)]} to={[px, py]} />
        ))}

        {/* dimension lines to both axes */}
        <path
          d={`M${px} ${py + 12} V${H - BOX.bottom} M${px - 12} ${py} H${BOX.left}`}
          stroke="var(--ink)"
          strokeWidth="1.2"
          strokeDasharray="7 4"
        />
        <g style={{ paintOrder: "stroke" }} stroke="var(--paper)" strokeWidth="6" fontWeight="700">
          <text
            x={px + (rightmost ? -8 : 8)}
            y={H - BOX.bottom - 9}
            fontSize="17"
            textAnchor={rightmost ? "end" : "start"}
          >
            {map.x.toFixed(0)}
          </text>
          <text x={BOX.left + 8} y={py < 30 ? py + 20 : py - 8} fontSize="17">
            {map.y.toFixed(0)}
          </text>
        </g>
        {/* how sure: the starch that would give either end of the band */}
        <path
          d={`M${x(map.x_low)} ${py} H${x(map.x_high)} M${x(map.x_low)} ${py - 8} v16 M${x(map.x_high)} ${py - 8} v16`}
          stroke="var(--burnt)"
          strokeWidth="2.4"
          fill="none"
        />
        <circle
          cx={px}
          cy={py}
          r="9"
          fill="var(--burnt)"
          stroke="var(--paper)"
          strokeWidth="2.5"
          data-testid="set-point"
        />
      </svg>
      {over?.(box)}
    </div>
  );
}

/** Where a mix begins to eat differently: fat by height, sweetness by width. */
function Guide({
  guide,
  x,
  y,
  box,
}: {
  guide: SetMapData["guides"][number];
  x: Scale;
  y: Scale;
  box: MapBox;
}) {
  const { width: W, height: H, ...BOX } = box;
  const up = guide.axis === "y";
  const at = up ? y(guide.at) : x(guide.at);
  return (
    <g stroke="var(--cold)" strokeDasharray="1 5" strokeLinecap="round" strokeWidth="1.8">
      <path
        d={up ? `M${BOX.left} ${at} H${W - BOX.right}` : `M${at} ${BOX.top} V${H - BOX.bottom}`}
      />
      <g style={{ paintOrder: "stroke" }} className="halo" fontSize="12.5">
        {up ? (
          <text x={W - BOX.right - 6} y={at - 5} textAnchor="end">
            {guide.above} ↑
          </text>
        ) : (
          <text x={at + 6} y={H - BOX.bottom - 30}>
            {guide.above} →
          </text>
        )}
      </g>
    </g>
  );
}

/** Another formula: a ring for a version, with a line to where it went; a square for a sibling. */
function Other({
  point,
  at: [cx, cy],
  to: [tx, ty],
}: {
  point: MapPoint;
  at: readonly [number, number];
  to: readonly [number, number];
}) {
  const far = Math.hypot(cx - tx, cy - ty) > 4;
  return (
    <g>
      <title>{point.name}</title>
      {point.kind === "before" && far && (
        <path d={`M${cx} ${cy} L${tx} ${ty}`} stroke="var(--ink)" strokeDasharray="2 5" />
      )}
      {point.kind === "sibling" ? (
        <rect
          x={cx - 4.5}
          y={cy - 4.5}
          width="9"
          height="9"
          transform={`rotate(45 ${cx} ${cy})`}
          fill="var(--paper)"
          stroke="var(--ink)"
          strokeWidth="1.3"
        />
      ) : (
        far && (
          <circle cx={cx} cy={cy} r="6" fill="var(--paper)" stroke="var(--ink)" strokeWidth="1.4" />
        )
      )}
    </g>
  );
}
