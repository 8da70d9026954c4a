import type { Shapes } from "@/api/client";
import { Axes } from "@/figures/axes";
import { path, scale, massTicks, tempTicks } from "@/figures/scale";
import { degrees, grams, fromCelsius, type Units } from "@/units";
import { say } from "@/say";

type Ladder = Shapes["Ladder"];

const W = 560;
const H = 470;
const BOX = { left: 52, right: 18, top: 16, bottom: 56 };

const LABEL_W = 42;
const SCRAMBLES_W = 160;

/** Which rungs have room for their temperature. */
function labelled(xs: readonly number[]): Set<number> {
  const found = new Set<number>();
  let last = -Infinity;
  xs.forEach((x, i) => {
    if (x - last <= LABEL_W) return;
    found.add(i);
    last = x;
  });
  return found;
}

interface Props {
  ladder: Ladder;
  units: Units;
  /** How many rungs have been climbed (in the cook). */
  poured?: number;
  live?: number | null;
}

/** Each ladle a rung: the bowl's temperature climbs under the line where this mix scrambles. */
export function TemperLadder({ ladder, units, poured, live }: Props) {
  const total = ladder.rungs.at(-1)?.added_g ?? 1;
  const temps = [ladder.bowl_temp_c, ...ladder.rungs.map((r) => r.mix_temp_c)];
  const low = Math.min(...temps, 20);
  const yLow = Math.floor((low - 6) / 10) * 10;
  const x = scale([0, total], [BOX.left + 14, W - BOX.right - 10]);
  const y = scale([yLow, 102], [H - BOX.bottom, BOX.top]);
  const foot: [number, number] = [x(0), y(ladder.bowl_temp_c)];
  const steps: [number, number][] = ladder.rungs.map((r) => [x(r.added_g), y(r.mix_temp_c)]);
  const line = [foot, ...steps];
  const half = 11;
  const normals = line.map((p, i) => {
    const a = line[Math.max(0, i - 1)] ?? p;
    const b = line[Math.min(line.length - 1, i + 1)] ?? p;
    const dx = b[0] - a[0];
    const dy = b[1] - a[1];
    const length = Math.hypot(dx, dy) || 1;
    return [(-dy / length) * half, (dx / length) * half] as const;
  });
  const rail = (side: 1 | -1) =>
    path(
      line.map((p, i) => {
        const n = normals[i] ?? [0, 0];
        return [p[0] + side * n[0], p[1] + side * n[1]] as const;
      }),
    );
  const danger = [
    [x(0), y(Math.min(101, ladder.scramble_c))] as const,
    ...ladder.rungs.map((r) => [x(r.added_g), y(Math.min(101, r.scramble_c))] as const),
  ];
  // Under where it scrambles at first; where the ladder climbs through that, at its end.
  const most = Math.max(...ladder.rungs.map((r) => r.scramble_c), ladder.scramble_c);
  const under = (c: number) => y(Math.min(101, c)) + 20;
  const crossed = steps.some(
    (p) => p[0] < x(0) + SCRAMBLES_W && Math.abs(p[1] - under(ladder.scramble_c)) < 34,
  );
  const scrambles = crossed
    ? ([W - BOX.right - SCRAMBLES_W, under(most)] as const)
    : ([x(0) + 6, under(ladder.scramble_c)] as const);
  const firstX = x(Math.min(ladder.first_safe_g, total));
  const held = ladder.school === "held_back_liquid";
  const roomy = labelled(steps.map((p) => p[0]));
  const next = poured === undefined ? -1 : poured;
  const label = held
    ? say("figures.pouring_ladder_pours_into_the_pot", {
        rungs: ladder.rungs.length,
        end_temp_c: degrees(ladder.end_temp_c, units),
      })
    : say("figures.temper_ladder_ladles_onto_the_eggs", {
        rungs: ladder.rungs.length,
        bowl_temp_c: degrees(ladder.bowl_temp_c, units),
        end_temp_c: degrees(ladder.end_temp_c, units),
        first_safe_g: grams(ladder.first_safe_g, units),
        scramble_c: degrees(ladder.scramble_c, units),
      });
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      className="plate block h-auto w-full"
      role="img"
      aria-label={label}
    >
      {/* where the egg goes to grains */}
      <path
        d={`${path(danger)} L${x(total)} ${BOX.top} L${x(0)} ${BOX.top} Z`}
        fill="url(#h-over)"
        opacity="0.75"
      />
      <path d={path(danger)} fill="none" stroke="var(--burnt)" strokeWidth="2.4" />
      <g style={{ paintOrder: "stroke" }} stroke="var(--paper)" strokeWidth="6">
        <text
          x={scrambles[0]}
          y={scrambles[1]}
          fontSize="15"
          className="italic"
          style={{ fill: "var(--burnt)" }}
        >
          {ladder.scramble_c >= 100
            ? say("figures.starch_keeps_the_egg_from_scrambling")
            : say("figures.scrambles_from", { scramble_c: degrees(ladder.scramble_c, units) })}
        </text>
      </g>
      {/* the first safe ladle */}
      {!held && ladder.first_safe_g > 1 && ladder.first_safe_g < total && (
        <g>
          <rect
            x={x(0)}
            y={y(yLow) - 26}
            width={Math.max(2, firstX - x(0))}
            height="26"
            fill="url(#h-cold)"
          />
          <path
            d={`M${firstX} ${y(yLow)} V${y(56)}`}
            stroke="var(--cold)"
            strokeWidth="1.6"
            strokeDasharray="6 4"
          />
          <g style={{ paintOrder: "stroke" }} stroke="var(--paper)" strokeWidth="6">
            <text
              x={firstX + 7}
              y={y(yLow) - 8}
              fontSize="15"
              fontWeight="700"
              style={{ fill: "var(--cold)" }}
            >
              {say("figures.first_ladle_up_to", {
                first_safe_g: grams(ladder.first_safe_g, units),
              })}
            </text>
          </g>
        </g>
      )}
      <Axes
        {...{ W, H, box: BOX, x, y }}
        across={massTicks(total, units)}
        up={tempTicks(yLow, 100, units)}
      />
      <text x={W - BOX.right} y={H - 12} fontSize="14" textAnchor="end">
        {held
          ? say("figures.egg_mix_poured_into_the_pot")
          : say("figures.hot_liquid_poured_onto_the_eggs")}
        , {units === "us" ? say("figures.oz") : "g"}
      </text>
      {/* the ladder */}
      <path d={rail(1)} fill="none" stroke="var(--ink)" strokeWidth="2.2" strokeLinejoin="round" />
      <path d={rail(-1)} fill="none" stroke="var(--ink)" strokeWidth="2.2" strokeLinejoin="round" />
      {steps.map((p, i) => {
        const n = normals[i + 1] ?? [0, 0];
        const done = i < next;
        const now = i === next;
        const room = roomy.has(i);
        const rung = ladder.rungs[i];
        return (
          <g key={i}>
            <path
              d={`M${p[0] + n[0]} ${p[1] + n[1]} L${p[0] - n[0]} ${p[1] - n[1]}`}
              stroke={done ? "var(--burnt)" : "var(--ink)"}
              strokeWidth={now ? 6 : done ? 5 : 2.6}
              strokeLinecap="round"
            />
            {room && rung && (
              <g style={{ paintOrder: "stroke" }} stroke="var(--paper)" strokeWidth="5">
                <text x={p[0] + 6} y={p[1] + 32} fontSize="14" textAnchor="middle">
                  {Math.round(fromCelsius(rung.mix_temp_c, units))}°
                </text>
              </g>
            )}
          </g>
        );
      })}
      <circle
        cx={foot[0]}
        cy={foot[1]}
        r="6.5"
        fill="var(--yolk)"
        stroke="var(--ink)"
        strokeWidth="1.6"
      />
      <g style={{ paintOrder: "stroke" }} stroke="var(--paper)" strokeWidth="6">
        <text x={foot[0] + 28} y={foot[1] - 3} fontSize="14">
          {held ? say("figures.pot") : say("figures.bowl")}{" "}
          {degrees(held ? ladder.poured_temp_c : ladder.bowl_temp_c, units)}
        </text>
      </g>
      {live !== undefined && live !== null && (
        <path
          d={`M${BOX.left} ${y(live)} H${W - BOX.right}`}
          stroke="var(--burnt)"
          strokeWidth="1.6"
          strokeDasharray="2 4"
        />
      )}
    </svg>
  );
}
