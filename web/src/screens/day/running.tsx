import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useState } from "react";
import { Link, useParams } from "react-router";

import { client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { Runway } from "@/figures/runway";
import { span } from "@/figures/thread";
import { readStored, writeStored } from "@/keep/stored";
import { keepTick, sendTicks, waitingTicks, withWaiting, type Tick } from "@/keep/ticks";
import { shownBy } from "@/screens/day/ask";
import { Things } from "@/screens/day/things";
import { Button } from "@/ui/button";
import { Select } from "@/ui/field";
import { Failed, Loading, Refused } from "@/ui/states";
import { localIso, weekdayTime } from "@/units";
import { Say, say } from "@/say";

type Running = Shapes["DayRunning"];
type Pin = Shapes["PinIn"];
/** Pins to plan with; ``back``: the plan to go back to, where one is taken back. */
interface Wish {
  pins: Pin[];
  back?: Shapes["DayOut"];
}

const POLL_MS = 1_000;
const AGAIN_MS = 400;
const SHOWN = 6; // changes said in words; the runway shows them all

const minuteOf = (at: Date) => at.getTime() / 60_000;

/** A day as it happens: what is next and for whom, ticked off; the rest planned again from now on. */
export default function RunningDay() {
  const { kid, units, canCook } = useBench();
  const dayId = useParams()["dayId"] ?? "";
  const store = useQueryClient();
  const key = ["day", kid, dayId];
  const [waiting, setWaiting] = useState<readonly Tick[]>(() => waitingTicks(dayId));
  const [now, setNow] = useState(() => new Date());
  const [who, setWho] = useState(() => readStored<string>("crumb.day.who") ?? "");
  const [chosen, setChosen] = useState<string | null>(null);
  const [wish, setWish] = useState<Wish | null>(null);
  const [undone, setUndone] = useState<Required<Wish>[]>([]);

  const hear = useCallback(
    (day: Running | null) => {
      setWaiting(waitingTicks(dayId));
      if (!day) return;
      store.setQueryData(["day", kid, dayId], day);
      void store.invalidateQueries({ queryKey: ["days", kid] });
    },
    [dayId, kid, store],
  );
  const found = useQuery({
    queryKey: key,
    queryFn: async () =>
      (await sendTicks(kid, dayId).catch(() => null)) ??
      (await must(
        client.GET("/api/k/{kid}/days/{day_id}", { params: { path: { kid, day_id: dayId } } }),
      )),
    refetchInterval: POLL_MS,
  });
  useEffect(() => {
    const beat = setInterval(() => {
      setNow(new Date());
      setWaiting(waitingTicks(dayId));
    }, POLL_MS);
    return () => clearInterval(beat);
  }, [dayId]);

  const tick = (step: string, kind: Tick["kind"]) => {
    keepTick(dayId, step, kind);
    setWaiting(waitingTicks(dayId));
    void sendTicks(kid, dayId).then(hear, () => undefined);
  };
  const again = useMutation({
    mutationFn: ({ pins, back }: Wish) =>
      must(
        client.POST("/api/k/{kid}/days/{day_id}/again", {
          params: { path: { kid, day_id: dayId } },
          body: { at: localIso(new Date()), pins, before: back ? shownBy(back) : null },
        }),
      ),
    onSuccess: (day, worked) => {
      setWish((now) => (now === worked ? null : now)); // a stroke since then is still to be asked
      hear(day);
    },
  });
  const { mutate } = again;
  useEffect(() => {
    if (!wish) return;
    const soon = setTimeout(() => mutate(wish), AGAIN_MS);
    return () => clearTimeout(soon);
  }, [mutate, wish]);
  const end = useMutation({
    mutationFn: () =>
      must(
        client.POST("/api/k/{kid}/days/{day_id}/end", {
          params: { path: { kid, day_id: dayId } },
        }),
      ),
    onSuccess: hear,
  });

  if (found.isPending) return <Loading what={say("day.the_day")} />;
  if (!found.data) return <Failed error={found.error} again={() => void found.refetch()} />;
  const day = withWaiting(found.data, waiting);
  const people = [...new Set(day.plan.steps.map((s) => s.who).filter((w) => w !== null))].sort();
  const mine = day.plan.steps.filter((s) => !who || s.who === who || s.who === null);
  const done = day.plan.steps.filter((s) => s.state === "done").length;
  const running = !day.ended_at && canCook;
  const pin = (step: string, minute: number) => {
    const before = wish?.pins ?? day.pins;
    setUndone((old) => [...old, { pins: before, back: day.plan }]);
    setWish({
      pins: [
        ...before.filter((p) => p.key !== step),
        { key: step, at: localIso(new Date(minute * 60_000)) },
      ],
    });
  };
  const takeBack = () => {
    const last = undone.at(-1);
    if (!last) return;
    setUndone(undone.slice(0, -1));
    setWish(last);
  };
  return (
    <div className="py-4">
      <title>{say("day.the_day_bell_crumb")}</title>
      <div className="mb-3 flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <h1 className="text-4xl">
          {day.ended_at ? say("day.a_day_that_was") : say("day.the_day_as_it_happens")}
        </h1>
        <p className="caption" data-testid="day-done">
          {say("day.of_done", {
            done,
            steps: day.plan.steps.length,
            waiting:
              waiting.length > 0 &&
              say("day.waiting_here_for_the_server", { waiting: waiting.length }),
          })}
        </p>
      </div>
      {day.plan.late_min > 0 && (
        <p role="alert" className="mb-2 text-lg font-semibold text-burnt">
          {say("day.it_will_be_late_nothing_else", { late_min: span(day.plan.late_min) })}
        </p>
      )}
      <div className="no-print mb-3 flex flex-wrap items-end gap-4">
        <div className="w-52">
          <Select
            label={say("day.whose_hands")}
            value={who}
            options={[["", say("day.everybodys")], ...people.map((name) => [name, name] as const)]}
            onValue={(name) => {
              setWho(name);
              writeStored("crumb.day.who", name || null);
            }}
          />
        </div>
        {running && (
          <Button
            kind="act"
            disabled={again.isPending}
            onClick={() => again.mutate(wish ?? { pins: day.pins })}
          >
            {again.isPending ? say("day.working_it_out") : say("day.plan_the_rest_again_from_now")}
          </Button>
        )}
        {running && undone.length > 0 && (
          <Button onClick={takeBack}>{say("day.take_the_pin_back")}</Button>
        )}
      </div>
      {day.plan.warnings.map((warning) => (
        <p key={warning} className="mb-1">
          {warning}
        </p>
      ))}
      <Refused error={again.error} className="mb-2" />
      {again.data && again.data.revision === day.revision && <Moved day={again.data} />}
      <Runway
        plan={day.plan}
        units={units}
        chosen={chosen}
        choose={setChosen}
        now={day.ended_at ? null : minuteOf(now)}
        asking={wish !== null && !again.isError}
        {...(running ? { onPin: pin } : {})}
      />
      {running && <p className="caption no-print">{say("day.drag_a_step_or_move_it")}</p>}
      <div className="h-4" />
      <Things
        steps={mine}
        now={now}
        tick={running ? tick : null}
        opens={day.opens}
        units={units}
        kid={kid}
        dayId={dayId}
      />
      {day.ended_at && <Times kid={kid} dayId={dayId} />}
      <div className="no-print mt-8 flex flex-wrap items-baseline gap-4 border-t border-rule pt-3">
        <a className="way" href={`/api/k/${kid}/days/${dayId}/calendar`} download="day.ics">
          {say("day.into_a_calendar")}
        </a>
        <a className="way" href={`/api/k/${kid}/days/${dayId}/file`} download="day.json">
          {say("day.to_a_file")}
        </a>
        <Button onClick={() => window.print()}>{say("day.print_it")}</Button>
        {running && (
          <Button disabled={end.isPending} onClick={() => end.mutate()}>
            {say("day.end_the_day")}
          </Button>
        )}
        <Link className="way" to={`/k/${kid}/day`}>
          {say("day.another_day")}
        </Link>
      </div>
      <Refused error={end.error} className="mt-2" />
    </div>
  );
}

/** One line a step that moved: what changed, and for whom. */
function Moved({ day }: { day: Running }) {
  if (!day.changes.length) return <p className="caption mb-3">{say("day.nothing_moves")}</p>;
  const rest = day.changes.length - SHOWN;
  return (
    <ul className="mb-3" aria-label={say("day.what_changed")} data-testid="moved">
      {day.changes.slice(0, SHOWN).map((c) => (
        <li key={c.key} className="leading-snug">
          <Say
            code="day.at_was"
            values={{
              who: c.who ?? say("day.nobody"),
              what: c.what,
              now: weekdayTime(c.now),
              was: weekdayTime(c.was),
              was_who:
                c.was_who !== c.who && say("day.with", { was_who: c.was_who ?? say("day.nobody") }),
            }}
            components={{ b: <b />, span: <span className="caption" /> }}
          />
        </li>
      ))}
      {rest > 0 && <li className="caption">{say("day.and_more", { rest })}</li>}
    </ul>
  );
}

/** Planned against real, once the day is over. */
function Times({ kid, dayId }: { kid: string; dayId: string }) {
  const found = useQuery({
    queryKey: ["day", kid, dayId, "times"],
    queryFn: () =>
      must(
        client.GET("/api/k/{kid}/days/{day_id}/times", {
          params: { path: { kid, day_id: dayId } },
        }),
      ),
  });
  if (!found.data) return null;
  return (
    <section className="mt-6" aria-label={say("day.planned_against_real")}>
      <h2 className="text-2xl">{say("day.planned_against_real")}</h2>
      <ol>
        {found.data.map((s) => (
          <li key={s.key} className="rule-t py-1 leading-snug">
            <b>{weekdayTime(s.planned_start)}</b> {s.what}
            <span className="caption">
              {say("day.planned", {
                planned_min: span(s.planned_min),
                real_start:
                  s.real_start && say("day.begun", { real_start: weekdayTime(s.real_start) }),
                real_min: s.real_min !== null && say("day.took", { real_min: span(s.real_min) }),
              })}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}
