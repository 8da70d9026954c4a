"""How a batch begins: the one place that freezes a prediction and writes what the book lists."""

from datetime import datetime
from typing import Any

from accounts.models import User
from batches.models import Batch
from bellcrumb.contract.shapes.formula import FormulaOut
from formulas.models import Version
from formulas.stove import PlanOut
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
        predicted_class=formula.set.class_ if formula.set else "",
        prediction={
            "plan": plan.model_dump(mode="json"),
            "formula": formula.model_dump(mode="json", by_alias=True),
        },
        **more,
    )
