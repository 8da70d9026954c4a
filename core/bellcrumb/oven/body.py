"""What the body of a mix does in the oven besides conducting: it stirs itself while it is liquid,
wobbles as a jelly or as a batter, and what stands between its egg keeps it from curdling.

Everything is read from what is in the mix, never from the name of its family, so that a spoonful
more of anything moves the minutes a little and not by a step.
"""

from bellcrumb.laws.egg import BELOW_IDEAL_K
from bellcrumb.mix.composition import Mix
from bellcrumb.texture.how_set import PULPS, ramp

# How many times better than still a liquid custard carries heat by going round: thin milk custards
# most, cream with its fat less, a puree or a boiled starch cream not at all. A batter of cheese is
# stiff in the bowl and runs like milk once its fat melts. Fitted, medium.
STIRS, FAT_STILLS = 2.4, 1.2
_STIRS_MM, _STIRS_POWER = 35.0, 0.75  # at that depth; how it grows with it
# A milk custard pulled at its wobble is a jelly in the middle already, where a batter of cheese,
# puree or starch is soft: so much hotter is it when it looks the same. Fitted, medium.
JELLY_K = 1.0
# Starch and puree between the egg keep it from curdling: some kelvins more. Our estimate.
BETWEEN_TOLERATES_K = 4.0
# Of its water that a rich mix keeps under the fat at its top, be it cream or cream cheese; quark
# and ricotta are too lean for it. Share, and the fat (% of the mix) it needs. Fitted, low.
FAT_FILM, _FAT_FILMS_PCT = 0.6, (12.0, 24.0)


def _pct(mix: Mix, grams: float) -> float:
    return 100 * grams / mix.mass_g if mix.mass_g else 0.0


def _between(mix: Mix) -> float:
    """How much puree or boiled starch stands between the egg, 0 to 1."""
    return max(
        ramp(_pct(mix, mix.grams_of_key(*PULPS)), 5, 25),
        ramp(_pct(mix, mix.corn_equivalent_g), 1.5, 3.5),
    )


def _cheese(mix: Mix) -> float:
    return ramp(_pct(mix, mix.grams_of("fresh_cheese")), 5, 25)


def stirs(mix: Mix, depth_mm: float) -> float:
    """How many times better than still a mix that stands so deep carries heat while it is liquid.

    Free convection: the Nusselt number of a layer grows with the power 3/4 of its depth (Churchill
    & Chu 1975, laminar); what is too thick to go round stays at 1.
    """
    fat = ramp(_pct(mix, mix.parts_g["fat"]), 5, 25) * (1 - _cheese(mix))
    more = (STIRS - 1 - FAT_STILLS * fat) * (1 - _between(mix))
    return 1 + more * float((depth_mm / _STIRS_MM) ** _STIRS_POWER)


def egg_alone(mix: Mix) -> float:
    """How far a mix is a plain custard of milk and egg, 0 to 1: cheese, puree, starch, condensed
    milk and acid make it something else."""
    other = max(
        ramp(_pct(mix, mix.corn_equivalent_g), 0.5, 2.5),
        _cheese(mix),
        ramp(_pct(mix, mix.grams_of_key(*PULPS)), 5, 25),
        ramp(_pct(mix, mix.grams_of_key("condensed_milk")), 10, 30),
        ramp(6.4 - mix.ph, 0.0, 0.6),
    )
    return 1 - other


def wobbles_at_c(mix: Mix, ideal_c: float) -> float:
    """Where a mix stops wobbling on an ordinary climb, degC; ``ideal_c`` is where it is best."""
    return ideal_c - BELOW_IDEAL_K + JELLY_K * egg_alone(mix)


def free_water(mix: Mix, *, boiled: bool) -> float:
    """Share of a mix that is water its surface can give off: a boiled cream holds half of it, a
    rich mix most of it under a film of fat."""
    held = 0.5 if boiled else FAT_FILM * ramp(_pct(mix, mix.parts_g["fat"]), *_FAT_FILMS_PCT)
    return mix.share("water") * (1 - held)


def tolerates_k(mix: Mix) -> float:
    """How much hotter than egg alone a mix may get before it weeps, K."""
    return BETWEEN_TOLERATES_K * _between(mix)
