"""Guides of the glazes with chocolate: ganache, and the mirror that gelatine holds."""

from bellcrumb.errors import CraftError
from bellcrumb.heat.pot import Ring
from bellcrumb.laws.water import AT_BOIL_K, boils_c
from bellcrumb.mix.composition import Mix
from bellcrumb.stove.steps import Step, step
from bellcrumb.stove.syrup import cook_syrup
from bellcrumb.stove.work import Pretence, Work, liquid_run
from bellcrumb.words import say

# What a mirror's syrup is cooked to: the sugar is dissolved, the water of a gel is left in it.
_SYRUP_C = 103.0
# A mirror pours a little warmer the more cocoa butter sets in it: white, milk, dark. Source: craft.
_POUR_C = {"choc_white": (30.0, 32.0), "choc_milk": (31.0, 33.0)}
_POUR_DARK_C = (33.0, 35.0)
_DEPTHS_MM = (1.0, 2.0, 3.0)
_BEYOND_BOIL_C = 2.0
# Of what is poured, so much stays on; the rest is caught and used again. Source: trade, 40-60 %.
_STAYS = 0.5


def _poured(mix: Mix, warmth: str) -> Step:
    """How far it goes, by how deep it lies, and what the warmth does to that."""
    covers = ", ".join(
        say("stove.cm2_at_mm", stays=round(_STAYS * mix.volume_ml / mm, -1) * 10, mm=mm)
        for mm in _DEPTHS_MM
    )
    return step("glaze.pour", values={"covers": covers, "warmth": warmth})


def ganache(mix: Mix, ring: Ring, setting: float, altitude_m: float) -> Work:
    """Chocolate under hot cream. Raises CraftError where nothing is poured over it."""
    poured = ("cream", "milk", "basic", "sugar")
    liquid = Mix(tuple(p for p in mix.portions if p.ingredient.category in poured))
    if liquid.mass_g <= 0:
        raise CraftError("lines", say("stove.there_is_no_cream_to_pour"))
    chocolate = Mix(tuple(p for p in mix.portions if p.ingredient.category == "chocolate"))
    rest = Mix(tuple(p for p in mix.portions if p not in liquid.portions + chocolate.portions))
    run = liquid_run(liquid, ring, setting, 85.0, altitude_m)
    warnings = []
    if liquid.parts_g["water"] < 0.35 * chocolate.parts_g["fat"]:
        warnings.append(say("stove.little_water_for_so_much_fat"))
    steps = [
        step("ganache.ready"),
        step("ganache.heat"),
        step("ganache.emulsify"),
        step("ganache.cool"),
        _poured(mix, say("stove.a_film_of_1_mm_at")),
    ]
    scene = Pretence(
        "heat",
        "pot",
        from_c=6.0,
        power_w=ring.reaches_pot_w(setting),
        mass_g=liquid.mass_g,
        cp_j_per_gk=liquid.heat_capacity_j_per_gk,
    )
    return Work(
        "ganache",
        say("stove.ganache_glaze"),
        steps,
        checks=[say("stove.chocolate_chopped_fine"), say("stove.rack_over_a_tray")],
        curve=run.curve,
        curve_step="heat",
        reaches_s=run.reaches_s,
        pot=liquid,
        bowl=chocolate,
        finish=rest,
        scenes=[scene],
        warnings=warnings,
    )


def mirror(mix: Mix, ring: Ring, setting: float, altitude_m: float) -> Work:
    """A syrup (or cream and cocoa) boiled, on chocolate, held by gelatine, poured when it cools.
    Raises CraftError where there is nothing to boil."""
    dairy = ("cream", "milk")
    bowl = Mix(tuple(p for p in mix.portions if p.ingredient.key == "condensed_milk"
                     or (p.ingredient.category == "chocolate"
                         and not p.ingredient.key.startswith("cocoa_"))))  # fmt: skip
    boiled = ("basic", "sugar", "chocolate", *dairy)
    pot = Mix(tuple(p for p in mix.portions
                    if p.ingredient.category in boiled and p not in bowl.portions))  # fmt: skip
    rest = Mix(tuple(p for p in mix.portions if p not in pot.portions + bowl.portions))
    water = pot.parts_g["water"]
    if pot.mass_g <= 0 or water <= 0:
        raise CraftError("lines", say("stove.there_is_no_water_or_cream"))
    plain = not pot.grams_of("chocolate", *dairy) and pot.added_sugar_g > 0
    power = ring.reaches_pot_w(setting)
    boil = boils_c(altitude_m)
    if plain:
        run = cook_syrup(pot.added_sugar_g, water, boil + _SYRUP_C - 100, power, altitude_m)
        curve, takes = [(p.t_s, p.temp_c) for p in run.curve], run.time_s
        scene = Pretence(
            "cook", "syrup", from_c=20.0, power_w=power, sugar_g=pot.added_sugar_g, water_g=water
        )
        low, high = boil + _SYRUP_C - 101, boil + _SYRUP_C - 98
    else:
        heated = liquid_run(pot, ring, setting, boil, altitude_m)
        curve, takes = heated.curve, heated.reaches_s
        scene = Pretence("cook", "pot", from_c=6.0, power_w=power, mass_g=pot.mass_g,
                         cp_j_per_gk=pot.heat_capacity_j_per_gk)  # fmt: skip
        low, high = boil - AT_BOIL_K, boil + _BEYOND_BOIL_C
    whites = [_POUR_C[p.ingredient.key] for p in bowl.portions if p.ingredient.key in _POUR_C]
    pour_low, pour_high = whites[0] if whites else _POUR_DARK_C
    steps = [
        step("mirror.ready"),
        step(
            "mirror.cook.syrup" if plain else "mirror.cook",
            low_c=low,
            high_c=high,
            values={"boil": boil + _SYRUP_C - 100},
        ),
        step("mirror.gelatine"),
        step("mirror.blend.chocolate" if bowl.mass_g else "mirror.blend"),
        step(
            "mirror.cool", high_c=pour_high, values={"pour_low": pour_low, "pour_high": pour_high}
        ),
        _poured(mix, say("stove.warmer_it_lies_thinner_cooler_it")),
    ]
    checks = [
        say("stove.gelatine_soaking_in_cold_water"),
        say("stove.rack_over_a_tray"),
        say("stove.the_piece_frozen_hard"),
    ]
    checks += [say("stove.chocolate_chopped_fine")] if bowl.mass_g else []
    return Work(
        "mirror",
        say("stove.mirror_glaze"),
        steps,
        checks=checks,
        curve=curve,
        curve_step="cook",
        reaches_s=takes,
        pot=pot,
        bowl=bowl,
        finish=rest,
        scenes=[scene],
    )
