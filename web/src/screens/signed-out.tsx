import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";

import { onSignedOut } from "@/api/client";
import { SignInForm } from "@/screens/sign-in";
import { Dialog } from "@/ui/dialog";
import { say } from "@/say";

/** The session ended while somebody works: sign in over the work, which stays as it is. */
export function SignedOut({ email }: { email: string }) {
  const [open, setOpen] = useState(false);
  const store = useQueryClient();
  useEffect(() => onSignedOut(() => setOpen(true)), []);
  return (
    <Dialog
      open={open}
      title={say("signed_out.please_sign_in_again")}
      said={say("signed_out.your_session_has_ended_what_you")}
    >
      <SignInForm
        email={email}
        onDone={() => {
          setOpen(false);
          void store.invalidateQueries({ predicate: (q) => q.queryKey[0] !== "session" });
        }}
      />
    </Dialog>
  );
}
