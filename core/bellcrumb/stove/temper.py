"""Tempering by heat balance: the ladder of ladles, the scramble line, the first safe ladle."""

import math
from collections.abc import Sequence
from dataclasses import KW_ONLY, dataclass
from statistics import median
from typing import Literal

from bellcrumb.curve.watch import Reading
from bellcrumb.errors import CraftError
from bellcrumb.mix.composition import Mix
from bellcrumb.texture.coagulation import set_temp_c
from bellcrumb.words import say

School = Literal["hot_into_eggs", "eggs_after_boil", "held_back_liquid"]
SCHOOLS: tuple[School, ...] = ("hot_into_eggs", "eggs_after_boil", "held_back_liquid")

# First ladle leaves the bowl at or below this. Source: tempering reference, section c; craft.
FIRST_LADLE_LIMIT_C = 55.0
# Yolk amylase survives to about here in sugared, starchy cream. Source: craft; McGee (medium).
ENZYME_SAFE_C = 85.0
MOST_RUNGS = 40
# A stream that warms the bowl by this much a second is whisked in as it falls. Craft, estimate.
_WHISKED_K_PER_S = 1.5
# Sugar left unwhisked on yolks draws their water: hard specks. Source: craft, medium.
SUGAR_ON_YOLKS_S = 60
# The bowl is back in the pot this long after the cook has gone on. Our estimate.
POURED_BACK_S = 60.0


@dataclass(frozen=True)
class Rung:
    """One ladle up: grams poured so far, the mix's temperature and how far below scrambling."""

    added_g: float
    mix_temp_c: float
    margin_k: float
    _: KW_ONLY
    scramble_c: float


@dataclass(frozen=True)
class Ladder:
    """The whole tempering. ``scramble_c`` is for the bowl before anything is poured,
    ``pour_g_per_s`` the stream to begin with, ``whisk_within_s`` how long sugar may lie on
    the yolks (0: there is none)."""

    school: School
    rungs: list[Rung]
    first_safe_g: float
    _: KW_ONLY
    end_temp_c: float
    all_at_once_temp_c: float
    scramble_c: float
    bowl_g: float
    bowl_temp_c: float
    poured_g: float
    poured_temp_c: float
    warnings: list[str]
    pour_g_per_s: float = 0.0
    whisk_within_s: int = 0


def blend_c(parts: list[tuple[Mix, float]]) -> float:
    """Temperature of mixes poured together: sum(m cp T) / sum(m cp). No losses."""
    heat = sum(m.mass_g * m.heat_capacity_j_per_gk * t for m, t in parts)
    capacity = sum(m.mass_g * m.heat_capacity_j_per_gk for m, _ in parts)
    if not capacity:
        raise CraftError("eggs", say("stove.nothing_to_mix"))
    return heat / capacity


def scramble_c(mix: Mix) -> float:
    """Temperature at which egg in this mix goes to grains, +-3 K; 100 without egg.

    The set temperature plus 3 K undiluted (yolk sets at 70 degC, McGee) up to 7.5 K in an
    ordinary custard (curdles at 85-87): egg farther apart has farther to go.
    """
    setting = set_temp_c(mix)
    if setting is None:
        return 100.0
    yolk = sum(p.grams * p.ingredient.egg_protein_pct for p in mix.portions) / 100
    base = mix.parts_g["water"] + mix.parts_g["sugars"]
    share = min(30.0, max(100 * yolk / base, 0.5))
    return setting + 3.0 + 1.9 * math.log(30.0 / share)


def temper(
    hot: Mix,
    hot_c: float,
    eggs: Mix,
    eggs_c: float,
    ladle_ml: float,
    school: School = "hot_into_eggs",
    held_back_ml: float = 0.0,
) -> Ladder:
    """Climb the ladder.

    hot_into_eggs and eggs_after_boil pour the hot onto the eggs ladle by ladle; held_back_liquid
    loosens the eggs with ``held_back_ml`` of the liquid kept cold and pours that into the pot.
    Raises CraftError for a bowl or pot with nothing in it, no egg, liquid colder than the eggs,
    or a ladle that is none.
    """
    _check(hot, hot_c, eggs, eggs_c, ladle_ml)
    if school == "held_back_liquid":
        return _held_back(hot, hot_c, eggs, eggs_c, ladle_ml, held_back_ml)
    ladle_g = ladle_ml * hot.density_g_per_ml
    steps = max(1, math.ceil(hot.mass_g / ladle_g - 1e-9))
    if steps > MOST_RUNGS:
        steps, ladle_g = MOST_RUNGS, hot.mass_g / MOST_RUNGS
    rungs = []
    for n in range(1, steps + 1):
        poured = min(n * ladle_g, hot.mass_g)
        part = hot.scaled(poured / hot.mass_g)
        temp = blend_c([(eggs, eggs_c), (part, hot_c)])
        line = scramble_c(eggs + part)
        if school == "eggs_after_boil" and _protected(eggs + part):
            line = 100.0
        rungs.append(Rung(poured, temp, line - temp, scramble_c=line))
    bowl_line = scramble_c(eggs)
    limit = min(FIRST_LADLE_LIMIT_C, bowl_line - 15)
    cp_hot, cp_eggs = hot.heat_capacity_j_per_gk, eggs.heat_capacity_j_per_gk
    if limit <= eggs_c:
        first = 0.0
    elif hot_c <= limit:
        first = hot.mass_g
    else:
        first = eggs.mass_g * cp_eggs * (limit - eggs_c) / (cp_hot * (hot_c - limit))
    end = rungs[-1].mix_temp_c
    return Ladder(
        school,
        rungs,
        min(first, hot.mass_g),
        end_temp_c=end,
        all_at_once_temp_c=end,
        scramble_c=bowl_line,
        bowl_g=eggs.mass_g,
        bowl_temp_c=eggs_c,
        poured_g=hot.mass_g,
        poured_temp_c=hot_c,
        warnings=_warnings(school, rungs, end, first, ladle_g, eggs),
        pour_g_per_s=_WHISKED_K_PER_S * eggs.mass_g * cp_eggs / (cp_hot * max(hot_c - eggs_c, 1.0)),
        whisk_within_s=SUGAR_ON_YOLKS_S if eggs.yolk_g and eggs.added_sugar_g else 0,
    )


def in_the_mix_from_s(
    ladder: Ladder, milk: Sequence[Reading], on_s: float, after: Sequence[Reading]
) -> float:
    """The second from which a probe is in what was tempered and no longer in the hot liquid.

    ``milk`` are the readings (s, degC) before tempering began, ``after`` those from ``on_s`` on,
    where the cook has gone on from it. It is in the mix once it has fallen half as far below the
    liquid as the heat balance says, and a minute on by any account (both our estimate).
    """
    if not milk:
        return on_s
    milk_c = median(c for _, c in milk[-3:])
    gone = (ladder.poured_temp_c - ladder.end_temp_c) / (ladder.poured_temp_c - ladder.bowl_temp_c)
    line_c = milk_c - gone / 2 * (milk_c - ladder.bowl_temp_c)
    latest_s = on_s + POURED_BACK_S
    return next((t for t, c in after if c <= line_c or t >= latest_s), latest_s)


def _protected(mix: Mix) -> bool:
    """Whether cooked starch keeps the egg from clotting: 20 g per 1000 g of water (McGee)."""
    return mix.corn_equivalent_g >= 0.02 * mix.parts_g["water"]


def _check(hot: Mix, hot_c: float, eggs: Mix, eggs_c: float, ladle_ml: float) -> None:
    if hot.mass_g <= 0:
        raise CraftError("hot.lines", say("stove.the_pot_is_empty_tempering_needs"))
    if eggs.mass_g <= 0:
        raise CraftError("eggs.lines", say("stove.the_bowl_is_empty_tempering_needs"))
    if not eggs.yolk_g and not eggs.white_g and not eggs.whole_egg_g:
        raise CraftError("eggs.lines", say("stove.there_is_no_egg_in_the"))
    if ladle_ml < 5:
        raise CraftError("ladle_ml", say("stove.a_ladle_holds_at_least_5"))
    if hot_c <= eggs_c:
        raise CraftError(
            "hot.temp_c",
            say("stove.the_liquid_at_c_is_not", hot_c=hot_c, eggs_c=eggs_c),
        )
    if hot_c > 110:
        raise CraftError("hot.temp_c", say("stove.milk_and_cream_cannot_be_hotter"))


def _held_back(
    hot: Mix, hot_c: float, eggs: Mix, eggs_c: float, ladle_ml: float, held_back_ml: float
) -> Ladder:
    held = min(held_back_ml, 0.8 * hot.volume_ml) / hot.volume_ml
    loosened = eggs + hot.scaled(held)
    pot = hot.scaled(1 - held)
    ladle_g = ladle_ml * loosened.density_g_per_ml
    steps = min(MOST_RUNGS, max(1, math.ceil(loosened.mass_g / ladle_g - 1e-9)))
    ladle_g = max(ladle_g, loosened.mass_g / steps)
    rungs = []
    for n in range(1, steps + 1):
        poured = min(n * ladle_g, loosened.mass_g)
        part = loosened.scaled(poured / loosened.mass_g)
        temp = blend_c([(pot, hot_c), (part, eggs_c)])
        line = scramble_c(pot + part)
        rungs.append(Rung(poured, temp, line - temp, scramble_c=line))
    end = rungs[-1].mix_temp_c
    warnings = []
    if held < 0.15:
        warnings.append(say("stove.hold_back_at_least_a_fifth"))
    if any(r.margin_k < 0 for r in rungs) and hot.corn_equivalent_g + eggs.corn_equivalent_g == 0:
        warnings.append(say("stove.no_starch_protects_the_egg_take"))
    return Ladder(
        "held_back_liquid",
        rungs,
        loosened.mass_g,
        end_temp_c=end,
        all_at_once_temp_c=end,
        scramble_c=scramble_c(loosened),
        bowl_g=loosened.mass_g,
        bowl_temp_c=eggs_c,
        poured_g=pot.mass_g,
        poured_temp_c=hot_c,
        warnings=warnings,
        pour_g_per_s=ladle_g / 5,
        whisk_within_s=SUGAR_ON_YOLKS_S if eggs.yolk_g and eggs.added_sugar_g else 0,
    )


def _warnings(
    school: School, rungs: list[Rung], end_c: float, first_g: float, ladle_g: float, eggs: Mix
) -> list[str]:
    found = []
    if first_g < ladle_g:
        found.append(
            say("stove.one_ladle_is_too_much_for", first_g=first_g)
            if first_g > 1
            else say("stove.the_eggs_are_already_warm_pour")
        )
    if any(rung.margin_k < 3 for rung in rungs):
        found.append(say("stove.the_mix_comes_within_3_k"))
    if school == "eggs_after_boil" and end_c < ENZYME_SAFE_C:
        found.append(say("stove.only_c_after_mixing_the_yolks", end_c=end_c))
    if eggs.corn_equivalent_g and school == "hot_into_eggs":
        found.append(say("stove.whisk_the_starch_in_smooth_before"))
    return found
