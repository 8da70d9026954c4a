import { expect, it } from "vitest";

import type { Shapes } from "@/api/client";
import { familyGroups } from "@/families";
import { partQuery } from "@/screens/formula/part";

const family = (key: string, name: string, group: string) =>
  ({ key, name, group }) as Shapes["FamilyRef"];
const SHELF = [
  family("anglaise", "Crème anglaise", "stirred_egg"),
  family("flan", "Caramel flan", "baked_egg"),
  family("curd", "Lemon curd", "curd"),
  family("sabayon", "Sabayon", "stirred_egg"),
  family("fog", "Set by fog", "fog"),
];

it("shelves families under what sets them, each once, in the order they come", () => {
  const [none, ...groups] = familyGroups(SHELF, "not said");
  expect(none).toEqual({ name: null, options: [{ value: "", label: "not said" }] });
  expect(groups.map((g) => g.options.map((o) => o.value))).toEqual([
    ["anglaise", "sabayon"],
    ["flan"],
    ["curd"],
    ["fog"],
  ]);
  expect(groups[0]?.name).toContain("yolk");
  expect(groups[3]?.name).toBe("fog"); // one the screen has no word for is still there
});

it("knows a family by its key, or by its name where a batch says it", () => {
  const by = familyGroups(SHELF, "all", "name")[1]?.options[0];
  expect(by).toEqual({ value: "Crème anglaise", label: "Crème anglaise" });
});

it("says a part in the address only when it is not the first", () => {
  const parts = [{ id: "c" }, { id: "d" }] as Shapes["PartOut"][];
  const dessert = { parts } as Shapes["DessertOut"];
  expect(parts.map((part) => partQuery(dessert, part))).toEqual(["", "?part=d"]);
});
