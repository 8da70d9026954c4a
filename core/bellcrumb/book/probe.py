"""How far a probe can be trusted: what is odd about its curve, said in words."""

import itertools
from collections.abc import Sequence
from dataclasses import dataclass
from statistics import fmean
from typing import Literal

from bellcrumb.laws.water import AT_BOIL_K
from bellcrumb.stove.guide import STALE_S, Reading, rate_k_per_min, smoothed

JUMP_K = 4.0  # a pot cannot move this far and back between three readings
STUCK_S = 180.0
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
    """What is doubtful about ``readings`` ((s, degC) in order).

    ``boil_c`` is where the pot boils (None for a syrup, which has no one boiling point); an offset
    is told by the plateau there. ``stale_s`` is the longest silence that is none.
    """
    if len(readings) < 4:
        return []
    clean = smoothed(readings)
    found = [*_gaps(readings, stale_s), *_jumps(readings, clean), *_stuck(readings, boil_c)]
    if boil_c is not None:
        found += _offset(clean, boil_c)
    return found


def _gaps(readings: Sequence[Reading], stale_s: float) -> list[Doubt]:
    gaps = [b - a for (a, _), (b, _) in itertools.pairwise(readings) if b - a > stale_s]
    if not gaps:
        return []
    times = "once" if len(gaps) == 1 else f"{len(gaps)} times"
    return [Doubt("gap", f"The probe was silent {times}, {max(gaps):.0f} s at most.", now=False)]


def _jumps(readings: Sequence[Reading], clean: Sequence[Reading]) -> list[Doubt]:
    # The first and last reading have no neighbour on one side: nothing can be said of them.
    off = [
        t for (t, raw), (_, c) in list(zip(readings, clean, strict=True))[1:-1]
        if abs(raw - c) > JUMP_K
    ]  # fmt: skip
    if not off:
        return []
    many = "A reading" if len(off) == 1 else f"{len(off)} readings"
    says = f"{many} jumped further than a pot can and {'was' if len(off) == 1 else 'were'} left out"
    return [Doubt("jumps", f"{says}: look at the plug.", now=readings[-1][0] - off[-1] < 30)]


def _stuck(readings: Sequence[Reading], boil_c: float | None) -> list[Doubt]:
    """The same figure for minutes, away from the boil (where standing still is what water does)."""
    for value, run in itertools.groupby(readings, key=lambda r: r[1]):
        span = [t for t, _ in run]
        if boil_c is not None and value > boil_c - 8:
            continue
        if span[-1] - span[0] >= STUCK_S and len(span) > 10:
            minutes = (span[-1] - span[0]) / 60
            says = f"The probe showed {value:.1f} °C and nothing else for {minutes:.0f} min: stuck?"
            return [Doubt("stuck", says, now=span[-1] == readings[-1][0])]
    return []


def _offset(clean: Sequence[Reading], boil_c: float) -> list[Doubt]:
    """A probe that has drifted: hotter than the boil, or a plateau where no boil is."""
    end = clean[-1][0]
    last = [r for r in clean if r[0] >= end - PLATEAU_S]
    hottest = sorted(c for _, c in clean)[-min(5, len(clean))]
    if hottest > boil_c + 2:
        says = (
            f"The probe read {hottest:.1f} °C where it boils at {boil_c:.1f} °C: it reads high, "
            "or touched the wall."
        )
        return [Doubt("high", says, now=clean[-1][1] > boil_c + 2)]
    rate = rate_k_per_min(last, PLATEAU_S)
    level = fmean(c for _, c in last)
    standing = (
        rate is not None
        and abs(rate) < PLATEAU_RATE_K_PER_MIN
        and last[-1][0] - last[0][0] > 0.9 * PLATEAU_S
    )
    if standing and boil_c - 8 < level < boil_c - AT_BOIL_K:
        says = (
            f"It stands still at {level:.1f} °C, and boiling is {boil_c:.1f} °C. If it bubbles "
            f"now, the probe reads {boil_c - level:.1f} K low: go by the bubbles."
        )
        return [Doubt("low", says, now=True)]
    return []
