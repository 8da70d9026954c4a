"""A day as a file: what was asked, by the names of its desserts: another kitchen can read it."""

from typing import Any, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field

from bellcrumb.shapes.plan import DayOut
from days.models import RunningDay
from formulas.days import Clock, DayAsk, HoursAsk, ServiceAsk, StockAsk, WantedAsk
from formulas.models import Dessert
from kitchen.models import Kitchen

FORMAT: Literal["bell-crumb-day"] = "bell-crumb-day"


class FileItem(Schema):
    """A dessert by its name, and how many portions."""

    dessert: str = Field(min_length=1, max_length=120)
    portions: int = Field(ge=1, le=5000)


class FileStock(Schema):
    """Portions of a dessert that are there already."""

    dessert: str = Field(min_length=1, max_length=120)
    portions: int = Field(ge=0, le=5000)


class FileService(Schema):
    """A service and what is served."""

    at: Clock
    name: str = Field(default="", max_length=80)
    items: list[FileItem] = Field(min_length=1, max_length=40)


class FileTick(Schema):
    """What was ticked when."""

    key: str
    kind: str
    at: str


class DayFile(Schema):
    """A day written down. ``plan`` and ``ticks`` are to be read; taken in, it is planned anew."""

    format: Literal["bell-crumb-day"] = FORMAT
    begins: Clock
    services: list[FileService] = Field(min_length=1, max_length=12)
    people: list[HoursAsk] = Field(min_length=1, max_length=20)
    mixers: int | None = Field(default=None, ge=1, le=10, description="null: those of the kitchen")
    stock: list[FileStock] = Field(default_factory=list, max_length=60)
    house: str = Field(default="", max_length=4000)
    plan: dict[str, Any] | None = None
    ticks: list[FileTick] = Field(default_factory=list, max_length=4000)


class NamedItem(Schema):
    """A dessert of this kitchen."""

    id: UUID
    name: str


class DayRead(Schema):
    """A file understood: what to ask, and the desserts that are not in this kitchen."""

    ask: DayAsk | None = Field(description="null: none of its desserts is here")
    names: list[NamedItem]
    missing: list[str]


def file_of(ask: DayAsk, kitchen: Kitchen, day: RunningDay | None = None) -> DayFile:
    """A day as a file. ``day`` adds its plan and what was ticked."""
    ids = {i.dessert_id for s in ask.services for i in s.items} | {s.dessert_id for s in ask.stock}
    names = dict(Dessert.objects.filter(kitchen=kitchen, pk__in=ids).values_list("id", "name"))
    services = [
        FileService(
            at=s.at, name=s.name,
            items=[FileItem(dessert=names[i.dessert_id], portions=i.portions)
                   for i in s.items if i.dessert_id in names],
        )
        for s in ask.services if any(i.dessert_id in names for i in s.items)
    ]  # fmt: skip
    return DayFile(
        begins=ask.begins, services=services, people=ask.people, mixers=ask.mixers,
        stock=[FileStock(dessert=names[s.dessert_id], portions=s.portions)
               for s in ask.stock if s.dessert_id in names],
        house=ask.house,
        plan=DayOut.model_validate(day.plan).model_dump(mode="json") if day else None,
        ticks=[FileTick(key=t.key, kind=t.kind, at=t.at) for t in day.ticks.all()] if day else [],
    )  # fmt: skip


def read_file(file: DayFile, kitchen: Kitchen) -> DayRead:
    """A file as this kitchen asks it: its desserts are found by their names."""
    wanted = {i.dessert for s in file.services for i in s.items} | {s.dessert for s in file.stock}
    rows = Dessert.objects.filter(kitchen=kitchen, name__in=wanted).values_list("name", "id")
    here = {name.lower(): pk for name, pk in rows}
    services = [
        ServiceAsk(
            at=s.at, name=s.name,
            items=[WantedAsk(dessert_id=here[i.dessert.lower()], portions=i.portions)
                   for i in s.items if i.dessert.lower() in here],
        )
        for s in file.services if any(i.dessert.lower() in here for i in s.items)
    ]  # fmt: skip
    ask = None
    if services:
        ask = DayAsk(
            begins=file.begins, services=services, people=file.people, mixers=file.mixers,
            stock=[StockAsk(dessert_id=here[s.dessert.lower()], portions=s.portions)
                   for s in file.stock if s.dessert.lower() in here],
            house=file.house,
        )  # fmt: skip
    names = [NamedItem(id=pk, name=name) for name, pk in rows]
    return DayRead(ask=ask, names=names, missing=sorted(n for n in wanted if n.lower() not in here))
