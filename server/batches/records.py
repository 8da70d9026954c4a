"""The record that a food-safety plan asks for, and batches going out as files."""

import csv
import io
import json
from collections.abc import Iterator
from datetime import datetime
from typing import Any, Literal
from uuid import UUID

from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from ninja import Query, Router, Schema
from pydantic import AwareDatetime, Field

from batches.book import bare_batch_of, batch_of, batch_out
from batches.clock import course_of, curve_of, is_tempering, safety_of
from batches.models import Batch
from bellcrumb.contract.open.books import CoolingRule, cooled, safe_cell
from bellcrumb.shapes.oven import RuleIn
from bellcrumb.words import closed, say
from kitchen.access import member_of
from shared.heavy import heavy
from shared.shapes import PROBLEMS

router = Router(tags=["batches"])
_MOST_ROWS = 500
_AT_ONCE = 40  # curves worked out in one answer; older batches have no record of their own yet


class RecordRow(Schema):
    """One cook for the record: product, who, temperatures, and what was done about a miss."""

    id: UUID
    at: datetime
    product: str
    version: int
    who: str | None
    simulated: bool
    peak_c: float | None
    pasteurised: bool | None = Field(description="null: no egg at the probe, or no curve")
    rule: str
    cool_rule: RuleIn
    cooled_mid_min: float | None
    cooled_end_min: float | None
    cooled_in_time: bool | None = Field(description="null: not measured to its end")
    missed: bool
    mended: str


def record_of(batch: Batch) -> dict[str, Any]:
    """What a curve says for the record."""
    course = course_of(batch)
    curve = curve_of(batch)
    safe = None if is_tempering(course) else safety_of(course, curve)
    held = RuleIn.model_validate(batch.kitchen.cool_rule)
    rule = CoolingRule(**vars(held))
    # A probe that stayed in while it got cold may be any of the channels.
    curves = [curve, *(curve_of(batch, channel) for channel in (2, 3, 4))]
    downs = [c for each in curves if (c := cooled(each, rule))]
    down = next((c for c in downs if c.complies is not None), downs[0] if downs else None)
    return {
        "pasteurised": safe.meets if safe and curve else None,
        "rule": safe.rule if safe and curve else "",
        "cool_rule": held.model_dump(),
        "cooled": [down.to_mid_min, down.to_end_min, down.complies] if down else None,
    }


def keep_record(batch: Batch) -> dict[str, Any]:
    """Work the record out and keep it on its row."""
    found = record_of(batch)
    Batch.objects.filter(pk=batch.pk).update(record=found)
    return found


class Span(Schema):
    """From when to when."""

    since: AwareDatetime | None = None
    until: AwareDatetime | None = None


def _rows(kitchen_id: UUID, span: Span) -> list[RecordRow]:
    rows = Batch.objects.filter(kitchen=kitchen_id, ended_at__isnull=False, whole=False)
    if span.since:
        rows = rows.filter(started_at__gte=span.since)
    if span.until:
        rows = rows.filter(started_at__lt=span.until)
    page = list(rows.order_by("-started_at").values_list("id", flat=True)[:_MOST_ROWS])
    found, worked_out = [], 0
    batches = Batch.objects.filter(pk__in=page).defer("prediction").order_by("-started_at")
    for batch in batches.select_related("version__part__dessert", "device", "kitchen"):
        record = batch.record
        # Kept before the kitchen's own rule was looked at: judged again by it.
        unruled = record is not None and "cool_rule" not in record and batch.kitchen.cool_rule
        if (record is None or unruled) and worked_out < _AT_ONCE:
            record, worked_out = keep_record(batch), worked_out + 1
        found.append(_row(batch, record or {}))
    return found


def _row(batch: Batch, record: dict[str, Any]) -> RecordRow:
    part = batch.version.part
    mid, end, in_time = record.get("cooled") or [None, None, None]
    pasteurised = record.get("pasteurised")
    name = part.dessert.name if part.name in ("", part.dessert.name) else (
        f"{part.dessert.name}, {part.name}"
    )  # fmt: skip
    return RecordRow(
        id=batch.pk, at=batch.started_at, product=name, version=batch.version.number,
        who=batch.cook_name or None, simulated=bool(batch.device and batch.device.simulated),
        peak_c=None if batch.peak_cc is None else batch.peak_cc / 100, pasteurised=pasteurised,
        rule=record.get("rule", ""), cool_rule=RuleIn.model_validate(record.get("cool_rule") or {}),
        cooled_mid_min=mid, cooled_end_min=end, cooled_in_time=in_time,
        missed=pasteurised is False or in_time is False, mended=batch.mended,
    )  # fmt: skip


@router.get("/k/{kid}/record", response={200: list[RecordRow], **PROBLEMS})
@heavy
def record(request: HttpRequest, kid: UUID, span: Query[Span]) -> list[RecordRow]:
    """The cooking and cooling log of a stretch of time, the newest first."""
    return _rows(member_of(request, kid).kitchen.pk, span)


@router.get("/k/{kid}/record/file", response={200: None, **PROBLEMS})
@heavy
def record_file(request: HttpRequest, kid: UUID, span: Query[Span]) -> HttpResponse:
    """The same as a table."""
    out = io.StringIO()
    table = csv.writer(out)
    table.writerow(say("record.heads").split("|"))
    words = {True: say("record.yes"), False: say("record.no"), None: ""}
    for r in _rows(member_of(request, kid).kitchen.pk, span):
        by = r.cool_rule
        table.writerow([
            r.at.isoformat(timespec="minutes"), safe_cell(r.product), r.version,
            safe_cell(r.who or ""), r.peak_c, words[r.pasteurised], safe_cell(r.rule),
            r.cooled_mid_min, r.cooled_end_min, words[r.cooled_in_time],
            f"{by.from_c:g}/{by.mid_c:g}/{by.end_c:g} degC, {by.mid_min:g}/{by.end_min:g} min",
            safe_cell(r.mended),
        ])  # fmt: skip
    answer = HttpResponse(out.getvalue(), content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = 'attachment; filename="record.csv"'
    return answer


class Mended(Schema):
    """What was done about a miss."""

    words: str = Field(max_length=300)


@router.put("/k/{kid}/batches/{batch_id}/mended", response={200: RecordRow, **PROBLEMS})
def mend(request: HttpRequest, kid: UUID, batch_id: UUID, given: Mended) -> RecordRow:
    """Say what was done: thrown away, cooked again, kept for staff."""
    member = member_of(request, kid)
    batch = bare_batch_of(member, batch_id)
    Batch.objects.filter(pk=batch.pk).update(mended=given.words.strip())
    fresh = bare_batch_of(member, batch_id, "version__part__dessert", "device")
    return _row(fresh, fresh.record or keep_record(fresh))


@router.get("/k/{kid}/batches/{batch_id}/file", response={200: None, **PROBLEMS})
def batch_file(
    request: HttpRequest, kid: UUID, batch_id: UUID, form: Literal["json", "csv"] = "json"
) -> HttpResponse:
    """One batch as JSON, or its curve as a table."""
    batch = batch_of(member_of(request, kid), batch_id)
    if form == "json":
        answer = HttpResponse(_json(batch), content_type="application/json")
    else:
        answer = HttpResponse(_curve(batch), content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="batch.{form}"'
    return answer


def _json(batch: Batch) -> str:
    out = batch_out(batch).model_dump(mode="json")
    out["readings"] = [{"t_s": t, "temp_c": c} for t, c in curve_of(batch)]
    out["events"] = [
        {"kind": e.kind, "step": e.step, "t_s": e.cook_ms / 1000,
         "value": None if e.value is None else float(e.value)}
        for e in batch.events.all()
    ]  # fmt: skip
    out["weights"] = [{"t_s": ms / 1000, "grams": dg / 10}
                      for ms, dg in batch.weights.values_list("cook_ms", "dg")]  # fmt: skip
    return closed(json.dumps(out, ensure_ascii=False))


def _curve(batch: Batch) -> str:
    out = io.StringIO()
    table = csv.writer(out)
    table.writerow(["seconds", "channel", "degC"])
    rows = batch.readings.order_by("cook_ms", "channel").values_list(
        "cook_ms", "channel", "temp_cc"
    )
    for ms, channel, cc in rows.iterator():
        table.writerow([ms / 1000, channel, cc / 100])
    return out.getvalue()


@router.get("/k/{kid}/book/file", response={200: None, **PROBLEMS})
def whole_book(request: HttpRequest, kid: UUID) -> StreamingHttpResponse:
    """Every batch, one JSON object a line, the oldest first."""
    member = member_of(request, kid)
    ids = list(
        Batch.objects.filter(kitchen=member.kitchen)
        .order_by("started_at")
        .values_list("id", flat=True)
    )

    def lines() -> Iterator[str]:
        for batch_id in ids:
            yield _json(batch_of(member, batch_id)) + "\n"

    answer = StreamingHttpResponse(lines(), content_type="application/x-ndjson")
    answer["Content-Disposition"] = 'attachment; filename="book.ndjson"'
    return answer
