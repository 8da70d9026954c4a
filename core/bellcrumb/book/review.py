"""Reading a finished cook: what the curve shows, with the evidence."""

import itertools
from collections.abc import Sequence
from dataclasses import KW_ONLY, dataclass
from typing import Literal

from bellcrumb.curve.watch import Reading, held_s, smoothed
from bellcrumb.laws.water import BOILS_FROM_C
from bellcrumb.stove.steps import Step
from bellcrumb.words import say

# Faults a cook can name, with what each means. Source: fault reference, section m.
FAULTS: dict[str, str] = {
    "too_thin": say("book.too_thin"),
    "too_firm": say("book.too_firm_or_pasty"),
    "grains": say("book.grains_of_egg"),
    "lumps": say("book.lumps_of_starch"),
    "raw_starch": say("book.tastes_of_raw_starch"),
    "scorched": say("book.caught_on_the_bottom"),
    "weeping": say("book.weeping"),
    "skin": say("book.a_skin_on_top"),
    "thinned_overnight": say("book.thinned_overnight"),
    "eggy": say("book.tastes_of_egg"),
    "runny_middle": say("book.runny_in_the_middle"),
    "bubbles": say("book.bubbles_in_the_side"),
    "cracked": say("book.cracked"),
    "pale": say("book.pale_or_raw_crust"),
    "soggy_base": say("book.soggy_base"),
    "will_not_let_go": say("book.does_not_leave_the_mould"),
}
# Which of them a part can have that was baked, and that was not.
BAKED_ONLY = {"runny_middle", "bubbles", "cracked", "pale", "soggy_base", "will_not_let_go"}
STOVE_ONLY = {"lumps", "raw_starch", "scorched", "thinned_overnight", "too_thin"}


@dataclass(frozen=True)
class Finding:
    """Something the curve shows. ``fault`` is the fault it makes likely, if any."""

    key: str
    says: str
    weight: Literal["fine", "note", "likely"]
    _: KW_ONLY
    fault: str | None = None


@dataclass(frozen=True)
class Timing:
    """When a step was entered and left, on the cook's clock."""

    key: str
    entered_s: float
    left_s: float


def longest(timings: Sequence[Timing]) -> dict[str, Timing]:
    """The longest stay in each step: a step gone back to is judged by where it was cooked."""
    found: dict[str, Timing] = {}
    for t in timings:
        known = found.get(t.key)
        if known is None or t.left_s - t.entered_s > known.left_s - known.entered_s:
            found[t.key] = t
    return found


def step_readings(readings: Sequence[Reading], timing: Timing) -> list[Reading]:
    """The readings taken during a step, spikes out."""
    return smoothed([r for r in readings if timing.entered_s <= r[0] <= timing.left_s])


def review(
    steps: Sequence[Step], timings: Sequence[Timing], readings: Sequence[Reading]
) -> list[Finding]:
    """What the curve of a cook shows about its deciding steps (heat with a hold, cook)."""
    found: list[Finding] = []
    at = longest(timings)
    for step in steps:
        if step.kind == "bake" and step.key in at:
            found += _pulled(step, step_readings(readings, at[step.key]), at[step.key])
            continue
        if step.kind not in ("heat", "cook") or (step.kind == "heat" and not step.hold_s):
            continue
        if step.key not in at:
            found.append(
                Finding(
                    f"{step.key}_skipped", say("book.was_never_started", step=step.title), "note"
                )
            )
            continue
        mine = step_readings(readings, at[step.key])
        if len(mine) < 4:
            found.append(Finding("no_curve", say("book.no_probe_during_the_cook_nothing"), "note"))
            continue
        peak = max(c for _, c in mine)
        found += _boil(step, mine, peak) if step.hold_s else _reach(step, peak)
    return found


def _boil(step: Step, mine: list[Reading], peak: float) -> list[Finding]:
    low = step.low_c or BOILS_FROM_C
    if peak < low:
        return [
            Finding(
                "never_boiled",
                say("book.it_never_reached_the_boil_c", peak=peak),
                "likely",
                fault="thinned_overnight",
            )
        ]
    held = held_s(mine, low)
    if held < 0.8 * step.hold_s:
        return [
            Finding(
                "short_hold",
                say("book.held_s_of_s_at_the", held=held, hold_s=step.hold_s),
                "likely",
                fault="raw_starch",
            )
        ]
    if held > 3 * step.hold_s + 30:
        return [
            Finding(
                "long_hold",
                say("book.held_s_long_past_what_the", held=held),
                "note",
                fault="scorched",
            )
        ]
    return [Finding("boil_held", say("book.reached_the_boil_and_held_it", held=held), "fine")]


# A bake this long past its window is late whatever its middle says: minutes, and share of it.
_LATE_MIN, _LATE_SHARE = 5.0, 0.15


def _pulled(step: Step, mine: list[Reading], timing: Timing) -> list[Finding]:
    """Where a bake was when it was pulled: by the probe, else by the clock."""
    took = timing.left_s - timing.entered_s
    if len(mine) < 4:
        early, late = step.from_s - took, took - step.to_s
        if max(early, late) <= 60:
            return [Finding("pulled_in_window", say("book.pulled_inside_its_window"), "fine")]
        word = say("book.before") if early > 0 else say("book.after")
        minutes = max(early, late) / 60
        return [
            Finding(
                "pulled_off", say("book.pulled_min_its_window", minutes=minutes, word=word), "note"
            )
        ]
    temp, low, high = mine[-1][1], step.low_c or 0.0, step.high_c or 200.0
    if temp < low - 1:
        says = say("book.pulled_at_c_in_the_middle", temp=temp, low=low)
        return [Finding("pulled_early", says, "likely", fault="runny_middle")]
    if temp > high + 2:
        says = say("book.pulled_at_c_in_the_middle_2", temp=temp, high=high)
        return [Finding("pulled_late", says, "likely", fault="bubbles")]
    late_min = (took - step.to_s) / 60
    if step.to_s and late_min > max(_LATE_MIN, _LATE_SHARE * step.to_s / 60):
        says = say(
            "book.it_stayed_min_past_its_window", late_min=late_min, to_s=step.to_s / 60, temp=temp
        )
        return [Finding("overstayed", says, "likely", fault="bubbles")]
    return [Finding("pulled_right", say("book.pulled_at_c_in_the_middle_3", temp=temp), "fine")]


def _reach(step: Step, peak: float) -> list[Finding]:
    if step.never_c is not None and peak >= step.never_c:
        return [
            Finding(
                "over_curdle",
                say("book.peaked_at_c_past_curdling_at", peak=peak, never_c=step.never_c),
                "likely",
                fault="grains",
            )
        ]
    if step.low_c is not None and peak < step.low_c - 1:
        return [
            Finding(
                "under",
                say("book.peaked_at_c_short_of_c", peak=peak, low_c=step.low_c),
                "likely",
                fault="too_thin",
            )
        ]
    return [Finding("nappe_reached", say("book.peaked_at_c_where_it_coats", peak=peak), "fine")]


@dataclass(frozen=True)
class Deviation:
    """How far a curve was from its prediction over one step."""

    step: str
    mean_abs_k: float
    worst_k: float
    _: KW_ONLY
    predicted_s: float | None
    took_s: float


def deviation(
    predicted: Sequence[Reading], actual: Sequence[Reading], timing: Timing,
    predicted_reaches_s: float | None,
) -> Deviation | None:  # fmt: skip
    """Compare a step's curve with its prediction, both from the step's start; None if too short."""
    mine = [(t - timing.entered_s, c) for t, c in step_readings(actual, timing)]
    if len(mine) < 4 or len(predicted) < 2:
        return None
    errors = [c - _at(predicted, t) for t, c in mine if t <= predicted[-1][0]]
    if not errors:
        return None
    worst = max(errors, key=abs)
    mean = sum(abs(e) for e in errors) / len(errors)
    return Deviation(
        timing.key,
        mean,
        worst,
        predicted_s=predicted_reaches_s,
        took_s=timing.left_s - timing.entered_s,
    )


def _at(curve: Sequence[Reading], t: float) -> float:
    for (t0, c0), (t1, c1) in itertools.pairwise(curve):
        if t <= t1:
            return c0 + (c1 - c0) * (t - t0) / max(t1 - t0, 1e-9)
    return curve[-1][1]
