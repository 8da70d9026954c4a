"""Following a live cook: from readings to the one figure and the next move."""

from collections.abc import Sequence
from dataclasses import KW_ONLY, dataclass
from functools import partial
from math import ceil
from typing import Literal

from bellcrumb.curve.watch import STALE_S, Reading, Watch, rate_k_per_min
from bellcrumb.laws.water import BOILS_FROM_C
from bellcrumb.stove.steps import CURDLING, Step
from bellcrumb.words import say

Urgency = Literal["calm", "soon", "now", "wrong"]


_NEARLY_K = 10.0  # under what is to be reached
_IN_MINUTES_S = 300  # a hold is counted in minutes from here
ENTERED_EARLY_S = 0.5  # a reading this much before the tap is the step's


@dataclass(frozen=True)
class Moment:
    """What the guide says right now.

    ``figure`` is the number to read across the room in ``figure_unit`` ("c" or "s"), ``headline``
    the state of the pot in a word or two, ``next_move`` what to do, ``hold_left_s`` what is left of
    a hold (None: not holding), ``done`` whether the step has what it needs.
    """

    figure: float | None
    figure_unit: Literal["c", "s", "g"]
    headline: str
    _: KW_ONLY
    next_move: str
    urgency: Urgency
    hold_left_s: float | None = None
    rate_k_per_min: float | None = None
    to_target_s: float | None = None
    done: bool = False


def held_above_c(step: Step) -> float | None:
    """What a step's hold is counted from; None for a step without one."""
    return (step.low_c or BOILS_FROM_C) if step.hold_s else None


def follow(
    step: Step,
    readings: Sequence[Reading],
    entered_s: float,
    now_s: float,
    stale_s: float = STALE_S,
) -> Moment:
    """The moment for a step entered at ``entered_s`` with all readings of the cook so far."""
    mine = (r for r in readings if r[0] >= entered_s - ENTERED_EARLY_S)
    watch = Watch.of(mine, held_above_c(step))
    return moment(step, watch, entered_s, now_s, stale_s)


def moment(
    step: Step, watch: Watch, entered_s: float, now_s: float, stale_s: float = STALE_S
) -> Moment:
    """The moment for a step entered at ``entered_s``, from what was watched since.

    A last reading older than ``stale_s`` no longer counts: the clock takes over.
    """
    last = watch.last
    if step.kind not in ("heat", "cook", "cool") or step.high_c is None:
        if last and step.kind == "temper":
            return Moment(
                last[1], "c", say("stove.in_the_bowl"), next_move=step.title, urgency="calm"
            )
        if step.hold_s:
            return _timer(step, now_s - entered_s)
        return Moment(now_s - entered_s, "s", "", next_move=step.title, urgency="calm", done=True)
    if last is None or now_s - last[0] > stale_s:
        return _without_probe(step, entered_s, now_s, stale=last is not None)
    temp = last[1]
    rate = rate_k_per_min(watch.recent)
    if step.kind == "cool":
        at = partial(Moment, temp, "c", rate_k_per_min=rate)

        warm = temp > step.high_c
        return at(
            say("stove.cooling")
            if warm
            else (say("stove.cool_enough") if step.there else say("stove.through_the_warm_zone")),
            next_move=step.title if warm else step.there or say("stove.on_into_the_refrigerator"),
            urgency="calm" if warm or not step.there else "now",
            to_target_s=_eta(temp, step.high_c, rate),
            done=not warm,
        )
    if step.hold_s:
        return _boil(step, watch, temp, rate)
    return _reach(step, watch, temp, rate)


def _eta(temp: float, target: float, rate: float | None) -> float | None:
    if rate is None or abs(rate) < 0.3 or (target - temp) * rate <= 0:
        return None
    return min(3600.0, 60 * (target - temp) / rate)


def _without_probe(step: Step, entered_s: float, now_s: float, *, stale: bool) -> Moment:
    seconds = now_s - entered_s
    word = say("stove.no_reading_lately") if stale else say("stove.by_the_clock")
    return Moment(seconds, "s", word, next_move=step.title, urgency="calm")


def _boil(step: Step, watch: Watch, temp: float, rate: float | None) -> Moment:
    low = step.low_c or BOILS_FROM_C
    held = watch.held_s
    left = max(0.0, step.hold_s - held)
    eta = _eta(temp, low, rate)
    at = partial(Moment, temp, "c", rate_k_per_min=rate)
    boils = held > 0 and temp >= low - 1.0
    if boils and held > 3 * step.hold_s + 30:
        return at(
            say("stove.held_too_long"),
            next_move=say("stove.off_the_heat_now_it_breaks"),
            urgency="wrong",
            hold_left_s=0.0,
            done=True,
        )
    if watch.longest_hold_s >= step.hold_s:  # taken off the heat since, as it was told
        return at(
            say("stove.held"),
            next_move=say("stove.off_the_heat_now"),
            urgency="now",
            hold_left_s=0.0,
            done=True,
        )
    if boils:
        return at(
            say("stove.boil_reached"),
            next_move=say(
                "stove.hold_s_more_whisking", left=ceil(left)
            )  # as it counts down beside it
            if step.hold_s < _IN_MINUTES_S
            else say("stove.min_more_at_a_simmer_stirring", left=max(1.0, left / 60)),
            urgency="soon",
            hold_left_s=left,
            to_target_s=left,
        )
    if (watch.peak_c or temp) >= low and temp < low - 1.0:
        return at(
            say("stove.lost_the_boil"),
            next_move=say("stove.back_to_the_bubbles_the_hold"),
            urgency="soon",
            hold_left_s=float(step.hold_s),
            to_target_s=eta,
        )
    thick = step.thickens_c
    if thick is not None and temp >= thick - 1.5:
        return at(
            say("stove.thickening"),
            next_move=say("stove.faster_into_the_corners_it_must"),
            urgency="soon",
            to_target_s=eta,
        )
    if thick is not None and temp >= thick - 10:
        return at(
            say("stove.about_to_thicken"),
            next_move=say("stove.do_not_stop_stirring_now"),
            urgency="soon",
            to_target_s=eta,
        )
    return at(say("stove.warming"), next_move=step.title, urgency="calm", to_target_s=eta)


def _reach(step: Step, watch: Watch, temp: float, rate: float | None) -> Moment:
    low, high, never = step.low_c or 0.0, step.high_c or 200.0, step.never_c
    eta = _eta(temp, low, rate)
    at = partial(Moment, temp, "c", rate_k_per_min=rate)
    if never is not None and temp >= never:
        if step.kind == "heat":
            return at(
                say("stove.boiling_up"),
                next_move=say("stove.too_hot_off_the_heat"),
                urgency="wrong",
                done=True,
            )
        curdles = step.over == CURDLING
        said = (
            say("stove.too_hot_off_the_heat_into")
            if curdles
            else say("stove.too_far_off_the_heat_now")
        )
        return at(step.over, next_move=said, urgency="wrong", done=True)
    if temp > high:
        return at(
            say("stove.too_hot"),
            next_move=say("stove.too_hot_off_the_heat"),
            urgency="wrong",
            done=True,
        )
    # Taken off the heat as it was told, it cools. What is cooked stays so; a liquid that is to be
    # hot does not.
    stays = step.kind == "cook" or temp >= low - _NEARLY_K
    if temp >= low or (stays and (watch.hottest_c or 0.0) >= low):
        usual = (
            say("stove.coats_the_spoon_off_the_heat")
            if step.kind == "cook"
            else say("stove.hot_enough_off_the_heat")
        )
        said = step.there or usual
        return at(say("stove.there"), next_move=said, urgency="now", done=True)
    cue = next((c for c in reversed(step.cues) if temp >= c.from_c), None)
    if cue:
        return at(cue.headline, next_move=cue.words, urgency=cue.urgency, to_target_s=eta)
    thick = step.thickens_c
    if step.kind == "cook" and thick is not None and temp >= thick:
        return at(
            say("stove.thickening"),
            next_move=say("stove.k_to_go_spoon_moving", low=low - temp),
            urgency="soon",
            to_target_s=eta,
        )
    if temp >= low - _NEARLY_K:
        return at(
            say("stove.nearly_there"),
            next_move=say("stove.stay_with_it"),
            urgency="soon",
            to_target_s=eta,
        )
    return at(say("stove.warming"), next_move=step.title, urgency="calm", to_target_s=eta)


def _timer(step: Step, elapsed_s: float) -> Moment:
    """A step that takes its time: counted down, called when it is up."""
    left = step.hold_s - elapsed_s
    if left > 0:
        return Moment(
            left,
            "s",
            say("stove.by_the_clock"),
            next_move=step.title,
            urgency="calm",
            to_target_s=left,
        )
    over = elapsed_s - step.hold_s
    said = step.there or say("stove.look_at_the_sign_go_on")
    return Moment(over, "s", say("stove.time_is_up"), next_move=said, urgency="now", done=True)


def missed(
    steps: Sequence[Step], entered: Sequence[tuple[str, float, float]], readings: Sequence[Reading]
) -> tuple[str, str, str] | None:
    """A hold that was left out, noticed in a later step: (step key, headline, what to do).

    ``entered`` are (key, from s, to s) in order, the last one the step the cook is in. A step
    without a curve cannot be judged and is not.
    """
    if not entered:
        return None
    now = entered[-1][0]
    order = [s.key for s in steps]
    for step in steps:
        if not (step.hold_s and step.low_c is not None and step.kind in ("heat", "cook")):
            continue
        if now not in order or order.index(step.key) >= order.index(now):
            continue
        mine = Watch.of(
            (r for r in readings for k, a, b in entered if k == step.key and a <= r[0] <= b),
            step.low_c,
        )
        if mine.count < 4 or mine.peak_c is None:
            continue
        if mine.peak_c < step.low_c:
            return (step.key, say("stove.never_boiled"), say("stove.back_on_the_heat_it_must"))
        if mine.longest_hold_s < 0.5 * step.hold_s:
            return (
                step.key,
                say("stove.held_too_short"),
                say("stove.back_to_the_boil_for_s", hold_s=step.hold_s)
                if step.hold_s < _IN_MINUTES_S
                else say("stove.back_to_the_boil_for_min", hold_min=step.hold_s / 60),
            )
    return None
