"""The guide of a part: asked as the stove page asks it."""

from typing import Literal

from pydantic import Field

from bellcrumb.shapes.base import Shape
from bellcrumb.shapes.formula import FormulaIn
from bellcrumb.stove.usual import EGGS_C, HELD_BACK_ML, HOT_C, LADLE_ML


class GuideIn(FormulaIn):
    """Ask for the guide of a part on a medium gas ring."""

    method: Literal["", "italian", "swiss", "french"] = ""
    school: Literal["hot_into_eggs", "eggs_after_boil", "held_back_liquid"] = "hot_into_eggs"
    ring: Literal["low", "medium", "high"] = "medium"
    ladle_ml: float = Field(LADLE_ML, ge=5, le=2000)
    hot_c: float = Field(HOT_C, ge=20, le=105)
    eggs_c: float = Field(EGGS_C, ge=-2, le=60)
    held_back_ml: float = Field(HELD_BACK_ML, ge=0, le=20_000)
    target_c: float = Field(0, ge=0, le=200, description="of a syrup; 0: the usual one")


class PlacedOut(Shape):
    """Some grams of an ingredient in its place."""

    ingredient: str
    grams: float


class GuideStepOut(Shape):
    """A step: what to do, what to look for, what to avoid, and how long it takes."""

    code: str
    title: str
    sign: str
    avoid: str
    low_c: float | None
    high_c: float | None
    never_c: float | None
    hold_s: int
    minutes: float
    hands: bool


class GuideOut(Shape):
    """A guide: its steps, and what goes into the pot, the bowl and in at the end."""

    guide: str
    steps: list[GuideStepOut]
    pot: list[PlacedOut]
    bowl: list[PlacedOut]
    finish: list[PlacedOut]
    checks: list[str]
    warnings: list[str]
