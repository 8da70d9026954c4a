import { Link } from "react-router";

import type { Shapes } from "@/api/client";
import { OvenClock } from "@/figures/oven-clock";
import type { Outbox } from "@/keep/outbox";
import type { Watch } from "@/screens/cook/live";
import { Button } from "@/ui/button";
import { kelvins, type Units } from "@/units";
import { say } from "@/say";

type Batch = Shapes["BatchOut"];
type Step = Shapes["Step"];

/** What a look through the door tells: how wide the loose disc is. */
const LOOKS = [
  ["disc_100", say("cook.all_loose")],
  ["disc_60", say("cook.a_big_disc")],
  ["disc_25", say("cook.a_coin")],
  ["disc_0", say("cook.still")],
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
    <section aria-label={say("cook.the_bake")} className="self-center py-3 text-lg">
      <OvenClock now={now} window={window} first={first} />
      <p data-testid="refit" className="mt-1">
        {refit ? (
          <>
            {refit.says}{" "}
            <span className="caption">
              {say("cook.from_readings", {
                before_rms_k:
                  refit.before_rms_k > 0.05 &&
                  say("cook.off_by_before_now", {
                    before_rms_k: kelvins(refit.before_rms_k, units),
                    after_rms_k: kelvins(refit.after_rms_k, units),
                  }),
                points: refit.points,
              })}
            </span>
          </>
        ) : (
          <span className="text-soft">{say("cook.the_window_moves_as_the_bake")}</span>
        )}
      </p>
      <p className="display mt-3 text-xl leading-snug">{step.sign}</p>
      <p className="mt-2 text-soft">{step.avoid}</p>
      <div
        className="mt-3 flex flex-wrap items-center gap-2"
        role="group"
        aria-label={say("cook.i_looked_it_wobbles")}
      >
        <span className="caption">{say("cook.i_looked")}</span>
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
        <p className="caption mt-1">
          {say("cook.counted")}
          {seen.map(([, word]) => word).join(", ")}.
        </p>
      )}
      <p className="mt-3">
        <Link className="caption underline" to={`/k/${kid}`}>
          {say("cook.leave_the_guide_the_bake_of", { dessert: batch.dessert })}
        </Link>
      </p>
    </section>
  );
}
