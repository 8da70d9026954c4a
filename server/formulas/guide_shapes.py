"""What a guide is as it is shown and as a batch keeps it: steps, places, curves, simulated pans."""

from typing import Any, Literal

from ninja import Schema
from pydantic import Field

from bellcrumb.contract.open.cooking import (
    Addition,
    Aim,
    Fuel,
    Ladder,
    Meringue,
    Step,
    Stirring,
    Whipped,
)
from bellcrumb.shapes import (
    CurvePoint,
    SetClass,
    SignOut,
    SyrupOut,
)
from bellcrumb.shapes.build import CutOut
from kitchen.lessons import Used


class PlaceOut(Schema):
    """What goes in one place: pot, bowl or in at the end."""

    grams: float
    words: list[str]
    us_words: list[str] = Field(
        default_factory=list,
        description="the same in the kitchen's cups and spoons; empty in a plan of earlier days",
    )


class CurveOut(Schema):
    """A predicted curve from the start of its step."""

    points: list[CurvePoint]
    thickens_s: float | None
    reaches_s: float | None
    overshoot_k: float


class Scene(Schema):
    """What a simulated pot needs to know of one step; of no use to a real probe."""

    step: str
    mass_g: float
    cp_j_per_gk: float
    boil_c: float
    thickens_c: float
    from_c: float
    power_w: float
    fuel: Fuel
    stirring: Stirring
    pot_mm: float
    pot_g: float
    kind: Literal["pot", "syrup", "bath", "bake"] = "pot"
    points: list[CurvePoint] = Field(default_factory=list)
    bath_points: list[CurvePoint] = Field(default_factory=list)
    air_points: list[CurvePoint] = Field(default_factory=list)
    sugar_g: float = 0
    water_g: float = 0
    bath_w_k: float = 0


class PlanOut(Schema):
    """Everything the stove needs."""

    family: str
    guide: str = "custard"
    ring: str
    boil_c: float
    thickens_c: float | None
    pot: PlaceOut
    bowl: PlaceOut
    finish: PlaceOut
    ladder: Ladder | None
    steps: list[Step]
    heat: CurveOut | None
    cook: CurveOut | None
    cook_from_c: float
    temper_s: float = 30
    scorch: Literal["low", "middling", "high"]
    scenes: list[Scene]
    warnings: list[str]
    checks: list[str] = Field(default_factory=list)
    additions: list[Addition] = Field(default_factory=list)
    signs: list[SignOut] = Field(default_factory=list)
    egg_from: str | None = None
    cold_class: SetClass | None = None
    aim: Aim | None = None
    syrup: SyrupOut | None = None
    foam: Meringue | None = None
    whipped: Whipped | None = None
    content: dict[str, Any] | None = None
    cut: CutOut | None = None  # of a dessert put together: as it is drawn
    learned: list[Used] = Field(default_factory=list)
    # The name of the pot it boils down in, and the water gone from it until it is off the heat.
    pot_name: str = ""
    boils_off_g: float | None = None

    @property
    def went_in_g(self) -> float:
        """Everything that is weighed for it, g."""
        return self.pot.grams + self.bowl.grams + self.finish.grams
