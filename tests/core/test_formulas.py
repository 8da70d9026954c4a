import csv
import unittest
from pathlib import Path

from bellcrumb.contract import compute
from tests.core.kitchen import ask

CORPUS = Path(__file__).with_name("formulas.csv")
BEATEN = {"yes": True, "no": False, "": None}


class FormulaCorpusTest(unittest.TestCase):
    """Formulas as five languages write them, sound and spoiled, against what practice says."""

    @classmethod
    def setUpClass(cls):
        with CORPUS.open(newline="") as file:
            cls.rows = [
                (row, ask(*row["lines"].split(" / "), beaten=BEATEN[row["beaten"]]))
                for row in csv.DictReader(file, delimiter=";")
            ]

    def share(self, field, right):
        judged = [(row, a) for row, a in self.rows if row[field]]
        wrong = [row["name"] for row, a in judged if not right(row[field].split(","), a)]
        return 1 - len(wrong) / len(judged), wrong

    def test_egg_is_not_weighed_against_no_liquid_and_much_yolk_sets_in_syrup(self):
        self.assertEqual(ask("397 g condensed milk", "4 eggs").cautions, [])
        self.assertEqual(ask("12 egg yolks", "300 g sugar", "250 ml water").cautions, [])
        few = ask("1 l milk", "1 egg yolk", "100 g sugar").cautions
        self.assertEqual([c.code for c in ask("2 eggs", "500 ml water").cautions], ["no_salts"])
        self.assertIn("ten_times_less_egg", [c.code for c in few])

    def test_what_is_left_of_parted_eggs_is_weighed_by_the_grade(self):
        found = ask("9 egg yolks", "2 egg whites", "1 l milk")
        self.assertAlmostEqual(found.whites_left_g, 7 * 33, delta=0.1)
        self.assertEqual(found.yolks_left_g, 0)
        found = ask("1 egg yolk", "3 egg whites", "1 l milk")
        self.assertEqual(found.whites_left_g, 0)
        self.assertAlmostEqual(found.yolks_left_g, 2 * 17, delta=0.1)
        self.assertIn("9.0 yolks come from as many US large", ask(
            "9 egg yolks", "1 l milk", "80 g corn starch").reasons["whites"].says)  # fmt: skip

    def test_every_line_is_understood(self):
        unread = [line.text for _, a in self.rows for line in a.lines if line and not line.grams]
        self.assertEqual(unread, [])

    def test_the_set_is_the_one_practice_knows_or_the_neighbour_that_is_named(self):
        share, wrong = self.share(
            "class", lambda want, a: {a.set.klass, a.set.borderline} & {*want}
        )
        self.assertGreaterEqual(share, 0.95, wrong)

    def test_the_family_is_the_one_practice_would_name(self):
        share, wrong = self.share("family", lambda want, a: a.family.key in want)
        self.assertGreaterEqual(share, 0.9, wrong)

    def test_every_spoiled_formula_is_warned_of_and_a_sound_one_is_left_in_peace(self):
        missed = [
            row["name"]
            for row, a in self.rows
            if row["cautions"] and row["cautions"] not in {c.code for c in a.cautions}
        ]
        sound = [(row["name"], a) for row, a in self.rows if not row["cautions"]]
        alarmed = [name for name, a in sound if a.cautions]
        said_unsure = [name for name, a in sound if a.warnings]
        self.assertEqual(missed, [])
        self.assertLessEqual(len(alarmed), len(sound) / 40, alarmed)
        self.assertLessEqual(len(said_unsure), len(sound) / 15, said_unsure)

    def test_while_a_line_is_not_understood_what_it_contains_is_said_to_be_incomplete(self):
        lines = ["1 l milk", "4 eggs"]
        for more, complete in (("100 g sugar", True), ("100 g of frumps", False), ("sugar", False)):
            self.assertEqual(compute("formula", {"lines": [*lines, more]})["complete"], complete)
            parts = [{"name": "a", "lines": lines}, {"name": "b", "lines": ["200 g cream", more]}]
            self.assertEqual(compute("dessert", {"parts": parts})["complete"], complete)

    def test_a_caution_says_what_and_what_to_do(self):
        found = compute("formula", {"lines": ["500 g whole milk", "4 eggs", "200 g raw kiwi"]})
        caution = found["cautions"][0]
        self.assertEqual(caution["code"], "enzyme")
        self.assertIn("Boil the kiwi", caution["do"])
        self.assertIn(f"{caution['says']} {caution['do']}", found["warnings"])

    def test_a_puree_of_pineapple_is_raw_until_the_line_says_otherwise(self):
        for line, warned in (
            ("300 g pineapple purée", True),
            ("300 g pasteurised pineapple purée", False),
            ("300 g boiled pineapple purée", False),
        ):
            lines = [line, "8 g gelatine", "400 g cream 35 %", "80 g sugar"]
            codes = [c["code"] for c in compute("formula", {"lines": lines})["cautions"]]
            self.assertEqual("enzyme" in codes, warned, line)
