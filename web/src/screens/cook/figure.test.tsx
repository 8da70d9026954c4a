// @vitest-environment jsdom
import { cleanup, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";

import type { Shapes } from "@/api/client";
import { Figure } from "@/screens/cook/figure";
import type { Watch } from "@/screens/cook/live";
import type { Units } from "@/units";

afterEach(cleanup);

const STEP = {
  kind: "cook", title: "Cook the cream", low_c: 82, high_c: null, never_c: 86, hold_s: 0, grams: 0,
} as unknown as Shapes["Step"]; // prettier-ignore
const MOMENT = {
  done: false, figure: 78.46, figure_unit: "c", headline: "Stir", hold_left_s: null,
  next_move: "keep the whisk on the floor of the pot", rate_k_per_min: 4, to_target_s: 50,
  urgency: "calm",
} as Shapes["Moment"]; // prettier-ignore
interface Said {
  moment?: Partial<Shapes["Moment"]> | null;
  step?: Partial<Shapes["Step"]>;
  watch?: Partial<Watch>;
  units?: Units;
  probe?: string | null;
}
const shown = ({
  moment = {},
  step = {},
  watch = {},
  units = "metric",
  probe = "p",
}: Said = {}) => {
  const live = {
    moment: moment && { ...MOMENT, ...moment },
    probe_age_s: 1,
    probe_doubt: "",
    ...watch,
  };
  render(
    <Figure
      step={{ ...STEP, ...step }}
      live={moment === null ? undefined : (live as unknown as Watch)}
      {...{ units, probe }}
    />,
  );
  const page = screen.getByRole("region").textContent.replaceAll("\u202f", " ");
  const figure = screen.getByTestId("figure").textContent;
  const hot = screen.getByTestId("headline").className.includes("bg-burnt");
  cleanup();
  return { figure, page, hot };
};

describe("the one figure of a step", () => {
  it("is the temperature to the tenth where a degree curdles it, whole where not", () => {
    expect(shown().figure).toBe("78.5°C");
    expect(shown({ step: { never_c: null } }).figure).toBe("78°C");
    expect(shown({ step: { kind: "check" } }).figure).toBe("78°C");
    expect(shown({ units: "us" }).figure).toBe("173.2°F");
  });

  it("is time or weight where the step goes by those", () => {
    expect(shown({ moment: { figure: 95, figure_unit: "s" } }).figure).toBe("1:35");
    expect(shown({ moment: { figure: 130, figure_unit: "g" }, step: { grams: 500 } }).figure).toBe(
      "130g",
    );
  });

  it("counts a hold down in whole seconds, and is done when that is over", () => {
    const hold = shown({ moment: { hold_left_s: 3.2 } });
    expect(hold.figure).toMatch(/^4/);
    expect(hold.page).toContain("78");
    expect(shown({ moment: { hold_left_s: 0, done: true } }).figure).toBe("78.5°C");
  });

  it("is a dash before anything is known, with the step’s own title to go by", () => {
    expect(shown({ moment: { figure: null } }).figure).toBe("–");
    const before = shown({ moment: null });
    expect(before.figure).toBe("–");
    expect(before.page).toContain("Cook the cream");
  });

  it("says its target, and what it must never pass only where it is cooked", () => {
    expect(shown().page).toContain("82 °C");
    expect(shown().page).toContain("86 °C");
    expect(shown({ step: { kind: "heat" } }).page).not.toContain("86 °C");
    expect(shown({ moment: { hold_left_s: 5 } }).page).not.toContain("82 °C");
    const check = { kind: "check", low_c: null, high_c: 60 } as const;
    expect(shown({ step: check }).page).toMatch(/under\s*60 °C/);
    expect(shown({ step: { ...check, low_c: 55 } }).page).toContain("55 °C");
  });

  it("says how long to go, but not twice, and not through a hold", () => {
    expect(shown().page).toContain("0:50");
    const left = shown({ moment: { figure: 50, figure_unit: "s" } }).page;
    expect(left.match(/0:50/g)).toHaveLength(1);
    expect(shown({ moment: { hold_left_s: 9 } }).page).not.toContain("0:50");
  });

  it("warns of a probe that is silent or in doubt, and of none at all", () => {
    expect(shown({ watch: { probe_age_s: 12 } }).page).not.toContain("silent");
    expect(shown({ watch: { probe_age_s: 13 } }).page).toContain("silent");
    expect(shown({ watch: { probe_doubt: "It hangs in the steam." } }).page).toContain(
      "in the steam",
    );
    expect(shown({ probe: null }).page).toMatch(/no probe/i);
    expect(shown({ probe: null, step: { low_c: null } }).page).not.toMatch(/no probe/i);
  });

  it("is loud when it is urgent, for eyes and for a reader of screens", () => {
    expect([shown().hot, shown({ moment: { urgency: "soon" } }).hot]).toEqual([false, false]);
    expect([
      shown({ moment: { urgency: "now" } }).hot,
      shown({ moment: { urgency: "wrong" } }).hot,
    ]).toEqual([true, true]);
    const aloud = (urgency: "calm" | "soon") =>
      shown({ moment: { urgency } }).page.match(/keep the whisk/g);
    expect([aloud("calm")?.length, aloud("soon")?.length]).toEqual([1, 2]);
  });
});
