import { useEffect, useState } from "react";

import { waitingMoves } from "@/keep/durable";
import { keptDrafts } from "@/keep/stored";
import { Button } from "@/ui/button";
import { say } from "@/say";

/** The program has opened, the server has not answered: what waits here, and that it waits safely. */
export function Offline({ again }: { again: () => void }) {
  const [moves, setMoves] = useState(0);
  const drafts = keptDrafts();
  useEffect(() => {
    void waitingMoves().then((found) => setMoves(found.length));
  }, []);
  const waits = [
    moves > 0 && say("offline.moves_of_a_cook", { moves }),
    drafts > 0 && say("offline.formulas_being_written", { drafts }),
  ].filter(Boolean);
  return (
    <main className="mx-auto max-w-prose p-8">
      <title>{say("offline.offline_bell_crumb")}</title>
      <h1 className="mb-4 text-5xl italic">{say("offline.bell_crumb")}</h1>
      <p className="mb-4 text-xl" role="status">
        {say("offline.the_kitchens_server_is_not_answering")}
      </p>
      <p className="mb-6 text-lg" data-testid="kept-here">
        {waits.length
          ? say("offline.kept_in_this_tablet_they_are", { waits: waits.join(say("words.and")) })
          : say("offline.nothing_waits_here_to_be_sent")}
      </p>
      <Button kind="act" onClick={again}>
        {say("offline.ask_again_now")}
      </Button>
    </main>
  );
}
