import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";

import { ApiError, client, must, type Shapes } from "@/api/client";
import { useCraft } from "@/api/queries";
import { useBench } from "@/bench";
import { Prices } from "@/screens/kitchen/prices";
import { Probes } from "@/screens/kitchen/probes";
import { NewVessel, VesselRow } from "@/screens/kitchen/vessels";
import { DescribeDialog } from "@/screens/formula/describe";
import { Learned } from "@/screens/kitchen/learned";
import { Colds } from "@/screens/kitchen/colds";
import { Ovens } from "@/screens/kitchen/ovens";
import { OwnWords } from "@/screens/kitchen/own-words";
import { Rings } from "@/screens/kitchen/rings";
import { Button } from "@/ui/button";
import { Input, NumberField, Select } from "@/ui/field";

/** The kitchen: its people, its equipment, its own pantry. */
export default function Kitchen() {
  const { kid, kitchen, canEdit, canCook } = useBench();
  const [describing, setDescribing] = useState(false);
  return (
    <div className="py-6">
      <title>The kitchen · Bell Crumb</title>
      <h1 className="mb-5 text-4xl">{kitchen.name}</h1>
      <div className="grid gap-x-12 gap-y-9 md:grid-cols-2 xl:grid-cols-3">
        <Settings />
        <section aria-labelledby="vessels">
          <h2 id="vessels" className="mb-2 text-2xl">
            Glasses, rings and shells
          </h2>
          <ul>
            {kitchen.vessels.map((v) => (
              <VesselRow key={v.id} vessel={v} />
            ))}
          </ul>
          {kitchen.vessels.length === 0 && (
            <p className="text-soft">None of your own yet. The library serves until then.</p>
          )}
          {canEdit && <NewVessel />}
        </section>
        <Probes />
        <Rings />
        <Ovens />
        <Colds />
        <Prices />
        <section aria-labelledby="pantry">
          <h2 id="pantry" className="mb-2 text-2xl">
            Own pantry
          </h2>
          <ul>
            {kitchen.pantry.map((item) => (
              <li key={item.id} className="rule-b flex justify-between gap-4 py-2">
                <span>{item.name}</span>
                <span className="caption">
                  fat {item.fat_pct} · sugars {item.sugars_pct} · protein {item.protein_pct} %
                </span>
              </li>
            ))}
          </ul>
          {kitchen.pantry.length === 0 && (
            <p className="text-soft">
              What the shipped table does not know is described here from its label.
            </p>
          )}
          <OwnWords />
          {canCook && (
            <Button className="mt-3" onClick={() => setDescribing(true)}>
              Describe an ingredient
            </Button>
          )}
          {describing && <DescribeDialog name="" onClose={() => setDescribing(false)} />}
        </section>
        <section aria-labelledby="people">
          <h2 id="people" className="mb-2 text-2xl">
            People
          </h2>
          <p className="mb-2 text-soft">
            {kitchen.people.length} in the kitchen. Who may do what, invitations, who came in, and
            the backups.
          </p>
          <p className="flex flex-wrap gap-x-6">
            <Link className="way" to={`/k/${kid}/people`}>
              People and backups
            </Link>
            <Link className="way" to={`/k/${kid}/you`}>
              You: password, sign out
            </Link>
          </p>
        </section>
        <Learned />
      </div>
    </div>
  );
}

function Settings() {
  const { kid, kitchen, canEdit } = useBench();
  const store = useQueryClient();
  const craft = useCraft();
  const [name, setName] = useState(kitchen.name);
  const change = useMutation({
    mutationFn: (body: Shapes["KitchenChange"]) =>
      must(client.PATCH("/api/k/{kid}", { params: { path: { kid } }, body })),
    onSuccess: (next) => {
      store.setQueryData(["kitchen", kid], next);
      void store.invalidateQueries({ queryKey: ["answer"] });
      void store.invalidateQueries({ queryKey: ["plan"] });
    },
  });
  return (
    <section aria-labelledby="settings">
      <h2 id="settings" className="mb-2 text-2xl">
        Here
      </h2>
      <div className="grid gap-4">
        <Input
          label="Name of the kitchen"
          value={name}
          disabled={!canEdit}
          maxLength={80}
          error={change.error instanceof ApiError ? change.error.message : null}
          onChange={(event) => setName(event.target.value)}
          onBlur={() =>
            name.trim() && name !== kitchen.name && change.mutate({ name: name.trim() })
          }
        />
        <Select
          label="Eggs are bought as"
          value={kitchen.egg_grade}
          disabled={!canEdit}
          hint="New formulas count eggs in this grade."
          onChange={(event) => change.mutate({ egg_grade: event.target.value })}
        >
          {craft.data?.egg_grades.map((grade) => (
            <option key={grade}>{grade}</option>
          ))}
        </Select>
        <NumberField
          label="Eggs to spare for cracked ones"
          value={kitchen.egg_spare_pct}
          low={0}
          high={100}
          unit="%"
          disabled={!canEdit}
          stored
          onValue={(v) => change.mutate({ egg_spare_pct: Math.round(v) })}
        />
        <Select
          label="Cups and spoons are"
          value={kitchen.measures}
          disabled={!canEdit}
          onChange={(event) =>
            change.mutate({ measures: event.target.value as Shapes["KitchenOut"]["measures"] })
          }
        >
          <option value="us">US: cup 237 ml, spoon 15 ml</option>
          <option value="uk">UK: cup 250 ml, spoon 15 ml, pint 568 ml</option>
          <option value="au">Australian: cup 250 ml, spoon 20 ml</option>
        </Select>
        <Select
          label="Money"
          value={kitchen.currency}
          disabled={!canEdit}
          onChange={(event) => change.mutate({ currency: event.target.value })}
        >
          {[...new Set([kitchen.currency, "€", "£", "$", "A$", "kr", "CHF"])].map((sign) => (
            <option key={sign}>{sign}</option>
          ))}
        </Select>
        <NumberField
          label="Height above the sea"
          value={kitchen.altitude_m}
          low={-400}
          high={5000}
          step={50}
          unit="m"
          disabled={!canEdit}
          hint="Moves the boil."
          stored
          onValue={(v) => change.mutate({ altitude_m: Math.round(v) })}
        />
      </div>
    </section>
  );
}
