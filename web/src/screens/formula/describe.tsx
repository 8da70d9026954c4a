import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { ApiError, client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { Button } from "@/ui/button";
import { Dialog } from "@/ui/dialog";
import { Input, Select } from "@/ui/field";
import { newId } from "@/keep/id";

const PARTS = [
  ["fat_pct", "Fat"],
  ["sugars_pct", "of which sugars"],
  ["protein_pct", "Protein"],
  ["starch_pct", "Starch"],
  ["water_pct", "Water (empty: the rest)"],
] as const;
type Part = (typeof PARTS)[number][0];
type Category = NonNullable<Shapes["PantryIn"]["category"]>;

/** What it counts as when ratios and the pot are worked out. */
const COUNTS_AS: Record<Category, string> = {
  own: "something else",
  milk: "a milk (liquid)",
  cream: "a cream (liquid)",
  sugar: "a sugar or syrup",
  starch: "a starch",
  flavour: "a flavouring",
  fruit: "a fruit",
  chocolate: "a chocolate",
  nut: "a nut paste",
};

/** An ingredient the pantry does not know, from what its label says per 100 g. */
export function DescribeDialog({ name: given, onClose }: { name: string; onClose: () => void }) {
  const { kid } = useBench();
  const store = useQueryClient();
  const [id] = useState(() => newId());
  const [name, setName] = useState(given);
  const [category, setCategory] = useState<Category>("own");
  const [cup, setCup] = useState("");
  const [piece, setPiece] = useState("");
  const [parts, setParts] = useState<Partial<Record<Part, string>>>({});
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
      title="From its label"
      said="Per 100 g. It joins this kitchen’s own pantry and is understood from now on."
    >
      <form
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate();
        }}
      >
        <Input
          label="Name as you write it"
          value={name}
          maxLength={80}
          onChange={(event) => setName(event.target.value)}
          error={error && !PARTS.some(([part]) => part === error.field) ? error.message : null}
        />
        <div className="mt-4 grid grid-cols-2 gap-x-5 gap-y-3">
          <div className="col-span-2">
            <Select
              label="It counts as"
              value={category}
              onChange={(event) => setCategory(event.target.value as Category)}
            >
              {(Object.keys(COUNTS_AS) as Category[]).map((key) => (
                <option key={key} value={key}>
                  {COUNTS_AS[key]}
                </option>
              ))}
            </Select>
          </div>
          {PARTS.map(([part, label]) => (
            <Input
              key={part}
              label={`${label}, g`}
              inputMode="decimal"
              value={parts[part] ?? ""}
              placeholder={part === "water_pct" ? "the rest" : "0"}
              error={error?.field === part ? error.message : null}
              onChange={(event) => setParts({ ...parts, [part]: event.target.value })}
            />
          ))}
          <Input
            label="One cup weighs, g (if you use cups)"
            inputMode="decimal"
            value={cup}
            onChange={(event) => setCup(event.target.value)}
          />
          <Input
            label="One piece weighs, g (if you count it)"
            inputMode="decimal"
            value={piece}
            onChange={(event) => setPiece(event.target.value)}
          />
        </div>
        {wrong && <p className="mt-3 text-burnt">Numbers only, please: 12 or 12.5.</p>}
        <div className="mt-5 flex gap-3">
          <Button
            kind="act"
            type="submit"
            disabled={save.isPending || wrong || name.trim().length < 2}
          >
            Into the pantry
          </Button>
          <Button kind="quiet" onClick={onClose}>
            Not now
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
