import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { ApiError, client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import type { Draft } from "@/keep/draft";
import { Take } from "@/screens/formula/take";
import { Button } from "@/ui/button";
import { Dialog } from "@/ui/dialog";
import { Input, Select, type Option } from "@/ui/field";
import { grams } from "@/units";
import { say } from "@/say";

type By = Shapes["ScaleAsk"]["by"];

const BY: Record<By, string> = {
  vessels: say("formula.vessels_to_fill"),
  eggs: say("formula.eggs_to_crack"),
  liquid: say("formula.grams_of_liquid"),
  batch: say("formula.grams_of_the_whole_batch"),
  factor: say("formula.times_as_much"),
};

interface Props {
  draft: Draft;
  found: Shapes["FormulaOut"];
  onClose: () => void;
}

/** More or less of the formula, in the cook's own units, shown before it is taken. */
export function ScaleDialog({ draft, found, onClose }: Props) {
  const { kid, units } = useBench();
  const [by, setBy] = useState<By>(found.fit ? "vessels" : "liquid");
  const [typed, setTyped] = useState<string | null>(null);
  const start: Record<By, number> = {
    vessels: found.fit?.count ?? 8,
    eggs: Math.max(1, Math.round(found.whites_left_eggs || 10)),
    liquid: Math.round(found.liquid_g),
    batch: Math.round(found.mass_g),
    factor: 2,
  };
  const text = typed ?? String(start[by]);
  const value = Number(text.replace(",", "."));
  const valid = text.trim() !== "" && value > 0;
  const ask = { content: draft.content, by, value };
  const scaled = useQuery({
    queryKey: ["scale", kid, ask],
    enabled: valid,
    queryFn: ({ signal }) =>
      must(client.POST("/api/k/{kid}/scale", { params: { path: { kid } }, body: ask, signal })),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const out = valid ? scaled.data : undefined;
  const error = scaled.error instanceof ApiError ? scaled.error.message : null;
  const before = draft.content.lines_text.split("\n");
  const wholeAlready = out?.egg_choices.some((c) => Math.abs(c.factor / out.factor - 1) < 1e-4);
  return (
    <Dialog open onClose={onClose} title={say("formula.more_or_less_of_it")}>
      <div className="grid grid-cols-[1fr_1.6fr] gap-4">
        <Input
          label={say("formula.how_much")}
          inputMode="decimal"
          autoFocus
          value={text}
          error={valid ? error : say("formula.a_number_above_nothing_please")}
          onChange={(event) => setTyped(event.target.value)}
        />
        <Select
          label={say("formula.of_what")}
          value={by}
          options={(Object.keys(BY) as By[])
            .filter((key) => key !== "vessels" || found.fit)
            .map((key): Option<By> => {
              const fills = key === "vessels" && found.fit;
              return [key, fills ? say("formula.to_fill", { vessel: fills.vessel }) : BY[key]];
            })}
          onValue={(next) => {
            setBy(next);
            setTyped(null);
          }}
        />
      </div>
      {out && (
        <>
          <p className="mt-4 text-lg" data-testid="scale-words">
            × {out.factor.toFixed(out.factor < 10 ? 3 : 1)}: {grams(out.mass_g, units)}
            {out.eggs > 0 && (
              <>
                , <b>{say("formula.eggs", { eggs: out.eggs.toFixed(wholeAlready ? 0 : 1) })}</b>
              </>
            )}
          </p>
          {!wholeAlready && out.egg_choices.length > 0 && (
            <p className="flex flex-wrap items-center gap-2">
              <span className="caption">{say("formula.whole_eggs_every_ratio_kept")}</span>
              {out.egg_choices.map((choice) => (
                <Button
                  key={choice.eggs}
                  onClick={() => {
                    setBy("eggs");
                    setTyped(String(choice.eggs));
                  }}
                >
                  {say("formula.eggs", { eggs: choice.eggs })}
                </Button>
              ))}
            </p>
          )}
          <table className="mt-3 w-full text-left">
            <thead className="sr-only">
              <tr>
                <th>{say("formula.now")}</th>
                <th>{say("formula.then")}</th>
              </tr>
            </thead>
            <tbody>
              {before.map((line, i) =>
                line.trim() ? (
                  <tr key={i} className="rule-b">
                    <td className="py-1 pr-4 text-soft">{line}</td>
                    <td className="py-1 font-semibold">{out.lines[i]}</td>
                  </tr>
                ) : null,
              )}
            </tbody>
          </table>
          {out.does_not_scale.map((words) => (
            <p key={words} className="mt-2 border-l-[3px] border-burnt pl-3">
              {words}
            </p>
          ))}
        </>
      )}
      <Take
        draft={draft}
        lines={scaled.isPlaceholderData ? undefined : out?.lines}
        onClose={onClose}
      />
    </Dialog>
  );
}
