"""The day solved: everything in time, windows kept, the oven turned seldom, nothing early.

OR-Tools' CP-SAT over whole minutes, its workers taking turns by a fixed seed, so that the same day
gives the same plan. The careful chef's plan is its first guess and what it is measured against.
"""

from collections.abc import Sequence
from dataclasses import replace

from ortools.sat.python import cp_model

from bellcrumb.day.aim import Schedule, schedule
from bellcrumb.day.greedy import backwards
from bellcrumb.day.model import Model
from bellcrumb.day.polish import gap_of, polished
from bellcrumb.day.tasks import Day, Placed, windows

SEED = 7
SECONDS = 0.1  # in the solver's own steps, some ten seconds of a slow machine each
_FULL, _FALLS = 200, 2.2  # tasks up to which that much is spent; more of them take longer a step


def solve(
    day: Day, seconds: float = SECONDS, chefs: list[Placed | None] | None = None
) -> Schedule | None:
    """A plan for the day; None where there is none (or none was found in time). ``chefs`` is the
    careful chef's, where it is known."""
    hint = _as_before(day) or (backwards(day) if chefs is None else chefs)
    return search(day, hint, seconds * min(1.0, _FULL / max(1, len(day.tasks))) ** _FALLS)


def search(
    day: Day, hint: Sequence[Placed | None], effort: float, free: frozenset[int] | None = None
) -> Schedule | None:
    """The best plan found in ``effort`` seconds of the solver's own steps. With ``free``, only the
    desserts named move: the others stay as ``hint`` has them, whose gap says nothing of the day."""
    asked = day if free is None else _held(day, hint, free)
    if any(low > high for low, high in windows(asked)):
        return None
    build = Model(asked)
    build.hint(hint)
    solver = cp_model.CpSolver()
    # The clock only stops what hangs: the same day gives the same plan on a slower machine.
    solver.parameters.max_time_in_seconds = max(10, 1000 * effort)
    solver.parameters.max_deterministic_time = effort
    solver.parameters.num_workers = 4 if free is None else 1
    solver.parameters.interleave_search = free is None
    solver.parameters.random_seed = SEED
    status = solver.solve(build.model)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return None
    placed = build.read(solver, day)
    best, bound = solver.objective_value, solver.best_objective_bound
    gap = 0.0 if best <= 0 else max(0.0, (best - bound) / best)
    rests = free is not None and any(task.item not in free for task in day.tasks)
    return schedule(day, placed, 1.0 if rests else gap)


def _held(day: Day, hint: Sequence[Placed | None], free: frozenset[int]) -> Day:
    """The day with everything but some desserts where it is."""
    tasks = tuple(
        task if place is None or task.item in free or task.begun is not None else
        replace(task, begun=place.start, does=place.person, inside=place.oven,
                chilled=place.chilled)
        for task, place in zip(day.tasks, hint, strict=True)
    )  # fmt: skip
    return replace(day, tasks=tasks)


def _as_before(day: Day) -> list[Placed | None]:
    """The plan there was, as a first guess; nothing where there was none."""
    known = any(task.was is not None for task in day.tasks)
    return [None if t.was is None else Placed(t.was, t.was_by, None) for t in day.tasks] * known


def planned(day: Day, seconds: float = SECONDS) -> Schedule | None:
    """The better of the careful chef's plan and the solver's; None where neither finds one."""
    if any(task.was is not None for task in day.tasks):
        return _again(day, seconds)
    chefs = backwards(day)
    first = [place for place in chefs if place is not None]
    whole = len(first) == len(day.tasks)
    if not whole:
        return solve(day, seconds, chefs)
    best = polished(day, first, search)
    if len(first) <= _FULL:
        found = solve(day, seconds / 4, [*best.placed])
        if found is not None and found.tally.cost <= best.tally.cost:
            best = found
    return replace(best, gap=gap_of(best, day, search))


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


def can_be_done(day: Day, seconds: float = 0.05) -> bool:
    """Whether a plan is found: by the careful chef, or by the solver in a short time."""
    chefs = backwards(day)
    return None not in chefs or solve(day, seconds, chefs) is not None
