import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactNode } from "react";

import { ApiError, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { learn } from "@/screens/kitchen/learn";
import { Button } from "@/ui/button";
import { Input } from "@/ui/field";
import { say } from "@/say";

interface Props {
  /** What is added: “a ring”. */
  word: string;
  placeholder: string;
  add: (name: string) => Promise<Shapes["KitchenOut"]>;
  /** What is asked of it beside its name. */
  children: ReactNode;
}

/** Something more in the kitchen: its name, what else is asked, kept or left. */
export function Adding({ word, placeholder, add, children }: Props) {
  const { kid, canEdit } = useBench();
  const store = useQueryClient();
  const [open, setOpen] = useState(false);
  const [name, setName] = useState("");
  const keep = useMutation({
    mutationFn: () => add(name.trim()),
    onSuccess: (next) => {
      learn(store, kid, next);
      setOpen(false);
      setName("");
    },
  });
  if (!canEdit) return null;
  if (!open) {
    return (
      <Button className="mt-3" onClick={() => setOpen(true)}>
        {say("kitchen.add", { word })}
      </Button>
    );
  }
  return (
    <form
      className="mt-3 grid gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (name.trim()) keep.mutate();
      }}
    >
      <Input
        label={say("kitchen.name")}
        value={name}
        maxLength={60}
        placeholder={placeholder}
        error={keep.error instanceof ApiError ? keep.error.message : null}
        onChange={(event) => setName(event.target.value)}
      />
      <div className="grid grid-cols-2 gap-4">{children}</div>
      <div className="flex gap-3">
        <Button type="submit" kind="act" disabled={!name.trim() || keep.isPending}>
          {say("kitchen.keep_it")}
        </Button>
        <Button onClick={() => setOpen(false)}>{say("kitchen.leave_it")}</Button>
      </div>
    </form>
  );
}
