"""What is told while it bakes, and while a layer is checked and weighed: a row wherever that
changes."""

from collections.abc import Iterator
from itertools import pairwise

from bellcrumb.curve.watch import Watch
from bellcrumb.dessert.assembly import checked_moment, is_enough, laid_moment, vessel_at
from bellcrumb.oven.guide import BakePlan, bake_moment, bake_steps, is_fresh
from bellcrumb.stove.guide import Moment
from bellcrumb.stove.steps import Step

_PLANS = {
    "pots": BakePlan("It wobbles as one", "Strained", "rack", from_s=1800, to_s=2400,
                     probe_from_c=77.0, probe_to_c=81.0, oven_words="150 °C, still air",
                     water_words="water to half", bath=True),
    "pie": BakePlan("A palm wobbles", "Knocked", "oven_off", from_s=2700, to_s=3000,
                    probe_from_c=74.0, probe_to_c=78.0, oven_words="170 °C, fan", water_words="",
                    bath=False, place="floor"),
}  # fmt: skip
# Minutes and degrees of the middle: an ordinary climb, one that stalls, one far too quick.
_CURVES = {
    "climbs": ((0, 20), (15, 40), (30, 75), (40, 82), (50, 84)),
    "stalls": ((0, 20), (20, 60), (40, 60), (60, 61)),
    "races": ((0, 60), (8, 90), (12, 90)),
    "no probe": (),
}


def _told(now: Moment) -> dict[str, object]:
    return {
        "figure": now.figure, "unit": now.figure_unit, "headline": now.headline,
        "next": now.next_move, "urgency": now.urgency, "rate_k_per_min": now.rate_k_per_min,
        "to_target_s": now.to_target_s, "done": now.done,
    }  # fmt: skip


def oven_moments() -> Iterator[dict[str, object]]:
    """Two bakes' steps, and what is said in the oven by three curves and by the clock alone."""
    for of, plan in _PLANS.items():
        steps = bake_steps(plan)
        for s in steps:
            yield {"of": of, "step": s.key, "headline": s.title, "sign": s.sign, "avoid": s.avoid,
                   "next": s.there, "low_c": s.low_c, "high_c": s.high_c, "from_s": s.from_s,
                   "to_s": s.to_s, "caution": s.caution}  # fmt: skip
        cook = next(s for s in steps if s.kind == "bake")
        for name, curve in _CURVES.items():
            points = [
                (60.0 * (a[0] + (b[0] - a[0]) * n / 30), a[1] + (b[1] - a[1]) * n / 30)
                for a, b in pairwise(curve)
                for n in range(30)
            ]
            watch, last = Watch(), None
            for at_s, temp in points or [(30.0 * n, None) for n in range(120)]:
                if temp is not None:
                    watch.add((at_s, temp))
                now = bake_moment(cook, watch, at_s, fresh=is_fresh(watch, at_s))
                told = (now.headline, now.urgency, now.done)
                if told != last:
                    yield {"of": of, "step": name, "at_s": at_s, **_told(now)}
                last = told
        for silent_s in (5.0, 60.0, 600.0):
            watch = Watch()
            watch.add((0.0, 50.0))
            fresh = is_fresh(watch, silent_s)
            now = bake_moment(cook, watch, silent_s, fresh)
            yield {"of": of, "step": "silent", "at_s": silent_s, "fresh": fresh, **_told(now)}


def laid() -> Iterator[dict[str, object]]:
    """A check by its probe; layers by the scale, one vessel and three, from empty to too much."""
    check = Step("below_0", "check", "Probe into it", sign="Under 12", avoid="It sinks in.",
                 low_c=2, high_c=12, there="On with it")  # fmt: skip
    for temp in (None, 1.9, 2.0, 7.0, 12.0, 12.1):
        watch = Watch()
        if temp is not None:
            watch.add((0.0, temp + 1))
            watch.add((60.0, temp))
        for fresh in (True, False):
            now = checked_moment(check, watch, fresh)
            yield {"of": "check", "given": temp, "fresh": fresh, **_told(now)}
    for count in (1, 3):
        lay = Step(
            "lay_0", "lay", "Pour it in", sign="", avoid="", grams=50.0, count=count, there="Go on"
        )
        for share in (0.0, 0.5, 0.8, 0.81, 0.96, 0.97, 1.0, 1.08, 1.09, 1.5, 1.97, 2.5, 2.97, 3.1):
            poured_g = 50.0 * share
            yield {"of": f"{count} vessels", "given": poured_g, "fresh": vessel_at(lay, poured_g),
                   **_told(laid_moment(lay, poured_g))}  # fmt: skip
        yield {"of": f"{count} vessels", **_told(laid_moment(lay, None))}
    yield {
        "of": "nothing",
        "given": 5.0,
        "fresh": vessel_at(Step("l", "lay", "", sign="", avoid=""), 5.0),
    }
    for got_g in (91.9, 92.0, 108.0, 108.1):
        yield {"of": "enough", "given": got_g, "done": is_enough(got_g, 100.0)}
