import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { RadioGroup } from "radix-ui";
import { useState } from "react";

import { ApiError, client, must, type Shapes } from "@/api/client";
import { useCraft } from "@/api/queries";
import { useBench } from "@/bench";
import { useEggGrades } from "@/screens/egg-grades";
import { Serving } from "@/figures/glass";
import type { Draft } from "@/keep/draft";
import { NO_WISHES, type Wishes } from "@/screens/formula/wishes";
import { Take } from "@/screens/formula/take";
import { Button } from "@/ui/button";
import { Check } from "@/ui/check";
import { Dialog } from "@/ui/dialog";
import { Input, Select } from "@/ui/field";
import { BRIEF, CLASSES, DOES, type SetClass } from "@/words";
import { say } from "@/say";

interface Props {
  draft: Draft;
  found: Shapes["FormulaOut"];
  onClose: () => void;
}

/** The formula bent to a wish by the least change: what changes, why, what it costs. */
export function BendDialog({ draft, found, onClose }: Props) {
  const { kid } = useBench();
  const grades = useEggGrades();
  const craft = useCraft();
  const [wishes, setWishes] = useState<Wishes>(NO_WISHES);
  const wish = (part: Partial<Wishes>) => setWishes({ ...wishes, ...part });
  const wished = JSON.stringify(wishes) !== JSON.stringify(NO_WISHES);
  const ask = { content: draft.content, wishes };
  const bent = useQuery({
    queryKey: ["solve", kid, ask],
    enabled: wished,
    queryFn: ({ signal }) =>
      must(client.POST("/api/k/{kid}/solve", { params: { path: { kid } }, body: ask, signal })),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const error = bent.error instanceof ApiError ? bent.error : null;
  const out = wished && !error ? bent.data : undefined;
  const keys = new Set(found.lines.map((line) => line.ingredient));
  const swaps = craft.data?.swaps.filter((swap) => keys.has(swap.old)) ?? [];
  const has = (old: string, next: string) =>
    wishes.swaps.some((s) => s.old === old && s.new === next);
  return (
    <Dialog open onClose={onClose} title={say("formula.bend_it_to_a_wish")}>
      <RadioGroup.Root
        className="mt-2 grid grid-cols-3 gap-2 sm:grid-cols-6"
        aria-label={say("formula.it_should")}
        value={wishes.set_class ?? ""}
        onValueChange={(next) => wish({ set_class: next as SetClass })}
      >
        {CLASSES.map((klass) => (
          <RadioGroup.Item
            key={klass}
            value={klass}
            className="flex min-h-12 flex-col items-center border-[1.5px] border-rule p-1 text-center text-[0.92rem] leading-tight data-[state=checked]:border-[3px] data-[state=checked]:border-burnt data-[state=checked]:font-semibold"
          >
            <Serving klass={klass} size={52} />
            {BRIEF[klass]}
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
      {wishes.set_class && (
        <Button kind="quiet" className="!px-0" onClick={() => wish({ set_class: null })}>
          {say("formula.keep_the_set_as_it_is")}
        </Button>
      )}
      <div className="mt-2 grid gap-x-4 sm:grid-cols-2">
        <Check on={wishes.less_eggy} set={(on) => wish({ less_eggy: on })}>
          {say("formula.less_eggy_same_set")}
        </Check>
        {keys.has("egg_yolk") && (
          <Check on={wishes.whole_eggs} set={(on) => wish({ whole_eggs: on })}>
            {say("formula.whole_eggs_for_yolks")}
          </Check>
        )}
        {(["starch", "gluten"] as const).map((what) => (
          <Check
            key={what}
            on={wishes.without.includes(what)}
            set={(on) =>
              wish({
                without: on ? [...wishes.without, what] : wishes.without.filter((w) => w !== what),
              })
            }
          >
            {say("formula.no", { what })}
          </Check>
        ))}
        {swaps.map(({ old, new: next, words: word }) => (
          <Check
            key={word}
            on={has(old, next)}
            set={(on) =>
              wish({
                swaps: on
                  ? [...wishes.swaps.filter((s) => s.old !== old), { old, new: next }]
                  : wishes.swaps.filter((s) => s.old !== old || s.new !== next),
              })
            }
          >
            {word}
          </Check>
        ))}
      </div>
      {found.eggs && (
        <Select
          label={say("formula.the_eggs_bought_are_another_size")}
          value={wishes.eggs_bought_as}
          options={[
            ["", say("formula.as_written", { grade: found.eggs.grade })],
            ...grades.filter(([, name]) => name !== found.eggs?.grade),
          ]}
          onValue={(eggs_bought_as) => wish({ eggs_bought_as })}
        />
      )}
      <Input
        label={say("formula.i_have_only_and_want_to")}
        placeholder={say("formula.9_yolks")}
        value={wishes.have}
        maxLength={200}
        error={error?.field === "wishes.have" ? error.message : null}
        onChange={(event) => wish({ have: event.target.value })}
      />
      {error && error.field !== "wishes.have" && (
        <p role="alert" className="mt-2 text-burnt">
          {error.message}
        </p>
      )}
      {out && <Outcome out={out} />}
      <Take
        draft={draft}
        with={{
          ...(found.family ? { family: found.family.key } : {}),
          ...(out ? { egg_grade: out.egg_grade } : {}),
        }}
        lines={bent.isPlaceholderData || !out?.changes.length ? undefined : out.lines}
        onClose={onClose}
      />
    </Dialog>
  );
}

function Outcome({ out }: { out: Shapes["SolveOut"] }) {
  const { before, after } = out;
  const costs = [
    [say("formula.sugar"), before.sugar_pct, after.sugar_pct, " %"],
    [say("formula.fat_4"), before.fat_pct, after.fat_pct, " %"],
    [say("formula.yolk"), before.yolk_per_1000, after.yolk_per_1000, say("formula.per_1000")],
  ] as const;
  return (
    <div className="mt-3" aria-live="polite">
      {out.unmet.map((words) => (
        <p key={words} className="mb-2 border-l-[3px] border-burnt pl-3" data-testid="unmet">
          {words}
        </p>
      ))}
      {out.changes.length === 0 ? (
        <p className="text-soft">{say("formula.nothing_has_to_change_for_that")}</p>
      ) : (
        <>
          <p className="text-lg" data-testid="bend-words">
            {DOES[before.class]} → <b>{DOES[after.class]}</b>
            {costs
              .filter(([, was, is]) => Math.abs(is - was) >= 0.3)
              .map(([word, was, is, unit]) => (
                <span key={word} className="caption ml-4">
                  {word} {was.toFixed(1)} → {is.toFixed(1)}
                  {unit}
                </span>
              ))}
          </p>
          <table className="mt-1 w-full text-left">
            <thead className="sr-only">
              <tr>
                <th>{say("formula.now")}</th>
                <th>{say("formula.then")}</th>
                <th>{say("formula.why")}</th>
              </tr>
            </thead>
            <tbody>
              {out.changes.map((change, i) => (
                <tr key={i} className="rule-b align-top">
                  <td className="py-1 pr-3 text-soft">{change.before || "–"}</td>
                  <td className="py-1 pr-3 font-semibold">{change.after || say("formula.out")}</td>
                  <td className="caption py-1.5">{change.why}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </div>
  );
}
