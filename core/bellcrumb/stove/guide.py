"""Following a live cook: from readings to the one figure and the next move."""

import itertools
from collections.abc import Sequence
from dataclasses import dataclass
from statistics import median
from typing import Literal

from bellcrumb.laws.water import BOILS_FROM_C
from bellcrumb.stove.steps import Step

Urgency = Literal["calm", "soon", "now", "wrong"]
Reading = tuple[float, float]
"""(seconds on the cook's clock, degC)."""

STALE_S = 20.0


@dataclass(frozen=True)
class Moment:
    """What the guide says right now.

    ``figure`` is the number to read across the room in ``figure_unit`` ("c" or "s"), ``headline``
    the state of the pot in a word or two, ``next_move`` what to do, ``hold_left_s`` what is left of
    a hold (None: not holding), ``done`` whether the step has what it needs.
    """

    figure: float | None
    figure_unit: Literal["c", "s"]
    headline: str
    next_move: str
    urgency: Urgency
    hold_left_s: float | None
    rate_k_per_min: float | None
    to_target_s: float | None
    done: bool


def smoothed(readings: Sequence[Reading]) -> list[Reading]:
    """Readings with single spikes taken out (median of three)."""
    return [
        (t, median(r[1] for r in readings[max(0, i - 1) : i + 2]))
        for i, (t, _) in enumerate(readings)
    ]


def rate_k_per_min(readings: Sequence[Reading], over_s: float = 25.0) -> float | None:
    """Slope of the last ``over_s`` seconds by least squares; None with too little to say."""
    if len(readings) < 4:
        return None
    end = readings[-1][0]
    last = [r for r in readings if r[0] >= end - over_s]
    if len(last) < 4 or last[-1][0] - last[0][0] < 4:
        return None
    n = len(last)
    mean_t = sum(r[0] for r in last) / n
    mean_c = sum(r[1] for r in last) / n
    spread = sum((r[0] - mean_t) ** 2 for r in last)
    return 60 * sum((r[0] - mean_t) * (r[1] - mean_c) for r in last) / spread


def held_s(readings: Sequence[Reading], above_c: float) -> float:
    """Seconds spent at or above ``above_c`` without a break longer than the noise (10 s)."""
    total = 0.0
    out_since: float | None = None
    inside = False
    for (t0, c0), (t1, c1) in itertools.pairwise(readings):
        if c1 >= above_c and c0 >= above_c - 1.0:
            total += min(t1 - t0, STALE_S) if inside or c0 >= above_c else 0.0
            inside, out_since = True, None
        elif inside:
            out_since = out_since if out_since is not None else t0
            if t1 - out_since > 10:
                inside, total = False, 0.0
    return total


def follow(
    step: Step,
    readings: Sequence[Reading],
    entered_s: float,
    now_s: float,
    stale_s: float = STALE_S,
) -> Moment:
    """The moment for a step entered at ``entered_s`` with all readings of the cook so far.

    A last reading older than ``stale_s`` no longer counts: the clock takes over.
    """
    mine = smoothed([r for r in readings if r[0] >= entered_s - 0.5])
    if step.kind not in ("heat", "cook", "cool") or step.high_c is None:
        if mine and step.kind == "temper":
            return Moment(
                mine[-1][1], "c", "in the bowl", step.title, "calm", None, None, None, False
            )
        if step.hold_s:
            return _timer(step, now_s - entered_s)
        return Moment(now_s - entered_s, "s", "", step.title, "calm", None, None, None, True)
    if not mine or now_s - mine[-1][0] > stale_s:
        return _without_probe(step, entered_s, now_s, stale=bool(mine))
    temp = mine[-1][1]
    rate = rate_k_per_min(mine)
    if step.kind == "cool":
        warm = temp > step.high_c
        return Moment(
            temp,
            "c",
            "cooling" if warm else ("cool enough" if step.there else "through the warm zone"),
            step.title if warm or not step.there else step.there,
            "calm" if warm or not step.there else "now",
            None,
            rate,
            _eta(temp, step.high_c, rate),
            not warm,
        )
    if step.hold_s:
        return _boil(step, mine, temp, rate)
    return _reach(step, temp, rate)


def _eta(temp: float, target: float, rate: float | None) -> float | None:
    if rate is None or abs(rate) < 0.3 or (target - temp) * rate <= 0:
        return None
    return min(3600.0, 60 * (target - temp) / rate)


def _without_probe(step: Step, entered_s: float, now_s: float, *, stale: bool) -> Moment:
    seconds = now_s - entered_s
    word = "no reading lately" if stale else "by the clock"
    return Moment(seconds, "s", word, step.title, "calm", None, None, None, False)


def _boil(step: Step, mine: Sequence[Reading], temp: float, rate: float | None) -> Moment:
    low = step.low_c or BOILS_FROM_C
    held = held_s(mine, low)
    left = max(0.0, step.hold_s - held)
    eta = _eta(temp, low, rate)
    if held > 0 and temp >= low - 1.0:
        if left > 0:
            return Moment(
                temp,
                "c",
                "boil reached",
                f"Hold {left:.0f} s more, whisking",
                "soon",
                left,
                rate,
                left,
                False,
            )
        if held > 3 * step.hold_s + 30:
            return Moment(
                temp,
                "c",
                "held too long",
                "Off the heat now: it breaks down and sticks",
                "wrong",
                0.0,
                rate,
                None,
                True,
            )
        return Moment(temp, "c", "held", "Off the heat now", "now", 0.0, rate, None, True)
    peak = max(c for _, c in mine)
    if peak >= low and temp < low - 1.0:
        return Moment(
            temp,
            "c",
            "lost the boil",
            "Back to the bubbles: the hold starts again",
            "soon",
            float(step.hold_s),
            rate,
            eta,
            False,
        )
    thick = step.thickens_c or low
    if temp >= thick - 1.5:
        return Moment(
            temp,
            "c",
            "thickening",
            "Faster, into the corners; it must still boil",
            "soon",
            None,
            rate,
            eta,
            False,
        )
    if temp >= thick - 10:
        return Moment(
            temp,
            "c",
            "about to thicken",
            "Do not stop stirring now",
            "soon",
            None,
            rate,
            eta,
            False,
        )
    return Moment(temp, "c", "warming", step.title, "calm", None, rate, eta, False)


def _reach(step: Step, temp: float, rate: float | None) -> Moment:
    low, high, never = step.low_c or 0.0, step.high_c or 200.0, step.never_c
    eta = _eta(temp, low, rate)
    if never is not None and temp >= never:
        if step.kind == "heat":
            return Moment(
                temp, "c", "boiling up", "Too hot: off the heat", "wrong", None, rate, None, True
            )
        said = {
            "curdling": "Too hot: off the heat, into a cold bowl, sieve it",
        }.get(step.over, "Too far: off the heat now")
        return Moment(temp, "c", step.over, said, "wrong", None, rate, None, True)
    if temp > high:
        return Moment(
            temp, "c", "too hot", "Too hot: off the heat", "wrong", None, rate, None, True
        )
    if temp >= low:
        usual = (
            "Coats the spoon: off the heat" if step.kind == "cook" else "Hot enough: off the heat"
        )
        said = step.there or usual
        return Moment(temp, "c", "there", said, "now", None, rate, None, True)
    cue = next((c for c in reversed(step.cues) if temp >= c.from_c), None)
    if cue:
        return Moment(temp, "c", cue.headline, cue.words, cue.urgency, None, rate, eta, False)
    thick = step.thickens_c
    if step.kind == "cook" and thick is not None and temp >= thick:
        return Moment(
            temp,
            "c",
            "thickening",
            f"{low - temp:.0f} K to go, spoon moving",
            "soon",
            None,
            rate,
            eta,
            False,
        )
    if temp >= low - 10:
        return Moment(temp, "c", "nearly there", "Stay with it", "soon", None, rate, eta, False)
    return Moment(temp, "c", "warming", step.title, "calm", None, rate, eta, False)


def _timer(step: Step, elapsed_s: float) -> Moment:
    """A step that takes its time: counted down, called when it is up."""
    left = step.hold_s - elapsed_s
    if left > 0:
        return Moment(left, "s", "by the clock", step.title, "calm", None, None, left, False)
    over = elapsed_s - step.hold_s
    said = step.there or "Look at the sign; go on when you see it"
    return Moment(over, "s", "time is up", said, "now", None, None, None, True)


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
        mine = smoothed(
            [r for r in readings for k, a, b in entered if k == step.key and a <= r[0] <= b]
        )
        if len(mine) < 4:
            continue
        if max(c for _, c in mine) < step.low_c:
            return (step.key, "never boiled", "Back on the heat: it must boil and be held")
        if held_s(mine, step.low_c) < 0.5 * step.hold_s:
            return (step.key, "held too short", f"Back to the boil for {step.hold_s} s")
    return None
