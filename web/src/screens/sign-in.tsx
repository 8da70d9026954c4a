import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { ApiError, client, must } from "@/api/client";
import { Serving } from "@/figures/glass";
import { Hatches } from "@/figures/hatches";
import { Button } from "@/ui/button";
import { Input } from "@/ui/field";
import { CLASSES } from "@/words";
import { say } from "@/say";

/** The form itself: on its own page, and over a cook whose session has ended. */
export function SignInForm({ email: given = "", onDone }: { email?: string; onDone?: () => void }) {
  const store = useQueryClient();
  const [email, setEmail] = useState(given);
  const [password, setPassword] = useState("");
  const signIn = useMutation({
    mutationFn: () => must(client.POST("/api/session", { body: { email, password } })),
    onSuccess: (session) => {
      store.setQueryData(["session"], session);
      onDone?.();
    },
  });
  const error = signIn.error instanceof ApiError ? signIn.error.message : null;
  return (
    <form
      className="space-y-5"
      onSubmit={(event) => {
        event.preventDefault();
        signIn.mutate();
      }}
    >
      <Input
        label={say("sign_in.e_mail_address")}
        type="email"
        autoComplete="username"
        required
        value={email}
        onChange={(event) => setEmail(event.target.value)}
      />
      <Input
        label={say("sign_in.password")}
        type="password"
        autoComplete="current-password"
        required
        value={password}
        error={error}
        onChange={(event) => setPassword(event.target.value)}
      />
      <Button kind="act" type="submit" disabled={signIn.isPending} className="w-full">
        {signIn.isPending ? say("sign_in.signing_in") : say("sign_in.sign_in")}
      </Button>
    </form>
  );
}

export function SignIn() {
  return (
    <main className="mx-auto grid min-h-dvh max-w-[64rem] items-center gap-10 px-6 py-10 md:grid-cols-[1.2fr_1fr]">
      <Hatches />
      <div>
        <h1 className="mb-4 text-6xl italic">{say("sign_in.bell_crumb")}</h1>
        <p className="mb-8 max-w-md text-xl text-soft">
          {say("sign_in.from_the_lines_of_a_formula")}
        </p>
        <div className="flex flex-wrap gap-2" aria-hidden="true">
          {CLASSES.map((klass) => (
            <Serving key={klass} klass={klass} size={70} />
          ))}
        </div>
      </div>
      <div className="border-[1.5px] border-ink bg-sheet p-7">
        <h2 className="mb-5 text-2xl">{say("sign_in.into_the_kitchen")}</h2>
        <SignInForm />
      </div>
    </main>
  );
}
