"""What the kitchen's own batches teach, and what somebody does about it."""

from typing import Literal, cast
from uuid import UUID

from django.http import HttpRequest
from ninja import Router, Schema
from ninja.errors import HttpError
from pydantic import Field

from batches.teaching import relearn
from bellcrumb.words import say
from kitchen.access import member_of
from kitchen.lessons import OF_A_RING, called
from kitchen.models import Kitchen, Lesson
from shared.heavy import heavy
from shared.now import now as clock_now
from shared.shapes import PROBLEMS

router = Router(tags=["batches"])
_SHARES = {
    "ring": say("batches.a_ring_gives_its_rating_or"),
    "pot": say("batches.what_boils_away_is_as_told"),
    "film": say("batches.an_oven_blows_as_known_or"),
    "vent": say("batches.steam_leaves_as_known_or"),
    "recovers": say("batches.an_oven_comes_back_as_known"),
}
LessonKind = Literal["ring", "loss", "pot", "oven", "film", "vent", "recovers", "set", "line"]


class LessonOut(Schema):
    """A learned value and whether predictions use it. A ring's is a share of its rating and its
    loss W/m2K of its pot's base beyond an ordinary one, a pot's is a share of what the model lets
    boil away, an oven's kelvins above its dial (beyond what was known) and its figures as shares of
    what was known, a family's S, and that of an ingredient (by key)."""

    kind: LessonKind
    name: str
    called: str = Field(description="what it is of, as a cook calls it")
    mean: float
    sd: float
    n: int
    seen: list[float] = Field(description="what each of the latest batches told, oldest first")
    on: bool
    by_hand: float | None
    value: float | None = Field(description="what predictions take; null: nothing")


class LessonChange(Schema):
    """Switch it off or on, put another value in its place (null: take it away again), or begin
    again from now on (a ring was replaced)."""

    kind: LessonKind
    name: str = Field(max_length=120)
    on: bool | None = None
    by_hand: float | None = Field(default=None, ge=-100, le=100)
    forget_hand: bool = False
    begin_again: bool = False


def _out(kitchen: Kitchen) -> list[LessonOut]:
    return [
        LessonOut(
            kind=cast(LessonKind, row.kind), name=row.name, called=called(row.kind, row.name),
            mean=row.mean, sd=row.sd, n=row.n,
            seen=row.seen,
            on=row.on,
            by_hand=row.by_hand, value=row.value,
        )
        for row in Lesson.objects.filter(kitchen=kitchen)
    ]  # fmt: skip


@router.get("/k/{kid}/learned", response={200: list[LessonOut], **PROBLEMS})
@heavy
def what_is_learned(request: HttpRequest, kid: UUID) -> list[LessonOut]:
    """What the book teaches of rings, pots, ovens and this kitchen's set."""
    kitchen = member_of(request, kid).kitchen
    relearn(kitchen)
    return _out(kitchen)


@router.patch("/k/{kid}/learned", response={200: list[LessonOut], **PROBLEMS})
def change_lesson(request: HttpRequest, kid: UUID, given: LessonChange) -> list[LessonOut]:
    """Switch a lesson off, correct it by hand, or begin it again."""
    kitchen = member_of(request, kid).kitchen
    row = Lesson.objects.filter(kitchen=kitchen, kind=given.kind, name=given.name).first()
    if row is None:
        raise HttpError(404, say("batches.nothing_was_learned_of_this_yet"))
    if given.by_hand is not None and given.kind in _SHARES and not 0.2 <= given.by_hand <= 3:
        raise HttpError(422, say("batches.a_fifth_to_three_times_of", shares=_SHARES[given.kind]))
    if given.by_hand is not None and given.kind == "loss" and not -10 <= given.by_hand <= 100:
        raise HttpError(422, say("batches.a_pot_loses_10_w_m2k"))
    if given.on is not None:
        row.on = given.on
    if given.by_hand is not None or given.forget_hand:
        row.by_hand = given.by_hand
    row.save()
    if given.begin_again:  # another ring also loses otherwise
        kinds = OF_A_RING if given.kind == "ring" else (given.kind,)
        rows = Lesson.objects.filter(kitchen=kitchen, kind__in=kinds, name=given.name)
        rows.update(since=clock_now(), n=0, by_hand=None, seen=[])
    if given.kind == "loss":  # what a ring's boils say of its power hangs on it
        relearn(kitchen)
    return _out(kitchen)
