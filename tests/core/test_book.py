import itertools
import unittest
from dataclasses import replace

from bellcrumb.book.record import Cooled, cooled
from bellcrumb.book.review import Timing, deviation, review
from bellcrumb.curve.doubts import doubts
from bellcrumb.laws.safety import COOLING
from bellcrumb.stove.steps import Step
from bellcrumb.words import closed

BOIL = Step(
    "cook",
    "cook",
    "Boil",
    sign="",
    avoid="",
    low_c=98.0,
    high_c=101.0,
    hold_s=60,
    thickens_c=84.0,
)
NAPPE = Step(
    "cook",
    "cook",
    "Nappe",
    sign="",
    avoid="",
    low_c=82.0,
    high_c=84.0,
    never_c=86.0,
    thickens_c=77.0,
)


def ramp(*points):
    found = []
    for (t0, c0), (t1, c1) in itertools.pairwise(points):
        found += [(t, c0 + (c1 - c0) * (t - t0) / (t1 - t0)) for t in range(t0, t1, 2)]
    return found


class RecordTest(unittest.TestCase):
    def test_going_down_through_the_warm_zone_is_timed_from_the_rules_first_temperature(self):
        # 0.5 K a minute: 57 to 21 in 72 min, to 5 in 104.
        down = [(60.0 * m, max(4.0, 80.0 - 0.5 * m)) for m in range(0, 200, 5)]
        self.assertEqual(cooled(down, COOLING), Cooled(72.0, 104.0, True))
        slow = [(60.0 * m, max(4.0, 80.0 - 0.2 * m)) for m in range(0, 600, 10)]
        self.assertFalse(cooled(slow, COOLING).complies)
        short = down[:20]  # taken out while it was warm: nobody can say
        self.assertEqual(cooled(short, COOLING), Cooled(None, None, None))
        self.assertIsNone(cooled([(t, 40.0) for t, _ in down], COOLING))  # it was never hot


class ReviewTest(unittest.TestCase):
    def found(self, step, readings, left=1000):
        return [f.key for f in review([step], [Timing("cook", 0, left)], readings)]

    def test_the_curve_tells_what_went_wrong(self):
        self.assertEqual(self.found(BOIL, ramp((0, 60), (300, 92))), ["never_boiled"])
        self.assertEqual(self.found(BOIL, ramp((0, 60), (300, 100), (320, 100))), ["short_hold"])
        self.assertEqual(self.found(BOIL, ramp((0, 60), (300, 100), (380, 100))), ["boil_held"])
        taken_off = ramp((0, 60), (300, 100), (380, 100), (420, 80), (900, 20))
        self.assertEqual(self.found(BOIL, taken_off), ["boil_held"])
        self.assertEqual(self.found(NAPPE, ramp((0, 60), (300, 87.5))), ["over_curdle"])
        self.assertEqual(self.found(NAPPE, ramp((0, 60), (300, 78))), ["under"])
        self.assertEqual(self.found(NAPPE, ramp((0, 60), (300, 83))), ["nappe_reached"])

    def test_a_bake_long_past_its_window_is_late_whatever_its_middle_says(self):
        bake = replace(BOIL, kind="bake", key="bake", low_c=75, high_c=78, from_s=1800, to_s=2400)
        curve = ramp((0, 20), (2400, 76), (3600, 77))

        def told(left):
            mine = [r for r in curve if r[0] <= left]
            return review([bake], [Timing("bake", 0, left)], mine)[0]

        self.assertEqual(told(2500).key, "pulled_right")
        late = told(3600)
        self.assertEqual((late.key, late.fault), ("overstayed", "bubbles"))
        self.assertIn("20 min past its window", late.says)

    def test_a_bake_is_judged_by_its_middle_and_without_a_probe_by_the_clock(self):
        bake = replace(BOIL, kind="bake", key="bake", low_c=75, high_c=78, from_s=1800, to_s=2400)
        for pulled_at, middle, key, fault in (
            (1500, 70, "pulled_early", "runny_middle"),
            (2300, 77, "pulled_right", None),
            (2500, 83, "pulled_late", "bubbles"),
        ):
            curve = ramp((0, 20), (pulled_at, middle))
            found = review([bake], [Timing("bake", 0, pulled_at)], curve)[0]
            self.assertEqual((found.key, found.fault or None), (key, fault))
        for took, key, words in (
            (1300, "pulled_off", "8 min before"),
            (2000, "pulled_in_window", "inside its window"),
            (3000, "pulled_off", "10 min after"),
        ):
            found = review([bake], [Timing("bake", 0, took)], [])[0]
            self.assertEqual(found.key, key)
            self.assertIn(words, found.says)

    def test_a_boil_held_far_too_long_is_noted(self):
        found = review([BOIL], [Timing("cook", 0, 1000)], ramp((0, 60), (300, 100), (900, 100)))[0]
        self.assertEqual((found.key, found.fault), ("long_hold", "scorched"))

    def test_a_cook_without_a_probe_is_not_judged(self):
        self.assertEqual(self.found(BOIL, []), ["no_curve"])

    def test_a_step_never_started_is_said(self):
        self.assertEqual([f.key for f in review([BOIL], [], [])], ["cook_skipped"])

    def test_deviation_is_measured_from_the_steps_own_start(self):
        predicted = ramp((0, 60), (300, 100))
        actual = [(t + 500, c + 2) for t, c in predicted]
        found = deviation(predicted, actual, Timing("cook", 500, 800), 290.0)
        self.assertAlmostEqual(found.mean_abs_k, 2, delta=0.1)
        self.assertEqual((found.predicted_s, found.took_s), (290.0, 300))


class ProbeTest(unittest.TestCase):
    def found(self, readings, boil_c=100.5):
        return [(d.key, d.now) for d in doubts(readings, boil_c)]

    def test_a_steady_climb_to_the_boil_leaves_no_doubt(self):
        self.assertEqual(self.found(ramp((0, 60), (300, 100.4), (400, 100.5))), [])

    def test_what_a_pot_cannot_do_is_said(self):
        climb = ramp((0, 20), (300, 70))
        self.assertEqual(self.found([r for r in climb if not 100 < r[0] < 160]), [("gap", False)])
        spiked = [(t, 250.0 if t == 100 else c) for t, c in climb]
        self.assertEqual(self.found(spiked), [("jumps", False)])
        twice = [(t, 250.0 if t in (100, 200) else c) for t, c in climb]
        for readings, said in ((spiked, "A reading"), (twice, "2 readings")):
            self.assertTrue(closed(doubts(readings, 100.5)[0].says).startswith(said))
        self.assertEqual(self.found([*climb, *[(t, 70.0) for t in range(300, 520, 2)]]),
                         [("stuck", True)])  # fmt: skip

    def test_an_offset_is_told_by_the_boil(self):
        low = ramp((0, 60), (300, 97.2), (400, 97.3))
        self.assertEqual(self.found(low), [("low", True)])
        self.assertEqual(self.found(low, boil_c=97.5), [])  # at altitude this is the boil
        self.assertEqual(self.found(ramp((0, 60), (300, 104), (340, 104))), [("high", True)])
        # Two kelvin over the boil are too many; what came down again was high, and is no more.
        self.assertEqual(self.found(ramp((0, 60), (300, 102.7), (340, 102.7))), [("high", True)])
        self.assertEqual(self.found(ramp((0, 60), (300, 102.3), (340, 102.3))), [])
        cooled = ramp((0, 60), (300, 104), (340, 104), (600, 70))
        self.assertEqual(self.found(cooled), [("high", False)])
