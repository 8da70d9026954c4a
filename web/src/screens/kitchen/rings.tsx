import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { ApiError, client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { Button } from "@/ui/button";
import { Input, NumberField, Select } from "@/ui/field";

/** Rings, the pot on them, and the mixers beside. */
export function Rings() {
  const { kid, kitchen, canEdit } = useBench();
  const store = useQueryClient();
  const [adding, setAdding] = useState(false);
  const [name, setName] = useState("");
  const [fuel, setFuel] = useState<"gas" | "induction" | "ceramic">("gas");
  const [watts, setWatts] = useState(1900);
  const add = useMutation({
    mutationFn: () =>
      must(
        client.POST("/api/k/{kid}/rings", {
          params: { path: { kid } },
          body: { name: name.trim(), fuel, rated_w: watts },
        }),
      ),
    onSuccess: (next) => {
      store.setQueryData(["kitchen", kid], next);
      setAdding(false);
      setName("");
    },
  });
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
      onValue={(v) => change.mutate({ [key]: Math.round(v) })}
    />
  );
  return (
    <section aria-labelledby="rings">
      <h2 id="rings" className="mb-2 text-2xl">
        Rings
      </h2>
      <ul>
        {kitchen.rings.map((ring) => (
          <li key={ring.id} className="rule-b flex justify-between py-2">
            <span>{ring.name}</span>
            <span className="caption">
              {ring.fuel}, {(ring.rated_w / 1000).toFixed(1)} kW
            </span>
          </li>
        ))}
      </ul>
      <div className="mt-2 grid grid-cols-3 items-end gap-4">
        {beside("Largest pot of cream", "pot_g", 100, 200_000, 100, "g")}
        {beside("Mixers", "mixers", 1, 10, 1, "")}
        {beside("Largest bowl", "bowl_ml", 500, 200_000, 500, "ml")}
      </div>
      {canEdit && !adding && (
        <Button className="mt-3" onClick={() => setAdding(true)}>
          Add a ring
        </Button>
      )}
      {adding && (
        <form
          className="mt-3 grid gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim()) add.mutate();
          }}
        >
          <Input
            label="Name"
            value={name}
            maxLength={60}
            placeholder="Gas, front right"
            error={add.error instanceof ApiError ? add.error.message : null}
            onChange={(event) => setName(event.target.value)}
          />
          <div className="grid grid-cols-2 gap-4">
            <Select
              label="Fuel"
              value={fuel}
              onChange={(event) => setFuel(event.target.value as typeof fuel)}
            >
              <option value="gas">gas</option>
              <option value="induction">induction</option>
              <option value="ceramic">ceramic</option>
            </Select>
            <NumberField
              label="Rating"
              value={watts}
              low={200}
              high={10000}
              step={100}
              unit="W"
              onValue={setWatts}
            />
          </div>
          <div className="flex gap-3">
            <Button kind="act" type="submit" disabled={!name.trim() || add.isPending}>
              Add it
            </Button>
            <Button kind="quiet" onClick={() => setAdding(false)}>
              Not now
            </Button>
          </div>
        </form>
      )}
    </section>
  );
}
