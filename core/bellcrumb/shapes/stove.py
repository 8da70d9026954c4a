"""Ladders and pots."""

from typing import Annotated, Literal

from pydantic import Field

from bellcrumb.shapes.base import Celsius, MixIn, Shape, Strict
from bellcrumb.stove.temper import School
from bellcrumb.stove.usual import LADLE_ML


class TemperIn(Strict):
    """Ask for a temper ladder."""

    hot: MixIn
    eggs: MixIn
    ladle_ml: float = Field(LADLE_ML, ge=5, le=2000)
    school: School = "hot_into_eggs"
    held_back_ml: float = Field(0, ge=0)


class PotIn(MixIn):
    """Ask for a heating on a ring."""

    ring: Literal["low", "medium", "high"] | Annotated[float, Field(gt=0, le=10_000)] = Field(
        "medium", description="a setting of a 1.9 kW gas ring, or watts that reach the pot"
    )
    target: Literal["nappe", "boil"] | Celsius = "boil"
    hold_s: float = Field(0, ge=0, le=7200)
    family: str | None = None
    stirring: Literal["whisk", "spatula", "none"] = "spatula"
    lid: bool = False
    altitude_m: float = Field(0, ge=-400, le=5000)


class CurvePoint(Shape):
    """A point of a temperature curve."""

    t_s: float
    temp_c: float


class SignOut(Shape):
    """What a cook sees from a moment on; ``stir`` when to stir without stopping from here."""

    t_s: float
    temp_c: float
    sign: str


class PotOut(Shape):
    """The heating; times are null when it never gets there."""

    curve: list[CurvePoint]
    thickens_s: float | None
    reaches_s: float | None
    target_c: float
    overshoot_k: float
    scorch: Literal["low", "middling", "high"]
    evaporated_g: float
    stir_from_s: float | None
    signs: list[SignOut]
    warnings: list[str]
