"""Water, alone and with sugar in it: pressure, boiling, heat of evaporation."""

import itertools
import math
from typing import overload

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]

STANDARD_PA = 101_325.0  # ICAO standard atmosphere at sea level
GAS_J_PER_MOLK = 8.314  # CODATA, rounded
KG_PER_MOL = 0.018015  # of water; IUPAC
CP_J_PER_GK = 4.18  # of liquid water, 0 to 100 degC within 0.5 %; steam tables
LATENT_ICE_J_PER_G = 334.0  # of melting; steam tables
# Antoine's constants for water, 1-100 degC, mm of mercury and degC. Source: the usual set of the
# handbooks (CRC, Dortmund Data Bank).
_A, _B, _C = 8.07131, 1730.63, 233.426
_PA_PER_MMHG = 133.322
# The same in natural logarithms of Pa, which is what a stepper wants.
_LN_A = math.log(_PA_PER_MMHG) + _A * math.log(10)
_LN_B = _B * math.log(10)
AT_BOIL_K = 2.5  # a probe in a stirred pot that is this near its boil is at it; our estimate
BOILS_FROM_C = 100.0 - AT_BOIL_K  # where nothing is known of the mix
COLDEST_C, HOTTEST_C = 0.1, 110.0  # outside these saturation stands still
# Boiling point of sucrose in water, mass % -> degC at sea level. Source: ICUMSA's elevations (as in
# Bubník et al., Sugar Technologists Manual) to 60 %, Browne's table to 80 %, the usual table of the
# confectionery trade above (medium confidence).
_SUCROSE_BOIL = (
    (0.0, 100.0), (10.0, 100.1), (20.0, 100.3), (30.0, 100.6), (40.0, 101.0), (50.0, 101.8),
    (60.0, 103.0), (70.0, 106.5), (80.0, 112.0), (90.0, 123.0), (95.0, 140.0), (97.0, 151.0),
    (98.2, 160.0), (99.5, 166.0), (99.7, 175.0),
)  # fmt: skip
_MOST_SUGAR_PCT = 80.0  # of a cream's water phase: beyond it the rest lies undissolved


def pressure_pa(altitude_m: float) -> float:
    """Air pressure at an altitude (m), Pa: P = 101325 (1 - 2.25577e-5 h)^5.25588.

    Valid to 11 000 m. Source: ICAO standard atmosphere.

    >>> round(pressure_pa(1500))
    84556
    """
    return STANDARD_PA * float((1 - 2.25577e-5 * altitude_m) ** 5.25588)


@overload
def saturation_pa(temp_c: float) -> float: ...
@overload
def saturation_pa(temp_c: Array) -> Array: ...
def saturation_pa(temp_c: Array | float) -> Array | float:
    """Saturated vapour pressure of water, Pa: log10 p(mmHg) = A - B / (C + T).

    Antoine's equation, valid 1-100 degC (within 0.2 %); held still below 0.1 and above 110 degC.

    >>> round(saturation_pa(20.0))
    2330
    """
    if isinstance(temp_c, float):
        return math.exp(_LN_A - _LN_B / (_C + min(max(temp_c, COLDEST_C), HOTTEST_C)))
    found: Array = np.exp(_LN_A - _LN_B / (_C + np.clip(temp_c, COLDEST_C, HOTTEST_C)))
    return found


def saturation_slope(temp_c: Array, pa: Array) -> Array:
    """How the saturated vapour pressure ``pa`` rises at ``temp_c``, Pa/K: p B ln 10 / (C + T)^2.

    >>> bool(abs(saturation_slope(np.array([20.0]), np.array([2329.0]))[0] - 144.5) < 0.5)
    True
    """
    t = np.clip(temp_c, COLDEST_C, HOTTEST_C)
    found: Array = pa * _LN_B / (_C + t) ** 2
    return found


@overload
def latent_j_per_kg(temp_c: float) -> float: ...
@overload
def latent_j_per_kg(temp_c: Array) -> Array: ...
def latent_j_per_kg(temp_c: Array | float) -> Array | float:
    """Heat of evaporation, J/kg: 2.501e6 - 2361 T.

    A straight line through the steam tables, 0-140 degC within 1 %.

    >>> latent_j_per_kg(100.0)
    2264900.0
    """
    return 2.501e6 - 2361.0 * temp_c


def boils_c(altitude_m: float) -> float:
    """Boiling point of water at an altitude, degC: Antoine's equation backwards.

    >>> round(boils_c(0), 1), round(boils_c(1500), 1)
    (100.0, 95.0)
    """
    return _B / (_A - math.log10(pressure_pa(altitude_m) / _PA_PER_MMHG)) - _C


def sucrose_boils_c(sucrose_pct: float, altitude_m: float = 0.0) -> float:
    """Boiling point of a sucrose solution of this mass percent, degC, by a table of 15 points.

    Valid 0-99.7 % (beyond it the last point); within 0.6 K to 80 %, some 3 K above.

    >>> round(sucrose_boils_c(80), 1)
    112.0
    """
    rise = _SUCROSE_BOIL[-1][1] - 100
    for (x0, y0), (x1, y1) in itertools.pairwise(_SUCROSE_BOIL):
        if sucrose_pct <= x1:
            rise = y0 + (y1 - y0) * (sucrose_pct - x0) / (x1 - x0) - 100
            break
    return boils_c(altitude_m) + rise


def sucrose_pct_at(temp_c: float, altitude_m: float = 0.0) -> float:
    """Mass percent of the sucrose solution that boils at ``temp_c``: the same table backwards.

    >>> round(sucrose_pct_at(118.0), 1)
    85.5
    """
    at_sea = temp_c + 100 - boils_c(altitude_m)
    for (x0, y0), (x1, y1) in itertools.pairwise(_SUCROSE_BOIL):
        if at_sea <= y1:
            return max(0.0, x0 + (x1 - x0) * (at_sea - y0) / (y1 - y0))
    return _SUCROSE_BOIL[-1][0]


def sweetened_boils_c(water_g: float, sugar_g: float, altitude_m: float = 0.0) -> float:
    """Boiling point of something with this much water and sugar in it, degC, all sugar as sucrose.

    >>> round(sweetened_boils_c(300.0, 700.0), 1)
    106.5
    """
    share = 100 * sugar_g / (water_g + sugar_g) if water_g + sugar_g else 0.0
    return sucrose_boils_c(min(share, _MOST_SUGAR_PCT), altitude_m)
