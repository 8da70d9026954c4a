"""What every kitchen shares: families, grades of eggs, allergens, faults, swaps, vessels."""

from typing import cast

from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import Field

from bellcrumb.contract.open.books import BAKED_ONLY, FAULTS, STOVE_ONLY
from bellcrumb.contract.open.food import (
    ALLERGENS,
    CLASSES,
    COMMON_SWAPS,
    families,
    grades,
    starters,
)  # fmt: skip
from bellcrumb.contract.open.vessels import library
from bellcrumb.shapes import PartKind
from bellcrumb.words import say
from shared.shapes import PROBLEMS

craft_router = Router(tags=["craft"])


class Named(Schema):
    """A key and what it is called."""

    key: str
    name: str


class FamilyRef(Named):
    """A family to choose from, and a formula to begin it with."""

    on_the_stove: bool
    group: str
    starter_kind: PartKind
    starter: list[str]


class VesselRef(Named):
    """A vessel of the library."""

    brim_ml: float
    depth_mm: float
    shape: str
    kind: str = Field(description="the sort of vessel it is looked for under")
    takes_a_bath: bool


class SwapRef(Schema):
    """A swap a kitchen may ask for, by ingredient keys."""

    old: str
    new: str
    words: str


class FaultOut(Named):
    """A fault, and whether a baked part or one from the stove can have it."""

    baked: bool
    stove: bool


class CraftOut(Schema):
    """What every kitchen shares: families, grades of eggs, allergens, faults, swaps, vessels."""

    families: list[FamilyRef]
    egg_grades: list[Named]
    allergens: list[Named]
    classes: list[str]
    faults: list[FaultOut]
    swaps: list[SwapRef]
    vessels: list[VesselRef]


@craft_router.get("/craft", response={200: CraftOut, **PROBLEMS})
def craft(request: HttpRequest) -> CraftOut:
    """The shared lists."""
    return CraftOut(
        families=[
            FamilyRef(
                key=f.key,
                name=f.name,
                on_the_stove=f.on_the_stove,
                group=f.group,
                starter_kind=cast(PartKind, starters()[f.key].kind),
                starter=list(starters()[f.key].lines),
            )
            for f in families().values()
        ],
        egg_grades=[Named(key=g.label, name=g.name) for g in grades().values()],
        allergens=[Named(key=k, name=say(code)) for k, code in ALLERGENS.items()],
        classes=list(CLASSES),
        faults=[
            FaultOut(key=k, name=n, baked=k not in STOVE_ONLY, stove=k not in BAKED_ONLY)
            for k, n in FAULTS.items()
        ],
        swaps=[SwapRef(old=old, new=new, words=words) for old, new, words in COMMON_SWAPS],
        vessels=[
            VesselRef(
                key=v.key,
                name=v.name,
                brim_ml=v.brim_ml,
                depth_mm=v.depth_mm,
                shape=v.shape,
                kind=v.kind,
                takes_a_bath=v.shape == "rect" and v.length_mm >= 200,
            )
            for v in library().values()
        ],
    )
