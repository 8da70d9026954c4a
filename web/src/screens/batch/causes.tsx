import { useQuery } from "@tanstack/react-query";

import { client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { say } from "@/say";

type Why = Shapes["ExplainOut"];

/** The likely causes of what was judged, with what speaks for and against each, and what to change. */
export function Causes({
  batch,
  faultName,
}: {
  batch: Shapes["BatchOut"];
  faultName: (key: string) => string;
}) {
  const { kid } = useBench();
  const why = useQuery<Why>({
    queryKey: ["why", kid, batch.id, batch.verdict?.revision],
    queryFn: () =>
      must(
        client.GET("/api/k/{kid}/batches/{batch_id}/why", {
          params: { path: { kid, batch_id: batch.id } },
        }),
      ),
  });
  const found = why.data;
  if (!found) return null;
  const faults = [...(batch.verdict?.faults ?? [])].map(faultName);
  const none = found.causes.length === 0;
  // What every cook has, its highest temperature, is no news by itself.
  if (none && faults.length === 0 && !found.happened.some(({ weight }) => matters(weight)))
    return null;
  const change = found.change.find((c) => c.lines.length > 0);
  return (
    <section
      className="rule-t mt-6 pt-3"
      aria-label={say("batch.why_it_came_out_so")}
      data-testid="causes"
    >
      <h2 className="text-2xl">
        {none ? say("batch.what_happened") : say("batch.why")}
        {faults.length > 0 && (
          <span className="text-lg text-soft italic"> {faults.join(", ")}</span>
        )}
      </h2>
      {found.happened.length > 0 && (
        <ul className="mt-1" data-testid="happened">
          {found.happened.map((h) => (
            <li
              key={h.code}
              className={`border-l-[3px] py-0.5 pl-3 ${matters(h.weight) ? "border-burnt" : "border-rule text-soft"}`}
            >
              {h.words}
            </li>
          ))}
        </ul>
      )}
      <ol className="mt-1">
        {found.causes.slice(0, 4).map((cause) => (
          <li key={`${cause.fault}${cause.cause}`} className="rule-b py-2 leading-snug">
            <span className="flex items-center gap-3">
              <Share of={cause.probability} />
              <b>{cause.words}</b>
              <span className="caption ml-auto">{Math.round(100 * cause.probability)} %</span>
            </span>
            <span className="caption block italic">{say("batch.of", { fault: cause.of })}</span>
            {cause.for.length > 0 && (
              <span className="caption block">
                {say("batch.for_it")}
                {cause.for.join("; ")}
              </span>
            )}
            {cause.against.length > 0 && (
              <span className="caption block">
                {say("batch.against_it")}
                {cause.against.join("; ")}
              </span>
            )}
            {cause.probability > 0.15 && (
              <span className="block">
                {cause.mend}.{" "}
                <span className="caption">{say("batch.to_tell_it_apart", { ask: cause.ask })}</span>
              </span>
            )}
          </li>
        ))}
      </ol>
      {found.ruled_out.length > 0 && (
        <p className="caption mt-1">
          {say("batch.hardly", { ruled_out: found.ruled_out.join("; ") })}
        </p>
      )}
      {change && (
        <div className="mt-3">
          <h3 className="text-xl italic">{say("batch.the_next_version_could_read")}</h3>
          <pre className="border-l-[3px] border-rule pl-3 font-sans whitespace-pre-wrap">
            {change.lines.join("\n")}
          </pre>
        </div>
      )}
      {none && faults.length > 0 && <p className="mt-1">{say("batch.no_causes_in_our_table")}</p>}
      <p className="caption mt-2" hidden={none}>
        {say("batch.weighed_by_bayes_rule_from_our")}
      </p>
    </section>
  );
}

const matters = (weight: number) => weight >= 0.4;

function Share({ of }: { of: number }) {
  return (
    <svg width="46" height="12" aria-hidden="true" className="shrink-0">
      <rect x="0.5" y="0.5" width="45" height="11" fill="none" stroke="var(--ink)" />
      <rect x="0.5" y="0.5" width={45 * of} height="11" fill="var(--burnt)" />
    </svg>
  );
}
