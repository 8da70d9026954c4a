"""What one heating tells of its ring: how long it took, and what its pot loses."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise, takewhile

import numpy as np

from bellcrumb.heat.pot import Cream, Fuel, Pot, heat_to, stored_j_per_k, surface_w
from bellcrumb.laws.air import ROOM_C

Curve = Sequence[tuple[float, float]]  # (s, degC)

# A heating is timed to this much under its highest, and a shorter one tells nothing of a ring.
_UNDER_K, _LEAST_S = 2.0, 60.0
# The first readings warm the wall and the element; near the boil what steams off is anyone's guess;
# and a short piece of a curve tells no loss. Our estimates.
_SETTLES_S, _BELOW_BOIL_K, _LEAST_K = 100.0, 8.0, 24.0
# How evenly a ring is fed and a pot is stirred from one half of a heating to the other, as a share
# of its power; our estimate.
_EVEN = 0.03
# Beyond these no pot loses, W/m2K: the ring was turned down, or up, on the way. Our estimates.
_LEAST_W_M2K, _MOST_W_M2K = -40.0, 100.0
_PROBE_K = 0.1  # how well a probe reads a difference
_STEP_S = 4.0


def heating_s(planned: Curve, actual: Curve) -> tuple[float, float] | None:
    """Seconds to the same temperature as planned and as it was; None where too little was heated.

    Both are (s, degC) from the start of the heating. The temperature is just under the highest that
    both came to, so that a heating ended early is no weak ring.
    """
    if not planned or not actual:
        return None
    target = min(max(c for _, c in planned), max(c for _, c in actual)) - _UNDER_K
    expected, took = (next(t for t, c in curve if c >= target) for curve in (planned, actual))
    return (expected, took) if min(expected, took) > _LEAST_S else None


def share_per_loss(curve: Curve, pot: Pot, power_w: float) -> float:
    """The share of ``power_w`` that each W/m2K of loss takes, on the mean of a heating (m2K/W)."""
    lasts = curve[-1][0] - curve[0][0]
    return pot.base_m2 * _above_ks(curve) / lasts / power_w if lasts > 0 else 0.0


def _above_ks(curve: Curve) -> float:
    pairs = pairwise(curve)
    return sum(((c0 + c1) / 2 - ROOM_C) * (t1 - t0) for (t0, c0), (t1, c1) in pairs)


@dataclass(frozen=True)
class LossTold:
    """What a heating tells of the loss of its pot, W/m2K of base beyond an ordinary one, with its
    spread."""

    loss_w_m2k: float
    spread: float


def loss_told(curve: Curve, cream: Cream, pot: Pot, fuel: Fuel) -> LossTold | None:
    """The loss of a pot from how its heating slows, whatever the power of its ring.

    An energy balance of the cool and of the hot half, each power = stored + surface + loss base
    (T - room): what both agree on is the power, what they differ by is the loss. What the same
    balance finds in the model's own heating, which has none (the element still warms, water has
    steamed off), is taken off. None where the heating is too short to have halves, or slows (or
    hastens) so much that somebody turned the ring.
    """
    if not curve:
        return None
    # Up to just under its highest: after it the ring was off.
    highest = max(c for _, c in curve) - _UNDER_K
    top = min(cream.boil_c - _BELOW_BOIL_K, cream.thickens_c, highest)
    seen = _balance(curve, top, cream, pot, fuel)
    if seen is None:
        return None

    def modelled(power_w: float) -> _Balance | None:
        run = heat_to(cream, pot, fuel, power_w, curve[0][1], top, 0, "whisk", dt_s=_STEP_S)
        heating = [(t, c) for t, c in run.curve if t <= (run.reaches_s or math.inf)]
        return _balance(heating, top, cream, pot, fuel)

    plain = modelled(seen.power_w)
    plain = plain and modelled(seen.power_w**2 / plain.power_w)  # as fast as it was
    if plain is None:
        return None
    found = LossTold(seen.loss_w_m2k - plain.loss_w_m2k, seen.spread)
    tells = found.spread < _MOST_W_M2K and _LEAST_W_M2K <= found.loss_w_m2k <= _MOST_W_M2K
    return found if tells else None


@dataclass(frozen=True)
class _Balance:
    """The loss a heating shows, with its spread, and the mean power it needed without one."""

    loss_w_m2k: float
    spread: float
    power_w: float


def _balance(curve: Curve, top: float, cream: Cream, pot: Pot, fuel: Fuel) -> _Balance | None:
    rising = _risen(curve, top)
    if len(rising) < 3 or rising[-1][1] - rising[0][1] < _LEAST_K:
        return None
    middle_c = (rising[0][1] + rising[-1][1]) / 2
    at = next(n for n, (_, c) in enumerate(rising) if c >= middle_c)
    stored = stored_j_per_k(cream, pot, fuel)
    parts = [_needed(part, stored, pot) for part in (rising[: at + 1], rising[at:], rising)]
    if not all(parts):
        return None
    (cool_w, cool_k), (hot_w, hot_k), (whole_w, _) = [part for part in parts if part]
    apart = pot.base_m2 * (hot_k - cool_k)
    if apart <= 0:
        return None
    half_s = (rising[-1][0] - rising[0][0]) / 2
    read_w = 2**0.5 * _PROBE_K * stored / half_s
    spread_w = 2**0.5 * math.hypot(_EVEN * whole_w, read_w)
    return _Balance((cool_w - hot_w) / apart, spread_w / apart, whole_w)


def _risen(curve: Curve, top: float) -> Curve:
    """A heating from where it has settled to ``top``, at even steps."""
    at, reads = zip(*curve, strict=True)
    steps = np.arange(at[0] + _SETTLES_S, at[-1], _STEP_S)
    even = zip(steps.tolist(), np.interp(steps, at, reads).tolist(), strict=True)
    return list(takewhile(lambda point: point[1] <= top, even))


def _needed(part: Curve, stored_j_k: float, pot: Pot) -> tuple[float, float] | None:
    """The mean power (W) that a piece of a heating needed without a loss, and its mean above the
    room (K)."""
    lasts = part[-1][0] - part[0][0]
    if lasts <= 0 or part[-1][1] <= part[0][1]:
        return None
    surface_j = sum(
        surface_w((c0 + c1) / 2, pot, thickened=False) * (t1 - t0)
        for (t0, c0), (t1, c1) in pairwise(part)
    )
    gained_j = stored_j_k * (part[-1][1] - part[0][1])
    return (gained_j + surface_j) / lasts, _above_ks(part) / lasts
