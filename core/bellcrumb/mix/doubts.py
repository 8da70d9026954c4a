"""What makes a line doubtful that was understood: amounts nobody means, words nobody knows, and
brackets that name something else."""

import re
from collections.abc import Iterator

from bellcrumb.mix.egg_sizes import no_yolk
from bellcrumb.pantry.eggs import EggGrade
from bellcrumb.pantry.ingredients import Ingredient
from bellcrumb.pantry.pantry import Pantry
from bellcrumb.quantities.amount import Amount
from bellcrumb.words import say

_ABSURD_G = 100_000.0
# What a count of so small a thing may not be taken for pieces of, when words stand before it that
# nobody knows: "1 punnet raspberries". Grams of one.
_SMALL_G = 20.0
_LENGTHS = frozenset({"cm", "mm", "inch"})
# What bread, dough and herbs come in, of nobody knows what size.
_WHOLES = frozenset({"loaf", "quantity", "batch", "recipe", "barra", "laib", "quantite", "bunch",
                     "bunches", "bund", "bouquet", "mazzo", "mazzetto", "manojo"})  # fmt: skip
OF = re.compile(r"\b(?:of|de|di|d['’]|von)$")


def _glossed(name: str, ingredient: Ingredient, pantry: Pantry) -> Ingredient | None:
    """Another thing that brackets name: "flour (corn starch)"."""
    for said in re.findall(r"\(([^()\d]{3,40})\)", name):
        other = pantry.called(said)
        if other and other.key != ingredient.key:
            return other
    return None


def doubts(
    amount: Amount, ingredient: Ingredient, grams: float, name: str, grade: EggGrade, pantry: Pantry
) -> Iterator[str]:
    """What makes a line that was understood doubtful all the same."""
    if grams > _ABSURD_G:
        yield _absurd(amount, ingredient, grams, grade)
    if grams < 0.02:
        yield say("mix.less_than_a_scale_can_weigh")
    if no_yolk(ingredient, amount, name, grade):
        yield say("mix.not_even_one_yolk_did_you", amount=amount.value)
    glossed = _glossed(name, ingredient, pantry)
    if glossed:
        yield say("mix.the_brackets_say", glossed=glossed.name.lower())


def is_a_measure(before: str, ingredient: Ingredient) -> bool:
    """Whether unknown words before a thing that is counted may be what it is counted in: a punnet,
    a handful of."""
    if not before or ingredient.category == "egg":
        return False
    small = ingredient.category in ("fruit", "nut") and (ingredient.g_per_piece or 0) < _SMALL_G
    said = before.split()
    by_length = not (_LENGTHS | _WHOLES).isdisjoint(said)  # "2 cm piece of ginger"
    return small or by_length or bool(OF.search(before))


def _absurd(amount: Amount, ingredient: Ingredient, grams: float, grade: EggGrade) -> str:
    kilos = f"{round(grams / 1000)} kg"
    if ingredient.key == "egg_yolk":
        kilos += say("mix.the_yolks_of_about_eggs", grams=round(grams / grade.yolk_g, -2))
    unit_name = amount.unit.name if amount.unit else ""
    meant = (
        say("mix.did_you_mean_g", amount=amount.value)
        if unit_name == "kg"
        else say("mix.is_that_meant")
    )
    return say("mix.that_is", kilos=kilos, meant=meant)
