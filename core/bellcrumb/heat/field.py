"""Conduction in a round or straight section: finite volumes, stepped by alternating directions.

Arrays are (cases, rows, columns): rows from the floor up, columns from the axis out. Several cases
of the same mesh are solved at once, which is what makes a band of answers as quick as one.

The stepper is Peaceman and Rachford's (1955): with c = 2C/dt,
    (c - A_r) T* = right + b;   r2 = 2c T* - right;   (c - A_z) T+ = r2;   right = 2c T+ - r2
so that no operator is ever applied explicitly; b is what the surfaces give. All lines of a
direction stack into one symmetric positive definite tridiagonal system.
"""

from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray
from scipy.linalg.lapack import dpttrf, dpttrs

from bellcrumb.words import say

Array = NDArray[np.float64]
Section = Literal["round", "straight"]


@dataclass
class Mesh:
    """Cells by their faces in m: ``r`` (cases, columns + 1) from 0, ``z`` (cases, rows + 1) from 0.

    A round section is a disc around the axis; a straight one is half of a plane symmetric about
    r = 0, one metre long.
    """

    section: Section
    r: Array
    z: Array

    def __post_init__(self) -> None:
        self.dr = np.diff(self.r)
        self.dz = np.diff(self.z)
        if self.section == "round":
            self.plan = np.pi * np.diff(self.r**2)
            self.around = 2 * np.pi * self.r
        else:
            # Both halves, as a round one is whole.
            self.plan = 2 * self.dr
            self.around = np.full_like(self.r, 2.0)
        self.volume = self.dz[:, :, None] * self.plan[:, None, :]
        self.side = self.dz[:, :, None] * self.around[:, None, :]  # (cases, rows, columns + 1)


class Field:
    """Temperatures on a mesh, and their stepping.

    ``rho_cp`` is J/m3K per cell. The floor, the side and the top each have a film coefficient in
    W/m2K (0: insulated) and an outside temperature that may change at every step.
    """

    def __init__(self, mesh: Mesh, rho_cp: Array, temp_c: Array, step_s: float) -> None:
        self.mesh = mesh
        self.heat = rho_cp * mesh.volume
        self.temp_c = temp_c.astype(np.float64)
        self.pace(step_s)
        self._right: Array | None = None

    def couple(self, k: Array, floor_h: Array, side_h: Array, top_h: Array) -> None:
        """Set conductivities (W/mK per cell) and film coefficients: floor and top by column
        (cases, columns), side by row (cases, rows). Factors both directions."""
        m = self.mesh
        resists = 0.5 / k
        half_r, half_z = m.dr[:, None, :] * resists, m.dz[:, :, None] * resists
        across = m.side[:, :, 1:-1] / (half_r[:, :, 1:] + half_r[:, :, :-1])
        up = m.plan[:, None, :] / (half_z[:, 1:, :] + half_z[:, :-1, :])
        self.side_g = _film(m.side[:, :, -1], side_h, half_r[:, :, -1])
        self.floor_g = _film(m.plan, floor_h, half_z[:, 0, :])
        self.top_g = _film(m.plan, top_h, half_z[:, -1, :])
        self._half_top = half_z[:, -1, :]
        along_r, along_z = self._c.copy(), self._c.copy()
        along_r[:, :, 1:] += across
        along_r[:, :, :-1] += across
        along_r[:, :, -1] += self.side_g
        along_z[:, 1:, :] += up
        along_z[:, :-1, :] += up
        along_z[:, 0, :] += self.floor_g
        along_z[:, -1, :] += self.top_g
        self._up, self._along_z = up, along_z
        self._r = _factor(along_r, across)
        self._z = _factor(along_z.transpose(0, 2, 1), up.transpose(0, 2, 1))
        self._right = None

    def pace(self, step_s: float) -> None:
        """Take steps of another length from here on; to be coupled again after it."""
        self.step_s = step_s
        self._c = 2 * self.heat / step_s
        self._2c = 2 * self._c

    def step(
        self, floor_c: Array, side_c: Array, top_c: Array, sink_w: Array | None = None
    ) -> None:
        """Advance one step with outside temperatures at its middle: floor and top (cases, columns),
        side (cases, rows). ``sink_w`` is heat that leaves each cell by another way, W."""
        if self._right is None:
            self._right = (self._2c - self._along_z) * self.temp_c
            self._right[:, 1:, :] += self._up * self.temp_c[:, :-1, :]
            self._right[:, :-1, :] += self._up * self.temp_c[:, 1:, :]
        r1 = self._right.copy()
        r1[:, :, -1] += self.side_g * side_c
        r1[:, 0, :] += self.floor_g * floor_c
        r1[:, -1, :] += self.top_g * top_c
        if sink_w is not None:
            r1 -= sink_w
        r2 = self._2c * _solve(self._r, r1).reshape(r1.shape) - self._right
        flipped = np.ascontiguousarray(r2.transpose(0, 2, 1))
        full = _solve(self._z, flipped).reshape(flipped.shape).transpose(0, 2, 1)
        self.temp_c = np.ascontiguousarray(full)
        self._right = self._2c * self.temp_c - r2

    def top_surface_c(self, top_c: Array) -> Array:
        """Temperature of the top face (cases, columns) under an outside temperature."""
        flux = self.top_g * (top_c - self.temp_c[:, -1, :])
        surface: Array = self.temp_c[:, -1, :] + flux * self._half_top / self.mesh.plan
        return surface

    def inflow_w(self, floor_c: Array, side_c: Array, top_c: Array) -> Array:
        """Heat flowing in over all faces now, W per case."""
        total: Array = (
            (self.side_g * (side_c - self.temp_c[:, :, -1])).sum(1)
            + (self.floor_g * (floor_c - self.temp_c[:, 0, :])).sum(1)
            + (self.top_g * (top_c - self.temp_c[:, -1, :])).sum(1)
        )
        return total


def _film(area: Array, h: Array, half: Array) -> Array:
    """Conductance of a film and the half cell behind it, W/K; none to speak of where h is 0."""
    return area / (1 / np.maximum(h, 1e-12) + half)


def _factor(diagonal: Array, coupling: Array) -> tuple[Array, Array]:
    """Factor lines along the last axis, stacked: between lines the coupling is 0."""
    lines = np.zeros(diagonal.shape)
    lines[..., :-1] = -coupling
    d, e, info = dpttrf(np.ascontiguousarray(diagonal).ravel(), lines.ravel()[:-1])
    if info:
        raise ArithmeticError(say("heat.the_conduction_matrix_is_not_positive"))
    return d, e


def _solve(factors: tuple[Array, Array], right: Array) -> Array:
    solved: Array = dpttrs(factors[0], factors[1], right.reshape(-1, 1))[0]
    return solved
