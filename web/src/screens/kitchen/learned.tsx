import { useQuery } from "@tanstack/react-query";

import { client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { kelvins } from "@/units";

type Value = Shapes["LearnedOut"];

/** What the kitchen’s own batches teach of its rings, ovens and set: shown, not yet counted with. */
export function Learned() {
  const { kid, units } = useBench();
  const learned = useQuery({
    queryKey: ["learned", kid],
    queryFn: () => must(client.GET("/api/k/{kid}/learned", { params: { path: { kid } } })),
    staleTime: 60_000,
  });
  const found = learned.data;
  const nothing = found && found.rings.length + found.ovens.length + found.set_shift.length === 0;
  return (
    <section aria-labelledby="learned" data-testid="learned">
      <h2 id="learned" className="mb-2 text-2xl">
        What the book teaches
      </h2>
      {nothing && <p className="text-soft">Nothing yet: it begins with the first judged batch.</p>}
      {found && !nothing && (
        <>
          <ul>
            {found.rings.map((r) => (
              <Row
                key={r.name}
                value={r}
                says={`gives ${Math.round(100 * r.mean)} ± ${Math.round(100 * r.sd)} % of its power`}
              />
            ))}
            {found.ovens.map((o) => (
              <Row
                key={o.name}
                value={o}
                says={`${kelvins(Math.abs(o.mean), units, 0)} ${o.mean < 0 ? "cooler" : "hotter"} than its dial, ± ${kelvins(o.sd, units, 0)}`}
              />
            ))}
            {found.set_shift.map((s) => (
              <Row
                key={s.name}
                value={s}
                says={`comes out ${Math.abs(s.mean).toFixed(1)} ± ${s.sd.toFixed(1)} S ${s.mean < 0 ? "softer" : "firmer"} than predicted`}
              />
            ))}
          </ul>
          <p className="caption mt-2">
            Shown so that you can judge it; predictions do not use it yet.
          </p>
        </>
      )}
    </section>
  );
}

function Row({ value, says }: { value: Value; says: string }) {
  return (
    <li className="rule-b py-2">
      <b>{value.name}</b> {says}
      <span className="caption block">
        from {value.n} {value.n === 1 ? "batch" : "batches"}
      </span>
    </li>
  );
}
