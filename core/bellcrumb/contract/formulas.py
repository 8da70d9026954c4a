"""Formulas at the front door: understood, answered, scaled."""

from bellcrumb import shapes
from bellcrumb.asked.lines import answered, mix_asked
from bellcrumb.asked.vessels import filling_of, vessel_of
from bellcrumb.contract.formula_out import air_ml, formula_out
from bellcrumb.errors import CraftError
from bellcrumb.formula.scale import eggs_cracked, scale_text, whole_egg_choices
from bellcrumb.pantry.pantry import Pantry, shipped
from bellcrumb.vessels.geometry import Vessel
from bellcrumb.words import say


def _text(line: str | shapes.WeighedLine) -> str:
    return line if isinstance(line, str) else f"{line.grams:g} g {line.ingredient}"


def formula(
    given: shapes.FormulaIn, pantry: Pantry | None = None, vessels: dict[str, Vessel] | None = None
) -> shapes.FormulaOut:
    """What a formula's numbers decide, with what could not be understood said line by line.

    ``pantry`` and ``vessels`` add a kitchen's own. Raises CraftError for an unknown family, egg
    grade or vessel.
    """
    result, grade = answered(given, pantry)
    return formula_out(given, result, grade, pantry or shipped(), vessels)


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
