import type { Shapes } from "@/api/client";
import { contentOf, type Draft } from "@/keep/draft";
import { Button } from "@/ui/button";
import { Dialog } from "@/ui/dialog";

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
  let said = "saved";
  if (readOnly) said = version.cooked ? "cooked: stays as it is" : "to read";
  else if (draft.state === "saving") said = "saving …";
  else if (draft.state === "kept")
    said = draft.message ? "kept here, saved when the server is back" : "saving …";
  else if (draft.state === "refused") said = draft.message ?? "not saved";
  else if (draft.state === "conflict") said = "two texts: choose one";
  else if (version.cooked) said = "cooked: an edit makes the next version";
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
    <Dialog open title="Two texts" said={conflict.message}>
      <div className="mb-5 grid gap-5 sm:grid-cols-2">
        <Text title="Yours" lines={draft.content.lines_text} other={theirs.lines_text} />
        <Text
          title={conflict.theirs.saved_by ?? "Theirs"}
          lines={theirs.lines_text}
          other={draft.content.lines_text}
        />
      </div>
      <div className="flex flex-wrap gap-3">
        <Button kind="act" onClick={draft.keepMine}>
          Keep mine
        </Button>
        <Button onClick={draft.takeTheirs}>Take theirs</Button>
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
