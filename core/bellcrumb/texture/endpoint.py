"""How a mix is cooked and where to stop."""

from dataclasses import dataclass
from typing import Literal

from bellcrumb.laws.starch import PROTECTS_EGG_G
from bellcrumb.laws.water import AT_BOIL_K
from bellcrumb.mix.composition import Mix
from bellcrumb.texture.coagulation import coagulation
from bellcrumb.texture.families import Family

CookMode = Literal["nappe", "boil_hold", "bake", "double_boiler", "none"]


@dataclass(frozen=True)
class Endpoint:
    """Cook ``mode``, the temperature to reach, how long to hold it and what not to pass.

    ``low_c``-``high_c`` is the band to aim for, ``never_c`` the curdling temperature if any,
    ``why`` the reason in a sentence.
    """

    mode: CookMode
    temp_c: float | None
    low_c: float | None
    high_c: float | None
    hold_s: int
    never_c: float | None
    why: str


def _flour_share(mix: Mix) -> float:
    flours = sum(
        p.grams * p.ingredient.corn_equivalent
        for p in mix.portions
        if p.ingredient.key in ("flour_plain", "flour_cake", "semolina", "wheat_starch")
    )
    return flours / mix.corn_equivalent_g if mix.corn_equivalent_g else 0.0


def endpoint(mix: Mix, family: Family, altitude_m: float = 0.0) -> Endpoint:
    """Where to stop cooking a mix of a family.

    Boil-and-hold: 60-180 s for corn starch, 120-240 s for flour (craft, high confidence), half as
    long again above 1500 m where the boil is too cool for full swelling.
    """
    egg = coagulation(mix, family)
    liquid = family.liquid_g(mix)
    starch = mix.corn_equivalent_g / liquid * 1000 if liquid else 0.0
    if family.group == "curd" and egg:
        return Endpoint(
            "double_boiler",
            egg.ideal_c,
            *(family.endpoint_c or (76.0, 82.0)),
            0,
            egg.curdle_c,
            "Acid and sugar keep a curd forgiving; it thickens well below the boil.",
        )
    boils = starch >= PROTECTS_EGG_G * 0.4
    if not family.on_the_stove and (egg or not boils):
        if egg is None:
            return _sets_without_heat(mix)
        centre = egg.ideal_c
        return Endpoint(
            "bake",
            centre,
            centre - 1.5,
            centre + 1.5,
            0,
            egg.curdle_c,
            "The egg sets still in the oven; pull it when the centre is here, it goes on setting.",
        )
    if boils:
        boil = mix.boils_c(altitude_m)
        low, high = (120, 240) if _flour_share(mix) > 0.5 else (60, 180)
        hold = max(low, int(family.boil_hold_s[0]) if _flour_share(mix) > 0.5 else low)
        if altitude_m > 1500:
            hold = int(hold * 1.5)
        if egg and egg.curdle_c is not None:
            return Endpoint(
                "nappe",
                egg.ideal_c,
                egg.ideal_c - 1,
                egg.ideal_c + 1,
                0,
                egg.curdle_c,
                f"Only {starch:.0f} g of starch per 1000 g of liquid: too little to protect the "
                "egg at the boil.",
            )
        kind = "Flour" if _flour_share(mix) > 0.5 else "Starch"
        yolk = " and the hold stops the yolk's enzyme from thinning it overnight" if egg else ""
        return Endpoint(
            "boil_hold",
            boil,
            boil - AT_BOIL_K,
            boil + 1,
            hold,
            None,
            f"{kind} is full thickness and without raw taste only after {hold}-{high} s at the "
            f"boil{yolk}.",
        )
    if egg:
        return Endpoint(
            "nappe",
            egg.ideal_c,
            egg.ideal_c - 1,
            egg.ideal_c + 1,
            0,
            egg.curdle_c,
            "Egg alone thickens it: it coats the spoon here and curdles a few degrees higher.",
        )
    return _sets_without_heat(mix)


def _sets_without_heat(mix: Mix) -> Endpoint:
    """Nothing in it sets by cooking: what does, if anything."""
    why = "Nothing in it sets by cooking."
    if mix.grams_of("setter"):
        why = "It sets in the cold: heat it only until the setter is dissolved (agar to the boil)."
    return Endpoint("none", None, None, None, 0, None, why)
