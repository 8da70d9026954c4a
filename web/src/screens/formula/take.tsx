import type { Content } from "@/api/queries";
import type { Draft } from "@/keep/draft";
import { Button } from "@/ui/button";
import { say } from "@/say";

interface Props {
  draft: Draft;
  /** The lines as they would be; undefined while there is nothing to take. */
  lines: readonly string[] | undefined;
  /** What goes with them: the family they were worked out as, the eggs they are counted in. */
  with?: Partial<Content>;
  onClose: () => void;
}

/** Take the lines a dialog worked out, or leave the formula as it is. */
export function Take({ draft, lines, with: more = {}, onClose }: Props) {
  return (
    <div className="mt-5 flex gap-3">
      <Button
        kind="act"
        disabled={!lines}
        onClick={() => {
          if (!lines) return;
          draft.put({ lines_text: lines.join("\n"), ...more });
          onClose();
        }}
      >
        {say("formula.write_it_so")}
      </Button>
      <Button kind="quiet" onClick={onClose}>
        {say("formula.leave_it")}
      </Button>
    </div>
  );
}
