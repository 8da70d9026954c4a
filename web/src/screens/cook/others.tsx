import { useQueries } from "@tanstack/react-query";
import { Link } from "react-router";

import { client, must } from "@/api/client";
import { useGoing } from "@/api/queries";
import { useCall } from "@/screens/cook/call";
import { clock } from "@/units";
import { say } from "@/say";

/** The other pots on the stove: each with its figure, called out when it wants somebody. */
export function OtherPots({ kid, mine, sound }: { kid: string; mine: string; sound: boolean }) {
  const going = useGoing(kid, 10_000);
  const others = (going.data ?? []).filter((b) => b.id !== mine).slice(0, 3);
  const lives = useQueries({
    queries: others.map((b) => ({
      queryKey: ["glance", kid, b.id],
      queryFn: () =>
        must(
          client.GET("/api/k/{kid}/batches/{batch_id}/live", {
            params: { path: { kid, batch_id: b.id }, query: { after_ms: 2_000_000_000 } },
          }),
        ),
      refetchInterval: 2_000,
    })),
  });
  const pots = others.map((b, i) => ({ name: b.dessert, id: b.id, live: lives[i]?.data }));
  const loud = pots.find((p) => p.live && !p.live.paused && p.live.moment.urgency !== "calm");
  useCall(
    loud ? `${loud.name}: ${loud.live?.moment.headline ?? ""}` : "",
    loud?.live?.moment.next_move ?? "",
    loud?.live?.moment.urgency ?? "calm",
    sound,
  );
  if (pots.length === 0) return null;
  return (
    <ul className="rule-b flex flex-wrap gap-x-6 px-5" aria-label={say("cook.other_pots")}>
      {pots.map((p) => {
        const hot = p.live?.moment.urgency === "now" || p.live?.moment.urgency === "wrong";
        return (
          <li key={p.id}>
            <Link
              to={`/k/${kid}/cook/${p.id}`}
              className={`flex min-h-12 items-center gap-3 ${hot ? "bg-burnt px-3 text-on-burnt" : ""}`}
            >
              <b>{p.name}</b>
              <span>{p.live?.moment.headline || "…"}</span>
              {hot && <span>{p.live?.moment.next_move ?? ""}</span>}
              {!hot && typeof p.live?.moment.to_target_s === "number" && (
                <span className="text-soft">
                  {say("cook.to_go", { to_target_s: clock(p.live.moment.to_target_s) })}
                </span>
              )}
            </Link>
          </li>
        );
      })}
    </ul>
  );
}
