"""A dessert asked and answered: stand, parts, layers; what each needs, its portion, its thread."""

from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from bellcrumb.dessert.layers import Lain
from bellcrumb.dessert.steps import BuildStep
from bellcrumb.dessert.thread import Ahead
from bellcrumb.dessert.works import Lies, PartWork
from bellcrumb.quantities.units import Measures
from bellcrumb.shapes.base import LineIn, Shape, Strict
from bellcrumb.shapes.fit import VesselIn
from bellcrumb.shapes.formula import PartKind
from bellcrumb.stove.steps import Step
from bellcrumb.texture.set_index import SetClass

Cut = Literal["whole", "wedges", "squares", "rings"]


class StandIn(Strict):
    """What the dessert is built in, how many, and how each is cut."""

    vessel: str | VesselIn = Field(description="a key of the vessel library, or measures")
    count: int = Field(1, ge=1, le=2000)
    portions_each: int = Field(1, ge=1, le=500)
    cut: Cut = "whole"


class BuildPartIn(Strict):
    """A part: a formula with a name and what cannot be read from its lines."""

    name: str = Field(min_length=1, max_length=80)
    kind: PartKind = "filling"
    lines: list[LineIn] = Field(max_length=200)
    egg_grade: str = Field("US large", max_length=40)
    family: str | None = Field(None, max_length=40)
    method: Literal["", "italian", "swiss", "french"] = Field("", description="of a meringue")
    work: PartWork | None = Field(
        None, description="what kind of work it is; null: told from the rest"
    )
    beaten: bool | None = None
    baking: bool | None = Field(None, description="baked in its stand; null: as its family is")
    lost_pct: float | None = Field(
        None, ge=0, le=60, description="left in pot and on the board; null: usual of its kind"
    )


class LayerIn(Strict):
    """A layer from the bottom: of a part, or of something bought (``item``, as a line)."""

    part: str | None = Field(None, max_length=80, description="the name of a part")
    item: str | None = Field(
        None, max_length=200, description="bought: a line for all of it, “200 g digestives”"
    )
    lies: Lies | None = Field(None, description="null: the usual of its kind")
    value: float | None = Field(
        None, ge=0, le=20_000,
        description="mm (lining, mm, below_rim, dome, sheet), share 0-1, g each, or g per 100 cm²",
    )  # fmt: skip
    walls: bool | None = Field(None, description="a lining goes up the walls; null: dough does")
    lost_pct: float | None = Field(
        None, ge=0, le=90, description="of a bought thing: peel, stone, breakage"
    )


class FoldIn(Strict):
    """A cream lightened with another part: a part of its own, which layers name."""

    name: str = Field(min_length=1, max_length=80)
    base: str = Field(max_length=80, description="the part that is lightened")
    light: str = Field(max_length=80, description="whipped cream, meringue, soft butter")
    base_g: float | None = Field(None, gt=0, le=100_000, description="null: all of it")
    light_g: float | None = Field(None, gt=0, le=100_000, description="null: all of it")


class SchoolsIn(Strict):
    """How it is done where schools differ."""

    filling: Literal["cold", "hot"] = "cold"
    meringue: Literal["cold", "hot"] = "cold"


class OverruleIn(Strict):
    """A kitchen's own minutes for a step."""

    key: str = Field(max_length=200)
    hands_min: float | None = Field(None, ge=0, le=1440)
    wait_min: float | None = Field(None, ge=0, le=4320)


class BuildIn(Strict):
    """Ask what a dessert comes to."""

    stand: StandIn
    parts: list[BuildPartIn] = Field(min_length=1, max_length=20)
    layers: list[LayerIn] = Field(
        default_factory=list, max_length=40, description="from the bottom; empty: as parts come"
    )
    folds: list[FoldIn] = Field(default_factory=list, max_length=10)
    schools: SchoolsIn = Field(default_factory=SchoolsIn)
    prices: dict[str, Annotated[float, Field(ge=0, le=100_000)]] = Field(
        default_factory=dict, description="price of a kilogram by ingredient name or key"
    )
    overrules: list[OverruleIn] = Field(default_factory=list, max_length=200)
    measures: Measures = "us"
    batches: float = Field(1, gt=0, le=1000, description="how often each formula is made")
    whole_eggs: bool = Field(True, description="scale to whole eggs where shell eggs are counted")


@dataclass(frozen=True, kw_only=True)
class LainOut(Lain):
    """A layer as it lies, and what it brings to each vessel."""

    kcal_each: float
    cost_each: float | None
    allergens: list[str]


class FoldOut(Shape):
    """What comes of folding two parts: how much, how light, how it stands, and how warm the base
    may be for it."""

    name: str
    base: str
    light: str
    base_g: float
    light_g: float
    volume_ml: float
    density_g_per_ml: float
    set_class: SetClass | None
    family: str | None
    base_from_c: float
    base_to_c: float
    sign: str
    too_cold: str
    too_warm: str
    need_g: float


class BuildPartOut(Shape):
    """What a part must give for all vessels, and its lines scaled to it."""

    name: str
    kind: PartWork
    need_g: float
    written_g: float
    left_g: float = Field(description="over when made once as written; negative: short")
    times: float
    lost_pct: float
    scaled_times: float
    scaled_lines: list[str]


class LayerShareOut(Shape):
    """What a layer brings to one portion."""

    name: str
    g: float
    kcal: float
    cost: float | None


class PortionOut(Shape):
    """One portion: what it weighs and holds, layer by layer."""

    g: float
    kcal: float
    allergens: list[str]
    allergens_untold: list[str]
    complete: bool = Field(description="every line was understood, so that nothing is left out")
    cost: float | None = Field(description="null: the kitchen has no prices")
    without_price: list[str]
    layers: list[LayerShareOut]


@dataclass(frozen=True, kw_only=True)
class BuildStepOut(BuildStep):
    """A step of the thread; ``earliest_min`` and ``latest_min`` before the plate it may begin."""

    earliest_min: float
    latest_min: float
    critical: bool
    ahead: Ahead


class SavingOut(Shape):
    """A wait of the deciding chain that may be shorter."""

    key: str
    saves_min: float


class StandOut(Shape):
    """The stand as it is drawn."""

    name: str
    shape: str
    top_mm: float
    bottom_mm: float
    depth_mm: float
    brim_ml: float
    count: int
    portions: int
    cut: Cut
    top_of_build_mm: float
    cut_width_mm: float = Field(
        description="what a cut shows: a wedge to the rim, a square across, or all of it"
    )


class CutOut(Shape):
    """A dessert as it is drawn cut open."""

    stand: StandOut
    layers: list[LainOut]


class BuildOut(CutOut):
    """A dessert whole."""

    parts: list[BuildPartOut]
    folds: list[FoldOut]
    guide: list[Step] = Field(description="building it, one layer a step")
    portion: PortionOut
    steps: list[BuildStepOut]
    shortest_min: float
    critical: list[str]
    shorter: list[SavingOut]
    minded: list[str]
    warnings: list[str]
