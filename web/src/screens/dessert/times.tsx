import type { Shapes } from "@/api/client";
import { useState } from "react";

import { useBench } from "@/bench";
import { span, Thread } from "@/figures/thread";
import type { Content } from "@/screens/dessert/use-build";
import { Button } from "@/ui/button";
import { NumberField, Select } from "@/ui/field";
import { said } from "@/units";

type Build = Shapes["BuildOut"];
type Step = Build["steps"][number];

interface Props {
  build: Build;
  content: Content;
  change: (part: Partial<Content>) => void;
  readOnly: boolean;
}

const WHEN = {
  two_days: "two days ahead",
  day_before: "the day before",
  hours: "hours ahead",
  at_last: "at the last",
} as const;

/** When everything may and must begin, and what decides the whole. */
export function Times({ build, content, change, readOnly }: Props) {
  const slots = (Object.keys(WHEN) as (keyof typeof WHEN)[]).map((key) => ({
    word: WHEN[key],
    steps: build.steps.filter((s) => s.ahead === key),
  }));
  const { units } = useBench();
  const [chosen, setChosen] = useState<string | null>(null);
  const names = new Map(build.steps.map((s) => [s.key, s]));
  return (
    <section className="mt-8" aria-label="The thread">
      <div className="flex flex-wrap items-end justify-between gap-4">
        <h2 className="text-2xl">
          The thread{" "}
          <span className="text-lg text-soft italic" data-testid="shortest">
            {span(build.shortest_min)} from nothing to the plate
          </span>
        </h2>
        <div className="flex gap-4">
          <Select
            label="Filling goes in"
            value={content.filling}
            disabled={readOnly}
            onChange={(event) => change({ filling: event.target.value as "cold" | "hot" })}
          >
            <option value="cold">cold, in a cold shell</option>
            <option value="hot">hot, sets in place</option>
          </Select>
          <Select
            label="Meringue goes on"
            value={content.meringue}
            disabled={readOnly}
            onChange={(event) => change({ meringue: event.target.value as "cold" | "hot" })}
          >
            <option value="cold">a cold filling</option>
            <option value="hot">a hot filling</option>
          </Select>
        </div>
      </div>
      <Thread build={build} />
      {build.shorter.length > 0 && (
        <p className="mt-1" data-testid="shorter">
          Sooner:{" "}
          {build.shorter
            .map(
              (s) =>
                `${names.get(s.key)?.part ?? ""}, ${names.get(s.key)?.words ?? ""} up to ${span(s.saves_min)} less`,
            )
            .join("; ")}
          .
        </p>
      )}
      {build.minded.map((words) => (
        <p key={words} className="mt-1 border-l-[3px] border-rule pl-3">
          {said(words, units)}
        </p>
      ))}
      <div className="mt-4 grid gap-x-8 gap-y-5 md:grid-cols-2">
        {slots.map(({ word, steps }) => (
          <div key={word}>
            <h3 className="text-xl italic">{word}</h3>
            {steps.length === 0 && <p className="caption">nothing</p>}
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
      <p className="caption mt-3">
        What decides the whole is set in bold. Touch a step for where its minutes come from and to
        put your own. Recalled craft is good to a third; hours of keeping to a factor of two. The
        local food code and your own book come first.
      </p>
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
  const { units } = useBench();
  return (
    <div className="rule-t py-2 leading-snug">
      <p>
        <b>{part || "the whole"}</b>{" "}
        <span className="caption">
          {span(hands)} of hands{first && `, begun −${span(first.latest_min)} at the latest`}
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
              {said(s.words, units)}
            </button>
            {s.wait_min > 0 && <span className="caption"> {span(s.wait_min)}</span>}
            {s.own && <span className="caption"> (ours)</span>}
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
  const { units } = useBench();
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
        {span(step.hands_min)} of hands
        {step.wait_min > 0 &&
          `, then ${span(step.wait_min)} by itself (${span(step.wait_low_min)} to ${span(step.wait_high_min)})`}
        . <span className="caption">{said(step.source, units)}</span>
      </p>
      {after.map((gap) => (
        <p key={gap.key} className="caption">
          {gap.at_least_min > 0 && `at least ${span(gap.at_least_min)} after what comes before; `}
          {gap.at_most_min !== null && `at most ${span(gap.at_most_min)} after it; `}
          {said(gap.why, units)}
        </p>
      ))}
      {!readOnly && (
        <div className="mt-1 grid grid-cols-[7rem_7rem_auto] items-end gap-4">
          <NumberField
            label="Our hands"
            value={Math.round(step.hands_min)}
            low={0}
            high={1440}
            unit="min"
            onValue={(v) => set({ hands_min: v })}
          />
          <NumberField
            label="Our wait"
            value={Math.round(step.wait_min)}
            low={0}
            high={4320}
            unit="min"
            onValue={(v) => set({ wait_min: v })}
          />
          {mine && <Button onClick={() => change({ overrules: rest })}>As it was</Button>}
        </div>
      )}
    </div>
  );
}
