import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { client, must } from "@/api/client";
import { useBench } from "@/bench";
import { EggRow } from "@/figures/eggs";
import { readStored, writeStored } from "@/keep/stored";
import { PickDessert } from "@/screens/pick";
import { Button } from "@/ui/button";
import { NumberField } from "@/ui/field";
import { Empty, Failed } from "@/ui/states";
import { grams } from "@/units";
import { Say, say } from "@/say";

interface Made {
  id: string;
  name: string;
  times: number;
}

/** The whites ledger: every yolk and white of the day before a shell is opened. */
export default function Eggs() {
  const { kid, units, kitchen } = useBench();
  const key = `crumb.eggs.${kid}`;
  const [made, setMade] = useState<Made[]>(() => readStored<Made[]>(key) ?? []);
  const [picking, setPicking] = useState(false);
  const keep = (next: Made[]) => {
    setMade(next);
    writeStored(key, next);
  };
  const ask = { desserts: made.map(({ id, times }) => ({ dessert_id: id, times })) };
  const ledger = useQuery({
    queryKey: ["ledger", kid, ask, kitchen.egg_grade],
    enabled: made.length > 0,
    queryFn: ({ signal }) =>
      must(client.POST("/api/k/{kid}/ledger", { params: { path: { kid } }, body: ask, signal })),
    placeholderData: keepPreviousData,
    staleTime: 0,
  });
  const found = made.length > 0 ? ledger.data : undefined;
  return (
    <div className="py-6">
      <title>{say("eggs.eggs_of_the_day_bell_crumb")}</title>
      <div className="mb-4 flex flex-wrap items-end justify-between gap-4">
        <h1 className="text-4xl">{say("eggs.eggs_of_the_day")}</h1>
        <Button kind="act" onClick={() => setPicking(true)}>
          {say("eggs.add_a_dessert")}
        </Button>
      </div>
      {made.length === 0 && (
        <Empty title={say("eggs.nothing_is_made_today_yet")}>
          <p>{say("eggs.add_the_desserts_of_the_day")}</p>
        </Empty>
      )}
      {ledger.isError && made.length > 0 && (
        <Failed error={ledger.error} again={() => void ledger.refetch()} />
      )}
      <div className="grid gap-x-10 gap-y-6 lg:grid-cols-[22rem_minmax(0,1fr)]">
        <ul>
          {made.map((m) => (
            <li key={m.id} className="rule-b grid grid-cols-[1fr_6rem_auto] items-end gap-3 py-2">
              <span className="pb-2">{m.name}</span>
              <NumberField
                label={say("eggs.batches")}
                value={m.times}
                low={0.1}
                high={1000}
                step={0.5}
                onValue={(times) => keep(made.map((o) => (o.id === m.id ? { ...o, times } : o)))}
              />
              <Button
                kind="quiet"
                className="!px-1"
                aria-label={say("eggs.take_out", { m: m.name })}
                onClick={() => keep(made.filter((o) => o.id !== m.id))}
              >
                {say("eggs.out")}
              </Button>
            </li>
          ))}
        </ul>
        {found && (
          <section aria-label={say("eggs.eggs_to_open")}>
            <p className="display text-[2.1rem] leading-tight" data-testid="eggs-words">
              {found.separate > 0 && (
                <>
                  <Say
                    code="eggs.part"
                    values={{ separate: found.separate }}
                    components={{ b: <b /> }}
                  />
                </>
              )}
              {found.whole > 0 && (
                <>
                  <Say
                    code="eggs.whole"
                    values={{
                      separate: found.separate > 0 ? say("eggs.crack") : say("eggs.crack_2"),
                      whole: found.whole,
                    }}
                    components={{ b: <b /> }}
                  />
                </>
              )}
              {found.separate + found.whole === 0 && say("eggs.no_egg_from_a_shell_today")}
              <span className="text-xl text-soft italic"> {found.egg_grade}</span>
            </p>
            <div className="my-3">
              <EggRow ledger={found} />
            </div>
            <ul className="mb-4 space-y-1 text-lg">
              {found.says.map((words) => (
                <li key={words}>{words}</li>
              ))}
            </ul>
            <table className="w-full max-w-2xl text-left">
              <thead className="caption">
                <tr>
                  <th className="font-normal">{say("eggs.takes")}</th>
                  <th className="pl-3 text-right align-bottom font-normal">{say("eggs.yolk")}</th>
                  <th className="pl-3 text-right align-bottom font-normal">{say("eggs.white")}</th>
                  <th className="pl-3 text-right align-bottom font-normal">
                    {say("eggs.whole_egg")}
                  </th>
                </tr>
              </thead>
              <tbody>
                {found.entries.map((e, i) => (
                  <tr key={i} className="rule-b">
                    <td className="py-1">{e.name}</td>
                    {[e.yolk_g, e.white_g, e.whole_g].map((g, k) => (
                      <td key={k} className="text-right">
                        {g > 0.5 ? grams(g, units) : "–"}
                      </td>
                    ))}
                  </tr>
                ))}
                <tr className="font-semibold">
                  <td className="py-1">{say("eggs.left_over")}</td>
                  <td className="text-right">{grams(found.yolk_left_g, units)}</td>
                  <td className="text-right">{grams(found.white_left_g, units)}</td>
                  <td />
                </tr>
              </tbody>
            </table>
          </section>
        )}
      </div>
      {picking && (
        <PickDessert
          title={say("eggs.what_is_made")}
          onClose={() => setPicking(false)}
          onPick={(card) => {
            if (!made.some((m) => m.id === card.id)) {
              keep([...made, { id: card.id, name: card.name, times: 1 }]);
            }
            setPicking(false);
          }}
        />
      )}
    </div>
  );
}
