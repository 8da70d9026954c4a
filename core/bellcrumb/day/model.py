"""A day as CP-SAT sees it: starts, hands and places as variables, and what holds between them.

What has begun, or is held where it is, is no variable: of many things that stand still only the
load they make is left, which keeps the model of a few moving desserts among a hundred small.
"""

import math
from collections.abc import Sequence
from itertools import pairwise
from typing import Any

from ortools.sat.python import cp_model

from bellcrumb.day.aim import (
    LOAD_COSTS_MIN,
    SLOW_COSTS_MIN,
    TURN_COSTS_MIN,
    WARM_COSTS,
    crews_of,
    there_min,
)
from bellcrumb.day.pools import POOLS, Pool, chilling, held
from bellcrumb.day.tasks import Day, Placed, Task, windows

# A plan that people have read: a minute a step is moved costs twice what the dearest waiting does,
# another pair of hands as much as five minutes.
MOVED_COSTS = 2 * (1 + WARM_COSTS)
HANDED_COSTS_MIN = 5 * MOVED_COSTS


class _Load:
    """What is taken of something there is so much of: by intervals, and by what stands still."""

    def __init__(self) -> None:
        self.rows: list[tuple[cp_model.IntervalVar, int]] = []
        self.still: dict[int, tuple[int, int]] = {}

    def stands(self, task: Task, after: int, minutes: int, need: int) -> None:
        """Something that does not move takes ``need`` for so long."""
        assert task.begun is not None
        for at, change in ((task.begun + after, need), (task.begun + after + minutes, -need)):
            facts, held = self.still.get(at, (0, 0))
            held, facts = (held + change, facts) if task.held else (held, facts + change)
            self.still[at] = facts, held

    def most(self, model: cp_model.CpModel, have: int) -> None:
        """No more than ``have`` at any time; facts may be more, then nothing else is there."""
        rows, facts, held = list(self.rows), 0, 0
        for at, until in pairwise(sorted(self.still)):
            facts, held = facts + self.still[at][0], held + self.still[at][1]
            load = min(facts, have) + held
            if load:
                rows.append((model.new_fixed_size_interval_var(at, until - at, ""), load))
        if rows:
            model.add_cumulative([i for i, _ in rows], [need for _, need in rows], have)


class Model:
    """The variables of a day and what holds between them."""

    def __init__(self, day: Day) -> None:
        self.model, self.day = cp_model.CpModel(), day
        self.starts: list[cp_model.IntVar | int] = [
            self.model.new_int_var(low, high, "") if task.begun is None else task.begun
            for task, (low, high) in zip(day.tasks, windows(day), strict=True)
        ]
        self.who: list[list[cp_model.IntVar]] = []
        self.where: list[list[cp_model.IntVar]] = []
        self._gaps()
        self._people()
        self._ovens()
        self._pools()
        self._moulds()
        self._aim()

    def _gaps(self) -> None:
        for n, task in enumerate(self.day.tasks):
            for link in task.after:
                before = self.day.tasks[link.before]
                if task.begun is not None and before.begun is not None:
                    over = before.begun + before.minutes + link.least
                    most = math.inf if link.most is None else over + link.most - link.least
                    self._stands(over <= task.begun <= most, task, before)
                    continue
                end: Any = self.starts[link.before] + before.minutes
                self.model.add(self.starts[n] >= end + link.least)
                if link.most is not None:
                    self.model.add(self.starts[n] <= end + link.most)

    def _stands(self, legal: bool, *tasks: Task) -> None:
        """What does not move must be as it may be, where it is not a fact."""
        if not legal and any(task.held for task in tasks):
            self.model.add_bool_or([])

    def _people(self) -> None:
        """Everybody does one thing at a time, in their hours, of what they may do; who share both
        are a crew."""
        self.crews = crews_of(self.day)
        work = [_Load() for _ in self.crews]
        for n, task in enumerate(self.day.tasks):
            mine: list[cp_model.IntVar] = []
            self.who.append(mine)
            if task.begun is not None:
                # A person at work is one fewer of their crew until their hands are free.
                if task.hands and task.does is not None:
                    at = next(c for c, crew in enumerate(self.crews.values()) if task.does in crew)
                    work[at].stands(task, 0, task.hands, 1)
                continue
            for c, crew in enumerate(self.crews.values()):
                if not task.hands:
                    break
                does = self.model.new_bool_var("")
                somebody = self.day.kitchen.people[crew[0]]
                if task.only is not None:
                    self.model.add(does == int(task.only in crew))
                elif not somebody.can(task):
                    self.model.add(does == 0)
                work[c].rows.append((
                    self.model.new_optional_fixed_size_interval_var(
                        self.starts[n], task.hands, does, ""
                    ), 1,
                ))  # fmt: skip
                fits = [[a, b - task.hands] for a, b in somebody.spans if b - task.hands >= a]
                self.model.add_linear_expression_in_domain(
                    self.starts[n], cp_model.Domain.from_intervals(fits)
                ).only_enforce_if(does)
                mine.append(does)
            if task.hands:
                self.model.add_exactly_one(mine)
        for load, crew in zip(work, self.crews.values(), strict=True):
            load.most(self.model, len(crew))

    def _ovens(self) -> None:
        baked = [n for n, t in enumerate(self.day.tasks) if t.oven_c is not None]
        self.turned: list[cp_model.IntVar] = []
        self.pairs: list[tuple[int, int, int, cp_model.IntVar, cp_model.IntVar]] = []
        here: dict[tuple[int, int], cp_model.IntVar] = {}
        for n, task in enumerate(self.day.tasks):
            mine: list[cp_model.IntVar] = []
            self.where.append(mine)
            if task.oven_c is None or task.begun is not None:
                continue
            for o, oven in enumerate(self.day.kitchen.ovens):
                inside = self.model.new_bool_var("")
                if task.shelves > oven.shelves:
                    self.model.add(inside == 0)
                here[n, o] = inside
                mine.append(inside)
            self.model.add_exactly_one(mine)
        for o, oven in enumerate(self.day.kitchen.ovens):
            load = _Load()
            for n in baked:
                task = self.day.tasks[n]
                if task.begun is None:
                    load.rows.append((
                        self.model.new_optional_fixed_size_interval_var(
                            self.starts[n], task.minutes, here[n, o], ""
                        ), task.shelves,
                    ))  # fmt: skip
                elif task.inside == o:
                    load.stands(task, 0, task.minutes, task.shelves)
            load.most(self.model, oven.shelves)
            inside_it = [n for n in baked if (n, o) in here or self.day.tasks[n].inside == o]
            for k, a in enumerate(inside_it):
                for b in inside_it[k + 1 :]:
                    self._turn(o, a, b, [here[n, o] for n in (a, b) if (n, o) in here])

    def _turn(self, o: int, a: int, b: int, both: list[cp_model.IntVar]) -> None:
        """Two bakes whose dials disagree are apart by the oven's own time in between."""
        oven = self.day.kitchen.ovens[o]
        first, second = self.day.tasks[a], self.day.tasks[b]
        assert first.oven_c is not None and second.oven_c is not None
        up, down = (
            oven.turn_min(first.oven_c, second.oven_c), oven.turn_min(second.oven_c, first.oven_c)
        )  # fmt: skip
        if not up and not down:
            return
        if first.begun is not None and second.begun is not None:
            apart = (
                second.begun >= first.begun + first.minutes + up
                or first.begun >= second.begun + second.minutes + down
            )
            self._stands(apart, first, second)
            return
        a_first = self.model.new_bool_var("")
        begin_a: Any = self.starts[a]
        begin_b: Any = self.starts[b]
        self.model.add(begin_b >= begin_a + first.minutes + up).only_enforce_if([*both, a_first])
        self.model.add(begin_a >= begin_b + second.minutes + down).only_enforce_if(
            [*both, ~a_first]
        )
        together = self.model.new_bool_var("")
        self.model.add_bool_or([*(~x for x in both), together])
        self.turned.append(together)
        self.pairs.append((o, a, b, a_first, together))

    def _moulds(self) -> None:
        """Moulds are in use from the first thing that lies in them to the plate."""
        for mould, have in enumerate(self.day.kitchen.moulds):
            holds = [h for h in self.day.holds if h.mould == mould]
            if sum(h.need for h in holds) <= have:
                continue
            intervals = []
            for hold in holds:
                end: Any = self.starts[hold.last] + self.day.tasks[hold.last].minutes
                size = self.model.new_int_var(0, self.day.horizon, "")
                begin = self.starts[hold.first]
                intervals.append(self.model.new_interval_var(begin, size, end, ""))
            self.model.add_cumulative(intervals, [h.need for h in holds], have)

    def _pools(self) -> None:
        """Rings, mixers and the cold: held by each task for its part of the time."""
        took: dict[Pool, _Load] = {pool: _Load() for pool in POOLS}
        self.chilled: dict[int, cp_model.IntVar] = {}
        for n, task in enumerate(self.day.tasks):
            ways = chilling(task, self.day.kitchen.blast)
            if len(ways) > 1:
                self.chilled[n] = self.model.new_bool_var("")
            for chilled in ways:
                for h in held(task, chilled=chilled):
                    if task.begun is not None:
                        took[h.pool].stands(task, h.after, h.minutes, h.need)
                        continue
                    begin: Any = self.starts[n] + h.after
                    way = self.chilled.get(n)
                    took[h.pool].rows.append((
                        self.model.new_fixed_size_interval_var(begin, h.minutes, "")
                        if way is None else
                        self.model.new_optional_fixed_size_interval_var(
                            begin, h.minutes, way if chilled else ~way, ""
                        ),
                        h.need,
                    ))  # fmt: skip
        for pool, load in took.items():
            load.most(self.model, getattr(self.day.kitchen, pool))

    def _aim(self) -> None:
        """As ``aim`` judges a plan, but that a turn is any two dials that disagree in one oven."""
        terms: list[Any] = [0]
        for n, task in enumerate(self.day.tasks):
            end: Any = self.starts[n] + task.minutes
            if task.by is not None:
                terms.append((1 + WARM_COSTS * task.spoils) * (task.by - end))
            for m, link in self.day.after[n]:
                terms.append((1 + WARM_COSTS * link.warm) * (self.starts[m] - end - link.least))
        terms += [SLOW_COSTS_MIN * (1 - chilled) for chilled in self.chilled.values()]
        turned = TURN_COSTS_MIN * sum(self.turned)
        self.model.minimize(sum(terms) + turned + self._busiest() + self._moved())

    def _busiest(self) -> Any:
        """What it costs that some work more of their hours than others."""
        if len(self.crews) < 2:
            return 0
        busiest = self.model.new_int_var(0, 10_000, "")
        for c, crew in enumerate(self.crews.values()):
            does = sum(
                task.hands * mine[c]
                for task, mine in zip(self.day.tasks, self.who, strict=True)
                if mine
            )
            fixed = sum(t.hands for t in self.day.tasks if t.begun is not None and t.does in crew)
            self.model.add(100 * (does + fixed) <= busiest * there_min(self.day, crew))
        return LOAD_COSTS_MIN * busiest

    def _moved(self) -> Any:
        """What it costs to change a plan that is known."""
        terms: list[Any] = []
        for n, task in enumerate(self.day.tasks):
            if task.was is None or task.begun is not None:
                continue
            off = self.model.new_int_var(0, 2 * self.day.horizon, "")
            self.model.add(off >= self.starts[n] - task.was.start)
            self.model.add(off >= task.was.start - self.starts[n])
            terms.append(MOVED_COSTS * off)
            for does, crew in zip(self.who[n], self.crews.values(), strict=False):
                if task.was.person in crew:
                    terms.append(HANDED_COSTS_MIN * (1 - does))
        return sum(terms)

    def hint(self, placed: Sequence[Placed | None]) -> None:
        """Begin from another plan."""
        for n, place in enumerate(placed):
            begin = self.starts[n]
            if place is None or isinstance(begin, int):
                continue
            self.model.add_hint(begin, place.start)
            for does, crew in zip(self.who[n], self.crews.values(), strict=False):
                self.model.add_hint(does, place.person in crew)
            if n in self.chilled:
                self.model.add_hint(self.chilled[n], place.chilled)
            for o, inside in enumerate(self.where[n]):
                if place.oven is not None:
                    self.model.add_hint(inside, o == place.oven)
        for o, a, b, a_first, together in self.pairs:
            one, two = placed[a], placed[b]
            if one is not None and two is not None:
                self.model.add_hint(a_first, one.start < two.start)
                self.model.add_hint(together, one.oven == o and two.oven == o)

    def read(self, solver: cp_model.CpSolver) -> list[Placed]:
        """The plan found, with a name for each: of the crew who is free, whoever did the least."""
        crews = list(self.crews.values())
        free = [-(10**6)] * len(self.day.kitchen.people)
        worked = [0] * len(free)
        found: dict[int, Placed] = {}
        for n in sorted(range(len(self.starts)), key=lambda k: solver.value(self.starts[k])):
            start, task = solver.value(self.starts[n]), self.day.tasks[n]
            person = task.does
            crew = next((crews[c] for c, does in enumerate(self.who[n]) if solver.value(does)), [])
            if person is not None and task.held:  # held where it is, by anybody
                crew = next(names for names in crews if person in names)
            if crew:
                there = [p for p in crew if free[p] <= start]
                was_by = task.was and task.was.person
                person = min(there, key=lambda p: (p != was_by, worked[p], p))
                worked[person] += task.hands
            if person is not None:
                free[person] = start + task.hands
            oven = next((o for o, v in enumerate(self.where[n]) if solver.value(v)), task.inside)
            way = self.chilled.get(n)
            chilled = task.chilled if way is None else bool(solver.value(way))
            found[n] = Placed(start, person, oven, chilled=chilled)
        return [found[n] for n in range(len(self.starts))]
