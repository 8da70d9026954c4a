import random
import unittest
from dataclasses import replace

import numpy as np

from bellcrumb.asked.bakes import goes_in_c, job_of, oven_family, stops_wobbling_c
from bellcrumb.asked.lines import mix_asked
from bellcrumb.book.learn import oven_figure, told_of
from bellcrumb.contract import compute
from bellcrumb.laws.air import ROOM_C
from bellcrumb.oven.chamber import DOOR_DROP_K, FILLED_DROP_K, Chamber
from bellcrumb.oven.figures import figures
from bellcrumb.oven.pour import at_the_oven_c
from bellcrumb.oven.refit import Observations
from bellcrumb.oven.run import Bake, Cases
from bellcrumb.oven.scene import FIGURE_PRIORS
from bellcrumb.shapes import oven
from tests.core.test_oven import FLAN, RAMEKIN


def asked(kind="static", bath=True, **told):
    return {
        "mix": {"lines": FLAN, "temp_c": 20}, "vessel": RAMEKIN, "count": 6,
        "oven": {"set_c": 155, "kind": kind, "door_min": [20], **told},
        **({"bath": {"level": "half", "water_c": 80}} if bath else {}),
    }  # fmt: skip


def seen(rng, truth, minutes=40, **how):
    """A bake in an oven that is ``truth`` and not what was thought, as its probes see it."""
    given = oven.BakeIn.model_validate(asked(**how))
    mix, _ = mix_asked(given.mix, "")
    kin = oven_family(mix, None)
    job, _, _ = job_of(mix, kin, given, None)
    set_c, start = stops_wobbling_c(mix, kin), goes_in_c(given.mix.temp_c, kin, job)
    real = replace(job, oven=replace(
        job.oven, **{k: v for k, v in truth.items() if k != "offset_k"}))  # fmt: skip
    run = Bake(real, Cases.one(start + rng.gauss(0, 2), truth.get("offset_k", 0.0), set_c))
    while run.t_s < 60 * minutes:
        run.step()
    trace = run.trace

    def probe(series, noise_k):
        return [
            (t, float(np.interp(t, trace.t_s, series[:, 0])) + rng.gauss(0, noise_k))
            for t in range(30, 60 * minutes, 20)
        ]

    air, bath = probe(trace.air_c, 3.0), probe(trace.bath_c, 0.5) if given.bath else ()
    return job, start, set_c, Observations(probe(trace.centre_c, 0.3), (), air, bath=bath)


class FiguresTest(unittest.TestCase):
    def test_a_bake_with_a_probe_in_the_air_tells_dial_film_vent_and_recovery(self):
        rng = random.Random(3)
        for truth, how in (
            ({}, {}),
            ({"offset_k": -10.0}, {}),
            ({"film": 1.4}, {"bath": False}),
            ({"film": 0.7}, {"kind": "fan"}),
            ({"vent": 0.4}, {}),
            ({"vent": 2.5}, {"kind": "fan"}),
            ({"recovers": 0.5}, {"kind": "fan"}),
        ):
            with self.subTest(truth=truth, how=how):
                found = figures(*seen(rng, truth, **how))
                self.assertAlmostEqual(found.offset_k, truth.get("offset_k", 0.0), delta=4)
                for name in FIGURE_PRIORS:
                    spread = getattr(found, f"{name}_spread")
                    off = np.log(getattr(found, name) / truth.get(name, 1.0))
                    self.assertLess(abs(off), 2.5 * spread, name)
                    if name in truth:  # and it says more than what was thought before
                        self.assertLess(abs(off), 0.6 * abs(np.log(truth[name])), name)

    def test_without_a_probe_in_the_air_nothing_is_told_of_it(self):
        job, start, set_c, told = seen(random.Random(1), {})
        self.assertIsNone(figures(job, start, set_c, replace(told, air=())))
        self.assertIsNone(figures(job, start, set_c, replace(told, probe=(), bath=())))

    def test_an_oven_comes_back_to_its_dial_sooner_when_it_recovers_fast(self):
        slow, fast = (
            compute("bake", asked(recovers=r))["pull_from_min"] for r in (0.5, 2.0)
        )  # fmt: skip
        self.assertGreater(slow, fast)


class PourTest(unittest.TestCase):
    def test_what_is_poured_warm_goes_in_cooler_and_the_shallow_lose_more(self):
        job, *_ = seen(random.Random(1), {}, minutes=1)
        deep = at_the_oven_c(60.0, job.mould, job.food)
        shallow = at_the_oven_c(60.0, replace(job.mould, fill_mm=15.0), job.food)
        self.assertTrue(ROOM_C < shallow < deep - 1 < 59, (shallow, deep))
        self.assertEqual(at_the_oven_c(60.0, job.mould, job.food, 0.0), 60.0)
        self.assertEqual(at_the_oven_c(8.0, job.mould, job.food), 8.0)

    def test_water_poured_in_the_oven_costs_more_heat_than_a_pan_put_in(self):
        job, *_ = seen(random.Random(1), {}, minutes=1)
        none = np.array([0.0])
        poured, put_in = (
            Chamber(job.oven, job.bath, none, 0.0, 0.0, pan_c=pan) for pan in (None, 80.0)
        )
        self.assertEqual(put_in.air_c[0] - poured.air_c[0], FILLED_DROP_K - DOOR_DROP_K)


class LearningTest(unittest.TestCase):
    def test_bakes_are_added_up_without_counting_what_was_thought_twice(self):
        prior = FIGURE_PRIORS["film"]
        # One bake fitted with the prior in it, added to the prior again, is that bake's own fit.
        row = told_of("film", 0.2, 0.2)
        found = oven_figure("film", [row])
        self.assertAlmostEqual(np.log(found.mean), 0.2, places=6)
        self.assertAlmostEqual(found.sd / found.mean, 0.2, places=6)
        self.assertEqual(oven_figure("film", []).mean, 1.0)
        self.assertAlmostEqual(oven_figure("film", []).sd, prior)
        self.assertIsNone(told_of("vent", 0.5, 0.69))

    def test_batches_teach_the_figures_of_their_oven_and_every_one_is_drawn(self):
        batches = [
            {"oven": "deck", "figures": [{"figure": "film", "log": x, "spread": 0.15}]}
            for x in (-0.4, -0.3, -0.35)
        ]
        out = compute("learn", {"batches": batches})
        (film,) = out["figures"]
        self.assertEqual((film["name"], film["figure"], film["n"]), ("deck", "film", 3))
        self.assertLess(film["mean"], 0.8)
        self.assertEqual(len(film["seen"]), 3)
        self.assertAlmostEqual(film["seen"][0], np.exp(-0.4), places=2)
