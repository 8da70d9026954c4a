import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";

import { client, must, type Shapes } from "@/api/client";
import { useCraft, useDessert } from "@/api/queries";
import { useBench } from "@/bench";
import { SetMap } from "@/figures/set-map";
import { PickDessert } from "@/screens/pick";
import { Button } from "@/ui/button";
import { Select, type Option } from "@/ui/field";
import { Empty, Failed, Loading } from "@/ui/states";
import { day, money } from "@/units";
import { DOES } from "@/words";
import { say } from "@/say";

type Side = Shapes["SideOut"];
type Found = Shapes["FormulaOut"];

/** Two versions or two formulas side by side: lines, ratios, set, cost, and what became of them. */
export default function Compare() {
  const { kid } = useBench();
  const [params, setParams] = useSearchParams();
  const [left, right] = [params.get("left") ?? "", params.get("right") ?? ""];
  const compared = useQuery({
    queryKey: ["compare", kid, left, right],
    enabled: Boolean(left && right),
    queryFn: () =>
      must(
        client.POST("/api/k/{kid}/compare", {
          params: { path: { kid } },
          body: { left, right },
        }),
      ),
    placeholderData: keepPreviousData,
  });
  if (!left || !right) {
    return (
      <Empty title={say("compare.nothing_to_compare_yet")}>
        <p>{say("compare.open_a_formula_and_choose_compare")}</p>
      </Empty>
    );
  }
  if (compared.isPending) return <Loading what={say("compare.both_formulas")} />;
  if (compared.isError) {
    return <Failed error={compared.error} again={() => void compared.refetch()} />;
  }
  const { left: a, right: b, found } = compared.data;
  const choose = (side: "left" | "right") => (id: string) => {
    const next = new URLSearchParams(params);
    next.set(side, id);
    setParams(next, { replace: true });
  };
  const point = found.left.points?.[found.right.map?.plane ?? "starch_egg"];
  return (
    <div className="py-5">
      <title>{say("compare.side_by_side_bell_crumb")}</title>
      <h1 className="mb-4 text-3xl">{say("compare.side_by_side")}</h1>
      <div className="grid gap-x-8 gap-y-5 lg:grid-cols-[1fr_1.1fr]">
        <section aria-label={say("compare.on_the_map")}>
          {found.right.map && found.right.set ? (
            <SetMap
              map={found.right.map}
              set={found.right.set}
              others={
                point
                  ? [{ key: "left", name: nameOf(a), kind: "before", x: point.x, y: point.y }]
                  : []
              }
            />
          ) : (
            <p className="py-10 text-soft">{say("compare.the_right_one_is_no_custard")}</p>
          )}
          <p className="caption">{say("compare.ring_left_full_point_right")}</p>
          <ul className="mt-3 space-y-1 text-lg" data-testid="compare-says">
            {found.says.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        </section>
        <section aria-label={say("compare.line_by_line")}>
          <div className="grid grid-cols-2 gap-x-5">
            <Head side={a} id={left} choose={choose("left")} word={say("compare.left")} />
            <Head side={b} id={right} choose={choose("right")} word={say("compare.right")} />
          </div>
          <Pairs pairs={found.pairs} />
          <Numbers left={found.left} right={found.right} />
          <div className="mt-4 grid grid-cols-2 gap-x-5">
            <Kept side={a} />
            <Kept side={b} />
          </div>
        </section>
      </div>
    </div>
  );
}

const nameOf = (side: Side) =>
  say("compare.version", { dessert: side.dessert, number: side.number });

function Head({
  side,
  id,
  choose,
  word,
}: {
  side: Side;
  id: string;
  choose: (id: string) => void;
  word: string;
}) {
  const { kid } = useBench();
  const [picking, setPicking] = useState(false);
  const [other, setOther] = useState<string | null>(null);
  const dessert = useDessert(kid, other ?? side.dessert_id);
  const parts = dessert.data?.parts ?? [];
  const listed = parts.flatMap((part) =>
    part.versions.map((v): Option<string> => [
      v.id,
      say("compare.version_2", {
        parts: parts.length > 1 ? `${part.name}, ` : "",
        number: v.number,
        cooked: v.cooked ? say("compare.cooked") : "",
      }),
    ]),
  );
  const chooseOne = say("compare.choose_one_of", {
    dessert: dessert.data?.name ?? say("compare.it"),
  });
  return (
    <div>
      <h2 className="text-xl leading-tight">
        <Link className="hover:underline" to={`/k/${kid}/d/${side.dessert_id}`}>
          {side.dessert}
        </Link>
      </h2>
      <Select
        label={other ? say("compare.which_version") : say("compare.on_the", { word })}
        value={other ? "" : id}
        options={[...(other ? [["", chooseOne] as const] : []), ...listed]}
        onValue={(version) => {
          setOther(null);
          choose(version);
        }}
      />
      <Button kind="quiet" className="!px-0" onClick={() => setPicking(true)}>
        {say("compare.another_dessert")}
      </Button>
      {picking && (
        <PickDessert
          title={say("compare.what_lies_on_the", { word })}
          onClose={() => setPicking(false)}
          onPick={(card) => {
            setOther(card.id);
            setPicking(false);
          }}
        />
      )}
    </div>
  );
}

function Pairs({ pairs }: { pairs: Shapes["Pair"][] }) {
  return (
    <table className="rule-t w-full text-left" data-testid="pairs">
      <thead className="sr-only">
        <tr>
          <th>{say("compare.left")}</th>
          <th>{say("compare.change_for_the_same_liquid")}</th>
          <th>{say("compare.right")}</th>
        </tr>
      </thead>
      <tbody>
        {pairs.map((pair, i) => {
          const change = pair.change_pct;
          const same = change !== null && Math.abs(change) < 0.5;
          return (
            <tr key={i} className={`rule-b align-top ${same ? "text-soft" : ""}`}>
              <td className="w-[42%] py-1.5 pr-2">{pair.left ?? "–"}</td>
              <td className="w-[16%] py-1.5 text-center whitespace-nowrap">
                {change === null ? (
                  <span className="text-burnt">
                    {pair.left ? say("compare.out") : say("compare.new")}
                  </span>
                ) : same ? (
                  "="
                ) : (
                  <b className="text-burnt">
                    {change > 0 ? "+" : "−"}
                    {Math.abs(change).toFixed(0)} %
                  </b>
                )}
              </td>
              <td className="w-[42%] py-1.5 pl-2">{pair.right ?? "–"}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function Numbers({ left, right }: { left: Found; right: Found }) {
  const { kitchen } = useBench();
  const rows: [string, string, string][] = [];
  const number = (word: string, pick: (f: Found) => number | undefined, digits = 0) => {
    const [a, b] = [pick(left), pick(right)];
    if ((a ?? 0) || (b ?? 0))
      rows.push([word, a?.toFixed(digits) ?? "–", b?.toFixed(digits) ?? "–"]);
  };
  rows.push([
    say("compare.sets_so_that_it"),
    left.set ? DOES[left.set.class].toLowerCase() : "–",
    right.set ? DOES[right.set.class].toLowerCase() : "–",
  ]);
  number("S", (f) => f.set?.index, 2);
  number(say("compare.yolk_per_1000"), (f) => f.per_1000_liquid?.yolk_g);
  number(say("compare.whole_egg_per_1000"), (f) => f.per_1000_liquid?.whole_egg_g);
  number(say("compare.starch_as_corn"), (f) => f.per_1000_liquid?.corn_starch_equivalent_g);
  number(say("compare.sugar_per_1000"), (f) => f.per_1000_liquid?.sugar_g);
  number(say("compare.fat"), (f) => f.composition_pct.fat, 1);
  number(say("compare.sweetness"), (f) => f.taste_pct.sweetness, 1);
  if (left.cost && right.cost) {
    rows.push([
      left.portions && right.portions ? say("compare.a_portion_costs") : say("compare.100_g_cost"),
      money(left.cost.portion, kitchen.currency),
      money(right.cost.portion, kitchen.currency),
    ]);
  }
  return (
    <table className="mt-4 w-full">
      <thead className="sr-only">
        <tr>
          <th>{say("compare.left")}</th>
          <th>{say("compare.what")}</th>
          <th>{say("compare.right")}</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(([word, a, b]) => (
          <tr key={word} className="rule-b">
            <td className="w-[30%] py-1 font-semibold">{a}</td>
            <th className="caption py-1 text-center font-normal">{word}</th>
            <td className={`w-[30%] py-1 text-right font-semibold ${a === b ? "" : "text-burnt"}`}>
              {b}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** The note of a version, and its batches with what came of them. */
function Kept({ side }: { side: Side }) {
  const { kid } = useBench();
  const craft = useCraft();
  const fault = (key: string) => craft.data?.faults.find((f) => f.key === key)?.name ?? key;
  return (
    <div>
      {side.note && <p className="whitespace-pre-line italic">{side.note}</p>}
      {side.cooked.length === 0 && <p className="caption mt-1">{say("compare.not_cooked_yet")}</p>}
      <ul className="mt-1">
        {side.cooked.map((batch) => (
          <li key={batch.id} className="rule-t py-2">
            <Link className="underline underline-offset-4" to={`/k/${kid}/book/${batch.id}`}>
              {day(batch.started_at)}, {batch.cook ?? say("compare.somebody")}
            </Link>{" "}
            <b>{batch.texture ? DOES[batch.texture].toLowerCase() : say("compare.not_judged")}</b>
            {batch.faults.length > 0 && (
              <span className="text-burnt"> {batch.faults.map(fault).join(", ")}</span>
            )}
            {batch.note && <p className="caption">{batch.note}</p>}
          </li>
        ))}
      </ul>
    </div>
  );
}
