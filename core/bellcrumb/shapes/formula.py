"""A formula asked, and everything its numbers decide."""

from dataclasses import KW_ONLY, dataclass
from typing import Annotated, Literal

from pydantic import ConfigDict, Field

from bellcrumb.formula.answer import Ratios
from bellcrumb.formula.cautions import Caution
from bellcrumb.formula.worth import Nutrition
from bellcrumb.reasons import Reason
from bellcrumb.shapes.base import MixIn, PointOut, Shape
from bellcrumb.shapes.fit import FitOut, VesselIn
from bellcrumb.stove.whip import Whipped
from bellcrumb.texture.coagulation import Coagulation
from bellcrumb.texture.endpoint import Endpoint
from bellcrumb.texture.no_custard import Other
from bellcrumb.texture.set_index import SetClass
from bellcrumb.texture.set_map import Plane, SetMap

PartKind = Literal["crust", "filling", "caramel", "meringue", "cream", "glaze", "garnish"]


class FormulaIn(MixIn):
    """Ask what the numbers of a formula decide."""

    family: str | None = None
    vessel: str | VesselIn | None = Field(
        None, description="a key of the vessel library, or measures"
    )
    count: int = Field(1, ge=1, le=10_000)
    fill_by: Literal["all", "share", "below_rim", "weight"] = "share"
    fill: float = Field(0.9, gt=0, le=1, description="share of the depth that is filled")
    below_rim_mm: float = Field(5, ge=0, le=400)
    portion_g: float = Field(100, gt=0, le=100_000)
    rest_vessel: str | VesselIn | None = Field(
        None, description="what the rest goes into when the wanted number is full"
    )
    portions_per_vessel: int = Field(1, ge=1, le=500)
    overrun_pct: float = Field(0, ge=0, le=500, description="air whipped in, % of the volume")
    tray: str | VesselIn | None = Field(None, description="the pan the vessels stand in")
    bath_level: Literal["none", "half", "rim", "beside"] | Annotated[float, Field(gt=0, le=400)] = (
        Field("none", description="water in the tray: up to half or just under the rim, or mm")
    )
    plane: Plane = "starch_egg"
    set_shifts: dict[str, Annotated[float, Field(ge=-3, le=3)]] = Field(
        default_factory=dict,
        max_length=100,
        description="how much firmer than the books a family (by name) comes out here, S",
    )
    line_shifts: dict[str, Annotated[float, Field(ge=-3, le=3)]] = Field(
        default_factory=dict,
        max_length=100,
        description="the same of what one ingredient (by key) would set alone, beyond its family",
    )
    beaten: bool | None = Field(
        None, description="worked smooth after it set (piped, filled), or left as it set (cut)"
    )
    part_kind: PartKind | None = Field(
        None, description="a crust, caramel, meringue, glaze or garnish is judged as no custard"
    )
    prices: dict[str, Annotated[float, Field(ge=0, le=100_000)]] = Field(
        {}, description="price of a kilogram by ingredient name or key"
    )
    egg_spare_pct: float = Field(5, ge=0, le=100, description="eggs to have for cracked ones")
    altitude_m: float = Field(0, ge=-400, le=5000)


class LineOut(Shape):
    """What was understood of one line; ``ingredient`` and ``grams`` are null where nothing was."""

    text: str
    called: str
    ingredient: str | None
    name: str | None
    grams: float | None
    spread_g: float
    confidence: Literal["sure", "likely", "doubtful", "unknown"]
    message: str
    suggestions: list[str]
    asks: Literal["", "name", "can", "pack", "piece"] = Field(
        description="what a kitchen may say once: what `said` is, or what one weighs"
    )
    said: str
    impossible: bool
    blank: bool
    metric: str
    us: str


class CompositionOut(Shape):
    """Mass percent of the whole mix; the parts add up to 100."""

    water: float
    fat: float
    protein: float
    sugars: float
    starch: float
    other: float
    alcohol: float


class TasteOut(Shape):
    """Mass percent of what is tasted: dry matter, sweetness as sucrose, cocoa as on a label."""

    dry_matter: float
    sweetness: float
    cocoa: float


class SetOut(Shape):
    """The set: index with its band, class with the classes the band spans."""

    index: float
    low: float
    high: float
    class_: SetClass = Field(alias="class")
    low_class: SetClass
    high_class: SetClass
    borderline: SetClass | None
    position: float
    beaten: bool | None = Field(description="null: nobody said, and it makes a difference")
    beaten_class: SetClass | None = Field(description="the class when beaten, where nobody said")
    shift: float = Field(0, description="what this kitchen's own verdicts moved it by, S")

    model_config = ConfigDict(populate_by_name=True)


@dataclass(frozen=True)
class CoagulationOut(Coagulation):
    """Egg temperatures; ``curdle_c`` null where starch protects it."""

    _: KW_ONLY
    spread_k: float


class FamilyOut(Shape):
    """The family taken, and how far from its centre the formula stands (1 = edge of its window)."""

    key: str
    name: str
    guessed: bool
    distance: float
    on_the_stove: bool
    keep_days: list[float]
    chill_h: list[float]
    doneness: str


class PointsOut(Shape):
    """Where a formula stands in each plane of the map, in g per 1000 g liquid."""

    starch_egg: PointOut
    sugar_fat: PointOut
    egg_fat: PointOut


class ProblemOut(Shape):
    """What does not do, in a sentence, and the field it is about."""

    field: str
    message: str


class MoneyOut(Shape):
    """What it costs, in the kitchen's money; ``without_price`` is not in it."""

    batch: float
    portion: float
    without_price: list[str]


class EggsOut(Shape):
    """Shell eggs to crack, and to have ready for cracked ones."""

    grade: str
    crack: float
    have: int


class FormulaOut(Shape):
    """Everything the numbers of a formula decide."""

    mass_g: float
    volume_ml: float
    density_g_per_ml: float
    liquid_g: float
    lines: list[LineOut]
    family: FamilyOut | None
    families_near: list[str]
    per_1000_liquid: Ratios | None
    composition_pct: CompositionOut
    taste_pct: TasteOut
    set: SetOut | None
    map: SetMap | None
    points: PointsOut | None
    cook: Endpoint | None
    coagulation: CoagulationOut | None
    whites_left_g: float
    yolks_left_g: float
    whites_left_eggs: float
    eggs: EggsOut | None
    air_ml: float
    whipped: Whipped | None = Field(None, description="cream to be whipped: how it stands")
    reads_as: Other | None = Field(None, description="told as a filling, but no custard")
    portions: float | None
    nutrition: Nutrition | None
    cost: MoneyOut | None
    allergens: list[str]
    allergens_untold: list[str]
    complete: bool
    fit: FitOut | None
    fit_problem: ProblemOut | None
    reasons: dict[str, Reason]
    cautions: list[Caution]
    warnings: list[str] = Field(description="every caution and what was not counted, as a line")
