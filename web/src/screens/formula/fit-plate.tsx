import type { Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { BathPlate } from "@/figures/bath";
import { Tray, VesselSection } from "@/figures/vessel";
import type { Draft } from "@/keep/draft";
import { VesselSelect } from "@/screens/formula/vessel-select";
import { NumberField, Select } from "@/ui/field";
import { grams, litres, millilitres, millimetres } from "@/units";
import { Say, say } from "@/say";

interface Props {
  found: Shapes["FormulaOut"] | undefined;
  draft: Draft;
  readOnly: boolean;
}

type Content = Shapes["Content"];

/** What the batch fills: one vessel cut open to scale, the tray of all of them, and the bath. */
export function FitPlate({ found, draft, readOnly }: Props) {
  const { units } = useBench();
  const { content, change } = draft;
  const fit = found?.fit;
  const klass = found?.set?.class ?? "pour";
  const problem = found?.fit_problem;
  const at = (...fields: string[]) =>
    problem && fields.includes(problem.field)
      ? problem.message
      : draft.field && fields.includes(draft.field)
        ? draft.message
        : null;
  const more =
    content.tray_key || content.rest_vessel_key || content.portions_per_vessel > 1 || at("tray");
  return (
    <div>
      <h2 className="mb-1 text-2xl">{say("formula.what_it_fills")}</h2>
      {fit ? (
        <>
          <VesselSection fit={fit} klass={klass} units={units} />
          <p className="text-lg" data-testid="fit">
            {fit.short_ml > 1 ? (
              <>
                <Say
                  code="formula.fills_of_short"
                  values={{
                    fills: fit.fills,
                    count: fit.count,
                    short_ml: millilitres(fit.short_ml, units),
                  }}
                  components={{ b: <b /> }}
                />
              </>
            ) : (
              <>
                <Say
                  code="formula.fills_all"
                  values={{
                    count: fit.count,
                    fill_by:
                      content.fill_by === "all" &&
                      say("formula.deep", { fill: millimetres(fit.fill * fit.depth_mm, units) }),
                    left_over_ml: fit.left_over_ml > 1 && (
                      <>
                        <Say
                          code="formula.over"
                          values={{ left_over_ml: millilitres(fit.left_over_ml, units) }}
                          components={{ b: <b /> }}
                        />
                      </>
                    ),
                  }}
                  components={{ b: <b /> }}
                />
              </>
            )}
            {fit.rest && (
              <span data-testid="rest">
                <Say
                  code="formula.the_rest_fills"
                  values={{
                    fills: fit.rest.fills,
                    vessel: fit.rest.vessel,
                    left_over_ml:
                      fit.rest.left_over_ml > 1 &&
                      say("formula.over_2", {
                        left_over_ml: millilitres(fit.rest.left_over_ml, units),
                      }),
                  }}
                  components={{ b: <b /> }}
                />
              </span>
            )}
          </p>
          {fit.advice && <p className="caption">{fit.advice}</p>}
          {Math.abs(fit.factor - 1) > 0.015 && (
            <p className="caption">
              {say("formula.of_the_batch_would_fill_exactly", {
                factor: fit.factor.toFixed(2),
                count: fit.count,
              })}
            </p>
          )}
          <div className="my-3">
            {fit.tray ? (
              <>
                <BathPlate tray={fit.tray} deepMm={fit.depth_mm} klass={klass} units={units} />
                <p data-testid="tray">
                  <Say
                    code="formula.to_a"
                    values={{
                      per_pan: fit.tray.per_pan,
                      pan: fit.tray.pan,
                      pans:
                        fit.tray.pans > 1 &&
                        say("formula.of_them_in_the_last", {
                          pans: fit.tray.pans,
                          last_pan: fit.tray.last_pan,
                        }),
                      water_ml: fit.tray.water_ml > 0 && (
                        <>
                          <Say
                            code="formula.pour_of_water"
                            values={{
                              water_ml: litres(fit.tray.water_ml, units),
                              pans: fit.tray.pans > 1 && say("formula.into_a_full_one"),
                            }}
                            components={{ b: <b /> }}
                          />
                        </>
                      ),
                    }}
                    components={{ b: <b /> }}
                  />
                </p>
                {fit.tray.warnings.map((words) => (
                  <p key={words} className="mt-1 border-l-[3px] border-burnt pl-3">
                    {words}
                  </p>
                ))}
              </>
            ) : (
              <Tray fit={fit} klass={klass} />
            )}
          </div>
        </>
      ) : (
        !problem && <p className="my-3 text-soft">{say("formula.choose_a_glass_ring_or_shell")}</p>
      )}
      <div className="grid gap-3">
        <VesselSelect
          label={say("formula.into")}
          none={say("formula.no_vessel_yet")}
          value={content.vessel_key}
          disabled={readOnly}
          error={at("vessel_key", "vessel")}
          onKey={(vessel_key) => change({ vessel_key })}
        />
        <div className="grid grid-cols-2 gap-4">
          <NumberField
            label={say("formula.how_many")}
            value={content.vessel_count}
            low={1}
            high={2000}
            disabled={readOnly}
            error={at("count")}
            onValue={(v) => change({ vessel_count: Math.round(v) })}
          />
          <Select
            label={say("formula.filled")}
            value={content.fill_by}
            disabled={readOnly}
            options={{
              all: say("formula.all_of_it"),
              share: say("formula.to_a_share"),
              below_rim: say("formula.below_rim"),
              weight: say("formula.by_weight"),
            }}
            onValue={(fill_by) => change({ fill_by })}
          />
        </div>
        <Filled content={content} change={change} disabled={readOnly} error={at} />
        <details open={more ? true : undefined}>
          <summary className="caption min-h-12 py-3 underline decoration-rule underline-offset-4">
            {say("formula.the_rest_portions_tray_and_bath")}
          </summary>
          <div className="grid gap-3">
            <VesselSelect
              label={say("formula.the_rest_into")}
              none={say("formula.nothing")}
              value={content.rest_vessel_key}
              disabled={readOnly}
              error={at("rest_vessel_key", "rest_vessel")}
              onKey={(rest_vessel_key) => change({ rest_vessel_key })}
            />
            <div className="grid grid-cols-2 gap-4">
              <NumberField
                label={say("formula.portions_in_each")}
                value={content.portions_per_vessel}
                low={1}
                high={500}
                disabled={readOnly}
                onValue={(v) => change({ portions_per_vessel: Math.round(v) })}
              />
              <NumberField
                label={say("formula.air_whipped_in")}
                value={content.overrun_pct}
                low={0}
                high={500}
                step={5}
                unit="%"
                disabled={readOnly}
                onValue={(v) => change({ overrun_pct: Math.round(v) })}
              />
            </div>
            <VesselSelect
              label={say("formula.standing_in")}
              none={say("formula.no_tray")}
              pans
              value={content.tray_key}
              disabled={readOnly}
              error={at("tray_key", "tray")}
              onKey={(tray_key) => change({ tray_key })}
            />
            {content.tray_key && (
              <div className="grid grid-cols-2 gap-4">
                <Select
                  label={say("formula.water_2")}
                  value={content.bath_level}
                  disabled={readOnly}
                  options={{
                    none: say("formula.none"),
                    half: say("formula.half_way_up"),
                    rim: say("formula.under_the_rim"),
                    mm: say("formula.as_deep_as"),
                    beside: say("formula.in_a_tray_beside"),
                  }}
                  onValue={(bath_level) => change({ bath_level })}
                />
                {content.bath_level === "mm" && (
                  <NumberField
                    label={say("formula.depth")}
                    value={content.bath_mm}
                    low={1}
                    high={400}
                    unit={say("formula.mm")}
                    disabled={readOnly}
                    onValue={(v) => change({ bath_mm: Math.round(v) })}
                  />
                )}
              </div>
            )}
          </div>
        </details>
        {fit && (
          <p className="caption">
            {say("formula.in_each_of_its_depth", {
              per_vessel_g: grams(fit.per_vessel_g, units),
              fill: Math.round(fit.fill * 100),
            })}
          </p>
        )}
      </div>
    </div>
  );
}

function Filled({
  content,
  change,
  disabled,
  error,
}: {
  content: Content;
  change: (part: Partial<Content>) => void;
  disabled: boolean;
  error: (...fields: string[]) => string | null;
}) {
  switch (content.fill_by) {
    case "all":
      return <p className="caption">{say("formula.as_deep_as_the_batch_reaches")}</p>;
    case "share":
      return (
        <NumberField
          label={say("formula.filled_of_the_depth")}
          value={content.fill_pct}
          low={1}
          high={100}
          step={5}
          unit="%"
          disabled={disabled}
          onValue={(v) => change({ fill_pct: Math.round(v) })}
        />
      );
    case "below_rim":
      return (
        <NumberField
          label={say("formula.below_the_rim")}
          value={content.below_rim_mm}
          low={0}
          high={400}
          unit={say("formula.mm")}
          disabled={disabled}
          error={error("below_rim_mm")}
          onValue={(v) => change({ below_rim_mm: Math.round(v) })}
        />
      );
    case "weight":
      return (
        <NumberField
          label={say("formula.in_each")}
          value={content.portion_g}
          low={1}
          high={100000}
          step={5}
          unit="g"
          disabled={disabled}
          error={error("portion_g")}
          onValue={(v) => change({ portion_g: Math.round(v) })}
        />
      );
  }
}
