import type { ReactNode } from "react";

import type { Shapes } from "@/api/client";
import { useCrust, type Content } from "@/api/queries";
import { useBench } from "@/bench";
import { CrustSection, SoggyClock } from "@/figures/crust";
import { bakingOf, type Baking } from "@/screens/oven/baking";
import { OvenSelect } from "@/screens/oven/oven-select";
import { NumberField, Select, type Option } from "@/ui/field";
import { Why } from "@/ui/why";
import { degrees, fromCelsius, toCelsius } from "@/units";
import { say } from "@/say";

const BLIND: Option<Baking["blind"]>[] = [
  ["weights", say("oven.weights_then_uncovered")],
  ["frozen", say("oven.docked_and_frozen_no_weights")],
  ["hot_start", say("oven.hot_start_so_the_rim_stands")],
];
/** Doughs that leave no choice of school. */
const OWN: Partial<Record<Shapes["CrustOut"]["school"], string>> = {
  crumb: say("oven.crumb_base_pressed"),
  choux: say("oven.choux_piped_pierced_dried_with_the"),
  puff: say("oven.puff_sheets_free_under_a_tray"),
  sponge: say("oven.sponge_spread_on_paper"),
  frangipane: say("oven.almond_cream_baked_in_its_shell"),
};
const GOES: Record<Baking["goes"], string> = {
  baked_in: say("oven.a_custard_that_bakes_in_it"),
  cold_filling: say("oven.a_cold_filling"),
  hot_filling: say("oven.a_hot_filling_that_sets_in"),
};
const BARRIER: Record<Baking["barrier"], string> = {
  none: say("oven.nothing"),
  egg_wash: say("oven.egg_dried_in_the_oven"),
  butter: say("oven.butter_brushed"),
  chocolate: say("oven.chocolate_or_cocoa_butter"),
};

/** A crust: its blind bake stage by stage, and how long it stays crisp. */
export function CrustPlan({
  content,
  set,
  kind,
  off,
  parts,
}: {
  content: Content;
  set: (part: Partial<Baking>) => void;
  kind: Shapes["PartOut"]["kind"];
  off: boolean;
  parts: ReactNode;
}) {
  const { kid, units } = useBench();
  const b = bakingOf(content);
  const crust = useCrust(kid, content, kind);
  const unit = units === "us" ? "°F" : "°C";
  const found = crust.data;
  const own = found && OWN[found.school];
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-6 md:grid-cols-[15rem_minmax(0,1fr)] xl:grid-cols-[15rem_minmax(0,1fr)_minmax(0,1fr)]">
      <section aria-label={say("oven.crust_and_oven")} className="space-y-4">
        {parts}
        <OvenSelect value={b.oven_id} disabled={off} onOven={(oven_id) => set({ oven_id })} />
        {own ? (
          <p>
            <span className="caption block">{say("oven.school")}</span>
            {own}
          </p>
        ) : (
          <Select
            label={say("oven.school")}
            value={b.blind}
            disabled={off}
            options={BLIND}
            onValue={(blind) => set({ blind })}
          />
        )}
        <Select
          label={say("oven.what_goes_in")}
          value={b.goes}
          disabled={off}
          options={GOES}
          onValue={(goes) => set({ goes })}
        />
        {found && found.school !== "choux" && (
          <NumberField
            label={found.school === "crumb" ? say("oven.pressed") : say("oven.dough_rolled")}
            value={b.dough_mm ?? found.dough_mm}
            low={1}
            high={30}
            step={0.5}
            unit={say("oven.mm")}
            disabled={off}
            onValue={(v) => set({ dough_mm: v })}
          />
        )}
        <Select
          label={say("oven.between_crust_and_filling")}
          value={b.barrier}
          disabled={off}
          options={BARRIER}
          onValue={(barrier) => set({ barrier })}
        />
        <NumberField
          key={`filled${units}`}
          label={say("oven.filling_put_in_at")}
          value={Math.round(fromCelsius(b.filled_c, units))}
          low={Math.round(fromCelsius(-5, units))}
          high={Math.round(fromCelsius(100, units))}
          unit={unit}
          disabled={off}
          onValue={(v) => set({ filled_c: Math.round(toCelsius(v, units) * 10) / 10 })}
        />
      </section>
      {found && (
        <>
          <section aria-label={say("oven.blind_bake")}>
            <h2 className="mb-2 text-2xl">
              {own ? say("oven.the_bake") : say("oven.blind_bake")}
              <Why about={say("oven.the_stages")} reason={found.reasons[0]} />
            </h2>
            <CrustSection way={found.school} />
            <ol data-testid="crust-stages">
              {found.stages.map((s, n) => (
                <li key={s.title} className="rule-b grid grid-cols-[1.6rem_1fr_auto] gap-x-2 py-2">
                  <span className="display text-xl italic">{n + 1}</span>
                  <span>
                    <b className="block">{s.title}</b>
                    <span className="text-soft">{s.sign}</span>
                  </span>
                  <span className="text-right whitespace-nowrap">
                    <b>
                      {say("oven.min_4", {
                        from_min: Math.round(s.from_min),
                        to_min: Math.round(s.to_min),
                      })}
                    </b>
                    <span className="caption block">
                      {say("oven.at", { oven_c: degrees(s.oven_c, units) })}
                    </span>
                  </span>
                </li>
              ))}
            </ol>
            <p className="mt-2 text-lg">{found.how_far}</p>
            <p className="mt-1">
              {say("oven.cold_enough_to_fill_after_min", {
                shield: found.shield,
                cool_min: Math.round(found.cool_min),
              })}
            </p>
          </section>
          <section
            aria-label={say("oven.how_long_it_stays_crisp")}
            className="md:col-start-2 xl:col-start-auto"
          >
            <h2 className="mb-2 text-2xl">
              {say("oven.the_soggy_clock")}
              <Why about={say("oven.the_hours_it_stays_crisp")} reason={found.reasons[1]} />
            </h2>
            <SoggyClock crispH={found.crisp_h} softH={found.soft_h} />
            <p className="mt-2 text-lg" data-testid="soggy">
              {found.soggy}
            </p>
            <p className="caption mt-1">{say("oven.hours_within_three_times_the_order")}</p>
          </section>
        </>
      )}
    </div>
  );
}
