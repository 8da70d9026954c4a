"""A bake as it is asked: the vessel and how full, the oven, the bath, and where its mix sets."""

import numpy as np

from bellcrumb.asked.vessels import vessel_of
from bellcrumb.errors import CraftError
from bellcrumb.heat.materials import food
from bellcrumb.mix.composition import Mix
from bellcrumb.oven.body import free_water, stirs, tolerates_k, wobbles_at_c
from bellcrumb.oven.pour import at_the_oven_c
from bellcrumb.oven.pull import Baked, Known, bake, cases_of
from bellcrumb.oven.run import Job
from bellcrumb.oven.scene import Bath, DialStage, Mould, Oven, mould_of
from bellcrumb.shapes import oven as shapes
from bellcrumb.texture.coagulation import coagulation
from bellcrumb.texture.families import Doneness, Family, family, standings
from bellcrumb.texture.no_custard import other_than_custard
from bellcrumb.vessels.geometry import Vessel
from bellcrumb.vessels.tray import GAP_MM, LEAST_UNDER_RIM_MM, RIM_MM
from bellcrumb.vessels.tray import bath as stand
from bellcrumb.words import say

# Starch cream baked again: share of corn starch (equivalent) that holds it, and where its middle is
# when it just holds. Our estimate, from 18 to 35 min at 175 degC poured hot.
_STARCH_HOLDS, _REBAKED_C = 0.02, 86.0
# How warm a mix goes into its mould when nobody says: one boiled just before is poured hot.
_ROOM_C, _POURED_C = 20.0, {"sugar_cream": 75.0}
_LEAST_FILL = 0.12  # a batch that fills less is for another number of vessels
_GAP_MM = 2 * GAP_MM  # two fingers between, where no pan was given
_PAN_MM2 = 325.0 * 265.0
_BESIDE_MM = 20.0  # water in a tray of its own; practice: two fingers


def filled(
    given: "shapes.FilledIn | str",
    fill: float | None,
    own: dict[str, Vessel] | None,
    batch_ml: float = 0.0,
) -> tuple[Vessel, float]:
    """A vessel and how deep the custard stands in it, mm.

    Where no depth is given it is what ``batch_ml`` (in each) reaches, and three quarters where the
    batch is for another number of vessels (``not_for_these`` says so). Raises CraftError when it
    runs over.
    """
    vessel = vessel_of(given, own)
    told = None if isinstance(given, str) else given
    if told and told.fill_mm is not None:
        if told.fill_mm > vessel.depth_mm:
            raise CraftError(
                "vessel.fill_mm",
                say("asked.it_runs_over_the_vessel_is", depth_mm=vessel.depth_mm),
            )
        return vessel, told.fill_mm
    if told and told.fill_ml is not None:
        if told.fill_ml > vessel.brim_ml:
            raise CraftError(
                "vessel.fill_ml",
                say("asked.it_runs_over_the_vessel_holds", brim_ml=vessel.brim_ml),
            )
        return vessel, vessel.level_of(told.fill_ml) * vessel.depth_mm
    if isinstance(given, str) and fill is not None:
        return vessel, fill * vessel.depth_mm
    if _LEAST_FILL * vessel.brim_ml <= batch_ml <= vessel.brim_ml:
        return vessel, vessel.level_of(batch_ml) * vessel.depth_mm
    return vessel, 0.75 * vessel.depth_mm


def not_for_these(
    given: "shapes.FilledIn | str", fill: float | None, own: dict[str, Vessel] | None,
    batch_ml: float,
) -> list[str]:  # fmt: skip
    """That the depth was assumed, because the batch is not for so many of this vessel."""
    vessel = vessel_of(given, own)
    told = fill is not None if isinstance(given, str) else given.fill_mm or given.fill_ml
    if told or _LEAST_FILL * vessel.brim_ml <= batch_ml <= vessel.brim_ml:
        return []
    word = (
        say("asked.runs_over")
        if batch_ml > vessel.brim_ml
        else say("asked.hardly_covers_the_floor")
    )
    return [
        say(
            "asked.all_of_it_ml_in_each",
            word=word,
            batch_ml=batch_ml,
            brim_ml=vessel.brim_ml,
            depth_mm=0.75 * vessel.depth_mm,
        )
    ]


def oven_family(mix: Mix, key: str | None) -> Family:
    """The family asked for, or the nearest that goes into the oven. Raises CraftError for a dough,
    a caramel or a glaze: an egg custard's minutes would be said of it."""
    other = None if key else other_than_custard(mix)
    if other and other.kind != "meringue":
        raise CraftError("mix.lines", say("asked.reads_as_no_custard_that_sets", other=other.name))
    if key:
        return family(key)
    near = standings(mix)
    if near[0].family.key in _POURED_C:  # boiled, and baked again
        return near[0].family
    return next((s.family for s in near if not s.family.on_the_stove), near[0].family)


def pulled_by(given: shapes.BakeIn, kin: Family) -> Doneness:
    """The sign a bake is pulled by: as asked, else as its family is usually judged."""
    return given.doneness or kin.judged_by


def poured_c(told_c: float | None, kin: Family) -> float:
    """How warm a mix is poured: as told, else as it usually is, degC."""
    return _POURED_C.get(kin.key, _ROOM_C) if told_c is None else told_c


def goes_in_c(told_c: float | None, kin: Family, job: Job) -> float:
    """How warm it goes in, degC: several moulds in a pan of water have stood while they were
    filled; what is poured on the oven's shelf has not."""
    poured = poured_c(told_c, kin)
    return poured if job.bath is None else at_the_oven_c(poured, job.mould, job.food)


def stops_wobbling_c(mix: Mix, kin: Family) -> float:
    """Where this mix stops wobbling on an ordinary climb; a boiled starch cream that is baked again
    just holds when it is hot through. Raises CraftError without egg and without starch."""
    egg = coagulation(mix, kin)
    if egg is None and mix.corn_equivalent_g > _STARCH_HOLDS * mix.mass_g:
        return _REBAKED_C
    if egg is None:
        raise CraftError("mix.lines", say("asked.there_is_no_egg_in_this"))
    return wobbles_at_c(mix, egg.ideal_c)


def job_of(
    mix: Mix, kin: Family, given: shapes.BakeIn, vessels: dict[str, Vessel] | None
) -> tuple[Job, Mould, float | None]:
    """What to bake, its mould, and the water to pour, ml. Raises CraftError."""
    vessel, fill_mm = filled(given.vessel, given.fill, vessels, mix.volume_ml / given.count)
    crust = given.crust
    mould = mould_of(
        vessel, fill_mm, crust=crust.kind if crust else None, crust_mm=crust.mm if crust else None
    )
    stages = tuple(DialStage(s.set_c, s.minutes) for s in given.oven.stages)
    if not stages and given.oven.set_c is None:
        raise CraftError("oven.set_c", say("asked.what_is_the_oven_set_to"))
    if given.oven.set_c is not None and stages:
        raise CraftError("oven.stages", say("asked.give_one_setting_or_stages_one"))
    if not stages:
        assert given.oven.set_c is not None
        stages = (DialStage(given.oven.set_c),)
    oven = Oven(
        given.oven.kind, stages, given.oven.offset_k, altitude_m=given.altitude_m,
        stand=given.oven.stand, preheated=given.oven.preheated, film=given.oven.film,
        vent=given.oven.vent, door_min=tuple(given.oven.door_min), recovers=given.oven.recovers,
    )  # fmt: skip
    bath, poured = None, None
    if given.bath is not None:
        bath, poured = _bath(vessel, mould, given, vessels)
    job = Job(
        food(mix), stirs(mix, fill_mm), mould, count=given.count, oven=oven, bath=bath,
        tolerates_k=tolerates_k(mix), boils_c=mix.boils_c(given.altitude_m),
        water=free_water(mix, boiled=kin.texture_mode == "boiled_baked"),
    )  # fmt: skip
    return job, mould, poured


def _bath(
    vessel: Vessel, mould: Mould, given: shapes.BakeIn, vessels: dict[str, Vessel] | None
) -> tuple[Bath, float]:
    asked = given.bath
    assert asked is not None
    if asked.level == "beside":
        pan = vessel_of(given.tray, vessels, "tray") if given.tray is not None else None
        length, width = pan.across(0.5) if pan else (_PAN_MM2**0.5, _PAN_MM2**0.5)
        litres = length * width * _BESIDE_MM / 1e6
        return Bath(
            _BESIDE_MM, asked.water_c, False, water_kg=litres, pan_mm=(length, width), beside=True
        ), (1000 * litres)
    outside = vessel.depth_mm + mould.wall_mm
    if given.tray is not None:
        pan = vessel_of(given.tray, vessels, "tray")
        stood = stand(pan, vessel, given.count, asked.level)
        size = tuple((a + b) / 2 for a, b in zip(pan.across(0.0), pan.across(1.0), strict=True))
        share = min(given.count, stood.per_pan) / given.count
        return Bath(
            stood.level_mm, asked.water_c, asked.covered, water_kg=stood.water_ml / 1000 / share,
            pan_mm=(size[0] / share, size[1]),
        ), stood.water_ml  # fmt: skip
    level = asked.level
    level_mm = {"half": outside / 2, "rim": outside - RIM_MM}.get(str(level), 0.0)
    if not isinstance(level, str):
        level_mm = float(level)
    if level_mm > outside - LEAST_UNDER_RIM_MM:
        raise CraftError("bath.level", say("asked.the_water_would_run_into_the", outside=outside))
    # No pan given: half a gastronorm, or one that holds them with two fingers between.
    each = (2 * np.sqrt(mould.foot_m2 / np.pi) * 1000 + _GAP_MM) ** 2
    area = max(each * given.count, _PAN_MM2)
    side = float(np.sqrt(area / 12))
    water = (area - mould.foot_m2 * given.count * 1e6) * level_mm / 1e6
    return Bath(
        level_mm, asked.water_c, asked.covered, water_kg=float(water), pan_mm=(4 * side, 3 * side)
    ), 1000 * float(water)


def predicted(
    mix: Mix, given: shapes.BakeIn, vessels: dict[str, Vessel] | None
) -> tuple[Baked, float | None, float, Family]:
    """A bake as asked, run: what is found, the water to pour in ml, where the mix stops wobbling in
    degC, and its family. Raises CraftError."""
    kin = oven_family(mix, given.family)
    job, _, poured = job_of(mix, kin, given, vessels)
    start = goes_in_c(given.mix.temp_c, kin, job)
    set_c = stops_wobbling_c(mix, kin)
    hottest = max(s.set_c for s in job.oven.stages) + job.oven.offset_k
    if hottest <= max(start, set_c - 3):
        raise CraftError("oven.set_c", say("asked.this_oven_is_too_cool_the", set_c=set_c))
    if start > set_c - 2:
        raise CraftError("mix.temp_c", say("asked.at_c_it_has_set_before", start=start))
    known = Known(start=given.mix.temp_c is not None, oven=given.oven.known)
    cases = cases_of(start, job.oven.offset_k, set_c, known)
    return bake(job, cases, pulled_by(given, kin), given.after), poured, set_c, kin
