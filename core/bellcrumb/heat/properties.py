"""Thermal properties of a mix from its composition."""

import itertools
import math

from bellcrumb.mix.composition import Mix

# kJ/kgK near 20-50 degC. Source: Choi & Okos 1986 (alcohol: medium confidence, not from there).
_CP = {
    "water": 4.18, "protein": 2.05, "fat": 2.03, "sugars": 1.62, "starch": 1.62,
    "other_carb": 1.62, "ash": 1.15, "alcohol": 2.6,
}  # fmt: skip
# Boiling point of sucrose in water, mass % -> degC at sea level. Source: ICUMSA's elevations (as in
# Bubník et al., Sugar Technologists Manual) to 60 %, Browne's table to 80 %, the usual table of the
# confectionery trade above (medium confidence).
_SUCROSE_BOIL = (
    (0.0, 100.0),
    (10.0, 100.1),
    (20.0, 100.3),
    (30.0, 100.6),
    (40.0, 101.0),
    (50.0, 101.8),
    (60.0, 103.0),
    (70.0, 106.5),
    (80.0, 112.0),
    (90.0, 123.0),
    (95.0, 140.0),
    (97.0, 151.0),
    (98.2, 160.0),
    (99.5, 166.0),
    (99.7, 175.0),
)


def heat_capacity_j_per_gk(mix: Mix) -> float:
    """Specific heat in J/(g K) from the parts (Choi & Okos 1986); water's for an empty mix."""
    if not mix.mass_g:
        return 4.18
    return sum(_CP[part] * grams for part, grams in mix.parts_g.items()) / mix.mass_g


def water_boils_c(altitude_m: float) -> float:
    """Boiling point of water at an altitude: standard atmosphere and Antoine's equation."""
    pressure_mmhg = 760 * (1 - 2.25577e-5 * altitude_m) ** 5.25588
    return 1730.63 / (8.07131 - math.log10(pressure_mmhg)) - 233.426


def sucrose_boils_c(sucrose_pct: float, altitude_m: float = 0.0) -> float:
    """Boiling point of a sucrose solution of this mass percent."""
    rise = _SUCROSE_BOIL[-1][1] - 100
    for (x0, y0), (x1, y1) in itertools.pairwise(_SUCROSE_BOIL):
        if sucrose_pct <= x1:
            rise = y0 + (y1 - y0) * (sucrose_pct - x0) / (x1 - x0) - 100
            break
    return water_boils_c(altitude_m) + rise


def sucrose_pct_at(temp_c: float, altitude_m: float = 0.0) -> float:
    """Mass percent of the sucrose solution that boils at ``temp_c``: the same table backwards."""
    at_sea = temp_c + 100 - water_boils_c(altitude_m)
    for (x0, y0), (x1, y1) in itertools.pairwise(_SUCROSE_BOIL):
        if at_sea <= y1:
            return max(0.0, x0 + (x1 - x0) * (at_sea - y0) / (y1 - y0))
    return _SUCROSE_BOIL[-1][0]


def boiling_point_c(mix: Mix, altitude_m: float = 0.0) -> float:
    """Boiling point of a mix: water's at this altitude plus what its sugar adds."""
    water, sugar = mix.parts_g["water"], mix.parts_g["sugars"]
    share = 100 * sugar / (water + sugar) if water + sugar else 0.0
    return sucrose_boils_c(min(share, 80.0), altitude_m)


def vapour_pressure_pa(temp_c: float) -> float:
    """Saturated vapour pressure of water, Antoine's equation (1-100 degC)."""
    return 133.322 * 10 ** (8.07131 - 1730.63 / (233.426 + temp_c))
