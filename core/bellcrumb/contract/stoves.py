"""The stove at the front door: ladders and pots."""

from dataclasses import replace

from bellcrumb import shapes
from bellcrumb.asked.lines import mix_asked
from bellcrumb.contract.sugars import watts
from bellcrumb.errors import CraftError
from bellcrumb.heat.pot import Cream, heat_to, pot_for, scorch_band
from bellcrumb.stove.plan import thickens_c
from bellcrumb.stove.temper import Ladder, temper
from bellcrumb.stove.thickening import Thickener, signs_of
from bellcrumb.texture.endpoint import endpoint
from bellcrumb.texture.families import family, standings
from bellcrumb.words import say


def temper_ladder(given: shapes.TemperIn) -> Ladder:
    """The temper ladder of a hot mix and an egg mix. Raises CraftError."""
    hot, said_hot = mix_asked(given.hot, "hot.")
    eggs, said_eggs = mix_asked(given.eggs, "eggs.")
    ladder = temper(
        hot,
        90.0 if given.hot.temp_c is None else given.hot.temp_c,
        eggs,
        20.0 if given.eggs.temp_c is None else given.eggs.temp_c,
        given.ladle_ml,
        given.school,
        given.held_back_ml,
    )
    return replace(ladder, warnings=[*ladder.warnings, *said_hot, *said_eggs])


def pot(given: shapes.PotIn) -> shapes.PotOut:
    """Heat a mix on a ring to a target. Raises CraftError."""
    mix, warnings = mix_asked(given, "")
    near = [s for s in standings(mix) if s.family.on_the_stove]
    fam = family(given.family) if given.family else near[0].family
    stop = endpoint(mix, fam, given.altitude_m)
    cream = Cream.of(mix, thickens_c(mix, fam), given.altitude_m)
    if given.target == "boil":
        target = cream.boil_c
    elif given.target == "nappe":
        if stop.never_c is None and stop.mode != "nappe":
            warnings.append(say("contract.starch_carries_this_mix_to_the"))
        target = stop.temp_c if stop.mode == "nappe" and stop.temp_c else 83.0
    else:
        target = float(given.target)
    start = 20.0 if given.temp_c is None else given.temp_c
    if target <= start:
        raise CraftError("target", say("contract.the_mix_is_already_at_c", start=start))
    if target > cream.boil_c + 0.05:
        raise CraftError("target", say("contract.this_mix_boils_at_c_and", boil_c=cream.boil_c))
    power = watts(given.ring)
    thick = Thickener.of(mix, fam)
    run = heat_to(
        cream,
        pot_for(mix.volume_ml),
        "gas",
        power,
        start,
        target,
        given.hold_s,
        given.stirring,
        lid=given.lid,
    )
    if run.reaches_s is None:
        warnings.append(say("contract.this_heat_does_not_bring_it", target=target))
    if stop.never_c is not None and target >= stop.never_c:
        warnings.append(say("contract.the_egg_curdles_at_c", never_c=stop.never_c))
    return shapes.PotOut(
        curve=[shapes.CurvePoint(t_s=t, temp_c=c) for t, c in run.curve],
        thickens_s=run.thickens_s,
        reaches_s=run.reaches_s,
        target_c=target,
        overshoot_k=run.overshoot_k,
        scorch=scorch_band(run.wall_excess_k),
        evaporated_g=run.evaporated_g,
        stir_from_s=next((t for t, c in run.curve if c >= cream.thickens_c - 10), None),
        signs=[
            shapes.SignOut(t_s=t, temp_c=c, sign=sign)
            for t, c, sign in signs_of(thick, run.curve, cream.boil_c)
        ],
        warnings=warnings,
    )
