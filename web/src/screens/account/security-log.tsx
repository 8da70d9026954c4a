import { useQuery } from "@tanstack/react-query";

import { client, must } from "@/api/client";
import { useBench } from "@/bench";
import { Failed, Loading } from "@/ui/states";
import { day, time } from "@/units";
import { say } from "@/say";

const WORDS: Record<string, string> = {
  signed_in: say("account.signed_in"),
  refused: say("account.was_refused"),
  slowed: say("account.was_slowed_down"),
  password: say("account.changed_the_password"),
  invited: say("account.asked_in"),
  joined: say("account.came_in"),
  role: say("account.changed_a_role"),
  removed: say("account.took_out"),
  restored: say("account.a_backup_was_put_back"),
};

/** Who came in, who was refused, what was changed: the newest first. */
export function SecurityLog() {
  const { kid } = useBench();
  const log = useQuery({
    queryKey: ["security", kid],
    queryFn: () => must(client.GET("/api/k/{kid}/security", { params: { path: { kid } } })),
  });
  return (
    <section aria-labelledby="log">
      <h2 id="log" className="mb-2 text-2xl">
        {say("account.who_came_in")}
      </h2>
      {log.isPending && <Loading what={say("account.the_log")} />}
      {log.isError && <Failed error={log.error} again={() => void log.refetch()} />}
      {log.data && (
        <ol
          className="max-h-96 overflow-auto"
          tabIndex={0}
          aria-label={say("account.security_log")}
        >
          {log.data.map((line, i) => (
            <li key={i} className="rule-b flex flex-wrap gap-x-4 py-2">
              <span className="caption w-36">
                {day(line.at)}, {time(line.at)}
              </span>
              <span className="flex-1">
                <span className="break-all">{line.who}</span>{" "}
                <b
                  className={line.kind === "refused" || line.kind === "slowed" ? "text-burnt" : ""}
                >
                  {WORDS[line.kind] ?? line.kind}
                </b>{" "}
                {line.detail}
                {line.address && (
                  <span className="caption block">
                    {say("account.from", { address: line.address })}
                  </span>
                )}
              </span>
            </li>
          ))}
        </ol>
      )}
      {log.data?.length === 0 && <p className="text-soft">{say("account.nothing_yet")}</p>}
    </section>
  );
}
