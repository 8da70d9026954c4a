"""What a kitchen says once and for all of its own words: what they mean, what one weighs."""

from typing import Literal
from uuid import UUID

from django.db import transaction
from django.http import HttpRequest
from ninja import Router, Schema
from ninja.errors import HttpError
from pydantic import Field

from bellcrumb.contract.open.food import Ingredient, Pantry, shipped
from bellcrumb.words import say
from kitchen.access import member_of, pantry_changed, pantry_of
from kitchen.api import KitchenOut, read_kitchen
from kitchen.models import OwnWeight, OwnWord
from shared.shapes import PROBLEMS

router = Router(tags=["kitchen"])
MOST = 500  # words and weights a kitchen keeps; more is no memory but a mistake


class WordIn(Schema):
    """A name as it is written here, and what it means (a key or a name)."""

    said: str = Field(min_length=2, max_length=120)
    ingredient: str = Field(min_length=1, max_length=120)


class WeightIn(Schema):
    """What one can, pack or piece of something weighs."""

    ingredient: str = Field(min_length=1, max_length=120)
    unit: Literal["can", "pack", "piece"]
    grams: float = Field(gt=0, le=50_000)


def _meant(pantry: Pantry, name: str) -> Ingredient:
    found = pantry.named(name)
    if found is None:
        raise HttpError(422, say("kitchen.is_not_in_the_pantry", name=name))
    return found


@router.put("/k/{kid}/words", response={200: KitchenOut, **PROBLEMS})
def keep_word(request: HttpRequest, kid: UUID, given: WordIn) -> KitchenOut:
    """Remember what a name means here, or correct it."""
    kitchen = member_of(request, kid).kitchen
    said = " ".join(given.said.lower().split())
    meant = _meant(pantry_of(kitchen) or shipped(), given.ingredient)
    if OwnWord.objects.filter(kitchen=kitchen).exclude(said=said).count() >= MOST:
        raise HttpError(422, say("kitchen.at_most_words_are_kept_forget", most=MOST))
    with transaction.atomic():
        OwnWord.objects.update_or_create(
            kitchen=kitchen, said=said, defaults={"ingredient": meant.key}
        )
        pantry_changed(kitchen.pk)
    return read_kitchen(request, kid)


@router.delete("/k/{kid}/words/{word_id}", response={200: KitchenOut, **PROBLEMS})
def forget_word(request: HttpRequest, kid: UUID, word_id: int) -> KitchenOut:
    """Forget what a name means here."""
    kitchen = member_of(request, kid).kitchen
    OwnWord.objects.filter(kitchen=kitchen, pk=word_id).delete()
    pantry_changed(kitchen.pk)
    return read_kitchen(request, kid)


@router.put("/k/{kid}/weights", response={200: KitchenOut, **PROBLEMS})
def keep_weight(request: HttpRequest, kid: UUID, given: WeightIn) -> KitchenOut:
    """Remember what one of something weighs here, or correct it."""
    kitchen = member_of(request, kid).kitchen
    meant = _meant(pantry_of(kitchen) or shipped(), given.ingredient)
    known = OwnWeight.objects.filter(kitchen=kitchen)
    if known.exclude(ingredient=meant.key, unit=given.unit).count() >= MOST:
        raise HttpError(422, say("kitchen.at_most_weights_are_kept_forget", most=MOST))
    with transaction.atomic():
        OwnWeight.objects.update_or_create(
            kitchen=kitchen, ingredient=meant.key, unit=given.unit,
            defaults={"grams": given.grams},
        )  # fmt: skip
        pantry_changed(kitchen.pk)
    return read_kitchen(request, kid)


@router.delete("/k/{kid}/weights/{weight_id}", response={200: KitchenOut, **PROBLEMS})
def forget_weight(request: HttpRequest, kid: UUID, weight_id: int) -> KitchenOut:
    """Forget what one of something weighs here."""
    kitchen = member_of(request, kid).kitchen
    OwnWeight.objects.filter(kitchen=kitchen, pk=weight_id).delete()
    pantry_changed(kitchen.pk)
    return read_kitchen(request, kid)
