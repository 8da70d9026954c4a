import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useNavigate, useParams } from "react-router";

import type { Shapes } from "@/api/client";
import { useBatch, useKitchen } from "@/api/queries";
import { PotCurve } from "@/figures/pot-curve";
import { aligned } from "@/screens/batch/align";
import { Aside, Ready } from "@/screens/cook/aside";
import { BakeAside } from "@/screens/cook/bake-aside";
import { setSound, soundOn, useAwake, useCall } from "@/screens/cook/call";
import { Figure } from "@/screens/cook/figure";
import { Layered } from "@/screens/cook/layered";
import { useCourse, type Watch } from "@/screens/cook/live";
import { standing } from "@/screens/cook/standing";
import { TypedReading } from "@/screens/cook/typed";
import { OtherPots } from "@/screens/cook/others";
import { Watched } from "@/screens/cook/watched";
import { topOf, zonesOf } from "@/screens/stove/plan-curve";
import { Button } from "@/ui/button";
import { usePageKeys } from "@/ui/keys";
import { Failed, Loading } from "@/ui/states";
import { clock, type Units } from "@/units";
import { say } from "@/say";

type Batch = Shapes["BatchOut"];

/** The cook, full screen: one figure, the next move in words, one key or knuckle to go on. */
export default function Cook() {
  const { kid = "", batchId = "" } = useParams();
  const kitchen = useKitchen(kid);
  const batch = useBatch(kid, batchId);
  if (batch.isError && !batch.data) {
    return <Failed error={batch.error} again={() => void batch.refetch()} />;
  }
  if (!batch.data || !kitchen.data) return <Loading what={say("cook.the_cook")} />;
  return <Guide kid={kid} batch={batch.data} units={kitchen.data.units} />;
}

function Guide({ kid, batch, units }: { kid: string; batch: Batch; units: Units }) {
  const go = useNavigate();
  const store = useQueryClient();
  const { live, away, outbox, waiting } = useCourse(kid, batch.id);
  const at = standing(live, waiting);
  const [sound, setSoundState] = useState(soundOn());
  const steps = batch.plan.steps;
  const index = Math.max(
    0,
    steps.findIndex((s) => s.key === (at.step ?? steps[0]?.key)),
  );
  const step = steps[index];
  const rungs = batch.plan.ladder?.rungs.length ?? 0;
  const pouring = step?.kind === "temper" && at.rungs < rungs;
  const last = index === steps.length - 1;
  const here = live && live.step === step?.key ? live : undefined;
  useAwake();
  useCall(
    here?.moment.headline ?? "",
    here?.moment.next_move ?? "",
    here?.paused ? "calm" : (here?.moment.urgency ?? "calm"),
    sound,
  );

  useEffect(() => {
    if (!at.ended || waiting.length) return;
    void store.invalidateQueries({ queryKey: ["batch", kid, batch.id] });
    void store.invalidateQueries({ queryKey: ["book", kid] });
    void store.invalidateQueries({ queryKey: ["going", kid] });
    void store.invalidateQueries({ queryKey: ["devices", kid] });
    void go(`/k/${kid}/book/${batch.id}`, { replace: true });
  }, [at.ended, batch.id, go, kid, store, waiting.length]);

  const onward = () => {
    if (at.ended) return;
    if (pouring) void outbox.add("ladle", { step: "temper", value: at.rungs + 1 });
    else if (last) void outbox.add("end");
    else void outbox.add("step", { step: steps[index + 1]?.key ?? "" });
  };
  const back = () => {
    if (index > 0 && !at.ended) void outbox.add("step", { step: steps[index - 1]?.key ?? "" });
  };
  useKeys(onward, back);
  if (!step) return null;

  const word = pouring
    ? say("cook.ladle_of_is_in", { rungs: at.rungs + 1, rungs2: rungs })
    : last
      ? say("cook.end_and_judge_it")
      : say("cook.next", { steps: steps[index + 1]?.title ?? "" });
  return (
    <div className="flex h-dvh min-h-[36rem] flex-col overflow-hidden bg-paper">
      <title>
        {say("cook.bell_crumb", {
          whole: batch.whole ? say("cook.building") : say("cook.cooking"),
          dessert: batch.dessert,
        })}
      </title>
      <header className="rule-b flex items-center gap-4 px-5 py-1">
        <h1 className="min-w-0 truncate text-xl">{batch.dessert}</h1>
        <ol className="hidden flex-1 items-center gap-1 md:flex" aria-label={say("cook.steps")}>
          {steps.map((s, i) => (
            <li
              key={s.key}
              aria-current={i === index ? "step" : undefined}
              title={s.title}
              className={`h-2 flex-1 border border-ink ${i < index ? "bg-ink" : i === index ? "bg-burnt" : ""}`}
            >
              <span className="sr-only">{s.title}</span>
            </li>
          ))}
        </ol>
        <p className="caption ml-auto whitespace-nowrap">
          {live ? clock(live.now_s) : "–"}
          {batch.simulated && (
            <span className="ml-2 border border-ink px-1.5 py-0.5 text-ink">
              {say("cook.simulated", {
                time_scale: batch.time_scale > 1 ? ` ×${batch.time_scale}` : "",
              })}
            </span>
          )}
        </p>
        <Button
          kind="quiet"
          className="!px-2 whitespace-nowrap"
          aria-pressed={sound}
          onClick={() => {
            setSound(!sound);
            setSoundState(!sound);
          }}
        >
          {say("cook.sound", { sound: sound ? say("cook.on") : say("cook.off") })}
        </Button>
      </header>
      <OtherPots kid={kid} mine={batch.id} sound={sound} />
      <Delivery away={away} waiting={waiting.length} refused={outbox.refused} />
      <main
        tabIndex={0}
        aria-label={say("cook.the_cook_2")}
        className="grid min-h-0 flex-1 gap-x-6 overflow-auto px-5 lg:grid-cols-[minmax(0,1.35fr)_minmax(0,1fr)]"
      >
        {step.kind === "ready" ? (
          <Ready
            batch={batch}
            step={step}
            units={units}
            sugarAt={live?.marks["sugar_on_yolks"] ?? null}
            now={live?.now_s ?? 0}
            onSugar={() => void outbox.add("mark", { step: "sugar_on_yolks" })}
          />
        ) : (
          <>
            <Figure step={step} live={here} units={units} probe={batch.device} />
            {step.kind === "bake" ? (
              <BakeAside
                kid={kid}
                batch={batch}
                step={step}
                live={here}
                units={units}
                outbox={outbox}
              />
            ) : (
              <Aside
                kid={kid}
                batch={batch}
                step={step}
                live={here}
                units={units}
                rungs={at.rungs}
              />
            )}
          </>
        )}
        <div className="lg:col-span-2">
          {step.kind !== "ready" && batch.plan.guide !== "build" && (
            <Watched live={live} units={units} baking={batch.plan.guide === "bake"} />
          )}
          {batch.plan.guide === "build" && step.kind !== "ready" && (
            <Layered batch={batch} at={step.key} units={units} />
          )}
          {batch.plan.guide !== "build" && step.kind !== "temper" && step.kind !== "ready" && (
            <PotCurve
              units={units}
              predicted={aligned(batch.plan, live ? timingsOf(batch, live) : [])}
              actual={live?.all ?? []}
              zones={zonesOf(batch.plan)}
              top={topOf(batch.plan)}
              height={228}
              label={say("cook.temperature_so_far_against_the_prediction")}
            />
          )}
        </div>
      </main>
      <footer className="flex flex-wrap items-stretch gap-3 border-t-[1.5px] border-ink p-3 sm:flex-nowrap">
        <Button
          className="!px-6 text-lg"
          onClick={back}
          disabled={index === 0}
          aria-label={say("cook.back_one_step")}
        >
          ←
        </Button>
        <Button
          kind="act"
          className="order-first min-h-20 w-full min-w-0 flex-1 basis-full text-xl sm:order-none sm:w-auto sm:basis-0 sm:text-2xl"
          onClick={onward}
          data-testid="onward"
        >
          {word}
          <span className="ml-3 hidden text-base font-normal opacity-85 md:inline">
            {say("cook.space")}
          </span>
        </Button>
        {step.kind !== "ready" && (
          <Button
            className="!px-5"
            aria-pressed={live?.paused ?? false}
            onClick={() => void outbox.add(live?.paused ? "resume" : "pause")}
          >
            {live?.paused ? say("cook.go_on") : say("cook.pause")}
          </Button>
        )}
        <TypedReading units={units} onReading={(c) => void outbox.add("typed", { value: c })} />
      </footer>
    </div>
  );
}

/** Timings as far as known: the batch's own, and the step the cook is in now. */
function timingsOf(batch: Batch, live: Watch): Shapes["Timing"][] {
  return live.timings.length ? live.timings : batch.timings;
}

function useKeys(onward: () => void, back: () => void): void {
  usePageKeys((event) => {
    const target = event.target as HTMLElement;
    if (target.closest("input, textarea, select, [role=dialog]")) return;
    const onButton = target.closest("button, a") !== null;
    if (event.repeat) return;
    if ((event.key === " " || event.key === "Enter") && !onButton) {
      event.preventDefault();
      onward();
    } else if (event.key === "ArrowRight" || event.key === "ArrowDown") {
      event.preventDefault();
      onward();
    } else if (event.key === "ArrowLeft" || event.key === "ArrowUp") {
      event.preventDefault();
      back();
    }
  });
}

function Delivery({
  away,
  waiting,
  refused,
}: {
  away: boolean;
  waiting: number;
  refused: string | null;
}) {
  if (refused) {
    return (
      <p role="alert" className="bg-burnt px-5 py-1.5 text-on-burnt">
        {refused}
      </p>
    );
  }
  if (!away && !waiting) return null;
  return (
    <p
      role="status"
      className="border-b border-burnt px-5 py-1.5 text-burnt"
      data-testid="delivery"
    >
      {away ? say("cook.the_server_is_not_answering_cook") : ""}
      {waiting > 0 && say("cook.moves_are_kept_here_and_will", { waiting })}
    </p>
  );
}
