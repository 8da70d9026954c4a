"""Cooling at the front door."""

import math

from bellcrumb.asked.bakes import filled, not_for_these
from bellcrumb.asked.lines import mix_asked
from bellcrumb.cold.cooling import AIRS, Cooling, cool, release_s, split_into
from bellcrumb.heat.materials import food
from bellcrumb.laws.safety import COOLING, DATE_MARK_DAYS, CoolingRule
from bellcrumb.mix.composition import Mix
from bellcrumb.oven.scene import mould_of
from bellcrumb.reasons import Reason
from bellcrumb.shapes import oven as shapes
from bellcrumb.texture.families import family, standings
from bellcrumb.vessels.geometry import Vessel
from bellcrumb.words import say

WORDS = {
    "bench": say("contract.on_the_bench"),
    "fridge": say("contract.in_the_refrigerator"),
    "still_fridge": say("contract.in_a_still_refrigerator"),
    "ice_bath": say("contract.in_an_ice_bath_then_the"),
    "stirred_ice_bath": say("contract.stirred_over_ice_then_the_refrigerator"),
    "blast": say("contract.in_the_blast_chiller"),
}
_MOST_POINTS = 240
COLD_ENOUGH_C = 8.0  # cut or unmould it colder than this


def cooled(given: shapes.CoolIn, vessels: dict[str, Vessel] | None = None) -> shapes.CoolOut:
    """Cool a mix in a container; ``vessels`` adds a kitchen's own. Raises CraftError."""
    mix, said = mix_asked(given.mix, "mix.")
    return cool_mix(mix, given, said, vessels)


def cool_mix(
    mix: Mix, given: shapes.CoolIn, said: list[str], vessels: dict[str, Vessel] | None
) -> shapes.CoolOut:
    """``cooled`` of a mix already understood."""
    vessel, fill_mm = filled(given.vessel, given.fill, vessels, mix.volume_ml)
    said = [*said, *not_for_these(given.vessel, given.fill, vessels, mix.volume_ml)]
    mould = mould_of(vessel, fill_mm)
    start = given.rule.from_c if given.mix.temp_c is None else given.mix.temp_c
    rule = CoolingRule(**given.rule.model_dump())
    stuff = food(mix)
    kin = family(given.family) if given.family else standings(mix)[0].family
    still = given.method == "stirred_ice_bath" and not kin.on_the_stove
    method = "ice_bath" if still else given.method
    found = cool(stuff, mould, start, method, given.covered, rule, given.air_c)
    days = min(kin.keep_days[1], DATE_MARK_DAYS) if given.keep_days is None else given.keep_days
    warnings = list(said)
    if still:
        warnings.append(say("contract.baked_it_cannot_be_stirred", family=kin.name))
    if given.mix.temp_c is not None and given.mix.temp_c < rule.from_c:
        warnings.append(say("contract.the_clock_starts_at_c_this", from_c=rule.from_c, start=start))
    if not given.covered:
        warnings.append(say("contract.open_it_cools_a_little_faster"))
    if method == "bench":
        warnings.append(say("contract.the_bench_never_brings_it_under"))
    points = found.curve
    stride = max(1, len(points) // _MOST_POINTS)
    cold = next((t for t, _, mean in points if mean <= COLD_ENOUGH_C), None)
    split = None if found.complies else split_into(mould, found.deepest_mm)
    blow = AIRS[method]
    air_c = blow.temp_c if given.air_c is None else given.air_c
    usual = say("contract.57_to_21_c_in_2")
    reason = Reason(
        say(
            "contract.mm_deep_from_c_air_at",
            fill_mm=fill_mm,
            start=start,
            words=WORDS[method],
            air_c=air_c,
            h=blow.h,
        ),
        say("contract.conduction_in_the_container_the_warmest")
        + (usual if rule == COOLING else say("contract.the_kitchens_own_rule")),
        say("contract.choi_okos_1986_food_code_3"),
        sure=say("contract.25_refrigerators_differ_most_put_a"),
    )
    return shapes.CoolOut(
        to_21_min=_or_none(found.to_mid_min),
        to_5_min=_or_none(found.to_end_min),
        complies=found.complies,
        max_depth_mm=found.deepest_mm,
        split_into=split,
        depth_mm=fill_mm,
        curve=[
            shapes.CoolPoint(t_min=round(t, 1), warmest_c=round(w, 2), mean_c=round(m, 2))
            for t, w, m in [*points[::stride], points[-1]]
        ],
        cold_enough_min=cold,
        chill_h=list(kin.chill_h),
        keep_days=days,
        ice_kg=found.ice_kg,
        can_be_stirred=kin.on_the_stove,
        release_s=release_s(stuff, mould) if not kin.on_the_stove else None,
        says=_says(found, WORDS[method], rule, split),
        reasons=[reason],
        warnings=warnings,
    )


def _or_none(value: float) -> float | None:
    return value if math.isfinite(value) else None


def _clock(minutes: float) -> str:
    return (
        say("contract.h", minutes=int(minutes // 60), minutes_2=minutes % 60)
        if minutes >= 60
        else say("contract.min", minutes=minutes)
    )


def _says(found: Cooling, where: str, rule: CoolingRule, split: int | None) -> str:
    if found.complies:
        return say(
            "contract.passes_c_after_c_after",
            where=where,
            mid_c=rule.mid_c,
            to_mid_min=_clock(found.to_mid_min),
            end_c=rule.end_c,
            to_end_min=_clock(found.to_end_min),
        )
    late = (
        say(
            "contract.c_after_allowed",
            mid_c=rule.mid_c,
            to_mid_min=_clock(found.to_mid_min),
            mid_min=_clock(rule.mid_min),
        )
        if found.to_mid_min > rule.mid_min and math.isfinite(found.to_mid_min)
        else say("contract.c_too_late", end_c=rule.end_c)
    )
    if split is None:
        return say("contract.does_not_pass_no_depth_does", where=where, late=late)
    return say(
        "contract.does_not_pass_at_most_mm",
        where=where,
        late=late,
        deepest_mm=found.deepest_mm,
        split=split,
    )
