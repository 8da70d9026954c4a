"""The catalogue of what is said: nothing missing in it, nothing left over, no law that reads it."""

import ast
import csv
import json
import os
import subprocess
import sys
import unittest
from pathlib import Path

from bellcrumb.words import catalogue, closed, say
from bellcrumb.words.measures import TAGS, US
from bellcrumb.words.pseudo import PSEUDO, pseudo

ROOT = Path(__file__).parents[2]
_TOOK = ("solve_ms",)
# Amounts, minutes and degrees are the same in any language.
PASTRY = ["1 l whole milk", "9 yolks", "150 g sugar", "85 g corn starch", "45 g butter", "3 frumps"]
CUPS = ["6 cups milk", "1 1/2 cups sugar", "6 yolks", "1 juiced lemon", "300 ml cream, whipped"]
RAMEKIN = {"shape": "round", "top_diameter_mm": 90, "bottom_diameter_mm": 80, "depth_mm": 45,
    "fill_mm": 35}  # fmt: skip
BAKE = {
    "mix": {"lines": ["1 l cream 35%", "10 yolks", "200 g sugar"]}, "vessel": RAMEKIN, "count": 6,
    "oven": {"kind": "static", "set_c": 150}, "bath": {"level": "half", "water_c": 80},
}  # fmt: skip
ASKED = [
    ("formula", {"lines": PASTRY}),
    ("formula", {"lines": CUPS}),
    ("plan", {"lines": PASTRY}),
    ("plan", {"lines": ["200 g sugar", "60 g water", "200 g cream"]}),
    ("syrup", {"sugar_g": 400, "water_g": 100, "stage": "amber"}),
    ("bake", BAKE),
]
NAMES = """
import json
from bellcrumb.pantry.eggs import egg_grade
from bellcrumb.pantry.ingredients import table
from bellcrumb.pantry.pantry import shipped
from bellcrumb.vessels.geometry import library
from bellcrumb.words import catalogue
english, found = catalogue("en"), shipped()
things = [*(("ingredient", i) for i in table()), *(("vessel", v) for v in library().values())]
print(json.dumps({
    "english": [t.key for what, t in things if t.name == english[f"{what}.{t.key}"]],
    "lost": [i.key for i in table() for name in (i.name, english[f"ingredient.{i.key}"])
             if (match := found.find(name)) is None or match.ingredient.key != i.key],
    "grade": [egg_grade("eu m").label, egg_grade("eu m").name],
}))
"""
ANSWER = """
import json, sys
from bellcrumb.contract import compute
print(json.dumps([compute(kind, given) for kind, given in json.load(sys.stdin)]))
"""

LEFT = """
import json, re
from tests.core.golden import TABLES, text_of
told = {text_of(row[c]) for t in ("guides", "moments", "finishes") for row in TABLES[t]()
        for c in ("title", "sign", "avoid", "headline", "next", "name", "advice")
        if isinstance(row.get(c), str)}
print(json.dumps([t for t in told if re.search(r"(?<![^\\W\\d_])[A-Za-z]{3,}(?![^\\W\\d_])", t)]))
"""


def strings_in(*rooms: str) -> tuple[set[str], set[str]]:
    """Every string of the program and every cell of its tables, and of them those that are said."""
    every, said = set(), set()
    for table in (ROOT / "core" / "bellcrumb").rglob("data/*.csv"):
        every |= {cell for row in csv.reader(table.read_text("utf-8").splitlines()) for cell in row}
    for path in (p for room in rooms for p in (ROOT / room).rglob("*.py")):
        for node in ast.walk(ast.parse(path.read_text("utf-8"))):
            if isinstance(node, ast.Constant) and isinstance(node.value, str):
                every.add(node.value)
            if isinstance(node, ast.Call) and getattr(node.func, "id", "") == "say":
                said |= {a.value for a in node.args if isinstance(a, ast.Constant)}
    return every, said


def numbers(value: object) -> list[float]:
    """Every number in an answer, in its order."""
    if isinstance(value, dict):
        return [n for k, v in value.items() if k not in _TOOK for n in numbers(v)]
    if isinstance(value, list):
        return [n for v in value for n in numbers(v)]
    return [float(value)] if isinstance(value, int | float) else []


class CatalogueTest(unittest.TestCase):
    def test_a_comma_in_a_table_cuts_no_row_short(self):
        for table in (ROOT / "core" / "bellcrumb").rglob("data/*.csv"):
            head, *rows = csv.reader(table.read_text("utf-8").splitlines())
            self.assertEqual({len(row) for row in rows}, {len(head)}, table.name)

    def test_things_have_names_in_any_language_and_are_found_by_them_and_by_the_english_one(self):
        answers = json.loads(
            subprocess.run(
                [sys.executable, "-c", NAMES], cwd=ROOT / "core", capture_output=True, check=True,
                text=True, env=os.environ | {"CRUMB_LANGUAGE": PSEUDO},
            ).stdout
        )  # fmt: skip
        self.assertEqual(answers["lost"], [])
        self.assertEqual(answers["english"], [])
        self.assertEqual(answers["grade"], ["EU/UK M", pseudo("EU/UK M")])

    def test_what_a_cook_is_told_has_no_word_that_is_in_no_catalogue(self):
        """A word written into the program, or a code shown as one, would stay English."""
        left = subprocess.run(
            [sys.executable, "-c", LEFT], cwd=ROOT, capture_output=True, check=True, text=True,
            env=os.environ | {"CRUMB_LANGUAGE": PSEUDO, "PYTHONPATH": str(ROOT / "core")},
        )  # fmt: skip
        self.assertEqual(json.loads(left.stdout), [])

    def test_every_code_that_is_said_has_words_and_every_word_is_said(self):
        every, said = strings_in("core/bellcrumb", "server")
        self.assertEqual(said - set(catalogue()), set())
        units = {f"unit.{unit}" for unit in (*TAGS, *US)}
        self.assertEqual(set(catalogue()) - every, units)

    def test_a_quantity_has_the_digits_the_catalogue_gives_it(self):
        hot = say("book.c_while_tempering_egg_scrambles_from", top=71.26, never_c=74.6)
        self.assertEqual(closed(hot), "71.3 °C while tempering: egg scrambles from 75 °C")
        with self.assertRaises(KeyError):
            say("book.nobody_wrote_this")

    def test_the_numbers_are_the_same_in_a_language_nobody_speaks(self):
        answers = [
            json.loads(
                subprocess.run(
                    [sys.executable, "-c", ANSWER], cwd=ROOT / "core",
                    input=json.dumps(ASKED), capture_output=True,
                    check=True, text=True, env=os.environ | {"CRUMB_LANGUAGE": language},
                ).stdout
            )
            for language in ("en", PSEUDO)
        ]  # fmt: skip
        here, there = answers
        self.assertNotEqual(here, there)
        self.assertEqual(numbers(here), numbers(there))
