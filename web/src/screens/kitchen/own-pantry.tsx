import { useState } from "react";

import type { Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { DescribeDialog } from "@/screens/formula/describe";
import { OwnWords } from "@/screens/kitchen/own-words";
import { Button } from "@/ui/button";
import { say } from "@/say";

function contains({ allergens }: Shapes["PantryOut"]): string {
  if (allergens === null) return say("kitchen.contains_untold");
  if (allergens.length === 0) return say("kitchen.contains_none");
  return say("kitchen.contains", { allergens: allergens.map((a) => a.name).join("; ") });
}

/** What the kitchen has described from labels, and what its own words mean. */
export function OwnPantry() {
  const { kitchen, canCook } = useBench();
  const [describing, setDescribing] = useState<Shapes["PantryOut"] | "new" | null>(null);
  return (
    <section aria-labelledby="pantry">
      <h2 id="pantry" className="mb-2 text-2xl">
        {say("kitchen.own_pantry")}
      </h2>
      <ul>
        {kitchen.pantry.map((item) => (
          <li key={item.id} className="rule-b flex items-baseline justify-between gap-4 py-2">
            <span>
              {item.name}
              <span className="caption block">
                {say("kitchen.fat_sugars_protein", {
                  fat_pct: item.fat_pct,
                  sugars_pct: item.sugars_pct,
                  protein_pct: item.protein_pct,
                })}
              </span>
              <span className="caption block">{contains(item)}</span>
            </span>
            {canCook && (
              <Button
                kind="quiet"
                aria-label={say("kitchen.change_what_is_known_of", { item: item.name })}
                onClick={() => setDescribing(item)}
              >
                {say("kitchen.change")}
              </Button>
            )}
          </li>
        ))}
      </ul>
      {kitchen.pantry.length === 0 && (
        <p className="text-soft">{say("kitchen.what_the_shipped_table_does_not")}</p>
      )}
      <OwnWords />
      {canCook && (
        <Button className="mt-3" onClick={() => setDescribing("new")}>
          {say("kitchen.describe_an_ingredient")}
        </Button>
      )}
      {describing && (
        <DescribeDialog
          name=""
          was={describing === "new" ? undefined : describing}
          onClose={() => setDescribing(null)}
        />
      )}
    </section>
  );
}
