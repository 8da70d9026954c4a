"""Cooking a version, following it live, judging it, and the book."""

from datetime import UTC, datetime, timedelta
from typing import Annotated, Any, Literal, cast
from uuid import UUID, uuid5

from django.db import IntegrityError, transaction
from django.db.models import Max
from django.http import HttpRequest
from ninja import File, Query, Router, Schema
from ninja.errors import HttpError
from ninja.files import UploadedFile
from ninja.responses import Status

from batches.bakes import refit_now
from batches.clock import (
    Course,
    cook_ms,
    course_of,
    curve_of,
    doubts_of,
    moment_of,
    poured_g,
    safety_of,
)
from batches.models import Batch, Event, Reading, Verdict
from batches.shapes import (
    BatchCard,
    BatchOut,
    ChannelOut,
    DeviationOut,
    Events,
    LiveOut,
    Point,
    SetClass,
    Start,
    VerdictConflict,
    VerdictIn,
    VerdictOut,
)
from bellcrumb.book.curve_file import read_curve
from bellcrumb.book.review import FAULTS, Finding, deviation, longest, review
from bellcrumb.errors import CraftError
from config.shapes import PROBLEMS
from devices.models import Device
from formulas.api import version_of
from formulas.content import Content, check, content_of, formula_of
from formulas.models import Version
from formulas.oven import bake_plan_of
from formulas.stove import plan_of, step_of
from kitchen.access import member_of
from kitchen.models import Member

router = Router(tags=["batches"])
# How far a tablet's clock may be ahead before its events are taken as now.
AHEAD = timedelta(seconds=5)
MOST_CURVE_BYTES = 10_000_000
_RECENT = 24  # readings in which every channel still plugged in is found


def _batch(member: Member, batch_id: UUID) -> Batch:
    found = (
        Batch.objects.select_related(
            "version__part__dessert", "kitchen", "cook", "device", "verdict__by"
        )
        .filter(kitchen=member.kitchen, pk=batch_id)
        .first()
    )
    if not found:
        raise HttpError(404, "This batch is not in the book.")
    return found


@router.post("/k/{kid}/batches", response={200: BatchOut, **PROBLEMS})
def start_batch(request: HttpRequest, kid: UUID, given: Start) -> BatchOut:
    """Start cooking: the version is fixed from now on and its prediction frozen. Sending it twice
    starts one."""
    member = member_of(request, kid, "cook")
    if Batch.objects.filter(pk=given.id).exists():
        return batch_out(_batch(member, given.id))
    version = version_of(member, given.version_id)
    device = None
    if given.device_id:
        device = Device.objects.filter(
            kitchen=member.kitchen, pk=given.device_id, kind="probe"
        ).first()
        if not device:
            raise HttpError(404, "This probe is not in the kitchen (any more).")
        busy = Batch.objects.filter(device=device, ended_at__isnull=True).first()
        if busy:
            raise HttpError(
                422,
                f"{device.name} is in another pot since {busy.started_at:%H:%M} UTC. End that "
                "cook first, or take another probe.",
            )
    scale = None
    if given.scale_id:
        scale = Device.objects.filter(
            kitchen=member.kitchen, pk=given.scale_id, kind="scale"
        ).first()
        if not scale:
            raise HttpError(404, "This scale is not in the kitchen (any more).")
    if given.time_scale > 1 and not (device and device.simulated):
        raise HttpError(422, "Only a simulated probe can run faster than the clock.")
    today = given.today.dict(exclude_none=True)
    content = Content.model_validate(content_of(version).dict() | today)
    check(member.kitchen, content)
    planned = bake_plan_of if given.place == "oven" else plan_of
    plan = planned(member.kitchen, content, version.part.kind)
    found = formula_of(member.kitchen, content, version.part.kind)
    now = datetime.now(UTC)
    try:
        with transaction.atomic():
            Version.objects.filter(pk=version.pk, cooked_at__isnull=True).update(cooked_at=now)
            batch = Batch.objects.create(
                id=given.id,
                kitchen=member.kitchen,
                version=version,
                cook=member.user,
                device=device,
                scale=scale,
                started_at=now,
                time_scale=given.time_scale,
                prediction={
                    "plan": plan.model_dump(mode="json"),
                    "formula": found.model_dump(mode="json", by_alias=True),
                },
            )
    except IntegrityError:
        return batch_out(_batch(member, given.id))
    return batch_out(_batch(member, batch.id))


def _verdict_out(verdict: Verdict) -> VerdictOut:
    return VerdictOut(
        texture=cast(SetClass, verdict.texture),
        faults=verdict.faults,
        note=verdict.note,
        by=verdict.by.name if verdict.by else None,
        revision=verdict.revision,
    )


def _card(batch: Batch, peak_cc: int | None) -> dict[str, object]:
    verdict = getattr(batch, "verdict", None)
    predicted = batch.prediction["formula"]["set"]
    return {
        "id": batch.id,
        "dessert_id": batch.version.part.dessert_id,
        "dessert": batch.version.part.dessert.name,
        "version": batch.version.number,
        "cook": batch.cook.name if batch.cook else None,
        "started_at": batch.started_at,
        "ended_at": batch.ended_at,
        "took_s": cook_ms(batch, batch.ended_at) / 1000 if batch.ended_at else None,
        "peak_c": None if peak_cc is None else peak_cc / 100,
        "predicted_class": predicted["class"] if predicted else None,
        "verdict": _verdict_out(verdict) if verdict else None,
    }


def _thinned(points: list[Point], most: int = 1200) -> list[Point]:
    stride = max(1, len(points) // most)
    return points[::stride] if stride > 1 else points


def batch_out(batch: Batch) -> BatchOut:
    """A batch whole."""
    course = course_of(batch)
    curve = curve_of(batch)
    safe = safety_of(course, curve)
    findings = []
    if batch.ended_at:
        findings = review([step_of(s) for s in course.plan.steps], course.timings, curve)
        findings += [Finding(f"probe_{d.key}", d.says, "note") for d in doubts_of(course, curve)]
    deviations = []
    for timing in longest(course.timings).values():
        predicted = {"heat": course.plan.heat, "cook": course.plan.cook}.get(timing.key)
        if predicted:
            points = [(p.t_s, p.temp_c) for p in predicted.points]
            found = deviation(points, curve, timing, predicted.reaches_s)
            if found:
                deviations.append(DeviationOut(**vars(found)))
    before = (
        Batch.objects.filter(
            kitchen=batch.kitchen_id,
            version__part=batch.version.part_id,
            started_at__lt=batch.started_at,
        )
        .order_by("-started_at")
        .values_list("id", flat=True)[:5]
    )
    return BatchOut.model_validate(
        {
            **_card(batch, round(100 * max(c for _, c in curve)) if curve else None),
            "version_id": batch.version_id,
            "lines_text": batch.version.lines_text,
            "time_scale": batch.time_scale,
            "simulated": bool(batch.device and batch.device.simulated),
            "device": batch.device.name if batch.device else None,
            "plan": course.plan,
            "timings": [vars(t) for t in course.timings],
            "rungs": course.rungs,
            "readings": _thinned([Point(t_s=t, temp_c=c) for t, c in curve]),
            "findings": [vars(f) for f in findings],
            "deviations": deviations,
            "before": list(before),
            "safe": vars(safe) if safe else None,
            "channels": {
                n: _thinned([Point(t_s=t, temp_c=c) for t, c in points])
                for n in (2, 3, 4)
                if (points := curve_of(batch, channel=n))
            },
        }
    )


@router.get("/k/{kid}/batches", response={200: list[BatchCard], **PROBLEMS})
def book(request: HttpRequest, kid: UUID, dessert: UUID | None = None) -> list[BatchCard]:
    """The book: the kitchen's last 200 batches, newest first."""
    member = member_of(request, kid)
    rows = Batch.objects.filter(kitchen=member.kitchen)
    if dessert:
        rows = rows.filter(version__part__dessert=dessert)
    rows = rows.select_related("version__part__dessert", "cook", "verdict__by").annotate(
        peak=Max("readings__temp_cc")
    )
    return [BatchCard.model_validate(_card(b, b.peak)) for b in rows.order_by("-started_at")[:200]]


@router.get("/k/{kid}/batches/{batch_id}", response={200: BatchOut, **PROBLEMS})
def read_batch(request: HttpRequest, kid: UUID, batch_id: UUID) -> BatchOut:
    """One batch."""
    return batch_out(_batch(member_of(request, kid), batch_id))


@router.get("/k/{kid}/batches/{batch_id}/live", response={200: LiveOut, **PROBLEMS})
def live(
    request: HttpRequest, kid: UUID, batch_id: UUID, after_ms: Annotated[int, Query(ge=-1)] = -1
) -> LiveOut:
    """The cook now, with the readings after ``after_ms`` on its clock."""
    batch = _batch(member_of(request, kid), batch_id)
    course = course_of(batch)
    curve = curve_of(batch)
    refit = refit_now(batch, course, curve)
    moment = moment_of(course, curve, refit)
    safe = safety_of(course, curve)
    since = course.timings[-1].entered_s
    odd = doubts_of(course, [r for r in curve if r[0] >= since])
    new = [r for r in curve if round(1000 * r[0]) > after_ms]
    last_ms = round(1000 * curve[-1][0]) if curve else None
    return LiveOut.model_validate(
        {
            "server_now": datetime.now(UTC),
            "now_s": course.now_s,
            "step": course.current,
            "timings": [vars(t) for t in course.timings],
            "rungs": course.rungs,
            "ended": batch.ended_at is not None,
            "moment": vars(moment),
            "readings": _thinned([Point(t_s=t, temp_c=c) for t, c in new]),
            "last_ms": -1 if last_ms is None else last_ms,
            "probe_age_s": None
            if last_ms is None
            else (course.now_s - last_ms / 1000) / batch.time_scale,
            "paused": course.paused,
            "marks": course.marks,
            "safe": vars(safe) if safe else None,
            "others": _others(batch, course),
            "poured_g": poured_g(batch, course),
            "refit": refit,
            "probe_doubt": next((d.says for d in odd if d.now), None),
        }
    )


def _others(batch: Batch, course: Course) -> list[ChannelOut]:
    """The last reading of every channel but the first."""
    rows = batch.readings.exclude(channel=1).order_by("-cook_ms", "-id")[:_RECENT]
    last: dict[int, Reading] = {}
    for row in rows:
        last.setdefault(row.channel, row)
    return [
        ChannelOut(
            channel=channel,
            temp_c=row.temp_cc / 100,
            age_s=(course.now_s - row.cook_ms / 1000) / batch.time_scale,
        )
        for channel, row in sorted(last.items())
    ]


@router.post("/k/{kid}/batches/{batch_id}/events", response={200: LiveOut, **PROBLEMS})
def add_events(request: HttpRequest, kid: UUID, batch_id: UUID, given: Events) -> LiveOut:
    """Record what a cook did, also what was kept back while the server was away. Twice is once."""
    member = member_of(request, kid, "cook")
    batch = _batch(member, batch_id)
    steps = {s["key"] for s in batch.prediction["plan"]["steps"]}
    now = datetime.now(UTC)
    for event in given.events:
        if event.kind == "step" and event.step not in steps:
            raise HttpError(422, f"There is no step “{event.step}” in this cook.")
        if event.at > now + timedelta(days=1):
            raise HttpError(422, "This device's clock is more than a day ahead. Set it right.")
        at = min(event.at, now) if event.at > now + AHEAD else event.at
        value = event.value
        if event.kind == "ladle":
            value = float(min(int(value or 0), 200))
        with transaction.atomic():
            _, made = Event.objects.get_or_create(
                id=event.id,
                defaults={
                    "batch": batch,
                    "kind": event.kind,
                    "step": event.step,
                    "cook_ms": cook_ms(batch, at),
                    "value": value,
                    "by": member.user,
                },
            )
            if made and event.kind == "typed" and value is not None:
                Reading.objects.get_or_create(
                    client_id=event.id,
                    defaults={
                        "batch": batch,
                        "at": at,
                        "cook_ms": cook_ms(batch, at),
                        "temp_cc": round(value * 100),
                    },
                )
            if made and event.kind == "end" and batch.ended_at is None:
                batch.ended_at = max(at, batch.started_at)
                batch.save(update_fields=["ended_at"])
    return live(request, kid, batch_id)


@router.put(
    "/k/{kid}/batches/{batch_id}/verdict",
    response={200: BatchOut, 409: VerdictConflict, **PROBLEMS},
)
def judge(request: HttpRequest, kid: UUID, batch_id: UUID, given: VerdictIn) -> Status[Any]:
    """Judge a batch, or change the verdict."""
    member = member_of(request, kid, "cook")
    batch = _batch(member, batch_id)
    unknown = [f for f in given.faults if f not in FAULTS]
    if unknown:
        raise HttpError(422, f"“{unknown[0]}” is no fault on the list.")
    values = {
        "texture": given.texture,
        "faults": given.faults,
        "note": given.note,
        "by": member.user,
    }
    with transaction.atomic():
        verdict = Verdict.objects.select_for_update().filter(batch=batch).first()
        if verdict and verdict.revision != given.revision:
            same = (verdict.texture, verdict.faults, verdict.note) == (
                given.texture,
                given.faults,
                given.note,
            )
            if not same:
                message = "Somebody judged this batch while you were writing. Both are kept."
                return Status(
                    409, VerdictConflict(message=message, mine=given, theirs=_verdict_out(verdict))
                )
        elif verdict:
            for field, value in values.items():
                setattr(verdict, field, value)
            verdict.revision += 1
            verdict.save()
        else:
            Verdict.objects.create(batch=batch, **values)
    return Status(200, batch_out(_batch(member, batch_id)))


class CurveRead(Schema):
    """What was understood of a logger's file, and how many readings were kept."""

    kept: int
    already_there: int
    time_column: str
    temp_column: str
    unit: Literal["C", "F"]
    said: list[str]


@router.post("/k/{kid}/batches/{batch_id}/curve", response={200: CurveRead, **PROBLEMS})
def upload_curve(
    request: HttpRequest, kid: UUID, batch_id: UUID, file: File[UploadedFile]
) -> CurveRead:
    """Lay the curve of any logger into a batch: a table with a time and a temperature.

    Clock times are taken from where they fall in the cook when they do, else from its start. The
    same file again adds nothing.
    """
    member = member_of(request, kid, "cook")
    batch = _batch(member, batch_id)
    if (file.size or 0) > MOST_CURVE_BYTES:
        raise CraftError("file", "At most 10 MB: a curve is smaller than that.")
    found = read_curve(file.read().decode("utf-8", errors="replace"))
    offset = 0.0
    if found.began is not None and found.began.tzinfo is not None:
        offset = (found.began - batch.started_at).total_seconds()
    if not 0 <= offset <= 86_400:
        offset = 0.0
    rows = []
    for t, c in found.points:
        at = batch.started_at + timedelta(seconds=offset + t)
        ms = cook_ms(batch, at)
        rows.append(
            Reading(
                batch=batch,
                client_id=uuid5(batch.id, f"{ms} {c:.2f}"),
                at=at,
                cook_ms=ms,
                temp_cc=round(c * 100),
            )
        )
    before = batch.readings.count()
    Reading.objects.bulk_create(rows, ignore_conflicts=True, batch_size=1000)
    kept = batch.readings.count() - before
    return CurveRead(
        kept=kept,
        already_there=len(rows) - kept,
        time_column=found.time_column,
        temp_column=found.temp_column,
        unit=found.unit,
        said=found.said,
    )
