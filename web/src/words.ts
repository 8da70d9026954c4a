import type { Shapes } from "@/api/client";

export type SetClass = Shapes["SetOut"]["class"];

export const CLASSES: readonly SetClass[] = ["pour", "nappe", "spoon", "pipe", "slice", "unmould"];

/** What each class of set does, as a cook would say it. */
export const DOES: Record<SetClass, string> = {
  pour: "Pours",
  nappe: "Coats a spoon",
  spoon: "Spoons",
  pipe: "Pipes",
  slice: "Slices",
  unmould: "Stands unmoulded",
};

export const SIGN: Record<SetClass, string> = {
  pour: "runs like cream",
  nappe: "a finger’s trail stays",
  spoon: "mounds softly",
  pipe: "holds a ridge",
  slice: "cuts clean",
  unmould: "stands on a plate",
};

export const SCHOOLS: Record<Shapes["Content"]["school"], { name: string; does: string }> = {
  hot_into_eggs: {
    name: "Hot onto eggs",
    does: "Ladle by ladle into the bowl, back to the pot. One bowl, even.",
  },
  eggs_after_boil: {
    name: "Eggs after the boil",
    does: "Starch boils first, eggs fold in. Softer, less eggy; check the heat it reaches.",
  },
  held_back_liquid: {
    name: "Held-back liquid",
    does: "Eggs loosened with cold liquid, poured into the pot. Nothing to temper, no lumps.",
  },
};
