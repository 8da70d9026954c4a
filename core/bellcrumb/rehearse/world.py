"""What every rehearsal shares: acts in, slips and a world out.

Everything follows from the exercise, the seed and the acts with their times: the same run again
gives the same pot. Damage is rough on purpose (estimates); its order and causes are the craft's.
"""

from dataclasses import KW_ONLY, dataclass, field
from typing import Literal

from bellcrumb.stove.guide import Moment

ActKind = Literal["heat", "stir", "lift", "ladle", "whites", "cold_water", "pour", "look", "end"]
Result = Literal["good", "usable", "spoiled"]
LONGEST_S = 3600
HEATS = 9
LADLES_G = (40.0, 100.0, 250.0)


@dataclass(frozen=True)
class Act:
    """Something the learner did: ``value`` is a heat 0-9, on or off, or grams of a ladle."""

    at_s: float
    kind: ActKind
    value: float = 0.0


@dataclass(frozen=True)
class Slip:
    """A moment it went wrong, and why."""

    at_s: float
    what: str
    why: str


@dataclass
class World:
    """The pretended stove now. Damage runs from 0 to 1."""

    t_s: float = 0.0
    temp_c: float = 20.0
    heat: int = 0
    _: KW_ONLY
    stirring: bool = False
    lifted: bool = False
    damage: dict[str, float] = field(default_factory=dict)
    held_s: float = 0.0
    boiled_s: float = 0.0
    poured_g: float = 0.0
    colour: float = 0.0
    water_g: float = 0.0
    whipped_s: float = 0.0
    whites_s: float | None = None
    ended: bool = False
    peak_c: float = 0.0
    disc_share: float | None = None
    looked_s: float | None = None


@dataclass(frozen=True)
class Replay:
    """A run so far: the curve, the acts, the slips, the world as it stands and what came of it."""

    world: World
    curve: list[tuple[float, float]]
    slips: list[Slip]
    _: KW_ONLY
    moment: Moment
    figure_word: str
    result: Result | None
    says: list[str]
