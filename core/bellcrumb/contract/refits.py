"""Ovens known better: a bake fitted while it goes on, and the walk with a pan of water."""

import math

from bellcrumb.asked.bakes import goes_in_c, job_of, oven_family, pulled_by, stops_wobbling_c
from bellcrumb.book.learn import told_of
from bellcrumb.mix.composition import Mix
from bellcrumb.oven.calibrate import calibrate
from bellcrumb.oven.figures import figures
from bellcrumb.oven.pull import bake, cases_of
from bellcrumb.oven.refit import Observations, known, refit
from bellcrumb.shapes import oven as shapes
from bellcrumb.shapes.explain import FigureSeen, OvenFigure, OvenTold
from bellcrumb.vessels.geometry import Vessel
from bellcrumb.words import say


def refit_mix(
    mix: Mix, given: shapes.BakeIn, told: Observations, vessels: dict[str, Vessel] | None
) -> shapes.RefitOut | None:
    """The window as the bake itself tells it; None while it has told too little. Raises CraftError
    for a bake that cannot be."""
    kin = oven_family(mix, given.family)
    job, _, _ = job_of(mix, kin, given, vessels)
    set_c = stops_wobbling_c(mix, kin)
    start = goes_in_c(given.mix.temp_c, kin, job)
    found = refit(job, start, job.oven.offset_k, set_c, told)
    if found is None:
        return None
    again = bake(
        job,
        cases_of(found.start_c, found.offset_k, set_c, known(found)),
        pulled_by(given, kin),
        given.after,
    )
    window = again.window
    ends = [None if m is None else 60 * m for m in (window.from_min, window.to_min)]
    moved = found.offset_k - job.oven.offset_k
    return shapes.RefitOut(
        from_s=ends[0],
        to_s=ends[1],
        low_s=60 * window.from_band[0] if window.from_band else None,
        high_s=60 * window.to_band[1] if window.to_band else None,
        **vars(found),
        says=_says(found.start_c, moved, found.offset_spread_k),
    )


def figures_mix(
    mix: Mix, given: shapes.BakeIn, told: Observations, vessels: dict[str, Vessel] | None
) -> OvenTold | None:
    """What a whole bake with a probe in the air tells of its oven, the figures beside what it was
    thought to be; None where there was no such probe. Raises CraftError for a bake that cannot
    be."""
    kin = oven_family(mix, given.family)
    job, _, _ = job_of(mix, kin, given, vessels)
    start = goes_in_c(given.mix.temp_c, kin, job)
    found = figures(job, start, stops_wobbling_c(mix, kin), told)
    if found is None:
        return None
    fitted: dict[OvenFigure, tuple[float, float]] = {
        "film": (found.film, found.film_spread), "vent": (found.vent, found.vent_spread),
        "recovers": (found.recovers, found.recovers_spread),
    }  # fmt: skip
    rows = {name: told_of(name, math.log(f), spread) for name, (f, spread) in fitted.items()}
    seen = [FigureSeen(figure=name, log=row[0], spread=row[1]) for name, row in rows.items() if row]
    return OvenTold(
        offset_k=found.offset_k, offset_spread_k=found.offset_spread_k, figures=seen
    )  # fmt: skip


def _says(start_c: float, moved_k: float, spread_k: float) -> str:
    said = say("contract.it_went_in_at_c", start_c=start_c)
    if spread_k > 6:
        return said + say("contract.of_the_oven_it_tells_nothing")
    if abs(moved_k) < 1.5:
        return said + say("contract.and_the_oven_does_what_was")
    word = say("contract.cooler") if moved_k < 0 else say("contract.hotter")
    return said + say("contract.and_the_oven_is_k_than", moved_k=abs(moved_k), word=word)


def walked(given: shapes.WalkIn) -> shapes.WalkOut:
    """What an oven is like. Raises CraftError for a walk too short."""
    found = calibrate(
        given.kind,
        given.set_c,
        given.water_ml / 1000,
        (given.pan_length_mm, given.pan_width_mm),
        [(r.t_s, r.temp_c) for r in given.readings],
        given.shelf_c,
        given.altitude_m,
    )
    word = say("contract.cooler") if found.offset_k < 0 else say("contract.hotter")
    dial = (
        say("contract.as_its_dial_says")
        if abs(found.offset_k) < 1.5
        else say("contract.k_than_its_dial", offset_k=abs(found.offset_k), word=word)
    )
    return shapes.WalkOut(
        **vars(found),
        says=say(
            "contract.it_runs_k_its_air_blows",
            dial=dial,
            offset_spread_k=found.offset_spread_k,
            film=found.film,
            vent=found.vent,
        ),
    )
