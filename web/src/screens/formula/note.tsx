import { useId } from "react";

import type { Draft } from "@/keep/draft";
import { say } from "@/say";

/** What the chef wants to remember of this version; it stays with it in the history. */
export function Note({ draft, readOnly }: { draft: Draft; readOnly: boolean }) {
  const id = useId();
  const error = draft.field === "note" ? draft.message : null;
  return (
    <div className="mt-3">
      <label htmlFor={id} className="caption">
        {say("formula.note_of_this_version")}
      </label>
      <textarea
        id={id}
        className="field resize-y"
        rows={2}
        maxLength={8000}
        readOnly={readOnly}
        placeholder={say("formula.what_was_changed_and_why")}
        value={draft.content.note}
        onChange={(event) => draft.change({ note: event.target.value })}
      />
      {error && (
        <p role="alert" className="text-burnt">
          {error}
        </p>
      )}
    </div>
  );
}
