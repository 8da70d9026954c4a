"""What things cost: a price is paid for a line, "1 kg sugar", "30 eggs"."""

from typing import cast
from uuid import UUID

from django.db import transaction
from ninja.errors import HttpError

from bellcrumb.contract.open.food import Measures, egg_grade, understand_all
from bellcrumb.errors import CraftError
from bellcrumb.words import say
from kitchen.access import pantry_of
from kitchen.models import Kitchen, Price


def set_price(kitchen: Kitchen, price_id: UUID, line: str, price: float) -> None:
    """Keep what a line costs; the last price of an ingredient is the one that counts.

    Raises CraftError for a line that does not say what and how much, HttpError 404 for another
    kitchen's price.
    """
    grade = egg_grade(kitchen.egg_grade)
    measures = cast(Measures, kitchen.measures)
    (read,) = understand_all([line], pantry_of(kitchen), grade, measures)
    if not (read and read.ingredient and read.grams):
        said = read.message if read else say("kitchen.write_what_and_how_much_1")
        raise CraftError("line", said)
    if Price.objects.filter(pk=price_id).exclude(kitchen=kitchen).exists():
        raise HttpError(404, say("kitchen.there_is_no_such_price_for"))
    with transaction.atomic():
        Price.objects.filter(kitchen=kitchen, ingredient=read.ingredient.key).delete()
        Price.objects.update_or_create(
            id=price_id,
            kitchen=kitchen,
            defaults={
                "line": line,
                "cents": round(100 * price),
                "ingredient": read.ingredient.key,
                "grams": round(read.grams, 2),
            },
        )
