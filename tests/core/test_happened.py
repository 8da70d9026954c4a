import unittest
from itertools import pairwise

from bellcrumb.book.happened import CookSeen, StepSeen, happened
from bellcrumb.laws.safety import CoolingRule
from bellcrumb.words import closed


def line(*points, every=2.0):
    """A curve of straight pieces through (s, degC)."""
    out = []
    for (t0, c0), (t1, c1) in pairwise(points):
        t = t0
        while t < t1:
            out.append((t, c0 + (c1 - c0) * (t - t0) / (t1 - t0)))
            t += every
    return [*out, points[-1]]


HOLD = StepSeen("cook", "cook", 0, left_s=600, low_c=97, hold_s=90)
TEMPER = StepSeen("temper", "temper", 0, left_s=200, never_c=80)


class HappenedTest(unittest.TestCase):
    def codes(self, **seen):
        return {h.code: h for h in happened(CookSeen(**seen))}

    def test_a_cook_that_went_as_planned_says_nothing(self):
        curve = line((0, 60), (300, 99), (450, 99), (600, 70))
        self.assertEqual(self.codes(steps=[HOLD], curve=curve, heat_predicted_s=500,
                                    heat_took_s=560, to_pour_g=1000, poured_g=980), {})  # fmt: skip

    def test_a_hold_that_was_fallen_out_of_is_counted_and_its_end_is_not(self):
        curve = line((0, 60), (200, 99), (240, 99), (250, 92), (290, 92), (300, 99), (400, 99),
                     (600, 40))  # fmt: skip
        found = self.codes(steps=[HOLD], curve=curve)
        self.assertEqual(list(found), ["dips"])
        self.assertIn("once", found["dips"].words)
        again = line((0, 60), (200, 99), (240, 92), (280, 99), (340, 92), (380, 99), (500, 99))
        self.assertIn("twice", self.codes(steps=[HOLD], curve=again)["dips"].words)
        # Out of it for about fifty seconds of a hold of ninety.
        self.assertAlmostEqual(found["dips"].weight, 0.2 + 50 / 90 / 2, delta=0.04)

    def test_a_ladle_too_many_is_a_jump_and_past_scrambling_is_said(self):
        slow = line((0, 18), (30, 26), (60, 36), (90, 46), (200, 70))
        fast = line((0, 18), (50, 18), (56, 50), (120, 60), (160, 81), (200, 78))
        quiet = self.codes(steps=[TEMPER], curve=slow, ladder_jump_k=12)
        self.assertEqual(quiet, {})
        told = self.codes(steps=[TEMPER], curve=fast, ladder_jump_k=12)
        self.assertEqual(set(told), {"temper_jump", "temper_hot"})
        self.assertGreater(told["temper_jump"].value, 25)
        beyond = told["temper_jump"].value - 12
        self.assertAlmostEqual(told["temper_jump"].weight, 0.3 + beyond / 60)
        # Two readings of a bowl are no bowl.
        few = [(0.0, 18.0), (6.0, 60.0)]
        self.assertEqual(self.codes(steps=[TEMPER], curve=few, ladder_jump_k=12), {})

    def test_a_probe_still_in_the_hot_liquid_says_nothing_of_the_bowl(self):
        moved = line((0, 90), (6, 90), (8, 22), (40, 34), (80, 46), (200, 70))
        self.assertEqual(self.codes(steps=[TEMPER], curve=moved, ladder_jump_k=12), {})
        stayed = line((0, 90), (100, 86), (200, 83))
        self.assertEqual(self.codes(steps=[TEMPER], curve=stayed, ladder_jump_k=12), {})
        warmed = line((0, 90), (100, 70), (200, 88))
        self.assertEqual(self.codes(steps=[TEMPER], curve=warmed, ladder_jump_k=12), {})

    def test_what_no_ring_or_oven_can_be_off_by_is_another_one(self):
        self.assertIn("other_ring", self.codes(heat_predicted_s=300, heat_took_s=600))
        self.assertIn("other_ring", self.codes(heat_predicted_s=600, heat_took_s=300))
        self.assertNotIn("other_ring", self.codes(heat_predicted_s=300, heat_took_s=400))
        weak = self.codes(heat_predicted_s=300, heat_took_s=600)["other_ring"]
        self.assertEqual((weak.weight, weak.value), (0.5, 0.5))
        self.assertIn("other_dial", self.codes(oven_moved_k=-24))
        self.assertNotIn("other_dial", self.codes(oven_moved_k=-9))

    def test_what_never_came_onto_the_scale_and_smaller_eggs_are_said_with_their_number(self):
        found = self.codes(to_pour_g=1130, poured_g=820, egg_share=0.88)
        self.assertIn("310 g of 1130 g", closed(found["left_out"].words))
        self.assertIn("12 % less egg", found["other_eggs"].words)
        self.assertAlmostEqual(found["left_out"].weight, 2 * 310 / 1130)
        self.assertAlmostEqual(found["other_eggs"].weight, 0.48)
        self.assertNotIn("left_out", self.codes(to_pour_g=1130, poured_g=0))  # no scale stood there

    def test_the_kitchens_own_two_stages_decide_what_was_too_slow(self):
        down = line((0, 90), (3600, 57), (3600 * 3.5, 21), (3600 * 9, 4), every=60)
        found = self.codes(curve=down)
        self.assertIn("from 57 to 21 °C: 120 min are allowed", closed(found["warm_zone"].words))
        mild = CoolingRule(from_c=57, mid_c=21, mid_min=240, end_c=5, end_min=720)
        self.assertEqual(self.codes(curve=down, rule=mild), {})

    def test_what_mattered_most_comes_first(self):
        found = happened(CookSeen(to_pour_g=1000, poured_g=850, oven_moved_k=30))
        self.assertEqual([h.code for h in found], ["other_dial", "left_out"])
