import { say } from "@/say";

interface Known {
  allergens: string[];
  allergens_untold: string[];
  complete: boolean;
}

/** Why the allergens named may not be all of them; empty where they are. */
export function incomplete({ allergens_untold: untold, complete }: Omit<Known, "allergens">) {
  if (!complete) return say("ui.incomplete_a_line_was_not_understood");
  return untold.length > 0 ? say("ui.incomplete_untold", { untold: untold.join(", ") }) : "";
}

/** Allergens as one line; while something is not known it never looks like all of them. */
export function Contains({ of }: { of: Known }) {
  const lacking = incomplete(of);
  const named =
    of.allergens.join("; ") ||
    (lacking ? say("ui.what_is_not_known_yet") : say("ui.none_of_the_listed"));
  return (
    <span className="caption block" data-testid="contains">
      {say("ui.contains", { named, complete: lacking && ` ${lacking}` })}
    </span>
  );
}
