"""Cooking a version and following it live."""

from datetime import UTC, datetime, timedelta
from typing import Annotated, Any
from uuid import UUID

from django.db import transaction
from django.http import HttpRequest
from ninja import Query
from ninja.errors import HttpError

from batches.bakes import refit_now
from batches.begin import begin, parts_made
from batches.book import bare_batch_of, batch_of, batch_out, router, thinned
from batches.clock import (
    Course,
    cook_ms,
    course_of,
    doubts_now,
    moment_of,
    plan_of_batch,
    poured_g,
    raise_peak,
    safety_now,
)
from batches.holding import take
from batches.models import Batch, Event, Reading
from batches.records import keep_record
from batches.shapes import (
    BatchOut,
    ChannelOut,
    EventIn,
    Events,
    LiveOut,
    Point,
    RefusedEvent,
    Start,
)
from batches.state import CookState, state_of
from batches.teaching import teach
from bellcrumb.words import say
from formulas.api import version_of
from formulas.bake_plan import bake_plan_of
from formulas.building import assembly_plan
from formulas.content import Content, check, content_of, formula_of
from formulas.stove import plan_of
from kitchen.access import member_of
from kitchen.models import Member
from shared.now import now as clock_now
from shared.shapes import PROBLEMS

# How far a tablet's clock may be ahead before its events are taken as now.
AHEAD = timedelta(seconds=5)
_PLUGGED_S = 60.0  # a channel silent for so much longer than another is unplugged


@router.post("/k/{kid}/batches", response={200: BatchOut, **PROBLEMS})
def start_batch(request: HttpRequest, kid: UUID, given: Start) -> BatchOut:
    """Start cooking: the version is fixed from now on and its prediction frozen. Sending it twice
    starts one."""
    member = member_of(request, kid)
    if Batch.objects.filter(pk=given.id).exists():
        return batch_out(batch_of(member, given.id))
    version = version_of(member, given.version_id)
    today = given.today.dict(exclude_none=True)
    content = Content.model_validate(content_of(version).dict() | today)
    check(member.kitchen, content)
    if given.place == "build":
        version, plan = assembly_plan(member.kitchen, version.part.dessert)
        content = content_of(version)
    else:
        planned = bake_plan_of if given.place == "oven" else plan_of
        plan = planned(member.kitchen, content, version.part.kind)
    found = formula_of(member.kitchen, content, version.part.kind)
    with transaction.atomic():
        device = take(member.kitchen, given.device_id, "probe", "probe")
        scale = take(member.kitchen, given.scale_id, "scale", "scale")
        if given.time_scale > 1 and not (device and device.simulated):
            raise HttpError(422, say("batches.only_a_simulated_probe_can_run"))
        # The same id at once: the store refuses the second, which is then asked again (above).
        now = clock_now()
        batch = begin(
            member.kitchen, version, member.user, plan, found, now, id=given.id,
            device=device, scale=scale, time_scale=given.time_scale, whole=given.place == "build",
            **_of_day(given, now),
        )  # fmt: skip
        if batch.whole:
            batch.made_of.set(parts_made(batch))
    return batch_out(batch_of(member, given.id))


def _of_day(given: Start, now: datetime) -> dict[str, Any]:
    """The step of a day that a cook is, with that day's clock."""
    if given.for_day is None:
        return {}
    ahead = given.for_day.at.replace(tzinfo=UTC) - now
    seconds = 900 * round(ahead.total_seconds() / 900)  # zones differ by quarters of an hour
    most = 15 * 3600
    return {
        "for_day": given.for_day.id, "for_step": given.for_day.step,
        "day_ahead_s": max(-most, min(most, seconds)),
    }  # fmt: skip


@router.get("/k/{kid}/batches/{batch_id}/live", response={200: LiveOut, **PROBLEMS})
def live(
    request: HttpRequest,
    kid: UUID,
    batch_id: UUID,
    after_ms: Annotated[int, Query(ge=-1, le=10**12)] = -1,
) -> LiveOut:
    """The cook now, with the readings after ``after_ms`` on its clock."""
    return live_out(bare_batch_of(member_of(request, kid), batch_id), after_ms, [])


def live_out(batch: Batch, after_ms: int, refused: list[RefusedEvent]) -> LiveOut:
    """A cook as it stands now, and which of the events just sent were not taken."""
    course = course_of(batch)
    state = state_of(batch.pk)
    with state.lock:
        refit = refit_now(batch, course, state)
        poured = poured_g(batch, course)
        moment = moment_of(course, state, refit, poured)
        safe = safety_now(course, state)
        odd = doubts_now(course, state)
        new = [r for r in state.since(after_ms / 1000) if round(1000 * r[0]) > after_ms]
        last_ms = round(1000 * state.curve[-1][0]) if state.curve else None
        others = _others(batch, course, state)
    return LiveOut.model_validate(
        {
            "server_now": clock_now(),
            "now_s": course.now_s,
            "step": course.current,
            "timings": course.timings,
            "rungs": course.rungs,
            "ended": batch.ended_at is not None,
            "moment": moment,
            "readings": thinned([Point(t_s=t, temp_c=c) for t, c in new]),
            "last_ms": -1 if last_ms is None else last_ms,
            "probe_age_s": None
            if last_ms is None
            else (course.now_s - last_ms / 1000) / batch.time_scale,
            "paused": course.paused,
            "marks": course.marks,
            "safe": safe,
            "others": others,
            "poured_g": poured,
            "refit": refit,
            "probe_doubt": next((d.says for d in odd if d.now), None),
            "refused": refused,
        }
    )


def _others(batch: Batch, course: Course, state: CookState) -> list[ChannelOut]:
    """The last reading of every channel but the first that is still plugged in."""
    rest = {channel: curve for channel, curve in state.curves.items() if channel != 1}
    newest = max((curve[-1][0] for curve in rest.values()), default=0.0)
    return [
        ChannelOut(
            channel=channel,
            temp_c=curve[-1][1],
            age_s=(course.now_s - curve[-1][0]) / batch.time_scale,
        )
        for channel, curve in sorted(rest.items())
        if curve[-1][0] >= newest - _PLUGGED_S * batch.time_scale
    ]


@router.post("/k/{kid}/batches/{batch_id}/events", response={200: LiveOut, **PROBLEMS})
def add_events(request: HttpRequest, kid: UUID, batch_id: UUID, given: Events) -> LiveOut:
    """Record what a cook did, also what was kept back while the server was away. Twice is once.

    Each event is answered for itself: one that cannot be taken holds up none behind it.
    """
    member = member_of(request, kid)
    batch = bare_batch_of(member, batch_id)
    steps = {s.key for s in plan_of_batch(batch.pk).steps}
    refused = []
    for event in given.events:
        wrong = event if isinstance(event, RefusedEvent) else _take(batch, member, event, steps)
        if wrong:
            refused.append(wrong)
    return live_out(bare_batch_of(member, batch_id), -1, refused)


def _free_moment(batch: Batch, moment: int) -> int:
    """The first free millisecond from `moment` on: moves keep the order they came in."""
    taken = set(
        Event.objects.filter(batch=batch, cook_ms__gte=moment, cook_ms__lt=moment + 1000)
        .values_list("cook_ms", flat=True)
    )  # fmt: skip
    return next((at for at in range(moment, moment + 1000) if at not in taken), moment + 1000)


def _take(batch: Batch, member: Member, event: EventIn, steps: set[str]) -> RefusedEvent | None:
    """Keep one event; what is wrong with it otherwise."""
    now = clock_now()
    if event.kind == "step" and event.step not in steps:
        return RefusedEvent(
            id=str(event.id), message=say("batches.there_is_no_step_in_this", step=event.step)
        )
    if event.at > now + timedelta(days=1):
        return RefusedEvent(
            id=str(event.id),
            message=say("batches.this_devices_clock_is_more_than"),
        )
    at = min(event.at, now + AHEAD)
    value = event.value
    if event.kind == "ladle":
        value = float(min(int(value or 0), 200))
    with transaction.atomic():
        kept, made = Event.objects.get_or_create(
            id=event.id,
            defaults={
                "batch": batch,
                "kind": event.kind,
                "step": event.step,
                "cook_ms": _free_moment(batch, cook_ms(batch, at)),
                "value": value,
                "by": member.user,
            },
        )
        if kept.batch_id != batch.pk:
            return RefusedEvent(
                id=str(event.id), message=say("batches.this_move_belongs_to_another_cook")
            )
        if made and event.kind == "typed" and value is not None:
            row = Reading(
                batch=batch, client_id=event.id, at=at, cook_ms=cook_ms(batch, at),
                temp_cc=round(value * 100),
            )  # fmt: skip
            Reading.objects.bulk_create([row], ignore_conflicts=True)
            raise_peak(batch, row.temp_cc)
        if made and event.kind == "end":
            Batch.objects.filter(pk=batch.pk, ended_at__isnull=True).update(
                ended_at=max(at, batch.started_at)
            )
    if made and event.kind == "end":
        teach(batch)
        keep_record(bare_batch_of(member, batch.pk))
    return None
