export const INCOMPLETE = "(incomplete: a line was not understood)";

/** Allergens as one line; while a line is not understood it never looks like all of them. */
export function Contains({ allergens, complete }: { allergens: string[]; complete: boolean }) {
  const named = allergens.join("; ") || (complete ? "none of the listed" : "what is not known yet");
  return (
    <span className="caption block" data-testid="contains">
      contains {named}
      {!complete && ` ${INCOMPLETE}`}
    </span>
  );
}
