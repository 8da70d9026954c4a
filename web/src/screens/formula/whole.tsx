import type { Shapes } from "@/api/client";
import { useTotal } from "@/api/queries";
import { useBench } from "@/bench";
import { grams, money } from "@/units";
import { Contains } from "@/ui/contains";

/** All the parts of a dessert together, and one portion of it. */
export function Whole({ dessert }: { dessert: Shapes["DessertOut"] }) {
  const { kid, units, kitchen } = useBench();
  const total = useTotal(kid, dessert.id, true).data;
  if (!total) return null;
  return (
    <div className="rule-t pt-3" data-testid="whole">
      <h2 className="text-2xl">
        The dessert whole{" "}
        <span className="text-lg text-soft italic">
          {total.portions} {total.portions === 1 ? "portion" : "portions"} of{" "}
          {grams(total.portion_g, units)}
        </span>
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
                <th className="font-normal">part</th>
                <th className="text-right font-normal">as written</th>
                <th className="text-right font-normal">portions</th>
                <th className="text-right font-normal">in one</th>
              </tr>
            </thead>
            <tbody>
              {total.parts.map((p, i) => (
                <tr key={i} className="rule-b">
                  <td className="py-1">{p.name}</td>
                  <td className="text-right">{grams(p.mass_g, units)}</td>
                  <td className="text-right">{p.said ? p.portions : "shared"}</td>
                  <td className="text-right font-semibold">{grams(p.portion_g, units)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        <div className="space-y-1">
          <p>
            One portion: <b>{Math.round(total.nutrition.kcal)} kcal</b>, fat{" "}
            {total.nutrition.fat_g.toFixed(0)} g, sugars {total.nutrition.sugars_g.toFixed(0)} g,
            protein {total.nutrition.protein_g.toFixed(0)} g
            {total.cost && (
              <>
                , <b>{money(total.cost.portion, kitchen.currency)}</b>
              </>
            )}
            .
          </p>
          {total.cost && total.cost.without_price.length > 0 && (
            <p className="caption">no price yet: {total.cost.without_price.join(", ")}</p>
          )}
          {total.eggs_separate + total.eggs_whole > 0 && (
            <p>
              {total.eggs_separate > 0 && (
                <>
                  Part <b>{total.eggs_separate}</b> eggs
                </>
              )}
              {total.eggs_whole > 0 &&
                `${total.eggs_separate ? ", crack " : "Crack "}${total.eggs_whole} whole`}
              . {total.says.join(" ")}
            </p>
          )}
          <Contains allergens={total.allergens} complete={total.complete} />
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
