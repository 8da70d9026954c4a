"""Bakes at the front door."""

import time
from dataclasses import replace

import numpy as np

from bellcrumb.asked.bakes import (
    goes_in_c,
    job_of,
    not_for_these,
    oven_family,
    predicted,
    pulled_by,
    stops_wobbling_c,
)
from bellcrumb.asked.lines import mix_asked
from bellcrumb.contract.oven_out import bake_out
from bellcrumb.errors import CraftError
from bellcrumb.mix.composition import Mix
from bellcrumb.oven.pull import signs, stepped
from bellcrumb.oven.run import Cases, Job
from bellcrumb.oven.scene import Mould, OvenKind
from bellcrumb.shapes import oven as shapes
from bellcrumb.texture.families import Doneness
from bellcrumb.vessels.geometry import Vessel
from bellcrumb.words import say

_KIND_WORDS: dict[OvenKind, str] = {"fan": say("contract.fan"), "static": say("contract.static")}


def baked(given: shapes.BakeIn, vessels: dict[str, Vessel] | None = None) -> shapes.BakeOut:
    """Bake a mix; ``vessels`` adds a kitchen's own. Raises CraftError."""
    mix, said = mix_asked(given.mix, "mix.")
    return bake_mix(mix, given, said, vessels)


def bake_mix(
    mix: Mix, given: shapes.BakeIn, said: list[str], vessels: dict[str, Vessel] | None
) -> shapes.BakeOut:
    """``baked`` of a mix already understood."""
    began = time.perf_counter()
    found, poured, set_c, kin = predicted(mix, given, vessels)
    said = [*said, *not_for_these(given.vessel, given.fill, vessels, mix.volume_ml / given.count)]
    return bake_out(found, given, poured, set_c, kin, said, 1000 * (time.perf_counter() - began))


def chosen(given: shapes.ChooseIn, vessels: dict[str, Vessel] | None = None) -> shapes.ChooseOut:
    """Try oven settings with and without the bath, and say which serves the wish.

    Raises CraftError when none bakes it within the time.
    """
    mix, _ = mix_asked(given.mix, "mix.")
    return choose_mix(mix, given, vessels)


TRIED_C = (110.0, 120.0, 130.0, 140.0, 150.0, 160.0, 170.0, 180.0, 190.0, 200.0)


def choose_mix(
    mix: Mix, given: shapes.ChooseIn, vessels: dict[str, Vessel] | None
) -> shapes.ChooseOut:
    """``chosen`` of a mix already understood. All settings are cases of one run."""
    kin = oven_family(mix, given.family)
    set_c = stops_wobbling_c(mix, kin)
    found: list[shapes.ChoiceOut] = []
    for bath in (given.bath or shapes.BathIn(), None):
        oven = given.oven.model_copy(update={"set_c": TRIED_C[0], "stages": []})
        asked = given.model_copy(update={"bath": bath, "oven": oven})
        job, mould, _ = job_of(mix, kin, asked, vessels)
        start = goes_in_c(given.mix.temp_c, kin, job)
        n = len(TRIED_C)
        offsets = np.array(TRIED_C) - TRIED_C[0] + given.oven.offset_k
        cases = Cases(np.full(n, start), offsets, np.ones(n), set_c=np.full(n, set_c))
        found += _tried(job, cases, given, mould, bath is not None, pulled_by(given, kin))
    if not found:
        raise CraftError("within_min", say("contract.nothing_tried_bakes_it_in_that"))
    even = given.wish == "even"
    found.sort(
        key=lambda c: (c.overdone_pct, c.edge_minus_centre_k) if even else (-c.window_min, 0.0)
    )
    best = found[0].model_copy(update={"chosen": True})
    water = say("contract.in_a_bath") if best.bath else say("contract.without_a_bath")
    says = say(
        "contract.c_min_the_edge_k_ahead",
        set_c=best.set_c,
        water=water,
        pull_min=best.pull_min,
        edge_minus_centre_k=best.edge_minus_centre_k,
        window_min=best.window_min,
    )
    return shapes.ChooseOut(choices=[best, *found[1:]], says=says)


def _tried(
    job: Job, cases: Cases, given: shapes.ChooseIn, mould: Mould, bath: bool, sign: Doneness
) -> list[shapes.ChoiceOut]:
    trace = stepped(job, cases, 60 * given.within_min)
    shown = signs(trace, 2 * mould.half_mm)[sign]
    ahead = trace.edge_c - trace.centre_c
    found = []
    for n, set_c in enumerate(TRIED_C):
        start, end = shown[:, n].tolist()
        if not np.isfinite(end) or (start + end) / 2 > 60 * given.within_min:
            continue
        pull_s = (start + end) / 2
        found.append(
            shapes.ChoiceOut(
                set_c=set_c,
                bath=bath,
                pull_min=pull_s / 60,
                window_min=(end - start) / 60,
                edge_minus_centre_k=float(np.interp(pull_s, trace.t_s, ahead[:, n])),
                overdone_pct=100 * float(np.interp(pull_s, trace.t_s, trace.weeping(n))),
                chosen=False,
            )
        )
    return found


GAS_MARKS = ((135, "1"), (149, "2"), (163, "3"), (177, "4"), (190, "5"), (204, "6"), (218, "7"),
             (232, "8"), (246, "9"))  # fmt: skip
RULE_K = 20.0  # "twenty less with the fan"


def converted(given: shapes.BakeIn, vessels: dict[str, Vessel] | None = None) -> shapes.ConvertOut:
    """The same bake in the other kind of oven. Raises CraftError."""
    mix, _ = mix_asked(given.mix, "mix.")
    return convert_mix(mix, given, vessels)


def convert_mix(
    mix: Mix, given: shapes.BakeIn, vessels: dict[str, Vessel] | None
) -> shapes.ConvertOut:
    """``converted`` of a mix already understood: the dial of the other oven that pulls it in the
    same minute, from several tried as cases of one run."""
    kin = oven_family(mix, given.family)
    set_c = stops_wobbling_c(mix, kin)
    job, mould, _ = job_of(mix, kin, given, vessels)
    start = goes_in_c(given.mix.temp_c, kin, job)
    width = 2 * mould.half_mm
    one = stepped(job, Cases.one(start, job.oven.offset_k, set_c), 4 * 3600)
    sign_is = pulled_by(given, kin)
    aim = float(signs(one, width)[sign_is].mean(0)[0])
    other: OvenKind = "static" if job.oven.kind == "fan" else "fan"
    sign = 1 if other == "static" else -1
    steps = np.arange(0.0, 61.0, 10.0) * sign
    n = len(steps)
    cases = Cases(
        np.full(n, start), steps + job.oven.offset_k, np.ones(n), set_c=np.full(n, set_c)
    )  # fmt: skip
    there = replace(job, oven=replace(job.oven, kind=other))
    trace = stepped(there, cases, 1.5 * aim + 600 if np.isfinite(aim) else 3600)
    pulls = signs(trace, width)[sign_is].mean(0)
    dial = job.oven.stages[-1].set_c
    order = np.argsort(pulls)
    fits = np.isfinite(aim) and np.isfinite(pulls).any() and pulls.min() <= aim
    moved = float(np.interp(aim, pulls[order], steps[order])) if fits else None
    rule = dial + sign * RULE_K
    mark = min(GAS_MARKS, key=lambda m: abs(m[0] - dial))[1]
    words = (
        say("contract.in_a_oven_c_by_the", other=_KIND_WORDS[other], rule=rule)
        if moved is None
        else say(
            "contract.in_a_oven_c_pulls_it", other=_KIND_WORDS[other], dial=dial + moved, rule=rule
        )
    )
    return shapes.ConvertOut(
        kind=other,
        set_c=None if moved is None else dial + moved,
        rule_c=rule,
        fahrenheit=dial * 1.8 + 32,
        gas_mark=mark,
        says=words,
    )
