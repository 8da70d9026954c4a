"""What air does to a surface: convection, radiation, and water leaving it or settling on it."""

import math

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]

SIGMA = 5.670e-8  # W/m2K4, Stefan and Boltzmann
FOOD_EMISSIVITY = 0.9  # handbook range
METAL_EMISSIVITY = 0.6  # a used tin or pan; handbook range
_AIR_CP, _DRY_AIR_J_PER_KGK = 1006.0, 287.0
LEWIS = 0.87  # of water vapour in air; Chilton & Colburn 1934
GAS_J_PER_MOLK = 8.314
WATER_KG_PER_MOL = 0.018015
# Antoine's 8.07131 - 1730.63 / (233.426 + T) in mm of mercury, as natural logarithms of Pa.
_ANTOINE_A = math.log(133.322) + 8.07131 * math.log(10)
_ANTOINE_B = 1730.63 * math.log(10)
_KG_PER_J_K = _DRY_AIR_J_PER_KGK / (_AIR_CP * LEWIS ** (2 / 3)) * WATER_KG_PER_MOL / GAS_J_PER_MOLK
# The logarithm of Stefan's flow has no end at the boil: a surface is never taken closer than this.
MOST_SHARE_OF_PRESSURE = 0.95


def pressure_pa(altitude_m: float) -> float:
    """Air pressure of the standard atmosphere."""
    return 101_325.0 * float((1 - 2.25577e-5 * altitude_m) ** 5.25588)


def saturation_pa(temp_c: Array) -> Array:
    """Saturated vapour pressure, Antoine's equation (1-100 degC)."""
    t = np.minimum(np.maximum(temp_c, 0.1), 110.0)
    found: Array = np.exp(_ANTOINE_A - _ANTOINE_B / (233.426 + t))
    return found


def latent_j_per_kg(temp_c: Array) -> Array:
    """Heat of evaporation: a straight line through the steam tables."""
    return 2.501e6 - 2361.0 * temp_c


def vapour_pa(density_kg_m3: Array, air_c: Array) -> Array:
    """Partial pressure of vapour of a density in air."""
    found: Array = density_kg_m3 * GAS_J_PER_MOLK / WATER_KG_PER_MOL * (air_c + 273.15)
    return found


def m3_per_kg(air_c: Array, pressure: float) -> Array:
    """The room that vapour alone takes up at a pressure."""
    found: Array = GAS_J_PER_MOLK / WATER_KG_PER_MOL * (air_c + 273.15) / pressure
    return found


def radiation_h(surface_c: Array, around_c: Array, emissivity: float) -> Array:
    """Radiation as a film coefficient, W/m2K."""
    a, b = surface_c + 273.15, around_c + 273.15
    found: Array = emissivity * SIGMA * (a * a + b * b) * (a + b)
    return found


def vapour_m_s(air_c: Array, h_c: float, pressure: float) -> Array:
    """How fast vapour crosses a film, m/s: by this times its density in the air a surface gives off
    less."""
    found: Array = h_c * _KG_PER_J_K * m3_per_kg(air_c, pressure)
    return found


def evaporation_kg_m2s(
    surface_c: Array, vapour: Array, h_c: Array | float, pressure: float
) -> tuple[Array, Array]:
    """Water leaving a wet surface (negative: settling), kg/m2s, and how much more for each degree.

    ``vapour`` is the partial pressure in the air (Pa), ``h_c`` the film coefficient in W/m2K.
    Chilton & Colburn's analogy with Stefan's flow: h / (rho cp Le^2/3) times M P / (R T), where the
    film temperature in rho and in R T cancels.
    """
    most = MOST_SHARE_OF_PRESSURE * pressure
    t = np.minimum(np.maximum(surface_c, 0.1), 110.0)
    wet = np.exp(_ANTOINE_A - _ANTOINE_B / (233.426 + t))
    wet = np.minimum(wet, most)
    rise = wet * _ANTOINE_B / (233.426 + t) ** 2
    dry = np.minimum(vapour, most)
    transfer = h_c * _KG_PER_J_K
    return transfer * np.log((pressure - dry) / (pressure - wet)), transfer * rise / (
        pressure - wet
    )
