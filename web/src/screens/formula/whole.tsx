import type { Shapes } from "@/api/client";
import { useTotal } from "@/api/queries";
import { useBench } from "@/bench";
import { grams, money } from "@/units";
import { Contains } from "@/ui/contains";
import { Say, say } from "@/say";

/** All the parts of a dessert together, and one portion of it. */
export function Whole({ dessert }: { dessert: Shapes["DessertOut"] }) {
  const { kid, units, kitchen } = useBench();
  const total = useTotal(kid, dessert.id, true).data;
  if (!total) return null;
  return (
    <div className="rule-t pt-3" data-testid="whole">
      <h2 className="text-2xl">
        <Say
          code="formula.the_dessert_whole_portions_of"
          values={{ portions: total.portions, portion_g: grams(total.portion_g, units) }}
          components={{ span: <span className="text-lg text-soft italic" /> }}
        />
      </h2>
      <div className="mt-2 grid gap-x-10 gap-y-3 md:grid-cols-2">
        <div>
          <svg viewBox="0 0 600 34" className="plate block h-auto w-full" aria-hidden="true">
            {spans(total).map(({ from, width, fill }, i) => (
              <rect
                key={i}
                x={from}
                y="2"
                width={width}
                height="30"
                fill={`url(#${fill})`}
                stroke="var(--ink)"
                strokeWidth="1.4"
              />
            ))}
          </svg>
          <table className="w-full text-left">
            <thead className="caption">
              <tr>
                <th className="font-normal">{say("formula.part")}</th>
                <th className="pl-3 text-right align-bottom font-normal">
                  {say("formula.as_written_2")}
                </th>
                <th className="pl-3 text-right align-bottom font-normal">
                  {say("formula.portions")}
                </th>
                <th className="pl-3 text-right align-bottom font-normal">
                  {say("formula.in_one")}
                </th>
              </tr>
            </thead>
            <tbody>
              {total.parts.map((p, i) => (
                <tr key={i} className="rule-b">
                  <td className="py-1">{p.name}</td>
                  <td className="text-right">{grams(p.mass_g, units)}</td>
                  <td className="text-right">{p.said ? p.portions : say("formula.shared")}</td>
                  <td className="text-right font-semibold">{grams(p.portion_g, units)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        <div className="space-y-1">
          <p>
            <Say
              code="formula.one_portion_kcal_fat_g_sugars"
              values={{
                kcal: Math.round(total.nutrition.kcal),
                fat_g: total.nutrition.fat_g.toFixed(0),
                sugars_g: total.nutrition.sugars_g.toFixed(0),
                protein_g: total.nutrition.protein_g.toFixed(0),
                cost: total.cost && (
                  <>
                    , <b>{money(total.cost.portion, kitchen.currency)}</b>
                  </>
                ),
              }}
              components={{ b: <b /> }}
            />
          </p>
          {total.cost && total.cost.without_price.length > 0 && (
            <p className="caption">
              {say("formula.no_price_yet", { without_price: total.cost.without_price.join(", ") })}
            </p>
          )}
          {total.eggs_separate + total.eggs_whole > 0 && (
            <p>
              {total.eggs_separate > 0 && (
                <>
                  <Say
                    code="formula.part_eggs"
                    values={{ eggs_separate: total.eggs_separate }}
                    components={{ b: <b /> }}
                  />
                </>
              )}
              {total.eggs_whole > 0 &&
                say("formula.whole", {
                  eggs_separate: total.eggs_separate
                    ? say("formula.crack")
                    : say("formula.crack_2"),
                  eggs_whole: total.eggs_whole,
                })}
              . {total.says.join(" ")}
            </p>
          )}
          <Contains of={total} />
          {total.warnings.map((w) => (
            <p key={w} className="border-l-[3px] border-burnt pl-3">
              {w}
            </p>
          ))}
        </div>
      </div>
    </div>
  );
}

const FILLS = ["h-wall", "h-unmould", "h-nappe", "h-pipe", "h-cold", "h-slice"];

/** The parts of a portion side by side by weight. */
function spans(total: Shapes["TotalOut"]) {
  let from = 1;
  return total.parts.map((p, i) => {
    const width = (p.portion_g / total.portion_g) * 598;
    const span = { from, width, fill: FILLS[i % FILLS.length] ?? "h-wall" };
    from += width;
    return span;
  });
}
