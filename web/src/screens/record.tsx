import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";

import { client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { Button } from "@/ui/button";
import { Input } from "@/ui/field";
import { Empty, Failed, Loading, Refused } from "@/ui/states";
import { day, degrees, time } from "@/units";
import { Say, say } from "@/say";

type Row = Shapes["RecordRow"];

const ago = (days: number) => new Date(Date.now() - days * 86_400_000).toISOString().slice(0, 10);
const YES = { true: say("record.yes"), false: say("record.no") } as const;
const said3 = (value: boolean | null) => (value === null ? "–" : YES[`${value}`]);

/** The cooking and cooling log that a food-safety plan asks for, to be printed. */
export default function Record() {
  const { kid, kitchen, canCook } = useBench();
  const [since, setSince] = useState(() => ago(14));
  const [until, setUntil] = useState(() => ago(0));
  const query = { since: `${since}T00:00:00Z`, until: `${until}T23:59:59Z` };
  const rows = useQuery({
    queryKey: ["record", kid, since, until],
    queryFn: () => must(client.GET("/api/k/{kid}/record", { params: { path: { kid }, query } })),
  });
  const file = `/api/k/${kid}/record/file?since=${encodeURIComponent(query.since)}&until=${encodeURIComponent(query.until)}`;
  return (
    <div className="py-5">
      <title>{say("record.the_record_bell_crumb")}</title>
      <h1 className="text-4xl">
        <Say
          code="record.the_record"
          values={{ kitchen: kitchen.name }}
          components={{ span: <span className="text-2xl text-soft" /> }}
        />
      </h1>
      <p className="caption mb-3">
        {say("record.cooking_and_cooling_to_the_local", { since: day(since), until: day(until) })}
      </p>
      <div className="no-print mb-4 flex flex-wrap items-end gap-4">
        <Input
          label={say("record.from")}
          type="date"
          value={since}
          onChange={(event) => event.target.value && setSince(event.target.value)}
        />
        <Input
          label={say("record.to")}
          type="date"
          value={until}
          onChange={(event) => event.target.value && setUntil(event.target.value)}
        />
        <Button kind="act" onClick={() => window.print()}>
          {say("record.print_it")}
        </Button>
        <a className="way" href={file} download="record.csv">
          {say("record.as_a_table")}
        </a>
        <Link className="way" to={`/k/${kid}/book`}>
          {say("record.to_the_book")}
        </Link>
      </div>
      {rows.isPending && <Loading what={say("record.the_record_2")} />}
      {rows.isError && <Failed error={rows.error} again={() => void rows.refetch()} />}
      {rows.data?.length === 0 && (
        <Empty title={say("record.nothing_was_cooked_in_these_days")}>
          <p>{say("record.cooks_and_bakes_with_a_probe")}</p>
        </Empty>
      )}
      {rows.data && rows.data.length > 0 && (
        <div className="overflow-x-auto">
          <table className="w-full min-w-[58rem] text-left" data-testid="record">
            <thead className="caption">
              <tr>
                {[
                  say("record.when"),
                  say("record.product"),
                  say("record.who"),
                  say("record.hottest"),
                  say("record.egg_made_safe"),
                  say("record.first_stage"),
                  say("record.both_stages"),
                  say("record.in_time"),
                  say("record.what_was_done_about_a_miss"),
                ].map((word) => (
                  <th key={word} className="pr-3 font-normal">
                    {word}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.data.map((row) => (
                <Line key={row.id} row={row} canCook={canCook} />
              ))}
            </tbody>
          </table>
        </div>
      )}
    </div>
  );
}

function Line({ row, canCook }: { row: Row; canCook: boolean }) {
  const { kid, units } = useBench();
  const store = useQueryClient();
  const [words, setWords] = useState(row.mended);
  const mend = useMutation({
    mutationFn: () =>
      must(
        client.PUT("/api/k/{kid}/batches/{batch_id}/mended", {
          params: { path: { kid, batch_id: row.id } },
          body: { words },
        }),
      ),
    onSuccess: () => void store.invalidateQueries({ queryKey: ["record", kid] }),
  });
  const stage = (min: number | null, to_c: number) =>
    min === null ? "–" : say("record.stage", { min: Math.round(min), to_c: degrees(to_c, units) });
  return (
    <tr className="rule-b align-top">
      <td className="py-1.5 pr-3 whitespace-nowrap">
        {day(row.at)}, {time(row.at)}
      </td>
      <td className="py-1.5 pr-3">
        <Link className="underline underline-offset-4" to={`/k/${kid}/book/${row.id}`}>
          {row.product}
        </Link>
        <span className="caption">
          {say("record.version", {
            version: row.version,
            simulated: row.simulated && say("record.simulated"),
          })}
        </span>
      </td>
      <td className="py-1.5 pr-3">{row.who ?? "–"}</td>
      <td className="py-1.5 pr-3">{degrees(row.peak_c, units)}</td>
      <td className={`py-1.5 pr-3 ${row.pasteurised === false ? "font-semibold text-burnt" : ""}`}>
        {said3(row.pasteurised)}
      </td>
      <td className="py-1.5 pr-3">{stage(row.cooled_mid_min, row.cool_rule.mid_c)}</td>
      <td className="py-1.5 pr-3">{stage(row.cooled_end_min, row.cool_rule.end_c)}</td>
      <td
        className={`py-1.5 pr-3 ${row.cooled_in_time === false ? "font-semibold text-burnt" : ""}`}
      >
        {said3(row.cooled_in_time)}
      </td>
      <td className="py-1.5">
        {row.missed && canCook ? (
          <form
            onSubmit={(event) => {
              event.preventDefault();
              mend.mutate();
            }}
          >
            <Input
              bare
              label={say("record.what_was_done_about", { product: row.product, at: day(row.at) })}
              placeholder={say("record.thrown_away_cooked_again")}
              maxLength={300}
              value={words}
              onChange={(event) => setWords(event.target.value)}
              onBlur={() => words !== row.mended && mend.mutate()}
            />
            <Refused error={mend.error} />
          </form>
        ) : (
          row.mended || "–"
        )}
      </td>
    </tr>
  );
}
