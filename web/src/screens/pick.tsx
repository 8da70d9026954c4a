import { useDeferredValue, useState } from "react";

import type { Shapes } from "@/api/client";
import { useShelf } from "@/api/queries";
import { useBench } from "@/bench";
import { Dialog } from "@/ui/dialog";
import { Input } from "@/ui/field";
import { say } from "@/say";

/** Choose a dessert of the kitchen by a word of its name or of a line. */
export function PickDessert({
  title,
  onPick,
  onClose,
}: {
  title: string;
  onPick: (card: Shapes["DessertCard"]) => void;
  onClose: () => void;
}) {
  const { kid } = useBench();
  const [typed, setTyped] = useState("");
  const search = useDeferredValue(typed.trim());
  const shelf = useShelf(kid, search);
  // What is listed still answers an earlier word: a row may move away under the finger.
  const behind = shelf.isPlaceholderData || shelf.isPending || search !== typed.trim();
  const cards = shelf.data?.pages[0]?.cards.slice(0, 8) ?? [];
  const total = shelf.data?.pages[0]?.total ?? 0;
  return (
    <Dialog open onClose={onClose} title={title}>
      <Input
        label={say("pick.a_word_of_its_name_or")}
        type="search"
        autoFocus
        value={typed}
        maxLength={80}
        onChange={(event) => setTyped(event.target.value)}
      />
      <ul className="mt-2" aria-busy={behind}>
        {cards.map((card) => (
          <li key={card.id} className="rule-b">
            <button
              type="button"
              className="flex min-h-12 w-full items-center justify-between gap-4 text-left hover:underline disabled:opacity-60"
              disabled={behind}
              onClick={() => onPick(card)}
            >
              <span>{card.name}</span>
              <span className="caption">{card.family ?? ""}</span>
            </button>
          </li>
        ))}
      </ul>
      {total > cards.length && (
        <p className="caption mt-2">{say("pick.and_more", { total: total - cards.length })}</p>
      )}
      {total === 0 && <p className="mt-3 text-soft">{say("pick.nothing_here_has_that_in_it")}</p>}
    </Dialog>
  );
}
