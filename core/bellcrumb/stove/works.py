"""Guides for what is no stirred custard: caramel, meringues, cream and what is stirred."""

from bellcrumb.errors import CraftError
from bellcrumb.heat.pot import Ring
from bellcrumb.mix.composition import Mix
from bellcrumb.stove.caramel import caramel, slow_cues, sugar_and_water
from bellcrumb.stove.glaze import ganache, mirror
from bellcrumb.stove.meringue import meringue, whip_s
from bellcrumb.stove.over_bath import curd, sabayon, swiss
from bellcrumb.stove.steps import Cue, Step
from bellcrumb.stove.stirred import choux, citrus, roux
from bellcrumb.stove.syrup import HOT_SUGAR
from bellcrumb.stove.whip import whip_of
from bellcrumb.stove.work import Pretence, Work, WorkKind, ready
from bellcrumb.texture.families import Family
from bellcrumb.texture.how_set import is_whipped_cream
from bellcrumb.texture.no_custard import is_choux, is_mirror, part_kind_of
from bellcrumb.words import say

# What is cooked to when nobody says otherwise, degC. Source: craft.
USUAL_C: dict[str, float] = {"caramel": 172.0, "italian": 118.0, "swiss": 72.0}


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
        return caramel(mix, power, altitude_m, target_c or USUAL_C["caramel"])
    if kind == "italian":
        return _italian(mix, power, altitude_m, target_c or USUAL_C["italian"], whites_c)
    if kind == "swiss":
        return swiss(mix, target_c or USUAL_C["swiss"])
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
    assert found.syrup
    start = found.start_whites_c or syrup_c - 6
    cues = (
        *slow_cues(syrup_c),
        Cue(start, say("stove.start_the_whites"), say("stove.whites_on_medium_speed"), "now"),
    )
    steps = [
        ready(say("stove.whites_in_a_clean_bowl_at"), say("stove.a_trace_of_fat_or_yolk")),
        Step(
            "cook",
            "cook",
            say("stove.cook_the_syrup_to_c_2", syrup_c=syrup_c),
            say("stove.a_drop_in_cold_water_rolls_2"),
            say("stove.stopping_at_105_to_110_far"),
            low_c=syrup_c - 0.5,
            high_c=syrup_c + 3,
            never_c=syrup_c + 8,
            caution=HOT_SUGAR,
            there=say("stove.pour_now_in_a_thin_stream"),
            over=say("stove.setting_in_threads"),
            cues=tuple(sorted(cues, key=lambda c: c.from_c)),
        ),
        Step(
            "pour",
            "finish",
            say("stove.pour_it_in_a_thin_stream"),
            say("stove.the_whites_swell_and_shine"),
            say("stove.onto_the_whisk_it_flies_to"),
            caution=HOT_SUGAR,
        ),
        Step(
            "whip",
            "finish",
            say("stove.whip_until_the_bowl_is_only_2"),
            say("stove.glossy_a_birds_beak_that_bends"),
            say("stove.stopping_hot_it_softens_as_it"),
            hold_s=round(found.whip_s + 120),
        ),
        Step(
            "use",
            "finish",
            say("stove.use_it_while_it_is_warm"),
            say("stove.it_pipes_with_a_clean_edge"),
            say("stove.it_waits_badly_an_hour_at"),
            caution=say("stove.lightly_cooked_egg_torch_or_bake"),
        ),
    ]
    syrup = mix.only({"water"}) + Mix(
        tuple(p for p in mix.portions if p.ingredient.category == "sugar")
    )
    rest = Mix(tuple(p for p in mix.portions if p not in syrup.portions))
    return Work(
        "italian",
        say("stove.italian_meringue"),
        steps,
        [
            say("stove.whites_free_of_yolk_at_room"),
            say("stove.bowl_and_whisk_free_of_fat"),
            say("stove.syrup_thermometer_in_reach"),
        ],
        curve=[(t, c) for t, c, _, _ in found.syrup.curve],
        curve_step="cook",
        reaches_s=found.syrup.time_s,
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
                water_g=water or 0.3 * sugar,
            )
        ],
        warnings=[w for w in found.warnings if w != HOT_SUGAR],
    )


def _french(mix: Mix) -> Work:
    found = meringue("french", mix.white_g or 1e-9, mix.added_sugar_g or 1e-9)
    if mix.white_g <= 0 or mix.added_sugar_g <= 0:
        raise CraftError("lines", say("stove.a_french_meringue_needs_whites_and"))
    steps = [
        ready(say("stove.whites_at_room_temperature_sugar_in"), say("stove.fat_or_yolk")),
        Step(
            "soft",
            "finish",
            say("stove.whip_the_whites_to_soft_peaks"),
            say("stove.the_trail_just_stays"),
            say("stove.sugar_too_early_they_stay_low"),
            hold_s=round(whip_s(mix.white_g) * 0.6),
        ),
        Step(
            "sugar",
            "finish",
            say("stove.sugar_in_by_the_spoon_whipping"),
            say("stove.no_grain_between_fingers"),
            say("stove.all_at_once_it_weeps"),
            hold_s=round(whip_s(mix.white_g)),
        ),
        Step(
            "use",
            "finish",
            say("stove.fold_or_bake_at_once"),
            say("stove.stiff_and_glossy"),
            "Waiting.",
            caution=say("stove.raw_white_not_for_those_at"),
        ),
    ]
    return Work(
        "french",
        say("stove.french_meringue"),
        steps,
        [say("stove.bowl_and_whisk_free_of_fat")],
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
    melted = Step(
        "melt",
        "finish",
        say("stove.soak_the_gelatine_melt_it_in"),
        say("stove.liquid_and_clear_no_warmer_than"),
        say("stove.cold_it_falls_into_threads_as"),
    )
    steps = [
        ready(say("stove.cream_bowl_and_whisk_from_the"), say("stove.a_warm_bowl_it_never_stands")),
        *([melted] if gelatine else []),
        Step(
            "whip",
            "finish",
            say("stove.whip_cold_medium_speed"),
            f"{found.peak.capitalize()}.",
            say("stove.too_fast_and_too_long_butter"),
            hold_s=round(found.time_s or 0),
        ),
        Step(
            "use",
            "finish",
            say("stove.use_it_the_same_day_cold"),
            say(
                "stove.stands_about_in_the_cold_in",
                stands_cold_h=_hours(found.stands_cold_h),
                stands_h=_hours(found.stands_h),
            )
            + (say("stove.pipe_it_within_20_minutes_then") if gelatine else ""),
            say("stove.two_to_four_centimetres_on_a"),
        ),
    ]
    return Work(
        "whipped",
        say("stove.whipped_cream"),
        steps,
        [say("stove.cream_at_2_to_6_c"), say("stove.bowl_and_beaters_out_of_the")],
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
