import json
import math
import re
import unittest
from datetime import datetime, timedelta

from bellcrumb.contract import compute
from bellcrumb.errors import CraftError
from tests.core.test_dessert import CREAM, DOUGH, TOPPING, part, round_tin

NOW = datetime(2026, 11, 28, 6, 0)
TART = {
    "stand": {"vessel": round_tin(230, 40), "count": 1, "portions_each": 8, "cut": "wedges"},
    "parts": [
        part("Shell", "crust", *DOUGH),
        part("Cream", "cream", *CREAM, beaten=False),
        part("Topping", "cream", *TOPPING),
    ],
    "layers": [{"part": "Shell"}, {"part": "Cream"},
               {"part": "Topping", "lies": "mm", "value": 15}],
}  # fmt: skip


def ask(*at, people=2, hours=(0, 14), **more):
    cooks = people if isinstance(people, list) else [
        {"name": f"cook {n}", "from": (NOW + timedelta(hours=hours[0])).isoformat(),
         "to": (NOW + timedelta(hours=hours[1])).isoformat()} for n in range(people)
    ]  # fmt: skip
    return compute("day", {
        "now": NOW.isoformat(), "people": cooks, "rings": ["a", "b"],
        "ovens": [{"name": "deck"}], "cold": [{"name": "reach-in", "trays": 10}],
        "services": [
            {"at": (NOW + timedelta(hours=h)).isoformat(),
             "items": [{"build": TART, "portions": n, "name": "Tart"}]} for h, n in at
        ], **more,
    })  # fmt: skip


def long(step):
    return (
        datetime.fromisoformat(step["end"]) - datetime.fromisoformat(step["start"])
    ).total_seconds() / 60


def hands(out):
    return sum(long({"start": s["start"], "end": s["hands_end"]}) for s in out["steps"])


class DayTest(unittest.TestCase):
    def test_a_day_is_planned_back_from_its_services(self):
        out = ask((12, 16), (14, 8))
        self.assertTrue(out["feasible"])
        plates = [s for s in out["steps"] if s["key"].endswith("plate")]
        self.assertEqual(len(plates), 2)
        for plate, hours in zip(plates, (12, 14), strict=True):
            self.assertLessEqual(plate["end"], (NOW + timedelta(hours=hours)).isoformat())
        self.assertTrue(all(s["who"] for s in out["steps"]))
        self.assertEqual({p["set_c"] for p in out["oven_lines"][0]["points"]}, {195.0})
        self.assertGreater(out["eggs"], 20)

    def test_a_step_says_until_when_its_ring_is_held(self):
        for step in ask((12, 16))["steps"]:
            waits = step["oven_c"] is None and "cold" not in step["where"]
            self.assertEqual(step["held_until"], step["end" if waits else "hands_end"], step["key"])

    def test_stock_is_taken_off_first(self):
        out = ask((12, 16), stock=[{"name": "Tart", "portions": 16}])
        self.assertEqual((out["feasible"], out["steps"]), (True, []))
        self.assertIn("16 of 16 are there already", out["warnings"][0])

    def test_a_part_that_two_desserts_share_is_made_once_for_both(self):
        each, both = (ask((12, 16), (13, 16), join=join) for join in (False, True))
        self.assertEqual(each["joined"], [])
        parts = {j["part"]: j for j in both["joined"]}
        self.assertIn("Cream", parts)
        self.assertEqual(parts["Cream"]["desserts"], ["Tart", "Tart · 2"])
        keys = {s["key"]: s for s in both["steps"]}
        cream = [k for k in keys if k.endswith("/Cream/chill")]
        self.assertEqual(cream, ["Cream for 2/Cream/chill"])
        boil = next(s for s in both["steps"] if s["key"].startswith("Cream for 2/"))
        self.assertEqual((boil["desserts"], boil["part"]), (["Tart"], "Cream"))
        pours = [s for k, s in keys.items() if k.endswith("Cream/lay_on")]
        self.assertEqual(len(pours), 2)
        self.assertTrue(all(s["start"] >= boil["end"] for s in pours))
        # It is as much to buy, and fewer minutes of hands.
        self.assertEqual([b["need_g"] for b in each["buy"]], [b["need_g"] for b in both["buy"]])
        self.assertLess(hands(both), hands(each))

    def test_one_cream_by_two_names_and_at_two_sizes_is_still_one(self):
        def other(name, *lines):
            build = json.loads(json.dumps(TART))
            cream = next(p for p in build["parts"] if p["name"] == "Cream")
            cream.update(name=name, lines=list(lines))
            for layer in build["layers"]:
                if layer["part"] == "Cream":
                    layer["part"] = name
            at = (NOW + timedelta(hours=12)).isoformat()
            items = [{"build": b, "portions": 16, "name": n}
                     for b, n in ((TART, "Tart"), (build, "Other"))]  # fmt: skip
            return ask(services=[{"at": at, "items": items}], pot_g=20_000)

        twice = [re.sub(r"^[0-9]+", lambda m: str(2 * int(m[0])), line) for line in CREAM]
        out = other("Filling", *twice)
        self.assertEqual([j["desserts"] for j in out["joined"] if j["part"] == "Cream"],
                         [["Tart", "Other"]])  # fmt: skip
        weighed = [m for m in out["mise"] if m["part"] in ("Cream", "Filling")]
        self.assertEqual(len(weighed), 1, "it is weighed once")
        thicker = other("Filling", *CREAM, "60 g corn starch")
        self.assertNotIn("Cream", [j["part"] for j in thicker["joined"]])

    def test_who_may_not_stand_at_the_stove_is_not_put_there_and_it_is_said(self):
        end = (NOW + timedelta(hours=14)).isoformat()
        new = {"name": "New", "from": NOW.isoformat(), "to": end, "may": ["bench", "plate"]}
        out = ask((12, 16), people=[new])
        self.assertFalse(out["feasible"])
        self.assertIn("who may do what", {c["words"] for c in out["clash"]})
        freed = {r["code"]: r["feasible"] for r in out["remedies"]}
        self.assertTrue(freed["all_may"])
        both = ask((12, 16), people=[new, {**new, "name": "Chef", "may": ["stove", "oven"]}])
        self.assertTrue(both["feasible"])
        boils = [s["who"] for s in both["steps"] if s["key"].endswith("/Cream/chill")]
        self.assertEqual(set(boils), {"Chef"})
        self.assertEqual({s["who"] for s in both["steps"] if s["key"].endswith("plate")}, {"New"})

    def test_what_is_too_much_for_tins_oven_or_pot_is_made_in_batches(self):
        for more, word in (
            ({"moulds": [{"vessel": "own vessel", "count": 2}]}, "there are 2"),
            ({"ovens": [{"name": "deck", "shelves": 1, "shelf_length_mm": 500,
                         "shelf_width_mm": 300}]}, "the oven takes no more"),
            ({"pot_g": 2500}, "Cream is more than one pot"),
        ):  # fmt: skip
            with self.subTest(word):
                out = ask((13, 32), **more)
                self.assertIn(word, " ".join(out["warnings"]))
                plates = [s for s in out["steps"] if s["key"].endswith("plate")]
                self.assertGreaterEqual(len(plates), 2)
        moulds = ask((13, 32), moulds=[{"vessel": "own vessel", "count": 2}])["moulds"]
        self.assertEqual((moulds[0]["used"], moulds[0]["have"]), (2, 2))

    def test_what_is_bought_and_weighed_comes_in_packs_and_in_the_order_of_need(self):
        out = ask((12, 16), packs={"whole milk": 1030}, house=["200 g butter", "12 eggs"])
        buy = {b["ingredient"]: b for b in out["buy"]}
        milk = buy["milk_whole"]
        self.assertEqual(milk["packs"], math.ceil(milk["need_g"] / 1030))
        butter = next(b for k, b in buy.items() if k.startswith("butter"))
        self.assertAlmostEqual(butter["need_g"] - butter["buy_g"], 200)
        self.assertEqual(buy["egg_whole"]["pieces"], math.ceil(out["eggs"]) - 12)
        times = [m["at"] for m in out["mise"]]
        self.assertEqual(times, sorted(times))
        first = {m["part"]: m["at"] for m in out["mise"]}
        starts = [s["start"] for s in out["steps"] if "/Shell/" in s["key"]]
        self.assertEqual(first["Shell"], min(starts))
        self.assertIn("flour", " ".join(line for m in out["mise"] for line in m["lines"]))

    def test_a_break_is_kept_for_whoever_has_one(self):
        cooks = [{"name": "Early", "from": NOW.isoformat(), "break_min": 30,
                  "to": (NOW + timedelta(hours=10)).isoformat()}]  # fmt: skip
        out = ask((10, 16), people=cooks)
        rest = next(s for s in out["steps"] if s["key"].startswith("break/"))
        self.assertEqual(rest["who"], "Early")
        for step in out["steps"]:
            apart = step["hands_end"] <= rest["start"] or step["start"] >= rest["hands_end"]
            self.assertTrue(step is rest or apart, step["key"])

    def test_a_bake_that_is_over_keeps_its_oven_and_its_dial_in_the_plan_made_again(self):
        first = ask((12, 16))
        bake = next(s for s in first["steps"] if s["oven_c"])
        before = [s for s in first["steps"] if s["start"] < bake["start"]]
        ticks = [{"key": s["key"], "began": s["start"], "ended": s["end"], "who": s["who"],
                  **({"oven": "deck"} if s is bake else {})} for s in [*before, bake]]  # fmt: skip
        again = ask((12, 16), ticks=ticks, at=bake["end"])
        step = next(s for s in again["steps"] if s["key"] == bake["key"])
        self.assertEqual((step["state"], step["oven_c"]), ("done", bake["oven_c"]))
        self.assertIn("deck", step["where"])
        line = next(x for x in again["oven_lines"] if x["oven"] == "deck")
        self.assertEqual(line["points"][0], {"at": bake["start"], "set_c": bake["oven_c"]})

    def test_minutes_seen_here_go_before_the_tables_and_say_how_often(self):
        plain = ask((12, 8))
        key = next(s["key"] for s in plain["steps"] if s["key"].endswith("/Cream/chill"))
        own = ask((12, 8), own_minutes=[{"key": key, "factor": 0.7, "seen": 4}])
        was, now = (next(s for s in out["steps"] if s["key"] == key) for out in (plain, own))
        self.assertEqual((was["own_seen"], now["own_seen"]), (0, 4))
        self.assertAlmostEqual(long(now) / long(was), 0.7, delta=0.02)

    def test_what_is_done_long_before_it_keeps_is_planned_on_and_said(self):
        # Infused at the very beginning, and nobody is there for five hours.
        first = ask((14, 8), hours=(5, 14))
        infused = next(s for s in first["steps"] if s["key"].endswith("/Cream/heat_dairy_infuse"))
        tick = {"key": infused["key"], "began": NOW.isoformat(), "ended": NOW.isoformat()}
        again = ask((14, 8), hours=(5, 14), ticks=[tick], at=NOW.isoformat())
        self.assertEqual((again["feasible"], again["late_min"]), (True, 0))
        (said,) = [w for w in again["warnings"] if "earlier than it keeps" in w]
        self.assertIn("heat the dairy and infuse", said)

    def test_what_is_hot_is_in_the_chiller_first(self):
        cold = [{"name": "walk-in", "trays": 12}, {"name": "blast", "trays": 4, "blast": True}]
        for given, chilled in ((cold, True), (cold[:1], False)):
            chill = next(s for s in ask((12, 8), cold=given)["steps"]
                         if s["key"].endswith("/Cream/chill"))  # fmt: skip
            self.assertEqual("blast chiller" in chill["where"], chilled)
            if chilled:
                until, free = (datetime.fromisoformat(chill[k])
                               for k in ("chilled_until", "hands_end"))  # fmt: skip
                self.assertEqual(until - free, timedelta(minutes=90))

    def test_a_day_that_is_too_short_says_why_and_what_frees_it(self):
        out = ask((3, 8))
        self.assertFalse(out["feasible"])
        self.assertEqual([c["name"] for c in out["clash"] if c["kind"] == "dessert"], ["Tart"])
        self.assertIn("Tart", out["clash"][0]["words"])
        works = {r["code"]: r["feasible"] for r in out["remedies"]}
        self.assertTrue(works["day_before"])
        self.assertFalse(works["second_oven"])

    def test_bad_input_gets_a_sentence_at_its_field(self):
        for change, field in (
            ({"now": (NOW + timedelta(days=2)).isoformat()}, "services[0].at"),
            ({"ovens": []}, "ovens"),
            ({"now": NOW.isoformat() + "+00:00"}, "services[0].at"),
        ):
            with self.subTest(field), self.assertRaises(CraftError) as caught:
                ask((12, 8), **change)
            self.assertEqual(caught.exception.field, field)
