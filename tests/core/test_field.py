import unittest

import numpy as np
from scipy.special import j0, j1, jn_zeros

from bellcrumb.heat.field import Field, Mesh
from bellcrumb.oven.scene import mould_of
from bellcrumb.vessels.geometry import vessel_from_measures
from tests.core.independent import ours, theirs


def quench(columns, rows, step_s, until_s, section="round"):
    """A body of 40 mm across and 40 mm deep at 20 degC, every face held at 80."""
    mesh = Mesh(
        section, np.linspace(0, 0.02, columns + 1)[None], np.linspace(0, 0.04, rows + 1)[None]
    )
    field = Field(
        mesh, np.full((1, rows, columns), 4.0e6), np.full((1, rows, columns), 20.0), step_s
    )
    hard_r, hard_z = np.full((1, rows), 1e9), np.full((1, columns), 1e9)
    field.couple(np.full((1, rows, columns), 0.5), hard_z, hard_r, hard_z)
    around_r, around_z = np.full((1, rows), 80.0), np.full((1, columns), 80.0)
    while until_s > 0:
        field.step(around_z, around_r, around_z)
        until_s -= step_s
    return field


def series(r, z, t, section):
    """The same by the product of the series of its two directions (Carslaw & Jaeger)."""
    a, radius, height = 0.5 / 4.0e6, 0.02, 0.04
    n = np.arange(400)
    odd = (2 * n + 1) * np.pi / height

    def slab(x):
        terms = 4 / np.pi * np.sin(np.outer(x, odd)) / (2 * n + 1) * np.exp(-a * odd**2 * t)
        return terms.sum(1)

    if section == "straight":
        across = slab(r + height / 2)
    else:
        zeros = jn_zeros(0, 200)
        across = (2 / (zeros * j1(zeros)) * j0(np.outer(r, zeros) / radius)
                  * np.exp(-a * (zeros / radius) ** 2 * t)).sum(1)  # fmt: skip
    return 80 - 60 * np.outer(slab(z), across)


class FieldTest(unittest.TestCase):
    def test_a_finite_cylinder_and_a_slab_follow_their_series(self):
        for section, (columns, rows), centre, anywhere in (
            ("round", (12, 16), 0.2, 0.6), ("round", (32, 40), 0.05, 0.2),
            ("straight", (12, 16), 0.2, 0.6),
        ):  # fmt: skip
            field = quench(columns, rows, 10.0, 600.0, section)
            mesh = field.mesh
            r = (mesh.r[0, 1:] + mesh.r[0, :-1]) / 2
            z = (mesh.z[0, 1:] + mesh.z[0, :-1]) / 2
            off = np.abs(field.temp_c[0] - series(r, z, 600.0, section))
            with self.subTest(section=section, columns=columns):
                self.assertLess(off[rows // 2, 0], centre)
                self.assertLess(off.max(), anywhere)

    def test_a_square_tin_cools_as_its_disc_does(self):
        def slab(width, t):
            n = np.arange(300)
            odd = (2 * n + 1) * np.pi / width
            return (4 / np.pi * np.sin(odd * width / 2) / (2 * n + 1)
                    * np.exp(-0.125e-6 * odd**2 * t)).sum()  # fmt: skip

        tin = vessel_from_measures("rect", 50, length_mm=200, width_mm=200)
        half = mould_of(tin, 50).half_mm / 1000
        shape = (1, 40, 32)
        mesh = Mesh("round", np.linspace(0, half, 33)[None], np.linspace(0, 0.05, 41)[None])
        field = Field(mesh, np.full(shape, 4.0e6), np.full(shape, 20.0), 20.0)
        across, up = np.full((1, 32), 1e9), np.full((1, 40), 1e9)
        field.couple(np.full(shape, 0.5), across, up, across)
        for n in range(1, 200):
            field.step(np.full((1, 32), 80.0), np.full((1, 40), 80.0), np.full((1, 32), 80.0))
            exact = 80 - 60 * slab(0.2, 20 * n) ** 2 * slab(0.05, 20 * n)
            self.assertAlmostEqual(field.temp_c[0, 19:21, 0].mean(), exact, delta=0.15)

    def test_an_independent_library_finds_the_same(self):
        for columns, rows, apart in ((16, 20, 0.25), (32, 40, 0.08)):
            off = ours(columns, rows, 5.0, 600.0) - theirs(columns, rows, 5.0, 600.0)
            self.assertLess(abs(off), apart)

    def test_no_heat_is_made_or_lost(self):
        rng = np.random.default_rng(4)
        mesh = Mesh("round", np.linspace(0, 0.05, 9)[None], np.linspace(0, 0.03, 7)[None])
        field = Field(mesh, rng.uniform(1e6, 4e6, (1, 6, 8)), rng.uniform(0, 90, (1, 6, 8)), 30.0)
        field.couple(
            rng.uniform(0.1, 20, (1, 6, 8)), np.zeros((1, 8)), np.zeros((1, 6)), np.zeros((1, 8))
        )
        before = (field.heat * field.temp_c).sum()
        for _ in range(100):
            field.step(np.zeros((1, 8)), np.zeros((1, 6)), np.zeros((1, 8)))
        self.assertAlmostEqual((field.heat * field.temp_c).sum() / before, 1, delta=1e-10)

    def test_what_flows_in_is_what_warms(self):
        field = quench(16, 20, 10.0, 100.0)
        outside = [np.full((1, 16), 80.0), np.full((1, 20), 80.0), np.full((1, 16), 80.0)]
        heat, flowed, flux = (field.heat * field.temp_c).sum(), 0.0, field.inflow_w(*outside)
        for _ in range(60):
            field.step(*outside)
            after = field.inflow_w(*outside)
            flowed += 10.0 * float((flux + after)[0]) / 2
            flux = after
        warmed = (field.heat * field.temp_c).sum() - heat
        self.assertAlmostEqual(flowed / warmed, 1, delta=1e-3)
