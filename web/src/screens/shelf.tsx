import { useDeferredValue, useState } from "react";
import { Link } from "react-router";

import type { Shapes } from "@/api/client";
import { useShelf } from "@/api/queries";
import { useBench } from "@/bench";
import { Serving } from "@/figures/glass";
import { SmallSlice } from "@/figures/slice";
import { NewDessert } from "@/screens/new-dessert";
import { Button } from "@/ui/button";
import { Input } from "@/ui/field";
import { Empty, Failed, Loading } from "@/ui/states";
import { day } from "@/units";
import { DOES } from "@/words";

/** Every dessert of the kitchen, drawn as it is served. */
export default function Shelf() {
  const { kid, kitchen, canEdit } = useBench();
  const [typed, setTyped] = useState("");
  const search = useDeferredValue(typed.trim());
  const shelf = useShelf(kid, search);
  const [starting, setStarting] = useState(false);
  if (shelf.isPending) return <Loading what="the shelf" />;
  if (shelf.isError) return <Failed error={shelf.error} again={() => void shelf.refetch()} />;
  const cards = shelf.data.pages.flatMap((page) => page.cards);
  const total = shelf.data.pages[0]?.total ?? 0;
  const empty = total === 0 && !search;
  return (
    <div className="py-6">
      <title>{`${kitchen.name} · Bell Crumb`}</title>
      <div className="mb-4 flex flex-wrap items-end justify-between gap-x-6 gap-y-3">
        <h1 className="text-4xl">{kitchen.name}</h1>
        <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
          {!empty && (
            <Link className="way" to={`/k/${kid}/day`}>
              The day
            </Link>
          )}
          {!empty && (
            <Link className="way" to={`/k/${kid}/eggs`}>
              Eggs of the day
            </Link>
          )}
          <Link className="way" to={`/k/${kid}/rehearse`}>
            Rehearse
          </Link>
          <Link className="way" to={`/k/${kid}/files`}>
            In and out
          </Link>
          {canEdit && (
            <Button kind="act" onClick={() => setStarting(true)}>
              Start a dessert
            </Button>
          )}
        </div>
      </div>
      {empty ? (
        <Empty title="The shelf is empty.">
          {canEdit ? (
            <>
              <p>
                Begin with the lines you know by heart (“1 l whole milk”, “9 yolks”, “3/4 cup
                sugar”), or from the middle of a family and make it yours. What it will do is said
                while you type. Formulas you have written down already come in as a file, all at
                once.
              </p>
              <p className="flex flex-wrap gap-3 pt-2">
                <Button kind="act" onClick={() => setStarting(true)}>
                  A first dessert
                </Button>
                <Link className="way" to={`/k/${kid}/files`}>
                  Take a file in
                </Link>
              </p>
            </>
          ) : (
            <p>Only the pastry chef starts one.</p>
          )}
        </Empty>
      ) : (
        <>
          <div className="mb-2 flex max-w-md items-end gap-4">
            <div className="flex-1">
              <Input
                label="Find by a word of the name or of a line"
                type="search"
                value={typed}
                maxLength={80}
                placeholder="quince"
                onChange={(event) => setTyped(event.target.value)}
              />
            </div>
            <p className="caption pb-3" role="status">
              {total} {total === 1 ? "dessert" : "desserts"}
            </p>
          </div>
          {total === 0 && <p className="py-8 text-lg text-soft">Nothing here has that in it.</p>}
          <ol className="grid gap-x-8 sm:grid-cols-2 xl:grid-cols-3">
            {cards.map((card) => (
              <Card key={card.id} kid={kid} card={card} />
            ))}
          </ol>
          {shelf.hasNextPage && (
            <Button
              className="mt-5"
              disabled={shelf.isFetchingNextPage}
              onClick={() => void shelf.fetchNextPage()}
            >
              Show more ({cards.length} of {total})
            </Button>
          )}
        </>
      )}
      {starting && <NewDessert onClose={() => setStarting(false)} />}
    </div>
  );
}

function Card({ kid, card }: { kid: string; card: Shapes["DessertCard"] }) {
  const ratios = [
    ["yolk", card.yolk_g],
    ["starch", card.starch_g],
    ["sugar", card.sugar_g],
  ] as const;
  return (
    <li className="rule-t">
      <Link to={`/k/${kid}/d/${card.id}`} className="group flex gap-5 py-5">
        {card.slice.length > 1 ? (
          <SmallSlice layers={card.slice} size={112} />
        ) : (
          <Serving klass={card.klass} size={112} />
        )}
        <div className="min-w-0 flex-1">
          <h2 className="text-2xl leading-tight break-words group-hover:underline group-hover:decoration-burnt group-hover:underline-offset-4">
            {card.name}
          </h2>
          <p className="caption mt-1">
            {card.klass ? `${DOES[card.klass]} · ` : ""}
            {card.family ?? (card.mass_g ? "a part by itself" : "nothing written yet")}
            {card.parts > 1 && ` · ${card.parts} parts`}
          </p>
          {card.yolk_g !== null && (
            <dl className="mt-2 flex gap-5">
              {ratios.map(([word, value]) => (
                <div key={word}>
                  <dd className="text-lg font-semibold">{value?.toFixed(0)}</dd>
                  <dt className="caption">{word}</dt>
                </div>
              ))}
            </dl>
          )}
          <p className="caption mt-2">
            {card.batches
              ? `cooked ${card.batches === 1 ? "once" : `${card.batches} times`}, last ${card.last_cooked_at ? day(card.last_cooked_at) : ""}`
              : "not cooked yet"}
          </p>
        </div>
      </Link>
    </li>
  );
}
