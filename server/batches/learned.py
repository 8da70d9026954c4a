"""What the kitchen's own batches teach: rings, ovens and its set."""

from uuid import UUID

from django.http import HttpRequest
from ninja import Router

from batches.clock import course_of, curve_of
from batches.models import Batch
from bellcrumb.book.learn import heating_s
from bellcrumb.book.review import longest
from bellcrumb.contract.explains import learned
from bellcrumb.contract.shapes.explain import BatchSeen, LearnIn, LearnOut
from bellcrumb.formula.answer import answer
from bellcrumb.mix.lines import understand_all
from bellcrumb.pantry.eggs import egg_grade
from formulas.content import beaten_of, content_of
from formulas.oven import oven_of
from kitchen.access import member_of, pantry_of
from kitchen.models import Kitchen
from shared.heavy import heavy
from shared.shapes import PROBLEMS

router = Router(tags=["batches"])
_LATEST = 120  # older ones have faded


def batches_seen(kitchen: Kitchen) -> list[BatchSeen]:
    """The kitchen's latest ended batches as they were predicted and as they were, oldest first.

    Simulated probes teach only where there is nothing else: in the demo kitchen.
    """
    rows = (
        Batch.objects.filter(kitchen=kitchen, ended_at__isnull=False)
        .select_related("version__part", "version__ring", "verdict", "device")
        .order_by("-started_at")[:_LATEST]
    )
    batches = list(rows)[::-1]
    real = [b for b in batches if not (b.device and b.device.simulated)]
    return [_seen(kitchen, b) for b in real or batches]


def _seen(kitchen: Kitchen, batch: Batch) -> BatchSeen:
    course = course_of(batch)
    content = content_of(batch.version)
    at = longest(course.timings)
    out = BatchSeen(ring=course.plan.ring or None)
    heat = course.plan.heat
    if heat and "heat" in at:
        began, left = at["heat"].entered_s, at["heat"].left_s
        timed = heating_s(
            [(p.t_s, p.temp_c) for p in heat.points],
            [(t - began, c) for t, c in curve_of(batch) if began <= t <= left],
        )
        if timed:
            out.boil_predicted_s, out.boil_took_s = timed
    bake = next((s for s in course.plan.steps if s.kind == "bake"), None)
    if bake and bake.key in at and bake.to_s:
        oven = oven_of(kitchen, content.baking)
        out.oven, out.oven_kind = oven.name, "fan" if oven.kind == "fan" else "static"
        out.dial_c = content.baking.set_c
        out.bake_predicted_min = (bake.from_s + bake.to_s) / 120
        out.bake_took_min = (at[bake.key].left_s - at[bake.key].entered_s) / 60 or None
    verdict = getattr(batch, "verdict", None)
    if verdict and verdict.texture:
        grade = egg_grade(content.egg_grade)
        lines = understand_all(content.lines_text.split("\n"), pantry_of(kitchen), grade)
        found = answer(lines, grade, content.family or None, beaten=beaten_of(content))
        if found.set and found.family:
            out.family, out.predicted_index = found.family.name, found.set.index
            out.judged = verdict.texture
    return out


@router.get("/k/{kid}/learned", response={200: LearnOut, **PROBLEMS})
@heavy
def what_is_learned(request: HttpRequest, kid: UUID) -> LearnOut:
    """What the book teaches of rings, ovens and this kitchen's set."""
    kitchen = member_of(request, kid).kitchen
    return learned(LearnIn(batches=batches_seen(kitchen)))
