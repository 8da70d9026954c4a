"""The book: every batch with what was predicted, measured and judged."""

from datetime import timedelta
from typing import Any, Literal, cast
from uuid import UUID, uuid5

from django.db import transaction
from django.http import HttpRequest
from ninja import File, Router, Schema
from ninja.errors import HttpError
from ninja.files import UploadedFile
from ninja.responses import Status

from batches.clock import (
    cook_ms,
    course_of,
    curve_of,
    doubts_in,
    laid_in,
    plan_of_batch,
    raise_peak,
    safety_of,
)
from batches.models import Batch, Photo, Reading, Verdict
from batches.shapes import (
    BatchOut,
    MadeOfOut,
    PhotoOut,
    Point,
    VerdictConflict,
    VerdictIn,
    VerdictOut,
)
from batches.teaching import teach
from bellcrumb.contract.open.books import FAULTS, Finding, deviation, longest, read_curve, review
from bellcrumb.errors import CraftError
from bellcrumb.shapes import SetClass
from bellcrumb.words import say
from kitchen.access import member_of
from kitchen.models import Member
from shared.heavy import heavy
from shared.shapes import PROBLEMS
from shared.uploads import text_of

router = Router(tags=["batches"])
MOST_CURVE_BYTES = 2_000_000


def bare_batch_of(member: Member, batch_id: UUID, *beside: str) -> Batch:
    """A batch of this kitchen, with what is asked for beside it. Raises HttpError 404."""
    rows = Batch.objects.select_related(*beside) if beside else Batch.objects.all()
    # The prediction is a hundred kilobytes that only its plan is asked of, once.
    found = rows.defer("prediction").filter(kitchen=member.kitchen_id, pk=batch_id).first()
    if not found:
        raise HttpError(404, say("batches.this_batch_is_not_in_the"))
    return found


# What came out, of what went in: less is not all of it, more has its pot in it.
_WEIGHS = (0.4, 1.05)


def batch_of(member: Member, batch_id: UUID) -> Batch:
    """A batch with all its page shows. Raises HttpError 404."""
    return bare_batch_of(member, batch_id, "version__part__dessert", "device", "verdict__by")


def _verdict_out(verdict: Verdict) -> VerdictOut:
    return VerdictOut(
        texture=cast(SetClass, verdict.texture),
        faults=verdict.faults,
        note=verdict.note,
        weighs_g=verdict.weighs_g,
        by=verdict.by.name if verdict.by else None,
        revision=verdict.revision,
    )


def card_of(batch: Batch) -> dict[str, object]:
    """What a row of the book shows of a batch."""
    verdict = getattr(batch, "verdict", None)
    return {
        "id": batch.id,
        "dessert_id": batch.version.part.dessert_id,
        "dessert": batch.version.part.dessert.name,
        "version": batch.version.number,
        "cook": batch.cook_name or None,
        "started_at": batch.started_at,
        "ended_at": batch.ended_at,
        "took_s": cook_ms(batch, batch.ended_at) / 1000 if batch.ended_at else None,
        "peak_c": None if batch.peak_cc is None else batch.peak_cc / 100,
        "predicted_class": batch.predicted_class or None,
        "verdict": _verdict_out(verdict) if verdict else None,
        "whole": batch.whole,
    }


def thinned(points: list[Point], most: int = 1200) -> list[Point]:
    """At most about ``most`` of the points, evenly."""
    stride = max(1, len(points) // most)
    return points[::stride] if stride > 1 else points


def batch_out(batch: Batch) -> BatchOut:
    """A batch whole."""
    course = course_of(batch)
    curve = curve_of(batch)
    safe = safety_of(course, curve)
    findings = []
    if batch.ended_at:
        findings = review(course.plan.steps, course.timings, curve)
        findings += [Finding(f"probe_{d.key}", d.says, "note") for d in doubts_in(course, curve)]
    deviations = []
    for timing in longest(course.timings).values():
        predicted = {"heat": course.plan.heat, "cook": course.plan.cook}.get(timing.key)
        if predicted:
            points = [(p.t_s, p.temp_c) for p in predicted.points]
            found = deviation(points, curve, timing, predicted.reaches_s)
            if found:
                deviations.append(found)
    before = (
        Batch.objects.filter(
            kitchen=batch.kitchen_id,
            version__part=batch.version.part_id,
            whole=batch.whole,
            started_at__lt=batch.started_at,
        )
        .order_by("-started_at")
        .values_list("id", flat=True)[:5]
    )
    return BatchOut.model_validate(
        {
            **card_of(batch),
            "version_id": batch.version_id,
            "lines_text": batch.version.lines_text,
            "time_scale": batch.time_scale,
            "simulated": bool(batch.device and batch.device.simulated),
            "device": batch.device.name if batch.device else None,
            "plan": course.plan,
            "timings": course.timings,
            "rungs": course.rungs,
            "readings": thinned([Point(t_s=t, temp_c=c) for t, c in curve]),
            "findings": findings,
            "deviations": deviations,
            "before": list(before),
            "safe": safe,
            "channels": {
                n: thinned([Point(t_s=t, temp_c=c) for t, c in points])
                for n in (2, 3, 4)
                if (points := curve_of(batch, channel=n))
            },
            "made_of": _made_of(batch),
            "built_into": list(batch.built_into.values_list("id", flat=True)),
            "laid": laid_in(batch, course, curve),
            "mended": batch.mended,
            "photos": photos_of(batch.pk),
        }
    )


def photos_of(batch_id: UUID) -> list[PhotoOut]:
    """The pictures of a batch, without themselves."""
    rows = Photo.objects.filter(batch=batch_id).values_list("id", "width", "height", "by__name")
    return [PhotoOut(id=pk, width=w, height=h, by=by) for pk, w, h, by in rows]


def _made_of(batch: Batch) -> list[MadeOfOut]:
    """The cooks and bakes a built dessert came from, the first one first."""
    rows = batch.made_of.select_related("version__part").order_by("started_at")
    return [
        MadeOfOut(
            id=b.id, part=b.version.part.name, version=b.version.number, started_at=b.started_at,
            guide=plan_of_batch(b.pk).guide,
        )
        for b in rows.defer("prediction")
    ]  # fmt: skip


@router.get("/k/{kid}/batches/{batch_id}", response={200: BatchOut, **PROBLEMS})
def read_batch(request: HttpRequest, kid: UUID, batch_id: UUID) -> BatchOut:
    """One batch."""
    return batch_out(batch_of(member_of(request, kid), batch_id))


@router.put(
    "/k/{kid}/batches/{batch_id}/verdict",
    response={200: BatchOut, 409: VerdictConflict, **PROBLEMS},
)
def judge(request: HttpRequest, kid: UUID, batch_id: UUID, given: VerdictIn) -> Status[Any]:
    """Judge a batch, or change the verdict."""
    member = member_of(request, kid)
    batch = batch_of(member, batch_id)
    unknown = [f for f in given.faults if f not in FAULTS]
    if unknown:
        raise HttpError(422, say("batches.is_no_fault_on_the_list", unknown=unknown[0]))
    went_in_g = course_of(batch).plan.went_in_g
    if given.weighs_g is not None and went_in_g:
        low, high = (share * went_in_g for share in _WEIGHS)
        if not low <= given.weighs_g <= high:
            raise CraftError(
                "weighs_g",
                say("batches.g_went_in_g_is_not", went_in_g=went_in_g, weighs_g=given.weighs_g),
            )
    values = {
        "texture": given.texture,
        "faults": given.faults,
        "note": given.note,
        "weighs_g": given.weighs_g,
        "by": member.user,
    }
    with transaction.atomic():
        verdict = Verdict.objects.select_for_update().filter(batch=batch).first()
        if verdict and verdict.revision != given.revision:
            told = ("texture", "faults", "note", "weighs_g")
            same = all(getattr(verdict, name) == getattr(given, name) for name in told)
            if not same:
                message = say("batches.somebody_judged_this_batch_while_you")
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
    teach(batch)
    return Status(200, batch_out(batch_of(member, batch_id)))


class CurveRead(Schema):
    """What was understood of a logger's file, and how many readings were kept."""

    kept: int
    already_there: int
    time_column: str
    temp_column: str
    unit: Literal["C", "F"]
    said: list[str]


@router.post("/k/{kid}/batches/{batch_id}/curve", response={200: CurveRead, **PROBLEMS})
@heavy
def upload_curve(
    request: HttpRequest, kid: UUID, batch_id: UUID, file: File[UploadedFile]
) -> CurveRead:
    """Lay the curve of any logger into a batch: a table with a time and a temperature.

    Clock times are taken from where they fall in the cook when they do, else from its start. The
    same file again adds nothing.
    """
    member = member_of(request, kid)
    batch = batch_of(member, batch_id)
    found = read_curve(text_of(file, MOST_CURVE_BYTES))
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
    raise_peak(batch, max(row.temp_cc for row in rows))
    return CurveRead(
        kept=kept,
        already_there=len(rows) - kept,
        time_column=found.time_column,
        temp_column=found.temp_column,
        unit=found.unit,
        said=found.said,
    )
