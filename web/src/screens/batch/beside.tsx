import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";

import { client, must, type Shapes } from "@/api/client";
import { useBatch } from "@/api/queries";
import { useBench } from "@/bench";
import { longest } from "@/screens/batch/align";
import { Select, type Option } from "@/ui/field";
import { clock, day, degrees, type Units } from "@/units";
import { DOES } from "@/words";
import { say } from "@/say";

type Batch = Shapes["BatchOut"];

/** What changed between two batches: lines, method, ring, curve, cook, and how they came out. */
export function Beside({
  now,
  units,
  faultName,
}: {
  now: Batch;
  units: Units;
  faultName: (key: string) => string;
}) {
  const { kid } = useBench();
  const others = useQuery({
    queryKey: ["curves", kid, now.dessert_id],
    queryFn: () =>
      must(
        client.GET("/api/k/{kid}/desserts/{dessert_id}/curves", {
          params: { path: { kid, dessert_id: now.dessert_id } },
        }),
      ),
  });
  const there = (others.data ?? []).filter((c) => c.id !== now.id);
  const best = there.find((c) => c.best);
  const [chosen, setChosen] = useState<string | null>(null);
  const other = useBatch(kid, chosen ?? best?.id ?? now.before[0]);
  const before = other.data;
  if (!before || before.id === now.id) return null;
  const listed: Option<string>[] = there.map((c) => [
    c.id,
    say("batch.version", {
      best: c.best ? say("batch.the_best_one") : "",
      at: day(c.at),
      version: c.version,
    }),
  ]);
  if (!there.some((c) => c.id === before.id)) listed.push([before.id, day(before.started_at)]);
  const took = (b: Batch, key: string) => {
    const t = longest(b.timings, key);
    return t ? clock(t.left_s - t.entered_s) : "–";
  };
  const rows: [string, (b: Batch) => string][] = [
    [say("batch.version_4"), (b) => String(b.version)],
    [say("batch.cook"), (b) => b.cook ?? "–"],
    [say("batch.in_or_on"), (b) => b.plan.ring || "–"],
    [say("batch.liquid_took"), (b) => took(b, "heat")],
    [say("batch.cooked_or_baked"), (b) => took(b, "cook")],
    [say("batch.peak"), (b) => degrees(b.peak_c, units, 1)],
    [say("batch.curve"), (b) => b.findings.map((f) => f.says).join(" ") || "–"],
    [
      say("batch.came_out"),
      (b) => (b.verdict ? DOES[b.verdict.texture].toLowerCase() : say("batch.not_judged")),
    ],
    [say("batch.faults"), (b) => b.verdict?.faults.map(faultName).join(", ") || say("batch.none")],
    [say("batch.note_2"), (b) => b.verdict?.note || "–"],
  ];
  const lines = (b: Batch) => b.lines_text.split("\n").map((line) => line.trim());
  const [mine, theirs] = [lines(now), lines(before)];
  const only = (a: string[], b: string[]) => a.filter((line) => line && !b.includes(line));
  const differ = only(mine, theirs).length + only(theirs, mine).length > 0;
  return (
    <div className="mt-5 overflow-x-auto">
      <div className="mb-1 flex flex-wrap items-end justify-between gap-4">
        <h2 className="text-2xl">{say("batch.side_by_side")}</h2>
        <div className="no-print w-64">
          <Select
            label={say("batch.with")}
            value={before.id}
            options={listed}
            onValue={setChosen}
          />
        </div>
      </div>
      <table className="w-full text-left" data-testid="beside">
        <thead>
          <tr className="rule-b">
            <td />
            <th className="py-1 pr-4 font-semibold">{say("batch.this_one")}</th>
            <th className="py-1 font-normal">
              <Link className="underline" to={`/k/${kid}/book/${before.id}`}>
                {day(before.started_at)}
              </Link>
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([word, read]) => {
            const same = read(now) === read(before);
            return (
              <tr key={word} className="rule-b align-top">
                <th className="caption py-1.5 pr-4 font-normal">{word}</th>
                <td className={`py-1.5 pr-4 ${same ? "" : "font-semibold"}`}>{read(now)}</td>
                <td className="py-1.5 text-soft">{same ? say("batch.the_same") : read(before)}</td>
              </tr>
            );
          })}
          <tr className="rule-b align-top">
            <th className="caption py-1.5 pr-4 font-normal">{say("batch.lines")}</th>
            <td className={`py-1.5 pr-4 ${differ ? "font-semibold" : ""}`}>
              {differ ? only(mine, theirs).join(", ") || "–" : "–"}
            </td>
            <td className="py-1.5 text-soft">
              {differ ? only(theirs, mine).join(", ") || "–" : say("batch.the_same")}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  );
}
