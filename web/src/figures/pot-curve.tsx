import { Axes } from "@/figures/axes";
import { usePlateWidth } from "@/figures/plate-width";
import { path, scale, tempTicks, ticks } from "@/figures/scale";
import { clock, degrees, type Units } from "@/units";
import { say } from "@/say";

export interface Point {
  t_s: number;
  temp_c: number;
}

export interface Segment {
  key: string;
  from_s: number;
  points: readonly Point[];
}

export interface Zones {
  thickens_c: number | null;
  /** The line to reach. */
  reach_c: number | null;
  reach_word: string;
  /** The line not to pass. */
  never_c: number | null;
  never_word?: string;
}

interface Props {
  units: Units;
  predicted: readonly Segment[];
  actual?: readonly Point[];
  /** An earlier batch, already moved onto this one's clock. */
  ghost?: readonly Segment[];
  zones: Zones;
  marks?: readonly { at_s: number; word: string }[];
  height?: number;
  /** The hottest the plate shows, in °C. */
  top?: number;
  /** Where the cook is told something on the way. */
  cues?: readonly { c: number; word: string }[];
  label: string;
}

const CUE_CHAR_W = 7; // of the words of a cue, about
const EACH_S = [30, 60, 120, 300, 600, 1200, 3600, 7200];

/** Temperature against time: the prediction as a broken line, what happened as a full one. */
export function PotCurve({
  units,
  predicted,
  actual = [],
  ghost = [],
  zones,
  marks = [],
  height = 340,
  top = 106,
  cues = [],
  label,
}: Props) {
  const [plate, W] = usePlateWidth(760);
  const MARK_W = 110;
  const BOX = { left: 50, right: 14, top: 22, bottom: 34 };
  const ends = [
    ...predicted.map((s) => s.from_s + (s.points.at(-1)?.t_s ?? 0)),
    ...ghost.map((s) => s.from_s + (s.points.at(-1)?.t_s ?? 0)),
    actual.at(-1)?.t_s ?? 0,
    60,
  ];
  const end = Math.max(...ends);
  const x = scale([0, end], [BOX.left, W - BOX.right]);
  const y = scale([0, top], [height - BOX.bottom, BOX.top]);
  const lineOf = (s: Segment) =>
    path(s.points.map((p) => [x(s.from_s + p.t_s), y(p.temp_c)] as const));
  const level = (c: number, stroke: string, dash?: string) => (
    <path
      d={`M${BOX.left} ${y(c)} H${W - BOX.right}`}
      stroke={stroke}
      strokeWidth="1.3"
      strokeDasharray={dash}
    />
  );
  const word = (c: number, text: string, fill: string, below = false) => (
    <text
      x={BOX.left + 8}
      y={y(c) + (below ? 15 : -5)}
      fontSize="13.5"
      className="italic"
      style={{ fill, paintOrder: "stroke" }}
      stroke="var(--paper)"
      strokeWidth="5"
    >
      {text}
    </text>
  );
  /** Of cues that would run into each other, and of those near the line to reach, the later stay. */
  const shown = cues.reduceRight<{ c: number; word: string }[]>((kept, cue) => {
    const near = [...kept.map((k) => k.c), zones.reach_c ?? -99];
    return near.some((c) => Math.abs(y(c) - y(cue.c)) < 15) ? kept : [...kept, cue];
  }, []);
  /** Whether the prediction runs through the words of a cue at the right edge. */
  const runsThrough = (c: number, words: string) =>
    predicted.some((s) =>
      s.points.some((p, i) => {
        const before = s.points[i - 1] ?? p;
        const there = [y(before.temp_c), y(p.temp_c)];
        const ends = x(s.from_s + p.t_s) > W - BOX.right - CUE_CHAR_W * words.length;
        return ends && Math.max(...there) > y(c) - 20 && Math.min(...there) < y(c) + 4;
      }),
    );
  const reachWords = `${zones.reach_word} ${degrees(zones.reach_c ?? 0, units)}`;
  const last = actual.at(-1);
  const spaced = marks.filter(
    (m, i) => !marks.slice(0, i).some((n) => Math.abs(x(n.at_s) - x(m.at_s)) < 46),
  );
  return (
    <svg
      ref={plate}
      viewBox={`0 0 ${W} ${height}`}
      className="plate block h-auto w-full"
      role="img"
      aria-label={label}
    >
      {zones.never_c !== null && zones.never_c < top - 1 && (
        <rect
          x={BOX.left}
          y={y(top)}
          width={W - BOX.left - BOX.right}
          height={y(zones.never_c) - y(top)}
          fill="url(#h-over)"
        />
      )}
      {shown.map((cue) => {
        const words = `${cue.word} ${degrees(cue.c, units)}`;
        const left = runsThrough(cue.c, words);
        // The word of the line to reach hangs under it where there is one not to pass: stand clear.
        const hangs = zones.never_c !== null && Math.abs(y(cue.c) - y(zones.reach_c ?? -999)) < 36;
        const clear = hangs ? CUE_CHAR_W * reachWords.length + 10 : 0;
        return (
          <g key={cue.word}>
            {level(cue.c, "var(--rule)", "1 5")}
            <text
              x={left ? BOX.left + 8 + clear : W - BOX.right - 6}
              y={y(cue.c) - 4}
              fontSize="12.5"
              textAnchor={left ? "start" : "end"}
              className="italic"
            >
              {words}
            </text>
          </g>
        );
      })}
      {zones.thickens_c !== null &&
        zones.thickens_c < 101 &&
        level(zones.thickens_c, "var(--ink)", "2 5")}
      {zones.reach_c !== null && level(zones.reach_c, "var(--burnt)")}
      {zones.never_c !== null &&
        zones.never_c < top - 1 &&
        level(zones.never_c, "var(--burnt)", "8 4")}
      <Axes
        {...{ W, H: height, box: BOX, x, y }}
        across={ticks(0, end, Math.floor(W / 90), EACH_S).map((t) => ({ at: t, word: clock(t) }))}
        up={tempTicks(0, top - 4, units)}
      />
      {spaced.map((m) => (
        <g key={`${m.word}${m.at_s}`}>
          <path
            d={`M${x(m.at_s)} ${BOX.top - 6} V${height - BOX.bottom}`}
            stroke="var(--rule)"
            strokeWidth="1.2"
          />
          {/* a word near the right edge stands before its line */}
          <text
            x={x(m.at_s) + (x(m.at_s) > W - MARK_W ? -4 : 4)}
            y={BOX.top - 6}
            fontSize="13"
            className="italic"
            textAnchor={x(m.at_s) > W - MARK_W ? "end" : "start"}
          >
            {m.word}
          </text>
        </g>
      ))}
      {ghost.map((s) => (
        <path key={`g${s.key}`} d={lineOf(s)} fill="none" stroke="var(--cold)" strokeWidth="1.6" />
      ))}
      {predicted.map((s) => (
        <path
          key={`p${s.key}`}
          d={lineOf(s)}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="1.8"
          strokeDasharray={actual.length ? "5 5" : undefined}
        />
      ))}
      {actual.length > 1 && (
        <path
          d={path(actual.map((p) => [x(p.t_s), y(p.temp_c)] as const))}
          fill="none"
          stroke="var(--burnt)"
          strokeWidth="2.6"
          strokeLinejoin="round"
        />
      )}
      {last && (
        <circle
          cx={x(last.t_s)}
          cy={y(last.temp_c)}
          r="6"
          fill="var(--burnt)"
          stroke="var(--paper)"
          strokeWidth="2"
        />
      )}
      {zones.thickens_c !== null &&
        zones.thickens_c < 101 &&
        word(
          zones.thickens_c,
          say("figures.thickens", { thickens_c: degrees(zones.thickens_c, units) }),
          "var(--ink)",
          true,
        )}
      {zones.reach_c !== null &&
        word(zones.reach_c, reachWords, "var(--burnt)", zones.never_c !== null)}
      {zones.never_c !== null &&
        zones.never_c < top - 1 &&
        word(
          zones.never_c,
          `${zones.never_word ?? say("figures.curdles")} ${degrees(zones.never_c, units)}`,
          "var(--burnt)",
        )}
    </svg>
  );
}
