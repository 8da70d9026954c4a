"""Crusts at the front door: blind baking and the soggy clock."""

from bellcrumb.asked.lines import read_lines
from bellcrumb.dessert.works import kind_of_dough
from bellcrumb.formula.answer import mix_of
from bellcrumb.oven.crust import OWN_SCHOOL, blind_bake, soggy_clock, usual_mm
from bellcrumb.pantry.eggs import egg_grade
from bellcrumb.pantry.pantry import Pantry
from bellcrumb.reasons import Reason
from bellcrumb.shapes import oven as shapes
from bellcrumb.words import say


def crust(given: shapes.CrustIn, pantry: Pantry | None = None) -> shapes.CrustOut:
    """How a crust is baked blind, and how long it stays crisp once filled. Raises CraftError."""
    dough = _dough(given, pantry)
    own = tuple(OWN_SCHOOL.values())
    asked = "weights" if dough and given.school in own else given.school
    school = OWN_SCHOOL.get(dough or "", asked)
    mm = usual_mm(school) if given.dough_mm is None else given.dough_mm
    baked = blind_bake(school, given.goes, mm, given.offset_k, given.fan, given.width_mm)
    soggy = soggy_clock(given.barrier, given.wetness, given.filled_at_c, mm)
    return shapes.CrustOut(
        **vars(baked),
        dough=dough,
        school=school,
        dough_mm=mm,
        crisp_h=list(soggy.crisp_h),
        soft_h=list(soggy.soft_h),
        soggy=soggy.says,
        reasons=[
            Reason(
                say("contract.mm_of_dough_the_school_of", mm=mm, school=school.replace("_", " ")),
                say("contract.craft_minutes_longer_with_thickness_half"),
                say("contract.blind_baking_reference_practice"),
                sure=say("contract.the_sign_decides_the_minutes_are"),
            ),
            Reason(
                say("contract.water_from_the_filling_into_mm", mm=mm),
                say("contract.diffusion_4_at_first_crisp_to"),
                say("contract.literature_on_biscuits_and_sponge_3e"),
                sure=say("contract.the_order_of_the_barriers_is"),
            ),
        ],
    )


def _dough(given: shapes.CrustIn, pantry: Pantry | None) -> str | None:
    """Which dough the lines are; None without any."""
    if not given.lines:
        return None
    mix = mix_of(read_lines(given.lines, egg_grade(given.egg_grade), pantry, "lines"))
    return kind_of_dough(mix) if mix.mass_g else None
