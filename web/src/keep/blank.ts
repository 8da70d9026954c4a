import type { Shapes } from "@/api/client";

/** A formula before anything is written in it, in the kitchen's own eggs. */
export function blankContent(kitchen: Shapes["KitchenOut"]): Shapes["Content"] {
  return {
    lines_text: "",
    egg_grade: kitchen.egg_grade,
    family: "",
    beaten: "",
    vessel_key: "",
    vessel_count: 8,
    fill_by: "all",
    fill_pct: 90,
    below_rim_mm: 5,
    portion_g: 100,
    rest_vessel_key: "",
    portions_per_vessel: 1,
    overrun_pct: 0,
    tray_key: "",
    bath_level: "none",
    bath_mm: 20,
    school: "hot_into_eggs",
    ring_id: kitchen.rings[0]?.id ?? null,
    heat_setting_pct: 70,
    cook_setting_pct: 45,
    ladle_ml: 100,
    hot_c: 90,
    eggs_c: 18,
    held_back_ml: 250,
    method: "",
    target_c: 0,
    note: "",
  };
}
