"""What days that are over teach of the next: how long a step really takes in this kitchen."""

import math
from datetime import datetime

from bellcrumb.contract.open.planning import plain_key
from bellcrumb.shapes.plan import DayOut, OwnMinutesIn
from days.models import RunningDay
from days.running import facts_of
from kitchen.models import Kitchen

_LATEST = 40  # days; older ones are another kitchen
_PRIOR = 1.0  # the table counts as one day seen
_LEAST_MIN, _MOST = 2.0, 4.0  # nothing is learned of moments, nor of a tick forgotten


def own_minutes(kitchen: Kitchen) -> list[OwnMinutesIn]:
    """By what a step's minutes are to be multiplied, from the days there were: the geometric mean
    of real over planned, with the plan itself as one day seen."""
    logs: dict[str, list[float]] = {}
    rows = RunningDay.objects.filter(kitchen=kitchen, ended_at__isnull=False)
    for day in rows.prefetch_related("ticks")[:_LATEST]:
        begun = {tick.key for tick in day.ticks.all() if tick.kind == "begin"}
        facts = facts_of(day)
        for step in DayOut.model_validate(day.begun_plan).steps:
            fact = facts.get(step.key)
            # Ticked off without a beginning, nobody knows how long it took.
            if fact is None or fact.ended is None or not (step.key in begun or fact.cooked):
                continue
            real = datetime.fromisoformat(fact.ended) - datetime.fromisoformat(fact.began)
            planned = (step.end - step.start).total_seconds() / step.own_factor
            if planned < 60 * _LEAST_MIN or real.total_seconds() <= 0:
                continue
            ratio = real.total_seconds() / planned
            if 1 / _MOST <= ratio <= _MOST:
                logs.setdefault(plain_key(step.key), []).append(math.log(ratio))
    return [
        OwnMinutesIn(key=key, factor=math.exp(sum(each) / (len(each) + _PRIOR)), seen=len(each))
        for key, each in sorted(logs.items())
    ][:2000]
