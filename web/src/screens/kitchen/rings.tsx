import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { Adding } from "@/screens/kitchen/adding";
import { NumberField, Select } from "@/ui/field";
import { say } from "@/say";

/** Rings, the pot on them, and the mixers beside. */
export function Rings() {
  const { kid, kitchen, canEdit } = useBench();
  const store = useQueryClient();
  const [fuel, setFuel] = useState<"gas" | "induction" | "ceramic">("gas");
  const [watts, setWatts] = useState(1900);
  const change = useMutation({
    mutationFn: (body: Shapes["KitchenChange"]) =>
      must(client.PATCH("/api/k/{kid}", { params: { path: { kid } }, body })),
    onSuccess: (next) => store.setQueryData(["kitchen", kid], next),
  });
  const beside = (
    label: string,
    key: "pot_g" | "mixers" | "bowl_ml",
    low: number,
    high: number,
    step: number,
    unit: string,
  ) => (
    <NumberField
      label={label}
      value={kitchen[key]}
      low={low}
      high={high}
      step={step}
      unit={unit}
      disabled={!canEdit}
      stored
      onValue={(v) => change.mutate({ [key]: Math.round(v) })}
    />
  );
  return (
    <section aria-labelledby="rings">
      <h2 id="rings" className="mb-2 text-2xl">
        {say("kitchen.rings")}
      </h2>
      <ul>
        {kitchen.rings.map((ring) => (
          <li key={ring.id} className="rule-b flex justify-between py-2">
            <span>{ring.name}</span>
            <span className="caption">
              {say("kitchen.kw", { fuel: ring.fuel, rated_w: (ring.rated_w / 1000).toFixed(1) })}
            </span>
          </li>
        ))}
      </ul>
      <div className="mt-2 grid grid-cols-3 items-end gap-4">
        {beside(say("kitchen.largest_pot_of_cream"), "pot_g", 100, 200_000, 100, "g")}
        {beside(say("kitchen.mixers"), "mixers", 1, 10, 1, "")}
        {beside(say("kitchen.largest_bowl"), "bowl_ml", 500, 200_000, 500, "ml")}
      </div>
      <Adding
        word={say("kitchen.a_ring")}
        placeholder={say("kitchen.gas_front_right")}
        add={(name) =>
          must(
            client.POST("/api/k/{kid}/rings", {
              params: { path: { kid } },
              body: { name, fuel, rated_w: watts },
            }),
          )
        }
      >
        <Select
          label={say("kitchen.fuel")}
          value={fuel}
          options={{
            gas: say("kitchen.gas"),
            induction: say("kitchen.induction"),
            ceramic: say("kitchen.ceramic"),
          }}
          onValue={setFuel}
        />
        <NumberField
          label={say("kitchen.rating")}
          value={watts}
          low={200}
          high={10000}
          step={100}
          unit="W"
          onValue={setWatts}
        />
      </Adding>
    </section>
  );
}
