import type { Shapes } from "@/api/client";
import { CONTENT } from "@/api/defaults";

/** A formula before anything is written in it, in the kitchen's own eggs, filling with all of it. */
export function blankContent(kitchen: Shapes["KitchenOut"]): Shapes["Content"] {
  return {
    ...CONTENT,
    egg_grade: kitchen.egg_grade,
    ring_id: kitchen.rings[0]?.id ?? null,
    fill_by: "all",
  };
}
