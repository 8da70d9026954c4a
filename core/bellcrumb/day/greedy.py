"""The plan a careful chef writes: each thing as late as it can be, backwards from service."""

import numpy as np
from numpy.typing import NDArray

from bellcrumb.day.pools import POOLS, chilling, held
from bellcrumb.day.tasks import Day, Link, Placed, Station, Task, windows

GRID_MIN = 5  # starts are tried on this grid
_STRETCH = 16  # starts looked at together at first
_ORDERS = 6  # how often the desserts are tried in another order, while that places more of them
_TRIES = 60  # how often one dessert is taken back a step before it is given up


def backwards(day: Day) -> list[Placed | None]:
    """Place dessert by dessert, the longest first, each task as late as it goes.

    Where one finds no place, what it hangs on is put a little earlier and tried again, up to a
    limit; nothing of another dessert is taken back. None where one found no place in time.
    """
    items: dict[int, list[int]] = {}
    for n, task in enumerate(day.tasks):
        items.setdefault(task.item, []).append(n)
    by = {i: max((day.tasks[n].by or 0) for n in members) for i, members in items.items()}
    after = day.after
    firsts = [low for low, _ in windows(day)]
    # Breaks have one person and little room: they go first, what is made for several last. Of the
    # rest the longest first: it has the fewest places.
    own = {task.item for task in day.tasks if task.only is not None}
    long = {i: sum(day.tasks[n].minutes for n in members) for i, members in items.items()}
    order = sorted(items, key=lambda i: (i not in own, not by[i], -long[i], -by[i], i))
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
        if best and placed.count(None) >= best.count(None):
            break
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
        # It waits no longer than so: what it waits for goes to where this one has a place.
        sooner = board.find(task, low - 1, max(0, firsts[n]))
        caps[tied] = place.start - max(GRID_MIN, low - sooner.start if sooner else GRID_MIN)
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
        self.worked = [0] * len(kitchen.people)
        self.load = {str(p): np.zeros(minutes, np.int16) for p in POOLS}
        self.shelves = [np.zeros(minutes, np.int16) for _ in kitchen.ovens]
        self.bakes: list[list[tuple[int, int, float]]] = [[] for _ in kitchen.ovens]
        self.crews: dict[tuple[Station, int | None], list[int]] = {}
        self.open: dict[tuple[Station, int | None, int], NDArray[np.bool_]] = {}
        self.held = {
            (task.key, way): held(task, chilled=way)
            for task in day.tasks for way in {*chilling(task, kitchen.blast), task.chilled}
        }  # fmt: skip

    def find(self, task: Task, latest: int, low: int) -> Placed | None:
        """The latest start from ``low`` on at which everything it needs is free."""
        starts = np.arange(latest, max(0, low) - 1, -GRID_MIN)
        if task.pinned is not None:
            starts = np.array([task.pinned] * (low <= task.pinned <= latest), int)
        if task.hands:
            starts = starts[self._in_hours(task)[starts]]
        done, size = 0, _STRETCH
        while done < len(starts):  # most find their place near the latest
            found = self._latest(task, starts[done : done + size])
            if found is not None:
                return found
            done, size = done + size, 4 * size
        return None

    def _crew(self, task: Task) -> list[int]:
        """Who may do it at all."""
        key = task.work, task.only
        if key not in self.crews:
            people = enumerate(self.day.kitchen.people)
            self.crews[key] = [n for n, p in people if task.only in (None, n) and p.can(task)]
        return self.crews[key]

    def _in_hours(self, task: Task) -> NDArray[np.bool_]:
        """For each minute, whether somebody who may do it is there from then on for all of it, busy
        or not."""
        key = task.work, task.only, task.hands
        if key not in self.open:
            there = np.zeros(self.day.horizon + 1, bool)
            for n in self._crew(task):
                for a, b in self.day.kitchen.people[n].spans:
                    there[max(0, a) : max(0, b - task.hands + 1)] = True
            self.open[key] = there
        return self.open[key]

    def _latest(self, task: Task, starts: NDArray[np.int64]) -> Placed | None:
        """The first of these starts, the latest first, at which everything is free."""
        where: list[tuple[int, NDArray[np.bool_]]] = []
        best = None
        for chilled in chilling(task, self.day.kitchen.blast):
            mine = self._pools(task, starts, chilled=chilled)
            if task.oven_c is not None and mine.any():
                where = where or self._ovens(task, starts)
                mine &= np.any([clear for _, clear in where], axis=0)
            if not mine.any():
                continue
            at, person = int(mine.argmax()), None
            if task.hands:
                found = self._hands(task, starts, mine)
                if found is None:
                    continue
                at, person = found
            oven = next((n for n, clear in where if clear[at]), None)
            place = Placed(int(starts[at]), person, oven, chilled=chilled)
            if best is None or place.start > best.start:
                best = place
        return best

    def _pools(self, task: Task, starts: NDArray[np.int64], *, chilled: bool) -> NDArray[np.bool_]:
        """The starts at which there is a ring, a mixer and room in the cold."""
        free = np.ones(len(starts), bool)
        for h in self.held[task.key, chilled]:
            most = getattr(self.day.kitchen, h.pool) - h.need
            free &= _all_clear(self.load[h.pool], most, starts + h.after, h.minutes)
        return free

    def _hands(
        self, task: Task, starts: NDArray[np.int64], free: NDArray[np.bool_]
    ) -> tuple[int, int] | None:
        """The first of the free starts at which somebody is, and who."""
        best, who, first = len(starts), -1, int(free.argmax())
        people = self.day.kitchen.people
        # Whoever may do the least is asked first, as the others are needed elsewhere; then whoever
        # has done the least: the load stays even.
        crew = sorted(self._crew(task), key=lambda n: (len(people[n].may), self.worked[n], n))
        latest = int(starts[first])
        for n in crew:  # most often somebody is at the first of them
            if not self.away[n][latest : latest + task.hands].any():
                return first, n
        for n in crew:
            mine = free & _all_clear(self.away[n], 0, starts, task.hands)
            at = int(mine.argmax())
            if mine[at] and at < best:
                best, who = at, n
        return None if who < 0 else (best, who)

    def _ovens(self, task: Task, starts: NDArray[np.int64]) -> list[tuple[int, NDArray[np.bool_]]]:
        """For each oven, the starts at which there is room at a dial that agrees."""
        found = []
        assert task.oven_c is not None
        for n, oven in enumerate(self.day.kitchen.ovens):
            room = oven.shelves - task.shelves
            clear = _all_clear(self.shelves[n], room, starts, task.minutes)
            for a, b, c in self.bakes[n]:
                before, after = oven.turn_min(c, task.oven_c), oven.turn_min(task.oven_c, c)
                if before or after:
                    clear &= (starts >= b + before) | (starts + task.minutes + after <= a)
            found.append((n, clear))
        return found

    def goes_on(self, task: Task) -> Placed:
        """Where a task is that has begun: nobody asks whether there is room."""
        assert task.begun is not None
        return Placed(
            task.begun, task.does if task.hands else None, task.inside, chilled=task.chilled
        )

    def take(self, task: Task, place: Placed, sign: int) -> None:
        """Take what a task needs (``sign`` 1), or give it back (-1)."""
        start, end = max(0, place.start), max(0, place.start + task.minutes)
        if place.person is not None:
            self.away[place.person][start : max(0, place.start + task.hands)] += sign
            self.worked[place.person] += sign * task.hands
        if place.oven is not None and task.oven_c is not None:
            self.shelves[place.oven][start:end] += sign * task.shelves
            bake = (start, end, task.oven_c)
            if sign > 0:
                self.bakes[place.oven].append(bake)
            else:
                self.bakes[place.oven].remove(bake)
        for h in self.held[task.key, place.chilled]:
            begin = max(0, place.start + h.after)
            self.load[h.pool][begin : begin + h.minutes] += sign * h.need


def _all_clear(
    load: NDArray[np.int16], most: int, starts: NDArray[np.int64], minutes: int
) -> NDArray[np.bool_]:  # fmt: skip
    """For each start (the latest first), whether no more than ``most`` is taken for ``minutes``."""
    low = int(starts[-1])
    busy = load[low : int(starts[0]) + minutes] > most
    if not busy.any():
        return np.ones(len(starts), bool)
    upto = np.zeros(len(busy) + 1, np.int64)
    busy.cumsum(out=upto[1:])
    at = starts - low
    clear: NDArray[np.bool_] = upto[np.minimum(at + minutes, len(busy))] == upto[at]
    return clear
