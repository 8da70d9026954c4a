import { useEffect, useState } from "react";
import { Link, useParams } from "react-router";

import { ApiError, type Shapes } from "@/api/client";
import { useDessert } from "@/api/queries";
import { putOnBench, useBench } from "@/bench";
import { Slice } from "@/figures/slice";
import { span, Thread } from "@/figures/thread";
import { Layers } from "@/screens/dessert/layers";
import { useBuild, type Content } from "@/screens/dessert/use-build";
import { VesselSelect } from "@/screens/formula/vessel-select";
import { Button } from "@/ui/button";
import { NumberField, Select } from "@/ui/field";
import { Failed, Loading, Refused } from "@/ui/states";
import { grams, said } from "@/units";

type Build = Shapes["BuildOut"];

/** The dessert whole: cut open, layer on layer, with what it takes and when. */
export default function WholeDessert() {
  const { kid, canEdit, units } = useBench();
  const id = useParams()["dessertId"] ?? "";
  const dessert = useDessert(kid, id);
  const at = useBuild(kid, id);
  const [chosen, setChosen] = useState<number | null>(null);
  useEffect(() => {
    if (dessert.data) putOnBench(kid, id, dessert.data.name);
  }, [dessert.data, id, kid]);
  if (dessert.isError) return <Failed error={dessert.error} again={() => void dessert.refetch()} />;
  if (at.saved.isError)
    return <Failed error={at.saved.error} again={() => void at.saved.refetch()} />;
  if (!dessert.data || !at.content) return <Loading what="the dessert" />;
  const { content, found, problem } = at;
  const problemAt = (...fields: string[]) =>
    problem && fields.includes(problem.field) ? problem.message : null;
  const conflict = at.save.error instanceof ApiError && at.save.error.status === 409;
  return (
    <div className="py-4">
      <title>{`${dessert.data.name}, whole · Bell Crumb`}</title>
      <div className="mb-3 flex flex-wrap items-center justify-between gap-x-6 gap-y-2">
        <h1 className="text-4xl">{dessert.data.name}</h1>
        <div className="flex flex-wrap items-center gap-4">
          {at.dirty && <span className="caption">not saved yet, kept in this browser</span>}
          {at.dirty && <Button onClick={at.drop}>Back to what is saved</Button>}
          {canEdit && at.dirty && (
            <Button
              kind="act"
              disabled={at.save.isPending || !found}
              onClick={() => at.save.mutate()}
            >
              Save the build
            </Button>
          )}
          <Link className="way" to={`/k/${kid}/d/${id}`}>
            Its formulas
          </Link>
        </div>
      </div>
      {conflict ? (
        <p role="alert" className="mb-3 text-burnt">
          Somebody saved this build while you were at it. Yours is still here: save again to put it
          over theirs, or go back to what is saved.
        </p>
      ) : (
        <Refused error={at.save.error} />
      )}
      <div className="grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)]">
        <div>
          {found ? (
            <>
              <Slice build={found} units={units} chosen={chosen} choose={(n) => setChosen(n)} />
              <Portion build={found} />
            </>
          ) : (
            <div className="flex min-h-64 items-center justify-center border-[1.5px] border-dashed border-rule p-8 text-center">
              <p role="alert">{problem?.message ?? "Nothing to draw yet."}</p>
            </div>
          )}
          {found?.warnings.map((warning) => (
            <p
              key={warning}
              className="mt-1 border-l-[3px] border-burnt pl-3"
              data-testid="warning"
            >
              {warning}
            </p>
          ))}
        </div>
        <div className="space-y-5">
          <Stand content={content} error={problemAt} change={at.change} readOnly={!canEdit} />
          <Layers
            layers={content.layers ?? []}
            dessert={dessert.data}
            build={found}
            problem={problem}
            chosen={chosen}
            readOnly={!canEdit}
            choose={setChosen}
            onLayers={(layers) => at.change({ layers })}
          />
        </div>
      </div>
      {found && (
        <>
          <Needs
            build={found}
            canScale={canEdit}
            busy={at.scale.isPending}
            onScale={() => at.scale.mutate(content)}
          />
          <Refused error={at.scale.error} />
          <Times build={found} content={content} change={at.change} readOnly={!canEdit} />
        </>
      )}
    </div>
  );
}

interface StandProps {
  content: Content;
  error: (...fields: string[]) => string | null;
  change: (part: Partial<Content>) => void;
  readOnly: boolean;
}

const CUTS = {
  whole: "served whole",
  wedges: "in wedges",
  squares: "in squares",
  rings: "in rings",
} as const;

/** What it is built in, how many, and how it is cut. */
function Stand({ content, error, change, readOnly }: StandProps) {
  return (
    <section aria-label="What it is built in" className="space-y-3">
      <VesselSelect
        label="Built in"
        none="a 23 cm springform"
        value={content.vessel_key ?? ""}
        disabled={readOnly}
        error={error("stand.vessel")}
        onKey={(vessel_key) => change({ vessel_key })}
      />
      <div className="grid grid-cols-3 gap-4">
        <NumberField
          label="How many"
          value={content.count ?? 1}
          low={1}
          high={2000}
          disabled={readOnly}
          onValue={(v) => change({ count: Math.round(v) })}
        />
        <NumberField
          label="Portions of each"
          value={content.portions_each ?? 1}
          low={1}
          high={500}
          disabled={readOnly}
          onValue={(v) => change({ portions_each: Math.round(v) })}
        />
        <Select
          label="Cut"
          value={content.cut ?? "whole"}
          disabled={readOnly}
          onChange={(event) => change({ cut: event.target.value as keyof typeof CUTS })}
        >
          {(Object.keys(CUTS) as (keyof typeof CUTS)[]).map((key) => (
            <option key={key} value={key}>
              {CUTS[key]}
            </option>
          ))}
        </Select>
      </div>
    </section>
  );
}

/** One portion: what it weighs, holds and may harm. */
function Portion({ build }: { build: Build }) {
  const { units } = useBench();
  const { portion, stand } = build;
  return (
    <p className="rule-t mt-3 pt-2" data-testid="portion">
      <span className="display text-2xl">
        {stand.portions} {stand.portions === 1 ? "portion" : "portions"} of{" "}
        {grams(portion.g, units)}
      </span>
      <span className="caption"> before it is baked · </span>
      <b>{Math.round(portion.kcal)} kcal</b>
      <span className="caption">
        {" "}
        ({portion.layers.map((l) => `${l.name} ${Math.round(l.kcal)}`).join(", ")})
      </span>
      {portion.allergens.length > 0 && (
        <span className="caption block">contains {portion.allergens.join(", ")}</span>
      )}
    </p>
  );
}

interface NeedsProps {
  build: Build;
  canScale: boolean;
  busy: boolean;
  onScale: () => void;
}

/** What each part must give, against what its formula makes. */
function Needs({ build, canScale, busy, onScale }: NeedsProps) {
  const { units } = useBench();
  const off = build.parts.some((p) => Math.abs(p.scaled_times - 1) > 0.005 && p.need_g > 0);
  return (
    <section className="mt-8" aria-label="What each part must give">
      <div className="flex flex-wrap items-end justify-between gap-4">
        <h2 className="text-2xl">What it takes</h2>
        {canScale && off && (
          <Button kind="act" disabled={busy} onClick={onScale}>
            Write every part at this size
          </Button>
        )}
      </div>
      <div className="overflow-x-auto">
        <table className="mt-2 w-full text-left" data-testid="needs">
          <thead className="caption">
            <tr>
              <th className="font-normal">part</th>
              <th className="text-right font-normal">needed</th>
              <th className="text-right font-normal">as written</th>
              <th className="text-right font-normal">over or short</th>
              <th className="text-right font-normal">make it</th>
            </tr>
          </thead>
          <tbody>
            {build.parts.map((p) => (
              <tr key={p.name} className="rule-b">
                <td className="py-1.5">{p.name}</td>
                <td className="text-right">{grams(p.need_g, units)}</td>
                <td className="text-right">{grams(p.written_g, units)}</td>
                <td className={`text-right ${p.left_g < -1 ? "text-burnt font-semibold" : ""}`}>
                  {Math.abs(p.left_g) < 1
                    ? "all of it"
                    : `${p.left_g > 0 ? "+" : "−"}${grams(Math.abs(p.left_g), units)}`}
                </td>
                <td className="text-right font-semibold">× {p.scaled_times.toFixed(2)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="caption mt-1">
        With what stays in pot, bowl and on the board (
        {build.parts.map((p) => `${p.name} ${p.lost_pct.toFixed(0)} %`).join(", ")}); in whole eggs.
      </p>
    </section>
  );
}

const WHEN = {
  two_days: "two days ahead",
  day_before: "the day before",
  hours: "hours ahead",
  at_last: "at the last",
} as const;

/** When everything may and must begin, and what decides the whole. */
function Times({ build, content, change, readOnly }: { build: Build } & Omit<StandProps, "error">) {
  const slots = (Object.keys(WHEN) as (keyof typeof WHEN)[]).map((key) => ({
    word: WHEN[key],
    steps: build.steps.filter((s) => s.ahead === key),
  }));
  const { units } = useBench();
  const names = new Map(build.steps.map((s) => [s.key, s]));
  return (
    <section className="mt-8" aria-label="The thread">
      <div className="flex flex-wrap items-end justify-between gap-4">
        <h2 className="text-2xl">
          The thread{" "}
          <span className="text-lg text-soft italic" data-testid="shortest">
            {span(build.shortest_min)} from nothing to the plate
          </span>
        </h2>
        <div className="flex gap-4">
          <Select
            label="Filling goes in"
            value={content.filling ?? "cold"}
            disabled={readOnly}
            onChange={(event) => change({ filling: event.target.value as "cold" | "hot" })}
          >
            <option value="cold">cold, in a cold shell</option>
            <option value="hot">hot, sets in place</option>
          </Select>
          <Select
            label="Meringue goes on"
            value={content.meringue ?? "cold"}
            disabled={readOnly}
            onChange={(event) => change({ meringue: event.target.value as "cold" | "hot" })}
          >
            <option value="cold">a cold filling</option>
            <option value="hot">a hot filling</option>
          </Select>
        </div>
      </div>
      <Thread build={build} />
      {build.shorter.length > 0 && (
        <p className="mt-1" data-testid="shorter">
          Sooner:{" "}
          {build.shorter
            .map(
              (s) =>
                `${names.get(s.key)?.part ?? ""}, ${names.get(s.key)?.words ?? ""} up to ${span(s.saves_min)} less`,
            )
            .join("; ")}
          .
        </p>
      )}
      {build.minded.map((words) => (
        <p key={words} className="mt-1 border-l-[3px] border-rule pl-3">
          {said(words, units)}
        </p>
      ))}
      <div className="mt-4 grid gap-x-8 gap-y-5 md:grid-cols-2">
        {slots.map(({ word, steps }) => (
          <div key={word}>
            <h3 className="text-xl italic">{word}</h3>
            {steps.length === 0 && <p className="caption">nothing</p>}
            {[...new Set(steps.map((s) => s.part))].map((part) => (
              <PartSteps key={part} part={part} steps={steps.filter((s) => s.part === part)} />
            ))}
          </div>
        ))}
      </div>
      <p className="caption mt-3">
        What decides the whole is set in bold. Minutes are recalled craft, good to a third; hours of
        keeping to a factor of two. The local food code and your own book come first.
      </p>
    </section>
  );
}

/** The steps of one part that may be done so far ahead, in order, with their hands and waits. */
function PartSteps({ part, steps }: { part: string; steps: Build["steps"] }) {
  const hands = steps.reduce((sum, s) => sum + s.hands_min, 0);
  const first = steps[0];
  const { units } = useBench();
  return (
    <div className="rule-t py-2 leading-snug">
      <p>
        <b>{part || "the whole"}</b>{" "}
        <span className="caption">
          {span(hands)} of hands{first && `, begun −${span(first.latest_min)} at the latest`}
        </span>
      </p>
      <ol className="mt-0.5">
        {steps.map((s, i) => (
          <li key={s.key} className="inline">
            {i > 0 && <span aria-hidden="true"> → </span>}
            <span className={s.critical ? "font-semibold" : ""}>{said(s.words, units)}</span>
            {s.wait_min > 0 && <span className="caption"> {span(s.wait_min)}</span>}
            {s.own && <span className="caption"> (ours)</span>}
          </li>
        ))}
      </ol>
    </div>
  );
}
