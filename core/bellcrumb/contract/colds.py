"""Cooling at the front door."""

import math

from bellcrumb.cold.cooling import AIRS, Cooling, cool, release_s, split_into
from bellcrumb.contract.build import reason_out
from bellcrumb.contract.formulas import mix_asked
from bellcrumb.contract.ovens import filled, not_for_these
from bellcrumb.contract.shapes import oven as shapes
from bellcrumb.heat.materials import food
from bellcrumb.laws.safety import COOLING, DATE_MARK_DAYS, CoolingRule
from bellcrumb.mix.composition import Mix
from bellcrumb.oven.scene import mould_of
from bellcrumb.texture.families import family, standings
from bellcrumb.vessels.geometry import Vessel

WORDS = {
    "bench": "on the bench",
    "fridge": "in the refrigerator",
    "still_fridge": "in a still refrigerator",
    "ice_bath": "in an ice bath, then the refrigerator",
    "stirred_ice_bath": "stirred over ice, then the refrigerator",
    "blast": "in the blast chiller",
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
    found = cool(stuff, mould, start, given.method, given.covered, rule, given.air_c)
    kin = family(given.family) if given.family else standings(mix)[0].family
    days = min(kin.keep_days[1], DATE_MARK_DAYS) if given.keep_days is None else given.keep_days
    warnings = list(said)
    if given.mix.temp_c is not None and given.mix.temp_c < rule.from_c:
        warnings.append(
            f"The clock starts at {rule.from_c:g} °C; this is already at {start:g} °C. Time it "
            "spent cooling before counts too."
        )
    if not given.covered:
        warnings.append("Open, it cools a little faster and makes a skin: film on the surface.")
    if given.method == "bench":
        warnings.append("The bench never brings it under 21 °C: an hour there at most.")
    points = found.curve
    stride = max(1, len(points) // _MOST_POINTS)
    cold = next((t for t, _, mean in points if mean <= COLD_ENOUGH_C), None)
    split = None if found.complies else split_into(mould, found.deepest_mm)
    blow = AIRS[given.method]
    air_c = blow.temp_c if given.air_c is None else given.air_c
    usual = "57 to 21 °C in 2 h and on to 5 °C in 4 h more"
    reason = reason_out(
        f"{fill_mm:.0f} mm deep from {start:g} °C {WORDS[given.method]}: air at {air_c:g} °C "
        f"taking {blow.h:g} W from each m² and K.",
        "conduction in the container, the warmest place judged; "
        + (usual if rule == COOLING else "the kitchen's own rule"),
        "Choi & Okos 1986; Food Code 3-501.14. The local code comes first",
        "±25 %: refrigerators differ most; put a probe in the middle",
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
        release_s=release_s(stuff, mould) if not kin.on_the_stove else None,
        says=_says(found, given, rule, split),
        reasons=[reason],
        warnings=warnings,
    )


def _or_none(value: float) -> float | None:
    return value if math.isfinite(value) else None


def _clock(minutes: float) -> str:
    return f"{int(minutes // 60)} h {minutes % 60:02.0f}" if minutes >= 60 else f"{minutes:.0f} min"


def _says(found: Cooling, given: shapes.CoolIn, rule: CoolingRule, split: int | None) -> str:
    where = WORDS[given.method]
    if found.complies:
        return (
            f"Passes {where}: {rule.mid_c:g} °C after {_clock(found.to_mid_min)}, "
            f"{rule.end_c:g} °C after {_clock(found.to_end_min)}."
        )
    late = (
        f"{rule.mid_c:g} °C after {_clock(found.to_mid_min)}, {_clock(rule.mid_min)} allowed"
        if found.to_mid_min > rule.mid_min and math.isfinite(found.to_mid_min)
        else f"{rule.end_c:g} °C too late"
    )
    if split is None:
        return f"Does not pass {where}: {late}. No depth does: ice or a blast chiller."
    return (
        f"Does not pass {where}: {late}. At most {found.deepest_mm:.0f} mm deep: split it into "
        f"{split}."
    )
