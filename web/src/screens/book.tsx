import { useQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { Link, useNavigate } from "react-router";

import { client, must, type Shapes } from "@/api/client";
import { useBook, useCraft, type Wanted } from "@/api/queries";
import { useBench } from "@/bench";
import { familyGroups } from "@/families";
import { ControlPlate } from "@/figures/control";
import { Curves } from "@/figures/curves";
import { Serving } from "@/figures/glass";
import { Button } from "@/ui/button";
import { Choice } from "@/ui/choice";
import { Input, Select } from "@/ui/field";
import { Empty, Failed, Loading } from "@/ui/states";
import { clock, day, degrees, time } from "@/units";
import { CLASSES, DOES, type SetClass } from "@/words";
import { say } from "@/say";

/** The book: what really happened, newest first. */
export default function Book() {
  const { kid } = useBench();
  const [wanted, setWanted] = useState<Wanted>({});
  const asked = useDeferredValue(wanted);
  const book = useBook(kid, asked);
  const narrowed = Object.values(wanted).some(Boolean);
  if (book.isPending) return <Loading what={say("book.the_book")} />;
  if (book.isError) return <Failed error={book.error} again={() => void book.refetch()} />;
  const batches = book.data.pages.flat();
  return (
    <div className="py-6">
      <title>{say("book.the_book_bell_crumb")}</title>
      <div className="mb-4 flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <h1 className="text-4xl">{say("book.the_book_2")}</h1>
        <p className="no-print flex flex-wrap gap-x-5">
          <Link className="way" to={`/k/${kid}/record`}>
            {say("book.the_record_for_the_food_safety")}
          </Link>
          <a className="way" href={`/api/k/${kid}/book/file`} download="book.ndjson">
            {say("book.all_of_it_as_a_file")}
          </a>
        </p>
      </div>
      {(narrowed || batches.length > 0) && <Finder wanted={wanted} set={setWanted} />}
      {wanted.dessert && <DessertChart dessert={wanted.dessert} />}
      {narrowed && batches.length === 0 ? (
        <p className="rule-t py-4 text-lg italic">{say("book.no_batch_like_that_in_the")}</p>
      ) : batches.length === 0 ? (
        <Empty title={say("book.nothing_cooked_yet")}>
          <p>{say("book.cook_a_formula_from_its_stove")}</p>
        </Empty>
      ) : (
        <ol>
          {batches.map((batch) => (
            <Row
              key={batch.id}
              kid={kid}
              batch={batch}
              only={
                wanted.dessert ? null : () => setWanted({ ...wanted, dessert: batch.dessert_id })
              }
            />
          ))}
        </ol>
      )}
      {book.hasNextPage && (
        <Button
          className="mt-5"
          disabled={book.isFetchingNextPage}
          onClick={() => void book.fetchNextPage()}
        >
          {say("book.show_earlier_ones")}
        </Button>
      )}
    </div>
  );
}

interface FinderProps {
  wanted: Wanted;
  set: (wanted: Wanted) => void;
}

/** Which batches: by words, by what came out, by a fault, by what is not judged yet. */
function Finder({ wanted, set }: FinderProps) {
  const craft = useCraft();
  const { kitchen } = useBench();
  // On a phone the first batch is to be seen: only the words stand open.
  const [open, setOpen] = useState(
    (["texture", "fault", "judged", "oven", "family", "since", "until"] as const).some(
      (key) => wanted[key],
    ),
  );
  return (
    <div className="no-print mb-4 grid grid-cols-2 items-end gap-x-5 gap-y-2 sm:grid-cols-4">
      <Input
        label={say("book.find_by_dessert_cook_or_note")}
        type="search"
        value={wanted.search ?? ""}
        maxLength={80}
        onChange={(event) => set({ ...wanted, search: event.target.value })}
      />
      <Button
        kind="quiet"
        className="!px-0 text-left sm:hidden"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        {open ? say("book.fewer_ways_to_find") : say("book.more_ways_to_find")}
      </Button>
      <div className={open ? "contents" : "contents max-sm:hidden"}>
        <Select
          label={say("book.came_out")}
          value={wanted.texture ?? ""}
          options={[
            ["", say("book.anyhow")],
            ...CLASSES.map((k) => [k, DOES[k].toLowerCase()] as const),
          ]}
          onValue={(texture) => set({ ...wanted, texture })}
        />
        <Select
          label={say("book.with_the_fault")}
          value={wanted.fault ?? ""}
          options={[
            ["", say("book.any_or_none")],
            ...(craft.data?.faults ?? []).map(({ key, name }) => [key, name] as const),
          ]}
          onValue={(fault) => set({ ...wanted, fault })}
        />
        <Select
          label={say("book.judged")}
          value={wanted.judged ?? ""}
          options={{
            "": say("book.or_not"),
            yes: say("book.judged_2"),
            no: say("book.not_yet"),
          }}
          onValue={(judged) => set({ ...wanted, judged })}
        />
        <Select
          label={say("book.in_or_on")}
          value={wanted.oven ?? ""}
          options={[
            ["", say("book.any_oven_or_ring")],
            ...[...kitchen.ovens, ...kitchen.rings].map(({ name }) => [name, name] as const),
          ]}
          onValue={(oven) => set({ ...wanted, oven })}
        />
        <Choice
          label={say("book.family")}
          groups={familyGroups(craft.data?.families ?? [], say("book.any_family"), "name")}
          value={wanted.family ?? ""}
          onValue={(family) => set({ ...wanted, family })}
        />
        {(["since", "until"] as const).map((key) => (
          <Input
            key={key}
            label={key === "since" ? say("book.from") : say("book.before")}
            type="date"
            value={wanted[key]?.slice(0, 10) ?? ""}
            onChange={(event) =>
              set({
                ...wanted,
                [key]: event.target.value ? `${event.target.value}T00:00:00Z` : null,
              })
            }
          />
        ))}
      </div>
      {wanted.dessert && (
        <Button
          kind="quiet"
          className="!px-0 text-left"
          onClick={() => set({ ...wanted, dessert: "" })}
        >
          {say("book.every_dessert_again")}
        </Button>
      )}
    </div>
  );
}

/** One dessert’s batches in order, with their ordinary spread. */
function DessertChart({ dessert }: { dessert: string }) {
  const { kid, units } = useBench();
  const go = useNavigate();
  const chart = useQuery({
    queryKey: ["chart", kid, dessert],
    queryFn: () =>
      must(
        client.GET("/api/k/{kid}/desserts/{dessert_id}/chart", {
          params: { path: { kid, dessert_id: dessert } },
        }),
      ),
  });
  const curves = useQuery({
    queryKey: ["curves", kid, dessert],
    queryFn: () =>
      must(
        client.GET("/api/k/{kid}/desserts/{dessert_id}/curves", {
          params: { path: { kid, dessert_id: dessert } },
        }),
      ),
  });
  const craft = useCraft();
  if (!chart.data || chart.data.points.length < 2) return null;
  const faultName = (key: string) => craft.data?.faults.find((f) => f.key === key)?.name ?? key;
  const limits = chart.data.peak_limits;
  return (
    <section
      aria-label={say("book.how_this_dessert_comes_out")}
      className="mb-4"
      data-testid="chart"
    >
      <ControlPlate
        chart={chart.data}
        units={units}
        open={(id) => void go(`/k/${kid}/book/${id}`)}
      />
      <p className="caption">
        {say("book.each_ring_a_batch_filled_where", {
          set_limits: chart.data.set_limits && say("book.the_band_is_the_ordinary_spread"),
          limits:
            limits &&
            say("book.the_peak_is_ordinarily_to", {
              low: degrees(limits.low, units),
              high: degrees(limits.high, units),
            }),
        })}
      </p>
      {curves.data && curves.data.length > 1 && (
        <>
          <Curves
            curves={curves.data}
            units={units}
            open={(id) => void go(`/k/${kid}/book/${id}`)}
          />
          <p className="caption">{say("book.the_latest_curves_over_each_other")}</p>
        </>
      )}
      {chart.data.faults.length > 0 && (
        <p data-testid="fault-weeks">
          {say("book.faults_by_the_week")}
          {chart.data.faults
            .slice(-8)
            .map((f) => `${day(f.week)} ${faultName(f.fault)}${f.count > 1 ? ` ${f.count}×` : ""}`)
            .join("; ")}
          .
        </p>
      )}
    </section>
  );
}

interface RowProps {
  kid: string;
  batch: Shapes["BatchCard"];
  only: (() => void) | null;
}

function Row({ kid, batch, only }: RowProps) {
  const { units } = useBench();
  const craft = useCraft();
  const faults = batch.verdict?.faults.map(
    (key) => craft.data?.faults.find((f) => f.key === key)?.name ?? key,
  );
  const took = batch.took_s === null ? null : clock(batch.took_s);
  return (
    <li className="rule-t">
      <Link
        to={batch.ended_at ? `/k/${kid}/book/${batch.id}` : `/k/${kid}/cook/${batch.id}`}
        className="group grid grid-cols-[5.25rem_minmax(0,1fr)] items-center gap-x-4 gap-y-1 py-4 max-sm:[&>*]:col-start-2 max-sm:[&>:first-child]:col-start-1 max-sm:[&>:first-child]:row-span-3 sm:gap-x-6 sm:grid-cols-[6.5rem_minmax(0,1fr)_16rem_minmax(0,1fr)]"
      >
        <Serving klass={batch.verdict?.texture ?? null} size={84} />
        <div>
          <h2 className="text-2xl leading-tight group-hover:underline group-hover:decoration-burnt group-hover:underline-offset-4">
            {batch.dessert}
          </h2>
          <p className="caption">
            {batch.whole
              ? say("book.put_together")
              : say("book.version", { version: batch.version })}{" "}
            · {day(batch.started_at)}, {time(batch.started_at)} ·{" "}
            {batch.cook ?? say("book.somebody")}
            {took && ` · ${took}`}
            {batch.peak_c !== null && say("book.peak", { peak_c: degrees(batch.peak_c, units) })}
          </p>
        </div>
        <Steps predicted={batch.predicted_class} reached={batch.verdict?.texture ?? null} />
        <p className="text-[0.97rem]">
          {!batch.ended_at && <b className="text-burnt">{say("book.not_ended_yet")}</b>}
          {batch.ended_at && !batch.verdict && (
            <b className="text-burnt">{say("book.not_judged_yet")}</b>
          )}
          {faults && faults.length > 0 && <b>{faults.join(", ")}. </b>}
          <span className="text-soft">{batch.verdict?.note}</span>
        </p>
      </Link>
      {only && (
        <Button kind="quiet" className="-mt-3 mb-1 !px-0" onClick={only}>
          {say("book.only", { dessert: batch.dessert })}
        </Button>
      )}
    </li>
  );
}

/** The six classes as a strip: where it was predicted (ring) and where it came out (full). */
function Steps({ predicted, reached }: { predicted: SetClass | null; reached: SetClass | null }) {
  const at = (klass: SetClass) => 12 + CLASSES.indexOf(klass) * 39;
  const said = [
    predicted && say("book.predicted", { does: DOES[predicted].toLowerCase() }),
    reached && say("book.came_out_2", { does: DOES[reached].toLowerCase() }),
  ].filter(Boolean);
  return (
    <svg
      viewBox="0 0 220 46"
      className="plate block w-full max-w-64"
      role="img"
      aria-label={said.join(", ")}
    >
      <path d="M12 16 H207" stroke="var(--ink)" strokeWidth="1.2" />
      {CLASSES.map((klass) => (
        <path key={klass} d={`M${at(klass)} 12 v8`} stroke="var(--ink)" />
      ))}
      {predicted && (
        <circle
          cx={at(predicted)}
          cy="16"
          r="9"
          fill="var(--paper)"
          stroke="var(--ink)"
          strokeWidth="1.6"
        />
      )}
      {reached && <circle cx={at(reached)} cy="16" r="5.5" fill="var(--burnt)" />}
      <text
        x={reached ? at(reached) : predicted ? at(predicted) : 12}
        y="42"
        fontSize="14"
        textAnchor={reached === "unmould" ? "end" : reached === "pour" ? "start" : "middle"}
      >
        {reached
          ? DOES[reached].toLowerCase()
          : predicted
            ? `${DOES[predicted].toLowerCase()}?`
            : ""}
      </text>
    </svg>
  );
}
