"""The kitchen: settings, equipment, its own pantry and vessels."""

from decimal import Decimal
from typing import Annotated, Literal, cast
from uuid import UUID

from django.db import IntegrityError, transaction
from django.http import HttpRequest
from ninja import Router, Schema
from ninja.errors import HttpError
from pydantic import Field

from bellcrumb.contract.open.food import ALLERGENS, Allergen, Measures, egg_grade, shipped
from bellcrumb.contract.open.vessels import Material
from bellcrumb.shapes.oven import RuleIn
from bellcrumb.words import Units, say
from kitchen.access import member_of, pantry_changed, pantry_of
from kitchen.buying import set_price
from kitchen.craft import Named
from kitchen.models import Kitchen, Member, PantryItem, Price, Vessel
from kitchen.people import PersonOut, people_of
from kitchen.roles import Role
from shared.shapes import PROBLEMS

router = Router(tags=["kitchen"])
MadeOf = Literal[Material, ""]
Percent = Annotated[float, Field(ge=0, le=100)]


class RingOut(Schema):
    """A ring."""

    id: int
    name: str
    fuel: str
    rated_w: int


class VesselOut(Schema):
    """A vessel of the kitchen's own, in millimetres."""

    id: UUID
    name: str
    kind: str
    shape: str
    top_mm: float
    bottom_mm: float
    width_mm: float
    flute_mm: float
    wall_mm: float
    material: MadeOf
    depth_mm: float
    brim_ml: float
    measured: bool
    count: int | None


class PantryOut(Schema):
    """An ingredient of the kitchen's own."""

    id: UUID
    name: str
    category: str
    fat_pct: float
    sugars_pct: float
    protein_pct: float
    starch_pct: float
    water_pct: float | None
    g_per_us_cup: float | None
    g_per_piece: float | None
    allergens: list[Named] | None


class OvenOut(Schema):
    """An oven; ``dial_error_k`` is what it really is above its dial."""

    id: int
    name: str
    kind: Literal["static", "fan"]
    dial_error_k: float
    measured: bool
    film: float
    vent: float
    shelves: int
    shelf_length_mm: int
    shelf_width_mm: int


class ColdOut(Schema):
    """A refrigerator or chiller and the air it really has."""

    id: int
    name: str
    kind: Literal["fridge", "still_fridge", "blast"]
    air_c: float
    trays: int


class WordOut(Schema):
    """What a name means in this kitchen."""

    id: int
    said: str
    means: str


class WeightOut(Schema):
    """What one can, pack or piece of something weighs in this kitchen."""

    id: int
    ingredient: str
    unit: Literal["can", "pack", "piece"]
    grams: float


class PriceOut(Schema):
    """What is paid for an amount of something."""

    id: UUID
    line: str
    price: float
    ingredient: str
    per_kg: float


class KitchenOut(Schema):
    """A kitchen as its members see it."""

    id: UUID
    name: str
    role: Role
    units: Units
    egg_grade: str
    egg_spare_pct: int
    measures: Measures
    currency: str
    altitude_m: int
    cool_rule: RuleIn
    mixers: int
    bowl_ml: int
    pot_g: int
    rings: list[RingOut]
    ovens: list[OvenOut]
    colds: list[ColdOut]
    vessels: list[VesselOut]
    pantry: list[PantryOut]
    words: list[WordOut]
    weights: list[WeightOut]
    prices: list[PriceOut]
    people: list[PersonOut]


def _vessel_out(v: Vessel) -> VesselOut:
    core = v.core()
    return VesselOut(
        id=v.id,
        name=v.name,
        kind=v.kind,
        shape=v.shape,
        top_mm=core.across(1.0)[0],
        bottom_mm=core.across(0.0)[0],
        width_mm=core.across(1.0)[1],
        flute_mm=v.flute_dmm / 10,
        wall_mm=v.wall_dmm / 10,
        material=cast(MadeOf, v.material),
        depth_mm=core.depth_mm,
        brim_ml=core.brim_ml,
        measured=v.brim_ml is not None,
        count=v.count,
    )


def _pantry_out(p: PantryItem) -> PantryOut:
    def number(value: Decimal | None) -> float | None:
        return None if value is None else float(value)

    return PantryOut(
        id=p.id,
        name=p.name,
        category=p.category,
        fat_pct=float(p.fat_pct),
        sugars_pct=float(p.sugars_pct),
        protein_pct=float(p.protein_pct),
        starch_pct=float(p.starch_pct),
        water_pct=number(p.water_pct),
        g_per_us_cup=number(p.g_per_us_cup),
        g_per_piece=number(p.g_per_piece),
        allergens=None
        if p.contains is None
        else [Named(key=a, name=say(ALLERGENS[a])) for a in p.contains],
    )


def _name(kitchen: Kitchen, key: str) -> str:
    found = (pantry_of(kitchen) or shipped()).named(key)
    return found.name if found else key


def _kitchen_out(member: Member) -> KitchenOut:
    k: Kitchen = member.kitchen
    return KitchenOut(
        id=k.id,
        name=k.name,
        role=cast(Role, member.role),
        units=cast(Units, member.units),
        egg_grade=k.egg_grade,
        egg_spare_pct=k.egg_spare_pct,
        measures=cast(Measures, k.measures),
        currency=k.currency,
        altitude_m=k.altitude_m,
        cool_rule=RuleIn.model_validate(k.cool_rule),
        mixers=k.mixers,
        bowl_ml=k.bowl_ml,
        pot_g=k.pot_g,
        rings=[RingOut.from_orm(r) for r in k.rings.all()],
        ovens=[OvenOut.from_orm(o) for o in k.ovens.all()],
        colds=[ColdOut.from_orm(c) for c in k.colds.all()],
        vessels=[_vessel_out(v) for v in k.vessels.all()],
        pantry=[_pantry_out(p) for p in k.pantry.all()],
        words=[WordOut(id=w.pk, said=w.said, means=_name(k, w.ingredient)) for w in k.words.all()],
        weights=[
            WeightOut(
                id=w.pk,
                ingredient=_name(k, w.ingredient),
                grams=w.grams,
                unit=cast(Literal["can", "pack", "piece"], w.unit),
            )
            for w in k.weights.all()
        ],
        prices=[
            PriceOut(
                id=p.id,
                line=p.line,
                price=p.cents / 100,
                ingredient=p.ingredient,
                per_kg=10 * p.cents / float(p.grams),
            )
            for p in k.prices.all()
        ],
        people=people_of(member),
    )


@router.get("/k/{kid}", response={200: KitchenOut, **PROBLEMS})
def read_kitchen(request: HttpRequest, kid: UUID) -> KitchenOut:
    """The kitchen with its people, equipment and pantry."""
    return _kitchen_out(member_of(request, kid))


class KitchenChange(Schema):
    """New settings; what is left out stays."""

    name: str | None = Field(default=None, min_length=1, max_length=80)
    egg_grade: str | None = Field(default=None, max_length=40)
    egg_spare_pct: int | None = Field(default=None, ge=0, le=100)
    measures: Measures | None = None
    currency: str | None = Field(default=None, min_length=1, max_length=8)
    altitude_m: int | None = Field(default=None, ge=-400, le=5000)
    cool_rule: RuleIn | None = None
    mixers: int | None = Field(default=None, ge=1, le=10)
    bowl_ml: int | None = Field(default=None, ge=500, le=200_000, description="the mixer's bowl")
    pot_g: int | None = Field(
        default=None, ge=100, le=200_000, description="of a starch cream in one pot"
    )


@router.patch("/k/{kid}", response={200: KitchenOut, **PROBLEMS})
def change_kitchen(request: HttpRequest, kid: UUID, given: KitchenChange) -> KitchenOut:
    """Change the kitchen's settings."""
    member = member_of(request, kid)
    if given.egg_grade is not None:
        given.egg_grade = egg_grade(given.egg_grade).label
    for field, value in given.dict(exclude_none=True).items():
        setattr(member.kitchen, field, value)
    member.kitchen.save()
    return _kitchen_out(member)


class MyChange(Schema):
    """How I like to read weights and temperatures."""

    units: Literal["metric", "us"]


@router.patch("/k/{kid}/me", response={200: KitchenOut, **PROBLEMS})
def change_me(request: HttpRequest, kid: UUID, given: MyChange) -> KitchenOut:
    """Change my own preferences in this kitchen."""
    member = member_of(request, kid)
    member.units = given.units
    member.save(update_fields=["units"])
    return _kitchen_out(member)


PantryCategory = Literal[
    "own", "milk", "cream", "sugar", "starch", "flavour", "fruit", "chocolate", "nut"
]


class PantryIn(Schema):
    """An ingredient from its label, in percent by mass."""

    name: str = Field(min_length=2, max_length=80)
    category: PantryCategory = "own"
    fat_pct: Percent = 0
    sugars_pct: Percent = 0
    protein_pct: Percent = 0
    starch_pct: Percent = 0
    water_pct: Percent | None = None
    g_per_us_cup: float | None = Field(default=None, gt=0, le=600)
    g_per_piece: float | None = Field(default=None, gt=0, le=5000)
    allergens: set[Allergen] | None = Field(default=None, description="null: nobody has said")


@router.put("/k/{kid}/pantry/{item_id}", response={200: KitchenOut, **PROBLEMS})
def put_pantry_item(request: HttpRequest, kid: UUID, item_id: UUID, given: PantryIn) -> KitchenOut:
    """Describe an ingredient, or correct one; the id is made by the client."""
    member = member_of(request, kid)
    taken = PantryItem.objects.filter(pk=item_id).exclude(kitchen=member.kitchen)
    if taken.exists():
        raise HttpError(404, say("kitchen.there_is_no_such_ingredient_for"))
    named = None if given.allergens is None else "|".join(sorted(given.allergens))
    said = given.dict() | {"allergens": named}
    PantryItem(id=item_id, kitchen=member.kitchen, **said).core()
    try:
        with transaction.atomic():
            PantryItem.objects.update_or_create(id=item_id, kitchen=member.kitchen, defaults=said)
            pantry_changed(kid)
    except IntegrityError:
        raise HttpError(422, say("kitchen.is_already_in_the_pantry", given=given.name)) from None
    return read_kitchen(request, kid)


class VesselChange(Schema):
    """A vessel by its inside measures."""

    name: str = Field(min_length=1, max_length=80)
    kind: Literal["glass", "ring", "shell", "mould", "pan"] = "glass"
    shape: Literal["round", "rect", "oval"] = "round"
    top_mm: float = Field(ge=10, le=900, description="length, where there are corners")
    bottom_mm: float = Field(ge=10, le=900)
    width_mm: float = Field(default=0, ge=0, le=900)
    depth_mm: float = Field(ge=1, le=400)
    flute_mm: float = Field(default=0, ge=0, le=100)
    wall_mm: float = Field(default=3, ge=0, le=50, description="0: as usual for its material")
    material: MadeOf = ""
    brim_ml: int | None = Field(default=None, ge=1, le=200_000, description="as measured")
    count: int | None = Field(default=None, ge=1, le=5000, description="how many; null: enough")


@router.put("/k/{kid}/vessels/{vessel_id}", response={200: KitchenOut, **PROBLEMS})
def put_vessel(request: HttpRequest, kid: UUID, vessel_id: UUID, given: VesselChange) -> KitchenOut:
    """Add a vessel, or correct one; the id is made by the client."""
    member = member_of(request, kid)
    if Vessel.objects.filter(pk=vessel_id).exclude(kitchen=member.kitchen).exists():
        raise HttpError(404, say("kitchen.there_is_no_such_vessel_for"))
    measures = {
        "name": given.name,
        "kind": given.kind,
        "shape": given.shape,
        "top_dmm": round(given.top_mm * 10),
        "bottom_dmm": round(given.bottom_mm * 10),
        "depth_dmm": round(given.depth_mm * 10),
        "width_dmm": round(given.width_mm * 10),
        "flute_dmm": round(given.flute_mm * 10),
        "wall_dmm": round(given.wall_mm * 10),
        "material": given.material,
        "brim_ml": given.brim_ml,
        "count": given.count,
    }
    Vessel(id=vessel_id, kitchen=member.kitchen, **measures).core()
    try:
        with transaction.atomic():
            Vessel.objects.update_or_create(id=vessel_id, kitchen=member.kitchen, defaults=measures)
    except IntegrityError:
        raise HttpError(
            422, say("kitchen.a_vessel_called_is_already_there", given=given.name)
        ) from None
    return read_kitchen(request, kid)


class PriceIn(Schema):
    """What is paid for a line: "1 kg sugar", "30 eggs", "1 l whole milk"."""

    line: str = Field(min_length=1, max_length=120)
    price: float = Field(ge=0, le=1_000_000)


@router.put("/k/{kid}/prices/{price_id}", response={200: KitchenOut, **PROBLEMS})
def put_price(request: HttpRequest, kid: UUID, price_id: UUID, given: PriceIn) -> KitchenOut:
    """Say what something costs; the last price of an ingredient is the one that counts."""
    member = member_of(request, kid)
    set_price(member.kitchen, price_id, given.line, given.price)
    return read_kitchen(request, kid)


@router.delete("/k/{kid}/prices/{price_id}", response={200: KitchenOut, **PROBLEMS})
def drop_price(request: HttpRequest, kid: UUID, price_id: UUID) -> KitchenOut:
    """Forget a price."""
    member = member_of(request, kid)
    Price.objects.filter(kitchen=member.kitchen, pk=price_id).delete()
    return read_kitchen(request, kid)
