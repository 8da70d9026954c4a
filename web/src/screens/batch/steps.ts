import { say } from "@/say";

const WORDS: Record<string, string> = {
  ready: say("batch.ready"),
  heat: say("batch.liquid"),
  temper: say("batch.temper"),
  cook: say("batch.cook"),
  finish: say("batch.finish"),
  cool: say("batch.cool"),
  chill: say("batch.chill"),
  let_down: say("batch.let_down"),
  fill: say("batch.filled"),
  out: say("batch.out"),
  clean: say("batch.step_clean"),
  pour: say("batch.step_pour"),
  stop: say("batch.step_stop"),
  dry: say("batch.step_dry"),
  eggs: say("batch.step_eggs"),
  bake: say("batch.step_bake"),
  mix: say("batch.step_mix"),
  infuse: say("batch.step_infuse"),
  meringue: say("batch.step_meringue"),
  sieve: say("batch.step_sieve"),
  soft: say("batch.step_soft"),
  sugar: say("batch.step_sugar"),
  use: say("batch.step_use"),
  emulsify: say("batch.step_emulsify"),
  whip: say("batch.step_whip"),
  blend: say("batch.step_blend"),
  gelatine: say("batch.step_gelatine"),
  roux: say("batch.step_roux"),
  fold: say("batch.step_fold"),
  butter: say("batch.step_butter"),
  melt: say("batch.step_melt"),
};

/** What a step of a cook is called where there is room for a word. */
export const stepWord = (key: string): string => WORDS[key] ?? key;
