"""Questions about the oven and the cold; they store nothing."""

from typing import Literal
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema
from pydantic import Field

from bellcrumb.contract.crusts import crust
from bellcrumb.shapes import PartKind
from bellcrumb.shapes.oven import ChooseOut, ConvertOut, CrustOut
from formulas.content import Content
from formulas.oven import (
    BakePlanOut,
    CoolPlanOut,
    bake_of,
    choose_of,
    convert_of,
    cool_of,
    crust_in,
)
from kitchen.access import member_of, pantry_of
from shared.heavy import heavy
from shared.shapes import PROBLEMS

router = Router(tags=["oven"])


class PartAsk(Schema):
    """A part as it is written."""

    content: Content
    kind: PartKind = "filling"


class BakeAsk(PartAsk):
    """Ask for a bake; ``frames`` also for the cut-open mould through time."""

    frames: bool = True


class ChooseAsk(PartAsk):
    """Ask for the oven and bath that serve a wish."""

    wish: Literal["even", "long_window"] = "even"
    within_min: float = Field(default=90, ge=5, le=240)


@router.post("/k/{kid}/bake", response={200: BakePlanOut, **PROBLEMS})
@heavy
def bake_part(request: HttpRequest, kid: UUID, given: BakeAsk) -> HttpResponse:
    """A part baked: its window, its carry-over, and the mould cut open through time."""
    kitchen = member_of(request, kid).kitchen
    found = bake_of(kitchen, given.content, given.kind, frames=given.frames)
    # A hundred kilobytes of cells: written once, not checked and copied again on the way.
    return HttpResponse(found.model_dump_json(), content_type="application/json")


@router.post("/k/{kid}/bake/choose", response={200: ChooseOut, **PROBLEMS})
@heavy
def choose_bake(request: HttpRequest, kid: UUID, given: ChooseAsk) -> ChooseOut:
    """Oven settings tried with and without a bath, best first."""
    kitchen = member_of(request, kid).kitchen
    return choose_of(kitchen, given.content, given.kind, given.wish, given.within_min)


@router.post("/k/{kid}/bake/convert", response={200: ConvertOut, **PROBLEMS})
@heavy
def convert_bake(request: HttpRequest, kid: UUID, given: PartAsk) -> ConvertOut:
    """The same bake in the other kind of oven, in Fahrenheit and gas marks."""
    return convert_of(member_of(request, kid).kitchen, given.content, given.kind)


@router.post("/k/{kid}/crust", response={200: CrustOut, **PROBLEMS})
@heavy
def crust_part(request: HttpRequest, kid: UUID, given: PartAsk) -> CrustOut:
    """A crust baked blind, and how long it stays crisp."""
    kitchen = member_of(request, kid).kitchen
    return crust(crust_in(kitchen, given.content), pantry_of(kitchen))


@router.post("/k/{kid}/cool", response={200: CoolPlanOut, **PROBLEMS})
@heavy
def cool_part(request: HttpRequest, kid: UUID, given: PartAsk) -> CoolPlanOut:
    """A part put away to get cold: the two-stage clock, depth, cutting and keeping."""
    return cool_of(member_of(request, kid).kitchen, given.content, given.kind)
