"""Egg setting as kinetics: how far each point has set, and how far it has been overdone."""

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]

# Set share S = 1 - exp(-I), dI/dt = RATE * 10^((T - T_set) / Z). Calibrated so that at 1 K a minute
# a custard that sets at 79 degC stops wobbling (S 0.40) at 79.3 and is set through (0.93) at 83.2,
# the usual 77-80 and 82-83 degC of practice. Confidence: medium; the temperature itself carries
# +-2 K (coagulation).
RATE_PER_S = 3.2e-3
Z_K = 5.5
# The set temperature here is where it stops wobbling on an ordinary climb; a formula's best
# temperature is where it has set, a little on.
BELOW_IDEAL_K = 2.0
# Weeping takes a steeper law of its own: with the same one the dry rim of a good custard would
# count as spoilt. 0.4 is reached 11 K above the set temperature at 1 K a minute.
WEEP_RATE_PER_S = 5.2e-4
WEEP_Z_K = 3.0
WEEP_ABOVE_K = 8.0

_PER_K, _LOG_RATE = math.log(10) / Z_K, math.log(RATE_PER_S)
_WEEP_PER_K, _LOG_WEEP_RATE = math.log(10) / WEEP_Z_K, math.log(WEEP_RATE_PER_S)

WOBBLES = 0.40  # below this it still moves
SET_THROUGH = 0.93  # a knife comes out clean
WEEPS = 0.40
LIQUID = 0.03  # below this it stirs itself
SPREAD_K = 1.5  # of the set temperature of a formula of a known family


@dataclass
class Setting:
    """The two integrals of every cell; ``set_c`` is the set temperature (cases,), ``tolerates_k``
    how much hotter than an egg custard this mix may get before it weeps."""

    set_c: Array
    done: Array
    spoilt: Array
    tolerates_k: float = 0.0
    _rates: tuple[Array, Array] | None = None

    @classmethod
    def start(cls, set_c: Array, cells: Array, tolerates_k: float = 0.0) -> "Setting":
        """Nothing set yet."""
        still = np.zeros_like(cells), np.zeros_like(cells)
        return cls(set_c[:, None, None], *still, tolerates_k)

    def pass_by(self, temp_c: Array, step_s: float) -> None:
        """Let ``step_s`` pass, ending at ``temp_c`` (Simpson's rule on a straight way there from
        the last call, whose middle has the geometric mean of the two rates)."""
        # Twenty kelvins under, an hour sets a four-hundredth: nothing to count.
        if self._rates is None and bool((temp_c < self.set_c - 20).all()):
            return
        over = temp_c - self.set_c
        rates = (
            np.exp(over * _PER_K + _LOG_RATE),
            np.exp((over - (WEEP_ABOVE_K + self.tolerates_k)) * _WEEP_PER_K + _LOG_WEEP_RATE),
        )
        if self._rates is not None:
            self.done += _simpson(self._rates[0], rates[0], step_s)
            self.spoilt += _simpson(self._rates[1], rates[1], step_s)
        self._rates = rates

    def liquid_in(self, s: float) -> NDArray[np.bool_]:
        """Where it will still stir itself in ``s`` seconds."""
        pace = 0.0 if self._rates is None else self._rates[0]
        found: NDArray[np.bool_] = self.done + s * pace < -math.log(1 - LIQUID)
        return found

    def resume(self, done: Array, spoilt: Array, temp_c: Array) -> None:
        """Go on from what is done at ``temp_c``."""
        self.done, self.spoilt, self._rates = done.copy(), spoilt.copy(), None
        self.pass_by(temp_c, 0.0)

    @property
    def share(self) -> Array:
        """The set share of every cell, 0 to 1."""
        found: Array = 1 - np.exp(-self.done)
        return found

    @property
    def weeping(self) -> Array:
        """How far every cell has been overdone, 0 to 1."""
        found: Array = 1 - np.exp(-self.spoilt)
        return found


def _simpson(before: Array, after: Array, step_s: float) -> Array:
    found: Array = (before + 4 * np.sqrt(before * after) + after) * (step_s / 6)
    return found
