import { useMutation, useQueryClient } from "@tanstack/react-query";
import { RadioGroup } from "radix-ui";
import { useState } from "react";

import { ApiError, client, must, saidAt, type Shapes } from "@/api/client";
import { useCraft } from "@/api/queries";
import { useBench } from "@/bench";
import { Serving } from "@/figures/glass";
import { readStored, writeStored } from "@/keep/stored";
import { Button } from "@/ui/button";
import { Check } from "@/ui/check";
import { Input } from "@/ui/field";
import { typedGrams, unitGrams } from "@/units";
import { CLASSES, DOES, type SetClass } from "@/words";
import { Say, say } from "@/say";

interface Kept {
  texture: SetClass | null;
  faults: string[];
  note: string;
  /** As it was typed, in g or oz. */
  weighs?: string;
}

/** What came of it: the texture reached, faults from a short list, a note. */
export function Judge({ batch }: { batch: Shapes["BatchOut"] }) {
  const { kid, canCook, units } = useBench();
  const store = useQueryClient();
  const craft = useCraft();
  const key = `crumb.verdict.${batch.id}`;
  const verdict = batch.verdict;
  const [kept, setKept] = useState<Kept>(
    () =>
      readStored<Kept>(key) ?? {
        texture: verdict?.texture ?? null,
        faults: verdict?.faults ?? [],
        note: verdict?.note ?? "",
        weighs: verdict?.weighs_g
          ? String(Math.round((10 * verdict.weighs_g) / unitGrams(units)) / 10)
          : "",
      },
  );
  const weighs = typedGrams(kept.weighs ?? "", units);
  const weightWrong = weighs !== null && !(weighs > 0);
  const boiled = batch.plan.boils_off_g != null;
  const inOven = batch.plan.guide === "bake";
  const mayHave = (fault: Shapes["FaultOut"]) =>
    kept.faults.includes(fault.key) || (inOven ? fault.baked : fault.stove);
  const [theirs, setTheirs] = useState<Shapes["VerdictOut"] | null>(null);
  const [saved, setSaved] = useState(false);
  const change = (part: Partial<Kept>) => {
    const next = { ...kept, ...part };
    setKept(next);
    setSaved(false);
    writeStored(key, next);
  };
  const save = useMutation({
    mutationFn: ({ revision, sent }: { revision: number; sent: Kept }) =>
      must(
        client.PUT("/api/k/{kid}/batches/{batch_id}/verdict", {
          params: { path: { kid, batch_id: batch.id } },
          body: {
            revision,
            texture: sent.texture ?? "pour",
            faults: sent.faults,
            note: sent.note,
            weighs_g: weighs,
          },
        }),
      ),
    onSuccess: (next, { sent }) => {
      const typed = readStored<Kept>(key);
      if (!typed || JSON.stringify(typed) === JSON.stringify(sent)) {
        writeStored(key, null);
        setSaved(true); // what was typed since it went out is still to be saved
      }
      setTheirs(null);
      store.setQueryData(["batch", kid, batch.id], next);
      void store.invalidateQueries({ queryKey: ["book", kid] });
    },
    onError: (error) => {
      if (error instanceof ApiError && error.status === 409) {
        setTheirs((error.body as Shapes["VerdictConflict"]).theirs);
      }
    },
  });
  const suggested = new Set(batch.findings.map((f) => f.fault));
  const error = save.error instanceof ApiError ? save.error.message : null;
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (kept.texture && !weightWrong) {
          save.mutate({ revision: theirs?.revision ?? verdict?.revision ?? 0, sent: kept });
        }
      }}
    >
      <h2 className="text-2xl">
        {verdict ? say("batch.the_verdict") : say("batch.how_did_it_come_out")}
      </h2>
      {batch.predicted_class && (
        <p className="caption mb-2">
          {say("batch.predicted_3", { does: DOES[batch.predicted_class].toLowerCase() })}
        </p>
      )}
      <RadioGroup.Root
        className="grid grid-cols-3 gap-2"
        aria-label={say("batch.texture_reached")}
        value={kept.texture ?? ""}
        disabled={!canCook}
        onValueChange={(next) => change({ texture: next as SetClass })}
      >
        {CLASSES.map((klass) => (
          <RadioGroup.Item
            key={klass}
            value={klass}
            className="flex flex-col items-center border-[1.5px] border-rule p-2 text-center data-[state=checked]:border-[3px] data-[state=checked]:border-burnt data-[state=checked]:font-semibold"
          >
            <Serving klass={klass} size={70} />
            <span className="mt-1 leading-tight">{DOES[klass].replace(" unmoulded", "")}</span>
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
      <fieldset className="mt-4">
        <legend className="caption">{say("batch.faults_if_any")}</legend>
        <div className="grid grid-cols-2 gap-x-4">
          {craft.data?.faults.filter(mayHave).map((fault) => (
            <Check
              key={fault.key}
              disabled={!canCook}
              on={kept.faults.includes(fault.key)}
              set={(on) =>
                change({
                  faults: on
                    ? [...kept.faults, fault.key]
                    : kept.faults.filter((f) => f !== fault.key),
                })
              }
            >
              {fault.name}
              {suggested.has(fault.key) && (
                <span className="caption block !text-burnt">
                  {say("batch.the_curve_says_likely")}
                </span>
              )}
            </Check>
          ))}
        </div>
      </fieldset>
      {boiled && (
        <div className="mt-3 max-w-[16rem]">
          <Input
            label={say("batch.all_of_it_weighs_without_its", {
              units: units === "us" ? say("batch.oz") : "g",
            })}
            inputMode="decimal"
            value={kept.weighs ?? ""}
            disabled={!canCook}
            error={weightWrong ? say("batch.a_weight_or_nothing") : saidAt(save.error, "weighs_g")}
            onChange={(event) => change({ weighs: event.target.value })}
          />
        </div>
      )}
      <label className="mt-3 block">
        <span className="caption">{say("batch.note")}</span>
        <textarea
          className="field min-h-24"
          maxLength={2000}
          readOnly={!canCook}
          value={kept.note}
          placeholder={say("batch.what_you_would_tell_the_next")}
          onChange={(event) => change({ note: event.target.value })}
        />
      </label>
      {theirs && (
        <div role="alert" className="mt-3 border-l-[3px] border-burnt pl-3">
          <p>
            <Say
              code="batch.judged_it_in_the_meantime_saving"
              values={{
                by: theirs.by ?? say("batch.somebody_2"),
                does: DOES[theirs.texture].toLowerCase(),
                note: theirs.note && `, “${theirs.note}”`,
              }}
              components={{ b: <b /> }}
            />
          </p>
        </div>
      )}
      {error && !theirs && !saidAt(save.error, "weighs_g") && (
        <p role="alert" className="mt-2 text-burnt">
          {error}
        </p>
      )}
      {canCook && (
        <Button
          kind="act"
          type="submit"
          className="mt-4 w-full"
          disabled={!kept.texture || save.isPending}
        >
          {saved
            ? say("batch.in_the_book")
            : theirs
              ? say("batch.put_mine_in_its_place")
              : verdict
                ? say("batch.change_the_verdict")
                : say("batch.into_the_book")}
        </Button>
      )}
    </form>
  );
}
