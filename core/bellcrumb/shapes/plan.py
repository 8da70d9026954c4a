"""A day asked and answered: services, people and places in; who does what when out."""

from datetime import datetime
from typing import Annotated, Literal

from pydantic import AfterValidator, Field

from bellcrumb.day.tasks import STATIONS, Station
from bellcrumb.shapes.base import LineIn, Shape, Strict
from bellcrumb.shapes.build import BuildIn
from bellcrumb.words import say


def of_our_time(at: datetime) -> datetime:
    """A moment a kitchen means."""
    if not 2000 <= at.year <= 2200:
        raise ValueError(say("contract.a_day_between"))
    return at


Moment = Annotated[datetime, AfterValidator(of_our_time)]


class WantedIn(Strict):
    """A dessert of a service and how many portions."""

    build: BuildIn
    portions: int = Field(ge=1, le=5000)
    name: str = Field("", max_length=120, description="empty: the first part's name")


class ServiceIn(Strict):
    """A service: when it is, and what is served."""

    at: Moment
    name: str = Field("", max_length=80)
    items: list[WantedIn] = Field(min_length=1, max_length=40)


class PersonIn(Strict):
    """Somebody and their hours; the same name again for another day."""

    name: str = Field(min_length=1, max_length=80)
    from_: Moment = Field(alias="from")
    to: Moment
    break_min: int = Field(0, ge=0, le=120, description="in the middle of hours of six and more")
    may: list[Station] = Field(
        default_factory=lambda: list(STATIONS), max_length=4,
        description="what they may do; that of their first hours counts",
    )  # fmt: skip


class OvenOfDayIn(Strict):
    """An oven: shelves, and K a minute up and down."""

    name: str = Field(min_length=1, max_length=80)
    shelves: int = Field(2, ge=1, le=40)
    heats_k_min: float = Field(8, gt=0, le=100)
    cools_k_min: float = Field(3, gt=0, le=100)
    shelf_length_mm: float = Field(600, ge=100, le=2000)
    shelf_width_mm: float = Field(400, ge=100, le=2000)


class ColdOfDayIn(Strict):
    """A refrigerator, or a ``blast`` chiller, and the trays it has room for."""

    name: str = Field(min_length=1, max_length=80)
    trays: int = Field(12, ge=1, le=400)
    blast: bool = False


class MouldsIn(Strict):
    """How many of a mould or tin there are, by its key or its name."""

    vessel: str = Field(min_length=1, max_length=120)
    count: int = Field(ge=1, le=5000)


class OwnMinutesIn(Strict):
    """What a step of a day (its key) really took here, as a factor of what was planned, and how
    often it was seen."""

    key: str = Field(min_length=1, max_length=300)
    factor: float = Field(gt=0, le=20)
    seen: int = Field(ge=1, le=10_000)


class StockIn(Strict):
    """Portions of a dessert already made, by its name."""

    name: str = Field(min_length=1, max_length=120)
    portions: int = Field(ge=0, le=5000)


class PinIn(Strict):
    """A step of the plan that shall begin at a moment, by its key."""

    key: str = Field(min_length=1, max_length=300)
    at: Moment


class BeforeIn(Strict):
    """When, by whom and where a step was planned before."""

    key: str = Field(min_length=1, max_length=300)
    at: Moment
    who: str | None = Field(None, max_length=80)
    oven: str | None = Field(None, max_length=80)
    chilled: bool = Field(False, description="through the blast chiller")


class TickIn(Strict):
    """A step that has begun, and is over or goes on: facts a plan does not move."""

    key: str = Field(min_length=1, max_length=300)
    began: Moment
    ended: Moment | None = None
    who: str | None = Field(None, max_length=80)
    oven: str | None = Field(None, max_length=80)
    chilled: bool = Field(False, description="it went into the blast chiller")


class DayIn(Strict):
    """Ask for a day's plan."""

    services: list[ServiceIn] = Field(min_length=1, max_length=20)
    people: list[PersonIn] = Field(min_length=1, max_length=40)
    rings: list[str] = Field(default_factory=lambda: ["ring"], max_length=20)
    ovens: list[OvenOfDayIn] = Field(default_factory=list, max_length=10)
    mixers: list[str] = Field(default_factory=lambda: ["mixer"], max_length=10)
    cold: list[ColdOfDayIn] = Field(default_factory=list, max_length=10)
    stock: list[StockIn] = Field(default_factory=list, max_length=100)
    moulds: list[MouldsIn] = Field(default_factory=list, max_length=200)
    pot_g: float = Field(4000, ge=100, le=200_000, description="of a starch cream in one pot")
    bowl_ml: float = Field(8000, ge=500, le=200_000, description="the mixer's bowl")
    join: bool = Field(True, description="a part that several desserts share is made once")
    own_minutes: list[OwnMinutesIn] = Field(default_factory=list, max_length=2000)
    packs: dict[str, Annotated[float, Field(gt=0, le=1_000_000)]] = Field(
        default_factory=dict, description="grams of the supplier's pack by ingredient key"
    )
    house: list[LineIn] = Field(
        default_factory=list, max_length=300, description="what is in the house, as lines"
    )
    now: Moment = Field(description="where the plan begins")
    at: Moment | None = Field(
        None,
        description="the moment it is planned from, once the day has begun; null: its beginning",
    )
    pins: list[PinIn] = Field(default_factory=list, max_length=200)
    before: list[BeforeIn] = Field(
        default_factory=list, max_length=2000,
        description="the plan people have read: it is changed as little as may be",
    )  # fmt: skip
    ticks: list[TickIn] = Field(default_factory=list, max_length=2000)


class DayStepOut(Shape):
    """One thing to do: by whom, where, from when to when; ``hands_end`` when the person is free."""

    key: str
    what: str
    desserts: list[str] = Field(
        default_factory=list, description="those it is for, as asked; none: a break, or an old plan"
    )
    part: str = Field("", description="the part it is a step of; empty: of the whole dessert")
    start: datetime
    hands_end: datetime
    end: datetime
    who: str | None
    where: list[str]
    oven_c: float | None
    after: list[str]
    earliest: datetime | None = Field(
        None, description="start from which what follows is still in its window; null: an old plan"
    )
    latest: datetime | None = Field(None, description="start until which the service is kept")
    held_until: datetime | None = Field(
        None, description="when its ring or mixer is free again; null: an old plan"
    )
    chilled_until: datetime | None = Field(
        None, description="when it goes on from the blast chiller into the refrigerator"
    )
    own_seen: int = Field(0, description="days its minutes were seen here; 0: the table's")
    own_factor: float = Field(1.0, description="by what they differ from the table's")
    state: Literal["to_do", "pinned", "begun", "done"] = "to_do"


class OvenPointOut(Shape):
    """An oven's dial from a moment on."""

    at: datetime
    set_c: float


class OvenLineOut(Shape):
    """An oven's dial over the day."""

    oven: str
    points: list[OvenPointOut]


class ClashOut(Shape):
    """What cannot be together: desserts and limits."""

    kind: Literal["dessert", "limit"]
    name: str
    words: str


class RemedyOut(Shape):
    """What would free it, tried."""

    code: str
    words: str
    feasible: bool


class BuyOut(Shape):
    """Something to buy: what the day takes, what is in the house, and the packs for the rest."""

    ingredient: str
    name: str
    need_g: float
    house_g: float
    buy_g: float
    packs: float | None = Field(description="whole packs; null: no pack is known")
    pack_g: float | None
    pieces: float | None = Field(description="eggs, lemons and the like")


class MiseOut(Shape):
    """What is weighed for a part, before its first step."""

    at: datetime
    dessert: str
    part: str
    lines: list[str]


class MouldsOut(Shape):
    """Moulds of a kind: how many are in use at once at most, and how many there are."""

    vessel: str
    used: int
    have: int | None


class JoinedOut(Shape):
    """A part made once for several desserts."""

    part: str
    desserts: list[str]
    grams: float


class DayOut(Shape):
    """A day's plan, or why there is none."""

    feasible: bool
    steps: list[DayStepOut]
    oven_lines: list[OvenLineOut]
    late_min: int = Field(0, description="by how much the services slip, once the day runs late")
    gap: float | None = Field(description="how far from the best it may be, 0 to 1")
    early_min: int
    warm_min: int = Field(0, description="of them, minutes that food which spoils stands warm")
    turns: int
    busiest_pct: int = Field(0, description="of their hours that the busiest have their hands full")
    chef_early_min: int | None = Field(
        description="waiting in the plan a careful chef would write; null: found none"
    )
    clash: list[ClashOut]
    remedies: list[RemedyOut]
    eggs: float = Field(description="shell eggs to crack for the day")
    buy: list[BuyOut] = Field(default_factory=list)
    mise: list[MiseOut] = Field(default_factory=list, description="in the order of need")
    moulds: list[MouldsOut] = Field(default_factory=list)
    joined: list[JoinedOut] = Field(default_factory=list)
    warnings: list[str]
