import { useCraft } from "@/api/queries";
import type { Option } from "@/ui/field";

/** The grades eggs are bought under, to choose from. */
export function useEggGrades(): Option<string>[] {
  const craft = useCraft();
  return (craft.data?.egg_grades ?? []).map((grade) => [grade.key, grade.name]);
}

/** What a grade that a formula keeps is called. */
export function useGradeName(label: string): string {
  return useEggGrades().find(([key]) => key === label)?.[1] ?? label;
}
