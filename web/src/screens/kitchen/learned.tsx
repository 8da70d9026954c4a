import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { LessonPlate } from "@/figures/lesson";
import { lessonWords } from "@/lessons";
import { Button } from "@/ui/button";
import { Check } from "@/ui/check";
import { NumberField } from "@/ui/field";
import { Refused } from "@/ui/states";
import { fromCelsius, toCelsius, type Units } from "@/units";
import { say } from "@/say";

type Lesson = Shapes["LessonOut"];
type Change = Shapes["LessonChange"];

/** What the kitchen’s own batches teach, and every prediction uses, of its rings, pots, ovens and set. */
export function Learned() {
  const { kid, units, canEdit } = useBench();
  const store = useQueryClient();
  const learned = useQuery({
    queryKey: ["learned", kid],
    queryFn: () => must(client.GET("/api/k/{kid}/learned", { params: { path: { kid } } })),
    staleTime: 60_000,
  });
  const change = useMutation({
    mutationFn: (body: Change) =>
      must(client.PATCH("/api/k/{kid}/learned", { params: { path: { kid } }, body })),
    onSuccess: (lessons) => store.setQueryData(["learned", kid], lessons),
  });
  const found = learned.data;
  return (
    <section aria-labelledby="learned" data-testid="learned" className="col-span-full">
      <h2 id="learned" className="mb-2 text-2xl">
        {say("kitchen.what_the_book_teaches")}
      </h2>
      {found?.length === 0 && (
        <p className="text-soft">{say("kitchen.nothing_yet_it_begins_with_the")}</p>
      )}
      <Refused error={change.error} className="mb-2" />
      {!!found?.length && (
        <>
          {GROUPS.map(([title, kinds]) => {
            const rows = found
              .filter((lesson) => kinds.includes(lesson.kind))
              .sort(
                (a, b) =>
                  a.name.localeCompare(b.name) || kinds.indexOf(a.kind) - kinds.indexOf(b.kind),
              );
            return (
              rows.length > 0 && (
                <div key={title} className="mt-4">
                  <h3 className="text-lg">{title}</h3>
                  <ul className="grid gap-x-12 md:grid-cols-2 xl:grid-cols-3">
                    {rows.map((lesson) => (
                      <Row
                        key={`${lesson.kind}${lesson.name}`}
                        lesson={lesson}
                        units={units}
                        change={
                          canEdit
                            ? (part) => change.mutate({ ...KEEP, ...part, ...named(lesson) })
                            : null
                        }
                      />
                    ))}
                  </ul>
                </div>
              )
            );
          })}
          <p className="caption mt-2">{say("kitchen.every_prediction_uses_what_is_ticked")}</p>
        </>
      )}
    </section>
  );
}

/** What is learned, in the order it is looked for. */
const GROUPS: readonly (readonly [string, readonly Lesson["kind"][]])[] = [
  [say("kitchen.rings_and_pots"), ["ring", "loss", "pot"]],
  [say("kitchen.ovens"), ["oven", "film", "vent", "recovers"]],
  [say("kitchen.how_firm_its_creams_come_out"), ["set"]],
  [say("kitchen.what_sets_them_beyond_that"), ["line"]],
];

const KEEP = { on: null, by_hand: null, forget_hand: false, begin_again: false };
const named = ({ kind, name }: Lesson) => ({ kind, name });

/** A set is told in S, to a tenth; everything else in whole units. */
const decimals = (kind: string) => (kind === "set" || kind === "line" ? 1 : 0);
const rounded = (value: number, kind: string) => Number(value.toFixed(decimals(kind)));

/** In which unit a lesson is put in by hand. */
function typedIn(kind: string, units: Units) {
  const same = (value: number) => value;
  if (kind === "oven") {
    const zero = fromCelsius(0, units);
    return {
      unit: units === "us" ? "°F" : "K",
      shown: (value: number) => fromCelsius(value, units) - zero,
      back: (value: number) => toCelsius(value + zero, units),
    };
  }
  if (kind === "loss") return { unit: "W/m²K", shown: same, back: same };
  if (decimals(kind)) return { unit: "S", shown: same, back: same };
  return {
    unit: "%",
    shown: (value: number) => 100 * value,
    back: (value: number) => value / 100,
  };
}

interface RowProps {
  lesson: Lesson;
  units: Units;
  change: ((part: Partial<Change>) => void) | null;
}

function Row({ lesson, units, change }: RowProps) {
  const [typing, setTyping] = useState<number | null>(null);
  const { unit, shown, back } = typedIn(lesson.kind, units);
  const learned = { ...lesson, value: lesson.mean };
  return (
    <li className="rule-b py-3">
      <b className="inline-block first-letter:uppercase">{lesson.called}</b>{" "}
      {lessonWords(learned, units)}
      <span className="caption block">
        {say("kitchen.from_batches", {
          n: lesson.n,
          by_hand:
            lesson.by_hand !== null &&
            say("kitchen.by_hand", {
              by_hand: shown(lesson.by_hand).toFixed(decimals(lesson.kind)),
              unit,
            }),
          on: !lesson.on && say("kitchen.not_used"),
        })}
      </span>
      <LessonPlate lesson={lesson} units={units} />
      {change && (
        <details>
          <summary className="caption min-h-12 py-3">
            {say("kitchen.leave_it_out_put_in_another")}
          </summary>
          <Check on={lesson.on} set={(on) => change({ on })}>
            {say("kitchen.use_it")}
          </Check>
          <div className="flex flex-wrap items-end gap-x-5 gap-y-1">
            <div className="w-36">
              <NumberField
                label={say("kitchen.by_hand_2", { unit })}
                value={typing ?? rounded(shown(lesson.by_hand ?? lesson.mean), lesson.kind)}
                low={-100}
                high={300}
                onValue={setTyping}
              />
            </div>
            {typing !== null && (
              <Button
                onClick={() => {
                  change({ by_hand: back(typing) });
                  setTyping(null);
                }}
              >
                {say("kitchen.use_this_instead")}
              </Button>
            )}
            {lesson.by_hand !== null && (
              <Button kind="quiet" className="-ml-4" onClick={() => change({ forget_hand: true })}>
                {say("kitchen.back_to_what_was_learned")}
              </Button>
            )}
          </div>
          <Button kind="quiet" className="-ml-4" onClick={() => change({ begin_again: true })}>
            {say("kitchen.begin_again_from_the_next_batch")}
          </Button>
        </details>
      )}
    </li>
  );
}
