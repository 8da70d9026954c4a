"""The families of custard: their windows, and which one a mix belongs to."""

import csv
import json
import math
from dataclasses import KW_ONLY, dataclass
from functools import cache, lru_cache
from importlib.resources import files
from typing import Literal, cast

from bellcrumb.errors import CraftError
from bellcrumb.mix.composition import Mix
from bellcrumb.texture.set_index import SETTER_S, SOAKS, WHIPPED, Style
from bellcrumb.words import say

# The signs by which schools call a bake done.
Doneness = Literal["wobble", "just_set", "clean_knife", "domed"]


@dataclass(frozen=True)
class RatioWindow:
    """A usual range with its centre."""

    low: float
    centre: float
    high: float

    def distance(self, value: float, floor: float) -> float:
        """How far ``value`` is from the centre in half-widths (at least ``floor`` wide)."""
        side = self.high - self.centre if value > self.centre else self.centre - self.low
        return abs(value - self.centre) / max(side, floor)


_LEAST_LIQUID = 0.12  # of a mix: with less of its liquid no family is near
WHITES = frozenset({"egg_white", "egg_white_past"})
_CREAMS = frozenset({"cream_30", "cream_35", "cream_heavy", "cream_au_pure", "cream_double"})
# What a family folds in as foam: keys, S of the foam (None: baked in), ml of air per gram.
_FOAMS: dict[str, tuple[frozenset[str], float | None, float]] = {
    "diplomat": (_CREAMS, *WHIPPED["cream"]),
    "bavarian_cream": (_CREAMS, *WHIPPED["cream"]),
    "fruit_mousse": (_CREAMS, *WHIPPED["cream"]),
    "mascarpone_cream": (WHITES | _CREAMS, *WHIPPED["cream"]),
    "chiboust": (WHITES | {"sugar_caster"}, *WHIPPED["egg"]),
    "cheesecake_ricotta": (WHITES, None, 1.5),
}
_NO_FOAM: tuple[frozenset[str], float | None, float] = (frozenset(), None, 0.0)


@dataclass(frozen=True)
class Family:
    """One family; ratios are grams per 1000 g of its liquid basis."""

    key: str
    name: str
    group: str
    _: KW_ONLY
    liquid_basis: str
    yolk_g: RatioWindow
    whole_egg_g: RatioWindow
    corn_equivalent_g: RatioWindow
    sugar_g: RatioWindow
    fat_pct: RatioWindow
    endpoint: str
    endpoint_c: tuple[float, float] | None
    boil_hold_s: tuple[float, float]
    set_centre_c: tuple[float, float] | None
    doneness: str
    judged_by: Doneness
    chill_h: tuple[float, float]
    keep_days: tuple[float, float]
    portion: str
    texture_mode: str
    texture_target: str
    centre: dict[str, float]
    source: str
    confidence: str

    @property
    def usually_beaten(self) -> bool:
        """Whether kitchens work it smooth again after it has set, before they pipe or fill it."""
        return self.texture_mode == "worked"

    @property
    def style(self) -> Style:
        """How this family is set as kitchens usually make it. Source: set-index reference, a."""
        still = 1.0 if self.texture_mode == "baked" else 0.0
        keys, strength, air = _FOAMS.get(self.key, _NO_FOAM)
        return Style(still, self.usually_beaten, keys, foam_strength=strength, air_ml_per_g=air)

    @property
    def on_the_stove(self) -> bool:
        """Whether it is finished on the stove (not baked)."""
        return self.group in ("stirred_egg", "starch_boiled", "curd", "cold_set")

    def liquid_g(self, mix: Mix) -> float:
        """Grams of what this family counts as its liquid; where there is hardly any, sour cream and
        its like are."""
        poured = beside = 0.0
        for p in mix.portions:
            if _is_liquid(self.liquid_basis, p.ingredient.key, p.ingredient.category):
                poured += p.grams
            elif p.ingredient.category == "cultured":
                beside += p.grams
        if poured < _LEAST_LIQUID * mix.mass_g and self.liquid_basis.startswith("milk"):
            return poured + beside
        return poured


_POWDERS = {"milk_powder_skim", "milk_powder_whole", "dulce_de_leche", "condensed_milk"}
JUICES = {"lemon_juice", "lime_juice", "orange_juice", "grapefruit_juice", "passion_pulp",
           "raspberry_puree", "mango_puree"}  # fmt: skip


_MASHED = ("pumpkin_puree", "banana_puree")  # no drink; a cream is made firm by them
_DRAWN = ("water", "coffee_brewed", "espresso", "tea_brewed")


def is_juice(key: str, category: str) -> bool:
    """Whether an ingredient is a juice or a purée that pours."""
    poured = category == "fruit" and key.endswith(("_juice", "_puree")) and key not in _MASHED
    return key in JUICES or poured


@lru_cache(maxsize=8192)
def _is_liquid(basis: str, key: str, category: str) -> bool:
    fruity = is_juice(key, category)
    if basis in ("citrus juice", "water + juice", "condensed milk + juice"):
        if key in JUICES or (fruity and basis.startswith("water")):
            return True
        return (basis.startswith("water") and key == "water") or (
            basis.startswith("condensed") and key == "condensed_milk"
        )
    if basis == "wine":
        return category == "alcohol"
    if basis == "water":
        return key in ("water", "coconut_water", "coconut_milk")
    if basis == "mascarpone":
        return key == "mascarpone"
    if basis == "fruit puree":
        return fruity
    if basis == "juice, wine, coffee":
        return fruity or category == "alcohol" or key in _DRAWN
    if basis == "egg":
        return category == "egg"
    if basis in ("cream cheese", "ricotta"):
        return category == "fresh_cheese"
    if basis.startswith("evaporated") and key == "condensed_milk":
        return True
    if basis == "milk (base)" and category == "cream":
        return False  # it is whipped and folded in
    pourable = category in ("milk", "cream", "plant") and key not in _POWDERS
    return pourable or key in (
        "buttermilk_low",
        "buttermilk_whole",
        "coconut_milk",
        "coconut_cream",
        *_DRAWN,
    )


GRAINS = ("rice_pudding", "arborio", "tapioca_pearl", "sago")  # swell whole, in the pot
COARSE = (*GRAINS, "semolina", "polenta", "oats", "barley_pearl")  # a sieve would keep them back
_LEAN_CURDS = ("quark_skim", "quark_20", "quark_40", "fromage_blanc", "fromage_blanc_40",
               "cottage_cheese")  # fmt: skip


def _pair(row: dict[str, str], stem: str) -> tuple[float, float] | None:
    low, high = row[f"{stem}_lo"], row[f"{stem}_hi"]
    return (float(low), float(high)) if low and high else None


def _window(row: dict[str, str], stem: str) -> RatioWindow:
    return RatioWindow(*(float(row[f"{stem}_{end}"] or 0) for end in ("lo", "centre", "hi")))


@cache
def families() -> dict[str, Family]:
    """Every family by key, in file order."""
    text = files("bellcrumb.texture").joinpath("data/families.csv").read_text("utf8")
    return {
        row["key"]: Family(
            key=row["key"], name=say(row["name"]), group=row["group"],
            liquid_basis=row["liquid_basis"],
            yolk_g=_window(row, "yolk_g"), whole_egg_g=_window(row, "whole_egg_g"),
            corn_equivalent_g=_window(row, "starch_cornequiv_g"),
            sugar_g=_window(row, "sugar_added_g"), fat_pct=_window(row, "fat_pct_mix"),
            endpoint=row["endpoint"], endpoint_c=_pair(row, "endpoint_c"),
            boil_hold_s=_pair(row, "boil_hold_s") or (0.0, 0.0),
            set_centre_c=_pair(row, "set_centre_c"), doneness=say(row["doneness"]),
            judged_by=cast(Doneness, row["judged_by"] or "wobble"),
            chill_h=_pair(row, "chill_h") or (2.0, 4.0),
            keep_days=_pair(row, "keep_days") or (2.0, 3.0), portion=row["portion"],
            texture_mode=row["texture_mode"], texture_target=row["texture_target"],
            centre=json.loads(row["centre_formula_json"]), source=say(row["source"]),
            confidence=row["confidence"],
        )
        for row in csv.DictReader(text.splitlines())
    }  # fmt: skip


def family(key: str) -> Family:
    """The family with this key. Raises CraftError with the keys there are."""
    try:
        return families()[key]
    except KeyError:
        known = ", ".join(families())
        raise CraftError(
            "family", say("texture.is_no_family_we_know_one", key=key, known=known)
        ) from None


# In a cheesecake they lie whole; elsewhere they are melted.
_CHIPS = ("choc_chips_dark", "choc_chips_milk", "choc_chips_white")


def _marks(mix: Mix) -> dict[str, float]:
    """Shares of the telling ingredients, by which families exclude each other."""
    mass = mix.mass_g or 1.0
    strewn = mix.grams_of_key(*_CHIPS) if mix.grams_of("fresh_cheese") > 0.3 * mass else 0.0
    return {
        "chocolate": (mix.grams_of("chocolate") - strewn) / mass,
        "cheese": mix.grams_of("fresh_cheese") / mass,
        "ricotta": mix.grams_of_key("ricotta_whole", "ricotta_part") / mass,
        "quark": mix.grams_of_key(*_LEAN_CURDS) / mass,
        "bread": mix.grams_of_key(*SOAKS) / mass,
        "pulp": mix.grams_of_key("pumpkin_puree", "sweet_potato", "chestnut_sweet") / mass,
        "juice": mix.grams_of_key(*JUICES) / mass,
        "condensed": mix.grams_of_key("condensed_milk") / mass,
        "buttermilk": mix.grams_of_key("buttermilk_low", "buttermilk_whole") / mass,
        "gelatine": mix.grams_of("setter") / mass,
        "grain": mix.grams_of_key(*GRAINS) / mass,
        "white": mix.white_g / mass,
        "butter": mix.grams_of("fat") / mass,
    }


@cache
def _centre_marks(key: str) -> dict[str, float]:
    from bellcrumb.pantry.pantry import shipped

    pantry = shipped()
    mix = Mix.of((pantry.key(k), g) for k, g in families()[key].centre.items())
    return _marks(mix)


_MARK_WEIGHT = {"chocolate": 5.0, "cheese": 5.0, "ricotta": 4.0, "quark": 4.0, "bread": 6.0,
                "pulp": 5.0, "juice": 5.0, "condensed": 5.0, "buttermilk": 6.0, "gelatine": 60.0,
                "white": 8.0, "grain": 12.0, "butter": 3.0}  # fmt: skip


# From this share on, butter is mounted into a cream off the stove (a curd), not baked in a custard.
# Source: our estimate; baked citrus creams have none, curds 15 to 35 %.
_MOUNTED, _MOUNTS = 0.08, 1.5


# A batter is of flour; a flan of as much corn starch is boiled first. Our estimates.
_NO_BATTER, _LEAST_FLOUR = 1.0, 0.02
_A_CHEESECAKE = 0.3  # share of fresh cheese
_BATTER_STARCH, _NO_COLD = 0.03, 1.0  # raw starch in what is not heated is left raw
_NOT_IT = 1.5
_NO_FLOUR = 0.6  # a flour cream of starch is another one
_NO_CURD = 3.0  # juice without an egg is none
_OF_BUTTERMILK = 3.0  # a chess pie with so much of it goes by its name
# What has so much of gelatine, or of whipped cream, in it hardly goes into the oven. Our estimates.
_SETS_COLD, _FOLDED, _NO_BAKE = 0.004, 0.2, 1.5
# Of two families as near, the one that kitchens make seldom is the worse guess. Our estimates.
_RARE = {"layered_pudding": 0.5, "ice_cream_base": 0.35, "cheesecake_bars": 0.2}
# Chocolate and yolks with so much starch per 1000 g of liquid, as corn starch, are boiled with it.
_BOILED_G, _IS_BOILED = 12.0, 0.6


def pieces_g(mix: Mix) -> float:
    """Grams of fruit in pieces: no juice, no jam."""
    return sum(
        p.grams
        for p in mix.portions
        if p.ingredient.category == "fruit"
        and p.ingredient.key not in JUICES
        and not p.ingredient.key.startswith("jam_")
        and not p.ingredient.key.endswith(("_juice", "_puree"))
    )


def _flour_g(mix: Mix) -> float:
    """Grams of starch that come with flour."""
    return sum(
        p.grams * p.ingredient.starch_pct / 100
        for p in mix.portions
        if p.ingredient.key.startswith("flour_")
    )


def _of_egg_alone(mix: Mix) -> bool:
    """Whether eggs are the only liquid of a pie: much sugar and fat or nuts, hardly any milk."""
    rich = mix.grams_of("fat", "nut") > 0.05 * mix.mass_g
    poured = families()["anglaise"].liquid_g(mix) + mix.grams_of_key(*JUICES)
    return rich and mix.added_sugar_g > 0.25 * mix.mass_g and poured < 0.2 * mix.mass_g


@dataclass(frozen=True)
class Standing:
    """How near a mix is to a family (0 = its centre, about 1 = the edge of its windows)."""

    family: Family
    distance: float


def _tells(mark: str, fam: Family, centre: dict[str, float]) -> bool:
    """Whether a telling ingredient tells anything of this family."""
    if mark == "buttermilk":  # set in the cold it is one more milk
        return fam.group != "cold_set"
    if mark == "juice":  # of wine, coffee or another fruit it is one as well
        return fam.key not in ("jelly", "fruit_mousse")
    if mark in ("ricotta", "quark"):  # of any fresh cheese
        return fam.key != "cheesecake_cold"
    # A cheesecake flavoured with it is one still.
    return mark not in ("chocolate", "pulp") or centre["cheese"] <= _A_CHEESECAKE


def _by_marks(fam: Family, marks: dict[str, float]) -> float:
    """How much further a family is by the telling ingredients."""
    centre = _centre_marks(fam.key)
    distance = 0.0
    for mark, weight in _MARK_WEIGHT.items():
        if not _tells(mark, fam, centre):
            continue
        here, there = marks[mark], centre[mark]
        distance += weight * abs(here - there)
        if (there > 0.05) != (here > 0.02) and mark not in ("butter", "white"):
            distance += 0.8 if max(here, there) > 0.03 else 0.0
    return distance


def _against(fam: Family, mix: Mix, marks: dict[str, float]) -> float:
    """How much further a family is because a mix lacks what makes it, or holds what unmakes it."""
    flour, starch, sets = _flour_g(mix), mix.starch_g, mix.grams_of_key(*SETTER_S)
    thick = mix.corn_equivalent_g > _BOILED_G / 1000 * fam.liquid_g(mix)
    no: dict[str, tuple[bool, float]] = {
        "citrus_tart": (marks["butter"] > _MOUNTED, _MOUNTS),
        "clafoutis": (flour < max(0.5 * starch, _LEAST_FLOUR * mix.mass_g), _NO_BATTER),
        "flour_cream": (starch > 0 and flour < 0.5 * starch, _NO_FLOUR),
        "cheesecake_cold": (starch > _BATTER_STARCH * mix.mass_g, _NO_COLD),
        "panna_cotta": (not sets, _NOT_IT),
        "posset": (sets > 0, _NOT_IT),
        "pot_de_creme_choc": (thick, _IS_BOILED),
        "cremeux": (thick, _IS_BOILED),
        "chess_pie": (marks["buttermilk"] > _LEAST_LIQUID, _OF_BUTTERMILK),
        "fruit_mousse": (not mix.grams_of("cream"), _NOT_IT),
    }
    lacks, by = no.get(fam.key, (False, 0.0))
    no_curd = _NO_CURD if fam.group == "curd" and not mix.grams_of("egg") else 0.0
    return (by if lacks else 0.0) + no_curd + _RARE.get(fam.key, 0.0)


def standings(mix: Mix) -> list[Standing]:
    """Every family with its distance from the mix, nearest first."""
    marks = _marks(mix)
    foam = sum(p.grams for p in mix.portions if p.whipped and p.ingredient.category == "cream")
    set_cold = marks["gelatine"] > _SETS_COLD or foam > _FOLDED * mix.mass_g
    around = mix.mass_g - pieces_g(mix)  # a custard may lie around any amount of fruit
    found = []
    for fam in families().values():
        liquid = fam.liquid_g(mix)
        if (
            not liquid
            or liquid < _LEAST_LIQUID * around
            or (fam.liquid_basis == "egg" and not _of_egg_alone(mix))
        ):
            found.append(Standing(fam, 99.0))
            continue
        per = 1000 / liquid
        parts = (
            fam.yolk_g.distance(mix.yolk_g * per, 40),
            fam.whole_egg_g.distance(mix.whole_egg_g * per, 50),
            fam.corn_equivalent_g.distance(mix.corn_equivalent_g * per, 12),
            0.6 * fam.sugar_g.distance(mix.added_sugar_g * per, 60),
            0.8 * fam.fat_pct.distance(100 * mix.share("fat"), 4),
        )
        distance = math.sqrt(sum(min(p, 6) ** 2 for p in parts) / len(parts))
        distance += _by_marks(fam, marks) + _against(fam, mix, marks)
        if not fam.on_the_stove and set_cold:
            distance += _NO_BAKE
        found.append(Standing(fam, distance))
    return sorted(found, key=lambda s: s.distance)


def nearest_on_the_stove(mix: Mix) -> Family | None:
    """The nearest family of the stove whose windows a mix lies in, or None."""
    near = next(s for s in standings(mix) if s.family.on_the_stove)
    return near.family if near.distance <= 1 else None
