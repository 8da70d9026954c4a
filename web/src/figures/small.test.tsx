// @vitest-environment jsdom
import { cleanup, render } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";

import type { Shapes } from "@/api/client";
import { CrustSection, SoggyClock } from "@/figures/crust";
import { EggRow } from "@/figures/eggs";
import { SafetyGauge } from "@/figures/gauge";
import { Serving } from "@/figures/glass";
import { Makeup } from "@/figures/makeup";
import { OvenClock } from "@/figures/oven-clock";
import { SugarPan } from "@/figures/sugar-pan";
import { hatched, marksOf, plateOf, strays, wordsOn } from "@/test/drawn";
import { CLASSES } from "@/words";

afterEach(cleanup);

describe("a class of set as it is served", () => {
  it("is drawn with its own hatching, each within its square, and broken where nothing is known", () => {
    for (const klass of CLASSES) {
      const plate = plateOf(render(<Serving klass={klass} />).container);
      expect(hatched(plate, klass)).toHaveLength(1);
      expect(strays(plate)).toEqual([]);
      cleanup();
    }
    const none = plateOf(render(<Serving klass={null} />).container);
    expect(none.querySelectorAll("[stroke-dasharray]")).toHaveLength(1);
    expect(none.querySelectorAll("[fill^='url']")).toHaveLength(0);
  });
});

describe("a crust in section", () => {
  const section = (way: Parameters<typeof CrustSection>[0]["way"]) =>
    plateOf(render(<CrustSection way={way} />).container);

  it.each([
    ["weights", 54, 0],
    ["hot_start", 54, 0],
    ["frozen", 0, 11],
    ["puff", 0, 11],
    ["crumb", 0, 0],
    ["choux", 0, 0],
    ["sponge", 0, 0],
    ["frangipane", 0, 0],
  ] as const)("baked as %s has %d weights and %d holes", (way, weights, holes) => {
    const plate = section(way);
    expect(plate.querySelectorAll("circle")).toHaveLength(weights);
    expect(plate.querySelectorAll("path[stroke-width='2.4']")).toHaveLength(holes);
    expect(strays(plate)).toEqual([]);
    const dough = hatched(plate, "slice")[0];
    for (const hole of marksOf(plate, "path[stroke-width='2.4']")) {
      expect(hole.left).toBeGreaterThan(dough?.left ?? Infinity);
      expect(hole.right).toBeLessThan(dough?.right ?? -Infinity);
    }
  });
});

describe("how long a filled crust is crisp", () => {
  const clock = (crispH: number[], softH: number[]) =>
    plateOf(render(<SoggyClock {...{ crispH, softH }} />).container);
  const edges = (plate: Element) =>
    [hatched(plate, "unmould"), hatched(plate, "spoon"), hatched(plate, "pour")].map((m) => m[0]);

  it("goes from crisp to soft where its hours are, each doubling as wide", () => {
    const plate = clock([3, 3], [24, 24]);
    const mark = (h: string) =>
      Number(
        [...plate.querySelectorAll("text")]
          .find((t) => t.textContent === `${h} h`)
          ?.getAttribute("x"),
      );
    const [crisp, between, soft] = edges(plate);
    expect(crisp?.right).toBeCloseTo(mark("3"), 4);
    expect(between?.right).toBeCloseTo(mark("24"), 4);
    expect(soft?.left).toBeCloseTo(mark("24"), 4);
    expect(plate.getAttribute("aria-label")).toMatch(/3.*24/);
    expect(mark("3") - mark("1")).toBeCloseTo(
      (marksOf(plate, "rect")[0]?.right ?? NaN) - mark("1"),
      4,
    );
  });

  it("writes crisp and soft only where there is room for the word", () => {
    const words = (crisp: number, soft: number) =>
      wordsOn(clock([crisp, crisp], [soft, soft])).filter((w) => !w.endsWith(" h"));
    expect(words(6, 24)).toEqual(["crisp", "soft"]);
    expect(words(0.3, 24)).toEqual(["soft"]);
    expect(words(24, 96)).toEqual(["crisp"]);
  });

  it("is never soft before it is no longer crisp, and stays on its plate", () => {
    for (const [crisp, soft] of [
      [
        [0, 0],
        [0, 0],
      ],
      [
        [12, 24],
        [2, 4],
      ],
      [
        [48, 96],
        [96, 96],
      ],
      [
        [0.2, 1],
        [1, 6],
      ],
    ] as const) {
      const plate = clock([...crisp], [...soft]);
      const [, between, last] = edges(plate);
      expect((between?.right ?? 0) - (between?.left ?? 0)).toBeGreaterThanOrEqual(0);
      expect((last?.right ?? 0) - (last?.left ?? 0)).toBeGreaterThanOrEqual(0);
      expect(strays(plate)).toEqual([]);
      cleanup();
    }
  });
});

describe("the eggs parted for the day", () => {
  const row = (ledger: Partial<Shapes["Ledger"]>) =>
    render(
      <EggRow
        ledger={
          {
            separate: 5,
            yolk_need_g: 36,
            yolk_each_g: 18,
            white_need_g: 75,
            white_each_g: 30,
            ...ledger,
          } as never
        }
      />,
    ).container;

  it("shows each egg once: what is used filled, what is left over with a broken line", () => {
    const plate = plateOf(row({}));
    expect(plate.querySelectorAll("circle[stroke]")).toHaveLength(5);
    expect(hatched(plate, "unmould")).toHaveLength(2); // two yolks of five
    expect(plate.querySelectorAll("circle[stroke-dasharray]")).toHaveLength(3);
    expect(plate.querySelectorAll("path[stroke-dasharray]")).toHaveLength(3); // two and a half whites
    expect(plate.getAttribute("aria-label")).toMatch(/2\.0.*2\.5/);
    expect(strays(plate)).toEqual([]);
  });

  it("is not drawn where none is parted, and stops at sixty in rows of twenty", () => {
    expect(row({ separate: 0 }).querySelector("svg")).toBeNull();
    cleanup();
    const plate = plateOf(row({ separate: 400 }));
    const eggs = marksOf(plate, "circle[stroke]");
    expect(eggs).toHaveLength(60);
    expect(new Set(eggs.map((e) => e.top)).size).toBe(3);
    expect(strays(plate)).toEqual([]);
  });
});

describe("how safe the egg is", () => {
  const gauge = (safe: Partial<Shapes["Lethality"]>) =>
    render(
      <SafetyGauge
        safe={{ share: 0.5, meets: false, log_reduction: 2.5, rule: "5 log", ...safe } as never}
      />,
    ).container;
  const filled = (container: Element) => {
    const [tube] = hatched(plateOf(container), "unmould");
    return tube ? (tube.right - tube.left) / 148 : 0;
  };

  it("fills as far as the egg is safe, and no further than its line", () => {
    expect(filled(gauge({}))).toBeCloseTo(0.5, 5);
    expect(filled(gauge({ share: 7, meets: true }))).toBe(1);
    expect(strays(plateOf(gauge({ share: 7 })))).toEqual([]);
  });

  it("never says all of it while the rule is not met", () => {
    expect(gauge({ share: 0.997 }).querySelector("b")?.textContent).toContain("99");
    expect(gauge({ share: 0.997 }).textContent).not.toContain("100");
    expect(gauge({ share: 1, meets: true }).querySelector("b")?.textContent).not.toMatch(/\d/);
  });

  it("says why nothing is counted yet", () => {
    const waiting = { share: 0, log_reduction: 0, warnings: ["Counted once tempered."] };
    expect(gauge(waiting).querySelector(".caption")?.textContent).toBe("Counted once tempered.");
    expect(gauge({ ...waiting, log_reduction: 2.5 }).textContent).not.toContain("tempered");
  });

  it("counts logs to twelve", () => {
    expect(gauge({ log_reduction: 11.96 }).textContent).toContain("12.0");
    expect(gauge({ log_reduction: 40 }).textContent).toMatch(/more than 12/i);
  });
});

describe("the oven’s clock", () => {
  const clock = (now: number, window: number[], first = window) => {
    const span = ([from_s = 0, to_s = 0]: number[]) => ({ from_s, to_s });
    return plateOf(
      render(<OvenClock now={now} window={span(window)} first={span(first)} />).container,
    );
  };

  it("has now and the window on one line, and where the window was thought to be", () => {
    const plate = clock(1200, [1800, 2400]);
    const [window, dot] = [hatched(plate, "over")[0], marksOf(plate, "circle")[0]];
    if (!window || !dot) throw new Error("not drawn");
    expect((window.left - 10) / ((dot.left + dot.right) / 2 - 10)).toBeCloseTo(1.5, 4);
    expect((window.right - window.left) / (window.left - 10)).toBeCloseTo(1 / 3, 4);
    expect(wordsOn(plate)[0]).toMatch(/30.*40/);
    const moved = (first: number) =>
      clock(0, [1800, 2400], [first, 2400]).querySelectorAll("[stroke-dasharray]").length;
    expect([moved(1800), moved(1755), moved(1750), moved(1850)]).toEqual([0, 0, 1, 1]);
  });

  it("stays on its plate long after, and before anything", () => {
    expect(strays(clock(9000, [1800, 2400]))).toEqual([]);
    expect(strays(clock(0, [1800, 1801], [600, 7200]), 9)).toEqual([]);
  });
});

describe("the syrup stage by stage", () => {
  const MARKS = ["thread", "soft_ball", "hard_crack", "amber"].map((stage, i) => ({
    stage,
    t_s: 60 * ([0, 1, 10, 11][i] ?? NaN),
    sign: "",
  }));
  const pan = (more: Partial<Shapes["SyrupOut"]> = {}) =>
    plateOf(
      render(
        <SugarPan
          units="metric"
          syrup={{ marks: MARKS, time_s: 660, curve: [], pull_c: 168, ...more } as never}
        />,
      ).container,
    );

  it("lies each spoon at its time, or lower where it would cover the one before", () => {
    const plate = pan();
    const at = (n: number) => marksOf(plate, "circle")[n]?.top ?? NaN;
    const spoons = marksOf(plate, "ellipse[stroke]").map((m) => m.top);
    expect((at(2) - at(0)) / (at(1) - at(0))).toBeCloseTo(10, 3);
    spoons
      .slice(1)
      .forEach((s, i) => expect(s - (spoons[i] ?? NaN)).toBeGreaterThanOrEqual(34 - 1e-6));
    expect(strays(plate)).toEqual([]);
  });

  it("stays on its plate where all stages crowd at the end, and where there are none", () => {
    const crowded = MARKS.map((m, i) => ({ ...m, t_s: i === 0 ? 0 : 655 + i }));
    expect(strays(pan({ marks: crowded } as never))).toEqual([]);
    expect(strays(pan({ marks: [] }))).toEqual([]);
    expect(strays(pan({ time_s: null, curve: [{ t_s: 700, temp_c: 170 }] } as never))).toEqual([]);
  });
});

describe("what a part that is no custard is made of", () => {
  const line = (name: string, grams: number | null) => ({
    name,
    grams,
    text: `${grams} g ${name}`,
  });
  const block = (lines: ReturnType<typeof line>[], kind: "crust" | "caramel" = "crust") =>
    render(
      <Makeup
        kind={kind}
        found={{ lines, mass_g: lines.reduce((s, l) => s + (l.grams ?? 0), 0) } as never}
      />,
    ).container;

  it("lies in layers as high as they weigh, the heaviest at the bottom, against the flour", () => {
    const container = block([
      line("Butter", 125),
      line("Flour, plain", 250),
      line("Egg", 50),
      line("Salt", null),
    ]);
    const layers = marksOf(plateOf(container), "rect");
    expect(layers.map((l) => Math.round(l.bottom - l.top))).toEqual([206, 103, 41]);
    expect(layers[0]?.bottom).toBe(365);
    expect(layers[1]?.bottom).toBeCloseTo(layers[0]?.top ?? NaN, 4);
    const words = wordsOn(plateOf(container));
    expect(words).toEqual(["flour", "100", "butter", "50", "egg", "20"]);
    expect(container.querySelector("figcaption")?.textContent).toContain("flour");
  });

  it("counts against its heaviest where the base of its kind is missing", () => {
    const words = wordsOn(plateOf(block([line("Cream", 200), line("Butter", 50)], "caramel")));
    expect(words).toEqual(["cream", "100", "butter", "25"]);
  });

  it("keeps many thin layers and their labels apart and on the plate", () => {
    const many = Array.from({ length: 14 }, (_, i) => line(`Spice ${i}`, i === 0 ? 1000 : 1));
    const plate = plateOf(block(many));
    expect(strays(plate)).toEqual([]);
    const ys = [...plate.querySelectorAll("text[x='276']")].map((t) => Number(t.getAttribute("y")));
    expect(ys).toHaveLength(12);
    ys.slice(1).forEach((y, i) => expect((ys[i] ?? NaN) - y).toBeGreaterThanOrEqual(27 - 1e-6));
  });
});
