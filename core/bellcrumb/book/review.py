"""Reading a finished cook: what the curve shows, with the evidence."""

import itertools
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from bellcrumb.curve.watch import Reading, held_s, smoothed
from bellcrumb.laws.water import BOILS_FROM_C
from bellcrumb.stove.steps import Step

# Faults a cook can name, with what each means. Source: fault reference, section m.
FAULTS: dict[str, str] = {
    "too_thin": "too thin",
    "too_firm": "too firm or pasty",
    "grains": "grains of egg",
    "lumps": "lumps of starch",
    "raw_starch": "tastes of raw starch",
    "scorched": "caught on the bottom",
    "weeping": "weeping",
    "skin": "a skin on top",
    "thinned_overnight": "thinned overnight",
    "eggy": "tastes of egg",
    "runny_middle": "runny in the middle",
    "bubbles": "bubbles in the side",
    "cracked": "cracked",
    "pale": "pale or raw crust",
    "soggy_base": "soggy base",
    "will_not_let_go": "does not leave the mould",
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
                Finding(f"{step.key}_skipped", f"“{step.title}” was never started.", "note")
            )
            continue
        mine = step_readings(readings, at[step.key])
        if len(mine) < 4:
            found.append(
                Finding("no_curve", "No probe during the cook: nothing to judge by.", "note")
            )
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
                f"It never reached the boil: {peak:.1f} °C at most.",
                "likely",
                "thinned_overnight",
            )
        ]
    held = held_s(mine, low)
    if held < 0.8 * step.hold_s:
        return [
            Finding(
                "short_hold",
                f"Held {held:.0f} s of {step.hold_s} s at the boil.",
                "likely",
                "raw_starch",
            )
        ]
    if held > 3 * step.hold_s + 30:
        return [
            Finding(
                "long_hold",
                f"Held {held:.0f} s: long past what the starch wants.",
                "note",
                "scorched",
            )
        ]
    return [Finding("boil_held", f"Reached the boil and held it {held:.0f} s.", "fine")]


# A bake this long past its window is late whatever its middle says: minutes, and share of it.
_LATE_MIN, _LATE_SHARE = 5.0, 0.15


def _pulled(step: Step, mine: list[Reading], timing: Timing) -> list[Finding]:
    """Where a bake was when it was pulled: by the probe, else by the clock."""
    took = timing.left_s - timing.entered_s
    if len(mine) < 4:
        early, late = step.from_s - took, took - step.to_s
        if max(early, late) <= 60:
            return [Finding("pulled_in_window", "Pulled inside its window.", "fine")]
        word = "before" if early > 0 else "after"
        minutes = max(early, late) / 60
        return [Finding("pulled_off", f"Pulled {minutes:.0f} min {word} its window.", "note")]
    temp, low, high = mine[-1][1], step.low_c or 0.0, step.high_c or 200.0
    if temp < low - 1:
        says = f"Pulled at {temp:.1f} °C in the middle, short of {low:.0f} °C."
        return [Finding("pulled_early", says, "likely", "runny_middle")]
    if temp > high + 2:
        says = f"Pulled at {temp:.1f} °C in the middle, past {high:.0f} °C."
        return [Finding("pulled_late", says, "likely", "bubbles")]
    late_min = (took - step.to_s) / 60
    if step.to_s and late_min > max(_LATE_MIN, _LATE_SHARE * step.to_s / 60):
        says = (
            f"It stayed {late_min:.0f} min past its window, which ended at "
            f"{step.to_s / 60:.0f} min: the middle at {temp:.1f} °C hides that the edge has long "
            "been past its best."
        )
        return [Finding("overstayed", says, "likely", "bubbles")]
    return [
        Finding("pulled_right", f"Pulled at {temp:.1f} °C in the middle, as it should.", "fine")
    ]


def _reach(step: Step, peak: float) -> list[Finding]:
    if step.never_c is not None and peak >= step.never_c:
        return [
            Finding(
                "over_curdle",
                f"Peaked at {peak:.1f} °C, past curdling at {step.never_c:.1f} °C.",
                "likely",
                "grains",
            )
        ]
    if step.low_c is not None and peak < step.low_c - 1:
        return [
            Finding(
                "under",
                f"Peaked at {peak:.1f} °C, short of {step.low_c:.0f} °C.",
                "likely",
                "too_thin",
            )
        ]
    return [Finding("nappe_reached", f"Peaked at {peak:.1f} °C, where it coats the spoon.", "fine")]


@dataclass(frozen=True)
class Deviation:
    """How far a curve was from its prediction over one step."""

    step: str
    mean_abs_k: float
    worst_k: float
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
    return Deviation(timing.key, mean, worst, predicted_reaches_s, timing.left_s - timing.entered_s)


def _at(curve: Sequence[Reading], t: float) -> float:
    for (t0, c0), (t1, c1) in itertools.pairwise(curve):
        if t <= t1:
            return c0 + (c1 - c0) * (t - t0) / max(t1 - t0, 1e-9)
    return curve[-1][1]
