import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useState } from "react";
import { Link, useParams } from "react-router";

import { ApiError, client, must, type Shapes } from "@/api/client";
import { useAnswer, useDessert, type Plane } from "@/api/queries";
import { putOnBench, useBench } from "@/bench";
import { contentOf, useDraft } from "@/keep/draft";
import { BendDialog } from "@/screens/formula/bend";
import { Facts } from "@/screens/formula/facts";
import { FitPlate } from "@/screens/formula/fit-plate";
import { Lines } from "@/screens/formula/lines";
import { ScaleDialog } from "@/screens/formula/scale";
import { Makeup } from "@/figures/makeup";
import { MapPlate } from "@/screens/formula/map-plate";
import { Note } from "@/screens/formula/note";
import { partQuery, usePart, type Part } from "@/screens/formula/part";
import { Parts, ReadsAs } from "@/screens/formula/parts";
import { Whole } from "@/screens/formula/whole";
import { ConflictDialog, SaveNote } from "@/screens/formula/saving";
import { Button } from "@/ui/button";
import { usePageKeys } from "@/ui/keys";
import { Failed, Loading } from "@/ui/states";
import { say } from "@/say";

/** The formula bench: lines on the left, what they decide drawn beside them as they are typed. */
export default function Formula() {
  const { kid } = useBench();
  const id = useParams()["dessertId"] ?? "";
  const dessert = useDessert(kid, id);
  const [chosen, setChosen] = useState<string | null>(null);
  const { part, choose } = usePart(dessert.data);
  useEffect(() => {
    if (dessert.data) putOnBench(kid, id, dessert.data.name);
  }, [dessert.data, id, kid]);
  if (dessert.isPending) return <Loading what={say("formula.the_formula")} />;
  if (dessert.isError) return <Failed error={dessert.error} again={() => void dessert.refetch()} />;
  if (!part) return <p className="p-8">{say("formula.this_dessert_has_no_formula")}</p>;
  const versions = part.versions;
  const version = versions.find((v) => v.id === chosen) ?? versions.at(-1);
  if (!version) return <p className="p-8">{say("formula.this_part_has_no_formula")}</p>;
  return (
    <Bench
      key={`${part.id}${chosen ?? ""}`}
      dessert={dessert.data}
      part={part}
      version={version}
      before={versions.findLast((v) => v.number < version.number)}
      choose={setChosen}
      choosePart={(next) => {
        setChosen(null);
        choose(next);
      }}
    />
  );
}

interface BenchProps {
  dessert: Shapes["DessertOut"];
  version: Shapes["VersionOut"];
  before: Shapes["VersionOut"] | undefined;
  choose: (id: string | null) => void;
  part: Part;
  choosePart: (id: string) => void;
}

function Bench({ dessert, part, version, before, choose, choosePart }: BenchProps) {
  const { kid, canEdit, canCook } = useBench();
  const store = useQueryClient();
  const versions = part.versions;
  const newest = versions.at(-1);
  const readOnly = !canEdit || newest?.id !== version.id;
  const key = ["dessert", kid, dessert.id];
  const onSaved = useCallback(
    (saved: Shapes["VersionOut"]) => {
      store.setQueryData<Shapes["DessertOut"]>(["dessert", kid, dessert.id], (old) => {
        if (!old) return old;
        const taken = (p: Part): Part => {
          if (p.id !== saved.part_id) return p;
          const others = p.versions.filter((v) => v.id !== saved.id);
          return { ...p, versions: [...others, saved].sort((x, y) => x.number - y.number) };
        };
        return { ...old, parts: old.parts.map(taken) };
      });
      void store.invalidateQueries({ queryKey: ["total", kid, dessert.id] });
      void store.invalidateQueries({ queryKey: ["shelf", kid] });
    },
    [dessert.id, kid, store],
  );
  const draft = useDraft(kid, version, readOnly, onSaved);
  const [plane, setPlane] = useState<Plane>("starch_egg");
  const answer = useAnswer(kid, draft.content, part.kind, plane);
  const earlier = useAnswer(kid, before && contentOf(before), part.kind);
  const rename = useMutation({
    mutationFn: (name: string) =>
      must(
        client.PATCH("/api/k/{kid}/desserts/{dessert_id}", {
          params: { path: { kid, dessert_id: dessert.id } },
          body: { name },
        }),
      ),
    onSuccess: (next) => store.setQueryData(key, next),
  });
  const found = answer.data;
  const bakes = found?.cook?.mode === "bake";
  const [asking, setAsking] = useState<"scale" | "bend" | null>(null);
  usePageKeys((event) => {
    if (!draft.undoIsNext || event.key.toLowerCase() !== "z") return;
    if (!(event.ctrlKey || event.metaKey) || event.shiftKey) return;
    event.preventDefault();
    draft.undo();
  });
  return (
    <div className="py-3">
      <title>{say("formula.bell_crumb", { dessert: dessert.name })}</title>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1">
        <Name
          key={dessert.name}
          name={dessert.name}
          readOnly={!canEdit}
          onName={(name) => rename.mutate(name)}
        />
        {versions.length > 1 ? (
          <label className="caption">
            {say("formula.version")}
            <select
              className="field inline-block !w-auto"
              value={version.id}
              onChange={(event) =>
                choose(event.target.value === newest?.id ? null : event.target.value)
              }
            >
              {versions.map((v) => (
                <option key={v.id} value={v.id}>
                  {v.number}
                  {v.cooked ? say("formula.cooked") : ""}
                </option>
              ))}
            </select>
          </label>
        ) : (
          <span className="caption">{say("formula.version_2", { number: version.number })}</span>
        )}
        <SaveNote draft={draft} version={version} readOnly={readOnly} />
        {canCook && part.kind !== "garnish" && (
          <Link
            to={`/k/${kid}/d/${dessert.id}/${bakes ? "oven" : "stove"}${partQuery(dessert, part)}`}
            className="ml-auto flex min-h-12 items-center border-[1.5px] border-burnt bg-burnt px-5 font-semibold text-on-burnt"
          >
            {bakes ? say("formula.to_the_oven") : say("formula.to_the_stove")}
          </Link>
        )}
      </div>
      <Parts dessert={dessert} part={part} choose={choosePart} />
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-7 gap-y-6 lg:grid-cols-[23rem_minmax(0,1fr)] xl:grid-cols-[22.5rem_minmax(0,1fr)_15rem]">
        <section aria-label={say("formula.lines_of_the_formula")}>
          <Lines draft={draft} found={found} readOnly={readOnly} />
          {!readOnly && found && found.mass_g > 0 && (
            <div className="mt-3 flex flex-wrap gap-3">
              <Button onClick={() => setAsking("scale")}>
                {say("formula.more_or_less_of_it")}
              </Button>
              <Button onClick={() => setAsking("bend")}>{say("formula.bend_it_to_a_wish")}</Button>
              {draft.canUndo && (
                <Button kind="quiet" onClick={draft.undo}>
                  {say("formula.take_it_back_ctrl_z")}
                </Button>
              )}
            </div>
          )}
          <Note draft={draft} readOnly={readOnly} />
          {asking === "scale" && found && (
            <ScaleDialog draft={draft} found={found} onClose={() => setAsking(null)} />
          )}
          {asking === "bend" && found && (
            <BendDialog draft={draft} found={found} onClose={() => setAsking(null)} />
          )}
        </section>
        <section aria-label={say("formula.how_it_sets")}>
          {answer.isError && !found && (
            <p role="alert" className="py-6">
              {answer.error instanceof ApiError ? answer.error.message : say("formula.no_answer")}
            </p>
          )}
          {answer.failureCount > 0 && found && (
            <p role="status" className="mb-2 border-l-[3px] border-burnt pl-3">
              {say("formula.the_server_is_not_answering_this")}
            </p>
          )}
          {found?.map && found.set ? (
            <MapPlate
              dessertId={dessert.id}
              part={part}
              found={found}
              shown={{ map: found.map, set: found.set }}
              version={version}
              before={earlier.data}
              fresh={!answer.isPlaceholderData}
              draft={draft}
              readOnly={readOnly}
              plane={plane}
              setPlane={setPlane}
            />
          ) : (
            found && <Blank found={found} dessert={dessert} part={part} />
          )}
          {found && (
            <Facts found={found} draft={draft} readOnly={readOnly} earlier={earlier.data} />
          )}
        </section>
        <section aria-label={say("formula.what_it_fills")} className="lg:col-span-2 xl:col-span-1">
          <FitPlate found={found} draft={draft} readOnly={readOnly} />
        </section>
        {dessert.parts.length > 1 && (
          <section
            aria-label={say("formula.the_dessert_whole")}
            className="lg:col-span-2 xl:col-span-3"
          >
            <Whole dessert={dessert} />
          </section>
        )}
      </div>
      <ConflictDialog draft={draft} />
    </div>
  );
}

function Name({
  name,
  readOnly,
  onName,
}: {
  name: string;
  readOnly: boolean;
  onName: (name: string) => void;
}) {
  const [typed, setTyped] = useState(name);
  if (readOnly) return <h1 className="text-3xl break-words">{name}</h1>;
  return (
    <h1 className="min-w-0 flex-[1_1_18rem] text-3xl">
      <input
        className="w-full border-0 border-b border-transparent bg-transparent py-1 text-ellipsis hover:border-rule focus:border-ink"
        aria-label={say("formula.name_of_the_dessert")}
        value={typed}
        maxLength={120}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => {
          const next = typed.trim();
          if (next && next !== name) onName(next);
          else setTyped(name);
        }}
        onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
      />
    </h1>
  );
}

/** The plate before there is anything to draw, or for what is no custard. */
function Blank(props: { found: Shapes["FormulaOut"]; dessert: Shapes["DessertOut"]; part: Part }) {
  const { found, dessert, part } = props;
  const kind = part.kind;
  const custard = kind === "cream" || kind === "filling";
  if (found.reads_as)
    return (
      <div>
        <Makeup found={found} kind={found.reads_as.kind} />
        <p className="mt-4 max-w-prose" data-testid="reads-as">
          {say("formula.reads_as_not_as_a_custard", { reads_as: found.reads_as.name })}
        </p>
        <ReadsAs dessert={dessert} part={part} kind={found.reads_as.kind} />
      </div>
    );
  if ((!custard || found.whipped) && found.mass_g) return <Makeup found={found} kind={kind} />;
  return (
    <div className="flex min-h-[22rem] items-center justify-center border-[1.5px] border-dashed border-rule p-8 text-center">
      <p className="max-w-sm text-lg text-soft">
        {found.mass_g
          ? (found.warnings.at(-1) ?? say("formula.not_enough_here_to_say_how"))
          : custard
            ? say("formula.write_or_paste_the_lines_as")
            : say("formula.write_or_paste_the_lines_of", { kind })}
      </p>
    </div>
  );
}
