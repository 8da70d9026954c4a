import type { Shapes } from "@/api/client";
import { setFill, setHatch } from "@/figures/hatches";
import { millimetres, type Units } from "@/units";
import type { SetClass } from "@/words";
import { say } from "@/say";

type TrayData = Shapes["TrayOut"];
const W = 320;
const EDGE = 34;

/** The pan from above with its moulds to scale, and cut through below with the water line. */
export function BathPlate({
  tray,
  deepMm,
  klass,
  units,
}: {
  tray: TrayData;
  /** How deep one of its moulds is. */
  deepMm: number;
  klass: SetClass;
  units: Units;
}) {
  const per = (W - 2 * EDGE) / tray.length_mm;
  const wide = tray.width_mm * per;
  const deep = Math.max(18, tray.depth_mm * per);
  const cut = EDGE + wide + 34;
  const H = cut + deep + 26;
  const water = tray.level_mm > 0;
  const [l, w] = tray.turned
    ? [tray.mould_width_mm, tray.mould_length_mm]
    : [tray.mould_length_mm, tray.mould_width_mm];
  // The section goes through the fullest row.
  const rows = tray.centres.map(({ y }) => tray.centres.filter((c) => Math.abs(c.y - y) < 1));
  const front = rows.reduce((a, b) => (b.length > a.length ? b : a), []);
  const mould = Math.min(deep + 6, (deepMm / tray.depth_mm) * deep);
  const level = (tray.level_mm / tray.depth_mm) * deep;
  const label = say("figures.from_above_with_moulds", {
    pan: tray.pan,
    centres: tray.centres.length,
    water: water
      ? say("figures.water_mm_deep", { level_mm: millimetres(tray.level_mm, units) })
      : ".",
  });
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      className="plate block h-auto w-full"
      role="img"
      aria-label={label}
    >
      <g transform={`translate(${EDGE} ${EDGE})`}>
        <rect width={W - 2 * EDGE} height={wide} fill="var(--sheet)" />
        {water && <rect width={W - 2 * EDGE} height={wide} fill="url(#h-cold)" />}
        <rect width={W - 2 * EDGE} height={wide} fill="none" stroke="var(--ink)" strokeWidth="3" />
        {tray.centres.map(({ x, y }) => {
          const at = { stroke: "var(--ink)", strokeWidth: 1.6 };
          const key = `${x},${y}`;
          return tray.round ? (
            <g key={key} transform={`translate(${x * per} ${y * per})`}>
              <ellipse rx={(l / 2) * per} ry={(w / 2) * per} fill="var(--paper)" {...at} />
              <ellipse rx={(l / 2) * per - 3} ry={(w / 2) * per - 3} fill={setFill(klass)} />
              <ellipse rx={(l / 2) * per - 3} ry={(w / 2) * per - 3} fill={setHatch(klass)} />
            </g>
          ) : (
            <g key={key} transform={`translate(${(x - l / 2) * per} ${(y - w / 2) * per})`}>
              <rect width={l * per} height={w * per} fill={setFill(klass)} {...at} />
              <rect width={l * per} height={w * per} fill={setHatch(klass)} />
            </g>
          );
        })}
        <g stroke="var(--ink)" strokeWidth="0.9" fill="none">
          <path d={`M0 -10 H${W - 2 * EDGE} M0 -15 v10 M${W - 2 * EDGE} -15 v10`} />
          <path d={`M-10 0 V${wide} M-15 0 h10 M-15 ${wide} h10`} />
        </g>
        <text x={(W - 2 * EDGE) / 2} y="-15" fontSize="13" textAnchor="middle">
          {millimetres(tray.length_mm, units)}
        </text>
        <text
          transform={`translate(-15 ${wide / 2}) rotate(-90)`}
          fontSize="13"
          textAnchor="middle"
        >
          {millimetres(tray.width_mm, units)}
        </text>
      </g>
      <g transform={`translate(${EDGE} ${cut})`}>
        {water && <rect y={deep - level} width={W - 2 * EDGE} height={level} fill="url(#h-cold)" />}
        {front.map(({ x }) => (
          <rect
            key={x}
            x={(x - l / 2) * per}
            y={deep - mould}
            width={l * per}
            height={mould}
            fill="var(--paper)"
            stroke="var(--ink)"
            strokeWidth="1.4"
          />
        ))}
        {water && (
          <>
            <path
              d={`M0 ${deep - level} H${W - 2 * EDGE}`}
              stroke="var(--cold)"
              strokeWidth="2"
              strokeDasharray="8 4"
            />
            <path
              d={`M${W - 2 * EDGE + 10} ${deep} V${deep - level} m-5 0 h10 M${W - 2 * EDGE + 5} ${deep} h10`}
              stroke="var(--ink)"
              strokeWidth="0.9"
              fill="none"
            />
          </>
        )}
        <path
          d={`M0 0 V${deep} H${W - 2 * EDGE} V0`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="3"
        />
        {water && (
          <text x={(W - 2 * EDGE) / 2} y={deep + 18} fontSize="13" textAnchor="middle">
            {say("figures.water_deep", { level_mm: millimetres(tray.level_mm, units) })}
          </text>
        )}
      </g>
    </svg>
  );
}
