import { BAKING } from "@/api/defaults";
import type { Shapes } from "@/api/client";
import type { Content } from "@/api/queries";

export type Baking = NonNullable<Content["baking"]>;

export type Doneness = Shapes["BakeOut"]["doneness"];

export const DONENESS: Record<Doneness, { name: string; does: string }> = {
  wobble: {
    name: "Wobble",
    does: "A disc in the middle still trembles. Softest; sets on by itself.",
  },
  domed: { name: "Domed rim", does: "Rim puffed, middle wobbling: pies." },
  just_set: { name: "Just set", does: "Nothing wobbles any more. Firmer, nothing to spare." },
  clean_knife: { name: "Clean knife", does: "The older school: set through, near too far." },
};

export const AFTER: Record<Baking["after"], string> = {
  rack: "on a rack",
  in_bath: "left in its water",
  ice: "into ice water",
  oven_off: "oven off, door ajar",
};

/** What a bake is compared with: each a change of the oven's settings or of the mould. */
export const GHOSTS: Record<
  string,
  { name: string; of: (content: Content, kitchen: Shapes["KitchenOut"]) => Content }
> = {
  bath: {
    name: "the bath the other way",
    of: (c) => ({ ...c, bath_level: c.bath_level === "none" ? "half" : "none" }),
  },
  hotter: {
    name: "20 K hotter",
    of: (c) => withBaking(c, { set_c: (c.baking?.set_c ?? 160) + 20 }),
  },
  cooler: {
    name: "20 K cooler",
    of: (c) => withBaking(c, { set_c: (c.baking?.set_c ?? 160) - 20 }),
  },
  cold: { name: "poured cold, 5 °C", of: (c) => withBaking(c, { poured_c: 5 }) },
  warm: { name: "poured warm, 50 °C", of: (c) => withBaking(c, { poured_c: 50 }) },
  foil: {
    name: "the foil the other way",
    of: (c) => withBaking(c, { covered: !c.baking?.covered }),
  },
  shallow: {
    name: "a third shallower",
    of: (c) => ({ ...c, fill_by: "share", fill_pct: Math.round(c.fill_pct * 0.67) }),
  },
  door: {
    name: "the door opened five times",
    of: (c) => withBaking(c, { door_min: [15, 20, 25, 30, 35] }),
  },
  oven: {
    name: "the other oven",
    of: (c, kitchen) => {
      const now = c.baking?.oven_id ?? kitchen.ovens[0]?.id;
      const other = kitchen.ovens.find((o) => o.id !== now);
      return other ? withBaking(c, { oven_id: other.id }) : c;
    },
  },
};

/** The kitchen’s other vessels as cases to lay beside: what changes when the vessel does. */
export const otherVessels = (content: Content, kitchen: Shapes["KitchenOut"]) =>
  kitchen.vessels
    .filter((v) => v.id !== content.vessel_key && v.kind !== "pan")
    .map((v) => ({
      key: `in:${v.id}`,
      name: `in ${v.name}`,
      of: (c: Content): Content => ({
        ...c,
        vessel_key: v.id,
        fill_by: "share",
        fill_pct: 90,
        tray_key: "",
      }),
    }));

/** How it is baked, also for a draft from before there was an oven. */
export const bakingOf = (content: Content): Baking => content.baking ?? BAKING;

export const withBaking = (content: Content, part: Partial<Baking>): Content => ({
  ...content,
  baking: { ...bakingOf(content), ...part },
});
