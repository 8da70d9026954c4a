"""The computations by name. ``compute`` is what the command line runs."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from pydantic import BaseModel, ValidationError

from bellcrumb.contract import shapes
from bellcrumb.contract.bend import bend
from bellcrumb.contract.builds import built
from bellcrumb.contract.crusts import crust
from bellcrumb.contract.day import compare, day_ledger
from bellcrumb.contract.desserts import DessertIn, TotalOut, dessert_total
from bellcrumb.contract.explains import explain, learned
from bellcrumb.contract.formulas import scale, strict_formula
from bellcrumb.contract.plans import planned
from bellcrumb.contract.shapes import build, guide, oven, plan
from bellcrumb.contract.shapes import explain as book
from bellcrumb.contract.stoves import pot, temper_ladder
from bellcrumb.contract.sugars import finished, foam, pasteurised, syrup, whipped
from bellcrumb.contract.words import sentence
from bellcrumb.errors import CraftError


@dataclass(frozen=True)
class Kind:
    """One computation: its input and output shapes and the function between them."""

    given: type[BaseModel]
    result: type[BaseModel]
    run: Callable[[Any], BaseModel]


def _bake(given: oven.BakeIn) -> oven.BakeOut:
    # The solver's libraries are loaded for those who ask for it: a formula answers without them.
    from bellcrumb.contract.ovens import baked

    return baked(given)


def _choose(given: oven.ChooseIn) -> oven.ChooseOut:
    from bellcrumb.contract.ovens import chosen

    return chosen(given)


def _convert(given: oven.BakeIn) -> oven.ConvertOut:
    from bellcrumb.contract.ovens import converted

    return converted(given)


def _walk(given: oven.WalkIn) -> oven.WalkOut:
    from bellcrumb.contract.refits import walked

    return walked(given)


def _day(given: plan.DayIn) -> plan.DayOut:
    from bellcrumb.contract.days import day

    return day(given)


def _cool(given: oven.CoolIn) -> oven.CoolOut:
    from bellcrumb.contract.colds import cooled

    return cooled(given)


KINDS: Mapping[str, Kind] = {
    "formula": Kind(shapes.FormulaIn, shapes.FormulaOut, strict_formula),
    "compare": Kind(shapes.CompareIn, shapes.CompareOut, compare),
    "build": Kind(build.BuildIn, build.BuildOut, built),
    "dessert": Kind(DessertIn, TotalOut, dessert_total),
    "day": Kind(plan.DayIn, plan.DayOut, _day),
    "explain": Kind(book.ExplainIn, book.ExplainOut, explain),
    "learn": Kind(book.LearnIn, book.LearnOut, learned),
    "ledger": Kind(shapes.LedgerIn, shapes.LedgerOut, day_ledger),
    "plan": Kind(guide.GuideIn, guide.GuideOut, planned),
    "scale": Kind(shapes.ScaleIn, shapes.ScaleOut, scale),
    "solve": Kind(shapes.SolveIn, shapes.SolveOut, bend),
    "syrup": Kind(shapes.SyrupIn, shapes.SyrupOut, syrup),
    "meringue": Kind(shapes.MeringueIn, shapes.MeringueOut, foam),
    "whip": Kind(shapes.WhipIn, shapes.WhipOut, whipped),
    "finish": Kind(shapes.FinishIn, shapes.FinishOut, finished),
    "pasteurise": Kind(shapes.PasteuriseIn, shapes.PasteuriseOut, pasteurised),
    "temper": Kind(shapes.TemperIn, shapes.TemperOut, temper_ladder),
    "bake": Kind(oven.BakeIn, oven.BakeOut, _bake),
    "choose": Kind(oven.ChooseIn, oven.ChooseOut, _choose),
    "convert": Kind(oven.BakeIn, oven.ConvertOut, _convert),
    "crust": Kind(oven.CrustIn, oven.CrustOut, crust),
    "oven_walk": Kind(oven.WalkIn, oven.WalkOut, _walk),
    "cool": Kind(oven.CoolIn, oven.CoolOut, _cool),
    "pot": Kind(shapes.PotIn, shapes.PotOut, pot),
}


def _place(location: tuple[int | str, ...]) -> str:
    """A pydantic error location as a path a person reads: hot.lines[2]."""
    path = ""
    for part in location:
        if isinstance(part, int):
            path += f"[{part}]"
        elif part.isidentifier() and part not in ("str", "float", "WeighedLine", "VesselIn"):
            path += f".{part}" if path else part
    return path


def compute(kind: str, data: object) -> dict[str, Any]:
    """Run a computation on plain data and return plain data.

    Raises CraftError for an unknown kind, a field that does not belong, or input that makes no
    sense.
    """
    if kind not in KINDS:
        raise CraftError("kind", f"“{kind}” cannot be computed. One of: {', '.join(KINDS)}.")
    chosen = KINDS[kind]
    try:
        given = chosen.given.model_validate(data)
    except ValidationError as error:
        # A union reports every branch it tried: the deepest error is the one the person made.
        first = max(error.errors(include_url=False), key=lambda e: len(e["loc"]))
        field = _place(first["loc"]) or "input"
        message = sentence(first)
        if first["type"] in ("extra_forbidden", "missing"):
            message = f"“{field}”: {message}"
        raise CraftError(field, message) from None
    return chosen.run(given).model_dump(mode="json", by_alias=True)
