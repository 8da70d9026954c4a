"""The plan a careful chef writes: each thing as late as it can be, backwards from service."""

import numpy as np
from numpy.typing import NDArray

from bellcrumb.day.tasks import Day, Link, Placed, Task, windows

GRID_MIN = 5  # starts are tried on this grid
_ORDERS = 6  # how often the desserts are tried in another order
_TRIES = 150  # how often one dessert is taken back a step before it is given up
POOLS = ("rings", "mixers", "trays")


def held_min(task: Task, pool: str) -> int:
    """Minutes a task holds a ring, a mixer or a tray: its hands, and a wait that is no oven's."""
    waits = pool == "trays" or (task.oven_c is None and not task.trays)
    return task.minutes if waits else task.hands


def backwards(day: Day) -> list[Placed | None]:
    """Place dessert by dessert, the latest service first, each task as late as it goes.

    Where one finds no place, what it hangs on is put a little earlier and tried again, up to a
    limit; nothing of another dessert is taken back. None where one found no place in time.
    """
    items: dict[int, list[int]] = {}
    for n, task in enumerate(day.tasks):
        items.setdefault(task.item, []).append(n)
    by = {i: max((day.tasks[n].by or 0) for n in members) for i, members in items.items()}
    after = day.after
    firsts = [low for low, _ in windows(day)]
    # Breaks have one person and little room: they go first, what is made for several last.
    own = {day.tasks[n].item for n in range(len(day.tasks)) if day.tasks[n].only is not None}
    order = sorted(items, key=lambda i: (i not in own, -by[i], -len(items[i]), i))
    best: list[Placed | None] = []
    for _ in range(_ORDERS):
        board = _Board(day)
        placed: list[Placed | None] = [None] * len(day.tasks)
        for n, task in enumerate(day.tasks):  # facts first: nothing is put where they are
            if task.begun is not None:
                placed[n] = board.goes_on(task)
                board.take(task, board.goes_on(task), 1)
        for item in order:
            rest = [n for n in items[item][::-1] if day.tasks[n].begun is None]
            _place_item(day, board, placed, rest, after, firsts)
        if not best or placed.count(None) < best.count(None):
            best = placed
        lost = {day.tasks[n].item for n, place in enumerate(placed) if place is None}
        if not lost:
            break
        # What found no place is hardest: it goes first next time.
        order = [i for i in order if i in lost] + [i for i in order if i not in lost]
    return best


def _place_item(
    day: Day,
    board: "_Board",
    placed: list[Placed | None],
    order: list[int],
    after: list[list[tuple[int, Link]]],
    firsts: list[int],
) -> None:
    caps: dict[int, int] = {}
    at, tries = 0, 0
    while at < len(order):
        n = order[at]
        task = day.tasks[n]
        end = day.horizon if task.by is None else task.by
        end = end if task.until is None else min(end, task.until)
        low, tied = firsts[n], None
        for link in task.after:  # what another dessert's tasks do for this one, or did already
            other, before = placed[link.before], day.tasks[link.before]
            if other is not None and (before.item != task.item or before.begun is not None):
                over = other.start + before.minutes
                low = max(low, over + link.least)
                if link.most is not None:
                    end = min(end, over + link.most + task.minutes)
        for m, link in after[n]:
            other = placed[m]
            if other is None:
                continue
            end = min(end, other.start - link.least)
            if link.most is not None and other.start - link.most - task.minutes > low:
                low, tied = other.start - link.most - task.minutes, m
        found = board.find(task, min(end - task.minutes, caps.get(n, day.horizon)), low)
        found = found if found and _has_moulds(day, placed, n, found) else None
        if found is not None:
            placed[n] = found
            board.take(task, found, 1)
            at += 1
            continue
        tries += 1
        if tied is None or tries > _TRIES:
            at += 1  # it stays without a place
            continue
        place = placed[tied]
        assert place is not None
        caps[tied] = place.start - GRID_MIN
        back = order.index(tied)
        for k in order[back:at]:
            held = placed[k]
            if held is not None:
                board.take(day.tasks[k], held, -1)
                placed[k] = None
            if k != tied:
                caps.pop(k, None)
        at = back


def _has_moulds(day: Day, placed: list[Placed | None], n: int, place: Placed) -> bool:
    """Whether there are moulds for a dessert that begins to lie in them here."""
    for hold in day.holds:
        last = placed[hold.last]
        if hold.first != n or last is None:
            continue
        end = last.start + day.tasks[hold.last].minutes
        others = [
            (start.start, _let_go(day, placed[other.last], other.last), other.need)
            for other in day.holds
            if other.mould == hold.mould and other.first != n and (start := placed[other.first])
        ]
        moments = {place.start, *(a for a, _, _ in others if place.start <= a < end)}
        have = day.kitchen.moulds[hold.mould]
        for at in moments:
            if hold.need + sum(need for a, b, need in others if a <= at < b) > have:
                return False
    return True


def _let_go(day: Day, place: Placed | None, last: int) -> int:
    """When moulds are free again; at the latest there is, where that has no place yet."""
    task = day.tasks[last]
    return day.horizon if place is None else place.start + task.minutes


class _Board:
    """What is taken when, by the minute."""

    def __init__(self, day: Day) -> None:
        self.day = day
        kitchen, minutes = day.kitchen, day.horizon + 1
        self.away: list[NDArray[np.int16]] = []
        for person in kitchen.people:
            away = np.ones(minutes, np.int16)
            for a, b in person.spans:
                away[max(0, a) : b] = 0
            self.away.append(away)
        self.load = {p: np.zeros(minutes, np.int16) for p in POOLS}
        self.shelves = [np.zeros(minutes, np.int16) for _ in kitchen.ovens]
        self.bakes: list[list[tuple[int, int, float]]] = [[] for _ in kitchen.ovens]

    def find(self, task: Task, latest: int, low: int) -> Placed | None:
        """The latest start from ``low`` on at which everything it needs is free."""
        starts = range(latest, max(0, low) - 1, -GRID_MIN)
        if task.pinned is not None:
            starts = range(task.pinned, task.pinned + int(low <= task.pinned <= latest))
        for start in starts:
            person = self._person(start, start + task.hands, task.only) if task.hands else None
            if task.hands and person is None:
                continue
            if not all(self._free(task, pool, start) for pool in POOLS):
                continue
            oven = self._oven(task, start)
            if task.oven_c is not None and oven is None:
                continue
            return Placed(start, person, oven)
        return None

    def goes_on(self, task: Task) -> Placed:
        """Where a task is that has begun: nobody asks whether there is room."""
        assert task.begun is not None
        return Placed(task.begun, task.does if task.hands else None, task.inside)

    def _person(self, start: int, end: int, only: int | None = None) -> int | None:
        for n, away in enumerate(self.away):
            if only in (None, n) and not away[start:end].any():
                return n
        return None

    def _oven(self, task: Task, start: int) -> int | None:
        if task.oven_c is None:
            return None
        end = start + task.minutes
        for n, oven in enumerate(self.day.kitchen.ovens):
            if self.shelves[n][start:end].max(initial=0) + task.shelves > oven.shelves:
                continue
            if all(_apart(oven.turn_min(c, task.oven_c), oven.turn_min(task.oven_c, c),
                          (a, b), (start, end)) for a, b, c in self.bakes[n]):  # fmt: skip
                return n
        return None

    def _free(self, task: Task, pool: str, start: int) -> bool:
        needs = getattr(task, pool)
        if not needs:
            return True
        held = self.load[pool][start : start + held_min(task, pool)]
        return bool(held.max(initial=0) + needs <= getattr(self.day.kitchen, pool))

    def take(self, task: Task, place: Placed, sign: int) -> None:
        """Take what a task needs (``sign`` 1), or give it back (-1)."""
        start, end = max(0, place.start), max(0, place.start + task.minutes)
        if place.person is not None:
            self.away[place.person][start : max(0, place.start + task.hands)] += sign
        if place.oven is not None and task.oven_c is not None:
            self.shelves[place.oven][start:end] += sign * task.shelves
            bake = (start, end, task.oven_c)
            if sign > 0:
                self.bakes[place.oven].append(bake)
            else:
                self.bakes[place.oven].remove(bake)
        for pool in POOLS:
            if getattr(task, pool):
                held = self.load[pool][start : start + held_min(task, pool)]
                held += sign * getattr(task, pool)


def _apart(before: int, after: int, old: tuple[int, int], new: tuple[int, int]) -> bool:
    """Whether two bakes are as far apart as the oven needs between their dials."""
    if not before and not after:
        return True
    return new[0] >= old[1] + before or old[0] >= new[1] + after
