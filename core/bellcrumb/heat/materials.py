"""Conductivity, density and heat capacity of a mix and of what it stands in."""

from dataclasses import KW_ONLY, dataclass

import numpy as np
from numpy.typing import NDArray

from bellcrumb.laws import food as food_laws
from bellcrumb.mix.composition import Mix

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Food:
    """A mix as heat sees it: conductivity (W/mK) as a quadratic in degC, and density (kg/m3) and
    heat capacity (J/kgK) at 50 degC, where a custard spends its bake."""

    k0: float
    k1: float
    k2: float
    _: KW_ONLY
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
    _: KW_ONLY
    mm: float


# Handbook values, rounded. Pastry is baked and dry, crumb is pressed with butter.
SOLIDS: dict[str, Solid] = {
    "porcelain": Solid(1.5, 2400, 900, mm=4.5),
    "stoneware": Solid(1.4, 2300, 900, mm=5.5),
    "glass": Solid(1.05, 2230, 830, mm=4.5),
    "steel": Solid(16.0, 7900, 500, mm=0.7),
    "tin": Solid(50.0, 7850, 470, mm=0.5),
    "aluminium": Solid(200.0, 2700, 900, mm=0.9),
    "foil": Solid(200.0, 2700, 900, mm=0.1),
    "cast_iron": Solid(52.0, 7200, 460, mm=4.0),
    "copper": Solid(390.0, 8900, 385, mm=1.5),
    "silicone": Solid(0.25, 1150, 1400, mm=1.5),
    "plastic": Solid(0.25, 950, 1900, mm=1.5),
    "paper": Solid(0.12, 800, 1400, mm=0.5),
    "pastry": Solid(0.15, 560, 1900, mm=6.0),
    "crumb": Solid(0.16, 750, 1800, mm=7.0),
}


def solid(material: str) -> Solid:
    """A wall by the key of its material; porcelain where nobody said."""
    return SOLIDS[material or "porcelain"]


def food(mix: Mix) -> Food:
    """A mix as heat sees it: volumes conduct side by side, heat capacities add by mass.

    Its density is the mix's own, so that it fills what the fit says it fills; a mix without mass is
    taken as water. Source: Choi & Okos 1986.
    """
    tight = food_laws.density_kg_m3(mix.parts_g)
    rho = 1000 * mix.mass_g / mix.volume_ml if mix.mass_g else tight
    # Air folded in conducts nothing to speak of.
    solidity = min(1.0, rho / tight)
    k0, k1, k2 = (k * solidity for k in food_laws.conductivity_w_mk(mix.parts_g))
    return Food(k0, k1, k2, rho=rho, cp=1000 * mix.heat_capacity_j_per_gk)
