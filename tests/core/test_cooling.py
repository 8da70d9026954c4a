import unittest

from bellcrumb.contract.kinds import compute

CREAM = ["1 l whole milk", "9 yolks", "150 g sugar", "85 g corn starch"]


def cool(mm, method="fridge", **more):
    pan = {"shape": "rect", "length_mm": 500, "width_mm": 300, "depth_mm": 110, "material": "steel"}
    return compute(
        "cool", {"mix": {"lines": CREAM}, "vessel": pan | {"fill_mm": mm}, "method": method} | more
    )


class CoolingTest(unittest.TestCase):
    def test_a_shallow_tray_passes_and_a_deep_one_fails(self):
        for method in ("fridge", "ice_bath"):
            self.assertTrue(cool(25, method)["complies"])
            self.assertFalse(cool(100, method)["complies"])
        self.assertFalse(cool(25, "bench")["complies"])
        self.assertIn("57 to 21 °C in 2 h", str(cool(25, "fridge")))

    def test_hours_near_an_independent_computation(self):
        # hours to 21 and 5 degC with h = 7: the heat reference, section 7
        for mm, mid, end in ((25, 2.16, 6.37), (50, 4.65, 13.2)):
            found = cool(mm, "still_fridge")
            self.assertAlmostEqual(found["to_21_min"] / 60 / mid, 1, delta=0.15)
            self.assertAlmostEqual(found["to_5_min"] / 60 / end, 1, delta=0.15)

    def test_deeper_is_never_faster_and_the_deepest_that_passes_passes(self):
        times = [cool(mm)["to_21_min"] for mm in (15, 25, 40, 60)]
        self.assertEqual(times, sorted(times))
        deepest = cool(25)["max_depth_mm"]
        self.assertTrue(cool(deepest - 1)["complies"])
        self.assertFalse(cool(deepest + 3)["complies"])
        self.assertEqual(cool(60)["split_into"], 2)

    def test_the_kitchens_own_rule_replaces_the_usual_one(self):
        self.assertFalse(cool(25, rule={"mid_min": 60})["complies"])

    def test_what_is_baked_is_never_counted_as_stirred(self):
        stirred = cool(40, "stirred_ice_bath")
        self.assertLess(stirred["to_21_min"], cool(40, "ice_bath")["to_21_min"] / 2)
        self.assertTrue(stirred["can_be_stirred"])
        baked = cool(40, "stirred_ice_bath", family="brulee_yolk")
        self.assertEqual(baked["to_21_min"], cool(40, "ice_bath")["to_21_min"])
        self.assertFalse(baked["can_be_stirred"])
        self.assertIn("cannot be stirred", str(baked["warnings"]))
