import { useQuery } from "@tanstack/react-query";

import { client, must } from "@/api/client";
import { useBench } from "@/bench";
import { Failed, Loading } from "@/ui/states";
import { day, time } from "@/units";

const WORDS: Record<string, string> = {
  signed_in: "signed in",
  refused: "was refused",
  slowed: "was slowed down",
  password: "changed the password",
  invited: "asked in",
  joined: "came in",
  role: "changed a role",
  removed: "took out",
  restored: "a backup was put back",
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
        Who came in
      </h2>
      {log.isPending && <Loading what="the log" />}
      {log.isError && <Failed error={log.error} again={() => void log.refetch()} />}
      {log.data && (
        <ol className="max-h-96 overflow-auto" tabIndex={0} aria-label="Security log">
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
                {line.address && <span className="caption block">from {line.address}</span>}
              </span>
            </li>
          ))}
        </ol>
      )}
      {log.data?.length === 0 && <p className="text-soft">Nothing yet.</p>}
    </section>
  );
}
