import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";

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
import { say } from "@/say";

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
    <Dialog open onClose={onClose} title={say("new_dessert.what_is_it_called")}>
      <form
        className="space-y-4"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) add.mutate();
        }}
      >
        <Input
          label={say("new_dessert.name_of_the_dessert")}
          value={name}
          maxLength={120}
          autoFocus
          placeholder={say("new_dessert.gooseberry_and_hay_cream")}
          error={add.error instanceof ApiError ? add.error.message : null}
          onChange={(event) => setName(event.target.value)}
        />
        <Choice
          label={say("new_dessert.begin_with")}
          groups={familyGroups(families, say("new_dessert.my_own_lines"))}
          value={from}
          onValue={setFrom}
          hint={chosen ? undefined : say("new_dessert.your_own_lines_or_the_middle")}
        />
        {chosen && (
          <p className="rule-t pt-2 text-soft" data-testid="starter">
            {chosen.starter.join(" · ")}
          </p>
        )}
        <p className="caption">
          <Link className="way" to={`/k/${kid}/files`}>
            {say("new_dessert.paste_a_recipe_you_have_copied")}
          </Link>
        </p>
        <div className="flex gap-3 pt-1">
          <Button kind="act" type="submit" disabled={!name.trim() || add.isPending}>
            {say("new_dessert.write_the_formula")}
          </Button>
          <Button kind="quiet" onClick={onClose}>
            {say("new_dessert.not_now")}
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
