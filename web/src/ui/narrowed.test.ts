import { describe, expect, it } from "vitest";

import { narrowed, type Group } from "@/ui/narrowed";

const GROUPS: Group[] = [
  { name: null, options: [{ value: "", label: "nothing" }] },
  {
    name: "Ramekins",
    options: [
      { value: "r1", label: "Ramekin 120 ml (4 oz)" },
      { value: "r2", label: "Crème brûlée dish, shallow" },
    ],
  },
  { name: "Tins", options: [{ value: "t", label: "Springform 23 cm" }] },
];
const left = (typed: string) =>
  narrowed(GROUPS, typed).flatMap((g) => g.options.map((o) => o.value));

describe("a long list narrowed by words", () => {
  it("shows all before anything is typed, and nothing for what is not there", () => {
    expect(left("")).toEqual(["", "r1", "r2", "t"]);
    expect(left("  ")).toHaveLength(4);
    expect(left("zabaglione")).toEqual([]);
    expect(narrowed(GROUPS, "zabaglione")).toEqual([]);
  });

  it("wants every word, in any order, without accents, of the option or its group", () => {
    expect(left("brulee creme")).toEqual(["r2"]);
    expect(left("ramekins")).toEqual(["r1", "r2"]);
    expect(left("120 4")).toEqual(["r1"]);
    expect(left("tins ramekin")).toEqual([]);
  });
});
