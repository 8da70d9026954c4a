"""The plan of a cook: its steps in words, with their targets and what the pot should do."""

from dataclasses import KW_ONLY, dataclass, field

from bellcrumb.errors import CraftError
from bellcrumb.heat.pot import Cream, PotRun, Ring, Scorch, heat_to, pot_for, scorch_band
from bellcrumb.laws.starch import pasting, seen_to_thicken_c
from bellcrumb.laws.water import AT_BOIL_K, boils_c
from bellcrumb.mix.composition import Mix
from bellcrumb.stove.after import cooling, finishing, hours
from bellcrumb.stove.finish import Addition, additions, fold_window
from bellcrumb.stove.infuse import Infusion, infusion, made_up_g, told_of
from bellcrumb.stove.method import Split, split
from bellcrumb.stove.steps import Step, checks, names, step
from bellcrumb.stove.temper import Ladder, School, temper
from bellcrumb.stove.thickening import Thickener, signs_of
from bellcrumb.stove.usual import COOK_SETTING, EGGS_C, HEAT_SETTING, HOT_C, LADLE_ML, MILK_C
from bellcrumb.texture.coagulation import coagulation
from bellcrumb.texture.endpoint import Endpoint, endpoint
from bellcrumb.texture.families import COARSE, Family
from bellcrumb.words import say

# Corn starch per 1000 g of liquid from which it, not the egg, is what is seen to thicken; and how
# far past its onset egg is seen. Our estimates.
TELLS_G, EGG_SEEN_K = 8.0, 3.0
POURS_K = 3.0  # what a boiled pot has lost by the first ladle; our estimate
_FOLDED_BELOW_C = 30.0  # what goes in colder than this goes in after the sieve
_SIMMERS_K = 8.0  # how far under the boil a pot that simmers may show; our estimate
# Seconds a cook takes for one ladle, and to pour in eggs or slurry without one. Craft, estimate.
_LADLE_S, _POUR_S = 10.0, 30.0


@dataclass(frozen=True)
class Plan:
    """Everything a cook needs at the stove, frozen when the cook starts."""

    school: School
    steps: list[Step]
    split: Split
    _: KW_ONLY
    ladder: Ladder | None
    endpoint: Endpoint
    hot_c: float
    eggs_c: float
    heat_run: PotRun
    cook_run: PotRun | None
    cook_from_c: float
    temper_s: float
    scorch: Scorch
    thickens_c: float | None
    warnings: list[str]
    checks: list[str] = field(default_factory=list)
    additions: list[Addition] = field(default_factory=list)
    signs: list[tuple[float, float, str]] = field(default_factory=list)

    @property
    def boils_off_g(self) -> float:
        """Water that leaves the pot until it is off the heat, by the model."""
        return self.heat_run.evaporated_g + (self.cook_run.evaporated_g if self.cook_run else 0.0)


def thickens_c(mix: Mix, family: Family) -> float | None:
    """Where the cream visibly thickens, degC: as its starch is seen to, or past the egg's onset;
    None for what holds neither and sets in the cold, if at all."""
    liquid = family.liquid_g(mix)
    if liquid and mix.corn_equivalent_g / liquid * 1000 >= TELLS_G:
        return seen_to_thicken_c(pasting(mix.main_starch, mix.sugar_pct_of_water_phase))
    egg = coagulation(mix, family)
    return (egg.onset_c + EGG_SEEN_K) if egg else None


def plan(
    mix: Mix,
    family: Family,
    ring: Ring,
    *,
    school: School = "hot_into_eggs",
    heat_setting: float = HEAT_SETTING,
    setting: float = COOK_SETTING,
    ladle_ml: float = LADLE_ML,
    milk_c: float = MILK_C,
    hot_c: float = HOT_C,
    eggs_c: float = EGGS_C,
    held_back_ml: float = 0.0,
    altitude_m: float = 0.0,
) -> Plan:
    """Plan the cook of a stirred cream on a ring: ``heat_setting`` (0-1) brings the liquid up,
    ``setting`` cooks the thick mix.

    Raises CraftError when the mix has nothing to heat, or is one for the oven.
    """
    boiled_first = family.texture_mode == "boiled_baked"
    if not family.on_the_stove and not boiled_first:
        raise CraftError("family", say("stove.is_set_in_the_oven_not", family=family.name))
    where = split(mix, family, school)
    if where.pot.mass_g <= 0:
        raise CraftError("lines", say("stove.nothing_goes_in_the_pot_add"))
    stop = endpoint(mix, family, altitude_m, boiled_first=boiled_first)
    thick = thickens_c(mix, family)
    hot_c = min(hot_c, boils_c(altitude_m) - 1)
    boils_first = stop.boils_s > 0 or (where.pot.corn_equivalent_g > 0 and stop.mode == "boil_hold")
    # What only coats the spoon must not be poured hotter than that allows.
    from_the_boil = boils_first and stop.mode == "boil_hold"
    pot_hot_c = mix.boils_c(altitude_m) - POURS_K if from_the_boil else hot_c
    ladder = None
    cook_from = pot_hot_c
    if where.bowl.yolk_g or where.bowl.whole_egg_g or where.bowl.white_g:
        ladder = temper(where.pot, pot_hot_c, where.bowl, eggs_c, ladle_ml, school, held_back_ml)
        cook_from = ladder.end_temp_c
    power = ring.reaches_pot_w(setting)
    held_ml = held_back_ml if school == "held_back_liquid" else 0.0
    first = where.pot.scaled(1 - min(0.8, held_ml / max(where.pot.volume_ml, 1)))
    first_cream = Cream.of(first, thick if boils_first else None, altitude_m)
    heat_target = first_cream.boil_c if boils_first else hot_c
    heat_run = heat_to(
        first_cream,
        pot_for(mix.volume_ml),
        ring.fuel,
        power if boils_first else ring.reaches_pot_w(heat_setting),
        milk_c,
        heat_target,
        (stop.boils_s or stop.hold_s) if boils_first else 0,
        "whisk",
        loss_w_m2k=ring.loss_w_m2k,
    )
    cook_run = None
    if stop.temp_c is not None and where.bowl.mass_g:
        whole = where.pot + where.bowl
        cream = Cream.of(whole, thick, altitude_m)
        target = min(stop.temp_c, cream.boil_c)
        cook_run = heat_to(
            cream,
            pot_for(whole.volume_ml),
            ring.fuel,
            power,
            cook_from,
            target,
            stop.hold_s,
            "spatula",
            loss_w_m2k=ring.loss_w_m2k,
        )
    excess = max(heat_run.wall_excess_k, cook_run.wall_excess_k if cook_run else 0.0)
    warnings = list(ladder.warnings if ladder else [])
    if cook_run and cook_run.reaches_s is None:
        warnings.append(say("stove.on_this_setting_it_does_not", temp_c=stop.temp_c))
    if heat_run.reaches_s is None:
        warnings.append(say("stove.on_this_setting_the_liquid_does"))
    adds = additions(where.pot + where.bowl, where.finish, family, stop.temp_c or hot_c)
    steps = _steps(
        where,
        school,
        stop,
        thick,
        heat_target,
        hot_c,
        boils_first,
        ladder,
        family,
        adds,
        held_ml,
    )
    return Plan(
        school,
        steps,
        where,
        ladder=ladder,
        endpoint=stop,
        hot_c=pot_hot_c,
        eggs_c=eggs_c,
        heat_run=heat_run,
        cook_run=cook_run,
        cook_from_c=cook_from,
        temper_s=max(_POUR_S, _LADLE_S * len(ladder.rungs)) if ladder else _POUR_S,
        scorch=scorch_band(excess),
        thickens_c=thick,
        warnings=warnings,
        checks=checks(mix, family),
        additions=adds,
        signs=signs_of(
            Thickener.of(mix, family), (cook_run or heat_run).curve, stop.temp_c or 100.0
        ),
    )


def _infuse(when: str, drawn: Infusion, pot: Mix, family: Family, held_ml: float) -> Step:
    held = min(0.8, held_ml / max(pot.volume_ml, 1))
    return step(
        f"custard.infuse.{'leaf' if drawn.keeps_g else 'whole'}.{when}",
        hold_s=round(60 * drawn.low_min),
        values=told_of(drawn, made_up_g(pot, family) * (1 - held)),
    )


def _steps(
    where: Split, school: School, stop: Endpoint, thick: float | None, heat_target: float,
    hot_c: float, boils_first: bool, ladder: Ladder | None, family: Family, adds: list[Addition],
    held_ml: float,
) -> list[Step]:  # fmt: skip
    dry = where.bowl.yolk_g and where.bowl.added_sugar_g
    steps = [
        step(
            "custard.ready.sugar" if dry else "custard.ready",
            values={
                "pot": names(where.pot),
                "bowl": names(where.bowl) or say("stove.nothing"),
                "end": names(where.finish) or "none",
            },
        )
    ]
    drawn = infusion(where.pot)
    if drawn and stop.boils == "grain" and not drawn.keeps_g:  # it simmers with the grain
        drawn = None
    if drawn and boils_first:  # before starch or gum is in it
        steps.append(_infuse("first", drawn, where.pot, family, held_ml))
    if boils_first:
        steps.append(
            step(
                f"custard.heat.{stop.boils or 'starch'}",
                low_c=heat_target - (_SIMMERS_K if stop.boils == "grain" else AT_BOIL_K),
                high_c=heat_target + 1,
                hold_s=stop.boils_s or stop.hold_s,
                thickens_c=thick,
            )
        )
    else:
        steps.append(
            step("custard.heat", low_c=hot_c - 4, high_c=hot_c + 3, never_c=heat_target + 8)
        )
    if drawn and not boils_first:
        steps.append(_infuse("after", drawn, where.pot, family, held_ml))
    if ladder:
        last = ladder.rungs[-1].mix_temp_c
        steps.append(
            step(f"custard.temper.{school}", never_c=ladder.scramble_c, values={"last": last})
        )
    if stop.mode == "boil_hold" and where.bowl.mass_g:
        boil = stop.temp_c or 100
        steps.append(
            step(
                "custard.cook.again" if boils_first else "custard.cook.boil",
                low_c=boil - AT_BOIL_K,
                high_c=boil + 1,
                hold_s=stop.hold_s,
                thickens_c=thick,
            )
        )
    elif stop.mode in ("nappe", "double_boiler") and stop.low_c is not None:
        steps.append(
            step(
                f"custard.cook.{stop.mode}",
                low_c=stop.low_c,
                high_c=stop.high_c,
                never_c=stop.never_c,
                thickens_c=thick,
            )
        )
    whole = (where.pot + where.bowl).main_starch in COARSE
    warm = [a for a in adds if a.window.high_c > _FOLDED_BELOW_C and not a.folds]
    folded = [a for a in adds if a not in warm]
    steps += finishing(warm)
    if family.key == "chiboust":  # its whites go in warm, from here or from a part of their own
        number = sum(s.key.startswith("finish") for s in steps)
        meringue = fold_window("meringue")
        alone = step("custard.meringue", low_c=meringue.low_c, high_c=meringue.high_c)
        steps.append(step("custard.sieve"))
        steps += finishing(folded, number) if folded else [alone]
        steps.append(step("custard.chill", values={"family": hours(family)}))
        return steps
    gels = any(p.ingredient.key.startswith("gelatine") for p in where.finish.portions)
    steps.append(cooling(family, whole, [a.window.high_c for a in folded], gels=gels))
    if folded:
        steps += finishing(folded, sum(s.key.startswith("finish") for s in steps))
        steps.append(step("custard.chill", values={"family": hours(family)}))
    return steps
