import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { ApiError, client, must } from "@/api/client";
import { useBench } from "@/bench";
import { newId } from "@/keep/id";
import { Button } from "@/ui/button";
import { Input } from "@/ui/field";
import { money } from "@/units";
import { say } from "@/say";

/** What the kitchen pays, by the line it buys. */
export function Prices() {
  const { kid, kitchen, canEdit } = useBench();
  const store = useQueryClient();
  const [line, setLine] = useState("");
  const [price, setPrice] = useState("");
  const [id, setId] = useState(() => newId()); // sent twice, it is still one price
  const number = Number(price.replace(",", "."));
  const taken = (next: typeof kitchen) => {
    store.setQueryData(["kitchen", kid], next);
    for (const key of ["answer", "total", "compare"]) {
      void store.invalidateQueries({ queryKey: [key] });
    }
  };
  const add = useMutation({
    mutationFn: () =>
      must(
        client.PUT("/api/k/{kid}/prices/{price_id}", {
          params: { path: { kid, price_id: id } },
          body: { line: line.trim(), price: number },
        }),
      ),
    onSuccess: (next) => {
      taken(next);
      setId(newId());
      setLine("");
      setPrice("");
    },
  });
  const drop = useMutation({
    mutationFn: (id: string) =>
      must(
        client.DELETE("/api/k/{kid}/prices/{price_id}", {
          params: { path: { kid, price_id: id } },
        }),
      ),
    onSuccess: taken,
  });
  const error = add.error instanceof ApiError ? add.error : null;
  return (
    <section aria-labelledby="prices">
      <h2 id="prices" className="mb-2 text-2xl">
        {say("kitchen.what_it_costs")}
      </h2>
      <ul>
        {kitchen.prices.map((p) => (
          <li key={p.id} className="rule-b flex items-center gap-3 py-1">
            <span className="flex-1">{p.line}</span>
            <span>{money(p.price, kitchen.currency)}</span>
            {canEdit && (
              <Button
                kind="quiet"
                className="!px-2"
                aria-label={say("kitchen.forget_the_price_of", { line: p.line })}
                onClick={() => drop.mutate(p.id)}
              >
                {say("kitchen.forget")}
              </Button>
            )}
          </li>
        ))}
      </ul>
      {kitchen.prices.length === 0 && (
        <p className="text-soft">{say("kitchen.no_price_yet_with_prices_every")}</p>
      )}
      {canEdit && (
        <form
          className="mt-3 grid grid-cols-[1fr_7rem_auto] items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            if (line.trim() && number >= 0) add.mutate();
          }}
        >
          <Input
            label={say("kitchen.for")}
            value={line}
            maxLength={120}
            placeholder={say("kitchen.30_eggs")}
            error={error?.field === "line" ? error.message : null}
            onChange={(event) => setLine(event.target.value)}
          />
          <Input
            label={say("kitchen.paid", { currency: kitchen.currency })}
            value={price}
            inputMode="decimal"
            placeholder="7.20"
            error={
              price && !(number >= 0)
                ? say("kitchen.a_number_please")
                : error && error.field !== "line"
                  ? error.message
                  : null
            }
            onChange={(event) => setPrice(event.target.value)}
          />
          <Button
            type="submit"
            disabled={!line.trim() || !price || !(number >= 0) || add.isPending}
          >
            {say("kitchen.add_it")}
          </Button>
        </form>
      )}
    </section>
  );
}
