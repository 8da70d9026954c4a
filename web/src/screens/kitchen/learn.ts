import type { QueryClient } from "@tanstack/react-query";

import type { Shapes } from "@/api/client";

/** Take in the changed kitchen; what was asked of its ovens and colds before is asked again. */
export function learn(store: QueryClient, kid: string, next: Shapes["KitchenOut"]): void {
  store.setQueryData(["kitchen", kid], next);
  for (const asked of ["bake", "convert", "crust", "cool"]) {
    void store.invalidateQueries({ queryKey: [asked, kid] });
  }
}
