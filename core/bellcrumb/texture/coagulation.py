"""Where a mix's egg starts to set, is best, and curdles."""

from dataclasses import dataclass

from bellcrumb.laws import egg
from bellcrumb.laws.egg import WHITE_PROTEIN, YOLK_PROTEIN
from bellcrumb.laws.starch import PROTECTS_EGG_G
from bellcrumb.mix.composition import Mix
from bellcrumb.texture.families import Family
from bellcrumb.texture.how_set import ramp

# A quark or ricotta cake of pudding powder is baked until its starch has swollen, a cream cheese
# one with a spoonful of flour until its egg has set. Our estimates: cores of 74 to 80 degC in the
# trade, and the starch (as corn, % of the mix) from which on.
_STARCH_SETS_C, _STARCH_DECIDES_PCT, _BATTER_OF_CHEESE = 76.0, (1.2, 2.6), 0.25


@dataclass(frozen=True)
class Coagulation:
    """Temperatures in degC: egg begins to thicken, is best, curdles (None: starch protects it)."""

    onset_c: float
    ideal_c: float
    curdle_c: float | None


def set_temp_c(mix: Mix) -> float | None:
    """Temperature at which the egg of a mix sets when baked still, +-3 K; None without egg."""
    yolk_protein = sum(p.grams * p.ingredient.yolk_pct for p in mix.portions) * YOLK_PROTEIN / 100
    white_protein = sum(p.grams * p.ingredient.white_pct for p in mix.portions)
    white_protein *= WHITE_PROTEIN / 100
    protein = yolk_protein + white_protein
    base = mix.parts_g["water"] + mix.parts_g["sugars"]
    if protein <= 0 or base <= 0:
        return None
    cheese = sum(
        p.grams * p.ingredient.protein_pct * (0.3 if p.ingredient.key.startswith("ricotta") else 1)
        for p in mix.portions
        if p.ingredient.category == "fresh_cheese"
    ) / max(mix.mass_g, 1e-9)
    return egg.set_temp_c(
        100 * protein / base,
        sugar_pct=mix.sugar_pct_of_water_phase,
        ph=mix.ph,
        yolk_share=yolk_protein / protein,
        cheese_pct=cheese,
    )


def _of_starch(mix: Mix) -> float:
    """How far raw starch, and not its egg, decides when a batter of cheese is baked: 0 to 1."""
    if mix.grams_of("fresh_cheese") < _BATTER_OF_CHEESE * mix.mass_g:
        return 0.0
    return ramp(100 * mix.corn_equivalent_g / mix.mass_g, *_STARCH_DECIDES_PCT)


def coagulation(mix: Mix, family: Family) -> Coagulation | None:
    """Onset, ideal and curdling temperature, or None when there is no egg to set.

    Stirred creams are taken about 4.5 K past the still-set point so that they coat the spoon
    (82-84 degC for an ordinary anglaise); curdling follows about 7 K past the set point.
    """
    setting = set_temp_c(mix)
    if setting is None:
        return None
    liquid = family.liquid_g(mix)
    protected = liquid > 0 and mix.corn_equivalent_g / liquid * 1000 >= PROTECTS_EGG_G
    stirred = family.on_the_stove
    window = family.endpoint_c if stirred else family.set_centre_c
    ideal = setting + (egg.STIRRED_K if stirred else 0.0)
    if stirred and family.endpoint == "temperature" and window:
        ideal = min(max(ideal, window[0]), window[1])
    elif window and not stirred:
        ideal = min(max(ideal, window[0] - 1), window[1] + 1)
        ideal += _of_starch(mix) * max(0.0, _STARCH_SETS_C - ideal)
    curdle = ideal + (egg.STIRRED_CURDLES_K if stirred else egg.STILL_CURDLES_K)
    return Coagulation(setting - egg.BEGINS_K, ideal, None if protected and stirred else curdle)
