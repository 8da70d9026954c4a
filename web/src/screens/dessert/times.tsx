import type { Shapes } from "@/api/client";
import { useState } from "react";

import { span, Thread } from "@/figures/thread";
import type { Content } from "@/screens/dessert/use-build";
import { Button } from "@/ui/button";
import { NumberField, Select } from "@/ui/field";
import { Say, say } from "@/say";

type Build = Shapes["BuildOut"];
type Step = Build["steps"][number];

interface Props {
  build: Build;
  content: Content;
  change: (part: Partial<Content>) => void;
  readOnly: boolean;
}

const WHEN = {
  two_days: say("dessert.two_days_ahead"),
  day_before: say("dessert.the_day_before"),
  hours: say("dessert.hours_ahead"),
  at_last: say("dessert.at_the_last"),
} as const;

/** When everything may and must begin, and what decides the whole. */
export function Times({ build, content, change, readOnly }: Props) {
  const slots = (Object.keys(WHEN) as (keyof typeof WHEN)[]).map((key) => ({
    word: WHEN[key],
    steps: build.steps.filter((s) => s.ahead === key),
  }));
  const [chosen, setChosen] = useState<string | null>(null);
  const names = new Map(build.steps.map((s) => [s.key, s]));
  return (
    <section className="mt-8" aria-label={say("dessert.the_thread")}>
      <div className="flex flex-wrap items-end justify-between gap-4">
        <h2 className="text-2xl">
          <Say
            code="dessert.the_thread_from_nothing_to_the"
            values={{ shortest_min: span(build.shortest_min) }}
            components={{
              span: <span className="text-lg text-soft italic" data-testid="shortest" />,
            }}
          />
        </h2>
        <div className="flex gap-4">
          <Select
            label={say("dessert.filling_goes_in")}
            value={content.filling}
            disabled={readOnly}
            options={{
              cold: say("dessert.cold_in_a_cold_shell"),
              hot: say("dessert.hot_sets_in_place"),
            }}
            onValue={(filling) => change({ filling })}
          />
          <Select
            label={say("dessert.meringue_goes_on")}
            value={content.meringue}
            disabled={readOnly}
            options={{ cold: say("dessert.a_cold_filling"), hot: say("dessert.a_hot_filling") }}
            onValue={(meringue) => change({ meringue })}
          />
        </div>
      </div>
      <Thread build={build} />
      {build.shorter.length > 0 && (
        <p className="mt-1" data-testid="shorter">
          {say("dessert.sooner")}
          {build.shorter
            .map((s) =>
              say("dessert.up_to_less", {
                part: names.get(s.key)?.part ?? "",
                s: names.get(s.key)?.words ?? "",
                saves_min: span(s.saves_min),
              }),
            )
            .join("; ")}
          .
        </p>
      )}
      {build.minded.map((words) => (
        <p key={words} className="mt-1 border-l-[3px] border-rule pl-3">
          {words}
        </p>
      ))}
      <div className="mt-4 grid gap-x-8 gap-y-5 md:grid-cols-2">
        {slots.map(({ word, steps }) => (
          <div key={word}>
            <h3 className="text-xl italic">{word}</h3>
            {steps.length === 0 && <p className="caption">{say("dessert.nothing")}</p>}
            {[...new Set(steps.map((s) => s.part))].map((part) => (
              <PartSteps
                key={part}
                part={part}
                steps={steps.filter((s) => s.part === part)}
                chosen={chosen}
                choose={(key) => setChosen(chosen === key ? null : key)}
              >
                {(step) => (
                  <Minutes
                    key={step.key}
                    step={step}
                    content={content}
                    change={change}
                    readOnly={readOnly}
                  />
                )}
              </PartSteps>
            ))}
          </div>
        ))}
      </div>
      <p className="caption mt-3">{say("dessert.what_decides_the_whole_is_set")}</p>
    </section>
  );
}

/** The steps of one part that may be done so far ahead, in order; each opens to its minutes. */
function PartSteps({
  part,
  steps,
  chosen,
  choose,
  children,
}: {
  part: string;
  steps: Build["steps"];
  chosen: string | null;
  choose: (key: string) => void;
  children: (step: Step) => React.ReactNode;
}) {
  const hands = steps.reduce((sum, s) => sum + s.hands_min, 0);
  const first = steps[0];
  const open = steps.find((s) => s.key === chosen);
  return (
    <div className="rule-t py-2 leading-snug">
      <p>
        <b>{part || say("dessert.the_whole")}</b>{" "}
        <span className="caption">
          {say("dessert.of_hands", {
            hands: span(hands),
            first:
              first && say("dessert.begun_at_the_latest", { latest_min: span(first.latest_min) }),
          })}
        </span>
      </p>
      <ol className="mt-0.5">
        {steps.map((s, i) => (
          <li key={s.key} className="inline">
            {i > 0 && <span aria-hidden="true"> → </span>}
            <button
              type="button"
              aria-expanded={chosen === s.key}
              className={`min-h-8 text-left underline decoration-rule decoration-dotted underline-offset-4 aria-expanded:decoration-burnt aria-expanded:decoration-solid ${s.critical ? "font-semibold" : ""}`}
              onClick={() => choose(s.key)}
            >
              {s.words}
            </button>
            {s.wait_min > 0 && <span className="caption"> {span(s.wait_min)}</span>}
            {s.own && <span className="caption">{say("dessert.ours")}</span>}
          </li>
        ))}
      </ol>
      {open && children(open)}
    </div>
  );
}

/** A step’s minutes: where they come from, and this kitchen’s own in their place. */
function Minutes({
  step,
  content,
  change,
  readOnly,
}: {
  step: Step;
  content: Content;
  change: (part: Partial<Content>) => void;
  readOnly: boolean;
}) {
  const own = content.overrules ?? [];
  const mine = own.find((o) => o.key === step.key);
  const rest = own.filter((o) => o.key !== step.key);
  const set = (part: { hands_min?: number; wait_min?: number }) =>
    change({
      overrules: [...rest, { key: step.key, hands_min: null, wait_min: null, ...mine, ...part }],
    });
  const after = step.after.filter((g) => g.at_least_min > 0 || g.why);
  return (
    <div className="mt-2 border-l-[3px] border-burnt pl-3" data-testid="minutes">
      <p>
        <Say
          code="dessert.of_hands_2"
          values={{
            hands_min: span(step.hands_min),
            wait_min:
              step.wait_min > 0 &&
              say("dessert.then_by_itself_to", {
                wait_min: span(step.wait_min),
                wait_low_min: span(step.wait_low_min),
                wait_high_min: span(step.wait_high_min),
              }),
            source: step.source,
          }}
          components={{ span: <span className="caption" /> }}
        />
      </p>
      {after.map((gap) => (
        <p key={gap.key} className="caption">
          {gap.at_least_min > 0 &&
            say("dessert.at_least_after_what_comes_before", {
              at_least_min: span(gap.at_least_min),
            })}
          {gap.at_most_min !== null &&
            say("dessert.at_most_after_it", { at_most_min: span(gap.at_most_min) })}
          {gap.why}
        </p>
      ))}
      {!readOnly && (
        <div className="mt-1 grid grid-cols-[7rem_7rem_auto] items-end gap-4">
          <NumberField
            label={say("dessert.our_hands")}
            value={Math.round(step.hands_min)}
            low={0}
            high={1440}
            unit={say("dessert.min")}
            onValue={(v) => set({ hands_min: v })}
          />
          <NumberField
            label={say("dessert.our_wait")}
            value={Math.round(step.wait_min)}
            low={0}
            high={4320}
            unit={say("dessert.min")}
            onValue={(v) => set({ wait_min: v })}
          />
          {mine && (
            <Button onClick={() => change({ overrules: rest })}>{say("dessert.as_it_was")}</Button>
          )}
        </div>
      )}
    </div>
  );
}
