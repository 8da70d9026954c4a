"""What a mix is when it is no custard: a dough, a caramel, a meringue, a glaze.

Lines are pasted without saying what they are for. What cannot be a custard is not measured as one;
it is said what it reads as, and whoever pasted it decides.
"""

from dataclasses import dataclass
from typing import Literal

from bellcrumb.mix.composition import Mix
from bellcrumb.texture.families import pieces_g
from bellcrumb.words import say

# Shares of the mass; what divides the kinds is wide in practice. Our estimates.
_DOUGH_FLOUR = 0.3  # no custard, pudding or batter has such a share of flour
_CHOUX_LIQUID = 2.6  # g per g of flour; batters have three and more
_CHOUX_BUTTER = 0.3
_CARAMEL_SUGAR = 0.42
_MERINGUE_SUGAR = 0.42
_GANACHE_CHOCOLATE = 0.38
_MIRROR_GELATINE = 0.006
_MIRROR_SWEET = 0.28  # a set cream has half of it
_FRUIT = 0.35
_ALMONDS, _ALMOND_BUTTER = 0.2, 0.15
_SPONGE_EGG, _SPONGE_FLOUR, _SPONGE_SUGAR = 0.3, 0.18, 0.15
_COCOAS = ("cocoa_natural", "cocoa_dutch")


OtherKind = Literal["crust", "caramel", "meringue", "glaze", "garnish"]


@dataclass(frozen=True)
class Other:
    """The kind of part a mix reads as, and what a cook calls it."""

    kind: OtherKind
    name: str


def _flour_g(mix: Mix) -> float:
    """Grams of flour; a pure starch makes no dough."""
    ground = ("rice_flour", "oats")
    return sum(
        p.grams
        for p in mix.portions
        if p.ingredient.key.startswith("flour_") or p.ingredient.key in ground
    )


def is_dough(mix: Mix) -> bool:
    """Whether a mix is a dough: more flour than any liquid of it could thicken. Nuts, crumbs and
    chocolate do not count as liquid."""
    return mix.mass_g > 0 and _flour_g(mix) > _DOUGH_FLOUR * mix.mass_g


def is_choux(mix: Mix) -> bool:
    """Whether a mix is choux: flour cooked in water with butter, loosened with eggs."""
    flour = _flour_g(mix)
    wet = mix.grams_of("milk", "basic", "water")
    return (
        flour > 0
        and mix.whole_egg_g > 0.8 * flour
        and 0.8 * flour < wet < _CHOUX_LIQUID * flour
        and mix.grams_of("fat") > _CHOUX_BUTTER * flour
        and mix.added_sugar_g < 0.3 * flour
    )


def is_mirror(mix: Mix) -> bool:
    """Whether a mix is a mirror glaze: chocolate or cocoa in much syrup, held by gelatine."""
    sweet = mix.added_sugar_g + mix.grams_of_key("condensed_milk")
    return (
        mix.grams_of("setter") > _MIRROR_GELATINE * mix.mass_g
        and sweet > _MIRROR_SWEET * mix.mass_g
        and (mix.grams_of("chocolate") > 0 or mix.grams_of_key(*_COCOAS) > 0)
        and not mix.grams_of("egg")
    )


def _is_crumb(mix: Mix) -> bool:
    ready = mix.grams_of("crumb_dough") - mix.grams_of_key("arborio")
    raw = sum(
        p.grams for p in mix.portions
        if p.ingredient.category == "crumb_dough" and p.ingredient.key.endswith("_raw")
    )  # fmt: skip
    wet = mix.grams_of("milk", "cream", "basic", "plant", "egg", "fresh_cheese")
    bound = mix.grams_of("fat", "chocolate") > 0.1 * mix.mass_g
    return (raw > 0.8 * mix.mass_g) or (
        ready > 0.35 * mix.mass_g and bound and wet < 0.08 * mix.mass_g
    )


def _is_almond_cream(mix: Mix, eggs: float, dairy: float) -> bool:
    nuts, butter = mix.grams_of("nut"), mix.grams_of("fat")
    rich = nuts > _ALMONDS * mix.mass_g and butter > _ALMOND_BUTTER * mix.mass_g
    return rich and eggs > 0.1 * mix.mass_g and dairy < 0.1 * mix.mass_g


def _is_sponge(mix: Mix, eggs: float, dairy: float) -> bool:
    mass = mix.mass_g
    whipped = eggs > _SPONGE_EGG * mass and mix.added_sugar_g > _SPONGE_SUGAR * mass
    return whipped and _flour_g(mix) > _SPONGE_FLOUR * mass and dairy < 0.1 * mass


def other_than_custard(mix: Mix) -> Other | None:
    """What a mix reads as when it cannot be a custard; None when it may be one."""
    mass = mix.mass_g
    if not mass:
        return None
    if is_choux(mix):
        return Other("crust", say("texture.a_choux_dough"))
    if is_dough(mix):
        return Other("crust", say("texture.a_dough"))
    if _is_crumb(mix):
        return Other("crust", say("texture.a_base"))
    eggs, dairy = mix.grams_of("egg"), mix.grams_of("milk", "cream", "cultured", "fresh_cheese")
    if _is_almond_cream(mix, eggs, dairy):
        return Other("crust", say("texture.an_almond_cream"))
    if _is_sponge(mix, eggs, dairy):
        return Other("crust", say("texture.a_sponge"))
    seasoned = mix.grams_of("flavour", "acid", "spice")
    sugar = mix.added_sugar_g
    sets = mix.grams_of("starch", "setter", "fresh_cheese", "chocolate")
    whites = mix.white_g
    if whites > 0.15 * mass and eggs - whites < 0.01 * mass and sugar > _MERINGUE_SUGAR * mass:
        beside = sugar + whites + seasoned + mix.grams_of("basic")
        return Other("meringue", say("texture.a_meringue")) if beside > 0.93 * mass else None
    if eggs:
        return None
    with_water = mix.grams_of("basic") > 0 or mix.grams_of("cream", "fat") > 0.1 * mass
    plain = mix.grams_of("sugar", "basic", "cream", "fat") + seasoned > 0.97 * mass
    if sugar > _CARAMEL_SUGAR * mass and not sets and plain and with_water:
        return Other("caramel", say("texture.sugar_to_be_cooked"))
    jam = sum(p.grams for p in mix.portions if p.ingredient.key.startswith("jam_"))
    if jam > 0.5 * mass and dairy < 0.05 * mass:
        return Other("glaze", say("texture.a_glaze_of_jam"))
    sweetened = sugar > 0 and not sets  # (fruit alone may be the first line of anything)
    if pieces_g(mix) > _FRUIT * mass and sweetened and dairy < 0.05 * mass:
        return Other("garnish", "fruit")
    chocolate = mix.grams_of("chocolate")
    if is_mirror(mix):
        return Other("glaze", say("texture.a_mirror_glaze"))
    whipped = any(p.whipped for p in mix.portions)
    if chocolate > _GANACHE_CHOCOLATE * mass and not mix.grams_of("starch", "setter", "nut"):
        return None if whipped or not dairy else Other("glaze", say("texture.a_ganache"))
    return None


def part_kind_of(told: str | None, mix: Mix) -> str:
    """The kind of a part: as told, unless it is told as a filling or not at all and reads as
    something else."""
    if told not in (None, "filling", "cream"):
        return str(told)
    other = other_than_custard(mix)
    return other.kind if other else told or "filling"
