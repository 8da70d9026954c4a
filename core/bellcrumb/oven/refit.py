"""Learning from a bake while it bakes: start temperature and oven, from a probe or from wobbles."""

import math
from collections.abc import Sequence
from dataclasses import KW_ONLY, dataclass

import numpy as np
from numpy.typing import NDArray

from bellcrumb.oven.fitted import Refit
from bellcrumb.oven.pull import OVEN_KNOWN_K, OVEN_SPREAD_K, START_KNOWN_K, START_SPREAD_K, Known
from bellcrumb.oven.run import Bake, Cases, Job, Strides

Array = NDArray[np.float64]

PROBE_K = 1.0  # a probe in the middle is off by its place more than by its noise
# A probe in the air hangs in one place of an oven that swings around its dial.
AIR_K, SETTLES_S = 4.0, 720.0
BATH_K = 2.5  # water lies in layers, and was not poured quite as said
DISC_SHARE = 0.15  # how well a cook sees how wide the loose disc is
MOST_POINTS = 24
_STEP_K = 3.0
_ROUNDS = 2
# Minute steps: a third of a minute's error would be read as two kelvins of the oven.
_STRIDES: Strides = ((30.0, 10.0), (120.0, 30.0), (math.inf, 60.0))


@dataclass(frozen=True)
class Look:
    """A look at the wobble: ``disc_share`` of the width still loose (1 all, 0 none)."""

    t_s: float
    disc_share: float


Points = Sequence[tuple[float, float]]


@dataclass(frozen=True)
class Observations:
    """What a bake has told so far, as (s in the oven, degC): a ``probe`` in the middle of a
    custard, others in the oven's ``air`` and in the ``bath``, and ``looks`` at the wobble."""

    probe: Points = ()
    looks: Sequence[Look] = ()
    air: Points = ()
    _: KW_ONLY
    bath: Points = ()


def known(found: Refit) -> Known:
    """Whether what was fitted counts as measured."""
    return Known(
        start=found.start_spread_k <= START_KNOWN_K + 1,
        oven=found.offset_spread_k <= OVEN_KNOWN_K + 1,
    )


def refit(
    job: Job, start_c: float, offset_k: float, set_c: float, told: Observations
) -> Refit | None:
    """Least squares with priors of what was not known (start +-5 K, oven +-8 K), Gauss and Newton
    with differences from cases of one run. A probe in the air says what the oven is once it has
    settled; one in the bath counts from then on too. None while there is too little to say.
    """
    probe = thinned([p for p in told.probe if p[0] > 60])
    bath = thinned([p for p in told.bath if p[0] > SETTLES_S]) if job.bath else []
    thermostat = [c - job.oven.set_c(t / 60) for t, c in told.air if t > SETTLES_S]
    if not told.looks and max(len(probe), len(bath), len(thermostat)) < 4:
        return None
    used = Observations(probe, told.looks, (), bath=bath)
    spread = np.array([START_SPREAD_K, OVEN_SPREAD_K])
    if len(thermostat) >= 4:
        offset_k, spread[1] = float(np.median(thermostat)), AIR_K
    at = np.array([start_c, offset_k])
    prior = at.copy()
    first: float | None = None
    cover = np.diag(spread**2)
    for _ in range(_ROUNDS):
        wrong, slope = _differences(job, at, set_c, used)
        first = _rms_k(wrong, probe) if first is None else first
        normal = slope.T @ slope + np.diag(1 / spread**2)
        pull = slope.T @ wrong - (at - prior) / spread**2
        cover = np.linalg.inv(normal)
        at = at + np.clip(cover @ pull, -15, 15)
    wrong, _ = _differences(job, at, set_c, used)
    points = len(probe) + len(told.looks) + len(thermostat) + len(bath)
    return Refit(
        float(at[0]), float(at[1]), float(np.sqrt(cover[0, 0])),
        offset_spread_k=float(np.sqrt(cover[1, 1])),
        before_rms_k=first or 0.0, after_rms_k=_rms_k(wrong, probe), points=points,
    )  # fmt: skip


def _rms_k(wrong: Array, probe: Points) -> float:
    """How far the prediction is off the probe in the custard, K."""
    temps = wrong[: len(probe)] * PROBE_K
    return float(np.sqrt((temps**2).mean())) if len(temps) else 0.0


def thinned(points: Points) -> list[tuple[float, float]]:
    """No more readings than are worth their time."""
    stride = max(1, len(points) // MOST_POINTS)
    return list(points[::-1][::stride][::-1])


def _differences(job: Job, at: Array, set_c: float, told: Observations) -> tuple[Array, Array]:
    """Seen less predicted, and how the prediction moves with start and oven, in spreads; the probe
    in the custard first."""
    starts = at[0] + np.array([0.0, _STEP_K, 0.0])
    offsets = at[1] + np.array([0.0, 0.0, _STEP_K])
    run = Bake(job, Cases(starts, offsets, np.ones(3), set_c=np.full(3, set_c)), strides=_STRIDES)
    looks = [(look.t_s, look.disc_share) for look in told.looks]
    last = max((t for t, _ in (*told.probe, *told.bath, *looks)), default=0.0)
    while run.t_s < last:
        run.step()
    trace, width = run.trace, 2 * job.mould.half_mm
    seen = (
        (told.probe, trace.centre_c, PROBE_K),
        (told.bath, trace.bath_c, BATH_K),
        (looks, trace.disc_mm / width, DISC_SHARE),
    )
    wrong: list[float] = []
    moves: list[Array] = []
    for points, series, spread in seen:
        for t, value in points:
            there = np.array([np.interp(t, trace.t_s, series[:, n]) for n in range(3)])
            wrong.append((value - there[0]) / spread)
            moves.append((there[1:] - there[0]) / _STEP_K / spread)
    return np.array(wrong), np.array(moves).reshape(len(wrong), 2)
