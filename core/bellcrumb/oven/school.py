"""The schools of doneness: what a cook looks for, and what is done with the custard afterwards."""

from typing import Literal

from bellcrumb.texture.families import Doneness, Family

After = Literal["rack", "in_bath", "ice", "oven_off"]
SCHOOLS: tuple[Doneness, ...] = ("wobble", "domed", "just_set", "clean_knife")

SIGNS: dict[Doneness, str] = {
    "wobble": "The edge is set and the middle trembles like one piece, a disc the size of a coin.",
    "domed": "The rim has puffed and domed, the middle still wobbles.",
    "just_set": "Nothing wobbles any more; a touch on the mould makes it shiver as a whole.",
    "clean_knife": "A knife in the middle comes out clean: the older school, near the edge of "
    "too far.",
}
AFTERS: dict[After, str] = {
    "rack": "on a rack",
    "in_bath": "left in its water out of the oven",
    "ice": "in ice water",
    "oven_off": "in the oven switched off, its door ajar",
}
# What is looked at before it goes in. Craft.
_STRAINED = "Strained, bubbles skimmed, the tray level."
_BEFORE = {
    "cheesecake": "Smooth, no lump of cheese; knocked on the table to free its bubbles.",
    "clafoutis": "Whisked once more: the flour has sunk.",
    "bread_pudding": "The bread soaked to its middle and pressed under.",
    "chess_pie": "Smooth; nuts and fruit spread evenly, the tray level.",
}


def sign_of(kin: Family, doneness: Doneness) -> str:
    """What a cook sees when this family is there: its own words for the school that kitchens
    usually judge it by, the school's for any other."""
    own = f"{kin.doneness[:1].upper()}{kin.doneness[1:]}."
    return own if doneness == kin.judged_by else SIGNS[doneness]


def before_of(kin: Family) -> str:
    """What a mix of this family looks like when it is ready for the oven."""
    return _BEFORE.get(kin.key) or _BEFORE.get(kin.group, _STRAINED)
