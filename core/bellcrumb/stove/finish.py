"""What goes in off the heat: at which temperature, what the mix then is, whether it splits."""

import math
from dataclasses import KW_ONLY, dataclass
from typing import Literal

from bellcrumb.mix.composition import Mix, Portion
from bellcrumb.pantry.ingredients import Ingredient
from bellcrumb.texture.families import Family
from bellcrumb.words import say

CooledOn = Literal["bench", "ice_bath", "tray"]
# Heat taken up in melting, J/g. Source: butter and chocolate reference (medium).
_MELTS_J_G = {"fat": 50.0, "chocolate": 45.0}
# Seconds per kg in which a mix loses all but 1/e of its warmth. Source: estimates after practice
# (a kilo of cream on the bench is lukewarm after an hour, in ice and stirred after ten minutes).
_TAU_S_PER_KG: dict[CooledOn, float] = {"bench": 2400.0, "ice_bath": 420.0, "tray": 1000.0}
_CLOSE_K = 4.0  # so little over the window, the spoon cools it on the way
_INTO_C: dict[CooledOn, float] = {"bench": 22.0, "ice_bath": 1.0, "tray": 14.0}


@dataclass(frozen=True)
class TempWindow:
    """When something goes in: degC of the mix, the sign, what happens outside, the rescue."""

    low_c: float
    high_c: float
    sign: str
    _: KW_ONLY
    below: str
    above: str
    rescue: str


# Source: finishing craft; emulsions and folds medium confidence, the others high.
_WINDOWS: dict[str, TempWindow] = {
    "butter": TempWindow(
        40,
        98,
        say("stove.off_the_heat_no_longer_bubbling"),
        below=say("stove.it_stays_in_lumps"),
        above=say("stove.it_melts_to_oil_and_the"),
        rescue=say("stove.blend_at_40_to_45_c"),
    ),
    "butter_curd": TempWindow(
        50,
        62,
        say("stove.warm_thickened_off_the_bath"),
        below=say("stove.it_does_not_melt_in"),
        above=say("stove.the_fat_runs_out_greasy_and"),
        rescue=say("stove.cool_to_55_c_and_blend"),
    ),
    "butter_mousseline": TempWindow(
        17,
        23,
        say("stove.cool_to_the_lip_butter_as"),
        below=say("stove.it_curdles_in_grains_warm_the"),
        above=say("stove.it_runs_chill_for_ten_minutes"),
        rescue=say("stove.match_both_to_about_20_c"),
    ),
    "chocolate": TempWindow(
        45,
        98,
        say("stove.off_the_boil_the_chocolate_chopped"),
        below=say("stove.it_does_not_melt_through_specks"),
        above=say("stove.the_fat_runs_out_and_it"),
        rescue=say("stove.a_spoon_of_warm_milk_stirred"),
    ),
    "nut": TempWindow(
        40,
        70,
        say("stove.a_few_minutes_off_the_heat"),
        below=say("stove.it_stays_in_ropes"),
        above=say("stove.its_oil_runs_out"),
        rescue=say("stove.blend_with_a_spoon_of_cold"),
    ),
    "cream_fold": TempWindow(
        16,
        25,
        say("stove.cool_beaten_smooth"),
        below=say("stove.lumps_and_streaks_gelatine_has_set"),
        above=say("stove.the_whipped_cream_melts_and_the"),
        rescue=say("stove.warm_the_base_over_water_for"),
    ),
    "whites_fold": TempWindow(
        16,
        25,
        say("stove.cool_beaten_smooth"),
        below=say("stove.lumps_and_streaks"),
        above=say("stove.the_foam_collapses"),
        rescue=say("stove.warm_the_base_over_water_for"),
    ),
    "meringue_fold": TempWindow(
        45,
        70,
        say("stove.the_base_still_warm"),
        below=say("stove.gelatine_sets_in_strings"),
        above=say("stove.the_foam_collapses"),
        rescue=say("stove.warm_the_base_over_water_and"),
    ),
    "setter": TempWindow(
        40,
        75,
        say("stove.squeezed_dry_in_off_the_boil"),
        below=say("stove.it_does_not_melt_strings"),
        above=say("stove.boiling_weakens_it"),
        rescue=say("stove.melt_it_in_a_spoonful_and"),
    ),
    "alcohol": TempWindow(
        15,
        60,
        say("stove.away_from_the_flame"),
        below="",
        above=say("stove.it_boils_off_and_can_catch"),
        rescue="",
    ),
    "flavour": TempWindow(
        15,
        70,
        say("stove.off_the_heat"),
        below="",
        above=say("stove.the_aroma_leaves_with_the_steam"),
        rescue="",
    ),
}


_FOLDS = ("cream_fold", "whites_fold", "meringue_fold")
Folded = Literal["cream", "meringue", "butter"]


def fold_window(what: Folded) -> TempWindow:
    """How warm a base may be when something is folded into it."""
    return _WINDOWS[{"cream": "cream_fold", "meringue": "meringue_fold",
                     "butter": "butter_mousseline"}[what]]  # fmt: skip


@dataclass(frozen=True)
class Addition:
    """One thing that goes in: its window, how long until the mix is there by each way of cooling
    (None: it already is), the temperature after it, and whether it splits."""

    name: str
    grams: float
    window: TempWindow
    _: KW_ONLY
    waits_s: dict[CooledOn, float]
    after_c: float
    splits: bool
    advice: str

    @property
    def folds(self) -> bool:
        """Whether it is foam: what it goes into is sieved before, and never after."""
        return self.window in [_WINDOWS[key] for key in _FOLDS]

    @property
    def burns(self) -> bool:
        """Whether its vapour takes fire."""
        return self.window == _WINDOWS["alcohol"]


def _kind(i: Ingredient, family: Family | None) -> str:
    if i.category == "fat":
        if family and family.group == "curd":
            return "butter_curd"
        return "butter_mousseline" if family and family.key == "mousseline" else "butter"
    if i.category in ("chocolate", "nut", "setter", "alcohol"):
        return i.category
    if i.category == "cream":
        return "cream_fold"
    if i.category == "egg":
        return "meringue_fold" if family and family.key == "chiboust" else "whites_fold"
    return "flavour"


def cools_in_s(mass_g: float, from_c: float, to_c: float, how: CooledOn) -> float:
    """Seconds until a mix has come down, by Newton's law with an estimated time constant."""
    into = _INTO_C[how]
    if from_c <= to_c:
        return 0.0
    if to_c <= into:
        return math.inf
    tau = _TAU_S_PER_KG[how] * mass_g / 1000
    return tau * math.log((from_c - into) / (to_c - into))


def after_c(mix: Mix, mix_c: float, added: Portion, added_c: float) -> float:
    """The mix after something went in: heat balance, with the heat its fat takes to melt."""
    cp = mix.heat_capacity_j_per_gk
    one = Mix((added,))
    melts = _MELTS_J_G.get(added.ingredient.category, 0.0) * added.grams
    warm = mix.mass_g * cp
    cold = added.grams * one.heat_capacity_j_per_gk
    return (warm * mix_c + cold * added_c - melts) / (warm + cold)


def additions(
    mix: Mix, extras: Mix, family: Family | None, mix_c: float, extras_c: float = 18.0
) -> list[Addition]:
    """What goes in after the heat, in the order of falling windows, each into the mix before it."""
    found: list[Addition] = []
    current, temp = mix, mix_c
    rows = [(p, _WINDOWS[_kind(p.ingredient, family)]) for p in extras.portions]
    for portion, window in sorted(rows, key=lambda row: -row[1].high_c):
        waits: dict[CooledOn, float] = {}
        at = temp
        if temp > window.high_c + _CLOSE_K:
            at = window.high_c
            waits = {how: cools_in_s(current.mass_g, temp, at, how) for how in _INTO_C}
        after = after_c(current, at, portion, extras_c)
        melting = portion.ingredient.category in _MELTS_J_G
        cold = melting and after < 32 and window.low_c > 30
        splits = cold or (melting and portion.grams > 1.2 * current.parts_g["water"])
        found.append(
            Addition(
                portion.ingredient.short, portion.grams, window, waits_s=waits, after_c=after,
                splits=splits, advice=_advice(portion, window, at, after, cold, splits),
            )
        )  # fmt: skip
        current, temp = current + Mix((portion,)), after
    return found


def _advice(
    portion: Portion, window: TempWindow, at_c: float, after: float, cold: bool, splits: bool
) -> str:
    folded = portion.ingredient.category == "egg"  # whites want a warm base for its gelatine only
    if at_c < window.low_c - _CLOSE_K and not folded:
        warm = say("stove.warm_the_mix_to_first", low_c=window.low_c)
        return say("stove.or_else", warm=warm, below=window.below) if window.below else warm + "."
    if cold:
        return say("stove.it_cools_the_mix_to_c", after=after)
    if splits:
        return say("stove.more_fat_than_the_water_can", rescue=window.rescue.capitalize())
    if portion.ingredient.category == "chocolate":
        return say("stove.a_third_of_the_hot_cream")
    if portion.ingredient.category == "fat":
        return say("stove.in_cubes_a_few_at_a")
    return ""
