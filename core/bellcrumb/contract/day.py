"""More than one formula at the front door: the whites ledger, and two side by side."""

from bellcrumb.contract import shapes
from bellcrumb.contract.build import formula_out, read_lines
from bellcrumb.contract.formulas import answered
from bellcrumb.formula.answer import mix_of
from bellcrumb.formula.compare import pair_up
from bellcrumb.formula.ledger import Entry, ledger
from bellcrumb.pantry.eggs import egg_grade
from bellcrumb.pantry.ingredients import Pantry, shipped
from bellcrumb.vessels.geometry import Vessel

_NEAR = 2.5  # half-widths of its windows a formula may be off and still be judged as the other


def day_ledger(given: shapes.LedgerIn, pantry: Pantry | None = None) -> shapes.LedgerOut:
    """Yolks and whites of a day's formulas against each other. Raises CraftError."""
    grade = egg_grade(given.egg_grade)
    entries = []
    for number, dessert in enumerate(given.desserts):
        lines = read_lines(dessert.lines, grade, pantry, f"desserts[{number}].lines")
        entries.append(Entry.of(dessert.name, mix_of(lines), dessert.times))
    found = ledger(entries, grade)
    return shapes.LedgerOut.model_validate(
        {
            **vars(found),
            "egg_grade": grade.label,
            "yolk_each_g": grade.yolk_g,
            "white_each_g": grade.white_g,
            "entries": [vars(e) for e in entries],
        }
    )


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
        pairs=[shapes.PairOut(**vars(p)) for p in pairs],
        says=_says(left, right),
    )


def _says(left: shapes.FormulaOut, right: shapes.FormulaOut) -> list[str]:
    """The differences a cook would name, most telling first."""
    said: list[str] = []
    if left.family and right.family and left.family.key != right.family.key:
        said.append(
            f"Judged as {left.family.name.lower()} and {right.family.name.lower()}: they set by "
            "different rules."
        )
    if left.set and right.set and abs(right.set.index - left.set.index) >= 0.1:
        step = right.set.index - left.set.index
        sure = "" if abs(step) > 0.6 else ", less than the model is sure of"
        said.append(
            f"The right one sets {'firmer' if step > 0 else 'softer'} "
            f"(S {left.set.index:.2f} and {right.set.index:.2f}{sure})."
        )
    a, b = left, right
    for more, less, one, other in (
        ("sweeter", "less sweet", a.taste_pct.sweetness, b.taste_pct.sweetness),
        ("richer", "leaner", a.composition_pct.fat, b.composition_pct.fat),
    ):
        if abs(other - one) >= 0.5:
            said.append(f"It is {more if other > one else less}: {one:.1f} and {other:.1f} %.")
    if left.cost and right.cost and abs(right.cost.portion - left.cost.portion) >= 0.005:
        said.append(f"A portion costs {left.cost.portion:.2f} and {right.cost.portion:.2f}.")
    return said or ["No difference that could be tasted."]
