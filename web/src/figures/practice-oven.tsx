import type { Shapes } from "@/api/client";
import { say } from "@/say";

/** How long a look is remembered before it no longer shows, on the exercise's clock. */
const SEEN_S = 45;

/**
 * The oven with its door shut, or open on one mould seen from above. Only the wobble is shown: how
 * wide the loose disc is has to be seen, not read.
 */
export function PracticeOven({ run }: { run: Shapes["RehearsalOut"] }) {
  const { disc_share: disc, looked_s: ago } = run;
  const open = disc !== null && ago !== null && ago < SEEN_S;
  const R = 66;
  return (
    <svg
      viewBox="0 0 320 250"
      className="plate block h-auto w-full max-w-md"
      role="img"
      aria-label={
        open
          ? disc > 0.02
            ? say("figures.the_door_is_open_the_middle")
            : say("figures.the_door_is_open_the_mould")
          : say("figures.the_oven_door_is_shut")
      }
      data-testid="practice-oven"
    >
      <rect
        x="34"
        y="20"
        width="252"
        height="206"
        fill="var(--sheet)"
        stroke="var(--ink)"
        strokeWidth="4"
      />
      {open ? (
        <g transform="translate(160 124)">
          <circle r={R + 7} fill="var(--paper)" stroke="var(--ink)" strokeWidth="3" />
          <circle r={R} fill="var(--set-slice)" />
          <circle r={R} fill="url(#h-slice)" />
          {disc > 0.02 && (
            <g className="wobbles">
              <circle r={disc * R} fill="var(--set-pour)" />
              <circle r={disc * R} fill="url(#h-pour)" />
            </g>
          )}
        </g>
      ) : (
        <g>
          <rect
            x="62"
            y="62"
            width="196"
            height="120"
            fill="url(#h-wall)"
            stroke="var(--ink)"
            strokeWidth="2"
          />
          <path d="M96 42 H224" stroke="var(--ink)" strokeWidth="7" strokeLinecap="round" />
          <text x="160" y="212" fontSize="17" textAnchor="middle" className="italic">
            {say("figures.the_door_is_shut")}
          </text>
        </g>
      )}
    </svg>
  );
}
