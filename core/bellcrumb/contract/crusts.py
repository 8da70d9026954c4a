"""Crusts at the front door: blind baking and the soggy clock."""

from bellcrumb.contract.build import reason_out
from bellcrumb.contract.shapes import oven as shapes
from bellcrumb.oven.crust import blind_bake, soggy_clock


def crust(given: shapes.CrustIn) -> shapes.CrustOut:
    """How a crust is baked blind, and how long it stays crisp once filled. Raises CraftError."""
    baked = blind_bake(
        given.school, given.goes, given.dough_mm, given.offset_k, given.fan, given.width_mm
    )
    soggy = soggy_clock(given.barrier, given.wetness, given.filled_at_c, given.dough_mm)
    return shapes.CrustOut(
        stages=[shapes.CrustStage(**vars(s)) for s in baked.stages],
        how_far=baked.how_far,
        cool_min=baked.cool_min,
        shield=baked.shield,
        crisp_h=list(soggy.crisp_h),
        soft_h=list(soggy.soft_h),
        soggy=soggy.says,
        reasons=[
            reason_out(
                f"{given.dough_mm:g} mm of dough, the school of {given.school.replace('_', ' ')}.",
                "craft minutes, longer with thickness, half as long 35 K hotter",
                "blind baking reference; practice",
                "the sign decides, the minutes are from practice",
            ),
            reason_out(
                f"Water from the filling into {given.dough_mm:g} mm of crust on its tin.",
                "diffusion, 4 % at first, crisp to 8 %, soft at 12 %; three diffusivities",
                "literature on biscuits and sponge, 3e-11 to 3e-10 m2/s; barriers estimated",
                "the order of the barriers is sure, the hours within three times",
            ),
        ],
    )
