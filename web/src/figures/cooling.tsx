import type { Shapes } from "@/api/client";
import { Axes } from "@/figures/axes";
import { usePlateWidth } from "@/figures/plate-width";
import { path, scale, tempTicks } from "@/figures/scale";
import { degrees, millimetres, type Units } from "@/units";
import { say } from "@/say";

type Found = Shapes["CoolOut"];

/** The container in section: how deep it stands, the deepest that passes, and what is around it. */
export function ColdSection({
  found,
  vessel,
  ice,
  film,
  units,
}: {
  found: Found;
  vessel: Shapes["StandsIn"];
  ice: boolean;
  film: boolean;
  units: Units;
}) {
  const W = 520;
  const wide = Math.max(vessel.top_mm, vessel.bottom_mm);
  // Shallow trays are drawn deeper than to scale, so that the depth can be read.
  const across = Math.min(W - 300, wide * 2.2);
  const tall = Math.max(vessel.depth_mm, found.depth_mm) || 1;
  const per = Math.min(170 / tall, 4);
  const floor = 210;
  const top = floor - tall * per;
  const half = across / 2;
  const level = floor - found.depth_mm * per;
  const deepest = Math.min(found.max_depth_mm, tall * 1.1);
  const line = floor - deepest * per;
  const zone = found.complies ? "cold" : "over";
  // Ice lies beside the food, closer where that is shallow.
  const layer = Math.min(16, (floor - level) / 5);
  return (
    <svg
      viewBox={`${-W / 2} ${Math.min(top, line) - 26} ${W} ${floor + 50 - Math.min(top, line)}`}
      className="plate block h-auto w-full"
      role="img"
      aria-label={say("figures.in_section_mm_deep_the_deepest", {
        vessel: vessel.name,
        depth_mm: millimetres(found.depth_mm, units),
        max_depth_mm: millimetres(found.max_depth_mm, units),
      })}
    >
      {ice && (
        <g>
          <path
            d={`M${-W / 2 + 16} ${level - 4} H${W / 2 - 16} V${floor + 14} H${-W / 2 + 16} Z`}
            fill="url(#h-cold)"
          />
          {Array.from({ length: 10 }, (_, i) => {
            const side = i % 2 ? 1 : -1;
            const x = side * (half + 16 + (i % 5) * 9);
            return (
              <rect
                key={i}
                x={x - 7}
                y={level + Math.min(4, layer) + Math.floor(i / 2) * layer}
                width="14"
                height="12"
                fill="var(--sheet)"
                stroke="var(--cold)"
                transform={`rotate(${(i * 37) % 40} ${x} ${level + 10 + Math.floor(i / 2) * layer})`}
              />
            );
          })}
          <path
            d={`M${-W / 2 + 16} ${level - 26} V${floor + 14} H${W / 2 - 16} V${level - 26}`}
            fill="none"
            stroke="var(--ink)"
            strokeWidth="2.4"
          />
        </g>
      )}
      <path d={`M${-half} ${top} V${floor} H${half} V${top}`} fill="var(--paper)" />
      <rect x={-half} y={level} width={across} height={floor - level} fill="var(--set-pipe)" />
      <rect x={-half} y={level} width={across} height={floor - level} fill="url(#h-pipe)" />
      {/* the part that is too deep to pass */}
      {found.depth_mm > deepest && (
        <rect x={-half} y={level} width={across} height={line - level} fill={`url(#h-${zone})`} />
      )}
      {film && <path d={`M${-half} ${level} H${half}`} stroke="var(--cold)" strokeWidth="4" />}
      <path
        d={`M${-half} ${top} V${floor} H${half} V${top}`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="3.2"
      />
      <path
        d={`M${-half - 10} ${line} H${half + 10}`}
        stroke="var(--burnt)"
        strokeWidth="2"
        strokeDasharray="7 4"
      />
      <g className="halo" style={{ paintOrder: "stroke" }}>
        <text
          x={half + 14}
          y={line + (found.complies ? -4 : 16)}
          fontSize="14"
          style={{ fill: "var(--burnt)" }}
        >
          {deepest < 1
            ? say("figures.no_depth_passes")
            : `${millimetres(found.max_depth_mm, units)} ${found.max_depth_mm >= 100 ? say("figures.and_more_pass") : say("figures.passes")}`}
        </text>
        <text
          x={-half - 14}
          y={(level + floor) / 2 + 5}
          fontSize="15"
          textAnchor="end"
          fontWeight="700"
        >
          {millimetres(found.depth_mm, units)}
        </text>
        {film && (
          <text x={-half - 14} y={level - 4} fontSize="13" textAnchor="end">
            {say("figures.film_on_it")}
          </text>
        )}
      </g>
    </svg>
  );
}

/** The two-stage clock: the warmest place falling through its two gates in time, or not. */
export function TwoStages({
  found,
  rule,
  units,
}: {
  found: Found;
  rule: Shapes["RuleIn"];
  units: Units;
}) {
  const [plate, W] = usePlateWidth(600);
  const H = 250;
  const box = { left: 46, right: 14, top: 16, bottom: 32 };
  const start = found.curve.find((p) => p.warmest_c <= rule.from_c)?.t_min ?? 0;
  // To where it is cold, but no longer than a night; the last gate is always on the plate.
  const end = Math.max(
    start + rule.end_min + 40,
    Math.min(600, start + Math.max(found.to_5_min ?? 0, found.to_21_min ?? 0) + 20),
  );
  const x = scale([0, end], [box.left, W - box.right]);
  const high = Math.max(60, ...found.curve.map((p) => p.warmest_c));
  const y = scale([0, high], [H - box.bottom, box.top]);
  const points = found.curve.filter((p) => p.t_min <= end);
  const gate = (minute: number, from: number, word: string) => (
    <g>
      <path
        d={`M${x(start + minute)} ${y(from)} V${box.top}`}
        stroke="var(--burnt)"
        strokeWidth="3"
      />
      <path d={`M${x(start + minute) - 6} ${y(from)} h12`} stroke="var(--burnt)" strokeWidth="3" />
      <text
        x={x(start + minute) - 6}
        y={box.top + 14}
        fontSize="13"
        textAnchor="end"
        style={{ fill: "var(--burnt)" }}
      >
        {word}
      </text>
    </g>
  );
  return (
    <svg
      ref={plate}
      viewBox={`0 0 ${W} ${H}`}
      className="plate block h-auto w-full"
      role="img"
      aria-label={say("figures.the_two_stage_clock", { says: found.says })}
    >
      <rect
        x={box.left}
        y={y(rule.from_c)}
        width={W - box.left - box.right}
        height={y(rule.end_c) - y(rule.from_c)}
        fill="url(#h-over)"
        opacity="0.35"
      />
      <rect
        x={box.left}
        y={y(rule.end_c)}
        width={W - box.left - box.right}
        height={Math.max(0, y(0) - y(rule.end_c))}
        fill="url(#h-cold)"
      />
      <Axes
        {...{ W, H, box, x, y }}
        across={Array.from({ length: Math.floor(end / 60) + 1 }, (_, h) => ({
          at: h * 60,
          word: `${h} h`,
        }))}
        up={tempTicks(0, high, units)}
      />
      {gate(
        rule.mid_min,
        rule.mid_c,
        say("figures.by_here", { mid_c: degrees(rule.mid_c, units) }),
      )}
      {gate(
        rule.end_min,
        rule.end_c,
        say("figures.by_here_2", { end_c: degrees(rule.end_c, units) }),
      )}
      <path
        d={path(points.map((p) => [x(p.t_min), y(p.mean_c)] as const))}
        fill="none"
        stroke="var(--soft)"
        strokeWidth="1.4"
        strokeDasharray="5 4"
      />
      <path
        d={path(points.map((p) => [x(p.t_min), y(p.warmest_c)] as const))}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="3"
      />
    </svg>
  );
}
