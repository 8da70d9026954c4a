import { Link } from "react-router";

import type { Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { PotCurve } from "@/figures/pot-curve";
import { PracticePot } from "@/figures/practice";
import { Button } from "@/ui/button";
import { clock, grams, type Units } from "@/units";
import { say } from "@/say";

type RunData = Shapes["RehearsalOut"];

const CAME: Record<NonNullable<RunData["result"]>, string> = {
  good: say("rehearse.it_came_out"),
  usable: say("rehearse.it_can_be_served_just"),
  spoiled: say("rehearse.into_the_bin"),
};

const ACTS: Record<Shapes["Act"]["kind"], (value: number, units: Units) => string> = {
  heat: (v) => say("rehearse.heat_2", { v }),
  stir: (v) => (v ? say("rehearse.stir_2") : say("rehearse.stop_stirring_2")),
  lift: (v) => (v ? say("rehearse.off") : say("rehearse.back_on")),
  ladle: (v, units) => say("rehearse.pour_2", { v: grams(v, units) }),
  whites: () => say("rehearse.whites_on"),
  cold_water: () => say("rehearse.cold_water"),
  pour: () => say("rehearse.pour_3"),
  look: () => say("rehearse.looked"),
  end: () => say("rehearse.done"),
};

/** After a rehearsal: the curve, what was done when, the moment it went wrong and why. */
export function Debrief({
  run,
  units,
  again,
}: {
  run: RunData;
  units: Units;
  again: (seed: number) => void;
}) {
  const { kid } = useBench();
  const flat = run.stage === "mixer" || run.stage === "bowl";
  return (
    <div className="py-5">
      <title>{say("rehearse.what_came_of_it_bell_crumb", { run: run.name })}</title>
      <p className="caption">
        <Link className="underline" to={`/k/${kid}/rehearse`}>
          {say("rehearse.rehearse")}
        </Link>{" "}
        · {run.name} · {clock(run.now_s)}
      </p>
      <h1
        className={`text-5xl ${run.result === "spoiled" ? "text-burnt" : ""}`}
        data-testid="result"
      >
        {run.result ? CAME[run.result] : ""}
      </h1>
      <div className="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)]">
        <section aria-label={say("rehearse.the_curve")}>
          <PotCurve
            units={units}
            predicted={[]}
            actual={run.curve}
            zones={{
              thickens_c: null,
              reach_c: run.goal_c[0] || null,
              reach_word: say("rehearse.aim_from"),
              never_c: flat ? null : run.step.never_c,
              never_word: run.step.over,
            }}
            top={run.stage === "syrup" ? 205 : 108}
            height={360}
            marks={[
              ...run.slips.map((s) => ({
                at_s: s.at_s,
                word: s.what.toLowerCase().replace(".", ""),
              })),
              ...run.acts
                .filter((a) => a.kind !== "end")
                .map((a) => ({ at_s: a.at_s, word: ACTS[a.kind](a.value, units) })),
            ]}
            label={say("rehearse.what_the_did", { stage: run.stage, says: run.says.join(" ") })}
          />
        </section>
        <section aria-label={say("rehearse.why")}>
          <ul className="space-y-2 text-lg" data-testid="why">
            {run.says.map((words) => (
              <li
                key={words}
                className={`border-l-[3px] pl-3 ${run.result === "good" ? "border-leaf" : "border-burnt"}`}
              >
                {words}
              </li>
            ))}
          </ul>
          {run.slips.length > 0 && (
            <table className="mt-4 w-full text-left">
              <tbody>
                {run.slips.map((s) => (
                  <tr key={`${s.at_s}${s.what}`} className="rule-b align-top">
                    <td className="caption py-1 pr-3">{clock(s.at_s)}</td>
                    <td className="py-1 pr-3 font-semibold">{s.what}</td>
                    <td className="py-1">{s.why}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          <p className="display mt-4 text-xl italic">{run.teaches}</p>
          <div className="mt-4 flex flex-wrap gap-3">
            <Button kind="act" onClick={() => again(run.seed)}>
              {say("rehearse.the_same_again", {
                stage: run.stage === "oven" ? say("rehearse.oven") : say("rehearse.pot"),
              })}
            </Button>
            <Button onClick={() => again(Math.floor(Math.random() * 1e9))}>
              {say("rehearse.another", {
                stage: run.stage === "oven" ? say("rehearse.oven") : say("rehearse.pot"),
              })}
            </Button>
          </div>
          <div className="mt-5 max-w-64">{run.stage !== "oven" && <PracticePot run={run} />}</div>
        </section>
      </div>
    </div>
  );
}
