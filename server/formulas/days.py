"""A day asked: desserts of the shelf on the kitchen's own rings, ovens and cold."""

from datetime import datetime, timedelta
from typing import Annotated
from uuid import UUID

from ninja import Schema
from ninja.errors import HttpError
from pydantic import AfterValidator, Field, NaiveDatetime

from bellcrumb.contract.open.books import STATIONS, Station
from bellcrumb.errors import CraftError
from bellcrumb.shapes.plan import (
    BeforeIn,
    ColdOfDayIn,
    DayIn,
    MouldsIn,
    OvenOfDayIn,
    OwnMinutesIn,
    PersonIn,
    PinIn,
    ServiceIn,
    StockIn,
    WantedIn,
    of_our_time,
)
from bellcrumb.words import say
from formulas.building import build_given, content_saved, newest_versions
from formulas.models import Dessert
from kitchen.models import Cold, Kitchen, Oven, Price, Ring, Vessel

_MOST_DAYS = 7


# The kitchen's own clock: no zone.
Clock = Annotated[NaiveDatetime, AfterValidator(of_our_time)]


class WantedAsk(Schema):
    """A dessert of the shelf and how many portions of it."""

    dessert_id: UUID
    portions: int = Field(ge=1, le=5000)


class ServiceAsk(Schema):
    """A service: when, and what is served; times are the kitchen's own, without a zone."""

    at: Clock
    name: str = Field(default="", max_length=80)
    items: list[WantedAsk] = Field(min_length=1, max_length=40)


class HoursAsk(Schema):
    """Somebody's hours, the same every day of the plan, in minutes from midnight."""

    name: str = Field(min_length=1, max_length=80)
    from_min: int = Field(ge=0, le=1440)
    to_min: int = Field(ge=0, le=1440)
    break_min: int = Field(default=0, ge=0, le=120)
    may: list[Station] = Field(default_factory=lambda: list(STATIONS), max_length=4)


class StockAsk(Schema):
    """Portions of a dessert that are there already."""

    dessert_id: UUID
    portions: int = Field(ge=0, le=5000)


class DayAsk(Schema):
    """Ask for a plan from ``begins`` to the last service."""

    begins: Clock
    services: list[ServiceAsk] = Field(min_length=1, max_length=12)
    people: list[HoursAsk] = Field(min_length=1, max_length=20)
    mixers: int | None = Field(default=None, ge=1, le=10, description="null: the kitchen's")
    stock: list[StockAsk] = Field(default_factory=list, max_length=60)
    house: str = Field(default="", max_length=4000, description="what is there, a line each")
    pins: list[PinIn] = Field(default_factory=list, max_length=200)
    before: list[BeforeIn] = Field(
        default_factory=list, max_length=2000, description="the plan shown, to be changed little"
    )


def day_given(
    kitchen: Kitchen, asked: DayAsk, own_minutes: list[OwnMinutesIn] | None = None
) -> DayIn:
    """A day as the core's input. Raises CraftError at a field, HttpError 404 for a dessert."""
    ids = {item.dessert_id for service in asked.services for item in service.items}
    ids |= {stock.dessert_id for stock in asked.stock}
    desserts = {d.id: d for d in Dessert.objects.filter(kitchen=kitchen, pk__in=ids)}
    if len(desserts) < len(ids):
        raise HttpError(404, say("formulas.a_dessert_of_the_day_is"))
    builds = {}
    for key, dessert in desserts.items():
        versions = newest_versions(dessert)
        if not versions:
            raise CraftError(
                "services", say("formulas.has_nothing_in_it_yet", dessert=dessert.name)
            )
        builds[key] = build_given(kitchen, versions, content_saved(dessert, versions))
    last = max(service.at for service in asked.services)
    days = max(0, (last.date() - asked.begins.date()).days)
    if days > _MOST_DAYS:
        raise CraftError(
            "begins", say("formulas.a_plan_reaches_days_ahead_at", most_days=_MOST_DAYS)
        )
    people = [
        PersonIn.model_validate({
            "name": p.name, "from": midnight + timedelta(minutes=p.from_min),
            "to": midnight + timedelta(minutes=p.to_min), "break_min": p.break_min, "may": p.may,
        })
        for p in asked.people
        for midnight in (_midnight(asked.begins) + timedelta(days=n) for n in range(days + 1))
        if p.to_min > p.from_min
    ]  # fmt: skip
    if not people:
        raise CraftError("people", say("formulas.somebody_has_to_work_for_more"))
    packs = Price.objects.filter(kitchen=kitchen).values_list("ingredient", "grams")
    return DayIn(
        services=[
            ServiceIn(
                at=s.at,
                name=s.name,
                items=[
                    WantedIn(
                        build=builds[i.dessert_id],
                        portions=i.portions,
                        name=desserts[i.dessert_id].name,
                    )
                    for i in s.items
                ],
            )
            for s in asked.services
        ],
        people=people,
        rings=[ring.name for ring in Ring.objects.filter(kitchen=kitchen)] or ["ring"],
        ovens=[
            OvenOfDayIn(
                name=o.name,
                shelves=o.shelves,
                shelf_length_mm=o.shelf_length_mm,
                shelf_width_mm=o.shelf_width_mm,
            )
            for o in Oven.objects.filter(kitchen=kitchen)
        ]
        or [OvenOfDayIn(name="oven")],
        mixers=[say("formulas.mixer", n=n + 1) for n in range(asked.mixers or kitchen.mixers)],
        cold=[
            ColdOfDayIn(name=c.name, trays=c.trays, blast=c.kind == "blast")
            for c in Cold.objects.filter(kitchen=kitchen)
        ],
        stock=[StockIn(name=desserts[s.dessert_id].name, portions=s.portions) for s in asked.stock],
        moulds=[
            MouldsIn(vessel=str(v.id), count=v.count)
            for v in Vessel.objects.filter(kitchen=kitchen, count__isnull=False)
            if v.count
        ],
        own_minutes=own_minutes or [],
        packs={key: float(grams) for key, grams in packs if grams > 0},
        house=[line for line in asked.house.split("\n") if line.strip()][:300],
        pot_g=kitchen.pot_g,
        bowl_ml=kitchen.bowl_ml,
        now=asked.begins,
        pins=asked.pins,
        before=asked.before,
    )


def _midnight(at: datetime) -> datetime:
    return at.replace(hour=0, minute=0, second=0, microsecond=0)
