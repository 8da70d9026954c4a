import { BAKING } from "@/api/defaults";
import type { Shapes } from "@/api/client";
import type { Content } from "@/api/queries";
import { say } from "@/say";
import { degrees, kelvins, type Units } from "@/units";

export type Baking = NonNullable<Content["baking"]>;

export type Doneness = Shapes["BakeOut"]["doneness"];

export const DONENESS: Record<Doneness, { name: string; does: string }> = {
  wobble: {
    name: say("oven.wobble"),
    does: say("oven.a_disc_in_the_middle_still"),
  },
  domed: { name: say("oven.domed_rim"), does: say("oven.rim_puffed_middle_wobbling_pies") },
  just_set: {
    name: say("oven.just_set"),
    does: say("oven.nothing_wobbles_any_more_firmer_nothing"),
  },
  clean_knife: {
    name: say("oven.clean_knife"),
    does: say("oven.the_older_school_set_through_near"),
  },
};

export const AFTER: Record<Baking["after"], string> = {
  rack: say("oven.on_a_rack"),
  in_bath: say("oven.left_in_its_water"),
  ice: say("oven.into_ice_water"),
  oven_off: say("oven.oven_off_door_ajar"),
};

interface Ghost {
  name: (units: Units) => string;
  of: (content: Content, kitchen: Shapes["KitchenOut"]) => Content;
}

/** How far the dial is turned for a hotter and a cooler oven beside, K. */
const TURNED_K = 20;

const pouredAt = (c: number, name: (shown: string) => string): Ghost => ({
  name: (units) => name(degrees(c, units)),
  of: (content) => withBaking(content, { poured_c: c }),
});

const turnedBy = (k: number, name: (shown: string) => string): Ghost => ({
  name: (units) => name(kelvins(Math.abs(k), units, 0)),
  of: (content) => withBaking(content, { set_c: bakingOf(content).set_c + k }),
});

/** What a bake is compared with: each a change of the oven's settings or of the mould. */
export const GHOSTS: Record<string, Ghost> = {
  bath: {
    name: () => say("oven.the_bath_the_other_way"),
    of: (c) => ({ ...c, bath_level: c.bath_level === "none" ? "half" : "none" }),
  },
  hotter: turnedBy(TURNED_K, (k) => say("oven.hotter", { k })),
  cooler: turnedBy(-TURNED_K, (k) => say("oven.cooler", { k })),
  cold: pouredAt(5, (c) => say("oven.poured_cold", { c })),
  warm: pouredAt(50, (c) => say("oven.poured_warm", { c })),
  foil: {
    name: () => say("oven.the_foil_the_other_way"),
    of: (c) => withBaking(c, { covered: !c.baking?.covered }),
  },
  shallow: {
    name: () => say("oven.a_third_shallower"),
    of: (c) => ({ ...c, fill_by: "share", fill_pct: Math.round(c.fill_pct * 0.67) }),
  },
  door: {
    name: () => say("oven.the_door_opened_five_times"),
    of: (c) => withBaking(c, { door_min: [15, 20, 25, 30, 35] }),
  },
  oven: {
    name: () => say("oven.the_other_oven"),
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
      name: say("oven.in", { v: v.name }),
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
