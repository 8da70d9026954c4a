"""Stirred on the stove beside custards: a panade, a roux, and juice in condensed milk."""

from bellcrumb.heat.pot import Cream as PotCream
from bellcrumb.heat.pot import Ring, heat_to, pot_for
from bellcrumb.laws.water import AT_BOIL_K, boils_c
from bellcrumb.mix.composition import Mix
from bellcrumb.stove.steps import checks, step
from bellcrumb.stove.work import Pretence, Work, liquid_run
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
        step("choux.ready"),
        step("choux.heat", low_c=boil - AT_BOIL_K, high_c=boil + 2),
        step("choux.dry", low_c=CHOUX_DRY_C[0], high_c=CHOUX_DRY_C[1]),
        step("choux.eggs"),
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
        checks=[say("stove.flour_sifted"), say("stove.eggs_beaten"), say("stove.oven_hot")],
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
        step("citrus_mix.ready"),
        step("citrus_mix.mix"),
        step("citrus_mix.bake"),
        step("citrus_mix.cool"),
    ]
    return Work(
        "citrus_mix",
        say("stove.citrus_and_condensed_milk"),
        steps,
        checks=[say("stove.zest_taken_then_the_juice_squeezed")],
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
        step("roux.ready"),
        step("roux.roux"),
        step(
            "roux.cook",
            low_c=cream.boil_c - AT_BOIL_K,
            high_c=cream.boil_c + 1,
            hold_s=max(60, stop.hold_s),
            thickens_c=84.0,
        ),
        step("roux.sieve"),
        step("roux.bake"),
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
        checks=checks(mix, family),
        curve=run.curve,
        curve_step="cook",
        reaches_s=run.reaches_s,
        pot=thickener,
        bowl=rest,
        finish=Mix(()),
        scenes=[scene],
    )
