"""What a batch teaches of its ring, its pot, its oven and the set, and what all of them teach
together.

Each batch is worked out once, when it ends or is judged; learning reads only that. A prediction
made with something learned is set back to what it would have been without, so that what is learned
is always the whole of it.
"""

from collections.abc import Iterable
from datetime import datetime
from typing import Any

from django.db import transaction

from batches.bakes import oven_told_by, told_by
from batches.clock import Course, course_of, curve_of
from batches.models import Batch
from bellcrumb.contract.explains import learned
from bellcrumb.contract.open.books import (
    Curve,
    heating_s,
    longest,
    loss_told,
    share_per_loss,
    step_readings,
    timed_by_its_sign,
)
from bellcrumb.contract.open.cooking import Cream, Pot, Reading
from bellcrumb.contract.open.food import Answer, answer, egg_grade, set_by
from bellcrumb.errors import CraftError
from bellcrumb.shapes.explain import (
    BatchSeen,
    LearnedOut,
    LearnIn,
    LearnOut,
    OvenTold,
)
from bellcrumb.shapes.oven import RefitOut
from formulas.content import Content, beaten_of, content_of, understood
from formulas.guide_shapes import PlanOut
from formulas.oven import oven_of
from kitchen.lessons import OF_A_RING
from kitchen.models import Kitchen, Lesson, Oven

_LATEST = 120  # older ones have faded
_TELLS_K = 7.0  # a fit no surer than what is known of any oven tells nothing
_AT_ONCE = 30  # curves read in one go, so that nobody waits for a whole book
_WITH = ("version__part", "version__ring", "verdict", "device")


def _heating(course: Course, curve: list[Reading]) -> list[Reading]:
    """The curve of the heating (s from its start, degC); empty without one."""
    timing = longest(course.timings).get("heat")
    if timing is None:
        return []
    return [(t - timing.entered_s, c) for t, c in step_readings(curve, timing)]


def heated(course: Course, curve: list[Reading]) -> tuple[float, float] | None:
    """Seconds of the heating to the same temperature, as planned and as it was; None without it."""
    return _timed(course.plan, _heating(course, curve))


def _timed(plan: PlanOut, heating: Curve) -> tuple[float, float] | None:
    if plan.heat is None:
        return None
    return heating_s([(p.t_s, p.temp_c) for p in plan.heat.points], heating)


def _share_used(plan: PlanOut) -> float:
    """What share of its ring's rating, with what its pot loses, a heating was predicted with."""
    for lesson in plan.learned:
        if lesson.kind in OF_A_RING and lesson.here_min and lesson.books_min:
            return lesson.books_min / lesson.here_min
    return 1.0


def tell_ring(out: BatchSeen, plan: PlanOut, heating: Curve) -> None:
    """Put what a heating (s, degC) tells of its ring into what its batch teaches."""
    out.ring = plan.ring or None
    timed = _timed(plan, heating)
    if timed is None:
        return
    out.boil_predicted_s, out.boil_took_s = timed[0] * _share_used(plan), timed[1]
    scene = next((s for s in plan.scenes if s.step == "heat" and s.kind == "pot"), None)
    if scene is None:
        return
    pot = Pot(scene.pot_mm, scene.pot_g)
    cream = Cream(scene.mass_g, scene.cp_j_per_gk, scene.boil_c, thickens_c=scene.thickens_c)
    told = loss_told(heating, cream, pot, scene.fuel)
    if told:
        out.loss_seen_w_m2k, out.loss_spread_w_m2k = told.loss_w_m2k, told.spread
        out.share_per_loss = share_per_loss(heating, pot, scene.power_w)


def tell_oven(out: BatchSeen, oven: Oven, told: OvenTold | RefitOut | None) -> None:
    """Put what a probe in a bake tells of its oven into what the batch teaches."""
    if told and told.offset_spread_k < _TELLS_K:
        out.offset_seen_k = told.offset_k - float(oven.dial_error_k)
        out.offset_spread_k = told.offset_spread_k
    out.figures = told.figures if isinstance(told, OvenTold) else []


def seen_in(kitchen: Kitchen, batch: Batch) -> BatchSeen:
    """A batch as it was predicted (without what was learned) and as it was."""
    course = course_of(batch)
    content = content_of(batch.version)
    at = longest(course.timings)
    used = {lesson.kind: lesson.value for lesson in course.plan.learned}
    out = BatchSeen()
    tell_ring(out, course.plan, _heating(course, curve_of(batch)))
    verdict = getattr(batch, "verdict", None)
    if verdict and verdict.weighs_g and course.plan.boils_off_g and course.plan.pot_name:
        out.pot = course.plan.pot_name
        out.off_predicted_g = course.plan.boils_off_g / used.get("pot", 1.0)
        out.off_g = course.plan.went_in_g - verdict.weighs_g
    bake = next((s for s in course.plan.steps if s.kind == "bake"), None)
    if bake and bake.key in at and bake.to_s:
        oven = oven_of(kitchen, content.baking)
        out.oven, out.oven_kind = oven.name, "fan" if oven.kind == "fan" else "static"
        out.dial_c = content.baking.set_c
        out.offset_used_k = used.get("oven", 0.0)
        took_min = (at[bake.key].left_s - at[bake.key].entered_s) / 60
        if timed_by_its_sign(took_min, bake.from_s / 60, bake.to_s / 60):
            out.bake_predicted_min = (bake.from_s + bake.to_s) / 120
            out.bake_took_min = took_min or None
        # With a probe in the air, a windy oven is no hot one.
        whole = oven_told_by(batch, course)
        tell_oven(out, oven, whole or told_by(batch, course))
    if verdict and verdict.texture:
        found = by_the_books(kitchen, content)
        if found.set and found.family:
            out.family, out.predicted_index = found.family.name, found.set.index
            out.set_by = set_by(found.mix, found.style)
            out.judged = verdict.texture
    return out


def by_the_books(kitchen: Kitchen, content: Content) -> Answer:
    """A version's answer without what was learned of its set."""
    grade = egg_grade(content.egg_grade)
    return answer(
        understood(kitchen, content), grade, content.family or None, beaten=beaten_of(content)
    )


def _ended(kitchen: Kitchen) -> list[Batch]:
    """The latest ended batches, oldest first. Simulated probes teach only where there is nothing
    else: in the demo kitchen."""
    # A dessert put together teaches nothing: its parts did.
    rows = Batch.objects.filter(kitchen=kitchen, ended_at__isnull=False, whole=False)
    rows = rows.select_related(*_WITH)
    batches = list(rows.defer("prediction").order_by("-started_at")[:_LATEST])[::-1]
    return [b for b in batches if not (b.device and b.device.simulated)] or batches


def batches_seen(kitchen: Kitchen, since: datetime | None = None) -> list[BatchSeen]:
    """What the kitchen's latest batches teach, oldest first."""
    found, worked_out = [], 0
    for batch in _ended(kitchen):
        if since and batch.started_at < since:
            continue
        if batch.taught is None and worked_out == _AT_ONCE:
            continue  # of an older program: next time
        if batch.taught is None:
            worked_out += 1
            batch.taught = _taught(kitchen, batch)
            Batch.objects.filter(pk=batch.pk).update(taught=batch.taught)
        found.append(BatchSeen.model_validate(batch.taught))
    return found


def _taught(kitchen: Kitchen, batch: Batch) -> dict[str, Any]:
    """What a batch teaches, as its row keeps it; one that cannot be read any more (a family or a
    grade that is gone, or itself, since it was listed) teaches nothing and stops nobody."""
    try:
        seen = seen_in(kitchen, batch)
    except (CraftError, Batch.DoesNotExist):
        seen = BatchSeen()
    return seen.model_dump(mode="json")


def teach(batch: Batch) -> None:
    """A batch has ended or was judged: work it out anew, and everything that is learned."""
    fresh = Batch.objects.select_related(*_WITH).defer("prediction").get(pk=batch.pk)
    if fresh.ended_at is None or fresh.whole:
        return
    taught = _taught(fresh.kitchen, fresh)
    Batch.objects.filter(pk=fresh.pk).update(taught=taught)
    relearn(fresh.kitchen)


def relearn(kitchen: Kitchen) -> None:
    """Everything learned, from the batches there are. What somebody switched off or put in by hand
    stays so."""
    kept = {(row.kind, row.name): row for row in Lesson.objects.filter(kitchen=kitchen)}
    losses = _losses_taken(kept.values())
    found = _by_kind(learned(LearnIn(batches=batches_seen(kitchen), losses_w_m2k=losses)))
    for key, row in kept.items():
        if row.since:  # begun again: only what came after counts
            found.pop(key, None)
            seen = batches_seen(kitchen, row.since)
            later = _by_kind(learned(LearnIn(batches=seen, losses_w_m2k=losses)))
            if key in later:
                found[key] = later[key]
    with transaction.atomic():
        for (kind, name), value in found.items():
            Lesson.objects.update_or_create(
                kitchen=kitchen, kind=kind, name=name,
                defaults={"mean": value.mean, "sd": value.sd, "n": value.n, "seen": value.seen},
            )  # fmt: skip


def _losses_taken(rows: Iterable[Lesson]) -> dict[str, float]:
    """The losses that somebody put in by hand or switched off, whatever the batches teach: what a
    boil tells of a ring's power hangs on them."""
    return {
        row.name: row.value or 0.0
        for row in rows
        if row.kind == "loss" and (not row.on or row.by_hand is not None or row.since)
    }


def _by_kind(out: LearnOut) -> dict[tuple[str, str], LearnedOut]:
    kinds = (("ring", out.rings), ("loss", out.losses), ("pot", out.pots), ("oven", out.ovens),
             ("set", out.set_shift), ("line", out.lines))  # fmt: skip
    found = {(kind, value.name): value for kind, values in kinds for value in values}
    return found | {(value.figure, value.name): value for value in out.figures}
