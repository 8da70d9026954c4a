import { useState } from "react";

import type { Content } from "@/api/queries";
import { readStored, writeStored } from "@/keep/stored";

/** What may differ at the stove without being a change of the formula. */
export type Today = Partial<
  Pick<
    Content,
    | "ring_id"
    | "heat_setting_pct"
    | "cook_setting_pct"
    | "ladle_ml"
    | "hot_c"
    | "eggs_c"
    | "held_back_ml"
    | "egg_grade"
    | "baking"
  >
>;

/** Today's conditions for one version, kept in this browser until they are put back. */
export function useToday(versionId: string): [Today, (part: Today) => void, () => void] {
  const key = `crumb.today.${versionId}`;
  const [today, setToday] = useState<Today>(() => readStored<Today>(key) ?? {});
  const keep = (next: Today) => {
    setToday(next);
    writeStored(key, Object.keys(next).length ? next : null);
  };
  return [today, (part) => keep({ ...today, ...part }), () => keep({})];
}
