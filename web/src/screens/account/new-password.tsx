import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { client, must, saidAt } from "@/api/client";
import { Button } from "@/ui/button";
import { Input } from "@/ui/field";
import { Refused } from "@/ui/states";
import { say } from "@/say";

const HINT = say("account.at_least_twelve_characters_three_words");

/** The password now and the next one, each with what is wrong with it at its own field. */
export function NewPassword({ word, onDone }: { word: string; onDone?: () => void }) {
  const store = useQueryClient();
  const [old, setOld] = useState("");
  const [next, setNext] = useState("");
  const change = useMutation({
    mutationFn: () => must(client.POST("/api/session/password", { body: { old, new: next } })),
    onSuccess: (session) => {
      store.setQueryData(["session"], session);
      void store.invalidateQueries({ queryKey: ["signed-in"] });
      setOld("");
      setNext("");
      onDone?.();
    },
  });
  return (
    <form
      className="max-w-md space-y-4"
      onSubmit={(event) => {
        event.preventDefault();
        change.mutate();
      }}
    >
      <Input
        label={say("account.password_now")}
        type="password"
        autoComplete="current-password"
        required
        value={old}
        error={saidAt(change.error, "old")}
        onChange={(event) => setOld(event.target.value)}
      />
      <Input
        label={say("account.password_from_now_on")}
        type="password"
        autoComplete="new-password"
        required
        value={next}
        hint={HINT}
        error={saidAt(change.error, "new")}
        onChange={(event) => setNext(event.target.value)}
      />
      <Refused error={change.error} besides={["old", "new"]} />
      <Button kind="act" type="submit" disabled={change.isPending || !old || !next}>
        {word}
      </Button>
      {change.isSuccess && (
        <p role="status">{say("account.changed_everywhere_else_you_were_signed")}</p>
      )}
    </form>
  );
}
