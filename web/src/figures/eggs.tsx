import type { Shapes } from "@/api/client";
import { say } from "@/say";

const STEP = 46;
const ROW = 58;
const PER_ROW = 20;
const MOST = 60;
/** An egg lying opened: its white around its yolk. */
const WHITE = "M-19 4 C-22 -14 -8 -22 4 -20 C20 -18 22 0 17 10 C12 20 -15 20 -19 4 Z";

/**
 * The eggs parted for the day, one by one: what is used is hatched, what is left over is empty with
 * a broken line, yolk and white apart.
 */
export function EggRow({ ledger }: { ledger: Shapes["Ledger"] }) {
  const drawn = Math.min(MOST, ledger.separate);
  if (drawn === 0) return null;
  const rows = Math.ceil(drawn / PER_ROW);
  const wide = Math.min(PER_ROW, drawn) * STEP + 8;
  const yolks = ledger.yolk_need_g / ledger.yolk_each_g;
  const whites = ledger.white_need_g / ledger.white_each_g;
  return (
    <svg
      viewBox={`0 0 ${Math.max(wide, 10 * STEP)} ${rows * ROW + 6}`}
      className="plate block h-auto w-full"
      role="img"
      aria-label={say("figures.eggs_parted_yolks_and_whites_used", {
        separate: ledger.separate,
        yolks: yolks.toFixed(1),
        whites: whites.toFixed(1),
      })}
    >
      {Array.from({ length: drawn }, (_, i) => {
        const yolk = Math.min(1, Math.max(0, yolks - i));
        const white = Math.min(1, Math.max(0, whites - i));
        return (
          <g
            key={i}
            transform={`translate(${(i % PER_ROW) * STEP + STEP / 2 + 4} ${Math.floor(i / PER_ROW) * ROW + 30})`}
          >
            <clipPath id={`w${i}`}>
              <rect x="-24" y={22 - 44 * white} width="48" height="44" />
            </clipPath>
            <g clipPath={`url(#w${i})`}>
              <path d={WHITE} fill="var(--set-pour)" />
              <path d={WHITE} fill="url(#h-pour)" />
            </g>
            <path
              d={WHITE}
              fill="none"
              stroke="var(--ink)"
              strokeWidth="1.3"
              strokeDasharray={white > 0.98 ? undefined : "3 3"}
            />
            <circle
              r="9"
              fill={yolk > 0.02 ? "var(--yolk)" : "var(--paper)"}
              fillOpacity={yolk > 0.02 ? 0.35 + 0.65 * yolk : 1}
              stroke="var(--ink)"
              strokeWidth="1.3"
              strokeDasharray={yolk > 0.98 ? undefined : "2.5 2.5"}
            />
            {yolk > 0.02 && <circle r="9" fill="url(#h-unmould)" />}
          </g>
        );
      })}
    </svg>
  );
}
