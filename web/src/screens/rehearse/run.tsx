import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";

import { ApiError, client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { PotCurve } from "@/figures/pot-curve";
import { PracticeOven } from "@/figures/practice-oven";
import { PracticePot } from "@/figures/practice";
import { newId, SendIds } from "@/keep/id";
import { setSound, soundOn, useAwake, useCall } from "@/screens/cook/call";
import { Debrief } from "@/screens/rehearse/debrief";
import { Hands } from "@/screens/rehearse/hands";
import { Button } from "@/ui/button";
import { usePageKeys } from "@/ui/keys";
import { Failed, Loading } from "@/ui/states";
import { clock, degrees, grams, type Units } from "@/units";
import { say } from "@/say";

type RunData = Shapes["RehearsalOut"];
type Kind = Shapes["ActIn"]["kind"];

/** One rehearsal: act on the pretended stove, then read what went wrong. */
export default function Run() {
  const id = useParams()["runId"] ?? "";
  return <OneRun key={id} id={id} />;
}

function OneRun({ id }: { id: string }) {
  const { kid, units } = useBench();
  const store = useQueryClient();
  const go = useNavigate();
  const key = ["rehearsal", kid, id];
  const run = useQuery({
    queryKey: key,
    queryFn: () =>
      must(
        client.GET("/api/k/{kid}/rehearsals/{rehearsal_id}", {
          params: { path: { kid, rehearsal_id: id } },
        }),
      ),
    refetchInterval: (query) => (query.state.data?.ended ? false : 600),
    staleTime: 0,
    retry: false,
  });
  /** When the last answer came: its clock goes on from there. */
  const heard = useRef(0);
  useEffect(() => {
    heard.current = Date.now();
  }, [run.dataUpdatedAt]);
  const [error, setError] = useState<string | null>(null);
  const [ids] = useState(() => new SendIds());
  const data = run.data;
  /** The knob turns under the hand: until the server has it, the next press counts from here. */
  const [turned, setTurned] = useState<number | null>(null);
  const [hands] = useState(
    () =>
      new Hands(
        (acts) =>
          must(
            client.POST("/api/k/{kid}/rehearsals/{rehearsal_id}/acts", {
              params: { path: { kid, rehearsal_id: id } },
              body: { acts },
            }),
          ),
        (next) => {
          setError(null);
          setTurned(null);
          // A question asked before the server had it is stale.
          void store.cancelQueries({ queryKey: key });
          store.setQueryData(key, next);
        },
        (problem, more) => {
          if (!more) setTurned(null);
          setError(
            problem instanceof ApiError ? problem.message : say("rehearse.that_did_not_arrive"),
          );
        },
      ),
  );
  const act = (kind: Kind, value = 0) => {
    if (!data || data.ended) return;
    if (kind === "heat") setTurned(value);
    const at = data.now_s + ((Date.now() - heard.current) / 1000) * data.speed;
    void hands.did({ id: newId(), at_s: Math.max(0, Math.min(3600, at)), kind, value });
  };
  if (run.isError && !data) return <Failed error={run.error} again={() => void run.refetch()} />;
  if (!data) return <Loading what={say("rehearse.the_rehearsal")} />;
  const again = (seed: number) => {
    must(
      client.POST("/api/k/{kid}/rehearsals", {
        params: { path: { kid } },
        body: {
          id: ids.of(seed === data.seed ? "same" : "another"),
          exercise: data.exercise,
          seed,
          speed: data.speed,
        },
      }),
    ).then(
      (next) => {
        store.setQueryData(["rehearsal", kid, next.id], next);
        void go(`/k/${kid}/rehearse/${next.id}`, { replace: true });
      },
      () => setError(say("rehearse.the_server_is_not_answering")),
    );
  };
  if (data.ended) return <Debrief run={data} units={units} again={again} />;
  const now = turned === null ? data : { ...data, heat: turned };
  return <Practice run={now} turning={turned !== null} units={units} act={act} error={error} />;
}

interface PracticeProps {
  run: RunData;
  turning: boolean;
  units: Units;
  act: (kind: Kind, value?: number) => void;
  error: string | null;
}

function Practice({ run, turning, units, act, error }: PracticeProps) {
  const { kid } = useBench();
  const [sound, setSoundState] = useState(soundOn());
  const has = (kind: Kind) => run.can.includes(kind);
  const turn = (by: number) => act("heat", Math.max(0, Math.min(run.heats, run.heat + by)));
  const moment = run.moment;
  const hot = moment.urgency === "now" || moment.urgency === "wrong";
  useAwake();
  useCall(moment.headline, moment.next_move, moment.urgency, sound);
  usePageKeys((event) => {
    const target = event.target as HTMLElement;
    if (target.closest("input, select, textarea")) return;
    const key = event.key;
    if (key === "ArrowUp" || key === "ArrowDown") {
      event.preventDefault();
      turn(key === "ArrowUp" ? 1 : -1);
    } else if (key === " " && !target.closest("button, a")) {
      event.preventDefault();
      if (has("look")) act("look");
      if (has("stir")) act("stir", run.stirring ? 0 : 1);
    }
  });
  const figure =
    run.stage === "oven"
      ? clock(run.now_s)
      : run.figure_word === "%"
        ? `${moment.figure ?? 0}\u202f%`
        : degrees(run.temp_c, units, run.stage === "pot" ? 1 : 0);
  const [number, unit] = figure.split("\u202f");
  return (
    <div className="py-3">
      <title>{say("rehearse.rehearsed_bell_crumb", { run: run.name })}</title>
      <div className="flex flex-wrap items-center gap-x-5">
        <h1 className="text-3xl">{run.name}</h1>
        <span className="caption border border-ink px-1.5 text-ink">
          {say("rehearse.rehearsal", { speed: run.speed > 1 ? ` ×${run.speed}` : "" })}
        </span>
        <span className="caption" data-testid="pot-clock">
          {clock(run.now_s)}
        </span>
        <Button
          kind="quiet"
          className="ml-auto"
          aria-pressed={sound}
          onClick={() => {
            setSound(!sound);
            setSoundState(!sound);
          }}
        >
          {say("rehearse.sound", { sound: sound ? say("rehearse.on") : say("rehearse.off") })}
        </Button>
        <Link className="caption underline" to={`/k/${kid}/rehearse`}>
          {say("rehearse.other_exercises")}
        </Link>
      </div>
      <p className="text-lg">{run.task}</p>
      {error && (
        <p role="alert" className="text-burnt">
          {error}
        </p>
      )}
      <div className="mt-2 grid gap-x-8 gap-y-3 lg:grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)]">
        <section aria-label={say("rehearse.now")}>
          <p
            className={`display w-fit text-3xl italic ${hot ? "bg-burnt px-3 text-on-burnt" : "text-burnt"}`}
            data-testid="headline"
          >
            {moment.headline || "\u00a0"}
          </p>
          <p
            className="figure leading-[0.95] whitespace-nowrap"
            style={{ fontSize: "clamp(96px, 16vw, 190px)" }}
            data-testid="figure"
          >
            {number}
            <span className="unit">{unit}</span>
          </p>
          <p className="display text-2xl leading-tight" data-testid="next-move">
            {moment.next_move || run.step.title}
          </p>
          <Aim run={run} units={units} />
        </section>
        <section aria-label={say("rehearse.the_pot")} className="flex flex-col items-center">
          {run.stage === "oven" ? <PracticeOven run={run} /> : <PracticePot run={run} />}
        </section>
      </div>
      <Controls run={run} turning={turning} has={has} act={act} units={units} />
      {run.stage !== "mixer" && run.stage !== "bowl" && run.stage !== "oven" && (
        <PotCurve
          units={units}
          predicted={[]}
          actual={run.curve}
          zones={{
            thickens_c: null,
            reach_c: run.goal_c[0] ?? null,
            reach_word: say("rehearse.aim_from"),
            never_c: run.step.never_c,
            never_word: run.step.over,
          }}
          top={run.stage === "syrup" ? 205 : 108}
          height={200}
          label={say("rehearse.temperature_so_far")}
        />
      )}
    </div>
  );
}

function Aim({ run, units }: { run: RunData; units: Units }) {
  const [low, high] = run.goal_c;
  return (
    <p className="mt-1 text-lg text-soft">
      {low ? say("rehearse.aim_to", { low: degrees(low, units), high: degrees(high, units) }) : ""}
      {run.stage === "bowl" &&
        say("rehearse.of_milk_still_to_pour", { to_pour_g: grams(run.to_pour_g, units) })}
      {run.stage === "syrup" &&
        say("rehearse.of_water_left", { water_g: grams(run.water_g, units) })}
      {run.held_s > 0 &&
        run.exercise === "pastry_cream" &&
        say("rehearse.held_s", { held_s: Math.round(run.held_s) })}
      {run.whites_s !== null &&
        say("rehearse.whites_whipping_for", { whites_s: clock(run.whites_s) })}
    </p>
  );
}

function Controls({
  run,
  turning,
  has,
  act,
  units,
}: {
  run: RunData;
  turning: boolean;
  has: (kind: Kind) => boolean;
  act: (kind: Kind, value?: number) => void;
  units: Units;
}) {
  const mixer = run.stage === "mixer";
  return (
    <div
      className="my-3 flex flex-wrap items-stretch gap-3 border-y-[1.5px] border-ink py-3"
      role="group"
      aria-label={say("rehearse.what_you_do")}
    >
      {has("heat") && (
        <div className="flex items-center gap-2">
          <Button
            className="!px-6 text-2xl"
            aria-label={mixer ? say("rehearse.slower") : say("rehearse.less_heat")}
            disabled={run.heat === 0}
            onClick={() => act("heat", run.heat - 1)}
          >
            −
          </Button>
          <p className="w-24 text-center text-lg" data-testid="heat" aria-busy={turning}>
            {mixer ? say("rehearse.speed") : say("rehearse.heat")} <b>{run.heat}</b>
          </p>
          <Button
            className="!px-6 text-2xl"
            aria-label={mixer ? say("rehearse.faster") : say("rehearse.more_heat")}
            disabled={run.heat === run.heats}
            onClick={() => act("heat", run.heat + 1)}
          >
            +
          </Button>
        </div>
      )}
      {has("stir") && (
        <Button
          className="min-w-36 text-lg"
          aria-pressed={run.stirring}
          onClick={() => act("stir", run.stirring ? 0 : 1)}
        >
          {run.stirring
            ? say("rehearse.stop_stirring")
            : run.stage === "bowl"
              ? say("rehearse.whisk")
              : say("rehearse.stir")}
        </Button>
      )}
      {has("ladle") &&
        [...run.ladles_g, run.to_pour_g].map((g, i) =>
          g > 0.5 ? (
            <Button key={i} className="text-lg" onClick={() => act("ladle", g)}>
              {i < run.ladles_g.length
                ? say("rehearse.pour", { g: grams(g, units) })
                : say("rehearse.all_of_it")}
            </Button>
          ) : null,
        )}
      {has("lift") && (
        <Button
          className="text-lg"
          aria-pressed={run.lifted}
          onClick={() => act("lift", run.lifted ? 0 : 1)}
        >
          {run.lifted ? say("rehearse.back_on_the_heat") : say("rehearse.off_the_heat")}
        </Button>
      )}
      {has("whites") && run.whites_s === null && (
        <Button className="text-lg" onClick={() => act("whites")}>
          {say("rehearse.start_the_whites")}
        </Button>
      )}
      {has("cold_water") && (
        <Button className="text-lg" onClick={() => act("cold_water")}>
          {say("rehearse.into_cold_water")}
        </Button>
      )}
      {has("pour") && (
        <Button kind="act" className="text-lg" onClick={() => act("pour")}>
          {say("rehearse.pour_it")}
        </Button>
      )}
      {has("look") && (
        <Button className="text-lg" onClick={() => act("look")}>
          {say("rehearse.open_the_door_and_nudge_one")}
        </Button>
      )}
      <Button
        kind={has("pour") ? "quiet" : "act"}
        className="ml-auto text-lg"
        onClick={() => act("end")}
      >
        {has("look") ? say("rehearse.pull_them") : say("rehearse.that_is_it")}
      </Button>
    </div>
  );
}
