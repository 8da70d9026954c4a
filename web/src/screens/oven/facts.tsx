import { useMutation } from "@tanstack/react-query";
import { useState } from "react";

import { ApiError, client, must, type Shapes } from "@/api/client";
import { useConverted, type Content } from "@/api/queries";
import { useBench } from "@/bench";
import { BathPlate } from "@/figures/bath";
import { LearnedFrom } from "@/lessons";
import { AFTER, bakingOf, DONENESS, type Baking } from "@/screens/oven/baking";
import { Button } from "@/ui/button";
import { NumberField, Select } from "@/ui/field";
import { Refused } from "@/ui/states";
import { Why } from "@/ui/why";
import { degrees, kelvins, litres, said } from "@/units";

type Plan = Shapes["BakePlanOut"];
type Kind = Shapes["PartOut"]["kind"];
const whole = (minutes: number | null) => (minutes === null ? "–" : Math.round(minutes).toString());

interface Props {
  plan: Plan;
  ghost: Plan | undefined;
  ghostError: string | null;
  against: string | undefined;
  content: Content;
  set: (part: Partial<Baking>) => void;
  kind: Kind;
}

/** When to pull it, at what the probe says, what it does afterwards, and how sure. */
export function BakeFacts({ plan, ghost, ghostError, against, content, set, kind }: Props) {
  const { units } = useBench();
  const { found } = plan;
  const b = bakingOf(content);
  return (
    <>
      {found.pull_from_min === null ? (
        <p className="display text-4xl">Never sets</p>
      ) : (
        <>
          <p className="caption">
            {DONENESS[found.doneness].name.toLowerCase()}, in the {plan.oven.toLowerCase()}
            <Why about="when to pull it" reason={found.reasons[0]} />
          </p>
          <p className="figure text-6xl whitespace-nowrap" data-testid="pull">
            {whole(found.pull_from_min)}–{whole(found.pull_to_min)}
            <span className="unit">min</span>
          </p>
          <LearnedFrom used={plan.learned} units={units} />
          <p className="text-lg">
            Start looking at <b>{whole(found.pull_low_min)}</b>, at the latest out by{" "}
            {whole(found.pull_high_min)}.
          </p>
          <p className="mt-2 text-lg">
            Probe in the middle: pull at{" "}
            <b>
              {degrees(found.probe_from_c, units)}–{degrees(found.probe_to_c, units)}
            </b>
            .
            <Why about="the set temperature" reason={found.reasons[1]} />
          </p>
          <p className="mt-1 text-lg">
            Then {AFTER[b.after]} it goes on by <b>{kelvins(found.carry_over_k ?? 0, units)}</b> to{" "}
            {degrees(found.peak_centre_c, units)}.
          </p>
          <p className="mt-1 text-soft">
            One minute late is {kelvins(found.late_minute_k ?? 0, units)} hotter in the middle; the
            edge is {kelvins(found.edge_minus_centre_k ?? 0, units, 0)} ahead
            {(found.overdone_pct ?? 0) >= 5 &&
              `, ${Math.round(found.overdone_pct ?? 0)} % of it, by the wall, past its best`}
            .
          </p>
        </>
      )}
      {found.crack && (
        <p className="mt-1">
          Risk of a crack <b>{found.crack}</b>: {said(found.crack_why, units)}.
        </p>
      )}
      {against && (
        <p className="mt-3 border-l-[3px] border-cold pl-3 text-lg" data-testid="ghost-words">
          {ghostError ??
            (ghost
              ? ghost.found.pull_from_min === null
                ? `Beside it, ${said(against, units)}: it never sets.`
                : `Beside it, ${said(against, units)}: ${whole(ghost.found.pull_from_min)}–${whole(ghost.found.pull_to_min)} min, the edge ${kelvins(ghost.found.edge_minus_centre_k ?? 0, units, 0)} ahead, ${Math.round(ghost.found.overdone_pct ?? 0)} % past its best.`
              : "…")}
        </p>
      )}
      <Drivers found={found} />
      {plan.tray && found.level_mm !== null && (
        <details className="rule-t mt-3" open>
          <summary className="min-h-12 py-3 text-lg">
            {found.water_ml !== null && (
              <>
                Pour <b>{litres(found.water_ml, units)}</b> of water, {whole(found.level_mm)} mm
                deep
              </>
            )}
            {found.water_left_ml !== null && (
              <span className="caption">
                {" "}
                · {litres(found.water_left_ml, units)} left at the pull
              </span>
            )}
          </summary>
          <BathPlate tray={plan.tray} deepMm={plan.vessel.depth_mm} klass="slice" units={units} />
        </details>
      )}
      <Choose content={content} set={set} kind={kind} />
      <Converted content={content} kind={kind} />
    </>
  );
}

const DRIVERS: Record<string, string> = {
  start: "mix 5 K warmer",
  "oven hotter": "oven 8 K hotter",
  "oven cooler": "oven 8 K cooler",
  deeper: "5 % deeper",
  "sets later": "sets 1.5 K later",
};

/** What moves the answer, longest first: what is not known of this bake. */
function Drivers({ found }: { found: Plan["found"] }) {
  const { units } = useBench();
  const rows = [...found.drivers].sort((a, b) => Math.abs(b.minutes) - Math.abs(a.minutes));
  if (rows.length === 0) return null;
  return (
    <details className="rule-t mt-3">
      <summary className="min-h-12 py-3 text-lg">What would move it</summary>
      <ul className="pb-2">
        {rows.map((d) => (
          <li key={d.what} className="flex justify-between py-0.5">
            <span>{said(DRIVERS[d.what] ?? d.what, units)}</span>
            <b>
              {d.minutes > 0 ? "+" : "−"}
              {Math.abs(d.minutes) >= 200 ? "hours" : `${Math.abs(d.minutes).toFixed(1)} min`}
            </b>
          </li>
        ))}
      </ul>
      <p className="caption pb-2">
        Measure the mix and this oven (under Kitchen) and the band gets narrow.
      </p>
    </details>
  );
}

/** The most even bake within a time, or the one that leaves a busy cook the most of it. */
function Choose({
  content,
  set,
  kind,
}: {
  content: Content;
  set: (part: Partial<Baking>) => void;
  kind: Kind;
}) {
  const { kid, units } = useBench();
  const [wish, setWish] = useState<"even" | "long_window">("even");
  const [within, setWithin] = useState(75);
  const ask = useMutation({
    mutationFn: () =>
      must(
        client.POST("/api/k/{kid}/bake/choose", {
          params: { path: { kid } },
          body: { content, kind, wish, within_min: within },
        }),
      ),
  });
  return (
    <details className="rule-t">
      <summary className="min-h-12 py-3 text-lg">Choose oven and bath for me</summary>
      <div className="grid grid-cols-2 items-end gap-4">
        <Select
          label="So that"
          value={wish}
          onChange={(event) => setWish(event.target.value as typeof wish)}
        >
          <option value="even">it sets most evenly</option>
          <option value="long_window">I have longest to pull it</option>
        </Select>
        <NumberField
          label="Within"
          value={within}
          low={5}
          high={240}
          step={5}
          unit="min"
          onValue={setWithin}
        />
      </div>
      <Button className="mt-3" disabled={ask.isPending} onClick={() => ask.mutate()}>
        {ask.isPending ? "Trying twenty ways …" : "Try them"}
      </Button>
      <Refused error={ask.error} className="mt-2" />
      {ask.data && (
        <>
          <p className="mt-2 text-lg">{said(ask.data.says, units)}</p>
          <ul className="pb-2">
            {ask.data.choices.slice(0, 5).map((c) => (
              <li
                key={`${c.set_c}${c.bath}`}
                className="rule-b flex min-h-12 items-center justify-between gap-3"
              >
                <span>
                  {degrees(c.set_c, units)}, {c.bath ? "bath" : "no bath"}: {Math.round(c.pull_min)}{" "}
                  min
                </span>
                <span className="caption">
                  edge +{kelvins(c.edge_minus_centre_k, units, 0)}, {c.window_min.toFixed(0)} min to
                  pull
                </span>
                <Button kind="quiet" className="!px-1" onClick={() => set({ set_c: c.set_c })}>
                  take {degrees(c.set_c, units)}
                </Button>
              </li>
            ))}
          </ul>
        </>
      )}
    </details>
  );
}

/** Fan and static, Fahrenheit and gas marks, by the model and by the rule of thumb. */
function Converted({ content, kind }: { content: Content; kind: Kind }) {
  const { kid, units } = useBench();
  const [open, setOpen] = useState(false);
  const found = useConverted(kid, content, kind, open);
  return (
    <details className="rule-t" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="min-h-12 py-3 text-lg">On another dial</summary>
      {found.data && (
        <p className="pb-3 text-lg">
          {said(found.data.says, units)} This dial is {Math.round(found.data.fahrenheit)} °F, gas
          mark {found.data.gas_mark}.
        </p>
      )}
      {found.error instanceof ApiError && <p className="pb-3">{found.error.message}</p>}
    </details>
  );
}
