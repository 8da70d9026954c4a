import itertools
import math
import unittest

import numpy as np

from bellcrumb.asked.bakes import job_of, oven_family, stops_wobbling_c
from bellcrumb.asked.lines import mix_asked
from bellcrumb.contract.kinds import compute
from bellcrumb.contract.refits import refit_mix
from bellcrumb.errors import CraftError
from bellcrumb.oven.calibrate import calibrate, pan_of_water
from bellcrumb.oven.crust import blind_bake, soggy_clock
from bellcrumb.oven.pull import signs
from bellcrumb.oven.refit import Look, Observations
from bellcrumb.oven.run import STRIDES, Bake, Cases
from bellcrumb.oven.setting import SetKinetics
from bellcrumb.shapes import oven
from tests.core.practice import met, table

FLAN = ["1 l whole milk", "5 eggs", "3 yolks", "180 g sugar"]
BRULEE = ["600 g heavy cream", "200 g milk", "140 g yolk", "110 g sugar"]
SQUASH = ["425 g pumpkin puree", "300 g heavy cream", "3 eggs", "1 yolk", "160 g sugar"]
RAMEKIN = {"shape": "round", "top_diameter_mm": 83, "bottom_diameter_mm": 78, "depth_mm": 44,
           "wall_mm": 4.5, "material": "porcelain", "fill_mm": 38}  # fmt: skip
MOULD_90 = {"shape": "round", "top_diameter_mm": 66, "bottom_diameter_mm": 60, "depth_mm": 32,
            "wall_mm": 4.5, "material": "porcelain", "fill_mm": 29}  # fmt: skip
PIE = {"shape": "round", "top_diameter_mm": 229, "bottom_diameter_mm": 190, "depth_mm": 38,
       "wall_mm": 0.5, "material": "tin", "fill_mm": 35}  # fmt: skip


def bake(lines=FLAN, vessel=RAMEKIN, set_c=163.0, bath=("half", 100), temp_c=None, **more):
    asked = {"mix": {"lines": lines, "temp_c": temp_c}, "vessel": vessel, "count": 6} | more
    asked.setdefault("oven", {"set_c": set_c})
    if bath:
        asked["bath"] = {"level": bath[0], "water_c": bath[1], "covered": len(bath) > 2}
    return compute("bake", asked)


class SettingTest(unittest.TestCase):
    def ramp(self, k_per_min):
        setting = SetKinetics.start(np.array([79.0]), np.zeros((1, 1, 1)))
        found, temp = {}, 50.0
        setting.advance(np.full((1, 1, 1), temp), 0.0)
        while temp < 96:
            temp += k_per_min / 60
            setting.advance(np.full((1, 1, 1), temp), 1.0)
            seen = (
                ("wobble", setting.share, 0.4), ("through", setting.share, 0.93),
                ("weeps", setting.weeping, 0.4),
            )  # fmt: skip
            for name, share, line in seen:
                if share[0, 0, 0] >= line:
                    found.setdefault(name, temp)
        return found

    def test_ramps_set_where_practice_says_and_later_when_hurried(self):
        published = {0.5: (77.6, 81.5, 88.6), 1.0: (79.3, 83.2, 90.3), 2.0: (80.9, 84.9, 91.9)}
        for rate, expected in published.items():
            found = self.ramp(rate)
            for name, temp in zip(("wobble", "through", "weeps"), expected, strict=True):
                with self.subTest(rate=rate, name=name):
                    # The steeper law of weeping follows the hurry less than the table does.
                    delta = 1.0 if name == "weeps" else 0.4
                    self.assertAlmostEqual(found[name], temp, delta=delta)


class BakeTest(unittest.TestCase):
    def test_ordinary_practice_with_one_set_of_constants(self):
        cases = (
            # Half an hour to forty minutes is said of mixes that are poured warm.
            ("ramekin", bake(BRULEE, temp_c=40), 30, 40),
            ("ramekin of flan", bake(FLAN, temp_c=45), 30, 42),
            (
                "90 ml, clean knife",
                bake(vessel=MOULD_90, set_c=190, bath=("rim", 60), doneness="clean_knife"),
                30,
                40,
            ),
            (
                "pie",
                bake(SQUASH, PIE, bath=None, temp_c=50, count=1, crust={"mm": 6}, doneness="domed"),
                44,
                60,
            ),
        )
        for name, found, low, high in cases:
            with self.subTest(name=name):
                self.assertGreaterEqual(found["pull_from_min"], low)
                self.assertLessEqual(found["pull_to_min"], high)
        ramekin = cases[0][1]
        self.assertTrue(0.5 < ramekin["carry_over_k"] < 4)
        self.assertTrue(79 < bake(set_c=175)["bath_c_at_pull"] < 87)
        covered = bake(set_c=175, bath=("half", 100, "covered"))["bath_c_at_pull"]
        self.assertTrue(87 < covered < 99, "hotter than open, short of the boil: foil is no lid")

    def test_a_hundred_ordinary_bakes_come_out_when_kitchens_say(self):
        lists = ("chosen on", "held back", "fourth", "seventh", "eighth")
        rows = {name: row for name, *row in table(met(*lists))}
        for listed in (f"all {name}" for name in lists):
            n, ratio, spread, meet = rows[listed]
            with self.subTest(listed):
                self.assertTrue(0.92 < ratio < 1.08, ratio)
                self.assertLess(spread, 0.15)
                self.assertGreaterEqual(meet / n, 0.88)

    def test_a_bake_is_told_by_the_words_of_its_family_and_another_school_by_its_own(self):
        cheese = ["900 g cream cheese", "200 g sugar", "4 eggs", "120 g sour cream"]
        found = bake(cheese, PIE | {"depth_mm": 75, "fill_mm": 50}, set_c=160, count=1, temp_c=20)
        signs = {w["doneness"]: w["sign"] for w in found["windows"]}
        self.assertIn("jiggle", signs["wobble"])
        self.assertIn("knife", signs["clean_knife"])

    def test_a_shell_comes_from_the_bench_and_takes_its_share_of_what_is_poured(self):
        warm, bare = (
            bake(SQUASH, PIE, bath=None, set_c=165, count=1, temp_c=60, **more)
            for more in ({"crust": {"mm": 5, "kind": "pastry"}}, {})
        )
        self.assertLess(min(p["centre_c"] for p in warm["curve"]), 60)
        self.assertGreater(warm["pull_from_min"], bare["pull_from_min"] + 2)

    def test_a_wet_custard_at_a_bare_wall_never_passes_its_boil(self):
        hot = bake(SQUASH, PIE, bath=None, set_c=220, count=1, temp_c=20)
        self.assertLess(max(p["edge_c"] for p in hot["curve"]), 105.5)

    def test_citrus_on_condensed_milk_is_set_by_its_acid_and_only_warmed(self):
        lines = ["800 g condensed milk", "240 g lime juice", "6 yolks"]
        found = bake(lines, PIE | {"fill_mm": 20}, bath=None, set_c=175, count=1, temp_c=20)
        self.assertTrue(10 <= found["pull_from_min"] <= found["pull_to_min"] <= 18, found)

    def test_a_boiled_cream_without_egg_may_be_baked_again(self):
        cream = ["500 g heavy cream", "250 g milk", "180 g sugar", "40 g corn starch"]
        found = bake(cream, PIE | {"fill_mm": 26}, bath=None, set_c=175, count=1, temp_c=75)
        self.assertTrue(12 < found["pull_from_min"] < found["pull_to_min"] < 40, found)
        with self.assertRaises(CraftError):
            bake(["500 g milk", "100 g sugar"], bath=None)

    def test_the_laws(self):
        def pull(**k):
            return bake(**k)["pull_min"]

        for slow, fast in itertools.pairwise([pull(set_c=c) for c in (140, 150, 163, 180)]):
            self.assertLess(fast, slow)
        for shallow, deep in itertools.pairwise(
            [pull(vessel=RAMEKIN | {"fill_mm": mm}) for mm in (22, 30, 38)]
        ):
            self.assertLess(shallow, deep)
        cold, warm = pull(temp_c=5), pull(temp_c=45)
        self.assertLess(warm, cold)
        self.assertLess(pull(bath=("half", 100)), pull(bath=("half", 20)))
        self.assertLess(pull(oven={"set_c": 163, "kind": "fan"}), pull())
        self.assertLess(pull(oven={"set_c": 163, "stand": "deck"}), pull())
        self.assertGreater(pull(oven={"set_c": 163, "preheated": False}), pull() + 5)
        self.assertGreater(pull(bath=None, count=80), pull(bath=None, count=4) + 1)
        found = bake(set_c=220, bath=("rim", 100, "covered"))
        shares = [p["least_set"] for p in found["curve"]]
        self.assertEqual(shares, sorted(shares))
        self.assertLessEqual(max(p["bath_c"] for p in found["curve"]), 100)

    def test_long_steps_find_what_short_ones_find(self):
        asks = (
            {"oven": {"set_c": 163}},
            {"oven": {"set_c": 190, "kind": "fan"}},
            {"oven": {"stages": [{"set_c": 200, "minutes": 15}, {"set_c": 150}]}},
            {"oven": {"set_c": 160, "door_min": [20, 27]}, "bath": None},
        )
        for asked in asks:
            given = oven.BakeIn.model_validate(
                {"mix": {"lines": FLAN}, "vessel": RAMEKIN, "count": 6,
                 "bath": {"level": "half", "water_c": 60}} | asked
            )  # fmt: skip
            mix, _ = mix_asked(given.mix, "")
            kin = oven_family(mix, None)
            job, mould, _ = job_of(mix, kin, given, None)
            found = []
            for strides in (STRIDES, ((math.inf, 10.0),)):
                run = Bake(job, Cases.one(20.0, 0.0, stops_wobbling_c(mix, kin)), None, strides)
                while run.least_set[0] < 0.7:
                    run.step()
                found.append(signs(run.trace, 2 * mould.half_mm)["wobble"][:, 0] / 60)
            with self.subTest(asked=asked):
                self.assertLess(np.abs(found[0] - found[1]).max(), 0.6)

    def test_the_band_narrows_when_the_kitchen_tells_more(self):
        def width(found):
            return found["pull_high_min"] - found["pull_low_min"]

        unknown = bake()
        told = bake(temp_c=20, oven={"set_c": 163, "known": True})
        self.assertAlmostEqual(told["pull_min"], unknown["pull_min"], delta=0.01)
        self.assertLess(width(told), 0.8 * width(unknown))
        slow = bake(set_c=125)
        self.assertTrue(any("hardly sets" in w for w in slow["warnings"]))

    def test_what_happens_next_moves_the_carry_over(self):
        peak = {
            a: bake(after=a, doneness="just_set")["carry_over_k"]
            for a in ("ice", "rack", "oven_off")
        }
        self.assertLess(peak["ice"], peak["rack"])
        self.assertLess(peak["rack"], peak["oven_off"])

    def test_a_door_opened_for_looks_costs_time(self):
        shut, looked = bake(), bake(oven={"set_c": 163, "door_min": [10, 15, 20, 25, 30]})
        self.assertGreater(looked["pull_min"], shut["pull_min"] + 0.5)

    def test_a_hot_dry_cheesecake_cracks_sooner_than_one_in_a_gentle_bath(self):
        cheese = ["900 g cream cheese", "200 g sour cream", "250 g sugar", "4 eggs"]
        tin = {"shape": "round", "top_diameter_mm": 230, "depth_mm": 70, "material": "steel",
               "fill_mm": 55}  # fmt: skip
        order = ["low", "middling", "high"]
        hot = bake(cheese, tin, 190, None, count=1, doneness="clean_knife")
        mild = bake(cheese, tin, 140, (25, 60), count=1, after="oven_off")
        self.assertGreater(order.index(hot["crack"]), order.index(mild["crack"]))
        self.assertIn("over 75 °C", hot["crack_why"])
        self.assertIsNone(bake()["crack"])

    def test_stages_of_the_oven_are_followed(self):
        staged = bake(
            SQUASH,
            PIE,
            bath=None,
            count=1,
            oven={"stages": [{"set_c": 220, "minutes": 15}, {"set_c": 163}]},
        )
        plain = bake(SQUASH, PIE, bath=None, count=1)
        self.assertLess(staged["pull_min"], plain["pull_min"])
        self.assertAlmostEqual(staged["curve"][12]["oven_c"], 220, delta=4)
        self.assertLess(staged["curve"][-1]["oven_c"], 170)

    def test_nonsense_is_refused_at_its_field(self):
        for field, more in (
            ("oven.set_c", {"set_c": 65}), ("oven.set_c", {"oven": {}}),
            ("mix.lines", {"lines": ["1 l milk", "80 g sugar"]}),
            ("vessel.fill_mm", {"vessel": RAMEKIN | {"fill_mm": 90}}),
            ("bath.level", {"bath": (80, 70)}),
        ):  # fmt: skip
            with self.assertRaises(CraftError) as caught:
                bake(**more)
            self.assertEqual(caught.exception.field, field)

    def test_choosing_prefers_the_bath_for_evenness_and_keeps_the_time(self):
        asked = {
            "mix": {"lines": FLAN},
            "vessel": RAMEKIN,
            "count": 6,
            "oven": {},
            "within_min": 60,
        }
        found = compute("choose", asked)
        self.assertTrue(found["choices"][0]["bath"])
        self.assertTrue(all(c["pull_min"] <= 60 for c in found["choices"]))
        longest = compute("choose", asked | {"wish": "long_window"})["choices"][0]
        self.assertGreaterEqual(longest["window_min"], found["choices"][0]["window_min"])


class KnowingTest(unittest.TestCase):
    def test_a_running_bake_tells_its_start_and_its_oven(self):
        truth = bake(temp_c=14, oven={"set_c": 163, "offset_k": -9})
        probe = [(60 * p["t_min"], p["centre_c"]) for p in truth["curve"] if p["t_min"] <= 20]
        given = oven.BakeIn.model_validate(
            {"mix": {"lines": FLAN}, "vessel": RAMEKIN, "count": 6, "oven": {"set_c": 163},
             "bath": {"level": "half", "water_c": 100}}
        )  # fmt: skip
        mix, _ = mix_asked(given.mix, "")
        found = refit_mix(mix, given, Observations(probe), None)
        self.assertAlmostEqual(found.start_c, 14, delta=0.5)
        self.assertAlmostEqual(found.offset_k, -9, delta=2)
        self.assertAlmostEqual(found.from_s / 60, truth["pull_from_min"], delta=1)
        self.assertIsNone(refit_mix(mix, given, Observations(probe[:2]), None))
        air = [(float(t), 151.0 + t % 3) for t in range(0, 1500, 30)]
        hung = refit_mix(mix, given, Observations(air=air), None)
        self.assertAlmostEqual(hung.offset_k, -11, delta=1)
        self.assertLess(hung.offset_spread_k, 5)
        water = [(60 * p["t_min"], p["bath_c"]) for p in truth["curve"] if p["t_min"] <= 30]
        bathed = refit_mix(mix, given, Observations(bath=water), None)
        self.assertAlmostEqual(bathed.offset_k, -9, delta=3)
        self.assertLess(bathed.offset_spread_k, hung.offset_spread_k)
        loose = refit_mix(mix, given, Observations(looks=[Look(36 * 60, 1.0)]), None)
        self.assertGreater(loose.from_s, 60 * bake()["pull_from_min"])

    def test_a_walk_with_a_pan_of_water_finds_three_figures(self):
        for truth in ((-9.0, 0.0, 0.0), (6.0, 0.3, 0.0), (0.0, 0.0, -0.5)):
            t, c = pan_of_water("static", 170, 20, 1.0, (325, 265), 11.6, np.array(truth), 3600, 0)
            found = calibrate(
                "static", 170, 1.0, (325, 265), list(zip(t, c, strict=True)), 170 + truth[0]
            )
            self.assertAlmostEqual(found.offset_k, truth[0], delta=3)
            self.assertAlmostEqual(np.log(found.film), truth[1], delta=0.15)
            self.assertAlmostEqual(np.log(found.vent), truth[2], delta=0.15)
            self.assertLess(found.rms_k, 0.5)

    def test_the_soggy_clock_orders_the_barriers_and_warmth_costs_hours(self):
        crisp = [
            soggy_clock(b, "wet", 5).crisp_h[1] for b in ("none", "egg_wash", "butter", "chocolate")
        ]
        self.assertEqual(crisp, sorted(crisp))
        # the reference's table for a bare crust at 1e-10 m2/s: crisp 1.0 h, soft 3.9 h
        bare = soggy_clock("none", "wet", 5)
        self.assertTrue(bare.crisp_h[0] < 1.0 < bare.crisp_h[1])
        self.assertTrue(bare.soft_h[0] < 3.9 < bare.soft_h[1])
        self.assertLess(soggy_clock("egg_wash", "wet", 60).crisp_h[1], crisp[1])

    def test_what_was_boiled_just_before_is_taken_to_go_in_hot(self):
        roux = ["500 g cream 35%", "500 g whole milk", "110 g plain flour", "360 g sugar",
                "120 g butter"]  # fmt: skip
        told = bake(roux, PIE, bath=None, temp_c=75, count=1, crust={"mm": 5})
        usual = bake(roux, PIE, bath=None, temp_c=None, count=1, crust={"mm": 5})
        self.assertAlmostEqual(told["pull_min"], usual["pull_min"], delta=0.5)

    def test_a_blind_bake_follows_dough_and_oven(self):
        def minutes(**k):
            asked = {"school": "weights", "goes": "cold_filling", "dough_mm": 3, "offset_k": 0,
                     "fan": False, "width_mm": 230} | k  # fmt: skip
            return sum(s.to_min for s in blind_bake(**asked).stages)

        self.assertLess(minutes(), minutes(dough_mm=5))
        self.assertLess(minutes(), minutes(offset_k=-15))
        self.assertLess(minutes(goes="baked_in"), minutes())
        # Each lies as thick as its kind does: crumbs of 6 mm are no thick dough, choux has none.
        for school, practice in {"crumb": (8, 12), "puff": (36, 46), "choux": (45, 65)}.items():
            low, high = practice
            self.assertTrue(low <= minutes(school=school, dough_mm=None) <= high, school)
        self.assertEqual(
            minutes(school="choux", dough_mm=9), minutes(school="choux", dough_mm=None)
        )
