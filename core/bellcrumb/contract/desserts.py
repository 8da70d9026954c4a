"""A dessert whole at the front door: its parts asked, its totals out."""

from pydantic import Field

from bellcrumb import shapes
from bellcrumb.asked.lines import answered, priced
from bellcrumb.contract.fitting import fit_out
from bellcrumb.contract.formula_out import air_ml
from bellcrumb.errors import CraftError
from bellcrumb.formula.total import PartMade, PartShare, total
from bellcrumb.formula.worth import Nutrition
from bellcrumb.pantry.pantry import Pantry, shipped
from bellcrumb.vessels.geometry import Vessel


class PartIn(shapes.FormulaIn):
    """One part of a dessert: a formula with a name."""

    name: str = Field(min_length=1, max_length=80)


class DessertIn(shapes.Strict):
    """Ask what the parts of a dessert come to together; prices are those of the first part."""

    parts: list[PartIn] = Field(min_length=1, max_length=20)


class TotalOut(shapes.Shape):
    """A dessert whole; see ``bellcrumb.formula.total``."""

    portions: float
    mass_g: float
    portion_g: float
    parts: list[PartShare]
    nutrition: Nutrition
    cost: shapes.MoneyOut | None
    allergens: list[str]
    allergens_untold: list[str]
    complete: bool
    eggs_separate: int
    eggs_whole: int
    whites_left_g: float
    yolks_left_g: float
    says: list[str]
    warnings: list[str]


def dessert_total(
    given: DessertIn, pantry: Pantry | None = None, vessels: dict[str, Vessel] | None = None
) -> TotalOut:
    """What the parts come to. A part that does not fit its vessels counts without portions."""
    made = []
    warnings: list[str] = []
    complete = True
    for part in given.parts:
        result, grade = answered(part, pantry)
        complete = complete and result.complete
        volume = result.mix.volume_ml
        portions = None
        try:
            fit = fit_out(part, volume + air_ml(result, volume, part.overrun_pct),
                          result.mix.mass_g, vessels)  # fmt: skip
            portions = float(fit.count * part.portions_per_vessel) if fit else None
        except CraftError as error:
            if error.field in ("vessel", "rest_vessel"):
                raise
            warnings.append(f"{part.name}: {error.message}")
        made.append(
            PartMade(
                part.name, part.part_kind or "filling", result.mix, grade=grade, portions=portions
            )
        )
    prices = priced(given.parts[0].prices, pantry or shipped())
    found = total(made, prices)
    eggs = found.eggs
    return TotalOut(
        portions=found.portions,
        mass_g=found.mass_g,
        portion_g=found.portion_g,
        parts=list(found.parts),
        nutrition=found.nutrition,
        cost=shapes.MoneyOut(
            batch=found.cost.batch,
            portion=found.portion_cost,
            without_price=found.cost.without_price,
        )
        if found.cost
        else None,
        allergens=list(found.allergens),
        allergens_untold=list(found.allergens_untold),
        complete=complete,
        eggs_separate=eggs.separate if eggs else 0,
        eggs_whole=eggs.whole if eggs else 0,
        whites_left_g=eggs.white_left_g if eggs else 0.0,
        yolks_left_g=eggs.yolk_left_g if eggs else 0.0,
        says=eggs.says if eggs else [],
        warnings=[*warnings, *found.warnings],
    )
