"""Where a mix's egg starts to set, is best, and curdles."""

import math
from dataclasses import dataclass

from bellcrumb.mix.composition import Mix
from bellcrumb.texture.families import Family

SPREAD_K = 3.0
# A boil is safe for the egg from this much starch per 1000 g of liquid on: 5 g per 250 ml.
# Source: McGee, On Food and Cooking; confidence high.
PROTECTING_STARCH_G = 20.0


@dataclass(frozen=True)
class Coagulation:
    """Temperatures in degC: egg begins to thicken, is best, curdles (None: starch protects it)."""

    onset_c: float
    ideal_c: float
    curdle_c: float | None


def set_temp_c(mix: Mix) -> float | None:
    """Temperature at which the egg of a mix sets when baked still, +-3 K; None without egg.

    T = 77 + 3 ln(12.5/P) + 0.15 sugar - 2 (6.6 - pH) - 6 Y - 3 ap, with P egg protein and sugar in
    % of water plus sugar, Y the yolk's share of egg protein. Source: coagulation reference,
    section b (fitted to the baked families' windows, RMS 2 K).
    """
    yolk_protein = sum(p.grams * p.ingredient.yolk_pct for p in mix.portions) * 0.1586 / 100
    white_protein = sum(p.grams * p.ingredient.white_pct for p in mix.portions) * 0.109 / 100
    protein = yolk_protein + white_protein
    base = mix.parts_g["water"] + mix.parts_g["sugars"]
    if protein <= 0 or base <= 0:
        return None
    protein_pct = 100 * protein / base
    sugar_pct = 100 * mix.parts_g["sugars"] / base
    cheese = sum(
        p.grams * p.ingredient.protein_pct * (0.3 if p.ingredient.key.startswith("ricotta") else 1)
        for p in mix.portions
        if p.ingredient.category == "fresh_cheese"
    ) / max(mix.mass_g, 1e-9)
    return (
        77
        + 3.0 * math.log(12.5 / protein_pct)
        + 0.15 * sugar_pct
        - 2 * (6.6 - min(mix.ph, 7.6))
        - 6 * yolk_protein / protein
        - 3.0 * cheese
    )


def coagulation(mix: Mix, family: Family) -> Coagulation | None:
    """Onset, ideal and curdling temperature, or None when there is no egg to set.

    Stirred creams are taken about 4.5 K past the still-set point so that they coat the spoon
    (82-84 degC for an ordinary anglaise); curdling follows about 7 K past the set point.
    """
    setting = set_temp_c(mix)
    if setting is None:
        return None
    liquid = family.liquid_g(mix)
    protected = liquid > 0 and mix.corn_equivalent_g / liquid * 1000 >= PROTECTING_STARCH_G
    stirred = family.on_the_stove
    window = family.endpoint_c if stirred else family.set_centre_c
    ideal = setting + (4.5 if stirred else 0.0)
    if stirred and family.endpoint == "temperature" and window:
        ideal = min(max(ideal, window[0]), window[1])
    elif window and not stirred:
        ideal = min(max(ideal, window[0] - 1), window[1] + 1)
    curdle = (ideal + 3.0) if stirred else (ideal + 7.0)
    return Coagulation(setting - 4, ideal, None if protected and stirred else curdle)
