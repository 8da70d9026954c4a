"""Guides of what is made on the bench and in the oven: doughs, crumbs, nut paste, glaze, sugar.

They are the rows of the table of steps: a part's guide, its thread and the day say the same.
"""

import csv
from functools import cache
from importlib.resources import files

from bellcrumb.dessert.tables import StepRow, needless, rows
from bellcrumb.dessert.works import FACTS, PartWork, kind_of_part
from bellcrumb.mix.composition import Mix
from bellcrumb.stove.steps import Step
from bellcrumb.texture.families import Family
from bellcrumb.words import say

_ON_THE_BENCH: tuple[PartWork, ...] = (
    "flaky", "sweet", "crumb", "puff", "sponge", "frangipane", "nut", "jam", "coulis", "torched",
    "fruit", "poached_fruit", "biscuit", "garnish", "chocolate_coat", "cold_cheese",
    "mascarpone",
)  # fmt: skip
NAMES: dict[PartWork, str] = {
    "flaky": say("dessert.flaky_dough"),
    "sweet": say("dessert.sweet_short_dough"),
    "crumb": say("dessert.crumb_base"),
    "puff": say("dessert.puff_sheets"),
    "sponge": say("dessert.sponge_sheet"),
    "frangipane": say("dessert.almond_cream"),
    "nut": say("dessert.nut_paste"),
    "jam": say("dessert.jam_glaze"),
    "coulis": say("dessert.coulis"),
    "torched": say("dessert.sugar_crust"),
    "fruit": say("dessert.fruit"),
    "poached_fruit": say("dessert.poached_fruit"),
    "biscuit": say("dessert.biscuits"),
    "garnish": say("dessert.garnish"),
    "chocolate_coat": say("dessert.coat_of_chocolate"),
    "cold_cheese": say("dessert.cheesecake_set_in_the_cold"),
    "mascarpone": say("dessert.mascarpone_cream"),
}
_READY: dict[PartWork, str] = {
    "flaky": say("dessert.cold_where_it_says_cold"),
    "puff": say("dessert.cold_where_it_says_cold"),
    **dict.fromkeys(
        ("sweet", "crumb", "sponge", "frangipane", "nut"), say("dessert.the_oven_on_the_tin_lined")
    ),
}
# Piped choux, g raw of a piece. Source: trade values.
_PIPED = (
    (21.0, say("dessert.buns_of_4_cm")),
    (40.0, say("dessert.buns_of_6_cm")),
    (42.0, say("dessert.eclairs_of_13_cm")),
    (300.0, say("dessert.rings_of_20_cm")),
)


def bench_kind(
    part_kind: str, mix: Mix, family: Family | None, method: str = ""
) -> PartWork | None:
    """Which of these a part is; None for what is cooked on the stove or baked as a custard."""
    kind = kind_of_part(part_kind, mix, family, method=method)
    return kind if kind in _ON_THE_BENCH else None


# What a dough that is bought ready has behind it.
_READY_MADE = ("puff_raw", "shortcrust_raw", "pie_crust_ready", "sweet_paste_raw",
               "tart_shell_ready")  # fmt: skip
_MAKING = ("weigh_cut_butter", "rub_bring_together", "first_rest", "cream_butter_sugar", "rest",
           "detrempe_rest", "double_turn_rest")  # fmt: skip


def bench_steps(kind: PartWork, mix: Mix) -> list[Step]:
    """The guide of a part that is made on the bench."""
    first = Step(
        "ready",
        "ready",
        say("dessert.everything_weighed_and_within_reach"),
        sign=_READY.get(kind, say("dessert.what_it_goes_on_is_cold")),
        avoid=say("dessert.starting_before_it_is_all_there"),
    )
    work: PartWork = "fruit" if kind == "poached_fruit" else kind
    table = [r for r in rows().get(work, []) if kind == "poached_fruit" or r.code not in
             ("poach", "drain")]  # fmt: skip
    idle = needless(kind, mix)
    table = [r for r in table if r.code not in idle]
    if mix.grams_of_key(*_READY_MADE) > 0.5 * mix.mass_g:
        table = [r for r in table if r.code not in _MAKING]
    return [first, *(_step(row) for row in table), *_enough(kind, mix)]


def after_choux(mix: Mix) -> list[Step]:
    """What follows the panade: piped by its size, baked shut, pierced, dried with the door ajar."""
    made = 0.95 * mix.mass_g
    pieces = ", ".join(f"{made / g:.0f} {word}" for g, word in _PIPED if made >= 0.9 * g)
    codes = ("pipe", "bake", "dry_open_oven", "cool")
    steps = [_step(row) for row in rows()["choux"] if row.code in codes]
    sign, avoid = _said_of("pipe")
    title = say("dessert.pipe_it", pieces=pieces)
    piped = Step("pipe", "finish", title, sign=sign, avoid=avoid)
    hole = Step(
        "hole",
        "finish",
        say("dessert.a_hole_in_each_so_that"),
        sign=say("dessert.they_keep_their_height"),
        avoid=say("dessert.pierced_before_it_is_brown_it"),
    )
    bake = next(s for s in steps if s.key == "bake")
    dry, cool = (next(s for s in steps if s.key == k) for k in ("dry_open_oven", "cool"))
    return [piped, bake, hole, dry, cool]


@cache
def _signs() -> dict[str, tuple[str, str]]:
    """What to look for and the mistake, by step or by work and step. Source: craft."""
    text = files("bellcrumb.dessert").joinpath("data/signs.csv").read_text("utf8")
    return {r["step"]: (say(r["sign"]), say(r["avoid"])) for r in csv.DictReader(text.splitlines())}


def _said_of(*keys: str) -> tuple[str, str]:
    return next((_signs()[key] for key in keys if key in _signs()), ("", ""))


def _step(row: StepRow) -> Step:
    sign, avoid = _said_of(f"{row.work}/{row.code}", row.code)
    oven = "" if row.oven_c is None else say("dessert.in_an_oven_of_c", oven_c=row.oven_c)
    shut = (row.work, row.code) == ("choux", "bake")
    door = say("dessert.the_door_shut_for_the_first") if shut else ""
    words = row.words[:1].upper() + row.words[1:]
    return Step(
        row.code,
        "finish",
        f"{words}{oven}{door}",
        sign=sign,
        avoid=avoid,
        hold_s=round(60 * row.wait_min) if row.wait_min >= 1 else 0,
        there=say("dessert.time_is_up_the_sign_decides")
        if row.oven_c is not None
        else say("dessert.long_enough_go_on"),
    )


def _enough(kind: PartWork, mix: Mix) -> list[Step]:
    """How far it goes, where a table of thicknesses says."""
    facts = FACTS[kind]
    if not facts.lining_mm or facts.density is None:
        return []
    cm2 = mix.mass_g * (1 - facts.lost) / facts.density / facts.lining_mm * 10
    title = say("dessert.it_covers_cm2_at_mm", cm2=cm2, lining_mm=facts.lining_mm)
    return [
        Step(
            "enough", "finish", title, sign=say("dessert.the_desserts_page_says_what_its"), avoid=""
        )
    ]
