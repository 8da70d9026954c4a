import type { Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { SugarPan } from "@/figures/sugar-pan";
import { degrees, grams, kelvins, millilitres, millimetres, minutes } from "@/units";
import { Say, say } from "@/say";

type Plan = Shapes["PlanOut"];

const SAFE = {
  yes: say("stove.the_white_is_made_safe"),
  hold: say("stove.the_white_is_only_lightly_cooked"),
  no: say("stove.the_white_stays_raw"),
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
            <Say
              code="stove.pull_it_at_it_runs_on"
              values={{
                pull_c: degrees(syrup.pull_c, units),
                run_on_k: kelvins(syrup.run_on_k, units, 0),
                pours: pours ? (
                  <>
                    <Say
                      code="stove.cold_water_for_s_then_pour"
                      values={{
                        it: Math.max(5, Math.round(syrup.stop_bath_s)),
                        pour_window_s: minutes(syrup.pour_window_s),
                      }}
                      components={{ b: <b /> }}
                    />
                  </>
                ) : (
                  say("stove.what_goes_into_it_hot_stops")
                ),
              }}
              components={{ b: <b /> }}
            />
          </>
        ) : (
          <>
            <Say
              code="stove.of_water_is_left_in_it"
              values={{
                water_left_g: grams(syrup.water_left_g, units),
                solids_pct: syrup.solids_pct.toFixed(0),
              }}
              components={{ b: <b /> }}
            />
          </>
        )}
        {syrup.slow_104_to_115_s !== null && (
          <>
            <Say
              code="stove.from_to_it_takes_wait"
              values={{
                degrees: degrees(104, units),
                degrees2: degrees(115, units),
                slow_104_to_115_s: minutes(syrup.slow_104_to_115_s),
              }}
              components={{ b: <b /> }}
            />
          </>
        )}
      </p>
      {syrup.lining && (
        <p className="text-lg" data-testid="lining">
          <Say
            code="stove.lining_3_mm_thick_a_mould"
            values={{
              thick: millimetres(syrup.lining.lining_mm, units),
              each_g: grams(syrup.lining.each_g, units),
              total_g: grams(syrup.lining.total_g, units),
              sugar_g: grams(syrup.lining.sugar_g, units),
            }}
            components={{ b: <b /> }}
          />
        </p>
      )}
      <details>
        <summary className="min-h-12 py-3">{say("stove.if_it_crystallises")}</summary>
        <ul className="space-y-1 text-soft">
          {syrup.crystals.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
      </details>
    </>
  );
}

function Foam({ foam }: { foam: Shapes["Meringue"] }) {
  const { units } = useBench();
  return (
    <p className="text-lg">
      <Say
        code="stove.of_sugar_to_one_of_white"
        values={{
          ratio: foam.ratio.toFixed(1),
          volume_ml: millilitres(foam.volume_ml, units),
          start_whites_c: foam.start_whites_c !== null && (
            <>
              <Say
                code="stove.start_the_whites_when_the_syrup"
                values={{ start_whites_c: degrees(foam.start_whites_c, units) }}
                components={{ b: <b /> }}
              />
            </>
          ),
          foam_c: degrees(foam.foam_c, units),
          safe: SAFE[foam.pasteurised],
          weeps: foam.weeps,
          extra_water_pct:
            foam.extra_water_pct > 3 &&
            say("stove.more_water_than_at_118", {
              extra_water_pct: foam.extra_water_pct.toFixed(0),
            }),
        }}
        components={{ b: <b /> }}
      />
    </p>
  );
}

function Whipped({ whipped }: { whipped: Shapes["Whipped"] }) {
  const { units } = useBench();
  const fat_pct = whipped.fat_pct.toFixed(0);
  if (!whipped.whips)
    return <p className="text-lg">{say("stove.fat_it_does_not_whip", { fat_pct })}</p>;
  return (
    <p className="text-lg">
      <Say
        code="stove.fat_to_about_air_in"
        values={{
          fat_pct,
          volume_ml: millilitres(whipped.volume_ml, units),
          overrun_pct: whipped.overrun_pct.toFixed(0),
          time_s: minutes(whipped.time_s),
          peak: whipped.peak,
        }}
        components={{ b: <b /> }}
      />
    </p>
  );
}
