"""Pasteurisation from a curve: legal time-temperature pairs, and logs of Salmonella killed.

The kitchen's local code comes before anything said here. Credit is given only at or above 55 degC
and from a probe in the coldest point.
"""

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from bellcrumb.errors import CraftError
from bellcrumb.laws.safety import HOUSE_LINE_C, NEEDED_LOG, NO_CREDIT_C

Product = Literal["whole_egg", "yolk", "sugared_yolk", "white", "mix"]
MOST_LOG = 12.0  # more than this is shown as "more than 12", never as a larger number
_GAP_S = 120.0  # over a longer gap the colder end counts for all of it
_LOST_S = 1800.0  # and after half an hour without a reading nothing does


@dataclass(frozen=True)
class _Law:
    """A legal pair (degC, s) with the z that joins it to its second pair, and D at 60 degC in s
    with its own z for logs."""

    words: str
    temp_c: float
    hold_s: float
    pair_z: float
    d60_s: float
    z: float


# Pairs: 9 CFR 590.570 as it stood before the 2020 egg-products rule (figures high confidence).
# D: whole egg D60 0.5 min; yolk D61.1 0.57 min (Palumbo 1995); sugared yolk D63.3 0.7 min; white
# D56.7 1 min, z 4.5 (literature, low to medium); mix: design D60 3 min, z 6, on the slow side.
LAWS: dict[Product, _Law] = {
    "whole_egg": _Law("whole egg: 60.0 °C for 3.5 min", 60.0, 210.0, 4.5, 30.0, 4.5),
    "yolk": _Law("plain yolk: 61.1 °C for 3.5 min or 60.0 °C for 6.2 min", 61.1, 210.0, 4.43,
                 34.2 * 10 ** (1.1 / 4.5), 4.5),
    "sugared_yolk": _Law("sugared yolk: 63.3 °C for 3.5 min or 62.2 °C for 6.2 min", 63.3, 210.0,
                         4.43, 42.0 * 10 ** (3.3 / 5.5), 5.5),
    "white": _Law("white: 56.7 °C for 3.5 min or 55.6 °C for 6.2 min", 56.7, 210.0, 4.43,
                  60.0 * 10 ** (-3.3 / 4.5), 4.5),
    "mix": _Law("egg mix: 71.1 °C reached, or 7 logs by the integral", HOUSE_LINE_C, 0.0, 6.0,
                180.0, 6.0),
}  # fmt: skip


@dataclass(frozen=True)
class Lethality:
    """What a curve has done: ``log_reduction`` capped at 12, ``share`` of what is asked (1 is
    enough, may be more), ``meets``, the rule in words, the peak and what is doubtful."""

    log_reduction: float
    share: float
    meets: bool
    rule: str
    peak_c: float
    warnings: list[str]


def _integral(readings: Sequence[tuple[float, float]], ref_c: float, z: float) -> float:
    """Equivalent seconds at ``ref_c``: trapezoid of 10^((T - ref)/z), exact where T is straight."""
    total = 0.0
    for (t0, c0), (t1, c1) in itertools.pairwise(readings):
        dt = t1 - t0
        low, high = min(c0, c1), max(c0, c1)
        if dt > _GAP_S:
            high, dt = low, (dt if dt <= _LOST_S else 0.0)
        if high < NO_CREDIT_C or dt <= 0:
            continue
        if low < NO_CREDIT_C:  # only the part above the line counts
            dt *= (high - NO_CREDIT_C) / (high - low)
            low = NO_CREDIT_C
        a, b = 10 ** ((low - ref_c) / z), 10 ** ((high - ref_c) / z)
        straight = (b - a) / math.log(b / a) if b / a > 1 + 1e-9 else a
        total += dt * straight
    return total


def kill(product: Product, readings: Sequence[tuple[float, float]]) -> Lethality:
    """Judge a curve of (seconds, degC) in order of time.

    Raises CraftError for readings out of order, or a product unknown.
    """
    if product not in LAWS:
        raise CraftError("product", f"One of: {', '.join(LAWS)}.")
    for n, ((t0, _), (t1, _)) in enumerate(itertools.pairwise(readings), start=1):
        if t1 < t0:
            raise CraftError(f"readings[{n}].t_s", "Readings come in the order of their time.")
    law = LAWS[product]
    logs = _integral(readings, 60.0, law.z) / law.d60_s
    peak = max((c for _, c in readings), default=0.0)
    warnings = []
    if any(t1 - t0 > _GAP_S for (t0, _), (t1, _) in itertools.pairwise(readings)):
        warnings.append("Gaps of more than two minutes: there the colder reading is counted.")
    if len(readings) == 1:
        warnings.append("One reading is a moment, not a time: nothing is counted.")
    if product == "mix":
        share = max(logs / NEEDED_LOG, 1.0 if peak >= HOUSE_LINE_C and len(readings) > 1 else 0.0)
    else:
        share = _integral(readings, law.temp_c, law.pair_z) / law.hold_s
    meets = share >= 1 - 1e-6
    if not meets and peak > NO_CREDIT_C:
        warnings.append("Not enough yet: not for the very young, old, pregnant or ill until it is.")
    return Lethality(
        min(logs, MOST_LOG), share, meets,
        f"{law.words}. The local food code and the kitchen's plan come first.", peak, warnings,
    )  # fmt: skip
