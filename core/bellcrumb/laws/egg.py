"""Egg: where it sets, how fast, and when it has had too much."""

import math

import numpy as np
from numpy.typing import NDArray

from bellcrumb.words import say

Array = NDArray[np.float64]

YOLK_PROTEIN = 0.1586  # g per g of yolk; USDA FoodData Central
WHITE_PROTEIN = 0.109  # g per g of white; USDA FoodData Central
SET_SPREAD_K = 3.0  # of the set temperature of an unknown formula; RMS of the fit 2 K

# Set share S = 1 - exp(-I), dI/dt = RATE * 10^((T - T_set) / Z). Calibrated so that at 1 K a minute
# a custard that sets at 79 degC stops wobbling (S 0.40) at 79.3 and is set through (0.93) at 83.2,
# the usual 77-80 and 82-83 degC of practice. Confidence: medium; the temperature itself carries
# +-2 K.
RATE_PER_S = 3.2e-3
Z_K = 5.5
# Weeping takes a steeper law of its own: with the same one the dry rim of a good custard would
# count as spoilt. 0.4 is reached 11 K above the set temperature at 1 K a minute.
WEEP_RATE_PER_S = 5.2e-4
WEEP_Z_K = 3.0
WEEP_ABOVE_K = 8.0
# Shares of the way from liquid to set, seen from outside. Our estimates, on practice's wobbles.
LIQUID = 0.03  # below this it stirs itself
WOBBLES = 0.40  # below this it still moves
SET_THROUGH = 0.93  # a knife comes out clean
WEEPS = 0.40  # of the second integral: water stands beside it
# The set temperature is where it stops wobbling on an ordinary climb; a formula's best temperature
# is where it has set, a little on.
BELOW_IDEAL_K = 2.0
STIRRED_K = 4.5  # past the still-set point a stirred cream coats the spoon: 82-84 for an anglaise
BEGINS_K = 4.0  # below the set point it begins to thicken; our estimate
STIRRED_CURDLES_K, STILL_CURDLES_K = 3.0, 7.0  # past its best; craft, our estimate

_PER_K, _LOG_RATE = math.log(10) / Z_K, math.log(RATE_PER_S)
_WEEP_PER_K, _LOG_WEEP_RATE = math.log(10) / WEEP_Z_K, math.log(WEEP_RATE_PER_S)


def set_temp_c(
    protein_pct: float,
    *,
    sugar_pct: float = 0.0,
    ph: float = 6.6,
    yolk_share: float = 0.0,
    rich_curd_pct: float = 0.0,
) -> float:
    """Temperature at which egg sets undisturbed, degC, +-3 K.

    T = 77 + 3 ln(12.5 / P) + 0.15 sugar - 2 (6.6 - pH) - 6 Y - 3 C: P egg protein and sugar in % of
    water plus sugar, Y the yolk's share of egg protein, C protein of curd with fat around it (cream
    cheese) in % of the mix. Fitted to the windows of the baked families (RMS 2 K;
    docs/science.md, "Set temperature"). Raises ValueError without protein.

    >>> round(set_temp_c(4.0, sugar_pct=15.0), 1)
    82.7
    """
    if protein_pct <= 0:
        raise ValueError(say("laws.there_is_no_egg_in_it"))
    return (
        77
        + 3.0 * math.log(12.5 / protein_pct)
        + 0.15 * sugar_pct
        - 2 * (6.6 - min(ph, 7.6))
        - 6 * yolk_share
        - 3.0 * rich_curd_pct
    )


def setting_rate(over_k: Array) -> Array:
    """dI/dt of setting, 1/s, this far over the set temperature (K).

    >>> bool(abs(setting_rate(np.array([0.0]))[0] - RATE_PER_S) < 1e-9)
    True
    """
    found: Array = np.exp(over_k * _PER_K + _LOG_RATE)
    return found


def weeping_rate(over_k: Array, tolerates_k: float = 0.0) -> Array:
    """dI/dt of weeping, 1/s; ``tolerates_k`` is how much hotter than egg alone this mix may get.

    >>> bool(abs(weeping_rate(np.array([WEEP_ABOVE_K]))[0] - WEEP_RATE_PER_S) < 1e-9)
    True
    """
    found: Array = np.exp((over_k - (WEEP_ABOVE_K + tolerates_k)) * _WEEP_PER_K + _LOG_WEEP_RATE)
    return found


def share_of(integral: Array) -> Array:
    """The share 1 - exp(-I) of an integral.

    >>> float(share_of(np.array([0.0]))[0])
    0.0
    """
    found: Array = 1 - np.exp(-integral)
    return found
