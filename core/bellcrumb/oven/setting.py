"""Egg setting as kinetics: how far each point has set, and how far it has been overdone."""

import math
from dataclasses import KW_ONLY, dataclass

import numpy as np
from numpy.typing import NDArray

from bellcrumb.laws import egg

Array = NDArray[np.float64]

SPREAD_K = 1.5  # of the set temperature of a formula of a known family


@dataclass
class SetKinetics:
    """The two integrals of every cell; ``set_c`` is the set temperature (cases,), ``tolerates_k``
    how much hotter than an egg custard this mix may get before it weeps."""

    set_c: Array
    done: Array
    spoilt: Array
    _: KW_ONLY
    tolerates_k: float = 0.0
    _rates: tuple[Array, Array] | None = None

    @classmethod
    def start(cls, set_c: Array, cells: Array, tolerates_k: float = 0.0) -> "SetKinetics":
        """Nothing set yet."""
        still = np.zeros_like(cells), np.zeros_like(cells)
        return cls(set_c[:, None, None], *still, tolerates_k=tolerates_k)

    def advance(self, temp_c: Array, step_s: float) -> None:
        """Let ``step_s`` pass, ending at ``temp_c`` (Simpson's rule on a straight way there from
        the last call, whose middle has the geometric mean of the two rates)."""
        # Twenty kelvins under, an hour sets a four-hundredth: nothing to count.
        if self._rates is None and bool((temp_c < self.set_c - 20).all()):
            return
        over = temp_c - self.set_c
        rates = (
            egg.setting_rate(over),
            egg.weeping_rate(over, self.tolerates_k),
        )
        if self._rates is not None:
            self.done += _simpson(self._rates[0], rates[0], step_s)
            self.spoilt += _simpson(self._rates[1], rates[1], step_s)
        self._rates = rates

    def liquid_in(self, s: float) -> NDArray[np.bool_]:
        """Where it will still stir itself in ``s`` seconds."""
        pace = 0.0 if self._rates is None else self._rates[0]
        found: NDArray[np.bool_] = self.done + s * pace < -math.log(1 - egg.LIQUID)
        return found

    def resume(self, done: Array, spoilt: Array, temp_c: Array) -> None:
        """Go on from what is done at ``temp_c``."""
        self.done, self.spoilt, self._rates = done.copy(), spoilt.copy(), None
        self.advance(temp_c, 0.0)

    @property
    def share(self) -> Array:
        """The set share of every cell, 0 to 1."""
        return egg.share_of(self.done)

    @property
    def weeping(self) -> Array:
        """How far every cell has been overdone, 0 to 1."""
        return egg.share_of(self.spoilt)


def _simpson(before: Array, after: Array, step_s: float) -> Array:
    found: Array = (before + 4 * np.sqrt(before * after) + after) * (step_s / 6)
    return found
