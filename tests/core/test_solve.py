import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from bellcrumb.asked.lines import read_lines
from bellcrumb.contract import compute
from bellcrumb.errors import CraftError
from bellcrumb.formula.answer import mix_of
from bellcrumb.formula.solve import Wishes, solve
from bellcrumb.mix.composition import Mix
from bellcrumb.pantry.eggs import egg_grade
from bellcrumb.pantry.pantry import shipped
from bellcrumb.texture.families import families
from bellcrumb.texture.set_index import set_strength

PUDDING = ["1 l whole milk", "3 yolks", "150 g sugar", "44 g corn starch", "30 g butter"]
FLOUR = ["1 l whole milk", "9 yolks", "200 g sugar", "120 g flour", "50 g butter"]


def bend(lines, **wishes):
    more = {"family": wishes.pop("family")} if "family" in wishes else {}
    return compute("solve", {"lines": lines, "wishes": wishes, **more})


class SolveTest(unittest.TestCase):
    @given(
        key=st.sampled_from(
            [
                "starch_pudding",
                "cream_pie",
                "blancmange",
                "chocolate_pudding",
                "layered_pudding",
                "creme_caramel",
                "baked_custard_pie",
            ]
        ),
        wished=st.sampled_from(["spoon", "pipe", "slice"]),
    )
    @settings(max_examples=25)
    def test_a_wished_set_is_reached_or_said_and_the_liquid_stays(self, key, wished):
        fam = families()[key]
        mix = Mix.of((shipped().key(k), g) for k, g in fam.centre.items())
        found = solve(mix, fam, lambda _: fam.style, Wishes(wished), shipped())
        reached = set_strength(found.mix, fam.style).klass
        self.assertTrue(reached == wished or found.unmet, f"{key} {reached}")
        self.assertAlmostEqual(fam.liquid_g(found.mix) / fam.liquid_g(mix), 1, places=3)

    def test_only_what_has_to_change_does(self):
        out = bend(PUDDING, set_class="slice")
        self.assertEqual(out["after"]["class"], "slice")
        self.assertEqual([(c["before"], c["why"]) for c in out["changes"]],
                         [("44 g corn starch", "more to slice")])  # fmt: skip
        self.assertAlmostEqual(out["after"]["sugar_pct"], out["before"]["sugar_pct"], delta=0.5)

    def test_eggs_of_another_size_are_counted_anew_and_every_ratio_stays(self):
        typed = [PUDDING[0], "9 yolks", *PUDDING[2:]]
        for size, eggs in (("US medium", 10), ("US jumbo", 7)):
            out = bend(typed, eggs_bought_as=size)
            self.assertEqual(out["egg_grade"], size)
            self.assertIn(f"{eggs} yolks", out["lines"])
            before, after = (
                compute("formula", {"lines": lines, "egg_grade": grade})["per_1000_liquid"]
                for lines, grade in ((typed, "US large"), (out["lines"], size))
            )
            for ratio, grams in before.items():
                self.assertAlmostEqual(grams, after[ratio], delta=max(0.5, 0.012 * grams))

    def test_a_swap_thickens_as_much(self):
        out = bend(FLOUR, family="pastry_cream", swaps=[{"old": "flour", "new": "corn starch"}])
        self.assertAlmostEqual(out["after"]["index"], out["before"]["index"], delta=0.1)
        self.assertTrue(any("corn" in line for line in out["lines"]))
        same = bend(FLOUR, family="pastry_cream", without=["gluten"])
        allergens = compute("formula", {"lines": same["lines"]})["allergens"]
        self.assertNotIn("gluten", allergens)

    @given(starch=st.floats(5, 110), yolk=st.floats(20, 300))
    @settings(max_examples=25)
    def test_the_point_put_by_hand_is_where_the_map_shows_it(self, starch, yolk):
        out = bend(FLOUR, family="pastry_cream", starch_per_1000=starch, egg_per_1000=yolk)
        there = compute("formula", {"lines": out["lines"], "family": "pastry_cream"})["map"]
        self.assertAlmostEqual(there["x"], starch, delta=0.015 * starch + 0.4)
        self.assertAlmostEqual(there["y"], yolk, delta=0.022 * yolk + 1)  # a whole yolk
        self.assertEqual(out["lines"][0], FLOUR[0])

    def test_a_kitchen_whose_creams_come_out_soft_is_bent_by_its_own_set(self):
        ask = {"lines": PUDDING, "family": "starch_pudding", "wishes": {"set_class": "slice"}}
        books = compute("solve", ask)
        name = families()["starch_pudding"].name
        here = compute("solve", {**ask, "set_shifts": {name: -0.5}})
        self.assertEqual((books["after"]["class"], here["after"]["class"]), ("slice", "slice"))
        answers = [
            compute("formula", {"lines": found["lines"], "family": "starch_pudding"})["set"][
                "index"
            ]
            for found in (books, here)
        ]
        self.assertAlmostEqual(answers[1] - answers[0], 0.5, delta=0.25)
        again = compute("formula", {"lines": here["lines"], "family": "starch_pudding",
                                    "set_shifts": {name: -0.5}})  # fmt: skip
        self.assertEqual((again["set"]["class"], again["set"]["shift"]), ("slice", -0.5))

    def test_a_point_off_the_axis_adds_the_line_it_needs(self):
        out = bend(["1 l whole milk", "100 g sugar"], starch_per_1000=40, egg_per_1000=50)
        self.assertEqual([c["before"] for c in out["changes"]], ["", ""])
        self.assertEqual(len(out["lines"]), 4)

    def test_less_eggy_keeps_the_set(self):
        out = bend(PUDDING, less_eggy=True)
        self.assertAlmostEqual(
            out["after"]["yolk_per_1000"], 0.75 * out["before"]["yolk_per_1000"], delta=1
        )
        self.assertAlmostEqual(out["after"]["index"], out["before"]["index"], delta=0.12)
        self.assertIn("less to keep the set", out["changes"][0]["why"])

    def test_whole_eggs_for_yolks_set_as_much(self):
        for lines in (
            ["500 ml cream 35%", "6 yolks", "80 g sugar"],
            ["500 ml whole milk", "500 ml cream 35%", "10 yolks", "160 g sugar"],
        ):
            out = bend(lines, whole_eggs=True)
            self.assertAlmostEqual(out["after"]["index"], out["before"]["index"], delta=0.1)
            self.assertFalse([line for line in out["lines"] if "yolk" in line])
            eggs = [c for c in out["changes"] if c["before"].endswith("yolks")]
            self.assertIn("whole egg", eggs[0]["why"])

    def test_denser_milk_gets_its_water_back_and_another_chocolate_its_cocoa(self):
        def parts(lines):
            return mix_of(read_lines(list(lines), egg_grade("US large"), None, "lines")).parts_g

        typed = ["1 l whole milk", "150 g sugar", "85 g corn starch", "9 yolks"]
        out = bend(typed, swaps=[{"old": "whole milk", "new": "evaporated milk"}])
        # Milk solids that were there stay: 1 l of whole milk is about half a litre evaporated.
        before, after = parts(typed), parts(out["lines"])
        for part in ("water", "fat", "protein"):
            self.assertAlmostEqual(after[part] / before[part], 1, delta=0.06)
        typed = ["500 ml whole milk", "80 g sugar", "30 g corn starch", "100 g dark chocolate 70%"]
        out = bend(typed, swaps=[{"old": "dark chocolate 70%", "new": "milk chocolate"}])
        milk = next(line for line in out["lines"] if "milk chocolate" in line)
        dark, light = (shipped().find(n).ingredient.cocoa_nonfat_pct
                       for n in ("dark chocolate 70%", "milk chocolate"))  # fmt: skip
        # As much cocoa at most: all of it would be sweeter and fatter than it was.
        self.assertTrue(150 < float(milk.split()[0]) <= 100 * dark / light + 1, milk)
        self.assertNotIn("80 g sugar", out["lines"])  # which the other brings

    def test_what_cannot_be_without_says_so(self):
        biscuits = ["500 g milk", "100 g sugar", "50 g digestive biscuits", "40 g corn starch"]
        for lines, wishes, words in (
            (biscuits, {"without": ["gluten"]}, "gluten, and no stand-in"),
            (["500 g milk", "40 g corn starch"], {"without": ["starch"]}, "nothing sets it"),
            (["500 g milk", "40 g corn starch"], {"less_eggy": True}, "no egg in it"),
        ):
            self.assertIn(words, " ".join(bend(lines, **wishes)["unmet"]))

    def test_what_there_is_is_used_up(self):
        out = bend(PUDDING, have="9 yolks")
        self.assertIn("9 yolks", out["lines"])
        self.assertIn("450 g sugar", out["lines"])

    def test_a_wish_that_cannot_be_met_says_which_one_blocks(self):
        starchless = bend(PUDDING, without=["starch"])
        self.assertIn("no starch stands in the way", starchless["unmet"][0])
        beaten = compute(
            "solve", {"lines": FLOUR, "beaten": True, "wishes": {"set_class": "slice"}}
        )
        self.assertIn("never slices", beaten["unmet"][0])
        self.assertIn(
            "to swap", bend(PUDDING, swaps=[{"old": "flour", "new": "corn starch"}])["unmet"][0]
        )
        self.assertIn("use up", bend(PUDDING, have="1 can condensed milk")["unmet"][0])

    def test_wishes_that_make_no_sense_are_refused_at_their_field(self):
        for wishes, place in (
            ({"have": "blorp"}, "wishes.have"),
            ({"wings": 1}, "wishes.wings"),
            ({"swaps": [{"old": "blorp", "new": "flour"}]}, "wishes"),
        ):
            with self.subTest(place), self.assertRaises(CraftError) as caught:
                bend(PUDDING, **wishes)
            self.assertEqual(caught.exception.field, place)
