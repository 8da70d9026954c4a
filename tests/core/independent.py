"""The same conduction problem in a library of other people's: finite elements, Crank-Nicolson.

A disc of 40 mm across and 40 mm deep at 20 degC in water of 80 degC (350 W/m2K on all faces).
"""

import numpy as np
from scipy.sparse.linalg import splu
from skfem import Basis, BilinearForm, ElementQuad1, FacetBasis, LinearForm, MeshQuad
from skfem.helpers import dot, grad

from bellcrumb.heat.field import Field, Mesh

K, RHO_CP, H, START_C, WATER_C = 0.5, 4.0e6, 350.0, 20.0, 80.0
RADIUS, HEIGHT = 0.02, 0.04


def theirs(columns: int, rows: int, step_s: float, until_s: float) -> float:
    """Temperature in the middle by scikit-fem."""
    mesh = MeshQuad.init_tensor(
        np.linspace(0, RADIUS, columns + 1), np.linspace(0, HEIGHT, rows + 1)
    )
    inside = Basis(mesh, ElementQuad1())
    outer = mesh.facets_satisfying(lambda x: x[0] > 1e-9, boundaries_only=True)
    skin = FacetBasis(mesh, ElementQuad1(), facets=outer)
    stiff = BilinearForm(lambda u, v, w: K * dot(grad(u), grad(v)) * w.x[0]).assemble(inside)
    film = BilinearForm(lambda u, v, w: H * u * v * w.x[0]).assemble(skin)
    mass = BilinearForm(lambda u, v, w: RHO_CP * u * v * w.x[0]).assemble(inside)
    load = LinearForm(lambda v, w: H * WATER_C * v * w.x[0]).assemble(skin)
    a = stiff + film
    lhs, rhs = splu((mass / step_s + a / 2).tocsc()), mass / step_s - a / 2
    temp = np.full(mesh.nvertices, START_C)
    for _ in range(round(until_s / step_s)):
        temp = lhs.solve(rhs @ temp + load)
    middle = np.argmin(mesh.p[0] ** 2 + (mesh.p[1] - HEIGHT / 2) ** 2)
    return float(temp[middle])


def ours(columns: int, rows: int, step_s: float, until_s: float) -> float:
    """The same by our field; its middle is between the innermost cells."""
    mesh = Mesh(
        "round", np.linspace(0, RADIUS, columns + 1)[None], np.linspace(0, HEIGHT, rows + 1)[None]
    )
    shape = (1, rows, columns)
    field = Field(mesh, np.full(shape, RHO_CP), np.full(shape, START_C), step_s)
    across, up = np.full((1, columns), H), np.full((1, rows), H)
    field.couple(np.full(shape, K), across, up, across)
    water = np.full((1, columns), WATER_C), np.full((1, rows), WATER_C)
    for _ in range(round(until_s / step_s)):
        field.step(water[0], water[1], water[0])
    inner = field.temp_c[0, rows // 2 - 1 : rows // 2 + 1, 0].mean()
    # From the first cell's middle to the axis along the parabola of the two inner ones.
    next_ = field.temp_c[0, rows // 2 - 1 : rows // 2 + 1, 1].mean()
    return float(inner - (next_ - inner) / 8)
