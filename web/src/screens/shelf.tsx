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
import { say } from "@/say";

/** Every dessert of the kitchen, drawn as it is served. */
export default function Shelf() {
  const { kid, kitchen, canEdit } = useBench();
  const [typed, setTyped] = useState("");
  const search = useDeferredValue(typed.trim());
  const shelf = useShelf(kid, search);
  const [starting, setStarting] = useState(false);
  if (shelf.isPending) return <Loading what={say("shelf.the_shelf")} />;
  if (shelf.isError) return <Failed error={shelf.error} again={() => void shelf.refetch()} />;
  const cards = shelf.data.pages.flatMap((page) => page.cards);
  const total = shelf.data.pages[0]?.total ?? 0;
  const empty = total === 0 && !search;
  return (
    <div className="py-6">
      <title>{say("shelf.bell_crumb", { kitchen: kitchen.name })}</title>
      <div className="mb-4 flex flex-wrap items-end justify-between gap-x-6 gap-y-3">
        <h1 className="text-4xl">{kitchen.name}</h1>
        <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
          {!empty && (
            <Link className="way" to={`/k/${kid}/day`}>
              {say("shelf.the_day")}
            </Link>
          )}
          {!empty && (
            <Link className="way" to={`/k/${kid}/eggs`}>
              {say("shelf.eggs_of_the_day")}
            </Link>
          )}
          <Link className="way" to={`/k/${kid}/rehearse`}>
            {say("shelf.rehearse")}
          </Link>
          <Link className="way" to={`/k/${kid}/files`}>
            {say("shelf.in_and_out")}
          </Link>
          {canEdit && (
            <Button kind="act" onClick={() => setStarting(true)}>
              {say("shelf.start_a_dessert")}
            </Button>
          )}
        </div>
      </div>
      {empty ? (
        <Empty title={say("shelf.the_shelf_is_empty")}>
          {canEdit ? (
            <>
              <p>{say("shelf.begin_with_the_lines_you_know")}</p>
              <p className="flex flex-wrap gap-3 pt-2">
                <Button kind="act" onClick={() => setStarting(true)}>
                  {say("shelf.a_first_dessert")}
                </Button>
                <Link className="way" to={`/k/${kid}/files`}>
                  {say("shelf.take_a_file_in")}
                </Link>
              </p>
            </>
          ) : (
            <p>{say("shelf.only_the_pastry_chef_starts_one")}</p>
          )}
        </Empty>
      ) : (
        <>
          <div className="mb-2 flex max-w-md items-end gap-4">
            <div className="flex-1">
              <Input
                label={say("shelf.find_by_a_word_of_the")}
                type="search"
                value={typed}
                maxLength={80}
                placeholder={say("shelf.quince")}
                onChange={(event) => setTyped(event.target.value)}
              />
            </div>
            <p className="caption pb-3" role="status">
              {total} {total === 1 ? say("shelf.dessert") : say("shelf.desserts")}
            </p>
          </div>
          {total === 0 && (
            <p className="py-8 text-lg text-soft">{say("shelf.nothing_here_has_that_in_it")}</p>
          )}
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
              {say("shelf.show_more_of", { cards: cards.length, total })}
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
    [say("shelf.yolk"), card.yolk_g],
    [say("shelf.starch"), card.starch_g],
    [say("shelf.sugar"), card.sugar_g],
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
            {card.family ??
              (card.mass_g ? say("shelf.a_part_by_itself") : say("shelf.nothing_written_yet"))}
            {card.parts > 1 && say("shelf.parts", { parts: card.parts })}
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
              ? say("shelf.cooked_last", {
                  batches:
                    card.batches === 1
                      ? say("shelf.once")
                      : say("shelf.times", { batches: card.batches }),
                  last_cooked_at: card.last_cooked_at ? day(card.last_cooked_at) : "",
                })
              : say("shelf.not_cooked_yet")}
          </p>
        </div>
      </Link>
    </li>
  );
}
