import type { Shapes } from "@/api/client";
import { usePlateWidth } from "@/figures/plate-width";
import { grams, millimetres, type Units } from "@/units";
import { say } from "@/say";

type Build = Shapes["CutOut"];
type Lain = Shapes["LainOut"];
type Kind = Lain["kind"];

/** How each kind of part looks cut open: its colour and its hatching. */
const LOOKS: Partial<Record<Kind, readonly [fill: string, hatch: string]>> = {
  flaky: ["var(--crust)", "h-wall"],
  sweet: ["var(--crust)", "h-slice"],
  puff: ["var(--crust)", "h-pour"],
  choux: ["var(--crust)", "h-spoon"],
  sponge: ["var(--crust)", "h-spoon"],
  crumb: ["var(--crust)", "h-unmould"],
  frangipane: ["var(--crust)", "h-pipe"],
  biscuit: ["var(--crust)", "h-wall"],
  caramel: ["var(--burnt)", "h-pour"],
  sauce: ["var(--burnt)", "h-nappe"],
  torched: ["var(--burnt)", "h-wall"],
  ganache: ["var(--soft)", "h-nappe"],
  chocolate_coat: ["var(--soft)", "h-nappe"],
  jam: ["var(--set-slice)", "h-nappe"],
  coulis: ["var(--burnt)", "h-cold"],
  fruit: ["var(--set-nappe)", "h-cold"],
  poached_fruit: ["var(--set-nappe)", "h-cold"],
  whipped: ["var(--sheet)", "h-spoon"],
  italian: ["var(--sheet)", "h-pipe"],
  swiss: ["var(--sheet)", "h-pipe"],
  french: ["var(--sheet)", "h-pipe"],
  cheesecake: ["var(--set-pipe)", "h-unmould"],
  bath: ["var(--set-slice)", "h-unmould"],
  pie: ["var(--set-unmould)", "h-slice"],
  batter: ["var(--set-unmould)", "h-spoon"],
  flan: ["var(--set-unmould)", "h-slice"],
  garnish: ["var(--set-nappe)", "h-wall"],
};
const CREAM = ["var(--set-pipe)", "h-pipe"] as const;
const lookOf = (kind: Kind) => LOOKS[kind] ?? CREAM;

const LABELS = 232;
const LEAST_LABEL = 21;

/** A wedge is seen from its point to the rim; everything else across. */
const halved = (build: Build) => build.stand.cut === "wedges";

/** A layer’s outlines on the plate, `per` pixels a millimetre: its body, and its wall if it has one. */
function outlines(layer: Lain, build: Build, per: number): string[] {
  const { stand } = build;
  const most = stand.cut === "squares" ? stand.cut_width_mm / 2 : Infinity;
  const x = (width: number) => Math.min(width / 2, most) * per;
  const [low, high] = [x(layer.width_mm), x(layer.top_width_mm)];
  const [from, to] = [-layer.from_mm * per, -layer.to_mm * per];
  const half = halved(build);
  if (layer.lies === "dome") {
    return half
      ? [`M0 ${from} V${to} Q${low * 0.8} ${to} ${low} ${from} Z`]
      : [`M${-low} ${from} Q0 ${from + 2 * (to - from)} ${low} ${from} Z`];
  }
  if (layer.lies === "swirls") return swirls(low, -from, -to, half);
  if (layer.over_mm) return [coat(low, -from, -to, layer.over_mm * per, half)];
  const body = `M${half ? 0 : -low} ${from} L${low} ${from} L${high} ${to} L${half ? 0 : -high} ${to} Z`;
  if (!layer.walls) return [body];
  const grows = (stand.top_mm - stand.bottom_mm) / 2 / stand.depth_mm;
  const outer = (mm: number) => (layer.width_mm / 2 + grows * (mm - layer.from_mm)) * per;
  const thick = layer.wall_mm * per;
  const rim = -stand.depth_mm * per;
  const [o0, o1] = [outer(layer.to_mm), outer(stand.depth_mm)];
  const right = `M${o0} ${to} L${o1} ${rim} L${o1 - thick} ${rim} L${o0 - thick} ${to} Z`;
  const left = `M${-o0} ${to} L${-o1} ${rim} L${thick - o1} ${rim} L${thick - o0} ${to} Z`;
  return half ? [body, right] : [body, right, left];
}

/** A coat over a dome, as thick at the edge as at the top: between two of the dome's curves. */
function coat(reach: number, from: number, to: number, dome: number, half: boolean): string {
  const [under, over] = [-from, -to];
  return half
    ? `M0 ${under} V${over} Q${reach * 0.8} ${over} ${reach} ${over + dome} V${under + dome} Q${reach * 0.8} ${under} 0 ${under} Z`
    : `M${-reach} ${under + dome} Q0 ${under - dome} ${reach} ${under + dome} V${over + dome} Q0 ${over - dome} ${-reach} ${over + dome} Z`;
}

/** Swirls side by side, each a point on a round foot. */
function swirls(reach: number, from: number, to: number, half: boolean): string[] {
  const tall = to - from;
  const across = half ? reach : 2 * reach;
  const many = Math.max(1, Math.round(across / Math.max(tall * 1.1, 14)));
  const step = across / many;
  return Array.from({ length: many }, (_, i) => {
    const middle = (half ? 0 : -reach) + (i + 0.5) * step;
    const foot = step * 0.46;
    return `M${middle - foot} ${-from} C${middle - foot} ${-from - tall * 0.5} ${middle - foot * 0.3} ${-from - tall * 0.55} ${middle} ${-to} C${middle + foot * 0.3} ${-from - tall * 0.55} ${middle + foot} ${-from - tall * 0.5} ${middle + foot} ${-from} Z`;
  });
}

interface Props {
  build: Build;
  units: Units;
  chosen: number | null;
  choose: (layer: number | null) => void;
}

/** The dessert cut open to scale: layer on layer, with millimetres and grams. */
export function Slice({ build, units, chosen, choose }: Props) {
  const [plate, width] = usePlateWidth(680, 330);
  const beside = width > 560;
  const room = beside ? width - LABELS - 24 : width - 16;
  const { stand, layers } = build;
  const tall = Math.max(stand.depth_mm, stand.top_of_build_mm);
  const across = Math.max(stand.top_mm, stand.bottom_mm);
  const wide = stand.cut_width_mm;
  const per = Math.min(room / wide, 300 / tall, 6);
  const labelsTall = layers.length * LEAST_LABEL + 20;
  const drawn = tall * per;
  const height = 34 + Math.max(drawn, beside ? labelsTall : 0) + 30 + (beside ? 0 : labelsTall);
  const floor = 34 + Math.max(drawn, beside ? labelsTall : 0);
  const middle = halved(build) ? 8 : 8 + room / 2;
  const places = labelPlaces(layers, per, floor);
  const mould = [stand.bottom_mm, stand.top_mm].map((mm) => (mm / 2) * per);
  const [foot, brim] = [mould[0] ?? 0, mould[1] ?? 0];
  const rim = -stand.depth_mm * per;
  const outlineOfStand = halved(build)
    ? `M0 0 H${foot} L${brim} ${rim}`
    : `M${-brim} ${rim} L${-foot} 0 H${foot} L${brim} ${rim}`;
  const words = layers.map(
    (l) => `${l.name} ${millimetres(l.mm, units)}, ${grams(l.g_each, units)}`,
  );
  return (
    <svg
      ref={plate}
      viewBox={`0 0 ${width} ${height}`}
      className="plate block h-auto w-full"
      role="img"
      aria-label={say("figures.cut_open_from_the_bottom", {
        build: halved(build) ? say("figures.a_slice") : say("figures.the_dessert"),
        words: words.join("; "),
      })}
    >
      <g transform={`translate(${middle} ${floor})`}>
        {layers.map((layer, i) => {
          const [fill, hatch] = lookOf(layer.kind);
          const shapes = outlines(layer, build, per);
          return (
            <g
              key={i}
              onClick={() => choose(chosen === i ? null : i)}
              opacity={chosen === null || chosen === i ? 1 : 0.35}
              className="cursor-pointer"
            >
              {shapes.map((d) => (
                <g key={d}>
                  <path d={d} fill={fill} />
                  <path d={d} fill={`url(#${hatch})`} />
                  <path
                    d={d}
                    fill="none"
                    stroke="var(--ink)"
                    strokeWidth={chosen === i ? 2.6 : 1.1}
                    strokeLinejoin="round"
                  />
                </g>
              ))}
            </g>
          );
        })}
        {stand.cut !== "squares" && (
          <path
            d={outlineOfStand}
            fill="none"
            stroke="var(--ink)"
            strokeWidth="2.4"
            strokeDasharray="7 5"
          />
        )}
        {halved(build) && (
          <path
            d={`M0 5 V${-drawn - 5}`}
            stroke="var(--burnt)"
            strokeWidth="1.2"
            strokeDasharray="9 4 2 4"
          />
        )}
      </g>
      {beside &&
        layers.map((layer, i) => {
          const edge =
            middle +
            Math.min(layer.top_width_mm / 2, halved(build) ? Infinity : wide / 2) * per +
            3;
          const y = places[i] ?? 0;
          const at = floor - ((layer.from_mm + layer.to_mm) / 2) * per;
          const x = width - LABELS;
          return (
            <g key={i} opacity={chosen === null || chosen === i ? 1 : 0.45}>
              <path
                d={`M${edge} ${at} L${x - 14} ${y - 4} H${x - 5}`}
                fill="none"
                stroke="var(--ink)"
                strokeWidth="0.9"
              />
              <text x={x} y={y} fontSize="14.5" fontWeight={chosen === i ? 700 : 500}>
                {short(layer.name)}
              </text>
              <text x={width - 4} y={y} fontSize="14" textAnchor="end">
                {millimetres(layer.mm, units)} · {grams(layer.g_each, units)}
              </text>
            </g>
          );
        })}
      <text
        x={middle}
        y={floor + 20}
        fontSize="13"
        className="italic"
        textAnchor={halved(build) ? "start" : "middle"}
      >
        {stand.name}, {millimetres(across, units)} × {millimetres(stand.depth_mm, units)}
        {halved(build) && say("figures.from_the_middle_to_the_rim")}
        {stand.cut === "squares" && say("figures.a_square_of", { wide: millimetres(wide, units) })}
      </text>
      {!beside &&
        [...layers].reverse().map((layer, i) => (
          <text key={i} x="8" y={floor + 44 + i * LEAST_LABEL} fontSize="15">
            {layer.name} {millimetres(layer.mm, units)} · {grams(layer.g_each, units)}
          </text>
        ))}
    </svg>
  );
}

const short = (name: string) => (name.length > 18 ? `${name.slice(0, 17)}…` : name);

/** Where each label stands: beside its layer, pushed up where two would touch. */
function labelPlaces(layers: readonly Lain[], per: number, floor: number): number[] {
  const found: number[] = [];
  let last = floor + LEAST_LABEL;
  layers.forEach((layer, i) => {
    const own = floor - ((layer.from_mm + layer.to_mm) / 2) * per + 5;
    last = Math.min(own, last - LEAST_LABEL);
    found[i] = last;
  });
  return found;
}

/** The same cut, small and without words: for a card on the shelf. */
export function SmallSlice({
  layers,
  size,
}: {
  layers: readonly Shapes["SliceLayer"][];
  size: number;
}) {
  const tall = Math.max(...layers.map((l) => l.high_pct), 1);
  const per = Math.min((size - 16) / tall, (size - 10) / 100);
  return (
    <svg
      width={size}
      height={size}
      viewBox={`0 0 ${size} ${size}`}
      aria-hidden="true"
      className="shrink-0"
    >
      <g transform={`translate(6 ${size - 12})`}>
        {layers.map((layer, i) => {
          const [fill, hatch] = lookOf(layer.kind);
          const d = `M0 ${-layer.low_pct * per} L${100 * per} ${-layer.low_pct * per} V${-layer.high_pct * per} H0 Z`;
          return (
            <g key={i}>
              <path d={d} fill={fill} />
              <path d={d} fill={`url(#${hatch})`} />
              <path d={d} fill="none" stroke="var(--ink)" strokeWidth="1.2" />
            </g>
          );
        })}
      </g>
    </svg>
  );
}
