"""Sugar cooked until it colours: to line moulds with, or let down with cream to a sauce."""

from bellcrumb.errors import CraftError
from bellcrumb.heat.pot import pot_for
from bellcrumb.mix.composition import Mix
from bellcrumb.stove.steps import Cue, Step
from bellcrumb.stove.syrup import (
    HOT_SUGAR,
    SLOW_FROM_C,
    SLOW_TO_C,
    Pan,
    cook_syrup,
    seconds_in_cold_water,
)
from bellcrumb.stove.work import Pretence, Work, ready

_MUCH_WATER = 0.6  # g per g of sugar; caramels are begun with 0.25 to 0.4
# What lets it down: so much of it, and it is a sauce or a toffee and lines no mould.
_LET_DOWN = ("cream", "milk", "fat", "plant", "cultured", "fruit", "alcohol")
_A_SAUCE = 0.05


def sugar_and_water(mix: Mix) -> tuple[float, float]:
    """Grams of each. Raises CraftError without sugar."""
    sugar, water = mix.added_sugar_g, mix.grams_of_key("water")
    if sugar <= 0:
        raise CraftError("lines", "There is no sugar to cook.")
    return sugar, water


def slow_cues(target_c: float) -> tuple[Cue, ...]:
    """What is said while a syrup climbs."""
    cues = [Cue(100.0, "boiling", "Do not stir any more; brush the wall with water", "calm")]
    if target_c > SLOW_TO_C:
        cues.append(Cue(SLOW_FROM_C, "the slow stretch", "It climbs slowest here: wait", "calm"))
        cues.append(Cue(SLOW_TO_C, "soon", "Now it goes faster: stay with it"))
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
    pan = Pan(sugar, run.water_left_g, target_c, pot.diameter_mm, pot.mass_g)
    stop_s = round(max(10.0, seconds_in_cold_water(pan)))
    wet = water > 0
    cues = (
        *(slow_cues(target_c) if wet else (Cue(120.0, "melting", "Shake, do not stir", "calm"),)),
        Cue(150.0, "colour comes", "Swirl; it goes fast from here"),
        Cue(min(160.0, run.pull_c - 6), "pale",
            "The hot cream in reach: a moment more" if sauce
            else "Cold water ready: a moment more"),
    )  # fmt: skip
    first = ready(
        "A pan three times as high as the sugar, what goes into it hot and in reach." if sauce
        else "A bowl of cold water beside the stove, moulds lined up, a dry cloth.",
        "One grain of dirt or one crystal on the wall can turn the pan to sand.",
    )  # fmt: skip
    cook = Step(
        "cook", "cook",
        "Cook the syrup until it colours" if wet else "Melt the sugar a layer at a time",
        "Straw at the edge, then chestnut."
        + (" The water boils off slowly, the colour comes fast." if wet else ""),
        "Stirring after it boils: it crystallises. Then water in, dissolve all, start over."
        if wet else "The next layer before the last has melted: lumps, and the rest burns.",
        run.pull_c, target_c + 3, 188.0, 0, None, HOT_SUGAR,
        f"Off now: it runs on by {run.run_on_k:.0f} K", "bitter", cues,
    )  # fmt: skip
    warnings = [w for w in run.warnings if w != HOT_SUGAR]
    if sauce:  # cream stops it, not a bowl of water
        warnings = [w for w in warnings if "cold water" not in w]
    if water > _MUCH_WATER * sugar:
        warnings.append(
            "So much water boils away for a long time first. A syrup to soak with is only brought "
            "to its boil."
        )
    return Work(
        "caramel", "Caramel sauce" if sauce else "Caramel",
        [first, cook, *(_let_down(let_down) if sauce else _pour(stop_s))],
        ["All of it weighed: there is no time later", "Sleeves down"] if sauce
        else ["Bowl of cold water ready", "Moulds in a row, dry and cold", "Sleeves down"],
        [(t, c) for t, c, _, _ in run.curve], "cook", run.time_s,
        Mix(tuple(p for p in mix.portions if not sauce or p not in let_down.portions)),
        Mix(()), let_down if sauce else Mix(()),
        [Pretence("cook", "syrup", 20.0, power, sugar, water)], warnings,
    )  # fmt: skip


def _pour(stop_s: int) -> list[Step]:
    """Into moulds, before it is too stiff."""
    return [
        Step("stop", "finish", "Stand the pan in cold water",
             "It stops hissing; the colour stays.", "Longer and it is too stiff to pour.",
             hold_s=stop_s, caution="It spits where it meets the water: arm's length."),
        Step("pour", "finish", "Pour at once, tilting each mould",
             "It runs over the whole floor and sets within seconds.",
             "Waiting: in the pan it is too thick after a few minutes. Warm it gently if it is.",
             caution="No bare hands on the moulds."),
        _CLEAN,
    ]  # fmt: skip


def _let_down(into: Mix) -> list[Step]:
    """To a sauce: cream first, hot, for it stops the sugar; butter and salt when it has closed."""
    wet = into.mass_g - into.grams_of("fat")
    steps = []
    if wet:
        steps += [
            Step("let_down", "finish", "Off the heat: hot cream in, a third at a time",
                 "It foams up and falls; stir only when it has calmed.",
                 "Cold, or all at once: the sugar seizes to a lump.",
                 caution="It boils up three times as high and spits steam: arm's length."),
            Step("melt", "finish", "Back on a low flame until it is one",
                 "No grain catches under the spoon; it falls in a ribbon.",
                 "Boiled on: it is toffee when cold."),
        ]  # fmt: skip
    if into.grams_of("fat"):
        steps.append(
            Step("butter", "finish", "Butter and salt in, off the heat", "Blended until it shines.",
                 "Left to stand before it has closed: the fat lies on top.")
        )  # fmt: skip
    cool = Step("cool", "cool", "Into a jar, film on contact, and cool", "It coats the spoon.",
                "Tasting it hot: sugar burns.", None, 21.0)  # fmt: skip
    return [*steps, cool, _CLEAN]


_CLEAN = Step("clean", "finish", "Boil water in the pan to clean it",
              "Everything dissolves by itself.", "Scraping it.")  # fmt: skip
