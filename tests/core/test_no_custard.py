"""What is pasted as a filling and is none is said to be what it is; a custard never is."""

import csv
import re
import unittest
from pathlib import Path

from bellcrumb.contract.formulas import formula
from bellcrumb.contract.ovens import baked
from bellcrumb.contract.plans import planned
from bellcrumb.errors import CraftError
from bellcrumb.formula.starters import starters
from bellcrumb.shapes import FormulaIn
from bellcrumb.shapes.guide import GuideIn
from bellcrumb.shapes.oven import BakeIn
from bellcrumb.words import closed

OTHERS = {
    "choux": ("crust", "250 g water/100 g butter/150 g plain flour/5 eggs/3 g salt"),
    "flaky": ("crust", "250 g flour/170 g cold butter/60 g ice water/4 g salt"),
    "sweet": ("crust", "250 g plain flour/125 g butter/90 g icing sugar/1 egg"),
    "puff": ("crust", "500 g puff pastry"),
    "crumb": ("crust", "200 g digestive biscuits/100 g melted butter"),
    "caramel": ("caramel", "200 g sugar/60 g water"),
    "swiss": ("meringue", "4 egg whites/220 g sugar"),
    "jam": ("glaze", "200 g apricot jam/30 g water"),
    "ganache": ("glaze", "150 g cream 35%/180 g dark chocolate 60%/20 g butter"),
    "mirror": (
        "glaze",
        "150 g water/300 g glucose syrup/300 g sugar/200 g condensed milk/20 g gelatine"
        "/300 g white chocolate",
    ),
}


class NoCustardTest(unittest.TestCase):
    def test_lines_of_no_custard_say_what_they_read_as_and_get_its_guide(self):
        for guide, (kind, text) in OTHERS.items():
            lines = text.split("/")
            for told in (None, "filling"):
                with self.subTest(guide, told=told):
                    found = formula(FormulaIn(lines=lines, part_kind=told))
                    self.assertEqual(found.reads_as.kind, kind)
                    self.assertIsNone(found.family)
                    self.assertEqual(planned(GuideIn(lines=lines, part_kind=told)).guide, guide)

    def test_no_dough_is_told_the_minutes_of_a_custard(self):
        asked = {"vessel": "tart_ring_22", "oven": {"set_c": 160}}
        mix = {"lines": OTHERS["choux"][1].split("/"), "temp_c": 22}
        with self.assertRaisesRegex(CraftError, "Reads as a choux dough"):
            baked(BakeIn.model_validate({"mix": mix, **asked}))

    def test_a_mirror_of_cocoa_is_boiled_whole_and_gets_its_gelatine_when_it_no_longer_boils(self):
        lines = "180 g water/220 g sugar/70 g cocoa powder/150 g cream 35%/10 g gelatine".split("/")
        plan = planned(GuideIn(lines=lines, part_kind="glaze"))
        self.assertEqual(plan.guide, "mirror")
        steps = {s.code: s for s in plan.steps}
        self.assertGreater(steps["cook"].low_c, 97)
        self.assertEqual(steps["gelatine"].high_c, 80)
        self.assertLess(steps["cool"].high_c, 40)
        # 620 g of about 1.2 g/ml, half of it on the piece: some 2600 cm2 at a millimetre.
        covers = [float(g) for g in re.findall(r"([0-9]+) cm²", closed(steps["pour"].sign))]
        self.assertAlmostEqual(covers[0] / covers[1], 2, delta=0.1)
        self.assertTrue(2200 < covers[0] < 2900, covers)

    def test_a_cheesecake_of_gelatine_is_made_on_the_bench_and_never_baked(self):
        lines = ["500 g cream cheese", "100 g sugar", "300 g whipped cream 35%", "8 g gelatine"]
        codes = [s.code for s in planned(GuideIn(lines=lines)).steps]
        self.assertLess(codes.index("melt_into_cheese"), codes.index("fold"))
        plain = [s.code for s in planned(GuideIn(lines=lines[:2] + lines[3:])).steps]
        self.assertNotIn("fold", plain)
        self.assertEqual(formula(FormulaIn(lines=lines)).cook.mode, "none")

    def test_a_stiff_choux_is_choux_in_every_guide(self):
        lines = ["250 g water", "100 g butter", "150 g plain flour", "135 g whole egg"]
        self.assertEqual(planned(GuideIn(lines=lines, part_kind="crust")).guide, "choux")

    def test_told_as_what_it_is_nothing_is_said(self):
        for kind, text in OTHERS.values():
            found = formula(FormulaIn(lines=text.split("/"), part_kind=kind))
            self.assertIsNone(found.reads_as)

    def test_no_custard_of_ours_reads_as_something_else(self):
        corpus = Path(__file__).with_name("formulas.csv").read_text("utf8")
        rows = csv.DictReader(corpus.splitlines(), delimiter=";")
        texts = [r["lines"].split(" / ") for r in rows if r["family"]]
        texts += [list(s.lines) for s in starters().values() if s.kind in ("filling", "cream")]
        self.assertGreater(len(texts), 90)
        for lines in texts:
            with self.subTest(lines[0]):
                self.assertIsNone(formula(FormulaIn(lines=lines)).reads_as)

    def test_a_sabayon_is_whisked_over_the_bath_and_its_cream_waits_for_the_cold(self):
        lines = ["6 yolks", "120 g sugar", "120 ml Marsala", "200 g whipped cream"]
        made = planned(GuideIn(lines=lines))
        self.assertEqual(made.guide, "sabayon")
        cook = next(s for s in made.steps if s.code == "cook")
        self.assertTrue(68 < cook.low_c < cook.high_c < cook.never_c < 84)
        self.assertLess(next(s for s in made.steps if s.code == "fold").high_c, 25)

    def test_a_dough_that_is_bought_is_not_made_again(self):
        bought = planned(GuideIn(lines=["500 g puff pastry"], part_kind="crust"))
        self.assertNotIn("detrempe_rest", [s.code for s in bought.steps])
        self.assertIn("roll_out_dock", [s.code for s in bought.steps])
