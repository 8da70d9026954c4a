"""Practice cooks and their replay."""

from bellcrumb.rehearse.exercises import EXERCISES, Stage, exercise, guide_step
from bellcrumb.rehearse.replay import replay
from bellcrumb.rehearse.world import (
    HEATS,
    LADLES_G,
    LONGEST_S,
    Act,
    ActKind,
    Replay,
    Result,
    Slip,
)

__all__ = [
    "EXERCISES",
    "HEATS",
    "LADLES_G",
    "LONGEST_S",
    "Act",
    "ActKind",
    "Replay",
    "Result",
    "Slip",
    "Stage",
    "exercise",
    "guide_step",
    "replay",
]
