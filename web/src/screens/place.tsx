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

/** The part somebody works on at the stove, in the oven or the cold, and how to choose another. */
export interface AtPlace {
  dessert: Shapes["DessertOut"];
  part: Part;
  version: Shapes["VersionOut"];
  choose: (id: string) => void;
}

/** What is baked or put away, where a dessert has several parts. */
export const CUSTARDS = ({ kind }: Part) => kind === "filling" || kind === "cream";

interface PlaceProps {
  what: string;
  /** Which part the place begins with; the first where it does not say. */
  first?: (part: Part) => boolean;
  show: (at: AtPlace) => ReactNode;
}

/** Fetch the dessert in the address and show its part that is worked on here. */
export function Place({ what, first, show }: PlaceProps) {
  const { kid } = useBench();
  const id = useParams()["dessertId"] ?? "";
  const dessert = useDessert(kid, id);
  const { part, choose } = usePart(dessert.data, first);
  useEffect(() => {
    if (dessert.data) putOnBench(kid, id, dessert.data.name);
  }, [dessert.data, id, kid]);
  if (dessert.isPending) return <Loading what={what} />;
  if (dessert.isError) return <Failed error={dessert.error} again={() => void dessert.refetch()} />;
  const version = part?.versions.at(-1);
  if (!part || !version) return <p className="p-8">{say("place.this_dessert_has_no_formula")}</p>;
  return show({ dessert: dessert.data, part, version, choose });
}

interface Worked {
  draft: Draft;
  /** The part's content with what is so today. */
  content: Content;
  /** Change the version, or today only where it was cooked already or is not theirs to change. */
  change: (part: Today) => void;
  forToday: boolean;
  /** What differs today from the version; empty where the version itself is changed. */
  today: Today;
  /** Put today's changes back. */
  asWritten: () => void;
}

/** The version that is worked on, and what is so today. */
export function usePlace({ dessert, version }: AtPlace): Worked {
  const { kid, canEdit } = useBench();
  const store = useQueryClient();
  const onSaved = useCallback(() => {
    void store.invalidateQueries({ queryKey: ["dessert", kid, dessert.id] });
  }, [dessert.id, kid, store]);
  const draft = useDraft(kid, version, !canEdit, onSaved);
  const forToday = !canEdit || version.cooked;
  const [kept, setToday, asWritten] = useToday(version.id);
  const today = forToday ? kept : {};
  return {
    draft,
    content: { ...draft.content, ...today },
    change: forToday ? setToday : draft.change,
    forToday,
    today,
    asWritten,
  };
}

/** The same for the oven and the cold, whose settings are one of its fields. */
export function useBaking(at: AtPlace): Worked & { set: (part: Partial<Baking>) => void } {
  const worked = usePlace(at);
  const set = (part: Partial<Baking>) => {
    const { baking } = withBaking(worked.content, part);
    if (baking) worked.change({ baking });
  };
  return { ...worked, set };
}

/** The dessert's name, where it is, and what stands in the way. */
export function PlaceHead({
  at,
  where,
  worked: { draft, forToday },
  todayOnly = say("place.settings_here_are_for_today_only"),
  problem,
}: {
  at: AtPlace;
  where: string;
  worked: Worked;
  /** What is said where a change is for today only. */
  todayOnly?: string;
  problem: ApiError | null;
}) {
  const { kid, canEdit } = useBench();
  const { dessert, part, version } = at;
  return (
    <div className="no-print">
      <title>{say("place.bell_crumb", { dessert: dessert.name, where })}</title>
      <div className="mb-3 flex flex-wrap items-baseline gap-x-5">
        <h1 className="min-w-0 text-3xl break-words">{dessert.name}</h1>
        <span className="caption">
          {say("place.version", {
            parts: dessert.parts.length > 1 && `${part.name}, `,
            where,
            number: version.number,
          })}
        </span>
        {forToday && draft.state === "saved" ? (
          <span className="caption">{todayOnly}</span>
        ) : (
          <SaveNote draft={draft} version={version} readOnly={!canEdit} />
        )}
      </div>
      {problem && !problem.passes && (
        <p role="alert" className="mb-4 border-l-[3px] border-burnt pl-3 text-lg">
          {problem.message}{" "}
          <Link className="underline" to={`/k/${kid}/d/${dessert.id}${partQuery(dessert, part)}`}>
            {say("place.back_to_the_formula")}
          </Link>
        </p>
      )}
      {problem?.field === "vessel_key" && canEdit && !forToday && (
        <div className="mb-5 max-w-[24rem]">
          <VesselSelect
            label={say("place.it_stands_in")}
            none={say("place.choose")}
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
      label={say("place.part")}
      value={part.id}
      options={dessert.parts.map((p) => [p.id, p.name] as const)}
      onValue={choose}
    />
  );
}
