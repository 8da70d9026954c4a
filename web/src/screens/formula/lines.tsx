import { useId, useLayoutEffect, useRef, useState } from "react";

import type { Shapes } from "@/api/client";
import { useBench } from "@/bench";
import type { Draft } from "@/keep/draft";
import { useGradeName } from "@/screens/egg-grades";
import { ItIs, OneWeighs } from "@/screens/formula/remember";
import { DescribeDialog } from "@/screens/formula/describe";
import { Button } from "@/ui/button";
import { say } from "@/say";

type Line = Shapes["LineOut"];
const ROW = "46px";

const MARK: Record<Line["confidence"], string> = {
  sure: "",
  likely: "·",
  doubtful: "?",
  unknown: "!",
};

interface Props {
  draft: Draft;
  found: Shapes["FormulaOut"] | undefined;
  readOnly: boolean;
}

/** The lines as typed, and beside each what was understood of it. */
export function Lines({ draft, found, readOnly }: Props) {
  const { units, canCook } = useBench();
  const eggGrade = useGradeName(draft.content.egg_grade);
  const area = useRef<HTMLTextAreaElement>(null);
  const hint = useId();
  const [describing, setDescribing] = useState<Line | null>(null);
  const rows = draft.content.lines_text.split("\n");
  const count = Math.max(9, rows.length + 1);
  useLayoutEffect(() => {
    if (area.current) area.current.style.height = `calc(${count} * ${ROW})`;
  }, [count]);
  const understood = (i: number): Line | undefined => {
    const line = found?.lines[i];
    return line?.text === rows[i] ? line : undefined;
  };
  const open = (found?.lines ?? []).filter(
    (line, i) => line.text === rows[i] && line.message && line.confidence !== "sure",
  );
  const replace = (line: Line, text: string) =>
    draft.change({
      lines_text: rows.map((row) => (row === line.text ? text : row)).join("\n"),
    });
  return (
    <>
      <div className="rule-t relative grid grid-cols-[minmax(0,1fr)_8.6rem] border-b border-rule">
        <textarea
          ref={area}
          aria-label={say("formula.formula_one_line_for_each_ingredient")}
          aria-describedby={hint}
          className="resize-none overflow-x-auto overflow-y-hidden border-0 bg-transparent p-0 pr-2 text-[1.06rem] whitespace-pre"
          style={{
            lineHeight: ROW,
            backgroundImage: `repeating-linear-gradient(transparent 0 calc(${ROW} - 1px), var(--rule) calc(${ROW} - 1px) ${ROW})`,
          }}
          spellCheck={false}
          autoCapitalize="none"
          readOnly={readOnly}
          maxLength={20000}
          placeholder={say("formula.1_l_whole_milk_9_yolks")}
          value={draft.content.lines_text}
          onChange={(event) => draft.change({ lines_text: event.target.value })}
        />
        <ol className="border-l border-rule" aria-label={say("formula.what_was_understood")}>
          {Array.from({ length: count }, (_, i) => {
            const line = understood(i);
            return (
              <li
                key={i}
                className="overflow-hidden border-b border-rule pl-2 leading-tight"
                style={{ height: ROW }}
                data-confidence={line && !line.blank ? line.confidence : undefined}
              >
                {line && !line.blank && <Understood line={line} us={units === "us"} />}
              </li>
            );
          })}
        </ol>
      </div>
      <p id={hint} className="caption mt-2">
        {say("formula.eggs_are_one_line_an_ingredient", { egg_grade: eggGrade })}
      </p>
      {rows.length > 200 && (
        <p role="alert" className="mt-2 text-burnt">
          {say("formula.only_the_first_200_lines_are")}
        </p>
      )}
      {draft.field === "lines_text" && draft.message && (
        <p role="alert" className="mt-2 text-burnt">
          {draft.message}
        </p>
      )}
      {open.length > 0 && (
        <ul className="mt-3 space-y-2" aria-label={say("formula.lines_in_doubt")}>
          {open.map((line, i) => (
            <li key={`${line.text}${i}`} className="flex gap-2 text-[0.96rem]">
              <span
                aria-hidden="true"
                className={`w-4 shrink-0 font-bold ${line.confidence === "unknown" ? "text-burnt" : ""}`}
              >
                {MARK[line.confidence]}
              </span>
              <div>
                <span className="font-semibold">{line.text.trim()}</span>{" "}
                <span className={line.confidence === "unknown" ? "text-burnt" : "text-soft"}>
                  {line.message}
                </span>
                {canCook && ["can", "pack", "piece"].includes(line.asks) && (
                  <OneWeighs line={line} />
                )}
                {!readOnly && line.confidence === "unknown" && !line.ingredient && (
                  <span className="flex flex-wrap">
                    {line.suggestions.map((name) =>
                      line.asks === "name" ? (
                        <ItIs key={name} said={line.said} name={name} />
                      ) : (
                        <Button
                          key={name}
                          kind="quiet"
                          className="!px-2"
                          onClick={() => replace(line, swapName(line, name))}
                        >
                          {name.toLowerCase()}
                        </Button>
                      ),
                    )}
                    {line.asks === "name" ? (
                      <Button kind="quiet" className="!px-2" onClick={() => setDescribing(line)}>
                        {say("formula.describe_it")}
                      </Button>
                    ) : null}
                  </span>
                )}
              </div>
            </li>
          ))}
        </ul>
      )}
      {describing && (
        <DescribeDialog
          key={describing.text}
          name={describing.called}
          onClose={() => setDescribing(null)}
        />
      )}
    </>
  );
}

function Understood({ line, us }: { line: Line; us: boolean }) {
  const amount = us && line.us ? line.us : line.metric;
  const unknown = line.confidence === "unknown";
  return (
    <span title={line.message || (line.name ?? "")} className="block pt-1.5">
      <span className={`block truncate ${unknown ? "text-burnt" : "font-semibold"}`}>
        {unknown ? "?" : amount}
        {line.confidence === "doubtful" && <span className="text-burnt"> ?</span>}
        {line.confidence === "likely" && <span className="text-soft"> ·</span>}
      </span>
      <span
        className={`caption block truncate !text-[0.76rem] ${line.confidence === "sure" ? "" : "underline decoration-dotted underline-offset-2"}`}
      >
        {unknown ? line.message : short(line.name ?? "")}
      </span>
    </span>
  );
}

const short = (name: string) => (name.split(/[,(]/)[0] ?? name).trim().toLowerCase();

function swapName(line: Line, name: string): string {
  const typed = line.text.trimEnd();
  return `${typed.slice(0, typed.length - line.called.length)}${short(name)}`;
}
