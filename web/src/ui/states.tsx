import type { ReactNode } from "react";

import { ApiError } from "@/api/client";
import { Button } from "@/ui/button";
import { say } from "@/say";

/** While something is fetched: said, after a moment, so that quick answers do not flicker. */
export function Loading({ what }: { what: string }) {
  return (
    <p className="caption p-8 italic" role="status">
      {say("ui.fetching", { what })}
    </p>
  );
}

export function Failed({ error, again }: { error: unknown; again?: () => void }) {
  const said =
    error instanceof ApiError ? error.message : say("ui.something_went_wrong_on_this_page");
  return (
    <div className="max-w-prose p-8" role="alert">
      <p className="mb-4 text-lg">{said}</p>
      {again && <Button onClick={again}>{say("ui.try_again")}</Button>}
    </div>
  );
}

interface RefusedProps {
  error: unknown;
  /** Fields that say what is wrong with them themselves. */
  besides?: string[];
  className?: string;
}

/** Why something asked for was not done, in the server's sentence. */
export function Refused({ error, besides = [], className = "" }: RefusedProps) {
  if (!(error instanceof ApiError) || besides.includes(error.field ?? "")) return null;
  return (
    <p role="alert" className={`text-burnt ${className}`}>
      {error.message}
    </p>
  );
}

export function Empty({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="mx-auto max-w-[34rem] py-10">
      <h2 className="mb-3 text-3xl">{title}</h2>
      <div className="space-y-3 text-soft">{children}</div>
    </div>
  );
}
