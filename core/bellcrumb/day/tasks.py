"""What a day is made of: tasks with gaps between them, and the kitchen they are done in.

Times are whole minutes from the start of the plan. A task is one step of a dessert, or several that
go on at once without a wait and so cannot be torn apart.
"""

import math
from collections.abc import Collection, Mapping, Sequence
from dataclasses import KW_ONLY, dataclass, replace
from functools import cached_property
from typing import Literal, get_args

from bellcrumb.dessert.steps import BuildStep

AT_ONCE_MIN = 20.0  # steps with no more pause than this between them are done as one
SAME_OVEN_K = 10.0  # two bakes share an oven when their dials are no further apart
EARLY_PLATE_MIN = 120  # what is plated waits no longer than this for its service
# What hands may be asked to do; somebody new may not stand at the stove yet.
Station = Literal["stove", "oven", "bench", "plate"]
STATIONS: tuple[Station, ...] = get_args(Station)
SHELVES_EACH = 1  # what one bake takes of an oven when nothing else is said


@dataclass(frozen=True)
class Link:
    """At least and at most minutes (None: any) from the end of task ``before``; ``warm`` when food
    that spoils stands outside the cold meanwhile."""

    before: int
    least: int
    most: int | None
    _: KW_ONLY
    warm: bool = False


@dataclass(frozen=True)
class Placed:
    """A task on the day: its start, who does it and in which oven (None where it needs none), and
    whether it goes through the chiller."""

    start: int
    person: int | None
    oven: int | None
    _: KW_ONLY
    chilled: bool = False


@dataclass(frozen=True)
class Task:
    """One thing to do: ``hands`` minutes of a person, then ``wait``; what it occupies meanwhile.

    ``rings``, ``mixers`` and ``trays`` are how many it takes; ``oven_c`` None is no oven. ``by`` is
    the minute it must be over, for what is plated; ``item`` the dessert it belongs to. It may not
    begin before ``not_before``, and begins at ``pinned`` where somebody wants it so; ``begun`` is
    when it did begin, which nothing moves, ``does`` who is at it and ``inside`` its oven; what is
    only ``held`` there while other things move is no fact, and must be able to be so.
    ``was`` is where it was planned before: people have read that plan.
    ``only`` is the one person who may do it, over by ``until``: a break is somebody's own.
    What ``comes_hot`` into the cold is safest in a chiller, where it is when ``chilled``; what
    ``spoils`` waits warm for its service.
    """

    key: str
    item: int
    what: str
    _: KW_ONLY
    hands: int
    wait: int
    rings: int
    mixers: int
    trays: int
    oven_c: float | None
    shelves: int
    after: tuple[Link, ...]
    by: int | None = None
    steps: tuple[str, ...] = ()
    not_before: int = 0
    pinned: int | None = None
    begun: int | None = None
    held: bool = False
    does: int | None = None
    inside: int | None = None
    was: Placed | None = None
    only: int | None = None
    until: int | None = None
    comes_hot: bool = False
    chilled: bool = False
    spoils: bool = False

    @property
    def minutes(self) -> int:
        """From its start to its end."""
        return self.hands + self.wait

    @property
    def work(self) -> Station:
        """What kind of work its hands do: at a ring, at an oven, for the plate, else the bench."""
        if self.by is not None:
            return "plate"
        if self.rings:
            return "stove"
        return "oven" if self.oven_c is not None else "bench"


@dataclass(frozen=True)
class Person:
    """Somebody who works ``spans`` of minutes (from, to) and ``may`` do some kinds of work."""

    name: str
    spans: tuple[tuple[int, int], ...]
    may: frozenset[Station] = frozenset(STATIONS)

    def can(self, task: Task) -> bool:
        """Whether a task is among what they may do; a break is anybody's."""
        return task.only is not None or task.work in self.may


@dataclass(frozen=True)
class OvenOfDay:
    """An oven: how many shelves, and how fast it heats and cools, K a minute."""

    name: str
    shelves: int
    heats_k_min: float
    _: KW_ONLY
    cools_k_min: float

    def turn_min(self, from_c: float, to_c: float) -> int:
        """Minutes from one dial to another; none within what two bakes share."""
        if abs(to_c - from_c) <= SAME_OVEN_K:
            return 0
        rate = self.heats_k_min if to_c > from_c else self.cools_k_min
        return math.ceil(abs(to_c - from_c) / max(rate, 0.1))


@dataclass(frozen=True)
class KitchenOfDay:
    """What there is to work with; ``trays`` of the refrigerators, ``blast`` of the chillers."""

    people: tuple[Person, ...]
    rings: int
    ovens: tuple[OvenOfDay, ...]
    _: KW_ONLY
    mixers: int
    trays: int
    moulds: tuple[int, ...] = ()
    blast: int = 0


@dataclass(frozen=True)
class MouldUse:
    """``need`` moulds of a kind (its index) in use from the start of task ``first`` to the end of
    task ``last``."""

    mould: int
    need: int
    first: int
    _: KW_ONLY
    last: int


@dataclass(frozen=True)
class Day:
    """Everything to be done between minute 0 and ``horizon``."""

    tasks: tuple[Task, ...]
    kitchen: KitchenOfDay
    horizon: int
    _: KW_ONLY
    holds: tuple[MouldUse, ...] = ()

    @cached_property
    def after(self) -> list[list[tuple[int, Link]]]:
        """For each task, the tasks that wait for it with their links."""
        found: list[list[tuple[int, Link]]] = [[] for _ in self.tasks]
        for n, task in enumerate(self.tasks):
            for link in task.after:
                found[link.before].append((n, link))
        return found


def windows(day: Day) -> list[tuple[int, int]]:
    """The earliest and latest start each task can have, from the gaps alone."""
    after = day.after
    latest = [0] * len(day.tasks)
    earliest = [0] * len(day.tasks)
    for n in range(len(day.tasks) - 1, -1, -1):
        task = day.tasks[n]
        end = day.horizon if task.by is None else task.by
        end = end if task.until is None else min(end, task.until)
        first = 0 if task.by is None else max(0, task.by - EARLY_PLATE_MIN - task.minutes)
        for m, link in after[n]:
            end = min(end, latest[m] - link.least)
            if link.most is not None:
                first = max(first, earliest[m] - link.most - task.minutes)
        latest[n], earliest[n] = end - task.minutes, max(task.not_before, first)
        held = task.begun if task.begun is not None else task.pinned
        if held is not None:
            latest[n] = earliest[n] = held
    for n, task in enumerate(day.tasks):
        for link in task.after:
            held = day.tasks[link.before].begun
            if held is not None and task.begun is None:
                over = held + day.tasks[link.before].minutes + link.least
                earliest[n] = max(earliest[n], over)
    return list(zip(earliest, latest, strict=True))


@dataclass(frozen=True)
class StandSpace:
    """What a dessert takes once it lies in its stand: shelves of an oven and trays of the cold;
    ``laid`` are the keys of those steps."""

    shelves: int = SHELVES_EACH
    trays: int = 1
    laid: frozenset[str] = frozenset()


def tasks_of(
    item: int, name: str, steps: Sequence[BuildStep], by: int | None, first: int,
    outside: Mapping[str, int] | None = None, room: StandSpace | None = None,
) -> list[Task]:  # fmt: skip
    """The tasks of one dessert ready at minute ``by``; ``first`` is the index of the first.

    Steps that follow each other at once and by nobody else are one task. ``outside`` are steps
    that another's tasks (by index) do for this one.
    """
    room, outside = room or StandSpace(), outside or {}
    groups = _groups(steps)
    at = {key: first + n for n, group in enumerate(groups) for key in (s.key for s in group)}
    known = {**outside, **at}
    tasks = []
    for n, group in enumerate(groups):
        links = [
            Link(
                known[gap.key], math.ceil(gap.at_least_min),
                None if gap.at_most_min is None else max(math.ceil(gap.at_least_min),
                                                         int(gap.at_most_min)),
            )
            for step in group for gap in step.after if at.get(gap.key) != first + n
        ]  # fmt: skip
        tasks.append(_task(item, name, group, _tightest(links), by, room))
    return tasks


def _groups(steps: Sequence[BuildStep]) -> list[list[BuildStep]]:
    waited_for: dict[str, int] = {}
    for step in steps:
        for gap in step.after:
            waited_for[gap.key] = waited_for.get(gap.key, 0) + 1
    groups: list[list[BuildStep]] = []
    of: dict[str, list[BuildStep]] = {}
    for step in steps:
        mine = None
        if len(step.after) == 1 and step.after[0].key in of:
            gap = step.after[0]
            group = of[gap.key]
            alone = waited_for[gap.key] == 1 and group[-1].key == gap.key
            tight = gap.at_most_min is not None and gap.at_most_min <= AT_ONCE_MIN
            goes_on = not group[-1].wait_min or _same_oven(group[-1], step)
            if alone and tight and goes_on and gap.at_least_min <= 0:
                mine = group
        if mine is None:
            mine = []
            groups.append(mine)
        mine.append(step)
        of[step.key] = mine
    return groups


def _same_oven(before: BuildStep, step: BuildStep) -> bool:
    """Whether a bake goes on in its oven: at no hotter a dial, or cooling with the door open."""
    ovens = all("oven" in (*s.uses, *s.holds) for s in (before, step))
    return ovens and (step.oven_c or 0) <= (before.oven_c or 0)


def _tightest(links: Sequence[Link]) -> tuple[Link, ...]:
    """One link a task: the longest least and the shortest most."""
    found: dict[int, Link] = {}
    for link in links:
        old = found.get(link.before, link)
        mosts = [m for m in (old.most, link.most) if m is not None]
        found[link.before] = Link(
            link.before, max(old.least, link.least), min(mosts) if mosts else None,
            warm=old.warm or link.warm,
        )  # fmt: skip
    return tuple(found.values())


def _task(
    item: int,
    name: str,
    group: Sequence[BuildStep],
    after: tuple[Link, ...],
    by: int | None,
    room: StandSpace,
) -> Task:
    used = {u for step in group for u in (*step.uses, *step.holds)}
    last = group[-1]
    lies = any(step.key in room.laid for step in group)
    baking = "oven" in last.holds or any("oven" in step.holds for step in group)
    words = ", ".join(dict.fromkeys(step.words for step in group))
    of = f"{name}, {last.part}" if last.part else name
    return Task(
        key=f"{name}/{last.key}", item=item, what=f"{of}: {words}",
        hands=max(1, round(sum(s.hands_min + _watched_min(s) for s in group))),
        wait=round(sum(s.wait_min - _watched_min(s) for s in group)),
        rings=int("ring" in used), mixers=int("mixer" in used),
        trays=(room.trays if lies else 1) * int("cold" in last.holds),
        oven_c=_dial(group) if baking else None,
        shelves=(room.shelves if lies else SHELVES_EACH) if baking else 0,
        after=after, by=by if last.key == "plate" else None,
        steps=tuple(f"{name}/{s.key}" for s in group), comes_hot=last.comes_hot,
        spoils=last.spoils,
    )  # fmt: skip


def _watched_min(step: BuildStep) -> float:
    """Minutes of a wait that somebody stands beside: a pot or a whisk that wants attention cannot
    be left, a bake may."""
    beside = step.attention and bool({"ring", "mixer"} & set(step.holds))
    return step.wait_min if beside else 0.0


def _dial(group: Sequence[BuildStep]) -> float:
    """What the oven is set to for it: the first dial of a bake that falls."""
    return next((s.oven_c for s in group if s.oven_c is not None), 180.0)


def without_item(day: Day, item: int) -> Day:
    """The day without one dessert; what was made for it and others stays."""
    return only_items(day, {task.item for task in day.tasks} - {item})


def only_items(day: Day, items: Collection[int]) -> Day:
    """The day with some of its desserts and none of the others."""
    keep = [n for n, task in enumerate(day.tasks) if task.item in items]
    new = {old: n for n, old in enumerate(keep)}
    tasks = tuple(
        replace(
            day.tasks[old],
            after=tuple(
                replace(link, before=new[link.before])
                for link in day.tasks[old].after
                if link.before in new
            ),
        )
        for old in keep
    )
    holds = tuple(
        replace(h, first=new[h.first], last=new[h.last]) for h in day.holds if h.first in new
    )
    return replace(day, tasks=tasks, holds=holds)
