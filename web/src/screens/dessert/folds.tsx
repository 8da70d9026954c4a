import { useState } from "react";

import type { Shapes } from "@/api/client";
import { useBench } from "@/bench";
import type { Content } from "@/screens/dessert/use-build";
import { Button } from "@/ui/button";
import { Input, NumberField, Select } from "@/ui/field";
import { degrees, grams, millilitres } from "@/units";
import { DOES } from "@/words";
import { Say, say } from "@/say";

type Fold = NonNullable<Content["folds"]>[number];

interface Props {
  content: Content;
  dessert: Shapes["DessertOut"];
  build: Shapes["BuildOut"] | null;
  problem: Shapes["BuildProblem"] | null;
  readOnly: boolean;
  change: (part: Partial<Content>) => void;
}

/** Creams lightened with another part: how much of each, and what comes of it. */
export function Folds({ content, dessert, build, problem, readOnly, change }: Props) {
  const folds = content.folds ?? [];
  const layers = content.layers ?? [];
  if (dessert.parts.length < 2 || (readOnly && folds.length === 0)) return null;
  const nameOf = (id: string) =>
    dessert.parts.find((p) => p.id === id)?.name ?? say("dessert.a_part");
  const set = (n: number, part: Partial<Fold>) =>
    change({ folds: folds.map((fold, i) => (i === n ? { ...fold, ...part } : fold)) });
  const drop = (fold: Fold) =>
    change({
      folds: folds.filter((f) => f !== fold),
      layers: layers.filter((l) => l.fold !== fold.name),
    });
  const add = (fold: Fold) => {
    // Where the lightened part lay alone, the fold lies now; the foam goes into it.
    const inside = new Set([fold.base_id, fold.light_id]);
    const at = layers.findIndex((l) => l.part_id === fold.base_id);
    const laid = { part_id: null, item: "", fold: fold.name, lies: null, value: null, walls: null };
    const kept = layers.filter((l) => !l.part_id || !inside.has(l.part_id));
    const below = layers.slice(0, Math.max(0, at)).filter((l) => kept.includes(l)).length;
    change({
      folds: [...folds, fold],
      layers: [...kept.slice(0, below), laid, ...kept.slice(below)],
    });
  };
  return (
    <section aria-label={say("dessert.folded_together")} className="space-y-3">
      {folds.map((fold, n) => {
        const found = build?.folds.find((f) => f.name === fold.name);
        const wrong = problem?.field.startsWith(`folds[${n}]`) ? problem.message : null;
        return (
          <div key={fold.name} className="rule-t pt-2">
            <h3 className="text-xl">
              {fold.name}{" "}
              <span className="caption">
                {say("dessert.lightened_with", {
                  base_id: nameOf(fold.base_id),
                  light_id: nameOf(fold.light_id),
                })}
              </span>
            </h3>
            {wrong && (
              <p role="alert" className="text-burnt">
                {wrong}
              </p>
            )}
            {found && <Came found={found} />}
            {!readOnly && (
              <div className="mt-1 grid grid-cols-2 items-end gap-4">
                {(["base", "light"] as const).map((which) => (
                  <NumberField
                    key={which}
                    label={say("dessert.of", { fold: nameOf(fold[`${which}_id`]) })}
                    value={Math.round(fold[`${which}_g`] ?? found?.[`${which}_g`] ?? 0)}
                    low={1}
                    high={100_000}
                    unit="g"
                    onValue={(v) => set(n, { [`${which}_g`]: v })}
                  />
                ))}
                <Button onClick={() => set(n, { base_g: null, light_g: null })}>
                  {say("dessert.all_of_both")}
                </Button>
                <Button onClick={() => drop(fold)}>{say("dessert.take_it_apart")}</Button>
              </div>
            )}
          </div>
        );
      })}
      {!readOnly && <Add dessert={dessert} folds={folds} onAdd={add} />}
    </section>
  );
}

function Came({ found }: { found: Shapes["FoldOut"] }) {
  const { units } = useBench();
  return (
    <p data-testid="fold">
      <Say
        code="dessert.and_make_g_ml_fold_at"
        values={{
          base_g: grams(found.base_g, units),
          light_g: grams(found.light_g, units),
          volume_ml: millilitres(found.volume_ml, units),
          density_g_per_ml: found.density_g_per_ml.toFixed(2),
          set_class: found.set_class && `; ${DOES[found.set_class].toLowerCase()}`,
          base_from_c: degrees(found.base_from_c, units),
          base_to_c: degrees(found.base_to_c, units),
          sign: found.sign,
          too_warm: found.too_warm,
        }}
        components={{ b: <b />, span: <span className="caption" /> }}
      />
    </p>
  );
}

function Add({
  dessert,
  folds,
  onAdd,
}: {
  dessert: Shapes["DessertOut"];
  folds: readonly Fold[];
  onAdd: (fold: Fold) => void;
}) {
  const [open, setOpen] = useState(false);
  const [base, setBase] = useState("");
  const [light, setLight] = useState("");
  const [name, setName] = useState("");
  const taken = new Set([...folds.map((f) => f.name), ...dessert.parts.map((p) => p.name)]);
  const said = name.trim() || say("dessert.light_cream");
  if (!open) {
    return <Button onClick={() => setOpen(true)}>{say("dessert.fold_two_parts_together")}</Button>;
  }
  return (
    <form
      className="rule-t grid grid-cols-2 items-end gap-4 pt-2"
      onSubmit={(event) => {
        event.preventDefault();
        onAdd({ name: said, base_id: base, light_id: light, base_g: null, light_g: null });
        setOpen(false);
        setBase("");
        setLight("");
        setName("");
      }}
    >
      {(
        [
          [say("dessert.what_is_lightened"), base, setBase],
          [say("dessert.with"), light, setLight],
        ] as const
      ).map(([label, value, put]) => (
        <Select
          key={label}
          label={label}
          value={value}
          options={[
            ["", say("dessert.choose")],
            ...dessert.parts.map((p) => [p.id, p.name] as const),
          ]}
          onValue={put}
        />
      ))}
      <Input
        label={say("dessert.it_is_called")}
        placeholder={say("dessert.light_cream")}
        maxLength={80}
        value={name}
        error={taken.has(said) ? say("dessert.something_here_has_this_name") : null}
        onChange={(event) => setName(event.target.value)}
      />
      <Button
        type="submit"
        kind="act"
        disabled={!base || !light || base === light || taken.has(said)}
      >
        {say("dessert.fold_them")}
      </Button>
    </form>
  );
}
