import { Link } from "react-router";

import type { Shapes } from "@/api/client";
import { span } from "@/figures/thread";
import type { Tick } from "@/keep/ticks";
import { Button } from "@/ui/button";
import { degrees, weekdayTime, type Units } from "@/units";
import { say } from "@/say";

type Step = Shapes["DayStepOut"];

interface Props {
  steps: readonly Step[];
  now: Date;
  tick: ((key: string, kind: Tick["kind"]) => void) | null;
  opens: Record<string, Shapes["OpensOut"]>;
  units: Units;
  kid: string;
  dayId: string;
}

const NEXT = 3;

/** What goes on, the next three things, and what is done: in the order of need. */
export function Things({ steps, now, tick, opens, units, kid, dayId }: Props) {
  const begun = steps.filter((s) => s.state === "begun");
  const waiting = steps.filter((s) => s.state === "to_do" || s.state === "pinned");
  const done = steps.filter((s) => s.state === "done");
  const row = { now, tick, opens, units, kid, dayId };
  return (
    <div className="grid gap-x-10 gap-y-4 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
      <section aria-label={say("day.now_and_next")}>
        {begun.map((step) => (
          <Thing key={step.key} step={step} big {...row} />
        ))}
        {waiting.slice(0, NEXT).map((step) => (
          <Thing key={step.key} step={step} big {...row} />
        ))}
        {!begun.length && !waiting.length && (
          <p className="text-xl italic">{say("day.everything_is_done")}</p>
        )}
      </section>
      <section aria-label={say("day.after_that")}>
        {waiting.slice(NEXT).map((step) => (
          <Thing key={step.key} step={step} {...row} />
        ))}
        {done.length > 0 && (
          <details className="rule-t pt-2">
            <summary className="caption min-h-12 cursor-pointer py-3">
              {say("day.done", { done: done.length })}
            </summary>
            {done.map((step) => (
              <Thing key={step.key} step={step} {...row} />
            ))}
          </details>
        )}
      </section>
    </div>
  );
}

interface ThingProps extends Omit<Props, "steps"> {
  step: Step;
  big?: boolean;
}

/** The page that a step is done on, which ticks it when its cook ends. */
function wayTo(open: Shapes["OpensOut"], kid: string, dayId: string, step: Step): string {
  const query = new URLSearchParams();
  if (open.part_id) query.set("part", open.part_id);
  if (step.state !== "done") {
    query.set("day", dayId);
    query.set("step", step.key);
  }
  return `/k/${kid}/d/${open.dessert_id}/${open.place}?${query.toString()}`;
}

const OPENS = {
  stove: say("day.to_its_guide"),
  oven: say("day.to_its_bake"),
  cold: say("day.to_its_cold"),
  whole: say("day.to_its_build"),
} as const;

function Thing({ step, big = false, now, tick, opens, units, kid, dayId }: ThingProps) {
  const late = (now.getTime() - new Date(step.start).getTime()) / 60_000;
  const due = step.state !== "done" && step.state !== "begun" && late > 0;
  const over = (now.getTime() - new Date(step.end).getTime()) / 60_000;
  const open = opens[step.key];
  return (
    <div className={`rule-t flex flex-wrap items-center gap-x-4 gap-y-1 ${big ? "py-2" : "py-1"}`}>
      <div className="min-w-0 flex-1 basis-60">
        <p className={`leading-snug ${big ? "text-xl" : ""}`}>
          <b className={due ? "text-burnt" : ""}>{weekdayTime(step.start)}</b> {step.what}
        </p>
        <p className="caption">
          {step.who ?? say("day.by_itself")}
          {step.where.length > 0 && ` · ${step.where.join(", ")}`}
          {step.oven_c !== null && ` ${degrees(step.oven_c, units)}`}
          {step.state === "pinned" && say("day.pinned")}
          {due && ` · ${late < 1.5 ? say("day.now") : say("day.late", { late: span(late) })}`}
          {step.state === "begun" &&
            (over > 0
              ? say("day.should_be_over_since", { over: span(over) })
              : say("day.until", { end: weekdayTime(step.end) }))}
          {open && (
            <>
              {" · "}
              <Link className="underline underline-offset-4" to={wayTo(open, kid, dayId, step)}>
                {OPENS[open.place]}
              </Link>
            </>
          )}
        </p>
      </div>
      {tick && step.state !== "done" && (
        <div className="flex gap-2">
          {step.state !== "begun" && (
            <Button
              kind={big ? "plain" : "quiet"}
              aria-label={say("day.begin", { what: step.what })}
              onClick={() => tick(step.key, "begin")}
            >
              {say("day.begin_2")}
            </Button>
          )}
          {(big || step.state === "begun") && (
            <Button
              kind="act"
              aria-label={say("day.done_2", { what: step.what })}
              onClick={() => tick(step.key, "done")}
            >
              {say("day.done_3")}
            </Button>
          )}
        </div>
      )}
      {tick && (step.state === "done" || step.state === "begun") && (
        <Button
          kind="quiet"
          aria-label={say("day.take_back", { what: step.what })}
          onClick={() => tick(step.key, "undo")}
        >
          {say("day.take_back_2")}
        </Button>
      )}
    </div>
  );
}
