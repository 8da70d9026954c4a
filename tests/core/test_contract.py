import json
import subprocess
import sys
import unittest
from pathlib import Path

from pydantic import ValidationError

from bellcrumb.contract import KINDS, compute
from bellcrumb.contract.words import sentence
from bellcrumb.errors import CraftError

CORE = Path(__file__).resolve().parents[2] / "core"
PASTRY = ["1 l whole milk", "9 yolks", "3/4 cup sugar", "85 g corn starch", "1 vanilla pod"]


def run(kind, data, *flags):
    done = subprocess.run(
        [sys.executable, "-m", "bellcrumb.contract", kind, *flags],
        cwd=CORE,
        input=json.dumps(data),
        capture_output=True,
        text=True,
        check=False,
    )
    return done.returncode, json.loads(done.stdout)


class ComputeTest(unittest.TestCase):
    def test_a_guide_conserves_what_goes_in_and_takes_its_time(self):
        for lines, more, guide in (
            (["1 l whole milk", "9 yolks", "200 g sugar", "80 g corn starch"], {}, "custard"),
            (["200 g sugar", "60 g water"], {"part_kind": "caramel"}, "caramel"),
            (["120 g egg white", "240 g sugar", "80 g water"], {"part_kind": "meringue"},
             "italian"),
        ):  # fmt: skip
            out = compute("plan", {"lines": lines, **more})
            self.assertEqual(out["guide"], guide)
            placed = sum(p["grams"] for k in ("pot", "bowl", "finish") for p in out[k])
            self.assertAlmostEqual(placed, compute("formula", {"lines": lines})["mass_g"])
            self.assertTrue(2 < sum(s["minutes"] for s in out["steps"]) < 90)

    def test_formula_answers_on_the_command_line(self):
        code, out = run("formula", {"lines": PASTRY, "vessel": "ramekin_150", "count": 8})
        self.assertEqual(code, 0)
        self.assertEqual((out["family"]["key"], out["set"]["class"]), ("pastry_cream", "slice"))
        self.assertEqual((out["set"]["beaten_class"], out["set"]["low_class"]), ("pipe", "pipe"))
        self.assertEqual(out["cook"]["mode"], "boil_hold")
        self.assertEqual(out["fit"]["fills"], 9)
        self.assertAlmostEqual(out["mass_g"], sum(line["grams"] for line in out["lines"]))
        self.assertAlmostEqual(sum(out["composition_pct"].values()), 100, delta=0.5)

    def test_a_formula_is_answered_without_the_libraries_of_the_solvers(self):
        code = (
            "import sys; from bellcrumb.contract import compute;"
            f"compute('formula', {{'lines': {PASTRY}}});"
            "print(*{m.split('.')[0] for m in sys.modules} & {'scipy', 'ortools'})"
        )
        done = subprocess.run(
            [sys.executable, "-c", code], cwd=CORE, capture_output=True, text=True, check=True
        )
        self.assertEqual(done.stdout.strip(), "")

    def test_senseless_input_exits_2_and_names_its_field(self):
        for data, field in (
            ({"lines": ["-2 yolks"]}, "lines[0]"),
            ({"lines": PASTRY, "colour": "red"}, "colour"),
            ({"lines": []}, "lines"),
            ({"lines": ["3 cups"]}, "lines"),
            ({}, "lines"),
            ({"lines": PASTRY, "family": "soup"}, "family"),
            ({"lines": PASTRY, "vessel": "bucket"}, "vessel"),
            ({"lines": [{"ingredient": "blorp", "grams": 4}]}, "lines[0].ingredient"),
            ({"lines": [{"ingredient": "sugar", "grams": -4}]}, "lines[0].grams"),
        ):
            with self.subTest(field), self.assertRaises(CraftError) as caught:
                compute("formula", data)
            self.assertEqual(caught.exception.field, field)
        self.assertEqual(run("formula", {"lines": ["-2 yolks"]})[0], 2)

    def test_whatever_is_put_into_a_field_is_answered_in_our_words(self):
        """Nothing that is odd ends in a failure, or in a sentence of the library's."""
        odd = (None, True, -1, 10**18, 1e308, "", "x" * 5000, [], {}, [[]], [7], [{}], "NaN",
               {"a": 1}, ["x"], [None], "2026-13-45", 3.5, float("nan"), "9" * 5000)  # fmt: skip
        refused = 0
        for kind, one in KINDS.items():
            for name, field in one.given.model_fields.items():
                for value in odd:
                    try:
                        one.given.model_validate({field.alias or name: value})
                    except ValidationError as error:
                        for wrong in error.errors(include_url=False):
                            refused += 1
                            self.assertNotIn(wrong["msg"], sentence(wrong), (kind, wrong["type"]))
        self.assertGreater(refused, 5000)

    def test_pot_and_temper_answer(self):
        pot = compute("pot", {"lines": PASTRY, "temp_c": 60, "ring": 400, "hold_s": 60})
        self.assertLess(pot["thickens_s"], pot["reaches_s"])
        self.assertAlmostEqual(pot["target_c"], 100.3, delta=0.2)
        nappe = compute(
            "pot",
            {"lines": ["1 l milk", "10 yolks", "180 g sugar"], "temp_c": 70, "target": "nappe"},
        )
        self.assertTrue(82 <= nappe["target_c"] <= 84)
        self.assertGreater(nappe["overshoot_k"], 0)
        with self.assertRaises(CraftError):
            compute("pot", {"lines": PASTRY, "target": 130})

    def test_every_kind_prints_its_schema(self):
        for kind in KINDS:
            code, out = run(kind, {}, "--schema")
            self.assertEqual((code, set(out)), (0, {"input", "output"}))
