"""The guide of a bake: its steps, and what it says while the custard is in the oven."""

from dataclasses import dataclass

from bellcrumb.curve.watch import STALE_S, Watch, rate_k_per_min
from bellcrumb.oven.school import AFTERS, After
from bellcrumb.stove.guide import Moment
from bellcrumb.stove.steps import Step

LOOK_AHEAD_S = 240  # the alarm comes before the window, not at it
LATE_S = 90


@dataclass(frozen=True)
class BakePlan:
    """What the steps are made from: what is seen when it is there and before it goes in, the
    window in s, the probe in it, the water, and whether it stands on the oven's shelf or floor."""

    sign: str
    before: str
    after: After
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
    steps = [
        Step("ready", "ready", "Before the oven", plan.before,
             "A mix that waits warm sets a skin.", there=""),
        Step("fill", "finish",
             f"On the oven {plan.place}: {plan.water_words}"
             if plan.bath else f"On the oven {plan.place}, level",
             "Not a drop of water in the custard." if plan.bath else "Filled where it stands.",
             "A door open long costs 30 K.",
             caution="A tray of hot water is filled in the oven." if plan.bath else ""),
        Step("cook", "bake", f"In the oven: {plan.oven_words}", plan.sign,
             "Poking a finger in ruins the top: nudge the mould and look.",
             round(plan.probe_from_c, 1), round(plan.probe_to_c, 1), None, 0, None, "",
             "Pull it: " + plan.sign,
             from_s=round(plan.from_s), to_s=round(plan.to_s)),
        Step("out", "finish", f"Out, and {AFTERS[plan.after]}",
             "It goes on setting by itself.", "It looks too soft now: that is right.",
             caution="Hot water in the pan: moulds out first, or two people and dry cloths."
             if plan.bath else "The tin is at oven heat."),
        Step("cool", "cool", "Let it cool", "The mould can be held.",
             "Covered while hot, it drips on itself.", None, 30.0, None, 0, None, "",
             "Cool enough: film on it, into the cold"),
    ]  # fmt: skip
    return steps


def bake_moment(step: Step, watch: Watch, elapsed_s: float, fresh: bool) -> Moment:
    """What is said while it bakes. ``watch`` began when it went in, ``fresh`` is whether the
    last reading still counts; without one the clock decides.
    """
    temp = watch.last[1] if watch.last and fresh else None
    rate = rate_k_per_min(watch.recent, 240.0) if temp is not None else None
    left = step.from_s - elapsed_s
    figure, unit = (temp, "c") if temp is not None else (abs(left), "s")
    low, high = step.low_c or 200.0, step.high_c or 200.0
    at_probe = temp is not None and temp >= low - 0.2
    by_probe = None
    if temp is not None and rate and rate > 0.05:
        by_probe = max(0.0, 60 * (low - temp) / rate)

    def say(headline: str, words: str, urgency: str, done: bool) -> Moment:
        return Moment(
            figure, unit, headline, words, urgency,  # type: ignore[arg-type]
            None, rate, max(0.0, left), done,
        )  # fmt: skip

    if temp is not None and temp > high + 1.5:
        return say("too far", "Out now, and into cold air", "wrong", True)
    if temp is None and elapsed_s > step.to_s + LATE_S:
        return say("over the time", "Out now, whatever it looks like", "wrong", True)
    if at_probe or (temp is None and left <= 0):
        return say("pull it", step.there, "now", True)
    soon = left <= LOOK_AHEAD_S or (by_probe is not None and by_probe <= LOOK_AHEAD_S)
    if soon:
        return say("soon", "Cloths dry, rack free: open and look at the wobble", "soon", False)
    return say("baking", "Leave the door shut", "calm", False)


def is_fresh(watch: Watch, now_s: float, stale_s: float = STALE_S) -> bool:
    """Whether the last reading still counts."""
    return watch.last_s is not None and now_s - watch.last_s <= stale_s
