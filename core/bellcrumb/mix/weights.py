"""Grams of an amount: by the scale, by volume, by the pack, by the piece."""

import math
from typing import Literal

from bellcrumb.pantry.eggs import EggGrade
from bellcrumb.pantry.ingredients import Ingredient
from bellcrumb.pantry.packs import PACK_G
from bellcrumb.pantry.pantry import Pantry
from bellcrumb.quantities.amount import Amount
from bellcrumb.quantities.units import TBSP_ML, US_CUP_ML
from bellcrumb.words import say

_IN_JARS = ("fruit", "nut", "chocolate", "crumb_dough")
Asks = Literal["", "name", "can", "pack", "piece"]


def each_of(amount: Amount) -> Asks:
    """What one of an amount is, where it is counted."""
    if amount.unit is None or amount.unit.name == "piece":
        return "piece"
    if amount.unit.name == "can":
        return "can"
    return "pack" if amount.unit.name == "pack" else ""


def grams_of(
    amount: Amount, ingredient: Ingredient | None, grade: EggGrade, pantry: Pantry | None = None
) -> tuple[float | None, float, str]:
    """Grams, their half-width and a note, for an amount of an ingredient (None: unknown)."""
    if amount.per_pack and amount.stated_g is not None:
        return _of_packs(amount.stated_g, amount.value, ingredient)
    if amount.stated_g is not None:
        usual = _piece_g(ingredient, grade) if each_of(amount) == "piece" else None
        if usual and amount.stated_g / amount.value < usual / 2 < amount.stated_g < 2 * usual:
            grams = amount.stated_g * amount.value  # "6 eggs (60 g)" is the weight of one
            return grams, 0.1 * grams, say("mix.taken_as_g_in_each", each=amount.stated_g)
        return amount.stated_g, 0.01 * amount.stated_g, ""
    if amount.stated_ml is not None and ingredient and ingredient.density_g_per_ml:
        grams = amount.stated_ml * ingredient.density_g_per_ml
        return grams, 0.02 * grams, ""
    unit = amount.unit
    if unit and unit.kind == "mass":
        grams = amount.value * unit.size
        return grams, unit.spread * grams, ""
    if ingredient is None:
        return None, 0.0, ""
    if unit and unit.name == "glass" and ingredient.category in _IN_JARS:
        return None, 0.0, ""  # "1 Glas Sauerkirschen" is a jar, of nobody knows what size
    if unit and unit.kind == "volume":
        return _by_volume(amount.value * unit.size, unit.name, unit.spread, ingredient)
    own = pantry.own_g(ingredient.key, each_of(amount)) if pantry else None
    if own is not None:
        return (
            amount.value * own,
            0.03 * amount.value * own,
            say("mix.g_each_as_here", own=own),
        )
    if unit and unit.name in ("can", "pack"):
        each = PACK_G.get(ingredient.key)
        if each is None:  # a box of wafers is not one wafer: asked, never guessed
            return None, 0.0, ""
        return (
            amount.value * each,
            0.05 * amount.value * each,
            say("mix.g_in_a", each=each, unit=unit.name),
        )
    each = _piece_g(ingredient, grade)
    if each is None:
        return None, 0.0, ""
    if ingredient.key in _OPENED:
        said = say("mix.g_each", each=each, grade=grade.name)
        return amount.value * each, grade.spread * amount.value * each, said
    return amount.value * each, 0.2 * amount.value * each, say("mix.about_g_each", each=each)


_LIKE_A_PACK = 0.15  # sizes of one thing by country differ as much: 7 and 8 g, 378 and 410
_OPENED = ("egg_yolk", "egg_white", "egg_whole")


def _piece_g(ingredient: Ingredient | None, grade: EggGrade) -> float | None:
    """What one of it weighs, g: an egg or its part by the grade; None where nobody has said."""
    if ingredient is None:
        return None
    opened = zip(_OPENED, (grade.yolk_g, grade.white_g, grade.content_g), strict=True)
    return dict(opened).get(ingredient.key, ingredient.g_per_piece)


def _of_packs(grams: float, packs: float, i: Ingredient | None) -> tuple[float, float, str]:
    """A size given behind several packs or a part of one, of each or of all.

    Of several whichever is nearer to a usual pack, where one is known; where none is, it is taken
    as that of each, and the note says so. Of a part it is what was weighed out, if it is not just
    what a pack usually holds.
    """
    each, usual = grams / packs, PACK_G.get(i.key) if i else None
    if packs < 1:
        whole = usual and abs(each / usual - 1) < _LIKE_A_PACK
        grams = grams if whole else each
        return grams, 0.01 * grams, ""
    if usual is None:
        return grams, 0.01 * grams, say("mix.taken_as_g_in_each", each=each)
    if abs(math.log(each / packs / usual)) < abs(math.log(each / usual)):
        grams = each
    return grams, 0.01 * grams, ""


def _by_volume(
    ml: float, unit_name: str, unit_spread: float, i: Ingredient
) -> tuple[float | None, float, str]:
    spooned = unit_name in ("tbsp", "dessertspoon", "tsp", "dash", "drop")
    if spooned and i.g_per_tbsp:
        grams = ml / TBSP_ML * i.g_per_tbsp
    elif i.g_per_us_cup:
        grams = ml / US_CUP_ML * i.g_per_us_cup
    elif i.density_g_per_ml:
        grams = ml * i.density_g_per_ml
    else:
        return None, 0.0, ""
    if i.key.startswith("sugar_brown"):
        return grams, 0.05 * grams, say("mix.packed_5")
    spread = unit_spread + (0.10 if i.is_powder else 0.0)
    note = say("mix.by_volume", spread=round(100 * spread)) if spread > 0.05 else ""
    return grams, spread * grams, note
