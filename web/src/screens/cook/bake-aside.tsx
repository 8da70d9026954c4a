import { Link } from "react-router";

import type { Shapes } from "@/api/client";
import { OvenClock } from "@/figures/oven-clock";
import type { Outbox } from "@/keep/outbox";
import type { Watch } from "@/screens/cook/live";
import { Button } from "@/ui/button";
import { kelvins, said, type Units } from "@/units";

type Batch = Shapes["BatchOut"];
type Step = Shapes["StepOut"];

/** What a look through the door tells: how wide the loose disc is. */
const LOOKS = [
  ["disc_100", "all loose"],
  ["disc_60", "a big disc"],
  ["disc_25", "a coin"],
  ["disc_0", "still"],
] as const;

/** Beside the figure while it bakes: the window on the clock, what the bake told, and the looks. */
export function BakeAside({
  kid,
  batch,
  step,
  live,
  units,
  outbox,
}: {
  kid: string;
  batch: Batch;
  step: Step;
  live: Watch | undefined;
  units: Units;
  outbox: Outbox;
}) {
  const entered = live?.timings.findLast((t) => t.key === step.key)?.entered_s ?? 0;
  const now = Math.max(0, (live?.now_s ?? 0) - entered);
  const refit = live?.refit;
  const first = { from_s: step.from_s, to_s: step.to_s };
  const window =
    refit && refit.from_s !== null && refit.to_s !== null
      ? { from_s: refit.from_s, to_s: refit.to_s }
      : first;
  const seen = LOOKS.filter(([mark]) => live?.marks[mark] !== undefined);
  return (
    <section aria-label="The bake" className="self-center py-3 text-lg">
      <OvenClock now={now} window={window} first={first} />
      <p data-testid="refit" className="mt-1">
        {refit ? (
          <>
            {said(refit.says, units)}{" "}
            <span className="caption">
              {refit.before_rms_k > 0.05 &&
                `off by ${kelvins(refit.before_rms_k, units)} before, ${kelvins(refit.after_rms_k, units)} now; `}
              from {refit.points} readings
            </span>
          </>
        ) : (
          <span className="text-soft">The window moves as the bake tells of itself.</span>
        )}
      </p>
      <p className="display mt-3 text-xl leading-snug">{said(step.sign, units)}</p>
      <p className="mt-2 text-soft">{said(step.avoid, units)}</p>
      <div
        className="mt-3 flex flex-wrap items-center gap-2"
        role="group"
        aria-label="I looked: it wobbles"
      >
        <span className="caption">I looked:</span>
        {LOOKS.map(([mark, word]) => (
          <Button
            key={mark}
            aria-pressed={live?.marks[mark] !== undefined}
            className="!px-3 aria-pressed:bg-ink aria-pressed:text-paper"
            onClick={() => void outbox.add("mark", { step: mark })}
          >
            {word}
          </Button>
        ))}
      </div>
      {seen.length > 0 && (
        <p className="caption mt-1">Counted: {seen.map(([, word]) => word).join(", ")}.</p>
      )}
      <p className="mt-3">
        <Link className="caption underline" to={`/k/${kid}`}>
          leave the guide (the bake of {batch.dessert} goes on)
        </Link>
      </p>
    </section>
  );
}
