import type { Shapes } from "@/api/client";
import { say } from "@/say";

/**
 * How much of what is asked the heat has done to the egg: a tube that fills, hatched like a custard
 * that sets, with the line it has to reach.
 */
export function SafetyGauge({ safe }: { safe: Shapes["Lethality"] }) {
  const share = Math.min(1, safe.share);
  const percent = Math.floor(100 * share); // not all of it before the rule is met
  const logs =
    safe.log_reduction >= 12
      ? say("figures.more_than_12_log")
      : say("figures.log", { log_reduction: safe.log_reduction.toFixed(1) });
  return (
    <figure
      className="m-0 flex items-center gap-3"
      title={safe.rule}
      data-testid="safety"
      data-meets={safe.meets}
    >
      <svg
        viewBox="0 0 150 22"
        width="150"
        height="22"
        role="img"
        aria-label={say("figures.egg_made_safe", {
          share: percent,
          rule: safe.rule,
        })}
      >
        <rect x="1" y="4" width={148 * share} height="14" fill="var(--yolk)" />
        <rect x="1" y="4" width={148 * share} height="14" fill="url(#h-unmould)" />
        <rect
          x="1"
          y="4"
          width="148"
          height="14"
          fill="none"
          stroke="var(--ink)"
          strokeWidth="1.6"
        />
        <path d="M148.5 0 V22" stroke="var(--ink)" strokeWidth="2.4" />
      </svg>
      <figcaption>
        <b>
          {safe.meets
            ? say("figures.egg_made_safe_2")
            : say("figures.egg_safe", { share: percent })}
        </b>{" "}
        <span className="caption">
          {safe.log_reduction === 0 && safe.warnings[0]
            ? safe.warnings[0]
            : say("figures.your_local_code_comes_first", { logs })}
        </span>
      </figcaption>
    </figure>
  );
}
