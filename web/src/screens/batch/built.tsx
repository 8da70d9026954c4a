import { Link } from "react-router";

import type { Shapes } from "@/api/client";
import { Slice } from "@/figures/slice";
import { day, degrees, grams, time, type Units } from "@/units";
import { Say, say } from "@/say";

const DID: Record<string, string> = {
  bake: say("batch.baked"),
  build: say("batch.put_together"),
  bench: say("batch.made"),
};

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
    <section aria-label={say("batch.how_it_was_built")} className="space-y-5">
      {batch.plan.cut && (
        <Slice build={batch.plan.cut} units={units} chosen={null} choose={() => undefined} />
      )}
      <div className="overflow-x-auto">
        <h2 className="mb-1 text-2xl">{say("batch.layer_on_layer")}</h2>
        <table className="w-full text-left" data-testid="laid">
          <thead className="caption">
            <tr>
              <th className="font-normal">{say("batch.layer_from_the_bottom")}</th>
              <th className="pl-3 text-right align-bottom font-normal">{say("batch.asked")}</th>
              <th className="pl-3 text-right align-bottom font-normal">{say("batch.got")}</th>
              <th className="pl-3 text-right align-bottom font-normal">
                {say("batch.checked_at")}
              </th>
            </tr>
          </thead>
          <tbody>
            {batch.laid.map((layer) => (
              <tr key={layer.step} className="rule-b">
                <td className="py-1.5 pr-3">{layer.title}</td>
                <td className="text-right">{grams(layer.asked_g, units)}</td>
                <td
                  className={`text-right ${layer.enough === false ? "font-semibold text-burnt" : ""}`}
                >
                  {layer.got_g === null ? say("batch.not_weighed") : grams(layer.got_g, units)}
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
        <h2 className="mb-1 text-2xl">{say("batch.what_it_is_made_of")}</h2>
        {batch.made_of.length === 0 && (
          <p className="text-soft">{say("batch.no_cook_of_its_parts_in")}</p>
        )}
        <ul data-testid="made-of">
          {batch.made_of.map((b) => (
            <li key={b.id} className="rule-b py-1.5">
              <Say
                code="batch.version_2"
                values={{
                  part: b.part,
                  version: b.version,
                  did: DID[b.guide] ?? say("batch.cooked"),
                  started_at: day(b.started_at),
                  started_at2: time(b.started_at),
                }}
                components={{
                  link: (
                    <Link className="underline underline-offset-4" to={`/k/${kid}/book/${b.id}`} />
                  ),
                  span: <span className="caption" />,
                }}
              />
            </li>
          ))}
        </ul>
      </div>
    </section>
  );
}
