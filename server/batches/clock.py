"""The cook's clock of a batch and where the cook stands."""

from collections.abc import Callable, Sequence
from dataclasses import KW_ONLY, dataclass, field, replace
from datetime import datetime
from functools import lru_cache
from uuid import UUID

from django.db.models import Q

from batches.models import Batch
from batches.shapes import LaidOut
from batches.state import CookState
from bellcrumb.contract.open.books import Timing, longest
from bellcrumb.contract.open.cooking import (
    ENTERED_EARLY_S,
    POURED_BACK_S,
    STALE_S,
    Doubt,
    Lethality,
    Moment,
    Product,
    Reading,
    Step,
    bake_moment,
    checked_moment,
    doubts,
    doubts_of,
    held_above_c,
    in_the_mix_from_s,
    is_enough,
    is_fresh,
    laid_moment,
    lethality,
    missed,
    moment,
    not_yet,
)
from bellcrumb.shapes.oven import RefitOut
from formulas.guide_shapes import PlanOut
from shared.now import now as clock_now

LONGEST_MS = 2_000_000_000  # three weeks: what the store has room for


def cook_ms(batch: Batch, at: datetime) -> int:
    """Milliseconds on the cook's clock at a moment; never before the start."""
    gone = round((at - batch.started_at).total_seconds() * 1000 * batch.time_scale)
    return min(max(0, gone), LONGEST_MS)


@dataclass(frozen=True)
class Course:
    """A cook so far: its plan, when each step was entered, and the rungs poured."""

    plan: PlanOut
    timings: list[Timing]
    rungs: int
    _: KW_ONLY
    now_s: float
    time_scale: int
    paused: bool = False
    marks: dict[str, float] = field(default_factory=dict)

    @property
    def current(self) -> str:
        """The key of the step the cook is in."""
        return self.timings[-1].key if self.timings else self.plan.steps[0].key


@lru_cache(maxsize=128)
def plan_of_batch(batch_id: UUID) -> PlanOut:
    """The plan a batch was started with. It is frozen: read and checked once, not at every poll."""
    prediction = Batch.objects.values_list("prediction", flat=True).get(pk=batch_id)
    return PlanOut.model_validate(prediction["plan"])


def course_of(batch: Batch, now: datetime | None = None) -> Course:
    """Where a batch stands, from its events."""
    plan = plan_of_batch(batch.pk)
    end = batch.ended_at or now or clock_now()
    now_s = cook_ms(batch, end) / 1000
    entered: list[tuple[str, float]] = [(plan.steps[0].key, 0.0)]
    rungs = 0
    paused = False
    marks: dict[str, float] = {}
    for event in batch.events.all():
        if event.kind == "step":
            entered.append((event.step, event.cook_ms / 1000))
        elif event.kind == "ladle":
            rungs = max(rungs, int(event.value or 0))
        elif event.kind in ("pause", "resume"):
            paused = event.kind == "pause"
        elif event.kind == "mark":
            marks[event.step] = event.cook_ms / 1000
    timings = [
        Timing(key, at, entered[i + 1][1] if i + 1 < len(entered) else now_s)
        for i, (key, at) in enumerate(entered)
    ]
    return Course(
        plan, timings, rungs, now_s=now_s, time_scale=batch.time_scale, paused=paused, marks=marks
    )


def curve_of(batch: Batch, channel: int = 1) -> list[Reading]:
    """The readings of a channel on the cook's clock, as (s, degC), in order."""
    rows = batch.readings.filter(channel=channel).order_by("cook_ms", "id")
    return [(ms / 1000, cc / 100) for ms, cc in rows.values_list("cook_ms", "temp_cc")]


def moment_of(
    course: Course, state: CookState, refit: RefitOut | None = None, poured: float | None = None
) -> Moment:
    """What the guide says now, from every reading of the cook so far: the step it is in, or a hold
    that was left out before it. ``refit`` moves the window of a bake, ``poured`` is what a scale
    saw laid in this step."""
    timing = course.timings[-1]
    stale_s = _stale_s(course)
    step = _step(course, timing.key)
    if step.kind == "bake":
        if refit and refit.from_s is not None and refit.to_s is not None:
            step = replace(step, from_s=round(refit.from_s), to_s=round(refit.to_s))
        watch = state.watch(timing.entered_s, None, None, stale_s)
        fresh = is_fresh(watch, course.now_s, stale_s)
        found = bake_moment(step, watch, course.now_s - timing.entered_s, fresh)
        return replace(found, urgency="calm") if course.paused else found
    if step.kind == "check":
        watch = state.watch(timing.entered_s, None, None, stale_s)
        fresh = is_fresh(watch, course.now_s, stale_s)
        return checked_moment(step, watch, fresh)
    if step.kind == "lay":
        return laid_moment(step, poured)
    since = timing.entered_s - ENTERED_EARLY_S
    watch = state.watch(since, held_above_c(step), None, stale_s)
    found = moment(step, watch, timing.entered_s, course.now_s, stale_s)
    left_out = _left_out(course, state)
    if left_out:
        found = replace(found, headline=left_out[1], next_move=left_out[2], urgency="wrong")
    return replace(found, urgency="calm") if course.paused else found


def _step(course: Course, key: str) -> Step:
    return next(s for s in course.plan.steps if s.key == key)


def _left_out(course: Course, state: CookState) -> tuple[str, str, str] | None:
    """A hold left out before the step the cook is in. Steps that were left stand still: their
    stretches of the curve are folded once."""
    entered = tuple((t.key, t.entered_s, t.left_s) for t in course.timings)
    steps = course.plan.steps
    return state.kept(("missed", entered[:-1]), lambda: missed(steps, entered, state.curve))


def _stale_s(course: Course) -> float:
    """The longest silence of a probe that is none, on the cook's clock."""
    return max(STALE_S, 5.0 * course.time_scale)


def _believable(course: Course, found: list[Doubt]) -> list[Doubt]:
    step = next(s for s in course.plan.steps if s.key == course.current)
    # Milk kept hot under the boil stands still by intent; only where it must boil is that odd.
    boils = step.hold_s > 0 and step.kind in ("heat", "cook")
    return [d for d in found if boils or d.key != "low"]


def _boil_c(course: Course) -> float | None:
    """Where the pot boils. Sugar has no one boiling point to judge by."""
    return None if course.plan.syrup else course.plan.boil_c


def doubts_now(course: Course, state: CookState) -> list[Doubt]:
    """What is odd about the curve of the step a cook is in."""
    since = course.timings[-1].entered_s
    watch = state.watch(since, None, _boil_c(course), _stale_s(course))
    return _believable(course, doubts_of(watch))


def doubts_in(course: Course, curve: list[Reading]) -> list[Doubt]:
    """What is odd about the whole curve of a cook."""
    return _believable(course, doubts(curve, _boil_c(course), _stale_s(course)))


def is_tempering(course: Course) -> bool:
    """Whether the cook has not gone on from tempering: what the probe is in is not certain then."""
    return course.current == "temper"


Between = Callable[[float, float], Sequence[Reading]]


def _egg_at(course: Course, between: Between) -> tuple[Product, float | None] | None:
    """What egg is heated and since when (None: it is not certain to be at the probe yet); None for
    a cook without egg at the probe. ``between`` gives the readings of a stretch."""
    start = course.plan.egg_from
    times = [t for t in course.timings if t.key == start]
    if not times:
        return None
    product: Product = "white" if course.plan.guide == "swiss" else "mix"
    if start != "temper":
        return product, times[0].entered_s
    if is_tempering(course):
        return product, None
    on_s = times[-1].left_s
    if course.plan.ladder is None:
        return product, on_s
    milk = between(times[0].entered_s - STALE_S, times[0].entered_s)
    after = between(on_s, on_s + POURED_BACK_S)
    return product, in_the_mix_from_s(course.plan.ladder, milk, on_s, after)


def safety_now(course: Course, state: CookState) -> Lethality | None:
    """What the heat has done to the egg so far."""
    egg = _egg_at(course, state.between)
    if egg is None:
        return None
    product, since = egg
    return not_yet(product) if since is None else state.pasteurising(product, since).lethality()


def safety_of(course: Course, curve: list[Reading]) -> Lethality | None:
    """What the heat did to the egg in a whole cook."""
    egg = _egg_at(course, lambda a, b: [r for r in curve if a <= r[0] <= b])
    if egg is None:
        return None
    product, since = egg
    if since is None:
        return not_yet(product)
    return lethality(product, [r for r in curve if r[0] >= since])


def poured_g(batch: Batch, course: Course) -> float | None:
    """Grams poured onto the scale in the step that is weighed: since tempering began, or since
    this layer did. None without a scale."""
    weighed = ("temper",) if course.plan.guide != "build" else (course.current,)
    timing = next((t for t in course.timings[::-1] if t.key in weighed), None)
    if timing is None:
        return None
    if timing.key == "temper":  # gone back to, the first ladles still lie in the bowl
        timing = next(t for t in course.timings if t.key == "temper")
        return _poured(batch, timing.entered_s, None)
    return _poured(batch, timing.entered_s, None)


def _poured(batch: Batch, from_s: float, to_s: float | None) -> float | None:
    """What was added on the scale in a stretch of the cook. The bowl may be tared on the way: then
    it is counted from there."""
    rows = batch.weights.filter(cook_ms__gt=from_s * 1000)
    if to_s is not None:
        rows = rows.filter(cook_ms__lte=to_s * 1000)
    weights = list(rows.values_list("dg", flat=True))
    if not weights:
        return None
    before = batch.weights.filter(cook_ms__lte=from_s * 1000).last()
    start = before.dg if before else weights[0]
    return (weights[-1] - min(start, *weights)) / 10


def laid_in(batch: Batch, course: Course, curve: list[Reading]) -> list[LaidOut]:
    """The layers of a built dessert as they were weighed and checked."""
    if course.plan.guide != "build":
        return []
    found = []
    at = longest(course.timings)
    last = {timing.key: timing for timing in course.timings}
    for n, step in enumerate(course.plan.steps):
        timing = at.get(step.key)
        if step.kind != "lay" or timing is None:
            continue
        check = course.plan.steps[n - 1] if n else None
        seen = last.get(check.key) if check and check.kind == "check" else None
        mine = [c for t, c in curve if seen and seen.entered_s <= t <= seen.left_s]
        got = _poured(batch, timing.entered_s, timing.left_s)
        asked = step.grams * step.count
        enough = None if got is None else is_enough(got, asked)
        found.append(
            LaidOut(step=step.key, title=step.title, asked_g=asked, got_g=got, enough=enough,
                    checked_c=mine[-1] if mine else None)
        )  # fmt: skip
    return found


def raise_peak(batch: Batch, top_cc: int | None) -> None:
    """Keep the highest reading of a cook on its own row, where the book reads it."""
    if top_cc is not None:
        lower = Q(peak_cc__isnull=True) | Q(peak_cc__lt=top_cc)
        Batch.objects.filter(lower, pk=batch.pk).update(peak_cc=top_cc)
