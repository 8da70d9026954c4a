"""What has been learned, where predictions take it from."""

from collections.abc import Sequence

from ninja import Schema
from pydantic import Field

from bellcrumb.contract.open.food import shipped
from kitchen.models import Kitchen, Lesson


class Used(Schema):
    """A learned value that a prediction was made with: a ring's share of its rating and
    what its pots lose (W/m2K of base beyond an ordinary one), a pot's share of
    what the model lets boil away, what an oven is above its dial beyond what was known (K), how it
    blows, vents and comes back (shares of what was known), or how much firmer a family, or what
    one ingredient sets, comes out here (S)."""

    kind: str
    name: str
    called: str = Field("", description="what it is of, as a cook calls it")
    value: float
    sd: float
    n: int
    by_hand: bool
    here_min: float | None = Field(
        None, description="minutes told with it: to the pull, to the heat"
    )
    books_min: float | None = Field(None, description="about what would be told without it")


def called(kind: str, name: str) -> str:
    """What a lesson is of, as a cook calls it: an ingredient stands under its key."""
    known = shipped().named(name) if kind == "line" else None
    return known.name if known else name


def lesson_of(kitchen: Kitchen, kind: str, name: str) -> Used | None:
    """The lesson to predict with; None where there is none or it is switched off."""
    lesson = Lesson.objects.filter(kitchen=kitchen, kind=kind, name=name).first()
    if lesson is None or lesson.value is None:
        return None
    return Used(
        kind=kind, name=name, called=called(kind, name), value=lesson.value, sd=lesson.sd,
        n=lesson.n, by_hand=lesson.by_hand is not None, here_min=None, books_min=None,
    )  # fmt: skip


OF_A_RING = ("ring", "loss")
OF_AN_OVEN = ("oven", "film", "vent", "recovers")


def lessons_of(kitchen: Kitchen, kinds: Sequence[str], name: str) -> list[Used]:
    """All that is learned of a ring or an oven and switched on, in the order of its kinds."""
    found = (lesson_of(kitchen, kind, name) for kind in kinds)
    return [lesson for lesson in found if lesson]


def set_shifts(kitchen: Kitchen) -> dict[str, float]:
    """How much firmer than the books each family comes out in this kitchen, S."""
    return _values(kitchen, "set")


def line_shifts(kitchen: Kitchen) -> dict[str, float]:
    """The same of what each setting ingredient (by key) would set alone, beyond its family, S."""
    return _values(kitchen, "line")


def _values(kitchen: Kitchen, kind: str) -> dict[str, float]:
    rows = Lesson.objects.filter(kitchen=kitchen, kind=kind)
    return {row.name: value for row in rows if (value := row.value) is not None}
