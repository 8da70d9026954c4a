import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { ApiError, client, must } from "@/api/client";
import { useBench } from "@/bench";
import { SendIds } from "@/keep/id";
import { ROLE_OPTIONS, ROLES, type Role } from "@/screens/account/roles";
import { Button } from "@/ui/button";
import { Input, Select } from "@/ui/field";
import { day } from "@/units";
import { say } from "@/say";

/** Links that let one person in, once, within a week. */
export function Invites() {
  const { kid } = useBench();
  const store = useQueryClient();
  const [name, setName] = useState("");
  const [role, setRole] = useState<Role>("cook");
  const [ids] = useState(() => new SendIds());
  const [link, setLink] = useState<{ name: string; url: string } | null>(null);
  const key = ["invites", kid];
  const open = useQuery({
    queryKey: key,
    queryFn: () => must(client.GET("/api/k/{kid}/invites", { params: { path: { kid } } })),
  });
  const make = useMutation({
    mutationFn: (whom: { name: string; role: Role }) =>
      must(
        client.POST("/api/k/{kid}/invites", {
          params: { path: { kid } },
          body: { id: ids.of(whom.role + whom.name), ...whom },
        }),
      ),
    onSuccess: (made, whom) => {
      ids.arrived(whom.role + whom.name);
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
        {say("account.ask_somebody_in")}
      </h2>
      <form
        className="grid items-end gap-4 sm:grid-cols-[minmax(0,1fr)_14rem_auto]"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) make.mutate({ name: name.trim(), role });
        }}
      >
        <Input
          label={say("account.their_name")}
          value={name}
          maxLength={80}
          placeholder={say("account.weekend_cook")}
          error={make.error instanceof ApiError ? make.error.message : null}
          onChange={(event) => setName(event.target.value)}
        />
        <Select
          label={say("account.they_will_be")}
          value={role}
          options={ROLE_OPTIONS}
          onValue={setRole}
        />
        <Button type="submit" disabled={!name.trim() || make.isPending}>
          {say("account.make_a_link")}
        </Button>
      </form>
      {link && (
        <div role="status" className="mt-3 border-[1.5px] border-burnt p-3">
          <p>{say("account.for_shown_this_once_pass_it", { link: link.name })}</p>
          <code className="my-1 block break-all select-all">{link.url}</code>
        </div>
      )}
      <ul className="mt-3">
        {open.data?.map((invite) => (
          <li key={invite.id} className="rule-b flex items-center justify-between gap-4 py-1">
            <span>
              {invite.name}{" "}
              <span className="caption">
                {say("account.as_until", {
                  roles: ROLES[invite.role].name,
                  ends_at: day(invite.ends_at),
                })}
              </span>
            </span>
            <Button
              kind="quiet"
              className="!px-2"
              aria-label={say("account.take_the_invitation_of_back", { invite: invite.name })}
              onClick={() => back.mutate(invite.id)}
            >
              {say("account.take_back")}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
