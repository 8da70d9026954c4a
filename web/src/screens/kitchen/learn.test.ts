import { QueryClient } from "@tanstack/react-query";
import { expect, it } from "vitest";

import type { Shapes } from "@/api/client";
import { learn } from "@/screens/kitchen/learn";

it("shows the changed kitchen at once and asks its ovens and colds again, nobody else's", () => {
  const store = new QueryClient();
  const asked = [["bake", "k"], ["cool", "k"], ["crust", "k"], ["convert", "k"], ["bake", "other"],
    ["dessert", "k"]]; // prettier-ignore
  for (const key of asked) store.setQueryData(key, {});
  learn(store, "k", { name: "Weir House" } as Shapes["KitchenOut"]);
  expect(store.getQueryData(["kitchen", "k"])).toEqual({ name: "Weir House" });
  const again = asked.filter((key) => store.getQueryState(key)?.isInvalidated);
  expect(again).toEqual(asked.slice(0, 4));
});
