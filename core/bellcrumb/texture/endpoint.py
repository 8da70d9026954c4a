"""How a mix is cooked and where to stop."""

from dataclasses import KW_ONLY, dataclass, replace
from typing import Literal

from bellcrumb.laws.starch import PROTECTS_EGG_G
from bellcrumb.laws.water import AT_BOIL_K
from bellcrumb.mix.composition import Mix
from bellcrumb.texture.coagulation import Coagulation, coagulation, starch_protects
from bellcrumb.texture.families import GRAINS, Family
from bellcrumb.words import say

# What has to boil in the pot before anything else happens.
Boiled = Literal["", "starch", "grain", "setter", "cream"]
# Seconds at the boil until a setter is dissolved that cold water or warm milk does not dissolve.
# Source: makers' directions, as they usually stand; medium.
BOILED_SETTERS_S = {
    "agar": 120, "agar_flakes": 300, "pectin": 60, "carrageenan_kappa": 60, "carrageenan_iota": 60,
}  # fmt: skip
# Minutes at a simmer until coarse meal has swollen. Source: millers' directions; medium.
_SWELLS_MIN = {"semolina": (3, 5), "polenta": (30, 40), "oats": (5, 10), "barley_pearl": (40, 50)}
_POSSET_S = 180  # craft: "boiled three minutes", which thickens the cream by what it loses

CookMode = Literal["nappe", "boil_hold", "bake", "double_boiler", "none"]


@dataclass(frozen=True)
class Endpoint:
    """Cook ``mode``, the temperature to reach, how long to hold it and what not to pass.

    ``low_c``-``high_c`` is the band to aim for, ``never_c`` the curdling temperature if any,
    ``why`` the reason in a sentence. ``boils`` is what the pot has to boil for ``boils_s``, before
    any egg meets it.
    """

    mode: CookMode
    temp_c: float | None
    low_c: float | None
    _: KW_ONLY
    high_c: float | None
    hold_s: int
    never_c: float | None
    why: str
    boils: Boiled = ""
    boils_s: int = 0


def _flour_share(mix: Mix) -> float:
    flours = sum(
        p.grams * p.ingredient.corn_equivalent
        for p in mix.portions
        if p.ingredient.key in ("flour_plain", "flour_cake", "semolina", "wheat_starch")
    )
    return flours / mix.corn_equivalent_g if mix.corn_equivalent_g else 0.0


def _pot_boils(mix: Mix, family: Family) -> tuple[Boiled, int, str]:
    """What of a mix has to boil by itself: what it is, for how many seconds, and why."""
    if family.endpoint == "simmer" and mix.grams_of_key(*GRAINS):
        low, high = (round(s / 60) for s in family.boil_hold_s)
        return "grain", 60 * low, say("texture.the_grains_are_soft_to_the", low=low, high=high)
    swells = _SWELLS_MIN.get(mix.main_starch or "")
    if swells and family.on_the_stove:
        low, high = swells
        return "grain", 60 * low, say("texture.it_has_swollen_to_the_middle", low=low, high=high)
    setters = [s for key, s in BOILED_SETTERS_S.items() if mix.grams_of_key(key)]
    if setters:
        return (
            "setter",
            max(setters),
            say("texture.its_setter_dissolves_at_the_boil"),
        )
    if family.key == "posset":
        return (
            "cream",
            _POSSET_S,
            say("texture.boiled_three_minutes_the_cream_thickens"),
        )
    return "", 0, ""


def endpoint(
    mix: Mix, family: Family, altitude_m: float = 0.0, *, boiled_first: bool = False
) -> Endpoint:
    """Where to stop cooking a mix of a family, and what boils in its pot first. ``boiled_first``
    asks for the stove of what is baked afterwards."""
    on_the_stove = family.on_the_stove or boiled_first
    stop = _stops(mix, family, altitude_m, on_the_stove)
    if not on_the_stove:
        return stop
    boils, boils_s, why = _pot_boils(mix, family)
    if not boils:
        return replace(stop, boils="starch") if stop.mode == "boil_hold" else stop
    if mix.grams_of("egg"):
        return replace(stop, boils=boils, boils_s=boils_s, why=f"{why} {stop.why}")
    boil = mix.boils_c(altitude_m)
    hold = max(boils_s, stop.hold_s)
    return Endpoint(
        "boil_hold",
        temp_c=boil,
        low_c=boil - AT_BOIL_K,
        high_c=boil + 1,
        hold_s=hold,
        never_c=None,
        why=why,
        boils=boils,
        boils_s=boils_s,
    )


def _stops(mix: Mix, family: Family, altitude_m: float, on_the_stove: bool) -> Endpoint:
    """Where to stop cooking a mix of a family, for its egg and its starch.

    Boil-and-hold: 60-180 s for corn starch, 120-240 s for flour (craft, high confidence), half as
    long again above 1500 m where the boil is too cool for full swelling.
    """
    egg = coagulation(mix, family)
    liquid = family.liquid_g(mix)
    starch = mix.corn_equivalent_g / liquid * 1000 if liquid else 0.0
    if family.group == "curd" and egg:
        low_c, high_c = family.endpoint_c or (76.0, 82.0)
        return Endpoint(
            "double_boiler",
            egg.ideal_c,
            low_c,
            high_c=high_c,
            hold_s=0,
            never_c=egg.curdle_c,
            why=say("texture.acid_and_sugar_keep_a_curd"),
        )
    boils = starch >= PROTECTS_EGG_G * 0.4
    if not on_the_stove and (egg or not boils):
        if egg is None:
            return _sets_without_heat(mix)
        centre = egg.ideal_c
        return Endpoint(
            "bake",
            temp_c=centre,
            low_c=centre - 1.5,
            high_c=centre + 1.5,
            hold_s=0,
            never_c=egg.curdle_c,
            why=say("texture.the_egg_sets_still_in_the"),
        )
    if boils:
        boil = mix.boils_c(altitude_m)
        low, high = (120, 240) if _flour_share(mix) > 0.5 else (60, 180)
        hold = max(low, int(family.boil_hold_s[0]) if _flour_share(mix) > 0.5 else low)
        if altitude_m > 1500:
            hold = int(hold * 1.5)
        if egg and egg.curdle_c is not None and not starch_protects(mix, liquid):
            return _nappe(egg, say("texture.only_g_of_starch_per_1000", starch=starch))
        kind = say("texture.flour") if _flour_share(mix) > 0.5 else say("texture.starch")
        yolk = say("texture.and_the_hold_stops_the_yolks") if egg else ""
        return Endpoint(
            "boil_hold",
            temp_c=boil,
            low_c=boil - AT_BOIL_K,
            high_c=boil + 1,
            hold_s=hold,
            never_c=None,
            why=say(
                "texture.is_full_thickness_and_without_raw",
                kind=kind,
                hold=hold,
                high=high,
                yolk=yolk,
            ),
        )
    if egg:
        return _nappe(egg, say("texture.egg_alone_thickens_it_it_coats"))
    return _sets_without_heat(mix)


def _nappe(egg: Coagulation, why: str) -> Endpoint:
    """Until it coats a spoon: a degree either side of where the egg thickens best."""
    return Endpoint(
        "nappe",
        temp_c=egg.ideal_c,
        low_c=egg.ideal_c - 1,
        high_c=egg.ideal_c + 1,
        hold_s=0,
        never_c=egg.curdle_c,
        why=why,
    )


def _sets_without_heat(mix: Mix) -> Endpoint:
    """Nothing in it sets by cooking: what does, if anything."""
    why = say("texture.nothing_in_it_sets_by_cooking")
    if mix.grams_of("setter"):
        why = say("texture.it_sets_in_the_cold_heat")
    return Endpoint("none", temp_c=None, low_c=None, high_c=None, hold_s=0, never_c=None, why=why)
