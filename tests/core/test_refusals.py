"""What no kitchen means is refused: a sentence at its field, whatever is computed."""

import unittest
from typing import Any

from bellcrumb.contract import compute
from bellcrumb.errors import CraftError

MILK = ["1 l whole milk", "150 g sugar"]
CREAM = [*MILK, "9 yolks", "85 g corn starch"]
BRULEE = {"lines": ["1 l cream 35%", "10 yolks", "200 g sugar"]}
OVEN = {"kind": "static", "set_c": 150}
CUP = {"shape": "round", "depth_mm": 45, "top_diameter_mm": 90, "bottom_diameter_mm": 80}


def bake(**more: Any) -> dict[str, Any]:
    return {"mix": BRULEE, "vessel": "ramekin_90", "oven": OVEN, **more}


def meringue(**more: Any) -> dict[str, Any]:
    return {"kind": "italian", "whites_g": 100, "sugar_g": 200, **more}


def temper(hot: dict[str, Any] | None = None, **more: Any) -> dict[str, Any]:
    return {"hot": {"lines": MILK, **(hot or {})}, "eggs": {"lines": ["9 yolks"]}, **more}


REFUSED: tuple[tuple[str, dict[str, Any], str, str], ...] = (
    # nothing to work on
    ("solve", {"lines": ["3 frumps"], "wishes": {}}, "lines", "nothing to bend"),
    ("plan", {"lines": ["200 g whites"]}, "lines", "Nothing here that is cooked"),
    ("pasteurise", {"readings": []}, "readings", "no reading"),
    ("ledger", {"desserts": []}, "desserts", ""),
    # beyond what the food can do
    ("bake", bake(mix={**BRULEE, "temp_c": 85}), "mix.temp_c", "At 85 °C it has set before"),
    ("bake", bake(oven={"kind": "static", "set_c": 70}), "oven.set_c", "sets at"),
    ("temper", temper({"temp_c": 120}), "hot.temp_c", "hotter than their boil"),
    ("temper", temper({"temp_c": 4}), "hot.temp_c", "not hotter than the eggs"),
    ("meringue", meringue(syrup_c=140), "syrup_c", "between 101 and 130 °C"),
    ("meringue", meringue(kind="swiss", swiss_c=95), "swiss_c", "between 40 and 85 °C"),
    ("syrup", {"sugar_g": 200, "water_g": 50, "target_c": 260}, "target_c", "At most 250 °C"),
    ("whip", {"cream_g": 500, "fat_pct": 80}, "fat_pct", "At most 60"),
    # what is not there
    ("whip", {"cream_g": 500, "cream": "moonbeams"}, "cream", "“moonbeams” is not in the pantry"),
    ("solve", {"lines": CREAM, "wishes": {"swaps": [{"old": "unobtainium", "new": "milk"}]}},
     "wishes", "“unobtainium” is not in the pantry"),
    ("bake", bake(vessel="thimble"), "vessel", "thimble"),
    ("formula", {"lines": CREAM, "egg_grade": "ostrich"}, "egg_grade", "Use one of"),
    # one of two, and in its order
    ("bake", bake(oven={**OVEN, "stages": [{"set_c": 150, "minutes": 9}]}), "oven.stages", "one"),
    ("pasteurise", {"readings": [{"t_s": 9, "temp_c": 60}, {"t_s": 5, "temp_c": 70}]},
     "readings[1].t_s", "in the order of their time"),
    # vessels nobody makes, and more than goes in
    ("bake", bake(vessel={**CUP, "depth_mm": 900}), "vessel.depth_mm", "between 1 and 400 mm deep"),
    ("bake", bake(vessel={**CUP, "fill_ml": 5000}), "vessel.fill_ml", "It runs over"),
    ("cool", {"mix": {"lines": CREAM}, "vessel": "ramekin_90", "fill": 3, "method": "fridge"},
     "fill", "At most 1"),
    ("bake", bake(count=0), "count", "At least 1"),
    ("choose", {**bake(), "within_min": 5}, "within_min", "Nothing tried"),
)  # fmt: skip


class RefusalTest(unittest.TestCase):
    def test_each_is_a_sentence_at_its_field(self):
        for kind, given, field, words in REFUSED:
            with self.subTest(kind, field=field, words=words):
                with self.assertRaises(CraftError) as caught:
                    compute(kind, given)
                self.assertEqual(caught.exception.field, field)
                self.assertIn(words, caught.exception.message)
                self.assertRegex(caught.exception.message, r"[.?]$")
