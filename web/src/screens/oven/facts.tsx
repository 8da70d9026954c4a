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
import { degrees, kelvins, litres, millimetres } from "@/units";
import { Say, say } from "@/say";
import { RISKS } from "@/words";

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
  /** Change the formula's own, its bath among it; null where it is not theirs to change. */
  change: ((part: Partial<Content>) => void) | null;
  kind: Kind;
}

/** When to pull it, at what the probe says, what it does afterwards, and how sure. */
export function BakeFacts(props: Props) {
  const { plan, ghost, ghostError, against, content, set, change, kind } = props;
  const { units } = useBench();
  const { found } = plan;
  const b = bakingOf(content);
  return (
    <>
      {found.pull_from_min === null ? (
        <p className="display text-4xl">{say("oven.never_sets")}</p>
      ) : (
        <>
          <p className="caption">
            {say("oven.in_the", {
              doneness: DONENESS[found.doneness].name.toLowerCase(),
              oven: plan.oven.toLowerCase(),
            })}
            <Why about={say("oven.when_to_pull_it")} reason={found.reasons[0]} />
          </p>
          <p className="figure text-6xl whitespace-nowrap" data-testid="pull">
            {whole(found.pull_from_min)}–{whole(found.pull_to_min)}
            <span className="unit">{say("oven.min")}</span>
          </p>
          <LearnedFrom used={plan.learned} units={units} />
          <p className="text-lg">
            <Say
              code="oven.start_looking_at_at_the_latest"
              values={{
                pull_low_min: whole(found.pull_low_min),
                pull_high_min: whole(found.pull_high_min),
              }}
              components={{ b: <b /> }}
            />
          </p>
          <p className="mt-2 text-lg">
            <Say
              code="oven.probe_in_the_middle_pull_at"
              values={{
                probe_from_c: degrees(found.probe_from_c, units),
                probe_to_c: degrees(found.probe_to_c, units),
              }}
              components={{ b: <b /> }}
            />
            <Why about={say("oven.the_set_temperature")} reason={found.reasons[1]} />
          </p>
          <p className="mt-1 text-lg">
            <Say
              code="oven.then_it_goes_on_by_to"
              values={{
                after: AFTER[b.after],
                carry_over_k: kelvins(found.carry_over_k ?? 0, units),
                peak_centre_c: degrees(found.peak_centre_c, units),
              }}
              components={{ b: <b /> }}
            />
          </p>
          <p className="mt-1 text-soft">
            {say("oven.one_minute_late_is_hotter_in", {
              late_minute_k: kelvins(found.late_minute_k ?? 0, units),
              edge_minus_centre_k: kelvins(found.edge_minus_centre_k ?? 0, units, 0),
              overdone_pct:
                (found.overdone_pct ?? 0) >= 5 &&
                say("oven.of_it_by_the_wall_past", {
                  overdone_pct: Math.round(found.overdone_pct ?? 0),
                }),
            })}
          </p>
        </>
      )}
      {found.crack && (
        <p className="mt-1">
          <Say
            code="oven.risk_of_a_crack"
            values={{ crack: RISKS[found.crack], crack_why: found.crack_why }}
            components={{ b: <b /> }}
          />
        </p>
      )}
      {against && (
        <p className="mt-3 border-l-[3px] border-cold pl-3 text-lg" data-testid="ghost-words">
          {ghostError ??
            (ghost
              ? ghost.found.pull_from_min === null
                ? say("oven.beside_it_it_never_sets", { against: against })
                : say("oven.beside_it_min_the_edge_ahead", {
                    against: against,
                    pull_from_min: whole(ghost.found.pull_from_min),
                    pull_to_min: whole(ghost.found.pull_to_min),
                    edge_minus_centre_k: kelvins(ghost.found.edge_minus_centre_k ?? 0, units, 0),
                    overdone_pct: Math.round(ghost.found.overdone_pct ?? 0),
                  })
              : "…")}
        </p>
      )}
      <Drivers found={found} />
      {plan.tray && found.level_mm !== null && (
        <details className="rule-t mt-3" open>
          <summary className="min-h-12 py-3 text-lg">
            {found.water_ml !== null && (
              <>
                <Say
                  code="oven.pour_of_water_mm_deep"
                  values={{
                    water_ml: litres(found.water_ml, units),
                    level_mm: millimetres(found.level_mm, units),
                  }}
                  components={{ b: <b /> }}
                />
              </>
            )}
            {found.water_left_ml !== null && (
              <span className="caption">
                {say("oven.left_at_the_pull", {
                  water_left_ml: litres(found.water_left_ml, units),
                })}
              </span>
            )}
          </summary>
          <BathPlate tray={plan.tray} deepMm={plan.vessel.depth_mm} klass="slice" units={units} />
        </details>
      )}
      <Choose {...{ content, set, change, kind }} />
      <Converted content={content} kind={kind} />
    </>
  );
}

const DRIVERS: Record<string, (by: (k: number, digits?: number) => string) => string> = {
  start: (by) => say("oven.mix_warmer", { k: by(5) }),
  "oven hotter": (by) => say("oven.oven_hotter", { k: by(8) }),
  "oven cooler": (by) => say("oven.oven_cooler", { k: by(8) }),
  deeper: () => say("oven.5_deeper"),
  "sets later": (by) => say("oven.sets_later", { k: by(1.5, 1) }),
};

/** What moves the answer, longest first: what is not known of this bake. */
function Drivers({ found }: { found: Plan["found"] }) {
  const { units } = useBench();
  const by = (k: number, digits = 0) => kelvins(k, units, digits);
  const rows = [...found.drivers].sort((a, b) => Math.abs(b.minutes) - Math.abs(a.minutes));
  if (rows.length === 0) return null;
  return (
    <details className="rule-t mt-3">
      <summary className="min-h-12 py-3 text-lg">{say("oven.what_would_move_it")}</summary>
      <ul className="pb-2">
        {rows.map((d) => (
          <li key={d.what} className="flex justify-between py-0.5">
            <span>{DRIVERS[d.what]?.(by) ?? d.what}</span>
            <b>
              {d.minutes > 0 ? "+" : "−"}
              {Math.abs(d.minutes) >= 200
                ? say("oven.hours")
                : say("oven.min_2", { minutes: Math.abs(d.minutes).toFixed(1) })}
            </b>
          </li>
        ))}
      </ul>
      <p className="caption pb-2">{say("oven.measure_the_mix_and_this_oven")}</p>
    </details>
  );
}

/** The most even bake within a time, or the one that leaves a busy cook the most of it. */
function Choose({
  content,
  set,
  change,
  kind,
}: Pick<Props, "content" | "set" | "change" | "kind">) {
  const { kid, units } = useBench();
  const [wish, setWish] = useState<"even" | "long_window">("even");
  const [within, setWithin] = useState(75);
  const wet = content.bath_level !== "none";
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
      <summary className="min-h-12 py-3 text-lg">{say("oven.choose_oven_and_bath_for_me")}</summary>
      <div className="grid grid-cols-2 items-end gap-4">
        <Select
          label={say("oven.so_that")}
          value={wish}
          options={{
            even: say("oven.it_sets_most_evenly"),
            long_window: say("oven.i_have_longest_to_pull_it"),
          }}
          onValue={setWish}
        />
        <NumberField
          label={say("oven.within")}
          value={within}
          low={5}
          high={240}
          step={5}
          unit={say("oven.min")}
          onValue={setWithin}
        />
      </div>
      <Button className="mt-3" disabled={ask.isPending} onClick={() => ask.mutate()}>
        {ask.isPending ? say("oven.trying_twenty_ways") : say("oven.try_them")}
      </Button>
      <Refused error={ask.error} className="mt-2" />
      {ask.data && (
        <>
          <p className="mt-2 text-lg">{ask.data.says}</p>
          <ul className="pb-2">
            {ask.data.choices.slice(0, 5).map((c) => (
              <li
                key={`${c.set_c}${c.bath}`}
                className="rule-b flex min-h-12 items-center justify-between gap-3"
              >
                <span>
                  {say("oven.min_3", {
                    set_c: degrees(c.set_c, units),
                    bath: c.bath ? say("oven.bath") : say("oven.no_bath"),
                    pull_min: Math.round(c.pull_min),
                  })}
                </span>
                <span className="caption">
                  {say("oven.edge_min_to_pull", {
                    edge_minus_centre_k: kelvins(c.edge_minus_centre_k, units, 0),
                    window_min: c.window_min.toFixed(0),
                  })}
                </span>
                <Button
                  kind="quiet"
                  className="!px-1"
                  disabled={c.bath !== wet && !change}
                  onClick={() => {
                    if (c.bath !== wet) change?.({ bath_level: c.bath ? "half" : "none" });
                    set({ set_c: c.set_c });
                  }}
                >
                  {say("oven.take", { set_c: degrees(c.set_c, units) })}
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
  const { kid } = useBench();
  const [open, setOpen] = useState(false);
  const found = useConverted(kid, content, kind, open);
  return (
    <details className="rule-t" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="min-h-12 py-3 text-lg">{say("oven.on_another_dial")}</summary>
      {found.data && (
        <p className="pb-3 text-lg">
          {say("oven.this_dial_is_f_gas_mark", {
            says: found.data.says,
            fahrenheit: Math.round(found.data.fahrenheit),
            gas_mark: found.data.gas_mark,
          })}
        </p>
      )}
      {found.error instanceof ApiError && <p className="pb-3">{found.error.message}</p>}
    </details>
  );
}
