"""Pasteurisation from a curve: legal time-temperature pairs, and logs of Salmonella killed.

The kitchen's local code comes before anything said here. Credit is given only at or above 55 degC
and from a probe in the coldest point.
"""

import math
from collections.abc import Iterable
from dataclasses import KW_ONLY, dataclass, replace
from typing import Literal

from bellcrumb.errors import CraftError
from bellcrumb.laws.safety import HOUSE_LINE_C, NEEDED_LOG, NO_CREDIT_C
from bellcrumb.words import say

Product = Literal["whole_egg", "yolk", "sugared_yolk", "white", "mix"]
MOST_LOG = 12.0  # more than this is shown as "more than 12", never as a larger number
_LOG_REF_C = 60.0  # where the D of each product is given
_GAP_S = 120.0  # over a longer gap the colder end counts for all of it
_LOST_S = 1800.0  # and after half an hour without a reading nothing does


@dataclass(frozen=True)
class _Law:
    """A legal pair (degC, s) with the z that joins it to its second pair, and D at 60 degC in s
    with its own z for logs."""

    words: str
    temp_c: float
    hold_s: float
    _: KW_ONLY
    pair_z: float
    d60_s: float
    z: float


# Pairs: 9 CFR 590.570 as it stood before the 2020 egg-products rule (figures high confidence).
# D: whole egg D60 0.5 min; yolk D61.1 0.57 min (Palumbo 1995); sugared yolk D63.3 0.7 min; white
# D56.7 1 min, z 4.5 (literature, low to medium); mix: design D60 3 min, z 6, on the slow side.
LAWS: dict[Product, _Law] = {
    "whole_egg": _Law(
        say("safety.whole_egg_60_0_c_for"), 60.0, 210.0, pair_z=4.5, d60_s=30.0, z=4.5
    ),
    "yolk": _Law(
        say("safety.plain_yolk_61_1_c_for"),
        61.1,
        210.0,
        pair_z=4.43,
        d60_s=34.2 * 10 ** (1.1 / 4.5),
        z=4.5,
    ),
    "sugared_yolk": _Law(
        say("safety.sugared_yolk_63_3_c_for"),
        63.3,
        210.0,
        pair_z=4.43,
        d60_s=42.0 * 10 ** (3.3 / 5.5),
        z=5.5,
    ),
    "white": _Law(
        say("safety.white_56_7_c_for_3"),
        56.7,
        210.0,
        pair_z=4.43,
        d60_s=60.0 * 10 ** (-3.3 / 4.5),
        z=4.5,
    ),
    "mix": _Law(
        say("safety.egg_mix_71_1_c_reached"), HOUSE_LINE_C, 0.0, pair_z=6.0, d60_s=180.0, z=6.0
    ),
}


@dataclass(frozen=True)
class Lethality:
    """What a curve has done: ``log_reduction`` capped at 12, ``share`` of what is asked (1 is
    enough, may be more), ``meets``, the rule in words, the peak and what is doubtful."""

    log_reduction: float
    share: float
    meets: bool
    _: KW_ONLY
    rule: str
    peak_c: float
    warnings: list[str]


class _Seconds:
    """Equivalent seconds at ``ref_c``: trapezoid of 10^((T - ref)/z), exact where T is straight."""

    def __init__(self, ref_c: float, z: float) -> None:
        self.ref_c, self.z, self.total_s = ref_c, z, 0.0

    def add(self, before: tuple[float, float], reading: tuple[float, float]) -> None:
        """One stretch between two readings."""
        (t0, c0), (t1, c1) = before, reading
        dt = t1 - t0
        low, high = min(c0, c1), max(c0, c1)
        if dt > _GAP_S:
            high, dt = low, (dt if dt <= _LOST_S else 0.0)
        if high < NO_CREDIT_C or dt <= 0:
            return
        if low < NO_CREDIT_C:  # only the part above the line counts
            dt *= (high - NO_CREDIT_C) / (high - low)
            low = NO_CREDIT_C
        a, b = 10 ** ((low - self.ref_c) / self.z), 10 ** ((high - self.ref_c) / self.z)
        straight = (b - a) / math.log(b / a) if b / a > 1 + 1e-9 else a
        self.total_s += dt * straight


class Pasteurising:
    """A curve judged as it comes, reading by reading. Raises CraftError for an unknown product."""

    def __init__(self, product: Product) -> None:
        if product not in LAWS:
            raise CraftError("product", say("safety.one_of", laws=", ".join(LAWS)))
        self.product, law = product, LAWS[product]
        self._logs, self._pair = _Seconds(_LOG_REF_C, law.z), _Seconds(law.temp_c, law.pair_z)
        self._before: tuple[float, float] | None = None
        self._count, self._peak_c, self._gaps = 0, 0.0, False

    def add(self, reading: tuple[float, float]) -> None:
        """One (s, degC) on. Raises CraftError for one older than the last."""
        before, self._before = self._before, reading
        self._peak_c = reading[1] if before is None else max(self._peak_c, reading[1])
        self._count += 1
        if before is None:
            return
        if reading[0] < before[0]:
            raise CraftError(
                f"readings[{self._count - 1}].t_s", say("safety.readings_come_in_the_order_of")
            )
        self._gaps = self._gaps or reading[0] - before[0] > _GAP_S
        self._logs.add(before, reading)
        self._pair.add(before, reading)

    def lethality(self) -> Lethality:
        """What it has done so far."""
        law = LAWS[self.product]
        logs = self._logs.total_s / law.d60_s
        warnings = []
        if self._gaps:
            warnings.append(say("safety.gaps_of_more_than_two_minutes"))
        if self._count == 1:
            warnings.append(say("safety.one_reading_is_a_moment_not"))
        if self.product == "mix":
            at_once = 1.0 if self._peak_c >= HOUSE_LINE_C and self._count > 1 else 0.0
            share = max(logs / NEEDED_LOG, at_once)
        else:
            share = self._pair.total_s / law.hold_s
        meets = share >= 1 - 1e-6
        if not meets and self._peak_c > NO_CREDIT_C:
            warnings.append(say("safety.not_enough_yet_not_for_the"))
        return Lethality(
            min(logs, MOST_LOG),
            share,
            meets,
            rule=say("safety.the_local_food_code_and_the", law=law.words),
            peak_c=self._peak_c,
            warnings=warnings,
        )


def not_yet(product: Product) -> Lethality:
    """Nothing is counted while the eggs are tempered: nobody knows whether the probe is in the
    bowl or in the hot liquid beside it."""
    found = Pasteurising(product).lethality()
    return replace(found, warnings=[say("safety.counted_once_tempered")])


def lethality(product: Product, readings: Iterable[tuple[float, float]]) -> Lethality:
    """Judge a curve of (seconds, degC) in order of time.

    Raises CraftError for readings out of order, or a product unknown.
    """
    judged = Pasteurising(product)
    for reading in readings:
        judged.add(reading)
    return judged.lethality()
