"""The one way to a kitchen's rows: through the membership of whoever asks."""

import secrets
from functools import lru_cache
from uuid import UUID

from django.http import HttpRequest
from ninja.errors import HttpError

from accounts.models import User
from bellcrumb.contract.open.food import Pantry
from bellcrumb.contract.open.vessels import Vessel as CoreVessel
from bellcrumb.words import say
from kitchen.models import Kitchen, Member, OwnWeight, OwnWord, PantryItem, Price, Vessel
from kitchen.roles import NEEDS, RANK, operation

_CANNOT: dict[str, str] = {
    "cook": say("kitchen.you_can_read_here_but_not"),
    "chef": say("kitchen.only_the_pastry_chef_changes_this"),
}
_CANNOT_SEE = say("kitchen.only_the_pastry_chef_sees_this")


def member_of(request: HttpRequest, kitchen_id: UUID) -> Member:
    """The asker's membership, if their role reaches the operation asked for (``kitchen.roles``).

    Raises HttpError 404 for a kitchen that is not theirs (whether it exists is nobody's business)
    and 403 when their role does not reach.
    """
    user = request.user
    member = (
        Member.objects.select_related("kitchen").filter(kitchen_id=kitchen_id, user=user).first()
        if isinstance(user, User)
        else None
    )
    if member is None:
        raise HttpError(404, say("kitchen.there_is_no_such_kitchen_for"))
    match = request.resolver_match
    asked = operation(request.method or "", match.route if match else "")
    need = NEEDS.get(asked)
    if need is None or RANK[member.role] < RANK[need]:
        sees = need == "chef" and request.method == "GET"
        raise HttpError(403, _CANNOT_SEE if sees else _CANNOT[need or "chef"])
    return member


@lru_cache(maxsize=64)
def _pantry(kitchen_id: UUID, revision: int) -> Pantry | None:
    own = [item.core() for item in PantryItem.objects.filter(kitchen_id=kitchen_id)]
    words = dict(OwnWord.objects.filter(kitchen_id=kitchen_id).values_list("said", "ingredient"))
    rows = OwnWeight.objects.filter(kitchen_id=kitchen_id)
    weights = {(w.ingredient, w.unit): w.grams for w in rows}
    return Pantry(own, words, weights) if own or words or weights else None


def pantry_of(kitchen: Kitchen) -> Pantry | None:
    """The kitchen's pantry; None when it has nothing of its own (the shipped table serves)."""
    return _pantry(kitchen.id, kitchen.pantry_rev)


def pantry_changed(kitchen_id: UUID) -> None:
    """Say that the kitchen's own pantry is another: by a number that neither a restored backup nor
    a change taken back can bring again, for pantries and cards are remembered by it."""
    Kitchen.objects.filter(pk=kitchen_id).update(pantry_rev=secrets.randbelow(2**31))


def prices_of(kitchen: Kitchen) -> dict[str, float]:
    """The kitchen's prices per kilogram by ingredient key."""
    rows = Price.objects.filter(kitchen=kitchen).values_list("ingredient", "cents", "grams")
    return {key: 10 * cents / float(grams) for key, cents, grams in rows}


def vessels_of(kitchen: Kitchen) -> dict[str, CoreVessel]:
    """The kitchen's own vessels by key."""
    return {str(v.id): v.core() for v in Vessel.objects.filter(kitchen=kitchen)}
