"""Building the dessert as a cook builds it: one layer a step, weighed, and warm or cold enough.

The guide is made from the same layers, meetings and steps as the thread. What a part needs before
it is laid (cooking, baking) is that part's own cook; here it only stands ready.
"""

import math
from collections.abc import Sequence

from bellcrumb.curve.watch import Watch, rate_k_per_min
from bellcrumb.dessert.layers import Lain
from bellcrumb.dessert.steps import BuildStep, Steps
from bellcrumb.dessert.tables import Meeting, Schools
from bellcrumb.dessert.works import Kind, Lies
from bellcrumb.stove.guide import Moment
from bellcrumb.stove.steps import Step

# What a probe can stand in, and what it matters to know of before it is laid on.
_PROBED: tuple[Kind, ...] = (
    "stirred", "folded", "butter", "curd", "nut", "cremeux", "gelatine", "ganache", "jam", "roux",
    "pie", "bath", "batter", "flan", "sauce", "cheesecake", "cold_cheese", "mascarpone", "citrus",
    "italian", "swiss",
)  # fmt: skip
_DONE_SHARE = 0.97  # a vessel is full this much under its weight: what drips is not waited for
_OVER_SHARE = 1.08  # and too full beyond this
_VERBS: dict[Lies, str] = {
    "lining": "Line it with", "poured": "Pour in", "mm": "Spread", "below_rim": "Pour in",
    "share": "Pour in", "grams": "Lay on", "dome": "Heap on", "swirls": "Pipe on",
    "dusted": "Strew", "sheet": "Lay on",
}  # fmt: skip


def assembly(
    layers: Sequence[Lain], count: int, schools: Schools, made: Steps, stand: str
) -> list[Step]:
    """The guide: what stands ready, each layer with its checks, what follows it, the label."""
    by_key = {step.key: n for n, step in enumerate(made.steps)}
    out = [_ready(layers, count, stand)]
    for n, layer in enumerate(layers):
        met = made.met[n]
        below = layers[n - 1] if n else None
        out += _checks(n, layer, below, met)
        out.append(_lay(n, layer, met, count, schools, below))
        first = by_key[made.laid[n]] + 1
        last = by_key[made.laid[n + 1]] if n + 1 < len(layers) else len(made.steps)
        rest = _rest(n, layer.part, [s for s in made.steps[first:last] if s.code != "plate"])
        out += [rest] if rest else []
    return [*out, _label(made.steps)]


def _ready(layers: Sequence[Lain], count: int, stand: str) -> Step:
    what = f"{count} × {stand}" if count > 1 else stand
    return Step(
        "ready", "ready", f"Everything within reach: {what}",
        "Every part cold or warm as its step says.",
        "A part still too warm undoes the one below it: the probe says, not the clock.",
    )  # fmt: skip


def _checks(n: int, layer: Lain, below: Lain | None, met: Meeting | None) -> list[Step]:
    """The temperatures that matter where two parts meet."""
    if met is None:
        return []
    found = []
    if below and met.lower_max_c is not None and met.lower_max_c <= 12 and below.kind in _PROBED:
        found.append(
            Step(
                f"below_{n}", "check", f"Probe into the {below.part}, in its middle",
                f"Under {met.lower_max_c:.0f} °C.", _sentence(met.too_soon),
                None, met.lower_max_c, there=f"Cold enough: on with the {layer.part}",
            )
        )  # fmt: skip
    if met.upper_max_c is not None and met.upper_min_c is not None and layer.kind in _PROBED:
        found.append(
            Step(
                f"warm_{n}", "check", f"Probe into the {layer.part}",
                f"Between {met.upper_min_c:.0f} and {met.upper_max_c:.0f} °C.",
                _sentence(met.too_soon), met.upper_min_c, met.upper_max_c,
                there="As it should be: lay it on now",
            )
        )  # fmt: skip
    return found


def _sentence(words: str) -> str:
    return words[:1].upper() + words[1:] + "." if words and words != "none" else ""


def _lay(
    n: int, layer: Lain, met: Meeting | None, count: int, schools: Schools, below: Lain | None
) -> Step:
    title = f"{_VERBS[layer.lies]} the {layer.part}"
    depth = f"{layer.mm:.0f} mm deep, to {layer.to_mm:.0f} mm above the floor."
    caution = ""
    if met and met.most_h and met.too_late:
        caution = f"From now on the clock runs: {met.most_h:g} h, then {met.too_late}."
    if below and met and met.school == "hot" and schools.filling == "hot":
        caution = f"Warm on purpose: the {below.part} softens a little now. {caution}".strip()
    if layer.lies == "lining":
        depth = f"{layer.mm:.0f} mm thick{', up the wall too' if layer.walls else ''}."
    return Step(
        f"lay_{n}", "lay", title, depth, _sentence(met.too_soon) if met else "",
        caution=caution, there="Enough: go on",
        grams=layer.g_each, count=count,
    )  # fmt: skip


def _rest(n: int, part: str, steps: Sequence[BuildStep]) -> Step | None:
    """What follows a layer before the next one: set, chilled, torched, or baked elsewhere."""
    if not steps:
        return None
    words = ", then ".join(s.words for s in steps)
    timed = ", then ".join(
        s.words + (f" {s.wait_min:.0f} min" if s.wait_min >= 1 else "") for s in steps
    )
    wait_min = sum(s.minutes for s in steps)
    oven = any(s.oven_c is not None for s in steps)
    title, sign = (f"{said[:1].upper()}{said[1:]}" for said in (words, timed))
    avoid = "The bake has a page of its own, with its window." if oven else ""
    return Step(
        f"rest_{n}", "finish", title, sign + ".", avoid,
        hold_s=0 if oven or wait_min < 2 else round(60 * wait_min),
        there=f"Long enough for the {part}: go on" if part else "Long enough: go on",
    )  # fmt: skip


def _label(steps: Sequence[BuildStep]) -> Step:
    """Until when it may wait, and from when it may be cut."""
    plate = next(s for s in steps if s.code == "plate")
    least = max((g.at_least_min for g in plate.after), default=0.0)
    most = min((g.at_most_min for g in plate.after if g.at_most_min is not None), default=0.0)
    cut = f"to be cut from {_hours(least)} from now on" if least >= 1 else "ready to be cut"
    return Step(
        "label", "finish", f"Cover and label it: {cut}",
        f"At its best within {_hours(most)} of now." if most else "Serve it soon.",
        "Name, time and what it contains on the label; the local code's date comes first.",
    )  # fmt: skip


def _hours(minutes: float) -> str:
    return f"{minutes:.0f} min" if minutes < 90 else f"{minutes / 60:.0f} h"


def checked_moment(step: Step, watch: Watch, fresh: bool) -> Moment:
    """What a check says now: warm, cold, or as it should be. Without a probe, by touch."""
    temp = watch.last[1] if watch.last and fresh else None
    if temp is None:
        return Moment(None, "c", "no reading yet", step.title, "calm", None, None, None, False)
    rate = rate_k_per_min(watch.recent)
    if step.high_c is not None and temp > step.high_c:
        return Moment(temp, "c", "too warm", f"Wait. {step.avoid}".strip(), "soon", None, rate,
                      None, False)  # fmt: skip
    if step.low_c is not None and temp < step.low_c:
        return Moment(temp, "c", "too cold", f"Warm it a little. {step.avoid}".strip(), "soon",
                      None, rate, None, False)  # fmt: skip
    return Moment(temp, "c", "as it should be", step.there, "now", None, rate, None, True)


def vessel_at(step: Step, poured_g: float) -> int:
    """Which of the vessels is being filled, from 1."""
    if step.grams <= 0:
        return 1
    return min(step.count, math.floor(poured_g / step.grams + 1 - _DONE_SHARE) + 1)


def laid_moment(step: Step, poured_g: float | None) -> Moment:
    """What the scale says of a layer: how much is in this vessel, of how much. ``poured_g`` is all
    that was laid in this step; None without a scale."""
    if poured_g is None:
        return Moment(step.grams, "g", "by the scale on the bench", step.title, "calm", None, None,
                      None, True)  # fmt: skip
    at = vessel_at(step, poured_g)
    here = max(0.0, poured_g - (at - 1) * step.grams)
    which = f"vessel {at} of {step.count}" if step.count > 1 else "on the scale"
    left = step.grams - here
    if at == step.count and here > _OVER_SHARE * step.grams:
        return Moment(here, "g", "too much", f"Take {here - step.grams:.0f} g off again", "wrong",
                      None, None, None, True)  # fmt: skip
    if at == step.count and here >= _DONE_SHARE * step.grams:
        return Moment(here, "g", "enough", step.there, "now", None, None, None, True)
    soon = "soon" if here > 0.8 * step.grams else "calm"
    return Moment(here, "g", which, f"{left:.0f} g to go", soon, None, None, None, False)  # type: ignore[arg-type]


def is_enough(got_g: float, asked_g: float) -> bool:
    """Whether a layer that was weighed got what it asked for."""
    return abs(got_g - asked_g) <= (_OVER_SHARE - 1) * asked_g
