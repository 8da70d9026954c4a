"""What there is several of: rings, mixers, and trays of the cold and of the blast chiller."""

from dataclasses import KW_ONLY, dataclass
from typing import Literal

from bellcrumb.day.tasks import Task

Pool = Literal["rings", "mixers", "trays", "blast"]
POOLS: tuple[Pool, ...] = ("rings", "mixers", "trays", "blast")
# From the fire to the temperature of the refrigerator, which has it from then on.
CHILLER_MIN = 90  # Source: UK Department of Health, Chilled and Frozen (1989): 70 to 3 degC


@dataclass(frozen=True)
class Held:
    """``need`` of a pool for ``minutes``, beginning so many minutes ``after`` a task's start."""

    pool: Pool
    after: int
    minutes: int
    _: KW_ONLY
    need: int


def held(task: Task, *, chilled: bool = False) -> list[Held]:
    """What a task holds and when: a ring or a mixer for its hands, and for a wait that is no oven's
    and no cold's; the cold for its wait, of which the chiller has the first part."""
    whole = ring_free_min(task)
    out = [Held("rings", 0, whole, need=task.rings), Held("mixers", 0, whole, need=task.mixers)]
    blast = min(task.wait, CHILLER_MIN) if chilled else 0
    out.append(Held("blast", task.hands, blast, need=task.trays))
    out.append(Held("trays", task.hands + blast, task.wait - blast, need=task.trays))
    return [one for one in out if one.need and one.minutes > 0]


def ring_free_min(task: Task) -> int:
    """Minutes after its start at which a task's ring or mixer is free again."""
    return task.minutes if task.oven_c is None and not task.trays else task.hands


def chilling(task: Task, blast: int) -> tuple[bool, ...]:
    """The ways into the cold there are for a task, the safer first: what comes hot fits into a
    chiller of so many trays, or it does not."""
    if task.begun is not None:
        return (task.chilled,)
    return (True, False) if task.comes_hot and task.trays <= blast else (False,)
