import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { ApiError, client, must, type Shapes } from "@/api/client";
import { useCraft } from "@/api/queries";
import { useBench } from "@/bench";
import { Button } from "@/ui/button";
import { Check } from "@/ui/check";
import { Dialog } from "@/ui/dialog";
import { Input, Select } from "@/ui/field";
import { newId } from "@/keep/id";
import { say } from "@/say";

const PARTS = [
  ["fat_pct", say("formula.fat_3")],
  ["sugars_pct", say("formula.of_which_sugars")],
  ["protein_pct", say("formula.protein")],
  ["starch_pct", say("formula.starch_2")],
  ["water_pct", say("formula.water_empty_the_rest")],
] as const;
type Part = (typeof PARTS)[number][0];
type Allergen = NonNullable<Shapes["PantryIn"]["allergens"]>[number];
type Category = NonNullable<Shapes["PantryIn"]["category"]>;

/** What it counts as when ratios and the pot are worked out. */
const COUNTS_AS: Record<Category, string> = {
  own: say("formula.something_else"),
  milk: say("formula.a_milk_liquid"),
  cream: say("formula.a_cream_liquid"),
  sugar: say("formula.a_sugar_or_syrup"),
  starch: say("formula.a_starch"),
  flavour: say("formula.a_flavouring"),
  fruit: say("formula.a_fruit"),
  chocolate: say("formula.a_chocolate"),
  nut: say("formula.a_nut_paste"),
};

interface Props {
  name: string;
  /** One described before, to be corrected. */
  was?: Shapes["PantryOut"] | undefined;
  onClose: () => void;
}

/** The allergens after one is ticked or unticked; with none left nobody has said anything. */
function ticked(were: Allergen[], one: Allergen, on: boolean): Allergen[] | null {
  const are = on ? [...were, one] : were.filter((a) => a !== one);
  return are.length > 0 ? are : null;
}

const typed = (value: number | null | undefined) => value?.toString() ?? "";

/** An ingredient the pantry does not know, from what its label says per 100 g. */
export function DescribeDialog({ name: given, was, onClose }: Props) {
  const { kid } = useBench();
  const store = useQueryClient();
  const [id] = useState(() => was?.id ?? newId());
  const [name, setName] = useState(was?.name ?? given);
  const [category, setCategory] = useState<Category>((was?.category ?? "own") as Category);
  const [cup, setCup] = useState(typed(was?.g_per_us_cup));
  const [piece, setPiece] = useState(typed(was?.g_per_piece));
  // null: nobody has looked, which is not the same as none
  const [allergens, setAllergens] = useState(
    () => was?.allergens?.map((a) => a.key as Allergen) ?? null,
  );
  const craft = useCraft();
  const [parts, setParts] = useState<Partial<Record<Part, string>>>(() =>
    Object.fromEntries(PARTS.map(([part]) => [part, typed(was?.[part])])),
  );
  const number = (text: string | undefined) =>
    text === undefined || text.trim() === "" ? null : Number(text.replace(",", "."));
  const save = useMutation({
    mutationFn: () =>
      must(
        client.PUT("/api/k/{kid}/pantry/{item_id}", {
          params: { path: { kid, item_id: id } },
          body: {
            name: name.trim(),
            category,
            fat_pct: number(parts.fat_pct) ?? 0,
            sugars_pct: number(parts.sugars_pct) ?? 0,
            protein_pct: number(parts.protein_pct) ?? 0,
            starch_pct: number(parts.starch_pct) ?? 0,
            water_pct: number(parts.water_pct),
            g_per_us_cup: number(cup),
            g_per_piece: number(piece),
            allergens,
          },
        }),
      ),
    onSuccess: (kitchen) => {
      store.setQueryData(["kitchen", kid], kitchen);
      void store.invalidateQueries({ queryKey: ["answer"] });
      onClose();
    },
  });
  const error = save.error instanceof ApiError ? save.error : null;
  const wrong = PARTS.map(([part]) => parts[part])
    .concat(cup, piece)
    .some((text) => Number.isNaN(number(text)));
  return (
    <Dialog
      open
      onClose={onClose}
      title={say("formula.from_its_label")}
      said={say("formula.per_100_g_it_joins_this")}
    >
      <form
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate();
        }}
      >
        <Input
          label={say("formula.name_as_you_write_it")}
          value={name}
          maxLength={80}
          onChange={(event) => setName(event.target.value)}
          error={error && !PARTS.some(([part]) => part === error.field) ? error.message : null}
        />
        <div className="mt-4 grid grid-cols-2 gap-x-5 gap-y-3">
          <div className="col-span-2">
            <Select
              label={say("formula.it_counts_as")}
              value={category}
              options={COUNTS_AS}
              onValue={setCategory}
            />
          </div>
          {PARTS.map(([part, label]) => (
            <Input
              key={part}
              label={`${label}, g`}
              inputMode="decimal"
              value={parts[part] ?? ""}
              placeholder={part === "water_pct" ? say("formula.the_rest") : "0"}
              error={error?.field === part ? error.message : null}
              onChange={(event) => setParts({ ...parts, [part]: event.target.value })}
            />
          ))}
          <Input
            label={say("formula.one_cup_weighs_g_if_you")}
            inputMode="decimal"
            value={cup}
            onChange={(event) => setCup(event.target.value)}
          />
          <Input
            label={say("formula.one_piece_weighs_g_if_you")}
            inputMode="decimal"
            value={piece}
            onChange={(event) => setPiece(event.target.value)}
          />
        </div>
        <fieldset className="mt-4">
          <legend className="caption">{say("formula.its_label_names")}</legend>
          <div className="grid grid-cols-2 gap-x-5 sm:grid-cols-3">
            {craft.data?.allergens.map(({ key, name: called }) => {
              const one = key as Allergen;
              return (
                <Check
                  key={key}
                  on={allergens?.includes(one) ?? false}
                  set={(on) => setAllergens((were) => ticked(were ?? [], one, on))}
                >
                  {called}
                </Check>
              );
            })}
            <Check on={allergens?.length === 0} set={(on) => setAllergens(on ? [] : null)}>
              {say("formula.none_of_these")}
            </Check>
          </div>
          {allergens === null && <p className="caption">{say("formula.allergens_asked")}</p>}
        </fieldset>
        {wrong && <p className="mt-3 text-burnt">{say("formula.numbers_only_please_12_or_12")}</p>}
        <div className="mt-5 flex gap-3">
          <Button
            kind="act"
            type="submit"
            disabled={save.isPending || wrong || name.trim().length < 2}
          >
            {was ? say("formula.as_it_is_now") : say("formula.into_the_pantry")}
          </Button>
          <Button kind="quiet" onClick={onClose}>
            {say("formula.not_now")}
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
