import { Link, useParams } from "react-router";

import type { Shapes } from "@/api/client";
import { useBatch, useCraft } from "@/api/queries";
import { useBench } from "@/bench";
import { SafetyGauge } from "@/figures/gauge";
import { PotCurve } from "@/figures/pot-curve";
import { aligned, ghostOf } from "@/screens/batch/align";
import { Beside } from "@/screens/batch/beside";
import { Built } from "@/screens/batch/built";
import { Causes } from "@/screens/batch/causes";
import { Judge } from "@/screens/batch/judge";
import { CurveFile } from "@/screens/batch/curve-file";
import { Photos } from "@/screens/batch/photos";
import { stepWord } from "@/screens/batch/steps";
import { topOf, zonesOf } from "@/screens/stove/plan-curve";
import { Failed, Loading } from "@/ui/states";
import { clock, day, degrees, kelvins, time, type Units } from "@/units";
import { Say, say } from "@/say";

type BatchOut = Shapes["BatchOut"];

/** One batch: prediction and reality on one curve, what the curve shows, and the verdict. */
export default function Batch() {
  const { kid, units } = useBench();
  const id = useParams()["batchId"] ?? "";
  const batch = useBatch(kid, id);
  const earlier = useBatch(kid, batch.data?.before[0]);
  const craft = useCraft();
  if (batch.isPending) return <Loading what={say("batch.the_batch")} />;
  if (batch.isError) return <Failed error={batch.error} again={() => void batch.refetch()} />;
  const b = batch.data;
  const faultName = (key: string) => craft.data?.faults.find((f) => f.key === key)?.name ?? key;
  return (
    <div className="py-5">
      <title>
        {say("batch.bell_crumb", { dessert: b.dessert, started_at: day(b.started_at) })}
      </title>
      <p className="caption">
        <Link to={`/k/${kid}/book`} className="underline">
          {say("batch.book")}
        </Link>{" "}
        · {day(b.started_at)}, {time(b.started_at)} · {b.cook ?? say("batch.somebody")}
        {b.device && ` · ${b.device}${b.simulated ? say("batch.simulated") : ""}`}
      </p>
      <h1 className="mb-3 text-4xl break-words">
        {b.dessert}{" "}
        <span className="text-2xl text-soft">
          {b.whole ? say("batch.put_together") : say("batch.version_3", { version: b.version })}
        </span>
      </h1>
      {b.built_into.map((id) => (
        <p key={id} className="mb-2">
          <Link className="underline underline-offset-4" to={`/k/${kid}/book/${id}`}>
            {say("batch.it_went_into_a_dessert_that")}
          </Link>
        </p>
      ))}
      <p className="no-print mb-3 flex flex-wrap gap-x-5">
        <a className="way" href={`/api/k/${kid}/batches/${b.id}/file?form=json`} download>
          {say("batch.as_json")}
        </a>
        <a className="way" href={`/api/k/${kid}/batches/${b.id}/file?form=csv`} download>
          {say("batch.its_curve_as_a_table")}
        </a>
        <button type="button" className="way" onClick={() => window.print()}>
          {say("batch.print_it")}
        </button>
      </p>
      {!b.ended_at && (
        <p className="mb-3 border-l-[3px] border-burnt pl-3">
          <Say
            code="batch.not_ended_yet_back_to_the"
            components={{ link: <Link className="underline" to={`/k/${kid}/cook/${b.id}`} /> }}
          />
        </p>
      )}
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-6 xl:grid-cols-[minmax(0,1.6fr)_minmax(20rem,1fr)]">
        {b.whole ? (
          <Built batch={b} units={units} kid={kid} />
        ) : (
          <section aria-label={say("batch.the_curve")}>
            <PotCurve
              units={units}
              predicted={aligned(b.plan, b.timings)}
              actual={b.readings}
              ghost={ghostOf(earlier.data, b.timings)}
              zones={zonesOf(b.plan)}
              top={topOf(b.plan)}
              marks={b.timings
                .filter(
                  (t, i, all) =>
                    t.key !== "ready" && (all[i + 1]?.entered_s ?? Infinity) - t.entered_s > 30,
                )
                .map((t) => ({ at_s: t.entered_s, word: stepWord(t.key) }))}
              height={400}
              label={say("batch.temperature_of_the_batch_against_its", {
                findings: b.findings.map((f) => f.says).join(" "),
              })}
            />
            <p className="caption flex flex-wrap gap-x-6">
              <Key stroke="var(--burnt)" word={say("batch.this_batch")} />
              <Key stroke="var(--ink)" dash="5 5" word={say("batch.predicted_2")} />
              {earlier.data && (
                <Key
                  stroke="var(--cold)"
                  word={say("batch.the_batch_before", { started_at: day(earlier.data.started_at) })}
                />
              )}
            </p>
            {b.safe && (
              <div className="mt-3">
                <SafetyGauge safe={b.safe} />
                <p className="caption">{b.safe.rule}</p>
              </div>
            )}
            <Channels batch={b} units={units} />
            <CurveFile batch={b} />
            <Findings batch={b} units={units} />
            <Photos batch={b} />
            <Beside now={b} units={units} faultName={faultName} />
          </section>
        )}
        <section aria-label={say("batch.verdict")}>
          {b.whole && <Photos batch={b} />}
          <Judge key={b.verdict?.revision ?? 0} batch={b} />
          {b.verdict && !b.whole && <Causes batch={b} faultName={faultName} />}
        </section>
      </div>
    </div>
  );
}

function Key({ stroke, dash, word }: { stroke: string; dash?: string; word: string }) {
  return (
    <span className="inline-flex items-center gap-2">
      <svg width="34" height="8" aria-hidden="true">
        <path d="M0 4 H34" stroke={stroke} strokeWidth="2.4" strokeDasharray={dash} />
      </svg>
      {word}
    </span>
  );
}

/** What the probe's other channels saw: from, to and most. */
function Channels({ batch, units }: { batch: BatchOut; units: Units }) {
  const rows = Object.entries(batch.channels).filter(([, points]) => points.length > 0);
  if (rows.length === 0) return null;
  return (
    <ul className="mt-2">
      {rows.map(([channel, points]) => (
        <li key={channel} className="caption">
          {say("batch.channel_to_at_most", {
            channel,
            temp_c: degrees(points[0]?.temp_c, units),
            temp_c2: degrees(points.at(-1)?.temp_c, units),
          })}
          {degrees(Math.max(...points.map((p) => p.temp_c)), units)}
        </li>
      ))}
    </ul>
  );
}

function Findings({ batch, units }: { batch: BatchOut; units: Units }) {
  if (!batch.findings.length && !batch.deviations.length) return null;
  return (
    <div className="mt-4">
      <h2 className="mb-1 text-2xl">{say("batch.what_the_curve_shows")}</h2>
      <ul>
        {batch.findings.map((f) => (
          <li
            key={f.key}
            className={`border-l-[3px] py-1 pl-3 text-lg ${f.weight === "fine" ? "border-leaf" : "border-burnt"}`}
          >
            {f.says}
            {f.weight === "likely" && (
              <span className="caption">{say("batch.likely_not_proved")}</span>
            )}
          </li>
        ))}
        {batch.deviations.map((d) => (
          <li key={d.step} className="border-l-[3px] border-rule py-1 pl-3">
            {say("batch.from_the_prediction_on_average_at", {
              step_words: stepWord(d.step),
              mean_abs_k: kelvins(d.mean_abs_k, units),
              worst_k: kelvins(Math.abs(d.worst_k), units),
              worst_k2: d.worst_k > 0 ? say("batch.hotter") : say("batch.cooler"),
              predicted_s: d.predicted_s === null ? say("batch.never_there") : clock(d.predicted_s),
              took_s: clock(d.took_s),
            })}
          </li>
        ))}
      </ul>
    </div>
  );
}
