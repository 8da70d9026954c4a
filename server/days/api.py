"""Beginning a day, ticking it off, planning it again from now on, and keeping what came of it."""

from datetime import datetime
from typing import Literal
from uuid import UUID

from django.db import IntegrityError, transaction
from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema
from ninja.errors import HttpError
from pydantic import Field

from bellcrumb.contract.open.planning import plan_of
from bellcrumb.errors import CraftError
from bellcrumb.shapes.plan import BeforeIn, DayOut, PinIn
from bellcrumb.words import say
from days.calendar import calendar
from days.files import DayFile, DayRead, file_of, read_file
from days.models import RunningDay, Tick, UsualDay
from days.own import own_minutes
from days.running import (
    MovedOut,
    OpensOut,
    before_of,
    changes,
    dumped,
    facts_of,
    opens_of,
    pins_of,
    shown,
    ticks_of,
)
from formulas.days import Clock, DayAsk, day_given
from formulas.models import Dessert
from kitchen.access import member_of, pantry_of, vessels_of
from kitchen.models import Kitchen
from kitchen.reader import units_of
from shared.heavy import heavy
from shared.now import now as clock_now
from shared.shapes import PROBLEMS

router = Router(tags=["days"])
_MOST_TICKS = 2000
_MOST_USUAL = 40
_LISTED = 60


class DayBegin(Schema):
    """Begin a day; ``id`` is made by the client, so that sending it twice begins one."""

    id: UUID
    ask: DayAsk


class TickAsk(Schema):
    """Somebody begins a step, is done with it, or takes it back; ``at`` is the kitchen's clock."""

    id: UUID
    key: str = Field(min_length=1, max_length=300)
    kind: Literal["begin", "done", "undo"]
    at: Clock


class Ticks(Schema):
    """Ticks, also those kept back while the server was away."""

    ticks: list[TickAsk] = Field(min_length=1, max_length=200)


class Again(Schema):
    """Plan the rest again from ``at`` on, with these pins."""

    at: Clock
    pins: list[PinIn] = Field(default_factory=list, max_length=200)
    before: list[BeforeIn] | None = Field(
        default=None, max_length=2000, description="the plan to go back to; null: the present one"
    )


class DayRunning(Schema):
    """A day as it stands; ``desserts`` maps the names in its steps to the shelf."""

    id: UUID
    ask: DayAsk
    pins: list[PinIn]
    plan: DayOut
    desserts: dict[str, UUID]
    begun_at: datetime
    ended_at: datetime | None
    revision: int
    changes: list[MovedOut]
    opens: dict[str, OpensOut]


class NextStep(Schema):
    """The next thing to do."""

    key: str
    what: str
    who: str | None
    start: datetime
    state: str


class DayCard(Schema):
    """A day in the list: how much is done, and while it runs the next three things."""

    id: UUID
    begun_at: datetime
    ended_at: datetime | None
    first_service: datetime
    steps: int
    done: int
    next: list[NextStep]


def _find(kitchen: Kitchen, day_id: UUID) -> RunningDay:
    found = RunningDay.objects.filter(kitchen=kitchen, pk=day_id).first()
    if not found:
        raise HttpError(404, say("days.this_day_is_not_in_the"))
    return found


def _out(day: RunningDay, moved: list[MovedOut] | None = None) -> DayRunning:
    plan = shown(day)
    return DayRunning(
        id=day.pk,
        ask=DayAsk.model_validate(day.asked),
        pins=[PinIn.model_validate(p) for p in day.pins],
        plan=plan,
        opens=opens_of(day, plan),
        desserts=day.desserts,
        begun_at=day.begun_at,
        ended_at=day.ended_at,
        revision=day.revision,
        changes=moved or [],
    )


@router.post("/k/{kid}/day/plan", response={200: DayOut, **PROBLEMS})
@heavy
def plan_day(request: HttpRequest, kid: UUID, given: DayAsk) -> DayOut:
    """A plan for a day, back from its services; nothing is saved."""
    kitchen = member_of(request, kid).kitchen
    asked = day_given(kitchen, given, own_minutes(kitchen))
    return plan_of(asked, pantry_of(kitchen), vessels_of(kitchen))


@router.post("/k/{kid}/day/read", response={200: DayRead, **PROBLEMS})
def read_day(request: HttpRequest, kid: UUID, given: DayFile) -> DayRead:
    """A day from a file, as this kitchen asks it; nothing is saved."""
    return read_file(given, member_of(request, kid).kitchen)


@router.post("/k/{kid}/day/file", response={200: DayFile, **PROBLEMS})
def write_day(request: HttpRequest, kid: UUID, given: DayAsk) -> DayFile:
    """A day that is asked, as a file."""
    return file_of(given, member_of(request, kid).kitchen)


class UsualOut(Schema):
    """A day written down to be asked again."""

    id: UUID
    name: str
    file: DayFile


class UsualIn(Schema):
    """Write a day down under a name."""

    name: str = Field(min_length=1, max_length=80)
    file: DayFile


def _usual(kitchen: Kitchen) -> list[UsualOut]:
    return [
        UsualOut(id=row.pk, name=row.name, file=DayFile.model_validate(row.file))
        for row in UsualDay.objects.filter(kitchen=kitchen)
    ]


@router.get("/k/{kid}/day/usual", response={200: list[UsualOut], **PROBLEMS})
def usual_days(request: HttpRequest, kid: UUID) -> list[UsualOut]:
    """The days this kitchen has written down."""
    return _usual(member_of(request, kid).kitchen)


@router.put("/k/{kid}/day/usual/{usual_id}", response={200: list[UsualOut], **PROBLEMS})
def keep_usual(request: HttpRequest, kid: UUID, usual_id: UUID, given: UsualIn) -> list[UsualOut]:
    """Write a day down, or change it; the id is made by the client."""
    kitchen = member_of(request, kid).kitchen
    if UsualDay.objects.filter(pk=usual_id).exclude(kitchen=kitchen).exists():
        raise HttpError(404, say("days.there_is_no_such_day_for"))
    if UsualDay.objects.filter(kitchen=kitchen).exclude(pk=usual_id).count() >= _MOST_USUAL:
        raise HttpError(422, say("days.a_kitchen_writes_down_days_at", most_usual=_MOST_USUAL))
    try:
        with transaction.atomic():
            UsualDay.objects.update_or_create(
                id=usual_id,
                kitchen=kitchen,
                defaults={
                    "name": given.name.strip() or say("days.a_day"),
                    "file": given.file.model_dump(mode="json"),
                },
            )
    except IntegrityError:
        raise CraftError(
            "name", say("days.there_is_a_day_called_already", given=given.name)
        ) from None
    return _usual(kitchen)


@router.delete("/k/{kid}/day/usual/{usual_id}", response={200: list[UsualOut], **PROBLEMS})
def drop_usual(request: HttpRequest, kid: UUID, usual_id: UUID) -> list[UsualOut]:
    """Strike a written-down day out."""
    kitchen = member_of(request, kid).kitchen
    UsualDay.objects.filter(kitchen=kitchen, pk=usual_id).delete()
    return _usual(kitchen)


@router.post("/k/{kid}/days", response={200: DayRunning, **PROBLEMS})
@heavy
def begin_day(request: HttpRequest, kid: UUID, given: DayBegin) -> DayRunning:
    """Begin a day: its plan is kept, and what happens is ticked into it from now on."""
    member = member_of(request, kid)
    there = RunningDay.objects.filter(kitchen=member.kitchen, pk=given.id).first()
    if there:
        return _out(there)
    asked = day_given(member.kitchen, given.ask, own_minutes(member.kitchen))
    plan = plan_of(asked, pantry_of(member.kitchen), vessels_of(member.kitchen))
    if not plan.feasible:
        raise CraftError("ask", say("days.this_day_cannot_be_done_so"))
    ids = {i.dessert_id for s in given.ask.services for i in s.items}
    names = Dessert.objects.filter(kitchen=member.kitchen, pk__in=ids).values_list("name", "id")
    try:
        with transaction.atomic():
            day = RunningDay.objects.create(
                id=given.id,
                kitchen=member.kitchen,
                by=member.user,
                asked=given.ask.model_dump(mode="json", exclude={"before"}),
                pins=[p.model_dump(mode="json") for p in given.ask.pins],
                plan=dumped(plan),
                begun_plan=dumped(plan),
                desserts={name: str(pk) for name, pk in names},
                begun_at=clock_now(),
            )
    except IntegrityError:
        return _out(_find(member.kitchen, given.id))  # it arrived twice at once
    return _out(day)


@router.get("/k/{kid}/days", response={200: list[DayCard], **PROBLEMS})
def days(request: HttpRequest, kid: UUID, running: bool = False) -> list[DayCard]:
    """The days of the kitchen, the newest first; ``running`` only those that are not over."""
    rows = RunningDay.objects.filter(kitchen=member_of(request, kid).kitchen)
    if running:
        rows = rows.filter(ended_at__isnull=True)
    return [_card(day) for day in rows.prefetch_related("ticks")[:_LISTED]]


def _card(day: RunningDay) -> DayCard:
    plan = shown(day)
    waiting = [s for s in plan.steps if s.state != "done"]
    return DayCard(
        id=day.pk,
        begun_at=day.begun_at,
        ended_at=day.ended_at,
        first_service=min(s["at"] for s in day.asked["services"]),
        steps=len(plan.steps),
        done=len(plan.steps) - len(waiting),
        next=[NextStep(key=s.key, what=s.what, who=s.who, start=s.start, state=s.state)
              for s in waiting[:3]] if day.ended_at is None else [],
    )  # fmt: skip


@router.get("/k/{kid}/days/{day_id}", response={200: DayRunning, **PROBLEMS})
def one_day(request: HttpRequest, kid: UUID, day_id: UUID) -> DayRunning:
    """A day as it stands."""
    return _out(_find(member_of(request, kid).kitchen, day_id))


@router.post("/k/{kid}/days/{day_id}/ticks", response={200: DayRunning, **PROBLEMS})
def tick_day(request: HttpRequest, kid: UUID, day_id: UUID, given: Ticks) -> DayRunning:
    """Record what was begun and what is over. Twice is once; a step nobody planned is left out."""
    member = member_of(request, kid)
    day = _find(member.kitchen, day_id)
    known = {step["key"] for step in day.plan["steps"]}
    rows = [
        Tick(
            client_id=t.id,
            day=day,
            key=t.key,
            kind=t.kind,
            at=t.at.isoformat()[:19],
            by=member.user,
        )
        for t in given.ticks
        if t.key in known
    ]
    if day.ticks.count() + len(rows) > _MOST_TICKS:
        raise HttpError(422, say("days.no_day_has_so_many_ticks"))
    Tick.objects.bulk_create(rows, ignore_conflicts=True)
    return _out(_find(member.kitchen, day_id))


@router.post("/k/{kid}/days/{day_id}/again", response={200: DayRunning, **PROBLEMS})
@heavy
def plan_again(request: HttpRequest, kid: UUID, day_id: UUID, given: Again) -> DayRunning:
    """Plan the rest of a day from now on: what has begun stays where it is."""
    member = member_of(request, kid)
    day = _find(member.kitchen, day_id)
    if day.ended_at:
        raise HttpError(422, say("days.this_day_is_over"))
    before = shown(day)
    day.pins = [p.model_dump(mode="json") for p in given.pins]
    asked = day_given(member.kitchen, DayAsk.model_validate(day.asked), own_minutes(member.kitchen))
    begins = asked.now
    plan = plan_of(
        asked.model_copy(
            update={
                "at": max(given.at, begins), "pins": pins_of(day), "ticks": ticks_of(day),
                "before": before_of(day) if given.before is None else given.before,
            }
        ),
        pantry_of(member.kitchen), vessels_of(member.kitchen),
    )  # fmt: skip
    if not plan.feasible:
        said = plan.clash[0].words if plan.clash else say("days.there_is_not_enough_time_left")
        raise CraftError("pins" if given.pins else "at", said)
    with transaction.atomic():
        locked = RunningDay.objects.select_for_update().get(pk=day.pk)
        locked.plan, locked.pins, locked.revision = dumped(plan), day.pins, locked.revision + 1
        locked.save(update_fields=("plan", "pins", "revision"))
    after = shown(locked)
    return _out(locked, changes(before, after))


@router.post("/k/{kid}/days/{day_id}/end", response={200: DayRunning, **PROBLEMS})
def end_day(request: HttpRequest, kid: UUID, day_id: UUID) -> DayRunning:
    """End a day. It is kept, planned against real."""
    day = _find(member_of(request, kid).kitchen, day_id)
    RunningDay.objects.filter(pk=day.pk, ended_at__isnull=True).update(ended_at=clock_now())
    return _out(_find(day.kitchen, day_id))


@router.get("/k/{kid}/days/{day_id}/file", response={200: DayFile, **PROBLEMS})
def day_file(request: HttpRequest, kid: UUID, day_id: UUID) -> DayFile:
    """A begun day as a file, with its plan and what was ticked."""
    day = _find(member_of(request, kid).kitchen, day_id)
    return file_of(DayAsk.model_validate(day.asked), day.kitchen, day)


@router.get("/k/{kid}/days/{day_id}/calendar", response={200: None, **PROBLEMS})
def day_calendar(request: HttpRequest, kid: UUID, day_id: UUID) -> HttpResponse:
    """The steps still to be done as a calendar file."""
    day = _find(member_of(request, kid).kitchen, day_id)
    answer = HttpResponse(
        calendar(day, shown(day), clock_now(), units_of(request)), content_type="text/calendar"
    )
    answer["Content-Disposition"] = 'attachment; filename="day.ics"'
    return answer


class StepTimes(Schema):
    """A step as it was planned at first and as it came."""

    key: str
    what: str
    planned_start: datetime
    planned_min: float
    real_start: datetime | None
    real_min: float | None


@router.get("/k/{kid}/days/{day_id}/times", response={200: list[StepTimes], **PROBLEMS})
def day_times(request: HttpRequest, kid: UUID, day_id: UUID) -> list[StepTimes]:
    """Planned against real, step by step."""
    day = _find(member_of(request, kid).kitchen, day_id)
    facts, found = facts_of(day), []
    for step in DayOut.model_validate(day.begun_plan).steps:
        fact = facts.get(step.key)
        began = datetime.fromisoformat(fact.began) if fact else None
        ended = datetime.fromisoformat(fact.ended) if fact and fact.ended else None
        found.append(
            StepTimes(
                key=step.key, what=step.what, planned_start=step.start,
                planned_min=(step.end - step.start).total_seconds() / 60, real_start=began,
                real_min=(ended - began).total_seconds() / 60 if ended and began else None,
            )
        )  # fmt: skip
    return found
