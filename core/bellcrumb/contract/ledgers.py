"""More than one formula at the front door: the whites ledger, and two side by side."""

from bellcrumb import shapes
from bellcrumb.asked.lines import answered, read_lines
from bellcrumb.contract.formula_out import formula_out
from bellcrumb.formula.answer import mix_of
from bellcrumb.formula.compare import pair_up
from bellcrumb.formula.ledger import Entry, Ledger, ledger
from bellcrumb.pantry.eggs import egg_grade
from bellcrumb.pantry.pantry import Pantry, shipped
from bellcrumb.vessels.geometry import Vessel
from bellcrumb.words import say

_NEAR = 2.5  # half-widths of its windows a formula may be off and still be judged as the other


def day_ledger(given: shapes.LedgerIn, pantry: Pantry | None = None) -> Ledger:
    """Yolks and whites of a day's formulas against each other. Raises CraftError."""
    grade = egg_grade(given.egg_grade)
    entries = []
    for number, dessert in enumerate(given.desserts):
        lines = read_lines(dessert.lines, grade, pantry, f"desserts[{number}].lines")
        entries.append(Entry.of(dessert.name, mix_of(lines), dessert.times))
    return ledger(entries, grade)


def compare(
    given: shapes.CompareIn, pantry: Pantry | None = None, vessels: dict[str, Vessel] | None = None
) -> shapes.CompareOut:
    """Two formulas side by side. Raises CraftError for what either names and is not there."""
    a, grade_a = answered(given.left, pantry)
    b, grade_b = answered(given.right, pantry)
    if a.family and given.right.family is None and b.family is not a.family:
        # Like with like: the right one is judged as the left one while it is near that family.
        near = next((s.distance for s in b.guesses if s.family is a.family), 99.0)
        if near < _NEAR:
            asked = given.right.model_copy(update={"family": a.family.key})
            b, grade_b = answered(asked, pantry)
    store = pantry or shipped()
    left = formula_out(given.left, a, grade_a, store, vessels)
    right = formula_out(given.right, b, grade_b, store, vessels)
    pairs = pair_up(a.lines, b.lines, a.liquid_g, b.liquid_g)
    return shapes.CompareOut(
        left=left,
        right=right,
        pairs=list(pairs),
        says=_says(left, right),
    )


def _says(left: shapes.FormulaOut, right: shapes.FormulaOut) -> list[str]:
    """The differences a cook would name, most telling first."""
    said: list[str] = []
    if left.family and right.family and left.family.key != right.family.key:
        said.append(
            say(
                "contract.judged_as_and_they_set_by",
                family=left.family.name.lower(),
                family_2=right.family.name.lower(),
            )
        )
    if left.set and right.set and abs(right.set.index - left.set.index) >= 0.1:
        step = right.set.index - left.set.index
        sure = "" if abs(step) > 0.6 else say("contract.less_than_the_model_is_sure")
        said.append(
            say(
                "contract.the_right_one_sets_s_and",
                step=say("contract.firmer") if step > 0 else say("contract.softer"),
                index=left.set.index,
                index_2=right.set.index,
                sure=sure,
            )
        )
    a, b = left, right
    for more, less, one, other in (
        ("sweeter", say("contract.less_sweet"), a.taste_pct.sweetness, b.taste_pct.sweetness),
        ("richer", "leaner", a.composition_pct.fat, b.composition_pct.fat),
    ):
        if abs(other - one) >= 0.5:
            said.append(
                say(
                    "contract.it_is_and",
                    other=more if other > one else less,
                    one=one,
                    other_2=other,
                )
            )
    if left.cost and right.cost and abs(right.cost.portion - left.cost.portion) >= 0.005:
        said.append(
            say(
                "contract.a_portion_costs_and",
                portion=left.cost.portion,
                portion_2=right.cost.portion,
            )
        )
    return said or [say("contract.no_difference_that_could_be_tasted")]
