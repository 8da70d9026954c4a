import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from bellcrumb.contract import compute
from bellcrumb.errors import CraftError
from bellcrumb.formula.scale import scale_line, scale_text, whole_egg_choices
from bellcrumb.mix.lines import understand, understand_all
from bellcrumb.pantry.eggs import egg_grade
from bellcrumb.pantry.pantry import shipped
from tests.core.kitchen import US_LARGE, ask

LINES = [
    "1 l whole milk",
    "9 yolks",
    "3/4 cup sugar",
    "85 g corn starch",
    "half a stick of butter",
    "2 leaves gelatine",
    "1½ cups heavy cream",
    "2 tbsp honey",
    "1 tsp vanilla extract",
    "Zest of 1 lemon",
    "8 oz cream cheese",
    "a pinch of salt",
    "whole Milk 500 g",
]


class ScaleLineTest(unittest.TestCase):
    def test_spoons_of_another_country_and_fruit_of_two_parts_scale(self):
        for text, country, factor, expected in (
            ("2 tbsp honey", "au", 0.5, "1 tbsp honey"),
            ("1 cup sugar", "uk", 0.5, "½ cup sugar"),
            ("17 oz cream cheese", "us", 2, "2.12 lb cream cheese"),  # pounds from two on
            ("15 oz cream cheese", "us", 2, "30 oz cream cheese"),
            ("2 lemons, juice and zest", "us", 0.75, "1.5 lemons, juice and zest"),
            ("½ lemon, juice and zest", "us", 2, "1 lemon, juice and zest"),
            ("zest and juice of 1½ lemons", "us", 2, "zest and juice of 3 lemons"),
            ("2-3 lemons, juice and zest", "us", 2, "5 lemons, juice and zest"),
            ("two lemons, juice and zest", "us", 2, "4 lemons, juice and zest"),
            ("two cups each cream and milk", "us", 2, "4 cups each cream and milk"),
            ("one cup each of sugar and butter", "us", 0.5, "½ cup each of sugar and butter"),
            ("600 g sugar", "us", 20, "12 kg sugar"),
            ("3 eggs plus 1 yolk plus 20 g sugar", "us", 2, "6 eggs plus 2 yolk plus 40 g sugar"),
            (
                "2 lemons, juice and zest, plus 3 eggs",
                "us",
                2,
                "4 lemons, juice and zest, plus 6 eggs",
            ),
            ("1 1/2 tsp each cloves and nutmeg", "us", 2, "3 tsp each cloves and nutmeg"),
            ("200 g each of cream and milk", "us", 0.5, "100 g each of cream and milk"),
        ):
            line = understand(text, shipped(), US_LARGE, country)
            self.assertEqual(scale_line(text, line, factor, country), expected)

    def scaled(self, text, factor):
        return scale_line(text, understand(text, shipped(), US_LARGE), factor)

    def test_the_cooks_units_are_kept_where_they_can_be_measured(self):
        for text, factor, expected in (
            ("1 l whole milk", 2, "2 l whole milk"),
            ("1 l whole milk", 0.94, "940 ml whole milk"),
            ("3/4 cup sugar", 2, "1½ cups sugar"),
            ("3/4 cup sugar", 0.94, "141 g sugar"),
            ("2 tbsp honey", 0.5, "1 tbsp honey"),
            ("1 tsp vanilla extract", 3, "1 tbsp vanilla extract"),
            ("half a stick of butter", 3, "1½ sticks butter"),
            ("9 yolks", 2, "18 yolks"),
            ("9 yolks", 1.05, "161 g yolks"),
            ("2 leaves gelatine", 2, "4 leaves gelatine"),
            ("1 Vanilla pod", 1.5, "1½ Vanilla pod"),
            ("200 g Dark Chocolate 65%", 0.5, "100 g Dark Chocolate 65%"),
            ("200 g blorp", 3, "200 g blorp"),
            ("For the cream:", 3, "For the cream:"),
        ):
            with self.subTest(text):
                self.assertEqual(self.scaled(text, factor), expected)

    @given(factor=st.floats(0.1, 40))
    @settings(max_examples=60)
    def test_mass_is_kept_through_scaling_and_reading_again(self, factor):
        before = understand_all(LINES, None, US_LARGE)
        text = scale_text("\n".join(LINES), before, factor)
        after = understand_all(text.split("\n"), None, US_LARGE)
        for old, new in zip(before, after, strict=True):
            self.assertEqual(old.ingredient.key, new.ingredient.key, new.text)
            want = old.grams * factor
            tolerance = 0.5 * want + 0.4 if "pinch" in old.text else 0.032 * want + 0.6
            self.assertAlmostEqual(new.grams, want, delta=tolerance, msg=new.text)


class WholeEggTest(unittest.TestCase):
    @given(
        yolk=st.floats(40, 900),
        grade=st.sampled_from(["US large", "EU M", "EU L", "AU jumbo"]),
        factor=st.floats(0.3, 8),
    )
    @settings(max_examples=60)
    def test_choices_crack_whole_eggs_on_either_side(self, yolk, grade, factor):
        g = egg_grade(grade)
        mix = ask("1 l milk", f"{yolk} g yolk").mix
        choices = whole_egg_choices(mix, g, factor)
        for choice in choices:
            self.assertAlmostEqual(mix.yolk_g * choice.factor / g.yolk_g, choice.eggs, places=6)
        self.assertLessEqual(len(choices), 2)
        self.assertLess(abs(choices[0].factor - factor) * mix.yolk_g, g.yolk_g + 1e-6)

    def test_yolks_and_whites_share_their_shells(self):
        mix = ask("1 l milk", "6 yolks", "4 whites", "2 eggs").mix
        self.assertEqual(whole_egg_choices(mix, US_LARGE)[0].eggs, 8)


class ScaleTest(unittest.TestCase):
    PASTRY = LINES[:4]

    def test_by_liquid_batch_eggs_and_vessels(self):
        for by, value, factor in (
            ("liquid", 2062.66, 2),
            ("eggs", 18, 2),
            ("factor", 2, 2),
            ("batch", 2838.66, 2),
        ):
            out = compute("scale", {"lines": self.PASTRY, "by": by, "value": value})
            self.assertAlmostEqual(out["factor"], factor, places=3)
            self.assertEqual(out["lines"][1], "18 yolks")
        out = compute(
            "scale",
            {
                "lines": self.PASTRY,
                "by": "vessels",
                "value": 14,
                "vessel": "ramekin_150",
                "fill": 0.9,
            },
        )
        again = compute(
            "formula", {"lines": out["lines"], "vessel": "ramekin_150", "fill": 0.9, "count": 14}
        )
        self.assertAlmostEqual(again["fit"]["factor"], 1, delta=0.01)

    def test_what_does_not_scale_is_said(self):
        out = compute("scale", {"lines": self.PASTRY, "by": "factor", "value": 4})
        self.assertIn("scorches", out["does_not_scale"][0])
        self.assertEqual(
            compute("scale", {"lines": self.PASTRY, "value": 1.1})["does_not_scale"], []
        )

    def test_what_cannot_be_scaled_is_refused(self):
        for data, field in (
            ({"lines": ["1 l milk"], "by": "eggs", "value": 3}, "by"),
            ({"lines": [], "value": 3}, "lines"),
            ({"lines": self.PASTRY, "by": "vessels", "value": 3}, "vessel"),
            ({"lines": self.PASTRY, "value": 5000}, "factor"),
        ):
            with self.subTest(field), self.assertRaises(CraftError) as caught:
                compute("scale", data)
            self.assertEqual(caught.exception.field, field)
