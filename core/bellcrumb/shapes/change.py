"""More or less of a formula, and a formula bent to wishes."""

from typing import Literal

from pydantic import ConfigDict, Field

from bellcrumb.formula.scale import EggChoice
from bellcrumb.shapes.base import Shape, Strict
from bellcrumb.shapes.formula import FormulaIn
from bellcrumb.texture.set_index import SetClass

ScaleBy = Literal["factor", "liquid", "batch", "eggs", "vessels"]


class ScaleIn(FormulaIn):
    """Ask for more or less of a formula: ``value`` is a factor, grams of liquid, grams of batch,
    eggs to crack, or vessels to fill."""

    by: ScaleBy = "factor"
    value: float = Field(gt=0, le=1_000_000)


class ScaleOut(Shape):
    """The scaled formula: its lines as text, and what does not scale with it."""

    factor: float
    lines: list[str]
    mass_g: float
    liquid_g: float
    eggs: float
    egg_choices: list[EggChoice]
    does_not_scale: list[str]


class SwapIn(Strict):
    """One ingredient for another, by name or key."""

    old: str = Field(min_length=1, max_length=80)
    new: str = Field(min_length=1, max_length=80)


class WishesIn(Strict):
    """What a cook wishes. ``have`` is a line ("9 yolks"): the batch that uses it up."""

    set_class: SetClass | None = None
    starch_per_1000: float | None = Field(None, ge=0, le=2000, description="as corn starch")
    egg_per_1000: float | None = Field(None, ge=0, le=20_000)
    less_eggy: bool = False
    whole_eggs: bool = False
    swaps: list[SwapIn] = Field([], max_length=6)
    without: list[Literal["starch", "gluten"]] = Field([], max_length=2)
    eggs_bought_as: str = Field("", max_length=40, description="another egg grade")
    have: str = Field("", max_length=200)


class SolveIn(FormulaIn):
    """Ask for a formula bent to wishes by the least change."""

    wishes: WishesIn


class ChangeOut(Shape):
    """One line that changed; ``before`` empty: added, ``after`` empty: taken out."""

    before: str
    after: str
    why: str


class CostOut(Shape):
    """What the change cost, before and after."""

    index: float
    class_: SetClass = Field(alias="class")
    sugar_pct: float
    fat_pct: float
    yolk_per_1000: float

    model_config = ConfigDict(populate_by_name=True)


class SolveOut(Shape):
    """The bent formula: its lines, what changed and why, what it cost, which wish is unmet."""

    lines: list[str]
    egg_grade: str
    changes: list[ChangeOut]
    before: CostOut
    after: CostOut
    unmet: list[str]
