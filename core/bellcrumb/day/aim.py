"""What a plan is judged by, in this order: safety, nothing early, few turns, even load.

That everything is in time and inside its windows is no matter of degree: a plan that breaks one is
none. The rest is weighed in minutes of waiting; the weights are our estimate of what a chef would
give for each.
"""

from collections.abc import Sequence
from dataclasses import KW_ONLY, dataclass, field
from itertools import pairwise

from bellcrumb.day.pools import chilling
from bellcrumb.day.tasks import SAME_OVEN_K, Day, Placed

WARM_COSTS = 4  # minutes in the cold, for one that food stands warm
SLOW_COSTS_MIN = 90  # for something hot that cools without the chiller there is
TURN_COSTS_MIN = 15  # of somebody's early start that one turn of an oven is worth avoiding
LOAD_COSTS_MIN = 1  # for each point of a hundred by which the busiest are busier


@dataclass(frozen=True)
class Tally:
    """What a plan has: minutes that things wait for what comes after them, and those of them that
    food stands warm; hot things cooled without the chiller; turns of the ovens; and the share of
    their hours, of a hundred, that the busiest work."""

    early_min: int
    warm_min: int
    slow: int
    _: KW_ONLY
    turns: int
    busiest_pct: int

    @property
    def cost(self) -> int:
        """All of it in minutes."""
        return (
            self.early_min + WARM_COSTS * self.warm_min + SLOW_COSTS_MIN * self.slow
            + TURN_COSTS_MIN * self.turns + LOAD_COSTS_MIN * self.busiest_pct
        )  # fmt: skip


@dataclass(frozen=True)
class Schedule:
    """A plan: where every task is, how far from the best it may be (0 to 1; 1 where nothing is
    known), and what it comes to. ``chef_early_min`` is what waits early in the careful chef's own
    plan (None: that found no place for everything, or was not asked for)."""

    placed: list[Placed]
    gap: float
    tally: Tally = field(kw_only=True)
    chef_early_min: int | None = None


def schedule(day: Day, placed: Sequence[Placed], gap: float = 1.0) -> Schedule:
    """A plan with what it comes to."""
    return Schedule(list(placed), gap, tally=tally(day, placed))


def tally(day: Day, placed: Sequence[Placed]) -> Tally:
    """What a plan comes to, counted from where its tasks are."""
    early, warm = _waits(day, placed)
    slow = sum(
        len(chilling(task, day.kitchen.blast)) > 1 and not place.chilled
        for task, place in zip(day.tasks, placed, strict=True)
    )
    return Tally(
        early, warm, slow, turns=_turns(day, placed), busiest_pct=_busiest_pct(day, placed)
    )


def _waits(day: Day, placed: Sequence[Placed]) -> tuple[int, int]:
    early = warm = 0
    for n, task in enumerate(day.tasks):
        end = placed[n].start + task.minutes
        for m, link in day.after[n]:
            waits = max(0, placed[m].start - end - link.least)
            early += waits
            warm += waits * link.warm
        if task.by is not None:
            early += task.by - end
            warm += (task.by - end) * task.spoils
    return early, warm


def _turns(day: Day, placed: Sequence[Placed]) -> int:
    """How often an oven's dial is turned."""
    count = 0
    for n in range(len(day.kitchen.ovens)):
        order = sorted(
            (p.start, t.oven_c)
            for p, t in zip(placed, day.tasks, strict=True)
            if p.oven == n and t.oven_c is not None
        )
        count += sum(abs(a - b) > SAME_OVEN_K for (_, a), (_, b) in pairwise(order))
    return count


def _busiest_pct(day: Day, placed: Sequence[Placed]) -> int:
    """Of those who work the same hours and may do the same, on the average of them."""
    worked: dict[object, int] = {}
    crews = crews_of(day)
    crew_of = {n: key for key, names in crews.items() for n in names}
    for task, place in zip(day.tasks, placed, strict=True):
        if place.person is not None:
            key = crew_of[place.person]
            worked[key] = worked.get(key, 0) + task.hands
    return max(
        (-(-100 * minutes // there_min(day, crews[key])) for key, minutes in worked.items()),
        default=0,
    )


def crews_of(day: Day) -> dict[object, list[int]]:
    """People by what they are for a plan: who share their hours and what they may do are a crew."""
    crews: dict[object, list[int]] = {}
    own = {task.only for task in day.tasks if task.only is not None}
    for n, person in enumerate(day.kitchen.people):
        # Whoever has a break of their own is nobody's double.
        alone = n if n in own else None
        crews.setdefault((person.spans, person.may, alone), []).append(n)
    return crews


def there_min(day: Day, crew: Sequence[int]) -> int:
    """Minutes that a crew is there, all of them together."""
    each = sum(b - a for a, b in day.kitchen.people[crew[0]].spans)
    return max(1, each * len(crew))
