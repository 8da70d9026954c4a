"""Learning from a bake while it bakes: start temperature and oven, from a probe or from wobbles."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bellcrumb.oven.pull import OVEN_KNOWN_K, OVEN_SPREAD_K, START_KNOWN_K, START_SPREAD_K, Known
from bellcrumb.oven.run import Bake, Cases, Job

Array = NDArray[np.float64]

PROBE_K = 1.0  # a probe in the middle is off by its place more than by its noise
# A probe in the air hangs in one place of an oven that swings around its dial.
AIR_K, AIR_SETTLES_S = 4.0, 720.0
DISC_SHARE = 0.15  # how well a cook sees how wide the loose disc is
MOST_POINTS = 24
_STEP_K = 3.0
_ROUNDS = 2


@dataclass(frozen=True)
class Look:
    """A look at the wobble: ``disc_share`` of the width still loose (1 all, 0 none)."""

    t_s: float
    disc_share: float


@dataclass(frozen=True)
class Refit:
    """What a bake has told of itself: what the start and the oven really are, each with its
    spread, and how far the prediction was off before and is now (K, root mean square)."""

    start_c: float
    offset_k: float
    start_spread_k: float
    offset_spread_k: float
    before_rms_k: float
    after_rms_k: float
    points: int

    @property
    def known(self) -> Known:
        """Whether what was fitted counts as measured."""
        return Known(
            start=self.start_spread_k <= START_KNOWN_K + 1,
            oven=self.offset_spread_k <= OVEN_KNOWN_K + 1,
        )


def refit(
    job: Job,
    start_c: float,
    offset_k: float,
    set_c: float,
    probe: Sequence[tuple[float, float]],
    looks: Sequence[Look] = (),
    air: Sequence[tuple[float, float]] = (),
) -> Refit | None:
    """Least squares with priors of what was not known (start +-5 K, oven +-8 K), Gauss and Newton
    with differences from cases of one run. ``probe`` is (s in the oven, degC in the middle), and
    ``air`` the same of a probe in the oven's air, which says what the oven is once it has settled.
    None while there is too little to say.
    """
    probe = _thinned([p for p in probe if p[0] > 60])
    thermostat = [c - job.oven.set_c(t / 60) for t, c in air if t > AIR_SETTLES_S]
    if len(probe) < 4 and not looks and len(thermostat) < 4:
        return None
    spread = np.array([START_SPREAD_K, OVEN_SPREAD_K])
    if len(thermostat) >= 4:
        offset_k, spread[1] = float(np.median(thermostat)), AIR_K
    at = np.array([start_c, offset_k])
    prior = at.copy()
    first: float | None = None
    rms = 0.0
    cover = np.diag(spread**2)
    for _ in range(_ROUNDS):
        wrong, slope = _differences(job, at, set_c, probe, looks)
        temps = wrong[: len(probe)] * PROBE_K
        rms = float(np.sqrt((temps**2).mean())) if len(temps) else 0.0
        first = rms if first is None else first
        normal = slope.T @ slope + np.diag(1 / spread**2)
        pull = slope.T @ wrong - (at - prior) / spread**2
        cover = np.linalg.inv(normal)
        at = at + np.clip(cover @ pull, -15, 15)
    wrong, _ = _differences(job, at, set_c, probe, looks)
    temps = wrong[: len(probe)] * PROBE_K
    rms = float(np.sqrt((temps**2).mean())) if len(temps) else 0.0
    return Refit(
        float(at[0]), float(at[1]), float(np.sqrt(cover[0, 0])), float(np.sqrt(cover[1, 1])),
        first or 0.0, rms, len(probe) + len(looks) + len(thermostat),
    )  # fmt: skip


def _thinned(points: Sequence[tuple[float, float]]) -> list[tuple[float, float]]:
    stride = max(1, len(points) // MOST_POINTS)
    return list(points[::-1][::stride][::-1])


def _differences(
    job: Job, at: Array, set_c: float, probe: Sequence[tuple[float, float]], looks: Sequence[Look]
) -> tuple[Array, Array]:
    """Seen less predicted, and how the prediction moves with start and oven, in spreads."""
    starts = at[0] + np.array([0.0, _STEP_K, 0.0])
    offsets = at[1] + np.array([0.0, 0.0, _STEP_K])
    run = Bake(job, Cases(starts, offsets, np.ones(3), np.full(3, set_c)))
    last = max([t for t, _ in probe] + [look.t_s for look in looks], default=0.0)
    while run.t_s < last:
        run.step()
    t, centre, disc = run.trace.t_s, run.trace.centre_c, run.trace.disc_mm
    width = 2 * job.mould.half_mm
    seen = [(c, np.array([np.interp(s, t, centre[:, n]) for n in range(3)]), PROBE_K)
            for s, c in probe]  # fmt: skip
    seen += [
        (
            look.disc_share,
            np.array([np.interp(look.t_s, t, disc[:, n] / width) for n in range(3)]),
            DISC_SHARE,
        )
        for look in looks
    ]
    wrong = np.array([(value - there[0]) / spread for value, there, spread in seen])
    moves = [(there[1:] - there[0]) / _STEP_K / spread for _, there, spread in seen]
    slope = np.array(moves).reshape(len(seen), 2)
    return wrong, slope
