"""What fits tell: of a bake while it goes on, and of an oven. Plain answers; no solver is behind
them until one is asked for."""

from dataclasses import dataclass


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


@dataclass(frozen=True)
class OvenCalibration:
    """The three figures with their spreads, and how far the water was from its curve, K (root mean
    square). ``film`` and ``vent`` are factors of an ordinary oven of its kind."""

    offset_k: float
    offset_spread_k: float
    film: float
    film_spread: float
    vent: float
    vent_spread: float
    rms_k: float
