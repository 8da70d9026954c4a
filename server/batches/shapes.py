"""Shapes of a cook and its record."""

from datetime import datetime
from typing import Annotated, Any, Literal
from uuid import UUID

from ninja import Schema
from pydantic import (
    AwareDatetime,
    Field,
    NaiveDatetime,
    ValidationError,
    ValidatorFunctionWrapHandler,
    WrapValidator,
)

from bellcrumb.contract.open.books import Deviation, Finding, Timing
from bellcrumb.contract.open.cooking import Lethality, Moment
from bellcrumb.contract.words import sentence
from bellcrumb.shapes import SetClass
from bellcrumb.shapes.oven import RefitOut
from formulas.content import Conditions
from formulas.guide_shapes import PlanOut


class ForDay(Schema):
    """The step of a running day that a cook is: it is ticked by the cook. ``at`` is now on the
    kitchen's own clock."""

    id: UUID
    step: str = Field(min_length=1, max_length=300)
    at: NaiveDatetime


class Start(Schema):
    """Start cooking a version; ``id`` is made by the client."""

    id: UUID
    version_id: UUID
    device_id: UUID | None = None
    scale_id: UUID | None = None
    place: Literal["stove", "oven", "build"] = "stove"
    time_scale: int = Field(default=1, ge=1, le=60)
    today: Conditions = Conditions()
    for_day: ForDay | None = None


class Point(Schema):
    """A reading on the cook's clock."""

    t_s: float
    temp_c: float


class ChannelOut(Schema):
    """Another channel of the probe: its last reading, in real seconds how old."""

    channel: int
    temp_c: float
    age_s: float


class VerdictOut(Schema):
    """What came of it."""

    texture: SetClass
    faults: list[str]
    note: str
    weighs_g: float | None
    by: str | None
    revision: int


class BatchCard(Schema):
    """A batch in the book."""

    id: UUID
    dessert_id: UUID
    dessert: str
    version: int
    cook: str | None
    started_at: datetime
    ended_at: datetime | None
    took_s: float | None
    peak_c: float | None
    predicted_class: SetClass | None
    verdict: VerdictOut | None
    whole: bool = Field(description="the dessert put together, not a part of it cooked")


class PhotoOut(Schema):
    """A picture of a batch."""

    id: UUID
    width: int
    height: int
    by: str | None = Field(description="who took it")


class MadeOfOut(Schema):
    """A cook or bake that a built dessert came from."""

    id: UUID
    part: str
    version: int
    started_at: datetime
    guide: str


class LaidOut(Schema):
    """A layer as it was weighed, all vessels together, and the last reading before it went on."""

    step: str
    title: str
    asked_g: float
    got_g: float | None
    enough: bool | None
    checked_c: float | None


class BatchOut(BatchCard):
    """A batch whole: plan, course, curve, what the curve shows, and how it compares."""

    version_id: UUID
    lines_text: str
    time_scale: int
    simulated: bool
    device: str | None
    plan: PlanOut
    timings: list[Timing]
    rungs: int
    readings: list[Point]
    findings: list[Finding]
    deviations: list[Deviation]
    before: list[UUID]
    safe: Lethality | None
    channels: dict[int, list[Point]]
    made_of: list[MadeOfOut]
    built_into: list[UUID]
    laid: list[LaidOut]
    mended: str
    photos: list[PhotoOut]


class RefusedEvent(Schema):
    """An event that was not taken, and why. Sending it again would not help."""

    id: str | None
    message: str


class LiveOut(Schema):
    """The cook now: ``readings`` are those after the one asked for, ``probe_age_s`` how long ago
    the last reading was taken, in real seconds, ``probe_doubt`` what is odd about its curve."""

    server_now: datetime
    now_s: float
    step: str
    timings: list[Timing]
    rungs: int
    ended: bool
    moment: Moment
    readings: list[Point]
    last_ms: int
    probe_age_s: float | None
    paused: bool
    marks: dict[str, float]
    safe: Lethality | None
    others: list[ChannelOut]
    poured_g: float | None
    probe_doubt: str | None
    refit: RefitOut | None
    refused: list[RefusedEvent]


class EventIn(Schema):
    """Something a cook did; ``id`` made by the client, ``at`` server time as it knows it."""

    id: UUID
    kind: Literal["step", "ladle", "typed", "end", "pause", "resume", "mark"]
    step: str = Field(default="", max_length=20)
    at: AwareDatetime
    value: float | None = Field(default=None, ge=-40, le=300)


def _each(value: Any, read: ValidatorFunctionWrapHandler) -> Any:
    """An event, or what is wrong with this one: the others are not held up by it."""
    try:
        return read(value)
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        where = ".".join(str(part) for part in first["loc"])
        shown = value.get("id") if isinstance(value, dict) else None
        said = f"“{where}”: {sentence(first)}" if where else sentence(first)
        return RefusedEvent(id=None if shown is None else str(shown)[:40], message=said)


class Events(Schema):
    """Events in the order they happened, oldest first. Each is answered for itself."""

    events: list[Annotated[EventIn, WrapValidator(_each)]] = Field(max_length=200)


class VerdictIn(Schema):
    """A verdict; ``revision`` is the one it changes (0: the first)."""

    revision: int = Field(default=0, ge=0, le=1_000_000)
    texture: SetClass
    faults: list[Annotated[str, Field(max_length=40)]] = Field(max_length=12)
    note: str = Field(default="", max_length=2000)
    weighs_g: float | None = Field(
        default=None, gt=0, le=500_000, description="all of it, without its pot; null: not weighed"
    )


class VerdictConflict(Schema):
    """Somebody judged in between: both verdicts."""

    message: str
    mine: VerdictIn
    theirs: VerdictOut
