import { say } from "@/say";

export const INCOMPLETE = say("ui.incomplete_a_line_was_not_understood");

/** Allergens as one line; while a line is not understood it never looks like all of them. */
export function Contains({ allergens, complete }: { allergens: string[]; complete: boolean }) {
  const named =
    allergens.join("; ") ||
    (complete ? say("ui.none_of_the_listed") : say("ui.what_is_not_known_yet"));
  return (
    <span className="caption block" data-testid="contains">
      {say("ui.contains", { named, complete: !complete && ` ${INCOMPLETE}` })}
    </span>
  );
}
