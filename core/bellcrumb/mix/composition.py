"""A mix: how many grams of what. Everything downstream is computed from this."""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property

from bellcrumb.errors import CraftError
from bellcrumb.laws import food, water
from bellcrumb.pantry.ingredients import ALLERGENS, JUICE_EQUIVALENT, Ingredient
from bellcrumb.words import say

PARTS = ("water", "fat", "protein", "sugars", "starch", "other_carb", "ash", "alcohol")
# Density of the parts at 20 degC, kg/m3. Source: Choi & Okos 1986 (alcohol: pure ethanol).
_DENSITY = {
    "water": 998.0, "fat": 917.0, "protein": 1320.0, "sugars": 1590.0, "starch": 1590.0,
    "other_carb": 1590.0, "ash": 2420.0, "alcohol": 789.0,
}  # fmt: skip


@dataclass(frozen=True)
class Portion:
    """Some grams of one ingredient; ``whipped`` when the line says it goes in as foam."""

    ingredient: Ingredient
    grams: float
    whipped: bool = False


@dataclass(frozen=True)
class Mix:
    """An immutable list of portions with the sums a custard is judged by (all in grams)."""

    portions: tuple[Portion, ...]

    @classmethod
    def of(cls, portions: Iterable[tuple[Ingredient, float]]) -> "Mix":
        """A mix from (ingredient, grams) pairs; zero grams are left out."""
        return cls(tuple(Portion(i, g) for i, g in portions if g > 0))

    def __add__(self, other: "Mix") -> "Mix":
        return Mix(self.portions + other.portions)

    def scaled(self, factor: float) -> "Mix":
        """The same mix, ``factor`` times as much."""
        return Mix(tuple(Portion(p.ingredient, p.grams * factor, p.whipped) for p in self.portions))

    def only(self, keep: "Iterable[str]") -> "Mix":
        """The portions whose ingredient key is in ``keep``."""
        keys = frozenset(keep)
        return Mix(tuple(p for p in self.portions if p.ingredient.key in keys))

    @cached_property
    def mass_g(self) -> float:
        """Total mass."""
        return sum(p.grams for p in self.portions)

    @cached_property
    def parts_g(self) -> dict[str, float]:
        """Grams of water, fat, protein, sugars, starch, other carbohydrate, ash and alcohol."""
        return {
            part: sum(p.grams * float(getattr(p.ingredient, f"{part}_pct")) for p in self.portions)
            / 100
            for part in PARTS
        }

    def share(self, part: str) -> float:
        """Mass fraction 0-1 of one part; 0 for an empty mix."""
        return self.parts_g[part] / self.mass_g if self.mass_g else 0.0

    def grams_of(self, *categories: str) -> float:
        """Grams of ingredients of the given categories."""
        return sum(p.grams for p in self.portions if p.ingredient.category in categories)

    def grams_of_key(self, *keys: str) -> float:
        """Grams of the ingredients with the given keys."""
        return sum(p.grams for p in self.portions if p.ingredient.key in keys)

    @cached_property
    def yolk_g(self) -> float:
        """Separated (or liquid, or dried as fresh) yolk: not the yolk inside whole eggs."""
        return self._egg("yolk_pct", whole=False)

    @cached_property
    def white_g(self) -> float:
        """Separated white: not the white inside whole eggs."""
        return self._egg("white_pct", whole=False)

    @cached_property
    def whole_egg_g(self) -> float:
        """Whole egg as fresh weight."""
        return self._egg("yolk_pct", whole=True) + self._egg("white_pct", whole=True)

    def _egg(self, field: str, *, whole: bool) -> float:
        total = 0.0
        for p in self.portions:
            yolk, white = p.ingredient.yolk_pct, p.ingredient.white_pct
            is_whole = yolk > 0 and white > 0.7 * yolk
            if is_whole == whole:
                total += p.grams * (yolk if field == "yolk_pct" else white) / 100
        return total

    @cached_property
    def corn_equivalent_g(self) -> float:
        """Starch in grams of corn starch that would thicken as much."""
        return sum(p.grams * p.ingredient.corn_equivalent for p in self.portions)

    @cached_property
    def lemon_juice_g(self) -> float:
        """Juice of every kind as lemon juice that would be as sour."""
        return sum(p.grams * JUICE_EQUIVALENT.get(p.ingredient.key, 0.0) for p in self.portions)

    @cached_property
    def main_starch(self) -> str | None:
        """Key of what thickens most, or None where nothing swells."""
        starches = [p for p in self.portions if p.ingredient.corn_equivalent > 0]
        main = max(starches, key=lambda p: p.grams * p.ingredient.corn_equivalent, default=None)
        return main.ingredient.key if main else None

    @cached_property
    def starch_g(self) -> float:
        """Thickeners as weighed (corn starch, flour, ...)."""
        return sum(p.grams for p in self.portions if p.ingredient.category == "starch")

    @cached_property
    def added_sugar_g(self) -> float:
        """Sugars and syrups added as such."""
        return self.grams_of("sugar")

    @cached_property
    def sweetness_g(self) -> float:
        """All sugars as grams of sucrose that would be as sweet."""
        return sum(p.grams * p.ingredient.sweetness for p in self.portions)

    @cached_property
    def cocoa_g(self) -> float:
        """Cocoa solids as on a label: fat-free solids and cocoa butter."""
        return sum(p.grams * p.ingredient.cocoa_solids_pct for p in self.portions) / 100

    @cached_property
    def volume_ml(self) -> float:
        """Volume at 20 degC with nothing whipped in, from the parts' densities.

        Ideal mixing is within about 1 % for creams. Source: Choi & Okos 1986.
        """
        return sum(grams / _DENSITY[part] * 1000 for part, grams in self.parts_g.items())

    @property
    def density_g_per_ml(self) -> float:
        """Density at 20 degC; 1.0 for an empty mix."""
        return self.mass_g / self.volume_ml if self.volume_ml else 1.0

    @cached_property
    def heat_capacity_j_per_gk(self) -> float:
        """Specific heat, J/(g K); water's for an empty mix."""
        return food.heat_capacity_j_per_gk(self.parts_g)

    def boils_c(self, altitude_m: float = 0.0) -> float:
        """Where its water boils, degC: later for the sugar in it."""
        return water.sweetened_boils_c(self.parts_g["water"], self.parts_g["sugars"], altitude_m)

    @property
    def sugar_pct_of_water_phase(self) -> float:
        """Sugars in per cent of water and sugars together; 0 without either."""
        sugars = self.parts_g["sugars"]
        phase = self.parts_g["water"] + sugars
        return 100 * sugars / phase if phase > 0 else 0.0

    @cached_property
    def ph(self) -> float:
        """A rough pH: buffered mean of the ingredients' values weighted by what they hold."""
        weighted = [
            (p.grams * (100 - p.ingredient.fat_pct) / 100, p.ingredient.ph)
            for p in self.portions
            if p.ingredient.ph is not None
            and p.ingredient.category
            in ("milk", "cream", "cultured", "fresh_cheese", "egg", "fruit")
        ]
        total = sum(weight for weight, _ in weighted)
        return sum(w * ph for w, ph in weighted) / total if total else 6.6

    @cached_property
    def allergens(self) -> tuple[str, ...]:
        """What it contains that the law wants named, in words, sorted."""
        found = {a for p in self.portions for a in p.ingredient.allergens or ()}
        return tuple(sorted(say(ALLERGENS[a]) for a in found))

    @cached_property
    def allergens_untold(self) -> tuple[str, ...]:
        """Names of what is in it whose own allergens nobody has said, sorted."""
        return tuple(
            sorted({p.ingredient.name for p in self.portions if p.ingredient.allergens is None})
        )


# The largest tilting kettle a pastry kitchen has, and then some. Our estimate.
MOST_COOKED_G = 500_000.0


def refuse_huge(mix: Mix, field: str) -> None:
    """Raise CraftError at ``field`` for more than any kitchen cooks at once."""
    if mix.mass_g > MOST_COOKED_G:
        raise CraftError(
            field,
            say(
                "mix.that_is_kg_at_most_kg",
                mass_g=mix.mass_g / 1000,
                most_cooked_g=MOST_COOKED_G / 1000,
            ),
        )
