import type { Shapes } from "@/api/client";
import { say } from "@/say";

export type SetClass = Shapes["SetOut"]["class"];

export const CLASSES: readonly SetClass[] = ["pour", "nappe", "spoon", "pipe", "slice", "unmould"];

/** What each class of set does, as a cook would say it. */
export const DOES: Record<SetClass, string> = {
  pour: say("words.pours"),
  nappe: say("words.coats_a_spoon"),
  spoon: say("words.spoons"),
  pipe: say("words.pipes"),
  slice: say("words.slices"),
  unmould: say("words.stands_unmoulded"),
};

export const SIGN: Record<SetClass, string> = {
  pour: say("words.runs_like_cream"),
  nappe: say("words.a_fingers_trail_stays"),
  spoon: say("words.mounds_softly"),
  pipe: say("words.holds_a_ridge"),
  slice: say("words.cuts_clean"),
  unmould: say("words.stands_on_a_plate"),
};

export const SCHOOLS: Record<Shapes["Content"]["school"], { name: string; does: string }> = {
  hot_into_eggs: {
    name: say("words.hot_onto_eggs"),
    does: say("words.ladle_by_ladle_into_the_bowl"),
  },
  eggs_after_boil: {
    name: say("words.eggs_after_the_boil"),
    does: say("words.starch_boils_first_eggs_fold_in"),
  },
  held_back_liquid: {
    name: say("words.held_back_liquid"),
    does: say("words.eggs_loosened_with_cold_liquid_poured"),
  },
};
