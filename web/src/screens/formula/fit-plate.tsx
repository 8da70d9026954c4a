import type { Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { BathPlate } from "@/figures/bath";
import { Tray, VesselSection } from "@/figures/vessel";
import type { Draft } from "@/keep/draft";
import { VesselSelect } from "@/screens/formula/vessel-select";
import { NumberField, Select } from "@/ui/field";
import { grams, litres, millilitres, millimetres } from "@/units";

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
      <h2 className="mb-1 text-2xl">What it fills</h2>
      {fit ? (
        <>
          <VesselSection fit={fit} klass={klass} units={units} />
          <p className="text-lg" data-testid="fit">
            {fit.short_ml > 1 ? (
              <>
                Fills <b>{fit.fills}</b> of {fit.count}, <b>{millilitres(fit.short_ml, units)}</b>{" "}
                short.
              </>
            ) : (
              <>
                Fills all <b>{fit.count}</b>
                {content.fill_by === "all" &&
                  `, ${millimetres(fit.fill * fit.depth_mm, units)} deep`}
                {fit.left_over_ml > 1 && (
                  <>
                    , <b>{millilitres(fit.left_over_ml, units)}</b> over
                  </>
                )}
                .
              </>
            )}
            {fit.rest && (
              <span data-testid="rest">
                {" "}
                The rest fills <b>{fit.rest.fills}</b> {fit.rest.vessel}
                {fit.rest.left_over_ml > 1 && `, ${millilitres(fit.rest.left_over_ml, units)} over`}
                .
              </span>
            )}
          </p>
          {fit.advice && <p className="caption">{fit.advice}</p>}
          {Math.abs(fit.factor - 1) > 0.015 && (
            <p className="caption">
              × {fit.factor.toFixed(2)} of the batch would fill {fit.count} exactly
            </p>
          )}
          <div className="my-3">
            {fit.tray ? (
              <>
                <BathPlate tray={fit.tray} deepMm={fit.depth_mm} klass={klass} units={units} />
                <p data-testid="tray">
                  <b>{fit.tray.per_pan}</b> to a {fit.tray.pan}
                  {fit.tray.pans > 1 &&
                    `, ${fit.tray.pans} of them, ${fit.tray.last_pan} in the last`}
                  {fit.tray.water_ml > 0 && (
                    <>
                      ; pour <b>{litres(fit.tray.water_ml, units)}</b> of water
                      {fit.tray.pans > 1 && " into a full one"}
                    </>
                  )}
                  .
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
        !problem && (
          <p className="my-3 text-soft">
            Choose a glass, ring or shell and see how many this batch fills.
          </p>
        )
      )}
      <div className="grid gap-3">
        <VesselSelect
          label="Into"
          none="no vessel yet"
          value={content.vessel_key}
          disabled={readOnly}
          error={at("vessel_key", "vessel")}
          onKey={(vessel_key) => change({ vessel_key })}
        />
        <div className="grid grid-cols-2 gap-4">
          <NumberField
            label="How many"
            value={content.vessel_count}
            low={1}
            high={2000}
            disabled={readOnly}
            error={at("count")}
            onValue={(v) => change({ vessel_count: Math.round(v) })}
          />
          <Select
            label="Filled"
            value={content.fill_by}
            disabled={readOnly}
            onChange={(event) => change({ fill_by: event.target.value as Content["fill_by"] })}
          >
            <option value="all">all of it</option>
            <option value="share">to a share</option>
            <option value="below_rim">below rim</option>
            <option value="weight">by weight</option>
          </Select>
        </div>
        <Filled content={content} change={change} disabled={readOnly} error={at} />
        <details open={more ? true : undefined}>
          <summary className="caption min-h-12 py-3 underline decoration-rule underline-offset-4">
            the rest, portions, tray and bath
          </summary>
          <div className="grid gap-3">
            <VesselSelect
              label="The rest into"
              none="nothing"
              value={content.rest_vessel_key}
              disabled={readOnly}
              error={at("rest_vessel_key", "rest_vessel")}
              onKey={(rest_vessel_key) => change({ rest_vessel_key })}
            />
            <div className="grid grid-cols-2 gap-4">
              <NumberField
                label="Portions in each"
                value={content.portions_per_vessel}
                low={1}
                high={500}
                disabled={readOnly}
                onValue={(v) => change({ portions_per_vessel: Math.round(v) })}
              />
              <NumberField
                label="Air whipped in"
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
              label="Standing in"
              none="no tray"
              pans
              value={content.tray_key}
              disabled={readOnly}
              error={at("tray_key", "tray")}
              onKey={(tray_key) => change({ tray_key })}
            />
            {content.tray_key && (
              <div className="grid grid-cols-2 gap-4">
                <Select
                  label="Water"
                  value={content.bath_level}
                  disabled={readOnly}
                  onChange={(event) =>
                    change({ bath_level: event.target.value as Content["bath_level"] })
                  }
                >
                  <option value="none">none</option>
                  <option value="half">half way up</option>
                  <option value="rim">under the rim</option>
                  <option value="mm">as deep as</option>
                  <option value="beside">in a tray beside</option>
                </Select>
                {content.bath_level === "mm" && (
                  <NumberField
                    label="Depth"
                    value={content.bath_mm}
                    low={1}
                    high={400}
                    unit="mm"
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
            {grams(fit.per_vessel_g, units)} in each, {Math.round(fit.fill * 100)} % of its depth
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
      return <p className="caption">As deep as the batch reaches.</p>;
    case "share":
      return (
        <NumberField
          label="Filled, of the depth"
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
          label="Below the rim"
          value={content.below_rim_mm}
          low={0}
          high={400}
          unit="mm"
          disabled={disabled}
          error={error("below_rim_mm")}
          onValue={(v) => change({ below_rim_mm: Math.round(v) })}
        />
      );
    case "weight":
      return (
        <NumberField
          label="In each"
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
