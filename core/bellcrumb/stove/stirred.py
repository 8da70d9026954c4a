"""Stirred on the stove beside custards: a panade, a roux, and juice in condensed milk."""

from bellcrumb.heat.pot import Cream as PotCream
from bellcrumb.heat.pot import Ring, heat_to, pot_for
from bellcrumb.laws.water import AT_BOIL_K, boils_c
from bellcrumb.mix.composition import Mix
from bellcrumb.stove.steps import Step, checks
from bellcrumb.stove.work import Pretence, Work, liquid_run, ready
from bellcrumb.texture.endpoint import endpoint
from bellcrumb.texture.families import Family
from bellcrumb.words import say

CHOUX_DRY_C = (74.0, 82.0)


def choux(mix: Mix, ring: Ring, setting: float, altitude_m: float) -> Work:
    """A panade dried in the pot, eggs beaten in until it falls from the spoon."""
    eggs = Mix(tuple(p for p in mix.portions if p.ingredient.category == "egg"))
    flour = Mix(tuple(p for p in mix.portions if p.ingredient.category == "starch"))
    pot = Mix(tuple(p for p in mix.portions if p not in eggs.portions + flour.portions))
    boil = boils_c(altitude_m)
    run = liquid_run(pot, ring, setting, boil - 0.5, altitude_m)
    steps = [
        ready(say("stove.flour_sifted_onto_paper_eggs_beaten"), say("stove.flour_in_parts_lumps")),
        Step(
            "heat",
            "heat",
            say("stove.bring_liquid_fat_and_salt_to"),
            say("stove.the_fat_is_melted_as_it"),
            say("stove.boiling_on_the_water_leaves"),
            low_c=boil - AT_BOIL_K,
            high_c=boil + 2,
            there=say("stove.off_the_heat_all_the_flour"),
        ),
        Step(
            "dry",
            "cook",
            say("stove.back_on_the_heat_dry_the"),
            say("stove.it_leaves_the_pan_in_one"),
            say("stove.too_wet_it_takes_too_little"),
            low_c=CHOUX_DRY_C[0],
            high_c=CHOUX_DRY_C[1],
            never_c=90.0,
            there=say("stove.dry_into_a_cold_bowl"),
            over=say("stove.too_dry"),
        ),
        Step(
            "eggs",
            "finish",
            say("stove.cool_to_under_60_c_then"),
            say("stove.it_falls_from_the_spoon_in"),
            say("stove.all_the_egg_at_once_it"),
            hold_s=180,
        ),
    ]
    scene = Pretence(
        "heat",
        "pot",
        from_c=20.0,
        power_w=ring.reaches_pot_w(setting),
        mass_g=pot.mass_g,
        cp_j_per_gk=pot.heat_capacity_j_per_gk,
    )
    return Work(
        "choux",
        say("stove.choux_panade"),
        steps,
        [say("stove.flour_sifted"), say("stove.eggs_beaten"), say("stove.oven_hot")],
        curve=run.curve,
        curve_step="heat",
        reaches_s=run.reaches_s,
        pot=pot,
        bowl=flour,
        finish=eggs,
        scenes=[scene],
    )


def citrus(mix: Mix) -> Work:
    """Juice into condensed milk and yolks: it sets by acid, without heat."""
    juice = Mix(tuple(p for p in mix.portions if p.ingredient.category == "fruit"))
    rest = Mix(tuple(p for p in mix.portions if p not in juice.portions))
    milk = mix.grams_of_key("condensed_milk")
    warnings = []
    if juice.mass_g < 0.2 * milk:
        warnings.append(
            say("stove.only_of_juice_to_condensed_milk", mass_g=100 * juice.mass_g / milk)
        )
    steps = [
        ready(
            say("stove.zest_taken_then_the_juice_squeezed_2"),
            say("stove.bare_metal_it_tastes_of_it"),
        ),
        Step(
            "mix",
            "finish",
            say("stove.juice_in_slowly_whisking_it_thickens"),
            say("stove.it_mounds_on_the_whisk_without"),
            say("stove.all_at_once_it_curdles_in"),
            hold_s=90,
        ),
        Step(
            "bake",
            "finish",
            say("stove.into_its_shell_about_ten_minutes"),
            say("stove.the_edge_set_the_top_no"),
            say("stove.longer_it_cracks"),
            caution=say("stove.raw_yolk_until_it_is_baked"),
        ),
        Step(
            "cool",
            "cool",
            say("stove.cool_then_chill_for_hours"),
            say("stove.cuts_clean"),
            say("stove.cutting_warm"),
            high_c=21.0,
        ),
    ]
    return Work(
        "citrus_mix",
        say("stove.citrus_and_condensed_milk"),
        steps,
        [say("stove.zest_taken_then_the_juice_squeezed")],
        curve=[],
        curve_step="mix",
        reaches_s=None,
        pot=Mix(()),
        bowl=rest,
        finish=juice,
        scenes=[],
        warnings=warnings,
    )


def roux(mix: Mix, family: Family, ring: Ring, setting: float, altitude_m: float) -> Work:
    """Flour cooked in butter, the liquid in by and by, boiled and held."""
    stop = endpoint(mix, family, altitude_m)
    thickener = Mix(tuple(p for p in mix.portions if p.ingredient.category in ("fat", "starch")))
    rest = Mix(tuple(p for p in mix.portions if p not in thickener.portions))
    cream = PotCream.of(mix, 84.0, altitude_m)
    run = heat_to(cream, pot_for(mix.volume_ml), ring.fuel, ring.reaches_pot_w(setting), 25.0,
                  cream.boil_c, stop.hold_s, "whisk", loss_w_m2k=ring.loss_w_m2k)  # fmt: skip
    steps = [
        ready(
            say("stove.flour_sifted_dairy_and_sugar_in"),
            say("stove.flour_browned_it_thickens_less"),
        ),
        Step(
            "roux",
            "finish",
            say("stove.butter_and_flour_together_two_minutes"),
            say("stove.it_foams_and_smells_of_biscuit"),
            say("stove.browning_it"),
            hold_s=120,
        ),
        Step(
            "cook",
            "cook",
            say("stove.dairy_in_by_parts_whisking_to"),
            say("stove.smooth_after_every_part_then_slow"),
            say("stove.all_at_once_lumps"),
            low_c=cream.boil_c - AT_BOIL_K,
            high_c=cream.boil_c + 1,
            hold_s=max(60, stop.hold_s),
            thickens_c=84.0,
        ),
        Step(
            "sieve",
            "finish",
            say("stove.through_a_sieve_into_the_baked"),
            say("stove.no_lump_left"),
            say("stove.a_cold_shell_with_hot_cream"),
        ),
        Step(
            "bake",
            "finish",
            say("stove.bake_again_until_only_just_set"),
            say("stove.it_trembles_like_jelly"),
            say("stove.longer_it_weeps"),
        ),
    ]
    scene = Pretence(
        "cook",
        "pot",
        from_c=25.0,
        power_w=ring.reaches_pot_w(setting),
        mass_g=mix.mass_g,
        cp_j_per_gk=mix.heat_capacity_j_per_gk,
    )
    return Work(
        "roux",
        family.name,
        steps,
        checks(mix, family),
        curve=run.curve,
        curve_step="cook",
        reaches_s=run.reaches_s,
        pot=thickener,
        bowl=rest,
        finish=Mix(()),
        scenes=[scene],
    )
