"""Why a day cannot be done: the smallest set of desserts and limits that clash."""

from collections.abc import Callable
from dataclasses import dataclass, replace

from bellcrumb.day.solve import can_be_done
from bellcrumb.day.tasks import STATIONS, Day, Person, without_item
from bellcrumb.words import say

PLENTY = 99


@dataclass(frozen=True)
class Clashing:
    """What clashes: dessert indices, and limits by name ("people", "rings", "oven 0", ...)."""

    items: tuple[int, ...]
    limits: tuple[str, ...]


def clash(day: Day, works: Callable[[Day], bool] = can_be_done) -> Clashing:
    """A set of desserts and limits that cannot be together: take any one away and it can.

    Each is left out in turn; what is not needed for the clash stays out. It is as minimal as the
    check ``works`` is right: a plan that is not found in its time counts as none.
    """
    now = day
    wanted = {task.item for task in day.tasks if task.by is not None}
    for item in sorted(wanted, reverse=True):
        fewer = without_item(now, item)
        if not works(fewer):
            now = fewer
    limits = []
    for name in _limits(day):
        freed = _freed(now, name)
        if works(freed):
            limits.append(name)
        else:
            now = freed
    items = tuple(sorted({task.item for task in now.tasks} & wanted))
    return Clashing(items, tuple(limits))


def clashes(day: Day, works: Callable[[Day], bool] = can_be_done, most: int = 3) -> list[Clashing]:
    """Every clash there is, one after another: what is in one is left out to find the next."""
    found: list[Clashing] = []
    now = day
    while len(found) < most and not works(now):
        one = clash(now, works)
        found.append(one)
        if not one.items:
            break
        for item in one.items:
            now = without_item(now, item)
    return found


def _limits(day: Day) -> list[str]:
    used = ["people"]
    if any(len(person.may) < len(STATIONS) for person in day.kitchen.people):
        used.append("may")
    for pool in ("rings", "mixers", "trays"):
        if any(getattr(task, pool) for task in day.tasks):
            used.append(pool)
    if any(task.oven_c is not None for task in day.tasks):
        used.append("ovens")
    if day.holds:
        used.append("moulds")
    return used


def everybody_may(day: Day) -> Day:
    """The day with everybody doing everything."""
    people = tuple(replace(person, may=frozenset(STATIONS)) for person in day.kitchen.people)
    return replace(day, kitchen=replace(day.kitchen, people=people))


def _freed(day: Day, name: str) -> Day:
    """The day with one limit taken away."""
    kitchen = day.kitchen
    if name == "people":
        always = ((0, day.horizon),)
        more = tuple(Person(say("day.more", n=n), always) for n in range(len(day.tasks)))
        return replace(day, kitchen=replace(kitchen, people=(*kitchen.people, *more)))
    if name == "may":
        return everybody_may(day)
    if name == "ovens":
        free = [replace(kitchen.ovens[0], shelves=PLENTY, heats_k_min=1e6, cools_k_min=1e6)]
        bakes = sum(task.oven_c is not None for task in day.tasks)
        return replace(day, kitchen=replace(kitchen, ovens=tuple(free * min(bakes, 12))))
    if name == "rings":
        return replace(day, kitchen=replace(kitchen, rings=PLENTY))
    if name == "mixers":
        return replace(day, kitchen=replace(kitchen, mixers=PLENTY))
    if name == "moulds":
        return replace(day, holds=())
    return replace(day, kitchen=replace(kitchen, trays=PLENTY))
