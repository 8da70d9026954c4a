"""Ladders and pots."""

from typing import Annotated, Literal

from pydantic import Field

from bellcrumb.shapes.base import Celsius, MixIn, Shape, Strict
from bellcrumb.stove.temper import Rung, School


class TemperIn(Strict):
    """Ask for a temper ladder."""

    hot: MixIn
    eggs: MixIn
    ladle_ml: float = Field(100, ge=5, le=2000)
    school: School = "hot_into_eggs"
    held_back_ml: float = Field(0, ge=0)


class TemperOut(Shape):
    """The ladder."""

    school: School
    rungs: list[Rung]
    first_safe_g: float
    end_temp_c: float
    all_at_once_temp_c: float
    scramble_c: float
    bowl_g: float
    bowl_temp_c: float
    poured_g: float
    poured_temp_c: float
    pour_g_per_s: float
    whisk_within_s: int
    warnings: list[str]


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
