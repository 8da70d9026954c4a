import { useState } from "react";
import { Link } from "react-router";

import type { Shapes } from "@/api/client";
import { TemperLadder } from "@/figures/temper-ladder";
import { readStored, writeStored } from "@/keep/stored";
import type { Watch } from "@/screens/cook/live";
import { Button } from "@/ui/button";
import { Check } from "@/ui/check";
import { degrees, grams, type Units, wordsOf } from "@/units";
import { Say, say } from "@/say";

type Batch = Shapes["BatchOut"];
type Step = Shapes["Step"];

interface ReadyProps {
  batch: Batch;
  step: Step;
  units: Units;
  /** When sugar met the yolks, on the cook's clock. */
  sugarAt: number | null;
  now: number;
  onSugar: () => void;
}

const PLACE: Record<string, string> = { bake: say("cook.moulds"), build: say("cook.parts") };

/** Before the heat: what stands where and what is checked off, large enough for full hands. */
export function Ready({ batch, step, units, sugarAt, now, onSugar }: ReadyProps) {
  const places = [
    [PLACE[batch.plan.guide] ?? say("cook.pot"), batch.plan.pot],
    [say("cook.bowl"), batch.plan.bowl],
    [say("cook.at_the_end"), batch.plan.finish],
  ] as const;
  const key = `crumb.ready.${batch.id}`;
  const [done, setDone] = useState<string[]>(() => readStored<string[]>(key) ?? []);
  const checks = batch.plan.checks;
  const within = batch.plan.ladder?.whisk_within_s ?? 0;
  const toggle = (check: string, on: boolean) => {
    const next = on ? [...done, check] : done.filter((d) => d !== check);
    setDone(next);
    writeStored(key, next);
  };
  return (
    <section
      aria-label={
        batch.plan.guide === "build" ? say("cook.before_it_is_built") : say("cook.before_the_heat")
      }
      className="col-span-full self-center py-4"
    >
      <p className="display text-3xl text-burnt italic" data-testid="headline">
        {batch.plan.guide === "build"
          ? say("cook.before_it_is_built_2")
          : say("cook.before_the_heat_2")}
      </p>
      <h2 className="mb-4 text-[clamp(2rem,4.4vw,3.4rem)] leading-none" data-testid="next-move">
        {step.title}
      </h2>
      <div className="grid gap-x-10 gap-y-5 lg:grid-cols-[minmax(0,1.6fr)_minmax(0,1fr)]">
        <dl className="grid gap-x-10 gap-y-4 md:grid-cols-2">
          {places.map(([name, place]) =>
            place.words.length ? (
              <div key={name} className="rule-t pt-2">
                <dt className="display text-2xl italic">{name}</dt>
                <dd>
                  <ul className="text-[1.3rem] leading-relaxed">
                    {wordsOf(place, units).map((word) => (
                      <li key={word}>{word}</li>
                    ))}
                  </ul>
                  <p className="caption">
                    {say("cook.in_all", { grams: grams(place.grams, units) })}
                  </p>
                </dd>
              </div>
            ) : null,
          )}
        </dl>
        {checks.length > 0 && (
          <div className="rule-t pt-2">
            <h3 className="text-2xl italic">
              <Say
                code="cook.got_ready_of"
                values={{
                  it: checks.filter((c) => done.includes(c)).length,
                  checks: checks.length,
                }}
                components={{ span: <span className="caption" /> }}
              />
            </h3>
            {checks.map((check) => (
              <Check key={check} on={done.includes(check)} set={(on) => toggle(check, on)}>
                <span className="text-[1.15rem]">{check}</span>
              </Check>
            ))}
          </div>
        )}
      </div>
      {within > 0 && (
        <p className="mt-4 flex flex-wrap items-center gap-4 text-xl">
          {sugarAt === null ? (
            <Button onClick={onSugar}>{say("cook.sugar_is_on_the_yolks")}</Button>
          ) : (
            <b
              role="timer"
              className={now - sugarAt > within ? "bg-burnt px-2 text-on-burnt" : ""}
              data-testid="sugar-clock"
            >
              {now - sugarAt > within
                ? say("cook.over_a_minute_whisk_then_sieve")
                : say("cook.whisk_within_s", {
                    it: Math.max(0, Math.ceil(within - (now - sugarAt))),
                  })}
            </b>
          )}
        </p>
      )}
      <p className="mt-4 border-l-[3px] border-burnt pl-3 text-xl">{step.avoid}</p>
    </section>
  );
}

/** Beside the figure: the ladder while tempering, else what to look for. */
export function Aside({
  kid,
  batch,
  step,
  live,
  units,
  rungs,
}: {
  kid: string;
  batch: Batch;
  step: Step;
  live: Watch | undefined;
  units: Units;
  rungs: number;
}) {
  const ladder = batch.plan.ladder;
  if (step.kind === "temper" && ladder) {
    const next = ladder.rungs[rungs];
    return (
      <section aria-label={say("cook.temper_ladder")} className="py-2">
        <TemperLadder
          ladder={ladder}
          units={units}
          poured={rungs}
          live={live?.moment.figure ?? null}
        />
        {live?.poured_g !== null && live?.poured_g !== undefined && (
          <p className="text-2xl" data-testid="poured">
            <Say
              code="cook.in_the_bowl_by_the_scale"
              values={{ it: grams(Math.max(0, live.poured_g), units) }}
              components={{ b: <b /> }}
            />
          </p>
        )}
        <p className="text-lg">
          {next
            ? say("cook.next_ladle_to_about", {
                added_g: grams(next.added_g, units),
                mix_temp_c: degrees(next.mix_temp_c, units),
              })
            : say("cook.all_in_back_to_the_pot")}
        </p>
      </section>
    );
  }
  return (
    <section aria-label={say("cook.what_to_look_for")} className="self-center py-3 text-lg">
      <p className="display text-2xl leading-snug">{step.sign}</p>
      <p className="mt-3 text-soft">{step.avoid}</p>
      {step.caution && <p className="mt-3 border-l-[3px] border-burnt pl-3">{step.caution}</p>}
      <p className="mt-3">
        <Link className="caption underline" to={`/k/${kid}`}>
          {say("cook.leave_the_guide_the_cook_goes")}
        </Link>
      </p>
    </section>
  );
}
