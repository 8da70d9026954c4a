"""What goes in off the heat: at which temperature, what the mix then is, whether it splits."""

import math
from dataclasses import dataclass
from typing import Literal

from bellcrumb.mix.composition import Mix, Portion
from bellcrumb.pantry.ingredients import Ingredient
from bellcrumb.texture.families import Family

Cooling = Literal["bench", "ice_bath", "tray"]
# Heat taken up in melting, J/g. Source: butter and chocolate reference (medium).
_MELTS_J_G = {"fat": 50.0, "chocolate": 45.0}
# Seconds per kg in which a mix loses all but 1/e of its warmth. Source: estimates after practice
# (a kilo of cream on the bench is lukewarm after an hour, in ice and stirred after ten minutes).
_TAU_S_PER_KG: dict[Cooling, float] = {"bench": 2400.0, "ice_bath": 420.0, "tray": 1000.0}
_CLOSE_K = 4.0  # so little over the window, the spoon cools it on the way
_INTO_C: dict[Cooling, float] = {"bench": 22.0, "ice_bath": 1.0, "tray": 14.0}


@dataclass(frozen=True)
class TempWindow:
    """When something goes in: degC of the mix, the sign, what happens outside, the rescue."""

    low_c: float
    high_c: float
    sign: str
    below: str
    above: str
    rescue: str


# Source: finishing craft; emulsions and folds medium confidence, the others high.
_WINDOWS: dict[str, TempWindow] = {
    "butter": TempWindow(40, 98, "off the heat, no longer bubbling", "it stays in lumps",
                     "it melts to oil and the cream turns greasy",
                     "blend at 40 to 45 °C until it shines again"),
    "butter_curd": TempWindow(50, 62, "warm, thickened, off the bath", "it does not melt in",
                          "the fat runs out: greasy and dull",
                          "cool to 55 °C and blend, a spoon of cold curd at a time"),
    "butter_mousseline": TempWindow(17, 23, "cool to the lip, butter as soft as the cream",
                                "it curdles in grains: warm the bowl and go on beating",
                                "it runs: chill for ten minutes and beat again",
                                "match both to about 20 °C and beat"),
    "chocolate": TempWindow(45, 98, "off the boil, the chocolate chopped fine",
                        "it does not melt through: specks", "the fat runs out and it goes grainy",
                        "a spoon of warm milk, stirred from the middle out, or the blender"),
    "nut": TempWindow(40, 70, "a few minutes off the heat", "it stays in ropes", "its oil runs out",
                  "blend with a spoon of cold milk"),
    "cream_fold": TempWindow(16, 25, "cool, beaten smooth", "lumps and streaks, gelatine has set",
                         "the whipped cream melts and the volume is gone",
                         "warm the base over water for seconds, or chill it, then fold again"),
    "meringue_fold": TempWindow(45, 70, "the base still warm", "gelatine sets in strings",
                            "the foam collapses", "warm the base over water and whisk"),
    "setter": TempWindow(40, 75, "squeezed dry, in off the boil", "it does not melt: strings",
                     "boiling weakens it", "melt it in a spoonful and strain"),
    "alcohol": TempWindow(15, 60, "away from the flame", "",
                          "it boils off, and can catch fire", ""),
    "flavour": TempWindow(15, 70, "off the heat", "", "the aroma leaves with the steam", ""),
}  # fmt: skip


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
    waits_s: dict[Cooling, float]
    after_c: float
    splits: bool
    advice: str


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
        return "meringue_fold"
    return "flavour"


def cools_in_s(mass_g: float, from_c: float, to_c: float, how: Cooling) -> float:
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
        waits: dict[Cooling, float] = {}
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
                portion.ingredient.name, portion.grams, window, waits, after, splits,
                _advice(portion, window, after, cold, splits),
            )
        )  # fmt: skip
        current, temp = current + Mix((portion,)), after
    return found


def _advice(portion: Portion, window: TempWindow, after: float, cold: bool, splits: bool) -> str:
    if cold:
        return f"It cools the mix to {after:.0f} °C and does not melt through: add it in two goes."
    if splits:
        return f"More fat than the water can hold: it splits. {window.rescue.capitalize()}."
    if portion.ingredient.category == "chocolate":
        return "A third of the hot cream at a time, stirred from the middle out until it shines."
    if portion.ingredient.category == "fat":
        return "In cubes, a few at a time, whisk moving."
    return ""
