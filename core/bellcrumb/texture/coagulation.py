"""Where a mix's egg starts to set, is best, and curdles."""

from dataclasses import dataclass

from bellcrumb.laws import egg
from bellcrumb.laws.egg import WHITE_PROTEIN, YOLK_PROTEIN
from bellcrumb.laws.starch import PROTECTS_EGG_G, pasting
from bellcrumb.mix.composition import Mix
from bellcrumb.texture.families import Family
from bellcrumb.texture.how_set import ramp

# From how much raw starch on (as corn, % of the mix) a bake waits for it to begin to swell, and not
# for its egg alone: a batter of flour, a lemon square, a quark cake of pudding powder. A spoonful
# of flour in a batter of cream cheese decides nothing. Our estimates.
_STARCH_DECIDES_PCT = (1.2, 2.6)
# A quark or ricotta cake is called done at cores of 74 to 80 degC, a little before its starch
# swells: the curd around it is firm by then. Our estimate.
_OF_CHEESE_C, _BATTER_OF_CHEESE = 76.0, 0.25


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


def _waits_for_starch_c(mix: Mix, ideal_c: float) -> float:
    """Where a bake is best whose egg is best at ``ideal_c``, with its raw starch, degC."""
    decides = ramp(100 * mix.corn_equivalent_g / mix.mass_g, *_STARCH_DECIDES_PCT)
    if mix.grams_of("fresh_cheese") >= _BATTER_OF_CHEESE * mix.mass_g:
        swells_c = _OF_CHEESE_C
    else:
        swells_c = pasting(mix.main_starch, mix.sugar_pct_of_water_phase).from_c
    return ideal_c + decides * max(0.0, swells_c - ideal_c)


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
        if family.texture_mode != "boiled_baked":
            ideal = _waits_for_starch_c(mix, ideal)
    curdle = ideal + (egg.STIRRED_CURDLES_K if stirred else egg.STILL_CURDLES_K)
    return Coagulation(setting - egg.BEGINS_K, ideal, None if protected and stirred else curdle)
