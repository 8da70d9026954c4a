"""Why a batch came out as it did: its curve, clock, formula and verdict asked of the core."""

from itertools import pairwise
from typing import cast
from uuid import UUID

from django.http import HttpRequest
from ninja import Router

from batches.bakes import told_by
from batches.book import batch_of
from batches.clock import Course, course_of, curve_of, poured_g
from batches.models import Batch
from batches.teaching import heated
from bellcrumb.contract.explains import explain
from bellcrumb.contract.open.books import longest, step_readings
from bellcrumb.contract.open.cooking import Reading
from bellcrumb.contract.open.food import mix_of
from bellcrumb.shapes import SetClass, TempReading
from bellcrumb.shapes.explain import (
    CookSeenIn,
    ExplainIn,
    ExplainOut,
    PlannedIn,
    StepSeenIn,
    VerdictOfBatch,
)
from bellcrumb.shapes.oven import RuleIn
from formulas.content import Content, content_of, given_of, understood
from formulas.guide_shapes import PlanOut
from formulas.oven import oven_of
from kitchen.access import member_of, pantry_of
from shared.heavy import heavy
from shared.shapes import PROBLEMS

router = Router(tags=["batches"])
_MOST_READINGS = 4000  # a curve is judged as well by every so many


def explain_given(batch: Batch) -> ExplainIn:
    """What is known of a batch, as the core is asked."""
    course = course_of(batch)
    curve = curve_of(batch)
    verdict = getattr(batch, "verdict", None)
    at = longest(course.timings)
    plan = PlannedIn()
    readings: list[TempReading] = []
    for step in course.plan.steps:
        timing = at.get(step.key)
        if timing is None or not (step.kind in ("cook", "bake") or step.hold_s):
            continue
        mine = step_readings(curve, timing)
        stride = max(1, len(mine) // _MOST_READINGS)
        readings = [
            TempReading(t_s=max(0.0, t - timing.entered_s), temp_c=c) for t, c in mine[::stride]
        ]
        plan = PlannedIn(
            hold_s=step.hold_s or None,
            from_min=step.from_s / 60 or None,
            to_min=step.to_s / 60 or None,
            took_min=(timing.left_s - timing.entered_s) / 60 or None,
        )
    if verdict and verdict.weighs_g and course.plan.boils_off_g:
        plan.went_in_g, plan.came_out_g = course.plan.went_in_g, verdict.weighs_g
        plan.boils_off_g = course.plan.boils_off_g
    plan.set_class = cast("SetClass | None", batch.predicted_class or None)
    given = given_of(batch.kitchen, content_of(batch.version), batch.version.part.kind)
    return ExplainIn.model_validate({
        **given, "vessel": None, "rest_vessel": None, "tray": None,
        "readings": [r.model_dump() for r in readings], "planned": plan.model_dump(),
        "cook": _cook_seen(batch, course, curve).model_dump(),
        "verdict": VerdictOfBatch.model_validate({
            "class": verdict.texture or None if verdict else None,
            "faults": verdict.faults if verdict else [],
        }).model_dump(by_alias=True),
    })  # fmt: skip


def _cook_seen(batch: Batch, course: Course, curve: list[Reading]) -> CookSeenIn:
    """The whole cook beside its plan."""
    at = longest(course.timings)
    plan = course.plan
    seen = CookSeenIn(rule=RuleIn.model_validate(batch.kitchen.cool_rule))
    seen.steps = [
        StepSeenIn(
            key=s.key, kind=s.kind, entered_s=at[s.key].entered_s, left_s=at[s.key].left_s,
            low_c=s.low_c, never_c=s.never_c, hold_s=s.hold_s if s.kind != "finish" else 0,
        )
        for s in plan.steps if s.key in at
    ]  # fmt: skip
    stride = max(1, len(curve) // _MOST_READINGS)
    seen.readings = [TempReading(t_s=max(0.0, t), temp_c=c) for t, c in curve[::stride]]
    timed = heated(course, curve)
    if timed:
        seen.heat_predicted_s, seen.heat_took_s = timed
    if plan.ladder:
        temps = [plan.ladder.bowl_temp_c, *(r.mix_temp_c for r in plan.ladder.rungs)]
        seen.ladder_jump_k = max(max(0.0, b - a) for a, b in pairwise(temps))
        seen.to_pour_g = sum(r.added_g for r in plan.ladder.rungs) or None
        seen.poured_g = poured_g(batch, course)
    refit = told_by(batch, course)
    if refit and plan.content:
        content = Content.model_validate(plan.content)
        oven = oven_of(batch.kitchen, content.baking)
        learned = sum(used.value for used in plan.learned if used.kind == "oven")
        seen.oven_moved_k = refit.offset_k - float(oven.dial_error_k) - learned
    seen.egg_share = _egg_share(batch, plan)
    return seen


def _egg_share(batch: Batch, plan: PlanOut) -> float | None:
    """The egg that went in beside the egg as it is written: today's were of another grade."""
    if plan.content is None:
        return None
    written = content_of(batch.version)
    used = Content.model_validate(plan.content)
    if used.egg_grade == written.egg_grade:
        return None
    masses = []
    for content in (used, written):
        masses.append(mix_of(understood(batch.kitchen, content)).grams_of("egg"))
    return masses[0] / masses[1] if masses[1] else None


@router.get(
    "/k/{kid}/batches/{batch_id}/why", response={200: ExplainOut, **PROBLEMS}, by_alias=True
)
@heavy
def why(request: HttpRequest, kid: UUID, batch_id: UUID) -> ExplainOut:
    """The likely causes of what was judged, with what speaks for and against each."""
    member = member_of(request, kid)
    return explain(explain_given(batch_of(member, batch_id)), pantry_of(member.kitchen))
