"""What an oven is like, from a bake with a probe in its air: dial, film, vent and recovery.

A probe in the custard alone cannot tell a hot oven from a windy one. One in the air says what the
oven is above its dial and how fast it comes back after the door; what the custard and the water
then do more or less than told is the film and the vent.
"""

from collections.abc import Sequence
from dataclasses import KW_ONLY, dataclass, replace

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import least_squares

from bellcrumb.oven.fitted import FittedOven
from bellcrumb.oven.pull import OVEN_SPREAD_K, START_SPREAD_K
from bellcrumb.oven.refit import AIR_K, BATH_K, PROBE_K, Observations, thinned
from bellcrumb.oven.run import Bake, Cases, Job, Strides
from bellcrumb.oven.scene import FIGURE_PRIORS
from bellcrumb.work import checkpoint

Array = NDArray[np.float64]

LEAST_AIR, LEAST_INSIDE = 8, 6
_STRIDES: Strides = ((30.0, 10.0), (120.0, 30.0), (600.0, 60.0), (float("inf"), 120.0))
_EVALUATIONS, _ENOUGH = 6, 3e-3  # a share of the misfit, and of the way, that no longer matters
# The same readings again and again tell less than as many of their own: a model's error stays.
_OF_ONE_MIND = 8.0


@dataclass(frozen=True)
class OvenFigures(FittedOven):
    """The figures of an oven as one bake told them; the spreads of the factors are of their
    logarithms."""

    _: KW_ONLY
    recovers: float
    recovers_spread: float


def figures(job: Job, start_c: float, set_c: float, told: Observations) -> OvenFigures | None:
    """Fit an oven to a bake that has a probe in the air and one in the custard or the bath; None
    where there is too little of either. Priors: start +-5 K, dial +-8 K, film a third, vent two,
    recovery near a half."""
    air = thinned([p for p in told.air if p[0] > 60])
    probe = thinned([p for p in told.probe if p[0] > 60])
    bath = thinned([p for p in told.bath if p[0] > 60]) if job.bath else []
    if len(air) < LEAST_AIR or len(probe) + len(bath) < LEAST_INSIDE:
        return None
    seen = [(air, AIR_K), (probe, PROBE_K), (bath, BATH_K)]
    prior = np.array([START_SPREAD_K, OVEN_SPREAD_K, *FIGURE_PRIORS.values()])
    last = max(t for points, _ in seen for t, _ in points)

    def off(at: Array) -> Array:
        checkpoint()
        run = _run(job, start_c, set_c, at * prior, last)
        trace = run.trace
        series = (trace.air_c[:, 0], trace.centre_c[:, 0], trace.bath_c[:, 0])
        wrong: list[float] = [*at]
        for (points, spread), values in zip(seen, series, strict=True):
            share = max(1.0, len(points) / _OF_ONE_MIND) ** 0.5
            wrong += _wrong(points, trace.t_s, values, spread * share)
        return np.array(wrong)

    found = least_squares(
        off, np.zeros(5), diff_step=0.05, max_nfev=_EVALUATIONS, ftol=_ENOUGH, xtol=_ENOUGH
    )
    at = found.x * prior
    sd = np.sqrt(np.diag(np.linalg.inv(found.jac.T @ found.jac))) * prior
    film, vent, recovers = (float(np.exp(x)) for x in at[2:])
    return OvenFigures(
        job.oven.offset_k + float(at[1]), float(sd[1]), film, film_spread=float(sd[2]), vent=vent,
        vent_spread=float(sd[3]), recovers=recovers, recovers_spread=float(sd[4]),
    )  # fmt: skip


def _run(job: Job, start_c: float, set_c: float, at: Array, until_s: float) -> Bake:
    oven = replace(
        job.oven, film=job.oven.film * float(np.exp(at[2])),
        vent=job.oven.vent * float(np.exp(at[3])),
        recovers=job.oven.recovers * float(np.exp(at[4])),
    )  # fmt: skip
    case = Cases.one(start_c + float(at[0]), job.oven.offset_k + float(at[1]), set_c)
    run = Bake(replace(job, oven=oven), case, strides=_STRIDES)
    while run.t_s < until_s:
        run.step()
    return run


def _wrong(
    points: Sequence[tuple[float, float]], t_s: Array, values: Array, spread: float
) -> list[float]:
    return [(c - float(np.interp(t, t_s, values))) / spread for t, c in points]
