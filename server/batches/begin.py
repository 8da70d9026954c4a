"""How a batch begins: the one place that freezes a prediction and writes what the book lists."""

from datetime import datetime, timedelta
from typing import Any

from accounts.models import User
from batches.models import Batch
from bellcrumb.shapes.formula import FormulaOut
from formulas.guide_shapes import PlanOut
from formulas.models import Version
from kitchen.models import Kitchen


def begin(
    kitchen: Kitchen,
    version: Version,
    cook: User,
    plan: PlanOut,
    formula: FormulaOut,
    at: datetime,
    **more: Any,
) -> Batch:
    """A batch begun at a moment; ``more`` are further columns. The version is fixed from now on."""
    Version.objects.filter(pk=version.pk, cooked_at__isnull=True).update(cooked_at=at)
    return Batch.objects.create(
        kitchen=kitchen,
        version=version,
        cook=cook,
        cook_name=cook.name,
        started_at=at,
        family_name=plan.family[:80],
        place_name=plan.ring[:60],
        predicted_class=formula.set.class_ if formula.set else "",
        prediction={
            "plan": plan.model_dump(mode="json"),
            "formula": formula.model_dump(mode="json", by_alias=True),
        },
        **more,
    )


# A part that was cooked longer ago is not what stands in the cold now: the longest any keeps.
_STILL_THERE = timedelta(days=7)


def parts_made(batch: Batch) -> list[Batch]:
    """The cooks and bakes of a dessert's parts that a build of it takes: those since the last
    build, and no older than any part keeps."""
    dessert = batch.version.part.dessert_id
    same = Batch.objects.filter(kitchen=batch.kitchen_id, version__part__dessert=dessert)
    before = same.filter(whole=True, started_at__lt=batch.started_at).order_by("-started_at")
    last = before.values_list("started_at", flat=True).first()
    since = max(batch.started_at - _STILL_THERE, last or batch.started_at - _STILL_THERE)
    rows = same.filter(whole=False, started_at__gte=since, started_at__lt=batch.started_at)
    return list(rows.defer("prediction").order_by("started_at")[:40])
