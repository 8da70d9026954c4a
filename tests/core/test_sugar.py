import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from bellcrumb.contract import compute
from bellcrumb.errors import CraftError
from bellcrumb.laws.starch import sugar_delay_k
from bellcrumb.laws.water import sucrose_boils_c, sucrose_pct_at, sweetened_boils_c
from bellcrumb.safety.pasteurise import lethality
from bellcrumb.stove.finish import additions
from bellcrumb.stove.meringue import meringue
from bellcrumb.stove.syrup import Pan, cook_syrup, lining_g, stage_of
from bellcrumb.stove.thickening import Thickener, sign_of
from bellcrumb.stove.whip import topping_g, whip, whip_of
from tests.core.kitchen import ask, mix


class WhipTest(unittest.TestCase):
    """Published: 30 % of fat whips, 35 % pipes; above 11 degC no cream does."""

    def whip(self, **asked):
        return compute("whip", {"cream_g": 500, **asked})

    def test_what_does_not_whip_has_neither_air_nor_peaks_nor_time(self):
        for asked in ({"fat_pct": 12}, {"fat_pct": 35, "cream_c": 14}):
            thin = self.whip(**asked)
            self.assertFalse(thin["whips"])
            self.assertEqual((thin["overrun_pct"], thin["time_s"], thin["stands_h"]), (0, None, 0))
            self.assertIn("liquid", thin["peak"])
            self.assertTrue(thin["warnings"])
        self.assertTrue(self.whip(fat_pct=29, stabiliser_pct=1)["whips"])

    def test_fatter_cream_holds_less_air_and_stands_longer_and_sugar_weighs_it_down(self):
        fats = [self.whip(fat_pct=fat) for fat in (31, 35, 40, 48)]
        airs = [f["overrun_pct"] for f in fats]
        self.assertEqual(airs, sorted(airs, reverse=True))
        stands = [f["stands_h"] for f in fats]
        self.assertEqual(stands, sorted(stands))
        plain, sweet = self.whip(fat_pct=35), self.whip(fat_pct=35, sugar_g=120)
        self.assertLess(sweet["overrun_pct"], plain["overrun_pct"])
        self.assertIn("More than 15 %", " ".join(sweet["warnings"]))

    def test_each_warning_comes_where_it_is_true_and_nowhere_else(self):
        for asked, words, wrong in (
            ({"fat_pct": 33, "use": "pipe"}, "does not", {"fat_pct": 36, "use": "pipe"}),
            ({"fat_pct": 47}, "rich", {"fat_pct": 42}),
            ({"fat_pct": 35, "cream_c": 8}, "Colder", {"fat_pct": 35, "cream_c": 6}),
            ({"fat_pct": 35, "room_c": 28}, "heat", {"fat_pct": 35, "room_c": 24}),
        ):
            self.assertIn(words, " ".join(self.whip(**asked)["warnings"]))
            self.assertNotIn(words, " ".join(self.whip(**wrong)["warnings"]))
        self.assertTrue(self.whip(fat_pct=35, cream_c=10.5)["whips"])
        self.assertFalse(self.whip(fat_pct=35, cream_c=12)["whips"])
        # Half its weight in sugar takes two fifths of half its air, and more takes no more.
        plain, half, most = (self.whip(fat_pct=35, sugar_g=g)["overrun_pct"] for g in (0, 250, 300))
        self.assertAlmostEqual(half, 0.8 * plain)
        self.assertAlmostEqual(most, half)

    def test_gelatine_in_it_makes_a_cream_stand_longer_by_its_share(self):
        plain, held = (whip_of(mix(cream_35=500, gelatine=g)) for g in (0, 3))
        self.assertAlmostEqual(held.stands_h / plain.stands_h, 3, delta=0.15)  # 0.6 % trebles it
        plain, some, most = (whip(500, 35, stabiliser_pct=pct) for pct in (0, 10, 20))
        self.assertAlmostEqual(some.stands_h / plain.stands_h, 1.5)  # of mascarpone
        self.assertAlmostEqual(most.stands_h / plain.stands_h, 2)

    def test_a_pie_that_takes_more_than_there_is_says_how_much_is_short(self):
        found = self.whip(cream="whipping cream 35%", pie_diameter_mm=260, thickness_mm=45)
        # pi/4 x 26 x 26 x 4.5 cm3 at half a gram
        self.assertAlmostEqual(found["topping_g"], 1195, delta=5)
        said = " ".join(found["warnings"])
        self.assertIn("695 g short", said)
        self.assertIn("four centimetres", said)


class FinishTest(unittest.TestCase):
    CREAM = ("1 l whole milk", "9 yolks", "150 g sugar", "85 g corn starch")

    def goes_in(self, *extras, temp_c=18.0):
        mix = {"lines": list(self.CREAM), "temp_c": 98}
        extras = {"lines": list(extras), "temp_c": temp_c}
        return compute("finish", {"mix": mix, "extras": extras})["additions"]

    def test_each_thing_goes_in_where_it_neither_lumps_nor_splits(self):
        rows = {a["name"].split()[0].lower(): a["window"] for a in self.goes_in(
            "200 g butter", "8 g gelatine leaves", "300 g whipped cream 35%", "100 g egg white"
        )}  # fmt: skip
        self.assertGreaterEqual(rows["butter"]["low_c"], 38)
        self.assertLess(rows["gelatine"]["high_c"], 85)
        foams = [w for name, w in rows.items() if name in ("cream", "whites")]
        self.assertEqual(len(foams), 2)
        for window in foams:
            self.assertLessEqual(window["high_c"], 70)  # no foam stands above that
        for window in rows.values():
            self.assertLess(window["low_c"], window["high_c"])
            self.assertTrue(window["sign"] and window["below"] and window["above"])


class SyrupTest(unittest.TestCase):
    def test_dry_sugar_has_colours_but_no_ball_and_no_slow_stretch(self):
        dry, wet = (
            compute("syrup", {"sugar_g": 200, "water_g": water, "target_c": 172})
            for water in (0, 60)
        )
        self.assertEqual([m["stage"] for m in dry["marks"]], ["pale", "amber"])
        self.assertIsNone(dry["slow_104_to_115_s"])
        self.assertEqual(wet["marks"][0]["stage"], "thread")
        self.assertGreater(wet["slow_104_to_115_s"], 30)

    def test_sucrose_boils_where_the_tables_say(self):
        for pct, boils in ((10, 100.4), (30, 101), (50, 102), (60, 103), (70, 106.5), (80, 112),
                           (90, 123), (95, 140), (98.2, 160)):  # fmt: skip
            self.assertAlmostEqual(sucrose_boils_c(pct), boils, delta=0.6)
            self.assertAlmostEqual(sucrose_pct_at(sucrose_boils_c(pct)), pct, places=6)
            up = sucrose_boils_c(pct, 2000)  # on a mountain the same syrup boils cooler
            self.assertLess(up, boils - 5)
            self.assertAlmostEqual(sucrose_pct_at(up, 2000), pct, places=6)
        self.assertEqual(sweetened_boils_c(400, 400), sucrose_boils_c(50))

    def test_the_water_left_at_each_stage_is_the_published_one(self):
        published = {110: 61, 112: 50, 115: 42, 118: 34, 120: 29, 121: 27, 125: 21}
        for target, water in published.items():
            self.assertAlmostEqual(cook_syrup(200, 80, target, 360).water_left_g, water, delta=1.2)

    def test_times_are_those_of_practice(self):
        # 150 g sugar with 60 g water to 170: minutes by watts that arrive, within a fifth
        for power, minutes in ((200, 30), (250, 22), (300, 17), (400, 12)):
            took = cook_syrup(150, 60, 170, power).time_s / 60
            self.assertAlmostEqual(took / minutes, 1, delta=0.2)
        low = compute("syrup", {"sugar_g": 150, "water_g": 60, "stage": "amber", "ring": 270})
        self.assertTrue(15 * 60 < low["time_s"] < 25 * 60)
        self.assertIsNone(cook_syrup(150, 60, 170, 100).time_s)
        # A pan that never gets there is told what it would hold there, as one is that does.
        weak, strong = (cook_syrup(1000, 300, 118, power).water_left_g for power in (30, 600))
        self.assertAlmostEqual(weak, strong, delta=3)

    def test_the_climb_to_soft_ball_is_the_slow_stretch(self):
        run = cook_syrup(200, 80, 117, 360)
        at_104 = next(p.t_s for p in run.curve if p.temp_c >= 104)
        self.assertGreater((run.time_s - at_104) / 13, 3 * at_104 / 84)

    @settings(max_examples=10)
    @given(st.floats(50, 600), st.floats(0.1, 0.6), st.floats(200, 900))
    def test_sugar_is_conserved_and_more_heat_is_never_slower(self, sugar, share, power):
        slow = cook_syrup(sugar, share * sugar, 118, power, dt_s=2.0)
        fast = cook_syrup(sugar, share * sugar, 118, 1.3 * power, dt_s=2.0)
        if slow.time_s is not None:
            self.assertLessEqual(fast.time_s, slow.time_s + 2)
        temps = [p.temp_c for p in slow.curve]
        self.assertEqual(temps, sorted(temps))
        if slow.time_s is not None and slow.boils_from_c < 117.9:
            self.assertAlmostEqual(
                sucrose_boils_c(100 * sugar / (sugar + slow.water_left_g)), 118, delta=1.0
            )

    def test_energy_in_is_steam_warmth_and_loss(self):
        pan = Pan(200, 80, 20, diameter_mm=160, pan_g=850)
        power, lost, joules = 400.0, 0.0, 0.0
        warmth = 0.0
        steam = 0.0
        for _ in range(600):
            before_t, before_w, held = pan.temp_c, pan.water_g, pan.heat_j_k
            pan.step(power, 1.0)
            lost += 0.8 * (before_t - 22)
            warmth += held * (pan.temp_c - before_t)
            steam += (before_w - pan.water_g) * (2501 - 2.361 * before_t)
            joules += power
        self.assertAlmostEqual((warmth + steam + lost) / joules, 1, delta=0.01)

    def test_stages_come_lower_on_a_mountain_and_caramel_does_not(self):
        self.assertEqual(stage_of(112), "soft_ball")
        asked = compute("syrup", {"sugar_g": 500, "water_g": 150, "stage": "Soft-ball"})
        self.assertEqual(asked["stage"], "soft_ball")
        self.assertEqual(stage_of(107.5, altitude_m=1500), "soft_ball")
        self.assertEqual(stage_of(171, altitude_m=1500), "amber")

    def test_lining_is_area_times_thickness(self):
        # ramekin 120, base 67 mm, 3 mm: 15 g
        out = compute("syrup", {"sugar_g": 200, "water_g": 60, "target_c": 172,
                                "lining_vessel": "ramekin_120", "lining_count": 10})  # fmt: skip
        self.assertAlmostEqual(out["lining"]["each_g"], 15.3, delta=0.3)
        self.assertAlmostEqual(lining_g(1000, 3), 4.35)
        self.assertGreater(out["lining"]["sugar_g"], out["lining"]["total_g"])  # some burns off
        self.assertLess(out["pull_c"], 172)
        self.assertTrue(3 <= 172 - out["pull_c"] <= 14)

    def test_what_makes_no_syrup_is_said_at_its_field(self):
        base = {"sugar_g": 100, "water_g": 30}
        for more, field in (
            ({}, "target_c"),
            ({"target_c": 118, "stage": "amber"}, "target_c"),
            ({"stage": "toffee"}, "stage"),
            ({"target_c": 240}, "target_c"),
            ({"target_c": 118, "sugar_g": 0}, "sugar_g"),
            ({"target_c": 118, "pan": 3}, "pan"),
        ):
            with self.subTest(more), self.assertRaises(CraftError) as caught:
                compute("syrup", {**base, **more})
            self.assertEqual(caught.exception.field, field)


class FoamTest(unittest.TestCase):
    def test_a_syrup_stopped_early_leaves_the_water_that_weeps(self):
        right = meringue("italian", 100, 200, water_g=80)
        early = meringue("italian", 100, 200, water_g=80, syrup_c=110)
        # 110 instead of 118 leaves 27 g more water, 22 % more in the meringue
        self.assertAlmostEqual(early.extra_water_pct, 22, delta=1.5)
        self.assertEqual((right.weeps, early.weeps), ("low", "high"))
        self.assertTrue(110 < right.start_whites_c < 118)
        self.assertAlmostEqual(right.start_whites_s + right.whip_s, right.syrup.time_s, delta=2)

    def test_swiss_is_safe_from_71_and_french_is_raw(self):
        self.assertEqual(meringue("swiss", 100, 180, swiss_c=72).pasteurised, "yes")
        self.assertEqual(meringue("swiss", 100, 180, swiss_c=60).pasteurised, "hold")
        french = meringue("french", 100, 180)
        self.assertEqual(french.pasteurised, "no")
        self.assertIn("Raw white", french.warnings[0])

    def test_cream_whips_by_its_fat_and_its_cold(self):
        self.assertFalse(whip(500, 20).whips)
        self.assertFalse(whip(500, 35, cream_c=14).whips)
        self.assertTrue(whip(500, 28, stabiliser_pct=1).whips)
        for fat, low, high in ((30, 110, 130), (35.5, 90, 110), (40, 75, 90), (48, 50, 70)):
            self.assertTrue(low <= whip(500, fat, "pipe").overrun_pct <= high)
        self.assertGreater(whip(500, 35, room_c=18).stands_h, whip(500, 35, room_c=30).stands_h)

    def test_a_pie_takes_what_its_table_says(self):
        for mm, grams in ((15, 309), (20, 412), (30, 618)):
            self.assertAlmostEqual(topping_g(229, mm), grams, delta=3)


class SafetyTest(unittest.TestCase):
    def test_the_legal_pairs_are_met_exactly_and_not_a_moment_before(self):
        for product, temp, minutes in (
            ("whole_egg", 60.0, 3.5), ("yolk", 61.1, 3.5), ("yolk", 60.0, 6.2),
            ("sugared_yolk", 63.3, 3.5), ("sugared_yolk", 62.2, 6.2), ("white", 56.7, 3.5),
            ("white", 55.6, 6.2),
        ):  # fmt: skip
            with self.subTest(f"{product} {temp}"):
                held = [(10.0 * n, temp) for n in range(int(minutes * 6) + 2)]
                self.assertTrue(lethality(product, held).meets)
                self.assertFalse(lethality(product, held[: int(0.9 * len(held))]).meets)

    def test_a_custard_needs_the_house_line_or_seven_logs(self):
        self.assertTrue(lethality("mix", [(0, 71.1), (2, 71.1)]).meets)
        for temp, minutes in ((60, 21), (63, 6.6), (65, 3.1), (68, 1.0)):
            held = [(n, temp) for n in range(0, int(60 * minutes * 1.05), 5)]
            self.assertTrue(lethality("mix", held).meets, temp)
            self.assertFalse(lethality("mix", held[: len(held) // 2]).meets, temp)
        rising = [(70 * n, c) for n, c in enumerate((45, 56, 66, 71, 76, 80, 82))]
        self.assertEqual(lethality("mix", rising).log_reduction, 12)
        for gap_s, counted in ((120, "straight"), (121, "colder")):
            seen = lethality("mix", [(0, 62), (gap_s, 66)]).log_reduction
            cold = lethality("mix", [(0, 62), (gap_s / 2, 62), (gap_s, 62)]).log_reduction
            self.assertEqual("straight" if seen > 1.1 * cold else "colder", counted)

    @given(st.lists(st.floats(20, 85), min_size=2, max_size=30), st.floats(0, 5))
    def test_hotter_and_longer_never_kill_less(self, temps, more):
        curve = [(10.0 * n, c) for n, c in enumerate(temps)]
        warmer = [(t, c + more) for t, c in curve]
        logs = lethality("mix", curve).log_reduction
        self.assertGreaterEqual(lethality("mix", warmer).log_reduction, logs - 1e-9)
        self.assertGreaterEqual(
            lethality("mix", [*curve, (curve[-1][0] + 30, 60)]).log_reduction, logs
        )

    def test_below_55_nothing_counts_and_time_runs_forward(self):
        self.assertEqual(lethality("mix", [(0, 54.9), (86_400, 54.9)]).log_reduction, 0)
        across, above = ([(0, 50), (60, 60)], [(30, 55), (60, 60)])
        self.assertAlmostEqual(lethality("white", across).share, lethality("white", above).share)
        with self.assertRaises(CraftError) as caught:
            lethality("mix", [(0, 60), (5, 60), (1, 60)])
        self.assertEqual(caught.exception.field, "readings[2].t_s")
        with self.assertRaises(CraftError) as caught:
            compute(
                "pasteurise", {"readings": [{"t_s": 5, "temp_c": 60}, {"t_s": 1, "temp_c": 60}]}
            )
        self.assertEqual(caught.exception.field, "readings[1].t_s")


class ThickeningTest(unittest.TestCase):
    PASTRY = ("1 l milk", "10 yolks", "200 g sugar", "80 g corn starch")

    def test_signs_come_in_the_order_a_cook_sees_them(self):
        a = ask(*self.PASTRY)
        thick = Thickener.of(a.mix, a.family)
        self.assertTrue(75 < thick.onset_c < 82)
        seen = [thick.pa_s(c) for c in (60, 80, 84, 90, 99)]
        self.assertEqual(seen, sorted(seen))
        self.assertIn("plop", sign_of(thick.pa_s(99)))
        custard = ask("750 g milk", "250 g cream 35%", "200 g yolk", "180 g sugar")
        nappe = Thickener.of(custard.mix, custard.family).pa_s(83)
        self.assertIn("coats the spoon", sign_of(nappe))

    def test_it_is_thinner_hot_than_cold_and_roots_thin_when_boiled(self):
        a = ask(*self.PASTRY)
        thick = Thickener.of(a.mix, a.family)
        self.assertGreater(thick.pa_s(40, peak_c=99), thick.pa_s(95, peak_c=99))
        root = ask("1 l milk", "50 g potato starch", "100 g sugar")
        potato = Thickener.of(root.mix, root.family)
        self.assertLess(potato.pa_s(99, 99, 300), 0.5 * potato.pa_s(99, 99, 0))

    def test_sugar_delays_starch_as_published(self):
        for pct, low, high in ((10, 1.5, 2.5), (20, 4, 5), (40, 11, 13), (60, 20, 30)):
            self.assertTrue(low <= sugar_delay_k(pct) <= high)

    def test_butter_into_a_curd_cools_it_as_the_balance_says(self):
        curd = ask("1 l lemon juice", "950 g whole egg", "160 g yolk", "1150 g sugar")
        (butter,) = additions(curd.mix, mix(butter_82=800), curd.family, 62.0, 5.0)
        # 800 g at 5 degC into curd at 80 drops it by some 15 K with the heat of melting
        self.assertTrue(45 < butter.after_c < 52)
        hot = additions(curd.mix, mix(butter_82=800), curd.family, 80.0, 5.0)[0]
        self.assertGreater(hot.waits_s["bench"], hot.waits_s["ice_bath"])

    def test_milk_onto_yolk_lands_near_80_all_at_once(self):
        out = compute("temper", {"hot": {"lines": ["500 g whole milk"], "temp_c": 90},
                                 "eggs": {"lines": ["80 g yolk"], "temp_c": 20}})  # fmt: skip
        self.assertAlmostEqual(out["all_at_once_temp_c"], 81, delta=2)
        self.assertTrue(1 < out["pour_g_per_s"] < 20)

    def test_a_lid_is_never_slower_and_loses_less(self):
        base = {"lines": ["1 l whole milk"], "ring": 500, "family": "starch_pudding"}
        open_, shut = (compute("pot", {**base, "lid": lid}) for lid in (False, True))
        self.assertLessEqual(shut["reaches_s"], open_["reaches_s"])
        self.assertLess(shut["evaporated_g"], open_["evaporated_g"])
