"""The day solved: everything in time, windows kept, the oven turned seldom, nothing early.

OR-Tools' CP-SAT over whole minutes, its workers taking turns by a fixed seed, so that the same day
gives the same plan. The careful chef's plan is its first guess and what it is measured against.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Any

from ortools.sat.python import cp_model

from bellcrumb.day.greedy import backwards, held_min
from bellcrumb.day.tasks import Day, Placed, windows

# A plan that people have read: a minute a step is moved costs two, another pair of hands ten.
MOVED_COSTS, HANDED_COSTS_MIN = 2, 10
TURN_COSTS_MIN = 15  # of somebody's early start that one turn of an oven is worth avoiding
SEED = 7
SECONDS = 0.1  # in the solver's own steps, some ten seconds of a slow machine each
_FULL, _FALLS = 200, 2.2  # tasks up to which that much is spent; more of them take longer a step
_MOST = 700  # of more the chef's plan stands: the solver finds none better in the time there is


@dataclass(frozen=True)
class Schedule:
    """A plan: where every task is, how far from the best it may be (0 to 1; 1 where nothing is
    known), and the minutes of early starts and oven turns it has."""

    placed: list[Placed]
    gap: float
    early_min: int
    turns: int


def solve(
    day: Day, seconds: float = SECONDS, chefs: list[Placed | None] | None = None
) -> Schedule | None:
    """A plan for the day; None where there is none (or none was found in time). ``chefs`` is the
    careful chef's, where it is known."""
    if any(low > high for low, high in windows(day)):
        return None
    model = cp_model.CpModel()
    build = _Model(model, day)
    hint = _as_before(day) or (backwards(day) if chefs is None else chefs)
    build.hint(hint)
    solver = cp_model.CpSolver()
    # The clock only stops what hangs: the same day gives the same plan on a slower machine.
    solver.parameters.max_time_in_seconds = 100 * seconds
    solver.parameters.max_deterministic_time = (
        seconds * min(1.0, _FULL / max(1, len(day.tasks))) ** _FALLS
    )
    solver.parameters.num_workers = 4
    solver.parameters.interleave_search = True
    solver.parameters.random_seed = SEED
    status = solver.solve(model)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return None
    placed = build.read(solver)
    best, bound = solver.objective_value, solver.best_objective_bound
    gap = 0.0 if best <= 0 else max(0.0, (best - bound) / best)
    return Schedule(placed, gap, early_min(day, placed), turns(day, placed))


def _as_before(day: Day) -> list[Placed | None]:
    """The plan there was, as a first guess; nothing where there was none."""
    known = any(task.was is not None for task in day.tasks)
    return [None if t.was is None else Placed(t.was, t.was_by, None) for t in day.tasks] * known


def early_min(day: Day, placed: Sequence[Placed]) -> int:
    """Minutes that what is made waits for what comes after it, summed."""
    early = 0
    for n, task in enumerate(day.tasks):
        end = placed[n].start + task.minutes
        for m, link in day.after[n]:
            early += max(0, placed[m].start - end - link.least)
        if task.by is not None:
            early += task.by - end
    return early


def turns(day: Day, placed: Sequence[Placed]) -> int:
    """How often an oven's dial is turned."""
    count = 0
    for n in range(len(day.kitchen.ovens)):
        order = sorted(
            (p.start, t.oven_c)
            for p, t in zip(placed, day.tasks, strict=True)
            if p.oven == n and t.oven_c is not None
        )
        count += sum(abs(a - b) > 10 for (_, a), (_, b) in pairwise(order))
    return count


class _Model:
    """The variables of a day and what holds between them."""

    def __init__(self, model: cp_model.CpModel, day: Day) -> None:
        self.model, self.day = model, day
        self.starts = [
            model.new_int_var(low, high, task.key)
            for task, (low, high) in zip(day.tasks, windows(day), strict=True)
        ]
        self.who: list[list[cp_model.IntVar]] = []
        self.where: list[list[cp_model.IntVar]] = []
        self._gaps()
        self._people()
        self._ovens()
        for pool in ("rings", "mixers", "trays"):
            self._pool(pool)
        self._moulds()
        self._aim()

    def _gaps(self) -> None:
        for n, task in enumerate(self.day.tasks):
            for link in task.after:
                end = self.starts[link.before] + self.day.tasks[link.before].minutes
                self.model.add(self.starts[n] >= end + link.least)
                if link.most is not None:
                    self.model.add(self.starts[n] <= end + link.most)

    def _people(self) -> None:
        """Everybody does one thing at a time, in their hours, of what they may do; who share both
        are a crew."""
        self.crews: dict[tuple[object, ...], list[int]] = {}
        own = {task.only for task in self.day.tasks if task.only is not None}
        for n, person in enumerate(self.day.kitchen.people):
            # Whoever has a break of their own is nobody's double.
            alone = n if n in own else None
            self.crews.setdefault((person.spans, person.may, alone), []).append(n)
        work: list[list[cp_model.IntervalVar]] = [[] for _ in self.crews]
        for n, task in enumerate(self.day.tasks):
            mine = []
            for c, crew in enumerate(self.crews.values()):
                if not task.hands or task.begun is not None:
                    break
                does = self.model.new_bool_var("")
                somebody = self.day.kitchen.people[crew[0]]
                if task.only is not None:
                    self.model.add(does == int(task.only in crew))
                elif not somebody.can(task):
                    self.model.add(does == 0)
                work[c].append(
                    self.model.new_optional_fixed_size_interval_var(
                        self.starts[n], task.hands, does, ""
                    )
                )
                fits = [[a, b - task.hands] for a, b in somebody.spans if b - task.hands >= a]
                self.model.add_linear_expression_in_domain(
                    self.starts[n], cp_model.Domain.from_intervals(fits)
                ).only_enforce_if(does)
                mine.append(does)
            self.who.append(mine)
            if task.hands and task.begun is None:
                self.model.add_exactly_one(mine)
            elif task.hands and task.does is not None:
                # A person at work is one fewer of their crew until their hands are free.
                at = next(c for c, names in enumerate(self.crews.values()) if task.does in names)
                work[at].append(
                    self.model.new_fixed_size_interval_var(self.starts[n], task.hands, "")
                )
        for intervals, crew in zip(work, self.crews.values(), strict=True):
            self.model.add_cumulative(intervals, [1] * len(intervals), len(crew))

    def _ovens(self) -> None:
        baked = [n for n, t in enumerate(self.day.tasks) if t.oven_c is not None]
        self.turned: list[cp_model.IntVar] = []
        self.pairs: list[tuple[int, int, int, cp_model.IntVar, cp_model.IntVar]] = []
        here: dict[tuple[int, int], cp_model.IntVar] = {}
        for n, task in enumerate(self.day.tasks):
            mine = []
            for o, oven in enumerate(self.day.kitchen.ovens):
                if task.oven_c is None:
                    break
                inside = self.model.new_bool_var("")
                if task.inside is not None:
                    self.model.add(inside == int(task.inside == o))
                elif task.shelves > oven.shelves:
                    self.model.add(inside == 0)
                here[n, o] = inside
                mine.append(inside)
            self.where.append(mine)
            if task.oven_c is not None:
                self.model.add_exactly_one(mine)
        for o, oven in enumerate(self.day.kitchen.ovens):
            self.model.add_cumulative(
                [
                    self.model.new_optional_fixed_size_interval_var(
                        self.starts[n], self.day.tasks[n].minutes, here[n, o], ""
                    )
                    for n in baked
                ],
                [self.day.tasks[n].shelves for n in baked],
                oven.shelves,
            )
            for i, a in enumerate(baked):
                for b in baked[i + 1 :]:
                    self._turn(o, a, b, here[a, o], here[b, o])

    def _turn(
        self, o: int, a: int, b: int, a_here: cp_model.IntVar, b_here: cp_model.IntVar
    ) -> None:
        """Two bakes whose dials disagree are apart by the oven's own time in between."""
        oven = self.day.kitchen.ovens[o]
        first, second = self.day.tasks[a], self.day.tasks[b]
        assert first.oven_c is not None and second.oven_c is not None
        if first.begun is not None and second.begun is not None:
            return  # they are in it together, whatever we think of that
        up, down = (
            oven.turn_min(first.oven_c, second.oven_c), oven.turn_min(second.oven_c, first.oven_c)
        )  # fmt: skip
        if not up and not down:
            return
        a_first = self.model.new_bool_var("")
        both = [a_here, b_here]
        self.model.add(self.starts[b] >= self.starts[a] + first.minutes + up).only_enforce_if(
            [*both, a_first]
        )
        self.model.add(self.starts[a] >= self.starts[b] + second.minutes + down).only_enforce_if(
            [*both, ~a_first]
        )
        together = self.model.new_bool_var("")
        self.model.add_bool_or([~a_here, ~b_here, together])
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
                end = self.starts[hold.last] + self.day.tasks[hold.last].minutes
                size = self.model.new_int_var(0, self.day.horizon, "")
                begin = self.starts[hold.first]
                intervals.append(self.model.new_interval_var(begin, size, end, ""))
            self.model.add_cumulative(intervals, [h.need for h in holds], have)

    def _pool(self, pool: str) -> None:
        intervals, needs = [], []
        for n, task in enumerate(self.day.tasks):
            if getattr(task, pool):
                long = task.minutes if pool == "trays" else held_min(task, pool)
                intervals.append(self.model.new_fixed_size_interval_var(self.starts[n], long, ""))
                needs.append(getattr(task, pool))
        self.model.add_cumulative(intervals, needs, getattr(self.day.kitchen, pool))

    def _aim(self) -> None:
        """Waiting of what is made, and dials that disagree in one oven."""
        terms = []
        for n, task in enumerate(self.day.tasks):
            end = self.starts[n] + task.minutes
            if task.by is not None:
                terms.append(task.by - end)
            for m, link in self.day.after[n]:
                terms.append(self.starts[m] - end - link.least)
        self.model.minimize(sum(terms) + TURN_COSTS_MIN * sum(self.turned) + self._moved())

    def _moved(self) -> Any:
        """What it costs to change a plan that is known."""
        terms: list[Any] = []
        for n, task in enumerate(self.day.tasks):
            if task.was is None or task.begun is not None:
                continue
            off = self.model.new_int_var(0, 2 * self.day.horizon, "")
            self.model.add(off >= self.starts[n] - task.was)
            self.model.add(off >= task.was - self.starts[n])
            terms.append(MOVED_COSTS * off)
            for does, crew in zip(self.who[n], self.crews.values(), strict=False):
                if task.was_by in crew:
                    terms.append(HANDED_COSTS_MIN * (1 - does))
        return sum(terms)

    def hint(self, placed: Sequence[Placed | None]) -> None:
        """Begin from another plan."""
        for n, place in enumerate(placed):
            if place is None:
                continue
            self.model.add_hint(self.starts[n], place.start)
            for does, crew in zip(self.who[n], self.crews.values(), strict=False):
                self.model.add_hint(does, place.person in crew)
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
            start = solver.value(self.starts[n])
            person = self.day.tasks[n].does
            if person is not None:
                free[person] = start + self.day.tasks[n].hands
            for c, does in enumerate(self.who[n]):
                if solver.value(does):
                    was = self.day.tasks[n].was_by
                    there = [p for p in crews[c] if free[p] <= start]
                    person = min(there, key=lambda p: (p != was, worked[p], p))
                    free[person] = start + self.day.tasks[n].hands
                    worked[person] += self.day.tasks[n].hands
            oven = next((o for o, v in enumerate(self.where[n]) if solver.value(v)), None)
            found[n] = Placed(start, person, oven)
        return [found[n] for n in range(len(self.starts))]


def planned(day: Day, seconds: float = SECONDS) -> Schedule | None:
    """The better of the careful chef's plan and the solver's; None where neither finds one."""
    if any(task.was is not None for task in day.tasks):
        return _again(day, seconds)
    chefs = backwards(day)
    first = [place for place in chefs if place is not None]
    whole = len(first) == len(day.tasks)
    if whole and len(first) > _MOST:
        return Schedule(first, 1.0, early_min(day, first), turns(day, first))
    found = solve(day, seconds, chefs)
    if len(first) < len(day.tasks):
        return found
    early, turned = early_min(day, first), turns(day, first)
    if found and cost(found) <= early + TURN_COSTS_MIN * turned:
        return found
    gap = found.gap if found else 1.0
    return Schedule(first, gap, early, turned)


def _again(day: Day, seconds: float) -> Schedule | None:
    """A plan that people have read, made to fit: the desserts it still fits stay where they were if
    that can be; else everything may move a little."""
    hit = {
        t.item for t in day.tasks
        if t.begun is not None or t.was is None or t.was < t.not_before
        or t.pinned not in (None, t.was)
    }  # fmt: skip
    still = tuple(
        t if t.item in hit or t.pinned is not None else replace(t, pinned=t.was) for t in day.tasks
    )
    return solve(replace(day, tasks=still), seconds / 5) or solve(day, seconds / 2)


def cost(plan: Schedule) -> float:
    """What a plan is judged by: minutes of waiting, and turns of the ovens."""
    return plan.early_min + TURN_COSTS_MIN * plan.turns


def can_be_done(day: Day, seconds: float = 0.05) -> bool:
    """Whether a plan is found: by the careful chef, or by the solver in a short time."""
    chefs = backwards(day)
    return None not in chefs or solve(day, seconds, chefs) is not None
