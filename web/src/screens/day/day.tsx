import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";

import { client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { dessertOf, Runway } from "@/figures/runway";
import { span } from "@/figures/thread";
import { newId } from "@/keep/id";
import { type Ask, bodyOf, useAsk } from "@/screens/day/ask";
import { People, Services } from "@/screens/day/asked";
import { Kept } from "@/screens/day/kept";
import { Lists } from "@/screens/day/lists";
import { Button } from "@/ui/button";
import { Refused } from "@/ui/states";
import { degrees, localIso, weekdayTime } from "@/units";
import { Say, say } from "@/say";

type Plan = Shapes["DayOut"];

type Pin = Shapes["PinIn"];

/** The day: everything ready at the pass, worked out backwards from service. */
export default function Day() {
  const { kid, canCook } = useBench();
  const [ask, change] = useAsk(kid);
  const [chosen, setChosen] = useState<string | null>(null);
  const [pins, setPins] = useState<Pin[]>([]);
  const [last, setLast] = useState<{ asked: Ask; made: Plan; id: string }>();
  const go = useNavigate();
  const store = useQueryClient();
  const wanted = ask.services.some((s) => s.items.length);
  const plan = useMutation({
    mutationFn: ({ asked, wish, shown }: { asked: Ask; wish: Pin[]; shown?: Plan }) =>
      must(
        client.POST("/api/k/{kid}/day/plan", {
          params: { path: { kid } },
          body: bodyOf(asked, wish, shown),
        }),
      ),
    onSuccess: (made, { asked }) => setLast({ asked, made, id: newId() }),
  });
  // While a pin is worked in, and where it is refused, the plan stays: the next stroke of a key
  // needs the step it moves.
  const found = plan.data ?? (last?.asked === plan.variables?.asked ? last?.made : undefined);
  // The plan on the screen, as long as nothing else was asked since.
  const shown = plan.variables?.asked === ask ? found : undefined;
  const begin = useMutation({
    mutationFn: () =>
      must(
        client.POST("/api/k/{kid}/days", {
          params: { path: { kid } },
          body: { id: last?.id ?? newId(), ask: bodyOf(ask, pins, shown) },
        }),
      ),
    onSuccess: (day) => {
      void store.invalidateQueries({ queryKey: ["days", kid] });
      void go(`/k/${kid}/day/${day.id}`);
    },
  });
  const work = (wish: Pin[], from?: Plan) => {
    setPins(wish);
    plan.mutate({ asked: ask, wish, ...(from && { shown: from }) });
  };
  const pin = (key: string, minute: number) =>
    work(
      [...pins.filter((p) => p.key !== key), { key, at: localIso(new Date(minute * 60_000)) }],
      shown,
    );
  return (
    <div className="py-4">
      <title>{say("day.the_day_bell_crumb")}</title>
      <div className="mb-4 flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <h1 className="text-4xl">{say("day.the_day_2")}</h1>
        <Link className="way no-print" to={`/k/${kid}`}>
          {say("day.to_the_shelf")}
        </Link>
      </div>
      <DaysThere kid={kid} />
      <Kept ask={ask} change={change} />
      <div className="no-print grid gap-x-10 gap-y-6 lg:grid-cols-2">
        <Services ask={ask} change={change} />
        <People ask={ask} change={change} />
      </div>
      <div className="no-print mt-4 flex flex-wrap items-center gap-4">
        <Button kind="act" disabled={!wanted || plan.isPending} onClick={() => work([])}>
          {plan.isPending ? say("day.working_it_out") : say("day.work_it_out")}
        </Button>
        {!wanted && <span className="caption">{say("day.put_a_dessert_into_a_service")}</span>}
        {found?.feasible && canCook && (
          <Button disabled={begin.isPending} onClick={() => begin.mutate()}>
            {say("day.begin_this_day")}
          </Button>
        )}
        {pins.length > 0 && (
          <Button onClick={() => work(pins.slice(0, -1))}>{say("day.take_a_pin_back")}</Button>
        )}
        {found?.feasible && <Button onClick={() => window.print()}>{say("day.print_it")}</Button>}
      </div>
      <Refused error={plan.error ?? begin.error} className="mt-3" />
      {found &&
        (found.feasible ? (
          <Planned
            plan={found}
            chosen={chosen}
            choose={setChosen}
            asking={plan.isPending}
            onPin={pin}
          />
        ) : (
          <Impossible plan={found} />
        ))}
    </div>
  );
}

/** The days that were begun: running ones first, with how much is done. */
function DaysThere({ kid }: { kid: string }) {
  const days = useQuery({
    queryKey: ["days", kid],
    queryFn: () =>
      must(
        client.GET("/api/k/{kid}/days", { params: { path: { kid }, query: { running: false } } }),
      ),
  });
  if (!days.data?.length) return null;
  return (
    <ul className="no-print mb-4 flex flex-wrap gap-x-6" aria-label={say("day.days_begun")}>
      {days.data.slice(0, 6).map((d) => (
        <li key={d.id}>
          <Link className="way" to={`/k/${kid}/day/${d.id}`}>
            {say("day.of_done_2", {
              ended_at: d.ended_at ? "" : say("day.running"),
              first_service: weekdayTime(d.first_service),
              done: d.done,
              steps: d.steps,
            })}
          </Link>
        </li>
      ))}
    </ul>
  );
}

interface PlannedProps {
  plan: Plan;
  chosen: string | null;
  choose: (dessert: string | null) => void;
  asking: boolean;
  onPin: (key: string, minute: number) => void;
}

function Planned({ plan, chosen, choose, asking, onPin }: PlannedProps) {
  const { units } = useBench();
  const people = [...new Set(plan.steps.map((s) => s.who ?? say("day.nobody")))].sort();
  const better = plan.chef_early_min === null ? 0 : plan.chef_early_min - plan.early_min;
  return (
    <section className="mt-6" aria-label={say("day.the_plan")}>
      <p className="mb-1" data-testid="plan-words">
        <Say
          code="day.it_can_be_done_what_is"
          values={{
            early_min: span(plan.early_min),
            better: better > 5 && say("day.less_than_worked_out_one_by", { better: span(better) }),
            turns: plan.turns,
            eggs: Math.ceil(plan.eggs),
            warm_min:
              plan.warm_min > 0 &&
              say("day.food_stands_warm_for_of_it", { warm_min: span(plan.warm_min) }),
            busiest_pct:
              plan.busiest_pct > 0 &&
              say("day.nobody_has_their_hands_full_for", { busiest_pct: plan.busiest_pct }),
            gap: plan.gap !== null && plan.gap > 0.02 && (
              <span className="caption">
                {" "}
                {plan.gap > 0.98
                  ? say("day.how_far_from_the_best_it")
                  : say("day.at_best_it_could_be_better", { gap: Math.round(100 * plan.gap) })}
              </span>
            ),
          }}
          components={{ b: <b /> }}
        />
      </p>
      {plan.warnings.map((w) => (
        <p key={w} className="caption">
          {w}
        </p>
      ))}
      <Runway
        plan={plan}
        units={units}
        chosen={chosen}
        choose={choose}
        asking={asking}
        onPin={onPin}
      />
      <p className="caption no-print">{say("day.drag_a_step_or_move_it")}</p>
      <Lists plan={plan} />
      <div className="mt-6 grid gap-x-8 gap-y-5 md:grid-cols-2 xl:grid-cols-3 print:block">
        {people.map((name) => (
          <div key={name} className="print:break-before-page">
            <h2 className="text-2xl">{name}</h2>
            <ol>
              {plan.steps
                .filter((s) => (s.who ?? say("day.nobody")) === name)
                .map((s) => (
                  <li
                    key={s.key}
                    className={`rule-t py-1 leading-snug ${chosen && chosen !== dessertOf(s) ? "opacity-40" : ""}`}
                  >
                    <b>{weekdayTime(s.start)}</b> {s.what}
                    <span className="caption">
                      {say("day.hands_free", {
                        where: s.where.length > 0 && ` · ${s.where.join(", ")}`,
                        oven_c: s.oven_c !== null && ` ${degrees(s.oven_c, units)}`,
                        hands_end: weekdayTime(s.hands_end),
                        own_seen:
                          s.own_seen > 0 &&
                          say("day.minutes_as_seen_here", { own_seen: s.own_seen }),
                      })}
                    </span>
                  </li>
                ))}
            </ol>
          </div>
        ))}
      </div>
    </section>
  );
}

function Impossible({ plan }: { plan: Plan }) {
  const clashes = [...new Set(plan.clash.map((c) => c.words))];
  return (
    <section
      className="mt-6 max-w-prose"
      aria-label={say("day.why_it_cannot_be_done")}
      role="alert"
    >
      <h2 className="text-2xl">{say("day.it_cannot_be_done_so")}</h2>
      {clashes.length === 0 && (
        <p className="mt-1 text-lg">{say("day.there_is_not_enough_time")}</p>
      )}
      {clashes.map((words) => (
        <p key={words} className="mt-1 text-lg">
          {words}
        </p>
      ))}
      <h3 className="mt-4 text-xl italic">{say("day.what_would_free_it_each_tried")}</h3>
      <ul>
        {plan.remedies.map((r) => (
          <li
            key={r.words}
            className={`rule-t py-1.5 ${r.feasible ? "font-semibold" : "text-soft"}`}
          >
            {r.words}{" "}
            <span className="caption">
              {r.feasible ? say("day.does_it") : say("day.is_not_enough")}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
