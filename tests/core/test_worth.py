import unittest

from hypothesis import example, given
from hypothesis import strategies as st

from bellcrumb.contract import compute
from bellcrumb.formula.ledger import Entry, ledger
from bellcrumb.formula.worth import cost, eggs_to_have, nutrition
from bellcrumb.pantry.eggs import egg_grade
from bellcrumb.words import closed
from tests.core.kitchen import US_LARGE, mix

EU_M = egg_grade("EU M")
amounts = st.floats(0, 2000)


class WorthTest(unittest.TestCase):
    def test_nutrition_agrees_with_the_published_energy_of_its_ingredients(self):
        # USDA SR: kcal in 100 g of whole milk 61, sugar 387, whole egg 143, butter 717
        for key, kcal in (
            ("milk_whole", 61),
            ("sugar", 387),
            ("egg_whole", 143),
            ("butter_80", 717),
        ):
            with self.subTest(key):
                found = nutrition(mix(**{key: 500}), 100)
                self.assertAlmostEqual(found.kcal / kcal, 1, delta=0.05)

    def test_sweetness_counts_each_sugar_for_what_it_is(self):
        self.assertAlmostEqual(mix(sugar=100).sweetness_g, 100, delta=0.2)
        self.assertAlmostEqual(mix(milk_whole=1000).sweetness_g, 48 * 0.16, delta=0.2)
        self.assertLess(mix(dextrose=100).sweetness_g, mix(sugar=100).sweetness_g)

    def test_an_egg_opened_for_its_yolk_is_paid_whole(self):
        prices = {"egg_whole": 6.0, "sugar": 1.0}
        yolks = cost(mix(egg_yolk=10 * US_LARGE.yolk_g), prices, US_LARGE)
        whites_too = cost(
            mix(egg_yolk=10 * US_LARGE.yolk_g, egg_white=6 * US_LARGE.white_g), prices, US_LARGE
        )
        self.assertAlmostEqual(yolks.batch, 10 * US_LARGE.content_g / 1000 * 6)
        self.assertAlmostEqual(whites_too.batch, yolks.batch)
        jarred = cost(mix(egg_yolk=100), {**prices, "egg_yolk": 11.0}, US_LARGE)
        self.assertAlmostEqual(jarred.batch, 1.1)

    def test_what_has_no_price_is_named(self):
        found = cost(mix(sugar=500, milk_whole=100, water=100), {"sugar": 1.2}, US_LARGE)
        self.assertAlmostEqual(found.batch, 0.6)
        self.assertEqual(found.without_price, ["milk"])

    def test_eggs_to_have_cover_the_cracked_ones(self):
        crack, have = eggs_to_have(mix(egg_yolk=10 * US_LARGE.yolk_g), US_LARGE, 0.05)
        self.assertEqual((round(crack, 6), have), (10, 11))
        self.assertEqual(eggs_to_have(mix(sugar=10), US_LARGE, 0.05), (0, 0))

    def test_a_dessert_adds_its_parts_portion_by_portion(self):
        crust = {
            "name": "Crust",
            "part_kind": "crust",
            "vessel": "pie_23_std",
            "count": 2,
            "portions_per_vessel": 8,
            "lines": ["500 g flour", "300 g butter", "100 g water"],
        }
        cream = {
            "name": "Cream",
            "vessel": "pie_23_std",
            "count": 1,
            "portions_per_vessel": 8,
            "lines": ["1 l milk", "10 yolks", "200 g sugar", "80 g corn starch"],
        }
        top = {"name": "Meringue", "part_kind": "meringue", "lines": ["6 whites", "300 g sugar"]}
        out = compute("dessert", {"parts": [crust, cream, top]})
        self.assertEqual((out["portions"], out["eggs_separate"]), (8, 10))
        crust_g, cream_g, top_g = (p["portion_g"] for p in out["parts"])
        self.assertAlmostEqual(crust_g, 900 / 16)
        self.assertAlmostEqual(out["portion_g"], crust_g + cream_g + top_g)
        self.assertAlmostEqual(sum(p["mass_g"] for p in out["parts"]), out["mass_g"])
        self.assertIn("8 are over", out["warnings"][0])
        self.assertIn("gluten", out["allergens"])


class LedgerTest(unittest.TestCase):
    @given(st.lists(st.tuples(amounts, amounts, amounts), min_size=1, max_size=6))
    @example([(1.2426115264970297e-05, 0.0, 0.0)] * 2)
    def test_every_gram_opened_is_used_or_left_and_no_egg_is_opened_for_nothing(self, needs):
        found = ledger([Entry("x", y, w, whole_g=whole) for y, w, whole in needs], EU_M)
        yolk, white = sum(n[0] for n in needs), sum(n[1] for n in needs)
        self.assertAlmostEqual(found.separate * EU_M.yolk_g, yolk + found.yolk_left_g)
        self.assertAlmostEqual(found.separate * EU_M.white_g, white + found.white_left_g)
        self.assertGreaterEqual(min(found.yolk_left_g, found.white_left_g), -1e-3)
        least = min(found.yolk_left_g / EU_M.yolk_g, found.white_left_g / EU_M.white_g)
        self.assertLess(least, 1 + 1e-6)
        self.assertLessEqual(found.separate + found.whole, found.alone_eggs)

    def test_a_meringue_takes_the_whites_the_cream_leaves(self):
        cream = Entry.of("cream", mix(egg_yolk=170))
        meringue = Entry.of("meringue", mix(egg_white=204))
        together = ledger([cream, meringue], EU_M)
        self.assertEqual((together.separate, together.alone_eggs), (10, 16))
        self.assertAlmostEqual(together.white_left_g, 136)
        self.assertIn("6 eggs fewer", together.says[0])
        self.assertIn("272 g of sugar", closed(together.says[-1]))
