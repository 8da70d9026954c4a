import { readFileSync } from "node:fs";

import { expect, it } from "vitest";

import { stepWord } from "@/screens/batch/steps";

const GUIDES = new URL("../../../../core/bellcrumb/stove/data/guides.csv", import.meta.url);

it("has a word for every step of every guide at the stove, none of them its key in disguise", () => {
  const rows = readFileSync(GUIDES, "utf8").split("\n").slice(1); // prettier-ignore
  const keys = new Set(rows.flatMap((row) => /^\w+\.(\w+)/.exec(row)?.[1] ?? []));
  expect(keys.size).toBeGreaterThan(25);
  const own = "ready temper cook finish cool chill eggs meringue sugar gelatine roux butter".split(
    " ",
  );
  expect([...keys].filter((key) => stepWord(key) === key && !own.includes(key))).toEqual([]);
});
