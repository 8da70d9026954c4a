import type { CookEvent } from "@/keep/outbox";
import type { Watch } from "@/screens/cook/live";

/** Where the cook stands, counting what has not reached the server yet. */
export function standing(
  live: Watch | undefined,
  waiting: readonly CookEvent[],
): { step: string | undefined; rungs: number; ended: boolean } {
  let step = live?.step;
  let rungs = live?.rungs ?? 0;
  let ended = live?.ended ?? false;
  for (const event of waiting) {
    if (event.kind === "step") step = event.step;
    if (event.kind === "ladle") rungs = Math.max(rungs, event.value ?? 0);
    if (event.kind === "end") ended = true;
  }
  return { step, rungs, ended };
}
