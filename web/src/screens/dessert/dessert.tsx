import { useEffect, useState } from "react";
import { Link, useParams } from "react-router";

import { ApiError, type Shapes } from "@/api/client";
import { useDessert } from "@/api/queries";
import { putOnBench, useBench } from "@/bench";
import { Slice } from "@/figures/slice";
import { BuildIt } from "@/screens/dessert/build-it";
import { Folds } from "@/screens/dessert/folds";
import { Layers } from "@/screens/dessert/layers";
import { Needs } from "@/screens/dessert/needs";
import { Times } from "@/screens/dessert/times";
import { useBuild, type Content } from "@/screens/dessert/use-build";
import { VesselSelect } from "@/screens/formula/vessel-select";
import { Button } from "@/ui/button";
import { NumberField, Select } from "@/ui/field";
import { Failed, Loading, Refused } from "@/ui/states";
import { grams, money } from "@/units";
import { Contains } from "@/ui/contains";
import { say } from "@/say";

type Build = Shapes["BuildOut"];

/** The dessert whole: cut open, layer on layer, with what it takes and when. */
export default function WholeDessert() {
  const { kid, canEdit, units } = useBench();
  const id = useParams()["dessertId"] ?? "";
  const dessert = useDessert(kid, id);
  const at = useBuild(kid, id);
  const [chosen, setChosen] = useState<number | null>(null);
  useEffect(() => {
    if (dessert.data) putOnBench(kid, id, dessert.data.name);
  }, [dessert.data, id, kid]);
  if (dessert.isError) return <Failed error={dessert.error} again={() => void dessert.refetch()} />;
  if (at.saved.isError)
    return <Failed error={at.saved.error} again={() => void at.saved.refetch()} />;
  if (!dessert.data || !at.content) return <Loading what={say("dessert.the_dessert")} />;
  const { content, found, problem } = at;
  const problemAt = (...fields: string[]) =>
    problem && fields.includes(problem.field) ? problem.message : null;
  const conflict = at.saving.error instanceof ApiError && at.saving.error.status === 409;
  return (
    <div className="py-4">
      <title>{say("dessert.whole_bell_crumb", { dessert: dessert.data.name })}</title>
      <div className="mb-3 flex flex-wrap items-center justify-between gap-x-6 gap-y-2">
        <h1 className="text-4xl">{dessert.data.name}</h1>
        <div className="flex flex-wrap items-center gap-4">
          {at.dirty && <span className="caption">{say("dessert.not_saved_yet_kept_in_this")}</span>}
          {at.dirty && <Button onClick={at.drop}>{say("dessert.back_to_what_is_saved")}</Button>}
          {canEdit && at.dirty && (
            <Button kind="act" disabled={at.saving.isPending || !found} onClick={() => at.save()}>
              {say("dessert.save_the_build")}
            </Button>
          )}
          <Link className="way" to={`/k/${kid}/d/${id}`}>
            {say("dessert.its_formulas")}
          </Link>
        </div>
      </div>
      {conflict ? (
        <p role="alert" className="mb-3 text-burnt">
          {say("dessert.somebody_saved_this_build_while_you")}
        </p>
      ) : (
        <Refused error={at.saving.error} />
      )}
      <div className="grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)]">
        <div>
          {found ? (
            <>
              <Slice build={found} units={units} chosen={chosen} choose={(n) => setChosen(n)} />
              <Portion build={found} />
            </>
          ) : (
            <div className="flex min-h-64 items-center justify-center border-[1.5px] border-dashed border-rule p-8 text-center">
              <p role="alert">{problem?.message ?? say("dessert.nothing_to_draw_yet")}</p>
            </div>
          )}
          {found?.warnings.map((warning) => (
            <p
              key={warning}
              className="mt-1 border-l-[3px] border-burnt pl-3"
              data-testid="warning"
            >
              {warning}
            </p>
          ))}
        </div>
        <div className="space-y-5">
          <Stand content={content} error={problemAt} change={at.change} readOnly={!canEdit} />
          <Layers
            layers={content.layers ?? []}
            dessert={dessert.data}
            build={found}
            problem={problem}
            chosen={chosen}
            readOnly={!canEdit}
            folds={content.folds ?? []}
            choose={setChosen}
            onLayers={(layers) => at.change({ layers })}
          />
          <Folds
            content={content}
            dessert={dessert.data}
            build={found}
            problem={problem}
            readOnly={!canEdit}
            change={at.change}
          />
        </div>
      </div>
      {found && (
        <>
          <Needs
            build={found}
            content={content}
            dessert={dessert.data}
            canScale={canEdit}
            busy={at.scale.isPending}
            change={at.change}
            onScale={() => at.scale.mutate(content)}
          />
          <Refused error={at.scale.error} />
          <BuildIt dessert={dessert.data} build={found} unsaved={at.dirty} />
          <Times build={found} content={content} change={at.change} readOnly={!canEdit} />
        </>
      )}
    </div>
  );
}

interface StandProps {
  content: Content;
  error: (...fields: string[]) => string | null;
  change: (part: Partial<Content>) => void;
  readOnly: boolean;
}

const CUTS = {
  whole: say("dessert.served_whole"),
  wedges: say("dessert.in_wedges"),
  squares: say("dessert.in_squares"),
  rings: say("dessert.in_rings"),
} as const;

/** What it is built in, how many, and how it is cut. */
function Stand({ content, error, change, readOnly }: StandProps) {
  return (
    <section aria-label={say("dessert.what_it_is_built_in")} className="space-y-3">
      <VesselSelect
        label={say("dessert.built_in")}
        none={say("dessert.a_23_cm_springform")}
        value={content.vessel_key}
        disabled={readOnly}
        error={error("stand.vessel")}
        onKey={(vessel_key) => change({ vessel_key })}
      />
      <div className="grid grid-cols-3 gap-4">
        <NumberField
          label={say("dessert.how_many")}
          value={content.count}
          low={1}
          high={2000}
          disabled={readOnly}
          onValue={(v) => change({ count: Math.round(v) })}
        />
        <NumberField
          label={say("dessert.portions_of_each")}
          value={content.portions_each}
          low={1}
          high={500}
          disabled={readOnly}
          onValue={(v) => change({ portions_each: Math.round(v) })}
        />
        <Select
          label={say("dessert.cut")}
          value={content.cut}
          disabled={readOnly}
          options={CUTS}
          onValue={(cut) => change({ cut })}
        />
      </div>
    </section>
  );
}

/** An allergen, and the layers it is in where they are not all. */
function inLayers({ layers }: Build, allergen: string): string {
  const names = layers.filter((l) => l.allergens.includes(allergen)).map((l) => l.name);
  if (names.length === 0 || names.length === layers.length) return allergen;
  return `${allergen} (${[...new Set(names)].join(", ")})`;
}

/** One portion: what it weighs, holds and may harm. */
function Portion({ build }: { build: Build }) {
  const { units, kitchen } = useBench();
  const { portion, stand } = build;
  const baked = build.steps.some((step) => step.oven_c !== null);
  return (
    <p className="rule-t mt-3 pt-2" data-testid="portion">
      <span className="display text-2xl">
        {say("dessert.portions_of", {
          portions: stand.portions,
          g: grams(portion.g, units),
        })}
      </span>
      <span className="caption">{baked ? say("dessert.before_it_is_baked") : " · "}</span>
      <b>{say("dessert.kcal", { kcal: Math.round(portion.kcal) })}</b>
      <span className="caption">
        {" "}
        ({portion.layers.map((l) => `${l.name} ${Math.round(l.kcal)}`).join(", ")})
      </span>
      {portion.cost !== null && (
        <>
          , <b>{money(portion.cost, kitchen.currency)}</b>
          <span className="caption">
            {" "}
            (
            {[
              portion.layers
                .filter((l) => l.cost)
                .map((l) => `${l.name} ${money(l.cost ?? 0, kitchen.currency)}`)
                .join(", "),
              portion.without_price.length > 0 &&
                say("dessert.no_price_for", { without_price: portion.without_price.join(", ") }),
            ]
              .filter(Boolean)
              .join("; ")}
            )
          </span>
        </>
      )}
      <Contains of={{ ...portion, allergens: portion.allergens.map((a) => inLayers(build, a)) }} />
    </p>
  );
}
