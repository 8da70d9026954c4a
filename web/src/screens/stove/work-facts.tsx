import type { Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { SugarPan } from "@/figures/sugar-pan";
import { degrees, grams, kelvins, millilitres, minutes } from "@/units";

type Plan = Shapes["PlanOut"];

const SAFE = {
  yes: "the white is made safe",
  hold: "the white is only lightly cooked: not safe unless held or baked",
  no: "the white stays raw",
} as const;

/** What a syrup, a meringue or a whipped cream comes to, before its steps. */
export function WorkFacts({ plan }: { plan: Plan }) {
  const { syrup, foam, whipped } = plan;
  return (
    <div className="mt-1 space-y-3" data-testid="work-facts">
      {syrup && (
        <Syrup
          syrup={syrup}
          caramel={plan.guide === "caramel"}
          pours={plan.steps.some((step) => step.key === "pour")}
        />
      )}
      {foam && <Foam foam={foam} />}
      {whipped && <Whipped whipped={whipped} />}
    </div>
  );
}

function Syrup({
  syrup,
  caramel,
  pours,
}: {
  syrup: Shapes["SyrupOut"];
  caramel: boolean;
  pours: boolean;
}) {
  const { units } = useBench();
  return (
    <>
      <SugarPan syrup={syrup} units={units} />
      <p className="text-lg">
        {caramel ? (
          <>
            Pull it at <b>{degrees(syrup.pull_c, units)}</b>: it runs on by{" "}
            {kelvins(syrup.run_on_k, units, 0)}.{" "}
            {pours ? (
              <>
                Cold water for <b>{Math.max(5, Math.round(syrup.stop_bath_s))} s</b>, then pour
                within <b>{minutes(syrup.pour_window_s)}</b>.
              </>
            ) : (
              "What goes into it, hot, stops it."
            )}
          </>
        ) : (
          <>
            <b>{grams(syrup.water_left_g, units)}</b> of water is left in it,{" "}
            {syrup.solids_pct.toFixed(0)} % sugar.
          </>
        )}
        {syrup.slow_104_to_115_s !== null && (
          <>
            {" "}
            From {degrees(104, units)} to {degrees(115, units)} it takes{" "}
            <b>{minutes(syrup.slow_104_to_115_s)}</b>: wait.
          </>
        )}
      </p>
      {syrup.lining && (
        <p className="text-lg" data-testid="lining">
          Lining 3 mm thick: <b>{grams(syrup.lining.each_g, units)}</b> a mould,{" "}
          {grams(syrup.lining.total_g, units)} in all, from {grams(syrup.lining.sugar_g, units)} of
          sugar.
        </p>
      )}
      <details>
        <summary className="min-h-12 py-3">If it crystallises</summary>
        <ul className="space-y-1 text-soft">
          {syrup.crystals.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
      </details>
    </>
  );
}

function Foam({ foam }: { foam: Shapes["MeringueOut"] }) {
  const { units } = useBench();
  return (
    <p className="text-lg">
      {foam.ratio.toFixed(1)} of sugar to one of white; about{" "}
      <b>{millilitres(foam.volume_ml, units)}</b>.
      {foam.start_whites_c !== null && (
        <>
          {" "}
          Start the whites when the syrup is at <b>{degrees(foam.start_whites_c, units)}</b>.
        </>
      )}{" "}
      The foam reaches {degrees(foam.foam_c, units)}: {SAFE[foam.pasteurised]}. Weeping:{" "}
      <b>{foam.weeps}</b>
      {foam.extra_water_pct > 3 && `, ${foam.extra_water_pct.toFixed(0)} % more water than at 118`}.
    </p>
  );
}

function Whipped({ whipped }: { whipped: Shapes["WhipOut"] }) {
  const { units } = useBench();
  return (
    <p className="text-lg">
      {whipped.fat_pct.toFixed(0)} % fat: {whipped.whips ? "whips" : "does not whip"} to about{" "}
      <b>{millilitres(whipped.volume_ml, units)}</b> ({whipped.overrun_pct.toFixed(0)} % air) in{" "}
      {minutes(whipped.time_s)}; {whipped.peak}.
    </p>
  );
}
