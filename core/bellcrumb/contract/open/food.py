"""What the server may know of food: lines, ingredients, mixes, families, laws."""

from bellcrumb.asked.lines import answered, understood
from bellcrumb.formula.answer import Answer, answer, mix_of
from bellcrumb.formula.ledger import Ledger
from bellcrumb.formula.solve import COMMON_SWAPS
from bellcrumb.formula.starters import starters
from bellcrumb.laws.safety import COOLING
from bellcrumb.laws.water import boils_c
from bellcrumb.mix.composition import Mix, refuse_huge
from bellcrumb.mix.lines import MOST_LINES, Line, understand_all
from bellcrumb.pantry.eggs import egg_grade, grades
from bellcrumb.pantry.ingredients import ALLERGENS, Allergen, Ingredient, from_label
from bellcrumb.pantry.pantry import Pantry, shipped
from bellcrumb.quantities.show import cups_text, grams_text
from bellcrumb.quantities.units import Measures
from bellcrumb.texture.families import Doneness, Family, families, family
from bellcrumb.texture.set_by import set_by
from bellcrumb.texture.set_index import CLASSES
from bellcrumb.texture.set_map import Plane

__all__ = [
    "ALLERGENS",
    "CLASSES",
    "COMMON_SWAPS",
    "COOLING",
    "MOST_LINES",
    "Allergen",
    "Answer",
    "Doneness",
    "Family",
    "Ingredient",
    "Ledger",
    "Line",
    "Measures",
    "Mix",
    "Pantry",
    "Plane",
    "answer",
    "answered",
    "boils_c",
    "cups_text",
    "egg_grade",
    "families",
    "family",
    "from_label",
    "grades",
    "grams_text",
    "mix_of",
    "refuse_huge",
    "set_by",
    "shipped",
    "starters",
    "understand_all",
    "understood",
]
