import type { Shapes } from "@/api/client";
import type { Group } from "@/ui/narrowed";

type Family = Shapes["FamilyRef"];

const GROUPS: Record<string, string> = {
  stirred_egg: "Stirred, set by yolk",
  starch_boiled: "Boiled, set by starch",
  curd: "Curds",
  baked_egg: "Baked, set by egg",
  starch_baked: "Boiled, then baked",
  acid_set: "Set by acid",
  cheesecake: "Cheesecakes",
  cold_set: "Set in the cold",
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
