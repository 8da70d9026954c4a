"""Sugar work, foams, finishing and pasteurisation at the front door."""

import math
from dataclasses import replace
from itertools import pairwise

from bellcrumb import shapes
from bellcrumb.asked.lines import mix_asked
from bellcrumb.asked.vessels import vessel_of
from bellcrumb.errors import CraftError
from bellcrumb.heat.pot import MEDIUM_GAS, SETTINGS, pot_for
from bellcrumb.laws.water import boils_c
from bellcrumb.pantry.pantry import shipped
from bellcrumb.safety.pasteurise import Lethality, lethality
from bellcrumb.stove import syrup as sugar
from bellcrumb.stove.finish import additions
from bellcrumb.stove.meringue import Meringue, meringue
from bellcrumb.stove.whip import Whipped, topping_g, whip
from bellcrumb.texture.families import family, standings
from bellcrumb.vessels.geometry import Vessel
from bellcrumb.words import say

CRYSTALS = [
    say("contract.brush_the_wall_with_water_or"),
    say("contract.do_not_stir_once_it_boils"),
    say("contract.if_it_grains_water_to_it"),
]
_MOST_POINTS = 400


def watts(ring: "str | float") -> float:
    """What a setting of the medium gas ring, or watts as given, bring to the pot."""
    return MEDIUM_GAS.reaches_pot_w(SETTINGS[ring]) if isinstance(ring, str) else float(ring)


def syrup(given: shapes.SyrupIn, vessels: dict[str, Vessel] | None = None) -> shapes.SyrupOut:
    """Cook sugar and water; ``vessels`` adds a kitchen's own to line.

    Raises CraftError unless a target or a stage is given, not both.
    """
    if (given.target_c is None) == (given.stage is None):
        raise CraftError("target_c", say("contract.give_a_temperature_or_a_stage"))
    target = given.target_c
    if target is None:
        assert given.stage is not None
        low = sugar.STAGES[given.stage]
        target = low - (100 - boils_c(given.altitude_m) if low < 150 else 0.0)
    power = watts(given.ring)
    run = sugar.cook_syrup(
        given.sugar_g, given.water_g, target, power, given.altitude_m, given.start_c
    )
    pot = pot_for(given.sugar_g / 1.59 + given.water_g)
    pan = sugar.Pan(
        given.sugar_g, run.water_left_g, target, diameter_mm=pot.diameter_mm, pan_g=pot.mass_g
    )
    stride = max(1, len(run.curve) // _MOST_POINTS)
    points = [*run.curve[::stride], run.curve[-1]]
    return shapes.SyrupOut(
        **vars(run) | {"curve": points},
        stage_sign=sugar.SIGNS[run.stage] if run.stage else say("contract.still_a_thin_syrup"),
        colour_word=sugar.colour_word(run.colour),
        stop_bath_s=sugar.seconds_in_cold_water(pan),
        pour_window_s=sugar.pour_window_s(pan),
        lining=_lining(given, vessels),
        crystals=CRYSTALS,
    )


def _lining(given: shapes.SyrupIn, vessels: dict[str, Vessel] | None) -> shapes.LiningOut | None:
    if given.lining_vessel is None:
        return None
    length, width = vessel_of(given.lining_vessel, vessels, "lining_vessel").across(0.0)
    round_share = math.pi / 4 if abs(length - width) < 1e-6 else 1.0
    each = sugar.lining_g(length * width * round_share, given.lining_mm)
    total = each * given.lining_count
    return shapes.LiningOut(
        lining_mm=given.lining_mm,
        each_g=each,
        total_g=total,
        sugar_g=total / sugar.CARAMEL_YIELD,
    )


def foam(given: shapes.MeringueIn) -> Meringue:
    """Judge a meringue. Raises CraftError."""
    return meringue(
        given.kind,
        given.whites_g,
        given.sugar_g,
        water_g=given.water_g,
        syrup_c=given.syrup_c,
        power_w=watts(given.ring),
        swiss_c=given.swiss_c,
        whites_c=given.whites_c,
        altitude_m=given.altitude_m,
        acid=given.acid,
    )


def whipped(given: shapes.WhipIn) -> Whipped:
    """Judge a cream. Raises CraftError for one that is not known."""
    fat = given.fat_pct
    if fat is None:
        match = shipped().find(given.cream)
        if not match:
            raise CraftError("cream", say("contract.is_not_in_the_pantry_give", cream=given.cream))
        fat = match.ingredient.fat_pct
    found = whip(
        given.cream_g,
        fat,
        given.use,
        cream_c=given.cream_c,
        room_c=given.room_c,
        icing_sugar_g=given.icing_sugar_g,
        sugar_g=given.sugar_g,
        stabiliser_pct=given.stabiliser_pct,
    )
    topping = None
    warnings = list(found.warnings)
    if given.pie_diameter_mm:
        topping = topping_g(given.pie_diameter_mm, given.thickness_mm)
        if given.thickness_mm > 40:
            warnings.append(say("contract.more_than_four_centimetres_of_cream"))
        if topping > found.mass_g:
            warnings.append(
                say(
                    "contract.the_pie_takes_g_g_short",
                    topping=topping,
                    topping_2=topping - found.mass_g,
                )
            )
    return replace(found, warnings=warnings, topping_g=topping)


def pasteurised(given: shapes.PasteuriseIn) -> Lethality:
    """Judge a curve. Raises CraftError for readings out of order or none."""
    if not given.readings:
        raise CraftError("readings", say("contract.there_is_no_reading_to_judge"))
    for n, (a, b) in enumerate(pairwise(given.readings), start=1):
        if b.t_s < a.t_s:
            raise CraftError(f"readings[{n}].t_s", say("contract.readings_come_in_the_order_of"))
    return lethality(given.product, [(r.t_s, r.temp_c) for r in given.readings])


def finished(given: shapes.FinishIn) -> shapes.FinishOut:
    """When to put what in. Raises CraftError."""
    mix, said = mix_asked(given.mix, "mix.")
    extras, said_too = mix_asked(given.extras, "extras.")
    fam = family(given.family) if given.family else standings(mix)[0].family
    mix_c = 98.0 if given.mix.temp_c is None else given.mix.temp_c
    extras_c = 18.0 if given.extras.temp_c is None else given.extras.temp_c
    rows = additions(mix, extras, fam, mix_c, extras_c)
    return shapes.FinishOut(
        additions=rows,
        warnings=said + said_too,
    )
