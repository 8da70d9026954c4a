"""The pretended oven: six moulds behind a door, and only the wobble to go by."""

import math
import random
from collections.abc import Sequence

from bellcrumb.heat.materials import food
from bellcrumb.laws.air import ROOM_C
from bellcrumb.laws.egg import WOBBLES
from bellcrumb.oven.body import stirs, wobbles_at_c
from bellcrumb.oven.chamber import AFTER, DOOR_DROP_K
from bellcrumb.oven.run import Bake, Cases, Job
from bellcrumb.oven.scene import Bath, DialStage, Oven, mould_of
from bellcrumb.rehearse.exercises import Exercise
from bellcrumb.rehearse.world import LONGEST_S, Act, Glimpse, Replay, Result, Slip, World
from bellcrumb.stove.guide import Moment
from bellcrumb.texture.coagulation import coagulation
from bellcrumb.texture.families import family
from bellcrumb.vessels.geometry import library
from bellcrumb.words import say

STEP_S = 15.0
AFTER_S = 2400.0
# How set the middle is when it has cooled: under it runs, over it is rubber; and how much of it may
# be past its best.
RUNS, SOFT, FIRM, RUBBER = 0.35, 0.50, 0.93, 0.985
SPOILT_SHARE = 0.35


def _bake(ex: Exercise, seed: int) -> Bake:
    noise = random.Random(seed)
    vessel = library()["ramekin_180"]
    mould = mould_of(vessel, 0.92 * vessel.depth_mm)
    egg = coagulation(ex.mix, family(ex.family_key))
    assert egg is not None
    pan = (325.0, 265.0)
    level = (vessel.depth_mm + mould.wall_mm) / 2
    water = (pan[0] * pan[1] / 1e6 - 6 * mould.foot_m2) * level
    job = Job(
        food(ex.mix), stirs(ex.mix, mould.fill_mm), mould, count=6,
        oven=Oven("static", (DialStage(160.0),)),
        bath=Bath(level, 80.0, False, water_kg=water, pan_mm=pan),
    )  # fmt: skip
    start = ex.from_c + noise.uniform(-4, 4)
    case = Cases.one(start, noise.uniform(-12, 8), wobbles_at_c(ex.mix, egg.ideal_c))
    return Bake(job, case, None, ((math.inf, STEP_S),))


def replay_oven(ex: Exercise, seed: int, acts: Sequence[Act], until_s: float) -> Replay:
    """Run the oven to ``until_s`` with the acts so far; the same seed gives the same oven."""
    run = _bake(ex, seed)
    world = World()
    width = 2 * run.job.mould.half_mm
    queue = list(acts)
    until = min(until_s, LONGEST_S)
    while not world.ended:
        while queue and queue[0].at_s <= run.t_s + STEP_S / 2:
            act = queue.pop(0)
            if act.kind == "look":
                world.glimpse = Glimpse(_loose(run) / width, act.at_s)
                run.chamber.air_c = run.chamber.air_c - DOOR_DROP_K
            elif act.kind == "end":
                world.ended = True
        if world.ended or run.t_s + STEP_S > until:
            break
        run.step()
    world.t_s = min(until, max(run.t_s, until_s)) if not world.ended else run.t_s
    trace = run.trace
    curve = [(float(t), float(c)) for t, c in zip(trace.t_s, trace.centre_c[:, 0], strict=True)]
    world.temp_c = curve[-1][1]
    world.peak_c = max(c for _, c in curve)
    late = run.t_s + STEP_S > LONGEST_S
    moment = Moment(run.t_s, "s", say("rehearse.baking"), next_move=ex.task, urgency="calm")
    if not (world.ended or late):
        return Replay(world, curve, [], moment=moment, figure_word="clock", result=None, says=[])
    result, says, slips = _judge(run, world)
    return Replay(world, curve, slips, moment=moment, figure_word="clock", result=result, says=says)


def _loose(run: Bake) -> float:
    """Width of the loose disc now, mm."""
    share = run.setting.share[0]
    loose = share[: run.deep].min(0) < WOBBLES
    faces = run.body.mesh.r[0, : run.body.columns + 1]
    return float(2000 * faces[1:][loose].max()) if loose.any() else 0.0


def _judge(run: Bake, world: World) -> tuple[Result, list[str], list[Slip]]:
    pulled, disc = run.t_s, _loose(run)
    run.move(AFTER["rack"])
    while run.t_s < pulled + AFTER_S and float(run.field.temp_c.max()) > ROOM_C + 25:
        run.step()
    middle = float(run.least_set[0])
    spoilt = float(run.trace.weeping()[-1])
    world.damage = {"weeping": spoilt, "runny": max(0.0, 1 - middle / SOFT)}
    at = (
        say("rehearse.mm_of_it_still_wobbled", disc=disc)
        if disc
        else say("rehearse.nothing_wobbled_any_more")
    )
    if middle < RUNS:
        said, why = say("rehearse.runny_in_the_middle"), say("rehearse.pulled_too_early", at=at)
        return "spoiled", [f"{said} {why}"], [Slip(pulled, said, why)]
    if spoilt > SPOILT_SHARE or middle > RUBBER:
        said, why = (
            say("rehearse.set_hard_with_bubbles_in_the"),
            say("rehearse.pulled_too_late", at=at),
        )
        return "spoiled", [f"{said} {why}"], [Slip(pulled, said, why)]
    if middle < SOFT:
        said, why = (
            say("rehearse.soft_it_will_not_stand_unmoulded"),
            say("rehearse.a_minute_or_two_early", at=at),
        )
        return "usable", [f"{said} {why}"], [Slip(pulled, said, why)]
    if middle > FIRM:
        said, why = say("rehearse.firm"), say("rehearse.a_few_minutes_late", at=at)
        return "usable", [f"{said} {why}"], [Slip(pulled, said, why)]
    return "good", [say("rehearse.pulled_in_time_and_it_set", at=at)], []
