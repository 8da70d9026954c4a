import { useState } from "react";

import { ApiError, type Shapes } from "@/api/client";
import { useBake } from "@/api/queries";
import { useBench } from "@/bench";
import { BakeTime, endOf } from "@/figures/bake-time";
import { CutKey, CutMould, WobbleDisc, type See } from "@/figures/cut-mould";
import { frameAt } from "@/figures/frame";
import { ConflictDialog } from "@/screens/formula/saving";
import { bakingOf, GHOSTS, otherVessels } from "@/screens/oven/baking";
import { CrustPlan } from "@/screens/oven/crust";
import { OvenSettings } from "@/screens/oven/settings";
import { BakeFacts } from "@/screens/oven/facts";
import { CUSTARDS, PartSelect, Place, PlaceHead, useBaking, type AtPlace } from "@/screens/place";
import { StartCook } from "@/screens/stove/start-cook";
import { Select } from "@/ui/field";
import { degrees } from "@/units";
import { say } from "@/say";

/** The oven: the mould cut open through its bake, when to pull it, and what it does afterwards. */
export default function OvenScreen() {
  return (
    <Place
      what={say("oven.the_oven")}
      first={CUSTARDS}
      show={(at) => <Bake key={at.part.id} at={at} />}
    />
  );
}

function Bake({ at }: { at: AtPlace }) {
  const { kid, units, kitchen, canEdit, canCook } = useBench();
  const { part, version } = at;
  const worked = useBaking(at);
  const { draft, content, set, today } = worked;
  const crust = part.kind === "crust";
  const bake = useBake(kid, crust ? undefined : content, part.kind);
  const [against, setAgainst] = useState("");
  const vessels = otherVessels(content, kitchen);
  const beside = GHOSTS[against] ?? vessels.find((v) => v.key === against);
  const other = beside?.of(content, kitchen);
  const ghost = useBake(kid, crust ? undefined : other, part.kind);
  const problem = bake.error instanceof ApiError ? bake.error : null;
  const parts = <PartSelect {...at} />;
  return (
    <div className="py-4">
      <PlaceHead at={at} where={say("oven.in_the_oven")} worked={worked} problem={problem} />
      {crust ? (
        <CrustPlan content={content} set={set} kind={part.kind} off={!canCook} parts={parts} />
      ) : (
        <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-6 md:grid-cols-[15rem_minmax(0,1fr)] xl:grid-cols-[15rem_minmax(0,1.25fr)_minmax(0,1fr)]">
          <section
            aria-label={say("oven.oven_and_water")}
            className="order-3 space-y-4 md:order-none"
          >
            {parts}
            <OvenSettings
              content={content}
              change={draft.change}
              set={set}
              fixed={!canEdit}
              off={!canCook}
              problem={problem}
            />
          </section>
          {bake.data && !problem && (
            <>
              <Plate
                plan={bake.data}
                ghost={against && !ghost.isPlaceholderData ? ghost.data : undefined}
                against={against}
                setAgainst={setAgainst}
                vessels={vessels}
                baking={bakingOf(content)}
              />
              <section
                aria-label={say("oven.when_to_pull_it_2")}
                className="order-2 md:order-none md:col-start-2 xl:col-start-auto"
              >
                <BakeFacts
                  plan={bake.data}
                  ghost={against ? ghost.data : undefined}
                  ghostError={ghost.error instanceof ApiError ? ghost.error.message : null}
                  against={typeof beside?.name === "function" ? beside.name(units) : beside?.name}
                  content={content}
                  set={set}
                  change={canEdit ? draft.change : null}
                  kind={part.kind}
                />
                {bake.data.found.warnings.map((warning) => (
                  <p key={warning} className="mt-2 border-l-[3px] border-burnt pl-3">
                    {warning}
                  </p>
                ))}
                {canCook && bake.data.found.pull_from_min !== null && (
                  <StartCook
                    place="oven"
                    version={version}
                    today={today}
                    unsaved={draft.state !== "saved"}
                  />
                )}
              </section>
            </>
          )}
        </div>
      )}
      <ConflictDialog draft={draft} />
    </div>
  );
}

type Plan = Shapes["BakePlanOut"];

/** The mould at a minute of its bake, the disc from above, and the time line it is scrubbed on. */
function Plate({
  plan,
  ghost,
  against,
  setAgainst,
  vessels,
  baking,
}: {
  plan: Plan;
  ghost: Plan | undefined;
  against: string;
  setAgainst: (key: string) => void;
  vessels: { key: string; name: string }[];
  baking: ReturnType<typeof bakingOf>;
}) {
  const { units } = useBench();
  const { found, vessel } = plan;
  const [see, setSee] = useState<See>("set");
  const end = endOf(found);
  const pull = found.pull_min;
  const [chosen, setChosen] = useState<number | null>(null);
  const minute = Math.min(chosen ?? pull ?? end / 2, end);
  if (found.frames.length === 0)
    return <p className="py-8 text-lg">{say("oven.nothing_to_see_yet")}</p>;
  const frame = frameAt(found.frames, minute);
  const other = ghost?.found.frames.length ? frameAt(ghost.found.frames, minute) : undefined;
  const point = [...found.curve.filter((p) => !pull || p.t_min <= pull), ...found.after].reduce(
    (a, b) => (Math.abs(b.t_min - minute) < Math.abs(a.t_min - minute) ? b : a),
  );
  const out = pull !== null && minute > pull + 0.01;
  const words = say("oven.min_middle_edge", {
    minute: Math.round(minute),
    out: out ? say("oven.after_the_pull", { minute: Math.round(minute - pull) }) : "",
    centre_c: degrees(point.centre_c, units),
    edge_c: degrees(point.edge_c, units),
  });
  return (
    <section aria-label={say("oven.the_mould_cut_open")} className="order-1 md:order-none">
      <div className="grid grid-cols-[minmax(0,1fr)_6.5rem] items-end gap-2 sm:grid-cols-[minmax(0,1fr)_7.5rem]">
        <CutMould
          left={{ frame, fillMm: found.fill_mm }}
          right={
            other && ghost && ghost.vessel.name === vessel.name
              ? { frame: other, fillMm: ghost.found.fill_mm }
              : undefined
          }
          vessel={vessel}
          wallMm={found.wall_mm}
          crustMm={baking.crust ? found.crust_mm : 0}
          waterMm={out && baking.after === "rack" ? null : found.level_mm}
          see={see}
          puffs={baking.crust === "pastry"}
          units={units}
          label={say("oven.cut_open_after", { vessel: vessel.name, words })}
        />
        <WobbleDisc discMm={frame.unset_diameter_mm} widthMm={found.width_mm} units={units} />
      </div>
      <p className="text-lg" data-testid="cut-words">
        {words}
        {plan.found.level_mm !== null && point.bath_c !== null && (
          <span className="text-soft">
            {say("oven.water", { bath_c: degrees(point.bath_c, units) })}
          </span>
        )}
        .
      </p>
      <BakeTime
        found={found}
        ghost={ghost?.found}
        at={minute}
        units={units}
        label={say("oven.middle_and_edge_through_the_bake", { found: pullWords(found) })}
      />
      <input
        type="range"
        aria-label={say("oven.minute_of_the_bake")}
        aria-valuetext={words}
        className="ml-10 h-10 w-[calc(100%-2.8rem)] accent-[var(--ink)]"
        min={0}
        max={Math.round(end)}
        step={1}
        value={Math.round(minute)}
        onChange={(event) => setChosen(Number(event.target.value))}
      />
      <div className="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <CutKey see={see} degrees={(c) => degrees(c, units)} />
      </div>
      <div className="mt-3 grid grid-cols-2 gap-4">
        <Select
          label={say("oven.show")}
          value={see}
          options={{ set: say("oven.how_far_it_has_set"), heat: say("oven.how_hot_it_is") }}
          onValue={setSee}
        />
        <Select
          label={say("oven.beside_it_as_the_right_half")}
          value={against}
          options={[
            ["", say("oven.nothing")],
            ...Object.entries(GHOSTS).map(([key, { name }]) => [key, name(units)] as const),
            ...vessels.map(({ key, name }) => [key, name] as const),
          ]}
          onValue={setAgainst}
        />
      </div>
    </section>
  );
}

const pullWords = (found: Plan["found"]) =>
  found.pull_from_min === null || found.pull_to_min === null
    ? say("oven.it_does_not_set_within_four")
    : say("oven.pull_it_between_and_minutes", {
        pull_from_min: Math.round(found.pull_from_min),
        pull_to_min: Math.round(found.pull_to_min),
      });
