"""How far a probe can be trusted: what is odd about its curve, said in words."""

from collections.abc import Sequence
from dataclasses import dataclass
from statistics import fmean
from typing import Literal

from bellcrumb.curve.watch import STALE_S, Reading, Watch, rate_k_per_min
from bellcrumb.laws.water import AT_BOIL_K
from bellcrumb.words import say

PLATEAU_S = 75.0
PLATEAU_RATE_K_PER_MIN = 0.5


@dataclass(frozen=True)
class Doubt:
    """Something about a curve that a pot does not do. ``now`` is true when it still holds at the
    last reading."""

    key: Literal["gap", "jumps", "stuck", "high", "low"]
    says: str
    now: bool


def doubts(
    readings: Sequence[Reading], boil_c: float | None, stale_s: float = STALE_S
) -> list[Doubt]:
    """What is doubtful about ``readings`` ((s, degC) in order): see ``doubts_of``."""
    return doubts_of(Watch.of(readings, boil_c=boil_c, stale_s=stale_s))


def doubts_of(watch: Watch) -> list[Doubt]:
    """What is doubtful about a curve; an offset is told by the plateau at the boil."""
    if watch.count < 4 or watch.last_s is None:
        return []
    found = [*_gaps(watch), *_jumps(watch), *_stuck(watch)]
    if watch.boil_c is not None:
        found += _offset(watch, watch.boil_c)
    return found


def _gaps(watch: Watch) -> list[Doubt]:
    if not watch.gaps:
        return []
    times = say("curve.once") if watch.gaps == 1 else say("curve.times", gaps=watch.gaps)
    says = say("curve.the_probe_was_silent_s_at", times=times, longest_gap_s=watch.longest_gap_s)
    return [Doubt("gap", says, now=False)]


def _jumps(watch: Watch) -> list[Doubt]:
    # The first and last reading have no neighbour on one side: nothing can be said of them.
    if not watch.jumps or watch.last_s is None:
        return []
    many = say("curve.a_reading") if watch.jumps == 1 else say("curve.readings", jumps=watch.jumps)
    says = say("curve.jumped_further_than_a_pot_can", many=many, jumps=watch.jumps)
    return [
        Doubt(
            "jumps",
            say("curve.look_at_the_plug", says=says),
            now=watch.last_s - watch.last_jump_s < 30,
        )
    ]


def _stuck(watch: Watch) -> list[Doubt]:
    """The same figure for minutes, away from the boil."""
    run = watch.stuck
    if run is None:
        return []
    minutes = (run.to_s - run.from_s) / 60
    says = say("curve.the_probe_showed_c_and_nothing", value_c=run.value_c, minutes=minutes)
    return [Doubt("stuck", says, now=run.to_s == watch.last_s)]


def _offset(watch: Watch, boil_c: float) -> list[Doubt]:
    """A probe that has drifted: hotter than the boil, or a plateau where no boil is."""
    recent, hottest = watch.recent, watch.hottest_c
    last = [r for r in recent if r[0] >= recent[-1][0] - PLATEAU_S]
    if hottest is not None and hottest > boil_c + 2:
        says = say("curve.the_probe_read_c_where_it", hottest=hottest, boil_c=boil_c)
        return [Doubt("high", says, now=recent[-1][1] > boil_c + 2)]
    rate = rate_k_per_min(last, PLATEAU_S)
    level = fmean(c for _, c in last)
    standing = (
        rate is not None
        and abs(rate) < PLATEAU_RATE_K_PER_MIN
        and last[-1][0] - last[0][0] > 0.9 * PLATEAU_S
    )
    if standing and boil_c - 8 < level < boil_c - AT_BOIL_K:
        says = say(
            "curve.it_stands_still_at_c_and", level=level, boil_c=boil_c, boil_c_2=boil_c - level
        )
        return [Doubt("low", says, now=True)]
    return []
