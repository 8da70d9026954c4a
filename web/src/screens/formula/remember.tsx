import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { client, must, saidAt, ApiError, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { Button } from "@/ui/button";
import { Input } from "@/ui/field";
import { typedGrams } from "@/units";
import { say } from "@/say";

/** What the kitchen knows of its own words has changed: every formula is read again. */
function useKept() {
  const { kid } = useBench();
  const store = useQueryClient();
  return (kitchen: Shapes["KitchenOut"]) => {
    store.setQueryData(["kitchen", kid], kitchen);
    for (const asked of ["answer", "plan", "bake", "cool", "build"]) {
      void store.invalidateQueries({ queryKey: [asked] });
    }
  };
}

/** What a name that is not in the pantry means here, said once. */
export function ItIs({ said, name }: { said: string; name: string }) {
  const { kid } = useBench();
  const kept = useKept();
  const keep = useMutation({
    mutationFn: () =>
      must(
        client.PUT("/api/k/{kid}/words", {
          params: { path: { kid } },
          body: { said, ingredient: name },
        }),
      ),
    onSuccess: kept,
  });
  return (
    <Button
      kind="quiet"
      className="!px-2"
      disabled={keep.isPending}
      aria-label={say("formula.is_here_always", { said, name: name.toLowerCase() })}
      onClick={() => keep.mutate()}
    >
      {say("formula.it_is", { name: name.toLowerCase() })}
    </Button>
  );
}

/** What one can, pack or piece of something weighs, asked once and remembered by the kitchen. */
export function OneWeighs({ line }: { line: Shapes["LineOut"] }) {
  const { kid, units } = useBench();
  const kept = useKept();
  const [typed, setTyped] = useState("");
  const us = units === "us";
  const grams = typedGrams(typed, units) ?? 0;
  const wrong = typed.trim() !== "" && !(grams > 0);
  const keep = useMutation({
    mutationFn: () =>
      must(
        client.PUT("/api/k/{kid}/weights", {
          params: { path: { kid } },
          body: {
            ingredient: line.ingredient ?? "",
            unit: line.asks === "can" || line.asks === "pack" ? line.asks : "piece",
            grams,
          },
        }),
      ),
    onSuccess: kept,
  });
  const refused = keep.error instanceof ApiError ? keep.error.message : null;
  return (
    <form
      className="mt-1 flex flex-wrap items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (grams > 0) keep.mutate();
      }}
    >
      <div className="w-40">
        <Input
          label={say("formula.one_weighs", { asks: line.asks, us: us ? say("formula.oz") : "g" })}
          inputMode="decimal"
          value={typed}
          error={wrong ? say("formula.a_weight_please") : (saidAt(keep.error, "grams") ?? refused)}
          onChange={(event) => setTyped(event.target.value)}
        />
      </div>
      <Button type="submit" disabled={!(grams > 0) || keep.isPending}>
        {say("formula.remember_it")}
      </Button>
    </form>
  );
}
