import { readStored, writeStored } from "@/keep/stored";

export type Light = "day" | "dim";

export const light = (): Light => readStored<Light>("crumb.light") ?? "day";

/** Day is the default; dim is for early mornings. */
export function applyLight(next: Light = light()): void {
  document.documentElement.dataset.light = next;
  writeStored("crumb.light", next);
}
