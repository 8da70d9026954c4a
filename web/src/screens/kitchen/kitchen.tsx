import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";

import { ApiError, client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { useEggGrades } from "@/screens/egg-grades";
import { Prices } from "@/screens/kitchen/prices";
import { Probes } from "@/screens/kitchen/probes";
import { NewVessel, VesselRow } from "@/screens/kitchen/vessels";
import { Learned } from "@/screens/kitchen/learned";
import { Colds } from "@/screens/kitchen/colds";
import { Ovens } from "@/screens/kitchen/ovens";
import { OwnPantry } from "@/screens/kitchen/own-pantry";
import { Rings } from "@/screens/kitchen/rings";
import { Input, NumberField, Select } from "@/ui/field";
import { say } from "@/say";

/** The kitchen: its people, its equipment, its own pantry. */
export default function Kitchen() {
  const { kid, kitchen, canEdit } = useBench();
  return (
    <div className="py-6">
      <title>{say("kitchen.the_kitchen_bell_crumb")}</title>
      <h1 className="mb-5 text-4xl">{kitchen.name}</h1>
      <div className="grid gap-x-12 gap-y-9 md:grid-cols-2 xl:grid-cols-3">
        <Settings />
        <section aria-labelledby="vessels">
          <h2 id="vessels" className="mb-2 text-2xl">
            {say("kitchen.glasses_rings_and_shells")}
          </h2>
          <ul>
            {kitchen.vessels.map((v) => (
              <VesselRow key={v.id} vessel={v} />
            ))}
          </ul>
          {kitchen.vessels.length === 0 && (
            <p className="text-soft">{say("kitchen.none_of_your_own_yet_the")}</p>
          )}
          {canEdit && <NewVessel />}
        </section>
        <Probes />
        <Rings />
        <Ovens />
        <Colds />
        <Prices />
        <OwnPantry />
        <section aria-labelledby="people">
          <h2 id="people" className="mb-2 text-2xl">
            {say("kitchen.people")}
          </h2>
          <p className="mb-2 text-soft">
            {say("kitchen.in_the_kitchen_who_may_do", { people: kitchen.people.length })}
          </p>
          <p className="flex flex-wrap gap-x-6">
            <Link className="way" to={`/k/${kid}/people`}>
              {say("kitchen.people_and_backups")}
            </Link>
            <Link className="way" to={`/k/${kid}/you`}>
              {say("kitchen.you_password_sign_out")}
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
  const grades = useEggGrades();
  const store = useQueryClient();
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
        {say("kitchen.here")}
      </h2>
      <div className="grid gap-4">
        <Input
          label={say("kitchen.name_of_the_kitchen")}
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
          label={say("kitchen.eggs_are_bought_as")}
          value={kitchen.egg_grade}
          disabled={!canEdit}
          hint={say("kitchen.new_formulas_count_eggs_in_this")}
          options={grades}
          onValue={(egg_grade) => change.mutate({ egg_grade })}
        />
        <NumberField
          label={say("kitchen.eggs_to_spare_for_cracked_ones")}
          value={kitchen.egg_spare_pct}
          low={0}
          high={100}
          unit="%"
          disabled={!canEdit}
          stored
          onValue={(v) => change.mutate({ egg_spare_pct: Math.round(v) })}
        />
        <Select
          label={say("kitchen.cups_and_spoons_are")}
          value={kitchen.measures}
          disabled={!canEdit}
          options={{
            us: say("kitchen.us_cup_237_ml_spoon_15"),
            uk: say("kitchen.uk_cup_250_ml_spoon_15"),
            au: say("kitchen.australian_cup_250_ml_spoon_20"),
          }}
          onValue={(measures) => change.mutate({ measures })}
        />
        <Select
          label={say("kitchen.money")}
          value={kitchen.currency}
          disabled={!canEdit}
          options={[...new Set([kitchen.currency, "€", "£", "$", "A$", "kr", "CHF"])].map(
            (sign) => [sign, sign] as const,
          )}
          onValue={(currency) => change.mutate({ currency })}
        />
        <NumberField
          label={say("kitchen.height_above_the_sea")}
          value={kitchen.altitude_m}
          low={-400}
          high={5000}
          step={50}
          unit="m"
          disabled={!canEdit}
          hint={say("kitchen.moves_the_boil")}
          stored
          onValue={(v) => change.mutate({ altitude_m: Math.round(v) })}
        />
      </div>
    </section>
  );
}
