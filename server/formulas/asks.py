"""Questions about formulas that store nothing."""

from datetime import datetime
from uuid import UUID

from django.http import HttpRequest
from ninja import Router, Schema
from ninja.errors import HttpError
from pydantic import Field

from bellcrumb.contract.desserts import DessertIn, PartIn, TotalOut, dessert_total
from bellcrumb.contract.ledgers import compare, day_ledger
from bellcrumb.contract.open.food import Ledger, Plane
from bellcrumb.shapes import (
    CompareIn,
    CompareOut,
    DessertEggsIn,
    FormulaIn,
    FormulaOut,
    LedgerIn,
    PartKind,
    PointsOut,
    ScaleBy,
    ScaleOut,
    SetClass,
    SolveOut,
    WishesIn,
)
from bellcrumb.words import say
from formulas.api import dessert_of, version_of
from formulas.cards import glances, heart, newest
from formulas.content import Content, content_of, formula_of, given_of, scale_of, solve_of
from formulas.guide_shapes import PlanOut
from formulas.models import Dessert, Version
from formulas.stove import plan_of
from kitchen.access import member_of, pantry_of, vessels_of
from shared.heavy import heavy
from shared.shapes import PROBLEMS

router = Router(tags=["formulas"])
SIBLINGS = 12


class AnswerAsk(Schema):
    """Ask what a formula's numbers decide."""

    content: Content
    kind: PartKind | None = None
    plane: Plane = "starch_egg"


@router.post("/k/{kid}/answer", response={200: FormulaOut, **PROBLEMS}, by_alias=True)
def answer(request: HttpRequest, kid: UUID, given: AnswerAsk) -> FormulaOut:
    """What a formula's numbers decide; asked on every keystroke."""
    return formula_of(member_of(request, kid).kitchen, given.content, given.kind, given.plane)


class PlanAsk(Schema):
    """Ask for the guide of a part."""

    content: Content
    kind: PartKind = "filling"


@router.post("/k/{kid}/plan", response={200: PlanOut, **PROBLEMS})
@heavy
def stove_plan(request: HttpRequest, kid: UUID, given: PlanAsk) -> PlanOut:
    """Ladder, predicted curves and steps for a formula; stores nothing."""
    member = member_of(request, kid)
    return plan_of(member.kitchen, given.content, given.kind)


class ScaleAsk(Schema):
    """Ask for more or less of a formula."""

    content: Content
    by: ScaleBy
    value: float = Field(gt=0, le=1_000_000)


@router.post("/k/{kid}/scale", response={200: ScaleOut, **PROBLEMS})
@heavy
def scale_formula(request: HttpRequest, kid: UUID, given: ScaleAsk) -> ScaleOut:
    """A formula scaled, as lines to read over; stores nothing."""
    member = member_of(request, kid)
    return scale_of(member.kitchen, given.content, given.by, given.value)


class SolveAsk(Schema):
    """Ask for a formula bent to wishes."""

    content: Content
    wishes: WishesIn


@router.post("/k/{kid}/solve", response={200: SolveOut, **PROBLEMS}, by_alias=True)
@heavy
def solve_formula(request: HttpRequest, kid: UUID, given: SolveAsk) -> SolveOut:
    """A formula bent to wishes by the least change, to read over; stores nothing."""
    member = member_of(request, kid)
    return solve_of(member.kitchen, given.content, given.wishes)


class EggsAsk(Schema):
    """A dessert of the day, made ``times`` over."""

    dessert_id: UUID
    times: float = Field(default=1, gt=0, le=1000)


class LedgerAsk(Schema):
    """The desserts of a day."""

    desserts: list[EggsAsk] = Field(min_length=1, max_length=100)


@router.post("/k/{kid}/ledger", response={200: Ledger, **PROBLEMS})
@heavy
def whites_ledger(request: HttpRequest, kid: UUID, given: LedgerAsk) -> Ledger:
    """What a day's desserts take in eggs, all their parts together, in the kitchen's grade."""
    kitchen = member_of(request, kid).kitchen
    times = {ask.dessert_id: ask.times for ask in given.desserts}
    entries = []
    for dessert in Dessert.objects.filter(kitchen=kitchen, pk__in=times).order_by("name"):
        for part in dessert.parts.all():
            version = part.versions.last()
            if version:
                several = f"{dessert.name}, {part.name.lower()}"
                entries.append(
                    DessertEggsIn(
                        name=several if dessert.parts.count() > 1 else dessert.name,
                        lines=version.lines_text.split("\n"),
                        times=times[dessert.id],
                    )
                )
    if len(entries) < len(given.desserts):
        raise HttpError(404, say("formulas.a_dessert_of_the_day_is"))
    asked = LedgerIn(desserts=entries, egg_grade=kitchen.egg_grade)
    return day_ledger(asked, pantry_of(kitchen))


@router.get("/k/{kid}/desserts/{dessert_id}/total", response={200: TotalOut, **PROBLEMS})
@heavy
def total(request: HttpRequest, kid: UUID, dessert_id: UUID) -> TotalOut:
    """What all the parts of a dessert come to, and one portion of it."""
    kitchen = member_of(request, kid).kitchen
    dessert = dessert_of(kitchen, dessert_id)
    parts = []
    for part in dessert.parts.all():
        version = part.versions.last()
        if version:
            given = given_of(kitchen, content_of(version), part.kind)
            parts.append(PartIn(name=part.name, **given))
    return dessert_total(DessertIn(parts=parts), pantry_of(kitchen), vessels_of(kitchen))


class SiblingOut(Schema):
    """Another formula of the same family, as a point on the map."""

    dessert_id: UUID
    name: str
    points: PointsOut


@router.get("/k/{kid}/desserts/{dessert_id}/siblings", response={200: list[SiblingOut], **PROBLEMS})
def siblings(
    request: HttpRequest, kid: UUID, dessert_id: UUID, family: str = ""
) -> list[SiblingOut]:
    """Other desserts of the kitchen whose heart is of this family, latest first."""
    kitchen = member_of(request, kid).kitchen
    dessert_of(kitchen, dessert_id)
    others = Dessert.objects.filter(kitchen=kitchen, archived=False).exclude(pk=dessert_id)
    page = list(others.order_by("-created_at")[:200])
    shown = {d: heart(versions) for d, versions in newest([d.id for d in page]).items()}
    known = glances(kitchen, shown.values())
    found = []
    for dessert in page:
        brief = known[shown[dessert.id].id] if dessert.id in shown else None
        if brief and brief.points and brief.family_key == family:
            found.append(SiblingOut(dessert_id=dessert.id, name=dessert.name, points=brief.points))
    return found[:SIBLINGS]


class CompareAsk(Schema):
    """Two versions to lay side by side."""

    left: UUID
    right: UUID


class CookedOut(Schema):
    """A batch of a version and what came of it."""

    id: UUID
    started_at: datetime
    cook: str | None
    texture: SetClass | None
    faults: list[str]
    note: str


class SideOut(Schema):
    """One side: which version it is, its note, and what it became in the pot."""

    dessert_id: UUID
    dessert: str
    part: str
    number: int
    note: str
    cooked: list[CookedOut]


class ComparedOut(Schema):
    """Two versions side by side."""

    left: SideOut
    right: SideOut
    found: CompareOut


def _side(version: Version) -> SideOut:
    batches = version.batches.select_related("cook", "verdict")[:6]
    cooked = []
    for batch in batches:
        verdict = getattr(batch, "verdict", None)
        cooked.append(
            CookedOut(
                id=batch.id,
                started_at=batch.started_at,
                cook=batch.cook.name if batch.cook else None,
                texture=verdict.texture if verdict else None,
                faults=verdict.faults if verdict else [],
                note=verdict.note if verdict else "",
            )
        )
    return SideOut(
        dessert_id=version.part.dessert_id,
        dessert=version.part.dessert.name,
        part=version.part.name,
        number=version.number,
        note=version.note,
        cooked=cooked,
    )


@router.post("/k/{kid}/compare", response={200: ComparedOut, **PROBLEMS}, by_alias=True)
@heavy
def compare_versions(request: HttpRequest, kid: UUID, given: CompareAsk) -> ComparedOut:
    """Two versions of one or two formulas, with their batches and verdicts."""
    member = member_of(request, kid)
    kitchen = member.kitchen
    left, right = version_of(member, given.left), version_of(member, given.right)
    sides = [FormulaIn(**given_of(kitchen, content_of(v), v.part.kind)) for v in (left, right)]
    found = compare(
        CompareIn(left=sides[0], right=sides[1]), pantry_of(kitchen), vessels_of(kitchen)
    )
    return ComparedOut(left=_side(left), right=_side(right), found=found)
