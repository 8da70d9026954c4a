import unittest

import pint
from hypothesis import given
from hypothesis import strategies as st

from bellcrumb.mix.lines import understand
from bellcrumb.pantry.eggs import egg_grade
from bellcrumb.pantry.pantry import shipped
from bellcrumb.quantities.amount import plain_text, read_amount
from bellcrumb.quantities.show import cups_text, grams_text
from bellcrumb.quantities.units import US_CUP_ML, unit


class UnitsTest(unittest.TestCase):
    def test_every_standard_unit_agrees_with_the_published_definition(self):
        registry = pint.UnitRegistry()
        names = {
            "g": "gram",
            "kg": "kilogram",
            "oz": "ounce",
            "lb": "pound",
            "ml": "milliliter",
            "cl": "centiliter",
            "dl": "deciliter",
            "l": "liter",
            "cup": "cup",
            "tbsp": "tablespoon",
            "tsp": "teaspoon",
            "fl oz": "fluid_ounce",
            "pint": "pint",
            "quart": "quart",
            "gallon": "gallon",
        }
        for written, name in names.items():
            ours = unit(written)
            base = "gram" if ours.kind == "mass" else "milliliter"
            self.assertAlmostEqual(ours.size, registry.Quantity(1, name).to(base).m, places=6)


class AmountTest(unittest.TestCase):
    def read(self, text):
        amount, rest = read_amount(plain_text(text))
        return (amount.low, amount.high, amount.unit.name if amount.unit else None), rest

    def test_amounts_as_cooks_write_them(self):
        cases = {
            "1½ cups cream": ((1.5, 1.5, "cup"), "cream"),
            "3/4 cup sugar": ((0.75, 0.75, "cup"), "sugar"),
            "1 1/2 l milk": ((1.5, 1.5, "l"), "milk"),
            "0,5 l lait entier": ((0.5, 0.5, "l"), "lait entier"),
            "500ml milk": ((500, 500, "ml"), "milk"),
            "2-3 tbsp honey": ((2, 3, "tbsp"), "honey"),
            "4 to 5 lemons": ((4, 5, None), "lemons"),
            "half a stick of butter": ((0.5, 0.5, "stick"), "butter"),
            "a dozen eggs": ((12, 12, None), "eggs"),
            "2 x 400 g tins coconut milk": ((800, 800, "g"), "coconut milk"),
            "whole milk 500 g": ((500, 500, "g"), "whole milk"),
            "yolks: 9": ((9, 9, None), "yolks"),
            "100 g de sucre": ((100, 100, "g"), "sucre"),
            "1,000 g milk": ((1000, 1000, "g"), "milk"),
            "pinch of salt": ((1, 1, "pinch"), "salt"),
        }
        for text, expected in cases.items():
            with self.subTest(text):
                self.assertEqual(self.read(text), expected)

    def test_a_weight_in_brackets_overrides_the_count(self):
        amount, rest = read_amount(plain_text("2 cans (397 g each) condensed milk"))
        self.assertEqual((amount.stated_g, rest), (794, "condensed milk"))

    def test_shown_back_for_both_kinds_of_cook(self):
        self.assertEqual(grams_text(1031.3), "1\u202f031 g")
        self.assertEqual(grams_text(0.42), "0.4 g")
        self.assertEqual(cups_text(150, 200), "¾ cup")
        self.assertEqual(cups_text(113.4, 227, stick=True), "1 stick")
        self.assertEqual(cups_text(4, 128), "1 ½ tsp")
        self.assertEqual(cups_text(195, 200), "1 cup")  # not ¾ c + 4 tbsp
        self.assertEqual(cups_text(190, 200), "¾ c + 3 tbsp")

    def test_the_measure_is_the_one_a_cook_takes_for_that_much(self):
        # Granulated sugar: 200 g a cup, 12.5 g a tablespoon, 4.17 g a teaspoon.
        for grams, shown in (
            (63.7, "¼ c + 1 tbsp"), (65, "⅓ cup"), (48, "¼ cup"), (25, "2 tbsp"), (12, "1 tbsp"),
            (8.3, "2 tsp"), (0.55, "⅛ tsp"), (0.4, "a pinch"),
        ):  # fmt: skip
            self.assertEqual(cups_text(grams, 200), shown)
        # What has no weight by the cup is weighed: to hundredths below an ounce.
        for grams, shown in ((20, "0.71 oz"), (30, "1.1 oz"), (100, "3.5 oz")):
            self.assertEqual(cups_text(grams, None), shown)
        # Butter by the stick of 4 oz, less than half of one by the spoon.
        for grams, shown in ((170, "1 ½ sticks"), (57, "½ stick"), (43, "3 tbsp")):
            self.assertEqual(cups_text(grams, 227, stick=True), shown)
        self.assertEqual(cups_text(170, 227, "uk", stick=True), cups_text(170, 227, "uk"))


class CupsComeBackTest(unittest.TestCase):
    @given(st.floats(60, 3000), st.sampled_from(["us", "uk", "au"]))
    def test_what_is_measured_is_what_was_weighed_but_for_a_spoon(self, grams, measures):
        sugar = shipped().key("sugar")
        shown = cups_text(grams, sugar.g_per_us_cup, measures)
        read = understand(f"{shown} sugar", shipped(), egg_grade("US large"), measures)
        spoon_g = unit("tbsp", measures).size / US_CUP_ML * sugar.g_per_us_cup
        self.assertLessEqual(abs(read.grams - grams), 0.81 * spoon_g + 0.011 * grams, shown)
