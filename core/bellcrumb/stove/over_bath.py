"""Guides of what is whisked in a bowl over simmering water: Swiss meringue, curd, sabayon."""

import math

from bellcrumb.errors import CraftError
from bellcrumb.mix.composition import Mix
from bellcrumb.stove.finish import additions
from bellcrumb.stove.meringue import meringue
from bellcrumb.stove.steps import Cue, Step, checks
from bellcrumb.stove.work import Pretence, Work, ready
from bellcrumb.texture.endpoint import endpoint
from bellcrumb.texture.families import Family

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
        raise CraftError("lines", "A Swiss meringue needs whites and sugar.")
    curve, reach = bath_curve(mix, 20.0, to_c)
    steps = [
        ready("A bowl that sits over the water without touching it.", "Fat or yolk in the bowl."),
        Step("cook", "cook", f"Whisk over simmering water to {to_c:.0f} °C",
             "Hot to the finger, no grain of sugar left to feel.",
             "Standing still: the edge sets like an egg.", to_c, 77.0, 79.0, 0, None,
             "Steam burns: lift the bowl away from you.", "Off the bath, onto the machine",
             "setting in grains",
             (Cue(55.0, "warm", "The sugar dissolves now: whisk on", "calm"),)),
        Step("whip", "finish", "Whip at speed until cool and stiff", "Glossy, it stands.",
             "Stopping warm: it slides.", hold_s=480),
        Step("use", "finish", "Use it at once", "A clean edge.", "Waiting."),
    ]  # fmt: skip
    scene = Pretence("cook", "bath", 20.0, 0.0, mass_g=mix.mass_g,
                  cp_j_per_gk=mix.heat_capacity_j_per_gk)  # fmt: skip
    return Work("swiss", "Swiss meringue", steps,
                ["Water at a simmer, not a boil", "Bowl free of fat", "Machine ready"], curve,
                "cook", reach, Mix(()), mix, Mix(()), [scene], found.warnings)  # fmt: skip


def curd(mix: Mix, family: Family, altitude_m: float) -> Work:
    """Juice, eggs and sugar whisked until they set, butter in as it cools. Raises CraftError."""
    stop = endpoint(mix, family, altitude_m)
    fat = Mix(tuple(p for p in mix.portions if p.ingredient.category in ("fat", "cultured")))
    bowl = Mix(tuple(p for p in mix.portions if p not in fat.portions))
    if bowl.mass_g <= 0 or stop.low_c is None or stop.high_c is None:
        raise CraftError("lines", "A curd needs juice, eggs and sugar.")
    curve, reach = bath_curve(bowl, 15.0, stop.low_c)
    steps = [
        ready("Juice, zest, eggs and sugar whisked in a bowl that sits over the water.",
               "Sugar on yolks no longer than a minute unwhisked."),
        Step("cook", "cook", "Whisk over simmering water, without stopping",
             "It thickens in a minute: a line drawn on the spoon holds.",
             "Standing still: grains at the wall. No boil under the bowl.",
             stop.low_c, stop.high_c, stop.never_c, 0, None, "", "Off the bath: through the sieve",
             "curdling", (Cue(stop.low_c - 8, "about to thicken", "Do not stop whisking now"),)),
    ]  # fmt: skip
    for n, a in enumerate(additions(bowl, fat, family, stop.low_c), start=1):
        steps.append(
            Step(f"finish{n}", "cool", f"At {a.window.high_c:.0f} °C: butter in, slowly",
                 "A cube at a time, blended until it shines.",
                 f"Hotter, {a.window.above}.", a.window.low_c, a.window.high_c,
                 there="Butter in now, a cube at a time")
        )  # fmt: skip
    steps.append(
        Step("cool", "cool", "Film on contact and cool", "Mounds when cold.", "A skin.", None, 21.0)
    )
    scene = Pretence("cook", "bath", 15.0, 0.0, mass_g=bowl.mass_g,
                  cp_j_per_gk=bowl.heat_capacity_j_per_gk)  # fmt: skip
    return Work("curd", family.name, steps, checks(mix, family), curve, "cook", reach, Mix(()),
                bowl, fat, [scene])  # fmt: skip


def sabayon(mix: Mix, family: Family, altitude_m: float) -> Work:
    """Yolks and wine whisked to a foam that stands, cream folded in cold. Raises CraftError."""
    stop = endpoint(mix, family, altitude_m)
    folded = Mix(
        tuple(p for p in mix.portions if p.ingredient.category in ("cream", "fresh_cheese"))
    )
    bowl = Mix(tuple(p for p in mix.portions if p not in folded.portions))
    if bowl.mass_g <= 0 or stop.low_c is None or stop.high_c is None:
        raise CraftError("lines", "A sabayon needs yolks, sugar and wine.")
    curve, reach = bath_curve(bowl, 15.0, stop.low_c)
    steps = [
        ready("A wide bowl that sits over the water without touching it, a balloon whisk.",
               "Sugar on yolks no longer than a minute unwhisked."),
        Step("cook", "cook", "Whisk over simmering water, in figures of eight",
             "Three times its volume, the trail of the whisk stays.",
             "Stopping: it scrambles at the wall. No boil under the bowl.",
             stop.low_c, stop.high_c, stop.never_c, 0, None,
             "Steam burns: lift the bowl away from you.", "Off the bath: whisk on", "curdling",
             (Cue(55.0, "foams", "It doubles now: whisk on", "calm"),
              Cue(stop.low_c - 5, "about to thicken", "Do not stop whisking now"))),
        Step("whip", "finish", "Whisk off the heat, over ice if it is to wait",
             "Thick, it does not run apart.", "Left warm: it weeps within the half hour.",
             hold_s=120),
    ]  # fmt: skip
    if folded.mass_g:
        steps.append(Step("fold", "finish", "Cold: fold in the whipped cream", "No streak.",
                          "Warm under it, it melts.", None, 22.0))  # fmt: skip
    steps.append(Step("use", "finish", "Serve it at once, or within hours when cream is in it",
                      "It stands on the spoon.", "Waiting: wine gathers below."))  # fmt: skip
    scene = Pretence("cook", "bath", 15.0, 0.0, mass_g=bowl.mass_g,
                  cp_j_per_gk=bowl.heat_capacity_j_per_gk)  # fmt: skip
    return Work("sabayon", family.name, steps, checks(mix, family), curve, "cook", reach, Mix(()),
                bowl, folded, [scene])  # fmt: skip
