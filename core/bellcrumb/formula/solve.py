"""Bending a formula to a wish by the least change.

Wishes that name an ingredient (swap, without, whole eggs) are met first, weight for weight in the
role the ingredient plays. Then eggs, starch, sugar, liquids and fats may move: the sum of squared
logarithms of their changes is made least (SLSQP) while the set lies where it is wished, the liquid
stays, and sugar and fat stay near what they were.
"""

import math
from collections.abc import Callable
from dataclasses import KW_ONLY, dataclass, field, replace

import numpy as np
from numpy.typing import NDArray

from bellcrumb.errors import CraftError
from bellcrumb.mix.composition import Mix, Portion
from bellcrumb.pantry.ingredients import Ingredient
from bellcrumb.pantry.pantry import Pantry
from bellcrumb.texture.families import Family
from bellcrumb.texture.set_index import (
    CLASSES,
    Style,
    factors_of,
    set_strength,
    split_foam,
    strength,
)
from bellcrumb.words import say
from bellcrumb.work import checkpoint

# How dear a change of each kind of ingredient is; what is not here is left alone.
_COST_OF_CHANGE = {"egg": 1.0, "starch": 0.6, "sugar": 3.0, "milk": 2.0, "cream": 2.0, "fat": 2.0,
         "cultured": 3.0, "fresh_cheese": 4.0, "plant": 2.0, "chocolate": 4.0}  # fmt: skip
_FARTHEST = math.log(4.0)  # a line is never cut or raised more than fourfold
_KEPT_NEAR = 3.0  # weight of keeping sugar and fat, per relative change
MOST_PORTIONS = 60  # more are no formula; the search goes with their square
_GLUTEN = {"gluten"}
_INSIDE = 0.35  # how far inside its class the set is aimed, in S; less in narrow classes


# Swaps a kitchen asks for: (from, to, in words).
COMMON_SWAPS: tuple[tuple[str, str, str], ...] = (
    ("flour_plain", "corn_starch", say("formula.corn_starch_for_flour")),
    ("corn_starch", "flour_plain", say("formula.flour_for_corn_starch")),
    ("corn_starch", "potato_starch", say("formula.potato_starch_for_corn_starch")),
    ("milk_whole", "evaporated_milk", say("formula.evaporated_milk_for_milk")),
    ("choc_dark_70", "choc_dark_55", say("formula.55_for_70_chocolate")),
    ("choc_dark_55", "choc_dark_70", say("formula.70_for_55_chocolate")),
    ("cream_35", "cream_double", say("formula.double_cream_for_35_cream")),
)


@dataclass(frozen=True)
class Wishes:
    """What a cook wishes.

    ``set_class`` None keeps the set as it is. ``starch_g`` (as corn starch) and ``egg_g`` per
    1000 g of liquid are taken as given: the point of the set map moved by hand. ``less_eggy`` cuts
    egg by a quarter, ``swaps`` are (from key, to key), ``without`` are "starch" and "gluten",
    ``whole_eggs`` puts whole eggs for yolks. ``shift`` is how much firmer than the books' this
    kitchen's creams come out (S): the class is wished as it is here.
    """

    set_class: str | None = None
    starch_g: float | None = None
    egg_g: float | None = None
    _: KW_ONLY
    less_eggy: bool = False
    whole_eggs: bool = False
    swaps: tuple[tuple[str, str], ...] = ()
    without: tuple[str, ...] = ()
    shift: float = 0.0


@dataclass
class Solution:
    """The bent mix (portion i stands for line i; added ones follow), and what could not be met."""

    portions: list[Portion]
    why: list[str]
    unmet: list[str] = field(default_factory=list)

    @property
    def mix(self) -> Mix:
        """The bent formula as a mix."""
        return Mix(tuple(p for p in self.portions if p.grams > 0))


def solve(
    mix: Mix, family: Family, style_of: Callable[[Mix], Style], wishes: Wishes, pantry: Pantry
) -> Solution:
    """Bend ``mix`` to ``wishes``; ``style_of`` says how a mix is set.

    Raises CraftError for an empty mix or an unknown ingredient.
    """
    if mix.mass_g <= 0:
        raise CraftError("lines", say("formula.there_is_nothing_to_bend_yet"))
    before = set_strength(mix, style_of(mix))
    out = Solution(list(mix.portions), ["" for _ in mix.portions])
    for old, new in wishes.swaps:
        _swap(out, old, new, pantry)
    if "gluten" in wishes.without:
        _without_gluten(out, pantry)
    if wishes.whole_eggs:
        _whole_eggs(out, pantry)
    no_starch = "starch" in wishes.without
    if no_starch:
        _drop_starch(out)
    if wishes.starch_g is not None or wishes.egg_g is not None:
        _put_point(out, family.liquid_g(mix), wishes, pantry)
        return out
    low, high = _aim(wishes.set_class, before.index, before.cuts, out, beaten=before.beaten)
    if wishes.set_class is not None:
        low, high = low - wishes.shift, high - wishes.shift
    _fit_set(out, mix, family, style_of, wishes, (low, high), pantry, no_starch=no_starch)
    if wishes.less_eggy and not mix.grams_of("egg"):
        out.unmet.append(say("formula.there_is_no_egg_in_it"))
    return out


def _aim(
    wished: str | None, index: float, cuts: tuple[float, ...], out: Solution, *, beaten: bool
) -> tuple[float, float]:
    """The range of S to reach."""
    if wished is None:
        return index - 0.05, index + 0.05
    number = CLASSES.index(wished)
    if beaten and number > 3:
        out.unmet.append(
            say(
                "formula.a_beaten_cream_never_judge_it",
                number=say("formula.slices") if number == 4 else say("formula.stands"),
            )
        )
        number = 3
    edges = (0.0, *cuts, cuts[-1] + 1.6)
    inside = min(_INSIDE, 0.4 * (edges[number + 1] - edges[number]))
    return edges[number] + inside, edges[number + 1] - inside


def _find(pantry: Pantry, name: str) -> Ingredient:
    try:
        return pantry.key(name)
    except KeyError:
        match = pantry.find(name)
    if match is None:
        raise CraftError("wishes", say("formula.is_not_in_the_pantry", name=name))
    return match.ingredient


def _role(i: Ingredient) -> float:
    """What one gram does in its role: thicken, bring cocoa or water; else one."""
    if i.corn_equivalent:
        return i.corn_equivalent
    if i.category == "chocolate" and i.cocoa_nonfat_pct:
        return i.cocoa_nonfat_pct / 100
    if i.category in ("milk", "cream", "plant"):
        return (i.protein_pct + i.sugars_pct) / 100 or 1.0
    return 1.0


def _swap(out: Solution, old: str, new: str, pantry: Pantry) -> None:
    gone, come = _find(pantry, old), _find(pantry, new)
    hit = False
    for n, p in enumerate(out.portions):
        if p.ingredient.key != gone.key:
            continue
        hit = True
        grams = p.grams * _role(gone) / _role(come)
        out.portions[n] = Portion(come, grams)
        out.why[n] = say("formula.for_as_much_as_does_the", come=come.short, gone=gone.short)
        if gone.category == "milk" and grams < p.grams:
            _add(
                out,
                pantry.key("water"),
                p.grams - grams,
                say("formula.water_back_for_the_milk_that"),
            )
        _level_sugar(out, p.grams * gone.sugars_pct / 100 - grams * come.sugars_pct / 100)
    if not hit:
        out.unmet.append(say("formula.there_is_no_in_it_to", gone=gone.short))


def _level_sugar(out: Solution, missing_g: float) -> None:
    """Put sugar that a swap took away (or brought) back into the sugar line."""
    for n, p in enumerate(out.portions):
        if p.ingredient.category == "sugar" and abs(missing_g) > 1:
            out.portions[n] = Portion(p.ingredient, max(0.0, p.grams + missing_g))
            out.why[n] = say("formula.sugar_levelled_for_the_swap")
            return


def _add(out: Solution, ingredient: Ingredient, grams: float, why: str) -> None:
    for n, p in enumerate(out.portions):
        if p.ingredient.key == ingredient.key:
            out.portions[n] = Portion(ingredient, p.grams + grams)
            out.why[n] = why
            return
    out.portions.append(Portion(ingredient, grams))
    out.why.append(why)


def _without_gluten(out: Solution, pantry: Pantry) -> None:
    corn = pantry.key("corn_starch")
    for n, p in enumerate(out.portions):
        if p.ingredient.allergens is None:
            out.unmet.append(say("formula.gluten_untold", ingredient=p.ingredient.name))
            continue
        if not _GLUTEN & set(p.ingredient.allergens):
            continue
        if p.ingredient.corn_equivalent:
            out.portions[n] = Portion(corn, p.grams * p.ingredient.corn_equivalent)
            out.why[n] = say("formula.corn_starch_has_no_gluten_and")
        else:
            out.unmet.append(
                say(
                    "formula.has_gluten_and_no_stand_in",
                    ingredient=p.ingredient.short.capitalize(),
                )
            )


def _whole_eggs(out: Solution, pantry: Pantry) -> None:
    whole = pantry.key("egg_whole")
    for n, p in enumerate(out.portions):
        if p.ingredient.key == "egg_yolk":
            # Equal strength: a yolk's protein sets 0.36 as much as a white's.
            yolk, egg = factors_of(p.ingredient), factors_of(whole)
            pull = (0.36 * yolk[2] + yolk[3]) / (0.36 * egg[2] + egg[3])
            out.portions[n] = Portion(whole, p.grams * float(pull))
            out.why[n] = say("formula.whole_egg_that_sets_as_much")


def _put_point(out: Solution, liquid_g: float, wishes: Wishes, pantry: Pantry) -> None:
    """Set starch and egg to the ratios given; every line of a kind moves alike."""
    if liquid_g <= 0:
        raise CraftError("lines", say("formula.there_is_no_liquid_to_measure"))
    for wished, category, added, weight in (
        (wishes.starch_g, "starch", "corn_starch", lambda i: i.corn_equivalent),
        (wishes.egg_g, "egg", "egg_yolk", lambda i: 1.0),
    ):
        if wished is None:
            continue
        mine = [n for n, p in enumerate(out.portions) if p.ingredient.category == category]
        have = sum(out.portions[n].grams * weight(out.portions[n].ingredient) for n in mine)
        want = wished * liquid_g / 1000
        if have <= 0:
            if want > 0:
                _add(out, pantry.key(added), want, say("formula.by_hand_on_the_map"))
            continue
        for n in mine:
            p = out.portions[n]
            out.portions[n] = replace(p, grams=p.grams * want / have)
            out.why[n] = say("formula.by_hand_on_the_map")


def _drop_starch(out: Solution) -> None:
    for n, p in enumerate(out.portions):
        if p.ingredient.corn_equivalent:
            out.portions[n] = Portion(p.ingredient, 0.0)
            out.why[n] = say("formula.no_starch_wished")


def _fit_set(
    out: Solution,
    original: Mix,
    family: Family,
    style_of: Callable[[Mix], Style],
    wishes: Wishes,
    aim: tuple[float, float],
    pantry: Pantry,
    *,
    no_starch: bool,
) -> None:
    """Move eggs, starch, sugar, liquids and fats by the least that brings S into ``aim``."""
    from scipy.optimize import minimize

    if len(out.portions) > MOST_PORTIONS:
        raise CraftError(
            "lines", say("formula.at_most_lines_are_bent_at", most_portions=MOST_PORTIONS)
        )
    if (
        not no_starch
        and not any(p.ingredient.corn_equivalent for p in out.portions)
        and (
            style_of(original).still < 0.5
            and wishes.set_class in ("spoon", "pipe", "slice", "unmould")
        )
    ):
        _add(out, pantry.key("corn_starch"), 20.0, say("formula.starch_to_carry_the_set"))
    if no_starch and not any(p.ingredient.category == "egg" for p in out.portions):
        out.unmet.append(say("formula.without_starch_and_without_egg_nothing"))
        return
    grams = np.array([p.grams for p in out.portions])
    dear = np.array(
        [
            _COST_OF_CHANGE.get(p.ingredient.category, np.inf) if p.grams > 0 else np.inf
            for p in out.portions
        ]
    )
    if wishes.less_eggy:
        for n, p in enumerate(out.portions):
            if p.ingredient.category == "egg":
                grams[n] *= 0.75
                dear[n] = np.inf
                out.why[n] = say("formula.a_quarter_less_egg")
    free = np.flatnonzero(np.isfinite(dear))
    sugar0, fat0 = original.share("sugars"), original.share("fat")
    liquid = np.array([1.0 if family.liquid_g(Mix((Portion(p.ingredient, 1.0),))) else 0.0
                       for p in out.portions])  # fmt: skip
    liquid_g = family.liquid_g(original) or float(liquid @ grams)

    def at(logs: NDArray[np.float64]) -> NDArray[np.float64]:
        moved = grams.copy()
        moved[free] = grams[free] * np.exp(logs)
        return moved

    def mixed(moved: NDArray[np.float64]) -> Mix:
        pairs = zip(out.portions, moved, strict=True)
        return Mix(tuple(replace(p, grams=float(g)) for p, g in pairs if g > 0))

    def index(logs: NDArray[np.float64]) -> float:
        checkpoint()
        mix = mixed(at(logs))
        style = style_of(mix)
        total, foam = split_foam(mix, style)
        return float(strength(total, style, foam)[0])

    def cost(logs: NDArray[np.float64]) -> float:
        mix = mixed(at(logs))
        near = (mix.share("sugars") / max(sugar0, 0.01) - 1) ** 2
        near += (mix.share("fat") / max(fat0, 0.01) - 1) ** 2
        return float(np.sum(dear[free] * logs**2) + _KEPT_NEAR * near)

    constraints = [
        {"type": "ineq", "fun": lambda logs: index(logs) - aim[0]},
        {"type": "ineq", "fun": lambda logs: aim[1] - index(logs)},
    ]
    if liquid[free].any():
        constraints.append(
            {"type": "eq", "fun": lambda logs: float(liquid @ at(logs)) / liquid_g - 1}
        )
    done = minimize(
        cost,
        np.zeros(len(free)),
        method="SLSQP",
        constraints=constraints,
        bounds=[(-_FARTHEST, _FARTHEST)] * len(free),
        options={"maxiter": 60, "ftol": 1e-7},
    )
    reached = index(done.x)
    if not aim[0] - 0.03 <= reached <= aim[1] + 0.03:
        way = say("formula.firm") if reached < aim[0] else say("formula.soft")
        blocker = say("formula.the_wish_for_no_starch_stands") if no_starch else ""
        out.unmet.append(
            say(
                "formula.it_does_not_get_enough_even",
                way=way,
                reached=reached,
                aim=aim[0],
                aim_2=aim[1],
                blocker=blocker,
            )
        )
        done.x[:] = 0.0
    for n, g in enumerate(at(done.x)):
        p = out.portions[n]
        if p.grams and abs(g / p.grams - 1) > 0.01:
            moved = _move(p.ingredient, g > p.grams, wishes)
            out.why[n] = f"{out.why[n]}; {moved}" if out.why[n] else moved
        out.portions[n] = replace(p, grams=float(g))


_AIMS = {
    "pour": say("formula.to_pour"),
    "nappe": say("formula.to_nappe"),
    "spoon": say("formula.to_spoon"),
    "pipe": say("formula.to_pipe"),
    "slice": say("formula.to_slice"),
    "unmould": say("formula.to_unmould"),
}


def _move(i: Ingredient, more: bool, wishes: Wishes) -> str:
    if i.category in ("egg", "starch"):
        klass = wishes.set_class
        aim = _AIMS[klass] if klass else say("formula.to_keep_the_set")
        return say("formula.more_to" if more else "formula.less_to", aim=aim)
    return say(
        "formula.so_that_sweetness_and_richness_stay",
        more=say("formula.more") if more else say("formula.less"),
    )
