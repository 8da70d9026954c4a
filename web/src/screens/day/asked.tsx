import { useState } from "react";

import { EVERYTHING, WORKS, type Ask, type Hours, type Service } from "@/screens/day/ask";
import { PickDessert } from "@/screens/pick";
import { Button } from "@/ui/button";
import { Check } from "@/ui/check";
import { Input, NumberField, Select } from "@/ui/field";
import { say } from "@/say";

interface FormProps {
  ask: Ask;
  change: (part: Partial<Ask>) => void;
}

export function Services({ ask, change }: FormProps) {
  const [picking, setPicking] = useState<number | null>(null);
  const set = (n: number, part: Partial<Service>) =>
    change({ services: ask.services.map((s, i) => (i === n ? { ...s, ...part } : s)) });
  return (
    <section aria-label={say("day.services")} className="space-y-3">
      <div className="grid grid-cols-2 gap-4">
        <Input
          label={say("day.day_of_service")}
          type="date"
          value={ask.date}
          onChange={(event) => event.target.value && change({ date: event.target.value })}
        />
        <Select
          label={say("day.work_may_begin")}
          value={ask.ahead}
          options={[
            [0, say("day.that_day_at_six")],
            [1, say("day.the_day_before")],
            [2, say("day.two_days_before")],
          ]}
          onValue={(ahead) => change({ ahead })}
        />
      </div>
      {ask.services.map((service, n) => (
        <div key={n} className="rule-t pt-2">
          <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
            <div className="w-40">
              <Input
                label={say("day.service_at", { n: n + 1 })}
                type="time"
                value={service.hour}
                onChange={(event) => event.target.value && set(n, { hour: event.target.value })}
              />
            </div>
            <Button onClick={() => setPicking(n)}>{say("day.add_a_dessert")}</Button>
            {ask.services.length > 1 && (
              <Button onClick={() => change({ services: ask.services.filter((_, i) => i !== n) })}>
                {say("day.take_it_out")}
              </Button>
            )}
          </div>
          {service.items.map((item, i) => (
            <div key={`${item.id}${i}`} className="flex items-end gap-3 pt-3">
              <span className="min-w-0 flex-1 pb-3 break-words">{item.name}</span>
              <div className="w-20 sm:w-28">
                <NumberField
                  label={say("day.portions")}
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
              <div className="w-20 sm:w-28">
                <NumberField
                  label={say("day.made_already")}
                  value={item.there ?? 0}
                  low={0}
                  high={5000}
                  onValue={(v) =>
                    set(n, {
                      items: service.items.map((x, k) =>
                        k === i ? { ...x, there: Math.round(v) } : x,
                      ),
                    })
                  }
                />
              </div>
              <Button
                aria-label={say("day.take_out", { item: item.name })}
                onClick={() => set(n, { items: service.items.filter((_, k) => k !== i) })}
              >
                ×
              </Button>
            </div>
          ))}
        </div>
      ))}
      <Button onClick={() => change({ services: [...ask.services, { hour: "13:00", items: [] }] })}>
        {say("day.one_more_service")}
      </Button>
      {picking !== null && (
        <PickDessert
          title={say("day.what_is_served")}
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

export function People({ ask, change }: FormProps) {
  const set = (n: number, part: Partial<Hours>) =>
    change({ people: ask.people.map((p, i) => (i === n ? { ...p, ...part } : p)) });
  return (
    <section aria-label={say("day.people")} className="space-y-2">
      {ask.people.map((person, n) => (
        <div
          key={n}
          className="grid grid-cols-2 items-end gap-3 sm:grid-cols-[minmax(0,1fr)_7rem_7rem_5.5rem_auto]"
        >
          <div className="col-span-2 sm:col-span-1">
            <Input
              label={say("day.who")}
              value={person.name}
              maxLength={80}
              onChange={(event) => set(n, { name: event.target.value })}
            />
          </div>
          <Input
            label={say("day.from")}
            type="time"
            value={person.from}
            onChange={(event) => event.target.value && set(n, { from: event.target.value })}
          />
          <Input
            label={say("day.to")}
            type="time"
            value={person.to}
            onChange={(event) => event.target.value && set(n, { to: event.target.value })}
          />
          <NumberField
            label={say("day.break")}
            value={person.rest ?? 0}
            low={0}
            high={120}
            unit={say("day.min")}
            onValue={(v) => set(n, { rest: Math.round(v) })}
          />
          <Button
            className="justify-self-end"
            aria-label={say("day.without", { person: person.name })}
            disabled={ask.people.length === 1}
            onClick={() => change({ people: ask.people.filter((_, i) => i !== n) })}
          >
            ×
          </Button>
          <div
            role="group"
            aria-label={say("day.what_may_do", { person: person.name })}
            className="col-span-full flex flex-wrap gap-x-6"
          >
            {EVERYTHING.map((work) => {
              const may = person.may ?? EVERYTHING;
              return (
                <Check
                  key={work}
                  on={may.includes(work)}
                  disabled={may.length === 1 && may.includes(work)}
                  set={(on) =>
                    set(n, { may: EVERYTHING.filter((w) => (w === work ? on : may.includes(w))) })
                  }
                >
                  {WORKS[work]}
                </Check>
              );
            })}
          </div>
        </div>
      ))}
      <Button
        onClick={() =>
          change({
            people: [
              ...ask.people,
              {
                name: say("day.cook", { people: ask.people.length + 1 }),
                from: "08:00",
                to: "16:00",
              },
            ],
          })
        }
      >
        {say("day.one_more_pair_of_hands")}
      </Button>
      <label className="block pt-2">
        <span className="caption block">{say("day.in_the_house_already_a_line")}</span>
        <textarea
          className="field min-h-20"
          placeholder={say("day.6_l_whole_milk_90_eggs")}
          maxLength={4000}
          value={ask.house ?? ""}
          onChange={(event) => change({ house: event.target.value })}
        />
      </label>
    </section>
  );
}
