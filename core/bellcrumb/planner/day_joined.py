"""Batches of a day, and the parts that several of them share: made once for all."""

import math
from dataclasses import KW_ONLY, dataclass, replace

from bellcrumb.dessert.steps import BuildStep
from bellcrumb.dessert.tables import StepRow, rows
from bellcrumb.dessert.works import PartWork
from bellcrumb.mix.composition import Mix
from bellcrumb.planner.build_parts import PartBuilt
from bellcrumb.planner.builds import Whole
from bellcrumb.shapes.build import BuildIn
from bellcrumb.words import say

_ALIKE = 0.012  # of the mass, by which each thing in two writings of one part may differ


@dataclass(frozen=True)
class Wanted:
    """One batch of a service: its name, build, portions still to make and minute it is due;
    ``dessert`` is what was asked for, which several batches may be of."""

    name: str
    dessert: str
    build: BuildIn
    _: KW_ONLY
    portions: int
    by: int

    @property
    def count(self) -> int:
        """Vessels of it."""
        return math.ceil(self.portions / self.build.stand.portions_each)


@dataclass(frozen=True)
class DayBatch:
    """A batch with everything it is made of, and the steps left to it once parts are joined."""

    wanted: Wanted
    made: Whole
    given: BuildIn
    _: KW_ONLY
    steps: list[BuildStep]


@dataclass(frozen=True)
class Joined:
    """A part made once: its steps, whose they were, and the step each of them waits for."""

    part: str
    items: tuple[int, ...]
    steps: tuple[BuildStep, ...]
    _: KW_ONLY
    stands_for: tuple[tuple[int, str], ...]
    grams: float

    @property
    def name(self) -> str:
        """What it is called in the plan."""
        return say("planner.part_for_so_many", part=self.part, items=len(self.items))


def _shares(mix: Mix) -> dict[str, float]:
    found: dict[str, float] = {}
    for portion in mix.portions:
        key = portion.ingredient.key
        found[key] = found.get(key, 0.0) + portion.grams / mix.mass_g
    return found


def _same(one: PartBuilt, other: PartBuilt) -> bool:
    """Whether two parts are one thing made once: of the same things in the same proportions, worked
    alike. Who writes a cream at another size in whole eggs still means that cream."""
    if (one.made.kind, one.beaten) != (other.made.kind, other.beaten):
        return False
    if one.bought or other.bought or not (one.mix.mass_g and other.mix.mass_g):
        return False
    mine, theirs = _shares(one.mix), _shares(other.mix)
    return mine.keys() == theirs.keys() and all(
        abs(mine[key] - theirs[key]) <= _ALIKE for key in mine
    )


def join_parts(batches: list[DayBatch]) -> tuple[list[DayBatch], list[Joined]]:
    """Parts that are the same in several batches, made once: the steps before they are laid."""
    same: list[list[tuple[int, str]]] = []
    for n, batch in enumerate(batches):
        for name, its in batch.made.found.parts.items():
            like = next(
                (g for g in same if _same(batches[g[0][0]].made.found.parts[g[0][1]], its)), None
            )
            if like is None:
                same.append([(n, name)])
            else:
                like.append((n, name))
    joined: list[Joined] = []
    steps = [list(batch.steps) for batch in batches]
    for users in same:
        if len({n for n, _ in users}) < 2:
            continue
        first, part = users[0]
        before = [_before(steps[n], batches[n], name) for n, name in users]
        codes = _common([[s.code for s in each] for each in before])
        # A day between two services is more than most parts keep.
        apart = max(batches[n].wanted.by for n, _ in users) - min(
            batches[n].wanted.by for n, _ in users
        )
        kind = batches[first].made.found.parts[part].made.kind
        last = _row(kind, codes[-1]) if codes else None
        if last is None or apart > 60 * last.keeps_h / 2:
            continue
        grams = sum(batches[n].made.needs[name].need_g for n, name in users)
        shared = _once(kind, part, before, len(codes))
        gone = {(n, s.key) for (n, _), each in zip(users, before, strict=True)
                for s in each[: len(codes)]}  # fmt: skip
        ends = tuple(
            (n, each[len(codes) - 1].key) for (n, _), each in zip(users, before, strict=True)
        )
        for n, _ in users:
            steps[n] = [s for s in steps[n] if (n, s.key) not in gone]
        joined.append(
            Joined(part, tuple(n for n, _ in users), shared, stands_for=ends, grams=grams)
        )
    out = [replace(batch, steps=own) for batch, own in zip(batches, steps, strict=True)]
    return out, joined


def _row(kind: PartWork, code: str) -> StepRow | None:
    """The table's row of a step: of its kind of work, or of the one it begins as."""
    tables = [rows().get(kind, []), *rows().values()]
    return next((row for table in tables for row in table if row.code == code), None)


def _before(steps: list[BuildStep], batch: DayBatch, part: str) -> list[BuildStep]:
    """The steps of a part before it is laid or folded, in order."""
    laid = set(batch.made.steps.laid)
    found = []
    for step in steps:
        if step.key in laid and step.part == part:
            break
        if step.part == part:
            found.append(step)
    return found


def _common(codes: list[list[str]]) -> list[str]:
    """The codes all begin with."""
    found: list[str] = []
    for each in zip(*codes, strict=False):
        if len(set(each)) > 1:
            break
        found.append(each[0])
    return found


def _once(
    kind: PartWork, part: str, before: list[list[BuildStep]], many: int
) -> tuple[BuildStep, ...]:
    """The steps for all of it: what goes with the weight is added up, what is done once is not."""
    out = []
    for n in range(many):
        same = [each[n] for each in before]
        row = _row(kind, same[0].code)
        once = min(row.hands_min if row else 0.0, *(s.hands_min for s in same))
        hands = sum(s.hands_min for s in same) - (len(same) - 1) * once
        out.append(
            replace(
                same[0], hands_min=hands, wait_min=max(s.wait_min for s in same),
                after=tuple(g for g in same[0].after if g.key.split("/")[0] == part),
            )
        )  # fmt: skip
    return tuple(out)
