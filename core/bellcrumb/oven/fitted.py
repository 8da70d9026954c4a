"""What fits tell: of a bake while it goes on, and of an oven. Plain answers; no solver is behind
them until one is asked for."""

from dataclasses import KW_ONLY, dataclass


@dataclass(frozen=True)
class Refit:
    """What a bake has told of itself: what the start and the oven really are, each with its
    spread, and how far the prediction was off before and is now (K, root mean square)."""

    start_c: float
    offset_k: float
    start_spread_k: float
    _: KW_ONLY
    offset_spread_k: float
    before_rms_k: float
    after_rms_k: float
    points: int


@dataclass(frozen=True)
class FittedOven:
    """What a fit tells of an oven: ``offset_k`` above its dial, ``film`` and ``vent`` as factors of
    what it was thought to be, each with its spread."""

    offset_k: float
    offset_spread_k: float
    film: float
    _: KW_ONLY
    film_spread: float
    vent: float
    vent_spread: float


@dataclass(frozen=True)
class OvenCalibration(FittedOven):
    """An oven from a pan of water: factors of an ordinary one of its kind, and how far the water
    was from its curve, K (root mean square)."""

    _: KW_ONLY
    rms_k: float
