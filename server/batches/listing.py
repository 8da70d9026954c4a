"""The book as it is read: found by what is wanted, and a dessert's batches as a control chart."""

from collections import Counter
from datetime import date, datetime
from typing import Annotated, Literal
from uuid import UUID

from django.db.models import Q, QuerySet
from django.http import HttpRequest
from ninja import Query, Schema
from ninja.errors import HttpError
from pydantic import AwareDatetime, Field

from batches.book import card_of, router
from batches.clock import course_of, curve_of
from batches.holding import DAY
from batches.models import Batch
from batches.shapes import BatchCard, Point
from bellcrumb.contract.explains import judged_s
from bellcrumb.contract.open.books import Limits, limits, longest
from bellcrumb.shapes import SetClass
from bellcrumb.words import say
from formulas.models import Dessert
from kitchen.access import member_of
from kitchen.models import Kitchen
from shared.now import now as clock_now
from shared.shapes import PROBLEMS

_CHARTED = 200


class BookFilter(Schema):
    """Which batches: by words in the dessert's name, the cook's or the note, by what came out, a
    fault, whether it was judged, and from when to when."""

    search: str = Field(default="", max_length=80)
    texture: SetClass | Literal[""] = ""
    fault: str = Field(default="", max_length=40)
    judged: Literal["", "yes", "no"] = ""
    cook: str = Field(default="", max_length=80, description="who cooked it, the whole name")
    oven: str = Field(default="", max_length=60, description="the oven or ring it was in or on")
    family: str = Field(default="", max_length=80, description="the family by its name")
    since: AwareDatetime | None = None
    until: AwareDatetime | None = None

    def of(self, rows: QuerySet[Batch]) -> QuerySet[Batch]:
        """The rows that are wanted."""
        for word in self.search.split()[:8]:
            rows = rows.filter(
                Q(version__part__dessert__name__icontains=word)
                | Q(cook_name__icontains=word)
                | Q(verdict__note__icontains=word)
            )
        if self.texture:
            rows = rows.filter(verdict__texture=self.texture)
        if self.fault:
            rows = rows.filter(verdict__faults__contains=[self.fault])
        if self.judged:
            rows = rows.filter(verdict__isnull=self.judged == "no")
        if self.cook:
            rows = rows.filter(cook_name=self.cook)
        if self.oven:
            rows = rows.filter(place_name=self.oven)
        if self.family:
            rows = rows.filter(family_name=self.family)
        if self.since:
            rows = rows.filter(started_at__gte=self.since)
        if self.until:
            rows = rows.filter(started_at__lt=self.until)
        return rows


@router.get("/k/{kid}/batches", response={200: list[BatchCard], **PROBLEMS})
def book(
    request: HttpRequest,
    kid: UUID,
    wanted: Query[BookFilter],
    dessert: UUID | None = None,
    going: bool = False,
    before: AwareDatetime | None = None,
    take: Annotated[int, Query(ge=1, le=200)] = 200,
) -> list[BatchCard]:
    """The book, newest first, a stretch at a time: ``before`` is when the last one read started.
    ``going``: only the cooks that go on now."""
    member = member_of(request, kid)
    rows = wanted.of(Batch.objects.filter(kitchen=member.kitchen))
    if dessert:
        rows = rows.filter(version__part__dessert=dessert)
    if going:
        rows = rows.filter(ended_at__isnull=True, started_at__gte=clock_now() - DAY)
    if before:
        rows = rows.filter(started_at__lt=before)
    # Ids first: the page is found in the index, and only its rows are read, without predictions.
    page = list(rows.order_by("-started_at").values_list("id", flat=True)[:take])
    found = (
        Batch.objects.filter(pk__in=page)
        .select_related("version__part__dessert", "verdict__by")
        .only(
            "id", "cook_name", "started_at", "ended_at", "time_scale", "peak_cc",
            "predicted_class", "whole", "version__number", "version__part__dessert__name",
            "verdict", "verdict__texture", "verdict__faults", "verdict__note", "verdict__revision",
            "verdict__by__name",
        )
        .order_by("-started_at")
    )  # fmt: skip
    return [BatchCard.model_validate(card_of(b)) for b in found]


class ChartPoint(Schema):
    """One batch of a dessert: its version, what came out (S is the middle of its class) and how hot
    it was."""

    id: UUID
    at: datetime
    version: int
    texture: SetClass | None
    set_s: float | None
    peak_c: float | None
    faults: list[str]


class FaultWeek(Schema):
    """How often a fault was ticked in the week that begins on a Monday."""

    week: date
    fault: str
    count: int


class ChartOut(Schema):
    """A dessert's batches, the oldest first."""

    points: list[ChartPoint]
    set_limits: Limits | None
    peak_limits: Limits | None
    faults: list[FaultWeek]


def _latest_of(kitchen: Kitchen, dessert_id: UUID, most: int) -> QuerySet[Batch]:
    """The latest ended batches of a dessert's parts. Raises HttpError 404.

    Their ids first: a page of them costs the same in a long book.
    """
    if not Dessert.objects.filter(kitchen=kitchen, pk=dessert_id).exists():
        raise HttpError(404, say("batches.this_dessert_is_not_in_the"))
    rows = Batch.objects.filter(
        kitchen=kitchen, version__part__dessert=dessert_id, ended_at__isnull=False, whole=False
    ).order_by("-started_at")
    page = list(rows.values_list("id", flat=True)[:most])
    return Batch.objects.filter(pk__in=page).select_related("version", "verdict")


@router.get("/k/{kid}/desserts/{dessert_id}/chart", response={200: ChartOut, **PROBLEMS})
def chart(request: HttpRequest, kid: UUID, dessert_id: UUID) -> ChartOut:
    """The latest batches of a dessert as a control chart, with its faults by the week."""
    kitchen = member_of(request, kid).kitchen
    found = (
        _latest_of(kitchen, dessert_id, _CHARTED)
        .only("id", "started_at", "peak_cc", "version__number", "verdict__texture",
              "verdict__faults")
        .order_by("started_at")
    )  # fmt: skip
    points, weeks = [], Counter[tuple[date, str]]()
    for batch in found:
        verdict = getattr(batch, "verdict", None)
        faults = list(verdict.faults) if verdict else []
        day = batch.started_at.date()
        monday = date.fromordinal(day.toordinal() - day.weekday())
        weeks.update((monday, fault) for fault in faults)
        points.append(
            ChartPoint(
                id=batch.pk, at=batch.started_at, version=batch.version.number,
                texture=verdict.texture if verdict else None,
                set_s=judged_s(verdict.texture) if verdict else None,
                peak_c=None if batch.peak_cc is None else batch.peak_cc / 100, faults=faults,
            )
        )  # fmt: skip
    return ChartOut(
        points=points,
        set_limits=limits([p.set_s for p in points if p.set_s is not None]),
        peak_limits=limits([p.peak_c for p in points if p.peak_c is not None]),
        faults=[FaultWeek(week=week, fault=fault, count=n)
                for (week, fault), n in sorted(weeks.items())],
    )  # fmt: skip


class CurveOf(Schema):
    """A batch's curve in its deciding step, thinned, from when that step began."""

    id: UUID
    at: datetime
    version: int
    texture: SetClass | None
    faults: list[str]
    best: bool
    points: list[Point]


_OVER = 12
_THIN = 80


@router.get("/k/{kid}/desserts/{dessert_id}/curves", response={200: list[CurveOf], **PROBLEMS})
def curves(request: HttpRequest, kid: UUID, dessert_id: UUID) -> list[CurveOf]:
    """The latest curves of a dessert over each other, from the step that decides it; the best one
    is the newest without a fault that came out as its version was predicted to."""
    kitchen = member_of(request, kid).kitchen
    found = _latest_of(kitchen, dessert_id, _OVER)
    out = []
    for batch in found.defer("prediction").order_by("-started_at"):
        points = _deciding(batch)
        if len(points) >= 4:
            verdict = getattr(batch, "verdict", None)
            out.append(
                CurveOf(
                    id=batch.pk, at=batch.started_at, version=batch.version.number,
                    texture=verdict.texture if verdict else None,
                    faults=list(verdict.faults) if verdict else [], best=False, points=points,
                )
            )  # fmt: skip
    predicted = dict(found.values_list("id", "predicted_class"))
    good = [c for c in out if c.texture and not c.faults]
    good = [c for c in good if c.texture == predicted.get(c.id)] or good
    if good:
        good[0].best = True
    return out


def _deciding(batch: Batch) -> list[Point]:
    """The curve of the step that decides a cook: the boil, the bake, the gentle heat."""
    course = course_of(batch)
    at = longest(course.timings)
    steps = [s for s in course.plan.steps if s.kind in ("bake", "cook") and s.key in at]
    steps = steps or [s for s in course.plan.steps if s.kind == "heat" and s.key in at]
    steps = steps or [s for s in course.plan.steps if s.kind != "ready" and s.key in at]
    if not steps:
        return []
    timing = at[steps[-1].key]
    mine = [(t - timing.entered_s, c) for t, c in curve_of(batch)
            if timing.entered_s <= t <= timing.left_s]  # fmt: skip
    stride = max(1, len(mine) // _THIN)
    return [Point(t_s=t, temp_c=c) for t, c in mine[::stride]]
