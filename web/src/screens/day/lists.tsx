import type { Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { grams, weekdayTime, type Units } from "@/units";
import { Say, say } from "@/say";

type Plan = Shapes["DayOut"];

/** What is bought: pieces, whole packs, or grams. */
function bought(b: Shapes["BuyOut"], units: Units): string {
  const packs =
    b.packs === null ? "" : `${b.packs} ${b.packs === 1 ? say("day.pack") : say("day.packs")}`;
  if (b.pieces !== null) return packs ? `${b.pieces} (${packs})` : `${b.pieces}`;
  if (b.packs !== null && b.pack_g !== null) return `${b.packs} × ${grams(b.pack_g, units)}`;
  return grams(b.buy_g, units);
}

/** What the day needs: what is made once, what to buy, what is weighed when, and the moulds. */
export function Lists({ plan }: { plan: Plan }) {
  const { units } = useBench();
  const { buy, joined, moulds, mise } = plan;
  const toBuy = buy.filter((b) => b.buy_g > 0.5);
  const there = buy.filter((b) => b.buy_g <= 0.5);
  return (
    <section aria-label={say("day.what_the_day_needs")} className="mt-6">
      {joined.map((j) => (
        <p
          key={j.part + j.desserts.join()}
          className="mb-1 border-l-[3px] border-rule pl-3"
          data-testid="joined"
        >
          <Say
            code="day.is_made_once_for"
            values={{
              part: j.part,
              grams: grams(j.grams, units),
              desserts: j.desserts.join(say("words.and")),
            }}
            components={{ b: <b /> }}
          />
        </p>
      ))}
      <div className="mt-3 grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-6 lg:grid-cols-2">
        <div>
          <h2 className="text-2xl">{say("day.to_buy")}</h2>
          <table className="w-full text-left" data-testid="buy">
            <thead className="caption">
              <tr>
                <th className="font-normal">{say("day.what")}</th>
                <th className="pl-3 text-right align-bottom font-normal">{say("day.needed")}</th>
                <th className="pl-3 text-right font-normal">{say("day.in_the_house")}</th>
                <th className="pl-3 text-right align-bottom font-normal">{say("day.buy")}</th>
              </tr>
            </thead>
            <tbody>
              {toBuy.map((b) => (
                <tr key={b.ingredient} className="rule-b">
                  <td className="py-1 pr-2 break-words">{b.name}</td>
                  <td className="pl-3 text-right whitespace-nowrap">{grams(b.need_g, units)}</td>
                  <td className="pl-3 text-right whitespace-nowrap">
                    {b.house_g > 0 ? grams(b.house_g, units) : "–"}
                  </td>
                  <td className="pl-3 text-right font-semibold sm:whitespace-nowrap">
                    {bought(b, units)}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {there.length > 0 && (
            <p className="caption mt-1">
              {say("day.in_the_house_already")}
              {there.map((b) => b.name.toLowerCase()).join(", ")}.
            </p>
          )}
          {moulds.length > 0 && (
            <p className="mt-3" data-testid="moulds">
              {say("day.moulds_at_once")}
              {moulds
                .map(
                  (m) =>
                    `${m.used} ${m.vessel}${m.have === null ? "" : say("day.of", { have: m.have })}`,
                )
                .join(", ")}
              .
            </p>
          )}
        </div>
        <div>
          <h2 className="text-2xl">{say("day.weighed_in_the_order_of_need")}</h2>
          <ol data-testid="mise">
            {mise.map((m) => (
              <li key={`${m.dessert}${m.part}${m.at}`} className="rule-b py-1.5 leading-snug">
                <b>{weekdayTime(m.at)}</b> {m.part}{" "}
                <span className="caption">{say("day.for", { dessert: m.dessert })}</span>
                <span className="block">{m.lines.join(", ")}</span>
              </li>
            ))}
          </ol>
        </div>
      </div>
    </section>
  );
}
