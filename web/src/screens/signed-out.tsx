import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";

import { onSignedOut } from "@/api/client";
import { SignInForm } from "@/screens/sign-in";
import { Dialog } from "@/ui/dialog";

/** The session ended while somebody works: sign in over the work, which stays as it is. */
export function SignedOut({ email }: { email: string }) {
  const [open, setOpen] = useState(false);
  const store = useQueryClient();
  useEffect(() => onSignedOut(() => setOpen(true)), []);
  return (
    <Dialog
      open={open}
      title="Please sign in again"
      said="Your session has ended. What you typed and did is kept here and sent as soon as you are back."
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
