import { useCraft } from "@/api/queries";

/** The grades eggs are bought under, for a select; not the one called `but`. */
export function EggGrades({ but }: { but?: string | undefined }) {
  const craft = useCraft();
  return craft.data?.egg_grades
    .filter((grade) => grade.name !== but)
    .map((grade) => (
      <option key={grade.key} value={grade.key}>
        {grade.name}
      </option>
    ));
}

/** What a grade that a formula keeps is called. */
export function useGradeName(label: string): string {
  const craft = useCraft();
  return craft.data?.egg_grades.find((grade) => grade.key === label)?.name ?? label;
}
