import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";

import { client, must, saidAt } from "@/api/client";
import { ROLES } from "@/screens/account/roles";
import { Button } from "@/ui/button";
import { Input } from "@/ui/field";
import { Failed, Loading, Refused } from "@/ui/states";
import { day, time } from "@/units";

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
  if (invitation.isPending) return <Loading what="the invitation" />;
  if (invitation.isError) return <Failed error={invitation.error} />;
  const { kitchen, role, ends_at } = invitation.data;
  return (
    <main className="mx-auto max-w-[34rem] px-6 py-12">
      <title>{`Into ${kitchen} · Bell Crumb`}</title>
      <h1 className="mb-3 text-4xl">Into {kitchen}</h1>
      <p className="mb-6 text-lg text-soft">
        You are asked in as somebody who {ROLES[role].does}. This link is good once, until{" "}
        {day(ends_at)}, {time(ends_at)}.
      </p>
      <form
        className="space-y-4"
        onSubmit={(event) => {
          event.preventDefault();
          join.mutate();
        }}
      >
        <Input
          label="Your name, as it stands in the book"
          value={name ?? invitation.data.name}
          maxLength={80}
          required
          onChange={(event) => setName(event.target.value)}
        />
        <Input
          label="E-mail address"
          type="email"
          autoComplete="username"
          required
          value={email}
          hint="To sign in with. No mail is sent."
          error={saidAt(join.error, "email")}
          onChange={(event) => setEmail(event.target.value)}
        />
        <Input
          label="Password"
          type="password"
          autoComplete="new-password"
          required
          value={password}
          hint="At least twelve characters. If you have an account here already, its password."
          error={saidAt(join.error, "password")}
          onChange={(event) => setPassword(event.target.value)}
        />
        <Refused error={join.error} besides={["email", "password"]} />
        <Button kind="act" type="submit" disabled={join.isPending}>
          Come in
        </Button>
      </form>
    </main>
  );
}
