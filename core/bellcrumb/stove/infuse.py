"""What is drawn in hot liquid and strained or taken out: how long, and what it keeps of the liquid
(a pod or a stick nothing)."""

import csv
from dataclasses import KW_ONLY, dataclass
from functools import cache
from importlib.resources import files

from bellcrumb.mix.composition import Mix
from bellcrumb.stove.steps import names
from bellcrumb.texture.families import Family
from bellcrumb.words import say


@dataclass(frozen=True)
class Draws:
    """How an ingredient draws: grams of liquid that a gram keeps when it is strained and pressed
    lightly, and from how many minutes to how many it stands, lid on, off the heat."""

    keeps_g_per_g: float
    low_min: float
    high_min: float


@dataclass(frozen=True)
class Infusion:
    """What of a pot is drawn and strained out, ``low_min`` to ``high_min``, keeping ``keeps_g`` of
    the liquid."""

    of: Mix
    low_min: float
    high_min: float
    _: KW_ONLY
    keeps_g: float


@cache
def table() -> dict[str, Draws]:
    """Every ingredient that draws, by key. Source: each row's."""
    text = files("bellcrumb.stove").joinpath("data/infusions.csv").read_text("utf8")
    return {
        row["key"]: Draws(
            float(row["keeps_g_per_g"]), float(row["low_min"]), float(row["high_min"])
        )
        for row in csv.DictReader(text.splitlines())
    }


def infusion(pot: Mix) -> Infusion | None:
    """What is drawn in a pot; None where nothing is. The slowest of several gives the time, among
    those that are strained out where any is: beside them a pod may stay in for as long as it likes.

    >>> from bellcrumb.pantry.pantry import shipped
    >>> milk, tea = shipped().key("milk_whole"), shipped().key("tea_leaf")
    >>> found = infusion(Mix.of([(milk, 1000.0), (tea, 14.0)]))
    >>> (found.low_min, found.high_min, found.keeps_g)
    (4.0, 6.0, 49.0)
    """
    known = table()
    drawn = tuple(p for p in pot.portions if p.ingredient.key in known)
    drawn = tuple(p for p in drawn if known[p.ingredient.key].keeps_g_per_g) or drawn
    if not drawn:
        return None
    slowest = max((known[p.ingredient.key] for p in drawn), key=lambda one: one.low_min)
    keeps_g = sum(p.grams * known[p.ingredient.key].keeps_g_per_g for p in drawn)
    return Infusion(Mix(drawn), slowest.low_min, slowest.high_min, keeps_g=keeps_g)


def made_up_g(pot: Mix, family: Family) -> float:
    """To what weight the strained liquid is made up again, g."""
    drawn = infusion(pot)
    return family.liquid_g(pot) or pot.mass_g - (drawn.of.mass_g if drawn else 0.0)


def told_of(drawn: Infusion, liquid_g: float) -> dict[str, object]:
    """What a guide says of it, by the names its words have for that."""
    return {
        "drawn": names(drawn.of),
        "low": drawn.low_min,
        "high": drawn.high_min,
        "keeps": drawn.keeps_g,
        "liquid": liquid_g,
    }


def drawn_before(mix: Mix, family: Family) -> list[str]:
    """What is ready before a bake: drawn and strained, the liquid made up."""
    drawn = infusion(mix)
    if drawn is None:
        return []
    told = told_of(drawn, made_up_g(mix, family))
    return [
        say("stove.drawn_and_strained", **told)
        if drawn.keeps_g
        else say("stove.drawn_and_taken_out", **told)
    ]
