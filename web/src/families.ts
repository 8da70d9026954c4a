import type { Shapes } from "@/api/client";
import type { Group } from "@/ui/narrowed";
import { say } from "@/say";

type Family = Shapes["FamilyRef"];

const GROUPS: Record<string, string> = {
  stirred_egg: say("families.stirred_set_by_yolk"),
  starch_boiled: say("families.boiled_set_by_starch"),
  curd: say("families.curds"),
  baked_egg: say("families.baked_set_by_egg"),
  starch_baked: say("families.boiled_then_baked"),
  acid_set: say("families.set_by_acid"),
  cheesecake: say("families.cheesecakes"),
  cold_set: say("families.set_in_the_cold"),
};

/** The families under what sets them, with the choice of none above; by key, or by name. */
export function familyGroups(
  families: readonly Family[],
  none: string,
  by: "key" | "name" = "key",
): Group[] {
  const found = new Map<string, Family[]>();
  for (const family of families) {
    found.set(family.group, [...(found.get(family.group) ?? []), family]);
  }
  return [
    { name: null, options: [{ value: "", label: none }] },
    ...[...found].map(([group, members]) => ({
      name: GROUPS[group] ?? group,
      options: members.map((f) => ({ value: f[by], label: f.name })),
    })),
  ];
}
