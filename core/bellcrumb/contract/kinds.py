"""The computations by name. ``compute`` is what the command line runs."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import cache
from importlib import import_module
from typing import Any

from pydantic import BaseModel, TypeAdapter, ValidationError

from bellcrumb import shapes
from bellcrumb.contract.desserts import DessertIn, TotalOut
from bellcrumb.contract.words import sentence
from bellcrumb.errors import CraftError
from bellcrumb.formula.ledger import Ledger
from bellcrumb.safety.pasteurise import Lethality
from bellcrumb.shapes import build, guide, oven, plan
from bellcrumb.shapes import explain as book
from bellcrumb.stove.meringue import Meringue
from bellcrumb.stove.temper import Ladder
from bellcrumb.stove.whip import Whipped
from bellcrumb.words import closed, say, written


@dataclass(frozen=True)
class Computation:
    """One computation: its input and output shapes and the function between them. What comes out
    is a shape, or the core's own answer where nothing is to be said otherwise."""

    given: type[BaseModel]
    result: type[Any]
    run: Callable[[Any], Any]


def _in(module: str, name: str, room: str = "contract") -> Callable[[Any], Any]:
    """A function of the core, loaded for those who ask for it: a formula answers without the
    solvers' libraries."""

    def run(given: Any) -> Any:
        return getattr(import_module(f"bellcrumb.{room}.{module}"), name)(given)

    return run


KINDS: Mapping[str, Computation] = {
    "formula": Computation(shapes.FormulaIn, shapes.FormulaOut, _in("formulas", "strict_formula")),
    "compare": Computation(shapes.CompareIn, shapes.CompareOut, _in("ledgers", "compare")),
    "build": Computation(build.BuildIn, build.BuildOut, _in("builds", "built", "planner")),
    "dessert": Computation(DessertIn, TotalOut, _in("desserts", "dessert_total")),
    "day": Computation(plan.DayIn, plan.DayOut, _in("days", "day", "planner")),
    "explain": Computation(book.ExplainIn, book.ExplainOut, _in("explains", "explain")),
    "learn": Computation(book.LearnIn, book.LearnOut, _in("explains", "learned")),
    "ledger": Computation(shapes.LedgerIn, Ledger, _in("ledgers", "day_ledger")),
    "plan": Computation(guide.GuideIn, guide.GuideOut, _in("plans", "planned")),
    "scale": Computation(shapes.ScaleIn, shapes.ScaleOut, _in("formulas", "scale")),
    "solve": Computation(shapes.SolveIn, shapes.SolveOut, _in("bend", "bend")),
    "syrup": Computation(shapes.SyrupIn, shapes.SyrupOut, _in("sugars", "syrup")),
    "meringue": Computation(shapes.MeringueIn, Meringue, _in("sugars", "foam")),
    "whip": Computation(shapes.WhipIn, Whipped, _in("sugars", "whipped")),
    "finish": Computation(shapes.FinishIn, shapes.FinishOut, _in("sugars", "finished")),
    "pasteurise": Computation(shapes.PasteuriseIn, Lethality, _in("sugars", "pasteurised")),
    "temper": Computation(shapes.TemperIn, Ladder, _in("stoves", "temper_ladder")),
    "bake": Computation(oven.BakeIn, oven.BakeOut, _in("ovens", "baked")),
    "choose": Computation(oven.ChooseIn, oven.ChooseOut, _in("ovens", "chosen")),
    "convert": Computation(oven.BakeIn, oven.ConvertOut, _in("ovens", "converted")),
    "crust": Computation(oven.CrustIn, oven.CrustOut, _in("crusts", "crust")),
    "oven_walk": Computation(oven.WalkIn, oven.WalkOut, _in("refits", "walked")),
    "cool": Computation(oven.CoolIn, oven.CoolOut, _in("colds", "cooled")),
    "pot": Computation(shapes.PotIn, shapes.PotOut, _in("stoves", "pot")),
}


@cache
def answers(kind: str) -> TypeAdapter[Any]:
    """How answers of a kind are written and described."""
    return TypeAdapter(KINDS[kind].result)


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
    """Run a computation on plain data and return plain data; what it says is said in metric units.

    Raises CraftError for an unknown kind, a field that does not belong, or input that makes no
    sense.
    """
    try:
        found: dict[str, Any] = written(_computed(kind, data))
    except CraftError as error:
        raise CraftError(error.field, closed(error.message)) from None
    return found


def _computed(kind: str, data: object) -> dict[str, Any]:
    if kind not in KINDS:
        raise CraftError(
            "kind", say("contract.cannot_be_computed_one_of", kind=kind, kinds=", ".join(KINDS))
        )
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
    found: dict[str, Any] = answers(kind).dump_python(chosen.run(given), mode="json", by_alias=True)
    return found
