"""A batch explained, and what a kitchen's batches teach."""

from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from bellcrumb.book.happened import Happened
from bellcrumb.book.learned import Learned
from bellcrumb.shapes.base import Shape, Strict
from bellcrumb.shapes.formula import FormulaIn
from bellcrumb.shapes.oven import RuleIn
from bellcrumb.shapes.sugar import TempReading
from bellcrumb.texture.set_index import SetClass


class VerdictOfBatch(Strict):
    """How it came out."""

    class_: SetClass | None = Field(None, alias="class")
    faults: list[str] = Field(default_factory=list, max_length=20)


class PlannedIn(Strict):
    """What was planned: a hold at the boil, or a window of a bake, and how long it took."""

    hold_s: float | None = Field(None, ge=0, le=3600)
    from_min: float | None = Field(None, gt=0, le=1440)
    to_min: float | None = Field(None, gt=0, le=1440)
    took_min: float | None = Field(None, gt=0, le=1440)
    set_class: SetClass | None = Field(None, description="as it was predicted; null: by its lines")
    went_in_g: float | None = Field(None, gt=0, description="into pot, bowl and at the end")
    boils_off_g: float | None = Field(None, ge=0, description="of that, by the model")
    came_out_g: float | None = Field(None, gt=0, description="as somebody weighed it")


class StepSeenIn(Strict):
    """A step as it was planned, and when it was entered and left on the cook's clock."""

    key: str = Field(max_length=40)
    kind: str = Field(max_length=20)
    entered_s: float
    left_s: float
    low_c: float | None = None
    never_c: float | None = None
    hold_s: float = Field(0, ge=0)


class CookSeenIn(Strict):
    """A whole cook beside its plan; null: it was not measured."""

    steps: list[StepSeenIn] = Field(default_factory=list, max_length=80)
    readings: list[TempReading] = Field(default_factory=list, max_length=50_000)
    heat_predicted_s: float | None = Field(None, gt=0)
    heat_took_s: float | None = Field(None, gt=0)
    ladder_jump_k: float | None = Field(None, ge=0, description="the ladder's largest step")
    to_pour_g: float | None = Field(None, gt=0)
    poured_g: float | None = None
    oven_moved_k: float | None = Field(None, description="beyond what was thought of it")
    egg_share: float | None = Field(None, gt=0, description="egg used over egg as written")
    rule: RuleIn = Field(default_factory=RuleIn)


class ExplainIn(FormulaIn):
    """Ask why a batch came out as it did."""

    readings: list[TempReading] = Field(default_factory=list, max_length=50_000)
    events: list[str] = Field(
        default_factory=list, max_length=60, description="what is known to have happened, by code"
    )
    absent: list[str] = Field(
        default_factory=list, max_length=60, description="what is known not to have happened"
    )
    signals: dict[str, float | bool | str] = Field(default_factory=dict)
    planned: PlannedIn = Field(default_factory=PlannedIn)
    cook: CookSeenIn | None = None
    verdict: VerdictOfBatch


class CauseOut(Shape):
    """A likely cause of a fault, with what speaks for and against it."""

    fault: str
    of: str
    cause: str
    words: str
    probability: float
    for_: list[str] = Field(alias="for")
    against: list[str]
    ask: str
    mend: str
    source: str


class ChangeOfBatch(Shape):
    """What to change: in words, and as lines where it is the formula."""

    cause: str
    words: str
    lines: list[str]


class ExplainOut(Shape):
    """A batch explained."""

    happened: list[Happened]
    causes: list[CauseOut]
    ruled_out: list[str]
    change: list[ChangeOfBatch]


OvenFigure = Literal["film", "vent", "recovers"]


class FigureSeen(Strict):
    """What one bake told of a figure of its oven, beside what is known of it: as a logarithm."""

    figure: OvenFigure
    log: float = Field(ge=-5, le=5)
    spread: float = Field(gt=0, le=5)


class OvenTold(Strict):
    """What one bake with a probe in the air told of its oven: above the dial, and its figures."""

    offset_k: float
    offset_spread_k: float
    figures: list[FigureSeen]


class BatchSeen(Strict):
    """One batch as it was predicted and as it was; simulated ones teach nothing."""

    simulated: bool = False
    ring: str | None = None
    boil_predicted_s: float | None = Field(None, gt=0)
    boil_took_s: float | None = Field(None, gt=0)
    loss_seen_w_m2k: float | None = Field(
        None,
        ge=-200,
        le=400,
        description="lost by its pot beyond an ordinary one, per area of its base",
    )
    loss_spread_w_m2k: float = Field(30, gt=0, le=400)
    share_per_loss: float = Field(
        0, ge=0, le=1, description="of the ring's power, taken by each W/m2K of loss"
    )
    pot: str | None = None
    off_predicted_g: float | None = Field(
        None, gt=0, description="water to boil away, by the model"
    )
    off_g: float | None = Field(None, description="what was gone when it was weighed")
    oven: str | None = None
    oven_kind: Literal["static", "fan"] = "static"
    dial_c: float | None = Field(None, gt=0, le=350)
    set_c: float = Field(80, ge=40, le=100)
    bake_predicted_min: float | None = Field(None, gt=0)
    bake_took_min: float | None = Field(None, gt=0)
    offset_seen_k: float | None = Field(
        None, ge=-80, le=80, description="above its dial, as a probe in this bake told it"
    )
    offset_spread_k: float = Field(6, gt=0, le=80)
    offset_used_k: float = Field(
        0, ge=-60, le=60, description="what was learned already when it was predicted, K"
    )
    figures: list[FigureSeen] = Field(default_factory=list, max_length=3)
    family: str | None = None
    predicted_index: float | None = Field(None, ge=0, le=30)
    set_by: dict[str, Annotated[float, Field(ge=0, le=1)]] = Field(
        default_factory=dict, max_length=20,
        description="share of the set that each setting ingredient carries, by key",
    )  # fmt: skip
    judged: SetClass | None = None


class LearnIn(Strict):
    """Ask what batches teach, oldest first."""

    batches: list[BatchSeen] = Field(max_length=20_000)
    losses_w_m2k: dict[str, Annotated[float, Field(ge=-50, le=200)]] = Field(
        default_factory=dict, max_length=200,
        description="what is taken for a ring's loss instead of what they teach",
    )  # fmt: skip


@dataclass(frozen=True, kw_only=True)
class LearnedOut(Learned):
    """A learned value; the prior's where ``n`` is 0. ``seen`` is what each of the latest batches
    told, oldest first."""

    name: str
    seen: list[float]


@dataclass(frozen=True, kw_only=True)
class FigureOut(LearnedOut):
    """A figure of an oven: how it blows, vents or comes back, as a factor of what is known."""

    figure: OvenFigure


class LearnOut(Shape):
    """Rings as real over rated power and by what their pots lose (W/m2K), pots as what boils away
    over what the model says, ovens in K above the dial and by their figures, sets in S over the
    prediction by family, and by setting ingredient beyond that."""

    rings: list[LearnedOut]
    losses: list[LearnedOut]
    pots: list[LearnedOut]
    ovens: list[LearnedOut]
    figures: list[FigureOut]
    set_shift: list[LearnedOut]
    lines: list[LearnedOut]
