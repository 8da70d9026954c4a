import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";

import { ApiError, client, must, type Shapes } from "@/api/client";
import { useCraft } from "@/api/queries";
import { useBench } from "@/bench";
import { blankContent } from "@/keep/blank";
import { newId } from "@/keep/id";
import { Button } from "@/ui/button";
import { Dialog } from "@/ui/dialog";
import { Input, Select } from "@/ui/field";

const GROUPS: Record<string, string> = {
  stirred_egg: "Stirred, set by yolk",
  starch_boiled: "Boiled, set by starch",
  curd: "Curds",
  baked_egg: "Baked, set by egg",
  starch_baked: "Boiled, then baked",
  acid_set: "Set by acid",
  cheesecake: "Cheesecakes",
};

type Family = Shapes["FamilyRef"];

/** A new dessert: its name, and whether it begins blank or from the middle of a family. */
export function NewDessert({ onClose }: { onClose: () => void }) {
  const { kid, kitchen } = useBench();
  const craft = useCraft();
  const [name, setName] = useState("");
  const [from, setFrom] = useState("");
  const [ids] = useState(() => [newId(), newId(), newId()] as const);
  const go = useNavigate();
  const store = useQueryClient();
  const families = craft.data?.families ?? [];
  const chosen = families.find((family) => family.key === from);
  const add = useMutation({
    mutationFn: () =>
      must(
        client.POST("/api/k/{kid}/desserts", {
          params: { path: { kid } },
          body: {
            id: ids[0],
            part_id: ids[1],
            version_id: ids[2],
            name: name.trim(),
            kind: chosen?.starter_kind ?? "cream",
            content: {
              ...blankContent(kitchen),
              lines_text: chosen?.starter.join("\n") ?? "",
              family: chosen?.key ?? "",
            },
          },
        }),
      ),
    onSuccess: (dessert) => {
      store.setQueryData(["dessert", kid, dessert.id], dessert);
      void store.invalidateQueries({ queryKey: ["shelf", kid] });
      void go(`/k/${kid}/d/${dessert.id}`);
    },
  });
  return (
    <Dialog open onClose={onClose} title="What is it called?">
      <form
        className="space-y-4"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) add.mutate();
        }}
      >
        <Input
          label="Name of the dessert"
          value={name}
          maxLength={120}
          autoFocus
          placeholder="Gooseberry and hay cream"
          error={add.error instanceof ApiError ? add.error.message : null}
          onChange={(event) => setName(event.target.value)}
        />
        <Select
          label="Begin with"
          value={from}
          onChange={(event) => setFrom(event.target.value)}
          hint={chosen ? undefined : "Your own lines, or the middle of a family to make yours."}
        >
          <option value="">my own lines</option>
          {byGroup(families).map(([group, members]) => (
            <optgroup key={group} label={GROUPS[group] ?? group}>
              {members.map((family) => (
                <option key={family.key} value={family.key}>
                  {family.name}
                </option>
              ))}
            </optgroup>
          ))}
        </Select>
        {chosen && (
          <p className="rule-t pt-2 text-soft" data-testid="starter">
            {chosen.starter.join(" · ")}
          </p>
        )}
        <div className="flex gap-3 pt-1">
          <Button kind="act" type="submit" disabled={!name.trim() || add.isPending}>
            Write the formula
          </Button>
          <Button kind="quiet" onClick={onClose}>
            Not now
          </Button>
        </div>
      </form>
    </Dialog>
  );
}

function byGroup(families: readonly Family[]): [string, Family[]][] {
  const found = new Map<string, Family[]>();
  for (const family of families) {
    found.set(family.group, [...(found.get(family.group) ?? []), family]);
  }
  return [...found];
}
