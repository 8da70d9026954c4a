"""A step of a guide, and what is got ready before the first one."""

import csv
from collections.abc import Mapping
from dataclasses import KW_ONLY, dataclass, field
from functools import cache
from importlib.resources import files
from typing import Any, Literal, cast

from bellcrumb.mix.composition import Mix
from bellcrumb.texture.families import COARSE, Family
from bellcrumb.words import say

StepKind = Literal["ready", "heat", "temper", "cook", "finish", "cool", "bake", "check", "lay"]

CURDLING = say("stove.curdling")


@dataclass(frozen=True)
class Cue:
    """What is said on the way, from a temperature on."""

    from_c: float
    headline: str
    words: str
    _: KW_ONLY
    urgency: Literal["calm", "soon", "now"] = "soon"


@dataclass(frozen=True)
class Step:
    """One step. ``low_c``-``high_c`` is what to reach, ``never_c`` what not to pass (None: no
    limit), ``hold_s`` how long to stay there (or, without a temperature, how long it takes);
    ``sign`` what to look for, ``avoid`` the mistake. ``there`` is what to do when it is reached,
    ``over`` what it is called past ``never_c``. A bake is due from ``from_s`` to ``to_s`` seconds
    after it went in. A layer takes ``grams`` in each of ``count`` vessels."""

    key: str
    kind: StepKind
    title: str
    _: KW_ONLY
    sign: str
    avoid: str
    low_c: float | None = None
    high_c: float | None = None
    never_c: float | None = None
    hold_s: int = 0
    thickens_c: float | None = None
    caution: str = ""
    there: str = ""
    over: str = CURDLING
    cues: tuple[Cue, ...] = field(default=())
    from_s: int = 0
    to_s: int = 0
    grams: float = 0.0
    count: int = 1


@cache
def _table() -> dict[str, dict[str, str]]:
    text = files("bellcrumb.stove").joinpath("data/guides.csv").read_text("utf8")
    return {row["row"]: row for row in csv.DictReader(text.splitlines())}


def step(row: str, /, *, values: Mapping[str, object] | None = None, **told: Any) -> Step:
    """A step as the table of guides has it.

    ``row`` is guide.key, or guide.key.case where the case decides its words; ``values`` stand in
    those, and ``told`` are fields of the step that the mix decides. Raises KeyError for a row that
    is not there.
    """
    of = _table()[row]
    told |= {n: float(of[n]) for n in ("low_c", "high_c", "never_c") if of[n]}
    if of["hold_s"]:
        told["hold_s"] = int(of["hold_s"])
    for part in ("title", "sign", "avoid", "caution", "there", "over"):
        if of[part]:
            told[part] = say(of[part], **values or {})
    return Step(key=told.pop("key", row.split(".")[1]), kind=cast(StepKind, of["kind"]), **told)


def names(mix: Mix) -> str:
    """What is in a mix, as cooks call it, in a row: "milk, cream and tea"."""
    words = list(dict.fromkeys(p.ingredient.short for p in mix.portions))
    return (
        ", ".join(words[:-1]) + (say("stove.and") if len(words) > 1 else "") + words[-1]
        if words
        else ""
    )


def checks(mix: Mix, family: Family | None) -> list[str]:
    """What stands ready before the heat is lit, by what is in it. Forgotten most: the juice."""
    found: list[str] = []
    keys = {p.ingredient.key for p in mix.portions}
    categories = {p.ingredient.category for p in mix.portions}
    if keys & {"lemon_juice", "lime_juice", "orange_juice", "grapefruit_juice", "citrus_zest"}:
        found.append(say("stove.zest_taken_then_the_juice_squeezed"))
    if "fat" in categories:
        soft = family is not None and family.key in ("mousseline", "lemon_cream")
        found.append(
            say("stove.butter_out_for_3_to_4") if soft else say("stove.butter_cut_in_cubes")
        )
    if "fresh_cheese" in categories:
        found.append(say("stove.cheese_at_room_temperature_beaten_smooth"))
    if any(p.ingredient.key.startswith("gelatine") for p in mix.portions):
        found.append(say("stove.gelatine_soaking_in_cold_water"))
    if "chocolate" in categories:
        found.append(say("stove.chocolate_chopped_fine_in_its_bowl"))
    coarse = mix.main_starch in COARSE
    if mix.starch_g and not coarse:
        found.append(say("stove.starch_sifted_no_dry_lumps"))
    if mix.yolk_g or mix.whole_egg_g:
        found.append(
            say("stove.eggs_parted_no_shell")
            if mix.yolk_g
            else say("stove.eggs_broken_one_by_one_no")
        )
        if not coarse and family is not None:
            found.append(say("stove.fine_sieve_over_a_clean_bowl"))
    if family is not None and family.on_the_stove:
        found += [say("stove.ice_bath_or_shallow_tray_cold"), say("stove.film_to_lay_on_contact")]
    return found
