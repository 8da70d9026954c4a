"""The guide of a bake: its steps, and what it says while the custard is in the oven."""

from dataclasses import KW_ONLY, dataclass
from typing import Literal

from bellcrumb.curve.watch import STALE_S, Watch, rate_k_per_min
from bellcrumb.oven.school import AFTERS, After
from bellcrumb.stove.guide import Moment, Urgency
from bellcrumb.stove.steps import Step
from bellcrumb.words import say

LOOK_AHEAD_S = 240  # the alarm comes before the window, not at it
LATE_S = 90


@dataclass(frozen=True)
class BakePlan:
    """What the steps are made from: what is seen when it is there and before it goes in, the
    window in s, the probe in it, the water, and whether it stands on the oven's shelf or floor."""

    sign: str
    before: str
    after: After
    _: KW_ONLY
    from_s: float
    to_s: float
    probe_from_c: float
    probe_to_c: float
    oven_words: str
    water_words: str
    bath: bool
    place: str = "shelf"


def bake_steps(plan: BakePlan) -> list[Step]:
    """From the tray on the table to the rack."""
    place = say("oven.floor") if plan.place == "floor" else say("oven.shelf")
    steps = [
        Step(
            "ready",
            "ready",
            say("oven.before_the_oven"),
            sign=plan.before,
            avoid=say("oven.a_mix_that_waits_warm_sets"),
        ),
        Step(
            "fill",
            "finish",
            say("oven.on_the_oven", place=place, water_words=plan.water_words)
            if plan.bath
            else say("oven.on_the_oven_level", place=place),
            sign=say("oven.not_a_drop_of_water_in")
            if plan.bath
            else say("oven.filled_where_it_stands"),
            avoid=say("oven.a_door_open_long_costs_30"),
            caution=say("oven.a_tray_of_hot_water_is") if plan.bath else "",
        ),
        Step(
            "cook",
            "bake",
            say("oven.in_the_oven", oven_words=plan.oven_words),
            sign=plan.sign,
            avoid=say("oven.poking_a_finger_in_ruins_the"),
            low_c=round(plan.probe_from_c, 1),
            high_c=round(plan.probe_to_c, 1),
            there=say("oven.pull_it") + plan.sign,
            from_s=round(plan.from_s),
            to_s=round(plan.to_s),
        ),
        Step(
            "out",
            "finish",
            say("oven.oven_off_it_stays_in")
            if plan.after == "oven_off"
            else say("oven.out_and", afters=AFTERS[plan.after]),
            sign=say("oven.it_goes_on_setting_by_itself"),
            avoid=say("oven.it_looks_too_soft_now_that"),
            caution=say("oven.hot_water_in_the_pan_moulds")
            if plan.bath
            else say("oven.the_tin_is_at_oven_heat"),
        ),
        Step(
            "cool",
            "cool",
            say("oven.let_it_cool"),
            sign=say("oven.the_mould_can_be_held"),
            avoid=say("oven.covered_while_hot_it_drips_on"),
            high_c=30.0,
            there=say("oven.cool_enough_film_on_it_into"),
        ),
    ]
    return steps


def bake_moment(step: Step, watch: Watch, elapsed_s: float, fresh: bool) -> Moment:
    """What is said while it bakes. ``watch`` began when it went in, ``fresh`` is whether the
    last reading still counts; without one the clock decides.
    """
    temp = watch.last[1] if watch.last and fresh else None
    rate = rate_k_per_min(watch.recent, 240.0) if temp is not None else None
    left = step.from_s - elapsed_s
    figure = temp if temp is not None else abs(left)
    unit: Literal["c", "s"] = "c" if temp is not None else "s"
    low, high = step.low_c or 200.0, step.high_c or 200.0
    at_probe = temp is not None and temp >= low - 0.2
    by_probe = None
    if temp is not None and rate and rate > 0.05:
        by_probe = max(0.0, 60 * (low - temp) / rate)

    def moment(headline: str, words: str, urgency: Urgency, done: bool) -> Moment:
        return Moment(
            figure, unit, headline, next_move=words, urgency=urgency,
            rate_k_per_min=rate, to_target_s=max(0.0, left), done=done,
        )  # fmt: skip

    if temp is not None and temp > high + 1.5:
        return moment(say("oven.too_far"), say("oven.out_now_and_into_cold_air"), "wrong", True)
    if temp is None and elapsed_s > step.to_s + LATE_S:
        return moment(
            say("oven.over_the_time"), say("oven.out_now_whatever_it_looks_like"), "wrong", True
        )
    if at_probe or (temp is None and left <= 0):
        return moment(say("oven.pull_it_2"), step.there, "now", True)
    soon = left <= LOOK_AHEAD_S or (by_probe is not None and by_probe <= LOOK_AHEAD_S)
    if soon:
        return moment(say("oven.soon"), say("oven.cloths_dry_rack_free_open_and"), "soon", False)
    return moment(say("oven.baking"), say("oven.leave_the_door_shut"), "calm", False)


def is_fresh(watch: Watch, now_s: float, stale_s: float = STALE_S) -> bool:
    """Whether the last reading still counts."""
    return watch.last_s is not None and now_s - watch.last_s <= stale_s
