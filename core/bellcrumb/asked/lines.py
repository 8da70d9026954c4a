"""Lines as they are asked, typed or weighed: a mix of them, and its answer."""

from bellcrumb import shapes
from bellcrumb.errors import CraftError
from bellcrumb.formula.answer import Answer, answer, mix_of, shifted
from bellcrumb.mix.composition import Mix, refuse_huge
from bellcrumb.mix.lines import Line, understand_all, weighed
from bellcrumb.pantry.eggs import EggGrade, egg_grade
from bellcrumb.pantry.pantry import Pantry, shipped
from bellcrumb.quantities.units import Measures
from bellcrumb.texture.set_by import set_by
from bellcrumb.words import say

NOT_CUSTARD = ("crust", "caramel", "meringue", "glaze", "garnish")


def read_lines(
    lines: list[str | shapes.WeighedLine],
    grade: EggGrade,
    pantry: Pantry | None,
    field: str,
    measures: Measures = "us",
) -> list[Line | None]:
    """Understand a list of typed or weighed lines.

    Raises CraftError for a weighed line whose ingredient is unknown.
    """
    store = pantry or shipped()
    found: list[Line | None] = []
    for number, line in enumerate(lines):
        if isinstance(line, str):
            found += understand_all([line], pantry, grade, measures)
            continue
        match = store.find(line.ingredient)
        if not match:
            near = ", ".join(i.name for i in store.suggest(line.ingredient))
            raise CraftError(
                f"{field}[{number}].ingredient",
                say("asked.is_not_in_the_pantry", ingredient=line.ingredient)
                + (say("asked.nearest", near=near) if near else ""),
            )
        found.append(weighed(f"{line.grams:g} g {line.ingredient}", match.ingredient, line.grams))
    return found


def understood(given: shapes.FormulaIn, pantry: Pantry | None) -> Mix:
    """What a formula is, without what it would do. Raises CraftError for an unknown grade."""
    grade = egg_grade(given.egg_grade)
    return mix_of(read_lines(given.lines, grade, pantry, "lines", given.measures))


def answered(given: shapes.FormulaIn, pantry: Pantry | None) -> tuple[Answer, EggGrade]:
    """Understand a formula and answer it. Raises CraftError for an unknown family or grade."""
    grade = egg_grade(given.egg_grade)
    lines = read_lines(given.lines, grade, pantry, "lines", given.measures)
    custard = given.part_kind not in NOT_CUSTARD
    found = answer(
        lines, grade, given.family, given.altitude_m, custard=custard, beaten=given.beaten
    )
    shift = shift_of(given, found)
    return (shifted(found, shift) if shift else found), grade


def shift_of(given: shapes.FormulaIn, found: Answer) -> float:
    """How much firmer than the books' this comes out here: by its family and by what sets it, S."""
    if found.family is None:
        return 0.0
    shift = given.set_shifts.get(found.family.name, 0.0)
    if found.set and given.line_shifts:
        by = set_by(found.mix, found.style)
        shift += sum(share * given.line_shifts.get(key, 0.0) for key, share in by.items())
    return shift


def _refuse_nonsense(lines: list[Line | None], field: str) -> None:
    """On the command line an impossible amount or a formula of nothing is an error."""
    for number, line in enumerate(lines):
        if line and line.impossible:
            raise CraftError(f"{field}[{number}]", line.message)
    if not mix_of(lines).mass_g:
        messages = [line.message for line in lines if line and line.message]
        raise CraftError(
            field, messages[0] if messages else say("asked.there_is_nothing_in_this_mix")
        )


def mix_asked(given: shapes.MixIn, field: str) -> tuple[Mix, list[str]]:
    """The mix of a command-line input and what was doubtful in it; ``field`` is its path with a
    dot. Raises CraftError for an impossible amount or a mix of nothing."""
    lines = read_lines(
        given.lines, egg_grade(given.egg_grade), None, f"{field}lines", given.measures
    )
    _refuse_nonsense(lines, f"{field}lines")
    said = [
        f"{line.text.strip()}: {line.message}"
        for line in lines
        if line and line.confidence in ("doubtful", "unknown")
    ]
    mix = mix_of(lines)
    refuse_huge(mix, f"{field}lines")
    return mix, said


def priced(prices: dict[str, float], pantry: Pantry) -> dict[str, float]:
    """Prices per kilogram by ingredient key. Raises CraftError for an unknown ingredient."""
    per_kg = {}
    for name, price in prices.items():
        ingredient = pantry.named(name)
        if not ingredient:
            raise CraftError("prices", say("asked.is_not_in_the_pantry_2", name=name))
        per_kg[ingredient.key] = price
    return per_kg
