"""The composition table and finding an ingredient by what a cook calls it.

Data: ``data/ingredients.csv`` (USDA SR Legacy and national tables, each row with its source) and
``data/names.csv`` (further kitchen names). A kitchen can add or correct rows: pass them to
``Pantry``.
"""

import csv
import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Literal, cast

from bellcrumb.errors import CraftError
from bellcrumb.pantry.names import STEMMED_IGNORED, stem
from bellcrumb.words import catalogue, say

Sureness = Literal["sure", "likely", "doubtful"]

# Corn-starch equivalents (grams of corn starch per gram as weighed). Source: set-index reference,
# craft "double the flour" and cold-gel practice; flour high confidence, the rest medium or low.
CORN_EQUIVALENT: dict[str, float] = {
    "corn_starch": 1.0, "custard_powder": 0.97, "wheat_starch": 0.85, "flour_plain": 0.52,
    "flour_cake": 0.55, "rice_flour": 0.62, "rice_starch": 0.70, "semolina": 0.50,
    "potato_starch": 0.90, "arrowroot": 0.90, "tapioca_starch": 0.75, "waxy_maize": 0.60,
    "mod_starch_cold": 0.90, "tapioca_pearl": 0.40, "arborio": 0.35, "rice_pudding": 0.35,
    "flour_bread": 0.50, "flour_self_raising": 0.49, "flour_whole": 0.45, "flour_spelt": 0.50,
    "flour_rye": 0.45, "flour_buckwheat": 0.55, "flour_oat": 0.45, "oats": 0.35,
    "flour_barley": 0.48, "barley_pearl": 0.30, "flour_chestnut": 0.40, "flour_corn": 0.50,
    "polenta": 0.45, "flour_glutinous_rice": 0.60, "flour_gluten_free": 0.65,
    "flour_chickpea": 0.40, "sago": 0.40, "tapioca_instant": 0.70, "kuzu": 0.90,
}  # fmt: skip
_VEGETABLE_STARCH = {"banana", "sweet_potato", "chestnut_sweet", "pumpkin_puree"}
# Grams of strong citrus juice one gram counts for. Source: set-index reference, section a.
JUICE_EQUIVALENT: dict[str, float] = {
    "lemon_juice": 1.0, "lime_juice": 1.1, "passion_pulp": 0.7, "raspberry_puree": 0.35,
    "grapefruit_juice": 0.35, "orange_juice": 0.2,
}  # fmt: skip


# What the law wants named. Source: Regulation (EU) 1169/2011, annex II.
Allergen = Literal[
    "celery", "crustaceans", "eggs", "fish", "gluten", "lupin", "milk", "molluscs", "mustard",
    "nuts", "peanuts", "sesame", "soybeans", "sulphites",
]  # fmt: skip
ALLERGENS: dict[Allergen, str] = {
    "celery": "allergen.celery", "crustaceans": "allergen.crustaceans", "eggs": "allergen.eggs",
    "fish": "allergen.fish", "gluten": "allergen.gluten", "lupin": "allergen.lupin",
    "milk": "allergen.milk", "molluscs": "allergen.molluscs", "mustard": "allergen.mustard",
    "nuts": "allergen.nuts", "peanuts": "allergen.peanuts", "sesame": "allergen.sesame",
    "soybeans": "allergen.soybeans", "sulphites": "allergen.sulphites",
}  # fmt: skip
# Sweetness of a gram of an ingredient's sugars as sucrose. Source: usual relative sweetness
# (lactose 0.16, glucose 0.7, fructose 1.2 to 1.7, DE 40 syrup 0.45), rounded; medium confidence.
_SWEETNESS: dict[str, float] = {
    "dextrose": 0.7, "honey": 1.15, "glucose_syrup": 0.45, "glucose_dried": 0.45,
    "corn_syrup_light": 0.5,
    "golden_syrup": 1.0, "treacle": 0.9, "maple_syrup": 0.95, "invert_sugar": 1.2,
    "condensed_milk": 0.83, "dulce_de_leche": 0.83, "choc_milk": 0.88, "choc_white": 0.85,
}  # fmt: skip
_SWEETNESS_OF: dict[str, float] = {
    "milk": 0.16, "cream": 0.16, "cultured": 0.16, "fresh_cheese": 0.16, "fat": 0.16, "fruit": 1.1,
}  # fmt: skip


# What is in every pot is called as cooks call it.
_CALLED: dict[str, str] = {
    "vanilla_pod": say("short.vanilla"),
    "egg_yolk": say("short.yolks"),
    "egg_whole": say("short.eggs"),
    "egg_white": say("short.whites"),
    "sugar": say("short.sugar"),
    **dict.fromkeys(("butter_80", "butter_82"), say("short.butter")),
    "flour_plain": say("short.flour"),
    "milk_whole": say("short.milk"),
    **dict.fromkeys(("cream_35", "cream_heavy"), say("short.cream")),
    "salt_fine": say("short.salt"),
}


@dataclass(frozen=True)
class Ingredient:
    """One row of the pantry. Percentages are by mass; the eight ``*_pct`` parts sum to 100."""

    key: str
    name: str
    category: str
    water_pct: float
    fat_pct: float
    protein_pct: float
    sugars_pct: float
    starch_pct: float
    other_carb_pct: float
    ash_pct: float
    alcohol_pct: float
    egg_protein_pct: float = 0.0
    cocoa_solids_pct: float = 0.0
    cocoa_nonfat_pct: float = 0.0
    milk_fat_pct: float = 0.0
    yolk_pct: float = 0.0
    white_pct: float = 0.0
    ph: float | None = None
    density_g_per_ml: float | None = None
    g_per_us_cup: float | None = None
    g_per_tbsp: float | None = None
    g_per_piece: float | None = None
    allergens: tuple[Allergen, ...] | None = ()
    source: str = ""
    confidence: str = "medium"
    aliases: tuple[str, ...] = ()

    @property
    def corn_equivalent(self) -> float:
        """Grams of corn starch one gram thickens like."""
        if self.key in _VEGETABLE_STARCH:
            return 0.5 * self.starch_pct / 88.0
        if self.category == "starch" and self.key not in CORN_EQUIVALENT:
            return self.starch_pct / 88.0  # a kitchen's own: like corn, by what its label says
        return CORN_EQUIVALENT.get(self.key, 0.0)

    @property
    def sweetness(self) -> float:
        """Grams of sucrose one gram is as sweet as."""
        each = _SWEETNESS.get(self.key, _SWEETNESS_OF.get(self.category, 1.0))
        return each * self.sugars_pct / 100

    @property
    def short(self) -> str:
        """What it is called within a sentence: yolks, dark chocolate."""
        if self.key in _CALLED:
            return _CALLED[self.key]
        plain = re.sub(r"\s*\([^)]*\)", "", self.name).split(",")[0]
        plain = re.sub(r"\s[\d.\-–]+\s?%.*$", "", plain).strip()
        return plain[:1].lower() + plain[1:]

    @property
    def is_powder(self) -> bool:
        """Whether a cup of it depends on how it was scooped."""
        return self.category in ("starch", "nut", "crumb_dough", "spice", "setter") or (
            self.density_g_per_ml is not None and self.density_g_per_ml < 0.8
        )


_NUMBERS = (
    "water_pct fat_pct protein_pct sugars_pct starch_pct other_carb_pct ash_pct alcohol_pct "
    "egg_protein_pct cocoa_solids_pct cocoa_nonfat_pct milk_fat_pct yolk_pct white_pct"
).split()


def _optional(text: str) -> float | None:
    return float(text) if text.strip() else None


def _from_row(row: dict[str, str]) -> Ingredient:
    return Ingredient(
        key=row["key"],
        name=say(row["name"]),
        category=row["category"],
        **{field: float(row[field] or 0) for field in _NUMBERS},
        ph=_optional(row["acidity_ph"]),
        density_g_per_ml=_optional(row["density_g_per_ml"]),
        g_per_us_cup=_optional(row["g_per_us_cup"]),
        g_per_tbsp=_optional(row["g_per_tbsp"]),
        g_per_piece=_optional(row["g_per_piece"]),
        allergens=cast(tuple[Allergen, ...], tuple(filter(None, row["allergens"].split("|")))),
        source=row["source"],
        confidence=row["confidence"],
        aliases=(*filter(None, row["aliases"].split("|")), catalogue("en")[row["name"]]),
    )


@cache
def table() -> tuple[Ingredient, ...]:
    """Every ingredient that ships, in file order."""
    text = files("bellcrumb.pantry").joinpath("data/ingredients.csv").read_text("utf8")
    return tuple(_from_row(row) for row in csv.DictReader(text.splitlines()))


def from_label(
    key: str,
    name: str,
    *,
    fat_pct: float,
    sugars_pct: float,
    protein_pct: float,
    starch_pct: float = 0.0,
    water_pct: float | None = None,
    g_per_us_cup: float | None = None,
    g_per_piece: float | None = None,
    allergens: Iterable[Allergen] | None = None,
    category: str = "own",
) -> Ingredient:
    """An ingredient from what its label says; what is not stated is taken as water.

    ``allergens`` None: nobody has said what it contains, which is not the same as nothing.
    Raises CraftError when the parts are negative or sum to more than 100 %.
    """
    given = {
        "fat_pct": fat_pct, "sugars_pct": sugars_pct, "protein_pct": protein_pct,
        "starch_pct": starch_pct, "water_pct": water_pct or 0.0,
    }  # fmt: skip
    for field, value in given.items():
        if not 0 <= value <= 100:
            raise CraftError(field, say("pantry.a_share_is_between_0_and"))
    total = sum(given.values())
    if total > 100.5:
        raise CraftError("fat_pct", say("pantry.these_parts_add_up_to_more", total=total))
    rest = max(0.0, 100 - total)
    water = rest if water_pct is None else water_pct
    return Ingredient(
        key=key,
        name=name,
        category=category,
        water_pct=water,
        fat_pct=fat_pct,
        protein_pct=protein_pct,
        sugars_pct=sugars_pct,
        starch_pct=starch_pct,
        other_carb_pct=0.0 if water_pct is None else rest,
        ash_pct=0.0,
        alcohol_pct=0.0,
        milk_fat_pct=fat_pct if category in ("milk", "cream") else 0.0,
        g_per_us_cup=g_per_us_cup,
        g_per_piece=g_per_piece,
        allergens=None if allergens is None else tuple(allergens),
        source=say("pantry.the_kitchens_own_entry"),
        confidence="label",
    )


# "70 %", "à 70 %", "al 70%", "mit 70 % Kakao", "70% cocoa": how much of it, however it is said.
# What differs by its percentage, and by which: kinds that are told apart by it.
_SHELVES: dict[str, tuple[str, tuple[tuple[str, ...], ...]]] = {
    "chocolate": (
        "cocoa_solids_pct",
        (
            ("choc_dark_55", "choc_dark_60", "choc_dark_65", "choc_dark_70", "choc_dark_75",
             "choc_dark_80", "choc_dark_85", "choc_dark_90", "choc_semisweet", "choc_bittersweet"),
            ("choc_milk", "choc_milk_40"),
        ),
    ),
    "cream": (
        "fat_pct",
        (("cream_15", "cream_light", "cream_single", "cream_cooking_20", "cream_30", "cream_35",
          "cream_heavy", "cream_double"),),
    ),
}  # fmt: skip
_FARTHEST_SHARE = 6.0
_OF = frozenset({"of", "de", "d", "di", "von"})
LONGEST_NAME = 60  # a name longer than this is compared by its beginning


@dataclass(frozen=True)
class Match:
    """What a name was taken for, and how surely; ``before`` are words in front of it that nobody
    knows."""

    ingredient: Ingredient
    sureness: Sureness
    note: str = ""
    before: str = ""


class Pantry:
    """Finds ingredients by name; a kitchen's ``own`` entries come before the shipped table."""

    def __init__(
        self,
        own: Iterable[Ingredient] = (),
        words: Mapping[str, str] | None = None,
        weights: Mapping[tuple[str, str], float] | None = None,
    ) -> None:
        """``words`` are the kitchen's own names by what they mean (a key), ``weights`` what one
        can, pack or piece of a key weighs here, g."""
        self._by_key: dict[str, Ingredient] = {}
        self._by_name: dict[str, tuple[Ingredient, Sureness, str]] = {}
        for ingredient in table():
            self._add(ingredient, shipped_row=True)
        text = files("bellcrumb.pantry").joinpath("data/names.csv").read_text("utf8")
        for row in csv.DictReader(text.splitlines()):
            sureness: Sureness = "doubtful" if row["sureness"] == "doubtful" else "likely"
            if row["sureness"] == "sure":
                sureness = "sure"
            self._by_name[stem(row["name"])] = (
                self._by_key[row["key"]],
                sureness,
                say(row["note"]),
            )
        for ingredient in own:
            self._add(ingredient)
        self._weights = dict(weights or {})
        for said, key in (words or {}).items():
            meant = self._by_key.get(key)
            if meant and stem(said):
                self._by_name[stem(said)] = (meant, "sure", say("pantry.as_this_kitchen_calls_it"))

    def own_g(self, key: str, unit: str) -> float | None:
        """What one can, pack or piece weighs in this kitchen; None where nobody said."""
        return self._weights.get((key, unit))

    def _add(self, ingredient: Ingredient, *, shipped_row: bool = False) -> None:
        self._by_key[ingredient.key] = ingredient
        for name in (ingredient.name, ingredient.key.replace("_", " "), *ingredient.aliases):
            bare = re.sub(r"\(.*?\)", " ", name)
            for form in {stem(name), stem(bare)} - {""}:
                taken = self._by_name.get(form)
                if shipped_row and taken and taken[0] is not ingredient:
                    # One name, two things, by country: the first is taken, and the other said.
                    note = say(
                        "pantry.could_also_be",
                        ingredient=ingredient.name[0].lower(),
                        ingredient_2=ingredient.name[1:],
                    )
                    self._by_name[form] = (taken[0], "doubtful", note)
                else:
                    self._by_name[form] = (ingredient, "sure", "")

    def key(self, key: str) -> Ingredient:
        """The ingredient with this key. Raises KeyError."""
        return self._by_key[key]

    def named(self, name: str) -> Ingredient | None:
        """The ingredient with this key, or called this; None when nothing is near enough."""
        match = None if name in self._by_key else self.find(name)
        return self._by_key.get(name) or (match.ingredient if match else None)

    def called(self, name: str) -> Ingredient | None:
        """The ingredient that surely has exactly this name, or None."""
        hit = self._by_name.get(stem(name))
        return hit[0] if hit and hit[1] == "sure" else None

    def find(self, name: str) -> Match | None:
        """The ingredient a cook means by ``name``, or None when nothing is near enough."""
        whole = stem(name)
        if not whole:
            return None
        hit = self._by_name.get(whole)
        if hit:
            return Match(*hit)
        kept = " ".join(w for w in whole.split() if w not in STEMMED_IGNORED)
        hit = self._by_name.get(kept)
        if hit:
            return Match(hit[0], hit[1], hit[2])
        words = kept.split()
        by_share = self._by_share(words)
        if by_share:
            return by_share
        # A known name at the start or end: "whole milk from the dairy", "garden honey". Never in
        # the middle, where it is part of another thing ("malted milk powder").
        for size in range(len(words) - 1, 0, -1):
            for start in sorted({0, len(words) - size}, reverse=True):
                run = " ".join(words[start : start + size])
                hit = self._by_name.get(run)
                if hit and (size > 1 or len(words) <= 3) and len(run) > 3:
                    left = words[:start] + words[start + size :]
                    flavoured = start == 0 and left[0] in _OF  # "miel de lavande"
                    others = (" ".join(left), *left)
                    if not flavoured and any(self._other(word, hit[0]) for word in others):
                        continue  # "sugar and salt" is neither
                    as_typed = {stem(word): word for word in name.split()}
                    said = " ".join(as_typed.get(word, word) for word in left)
                    before = said if start else ""
                    return Match(hit[0], "doubtful", say("pantry.was_set_aside", said=said), before)
        near = self._nearest(kept, 1)
        if near and near[0][1] >= 88 and kept[:1] == near[0][2][:1]:
            return Match(near[0][0], "likely", say("pantry.spelled_like", near=near[0][0].name))
        return None

    def _other(self, name: str, than: Ingredient) -> bool:
        """Whether a word is the name of another kind of thing."""
        hit = self._by_name.get(name)
        return hit is not None and hit[0].category != than.category

    def _by_share(self, words: list[str]) -> Match | None:
        """A chocolate or cream by a percentage that the table does not have: the nearest one."""
        if not words or not words[-1].endswith("%") or not words[-1][:-1].isdigit():
            return None
        hit = self._by_name.get(" ".join(words[:-1]))
        shelf = _SHELVES.get(hit[0].category) if hit else None
        if not hit or not shelf:
            return None
        wanted, part, keys = float(words[-1][:-1]), *shelf
        row = next((row for row in keys if hit[0].key in row), ())
        known = [self._by_key[key] for key in row]
        if not known:
            return None
        best = min(known, key=lambda i: abs(float(getattr(i, part)) - wanted))
        off = abs(float(getattr(best, part)) - wanted)
        if off > _FARTHEST_SHARE:
            return None
        return Match(
            best, "sure" if off < 1 else "likely", say("pantry.taken_as", best=best.name.lower())
        )

    def _nearest(self, said: str, limit: int) -> list[tuple[Ingredient, float, str]]:
        from rapidfuzz import fuzz, process

        said = said[:LONGEST_NAME]
        if not said:
            return []
        found: dict[str, tuple[Ingredient, float, str]] = {}
        for form, score, _ in process.extract(
            said, self._by_name.keys(), scorer=fuzz.WRatio, limit=limit * 6
        ):
            ingredient = self._by_name[form][0]
            exact = fuzz.ratio(said, form)
            best = max(exact, score * 0.9)
            if ingredient.key not in found or found[ingredient.key][1] < best:
                found[ingredient.key] = (ingredient, best, form)
        return sorted(found.values(), key=lambda item: -item[1])[:limit]

    def suggest(self, name: str, limit: int = 3) -> list[Ingredient]:
        """The ingredients whose names are nearest to ``name``, nearest first."""
        return [item[0] for item in self._nearest(stem(name), limit) if item[1] >= 66]


@cache
def shipped() -> Pantry:
    """The pantry without any kitchen's own entries."""
    return Pantry()
