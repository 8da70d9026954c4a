import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { ROLE_OPTIONS, ROLES, type Role } from "@/screens/account/roles";
import { Button } from "@/ui/button";
import { Select } from "@/ui/field";
import { Refused } from "@/ui/states";
import { say } from "@/say";

/** Everybody in the kitchen and what they do; a chef gives roles and takes people out. */
export function People() {
  const { kid, kitchen, canEdit } = useBench();
  const store = useQueryClient();
  const [asked, setAsked] = useState<number | null>(null);
  const settle = (people: Shapes["PersonOut"][]) => {
    store.setQueryData(["kitchen", kid], { ...kitchen, people });
    void store.invalidateQueries({ queryKey: ["kitchen", kid] });
    void store.invalidateQueries({ queryKey: ["invites", kid] });
    void store.invalidateQueries({ queryKey: ["security", kid] });
  };
  const change = useMutation({
    mutationFn: ({ id, role }: { id: number; role: Role }) =>
      must(
        client.PATCH("/api/k/{kid}/people/{person_id}", {
          params: { path: { kid, person_id: id } },
          body: { role },
        }),
      ),
    onSuccess: settle,
  });
  const remove = useMutation({
    mutationFn: (id: number) =>
      must(
        client.DELETE("/api/k/{kid}/people/{person_id}", {
          params: { path: { kid, person_id: id } },
        }),
      ),
    onSuccess: settle,
    onSettled: () => setAsked(null),
  });
  const error = change.error ?? remove.error;
  return (
    <section aria-labelledby="people">
      <h2 id="people" className="mb-2 text-2xl">
        {say("account.in_the_kitchen")}
      </h2>
      <ul>
        {kitchen.people.map((p) => (
          <li key={p.id} className="rule-b flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
            <span className="min-w-40 flex-1">
              {p.name}
              {p.me && <b className="ml-2">{say("account.you")}</b>}
              {p.email && (
                <span className="caption block wrap-anywhere">
                  {p.email.split(/(?<=@)/).map((half) => (
                    <span key={half} className="inline-block max-w-full">
                      {half}
                    </span>
                  ))}
                </span>
              )}
            </span>
            {canEdit ? (
              <>
                <div className="w-56">
                  <Select
                    label={say("account.what_does", { p: p.name })}
                    value={p.role}
                    disabled={change.isPending}
                    options={ROLE_OPTIONS}
                    onValue={(role) => change.mutate({ id: p.id, role })}
                  />
                </div>
                {asked === p.id ? (
                  <Button kind="act" onClick={() => remove.mutate(p.id)}>
                    {say("account.yes_take_out")}
                  </Button>
                ) : (
                  <Button
                    kind="quiet"
                    className="!px-2"
                    aria-label={say("account.take_out_of_the_kitchen", { p: p.name })}
                    onClick={() => setAsked(p.id)}
                  >
                    {say("account.take_out")}
                  </Button>
                )}
              </>
            ) : (
              <span className="caption">{ROLES[p.role].does}</span>
            )}
          </li>
        ))}
      </ul>
      <Refused error={error} className="mt-2" />
      <p className="caption mt-2">{say("account.batches_stay_in_the_book_under")}</p>
    </section>
  );
}
