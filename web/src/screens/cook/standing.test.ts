import { describe, expect, it } from "vitest";

import type { CookEvent } from "@/keep/durable";
import type { Watch } from "@/screens/cook/live";
import { standing } from "@/screens/cook/standing";

const live = (part: Partial<Watch>) => ({ step: "heat", rungs: 0, ended: false, ...part }) as Watch;
const event = (kind: CookEvent["kind"], more: Partial<CookEvent> = {}): CookEvent => ({
  id: "x",
  kind,
  step: "",
  at: "",
  value: null,
  ...more,
});

describe("where a cook stands, counting what has not reached the server", () => {
  it("is where the server says when nothing waits", () => {
    expect(standing(live({ step: "cook", rungs: 3 }), [])).toEqual({
      step: "cook",
      rungs: 3,
      ended: false,
    });
    expect(standing(undefined, [])).toEqual({ step: undefined, rungs: 0, ended: false });
  });

  it("moves with each waiting move, the last one counting", () => {
    const waiting = [
      event("step", { step: "temper" }),
      event("ladle", { value: 2 }),
      event("ladle", { value: 1 }),
      event("step", { step: "cook" }),
    ];
    expect(standing(live({ rungs: 1 }), waiting)).toEqual({ step: "cook", rungs: 2, ended: false });
  });

  it("is over as soon as the end is tapped", () => {
    expect(standing(live({}), [event("end")]).ended).toBe(true);
    expect(standing(live({ ended: true }), [event("pause")]).ended).toBe(true);
  });
});
