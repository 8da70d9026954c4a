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
import { degrees, localIso, said, weekdayTime } from "@/units";

type Plan = Shapes["DayOut"];

type Pin = Shapes["PinIn"];

/** The day: everything ready at the pass, worked out backwards from service. */
export default function Day() {
  const { kid, canCook } = useBench();
  const [ask, change] = useAsk(kid);
  const [chosen, setChosen] = useState<string | null>(null);
  const [pins, setPins] = useState<Pin[]>([]);
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
  });
  // The plan on the screen, as long as nothing else was asked since.
  const shown = plan.variables?.asked === ask ? plan.data : undefined;
  const begin = useMutation({
    mutationFn: () =>
      must(
        client.POST("/api/k/{kid}/days", {
          params: { path: { kid } },
          body: { id: newId(), ask: bodyOf(ask, pins, shown) },
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
  const found = plan.data;
  return (
    <div className="py-4">
      <title>The day · Bell Crumb</title>
      <div className="mb-4 flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <h1 className="text-4xl">The day</h1>
        <Link className="way no-print" to={`/k/${kid}`}>
          To the shelf
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
          {plan.isPending ? "Working it out …" : "Work it out"}
        </Button>
        {!wanted && <span className="caption">Put a dessert into a service first.</span>}
        {found?.feasible && canCook && (
          <Button disabled={begin.isPending} onClick={() => begin.mutate()}>
            Begin this day
          </Button>
        )}
        {pins.length > 0 && (
          <Button onClick={() => work(pins.slice(0, -1))}>Take a pin back</Button>
        )}
        {found?.feasible && <Button onClick={() => window.print()}>Print it</Button>}
      </div>
      <Refused error={plan.error ?? begin.error} className="mt-3" />
      {found &&
        (found.feasible ? (
          <Planned plan={found} chosen={chosen} choose={setChosen} onPin={pin} />
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
    <ul className="no-print mb-4 flex flex-wrap gap-x-6" aria-label="Days begun">
      {days.data.slice(0, 6).map((d) => (
        <li key={d.id}>
          <Link className="way" to={`/k/${kid}/day/${d.id}`}>
            {d.ended_at ? "" : "Running: "}
            {weekdayTime(d.first_service)}, {d.done} of {d.steps} done
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
  onPin: (key: string, minute: number) => void;
}

function Planned({ plan, chosen, choose, onPin }: PlannedProps) {
  const { units } = useBench();
  const people = [...new Set(plan.steps.map((s) => s.who ?? "nobody"))].sort();
  const better = plan.chef_early_min === null ? 0 : plan.chef_early_min - plan.early_min;
  return (
    <section className="mt-6" aria-label="The plan">
      <p className="mb-1" data-testid="plan-words">
        <b>It can be done.</b> What is made waits {span(plan.early_min)} in all
        {better > 5 && `, ${span(better)} less than worked out one by one backwards`}; the ovens are
        turned {plan.turns} {plan.turns === 1 ? "time" : "times"}; crack {Math.ceil(plan.eggs)}{" "}
        eggs.
        {plan.warm_min > 0 && ` Food stands warm for ${span(plan.warm_min)} of it.`}
        {plan.busiest_pct > 0 &&
          ` Nobody has their hands full for more than ${plan.busiest_pct} % of their hours.`}
        {plan.gap !== null && plan.gap > 0.02 && (
          <span className="caption">
            {" "}
            {plan.gap > 0.98
              ? "How far from the best it is, nobody knows."
              : `At best it could be ${Math.round(100 * plan.gap)} % better; nobody has shown that it can.`}
          </span>
        )}
      </p>
      {plan.warnings.map((w) => (
        <p key={w} className="caption">
          {w}
        </p>
      ))}
      <Runway plan={plan} units={units} chosen={chosen} choose={choose} onPin={onPin} />
      <p className="caption no-print">
        Drag a step, or move it with the arrow keys: it is pinned there and the rest answers around
        it.
      </p>
      <Lists plan={plan} />
      <div className="mt-6 grid gap-x-8 gap-y-5 md:grid-cols-2 xl:grid-cols-3 print:block">
        {people.map((name) => (
          <div key={name} className="print:break-before-page">
            <h2 className="text-2xl">{name}</h2>
            <ol>
              {plan.steps
                .filter((s) => (s.who ?? "nobody") === name)
                .map((s) => (
                  <li
                    key={s.key}
                    className={`rule-t py-1 leading-snug ${chosen && chosen !== dessertOf(s) ? "opacity-40" : ""}`}
                  >
                    <b>{weekdayTime(s.start)}</b> {said(s.what, units)}
                    <span className="caption">
                      {s.where.length > 0 && ` · ${s.where.join(", ")}`}
                      {s.oven_c !== null && ` ${degrees(s.oven_c, units)}`} · hands free{" "}
                      {weekdayTime(s.hands_end)}
                      {s.own_seen > 0 && ` · minutes as seen here, ${s.own_seen}×`}
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
    <section className="mt-6 max-w-prose" aria-label="Why it cannot be done" role="alert">
      <h2 className="text-2xl">It cannot be done so.</h2>
      {clashes.length === 0 && <p className="mt-1 text-lg">There is not enough time.</p>}
      {clashes.map((words) => (
        <p key={words} className="mt-1 text-lg">
          {words}
        </p>
      ))}
      <h3 className="mt-4 text-xl italic">What would free it, each tried</h3>
      <ul>
        {plan.remedies.map((r) => (
          <li
            key={r.words}
            className={`rule-t py-1.5 ${r.feasible ? "font-semibold" : "text-soft"}`}
          >
            {r.words} <span className="caption">{r.feasible ? "does it" : "is not enough"}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
