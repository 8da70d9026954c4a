import type { Shapes } from "@/api/client";
import type { Segment, Zones } from "@/figures/pot-curve";
import { holds } from "@/units";
import { say } from "@/say";

type Plan = Shapes["PlanOut"];

/** The predicted curves one after the other, with the tempering between them. */
export function segments(plan: Plan): Segment[] {
  const heat: Segment[] = plan.heat ? [{ key: "heat", from_s: 0, points: plan.heat.points }] : [];
  if (!plan.cook) return heat;
  const from = plan.heat ? (plan.heat.points.at(-1)?.t_s ?? 0) + plan.temper_s : 0;
  return [...heat, { key: "cook", from_s: from, points: plan.cook.points }];
}

/** The step everything turns on. */
const mainStep = (plan: Plan): Shapes["Step"] | undefined =>
  plan.steps.find((s) => s.kind === "cook" || s.kind === "bake") ??
  plan.steps.find((s) => s.kind === "heat");

/** The lines that matter in the pot of a plan. */
export function zonesOf(plan: Plan): Zones {
  const step = mainStep(plan);
  return {
    thickens_c: plan.guide === "custard" ? plan.thickens_c : null,
    reach_c: step?.low_c ?? null,
    reach_word:
      step?.kind === "bake"
        ? say("stove.pull_at")
        : step?.hold_s
          ? say("stove.boils_hold_from", { hold_s: holds(step.hold_s) })
          : say("stove.there_at"),
    never_c: step?.kind === "cook" ? (step.never_c ?? null) : null,
    never_word: step?.over ?? say("stove.never"),
  };
}

/** How hot the plate must show. */
export const topOf = (plan: Plan): number => {
  const step = mainStep(plan);
  return Math.max(106, (step?.never_c ?? 0) + 8, (step?.high_c ?? 0) + 10);
};

/** What is said on the way up, as lines of the plate. */
export const cuesOf = (plan: Plan) =>
  (mainStep(plan)?.cues ?? []).map((cue) => ({ c: cue.from_c, word: cue.headline }));
