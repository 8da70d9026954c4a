"""What things are made of: the composition table, and an entry from a label.

Data: ``data/ingredients.csv`` (USDA SR Legacy and national tables, each row with its source).
"""

import csv
import re
from collections.abc import Iterable
from dataclasses import KW_ONLY, dataclass
from functools import cache
from importlib.resources import files
from typing import Literal, cast

from bellcrumb.errors import CraftError
from bellcrumb.words import catalogue, say

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
    **dict.fromkeys(("tea_leaf", "tea_bag"), say("short.tea")),
    "coffee_beans": say("short.coffee"),
}


@dataclass(frozen=True)
class Ingredient:
    """One row of the pantry. Percentages are by mass; the eight ``*_pct`` parts sum to 100."""

    key: str
    name: str
    category: str
    _: KW_ONLY
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
