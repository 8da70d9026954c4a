import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";

import { client, must, saidAt } from "@/api/client";
import { ROLES } from "@/screens/account/roles";
import { Button } from "@/ui/button";
import { Input } from "@/ui/field";
import { Failed, Loading, Refused } from "@/ui/states";
import { day, time } from "@/units";
import { say } from "@/say";

/** An invitation taken up: a name, an address, a password, and in. */
export default function Join({ secret }: { secret: string }) {
  const go = useNavigate();
  const store = useQueryClient();
  const invitation = useQuery({
    queryKey: ["join", secret],
    queryFn: () => must(client.GET("/api/join/{secret}", { params: { path: { secret } } })),
    retry: false,
  });
  const [email, setEmail] = useState("");
  const [name, setName] = useState<string | null>(null);
  const [password, setPassword] = useState("");
  const join = useMutation({
    mutationFn: () =>
      must(
        client.POST("/api/join/{secret}", {
          params: { path: { secret } },
          body: { email, name: name ?? invitation.data?.name ?? "", password },
        }),
      ),
    onSuccess: (session) => {
      store.setQueryData(["session"], session);
      void go("/", { replace: true });
    },
  });
  if (invitation.isPending) return <Loading what={say("account.the_invitation")} />;
  if (invitation.isError) return <Failed error={invitation.error} />;
  const { kitchen, role, ends_at } = invitation.data;
  return (
    <main className="mx-auto max-w-[34rem] px-6 py-12">
      <title>{say("account.into_bell_crumb", { kitchen })}</title>
      <h1 className="mb-3 text-4xl">{say("account.into", { kitchen })}</h1>
      <p className="mb-6 text-lg text-soft">
        {say("account.you_are_asked_in_as_somebody", {
          does: ROLES[role].does,
          ends_at: day(ends_at),
          ends_at2: time(ends_at),
        })}
      </p>
      <form
        className="space-y-4"
        onSubmit={(event) => {
          event.preventDefault();
          join.mutate();
        }}
      >
        <Input
          label={say("account.your_name_as_it_stands_in")}
          value={name ?? invitation.data.name}
          maxLength={80}
          required
          onChange={(event) => setName(event.target.value)}
        />
        <Input
          label={say("account.e_mail_address")}
          type="email"
          autoComplete="username"
          required
          value={email}
          hint={say("account.to_sign_in_with_no_mail")}
          error={saidAt(join.error, "email")}
          onChange={(event) => setEmail(event.target.value)}
        />
        <Input
          label={say("account.password")}
          type="password"
          autoComplete="new-password"
          required
          value={password}
          hint={say("account.at_least_twelve_characters_if_you")}
          error={saidAt(join.error, "password")}
          onChange={(event) => setPassword(event.target.value)}
        />
        <Refused error={join.error} besides={["email", "password"]} />
        <Button kind="act" type="submit" disabled={join.isPending}>
          {say("account.come_in")}
        </Button>
      </form>
    </main>
  );
}
