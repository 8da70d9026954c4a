import type { Shapes } from "@/api/client";
import { contentOf, type Draft } from "@/keep/draft";
import { Button } from "@/ui/button";
import { Dialog } from "@/ui/dialog";
import { say } from "@/say";

/** Where the text is: on the server, on its way, or kept here for now. */
export function SaveNote({
  draft,
  version,
  readOnly,
}: {
  draft: Draft;
  version: Shapes["VersionOut"];
  readOnly: boolean;
}) {
  let said = say("formula.saved");
  if (readOnly)
    said = version.cooked ? say("formula.cooked_stays_as_it_is") : say("formula.to_read");
  else if (draft.state === "saving") said = say("formula.saving");
  else if (draft.state === "kept")
    said = draft.message ? say("formula.kept_here_saved_when_the_server") : say("formula.saving");
  else if (draft.state === "refused") said = draft.message ?? say("formula.not_saved");
  else if (draft.state === "conflict") said = say("formula.two_texts_choose_one");
  else if (version.cooked) said = say("formula.cooked_an_edit_makes_the_next");
  const alarm = draft.state === "refused" || (draft.state === "kept" && draft.message !== null);
  return (
    <span role="status" className={`caption ${alarm ? "!text-burnt" : ""}`} data-testid="save-note">
      {said}
    </span>
  );
}

/** Somebody else saved in between: both texts side by side, nothing overwritten. */
export function ConflictDialog({ draft }: { draft: Draft }) {
  const conflict = draft.conflict;
  if (!conflict) return null;
  const theirs = contentOf(conflict.theirs);
  return (
    <Dialog open title={say("formula.two_texts")} said={conflict.message}>
      <div className="mb-5 grid gap-5 sm:grid-cols-2">
        <Text
          title={say("formula.yours")}
          lines={draft.content.lines_text}
          other={theirs.lines_text}
        />
        <Text
          title={conflict.theirs.saved_by ?? say("formula.theirs")}
          lines={theirs.lines_text}
          other={draft.content.lines_text}
        />
      </div>
      <div className="flex flex-wrap gap-3">
        <Button kind="act" onClick={draft.keepMine}>
          {say("formula.keep_mine")}
        </Button>
        <Button onClick={draft.takeTheirs}>{say("formula.take_theirs")}</Button>
      </div>
    </Dialog>
  );
}

function Text({ title, lines, other }: { title: string; lines: string; other: string }) {
  const there = new Set(other.split("\n").map((line) => line.trim()));
  return (
    <div>
      <h3 className="mb-1 text-lg">{title}</h3>
      <ol className="rule-t">
        {lines.split("\n").map((line, i) => (
          <li
            key={i}
            className={`rule-b min-h-7 ${there.has(line.trim()) ? "text-soft" : "font-semibold"}`}
          >
            {line}
          </li>
        ))}
      </ol>
    </div>
  );
}
