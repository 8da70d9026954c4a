import { ToggleGroup } from "radix-ui";
import { useState } from "react";

import type { Shapes } from "@/api/client";
import { useAnswer, useSiblings, type Plane } from "@/api/queries";
import { useBench } from "@/bench";
import { SetMap, type MapPoint } from "@/figures/set-map";
import { contentOf, type Draft } from "@/keep/draft";
import { MapHandle } from "@/screens/formula/map-handle";
import type { Part } from "@/screens/formula/part";
import { say } from "@/say";

const PLANES: Record<Plane, string> = {
  starch_egg: say("formula.starch_and_egg"),
  sugar_fat: say("formula.sugar_and_fat"),
  egg_fat: say("formula.egg_and_fat"),
};

interface Props {
  dessertId: string;
  part: Part;
  found: Shapes["FormulaOut"];
  shown: { map: Shapes["SetMap"]; set: Shapes["SetOut"] };
  version: Shapes["VersionOut"];
  before: Shapes["FormulaOut"] | undefined;
  fresh: boolean;
  draft: Draft;
  readOnly: boolean;
  plane: Plane;
  setPlane: (plane: Plane) => void;
}

/** The set map in the plane chosen, with earlier versions and the family around the formula. */
export function MapPlate(props: Props) {
  const { shown, found, before, fresh, draft, readOnly, plane, setPlane, dessertId } = props;
  const { kid } = useBench();
  const [held, setHeld] = useState<{ starch: number; egg: number } | null>(null);
  const [family, setFamily] = useState(false);
  const siblings = useSiblings(kid, dessertId, family ? found.family?.key : undefined);
  const first = props.part.versions.at(0);
  const eldest = useAnswer(
    kid,
    props.version.number > 2 && first ? contentOf(first) : undefined,
    props.part.kind,
  );
  const map = shown.map;
  const moving = held && map.plane === "starch_egg";
  const others: MapPoint[] = [];
  const add = (
    points: Shapes["PointsOut"] | null | undefined,
    key: string,
    name: string,
    kind: MapPoint["kind"],
  ) => {
    const at = points?.[map.plane];
    if (at) others.push({ key, name, kind, ...at });
  };
  add(before?.points, "before", say("formula.the_version_before"), "before");
  add(eldest.data?.points, "first", say("formula.version_1"), "version");
  for (const s of siblings.data ?? []) add(s.points, s.dessert_id, s.name, "sibling");
  return (
    <div>
      <SetMap
        map={moving ? { ...map, x: held.starch, y: held.egg } : map}
        set={shown.set}
        others={others}
        over={(box) =>
          !readOnly &&
          found.family &&
          map.plane === "starch_egg" && (
            <MapHandle
              box={box}
              map={map}
              fresh={fresh}
              family={found.family.key}
              draft={draft}
              onHold={setHeld}
            />
          )
        }
      />
      <div className="caption flex flex-wrap items-center gap-x-4">
        <ToggleGroup.Root
          type="single"
          value={plane}
          onValueChange={(next) => next && setPlane(next as Plane)}
          aria-label={say("formula.what_the_map_shows")}
          className="flex flex-wrap"
        >
          {(Object.keys(PLANES) as Plane[]).map((key) => (
            <ToggleGroup.Item
              key={key}
              value={key}
              className="min-h-12 border-b-2 border-transparent pr-4 data-[state=on]:border-ink data-[state=on]:font-semibold data-[state=on]:text-ink"
            >
              {PLANES[key]}
            </ToggleGroup.Item>
          ))}
        </ToggleGroup.Root>
        {found.family && (
          <button
            type="button"
            aria-pressed={family}
            className="min-h-12 underline decoration-rule underline-offset-4 aria-pressed:font-semibold aria-pressed:text-ink aria-pressed:decoration-burnt"
            onClick={() => setFamily(!family)}
          >
            {say("formula.others_of_the_family", {
              family: family && siblings.data && ` (${siblings.data.length})`,
            })}
          </button>
        )}
      </div>
    </div>
  );
}
