import { Link } from "react-router";

import type { Shapes } from "@/api/client";
import { Slice } from "@/figures/slice";
import { day, degrees, grams, said, time, type Units } from "@/units";

const DID: Record<string, string> = { bake: "baked", build: "put together", bench: "made" };

/** A dessert that was put together: what each layer got, and the cooks its parts came from. */
export function Built({
  batch,
  units,
  kid,
}: {
  batch: Shapes["BatchOut"];
  units: Units;
  kid: string;
}) {
  return (
    <section aria-label="How it was built" className="space-y-5">
      {batch.plan.cut && (
        <Slice build={batch.plan.cut} units={units} chosen={null} choose={() => undefined} />
      )}
      <div className="overflow-x-auto">
        <h2 className="mb-1 text-2xl">Layer on layer</h2>
        <table className="w-full text-left" data-testid="laid">
          <thead className="caption">
            <tr>
              <th className="font-normal">layer, from the bottom</th>
              <th className="text-right font-normal">asked</th>
              <th className="text-right font-normal">got</th>
              <th className="text-right font-normal">checked at</th>
            </tr>
          </thead>
          <tbody>
            {batch.laid.map((layer) => (
              <tr key={layer.step} className="rule-b">
                <td className="py-1.5 pr-3">{said(layer.title, units)}</td>
                <td className="text-right">{grams(layer.asked_g, units)}</td>
                <td
                  className={`text-right ${layer.enough === false ? "font-semibold text-burnt" : ""}`}
                >
                  {layer.got_g === null ? "not weighed" : grams(layer.got_g, units)}
                </td>
                <td className="text-right">
                  {layer.checked_c === null ? "–" : degrees(layer.checked_c, units)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div>
        <h2 className="mb-1 text-2xl">What it is made of</h2>
        {batch.made_of.length === 0 && (
          <p className="text-soft">
            No cook of its parts in the week before. Parts cooked or baked here are linked by
            themselves.
          </p>
        )}
        <ul data-testid="made-of">
          {batch.made_of.map((b) => (
            <li key={b.id} className="rule-b py-1.5">
              <Link className="underline underline-offset-4" to={`/k/${kid}/book/${b.id}`}>
                {b.part}
              </Link>
              , version {b.version}, {DID[b.guide] ?? "cooked"}{" "}
              <span className="caption">
                {day(b.started_at)}, {time(b.started_at)}
              </span>
            </li>
          ))}
        </ul>
      </div>
    </section>
  );
}
