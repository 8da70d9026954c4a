// @vitest-environment jsdom
import { cleanup, render } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";

import type { Shapes } from "@/api/client";
import { PracticePot } from "@/figures/practice";
import { PracticeOven } from "@/figures/practice-oven";
import { hatched, marksOf, plateOf, strays, wordsOn } from "@/test/drawn";

afterEach(cleanup);

type Run = Shapes["RehearsalOut"];
const RUN = {
  stage: "pot", heat: 5, heats: 9, lifted: false, stirring: true, damage: {}, temp_c: 60, held_s: 0,
  colour: 0, whipped_share: 0, poured_g: 0, to_pour_g: 500, step: { thickens_c: 78 },
} as unknown as Run; // prettier-ignore
const pot = (run: Partial<Run> = {}) =>
  plateOf(render(<PracticePot run={{ ...RUN, ...run }} />).container);
const flames = (plate: Element) => marksOf(plate, "path[stroke='var(--burnt)']");
const look = (run: Partial<Run>) =>
  ["over", "slice", "spoon", "pipe", "pour"].find((h) => hatched(pot(run), h).length > 0);

describe("the pot that is practised on", () => {
  it("has a flame as high as its heat, and none when it is off the ring", () => {
    const tall = (run: Partial<Run>) => {
      const [f] = flames(pot(run));
      return f ? f.bottom - f.top : 0;
    };
    expect(flames(pot())).toHaveLength(5);
    expect(tall({ heat: 6 }) / tall({ heat: 3 })).toBeCloseTo(2, 1);
    expect(flames(pot({ heat: 0 }))).toEqual([]);
    expect(flames(pot({ lifted: true }))).toEqual([]);
    expect(flames(pot({ stage: "bowl" }))).toEqual([]);
    const top = (run: Partial<Run>) => marksOf(pot(run), "path[stroke-width='4']")[0]?.top ?? 0;
    expect(top({}) - top({ lifted: true })).toBeCloseTo(26, 5);
  });

  it("is hatched by what has become of it", () => {
    expect(look({})).toBe("pour");
    expect(look({ temp_c: 78 })).toBe("pipe");
    expect(look({ held_s: 2 })).toBe("pipe");
    expect(look({ damage: { scrambled: 0.24 } })).toBe("pour");
    expect(look({ damage: { scrambled: 0.25 } })).toBe("over");
    expect(look({ stage: "mixer", whipped_share: 0.5 })).toBe("spoon");
    expect(look({ stage: "mixer", whipped_share: 0.8 })).toBe("slice");
  });

  it("says the worst of what is happening to it, from a tenth on", () => {
    expect(wordsOn(pot({ damage: { scorched: 0.09 } }))).toEqual([]);
    expect(wordsOn(pot({ damage: { scorched: 0.2, lumps: 0.6 } }))).toEqual(["lumps"]);
    expect(pot({ damage: { lumps: 0.6 } }).getAttribute("aria-label")).toContain("lumps");
  });

  it("fills the bowl with what is poured and the mixer with what is whipped", () => {
    const level = (run: Partial<Run>) => hatched(pot(run), "pour")[0]?.top ?? NaN;
    const bowl = (poured_g: number) =>
      level({ stage: "bowl", poured_g, to_pour_g: 500 - poured_g });
    expect(bowl(0)).toBeGreaterThan(bowl(250));
    expect(bowl(250) - bowl(500)).toBeCloseTo(bowl(0) - bowl(250), 5);
    const mixer = (share: number) =>
      hatched(pot({ stage: "mixer", whipped_share: share }), "spoon")[0]?.top ?? NaN;
    expect(mixer(0.2)).toBeGreaterThan(mixer(0.6));
  });

  it("colours sugar from clear to burnt, each its own", () => {
    const fill = (colour: number) => {
      const plate = pot({ stage: "syrup", colour });
      return plate.querySelector("g[clip-path] path")?.getAttribute("fill");
    };
    const seen = [0, 0.3, 1, 2, 3].map(fill);
    expect(new Set(seen).size).toBe(5);
    expect(fill(0.14)).toBe(seen[0]);
    expect(fill(1.49)).toBe(seen[2]);
  });

  it("shows the whisk while it is stirred, and stays on its plate", () => {
    expect(pot().querySelectorAll("path[d^='M210']")).toHaveLength(1);
    expect(pot({ stirring: false }).querySelectorAll("path[d^='M210']")).toHaveLength(0);
    for (const stage of ["pot", "bowl", "mixer", "syrup"] as const)
      for (const heat of [0, 9])
        expect(
          strays(pot({ stage, heat, lifted: heat === 0, poured_g: 500, to_pour_g: 0 }), 13),
        ).toEqual([]);
  });
});

describe("the oven that is practised on", () => {
  const oven = (disc_share: number | null, looked_s: number | null) =>
    plateOf(
      render(<PracticeOven run={{ ...RUN, stage: "oven", disc_share, looked_s }} />).container,
    );

  it("is shut until somebody looks, and again a while after", () => {
    for (const [disc, ago] of [
      [null, null],
      [0.5, null],
      [0.5, 45],
    ] as const) {
      const plate = oven(disc, ago);
      expect(wordsOn(plate)).toHaveLength(1);
      expect(hatched(plate, "pour")).toEqual([]);
    }
    expect(wordsOn(oven(0.5, 44))).toEqual([]);
  });

  it("shows how much is loose, and nothing loose where nothing is", () => {
    const disc = (share: number) => {
      const [mould, loose] = [
        hatched(oven(share, 1), "slice")[0],
        hatched(oven(share, 1), "pour")[0],
      ];
      return loose && mould ? (loose.right - loose.left) / (mould.right - mould.left) : 0;
    };
    expect(disc(0.3)).toBeCloseTo(0.3, 5);
    expect(disc(0.02)).toBe(0);
    const words = (share: number) => oven(share, 1).getAttribute("aria-label");
    expect(words(0.3)).not.toBe(words(0));
    expect(strays(oven(1, 0))).toEqual([]);
  });
});
