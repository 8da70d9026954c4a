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
from bellcrumb.dessert.works import Lies, PartWork
from bellcrumb.stove.guide import Moment, Urgency
from bellcrumb.stove.steps import Step
from bellcrumb.words import say

# What a probe can stand in, and what it matters to know of before it is laid on.
_PROBED: tuple[PartWork, ...] = (
    "stirred", "folded", "butter", "curd", "nut", "cremeux", "gelatine", "ganache", "jam", "coulis",
    "roux", "pie", "bath", "batter", "flan", "sauce", "cheesecake", "cold_cheese", "mascarpone",
    "citrus", "italian", "swiss",
)  # fmt: skip
_DONE_SHARE = 0.97  # a vessel is full this much under its weight: what drips is not waited for
_OVER_SHARE = 1.08  # and too full beyond this
_VERBS: dict[Lies, str] = {
    "lining": say("dessert.line_it_with"),
    "poured": say("dessert.pour_in"),
    "mm": say("dessert.spread"),
    "below_rim": say("dessert.pour_in"),
    "share": say("dessert.pour_in"),
    "grams": say("dessert.lay_on"),
    "dome": say("dessert.heap_on"),
    "swirls": say("dessert.pipe_on"),
    "dusted": say("dessert.strew"),
    "sheet": say("dessert.lay_on"),
}


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
        rest = _rest(n, layer.name, [s for s in made.steps[first:last] if s.code != "plate"])
        out += [rest] if rest else []
    return [*out, _label(made.steps)]


def _ready(layers: Sequence[Lain], count: int, stand: str) -> Step:
    what = f"{count} × {stand}" if count > 1 else stand
    return Step(
        "ready",
        "ready",
        say("dessert.everything_within_reach", what=what),
        sign=say("dessert.every_part_cold_or_warm_as"),
        avoid=say("dessert.a_part_still_too_warm_undoes"),
    )


def _checks(n: int, layer: Lain, below: Lain | None, met: Meeting | None) -> list[Step]:
    """The temperatures that matter where two parts meet."""
    if met is None:
        return []
    found = []
    if below and met.lower_max_c is not None and met.lower_max_c <= 12 and below.kind in _PROBED:
        found.append(
            Step(
                f"below_{n}",
                "check",
                say("dessert.probe_into_the_in_its_middle", part=below.name),
                sign=say("dessert.under_c", lower_max_c=met.lower_max_c),
                avoid=_sentence(met.too_soon),
                high_c=met.lower_max_c,
                there=say("dessert.cold_enough_on_with_the", part=layer.name),
            )
        )
    if met.upper_max_c is not None and met.upper_min_c is not None and layer.kind in _PROBED:
        found.append(
            Step(
                f"warm_{n}",
                "check",
                say("dessert.probe_into_the", part=layer.name),
                sign=say(
                    "dessert.between_and_c",
                    upper_min_c=met.upper_min_c,
                    upper_max_c=met.upper_max_c,
                ),
                avoid=_sentence(met.too_soon),
                low_c=met.upper_min_c,
                high_c=met.upper_max_c,
                there=say("dessert.as_it_should_be_lay_it"),
            )
        )
    return found


def _sentence(words: str) -> str:
    return words[:1].upper() + words[1:] + "." if words and words != "none" else ""


def _lay(
    n: int, layer: Lain, met: Meeting | None, count: int, schools: Schools, below: Lain | None
) -> Step:
    title = say("dessert.the", verbs=_VERBS[layer.lies], part=layer.name)
    depth = say("dessert.mm_deep_to_mm_above_the", mm=layer.mm, to_mm=layer.to_mm)
    caution = ""
    if met and met.most_h and met.too_late:
        caution = say(
            "dessert.from_now_on_the_clock_runs", most_h=met.most_h, too_late=met.too_late
        )
    if below and met and met.school == "hot" and schools.filling == "hot":
        caution = say(
            "dessert.warm_on_purpose_the_softens_a", part=below.name, caution=caution
        ).strip()
    if layer.lies == "lining":
        depth = say(
            "dessert.mm_thick",
            mm=layer.mm,
            walls=say("dessert.up_the_wall_too") if layer.walls else "",
        )
    return Step(
        f"lay_{n}",
        "lay",
        title,
        sign=depth,
        avoid=_sentence(met.too_soon) if met else "",
        caution=caution,
        there=say("dessert.enough_go_on"),
        grams=layer.g_each,
        count=count,
    )


def _rest(n: int, part: str, steps: Sequence[BuildStep]) -> Step | None:
    """What follows a layer before the next one: set, chilled, torched, or baked elsewhere."""
    if not steps:
        return None
    words = say("dessert.then").join(s.words for s in steps)
    timed = say("dessert.then").join(
        s.words + (say("dessert.lasting", long=_hours(long)) if (long := _long_min(s)) >= 1 else "")
        for s in steps
    )
    wait_min = sum(s.minutes for s in steps)
    oven = any(s.oven_c is not None for s in steps)
    title, sign = (f"{said[:1].upper()}{said[1:]}" for said in (words, timed))
    avoid = say("dessert.the_bake_has_a_page_of") if oven else ""
    return Step(
        f"rest_{n}",
        "finish",
        title,
        sign=sign + ".",
        avoid=avoid,
        hold_s=0 if oven or wait_min < 2 else round(60 * wait_min),
        there=say("dessert.long_enough_for_the_go_on", part=part)
        if part
        else say("dessert.long_enough_go_on"),
    )


def _long_min(step: BuildStep) -> float:
    """How long a step is said to be: its wait, or all of it where it is mostly work."""
    return step.minutes if step.hands_min > step.wait_min else step.wait_min


def _label(steps: Sequence[BuildStep]) -> Step:
    """Until when it may wait, and from when it may be cut."""
    plate = next(s for s in steps if s.code == "plate")
    least = max((g.at_least_min for g in plate.after), default=0.0)
    most = min((g.at_most_min for g in plate.after if g.at_most_min is not None), default=0.0)
    cut = (
        say("dessert.to_be_cut_from_from_now", least=_hours(least))
        if least >= 1
        else say("dessert.ready_to_be_cut")
    )
    return Step(
        "label",
        "finish",
        say("dessert.cover_and_label_it", cut=cut),
        sign=say("dessert.at_its_best_within_of_now", most=_hours(most))
        if most
        else say("dessert.serve_it_soon"),
        avoid=say("dessert.name_time_and_what_it_contains"),
    )


def _hours(minutes: float) -> str:
    """As a cook says it: minutes under two hours, then hours to the half."""
    if minutes < 120:
        return say("dessert.min_2", minutes=minutes)
    return say("dessert.h", h=round(minutes / 30) / 2)


def checked_moment(step: Step, watch: Watch, fresh: bool) -> Moment:
    """What a check says now: warm, cold, or as it should be. Without a probe, by touch."""
    temp = watch.last[1] if watch.last and fresh else None
    if temp is None:
        return Moment(
            None, "c", say("dessert.no_reading_yet"), next_move=step.title, urgency="calm"
        )
    rate = rate_k_per_min(watch.recent)
    if step.high_c is not None and temp > step.high_c:
        return Moment(
            temp,
            "c",
            say("dessert.too_warm"),
            next_move=say("dessert.wait", avoid=step.avoid).strip(),
            urgency="soon",
            rate_k_per_min=rate,
        )
    if step.low_c is not None and temp < step.low_c:
        return Moment(
            temp,
            "c",
            say("dessert.too_cold"),
            next_move=say("dessert.warm_it_a_little", avoid=step.avoid).strip(),
            urgency="soon",
            rate_k_per_min=rate,
        )
    return Moment(
        temp,
        "c",
        say("dessert.as_it_should_be"),
        next_move=step.there,
        urgency="now",
        rate_k_per_min=rate,
        done=True,
    )


def vessel_at(step: Step, poured_g: float) -> int:
    """Which of the vessels is being filled, from 1."""
    if step.grams <= 0:
        return 1
    return min(step.count, math.floor(poured_g / step.grams + 1 - _DONE_SHARE) + 1)


def laid_moment(step: Step, poured_g: float | None) -> Moment:
    """What the scale says of a layer: how much is in this vessel, of how much. ``poured_g`` is all
    that was laid in this step; None without a scale."""
    if poured_g is None:
        return Moment(
            step.grams,
            "g",
            say("dessert.by_the_scale_on_the_bench"),
            next_move=step.title,
            urgency="calm",
            done=True,
        )
    at = vessel_at(step, poured_g)
    here = max(0.0, poured_g - (at - 1) * step.grams)
    which = (
        say("dessert.vessel_of", at=at, count=step.count)
        if step.count > 1
        else say("dessert.on_the_scale")
    )
    left = step.grams - here
    if at == step.count and here > _OVER_SHARE * step.grams:
        return Moment(
            here,
            "g",
            say("dessert.too_much"),
            next_move=say("dessert.take_g_off_again", here=here - step.grams),
            urgency="wrong",
            done=True,
        )
    if at == step.count and here >= _DONE_SHARE * step.grams:
        return Moment(
            here, "g", say("dessert.enough"), next_move=step.there, urgency="now", done=True
        )
    urgency: Urgency = "soon" if here > 0.8 * step.grams else "calm"
    words = say("dessert.g_to_go", left=left)
    return Moment(here, "g", which, next_move=words, urgency=urgency)


def is_enough(got_g: float, asked_g: float) -> bool:
    """Whether a layer that was weighed got what it asked for."""
    return abs(got_g - asked_g) <= (_OVER_SHARE - 1) * asked_g
