"""The guide of a bake as the cook follows it: its steps, its prediction, its simulated oven."""

from bellcrumb.contract.open.cooking import (
    BakePlan,
    bake_steps,
    before_of,
    drawn_before,
    oven_family,
    poured_c,
    sign_of,
)
from bellcrumb.contract.open.food import Family, boils_c
from bellcrumb.contract.ovens import bake_mix
from bellcrumb.errors import CraftError
from bellcrumb.shapes import CurvePoint
from bellcrumb.shapes.oven import BakeIn, BakeOut, BakePoint
from bellcrumb.words import say
from formulas.content import Baking, Content
from formulas.guide_shapes import CurveOut, PlaceOut, PlanOut, Scene
from formulas.oven import bake_in, filled_of, oven_of, renamed, said_of
from kitchen.access import vessels_of
from kitchen.lessons import OF_AN_OVEN, lessons_of
from kitchen.models import Kitchen, Oven

# No oven is exactly its dial and no mix quite as warm as thought: a simulated one neither.
_SIMULATED_OVEN_K, _SIMULATED_START_K = -6.0, -2.0


def bake_plan_of(kitchen: Kitchen, content: Content, kind: str) -> PlanOut:
    """The guide of a bake, as the cook follows it. Raises CraftError at a field of the content."""
    oven = oven_of(kitchen, content.baking)
    own = vessels_of(kitchen)
    mix, vessel, share, given = filled_of(kitchen, content, kind, own)
    lessons = lessons_of(kitchen, OF_AN_OVEN, oven.name)
    asked = bake_in(kitchen, content, oven, share, given, False, lessons)
    kin = oven_family(mix, content.family or None)
    unlearned = bake_in(kitchen, content, oven, share, given, False)
    try:
        found = bake_mix(mix, asked, [], own)
        truth = bake_mix(mix, _with_simulated_error(unlearned, kin), [], own)
    except CraftError as error:
        raise renamed(error) from error
    if found.pull_from_min is None or found.pull_to_min is None:
        raise CraftError("baking.set_c", found.warnings[0])
    b = content.baking
    name = vessel.name.lower()
    steps = bake_steps(
        BakePlan(
            sign=sign_of(kin, found.doneness),
            before=before_of(kin),
            after=b.after,
            from_s=60 * found.pull_from_min,
            to_s=60 * found.pull_to_min,
            probe_from_c=found.probe_from_c or 200,
            probe_to_c=found.probe_to_c or 200,
            oven_words=say("formulas.dial_at_c", oven=oven.name, set_c=b.set_c),
            water_words=_water_words(found, content),
            bath=asked.bath is not None,
            place="floor" if b.stand == "deck" else "shelf",
        )
    )
    points = [CurvePoint(t_s=60 * p.t_min, temp_c=p.centre_c) for p in found.curve]
    return PlanOut(
        family=kin.name,
        guide="bake",
        ring=oven.name,
        learned=said_of(lessons, asked, found),
        boil_c=boils_c(kitchen.altitude_m),
        thickens_c=found.set_c,
        pot=PlaceOut(grams=mix.mass_g, words=[f"{content.vessel_count} × {name}"]),
        bowl=PlaceOut(grams=0, words=[]),
        finish=PlaceOut(grams=0, words=[]),
        ladder=None,
        steps=steps,
        heat=None,
        cook=CurveOut(
            points=points, thickens_s=None, reaches_s=60 * found.pull_from_min,
            overshoot_k=found.carry_over_k or 0,
        ),
        cook_from_c=found.curve[0].centre_c,
        scorch="low",
        scenes=[_scene("cook", truth.curve), _scene("out", truth.after)],
        warnings=found.warnings,
        checks=[*drawn_before(mix, kin), *_checks(oven, b, found)],
        egg_from="cook",
        content=content.dict(),
    )  # fmt: skip


def _with_simulated_error(asked: BakeIn, kin: Family) -> BakeIn:
    oven = asked.oven.model_copy(update={"offset_k": asked.oven.offset_k + _SIMULATED_OVEN_K})
    start = poured_c(asked.mix.temp_c, kin)
    mix = asked.mix.model_copy(update={"temp_c": start + _SIMULATED_START_K})
    return asked.model_copy(update={"oven": oven, "mix": mix})


def _scene(step: str, curve: list[BakePoint]) -> Scene:
    first = curve[0].t_min if curve else 0.0
    return Scene(
        step=step, mass_g=1, cp_j_per_gk=4, boil_c=100, thickens_c=200, power_w=0, fuel="gas",
        from_c=curve[0].centre_c if curve else 20, stirring="none", pot_mm=0, pot_g=0, kind="bake",
        points=[CurvePoint(t_s=60 * (p.t_min - first), temp_c=p.centre_c) for p in curve],
        bath_points=[
            CurvePoint(t_s=60 * (p.t_min - first), temp_c=p.bath_c)
            for p in curve if p.bath_c is not None
        ],
        air_points=[CurvePoint(t_s=60 * (p.t_min - first), temp_c=p.oven_c) for p in curve],
    )  # fmt: skip


def _water_words(found: BakeOut, content: Content) -> str:
    if found.water_ml is None or found.level_mm is None:
        return ""
    return say(
        "formulas.l_of_water_at_c_mm",
        water_ml=found.water_ml / 1000,
        water_c=content.baking.water_c,
        level_mm=found.level_mm,
    )


def _checks(oven: Oven, b: Baking, found: BakeOut) -> list[str]:
    dial = b.first_c if b.first_c is not None else b.set_c
    heat = say("formulas.at_c_for_half_an_hour", oven=oven.name, dial=dial)
    if not b.preheated:
        heat = say("formulas.cold_and_turned_to_c_as", oven=oven.name, dial=dial)
    said = [heat, say("formulas.strained_bubbles_skimmed")]
    if found.water_ml is not None:
        said.append(
            say("formulas.kettle_l_at_c", water_ml=found.water_ml / 1000, water_c=b.water_c)
        )
        said += [
            say("formulas.tray_with_a_cloth_under_the"),
            say("formulas.dry_cloths_a_rack_free"),
        ]
    if b.crust:
        said.append(say("formulas.crust_baked_pale_no_crack_in"))
    if b.covered:
        said.append(say("formulas.foil_with_a_hole_for_the"))
    return said
