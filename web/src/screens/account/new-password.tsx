import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { client, must, saidAt } from "@/api/client";
import { Button } from "@/ui/button";
import { Input } from "@/ui/field";
import { Refused } from "@/ui/states";

const HINT = "At least twelve characters; three words nobody expects together do well.";

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
        label="Password now"
        type="password"
        autoComplete="current-password"
        required
        value={old}
        error={saidAt(change.error, "old")}
        onChange={(event) => setOld(event.target.value)}
      />
      <Input
        label="Password from now on"
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
        <p role="status">Changed. Everywhere else you were signed in, you are signed out.</p>
      )}
    </form>
  );
}
