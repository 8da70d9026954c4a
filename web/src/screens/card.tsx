import { useState } from "react";
import { Link, useParams } from "react-router";

import type { Shapes } from "@/api/client";
import { useAnswer, useDessert } from "@/api/queries";
import { useBench } from "@/bench";
import { Slice } from "@/figures/slice";
import { contentOf } from "@/keep/draft";
import { useBuild } from "@/screens/dessert/use-build";
import { endpoint } from "@/screens/formula/facts";
import { partQuery, usePart, type Part } from "@/screens/formula/part";
import { Button } from "@/ui/button";
import { Failed, Loading } from "@/ui/states";
import { grams, litres, millilitres, millimetres } from "@/units";
import { DOES } from "@/words";
import { incomplete } from "@/ui/contains";
import { say } from "@/say";

/** Inside measures of the paper in millimetres. */
const PAPER = {
  A5: { name: "A5", size: "A5 portrait", width: 148, height: 210 },
  half: {
    name: say("card.letter_half"),
    size: "5.5in 8.5in",
    width: 139.7,
    height: 215.9,
  },
} as const;

const WAY = "flex min-h-12 items-center underline decoration-rule underline-offset-4";

/** The bench card: one part on one small sheet, to be read at arm's length, in both units. */
export default function Card() {
  const { kid } = useBench();
  const id = useParams()["dessertId"] ?? "";
  const dessert = useDessert(kid, id);
  const { part } = usePart(dessert.data);
  const version = part?.versions.at(-1);
  const answer = useAnswer(kid, version && contentOf(version), part?.kind);
  const [paper, setPaper] = useState<keyof typeof PAPER>("A5");
  if (dessert.isError) return <Failed error={dessert.error} again={() => void dessert.refetch()} />;
  if (!dessert.data || !part || !version || !answer.data)
    return <Loading what={say("card.the_card")} />;
  return (
    <div className="py-5">
      <title>{say("card.bench_card_bell_crumb", { dessert: dessert.data.name })}</title>
      <style>{`@page{size:${PAPER[paper].size};margin:9mm}`}</style>
      <div className="no-print mb-5 flex flex-wrap items-center gap-x-6 gap-y-2">
        <h1 className="text-3xl">{say("card.bench_card")}</h1>
        {(Object.keys(PAPER) as (keyof typeof PAPER)[]).map((key) => (
          <label key={key} className="flex min-h-12 items-center gap-2">
            <input
              type="radio"
              name="paper"
              className="size-5 accent-burnt"
              checked={paper === key}
              onChange={() => setPaper(key)}
            />
            {PAPER[key].name}
          </label>
        ))}
        <Button kind="act" onClick={() => window.print()}>
          {say("card.print_it")}
        </Button>
        <span className="flex flex-wrap gap-x-5">
          {(["json", "jsonld", "text", "csv"] as const).map((form) => (
            <a
              key={form}
              className={WAY}
              href={`/api/k/${kid}/export?form=${form}&dessert=${id}`}
              download
            >
              {
                {
                  json: say("card.own_file"),
                  jsonld: "schema.org",
                  text: say("card.text"),
                  csv: say("card.table"),
                }[form]
              }
            </a>
          ))}
        </span>
        <Link className={WAY} to={`/k/${kid}/d/${id}${partQuery(dessert.data, part)}`}>
          {say("card.back_to_the_formula")}
        </Link>
      </div>
      <Sheet
        dessert={dessert.data}
        part={part}
        version={version}
        found={answer.data}
        paper={PAPER[paper]}
      />
    </div>
  );
}

interface SheetProps {
  dessert: Shapes["DessertOut"];
  part: Part;
  version: Shapes["VersionOut"];
  found: Shapes["FormulaOut"];
  paper: { width: number; height: number };
}

function Sheet({ dessert, part, version, found, paper }: SheetProps) {
  const fit = found.fit;
  const lines = found.lines.filter((line) => !line.blank);
  return (
    <article
      className="sheet mx-auto flex flex-col border-[1.5px] border-ink bg-sheet p-[9mm] text-ink"
      style={{ width: `min(100%, ${paper.width}mm)`, minHeight: `${paper.height}mm` }}
      aria-label={say("card.the_card_as_it_is_printed")}
    >
      <header className="border-b-[2px] border-ink pb-1">
        <h2 className="text-[22pt] leading-none">{dessert.name}</h2>
        <p className="text-[10pt]">
          {say("card.version", {
            parts: dessert.parts.length > 1 && `${part.name} · `,
            number: version.number,
            eggs: found.eggs && say("card.eggs", { grade: found.eggs.grade }),
            fit: fit && ` · ${fit.count} × ${fit.vessel}`,
          })}
        </p>
      </header>
      <table className="mt-1 w-full text-left text-[13.5pt] leading-snug">
        <thead className="sr-only">
          <tr>
            <th>{say("card.ingredient")}</th>
            <th>{say("card.weight")}</th>
            <th>{say("card.cups_and_spoons")}</th>
          </tr>
        </thead>
        <tbody>
          {lines.map((line, i) => (
            <tr key={i} className="border-b border-rule align-baseline">
              <td className="py-[1.1mm] pr-2">{line.called}</td>
              <td className="py-[1.1mm] text-right font-bold whitespace-nowrap">
                {line.metric || "?"}
              </td>
              <td className="py-[1.1mm] pl-3 text-right whitespace-nowrap">{line.us}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <dl className="mt-3 grid grid-cols-[auto_1fr] gap-x-3 gap-y-[1mm] text-[12pt]">
        {found.cook && found.cook.mode !== "none" && (
          <Row word={say("card.cook")}>
            <b>{endpoint(found.cook, "metric")}</b>
            {found.cook.mode !== "boil_hold" && (
              <span className="block text-[10.5pt]">{endpoint(found.cook, "us")}</span>
            )}
          </Row>
        )}
        {found.set && (
          <Row word={say("card.sets")}>
            {DOES[found.set.class].toLowerCase()}
            {found.set.borderline &&
              say("card.near", { does: DOES[found.set.borderline].toLowerCase() })}
          </Row>
        )}
        {fit && (
          <Row word={say("card.fill")}>
            {say("card.in_each_below_the_rim", {
              per_vessel_ml: millilitres(fit.per_vessel_ml, "metric"),
              per_vessel_ml2: millilitres(fit.per_vessel_ml, "us"),
              per_vessel_g: grams(fit.per_vessel_g, "metric"),
              per_vessel_g2: grams(fit.per_vessel_g, "us"),
              depth_mm: millimetres(fit.depth_mm * (1 - fit.fill), "metric"),
            })}
          </Row>
        )}
        {fit?.tray && fit.tray.water_ml > 0 && (
          <Row word={say("card.bath")}>
            {say("card.in_a_deep", {
              water_ml: litres(fit.tray.water_ml, "metric"),
              water_ml2: litres(fit.tray.water_ml, "us"),
              pan: fit.tray.pan,
              level_mm: millimetres(fit.tray.level_mm, "metric"),
            })}
          </Row>
        )}
        {found.eggs && (
          <Row word={say("card.eggs_2")}>
            {say("card.crack", {
              crack: Math.round(found.eggs.crack * 10) / 10,
              whites_left_g:
                found.whites_left_g > 1 &&
                say("card.of_white_left", { whites_left_g: grams(found.whites_left_g, "metric") }),
            })}
          </Row>
        )}
        {found.family && (
          <Row word={say("card.keeps")}>
            {say("card.days_in_the_cold_the_local", {
              keep_days: found.family.keep_days[0],
              keep_days2: found.family.keep_days[1],
            })}
          </Row>
        )}
        {(found.allergens.length > 0 || incomplete(found)) && (
          <Row word={say("card.contains")}>
            <b>{found.allergens.join(", ")}</b>
            {incomplete(found) && ` ${incomplete(found)}`}
          </Row>
        )}
      </dl>
      <Cut id={dessert.id} />
      {version.note && (
        <p className="mt-3 border-t border-rule pt-2 text-[11.5pt] whitespace-pre-line">
          {version.note}
        </p>
      )}
    </article>
  );
}

/** The whole dessert cut open, where it is built of more than one layer. */
function Cut({ id }: { id: string }) {
  const { kid } = useBench();
  const { saved } = useBuild(kid, id);
  const found = saved.data?.found;
  if (!found || found.layers.length < 2) return null;
  return (
    <div className="mt-3 border-t border-rule pt-2">
      <Slice build={found} units="metric" chosen={null} choose={() => undefined} />
    </div>
  );
}

function Row({ word, children }: { word: string; children: React.ReactNode }) {
  return (
    <>
      <dt className="italic">{word}</dt>
      <dd>{children}</dd>
    </>
  );
}
