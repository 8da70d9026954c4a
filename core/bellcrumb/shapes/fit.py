"""Vessels and trays, and what a batch fills."""

from dataclasses import dataclass
from typing import Literal

from pydantic import Field

from bellcrumb.shapes.base import Shape, Strict
from bellcrumb.vessels.tray import PanOfMoulds
from bellcrumb.words import say


class VesselIn(Strict):
    """A vessel by the measures of its inside."""

    shape: Literal["round", "rect", "oval", "ring"] = "round"
    top_diameter_mm: float = 0
    bottom_diameter_mm: float = 0
    length_mm: float = 0
    width_mm: float = 0
    depth_mm: float
    flute_mm: float = Field(0, ge=0, description="how deep the flutes of a round wall cut in")
    brim_ml: float | None = Field(None, gt=0)
    wall_mm: float = Field(0, ge=0, le=50)
    material: str = Field("", max_length=40)
    name: str = Field(say("vessels.own_vessel"), max_length=120)


class RestOut(Shape):
    """What the rest goes into when the first vessels are full."""

    vessel: str
    vessel_key: str
    per_vessel_ml: float
    fills: int
    left_over_ml: float


@dataclass(frozen=True, kw_only=True)
class TrayOut(PanOfMoulds):
    """The moulds in a pan, to scale, and the bath."""

    pan: str
    pan_key: str
    length_mm: float
    width_mm: float
    depth_mm: float
    round: bool


class FitOut(Shape):
    """What the batch fills; ``fill`` is the share of the depth it comes to."""

    vessel: str
    vessel_key: str
    shape: str
    top_mm: float
    bottom_mm: float
    width_mm: float
    depth_mm: float
    per_vessel_ml: float
    per_vessel_g: float
    brim_ml: float
    fill: float
    count: int
    fills: int
    left_over_ml: float
    short_ml: float
    factor: float
    advice: str
    rest: RestOut | None
    tray: TrayOut | None
