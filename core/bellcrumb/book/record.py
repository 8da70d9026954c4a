"""What a food-safety plan asks of a finished cook: how hot it was, and how fast it got cold."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from bellcrumb.curve.watch import Reading, smoothed
from bellcrumb.laws.safety import CoolingRule, cools_in_time

_LEAST = 4  # readings


@dataclass(frozen=True)
class Cooled:
    """Minutes from passing the rule's first temperature to the middle and the end one (None: the
    curve ends before), and whether that complies (None: it ends too early to say)."""

    to_mid_min: float | None
    to_end_min: float | None
    complies: bool | None


def cooled(curve: Sequence[Reading], rule: CoolingRule) -> Cooled | None:
    """How a curve went down through the warm zone after its peak; None where it never did.

    >>> from bellcrumb.laws.safety import COOLING
    >>> down = [(60.0 * m, max(4.0, 80.0 - 0.5 * m)) for m in range(0, 200, 5)]
    >>> cooled(down, COOLING)
    Cooled(to_mid_min=72.0, to_end_min=104.0, complies=True)
    """
    told = smoothed(list(curve))
    if len(told) < _LEAST:
        return None
    top = max(range(len(told)), key=lambda n: told[n][1])
    after = told[top:]
    start = _passes(after, rule.from_c)
    if start is None:
        return None
    mid, end = _passes(after, rule.mid_c), _passes(after, rule.end_c)
    to_mid = None if mid is None else round((mid - start) / 60, 1)
    to_end = None if end is None else round((end - start) / 60, 1)
    gone = (after[-1][0] - start) / 60
    complies: bool | None = None
    if to_mid is not None and to_end is not None:
        complies = cools_in_time(to_mid, to_end, rule)
    elif max(to_mid or 0.0, 0.0 if to_mid else gone) > rule.mid_min or gone > rule.end_min:
        complies = False  # too late already, however it goes on
    return Cooled(to_mid, to_end, complies)


def _passes(curve: Sequence[Reading], below_c: float) -> float | None:
    """When a falling curve passes a temperature, s; None where it stays above."""
    for (t0, c0), (t1, c1) in pairwise(curve):
        if c0 > below_c >= c1:
            return t0 + (t1 - t0) * (c0 - below_c) / (c0 - c1)
    return None
