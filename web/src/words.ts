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

/** The same where there is little room. */
export const BRIEF: Record<SetClass, string> = { ...DOES, unmould: say("words.stands") };

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

/** How far a syrup is cooked. */
export const STAGES: Record<string, string> = {
  thread: say("words.stage_thread"),
  soft_ball: say("words.stage_soft_ball"),
  firm_ball: say("words.stage_firm_ball"),
  hard_ball: say("words.stage_hard_ball"),
  soft_crack: say("words.stage_soft_crack"),
  hard_crack: say("words.stage_hard_crack"),
  pale: say("words.stage_pale"),
  amber: say("words.stage_amber"),
  deep_amber: say("words.stage_deep_amber"),
  dark: say("words.stage_dark"),
  burnt: say("words.stage_burnt"),
};

/** How likely a crack is. */
export const RISKS: Record<NonNullable<Shapes["BakeOut"]["crack"]>, string> = {
  low: say("words.risk_low"),
  middling: say("words.risk_middling"),
  high: say("words.risk_high"),
};

/** What moves an oven’s air. */
export const OVEN_KINDS: Record<"static" | "fan", string> = {
  static: say("words.oven_static"),
  fan: say("words.oven_fan"),
};
