"""What a can or a pack of a thing holds where its label is not at hand."""

# What a pack of a thing holds when a piece of it is something else. Source: trade packs.
PACK_G = {
    "gelatine": 7.0, "vanilla_sugar": 8.0, "coconut_milk": 400.0, "coconut_cream": 400.0,
    "evaporated_milk": 378.0, "condensed_milk": 397.0, "cream_cheese": 226.8,
    "cream_cheese_light": 226.8, "pumpkin_puree": 425.0, "coconut_milk_light": 400.0,
    "baking_powder": 16.0, "yeast_dry": 7.0, "vanilla_powder": 0.5, "cream_stabiliser": 8.0,
    "pudding_powder_vanilla": 37.0, "pudding_powder_choc": 43.0, "pudding_mix_instant": 96.0,
    "pie_crust_ready": 225.0, "crumb_crust_ready": 170.0, "mascarpone": 250.0,
    "yogurt_whole": 125.0, "puff_raw": 230.0, "shortcrust_raw": 230.0, "sweet_paste_raw": 230.0,
}  # fmt: skip
