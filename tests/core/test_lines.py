import csv
import unittest
from importlib.resources import files
from pathlib import Path

from hypothesis import given
from hypothesis import strategies as st

from bellcrumb.errors import CraftError
from bellcrumb.formula.answer import answer
from bellcrumb.mix.called import called
from bellcrumb.mix.lines import understand
from bellcrumb.pantry.eggs import egg_grade
from bellcrumb.pantry.ingredients import from_label, table
from bellcrumb.pantry.pantry import Pantry, shipped
from bellcrumb.words import closed
from tests.core.kitchen import US_LARGE


def read(text, pantry=None, grade=US_LARGE):
    return understand(text, pantry or shipped(), grade)


class PantryTest(unittest.TestCase):
    def test_within_a_sentence_a_thing_is_called_short_and_still_itself(self):
        for name, called_so in (
            ("Egg yolk, separated", "yolks"),
            ("Dark chocolate 60-64%", "dark chocolate"),
            ("Pure / pouring cream (AU) 35-40%", "pure / pouring cream"),
            ("Instant (pregelatinised/modified) starch", "instant starch"),
            ("Thickened cream (AU) 35% with gelatine or gum", "thickened cream"),
        ):
            found = shipped().named(name)
            self.assertEqual(found and found.short, called_so)
        for thing in table():
            self.assertRegex(thing.short, r"^[^%()]{3,}$", thing.key)

    def test_every_composition_sums_to_one_hundred(self):
        for i in table():
            parts = (
                i.water_pct,
                i.fat_pct,
                i.protein_pct,
                i.sugars_pct,
                i.starch_pct,
                i.other_carb_pct,
                i.ash_pct,
                i.alcohol_pct,
            )
            self.assertAlmostEqual(sum(parts), 100, delta=0.6, msg=i.key)

    def test_every_ingredient_is_found_by_its_own_name(self):
        for i in table():
            match = shipped().find(i.name)
            self.assertIsNotNone(match, i.name)
            self.assertEqual(match.ingredient.key, i.key)

    def test_a_label_that_adds_up_to_more_than_the_whole_is_refused(self):
        with self.assertRaises(CraftError) as caught:
            from_label("x", "x", fat_pct=60, sugars_pct=50, protein_pct=1)
        self.assertEqual(caught.exception.field, "fat_pct")


class LineTest(unittest.TestCase):
    def test_weights_of_ordinary_lines(self):
        cases = {
            "1 l whole milk": ("milk_whole", 1031),
            "9 yolks": ("egg_yolk", 153),
            "3/4 cup sugar": ("sugar", 150),
            "85 g corn starch": ("corn_starch", 85),
            "1 vanilla pod": ("vanilla_pod", 4),
            "6 jaunes d'oeufs": ("egg_yolk", 102),
            "150 g zucchero": ("sugar", 150),
            "250 ml nata": ("cream_35", 251),
            "half a stick of unsalted butter, softened": ("butter_80", 56.7),
            "juice of 2 lemons": ("lemon_juice", 96),
            "1 can (14 oz) condensed milk": ("condensed_milk", 397),
            "1 cup packed brown sugar": ("sugar_brown_light", 220),
            "3 jumbo egg yolks": ("egg_yolk", 61.5),
            "60 g corn strach": ("corn_starch", 60),
        }
        for text, (key, grams) in cases.items():
            with self.subTest(text):
                line = read(text)
                self.assertEqual(line.ingredient.key, key)
                self.assertAlmostEqual(line.grams, grams, delta=0.006 * grams + 0.5)

    def test_eggs_weigh_what_the_grade_says(self):
        self.assertEqual(read("9 yolks", grade=egg_grade("EU L")).grams, 9 * 19)
        with self.assertRaises(CraftError):
            egg_grade("Martian huge")

    def test_doubt_is_said(self):
        self.assertEqual(read("2 cups milk").confidence, "likely")
        self.assertEqual(read("10 oz cream").confidence, "doubtful")
        self.assertIn("35 %", read("10 oz cream").message)
        self.assertGreater(read("1 cup corn starch").spread_g, 10)
        self.assertLess(read("128 g corn starch").spread_g, 1)

    def test_nothing_is_dropped_and_every_refusal_says_what_to_do(self):
        cases = {
            "3 cups": "of what",
            "-2 yolks": "more than nothing",
            "0 g sugar": "more than nothing",
            "1/0 cup sugar": "cannot be read",
            "sugar": "How much",
            "200 g blorp": "label",
            "½ cup roasted chicory powder": "label",
        }
        for text, words in cases.items():
            with self.subTest(text):
                line = read(text)
                self.assertEqual((line.text, line.confidence), (text, "unknown"))
                self.assertIn(words, line.message)

    def test_an_absurd_amount_is_kept_but_doubted(self):
        line = read("400 kg yolk")
        self.assertEqual((line.confidence, line.grams), ("doubtful", 400_000))
        self.assertIn("did you mean 400 g", line.message)

    def test_blank_lines_and_headings_are_no_ingredients(self):
        self.assertIsNone(read("  "))
        self.assertIsNone(read("For the cream:"))

    def test_the_kitchens_own_entry_comes_first(self):
        malt = from_label(
            "own_malt",
            "roasted chicory powder",
            fat_pct=8,
            sugars_pct=60,
            protein_pct=12,
            starch_pct=14,
            g_per_us_cup=110,
        )
        line = read("½ cup roasted chicory powder", Pantry([malt]))
        self.assertEqual((line.ingredient.key, round(line.grams)), ("own_malt", 55))

    def test_the_kitchens_own_milk_and_starch_do_what_they_are(self):
        own = Pantry(
            [
                from_label(
                    "own_milk",
                    "island milk",
                    fat_pct=5,
                    sugars_pct=5,
                    protein_pct=4,
                    category="milk",
                ),
                from_label(
                    "own_starch",
                    "pea starch",
                    fat_pct=0,
                    sugars_pct=0,
                    protein_pct=0,
                    starch_pct=88,
                    water_pct=12,
                    category="starch",
                ),
            ]
        )
        lines = [read(t, own) for t in ("1000 g island milk", "80 g pea starch")]
        found = answer(lines, US_LARGE)
        self.assertEqual((found.liquid_g, found.ratios.corn_starch_equivalent_g), (1000, 80))


class CalledTest(unittest.TestCase):
    """What a card prints and a question asks about: the words as typed, no word of them lost."""

    def test_only_the_amount_is_left_out(self):
        for typed, words in (
            ("9 Egg yolks", "Egg yolks"), ("200 g moo juice", "moo juice"),
            ("1½ cups of moo juice", "moo juice"), ("1/2 tsp. vanilla paste", "vanilla paste"),
            ("  85 g Corn starch, sifted ", "Corn starch, sifted"),
            ("1 1/2 sticks (170 g) butter", "butter"), ("2 to 3 yolks", "yolks"),
            ("2 EL Zucker", "Zucker"), ("250 ml de lait", "lait"), ("2 kg rye flour", "rye flour"),
            ("a pinch of salt", "salt"), ("3 ripe bananas", "ripe bananas"),
        ):  # fmt: skip
            self.assertEqual(called(typed), words)

    def test_without_an_amount_it_is_all_of_it(self):
        for typed in ("rye flour", "moo juice", "For the cream:", "9", "9 g", "0/0 milk"):
            self.assertEqual(called(typed), typed)

    @given(st.sampled_from(["moo juice", "Egg yolks", "oat milk"]), st.integers(1, 4000),
           st.sampled_from(["g", "kg", "ml", "cups", "tbsp", ""]))  # fmt: skip
    def test_a_name_comes_back_whatever_stands_before_it(self, name, number, unit):
        self.assertEqual(called(f"{number} {unit} {name}"), name)


class CountryTest(unittest.TestCase):
    def test_cups_and_spoons_are_those_of_the_kitchens_country(self):
        for country, cup, spoon, pint in (("us", 200, 8, 488), ("uk", 211, 8.1, 586),
                                          ("au", 211, 10.8, 586)):  # fmt: skip
            with self.subTest(country):
                weigh = [
                    understand(text, shipped(), US_LARGE, country)
                    for text in ("1 cup sugar", "1 tbsp corn starch", "1 pint whole milk")
                ]
                for line, grams in zip(weigh, (cup, spoon, pint), strict=True):
                    self.assertAlmostEqual(line.grams, grams, delta=0.005 * grams)
                self.assertEqual([line.us for line in weigh[:2]], ["1 cup", "1 tbsp"])

    def test_juice_and_zest_of_one_fruit_are_two_ingredients(self):
        for text in ("2 lemons, juice and zest", "zest and juice of 2 lemons",
                     "2 citrons, jus et zeste", "2 lemons (zest and juice)"):  # fmt: skip
            with self.subTest(text):
                line = read(text)
                both = (line, *line.also)
                keys = [(each.ingredient.key, round(each.grams)) for each in both]
                self.assertEqual(keys, [("lemon_juice", 96), ("citrus_zest", 10)])
                self.assertEqual(answer([line], US_LARGE, custard=False).mix.mass_g, 106)


class CorpusTest(unittest.TestCase):
    """Lines as cooks write them in four languages, with what they mean."""

    def rows(self, name="corpus.txt"):
        for row in (Path(__file__).parent / name).read_text("utf8").splitlines():
            if row and not row.startswith("#"):
                text, key, grams = (part.strip() for part in row.split("|"))
                yield text, key, float(grams)

    def test_ordinary_lines_of_five_languages_are_understood(self):
        grade = egg_grade("EU/UK M")
        rows = list(self.rows("corpus_five.txt"))
        self.assertGreater(len(rows), 140)
        for text, key, grams in rows:
            with self.subTest(text):
                line = understand(text, shipped(), grade)
                self.assertEqual(line.ingredient.key, key)
                self.assertAlmostEqual(line.grams, grams, delta=max(0.05 * grams, 0.02))

    def test_what_stands_in_brackets_was_weighed(self):
        for text, grams, sure_to in (
            ("2 tbsp butter (30 g)", 30, 0.01), ("2 sachets gelatine (14 g)", 14, 0.01),
            ("chocolate (7 oz / 210 g)", 210, None),
            ("1/2 cup (120 ml) honey", 170.4, 0.02), ("1 cup sugar, 150 g", 150, 0.01),
        ):  # fmt: skip
            line = understand(text, shipped(), US_LARGE)
            self.assertAlmostEqual(line.grams, grams, delta=0.1, msg=text)
            if sure_to is not None:
                self.assertAlmostEqual(line.spread_g / line.grams, sure_to, msg=text)

    def test_a_weight_behind_several_pieces_is_of_one_where_it_is_too_little_for_all(self):
        for text, grams in (
            ("6 eggs (60 g)", 360), ("4 eggs, 200 g", 200), ("4 yolks (80 g)", 80),
            ("1 egg (60 g)", 60),
        ):  # fmt: skip
            self.assertAlmostEqual(understand(text, shipped(), US_LARGE).grams, grams, msg=text)
        line = understand("6 eggs, 60 g", shipped(), US_LARGE)
        self.assertIn("in each", line.message)
        self.assertEqual(line.confidence, "doubtful")

    def test_a_size_behind_several_packs_says_whose_it_was_taken_for(self):
        line = understand("2 bags marshmallow (8 oz)", shipped(), US_LARGE)
        self.assertIn("226.796185", line.message)
        self.assertAlmostEqual(line.spread_g, 0.01 * line.grams)

    def test_a_size_behind_a_part_of_a_pack_is_that_of_the_part_unless_a_whole_one_holds_it(self):
        for text, grams in (
            ("1/2 pack butter (125 g)", 125), ("1/2 Pck. Butter, 125 g", 125),
            ("3/4 pack mascarpone (375 g)", 375), ("1/2 can condensed milk (200 g)", 200),
            ("1/2 pack cream cheese (8 oz)", 113.4), ("1/2 package (8 oz) cream cheese", 113.4),
            ("1/2 pack cream cheese (250 g each)", 125),
        ):  # fmt: skip
            line = understand(text, shipped(), US_LARGE)
            self.assertAlmostEqual(line.grams, grams, delta=0.1, msg=text)
            self.assertEqual(line.confidence, "sure", text)

    def test_of_a_choice_the_first_is_taken_and_said(self):
        for text, key, grams in (
            ("250 g butter or margarine", "butter_80", 250),
            ("500 g ricotta o mascarpone", "ricotta_whole", 500),
            ("zest of 1 orange or lemon", "orange_zest", 8),
            ("200 ml double or whipping cream", "cream_double", 198.7),
            ("1 tsp vanilla extract or vanilla bean paste", "vanilla_extract", 4.34),
            ("300 g cream or milk", "cream_35", 300),
        ):  # fmt: skip
            line = understand(text, shipped(), US_LARGE)
            self.assertEqual(line.ingredient.key, key, text)
            self.assertAlmostEqual(line.grams, grams, delta=0.1, msg=text)
            self.assertIn("taken as", line.message, text)

    def test_half_a_pod_in_any_language_is_half_of_one(self):
        for text in (
            "seeds of 1/2 vanilla pod", "les graines d'une demi-gousse de vanille",
            "i semi di mezza bacca di vaniglia", "Mark einer halben Vanilleschote",
        ):  # fmt: skip
            line = understand(text, shipped(), US_LARGE)
            self.assertEqual((line.ingredient.key, line.grams), ("vanilla_pod", 2.0), text)

    def test_a_weight_behind_a_pinch_is_how_much_is_meant(self):
        for text, grams in (
            ("1 pinch of salt, 1 g", 1), ("a pinch salt 0.5 g", 0.5), ("1 Prise Salz - 2 g", 2),
            ("knob of butter, 20 g", 20),
        ):  # fmt: skip
            line = understand(text, shipped(), US_LARGE)
            self.assertAlmostEqual(line.grams, grams, msg=text)
            self.assertLess(line.spread_g, 0.02 * grams, text)

    def test_every_name_of_the_table_is_found_again(self):
        text = files("bellcrumb.pantry").joinpath("data/names.csv").read_text("utf8")
        rows = [row for row in csv.DictReader(text.splitlines()) if row["language"]]
        self.assertGreater(len(rows), 3000)
        lost = [r["name"] for r in rows if shipped().find(r["name"]).ingredient.key != r["key"]]
        self.assertEqual(lost, [])

    def test_a_percentage_is_read_wherever_it_stands_and_the_nearest_is_said(self):
        for text in (
            "100 g dark chocolate 70%",
            "100 g 70 % dark chocolate",
            "100 g de chocolat noir à 70 %",
            "100 g cioccolato fondente al 70 %",
            "100 g dark chocolate (minimum 70% cocoa solids), broken up",
            "100 g dark chocolate, at least 70% cocoa",
            "100 g Zartbitterschokolade (mindestens 70 % Kakao)",
            "100 g chocolat noir à au moins 70 %",
        ):
            self.assertEqual(read(text).ingredient.key, "choc_dark_70", text)
        line = read("100 g dark chocolate 63%")
        self.assertEqual((line.ingredient.key, line.confidence), ("choc_dark_60", "likely"))
        self.assertIn("taken as", line.message)
        self.assertEqual(read("100 g cream 32%").ingredient.key, "cream_30")
        self.assertNotEqual(read("100 g cream 3%").confidence, "sure")

    def test_less_than_one_yolk_by_weight_is_asked_and_scant_cups_hold_less(self):
        self.assertIn("did you mean", read("12 g yolks").message)
        self.assertNotIn("did you mean", read("13 g yolks").message)
        self.assertAlmostEqual(read("1 scant cup sugar").grams, 186, delta=1)
        both = read("1 stick plus 2 tbsp butter").grams
        self.assertAlmostEqual(both, read("10 tbsp butter").grams)

    def test_what_comes_in_no_known_size_is_asked_and_eggs_in_brackets_are_counted_apart(self):
        for text in ("1 loaf challah", "1 quantity sweet pastry", "1 prebaked 10-inch tart shell"):
            self.assertIsNone(read(text).grams, text)
        eggs = read("6 œufs (4 entiers + 2 jaunes)")
        parts = [(x.ingredient.key, x.grams) for x in (eggs, *eggs.also)]
        self.assertEqual(parts, [("egg_whole", 200), ("egg_yolk", 34)])

    def test_sums_in_a_line_are_added(self):
        for text, grams in (
            ("1/4 cup plus 1 tablespoon sugar", 62.5),
            ("100 g + 20 g sugar", 120),
            ("1 cup and 2 tbsp sugar", 225),
        ):
            self.assertAlmostEqual(read(text).grams, grams, delta=0.01 * grams, msg=text)
        # Two things in a line are two things, as sure as each of them.
        both = read("2 eggs plus 1 cup sugar")
        self.assertEqual((both.ingredient.key, both.grams), ("egg_whole", 100))
        self.assertEqual([(x.ingredient.key, round(x.grams)) for x in both.also], [("sugar", 200)])
        self.assertEqual(read("200 g fog and 2 eggs").also, ())
        both = read("2 whole eggs + 1 yolk (about 120 g)")  # together
        self.assertEqual([both.grams, *(x.grams for x in both.also)], [100, 17])
        both = read("2 eggs plus 3 yolks (60 g)")  # of the yolks
        self.assertEqual([both.grams, *(x.grams for x in both.also)], [100, 60])

    def test_every_thing_of_a_line_of_several_is_counted_and_said(self):
        for text, things in (
            ("3 eggs plus 1 yolk plus 20 g sugar",
             [("egg_whole", 150), ("egg_yolk", 17), ("sugar", 20)]),
            ("250 g cream and 2 eggs and 3 yolks",
             [("cream_35", 250), ("egg_whole", 100), ("egg_yolk", 51)]),
            ("100 g each butter, sugar, and honey",
             [("butter_80", 100), ("sugar", 100), ("honey", 100)]),
            ("je 100 g Butter und Zucker", [("butter_80", 100), ("sugar", 100)]),
            ("100 g each butter and sugar", [("butter_80", 100), ("sugar", 100)]),
            ("2 lemons, juice and zest, plus 3 eggs",
             [("lemon_juice", 96), ("citrus_zest", 10), ("egg_whole", 150)]),
        ):  # fmt: skip
            line = read(text)
            all_of_it = (line, *line.also)
            self.assertEqual([(x.ingredient.key, x.grams) for x in all_of_it], things, text)
        line = read("3 eggs plus 1 yolk plus 20 g sugar")
        self.assertIn(" and 20 g granulated sugar", closed(line.message))

    def test_how_full_a_spoon_is_said_to_be_counts_and_is_said(self):
        level, rounded = read("1 tbsp flour"), read("1 rounded tbsp flour")
        self.assertAlmostEqual(rounded.grams, 1.25 * level.grams)
        self.assertIn("rounded: × 1.25", rounded.message)

    def test_eggs_have_the_size_their_words_and_letters_say(self):
        for text, grams in (
            ("4 huevos L", 240), ("3 Eier (Größe M)", 153), ("2 œufs calibre XL", 136),
            ("3 gros œufs", 150), ("2 medium eggs", 88),
        ):  # fmt: skip
            self.assertEqual(read(text).grams, grams, msg=text)

    def test_almost_all_are_right_and_none_is_silently_wrong(self):
        rows = list(self.rows())
        self.assertGreaterEqual(len(rows), 300)
        right, silent = 0, []
        for text, key, grams in rows:
            line = read(text)
            known = line.ingredient is not None and line.grams is not None
            if key == "-":
                good = not known
            else:
                good = known and line.ingredient.key == key
                good = good and abs(line.grams - grams) <= max(0.02 * grams, 0.06)
            right += good
            if not good and known and line.confidence in ("sure", "likely"):
                silent.append((text, line.ingredient.key, line.grams))
            if not known:
                self.assertTrue(line.message, text)
        self.assertEqual(silent, [])
        self.assertGreaterEqual(right / len(rows), 0.97)


class QuietErrorTest(unittest.TestCase):
    """Lines that were once understood wrongly and said nothing."""

    def test_brackets_that_name_something_else_are_told_and_a_gloss_is_read_whole(self):
        doubted = read("40 g farina (maicena)")
        self.assertEqual((doubted.ingredient.key, doubted.confidence), ("flour_plain", "doubtful"))
        self.assertIn("the brackets say corn starch", doubted.message)
        self.assertEqual(read("40 g harina de maíz (maicena)").ingredient.key, "corn_starch")
        same = read("200 g sugar (granulated sugar)")
        self.assertEqual((same.ingredient.key, same.confidence), ("sugar", "sure"))

    def test_what_is_told_is_right_and_what_is_not_known_is_asked(self):
        for text, key, grams in (
            ("a squeeze of lemon juice", "lemon_juice", 5.2),
            ("a splash of rum", "rum", 6.6),
            ("4 L eggs", "egg_whole", 200),
            ("half & half 1 cup", "half_and_half", 242),
            ("1 package cream cheese", "cream_cheese", 226.8),
            ("una bustina di vanillina", "vanilla_powder", 0.5),
            ("1 box vanilla wafers", "vanilla_wafer", None),
        ):
            with self.subTest(text):
                line = understand(text, shipped(), US_LARGE)
                self.assertEqual(line.ingredient.key, key)
                if grams is None:
                    self.assertIsNone(line.grams)
                    self.assertIn("How much is in the pack?", line.message)
                else:
                    self.assertAlmostEqual(line.grams, grams, delta=0.05 * grams)
        doubt = understand("8 g yolks", shipped(), US_LARGE)
        self.assertEqual(doubt.confidence, "doubtful")
        self.assertIn("did you mean 8 yolks?", doubt.message)

    def test_a_measure_nobody_knows_is_asked_for_and_never_counted_as_one_piece(self):
        for text, said in (
            ("1 punnet raspberries", "punnet"),
            ("1 barquette de framboises", "barquette"),
            ("1 Schale Himbeeren", "schale"),
            ("une poignée de noisettes", "poignée"),
            ("1 bunch of mint", "bunch"),
            ("1 bunch basil", "bunch"),
        ):
            with self.subTest(text):
                line = understand(text, shipped(), US_LARGE)
                self.assertIsNone(line.grams)
                self.assertIn(f"How much is a “{said}”?", line.message)
        # What is a piece is still counted, whatever it is called besides.
        for text, grams in (("1 Madagascar vanilla bean", 4), ("12 hazelnuts", 13.2)):
            self.assertAlmostEqual(understand(text, shipped(), US_LARGE).grams, grams, delta=0.1)

    def test_two_things_in_one_line_are_neither_when_it_is_not_sure(self):
        for text in ("100 g sugar and salt", "200 g milk and cream"):
            self.assertIsNone(understand(text, shipped(), US_LARGE).ingredient, text)
