import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { ApiError, client, must } from "@/api/client";
import { useBench } from "@/bench";
import { newId } from "@/keep/id";
import { ROLES, type Role } from "@/screens/account/roles";
import { Button } from "@/ui/button";
import { Input, Select } from "@/ui/field";
import { day } from "@/units";

/** Links that let one person in, once, within a week. */
export function Invites() {
  const { kid } = useBench();
  const store = useQueryClient();
  const [name, setName] = useState("");
  const [role, setRole] = useState<Role>("cook");
  const [link, setLink] = useState<{ name: string; url: string } | null>(null);
  const key = ["invites", kid];
  const open = useQuery({
    queryKey: key,
    queryFn: () => must(client.GET("/api/k/{kid}/invites", { params: { path: { kid } } })),
  });
  const make = useMutation({
    mutationFn: () =>
      must(
        client.POST("/api/k/{kid}/invites", {
          params: { path: { kid } },
          body: { id: newId(), name: name.trim(), role },
        }),
      ),
    onSuccess: (made) => {
      setLink({ name: made.name, url: `${window.location.origin}/join/${made.secret}` });
      setName("");
      void store.invalidateQueries({ queryKey: key });
    },
  });
  const back = useMutation({
    mutationFn: (id: string) =>
      must(
        client.DELETE("/api/k/{kid}/invites/{invite_id}", {
          params: { path: { kid, invite_id: id } },
        }),
      ),
    onSuccess: (left) => store.setQueryData(key, left),
  });
  return (
    <section aria-labelledby="invite">
      <h2 id="invite" className="mb-2 text-2xl">
        Ask somebody in
      </h2>
      <form
        className="grid items-end gap-4 sm:grid-cols-[minmax(0,1fr)_14rem_auto]"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) make.mutate();
        }}
      >
        <Input
          label="Their name"
          value={name}
          maxLength={80}
          placeholder="Weekend cook"
          error={make.error instanceof ApiError ? make.error.message : null}
          onChange={(event) => setName(event.target.value)}
        />
        <Select
          label="They will be"
          value={role}
          onChange={(event) => setRole(event.target.value as Role)}
        >
          {Object.entries(ROLES).map(([key, { name: word, does }]) => (
            <option key={key} value={key}>
              {word}: {does}
            </option>
          ))}
        </Select>
        <Button type="submit" disabled={!name.trim() || make.isPending}>
          Make a link
        </Button>
      </form>
      {link && (
        <div role="status" className="mt-3 border-[1.5px] border-burnt p-3">
          <p>For {link.name}, shown this once. Pass it on by hand; no mail is sent.</p>
          <code className="my-1 block break-all select-all">{link.url}</code>
        </div>
      )}
      <ul className="mt-3">
        {open.data?.map((invite) => (
          <li key={invite.id} className="rule-b flex items-center justify-between gap-4 py-1">
            <span>
              {invite.name}{" "}
              <span className="caption">
                as {ROLES[invite.role].name}, until {day(invite.ends_at)}
              </span>
            </span>
            <Button
              kind="quiet"
              className="!px-2"
              aria-label={`Take the invitation of ${invite.name} back`}
              onClick={() => back.mutate(invite.id)}
            >
              take back
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
