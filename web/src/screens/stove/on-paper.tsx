import type { Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { degrees, grams, minutes, wordsOf } from "@/units";
import { Say, say } from "@/say";

/** The steps of a guide with the sign to look for, before anything is lit. */
export function Steps({ plan }: { plan: Shapes["PlanOut"] }) {
  return (
    <ol className="mt-2" data-testid="guide-steps">
      {plan.steps.map((step, i) => (
        <li key={step.key} className="rule-b grid grid-cols-[1.6rem_1fr] gap-x-2 py-2">
          <span className="display text-xl italic">{i + 1}</span>
          <div>
            <p className="font-semibold">
              {step.title}
              {step.hold_s > 0 && step.low_c === null && (
                <span className="caption ml-2 font-normal">{minutes(step.hold_s)}</span>
              )}
            </p>
            <p className="text-soft">{step.sign}</p>
            {step.caution && (
              <p className="mt-1 border-l-[3px] border-burnt pl-2">{step.caution}</p>
            )}
          </div>
        </li>
      ))}
    </ol>
  );
}

/** What the cream shows on the way, with the moment it shows it. */
export function Signs({ plan }: { plan: Shapes["PlanOut"] }) {
  const { units } = useBench();
  const signs = plan.signs;
  if (signs.length === 0) return null;
  return (
    <details className="rule-t mt-2">
      <summary className="min-h-12 py-3">{say("stove.what_it_looks_like_on_the")}</summary>
      <table className="w-full text-left">
        <tbody>
          {signs.map((s) => (
            <tr key={s.sign} className="rule-b">
              <td className="caption py-1 pr-3 whitespace-nowrap">{minutes(s.t_s)}</td>
              <td className="py-1 pr-3 font-semibold whitespace-nowrap">
                {degrees(s.temp_c, units)}
              </td>
              <td className="py-1">{s.sign}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}

const WAYS = {
  ice_bath: say("stove.in_ice"),
  tray: say("stove.on_a_tray"),
  bench: say("stove.on_the_bench"),
} as const;

/** What goes in off the heat: when, how long until then, what it does to the cream. */
export function Finishing({ plan }: { plan: Shapes["PlanOut"] }) {
  const { units } = useBench();
  const additions = plan.additions;
  if (additions.length === 0) return null;
  return (
    <details className="rule-t" open>
      <summary className="min-h-12 py-3">{say("stove.what_goes_in_off_the_heat")}</summary>
      <ul>
        {additions.map((a) => (
          <li key={a.name} className="rule-b py-2">
            <Say
              code="stove.between_and_the_cream_is_then"
              values={{
                split: (a.name.split(",")[0] ?? a.name).toLowerCase(),
                grams: grams(a.grams, units),
                low_c: degrees(a.window.low_c, units),
                high_c: degrees(a.window.high_c, units),
                sign: a.window.sign,
                after_c: degrees(a.after_c, units),
              }}
              components={{ b: <b />, span: <span className="text-soft" /> }}
            />
            {Object.keys(a.waits_s).length > 0 && (
              <span className="block">
                {say("stove.there_after")}
                {(Object.keys(WAYS) as (keyof typeof WAYS)[])
                  .map((way) => `${minutes(a.waits_s[way])} ${WAYS[way]}`)
                  .join(", ")}
                .
              </span>
            )}
            {a.advice && <span className="block">{a.advice}</span>}
            {a.splits && (
              <span className="block border-l-[3px] border-burnt pl-2">{a.window.rescue}</span>
            )}
          </li>
        ))}
      </ul>
    </details>
  );
}

/** What goes where before anything is lit. */
export function Places({ plan }: { plan: Shapes["PlanOut"] }) {
  const { units } = useBench();
  const places = [
    [say("stove.pot"), plan.pot],
    [say("stove.bowl"), plan.bowl],
    [say("stove.at_the_end"), plan.finish],
  ] as const;
  return (
    <dl className="rule-t mt-3 grid grid-cols-[auto_1fr] gap-x-4 pt-2">
      {places.map(([name, place]) =>
        place.words.length ? (
          <div key={name} className="contents">
            <dt className="display italic">{name}</dt>
            <dd>{wordsOf(place, units).join(", ")}</dd>
          </div>
        ) : null,
      )}
    </dl>
  );
}
