"""What a kitchen teaches: rings, pots, ovens and its own set, each as a mean, a spread and a count.

Normal priors and normal evidence, so that every update is a weighted mean (conjugate); what is old
fades, a thirtieth a batch. A value is a prior's until there is evidence, and never surer than that.
"""

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from bellcrumb.book.learned import Learned
from bellcrumb.oven.scene import FIGURE_PRIORS

FADES = 0.97  # what a batch counts for when one more has come after it; our estimate
# A ring's real power over its rated, as a logarithm: gas rings are spread by 12 % (trade), a boil
# timed with a probe tells it to 10 %.
RING_PRIOR, RING_NOISE = (0.0, 0.12), 0.10
# What a pot on a ring loses beyond an ordinary one, W/m2K of its base: about what its wall gives
# off when half of it is wet, either way. Our estimate.
LOSS_PRIOR = (0.0, 15.0)
# What really leaves a pot beside what the model says, as a logarithm: pans, whisks and extractors
# differ by half, and what stays on the spoon blurs a weighing by a third. Our estimates.
POT_PRIOR, POT_NOISE = (0.0, 0.45), 0.35
# A weighing outside of these shares of what was to leave is of something else (its bowl, half of
# it), and less than a spoonful tells nothing.
_OFF_SHARES, _OFF_LEAST_G = (0.1, 8.0), 8.0
# What an oven is above its dial, K. Static: -6 +- 13, fan -2 +- 8 (trade); a bake's time tells it
# to about 6 K.
OVEN_PRIORS, OVEN_NOISE = {"static": (-6.0, 13.0), "fan": (-2.0, 8.0)}, 6.0
# A probe in the custard (or in the air) tells it better, never surer than this: the same dial is
# turned by other hands and the door opened more or less. Our estimate.
OVEN_PROBED_K = 2.5
# One bake tells how its oven blows, vents and comes back never better than to an eighth: moulds
# and racks are set in otherwise each time. Our estimate.
FIGURE_KNOWN = 0.12
_TELLS = 0.9  # a bake that leaves more than this of the prior's spread tells nothing
_SLACK, _SLACK_MIN = 0.35, 4.0
# How much firmer this kitchen judges (or makes) a family than the books, in S.
SET_PRIOR, SET_NOISE = (0.0, 0.6), 0.8
# How much firmer a cream would be of which one line (this corn starch, these eggs) carries all.
LINE_PRIOR_S = 0.45  # our estimate: lots of a starch differ by a tenth


def updated(
    prior: tuple[float, float], noise: float | Sequence[float], seen: Iterable[float]
) -> Learned:
    """A normal mean under a normal prior after ``seen`` (oldest first), older ones fading;
    ``noise`` is the spread of each, or of all of them.

    With precisions p0 = 1/sd0^2 and p = 1/noise^2: mean = (p0 m0 + sum w p x) / (p0 + sum w p).

    >>> updated((0.0, 1.0), 1.0, [2.0])
    Learned(mean=1.0, sd=0.7071067811865476, n=1)
    """
    values = list(seen)
    noises = [noise] * len(values) if isinstance(noise, int | float) else list(noise)
    mean0, sd0 = prior
    precision = 1 / sd0**2
    total = precision * mean0
    for age, (value, spread) in enumerate(zip(values[::-1], noises[::-1], strict=True)):
        weight = FADES**age / spread**2
        precision += weight
        total += weight * value
    return Learned(total / precision, precision**-0.5, len(values))


def ring(shares: Iterable[float]) -> Learned:
    """A ring's power over its rated, from what each heating needed of it: the seconds predicted
    over those it took, and what its pot lost beside."""
    found = updated(RING_PRIOR, RING_NOISE, [math.log(share) for share in shares])
    mean = math.exp(found.mean)
    return Learned(mean, mean * found.sd, found.n)


def loss(seen: Sequence[tuple[float, float]]) -> Learned:
    """What a pot on a ring loses beyond an ordinary one, W/m2K of its base, from what each heating
    told and how well (`book.heating.loss_told`)."""
    return updated(LOSS_PRIOR, [sd for _, sd in seen], [value for value, _ in seen])


def boiled_off(predicted_g: Iterable[float], lost_g: Iterable[float]) -> Learned:
    """How much of what the model lets boil away really does, from weighings; those that cannot be
    meant are left out.

    >>> boiled_off([40.0], [60.0]).n, round(boiled_off([40.0], [60.0]).mean, 2)
    (1, 1.29)
    """
    low, high = _OFF_SHARES
    pairs = zip(predicted_g, lost_g, strict=True)
    logs = [
        math.log(lost / told)
        for told, lost in pairs
        if lost >= _OFF_LEAST_G and told > 0 and low <= lost / told <= high
    ]
    found = updated(POT_PRIOR, POT_NOISE, logs)
    mean = math.exp(found.mean)
    return Learned(mean, mean * found.sd, found.n)


def oven_offset_k(dial_c: float, set_c: float, predicted_min: float, took_min: float) -> float:
    """What an oven must have been above its dial for a bake to take so long, K.

    Time goes with one over what the air is above where the custard sets: a first-order law, good
    near the prediction and told no more than 40 K either way.
    """
    found = (dial_c - set_c) * (predicted_min / took_min - 1)
    return max(-40.0, min(40.0, found))


def unlearned_min(air_c: float, set_c: float, took_min: float, learned_k: float) -> float:
    """Minutes a bake would be told without what was learned of its oven: the law of
    ``oven_offset_k`` the other way. ``air_c`` is the air with it.

    >>> round(unlearned_min(142.0, 82.0, 40.0, -8.0), 1)
    35.3
    """
    return took_min * (air_c - set_c) / max(air_c - learned_k - set_c, 1.0)


def oven(
    kind: str, offsets_k: Iterable[float], spreads_k: Sequence[float] | None = None
) -> Learned:
    """What an oven is above its dial, K, from its bakes; ``kind`` static or fan, ``spreads_k`` how
    well each tells it (None: by its time alone)."""
    return updated(OVEN_PRIORS[kind], spreads_k or OVEN_NOISE, offsets_k)


def told_of(figure: str, log: float, spread: float) -> tuple[float, float] | None:
    """What a bake by itself says of a figure, as a logarithm with its spread, from what was fitted
    with the prior in it; None where the bake added next to nothing.

    >>> told_of("film", 0.2, 0.15)
    (0.2666666666666667, 0.17320508075688773)
    >>> told_of("vent", 0.1, 0.68) is None
    True
    """
    prior = FIGURE_PRIORS[figure]
    if spread > _TELLS * prior:
        return None
    precision = spread**-2 - prior**-2
    return log * spread**-2 / precision, max(FIGURE_KNOWN, precision**-0.5)


def oven_figure(figure: str, seen: Sequence[tuple[float, float]]) -> Learned:
    """A figure of an oven beside what is known of it, as a factor, from (logarithm, spread)."""
    prior = 0.0, FIGURE_PRIORS[figure]
    found = updated(prior, [sd for _, sd in seen], [log for log, _ in seen])
    mean = math.exp(found.mean)
    return Learned(mean, mean * found.sd, found.n)


def timed_by_its_sign(took_min: float, from_min: float, to_min: float) -> bool:
    """Whether a bake came out near its window, so that its time tells of the oven and not of a cook
    who was elsewhere. An oven off by 20 K moves it by a third."""
    slack = max(_SLACK_MIN, _SLACK * to_min)
    return from_min - slack <= took_min <= to_min + slack


@dataclass(frozen=True)
class SetSeen:
    """A judged batch: its family, the share of the set that each of its lines carries, and how much
    firmer than predicted it was judged, S."""

    family: str
    lines: Mapping[str, float]
    shift: float


def set_shifts(seen: Sequence[SetSeen]) -> tuple[dict[str, Learned], dict[str, Learned]]:
    """How much firmer than predicted each family comes out here, and each line beyond that, S.

    One normal model of all of them: shift = family + sum of share x line + noise, with independent
    normal priors. With K the stacked shares, W the (fading) precisions of the verdicts and P those
    of the priors, the posterior is normal with covariance (K' W K + P)^-1 and mean that times
    K' W y. A family of which no line is known is updated as by itself.
    """
    families = sorted({row.family for row in seen})
    lines = sorted({line for row in seen for line in row.lines})
    at = {name: n for n, name in enumerate((*families, *(f"line {x}" for x in lines)))}
    shares = np.zeros((len(seen), len(at)))
    weights, later = np.zeros(len(seen)), dict.fromkeys(families, 0)
    for n in range(len(seen) - 1, -1, -1):
        row = seen[n]
        shares[n, at[row.family]] = 1.0
        for line, share in row.lines.items():
            shares[n, at[f"line {line}"]] = share
        weights[n] = FADES ** later[row.family] / SET_NOISE**2
        later[row.family] += 1
    prior = np.array([SET_PRIOR[1] if name in families else LINE_PRIOR_S for name in at])
    cover = np.linalg.inv(shares.T @ (weights[:, None] * shares) + np.diag(prior**-2.0))
    mean = cover @ (shares.T @ (weights * np.array([row.shift for row in seen])))

    def found(key: str, count: int) -> Learned:
        return Learned(float(mean[at[key]]), float(cover[at[key], at[key]] ** 0.5), count)

    return (
        {f: found(f, sum(row.family == f for row in seen)) for f in families},
        {x: found(f"line {x}", sum(x in row.lines for row in seen)) for x in lines},
    )
