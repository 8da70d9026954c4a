"""What air does to a surface: convection, radiation, and water leaving it or settling on it."""

import numpy as np
from numpy.typing import NDArray

from bellcrumb.laws.water import GAS_J_PER_MOLK, KG_PER_MOL, saturation_pa, saturation_slope

Array = NDArray[np.float64]

SIGMA = 5.670e-8  # W/m2K4, Stefan and Boltzmann
ROOM_C = 22.0  # a kitchen's air; craft
FOOD_EMISSIVITY = 0.9  # handbook range
METAL_EMISSIVITY = 0.6  # a used tin or pan; handbook range
_AIR_CP, _DRY_AIR_J_PER_KGK = 1006.0, 287.0
LEWIS = 0.87  # of water vapour in air; Chilton & Colburn 1934
# Chilton and Colburn's analogy, kg K / J: h times this is what a film lets through of water.
KG_PER_J_K = _DRY_AIR_J_PER_KGK / (_AIR_CP * LEWIS ** (2 / 3)) * KG_PER_MOL / GAS_J_PER_MOLK
# The logarithm of Stefan's flow has no end at the boil: a surface is never taken closer than this.
MOST_SHARE_OF_PRESSURE = 0.95


def vapour_pa(density_kg_m3: Array, air_c: Array) -> Array:
    """Partial pressure of vapour of a density (kg/m3) in air (degC), Pa: the ideal gas.

    >>> round(float(vapour_pa(np.array([0.017]), np.array([20.0]))[0]))
    2300
    """
    found: Array = density_kg_m3 * GAS_J_PER_MOLK / KG_PER_MOL * (air_c + 273.15)
    return found


def m3_per_kg(air_c: Array, pressure: float) -> Array:
    """The room that vapour alone takes up at a pressure (Pa), m3/kg: the ideal gas.

    >>> round(float(m3_per_kg(np.array([100.0]), 101_325.0)[0]), 2)
    1.7
    """
    found: Array = GAS_J_PER_MOLK / KG_PER_MOL * (air_c + 273.15) / pressure
    return found


def radiation_h(surface_c: Array, around_c: Array, emissivity: float) -> Array:
    """Radiation as a film coefficient, W/m2K: e sigma (Ts^2 + Ta^2)(Ts + Ta), kelvins.

    >>> round(float(radiation_h(np.array([80.0]), np.array([160.0]), 0.9)[0]), 1)
    12.5
    """
    a, b = surface_c + 273.15, around_c + 273.15
    found: Array = emissivity * SIGMA * (a * a + b * b) * (a + b)
    return found


def vapour_m_s(air_c: Array, h_c: float, pressure: float) -> Array:
    """How fast vapour crosses a film, m/s: by this times its density in the air a surface gives off
    less. ``h_c`` is the film coefficient in W/m2K; Chilton & Colburn 1934.

    >>> round(float(vapour_m_s(np.array([100.0]), 8.5, 101_325.0)[0]), 4)
    0.0098
    """
    found: Array = h_c * KG_PER_J_K * m3_per_kg(air_c, pressure)
    return found


def evaporation_kg_m2s(
    surface_c: Array, vapour: Array, h_c: Array | float, pressure: float
) -> tuple[Array, Array]:
    """Water leaving a wet surface (negative: settling), kg/m2s, and how much more for each degree.

    ``vapour`` is the partial pressure in the air (Pa), ``h_c`` the film coefficient in W/m2K.
    Chilton & Colburn's analogy with Stefan's flow: h / (rho cp Le^2/3) times M P / (R T), where the
    film temperature in rho and in R T cancels. Surfaces to 110 degC, short of the boil.

    >>> kg, more = evaporation_kg_m2s(np.array([80.0]), np.array([3000.0]), 8.5, 101_325.0)
    >>> round(float(kg[0]) * 3600, 1), round(float(more[0]) * 3600, 2)
    (12.4, 0.74)
    """
    most = MOST_SHARE_OF_PRESSURE * pressure
    wet = np.minimum(saturation_pa(surface_c), most)
    rise = saturation_slope(surface_c, wet)
    dry = np.minimum(vapour, most)
    transfer = h_c * KG_PER_J_K
    return transfer * np.log((pressure - dry) / (pressure - wet)), transfer * rise / (
        pressure - wet
    )


# Labels say whole per cent: 30 % is from 29.5. Source: cream table; high. With a stabiliser from
# 28 %: craft, low.
WHIPS_FROM_FAT_PCT, HELD_FROM_FAT_PCT = 30.0, 28.0


def cream_whips(fat_pct: float, *, stabilised: bool = False) -> bool:
    """Whether cream of this fat holds air at all, cold: from 30 %, and with gelatine or a firm
    cheese in it (``stabilised``) just from 28 %; less fat leaves the bubbles without walls.

    >>> cream_whips(30), cream_whips(28), cream_whips(28, stabilised=True)
    (True, False, True)
    """
    return fat_pct >= (HELD_FROM_FAT_PCT if stabilised else WHIPS_FROM_FAT_PCT) - 0.5


STANDS_H = 8.0  # 36 % cream, whipped firm and plain, at 4 degC; our estimate
_STANDS_FAT = ((30.0, 0.5), (33.0, 0.8), (35.5, 1.0), (39.0, 1.4), (46.5, 1.7))
_STANDS_SUGAR = ((10.0, 1.0), (15.0, 0.8), (20.0, 0.6))


def whipped_stands_h(
    fat_pct: float, temp_c: float, sugar_pct: float = 0.0, stabilised: float = 1.0
) -> float:
    """Hours until whipped cream visibly slackens or weeps: 8 F_fat F_sugar F_stab 2^(-(T-4)/6),
    halved again above 30 degC. ``sugar_pct`` is of the cream, ``stabilised`` what holds it longer
    (1: nothing). 30-48 % of fat, 0-35 degC. Our estimate, good to a factor of 1.6; the order is
    sure.

    >>> round(whipped_stands_h(36, 4), 1), round(whipped_stands_h(36, 20), 1)
    (8.5, 1.3)
    """
    fat, sugar = (
        float(np.interp(at, [x for x, _ in table], [y for _, y in table]))
        for at, table in ((fat_pct, _STANDS_FAT), (sugar_pct, _STANDS_SUGAR))
    )
    warm = 0.5 if temp_c > 30 else 1.0
    return float(STANDS_H * fat * sugar * stabilised * 2 ** (-(temp_c - 4) / 6) * warm)
