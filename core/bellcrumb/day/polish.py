"""A plan made better a few desserts at a time, and how good a plan could be at all.

What is due together wants the same hands and ovens, so it is moved together while the rest stays
where it is: a large neighbourhood search (Shaw 1998). No plan is better than the sum of its
desserts, each with the kitchen to itself: that is the bound it is held against.
"""

import math
from collections.abc import Callable, Sequence
from dataclasses import replace

from bellcrumb.day.aim import LOAD_COSTS_MIN, Schedule, schedule
from bellcrumb.day.greedy import backwards
from bellcrumb.day.tasks import Day, Placed, Task, only_items

Search = Callable[[Day, Sequence[Placed | None], float, frozenset[int]], Schedule | None]
_TOGETHER = 5  # desserts that are moved at once
_EFFORT, _ALONE = 0.005, 0.003  # of the solver's own steps, for some together and for one alone
_TURNS = 9  # groups that are tried, in a day with many those that wait the most
_MOST_ALONE = 60  # more desserts than that are bounded by nothing


def polished(day: Day, placed: Sequence[Placed], search: Search) -> Schedule:
    """The plan with group after group of its desserts moved for the better."""
    best = schedule(day, placed)
    for group in _groups(day, placed):
        free = frozenset(n for n, task in enumerate(day.tasks) if task.item in group)
        found = search(day, best.placed, _EFFORT, free)
        if found is not None and found.tally.cost < best.tally.cost:
            best = found
    return best


def _groups(day: Day, placed: Sequence[Placed]) -> list[frozenset[int]]:
    """Desserts that are due one after another, a few at a time, twice where there are few: once
    more with the groups cut elsewhere."""
    due: dict[int, int] = {}
    for task, place in zip(day.tasks, placed, strict=True):
        due[task.item] = max(due.get(task.item, 0), place.start + task.minutes)
    order = sorted(due, key=lambda item: (due[item], item))
    half = _TOGETHER // 2
    sweeps = [order, [*order[half:], *order[:half]]]
    cut = [
        frozenset(sweep[n : n + _TOGETHER])
        for sweep in sweeps for n in range(0, len(sweep), _TOGETHER)
    ]  # fmt: skip
    waits = _waits(day, placed)
    if len(cut) > _TURNS:
        once = cut[: len(cut) // 2]
        most = sorted(once, key=lambda g: (-sum(waits.get(i, 0) for i in g), min(g)))
        cut = sorted(most[:_TURNS], key=once.index)
    return list(dict.fromkeys(cut))


def _waits(day: Day, placed: Sequence[Placed]) -> dict[int, int]:
    """Minutes each dessert waits for itself."""
    found: dict[int, int] = {}
    for n, task in enumerate(day.tasks):
        end = placed[n].start + task.minutes
        waits = sum(placed[m].start - end - link.least for m, link in day.after[n])
        found[task.item] = found.get(task.item, 0) + waits + max(0, (task.by or end) - end)
    return found


def at_best(day: Day, search: Search) -> float:
    """A cost that no plan is below: its desserts one by one in an empty kitchen whose ovens turn at
    once, and the hands that all of it takes spread evenly."""
    alone = _by_themselves(day)
    ovens = tuple(
        replace(oven, heats_k_min=math.inf, cools_k_min=math.inf) for oven in day.kitchen.ovens
    )
    day = replace(day, kitchen=replace(day.kitchen, ovens=ovens))
    if len(alone) > _MOST_ALONE:
        return 0.0
    known: dict[tuple[Task, ...], float] = {}
    total = 0.0
    for items in alone:
        one = only_items(day, items)
        key = tuple(_unnamed(task) for task in one.tasks)
        if key not in known:
            found = search(one, backwards(one), _ALONE, frozenset(range(len(one.tasks))))
            if found is None:
                return 0.0
            low = found.tally.cost * (1 - found.gap) - LOAD_COSTS_MIN * found.tally.busiest_pct
            known[key] = max(0.0, math.ceil(low))
        total += known[key]
    return total + _least_busy_pct(day)


def _by_themselves(day: Day) -> list[set[int]]:
    """Desserts by what hangs together: those that share a part are one."""
    lead = {task.item: task.item for task in day.tasks}

    def head(item: int) -> int:
        while lead[item] != item:
            item = lead[item]
        return item

    for task in day.tasks:
        for link in task.after:
            lead[head(task.item)] = head(day.tasks[link.before].item)
    found: dict[int, set[int]] = {}
    for item in lead:
        found.setdefault(head(item), set()).add(item)
    return list(found.values())


def _unnamed(task: Task) -> Task:
    return replace(task, key="", what="", steps=(), item=0)


def _least_busy_pct(day: Day) -> int:
    hands = sum(task.hands for task in day.tasks)
    there = sum(b - a for person in day.kitchen.people for a, b in person.spans)
    return 100 * hands // max(1, there) * LOAD_COSTS_MIN


def gap_of(plan: Schedule, day: Day, bound: float, search: Search) -> float:
    """How far from the best a plan may be, 0 to 1: no plan costs less than ``bound``, nor than its
    desserts one by one."""
    cost = plan.tally.cost
    return 0.0 if cost <= 0 else max(0.0, 1 - max(bound, at_best(day, search)) / cost)
