import { useState } from "react";

import { ApiError, type Shapes } from "@/api/client";
import { usePlan } from "@/api/queries";
import { useBench } from "@/bench";
import { PotCurve } from "@/figures/pot-curve";
import { TemperLadder } from "@/figures/temper-ladder";
import { LearnedFrom } from "@/lessons";
import { ConflictDialog } from "@/screens/formula/saving";
import { CUSTARDS, Place, PlaceHead, usePlace, type AtPlace } from "@/screens/place";
import { asksMethod, Method } from "@/screens/stove/method";
import { Finishing, Places, Signs, Steps } from "@/screens/stove/on-paper";
import { StartCook } from "@/screens/stove/start-cook";
import { cuesOf, segments, topOf, zonesOf } from "@/screens/stove/plan-curve";
import { Button } from "@/ui/button";
import { WorkFacts } from "@/screens/stove/work-facts";
import { DOES } from "@/words";
import { degrees, grams, kelvins, minutes } from "@/units";
import { Say, say } from "@/say";

/** The stove: how this mix is tempered and cooked on this ring, and the way into the cook. */
export default function Stove() {
  return <Place what={say("stove.the_stove")} show={(at) => <Plan key={at.part.id} at={at} />} />;
}

function Plan({ at }: { at: AtPlace }) {
  const { kid, units, canEdit, canCook } = useBench();
  const { part, version } = at;
  const worked = usePlace(at);
  const { draft, content, change, forToday, today, asWritten } = worked;
  const plan = usePlan(kid, content, part.kind);
  const problem = plan.error instanceof ApiError ? plan.error : null;
  const ladder = plan.data?.ladder;
  const custard = plan.data?.guide === "custard";
  // What cannot be planned keeps the method it had, so that the reason stands at its field.
  const [known, setKnown] = useState(plan.data);
  if (plan.data && plan.data !== known) setKnown(plan.data);
  const guide = known?.guide ?? (CUSTARDS(part) ? "custard" : "");
  const heated = !known || segments(known).length > 0;
  const asks = asksMethod(guide, heated);
  return (
    <div className="py-4">
      <PlaceHead
        at={at}
        where={say("stove.at_the_stove")}
        worked={worked}
        todayOnly={say("stove.changes_here_are_for_this_cook", {
          canEdit: canEdit && say("stove.another_school_makes_the_next_version"),
        })}
        problem={problem}
      />
      <div
        className={`grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-6 ${
          asks
            ? "md:grid-cols-[17rem_minmax(0,1fr)] xl:grid-cols-[17rem_minmax(0,1.1fr)_minmax(0,1fr)]"
            : "md:grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)]"
        }`}
      >
        <section aria-label={say("stove.method")} hidden={!asks}>
          <Method
            content={content}
            setSchool={(school) => draft.change({ school })}
            set={change}
            schoolFixed={!canEdit}
            fixed={!canCook}
            problem={problem}
            guide={guide}
            aim={known?.aim}
            tempers={!known || !!known.ladder}
            heated={heated}
            change={forToday ? undefined : draft.change}
          />
          {Object.keys(today).length > 0 && (
            <p className="mt-3 border-l-[3px] border-burnt pl-3">
              {say("stove.changed_for_this_cook_only_the")}
              <Button kind="quiet" className="!px-0" onClick={asWritten}>
                {say("stove.put_it_back")}
              </Button>
            </p>
          )}
        </section>
        {plan.data && !problem && (
          <>
            <section aria-label={ladder ? say("stove.tempering") : say("stove.the_guide")}>
              {ladder ? (
                <>
                  <TemperLadder ladder={ladder} units={units} />
                  <p className="mt-2 text-xl" data-testid="ladder-words">
                    {ladder.school === "held_back_liquid" ? (
                      <>
                        <Say
                          code="stove.off_the_heat_pour_the_loosened"
                          values={{ end_temp_c: degrees(ladder.end_temp_c, units) }}
                          components={{ b: <b /> }}
                        />
                      </>
                    ) : (
                      <>
                        <Say
                          code="stove.first_ladle_at_most_or_a"
                          values={{
                            first_safe_g: grams(ladder.first_safe_g, units),
                            pour_g_per_s: grams(ladder.pour_g_per_s, units),
                            end_temp_c: degrees(ladder.end_temp_c, units),
                            ladder: kelvins(tightest(ladder), units, 0),
                          }}
                          components={{ b: <b /> }}
                        />
                      </>
                    )}
                  </p>
                </>
              ) : (
                <>
                  <p className="display text-[2rem] leading-tight">{plan.data.family}</p>
                  <WorkFacts plan={plan.data} />
                  <Steps plan={plan.data} />
                </>
              )}
              <Places plan={plan.data} />
            </section>
            <section
              aria-label={say("stove.in_the_pot")}
              className={asks ? "md:col-start-2 xl:col-start-auto" : ""}
            >
              {segments(plan.data).length > 0 ? (
                <>
                  <PotCurve
                    units={units}
                    predicted={segments(plan.data)}
                    zones={zonesOf(plan.data)}
                    top={topOf(plan.data)}
                    cues={cuesOf(plan.data)}
                    marks={segments(plan.data).map((s) => ({
                      at_s: s.from_s,
                      word: !custard
                        ? ""
                        : s.key === "heat"
                          ? say("stove.liquid")
                          : say("stove.back_on_the_ring"),
                    }))}
                    label={say("stove.predicted_temperature_in_the_pot")}
                    height={300}
                  />
                  <PotWords plan={plan.data} />
                </>
              ) : (
                <p className="py-8 text-lg text-soft">{say("stove.made_at_the_bench_the_clock")}</p>
              )}
              <Signs plan={plan.data} />
              <Finishing plan={plan.data} />
              {plan.data.warnings.map((warning) => (
                <p key={warning} className="mt-2 border-l-[3px] border-burnt pl-3">
                  {warning}
                </p>
              ))}
              {canCook && (
                <StartCook
                  place="stove"
                  version={version}
                  today={today}
                  unsaved={draft.state !== "saved"}
                  ladder={Boolean(ladder)}
                />
              )}
            </section>
          </>
        )}
      </div>
      <ConflictDialog draft={draft} />
    </div>
  );
}

const tightest = (ladder: Shapes["Ladder"]) =>
  Math.min(...ladder.rungs.map((rung) => rung.margin_k));

const wentIn = ({ pot, bowl, finish }: Shapes["PlanOut"]) => pot.grams + bowl.grams + finish.grams;

function PotWords({ plan }: { plan: Shapes["PlanOut"] }) {
  const { units } = useBench();
  const { heat, cook } = plan;
  if (plan.guide !== "custard") {
    const run = cook ?? heat;
    return (
      <p className="mt-2 text-lg" data-testid="pot-words">
        <Say
          code="stove.there_in_on"
          values={{
            reaches_s: minutes(run?.reaches_s),
            ring: plan.ring,
            learned: plan.learned.length ? (
              <LearnedFrom used={plan.learned} units={units} />
            ) : (
              <span className="caption">{say("stove.20_until_this_ring_is_known")}</span>
            ),
          }}
          components={{ b: <b /> }}
        />
      </p>
    );
  }
  return (
    <p className="mt-2 text-lg" data-testid="pot-words">
      <Say
        code="stove.liquid_ready_after_scorch_risk_on"
        values={{
          reaches_s: minutes(heat?.reaches_s),
          cook: cook && (
            <>
              <Say
                code="stove.back_on_the_ring_it_thickens"
                values={{
                  thickens_s: minutes(cook.thickens_s),
                  reaches_s: minutes(cook.reaches_s),
                  overshoot_k:
                    cook.overshoot_k > 0.4 &&
                    say("stove.running_on_after_the_heat_is", {
                      overshoot_k: kelvins(cook.overshoot_k, units),
                    }),
                }}
                components={{ b: <b /> }}
              />
            </>
          ),
          cold_class:
            plan.cold_class &&
            say("stove.thin_while_hot_is_normal_cold", {
              does: DOES[plan.cold_class].toLowerCase(),
            }),
          boils_off_g:
            plan.boils_off_g != null &&
            say("stove.about_boil_away_come_out", {
              boils_off_g: grams(plan.boils_off_g, units),
              plan: grams(wentIn(plan) - plan.boils_off_g, units),
            }),
          scorch: plan.scorch,
          ring: plan.ring,
          learned: !plan.learned.length && say("stove.20_until_this_ring_is_known_2"),
          thickens_c:
            plan.thickens_c !== null &&
            say("stove.thickens_near", { thickens_c: degrees(plan.thickens_c, units) }),
          learnedfrom: <LearnedFrom used={plan.learned} units={units} />,
        }}
        components={{ b: <b />, span: <span className="caption" /> }}
      />
    </p>
  );
}
