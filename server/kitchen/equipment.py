"""What a kitchen cooks on, bakes in and cools in: rings, ovens and their walk, refrigerators."""

from typing import Literal
from uuid import UUID

from django.http import HttpRequest
from ninja import Router, Schema
from ninja.errors import HttpError
from pydantic import Field

from bellcrumb.contract.refits import walked
from bellcrumb.shapes.oven import WalkIn, WalkOut, WalkSeen
from bellcrumb.words import say
from kitchen.access import member_of
from kitchen.api import KitchenOut, read_kitchen
from kitchen.models import Cold, Oven, Ring
from shared.heavy import heavy
from shared.shapes import PROBLEMS

router = Router(tags=["kitchen"])


class RingIn(Schema):
    """A ring of the stove."""

    name: str = Field(min_length=1, max_length=60)
    fuel: Literal["gas", "induction", "ceramic"]
    rated_w: int = Field(ge=200, le=10000)


@router.post("/k/{kid}/rings", response={200: KitchenOut, **PROBLEMS})
def add_ring(request: HttpRequest, kid: UUID, given: RingIn) -> KitchenOut:
    """Add a ring, or correct the one of that name."""
    member = member_of(request, kid)
    Ring.objects.update_or_create(
        kitchen=member.kitchen,
        name=given.name,
        defaults={"fuel": given.fuel, "rated_w": given.rated_w},
    )
    return read_kitchen(request, kid)


class OvenChange(Schema):
    """An oven and its dial."""

    name: str = Field(min_length=1, max_length=60)
    kind: Literal["static", "fan"] = "static"
    dial_error_k: float = Field(default=0, ge=-80, le=80)
    measured: bool = False
    shelves: int = Field(default=2, ge=1, le=40)
    shelf_length_mm: int = Field(default=600, ge=100, le=2000)
    shelf_width_mm: int = Field(default=400, ge=100, le=2000)


@router.post("/k/{kid}/ovens", response={200: KitchenOut, **PROBLEMS})
def add_oven(request: HttpRequest, kid: UUID, given: OvenChange) -> KitchenOut:
    """Add an oven, or correct the one of that name."""
    member = member_of(request, kid)
    Oven.objects.update_or_create(
        kitchen=member.kitchen, name=given.name, defaults=given.dict(exclude={"name"})
    )
    return read_kitchen(request, kid)


class WalkedOut(Schema):
    """What the walk found, and the kitchen with it."""

    found: WalkOut
    kitchen: KitchenOut


@router.post("/k/{kid}/ovens/{oven_id}/walk", response={200: WalkedOut, **PROBLEMS})
@heavy
def walk_oven(request: HttpRequest, kid: UUID, oven_id: int, given: WalkSeen) -> WalkedOut:
    """Know an oven from a pan of water in it: its three figures are fitted and kept."""
    member = member_of(request, kid)
    oven = Oven.objects.filter(kitchen=member.kitchen, pk=oven_id).first()
    if oven is None:
        raise HttpError(404, say("kitchen.this_oven_is_not_in_the"))
    asked = WalkIn(kind=oven.kind, altitude_m=member.kitchen.altitude_m, **given.model_dump())
    found = walked(asked)
    Oven.objects.filter(pk=oven.pk).update(
        dial_error_k=round(found.offset_k, 1),
        film=round(min(5, max(0.2, found.film)), 2),
        vent=round(min(10, max(0.1, found.vent)), 2),
        measured=True,
    )
    return WalkedOut(found=found, kitchen=read_kitchen(request, kid))


class ColdIn(Schema):
    """A refrigerator or chiller."""

    name: str = Field(min_length=1, max_length=60)
    kind: Literal["fridge", "still_fridge", "blast"] = "fridge"
    air_c: float = Field(default=3, ge=-40, le=15)
    trays: int = Field(default=12, ge=1, le=400, description="what it has room for")


@router.post("/k/{kid}/colds", response={200: KitchenOut, **PROBLEMS})
def add_cold(request: HttpRequest, kid: UUID, given: ColdIn) -> KitchenOut:
    """Add a refrigerator or chiller, or correct the one of that name."""
    member = member_of(request, kid)
    Cold.objects.update_or_create(
        kitchen=member.kitchen, name=given.name, defaults=given.dict(exclude={"name"})
    )
    return read_kitchen(request, kid)
