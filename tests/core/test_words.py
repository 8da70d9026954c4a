"""What is said to a cook: plans, warnings, errors."""

import unittest

from bellcrumb.contract import compute
from bellcrumb.errors import CraftError
from bellcrumb.heat.pot import MEDIUM_GAS, Ring
from bellcrumb.stove.guide import follow
from bellcrumb.stove.plan import plan
from bellcrumb.vessels.geometry import library, vessel_from_measures
from tests.core.kitchen import ask, mix

PASTRY = ("1 l whole milk", "9 yolks", "150 g sugar", "85 g corn starch", "45 g butter")
ANGLAISE = ("750 g whole milk", "250 g cream 35%", "200 g yolk", "180 g sugar")


def made(*lines, **how):
    a = ask(*lines)
    return plan(a.mix, a.family, how.pop("ring", MEDIUM_GAS), **how)


class PlanTest(unittest.TestCase):
    def test_everything_has_one_place(self):
        for school in ("hot_into_eggs", "eggs_after_boil", "held_back_liquid"):
            whole = ask(*PASTRY)
            split = made(*PASTRY, school=school).split
            total = split.pot.mass_g + split.bowl.mass_g + split.finish.mass_g
            self.assertAlmostEqual(total, whole.mix.mass_g)
            self.assertEqual(split.finish.grams_of("fat"), 45)
            self.assertEqual(split.pot.grams_of("starch") > 0, school == "eggs_after_boil")

    def test_a_caution_stands_where_the_hand_is_about_to_move(self):
        steps = {s.key: s for s in made(*PASTRY).steps}
        self.assertIn("spits", steps["cook"].caution)
        self.assertIn("local code", steps["cool"].caution)
        self.assertIn("specks", steps["ready"].avoid)

    def test_a_ring_too_small_is_said_before_the_cook(self):
        warnings = made(*PASTRY, ring=Ring("candle", "gas", 200)).warnings
        self.assertTrue(any("turn the ring up" in w for w in warnings))

    def test_altitude_lowers_the_boil_and_lengthens_the_hold(self):
        sea, high = made(*PASTRY), made(*PASTRY, altitude_m=2500)
        self.assertAlmostEqual(sea.endpoint.temp_c - high.endpoint.temp_c, 8.3, delta=0.3)
        self.assertEqual((sea.endpoint.hold_s, high.endpoint.hold_s), (60, 90))

    def test_cold_eggs_and_a_bigger_ladle_are_answered(self):
        warm, cold = made(*ANGLAISE, eggs_c=20), made(*ANGLAISE, eggs_c=4)
        self.assertGreater(cold.ladder.first_safe_g, warm.ladder.first_safe_g)
        big = made(*ANGLAISE, ladle_ml=500)
        self.assertTrue(any("too much for the first" in w for w in big.ladder.warnings))


class HeatStepTest(unittest.TestCase):
    def test_milk_that_is_about_to_boil_over_is_called(self):
        heat = next(s for s in made(*ANGLAISE).steps if s.key == "heat")

        def said(temp):
            return follow(heat, [(t, temp) for t in range(0, 30, 2)], 0, 30)

        self.assertEqual(said(60).headline, "warming")
        self.assertEqual((said(90).headline, said(90).urgency), ("there", "now"))
        self.assertEqual(said(99).next_move, "Too hot: off the heat")

    def test_cooling_is_followed_through_the_warm_zone(self):
        cool = made(*ANGLAISE).steps[-1]
        self.assertFalse(follow(cool, [(t, 50.0) for t in range(0, 30, 2)], 0, 30).done)
        self.assertTrue(follow(cool, [(t, 20.0) for t in range(0, 30, 2)], 0, 30).done)

    def test_what_is_left_is_foretold_from_the_slope(self):
        heat = next(s for s in made(*ANGLAISE).steps if s.key == "heat")
        moment = follow(heat, [(t, 40 + t / 10) for t in range(0, 60, 2)], 0, 60)
        self.assertAlmostEqual(moment.rate_k_per_min, 6, delta=0.1)
        self.assertAlmostEqual(moment.to_target_s, 402, delta=15)


class ErrorTest(unittest.TestCase):
    def said(self, kind, data):
        with self.assertRaises(CraftError) as caught:
            compute(kind, data)
        return caught.exception.field, caught.exception.message

    def test_errors_are_sentences_at_their_field(self):
        lines = list(PASTRY)
        for kind, data, field, words in (
            ("formula", {"lines": lines, "count": 0}, "count", "At least 1"),
            ("formula", {"lines": lines, "fill": 2}, "fill", "At most 1"),
            ("formula", {"lines": "milk"}, "lines", "list"),
            ("formula", {"lines": lines, "temp_c": "hot"}, "temp_c", "no number"),
            ("formula", {"lines": lines, "egg_grade": "ostrich"}, "egg_grade", "Use one of"),
            ("temper", {"hot": {"lines": ["1 l milk"]}}, "eggs", "missing"),
            (
                "temper",
                {"hot": {"lines": ["1 l milk"]}, "eggs": {"lines": ["9 yolks"]}, "school": "none"},
                "school",
                "One of",
            ),
            ("pot", {"lines": lines, "temp_c": 90, "target": 80}, "target", "already"),
            ("nothing", {}, "kind", "One of"),
        ):
            with self.subTest(field):
                at, message = self.said(kind, data)
                self.assertEqual(at, field)
                self.assertIn(words, message)

    def test_impossible_vessels_are_refused(self):
        for measures in (
            {"depth_mm": 0, "top_mm": 70},
            {"depth_mm": 50, "top_mm": 2},
            {"depth_mm": 50, "top_mm": 50, "bottom_mm": 200},
        ):
            with self.assertRaises(CraftError):
                vessel_from_measures("round", **measures)
        with self.assertRaises(CraftError):
            library()["ramekin_90"].holds_ml(1.2)
        with self.assertRaises(CraftError):
            vessel_from_measures("rect", 50, length_mm=100)

    def test_an_empty_pot_is_refused(self):
        with self.assertRaises(CraftError):
            plan(mix(egg_yolk=100), ask(*ANGLAISE).family, MEDIUM_GAS)
