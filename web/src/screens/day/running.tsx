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
import { localIso, said, weekdayTime } from "@/units";

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
    onSuccess: (day) => {
      setWish(null);
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

  if (found.isPending) return <Loading what="the day" />;
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
      <title>The day · Bell Crumb</title>
      <div className="mb-3 flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <h1 className="text-4xl">{day.ended_at ? "A day that was" : "The day, as it happens"}</h1>
        <p className="caption" data-testid="day-done">
          {done} of {day.plan.steps.length} done
          {waiting.length > 0 && `, ${waiting.length} waiting here for the server`}
        </p>
      </div>
      {day.plan.late_min > 0 && (
        <p role="alert" className="mb-2 text-lg font-semibold text-burnt">
          It will be {span(day.plan.late_min)} late: nothing else fits any more.
        </p>
      )}
      <div className="no-print mb-3 flex flex-wrap items-end gap-4">
        <div className="w-52">
          <Select
            label="Whose hands"
            value={who}
            onChange={(event) => {
              setWho(event.target.value);
              writeStored("crumb.day.who", event.target.value || null);
            }}
          >
            <option value="">everybody’s</option>
            {people.map((name) => (
              <option key={name}>{name}</option>
            ))}
          </Select>
        </div>
        {running && (
          <Button
            kind="act"
            disabled={again.isPending}
            onClick={() => again.mutate(wish ?? { pins: day.pins })}
          >
            {again.isPending ? "Working it out …" : "Plan the rest again from now"}
          </Button>
        )}
        {running && undone.length > 0 && <Button onClick={takeBack}>Take the pin back</Button>}
        <a className="way" href={`/api/k/${kid}/days/${dayId}/calendar`} download="day.ics">
          Into a calendar
        </a>
        <a className="way" href={`/api/k/${kid}/days/${dayId}/file`} download="day.json">
          To a file
        </a>
        <Button onClick={() => window.print()}>Print it</Button>
        {running && (
          <Button disabled={end.isPending} onClick={() => end.mutate()}>
            End the day
          </Button>
        )}
        <Link className="way" to={`/k/${kid}/day`}>
          Another day
        </Link>
      </div>
      {day.plan.warnings.map((warning) => (
        <p key={warning} className="mb-1">
          {said(warning, units)}
        </p>
      ))}
      <Refused error={again.error ?? end.error} className="mb-2" />
      {again.data && again.data.revision === day.revision && <Moved day={again.data} />}
      <Runway
        plan={day.plan}
        units={units}
        chosen={chosen}
        choose={setChosen}
        now={day.ended_at ? null : minuteOf(now)}
        {...(running ? { onPin: pin } : {})}
      />
      {running && (
        <p className="caption no-print">
          Drag a step, or move it with the arrow keys: it is pinned there and the rest answers
          around it.
        </p>
      )}
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
    </div>
  );
}

/** One line a step that moved: what changed, and for whom. */
function Moved({ day }: { day: Running }) {
  const { units } = useBench();
  if (!day.changes.length) return <p className="caption mb-3">Nothing moves.</p>;
  const rest = day.changes.length - SHOWN;
  return (
    <ul className="mb-3" aria-label="What changed" data-testid="moved">
      {day.changes.slice(0, SHOWN).map((c) => (
        <li key={c.key} className="leading-snug">
          <b>{c.who ?? "nobody"}</b>: {said(c.what, units)} at {weekdayTime(c.now)}
          <span className="caption">
            {" "}
            · was {weekdayTime(c.was)}
            {c.was_who !== c.who && ` with ${c.was_who ?? "nobody"}`}
          </span>
        </li>
      ))}
      {rest > 0 && <li className="caption">and {rest} more</li>}
    </ul>
  );
}

/** Planned against real, once the day is over. */
function Times({ kid, dayId }: { kid: string; dayId: string }) {
  const { units } = useBench();
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
    <section className="mt-6" aria-label="Planned against real">
      <h2 className="text-2xl">Planned against real</h2>
      <ol>
        {found.data.map((s) => (
          <li key={s.key} className="rule-t py-1 leading-snug">
            <b>{weekdayTime(s.planned_start)}</b> {said(s.what, units)}
            <span className="caption">
              {" "}
              · planned {span(s.planned_min)}
              {s.real_start && ` · begun ${weekdayTime(s.real_start)}`}
              {s.real_min !== null && ` · took ${span(s.real_min)}`}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}
