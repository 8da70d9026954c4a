"""The schools of doneness: what a cook looks for, and what is done with the custard afterwards."""

from typing import Literal

from bellcrumb.texture.families import Doneness, Family
from bellcrumb.words import say

After = Literal["rack", "in_bath", "ice", "oven_off"]
SCHOOLS: tuple[Doneness, ...] = ("wobble", "domed", "just_set", "clean_knife")

SIGNS: dict[Doneness, str] = {
    "wobble": say("oven.the_edge_is_set_and_the"),
    "domed": say("oven.the_rim_has_puffed_and_domed"),
    "just_set": say("oven.nothing_wobbles_any_more_a_touch"),
    "clean_knife": say("oven.a_knife_in_the_middle_comes"),
}
AFTERS: dict[After, str] = {
    "rack": say("oven.on_a_rack"),
    "in_bath": say("oven.left_in_its_water_out_of"),
    "ice": say("oven.in_ice_water"),
    "oven_off": say("oven.in_the_oven_switched_off_its"),
}
# What is looked at before it goes in. Craft.
_STRAINED = say("oven.strained_bubbles_skimmed_the_tray_level")
_BEFORE = {
    "cheesecake": say("oven.smooth_no_lump_of_cheese_knocked"),
    "clafoutis": say("oven.whisked_once_more_the_flour_has"),
    "bread_pudding": say("oven.the_bread_soaked_to_its_middle"),
    "chess_pie": say("oven.smooth_nuts_and_fruit_spread_evenly"),
}


def sign_of(kin: Family, doneness: Doneness) -> str:
    """What a cook sees when this family is there: its own words for the school that kitchens
    usually judge it by, the school's for any other."""
    own = f"{kin.doneness[:1].upper()}{kin.doneness[1:]}."
    return own if doneness == kin.judged_by else SIGNS[doneness]


def before_of(kin: Family) -> str:
    """What a mix of this family looks like when it is ready for the oven."""
    return _BEFORE.get(kin.key) or _BEFORE.get(kin.group, _STRAINED)
