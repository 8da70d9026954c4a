import type { Shapes } from "@/api/client";
import { say } from "@/say";

type Way = Shapes["CrustOut"]["school"];

const FLAT = "M-150 60 H150 V78 H-150 Z";
const SHEETS = "M-150 56 H150 V62 H-150 Z M-150 64 H150 V70 H-150 Z M-150 72 H150 V78 H-150 Z";
const SHELL = "M-176 8 L-150 78 H150 L176 8 H162 L140 66 H-140 L-162 8 Z";
const BUNS = [-120, 0, 120]
  .map((x) => `M${x - 46} 78 C${x - 60} 20 ${x + 60} 20 ${x + 46} 78 Z`)
  .join(" ");
const OUTLINE: Partial<Record<Way, string>> = {
  crumb: FLAT,
  sponge: FLAT,
  frangipane: FLAT,
  puff: SHEETS,
  choux: BUNS,
};
const SAID: Record<Way, string> = {
  weights: say("figures.a_shell_in_section_filled_to"),
  hot_start: say("figures.a_shell_in_section_filled_to"),
  frozen: say("figures.a_shell_in_section_docked"),
  crumb: say("figures.a_crumb_base_pressed_into_its"),
  choux: say("figures.piped_choux_in_section_high_and"),
  puff: say("figures.puff_sheets_in_section_layer_on"),
  sponge: say("figures.a_sponge_sheet_in_section"),
  frangipane: say("figures.almond_cream_in_its_shell_in"),
};

/** A crust in section: its dough, the holes of docking, or the weights that hold it down. */
export function CrustSection({ way }: { way: Way }) {
  const weights = way === "weights" || way === "hot_start";
  const docked = way === "frozen" || way === "puff";
  const shell = OUTLINE[way] ?? SHELL;
  const free = way === "choux" || way === "puff" || way === "sponge";
  const words = SAID[way];
  return (
    <svg
      viewBox="-200 -6 400 100"
      className="plate block h-auto w-full"
      role="img"
      aria-label={words}
    >
      {weights && (
        <g>
          <path d="M-160 10 L-139 65 H139 L160 10 Z" fill="var(--sheet)" />
          {Array.from({ length: 54 }, (_, i) => {
            const row = Math.floor(i / 18);
            const wide = 145 - row * 7;
            return (
              <circle
                key={i}
                cx={-wide + ((i % 18) + 0.5) * ((2 * wide) / 18)}
                cy={20 + row * 16}
                r="6.4"
                fill="none"
                stroke="var(--ink)"
                strokeWidth="1.1"
              />
            );
          })}
          <path
            d="M-168 2 L-140 65 H140 L168 2"
            fill="none"
            stroke="var(--ink)"
            strokeWidth="1.2"
            strokeDasharray="4 3"
          />
        </g>
      )}
      <path d={shell} fill="var(--yolk)" />
      <path
        d={shell}
        fill="url(#h-slice)"
        stroke="var(--ink)"
        strokeWidth="1.6"
        strokeLinejoin="round"
      />
      {docked &&
        Array.from({ length: 11 }, (_, i) => (
          <path key={i} d={`M${-120 + i * 24} 67 v9`} stroke="var(--ink)" strokeWidth="2.4" />
        ))}
      <path
        d={free ? "M-190 84 H190" : "M-184 2 L-156 84 H156 L184 2"}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="3"
        strokeLinejoin="round"
      />
    </svg>
  );
}

const MARKS = [1, 3, 6, 12, 24, 48, 96];

/** Hours a filled crust is crisp, then between, then soft: each edge a band, for it is not sure. */
export function SoggyClock({ crispH, softH }: { crispH: number[]; softH: number[] }) {
  const W = 400;
  // Early hours matter most: each doubling takes the same room.
  const x = (h: number) => 14 + (Math.log2(1 + h) / Math.log2(97)) * (W - 28);
  const [crispLow = 0, crispHigh = 0] = crispH;
  const [softLow = 0, softHigh = 0] = softH;
  const mean = (a: number, b: number) => Math.sqrt(Math.max(0.02, a) * Math.max(0.02, b));
  const [crisp, soft] = [
    mean(crispLow, crispHigh),
    Math.max(mean(softLow, softHigh), mean(crispLow, crispHigh)),
  ];
  return (
    <svg
      viewBox={`0 0 ${W} 96`}
      className="plate block h-auto w-full"
      role="img"
      aria-label={say("figures.crisp_for_about_hours_soft_after", {
        crisp: crisp.toFixed(0),
        soft: soft.toFixed(0),
      })}
    >
      <rect x={x(0)} y="24" width={x(crisp) - x(0)} height="34" fill="var(--set-unmould)" />
      <rect x={x(0)} y="24" width={x(crisp) - x(0)} height="34" fill="url(#h-unmould)" />
      <rect x={x(crisp)} y="24" width={x(soft) - x(crisp)} height="34" fill="var(--set-spoon)" />
      <rect x={x(crisp)} y="24" width={x(soft) - x(crisp)} height="34" fill="url(#h-spoon)" />
      <rect
        x={x(soft)}
        y="24"
        width={Math.max(0, x(96) - x(soft))}
        height="34"
        fill="url(#h-pour)"
      />
      <rect
        x={x(0)}
        y="24"
        width={x(96) - x(0)}
        height="34"
        fill="none"
        stroke="var(--ink)"
        strokeWidth="1.6"
      />
      <path
        d={`M${x(crispLow)} 16 H${x(Math.max(crispLow, crispHigh))} m0 -4 v8 M${x(crispLow)} 12 v8`}
        stroke="var(--burnt)"
        strokeWidth="1.6"
        fill="none"
      />
      {x(crisp) - x(0) > 50 && (
        <text x={(x(0) + x(crisp)) / 2} y="46" fontSize="15" textAnchor="middle" fontWeight="700">
          {say("figures.crisp")}
        </text>
      )}
      {x(96) - x(soft) > 44 && (
        <text x={(x(soft) + x(96)) / 2} y="46" fontSize="15" textAnchor="middle">
          {say("figures.soft")}
        </text>
      )}
      {MARKS.map((h) => (
        <g key={h}>
          <path d={`M${x(h)} 58 v6`} stroke="var(--ink)" />
          <text x={x(h)} y="80" fontSize="13" textAnchor="middle">
            {h} h
          </text>
        </g>
      ))}
    </svg>
  );
}
