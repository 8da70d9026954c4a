"""The set map: the classes as regions of a plane of two ratios for one mix."""

from collections.abc import Callable
from dataclasses import KW_ONLY, dataclass
from itertools import pairwise
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from bellcrumb.mix.composition import Mix, Portion
from bellcrumb.pantry.pantry import shipped
from bellcrumb.texture.families import Family
from bellcrumb.texture.set_index import (
    CLASSES,
    CUTS,
    FACTORS,
    SetClass,
    Style,
    factors_of,
    split_foam,
    strength,
)
from bellcrumb.words import say

Plane = Literal["starch_egg", "sugar_fat", "egg_fat"]
Array = NDArray[np.float64]
_ROWS = 25
# Fat in % of the mix at which it eats differently, and sweetness in % as sucrose. Source: craft
# words for creams, from milk puddings (about 4 % fat) to custards of double cream (over 22 %).
MOUTHFEEL = (
    (5.0, say("texture.light")),
    (12.0, say("texture.creamy")),
    (22.0, say("texture.rich")),
    (None, say("texture.coats_the_mouth")),
)
SWEETNESS = (
    (9.0, say("texture.barely_sweet")),
    (15.0, say("texture.sweet")),
    (20.0, say("texture.very_sweet")),
    (None, say("texture.cloying")),
)


@dataclass(frozen=True)
class Guide:
    """A line of a plane beyond which a mix eats differently: ``below`` on its low side."""

    axis: Literal["x", "y"]
    at: float
    below: str
    _: KW_ONLY
    above: str


@dataclass(frozen=True)
class SetMap:
    """Boundaries between classes, for drawing; all in g per 1000 g liquid.

    ``rows`` (25 values) run up the plane; ``edges[k]`` gives for each of them the x at which
    ``classes[k]`` ends and ``classes[k + 1]`` begins, clamped to the map. The point is at ``x``,
    ``y``; ``x_low`` and ``x_high`` would give the ends of the set's band in its row.
    """

    plane: Plane
    x_max: float
    y_max: float
    _: KW_ONLY
    rows: list[float]
    edges: list[list[float]]
    classes: list[SetClass]
    x: float
    y: float
    x_low: float
    x_high: float
    x_word: str
    y_word: str
    guides: list[Guide]


@dataclass(frozen=True)
class _Axis:
    """One way a mix may move: what a gram of it brings, where it stands, how far the map goes."""

    word: str
    unit: Array
    here: float
    _: KW_ONLY
    top: float


def point(mix: Mix, family: Family, style: Style, plane: Plane) -> tuple[float, float] | None:
    """Where a mix stands in a plane, in g per 1000 g liquid; None without liquid."""
    liquid = family.liquid_g(mix)
    if liquid <= 0:
        return None
    x, y = _axes(mix, family, style, plane, liquid)
    return x.here, y.here


def set_map(
    mix: Mix,
    family: Family,
    style: Style,
    low: float,
    high: float,
    plane: Plane = "starch_egg",
    shift: float = 0.0,
) -> SetMap | None:
    """The map for a mix with everything held but the two ratios of the plane; None without liquid.

    ``low`` and ``high`` bound S for the band; ``shift`` is how much firmer than the books it comes
    out in the kitchen. Egg is varied in the proportion of yolk and white
    the mix has (yolk when it has none), starch as the starch it has (corn starch when none), sugar
    as the sugar it has, fat as milk fat in place of the watery part of the liquid.
    """
    liquid = family.liquid_g(mix)
    if liquid <= 0:
        return None
    x, y = _axes(mix, family, style, plane, liquid)
    per = liquid / 1000
    total, foam = split_foam(mix, style)
    base = total - per * (x.here * x.unit + y.here * y.unit)
    rows, columns = np.linspace(0, y.top, _ROWS), np.linspace(0, x.top, 61)

    def grid(row: Array) -> Array:
        return base + per * (row[:, None, None] * y.unit + columns[None, :, None] * x.unit)

    s, top = strength(grid(rows), style, foam)
    here = strength(grid(np.array([y.here])), style, foam)[0][0] + shift
    s = s + shift
    falling = plane == "sugar_fat"
    cuts = [np.full_like(s, cut) for cut in CUTS[:4]] + [top]
    classes = list(CLASSES)
    if style.beaten:  # a beaten cream is never more than pipe
        cuts, classes = cuts[:3], classes[:4]
    edges = [_crossings(s - cut, columns, falling=falling) for cut in cuts]
    if falling:
        edges, classes = edges[::-1], classes[::-1]
    band = [_crossings(here[None, :] - s_end, columns, falling=falling)[0] for s_end in (low, high)]
    return SetMap(
        plane, x.top, y.top, rows=rows.tolist(), edges=edges, classes=classes, x=x.here, y=y.here,
        x_low=min(band), x_high=max(band), x_word=x.word, y_word=y.word,
        guides=_guides(mix, plane, x, y, liquid),
    )  # fmt: skip


def _crossings(over: Array, columns: Array, *, falling: bool) -> list[float]:
    """For each row, the x at which ``over`` changes sign; 0 or the far end where it never does."""
    found = []
    for row in over:
        line = -row if falling else row
        if line[0] >= 0:
            found.append(0.0)
        elif line[-1] <= 0:
            found.append(float(columns[-1]))
        else:
            found.append(float(np.interp(0.0, np.maximum.accumulate(line), columns)))
    return found


def _axes(
    mix: Mix, family: Family, style: Style, plane: Plane, liquid: float
) -> tuple[_Axis, _Axis]:
    makers: dict[Plane, tuple[Callable[[Mix, Style, float], _Axis], ...]] = {
        "starch_egg": (_starch, _egg),
        "sugar_fat": (_sugar, _fat),
        "egg_fat": (_egg, _fat),
    }
    x, y = makers[plane]
    return x(mix, style, 1000 / liquid), y(mix, style, 1000 / liquid)


def _unit(portions: list[Portion]) -> Array:
    mass = sum(p.grams for p in portions)
    total = sum((p.grams * factors_of(p.ingredient) for p in portions), np.zeros(len(FACTORS)))
    return np.asarray(total / mass)


def _of(mix: Mix, style: Style, category: str) -> list[Portion]:
    return [
        p
        for p in mix.portions
        if p.ingredient.category == category and p.ingredient.key not in style.foam_keys
    ]


def _starch(mix: Mix, style: Style, per: float) -> _Axis:
    parts = _of(mix, style, "starch") or [Portion(shipped().key("corn_starch"), 0.0)]
    equivalent = sum(p.grams * p.ingredient.corn_equivalent for p in parts)
    counted = parts if equivalent else [Portion(shipped().key("corn_starch"), 1.0)]
    each = sum(p.grams * p.ingredient.corn_equivalent for p in counted)
    unit = _unit(counted) * sum(p.grams for p in counted) / each
    here = equivalent * per
    return _Axis(
        say("texture.starch_g_as_corn_starch"),
        unit,
        here,
        top=max(120.0, 20 * np.ceil(here * 1.15 / 20)),
    )


def _egg(mix: Mix, style: Style, per: float) -> _Axis:
    eggs = _of(mix, style, "egg")
    whole = any(p.ingredient.key.startswith("egg_whole") for p in eggs)
    here = sum(p.grams for p in eggs) * per
    unit = _unit(eggs or [Portion(shipped().key("egg_yolk"), 1.0)])
    least = 440.0 if whole else 320.0
    word = say("texture.egg") if whole else say("texture.yolk")
    return _Axis(
        say("texture.word_g", word=word), unit, here, top=max(least, 40 * np.ceil(here * 1.15 / 40))
    )


def _sugar(mix: Mix, style: Style, per: float) -> _Axis:
    sugars = _of(mix, style, "sugar")
    here = sum(p.grams for p in sugars) * per
    unit = _unit(sugars or [Portion(shipped().key("sugar"), 1.0)])
    return _Axis(
        say("texture.added_sugar_g"), unit, here, top=max(400.0, 50 * np.ceil(here * 1.15 / 50))
    )


def _fat(mix: Mix, style: Style, per: float) -> _Axis:
    """Milk fat in place of skimmed milk (3.4 % protein, 4.8 % sugar): the weight stays."""
    total, _ = split_foam(mix, style)
    unit = np.zeros(len(FACTORS))
    for factor, each in (("milk_fat", 1.0), ("sweet_milk_protein", -0.034), ("sugar", -0.048)):
        unit[FACTORS.index(factor)] = each
    here = float(total[FACTORS.index("milk_fat")]) * per
    return _Axis(
        say("texture.milk_fat_g"), unit, here, top=max(400.0, 50 * np.ceil(here * 1.15 / 50))
    )


def _guides(mix: Mix, plane: Plane, x: _Axis, y: _Axis, liquid: float) -> list[Guide]:
    """Lines of mouthfeel and, in the sugar plane, of sweetness, worked out at this mix."""
    found: list[Guide] = []
    if plane == "starch_egg":
        return found
    per = 1000 / liquid
    for (limit, below), (_, above) in pairwise(MOUTHFEEL):
        assert limit is not None
        at = y.here + (limit / 100 - mix.share("fat")) * mix.mass_g * per
        if 0 < at < y.top:
            found.append(Guide("y", at, below, above=above))
    if plane == "sugar_fat":
        for (limit, below), (_, above) in pairwise(SWEETNESS):
            assert limit is not None
            # Sweetness s = (sweet + d) / (mass + d), solved for the sugar d to add.
            share = limit / 100
            more = (share * mix.mass_g - mix.sweetness_g) / (1 - share)
            at = x.here + more * per
            if 0 < at < x.top:
                found.append(Guide("x", at, below, above=above))
    return found
