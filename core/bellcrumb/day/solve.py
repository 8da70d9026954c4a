"""The day solved: everything in time, windows kept, the oven turned seldom, nothing early.

OR-Tools' CP-SAT over whole minutes, one worker with a fixed seed, so that the same day gives the
same plan; several taking turns cost four times as much and found no better ones. The careful chef's
plan is its first guess and what it is measured against.
"""

from collections.abc import Sequence
from dataclasses import replace

from ortools.sat.python import cp_model

from bellcrumb.day.aim import Schedule, schedule, tally
from bellcrumb.day.greedy import backwards
from bellcrumb.day.model import Model
from bellcrumb.day.polish import gap_of, polished
from bellcrumb.day.tasks import Day, Placed, Task, windows

SEED = 7
SECONDS = 0.1  # in the solver's own steps, some ten seconds of a slow machine each
_MEND, _REACH_MIN = 0.02, (0, 60, 180, 480)  # a plan mended: the effort, and how far around it
_FULL, _FALLS = 200, 2.2  # tasks up to which that much is spent; more of them take longer a step
_MAKE_ROOM = 2, 4, 8, 16  # desserts that move for what the careful chef found no place for


def solve(
    day: Day, seconds: float = SECONDS, chefs: list[Placed | None] | None = None
) -> Schedule | None:
    """A plan for the day; None where there is none (or none was found in time). ``chefs`` is the
    careful chef's, where it is known."""
    hint = backwards(day) if chefs is None else chefs
    return search(day, hint, seconds * min(1.0, _FULL / max(1, len(day.tasks))) ** _FALLS)


def search(
    day: Day, hint: Sequence[Placed | None], effort: float, free: frozenset[int] | None = None
) -> Schedule | None:
    """The best plan found in ``effort`` seconds of the solver's own steps. With ``free``, only
    those tasks move: the others stay as ``hint`` has them, and the gap says nothing of the day."""
    asked = day if free is None else _held(day, hint, free)
    if any(low > high for low, high in windows(asked)):
        return None
    build = Model(asked)
    build.hint(hint)
    solver = cp_model.CpSolver()
    # The clock only stops what hangs: the same day gives the same plan on a slower machine.
    solver.parameters.max_time_in_seconds = max(10, 1000 * effort)
    solver.parameters.max_deterministic_time = effort
    solver.parameters.num_workers = 1
    solver.parameters.random_seed = SEED
    status = solver.solve(build.model)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return None
    placed = build.read(solver)
    best, bound = solver.objective_value, solver.best_objective_bound
    gap = 0.0 if best <= 0 else max(0.0, (best - bound) / best)
    rests = free is not None and len(free) < len(day.tasks)
    return schedule(day, placed, 1.0 if rests else gap)


def _held(day: Day, hint: Sequence[Placed | None], free: frozenset[int]) -> Day:
    """The day with everything but some tasks where it is."""
    tasks = tuple(
        task if place is None or n in free or task.begun is not None else
        replace(task, begun=place.start, held=True, does=place.person, inside=place.oven,
                chilled=place.chilled)
        for n, (task, place) in enumerate(zip(day.tasks, hint, strict=True))
    )  # fmt: skip
    return replace(day, tasks=tasks)


def planned(day: Day, seconds: float = SECONDS) -> Schedule | None:
    """The better of the careful chef's plan and the solver's, each made better a few desserts at a
    time; None where neither finds one."""
    if any(task.was is not None for task in day.tasks):
        return _again(day, seconds)
    chefs = backwards(day)
    first = _whole(day, chefs)
    if first is None:
        return solve(day, seconds, chefs)
    chefs_own = None not in chefs
    best, bound = polished(day, first, search), 0.0
    if len(first) <= _FULL:
        found = solve(day, seconds / 4 if chefs_own else seconds, [*best.placed])
        if found is not None:
            bound = found.tally.cost * (1 - found.gap)
            if found.tally.cost < best.tally.cost:
                best = polished(day, found.placed, search)
            if best.tally.cost < bound:  # the solver counts a turn for each pair of dials
                bound = 0.0
    return replace(
        best, gap=gap_of(best, day, bound, search),
        chef_early_min=tally(day, first).early_min if chefs_own else None,
    )  # fmt: skip


def _whole(day: Day, chefs: Sequence[Placed | None]) -> Sequence[Placed] | None:
    """The careful chef's plan with room made in it for what found no place: those due nearest move
    while the rest stays, then more of them. None where that is not enough."""
    there = [place for place in chefs if place is not None]
    if len(there) == len(chefs):
        return there
    lost = {task.item for task, place in zip(day.tasks, chefs, strict=True) if place is None}
    due: dict[int, int] = {}
    for task, (_, latest) in zip(day.tasks, windows(day), strict=True):
        due[task.item] = max(due.get(task.item, latest), latest)
    near = sorted(due.keys() - lost, key=lambda i: (min(abs(due[i] - due[n]) for n in lost), i))
    for many in _MAKE_ROOM:
        moves = lost.union(near[:many])
        free = frozenset(n for n, task in enumerate(day.tasks) if task.item in moves)
        found = search(day, chefs, _MEND, free)
        if found is not None:
            return found.placed
        if many >= len(near):
            break
    return None


def _again(day: Day, seconds: float) -> Schedule | None:
    """A plan that people have read, made to fit: first what is hit moves and everything else stays
    where it was, then also what is near it, at last all of it."""
    was = [task.was for task in day.tasks]
    for reach in _REACH_MIN:
        found = search(day, was, _MEND, _hit(day, reach))
        if found is not None:
            return found
    return solve(day, seconds / 2, was)


def _hit(day: Day, reach_min: int) -> frozenset[int]:
    """What cannot stay as it was, and what is planned within a reach of where it was or shall be;
    of a dessert that is hit, all."""
    now = max((task.not_before for task in day.tasks), default=0)
    moments, items = {now}, set()
    for task in day.tasks:
        if task.begun is not None:
            if task.hands:  # it goes on, and may be late; what is over holds no hands
                moments.add(task.begun + task.minutes)
                items.add(task.item)
        elif not _stays(task, day):
            moments |= {task.pinned or now, task.was.start if task.was else now}
            items.add(task.item)
    return frozenset(
        n for n, task in enumerate(day.tasks)
        if task.begun is None and (
            task.item in items or task.was is None
            or any(abs(task.was.start - at) <= reach_min for at in moments)
        )
    )  # fmt: skip


def _stays(task: Task, day: Day) -> bool:
    """Whether a task can be where it was, for all that is known of it and what it waits for."""
    was = task.was
    if was is None or was.start < task.not_before or task.pinned not in (None, was.start):
        return False
    if task.oven_c is not None and was.oven is None:
        return False
    for link in task.after:
        before = day.tasks[link.before]
        if before.begun is None and before.was is None:
            return False
        begins = before.was.start if before.begun is None and before.was else before.begun or 0
        waits = was.start - begins - before.minutes
        if not link.least <= waits <= (waits if link.most is None else link.most):
            return False
    return True


def can_be_done(day: Day, seconds: float = 0.05) -> bool:
    """Whether a plan is found: by the careful chef, or by the solver in a short time."""
    chefs = backwards(day)
    return None not in chefs or solve(day, seconds, chefs) is not None
