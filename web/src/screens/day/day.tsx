import { useMutation } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link } from "react-router";

import { client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { dessertOf, Runway } from "@/figures/runway";
import { span } from "@/figures/thread";
import { PickDessert } from "@/screens/pick";
import { Button } from "@/ui/button";
import { Input, NumberField, Select } from "@/ui/field";
import { Refused } from "@/ui/states";
import { degrees, said } from "@/units";

type Plan = Shapes["DayOut"];

interface Service {
  hour: string;
  items: { id: string; name: string; portions: number }[];
}
interface Hours {
  name: string;
  from: string;
  to: string;
}
interface Ask {
  date: string;
  ahead: number;
  services: Service[];
  people: Hours[];
}

const tomorrow = () => {
  const at = new Date(Date.now() + 86_400_000);
  return `${at.getFullYear()}-${(at.getMonth() + 1).toString().padStart(2, "0")}-${at.getDate().toString().padStart(2, "0")}`;
};
const FIRST: () => Ask = () => ({
  date: tomorrow(),
  ahead: 1,
  services: [{ hour: "19:00", items: [] }],
  people: [
    { name: "Pastry chef", from: "08:00", to: "20:00" },
    { name: "Early cook", from: "06:00", to: "14:00" },
    { name: "Late cook", from: "12:00", to: "21:00" },
  ],
});
const minutes = (clock: string) => {
  const [h, m] = clock.split(":").map(Number);
  return (h ?? 0) * 60 + (m ?? 0);
};

function useAsk(kid: string): [Ask, (part: Partial<Ask>) => void] {
  const place = `bellcrumb.day.${kid}`;
  const [ask, setAsk] = useState<Ask>(() => {
    try {
      return (JSON.parse(localStorage.getItem(place) ?? "null") as Ask | null) ?? FIRST();
    } catch {
      return FIRST();
    }
  });
  useEffect(() => localStorage.setItem(place, JSON.stringify(ask)), [ask, place]);
  return [ask, (part) => setAsk((now) => ({ ...now, ...part }))];
}

/** The day: everything ready at the pass, worked out backwards from service. */
export default function Day() {
  const { kid } = useBench();
  const [ask, change] = useAsk(kid);
  const [chosen, setChosen] = useState<string | null>(null);
  const wanted = ask.services.some((s) => s.items.length);
  const plan = useMutation({
    mutationFn: () => {
      const begins = new Date(`${ask.date}T06:00:00`);
      begins.setDate(begins.getDate() - ask.ahead);
      return must(
        client.POST("/api/k/{kid}/day/plan", {
          params: { path: { kid } },
          body: {
            begins: local(begins),
            services: ask.services
              .filter((s) => s.items.length)
              .map((s) => ({
                at: `${ask.date}T${s.hour}:00`,
                name: "",
                items: s.items.map((i) => ({ dessert_id: i.id, portions: i.portions })),
              })),
            people: ask.people.map((p) => ({
              name: p.name,
              from_min: minutes(p.from),
              to_min: minutes(p.to),
            })),
            mixers: 1,
            stock: [],
          },
        }),
      );
    },
  });
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
      <div className="no-print grid gap-x-10 gap-y-6 lg:grid-cols-2">
        <Services ask={ask} change={change} />
        <People ask={ask} change={change} />
      </div>
      <div className="no-print mt-4 flex flex-wrap items-center gap-4">
        <Button kind="act" disabled={!wanted || plan.isPending} onClick={() => plan.mutate()}>
          {plan.isPending ? "Working it out …" : "Work it out"}
        </Button>
        {!wanted && <span className="caption">Put a dessert into a service first.</span>}
        {found?.feasible && <Button onClick={() => window.print()}>Print it</Button>}
      </div>
      <Refused error={plan.error} className="mt-3" />
      {found &&
        (found.feasible ? (
          <Planned plan={found} chosen={chosen} choose={setChosen} />
        ) : (
          <Impossible plan={found} />
        ))}
    </div>
  );
}

const local = (at: Date) => {
  const two = (n: number) => n.toString().padStart(2, "0");
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}T${two(at.getHours())}:${two(at.getMinutes())}:00`;
};

interface FormProps {
  ask: Ask;
  change: (part: Partial<Ask>) => void;
}

function Services({ ask, change }: FormProps) {
  const [picking, setPicking] = useState<number | null>(null);
  const set = (n: number, part: Partial<Service>) =>
    change({ services: ask.services.map((s, i) => (i === n ? { ...s, ...part } : s)) });
  return (
    <section aria-label="Services" className="space-y-3">
      <div className="grid grid-cols-2 gap-4">
        <Input
          label="Day of service"
          type="date"
          value={ask.date}
          onChange={(event) => event.target.value && change({ date: event.target.value })}
        />
        <Select
          label="Work may begin"
          value={ask.ahead}
          onChange={(event) => change({ ahead: Number(event.target.value) })}
        >
          <option value={0}>that day at six</option>
          <option value={1}>the day before</option>
          <option value={2}>two days before</option>
        </Select>
      </div>
      {ask.services.map((service, n) => (
        <div key={n} className="rule-t pt-2">
          <div className="flex items-end gap-4">
            <div className="w-40">
              <Input
                label={`Service ${n + 1}, at`}
                type="time"
                value={service.hour}
                onChange={(event) => event.target.value && set(n, { hour: event.target.value })}
              />
            </div>
            <Button onClick={() => setPicking(n)}>Add a dessert</Button>
            {ask.services.length > 1 && (
              <Button onClick={() => change({ services: ask.services.filter((_, i) => i !== n) })}>
                Take it out
              </Button>
            )}
          </div>
          {service.items.map((item, i) => (
            <div key={`${item.id}${i}`} className="flex items-end gap-4 pt-3">
              <span className="flex-1 pb-3">{item.name}</span>
              <div className="w-28">
                <NumberField
                  label="Portions"
                  value={item.portions}
                  low={1}
                  high={5000}
                  onValue={(v) =>
                    set(n, {
                      items: service.items.map((x, k) =>
                        k === i ? { ...x, portions: Math.round(v) } : x,
                      ),
                    })
                  }
                />
              </div>
              <Button
                aria-label={`Take out ${item.name}`}
                onClick={() => set(n, { items: service.items.filter((_, k) => k !== i) })}
              >
                ×
              </Button>
            </div>
          ))}
        </div>
      ))}
      <Button onClick={() => change({ services: [...ask.services, { hour: "13:00", items: [] }] })}>
        One more service
      </Button>
      {picking !== null && (
        <PickDessert
          title="What is served?"
          onClose={() => setPicking(null)}
          onPick={(card) => {
            const service = ask.services[picking];
            if (service) {
              set(picking, {
                items: [...service.items, { id: card.id, name: card.name, portions: 16 }],
              });
            }
            setPicking(null);
          }}
        />
      )}
    </section>
  );
}

function People({ ask, change }: FormProps) {
  const set = (n: number, part: Partial<Hours>) =>
    change({ people: ask.people.map((p, i) => (i === n ? { ...p, ...part } : p)) });
  return (
    <section aria-label="People" className="space-y-2">
      {ask.people.map((person, n) => (
        <div
          key={n}
          className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_auto] items-end gap-3 sm:grid-cols-[minmax(0,1fr)_7rem_7rem_auto]"
        >
          <div className="col-span-3 sm:col-span-1">
            <Input
              label="Who"
              value={person.name}
              maxLength={80}
              onChange={(event) => set(n, { name: event.target.value })}
            />
          </div>
          <Input
            label="From"
            type="time"
            value={person.from}
            onChange={(event) => event.target.value && set(n, { from: event.target.value })}
          />
          <Input
            label="To"
            type="time"
            value={person.to}
            onChange={(event) => event.target.value && set(n, { to: event.target.value })}
          />
          <Button
            aria-label={`Without ${person.name}`}
            disabled={ask.people.length === 1}
            onClick={() => change({ people: ask.people.filter((_, i) => i !== n) })}
          >
            ×
          </Button>
        </div>
      ))}
      <Button
        onClick={() =>
          change({
            people: [
              ...ask.people,
              { name: `Cook ${ask.people.length + 1}`, from: "08:00", to: "16:00" },
            ],
          })
        }
      >
        One more pair of hands
      </Button>
    </section>
  );
}

interface PlannedProps {
  plan: Plan;
  chosen: string | null;
  choose: (dessert: string | null) => void;
}

function Planned({ plan, chosen, choose }: PlannedProps) {
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
        {plan.gap !== null && plan.gap > 0.02 && (
          <span className="caption">
            {" "}
            At best it could be {Math.round(100 * plan.gap)} % better; nobody has shown that it can.
          </span>
        )}
      </p>
      {plan.warnings.map((w) => (
        <p key={w} className="caption">
          {w}
        </p>
      ))}
      <Runway plan={plan} units={units} chosen={chosen} choose={choose} />
      <div className="mt-4 grid gap-x-8 gap-y-5 md:grid-cols-2 xl:grid-cols-3">
        {people.map((name) => (
          <div key={name}>
            <h2 className="text-2xl">{name}</h2>
            <ol>
              {plan.steps
                .filter((s) => (s.who ?? "nobody") === name)
                .map((s) => (
                  <li
                    key={s.key}
                    className={`rule-t py-1 leading-snug ${chosen && chosen !== dessertOf(s) ? "opacity-40" : ""}`}
                  >
                    <b>{when(s.start)}</b> {said(s.what, units)}
                    <span className="caption">
                      {s.where.length > 0 && ` · ${s.where.join(", ")}`}
                      {s.oven_c !== null && ` ${degrees(s.oven_c, units)}`} · hands free{" "}
                      {when(s.hands_end)}
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

const when = (iso: string) => {
  const at = new Date(iso);
  const clock = `${at.getHours()}:${at.getMinutes().toString().padStart(2, "0")}`;
  return `${at.toLocaleDateString("en-GB", { weekday: "short" })} ${clock}`;
};

function Impossible({ plan }: { plan: Plan }) {
  const said = plan.clash[0]?.words ?? "There is not enough time.";
  return (
    <section className="mt-6 max-w-prose" aria-label="Why it cannot be done" role="alert">
      <h2 className="text-2xl">It cannot be done so.</h2>
      <p className="mt-1 text-lg">{said}</p>
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
