"""More than one formula at a time: the whites ledger, and two side by side."""

from pydantic import Field

from bellcrumb.formula.compare import Pair
from bellcrumb.shapes.base import LineIn, Shape, Strict
from bellcrumb.shapes.formula import FormulaIn, FormulaOut


class DessertEggsIn(Strict):
    """One formula of the day, made ``times`` over."""

    name: str = Field(min_length=1, max_length=120)
    lines: list[LineIn] = Field(max_length=200)
    times: float = Field(1, gt=0, le=1000)


class LedgerIn(Strict):
    """Ask what a day's formulas take in eggs. One grade: a kitchen buys one."""

    desserts: list[DessertEggsIn] = Field(min_length=1, max_length=200)
    egg_grade: str = Field("US large", max_length=40)


class CompareIn(Strict):
    """Ask for two formulas side by side."""

    left: FormulaIn
    right: FormulaIn


class CompareOut(Shape):
    """Both answers and the pairs of their lines."""

    left: FormulaOut
    right: FormulaOut
    pairs: list[Pair]
    says: list[str]
