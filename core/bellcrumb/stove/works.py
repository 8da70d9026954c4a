"""Guides for what is no stirred custard: caramel, meringues, cream and what is stirred."""

from dataclasses import dataclass

from bellcrumb.errors import CraftError
from bellcrumb.heat.pot import Ring
from bellcrumb.mix.composition import Mix
from bellcrumb.stove.caramel import caramel, slow_cues, sugar_and_water
from bellcrumb.stove.glaze import ganache, mirror
from bellcrumb.stove.meringue import ItalianMeringue, meringue, whip_s
from bellcrumb.stove.over_bath import curd, sabayon, swiss
from bellcrumb.stove.steps import Cue, step
from bellcrumb.stove.stirred import choux, citrus, roux
from bellcrumb.stove.syrup import HOT_SUGAR
from bellcrumb.stove.usual import SWISS_C, SYRUP_C, SYRUP_WATER
from bellcrumb.stove.whip import whip_of
from bellcrumb.stove.work import Pretence, Work, WorkKind
from bellcrumb.texture.families import Family
from bellcrumb.texture.how_set import is_whipped_cream
from bellcrumb.texture.no_custard import is_choux, is_mirror, part_kind_of
from bellcrumb.words import say


@dataclass(frozen=True, kw_only=True)
class Aim:
    """What is cooked to when nobody says otherwise, and between what it may be asked for, degC."""

    usual_c: float
    low_c: float
    high_c: float


# Source: craft for the usual ones; beyond the others it is another thing (our estimate).
AIMS: dict[str, Aim] = {
    "caramel": Aim(usual_c=172, low_c=160, high_c=190),
    "italian": Aim(usual_c=SYRUP_C, low_c=112, high_c=125),
    "swiss": Aim(usual_c=SWISS_C, low_c=50, high_c=78),
}


def work_kind(
    part_kind: str, mix: Mix, method: str = "", family: Family | None = None
) -> WorkKind | None:
    """Which of these a part is, by its kind, what is in it and the method chosen; None: custard."""
    part_kind = part_kind_of(part_kind, mix)
    if part_kind == "caramel":
        return "caramel"
    if part_kind == "meringue":
        if method in ("italian", "swiss", "french"):
            return method  # type: ignore[return-value]
        return "italian" if mix.grams_of_key("water") else "swiss"
    if part_kind == "glaze" and is_mirror(mix):
        return "mirror"
    if part_kind == "glaze" and mix.grams_of("chocolate"):
        return "ganache"
    if part_kind == "crust" and is_choux(mix):
        return "choux"
    if part_kind in ("cream", "filling"):
        if family is not None and family.key == "sabayon":
            return "sabayon"
        if family is not None and family.group == "curd":
            return "curd"
        flour = mix.grams_of_key("flour_plain", "flour_cake")
        if family is not None and family.key == "sugar_cream" and flour and mix.grams_of("fat"):
            return "roux"
        if is_whipped_cream(mix):
            return "whipped"
        if mix.grams_of_key("condensed_milk") > 0.4 * mix.mass_g and mix.grams_of("fruit"):
            return "citrus_mix"
    return None


def work(
    kind: WorkKind, mix: Mix, ring: Ring, setting: float, *, altitude_m: float = 0.0,
    target_c: float = 0.0, whites_c: float = 20.0, family: Family | None = None,
) -> Work:  # fmt: skip
    """The guide for a part. ``target_c`` 0 takes the usual one. Raises CraftError when what it
    needs is not in it."""
    power = ring.reaches_pot_w(setting)
    if kind == "caramel":
        return caramel(mix, power, altitude_m, target_c or AIMS["caramel"].usual_c)
    if kind == "italian":
        return _italian(mix, power, altitude_m, target_c or AIMS["italian"].usual_c, whites_c)
    if kind == "swiss":
        return swiss(mix, target_c or AIMS["swiss"].usual_c)
    if kind == "french":
        return _french(mix)
    if kind == "whipped":
        return _whipped(mix)
    if kind == "ganache":
        return ganache(mix, ring, setting, altitude_m)
    if kind == "mirror":
        return mirror(mix, ring, setting, altitude_m)
    if kind == "choux":
        return choux(mix, ring, setting, altitude_m)
    if kind == "sabayon" and family:
        return sabayon(mix, family, altitude_m)
    if kind == "curd" and family:
        return curd(mix, family, altitude_m)
    if kind == "roux" and family:
        return roux(mix, family, ring, setting, altitude_m)
    return citrus(mix)


def _italian(mix: Mix, power: float, altitude_m: float, syrup_c: float, whites_c: float) -> Work:
    sugar, water = sugar_and_water(mix)
    whites = mix.white_g
    if whites <= 0:
        raise CraftError("lines", say("stove.there_is_no_white_in_this"))
    found = meringue(
        "italian", whites, sugar, water_g=water or None, syrup_c=syrup_c, power_w=power,
        whites_c=whites_c, altitude_m=altitude_m,
    )  # fmt: skip
    assert isinstance(found, ItalianMeringue)
    start = found.start_whites_c or syrup_c - 6
    cues = (
        *slow_cues(syrup_c),
        Cue(
            start, say("stove.start_the_whites"), say("stove.whites_on_medium_speed"), urgency="now"
        ),
    )
    steps = [
        step("italian.ready"),
        step(
            "italian.cook",
            low_c=syrup_c - 0.5,
            high_c=syrup_c + 3,
            never_c=syrup_c + 8,
            cues=tuple(sorted(cues, key=lambda c: c.from_c)),
            values={"syrup_c": syrup_c},
        ),
        step("italian.pour"),
        step("italian.whip", hold_s=round(found.whip_s + 120)),
        step("italian.use"),
    ]
    syrup = mix.only({"water"}) + Mix(
        tuple(p for p in mix.portions if p.ingredient.category == "sugar")
    )
    rest = Mix(tuple(p for p in mix.portions if p not in syrup.portions))
    return Work(
        "italian",
        say("stove.italian_meringue"),
        steps,
        checks=[
            say("stove.whites_free_of_yolk_at_room"),
            say("stove.bowl_and_whisk_free_of_fat"),
            say("stove.syrup_thermometer_in_reach"),
        ],
        curve=[(p.t_s, p.temp_c) for p in found.syrup.curve],
        curve_step="cook",
        reaches_s=found.syrup_time_s,
        pot=syrup,
        bowl=rest,
        finish=Mix(()),
        scenes=[
            Pretence(
                "cook",
                "syrup",
                from_c=20.0,
                power_w=power,
                sugar_g=sugar,
                water_g=water or SYRUP_WATER * sugar,
            )
        ],
        warnings=[w for w in found.warnings if w != HOT_SUGAR],
    )


def _french(mix: Mix) -> Work:
    found = meringue("french", mix.white_g or 1e-9, mix.added_sugar_g or 1e-9)
    if mix.white_g <= 0 or mix.added_sugar_g <= 0:
        raise CraftError("lines", say("stove.a_french_meringue_needs_whites_and"))
    steps = [
        step("french.ready"),
        step("french.soft", hold_s=round(whip_s(mix.white_g) * 0.6)),
        step("french.sugar", hold_s=round(whip_s(mix.white_g))),
        step("french.use"),
    ]
    return Work(
        "french",
        say("stove.french_meringue"),
        steps,
        checks=[say("stove.bowl_and_whisk_free_of_fat")],
        curve=[],
        curve_step="soft",
        reaches_s=None,
        pot=Mix(()),
        bowl=mix,
        finish=Mix(()),
        scenes=[],
        warnings=found.warnings,
    )


def _whipped(mix: Mix) -> Work:
    found = whip_of(mix)
    gelatine = mix.grams_of("setter") > 0
    melted = step("whipped.melt")
    steps = [
        step("whipped.ready"),
        *([melted] if gelatine else []),
        step(
            "whipped.whip",
            hold_s=round(found.time_s or 0),
            values={"peak": found.peak.capitalize()},
        ),
        step(
            "whipped.use.gelatine" if gelatine else "whipped.use",
            values={
                "stands_cold_h": _hours(found.stands_cold_h),
                "stands_h": _hours(found.stands_h),
            },
        ),
    ]
    return Work(
        "whipped",
        say("stove.whipped_cream"),
        steps,
        checks=[say("stove.cream_at_2_to_6_c"), say("stove.bowl_and_beaters_out_of_the")],
        curve=[],
        curve_step="whip",
        reaches_s=None,
        pot=Mix(()),
        bowl=mix,
        finish=Mix(()),
        scenes=[],
        warnings=found.warnings,
    )


def _hours(hours: float) -> str:
    return say("stove.h", h=hours) if hours >= 2 else say("stove.min", hours=round(60 * hours, -1))
