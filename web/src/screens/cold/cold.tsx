import { Link } from "react-router";

import { ApiError } from "@/api/client";
import { useCool } from "@/api/queries";
import { useBench } from "@/bench";
import { ColdSection, TwoStages } from "@/figures/cooling";
import { Label } from "@/screens/cold/label";
import { partQuery } from "@/screens/formula/part";
import { ConflictDialog } from "@/screens/formula/saving";
import { bakingOf } from "@/screens/oven/baking";
import { CUSTARDS, PartSelect, Place, PlaceHead, useBaking, type AtPlace } from "@/screens/place";
import { Check } from "@/ui/check";
import { NumberField, Select } from "@/ui/field";
import { Why } from "@/ui/why";
import { degrees, fromCelsius, grams, minutes, toCelsius } from "@/units";
import { Say, say } from "@/say";

/** The cold: how a part gets through the warm zone, when it cuts, how long it keeps. */
export default function ColdScreen() {
  return (
    <Place
      what={say("cold.the_cold")}
      first={CUSTARDS}
      show={(at) => <Cooling key={at.part.id} at={at} />}
    />
  );
}

function Cooling({ at }: { at: AtPlace }) {
  const { kid, units, kitchen, canCook } = useBench();
  const { dessert, part } = at;
  const worked = useBaking(at);
  const { draft, content, set } = worked;
  const b = bakingOf(content);
  const cool = useCool(kid, content, part.kind);
  const problem = cool.error instanceof ApiError ? cool.error : null;
  const found = cool.data?.found;
  const stirs = found?.can_be_stirred ?? true;
  return (
    <div className="py-4">
      <PlaceHead at={at} where={say("cold.in_the_cold")} worked={worked} problem={problem} />
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-6 md:grid-cols-[15rem_minmax(0,1fr)] xl:grid-cols-[15rem_minmax(0,1.25fr)_minmax(0,1fr)]">
        <section
          aria-label={say("cold.where_it_cools")}
          className="no-print order-3 space-y-4 md:order-none"
        >
          <PartSelect {...at} />
          <Select
            label={say("cold.refrigerator")}
            value={b.cold_id ?? kitchen.colds[0]?.id ?? null}
            disabled={!canCook}
            options={
              kitchen.colds.length === 0
                ? [[null, say("cold.an_ordinary_one")]]
                : kitchen.colds.map((c) => [c.id, `${c.name}, ${degrees(c.air_c, units)}`])
            }
            onValue={(cold_id) => set({ cold_id })}
          />
          <Select
            label={say("cold.ice_first")}
            value={b.ice === "stirred" && !stirs ? "still" : b.ice}
            disabled={!canCook}
            options={[
              ["", say("cold.no")],
              ["still", say("cold.standing_in_ice_water")],
              ...(stirs ? [["stirred", say("cold.stirred_over_ice")] as const] : []),
            ]}
            onValue={(ice) => set({ ice })}
          />
          <NumberField
            key={`away${units}`}
            label={say("cold.put_away_at")}
            value={Math.round(fromCelsius(b.put_away_c, units))}
            low={Math.round(fromCelsius(5, units))}
            high={Math.round(fromCelsius(100, units))}
            unit={units === "us" ? "°F" : "°C"}
            disabled={!canCook}
            onValue={(v) => set({ put_away_c: Math.round(toCelsius(v, units) * 10) / 10 })}
          />
          <Check on={b.film} disabled={!canCook} set={(film) => set({ film })}>
            {say("cold.film_on_the_surface")}
          </Check>
          <p className="caption">
            <Say
              code="cold.how_deep_it_stands_is_decided"
              components={{
                link: (
                  <Link
                    className="underline"
                    to={`/k/${kid}/d/${dessert.id}${partQuery(dessert, part)}`}
                  />
                ),
              }}
            />
          </p>
        </section>
        {cool.data && found && !problem && (
          <>
            <section
              aria-label={say("cold.through_the_warm_zone")}
              className="no-print order-1 md:order-none"
            >
              <ColdSection
                found={found}
                vessel={cool.data.vessel}
                ice={b.ice !== ""}
                film={b.film}
                units={units}
              />
              <TwoStages found={found} rule={kitchen.cool_rule} units={units} />
              <p className="caption">
                {say("cold.full_line_the_warmest_place_broken", {
                  from_c: degrees(kitchen.cool_rule.from_c, units),
                })}
              </p>
            </section>
            <section
              aria-label={say("cold.cold_enough")}
              className="order-2 md:order-none md:col-start-2 xl:col-start-auto"
            >
              <div className="no-print">
                <p
                  className={`display text-4xl ${found.complies ? "" : "text-burnt"}`}
                  data-testid="passes"
                >
                  {found.complies ? say("cold.passes") : say("cold.too_slow")}
                  <Why about={say("cold.the_cooling_time")} reason={found.reasons[0]} />
                </p>
                <p className="text-lg">{found.says}</p>
                <dl className="mt-3 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 text-lg">
                  <dt className="text-soft">
                    {say("cold.to", { mid_c: degrees(kitchen.cool_rule.mid_c, units) })}
                  </dt>
                  <dd>
                    {found.to_21_min === null ? say("cold.never") : minutes(found.to_21_min * 60)}
                  </dd>
                  <dt className="text-soft">
                    {say("cold.to_2", { end_c: degrees(kitchen.cool_rule.end_c, units) })}
                  </dt>
                  <dd>{found.to_5_min === null ? say("cold.never") : hours(found.to_5_min)}</dd>
                  <dt className="text-soft">{say("cold.cuts_from")}</dt>
                  <dd>
                    {found.cold_enough_min === null
                      ? say("cold.never_here")
                      : say("cold.the_set_wants_h", {
                          cold_enough_min: hours(found.cold_enough_min),
                          chill_h: found.chill_h.join("–"),
                        })}
                  </dd>
                  {found.ice_kg !== null && (
                    <>
                      <dt className="text-soft">{say("cold.ice")}</dt>
                      <dd>{say("cold.for_each", { ice_kg: grams(found.ice_kg * 1000, units) })}</dd>
                    </>
                  )}
                  {found.release_s !== null && (
                    <>
                      <dt className="text-soft">{say("cold.to_let_go")}</dt>
                      <dd>
                        {say("cold.s_in_water_of", {
                          release_s: Math.round(found.release_s),
                          degrees: degrees(60, units),
                        })}
                      </dd>
                    </>
                  )}
                </dl>
                {found.warnings.map((warning) => (
                  <p key={warning} className="mt-2 border-l-[3px] border-burnt pl-3">
                    {warning}
                  </p>
                ))}
              </div>
              <Label
                dessert={dessert.name}
                part={dessert.parts.length > 1 ? part.name : null}
                keepDays={found.keep_days}
                kitchen={kitchen.name}
              />
            </section>
          </>
        )}
      </div>
      <ConflictDialog draft={draft} />
    </div>
  );
}

function hours(min: number): string {
  const whole = Math.round(min);
  if (whole < 90) return minutes(min * 60);
  return say("cold.h_min", { min: Math.floor(whole / 60), min2: whole % 60 });
}
