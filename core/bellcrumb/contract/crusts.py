"""Crusts at the front door: blind baking and the soggy clock."""

from bellcrumb.contract.build import read_lines, reason_out
from bellcrumb.contract.shapes import oven as shapes
from bellcrumb.dessert.works import kind_of_dough
from bellcrumb.formula.answer import mix_of
from bellcrumb.oven.crust import OWN_SCHOOL, blind_bake, soggy_clock, usual_mm
from bellcrumb.pantry.eggs import egg_grade
from bellcrumb.pantry.ingredients import Pantry


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
        dough=dough,
        school=school,
        dough_mm=mm,
        stages=[shapes.CrustStage(**vars(s)) for s in baked.stages],
        how_far=baked.how_far,
        cool_min=baked.cool_min,
        shield=baked.shield,
        crisp_h=list(soggy.crisp_h),
        soft_h=list(soggy.soft_h),
        soggy=soggy.says,
        reasons=[
            reason_out(
                f"{mm:g} mm of dough, the school of {school.replace('_', ' ')}.",
                "craft minutes, longer with thickness, half as long 35 K hotter",
                "blind baking reference; practice",
                "the sign decides, the minutes are from practice",
            ),
            reason_out(
                f"Water from the filling into {mm:g} mm of crust on its tin.",
                "diffusion, 4 % at first, crisp to 8 %, soft at 12 %; three diffusivities",
                "literature on biscuits and sponge, 3e-11 to 3e-10 m2/s; barriers estimated",
                "the order of the barriers is sure, the hours within three times",
            ),
        ],
    )


def _dough(given: shapes.CrustIn, pantry: Pantry | None) -> str | None:
    """Which dough the lines are; None without any."""
    if not given.lines:
        return None
    mix = mix_of(read_lines(given.lines, egg_grade(given.egg_grade), pantry, "lines"))
    return kind_of_dough(mix) if mix.mass_g else None
