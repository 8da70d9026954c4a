import { useMutation, useQueryClient } from "@tanstack/react-query";

import { client, must } from "@/api/client";
import { useBench } from "@/bench";
import { Button } from "@/ui/button";
import { grams } from "@/units";
import { say } from "@/say";

/** What the kitchen has said of its own words: what they mean, what one of something weighs. */
export function OwnWords() {
  const { kid, kitchen, units, canCook } = useBench();
  const store = useQueryClient();
  const forget = useMutation({
    mutationFn: ({ kind, id }: { kind: "word" | "weight"; id: number }) =>
      must(
        kind === "word"
          ? client.DELETE("/api/k/{kid}/words/{word_id}", {
              params: { path: { kid, word_id: id } },
            })
          : client.DELETE("/api/k/{kid}/weights/{weight_id}", {
              params: { path: { kid, weight_id: id } },
            }),
      ),
    onSuccess: (next) => {
      store.setQueryData(["kitchen", kid], next);
      void store.invalidateQueries({ queryKey: ["answer"] });
    },
  });
  const rows = [
    ...kitchen.words.map((w) => ({
      kind: "word" as const,
      id: w.id,
      text: say("kitchen.is", { w: w.said, means: w.means.toLowerCase() }),
    })),
    ...kitchen.weights.map((w) => ({
      kind: "weight" as const,
      id: w.id,
      text: say("kitchen.one_of_is", {
        unit: w.unit,
        ingredient: w.ingredient.toLowerCase(),
        grams: grams(w.grams, units),
      }),
    })),
  ];
  if (!rows.length) return null;
  return (
    <ul aria-label={say("kitchen.own_words_and_weights")} className="mt-2">
      {rows.map((row) => (
        <li
          key={`${row.kind}${row.id}`}
          className="rule-b flex items-center justify-between gap-4 py-1"
        >
          <span>{row.text}</span>
          {canCook && (
            <Button
              kind="quiet"
              className="!px-2"
              aria-label={say("kitchen.forget_that", { row: row.text })}
              onClick={() => forget.mutate({ kind: row.kind, id: row.id })}
            >
              {say("kitchen.forget")}
            </Button>
          )}
        </li>
      ))}
    </ul>
  );
}
