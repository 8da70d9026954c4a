"""Starch: where it thickens, how sugar delays it, and from how much on it guards an egg."""

from itertools import pairwise
from typing import NamedTuple


class Pasting(NamedTuple):
    """degC where a starch begins to swell in the pan and where it is full, and the share of its
    thickness lost to five minutes of boiling and stirring."""

    from_c: float
    full_c: float
    loss: float

    def at_c(self, share: float) -> float:
        """Where it is this far from its beginning (0) to full (1), degC."""
        return self.from_c + share * (self.full_c - self.from_c)


# Source: docs/science.md, "Starches" (corn and wheat high
# confidence, others medium).
PASTING: dict[str, Pasting] = {
    "corn_starch": Pasting(75, 95, 0.05), "custard_powder": Pasting(75, 95, 0.05),
    "flour_plain": Pasting(70, 95, 0.03), "flour_cake": Pasting(70, 95, 0.03),
    "wheat_starch": Pasting(70, 95, 0.05), "semolina": Pasting(70, 95, 0.03),
    "rice_flour": Pasting(75, 90, 0.05), "rice_starch": Pasting(75, 90, 0.05),
    "potato_starch": Pasting(60, 68, 0.35), "tapioca_starch": Pasting(62, 70, 0.35),
    "arrowroot": Pasting(65, 80, 0.25), "waxy_maize": Pasting(65, 72, 0.30),
}  # fmt: skip
CORN = PASTING["corn_starch"]
_FULL_BY_C = 99.0  # however much sugar delays it, a boil is the end of it
SEEN_SHARE = 1 / 3  # of its climb at which the eye sees it thicken; our estimate, from corn at 80
_SUGAR_DELAYS = ((0.0, 0.0), (10.0, 2.0), (20.0, 4.5), (40.0, 12.0), (60.0, 25.0))
# A boil is safe for the egg from this much corn starch per 1000 g of liquid on: 5 g per 250 ml,
# which weigh 258 g. Source: McGee, On Food and Cooking; confidence high.
PROTECTS_EGG_G = 19.35
# It is said of an egg or three yolks to 250 ml; little egg clots less easily. Our estimates.
_USUAL_EGG_G, _LEAST_SHARE = 120.0, 0.6


def protects_egg_g(egg_g_per_1000: float) -> float:
    """Corn starch (equivalent) per 1000 g of liquid that makes a boil safe for so many grams of
    egg and yolk in it, g.

    Full from 120 g of egg on, down to 0.6 of it for 72 g and less. Source: McGee; the slope is our
    estimate.

    >>> tuple(round(protects_egg_g(egg), 2) for egg in (200.0, 90.0, 0.0))
    (19.35, 14.51, 11.61)
    """
    return PROTECTS_EGG_G * min(1.0, max(_LEAST_SHARE, egg_g_per_1000 / _USUAL_EGG_G))


def sugar_delay_k(sugar_pct_of_water_phase: float) -> float:
    """How much later starch thickens with this much sugar in its water, K.

    Straight lines through 10 %: 2, 20: 4.5, 40: 12, 60: 25 (more is taken as 60). Source: Spies &
    Hoseney 1982; direction high, size medium confidence.

    >>> sugar_delay_k(30.0)
    8.25
    """
    x = min(60.0, max(0.0, sugar_pct_of_water_phase))
    for (x0, y0), (x1, y1) in pairwise(_SUGAR_DELAYS):
        if x <= x1:
            return y0 + (y1 - y0) * (x - x0) / (x1 - x0)
    return _SUGAR_DELAYS[-1][1]


def pasting(key: str | None, sugar_pct_of_water_phase: float = 0.0) -> Pasting:
    """When a starch swells in water with this much sugar; corn's for one that is not in the table.

    The beginning moves by the whole delay, the end by half of it and never past 99 degC.

    >>> pasting("potato_starch", 20.0)
    Pasting(from_c=64.5, full_c=70.25, loss=0.35)
    """
    row = PASTING.get(key or "", CORN)
    delay = sugar_delay_k(sugar_pct_of_water_phase)
    full = min(row.full_c + delay / 2, _FULL_BY_C)
    return Pasting(min(row.from_c + delay, full - 1.0), full, row.loss)


def seen_to_thicken_c(window: Pasting) -> float:
    """Where the eye sees it go from thin to thick, degC: a third of the way up.

    >>> round(seen_to_thicken_c(CORN), 1)
    81.7
    """
    return window.at_c(SEEN_SHARE)
