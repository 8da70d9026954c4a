import math
import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from bellcrumb.contract import compute
from bellcrumb.errors import CraftError
from bellcrumb.heat.materials import SOLIDS
from bellcrumb.vessels.geometry import Filling, fit, library, vessel_from_measures
from bellcrumb.vessels.materials import MATERIALS
from bellcrumb.vessels.tray import bath, displaced_ml, footprint

PASTRY = ["1 l whole milk", "9 yolks", "3/4 cup sugar", "85 g corn starch"]
vessels = st.sampled_from(sorted(library())).map(library().__getitem__)


class CapacityTest(unittest.TestCase):
    def test_a_cylinder_holds_its_geometry(self):
        for vessel in library().values():
            straight = vessel.shape == "round" and vessel.top_mm == vessel.bottom_mm
            if straight and vessel.depth_mm >= 20:
                made = vessel_from_measures("round", vessel.depth_mm, top_mm=vessel.top_mm)
                self.assertAlmostEqual(made.brim_ml / vessel.brim_ml, 1, delta=0.02)

    def test_a_cone_holds_less_than_its_share_low_down(self):
        glass = vessel_from_measures("round", 80, top_mm=90, bottom_mm=50)
        self.assertLess(glass.holds_ml(0.5), 0.5 * glass.holds_ml(1))
        # the frustum of 50 to 70 mm, 40 deep: pi h/12 (D2 + Dd + d2)
        self.assertAlmostEqual(glass.holds_ml(0.5), math.pi * 40 / 12 * 10_900 / 1000, places=6)

    def test_what_a_wall_is_made_of_is_known_by_its_usual_names_or_asked(self):
        for vessel in library().values():
            self.assertIn(vessel.material, MATERIALS, vessel.key)
        self.assertLessEqual(set(MATERIALS), set(SOLIDS))
        for name, key in (
            ("stainless", "steel"), ("Aluminum", "aluminium"), ("aluminium foil", "foil"),
            ("cast iron", "cast_iron"), ("ceramic", "stoneware"), ("", ""),
        ):  # fmt: skip
            made = vessel_from_measures("round", 80, top_mm=90, material=name)
            self.assertEqual(made.material, key, name)
        pot = {"shape": "round", "top_diameter_mm": 90, "depth_mm": 50, "material": "driftwood"}
        with self.assertRaises(CraftError) as refused:
            compute("formula", {"lines": PASTRY, "vessel": pot})
        self.assertEqual(refused.exception.field, "vessel.material")

    def test_flutes_take_away_what_a_wave_of_their_depth_does(self):
        plain = vessel_from_measures("round", 25, top_mm=220)
        fluted = vessel_from_measures("round", 25, top_mm=220, flute_mm=6)
        wave = ((110 - 3) ** 2 + 3**2 / 2) / 110**2
        self.assertAlmostEqual(fluted.brim_ml / plain.brim_ml, wave, places=9)
        vessel_from_measures("round", 25, top_mm=40, flute_mm=9)
        with self.assertRaises(CraftError):  # more than a quarter of its width
            vessel_from_measures("round", 25, top_mm=40, flute_mm=11)

    @given(vessels, st.floats(0.01, 1))
    def test_the_level_of_what_it_holds_is_the_fill(self, vessel, fill):
        self.assertAlmostEqual(vessel.level_of(vessel.holds_ml(fill)), fill, places=6)

    @given(vessels, st.floats(0.02, 1), st.floats(0.01, 0.99))
    def test_fuller_is_never_less(self, vessel, fill, share):
        self.assertLessEqual(vessel.holds_ml(fill * share), vessel.holds_ml(fill))

    def test_filling_by_weight_below_the_rim_and_by_share_agree(self):
        ramekin = library()["ramekin_150"]
        share = Filling("below_rim", 6).share_of(ramekin, 1.1)
        self.assertAlmostEqual(share, 1 - 6 / 33)
        grams = ramekin.holds_ml(share) * 1.1
        self.assertAlmostEqual(Filling("weight", grams).share_of(ramekin, 1.1), share, places=6)
        for by, value, field in (("weight", 900, "portion_g"), ("below_rim", 33, "below_rim_mm")):
            with self.assertRaises(CraftError) as caught:
                Filling(by, value).share_of(ramekin, 1.1)
            self.assertEqual(caught.exception.field, field)

    def test_nothing_is_lost_between_full_vessels_and_what_is_left(self):
        ramekin = library()["ramekin_150"]
        for ml in (100, 900, 1304.7):
            found = fit(ml, ramekin, 0.9, 8)
            self.assertAlmostEqual(
                8 * found.per_vessel_ml + found.left_over_ml - found.short_ml, ml
            )
            self.assertAlmostEqual(found.factor * ml, 8 * found.per_vessel_ml)

    def test_the_rest_goes_into_the_second_vessels_and_all_of_it_is_counted(self):
        out = compute(
            "formula",
            {"lines": PASTRY, "vessel": "ramekin_150", "count": 4, "rest_vessel": "ramekin_90"},
        )
        fitted, rest = out["fit"], out["fit"]["rest"]
        filled = 4 * fitted["per_vessel_ml"] + rest["fills"] * rest["per_vessel_ml"]
        self.assertAlmostEqual(filled + rest["left_over_ml"], out["volume_ml"])
        self.assertLess(rest["left_over_ml"], rest["per_vessel_ml"])

    def test_folded_and_whipped_air_fills_more(self):
        still = compute("formula", {"lines": PASTRY})
        whipped = compute("formula", {"lines": PASTRY, "overrun_pct": 40})
        self.assertAlmostEqual(whipped["volume_ml"], 1.4 * still["volume_ml"])
        self.assertEqual(whipped["mass_g"], still["mass_g"])
        diplomat = compute("formula", {"lines": [*PASTRY, "600 g cream 35%"], "family": "diplomat"})
        self.assertAlmostEqual(diplomat["air_ml"], 0.7 * 600)


class TrayTest(unittest.TestCase):
    pans = st.sampled_from(["gn_1_1_65", "gn_1_2_65", "rect_33x23", "sheet_half"])

    @settings(max_examples=60)
    @given(pans, vessels)
    def test_no_mould_stands_in_another_or_in_the_wall(self, pan_key, mould):
        pan = library()[pan_key]
        try:
            stood = bath(pan, mould, 200, None)
        except CraftError:
            return
        length, width = ((a + b) / 2 for a, b in zip(pan.across(0), pan.across(1), strict=True))
        l_mm, w_mm = footprint(mould)[:: -1 if stood.turned else 1]
        centres = [(c.x, c.y) for c in stood.centres]
        for i, (x, y) in enumerate(centres):
            self.assertTrue(l_mm / 2 - 1e-6 <= x <= length - l_mm / 2 + 1e-6)
            self.assertTrue(w_mm / 2 - 1e-6 <= y <= width - w_mm / 2 + 1e-6)
            for u, v in centres[:i]:
                if mould.shape == "round":
                    self.assertGreaterEqual(math.dist((x, y), (u, v)), l_mm - 1e-6)
                else:
                    self.assertTrue(abs(x - u) >= l_mm - 1e-6 or abs(y - v) >= w_mm - 1e-6)

    def test_water_is_the_pan_to_the_level_less_what_the_moulds_push_aside(self):
        pan = vessel_from_measures("rect", 60, length_mm=500, width_mm=300, name="pan")
        mould = vessel_from_measures("round", 40, top_mm=74, bottom_mm=74, wall_mm=3)
        stood = bath(pan, mould, 4, 20.0)
        cylinder = math.pi * 40**2 * 20 / 1000
        self.assertAlmostEqual(displaced_ml(mould, 20), cylinder, delta=0.01)
        self.assertAlmostEqual(stood.water_ml, 500 * 300 * 20 / 1000 - 4 * cylinder, delta=0.1)
        self.assertGreater(
            bath(pan, mould, 4, "rim").water_ml, bath(pan, mould, 4, "half").water_ml
        )

    def test_water_to_four_millimetres_under_the_rim_is_carried_and_higher_is_not(self):
        pan = vessel_from_measures("rect", 100, length_mm=500, width_mm=300, name="pan")
        mould = vessel_from_measures("round", 40, top_mm=74, bottom_mm=74, wall_mm=3)
        self.assertEqual(bath(pan, mould, 4, 43 - 4.2).warnings, [])
        flooded = bath(pan, mould, 4, 43 - 3.8)
        self.assertEqual((flooded.level_mm, len(flooded.warnings)), (39, 1))

    def test_more_moulds_than_a_pan_takes_need_another(self):
        stood = bath(library()["gn_1_1_65"], library()["ramekin_120"], 20, "half")
        self.assertEqual((stood.per_pan, stood.pans, stood.last_pan), (15, 2, 5))

    def test_what_does_not_go_in_is_said(self):
        with self.assertRaises(CraftError) as caught:
            bath(library()["gn_1_9_65"], library()["square_23"], 1, None)
        self.assertEqual(caught.exception.field, "tray")
        low = bath(library()["sheet_half"], library()["ramekin_180"], 4, "rim")
        self.assertIn("too shallow", low.warnings[0])
