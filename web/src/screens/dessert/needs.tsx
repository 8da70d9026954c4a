import type { Shapes } from "@/api/client";
import { useBench } from "@/bench";
import type { Content } from "@/screens/dessert/use-build";
import { Button } from "@/ui/button";
import { NumberField } from "@/ui/field";
import { grams } from "@/units";
import { say } from "@/say";

type Build = Shapes["BuildOut"];

interface Props {
  build: Build;
  content: Content;
  dessert: Shapes["DessertOut"];
  canScale: boolean;
  busy: boolean;
  change: (part: Partial<Content>) => void;
  onScale: () => void;
}

/** What each part must give, against what its formula makes, and what is lost on the way. */
export function Needs({ build, content, dessert, canScale, busy, change, onScale }: Props) {
  const { units } = useBench();
  const off = build.parts.some((p) => Math.abs(p.scaled_times - 1) > 0.005 && p.need_g > 0);
  const losses = content.losses ?? [];
  // The parts come in the dessert's order, what was bought after them.
  const idOf = (n: number) => dessert.parts[n]?.id;
  const lose = (id: string, lost_pct: number) =>
    change({ losses: [...losses.filter((l) => l.part_id !== id), { part_id: id, lost_pct }] });
  return (
    <section className="mt-8" aria-label={say("dessert.what_each_part_must_give")}>
      <div className="flex flex-wrap items-end justify-between gap-4">
        <h2 className="text-2xl">{say("dessert.what_it_takes")}</h2>
        {canScale && off && (
          <Button kind="act" disabled={busy} onClick={onScale}>
            {say("dessert.write_every_part_at_this_size")}
          </Button>
        )}
      </div>
      <div className="overflow-x-auto">
        <table className="mt-2 w-full text-left" data-testid="needs">
          <thead className="caption">
            <tr>
              <th className="font-normal">{say("dessert.part")}</th>
              <th className="pl-3 text-right align-bottom font-normal">{say("dessert.needed")}</th>
              <th className="pl-3 text-right align-bottom font-normal max-sm:hidden">
                {say("dessert.as_written")}
              </th>
              <th className="pl-3 text-right align-bottom font-normal">
                {say("dessert.over_or_short")}
              </th>
              <th className="pl-3 text-right align-bottom font-normal">{say("dessert.lost")}</th>
              <th className="pl-3 text-right align-bottom font-normal">{say("dessert.make_it")}</th>
            </tr>
          </thead>
          <tbody>
            {build.parts.map((p, n) => {
              const id = idOf(n);
              return (
                <tr key={p.name} className="rule-b">
                  <td className="py-1.5 pr-3">{p.name}</td>
                  <td className="pl-3 text-right whitespace-nowrap">{grams(p.need_g, units)}</td>
                  <td className="pl-3 text-right whitespace-nowrap max-sm:hidden">
                    {grams(p.written_g, units)}
                  </td>
                  <td
                    className={`pl-3 text-right whitespace-nowrap ${p.left_g < -1 ? "text-burnt font-semibold" : ""}`}
                  >
                    {Math.abs(p.left_g) < 1
                      ? say("dessert.all_of_it")
                      : `${p.left_g > 0 ? "+" : "−"}${grams(Math.abs(p.left_g), units)}`}
                  </td>
                  <td className="w-24 min-w-14 pl-4 text-right">
                    {id && canScale ? (
                      <NumberField
                        label={say("dessert.lost_of", { p: p.name })}
                        bare
                        value={Math.round(p.lost_pct)}
                        low={0}
                        high={60}
                        onValue={(v) => lose(id, v)}
                      />
                    ) : (
                      `${p.lost_pct.toFixed(0)} %`
                    )}
                  </td>
                  <td className="pl-3 text-right font-semibold whitespace-nowrap">
                    × {p.scaled_times.toFixed(2)}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <p className="caption mt-1">{say("dessert.lost_what_stays_in_the_pot")}</p>
    </section>
  );
}
