"""Guides of what is whisked in a bowl over simmering water: Swiss meringue, curd, sabayon."""

import math

from bellcrumb.errors import CraftError
from bellcrumb.mix.composition import Mix
from bellcrumb.stove.finish import additions
from bellcrumb.stove.meringue import meringue
from bellcrumb.stove.steps import Cue, Step, checks, step
from bellcrumb.stove.work import Pretence, Work, WorkKind
from bellcrumb.texture.endpoint import endpoint
from bellcrumb.texture.families import Family
from bellcrumb.words import say

BATH_C = 96.0
BATH_W_K = 6.0  # a bowl over simmering water; estimate


def bath_curve(
    mix: Mix, from_c: float, to_c: float, longest_s: float = 3600.0
) -> tuple[list[tuple[float, float]], float | None]:
    """A bowl over simmering water: T rises towards the bath with one time constant."""
    tau = mix.mass_g * mix.heat_capacity_j_per_gk / BATH_W_K
    if to_c >= BATH_C:
        return [(0.0, from_c)], None
    reach = tau * math.log((BATH_C - from_c) / (BATH_C - to_c))
    end = min(reach + 60, longest_s)
    curve = [
        (t, BATH_C - (BATH_C - from_c) * math.exp(-t / tau))
        for t in [end * n / 120 for n in range(121)]
    ]
    return curve, reach if reach <= longest_s else None


def swiss(mix: Mix, to_c: float) -> Work:
    """Whites and sugar warmed, then whipped. Raises CraftError without either."""
    whites, sugar = mix.white_g, mix.added_sugar_g
    found = meringue("swiss", whites or 1e-9, sugar or 1e-9, swiss_c=to_c)
    if whites <= 0 or sugar <= 0:
        raise CraftError("lines", say("stove.a_swiss_meringue_needs_whites_and"))
    curve, reach = bath_curve(mix, 20.0, to_c)
    steps = [
        step("swiss.ready"),
        step(
            "swiss.cook",
            low_c=to_c,
            cues=(
                Cue(
                    55.0,
                    say("stove.warm"),
                    say("stove.the_sugar_dissolves_now_whisk_on"),
                    urgency="calm",
                ),
            ),
            values={"to_c": to_c},
        ),
        step("swiss.whip"),
        step("swiss.use"),
    ]
    scene = Pretence("cook", "bath", from_c=20.0, power_w=0.0, mass_g=mix.mass_g,
                  cp_j_per_gk=mix.heat_capacity_j_per_gk)  # fmt: skip
    return Work(
        "swiss",
        say("stove.swiss_meringue"),
        steps,
        checks=[
            say("stove.water_at_a_simmer_not_a"),
            say("stove.bowl_free_of_fat"),
            say("stove.machine_ready"),
        ],
        curve=curve,
        curve_step="cook",
        reaches_s=reach,
        pot=Mix(()),
        bowl=mix,
        finish=Mix(()),
        scenes=[scene],
        warnings=found.warnings,
    )


def curd(mix: Mix, family: Family, altitude_m: float) -> Work:
    """Juice, eggs and sugar whisked until they set, butter in as it cools. Raises CraftError."""
    stop = endpoint(mix, family, altitude_m)
    fat = Mix(tuple(p for p in mix.portions if p.ingredient.category in ("fat", "cultured")))
    bowl = Mix(tuple(p for p in mix.portions if p not in fat.portions))
    if bowl.mass_g <= 0 or stop.low_c is None or stop.high_c is None:
        raise CraftError("lines", say("stove.a_curd_needs_juice_eggs_and"))
    curve, reach = bath_curve(bowl, 15.0, stop.low_c)
    steps = [
        step("curd.ready"),
        step(
            "curd.cook",
            low_c=stop.low_c,
            high_c=stop.high_c,
            never_c=stop.never_c,
            cues=(
                Cue(
                    stop.low_c - 8,
                    say("stove.about_to_thicken"),
                    say("stove.do_not_stop_whisking_now"),
                ),
            ),
        ),
    ]
    for n, a in enumerate(additions(bowl, fat, family, stop.low_c), start=1):
        steps.append(
            step(
                "curd.finish",
                key=f"finish{n}",
                low_c=a.window.low_c,
                high_c=a.window.high_c,
                values={"high_c": a.window.high_c, "above": a.window.above},
            )
        )
    steps.append(step("curd.cool"))
    return _whisked("curd", mix, family, steps, (curve, reach), bowl, fat)


def sabayon(mix: Mix, family: Family, altitude_m: float) -> Work:
    """Yolks and wine whisked to a foam that stands, cream folded in cold. Raises CraftError."""
    stop = endpoint(mix, family, altitude_m)
    folded = Mix(
        tuple(p for p in mix.portions if p.ingredient.category in ("cream", "fresh_cheese"))
    )
    bowl = Mix(tuple(p for p in mix.portions if p not in folded.portions))
    if bowl.mass_g <= 0 or stop.low_c is None or stop.high_c is None:
        raise CraftError("lines", say("stove.a_sabayon_needs_yolks_sugar_and"))
    curve, reach = bath_curve(bowl, 15.0, stop.low_c)
    steps = [
        step("sabayon.ready"),
        step(
            "sabayon.cook",
            low_c=stop.low_c,
            high_c=stop.high_c,
            never_c=stop.never_c,
            cues=(
                Cue(55.0, say("stove.foams"), say("stove.it_doubles_now_whisk_on"), urgency="calm"),
                Cue(
                    stop.low_c - 5,
                    say("stove.about_to_thicken"),
                    say("stove.do_not_stop_whisking_now"),
                ),
            ),
        ),
        step("sabayon.whip"),
    ]
    if folded.mass_g:
        steps.append(step("sabayon.fold"))
    steps.append(step("sabayon.use"))
    return _whisked("sabayon", mix, family, steps, (curve, reach), bowl, folded)


def _whisked(
    kind: WorkKind, mix: Mix, family: Family, steps: list[Step],
    run: tuple[list[tuple[float, float]], float | None], bowl: Mix, finish: Mix,
) -> Work:  # fmt: skip
    """A bowl whisked over simmering water; ``run`` is its curve and when it is there, s."""
    return Work(
        kind, family.name, steps, checks=checks(mix, family), curve=run[0], curve_step="cook",
        reaches_s=run[1], pot=Mix(()), bowl=bowl, finish=finish,
        scenes=[
            Pretence(
                "cook", "bath", from_c=15.0, power_w=0.0, mass_g=bowl.mass_g,
                cp_j_per_gk=bowl.heat_capacity_j_per_gk,
            )
        ],
    )  # fmt: skip
