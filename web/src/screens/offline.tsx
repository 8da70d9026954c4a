import { useEffect, useState } from "react";

import { waitingMoves } from "@/keep/durable";
import { keptDrafts } from "@/keep/stored";
import { Button } from "@/ui/button";

/** The program has opened, the server has not answered: what waits here, and that it waits safely. */
export function Offline({ again }: { again: () => void }) {
  const [moves, setMoves] = useState(0);
  const drafts = keptDrafts();
  useEffect(() => {
    void waitingMoves().then((found) => setMoves(found.length));
  }, []);
  const waits = [
    moves > 0 && `${moves} ${moves === 1 ? "move" : "moves"} of a cook`,
    drafts > 0 && `${drafts} ${drafts === 1 ? "formula" : "formulas"} being written`,
  ].filter(Boolean);
  return (
    <main className="mx-auto max-w-prose p-8">
      <title>Offline · Bell Crumb</title>
      <h1 className="mb-4 text-5xl italic">Bell Crumb</h1>
      <p className="mb-4 text-xl" role="status">
        The kitchen’s server is not answering. It is asked again by itself.
      </p>
      <p className="mb-6 text-lg" data-testid="kept-here">
        {waits.length
          ? `Kept in this tablet: ${waits.join(" and ")}. They are sent as soon as it answers.`
          : "Nothing waits here to be sent."}
      </p>
      <Button kind="act" onClick={again}>
        Ask again now
      </Button>
    </main>
  );
}
