import type { Shapes } from "@/api/client";
import { say } from "@/say";

type Run = Shapes["RehearsalOut"];

const HURT: Record<string, string> = {
  scrambled: say("figures.scrambled"),
  scorched: say("figures.catching"),
  lumps: say("figures.lumps"),
  curdled: say("figures.curdled"),
  boiled_over: say("figures.boiling_over"),
  crystals: say("figures.grained"),
  burnt: say("figures.burning"),
  butter: say("figures.butter"),
  overwhipped: say("figures.dry_whites"),
};

const BOWL = "M40 40 Q70 178 160 180 Q250 178 280 40";

/** Sugar from clear to burnt, as a share of amber. */
function sugar(colour: number): string {
  if (colour < 0.15) return "var(--set-pour)";
  if (colour < 0.6) return "var(--set-spoon)";
  if (colour < 1.5) return "var(--set-unmould)";
  if (colour < 2.6) return "#a4632a";
  return "#5b2f14";
}

/**
 * The pot, bowl or pan cut open: what is in it is hatched by what has become of it, the flame under
 * it is as high as the heat.
 */
export function PracticePot({ run }: { run: Run }) {
  const worst = Object.entries(run.damage).sort((a, b) => b[1] - a[1])[0];
  const broken = (worst?.[1] ?? 0) >= 0.25;
  const bowl = run.stage === "bowl" || run.stage === "mixer";
  const full =
    run.stage === "bowl"
      ? 0.2 + 0.6 * (run.poured_g / Math.max(1, run.poured_g + run.to_pour_g))
      : run.stage === "mixer"
        ? 0.35 + 0.35 * Math.min(1, run.whipped_share)
        : run.stage === "syrup"
          ? 0.28
          : 0.62;
  const top = 170 - 120 * full;
  const inside = bowl ? `M30 ${top} H290 V182 H30 Z` : `M62 ${top} H258 V178 H62 Z`;
  const thick =
    (run.step.thickens_c !== null && run.temp_c >= run.step.thickens_c) || run.held_s > 0;
  const hatch = broken
    ? "h-over"
    : run.stage === "mixer"
      ? run.whipped_share > 0.7
        ? "h-slice"
        : "h-spoon"
      : thick
        ? "h-pipe"
        : "h-pour";
  const fill = run.stage === "syrup" ? sugar(run.colour) : "var(--set-nappe)";
  const flame = run.lifted || bowl ? 0 : run.heat;
  const lift = run.lifted ? 26 : 0;
  const word = worst && worst[1] >= 0.1 ? HURT[worst[0]] : "";
  return (
    <svg
      viewBox="0 0 320 250"
      className="plate block h-auto w-full max-w-md"
      role="img"
      aria-label={say("figures.the_heat_of", {
        stage: run.stage,
        heat: run.heat,
        heats: run.heats,
        stirring: run.stirring ? say("figures.stirring") : say("figures.not_stirring"),
        word: word ? `, ${word}` : "",
      })}
      data-testid="practice-pot"
    >
      <g transform={`translate(0 ${-lift})`}>
        <clipPath id="practice-vessel">
          <path d={bowl ? `${BOWL} Z` : "M60 0 H260 V180 H60 Z"} />
        </clipPath>
        <g clipPath="url(#practice-vessel)">
          <path d={inside} fill={fill} />
          <path d={inside} fill={`url(#${hatch})`} />
        </g>
        {bowl ? (
          <path d={BOWL} fill="none" stroke="var(--ink)" strokeWidth="4" />
        ) : (
          <path
            d="M60 46 V180 H260 V46 M260 70 H312"
            fill="none"
            stroke="var(--ink)"
            strokeWidth="4"
            strokeLinejoin="round"
          />
        )}
        {run.stirring && (
          <path
            d="M210 14 L168 150 m-16 6 q16 14 32 0"
            fill="none"
            stroke="var(--ink)"
            strokeWidth="4"
            strokeLinecap="round"
          />
        )}
        {word && (
          <text x="160" y={top - 10} fontSize="19" textAnchor="middle" className="italic">
            {word}
          </text>
        )}
      </g>
      {!bowl && <path d="M96 226 H224" stroke="var(--ink)" strokeWidth="5" strokeLinecap="round" />}
      {Array.from({ length: 5 }, (_, i) => {
        const x = 104 + i * 28;
        const high = flame * 3.4;
        return flame > 0 ? (
          <path
            key={i}
            d={`M${x - 8} 222 Q${x - 6} ${222 - high * 0.7} ${x} ${222 - high} Q${x + 6} ${222 - high * 0.7} ${x + 8} 222`}
            fill="none"
            stroke="var(--burnt)"
            strokeWidth="2.4"
          />
        ) : null;
      })}
    </svg>
  );
}
