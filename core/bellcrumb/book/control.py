"""A control chart of single values: what is the ordinary spread of a dessert, and what is not."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from statistics import fmean

# Limits of an individuals chart from the mean moving range: 3 / d2 with d2 = 1.128 for two values.
# Source: Shewhart; Montgomery, Introduction to Statistical Quality Control.
_RANGES = 2.66
LEAST = 4  # fewer values have no ordinary spread


@dataclass(frozen=True)
class Limits:
    """The middle of a run of values and how far the ordinary ones lie from it."""

    mean: float
    low: float
    high: float


def limits(values: Sequence[float]) -> Limits | None:
    """Mean and limits of values in order of time; None for too few of them.

    mean +- 2.66 times the mean of the differences between neighbours.

    >>> limits([82.0, 83.0, 82.0, 83.0])
    Limits(mean=82.5, low=79.84, high=85.16)
    """
    if len(values) < LEAST:
        return None
    middle = fmean(values)
    reach = _RANGES * fmean(abs(b - a) for a, b in pairwise(values))
    return Limits(middle, middle - reach, middle + reach)
