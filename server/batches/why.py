"""Why a batch came out as it did: its curve, clock, formula and verdict asked of the core."""

from typing import cast
from uuid import UUID

from django.http import HttpRequest
from ninja import Router

from batches.book import batch_of
from batches.clock import course_of, curve_of
from batches.models import Batch
from bellcrumb.book.review import longest, step_readings
from bellcrumb.contract.explains import explain
from bellcrumb.contract.shapes import SetClass, TempReading
from bellcrumb.contract.shapes.explain import ExplainIn, ExplainOut, PlannedIn, VerdictOfBatch
from formulas.content import content_of, given_of
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
        "verdict": VerdictOfBatch.model_validate({
            "class": verdict.texture or None if verdict else None,
            "faults": verdict.faults if verdict else [],
        }).model_dump(by_alias=True),
    })  # fmt: skip


@router.get(
    "/k/{kid}/batches/{batch_id}/why", response={200: ExplainOut, **PROBLEMS}, by_alias=True
)
@heavy
def why(request: HttpRequest, kid: UUID, batch_id: UUID) -> ExplainOut:
    """The likely causes of what was judged, with what speaks for and against each."""
    member = member_of(request, kid)
    return explain(explain_given(batch_of(member, batch_id)), pantry_of(member.kitchen))
