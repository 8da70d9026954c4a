import type { Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { StartCook } from "@/screens/stove/start-cook";
import { degrees, grams } from "@/units";
import { say } from "@/say";

type Step = Shapes["BuildOut"]["guide"][number];

/** What a step of the guide is about, in a word or two. */
function figure(step: Step, units: ReturnType<typeof useBench>["units"]): string {
  if (step.kind === "lay")
    return `${grams(step.grams, units)}${step.count > 1 ? ` × ${step.count}` : ""}`;
  if (step.kind === "check" && step.high_c !== null)
    return step.low_c === null
      ? say("dessert.under", { high_c: degrees(step.high_c, units) })
      : say("dessert.to", {
          low_c: degrees(step.low_c, units),
          high_c: degrees(step.high_c, units),
        });
  if (step.hold_s >= 60)
    return step.hold_s < 5400
      ? say("dessert.min_2", { hold_s: Math.round(step.hold_s / 60) })
      : `${Math.round(step.hold_s / 3600)} h`;
  return "";
}

/** Put it together, one layer a step: what is coming, and the way in. */
export function BuildIt({
  dessert,
  build,
  unsaved,
}: {
  dessert: Shapes["DessertOut"];
  build: Shapes["BuildOut"];
  unsaved: boolean;
}) {
  const { units, canCook } = useBench();
  const main =
    dessert.parts.find((p) => p.kind === "filling" || p.kind === "cream") ?? dessert.parts[0];
  const version = main?.versions.at(-1);
  if (!version) return null;
  return (
    <section className="mt-8" aria-label={say("dessert.build_it")}>
      <h2 className="text-2xl">{say("dessert.build_it")}</h2>
      <div className="grid gap-x-10 gap-y-3 lg:grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)]">
        <ol data-testid="assembly">
          {build.guide
            .filter((step) => step.kind !== "ready")
            .map((step) => (
              <li
                key={step.key}
                className={`rule-b grid grid-cols-[minmax(0,1fr)_auto] gap-x-4 py-1.5 ${step.kind === "lay" ? "" : "pl-5 text-soft"}`}
              >
                <span>{step.title}</span>
                <b className="whitespace-nowrap">{figure(step, units)}</b>
                {step.caution && (
                  <span className="col-span-2 border-l-[3px] border-burnt pl-3 text-base">
                    {step.caution}
                  </span>
                )}
              </li>
            ))}
        </ol>
        {canCook && (
          <StartCook version={version} today={{}} unsaved={unsaved} ladder place="build" />
        )}
      </div>
    </section>
  );
}
