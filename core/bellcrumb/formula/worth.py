"""What a formula is worth: sweetness, nutrition, cost, and the eggs to have ready."""

import math
from dataclasses import KW_ONLY, dataclass

from bellcrumb.formula.scale import eggs_cracked
from bellcrumb.mix.composition import Mix
from bellcrumb.pantry.eggs import EggGrade

# Energy of the parts, kJ and kcal per gram. Source: EU regulation 1169/2011, annex XIV; what is
# left of the carbohydrate is counted as fibre.
_ENERGY = {"fat": (37, 9), "protein": (17, 4), "sugars": (17, 4), "starch": (17, 4),
           "other_carb": (8, 2), "alcohol": (29, 7)}  # fmt: skip
_SALT = ("salt_fine", "salt_kosher")
_SHELL = ("egg_whole", "egg_yolk", "egg_white")


@dataclass(frozen=True)
class Nutrition:
    """Of some grams of the raw mix; carbohydrate holds sugars and starch."""

    grams: float
    kj: float
    kcal: float
    _: KW_ONLY
    fat_g: float
    carbohydrate_g: float
    sugars_g: float
    protein_g: float
    added_salt_g: float


def nutrition(mix: Mix, grams: float) -> Nutrition:
    """Nutrition of ``grams`` of a mix from its composition; what boils away is not counted."""
    share = grams / mix.mass_g if mix.mass_g else 0.0
    parts = {name: share * g for name, g in mix.parts_g.items()}
    kj, kcal = (sum(parts[p] * each[i] for p, each in _ENERGY.items()) for i in (0, 1))
    return Nutrition(
        grams, kj, kcal, fat_g=parts["fat"], carbohydrate_g=parts["sugars"] + parts["starch"],
        sugars_g=parts["sugars"],
        protein_g=parts["protein"], added_salt_g=share * mix.grams_of_key(*_SALT),
    )  # fmt: skip


@dataclass(frozen=True)
class Cost:
    """What the batch costs, and the ingredients without a price."""

    batch: float
    without_price: list[str]


def cost(mix: Mix, per_kg: dict[str, float], grade: EggGrade) -> Cost:
    """The cost of a mix by prices per kilogram, keyed by ingredient; water costs nothing.

    An egg opened for its yolk is paid whole: shell eggs without a price of their own part cost what
    the eggs cracked for them do.
    """
    total, missing = 0.0, []
    shells = [k for k in _SHELL if "egg_whole" in per_kg and (k == "egg_whole" or k not in per_kg)]
    if shells:
        eggs = eggs_cracked(mix.only(shells), grade)
        total += eggs * grade.content_g / 1000 * per_kg["egg_whole"]
    for p in mix.portions:
        key = p.ingredient.key
        if key in shells or key == "water":
            continue
        if key in per_kg:
            total += p.grams / 1000 * per_kg[key]
        else:
            missing.append(p.ingredient.short)
    return Cost(total, sorted(set(missing)))


def eggs_to_have(mix: Mix, grade: EggGrade, spare: float) -> tuple[float, int]:
    """Shell eggs to crack, and to have ready with a share to spare for broken ones."""
    crack = eggs_cracked(mix, grade)
    return crack, math.ceil(math.ceil(crack - 1e-6) * (1 + spare) - 1e-6) if crack else 0
