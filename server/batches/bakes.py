"""A bake that is going on: what its probe and its cook tell of the oven, kept for a minute."""

from bisect import bisect_right
from typing import Any

from django.core.cache import cache

from batches.clock import Course, curve_of
from batches.models import Batch
from batches.state import CookState
from bellcrumb.contract.open.books import Timing, longest
from bellcrumb.contract.open.cooking import Look, Observations, Reading
from bellcrumb.errors import CraftError
from bellcrumb.shapes.explain import OvenTold
from bellcrumb.shapes.oven import RefitOut
from formulas.content import Content
from formulas.oven import figures_of, refit_of

EVERY_S = 60.0
BATH_CHANNEL, AIR_CHANNEL = 2, 3  # 1 is in the custard
_FIRST_S = 240.0
_EACH = 40
LOOKS = {"disc_100": 1.0, "disc_60": 0.6, "disc_25": 0.25, "disc_0": 0.0}


def refit_now(batch: Batch, course: Course, state: CookState) -> RefitOut | None:
    """What the bake tells of itself; None before it is in the oven or while it tells too little.

    Fitted again at most once a minute of baking.
    """
    plan = course.plan
    timing = next((t for t in course.timings if t.key == "cook"), None)
    if plan.guide != "bake" or plan.content is None or timing is None:
        return None
    end_s = timing.left_s if course.current != "cook" else course.now_s
    into_s = end_s - timing.entered_s
    looks = _looks(course, timing)
    if into_s < _FIRST_S and not looks:
        return None

    def inside(channel: int) -> list[Reading]:
        curve = state.since(timing.entered_s, channel)
        return curve[: bisect_right(curve, end_s, key=lambda r: r[0])]

    probe, air, bath = inside(1), inside(AIR_CHANNEL), inside(BATH_CHANNEL)
    seen = sorted((look.t_s, look.disc_share) for look in looks)
    # The first few readings each count, also when they come late and all at once.
    first = min(len(probe) + len(air) + len(bath), _EACH)
    key = f"refit:{batch.id}:{int(into_s // EVERY_S)}:{first}:{hash(tuple(seen))}"
    known: dict[str, Any] | None = cache.get(key)
    if known is None:
        content = Content.model_validate(plan.content)
        told = Observations(
            _from(timing, probe), looks, _from(timing, air), bath=_from(timing, bath)
        )
        try:
            found = refit_of(batch.kitchen, content, batch.version.part.kind, told)
        except CraftError:  # a vessel that has been taken away since
            found = None
        known = {"found": vars(found) if found else None}
        cache.set(key, known)
    return RefitOut(**known["found"]) if known["found"] else None


def told_by(batch: Batch, course: Course) -> RefitOut | None:
    """What a whole bake told of itself, beside what is written down of its oven; None where there
    was neither probe nor look."""
    told = _whole(batch, course)
    if told is None:
        return None
    return refit_of(batch.kitchen, told[0], batch.version.part.kind, told[1], fresh=True)


def oven_told_by(batch: Batch, course: Course) -> OvenTold | None:
    """What a whole bake with a probe in the air told of its dial and how it blows, vents and comes
    back, beside what is written down of it."""
    told = _whole(batch, course)
    if told is None:
        return None
    return figures_of(batch.kitchen, told[0], batch.version.part.kind, told[1])


def _whole(batch: Batch, course: Course) -> tuple[Content, Observations] | None:
    plan = course.plan
    timing = longest(course.timings).get("cook")
    if plan.guide != "bake" or plan.content is None or timing is None:
        return None

    def inside(channel: int) -> list[Reading]:
        return [r for r in curve_of(batch, channel) if timing.entered_s <= r[0] <= timing.left_s]

    told = Observations(
        _from(timing, inside(1)), _looks(course, timing), _from(timing, inside(AIR_CHANNEL)),
        bath=_from(timing, inside(BATH_CHANNEL)),
    )  # fmt: skip
    return Content.model_validate(plan.content), told


def _looks(course: Course, timing: Timing) -> list[Look]:
    """The looks at the wobble, on the clock of the bake."""
    return [
        Look(at - timing.entered_s, LOOKS[mark])
        for mark, at in course.marks.items()
        if mark in LOOKS and at > timing.entered_s
    ]


def _from(timing: Timing, curve: list[Reading]) -> list[Reading]:
    """A curve on the clock of its step."""
    return [(t - timing.entered_s, c) for t, c in curve]
