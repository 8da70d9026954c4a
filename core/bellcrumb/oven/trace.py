"""What was seen of a bake: temperatures, set shares and the wobble, a row a step."""

from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from bellcrumb.laws.egg import WEEPS, WOBBLES
from bellcrumb.oven.chamber import Chamber
from bellcrumb.oven.scene import Body
from bellcrumb.oven.setting import SetKinetics

Array = NDArray[np.float64]

EDGE_M = 0.005

# A moment of one case: seconds, temperatures of all cells, the two integrals, the chamber.
State = tuple[float, Array, Array, Array, tuple[Array, ...], Array]


class Trace:
    """What was seen, a row a step. Quantities are (steps, cases)."""

    def __init__(self, body: Body, deep: int) -> None:
        self._body, self.deep = body, deep
        self._rows: list[tuple[float, Array, Array, Array, Array, Array]] = []
        self.states: list[State] = []

    def add(
        self, t_s: float, custard_c: Array, cells_c: Array, setting: SetKinetics, room: Chamber,
        dried_kg_m2: Array,
    ) -> None:  # fmt: skip
        """Write down a moment: the custard, all cells of the mould, how far it set, the chamber,
        and how far its top has dried."""
        bath = room.bath_c if room.bath is not None else np.full_like(room.air_c, np.nan)
        done, spoilt = setting.done.copy(), setting.spoilt.copy()
        self._rows.append((t_s, custard_c.copy(), done, spoilt, bath, room.air_c))
        dried = dried_kg_m2[:1].copy()
        self.states.append((t_s, cells_c[:1], done[:1], spoilt[:1], room.state(), dried))

    @cached_property
    def t_s(self) -> Array:
        """When, s."""
        return np.array([row[0] for row in self._rows])

    @cached_property
    def temp_c(self) -> Array:
        """Custard cells (steps, cases, rows, columns), degC."""
        return np.array([row[1] for row in self._rows])

    @cached_property
    def set_share(self) -> Array:
        """The set share of the custard cells."""
        found: Array = 1 - np.exp(-np.array([row[2] for row in self._rows]))
        return found

    def spoilt_share(self, case: int = 0) -> Array:
        """How far the custard cells of a case were overdone (steps, rows, columns)."""
        found: Array = 1 - np.exp(-np.array([row[3][case] for row in self._rows]))
        return found

    @cached_property
    def bath_c(self) -> Array:
        """The water, degC (nan without)."""
        return np.array([row[4] for row in self._rows])

    @cached_property
    def air_c(self) -> Array:
        """The air around the moulds, degC."""
        return np.array([row[5] for row in self._rows])

    @cached_property
    def centre_c(self) -> Array:
        """On the axis at half the depth, where a probe is held."""
        middle = self.temp_c.shape[2] // 2
        found: Array = (self.temp_c[:, :, middle, 0] + self.temp_c[:, :, middle - 1, 0]) / 2
        return found

    @cached_property
    def edge_c(self) -> Array:
        """Five millimetres from the wall (or a quarter of the way in, if that is less) at half the
        depth, wherever the cells lie."""
        half = self._body.mesh.r[0, self._body.columns]
        where = half - min(EDGE_M, half / 4)
        outer = min(int(np.searchsorted(self.middles_m, where)), len(self.middles_m) - 1)
        inner = outer - 1
        apart = self.middles_m[outer] - self.middles_m[inner]
        part = min(1.0, (where - self.middles_m[inner]) / apart)
        level = self.temp_c[:, :, self.temp_c.shape[2] // 2]
        found: Array = level[:, :, inner] + part * (level[:, :, outer] - level[:, :, inner])
        return found

    @cached_property
    def done(self) -> Array:
        """The integral of setting of the least set cell of each column (steps, cases, columns):
        what is loose there moves, also under a set top."""
        return np.array([row[2][:, : self.deep].min(1) for row in self._rows])

    @cached_property
    def columns(self) -> Array:
        """The set share of the least set cell of each column (steps, cases, columns)."""
        found: Array = 1 - np.exp(-self.done)
        return found

    @cached_property
    def middles_m(self) -> Array:
        """How far the middle of each column is from the axis."""
        faces = self._body.mesh.r[0, : self._body.columns + 1]
        found: Array = (faces[1:] + faces[:-1]) / 2
        return found

    @cached_property
    def least_set(self) -> Array:
        """The least set cell."""
        found: Array = self.columns.min(2)
        return found

    def weeping(self, case: int = 0) -> Array:
        """The share of the custard of a case that is overdone (steps,)."""
        volume = self._body.mesh.volume[case, self._body.floor :, : self._body.columns]
        gone = (self.spoilt_share(case) > WEEPS) * volume
        found: Array = gone.sum((1, 2)) / volume.sum()
        return found

    @cached_property
    def disc_mm(self) -> Array:
        """Width of the part that still wobbles, seen from above, by a line between columns."""
        faces, middle = self._body.mesh.r[0, : self._body.columns + 1], self.middles_m
        loose = self.columns < WOBBLES
        most = loose.shape[2] - 1
        last = np.where(loose.any(2), most - loose[:, :, ::-1].argmax(2), -1)
        inner = np.maximum(last, 0)
        outer = np.minimum(inner + 1, most)
        low = np.take_along_axis(self.columns, inner[:, :, None], 2)[:, :, 0]
        high = np.take_along_axis(self.columns, outer[:, :, None], 2)[:, :, 0]
        part = np.clip((WOBBLES - low) / np.maximum(high - low, 1e-9), 0, 1)
        edge = middle[inner] + part * (middle[outer] - middle[inner])
        edge = np.where(last == most, faces[-1], edge)
        # Inside the first column the disc shrinks to nothing with what is left to set.
        left = 1 - np.clip(self.columns[:, :, 0] / WOBBLES, 0, 1)
        edge = np.where(last == 0, np.minimum(edge, middle[1] * left), edge)
        found: Array = np.where(last < 0, 0.0, 2000 * edge)
        return found
