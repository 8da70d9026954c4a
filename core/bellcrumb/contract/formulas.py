"""Formulas at the front door: understood, answered, scaled."""

from bellcrumb.contract import shapes
from bellcrumb.contract.build import air_ml, formula_out, read_lines
from bellcrumb.contract.fitting import filling_of, vessel_of
from bellcrumb.errors import CraftError
from bellcrumb.formula.answer import Answer, answer, mix_of, shifted
from bellcrumb.formula.scale import eggs_cracked, scale_text, whole_egg_choices
from bellcrumb.mix.composition import Mix, refuse_huge
from bellcrumb.mix.lines import Line
from bellcrumb.pantry.eggs import EggGrade, egg_grade
from bellcrumb.pantry.pantry import Pantry, shipped
from bellcrumb.texture.set_by import set_by
from bellcrumb.vessels.geometry import Vessel
from bellcrumb.words import say

NOT_CUSTARD = ("crust", "caramel", "meringue", "glaze", "garnish")


def _text(line: str | shapes.WeighedLine) -> str:
    return line if isinstance(line, str) else f"{line.grams:g} g {line.ingredient}"


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


def formula(
    given: shapes.FormulaIn, pantry: Pantry | None = None, vessels: dict[str, Vessel] | None = None
) -> shapes.FormulaOut:
    """What a formula's numbers decide, with what could not be understood said line by line.

    ``pantry`` and ``vessels`` add a kitchen's own. Raises CraftError for an unknown family, egg
    grade or vessel.
    """
    result, grade = answered(given, pantry)
    return formula_out(given, result, grade, pantry or shipped(), vessels)


def _refuse_nonsense(lines: list[Line | None], field: str) -> None:
    """On the command line an impossible amount or a formula of nothing is an error."""
    for number, line in enumerate(lines):
        if line and line.impossible:
            raise CraftError(f"{field}[{number}]", line.message)
    if not mix_of(lines).mass_g:
        messages = [line.message for line in lines if line and line.message]
        raise CraftError(
            field, messages[0] if messages else say("contract.there_is_nothing_in_this_mix")
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


def strict_formula(given: shapes.FormulaIn) -> shapes.FormulaOut:
    """``formula`` for the command line: raises CraftError where a cook at a screen is warned."""
    mix_asked(given, "")
    found = formula(given)
    if found.fit_problem:
        raise CraftError(found.fit_problem.field, found.fit_problem.message)
    return found


def scale(
    given: shapes.ScaleIn, pantry: Pantry | None = None, vessels: dict[str, Vessel] | None = None
) -> shapes.ScaleOut:
    """More or less of a formula. Raises CraftError where it cannot be scaled as asked."""
    result, grade = answered(given, pantry)
    mix, eggs = result.mix, eggs_cracked(result.mix, grade)
    if not mix.mass_g:
        raise CraftError("lines", say("contract.there_is_nothing_to_scale_yet"))
    have = {"factor": 1.0, "liquid": result.liquid_g, "batch": mix.mass_g, "eggs": eggs}
    if given.by == "vessels":
        if given.vessel is None:
            raise CraftError("vessel", say("contract.choose_what_to_fill_first"))
        volume = mix.volume_ml + air_ml(result, mix.volume_ml, given.overrun_pct)
        vessel = vessel_of(given.vessel, vessels)
        each = vessel.holds_ml(filling_of(given, volume).share_of(vessel, mix.mass_g / volume))
        factor = given.value * each / volume
    elif have[given.by] <= 0:
        raise CraftError(
            "by", say("contract.there_is_no_in_this_formula", by=given.by.removesuffix("s"))
        )
    else:
        factor = given.value / have[given.by]
    texts = [_text(t) for t in given.lines]
    choices = whole_egg_choices(mix, grade, factor)
    return shapes.ScaleOut(
        factor=factor,
        lines=scale_text("\n".join(texts), result.lines, factor, given.measures).split("\n"),
        mass_g=mix.mass_g * factor,
        liquid_g=result.liquid_g * factor,
        eggs=eggs * factor,
        egg_choices=list(choices),
        does_not_scale=_does_not_scale(factor, result.family is None or result.family.on_the_stove),
    )


def _does_not_scale(factor: float, on_the_stove: bool) -> list[str]:
    if 0.85 <= factor <= 1.2:
        return []
    if on_the_stove:
        return [
            say("contract.time_in_the_pot_more_on"),
            say("contract.cooling_spread_it_as_shallow_as"),
        ]
    return [say("contract.bake_time_it_goes_with_depth")]
