"""Where a mix's egg starts to set, is best, and curdles."""

from dataclasses import dataclass

from bellcrumb.laws import egg
from bellcrumb.laws.egg import WHITE_PROTEIN, YOLK_PROTEIN
from bellcrumb.laws.starch import pasting, protects_egg_g
from bellcrumb.mix.composition import Mix
from bellcrumb.texture.families import Family
from bellcrumb.texture.how_set import ramp

# From how much raw starch on (as corn, % of the mix) a bake waits for it to begin to swell, and not
# for its egg alone: a lemon square, a quark cake of pudding powder. A spoonful of flour in a batter
# of cream cheese decides nothing. Our estimates.
_STARCH_DECIDES_PCT = (1.2, 2.6)
# The more of it, the further it has to swell: a batter is done as a cake is. Our estimate.
_STARCH_SWELLS_PCT = (3.0, 10.0)
# It waits no longer than this, K: lemon squares come out at 77 to 82 degC, though so much sugar
# puts their flour off to 90. Our estimate, from the trade's cores.
_WAITS_K = 10.0
# A quark or ricotta cake is called done at cores of 74 to 80 degC, a little before its starch
# swells: the curd around it is firm by then. Our estimate.
_OF_CHEESE_C, _BATTER_OF_CHEESE = 76.0, 0.25
# Curd with fat around it firms as its fat does, and such a batter is pulled soft: so much of its
# protein counts, g for each g of fat (cream cheese: all of it, quark: hardly any). From the
# composition of cream cheese.
_CURD_PER_FAT = 0.18


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
    rich_curd = sum(
        p.grams * min(p.ingredient.protein_pct, _CURD_PER_FAT * p.ingredient.fat_pct)
        for p in mix.portions
        if p.ingredient.category == "fresh_cheese"
    ) / max(mix.mass_g, 1e-9)
    return egg.set_temp_c(
        100 * protein / base,
        sugar_pct=mix.sugar_pct_of_water_phase,
        ph=mix.ph,
        yolk_share=yolk_protein / protein,
        rich_curd_pct=rich_curd,
    )


def starch_protects(mix: Mix, liquid_g: float) -> bool:
    """Whether the starch of a mix keeps its egg from clotting at the boil."""
    if liquid_g <= 0:
        return False
    eggs_g = mix.yolk_g + mix.whole_egg_g + mix.white_g
    per = 1000 / liquid_g
    return mix.corn_equivalent_g * per >= protects_egg_g(eggs_g * per)


def _waits_for_starch_c(mix: Mix, ideal_c: float) -> float:
    """Where a bake is best whose egg is best at ``ideal_c``, with its raw starch, degC."""
    starch_pct = 100 * mix.corn_equivalent_g / mix.mass_g
    decides = ramp(starch_pct, *_STARCH_DECIDES_PCT)
    if mix.grams_of("fresh_cheese") >= _BATTER_OF_CHEESE * mix.mass_g:
        swells_c = _OF_CHEESE_C
    else:
        swells = pasting(mix.main_starch, mix.sugar_pct_of_water_phase)
        swells_c = swells.at_c(ramp(starch_pct, *_STARCH_SWELLS_PCT))
    return ideal_c + decides * min(_WAITS_K, max(0.0, swells_c - ideal_c))


def coagulation(mix: Mix, family: Family) -> Coagulation | None:
    """Onset, ideal and curdling temperature, or None when there is no egg to set.

    Stirred creams are taken about 4.5 K past the still-set point so that they coat the spoon
    (82-84 degC for an ordinary anglaise); curdling follows about 7 K past the set point.
    """
    setting = set_temp_c(mix)
    if setting is None:
        return None
    liquid = family.liquid_g(mix)
    protected = starch_protects(mix, liquid)
    stirred = family.on_the_stove
    window = family.endpoint_c if stirred else family.set_centre_c
    ideal = setting + (egg.STIRRED_K if stirred else 0.0)
    if stirred and family.endpoint == "temperature" and window:
        ideal = min(max(ideal, window[0]), window[1])
    elif window and not stirred:
        ideal = min(max(ideal, window[0] - 1), window[1] + 1)
        if family.group == "acid_set":
            # Its acid sets it in the cold: it is only warmed, and may go on until its egg sets too.
            begins = setting - egg.BEGINS_K
            return Coagulation(begins, sum(window) / 2, begins)
        if family.texture_mode != "boiled_baked":
            ideal = _waits_for_starch_c(mix, ideal)
    curdle = ideal + (egg.STIRRED_CURDLES_K if stirred else egg.STILL_CURDLES_K)
    return Coagulation(setting - egg.BEGINS_K, ideal, None if protected and stirred else curdle)
