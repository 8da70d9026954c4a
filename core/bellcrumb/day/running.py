"""A day that has begun: what is over, what goes on, what is pinned, and what is left from now on.

Facts do not move. A step that is over holds nothing any more but the moment it ended; one that goes
on keeps its person and place until it should be over, or until now when it is late; everything else
begins from now on, a pinned step when it is pinned.
"""

from collections.abc import Mapping
from dataclasses import KW_ONLY, dataclass, replace

from bellcrumb.day.pools import POOLS, held
from bellcrumb.day.tasks import Day, KitchenOfDay, Link, Placed, Task

# By how much a service may slip, tried in order.
LATENESS_MIN = (0, 10, 20, 30, 45, 60, 90, 120, 180)


@dataclass(frozen=True)
class Fact:
    """A step begun at a minute by somebody (index; None: nobody said), and over at another (None:
    it goes on); ``oven`` is the one it is in, or it is ``chilled``."""

    began: int
    ended: int | None = None
    person: int | None = None
    _: KW_ONLY
    oven: int | None = None
    chilled: bool = False


def from_now(
    day: Day,
    now: int,
    facts: Mapping[str, Fact],
    pins: Mapping[str, int],
    before: Mapping[str, Placed] | None = None,
) -> Day:
    """The rest of a day. ``pins`` are minutes by the key of a task, ``before`` the plan there
    was."""

    def rest(task: Task) -> Task:
        was = (before or {}).get(task.key)
        return replace(task, not_before=max(0, now), pinned=pins.get(task.key), was=was)

    tasks = [_fixed(t, facts[t.key], now) if t.key in facts else rest(t) for t in day.tasks]
    left = tuple(_free_of_the_past(t, tasks, now) for t in tasks)
    return replace(day, tasks=left, kitchen=_with_room(day, left))


def _with_room(day: Day, tasks: tuple[Task, ...]) -> KitchenOfDay:
    """The kitchen with room at least for what is going on in it: facts cannot be too many."""
    on = [t for t in tasks if t.begun is not None]
    ovens = tuple(
        replace(o, shelves=max(o.shelves, sum(t.shelves for t in on if t.inside == n)))
        for n, o in enumerate(day.kitchen.ovens)
    )
    need = {p: sum(h.need for t in on for h in held(t, chilled=t.chilled) if h.pool == p)
            for p in POOLS}  # fmt: skip
    most = {p: max(getattr(day.kitchen, p), need[p]) for p in POOLS}
    return replace(day.kitchen, ovens=ovens, **most)


def _fixed(task: Task, fact: Fact, now: int) -> Task:
    if fact.ended is not None:
        return replace(
            task, hands=0, wait=max(0, fact.ended - fact.began), rings=0, mixers=0, trays=0,
            oven_c=None, shelves=0, after=(), begun=fact.began, by=None,
        )  # fmt: skip
    late = max(0, now - fact.began - task.minutes)
    oven = None if task.oven_c is None else (fact.oven or 0)
    return replace(
        task, wait=task.wait + late, after=(), begun=fact.began, does=fact.person, inside=oven,
        by=None, chilled=fact.chilled,
    )  # fmt: skip


def _free_of_the_past(task: Task, tasks: list[Task], now: int) -> Task:
    """Waits that have lasted too long already cannot be kept any more: the step goes on at once."""

    def kept(link: Link) -> Link:
        before = tasks[link.before]
        if before.begun is None or link.most is None:
            return link
        over = before.begun + before.minutes + link.most < now
        return replace(link, most=None) if over else link

    return replace(task, after=tuple(kept(link) for link in task.after))


def waits_on(day: Day) -> Day:
    """The same day with what was done too early waiting longer than it keeps."""

    def on(link: Link) -> Link:
        return link if day.tasks[link.before].begun is None else replace(link, most=None)

    tasks = tuple(replace(t, after=tuple(on(link) for link in t.after)) for t in day.tasks)
    return replace(day, tasks=tasks)


def later(day: Day, by_min: int) -> Day:
    """The same day with its services so much later, and everybody staying so much longer."""
    tasks = tuple(replace(t, by=None if t.by is None else t.by + by_min) for t in day.tasks)
    people = tuple(
        replace(p, spans=(*p.spans[:-1], (p.spans[-1][0], p.spans[-1][1] + by_min)))
        if p.spans
        else p
        for p in day.kitchen.people
    )
    kitchen = replace(day.kitchen, people=people)
    return replace(day, tasks=tasks, kitchen=kitchen, horizon=day.horizon + by_min)
