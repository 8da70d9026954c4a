"""What food is to heat, from its parts: heat capacity, conductivity, density.

Parts are grams by name: water, protein, fat, sugars, starch, other_carb, ash, alcohol.
"""

from collections.abc import Mapping

# Polynomials in T (degC): constant, linear, square. Source: Choi & Okos 1986 as reprinted in the
# ASHRAE Refrigeration Handbook; of the two polynomials for water's heat capacity in print the one
# that fits real water. Conductivity in W/mK, density in kg/m3, heat capacity in kJ/kgK. Alcohol is
# a trace where there is any: it conducts like a carbohydrate, and its heat capacity is pure
# ethanol's (CRC handbook).
_CLASSES = ("water", "protein", "fat", "carbohydrate", "ash", "alcohol")
_CONDUCTS = {
    "water": (0.57109, 1.7625e-3, -6.7036e-6),
    "protein": (0.17881, 1.1958e-3, -2.7178e-6),
    "fat": (0.18071, -2.7604e-4, -1.7749e-7),
    "carbohydrate": (0.20141, 1.3874e-3, -4.3312e-6),
    "ash": (0.32962, 1.4011e-3, -2.9069e-6),
    "alcohol": (0.20141, 1.3874e-3, -4.3312e-6),
}
_DENSE = {
    "water": (997.18, 3.1439e-3, -3.7574e-3),
    "protein": (1329.9, -0.5184, 0.0),
    "fat": (925.59, -0.41757, 0.0),
    "carbohydrate": (1599.1, -0.31046, 0.0),
    "ash": (2423.8, -0.28063, 0.0),
    "alcohol": (806.0, -0.85, 0.0),
}
_HOLDS = {
    "water": (4.1762, -9.0864e-5, 5.4731e-6),
    "protein": (2.0082, 1.2089e-3, -1.3129e-6),
    "fat": (1.9842, 1.4733e-3, -4.8008e-6),
    "carbohydrate": (1.5488, 1.9625e-3, -5.9399e-6),
    "ash": (1.0926, 1.8896e-3, -3.6817e-6),
    "alcohol": (2.6, 0.0, 0.0),
}
USUAL_C = 50.0  # where a custard spends its cook, between the refrigerator and its boil

Poly = tuple[float, float, float]


def classes_g(parts_g: Mapping[str, float]) -> dict[str, float]:
    """Parts gathered into what the equations know; one gram of water for nothing at all.

    >>> classes_g({"water": 2.0, "sugars": 1.0, "starch": 1.0})["carbohydrate"]
    2.0
    """
    grams = {name: parts_g.get(name, 0.0) for name in ("water", "protein", "fat", "ash", "alcohol")}
    grams["carbohydrate"] = sum(parts_g.get(p, 0.0) for p in ("sugars", "starch", "other_carb"))
    if not sum(grams.values()):
        grams["water"] = 1.0
    return grams


def at(poly: Poly, temp_c: float) -> float:
    """A quadratic at a temperature.

    >>> at((1.0, 2.0, 3.0), 2.0)
    17.0
    """
    return poly[0] + poly[1] * temp_c + poly[2] * temp_c * temp_c


def heat_capacity_j_per_gk(parts_g: Mapping[str, float], temp_c: float = USUAL_C) -> float:
    """Specific heat, J/(g K): the sum of the parts' own by mass. Choi & Okos 1986; -40 to 150 degC.

    >>> round(heat_capacity_j_per_gk({"water": 87.0, "fat": 4.0, "sugars": 5.0, "protein": 3.0}), 2)
    3.91
    """
    grams = classes_g(parts_g)
    return sum(grams[c] * at(_HOLDS[c], temp_c) for c in _CLASSES) / sum(grams.values())


def density_kg_m3(parts_g: Mapping[str, float], temp_c: float = USUAL_C) -> float:
    """Density without air, kg/m3: volumes of the parts add up. Choi & Okos 1986.

    >>> round(density_kg_m3({"water": 87.0, "fat": 4.0, "sugars": 5.0, "protein": 3.0}))
    1011
    """
    grams = classes_g(parts_g)
    return sum(grams.values()) / sum(grams[c] / at(_DENSE[c], temp_c) for c in _CLASSES)


def conductivity_w_mk(parts_g: Mapping[str, float]) -> Poly:
    """Conductivity as a quadratic in degC, W/(m K): parts side by side, by volume at 50 degC.

    Choi & Okos 1986. A parallel arrangement is the upper bound; within 5 % for wet food.

    >>> round(at(conductivity_w_mk({"water": 100.0}), 50.0), 3)
    0.642
    """
    grams = classes_g(parts_g)
    litres = {c: grams[c] / at(_DENSE[c], USUAL_C) for c in _CLASSES}
    volume = sum(litres.values())
    k0, k1, k2 = (sum(litres[c] / volume * _CONDUCTS[c][n] for c in _CLASSES) for n in range(3))
    return k0, k1, k2
