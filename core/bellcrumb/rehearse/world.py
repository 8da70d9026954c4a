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
class Hands:
    """What the learner is doing: the ring's or the mixer's ``heat``, spoon and pot."""

    heat: int = 0
    stirring: bool = False
    lifted: bool = False


@dataclass
class Sugar:
    """How far a syrup is: ``whites_s`` is when its whites were started."""

    colour: float = 0.0
    water_g: float = 0.0
    whites_s: float | None = None


@dataclass(frozen=True)
class Glimpse:
    """What was seen through the oven's door: the share of the width that was loose, and when."""

    disc_share: float
    at_s: float


@dataclass
class World:
    """The pretended stove or oven now. Damage runs from 0 to 1. ``held_s`` at the boil,
    ``poured_g`` onto the eggs and ``whipped_s`` tell how far a pot, a bowl and a mixer are."""

    t_s: float = 0.0
    temp_c: float = 20.0
    peak_c: float = 0.0
    _: KW_ONLY
    ended: bool = False
    damage: dict[str, float] = field(default_factory=dict)
    hands: Hands = field(default_factory=Hands)
    held_s: float = 0.0
    poured_g: float = 0.0
    whipped_s: float = 0.0
    sugar: Sugar = field(default_factory=Sugar)
    glimpse: Glimpse | None = None


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
