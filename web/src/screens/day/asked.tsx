import { useState } from "react";

import { EVERYTHING, WORKS, type Ask, type Hours, type Service } from "@/screens/day/ask";
import { PickDessert } from "@/screens/pick";
import { Button } from "@/ui/button";
import { Check } from "@/ui/check";
import { Input, NumberField, Select } from "@/ui/field";

interface FormProps {
  ask: Ask;
  change: (part: Partial<Ask>) => void;
}

export function Services({ ask, change }: FormProps) {
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
          <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
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
            <div key={`${item.id}${i}`} className="flex items-end gap-3 pt-3">
              <span className="min-w-0 flex-1 pb-3 break-words">{item.name}</span>
              <div className="w-20 sm:w-28">
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
              <div className="w-20 sm:w-28">
                <NumberField
                  label="Made already"
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

export function People({ ask, change }: FormProps) {
  const set = (n: number, part: Partial<Hours>) =>
    change({ people: ask.people.map((p, i) => (i === n ? { ...p, ...part } : p)) });
  return (
    <section aria-label="People" className="space-y-2">
      {ask.people.map((person, n) => (
        <div
          key={n}
          className="grid grid-cols-2 items-end gap-3 sm:grid-cols-[minmax(0,1fr)_7rem_7rem_5.5rem_auto]"
        >
          <div className="col-span-2 sm:col-span-1">
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
          <NumberField
            label="Break"
            value={person.rest ?? 0}
            low={0}
            high={120}
            unit="min"
            onValue={(v) => set(n, { rest: Math.round(v) })}
          />
          <Button
            className="justify-self-end"
            aria-label={`Without ${person.name}`}
            disabled={ask.people.length === 1}
            onClick={() => change({ people: ask.people.filter((_, i) => i !== n) })}
          >
            ×
          </Button>
          <div
            role="group"
            aria-label={`What ${person.name} may do`}
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
              { name: `Cook ${ask.people.length + 1}`, from: "08:00", to: "16:00" },
            ],
          })
        }
      >
        One more pair of hands
      </Button>
      <label className="block pt-2">
        <span className="caption block">In the house already, a line each</span>
        <textarea
          className="field min-h-20"
          placeholder={"6 l whole milk\n90 eggs"}
          maxLength={4000}
          value={ask.house ?? ""}
          onChange={(event) => change({ house: event.target.value })}
        />
      </label>
    </section>
  );
}
