import { useState } from "react";

import type { Shapes } from "@/api/client";
import { useBench } from "@/bench";
import type { Content, LayerSaved } from "@/screens/dessert/use-build";
import { Button } from "@/ui/button";
import { Input, NumberField, Select } from "@/ui/field";
import { grams, millimetres } from "@/units";
import { say } from "@/say";

type Lies = NonNullable<LayerSaved["lies"]>;
type Build = Shapes["BuildOut"];

/** How a layer may lie, and what its measure is in. */
const LIES: Record<Lies, { word: string; unit: string }> = {
  poured: { word: say("dessert.all_of_it"), unit: "" },
  mm: { word: say("dessert.so_deep"), unit: "mm" },
  below_rim: { word: say("dessert.to_below_the_rim"), unit: "mm" },
  share: { word: say("dessert.a_share_of_it"), unit: "0–1" },
  grams: { word: say("dessert.so_much_in_each"), unit: "g" },
  lining: { word: say("dessert.lines_the_mould"), unit: "mm" },
  dome: { word: say("dessert.domed"), unit: "mm" },
  swirls: { word: say("dessert.piped_in_swirls"), unit: "mm" },
  dusted: { word: say("dessert.strewn"), unit: say("dessert.g_100_cm2") },
  sheet: { word: say("dessert.a_sheet"), unit: "mm" },
};

interface Props {
  layers: readonly LayerSaved[];
  dessert: Shapes["DessertOut"];
  folds: NonNullable<Content["folds"]>;
  build: Build | null;
  problem: Shapes["BuildProblem"] | null;
  chosen: number | null;
  readOnly: boolean;
  choose: (layer: number | null) => void;
  onLayers: (layers: LayerSaved[]) => void;
}

/** The layers from the top down, as they are seen, each with how it lies. */
export function Layers({
  layers,
  dessert,
  folds,
  build,
  problem,
  chosen,
  readOnly,
  choose,
  onLayers,
}: Props) {
  const set = (n: number, part: Partial<LayerSaved>) =>
    onLayers(layers.map((layer, i) => (i === n ? { ...layer, ...part } : layer)));
  const move = (n: number, by: number) => {
    const next = [...layers];
    const [one] = next.splice(n, 1);
    if (one) next.splice(n + by, 0, one);
    onLayers(next);
    choose(n + by);
  };
  return (
    <section aria-label={say("dessert.layers_from_the_top")}>
      <ol className="rule-t">
        {layers
          .map((layer, n) => (
            <Row
              key={`${n}${layer.part_id ?? layer.fold}${layer.item}`}
              n={n}
              last={layers.length - 1}
              layer={layer}
              name={
                dessert.parts.find((p) => p.id === layer.part_id)?.name ??
                (layer.fold || layer.item || say("dessert.a_layer"))
              }
              laid={build?.layers[n]}
              error={problem?.field.startsWith(`layers[${n}]`) ? problem.message : null}
              chosen={chosen === n}
              readOnly={readOnly}
              choose={() => choose(chosen === n ? null : n)}
              set={(part) => set(n, part)}
              move={(by) => move(n, by)}
              drop={() => onLayers(layers.filter((_, i) => i !== n))}
            />
          ))
          .reverse()}
      </ol>
      {!readOnly && (
        <Add dessert={dessert} folds={folds} onAdd={(layer) => onLayers([...layers, layer])} />
      )}
    </section>
  );
}

interface RowProps {
  n: number;
  last: number;
  layer: LayerSaved;
  name: string;
  laid: Shapes["LainOut"] | undefined;
  error: string | null;
  chosen: boolean;
  readOnly: boolean;
  choose: () => void;
  set: (part: Partial<LayerSaved>) => void;
  move: (by: number) => void;
  drop: () => void;
}

function Row({
  n,
  last,
  layer,
  name,
  laid,
  error,
  chosen,
  readOnly,
  choose,
  set,
  move,
  drop,
}: RowProps) {
  const { units } = useBench();
  const lies = layer.lies ?? laid?.lies ?? "poured";
  return (
    <li className="rule-b py-1">
      <button
        type="button"
        aria-expanded={chosen}
        className="flex min-h-12 w-full items-center justify-between gap-4 text-left aria-expanded:font-semibold"
        onClick={choose}
      >
        <span>
          {name} <span className="caption">{LIES[lies].word}</span>
        </span>
        {laid && (
          <span className="whitespace-nowrap">
            {millimetres(laid.mm, units)} · {grams(laid.g_each, units)}
          </span>
        )}
      </button>
      {error && (
        <p role="alert" className="text-burnt">
          {error}
        </p>
      )}
      {chosen && (
        <div className="grid grid-cols-2 gap-x-4 gap-y-2 pb-3">
          <Select
            label={say("dessert.how_it_lies")}
            value={lies}
            disabled={readOnly}
            options={(Object.keys(LIES) as Lies[]).map((key) => [key, LIES[key].word] as const)}
            onValue={(next) => set({ lies: next, value: usual(next, laid) })}
          />
          {lies !== "poured" && (
            <Measure
              key={lies}
              unit={LIES[lies].unit}
              value={layer.value ?? null}
              usual={laid ? usual(lies, laid) : null}
              disabled={readOnly}
              onValue={(value) => set({ lies, value })}
            />
          )}
          {layer.item && (
            <NumberField
              label={say("dessert.peel_stone_breakage")}
              value={layer.lost_pct ?? 0}
              low={0}
              high={90}
              unit="%"
              disabled={readOnly}
              onValue={(v) => set({ lost_pct: v })}
            />
          )}
          {!readOnly && (
            <div className="col-span-2 flex flex-wrap gap-3">
              <Button disabled={n === last} onClick={() => move(1)}>
                {say("dessert.up")}
              </Button>
              <Button disabled={n === 0} onClick={() => move(-1)}>
                {say("dessert.down")}
              </Button>
              <Button onClick={drop}>{say("dessert.take_it_out")}</Button>
            </div>
          )}
        </div>
      )}
    </li>
  );
}

/** A measure to begin with when a layer lies otherwise than before. */
function usual(lies: Lies, laid: Shapes["LainOut"] | undefined): number | null {
  if (!laid) return null;
  if (lies === "grams") return Math.round(laid.g_each);
  if (lies === "mm" || lies === "dome" || lies === "swirls" || lies === "sheet")
    return Math.round(laid.mm) || 1;
  return { share: 0.5, below_rim: 5, lining: 3, dusted: 8, poured: null }[lies];
}

function Measure({
  unit,
  value,
  usual: fallback,
  disabled,
  onValue,
}: {
  unit: string;
  value: number | null;
  usual: number | null;
  disabled: boolean;
  onValue: (value: number) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const number = Number((typed ?? "").replace(",", "."));
  const wrong = typed !== null && (typed.trim() === "" || Number.isNaN(number) || number < 0);
  return (
    <Input
      label={say("dessert.measure", { unit })}
      inputMode="decimal"
      value={typed ?? value ?? fallback ?? ""}
      disabled={disabled}
      error={wrong ? say("dessert.a_number_in", { unit }) : null}
      onChange={(event) => {
        const text = event.target.value;
        setTyped(text);
        const next = Number(text.replace(",", "."));
        if (text.trim() && !Number.isNaN(next) && next >= 0) onValue(next);
      }}
      onBlur={() => !wrong && setTyped(null)}
    />
  );
}

const ALONE = { item: "", fold: "", lies: null, value: null, walls: null } as const;

function Add({
  dessert,
  folds,
  onAdd,
}: {
  dessert: Shapes["DessertOut"];
  folds: NonNullable<Content["folds"]>;
  onAdd: (layer: LayerSaved) => void;
}) {
  const [item, setItem] = useState("");
  return (
    <form
      className="mt-3 grid grid-cols-2 items-end gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (!item.trim()) return;
        onAdd({ ...ALONE, part_id: null, item: item.trim() });
        setItem("");
      }}
    >
      <Select
        label={say("dessert.a_part_once_more_on_top")}
        value=""
        options={[
          ["", say("dessert.choose")],
          ...dessert.parts.map((p) => [p.id, p.name] as const),
          ...folds.map((f) => [`fold ${f.name}`, f.name] as const),
        ]}
        onValue={(id) => {
          const fold = folds.find((f) => `fold ${f.name}` === id);
          if (fold) onAdd({ ...ALONE, part_id: null, fold: fold.name });
          else if (id) onAdd({ ...ALONE, part_id: id });
        }}
      />
      <div className="flex items-end gap-3">
        <div className="flex-1">
          <Input
            label={say("dessert.or_something_bought_on_top")}
            placeholder={say("dessert.160_g_ladyfingers")}
            value={item}
            maxLength={200}
            onChange={(event) => setItem(event.target.value)}
          />
        </div>
        <Button type="submit" disabled={!item.trim()}>
          {say("dessert.add")}
        </Button>
      </div>
    </form>
  );
}
