"""The thread of a dessert: when each step may begin, counted back from the plate.

Steps and gaps make a graph without circles. Forward, with all hands there are, it gives the
shortest time from nothing to the plate and the chain that decides it; backward, the latest start of
each step; along the at-most gaps, the earliest.
"""

from collections.abc import Sequence
from dataclasses import KW_ONLY, dataclass
from typing import Literal

from bellcrumb.dessert.steps import BuildStep
from bellcrumb.errors import CraftError
from bellcrumb.words import say

Ahead = Literal["two_days", "day_before", "hours", "at_last"]
# How far ahead a step may be done, by the earliest it may begin: minutes before the plate.
_AHEAD: tuple[tuple[float, Ahead], ...] = (
    (2880.0, "two_days"), (1200.0, "day_before"), (120.0, "hours"), (-1.0, "at_last"),
)  # fmt: skip
FARTHEST_MIN = 3 * 24 * 60.0  # nothing is planned further ahead than this


@dataclass(frozen=True)
class When:
    """When a step may begin, in minutes before the dessert is plated: from ``earliest`` to
    ``latest``. ``critical`` when every minute longer makes the whole longer."""

    key: str
    earliest_min: float
    latest_min: float
    _: KW_ONLY
    critical: bool

    @property
    def ahead(self) -> Ahead:
        """How far ahead it may be done."""
        return next(word for least, word in _AHEAD if self.earliest_min >= least)


@dataclass(frozen=True)
class Thread:
    """The times of every step, the shortest time in all, the deciding chain, and clashes."""

    whens: list[When]
    shortest_min: float
    critical: list[str]
    _: KW_ONLY
    clashes: list[str]


def ordered(steps: Sequence[BuildStep]) -> list[BuildStep]:
    """The steps so that each comes after what it waits for. Raises CraftError for a circle."""
    by_key = {step.key: step for step in steps}
    done: dict[str, BuildStep] = {}
    while len(done) < len(by_key):
        ready = [s for s in steps if s.key not in done and all(g.key in done for g in s.after)]
        if not ready:
            left = ", ".join(k for k in by_key if k not in done)
            raise CraftError("layers", say("dessert.these_wait_for_each_other_in", left=left))
        done |= {step.key: step for step in ready}
    return list(done.values())


def thread(steps: Sequence[BuildStep]) -> Thread:
    """Time the steps. Raises CraftError for a circle."""
    order = ordered(steps)
    if not order:
        return Thread([], 0.0, [], clashes=[])
    starts: dict[str, float] = {}
    ends: dict[str, float] = {}
    for step in order:
        starts[step.key] = max((ends[g.key] + g.at_least_min for g in step.after), default=0.0)
        ends[step.key] = starts[step.key] + step.minutes
    whole = max(ends.values())
    latest_end = dict.fromkeys(ends, whole)
    for step in reversed(order):
        begins = latest_end[step.key] - step.minutes
        for gap in step.after:
            latest_end[gap.key] = min(latest_end[gap.key], begins - gap.at_least_min)
    earliest_end = _earliest_ends(order, whole)
    clashes = [
        say(
            "dessert.must_wait_min_and_may_wait",
            step=step.words,
            part=step.part or say("dessert.the_whole"),
            at_least_min=gap.at_least_min,
            at_most_min=gap.at_most_min,
        )
        for step in order
        for gap in step.after
        if gap.at_most_min is not None and gap.at_least_min > gap.at_most_min
    ]
    late = {s.key: latest_end[s.key] - s.minutes for s in order}
    whens = []
    for step in order:
        first = min(earliest_end[step.key] - step.minutes, late[step.key])
        whens.append(
            When(step.key, whole - first, whole - late[step.key],
                 critical=late[step.key] - starts[step.key] < 0.5)
        )  # fmt: skip
    critical = [w.key for w in whens if w.critical]
    return Thread(whens, whole, critical, clashes=clashes)


def _earliest_ends(order: Sequence[BuildStep], whole: float) -> dict[str, float]:
    """The earliest each may end so that nothing after it comes too late."""
    ends = {step.key: whole - FARTHEST_MIN for step in order}
    ends[order[-1].key] = whole
    for step in reversed(order):
        begins = ends[step.key] - step.minutes
        for gap in step.after:
            if gap.at_most_min is not None:
                ends[gap.key] = max(ends[gap.key], begins - gap.at_most_min)
            else:
                ends[gap.key] = max(ends[gap.key], whole - FARTHEST_MIN)
    return ends


def could_save(steps: Sequence[BuildStep], critical: Sequence[str]) -> list[tuple[str, float]]:
    """Waits of the deciding chain that may be shorter, with the minutes, the most first."""
    found = [
        (s.key, s.wait_min - s.wait_low_min)
        for s in steps
        if s.key in critical and not s.own and s.wait_min - s.wait_low_min >= 10
    ]
    return sorted(found, key=lambda pair: -pair[1])
