"""Conductivity, density and heat capacity of a mix and of what it stands in."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bellcrumb.mix.composition import Mix

Array = NDArray[np.float64]

# Polynomials in T (degC): constant, linear, square. Source: Choi & Okos 1986 as reprinted in the
# ASHRAE Refrigeration Handbook; of the two polynomials for water's heat capacity in print the one
# that fits real water. Conductivity in W/mK, density in kg/m3, heat capacity in kJ/kgK.
_PARTS = ("water", "protein", "fat", "carbohydrate", "ash")
_K = {
    "water": (0.57109, 1.7625e-3, -6.7036e-6),
    "protein": (0.17881, 1.1958e-3, -2.7178e-6),
    "fat": (0.18071, -2.7604e-4, -1.7749e-7),
    "carbohydrate": (0.20141, 1.3874e-3, -4.3312e-6),
    "ash": (0.32962, 1.4011e-3, -2.9069e-6),
}
_RHO = {
    "water": (997.18, 3.1439e-3, -3.7574e-3),
    "protein": (1329.9, -0.5184, 0.0),
    "fat": (925.59, -0.41757, 0.0),
    "carbohydrate": (1599.1, -0.31046, 0.0),
    "ash": (2423.8, -0.28063, 0.0),
}
_CP = {
    "water": (4.1762, -9.0864e-5, 5.4731e-6),
    "protein": (2.0082, 1.2089e-3, -1.3129e-6),
    "fat": (1.9842, 1.4733e-3, -4.8008e-6),
    "carbohydrate": (1.5488, 1.9625e-3, -5.9399e-6),
    "ash": (1.0926, 1.8896e-3, -3.6817e-6),
}


@dataclass(frozen=True)
class Food:
    """A mix as heat sees it: conductivity (W/mK) as a quadratic in degC, and density (kg/m3) and
    heat capacity (J/kgK) at 50 degC, where a custard spends its bake."""

    k0: float
    k1: float
    k2: float
    rho: float
    cp: float

    def k(self, temp_c: Array) -> Array:
        """Conductivity at temperatures, W/mK."""
        return self.k0 + self.k1 * temp_c + self.k2 * temp_c * temp_c


@dataclass(frozen=True)
class Solid:
    """A wall: conductivity W/mK, density kg/m3, heat capacity J/kgK, its usual thickness in mm."""

    k: float
    rho: float
    cp: float
    mm: float


# Handbook values, rounded. Pastry is baked and dry, crumb is pressed with butter.
SOLIDS: dict[str, Solid] = {
    "porcelain": Solid(1.5, 2400, 900, 4.5),
    "stoneware": Solid(1.4, 2300, 900, 5.5),
    "glass": Solid(1.05, 2230, 830, 4.5),
    "steel": Solid(16.0, 7900, 500, 0.7),
    "tin": Solid(50.0, 7850, 470, 0.5),
    "aluminium": Solid(200.0, 2700, 900, 0.9),
    "foil": Solid(200.0, 2700, 900, 0.1),
    "cast_iron": Solid(52.0, 7200, 460, 4.0),
    "copper": Solid(390.0, 8900, 385, 1.5),
    "silicone": Solid(0.25, 1150, 1400, 1.5),
    "plastic": Solid(0.25, 950, 1900, 1.5),
    "paper": Solid(0.12, 800, 1400, 0.5),
    "pastry": Solid(0.15, 560, 1900, 6.0),
    "crumb": Solid(0.16, 750, 1800, 7.0),
}


def solid(material: str) -> Solid:
    """A wall by the name of its material; porcelain where it is not known."""
    return SOLIDS.get(material, SOLIDS["porcelain"])


def food(mix: Mix) -> Food:
    """A mix as heat sees it: volumes conduct side by side, heat capacities add by mass.

    Its density is the mix's own, so that it fills what the fit says it fills; a mix without mass is
    taken as water. Source: Choi & Okos 1986.
    """
    grams = {
        "water": mix.parts_g["water"],
        "protein": mix.parts_g["protein"],
        "fat": mix.parts_g["fat"],
        # Alcohol is a trace where there is any; it is counted with the carbohydrates.
        "carbohydrate": sum(mix.parts_g[p] for p in ("sugars", "starch", "other_carb", "alcohol")),
        "ash": mix.parts_g["ash"],
    }
    if not mix.mass_g:
        grams["water"] = 1.0
    total = sum(grams.values())
    litres = {p: g / _at(_RHO[p], 50.0) for p, g in grams.items()}
    volume = sum(litres.values())
    k = [sum(litres[p] / volume * _K[p][n] for p in _PARTS) for n in range(3)]
    cp = 1000 * sum(grams[p] / total * _at(_CP[p], 50.0) for p in _PARTS)
    rho = 1000 * mix.mass_g / mix.volume_ml if mix.mass_g else total / volume
    # Air folded in conducts nothing to speak of.
    solidity = min(1.0, rho / (total / volume))
    return Food(k[0] * solidity, k[1] * solidity, k[2] * solidity, rho, cp)


def _at(poly: tuple[float, float, float], temp_c: float) -> float:
    return poly[0] + poly[1] * temp_c + poly[2] * temp_c * temp_c
