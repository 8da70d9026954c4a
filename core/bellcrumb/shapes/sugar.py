"""Syrups, caramel, meringue, whipped cream, what goes in at the end, and pasteurisation."""

from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import BeforeValidator, Field

from bellcrumb.safety.pasteurise import Product
from bellcrumb.shapes.base import Celsius, MixIn, Shape, Strict
from bellcrumb.shapes.fit import VesselIn
from bellcrumb.stove.finish import Addition
from bellcrumb.stove.meringue import MeringueKind
from bellcrumb.stove.syrup import SugarStage, SyrupRun
from bellcrumb.stove.usual import SWISS_C, SYRUP_C, WHITES_C
from bellcrumb.stove.whip import Use

Grams = Annotated[float, Field(gt=0, le=200_000)]
SomeGrams = Annotated[float, Field(ge=0, le=200_000)]
RingSetting = Literal["low", "medium", "high"] | Annotated[float, Field(gt=0, le=10_000)]


def _as_key(name: object) -> object:
    """ "Soft ball" and "soft-ball" are soft_ball."""
    return "_".join(name.lower().replace("-", " ").split()) if isinstance(name, str) else name


class SyrupIn(Strict):
    """Ask for sugar cooked to a temperature or a stage; ``water_g`` 0 is dry caramel. A lining may
    be asked for: a vessel, how many, and how thick."""

    sugar_g: Grams
    water_g: SomeGrams
    target_c: Celsius | None = None
    stage: Annotated[SugarStage, BeforeValidator(_as_key)] | None = None
    ring: RingSetting = Field(
        "medium", description="a setting of a 1.9 kW gas ring, or watts that reach the pan"
    )
    start_c: Celsius = 20.0
    altitude_m: float = Field(0, ge=-400, le=5000)
    lining_vessel: str | VesselIn | None = None
    lining_count: int = Field(1, ge=1, le=2000)
    lining_mm: float = Field(3, gt=0, le=20)


class LiningOut(Shape):
    """Caramel to line moulds: grams in each and in all, sugar to cook for it."""

    lining_mm: float
    each_g: float
    total_g: float
    sugar_g: float


@dataclass(frozen=True, kw_only=True)
class SyrupOut(SyrupRun):
    """A syrup cooked; ``time_s`` null: this ring does not get there."""

    stage_sign: str
    colour_word: str
    stop_bath_s: float
    pour_window_s: float
    lining: LiningOut | None
    crystals: list[str]


class MeringueIn(Strict):
    """Ask what comes of whites and sugar."""

    kind: MeringueKind
    whites_g: Grams
    sugar_g: Grams
    water_g: Grams | None = Field(None, description="of the syrup; default 0.3 of the sugar")
    syrup_c: Celsius = SYRUP_C
    swiss_c: Celsius = SWISS_C
    whites_c: Celsius = WHITES_C
    ring: RingSetting = "medium"
    acid: bool = False
    altitude_m: float = Field(0, ge=-400, le=5000)


class WhipIn(Strict):
    """Ask what comes of a cream; fat is given, or the cream by name. A pie may be asked for."""

    cream_g: Grams
    fat_pct: float | None = Field(None, ge=0, le=60)
    cream: str = Field("whipping cream 35%", max_length=80)
    use: Use = "top"
    cream_c: Celsius = 4.0
    room_c: Celsius = 20.0
    icing_sugar_g: SomeGrams = 0.0
    sugar_g: SomeGrams = 0.0
    stabiliser_pct: float = Field(0, ge=0, le=30)
    pie_diameter_mm: float | None = Field(None, gt=0, le=1000)
    thickness_mm: float = Field(15, gt=0, le=100)


class TempReading(Strict):
    """A reading of a probe in the coldest point."""

    t_s: float = Field(ge=0, le=1_000_000)
    temp_c: Celsius


class PasteuriseIn(Strict):
    """Ask what a curve has killed."""

    product: Product = "mix"
    readings: list[TempReading] = Field(max_length=100_000)


class FinishIn(Strict):
    """Ask when to put what into a mix off the heat."""

    mix: MixIn
    extras: MixIn
    family: str | None = None


class FinishOut(Shape):
    """What goes in, in order."""

    additions: list[Addition]
    warnings: list[str]
