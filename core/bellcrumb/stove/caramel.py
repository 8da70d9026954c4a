"""Sugar cooked until it colours: to line moulds with, or let down with cream to a sauce."""

from bellcrumb.errors import CraftError
from bellcrumb.heat.pot import pot_for
from bellcrumb.mix.composition import Mix
from bellcrumb.stove.steps import Cue, Step, step
from bellcrumb.stove.syrup import (
    HOT_SUGAR,
    SLOW_FROM_C,
    SLOW_TO_C,
    Pan,
    cook_syrup,
    seconds_in_cold_water,
    stopped_in_water,
)
from bellcrumb.stove.work import Pretence, Work
from bellcrumb.words import say

_MUCH_WATER = 0.6  # g per g of sugar; caramels are begun with 0.25 to 0.4
# What lets it down: so much of it, and it is a sauce or a toffee and lines no mould.
_LET_DOWN = ("cream", "milk", "fat", "plant", "cultured", "fruit", "alcohol")
_A_SAUCE = 0.05


def sugar_and_water(mix: Mix) -> tuple[float, float]:
    """Grams of each. Raises CraftError without sugar."""
    sugar, water = mix.added_sugar_g, mix.grams_of_key("water")
    if sugar <= 0:
        raise CraftError("lines", say("stove.there_is_no_sugar_to_cook"))
    return sugar, water


def slow_cues(target_c: float) -> tuple[Cue, ...]:
    """What is said while a syrup climbs."""
    cues = [
        Cue(100.0, say("stove.boiling"), say("stove.do_not_stir_any_more_brush"), urgency="calm")
    ]
    if target_c > SLOW_TO_C:
        cues.append(
            Cue(
                SLOW_FROM_C,
                say("stove.the_slow_stretch"),
                say("stove.it_climbs_slowest_here_wait"),
                urgency="calm",
            )
        )
        cues.append(Cue(SLOW_TO_C, say("stove.soon"), say("stove.now_it_goes_faster_stay_with")))
    return tuple(cues)


def _lets_down(mix: Mix) -> Mix:
    return Mix(tuple(p for p in mix.portions if p.ingredient.category in _LET_DOWN))


def is_sauce(mix: Mix) -> bool:
    """Whether cream or butter lets the caramel down, so that it lines no mould."""
    return _lets_down(mix).mass_g > _A_SAUCE * mix.mass_g


def caramel(mix: Mix, power: float, altitude_m: float, target_c: float) -> Work:
    """The guide of a caramel, on ``power`` W in the pot, to ``target_c``. Raises CraftError."""
    sugar, water = sugar_and_water(mix)
    run = cook_syrup(sugar, water, target_c, power, altitude_m)
    let_down, sauce = _lets_down(mix), is_sauce(mix)
    pot = pot_for(sugar / 1.59 + water)
    pan = Pan(sugar, run.water_left_g, target_c, diameter_mm=pot.diameter_mm, pan_g=pot.mass_g)
    stop_s = round(max(10.0, seconds_in_cold_water(pan)))
    wet = water > 0
    cues = (
        *(
            slow_cues(target_c)
            if wet
            else (Cue(120.0, say("stove.melting"), say("stove.shake_do_not_stir"), urgency="calm"),)
        ),
        Cue(150.0, say("stove.colour_comes"), say("stove.swirl_it_goes_fast_from_here")),
        Cue(
            min(160.0, run.pull_c - 6),
            say("stove.pale"),
            say("stove.the_hot_cream_in_reach_a")
            if sauce
            else say("stove.cold_water_ready_a_moment_more"),
        ),
    )
    cook = step(
        "caramel.cook.wet" if wet else "caramel.cook",
        low_c=run.pull_c,
        high_c=target_c + 3,
        cues=cues,
        values={"run_on_k": run.run_on_k},
    )
    said = {HOT_SUGAR}
    if sauce:  # cream stops it, not a bowl of water
        said.add(stopped_in_water(run.run_on_k, run.pull_c))
    warnings = [w for w in run.warnings if w not in said]
    if water > _MUCH_WATER * sugar:
        warnings.append(say("stove.so_much_water_boils_away_for"))
    return Work(
        "caramel",
        say("stove.caramel_sauce") if sauce else say("stove.caramel"),
        [step("sauce.ready"), cook, *_let_down(let_down)]
        if sauce
        else [step("caramel.ready"), cook, *_pour(stop_s)],
        checks=[say("stove.all_of_it_weighed_there_is"), say("stove.sleeves_down")]
        if sauce
        else [
            say("stove.bowl_of_cold_water_ready"),
            say("stove.moulds_in_a_row_dry_and"),
            say("stove.sleeves_down"),
        ],
        curve=[(p.t_s, p.temp_c) for p in run.curve],
        curve_step="cook",
        reaches_s=run.time_s,
        pot=Mix(tuple(p for p in mix.portions if not sauce or p not in let_down.portions)),
        bowl=Mix(()),
        finish=let_down if sauce else Mix(()),
        scenes=[
            Pretence("cook", "syrup", from_c=20.0, power_w=power, sugar_g=sugar, water_g=water)
        ],
        warnings=warnings,
    )


def _pour(stop_s: int) -> list[Step]:
    """Into moulds, before it is too stiff."""
    return [
        step("caramel.stop", hold_s=stop_s),
        step("caramel.pour"),
        _CLEAN,
    ]


def _let_down(into: Mix) -> list[Step]:
    """To a sauce: cream first, hot, for it stops the sugar; butter and salt when it has closed."""
    wet = into.mass_g - into.grams_of("fat")
    steps = []
    if wet:
        steps += [
            step("sauce.let_down"),
            step("sauce.melt"),
        ]
    if into.grams_of("fat"):
        steps.append(step("sauce.butter"))
    cool = step("sauce.cool")
    return [*steps, cool, _CLEAN]


_CLEAN = step("caramel.clean")
