import type { Shapes } from "@/api/client";
import type { Watch } from "@/screens/cook/live";
import { clock, degrees, grams, holds, type Units } from "@/units";
import { Say, say } from "@/say";

type Step = Shapes["Step"];

/** The one figure, its target beside it, and the next move. */
export function Figure({
  step,
  live,
  units,
  probe,
}: {
  step: Step;
  live: Watch | undefined;
  units: Units;
  probe: string | null;
}) {
  const moment = live?.moment;
  const holding = moment?.hold_left_s !== null && moment?.hold_left_s !== undefined && !moment.done;
  const seconds = moment?.figure_unit === "s";
  const laid = moment?.figure_unit === "g";
  const big = holding
    ? Math.ceil(moment.hold_left_s ?? 0).toString()
    : moment?.figure === null || moment?.figure === undefined
      ? "–"
      : seconds
        ? clock(moment.figure)
        : laid
          ? grams(moment.figure, units)
          : degrees(moment.figure, units, step.never_c !== null && step.kind === "cook" ? 1 : 0);
  const number = big.split("\u202f")[0] ?? big;
  const unit = holding ? say("cook.s_to_hold") : (big.split("\u202f")[1] ?? "");
  const hot = moment?.urgency === "now" || moment?.urgency === "wrong";
  return (
    <section aria-label={say("cook.now")} className="flex min-w-0 flex-col justify-center py-3">
      <p
        className={`display w-fit text-3xl italic ${hot ? "bg-burnt px-3 text-on-burnt" : "text-burnt"}`}
        data-testid="headline"
      >
        {moment?.headline || "\u00a0"}
      </p>
      <div className="flex flex-wrap items-baseline gap-x-6">
        <p
          className="figure leading-[0.95] whitespace-nowrap"
          style={{ fontSize: `clamp(96px, ${number.length > 4 ? 17 : 21}vw, 250px)` }}
          data-testid="figure"
        >
          {number}
          <span className="unit">{unit}</span>
        </p>
        <div className="text-xl">
          {holding && moment.figure !== null && (
            <p>{say("cook.now_2", { figure: degrees(moment.figure, units) })}</p>
          )}
          {laid && moment.figure !== step.grams && (
            <p>
              <Say
                code="cook.to"
                values={{ grams: grams(step.grams, units) }}
                components={{ b: <b /> }}
              />
            </p>
          )}
          {step.kind === "check" && step.high_c !== null && (
            <p>
              {step.low_c === null
                ? say("cook.under")
                : say("cook.to_2", { low_c: degrees(step.low_c, units) })}
              <b>{degrees(step.high_c, units)}</b>
            </p>
          )}
          {!holding && step.kind !== "check" && step.low_c !== null && (
            <p>
              <Say
                code="cook.to_3"
                values={{
                  low_c: degrees(step.low_c, units),
                  hold_s: step.hold_s > 0 && (
                    <>{say("cook.hold", { hold_s: holds(step.hold_s) })}</>
                  ),
                }}
                components={{ b: <b /> }}
              />
            </p>
          )}
          {step.never_c !== null && step.kind === "cook" && (
            <p className="text-burnt">
              {say("cook.never", { never_c: degrees(step.never_c, units) })}
            </p>
          )}
          {moment?.to_target_s !== null && moment?.to_target_s !== undefined && !holding && (
            <p className="text-soft">
              {seconds && moment.to_target_s === moment.figure
                ? say("cook.left_to_go")
                : say("cook.about_to_go", { to_target_s: clock(moment.to_target_s) })}
            </p>
          )}
          {live?.probe_age_s !== null &&
            live?.probe_age_s !== undefined &&
            live.probe_age_s > 12 && (
              <p className="text-burnt">
                {say("cook.probe_silent_for", { probe_age_s: clock(live.probe_age_s) })}
              </p>
            )}
          {live?.probe_doubt && (
            <p className="max-w-[26rem] text-base text-burnt">{live.probe_doubt}</p>
          )}
          {probe === null && (step.low_c !== null || step.kind === "check") && (
            <p className="caption">{say("cook.no_probe_type_readings")}</p>
          )}
        </div>
      </div>
      <p
        className="display mt-1 text-[clamp(1.5rem,3.4vw,2.6rem)] leading-tight"
        data-testid="next-move"
      >
        {moment?.next_move || step.title}
      </p>
      <p className="sr-only" aria-live="assertive">
        {moment && moment.urgency !== "calm" ? `${moment.headline}: ${moment.next_move}` : ""}
      </p>
    </section>
  );
}
