import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";

import { ApiError, client, must } from "@/api/client";
import { useCraft } from "@/api/queries";
import { useBench } from "@/bench";
import { familyGroups } from "@/families";
import { blankContent } from "@/keep/blank";
import { newId } from "@/keep/id";
import { Button } from "@/ui/button";
import { Choice } from "@/ui/choice";
import { Dialog } from "@/ui/dialog";
import { Input } from "@/ui/field";

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
        <Choice
          label="Begin with"
          groups={familyGroups(families, "my own lines")}
          value={from}
          onValue={setFrom}
          hint={chosen ? undefined : "Your own lines, or the middle of a family to make yours."}
        />
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
