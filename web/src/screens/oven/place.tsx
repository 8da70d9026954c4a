import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, type ReactNode } from "react";
import { Link, useParams } from "react-router";

import type { ApiError, Shapes } from "@/api/client";
import { useDessert, type Content } from "@/api/queries";
import { putOnBench, useBench } from "@/bench";
import { useDraft, type Draft } from "@/keep/draft";
import { partQuery, usePart, type Part } from "@/screens/formula/part";
import { SaveNote } from "@/screens/formula/saving";
import { VesselSelect } from "@/screens/formula/vessel-select";
import { withBaking, type Baking } from "@/screens/oven/baking";
import { useToday, type Today } from "@/screens/stove/today";
import { Select } from "@/ui/field";
import { Failed, Loading } from "@/ui/states";
import { say } from "@/say";

/** The part somebody works on in the oven or the cold, and how to choose another. */
export interface AtPlace {
  dessert: Shapes["DessertOut"];
  part: Part;
  version: Shapes["VersionOut"];
  choose: (id: string) => void;
}

/** Fetch the dessert in the address and show its part that is baked or put away. */
export function Place({ what, show }: { what: string; show: (at: AtPlace) => ReactNode }) {
  const { kid } = useBench();
  const id = useParams()["dessertId"] ?? "";
  const dessert = useDessert(kid, id);
  const { part, choose } = usePart(dessert.data, (p) => p.kind === "filling" || p.kind === "cream");
  useEffect(() => {
    if (dessert.data) putOnBench(kid, id, dessert.data.name);
  }, [dessert.data, id, kid]);
  if (dessert.isPending) return <Loading what={what} />;
  if (dessert.isError) return <Failed error={dessert.error} again={() => void dessert.refetch()} />;
  const version = part?.versions.at(-1);
  if (!part || !version) return <p className="p-8">{say("oven.this_dessert_has_no_formula")}</p>;
  return show({ dessert: dessert.data, part, version, choose });
}

/** The part's content with what is so today, and how to change the oven's or the cold's settings. */
export function useBaking({ dessert, version }: AtPlace): {
  draft: Draft;
  content: Content;
  set: (part: Partial<Baking>) => void;
  /** What differs today from the version; empty where the version itself is changed. */
  today: Today;
  forToday: boolean;
} {
  const { kid, canEdit } = useBench();
  const store = useQueryClient();
  const onSaved = useCallback(() => {
    void store.invalidateQueries({ queryKey: ["dessert", kid, dessert.id] });
  }, [dessert.id, kid, store]);
  const draft = useDraft(kid, version, !canEdit, onSaved);
  const forToday = !canEdit || version.cooked;
  const [today, setToday] = useToday(version.id);
  const content = forToday ? { ...draft.content, ...today } : draft.content;
  const set = (part: Partial<Baking>) => {
    const { baking } = withBaking(content, part);
    if (!baking) return;
    if (forToday) setToday({ baking });
    else draft.change({ baking });
  };
  return { draft, content, set, today: forToday ? today : {}, forToday };
}

/** The dessert's name, where it is, and what stands in the way. */
export function PlaceHead({
  at,
  where,
  draft,
  forToday,
  problem,
}: {
  at: AtPlace;
  where: string;
  draft: Draft;
  forToday: boolean;
  problem: ApiError | null;
}) {
  const { kid, canEdit } = useBench();
  const { dessert, part, version } = at;
  return (
    <div className="no-print">
      <title>{say("oven.bell_crumb", { dessert: dessert.name, where })}</title>
      <div className="mb-3 flex flex-wrap items-baseline gap-x-5">
        <h1 className="min-w-0 text-3xl break-words">{dessert.name}</h1>
        <span className="caption">
          {say("oven.version", {
            parts: dessert.parts.length > 1 && `${part.name}, `,
            where,
            number: version.number,
          })}
        </span>
        {forToday && draft.state === "saved" ? (
          <span className="caption">{say("oven.settings_here_are_for_today_only")}</span>
        ) : (
          <SaveNote draft={draft} version={version} readOnly={!canEdit} />
        )}
      </div>
      {problem && !problem.passes && (
        <p role="alert" className="mb-4 border-l-[3px] border-burnt pl-3 text-lg">
          {problem.message}{" "}
          <Link className="underline" to={`/k/${kid}/d/${dessert.id}${partQuery(dessert, part)}`}>
            {say("oven.back_to_the_formula")}
          </Link>
        </p>
      )}
      {problem?.field === "vessel_key" && canEdit && !forToday && (
        <div className="mb-5 max-w-[24rem]">
          <VesselSelect
            label={say("oven.it_stands_in")}
            none={say("oven.choose")}
            value={draft.content.vessel_key}
            disabled={false}
            error={null}
            onKey={(vessel_key) => draft.change({ vessel_key })}
          />
        </div>
      )}
    </div>
  );
}

/** Which part, where a dessert has several. */
export function PartSelect({ dessert, part, choose }: AtPlace) {
  if (dessert.parts.length < 2) return null;
  return (
    <Select
      label={say("oven.part")}
      value={part.id}
      onChange={(event) => choose(event.target.value)}
    >
      {dessert.parts.map((p) => (
        <option key={p.id} value={p.id}>
          {p.name}
        </option>
      ))}
    </Select>
  );
}
