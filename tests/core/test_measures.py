"""What is said in the units of whoever reads it: what is absolute, what is a difference, and that
nothing is left open."""

import re
import unittest

from hypothesis import given
from hypothesis import strategies as st

from bellcrumb.words import OPEN, catalogue, closed, say, written
from bellcrumb.words.measures import inch, opened
from bellcrumb.words.pseudo import pseudo

US = {
    # an absolute temperature, both ends of a range, and one that a word parts
    "stove.cream_at_2_to_6_c": "Cream at 36 to 43 °F",
    "stove.whites_and_sugar_are_warmed_to":
        "Whites and sugar are warmed to between 104 and 185 °F.",
    # a difference has no 32 in it; a tenth stays a tenth
    "cause.pull_at_wobble_allow_2_to": "pull at wobble; allow 4 to 11 °F carry-over",
    "contract.1_5_k_for_a_formula": "±2.7 °F for a formula of a known family",
    # food law: 71.1, 60.0, 57, 21 and 5 degC are 160, 140, 135, 70 and 41 degF in the US Food Code
    "safety.egg_mix_71_1_c_reached": "egg mix: 160 °F reached, or 7 logs by the integral",
    "contract.57_to_21_c_in_2": "135 to 70 °F in 2 h and on to 41 °F in 4 h more",
    # lengths as a rule has them; a range too fine for it is said once
    "step.roll_to_3_mm_and_line": "roll to 1/8 in and line",
    "sign.2_5_to_3_mm_pricked": "1/8 in, pricked all over.",
    "dessert.buns_of_4_cm": "buns of 1 1/2 in",
    "sign.7_to_9_g_on_100": "0.25 to 0.32 oz on 16 sq in, even to the rim.",
}  # fmt: skip


class MeasuresTest(unittest.TestCase):
    def test_a_us_cook_reads_every_quantity_in_their_own(self):
        for code, words in US.items():
            self.assertEqual(closed(say(code), "us"), words)

    def test_a_quantity_keeps_its_digits_in_metric(self):
        said = say("book.peaked_at_c_past_curdling_at", peak=88.26, never_c=86)
        self.assertEqual(closed(said), "Peaked at 88.3 °C, past curdling at 86.0 °C.")
        self.assertEqual(closed(said, "us"), "Peaked at 191 °F, past curdling at 187 °F.")

    def test_weights_and_volumes_take_the_measure_of_their_size(self):
        for code, name, amount, us in (
            ("dessert.g_to_go", "left", 300, "10.6 oz to go"),
            ("dessert.g_to_go", "left", 9, "0.32 oz to go"),
            ("dessert.g_to_go", "left", 1000, "2.2 lb to go"),
            ("asked.it_runs_over_the_vessel_holds", "brim_ml", 150,
             "It runs over: the vessel holds 5.1 fl oz."),
            ("asked.it_runs_over_the_vessel_holds", "brim_ml", 710,
             "It runs over: the vessel holds 3.0 cups."),
        ):  # fmt: skip
            self.assertEqual(closed(say(code, **{name: amount}), "us"), us)

    def test_no_message_leaves_anything_open_and_none_says_a_unit_beside_its_tag(self):
        for language in (str, pseudo):
            for code, message in catalogue("en").items():
                names = re.findall(r"\{(?:bare_)?(\w+)\}", opened(language(message)))
                with self.subTest(code):
                    text = re.sub(r"\{bare_\w+\}", "62.5", opened(language(message)))
                    for units in ("metric", "us"):
                        done = closed(text, units)
                        self.assertNotRegex(done, "[\ue0c0-\ue0c5]")
                    if not code.startswith(("unit.", "formula.77_3")):
                        self.assertNotIn("°", message, names)

    def test_what_a_person_wrote_is_nobody_elses_to_convert(self):
        for text in ("82 °C, 3 mm", f"{OPEN}", f"{OPEN}c\ue0c1nothing", f"{OPEN}zz\ue0c15\ue0c2"):
            self.assertEqual(closed(text, "us"), text)

    def test_plain_data_is_closed_all_through(self):
        said = say("dessert.buns_of_6_cm")
        self.assertEqual(
            written({"a": [said, 3, None], "b": {"c": said}}),
            {"a": ["buns of 6 cm", 3, None], "b": {"c": "buns of 6 cm"}},
        )

    @given(st.floats(-40, 400), st.floats(-40, 400))
    def test_a_difference_is_the_difference_of_two_temperatures(self, a_c, b_c):
        def shown(code, **values):
            return float(re.findall(r"-?\d+", closed(say(code, **values), "us"))[0])

        apart = shown("contract.this_heat_does_not_bring_it", target=a_c)
        apart -= shown("contract.this_heat_does_not_bring_it", target=b_c)
        said = shown("rehearse.past_c_it_ran_on_after", never_c=a_c)
        self.assertEqual(said, shown("contract.this_heat_does_not_bring_it", target=a_c))
        k = shown("stove.off_now_it_runs_on_by", run_on_k=abs(a_c - b_c))
        self.assertAlmostEqual(abs(apart), k, delta=2)  # three roundings

    @given(st.floats(0.9, 400))
    def test_an_inch_is_within_half_a_mark_of_its_rule(self, mm):
        whole = inch(mm)
        parts = [p.split("/") for p in whole.split()]
        inches = sum(float(p[0]) / float(p[1]) if len(p) == 2 else float(p[0]) for p in parts)
        self.assertLessEqual(abs(inches * 25.4 - mm), 25.4 / 16 / 2 if mm < 50 else 25.4 / 20 + 0.1)
