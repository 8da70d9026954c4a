"""Building a dessert layer by layer, parts folded together, and guides of the bench."""

import unittest

from hypothesis import given
from hypothesis import strategies as st

from bellcrumb.contract import compute
from bellcrumb.curve.watch import Watch
from bellcrumb.dessert.assembly import checked_moment, laid_moment, vessel_at
from bellcrumb.errors import CraftError
from bellcrumb.laws.air import whipped_stands_h
from bellcrumb.stove.steps import Step
from tests.core.test_dessert import CREAM, DESSERTS, build, part, round_tin, tart

WHIPPED = ["300 g cream 35%"]


def lightened(light=None, **more):
    light = light or part("Foam", "cream", *WHIPPED)
    fold = {"name": "Light", "base": "Cream", "light": light["name"], **more}
    return build(round_tin(240, 60), [part("Cream", "cream", *CREAM), light], folds=[fold])


class GuideTest(unittest.TestCase):
    def test_each_layer_is_one_step_with_its_grams(self):
        for name, make in DESSERTS.items():
            found = make()
            with self.subTest(name):
                guide = found["guide"]
                laid = [(s["grams"], s["count"]) for s in guide if s["kind"] == "lay"]
                count = found["stand"]["count"]
                self.assertEqual(laid, [(x["g_each"], count) for x in found["layers"]])
                keys = [s["key"] for s in guide]
                self.assertEqual(len(keys), len(set(keys)))
                self.assertTrue(all(len(key) <= 20 for key in keys))
                self.assertEqual((keys[0], keys[-1]), ("ready", "label"))

    def test_the_cream_is_asked_to_be_cold_and_a_warm_school_warns_first(self):
        checks = {s["key"]: (s["low_c"], s["high_c"]) for s in tart()["guide"]}
        self.assertEqual(checks["warm_1"], (2, 10))
        self.assertEqual(checks["below_2"], (None, 10))  # whipped cream on it
        hot = build(round_tin(240, 40), [
            part("Shell", "crust", "300 g flour", "150 g butter", "90 g icing sugar", "1 egg"),
            part("Cream", "cream", *CREAM),
        ], schools={"filling": "hot"})["guide"]  # fmt: skip
        lay = next(s for s in hot if s["key"] == "lay_1")
        self.assertIn("softens a little now", lay["caution"])
        rest = next(s for s in hot if s["key"] == "rest_1")
        self.assertGreaterEqual(rest["hold_s"], 3 * 3600)  # it sets in place

    def test_a_check_waits_for_the_probe_and_says_too_warm_and_too_cold(self):
        step = Step(
            "warm_1",
            "check",
            "Probe",
            sign="",
            avoid="It melts.",
            low_c=28.0,
            high_c=38.0,
            there="Now",
        )
        for temp, word, done in ((45, "too warm", False), (20, "too cold", False),
                                 (33, "as it should be", True)):  # fmt: skip
            said = checked_moment(step, Watch.of([(0, temp), (2, temp)], None), True)
            self.assertEqual((said.headline, said.done), (word, done))
        silent = checked_moment(step, Watch.of([(0, 33)], None), False)
        self.assertEqual((silent.figure, silent.done), (None, False))

    def test_the_scale_counts_vessel_by_vessel(self):
        step = Step("lay_0", "lay", "Pour", sign="", avoid="", grams=120.0, count=3, there="Enough")
        for poured, vessel, word in (
            (0, 1, "vessel 1 of 3"), (115, 1, "vessel 1 of 3"), (118, 2, "vessel 2 of 3"),
            (300, 3, "vessel 3 of 3"), (358, 3, "enough"), (400, 3, "too much"),
        ):  # fmt: skip
            said = laid_moment(step, poured)
            self.assertEqual((vessel_at(step, poured), said.headline), (vessel, word))
        self.assertEqual(laid_moment(step, None).figure, 120)

    @given(st.floats(0, 2000), st.floats(0, 500), st.floats(5, 400), st.integers(1, 12))
    def test_more_on_the_scale_is_never_an_earlier_vessel(self, poured, more, grams, count):
        step = Step("lay_0", "lay", "Pour", sign="", avoid="", grams=grams, count=count)
        self.assertLessEqual(vessel_at(step, poured), vessel_at(step, poured + more))


class FoldTest(unittest.TestCase):
    def test_two_parts_folded_weigh_what_they_did_and_take_less_room(self):
        found = lightened()
        fold = found["folds"][0]
        gives = {p["name"]: p["written_g"] * (1 - p["lost_pct"] / 100) for p in found["parts"]}
        self.assertAlmostEqual(fold["base_g"], gives["Cream"])
        self.assertAlmostEqual(fold["light_g"], gives["Foam"])
        room = fold["base_g"] / 1.1 + fold["light_g"] / 0.5
        self.assertAlmostEqual(fold["volume_ml"] / room, 0.88, delta=0.02)
        self.assertTrue(0.5 < fold["density_g_per_ml"] < 1.1)
        self.assertEqual([x["kind"] for x in found["layers"]], ["folded"])
        # All of both is what there is, so that nothing is over.
        for p in found["parts"]:
            self.assertAlmostEqual(p["left_g"], 0, delta=0.01 * p["written_g"])

    def test_the_fold_comes_after_both_and_half_of_it_needs_half(self):
        steps = {s["key"]: s for s in lightened()["steps"]}
        self.assertEqual({g["key"].split("/")[0] for g in steps["Light/fold"]["after"]},
                         {"Cream", "Foam"})  # fmt: skip
        half = lightened(base_g=400, light_g=100)["parts"]
        self.assertAlmostEqual(half[0]["need_g"], 400 / 0.95, delta=1)
        self.assertAlmostEqual(half[1]["need_g"], 100 / 0.96, delta=1)

    def test_meringue_wants_a_warm_base_and_cream_a_cool_one(self):
        cream = lightened()["folds"][0]
        foam = part("Foam", "meringue", "120 g egg white", "240 g sugar", "80 g water")
        hot = lightened(foam)["folds"][0]
        self.assertLess(cream["base_to_c"], hot["base_from_c"])
        self.assertLess(hot["density_g_per_ml"], cream["density_g_per_ml"] + 0.2)

    def test_what_cannot_be_folded_is_said(self):
        for more, field in (({"base_g": 5000}, "folds[0].base_g"),
                            ({"base": "Foam"}, "folds[0].light"),
                            ({"base": "Fog"}, "folds[0].base")):  # fmt: skip
            with self.subTest(field), self.assertRaises(CraftError) as caught:
                lightened(**more)
            self.assertEqual(caught.exception.field, field)


class ThreadTimesTest(unittest.TestCase):
    def flan(self, mm, **more):
        custard = part("Flan", "filling", "2 l whole milk", "16 eggs", "400 g sugar")
        found = build(round_tin(150, 90), [custard],
                      [{"part": "Flan", "lies": "mm", "value": mm}], **more)  # fmt: skip
        return {s["key"]: s for s in found["steps"]}

    def test_baking_takes_what_the_oven_says_and_deeper_takes_longer(self):
        shallow, deep = (self.flan(mm)["Flan/bake_bath"] for mm in (25, 60))
        self.assertGreater(deep["wait_min"], 1.5 * shallow["wait_min"])
        self.assertIn("the oven's model: 60 mm", deep["source"])
        self.assertLessEqual(deep["wait_low_min"], deep["wait_min"])

    def test_a_kitchens_own_minutes_go_before_the_model(self):
        own = self.flan(40, overrules=[{"key": "Flan/bake_bath", "wait_min": 99}])
        self.assertEqual(own["Flan/bake_bath"]["wait_min"], 99)
        self.assertEqual([key for key, s in own.items() if s["own"]], ["Flan/bake_bath"])
        hands = self.flan(40, overrules=[{"key": "Flan/bake_bath", "hands_min": 7}])
        self.assertEqual(hands["Flan/bake_bath"]["hands_min"], 7)
        self.assertEqual([key for key, s in hands.items() if s["own"]], ["Flan/bake_bath"])
        self.assertEqual([key for key, s in self.flan(40).items() if s["own"]], [])

    def test_one_portion_costs_what_its_layers_do(self):
        prices = {"cream 35%": 6, "whole milk": 1.2, "flour": 1, "butter": 9}
        portion = tart(prices=prices)["portion"]
        self.assertAlmostEqual(portion["cost"], sum(x["cost"] for x in portion["layers"]))
        self.assertIn("corn starch", portion["without_price"])
        self.assertIsNone(tart()["portion"]["cost"])

    def test_peel_and_stone_are_taken_off_what_is_bought(self):
        cream = part("Cream", "cream", *CREAM)
        for lost, lies in ((0, 500), (36, 320)):
            layer = {"item": "500 g banana", "lost_pct": lost}
            found = build(round_tin(240, 90), [cream], [{"part": "Cream"}, layer])
            self.assertAlmostEqual(found["layers"][1]["g_each"], lies)


class BenchTest(unittest.TestCase):
    # A part of each kind that no pot sees: its kind, its guide, and a step of it.
    PARTS = (
        ("crust", ["200 g digestive biscuits", "90 g butter"], "crumb", "press_into_tin"),
        ("crust", ["250 g flour", "150 g butter", "90 g icing sugar", "1 egg"], "sweet", "rest"),
        ("filling", ["300 g flour", "200 g butter", "80 g water"], "flaky", "roll_line"),
        ("crust", ["500 g puff pastry"], "puff", "bake_under_tray"),
        ("garnish", ["200 g hazelnuts", "150 g sugar"], "nut", "grind"),
        ("glaze", ["200 g apricot jam", "30 g water"], "jam", "brush"),
        ("glaze", ["300 g raspberry puree", "60 g sugar"], "coulis", "blend_sieve"),
        ("garnish", ["80 g sugar"], "torched", "torch"),
    )

    def test_what_no_pot_sees_has_a_guide_of_its_own(self):
        for kind, lines, name, code in self.PARTS:
            with self.subTest(name):
                found = compute("plan", {"lines": lines, "part_kind": kind})
                self.assertEqual(found["guide"], name)
                self.assertIn(code, [s["code"] for s in found["steps"]])
                self.assertFalse([s for s in found["steps"] if "boil" in s["title"].lower()])

    def test_choux_is_piped_pierced_and_dried_and_counted_by_its_size(self):
        lines = ["250 g water", "110 g butter", "140 g flour", "5 eggs"]
        steps = compute("plan", {"lines": lines, "part_kind": "crust"})["steps"]
        keys = [s["code"] for s in steps]
        self.assertEqual(keys[-5:], ["pipe", "bake", "hole", "dry_open_oven", "cool"])
        self.assertIn("34 buns of 4 cm", steps[-5]["title"])  # 0.95 x 750 g / 21 g

    def test_the_blind_bake_follows_the_dough(self):
        choux = compute("crust", {"lines": ["250 g water", "110 g butter", "140 g flour",
                                            "5 eggs"], "school": "weights"})  # fmt: skip
        self.assertEqual((choux["dough"], choux["school"]), ("choux", "choux"))
        self.assertIn("ajar", choux["stages"][-1]["title"])
        short = compute("crust", {"lines": ["300 g flour", "180 g butter", "60 g water"]})
        self.assertEqual((short["dough"], short["school"]), ("flaky", "weights"))


class WhippedTest(unittest.TestCase):
    def test_cream_to_be_whipped_is_no_custard_and_says_how_it_stands(self):
        for lines in (["400 g cream 35%", "40 g icing sugar"],
                      ["400 g cream 35%", "100 g mascarpone", "40 g sugar"]):  # fmt: skip
            found = compute("formula", {"lines": lines})
            self.assertIsNone(found["family"])
            self.assertTrue(found["whipped"]["whips"])
        set_cream = compute("formula", {"lines": ["500 g cream 35%", "60 g sugar",
                                                  "6 g gelatine powder"]})  # fmt: skip
        self.assertEqual(set_cream["family"]["key"], "panna_cotta")

    def test_cream_too_lean_to_whip_is_warned_of_once_alone_and_folded_in(self):
        alone = compute("formula", {"lines": ["500 g cooking cream 20%, whipped"]})
        folded = compute("formula", {"family": "diplomat", "lines": [
            "500 g milk", "100 g yolks", "120 g sugar", "45 g corn starch", "8 g gelatine",
            "300 g cooking cream 20%, whipped"]})  # fmt: skip
        for found in (alone, folded):
            self.assertEqual(sum("does not whip" in w for w in found["warnings"]), 1)
        self.assertIn("cream_too_lean", [c["code"] for c in folded["cautions"]])

    def test_what_gelatine_carries_is_said_to_be_just_carried_and_nothing_against_it(self):
        blend = ["300 g cream 35%, whipped", "150 g single cream"]  # 29 % of fat
        carried = compute("formula", {"lines": [*blend, "5 g gelatine powder"]})
        self.assertTrue(carried["whipped"]["whips"])
        self.assertEqual(carried["cautions"], [])
        self.assertEqual(sum("carried by its stabiliser" in w for w in carried["warnings"]), 1)
        plain = compute("formula", {"lines": blend})
        self.assertFalse(plain["whipped"]["whips"])
        self.assertEqual([c["code"] for c in plain["cautions"]], ["cream_too_lean"])

    def test_gelatine_makes_it_stand_about_three_times_as_long(self):
        plain, held = (
            compute("formula", {"lines": ["500 g cream 36%", "40 g icing sugar", *more]})["whipped"]
            for more in ([], ["3 g gelatine powder"])
        )
        self.assertAlmostEqual(held["stands_h"] / plain["stands_h"], 3, delta=0.4)
        self.assertAlmostEqual(plain["stands_cold_h"], 8.8, delta=1)  # ours: 8 h for plain 36 %

    @given(st.floats(30, 48), st.floats(0, 34), st.floats(0.5, 10))
    def test_warmer_never_stands_longer(self, fat, temp, more):
        self.assertGreater(whipped_stands_h(fat, temp), whipped_stands_h(fat, temp + more))


class AllOfItTest(unittest.TestCase):
    LINES = ("400 g cream cheese", "120 g sugar", "2 eggs", "60 g cream 35%")

    def bake(self, **more):
        return compute("bake", {"mix": {"lines": list(self.LINES)}, "oven": {"set_c": 150},
                                "vessel": "springform_20_70", **more})  # fmt: skip

    def test_a_small_batch_in_a_deep_tin_is_baked_as_deep_as_it_lies(self):
        told = self.bake(fill=0.9)
        found = self.bake()
        self.assertLess(found["pull_from_min"], 0.5 * told["pull_from_min"])
        self.assertAlmostEqual(found["pull_from_min"], self.bake(fill=0.29)["pull_from_min"],
                               delta=1.5)  # fmt: skip

    def test_water_in_a_tray_beside_is_moist_air_and_no_contact(self):
        dry, beside, bath = (
            self.bake(fill=0.6, bath=b, oven={"set_c": 160})
            for b in (None, {"level": "beside"}, {"level": "rim"})
        )
        # Moist air takes less from the top than dry air; only a bath holds the edge back.
        self.assertLess(beside["pull_from_min"], dry["pull_from_min"])
        edges = [max(p["edge_c"] for p in r["curve"]) for r in (dry, beside, bath)]
        self.assertLess(edges[2], min(edges[:2]) - 5)
        self.assertGreater(beside["water_ml"], 1000)

    def test_a_fill_the_batch_cannot_reach_is_said(self):
        said = " ".join(self.bake(count=8)["warnings"])
        self.assertIn("hardly covers the floor", said)
        self.assertIn("mm are assumed", said)
