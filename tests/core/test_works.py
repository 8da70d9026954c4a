import unittest
from typing import ClassVar

from bellcrumb.book.curve_file import read_curve
from bellcrumb.contract import compute
from bellcrumb.dessert.bench import NAMES, _said_of
from bellcrumb.dessert.tables import rows
from bellcrumb.errors import CraftError
from bellcrumb.heat.pot import MEDIUM_GAS
from bellcrumb.stove.guide import follow, missed
from bellcrumb.stove.plan import plan
from bellcrumb.stove.works import work, work_kind
from bellcrumb.texture.families import family
from bellcrumb.texture.no_custard import other_than_custard
from tests.core.kitchen import ask, mix

CURD = dict(lemon_juice=300, egg_whole=290, sugar=340, butter_82=240)


def guide(kind, **grams):
    fam = family("lemon_curd") if kind == "curd" else family("sugar_cream")
    return work(kind, mix(**grams), MEDIUM_GAS, 0.45, family=fam)


class WorkTest(unittest.TestCase):
    ALL: ClassVar = {
        "caramel": dict(sugar=300, water=90),
        "italian": dict(egg_white=200, sugar=400, water=120),
        "swiss": dict(egg_white=200, sugar=360),
        "french": dict(egg_white=200, sugar=300),
        "whipped": dict(cream_35=500, sugar_icing=40),
        "ganache": dict(cream_35=300, choc_dark_65=300),
        "mirror": dict(water=150, sugar=300, glucose_syrup=300, choc_white=300, gelatine=20),
        "choux": dict(milk_whole=250, butter_82=110, flour_plain=150, egg_whole=230),
        "citrus_mix": dict(condensed_milk=400, lime_juice=110, egg_yolk=50),
        "curd": CURD,
        "roux": dict(flour_plain=45, butter_80=100, milk_whole=500, cream_heavy=500, sugar=350),
    }

    def test_each_part_of_the_craft_has_its_own_guide(self):
        kinds = {
            "caramel": "caramel", "italian": "meringue", "swiss": "meringue", "whipped": "cream",
            "ganache": "glaze", "mirror": "glaze", "choux": "crust", "citrus_mix": "filling",
        }  # fmt: skip
        for kind, part in kinds.items():
            self.assertEqual(work_kind(part, mix(**self.ALL[kind])), kind)
        self.assertEqual(work_kind("meringue", mix(**self.ALL["swiss"]), "french"), "french")
        self.assertEqual(work_kind("cream", mix(**CURD), "", family("lemon_curd")), "curd")
        pastry = ask("1 l milk", "10 yolks", "200 g sugar", "80 g corn starch")
        self.assertIsNone(work_kind("cream", pastry.mix, "", pastry.family))

    def test_every_guide_says_what_to_see_and_what_to_avoid(self):
        for kind, grams in self.ALL.items():
            with self.subTest(kind):
                made = guide(kind, **grams)
                self.assertEqual(made.steps[0].kind, "ready")
                keys = [s.key for s in made.steps]
                self.assertEqual(len(keys), len(set(keys)))
                self.assertTrue(all(s.title and s.sign and s.avoid for s in made.steps))
                placed = made.pot.mass_g + made.bowl.mass_g + made.finish.mass_g
                self.assertAlmostEqual(placed, sum(grams.values()))
                if made.curve:
                    self.assertIsNotNone(made.reaches_s)

    def test_every_step_on_the_bench_says_what_to_see_and_what_to_avoid(self):
        silent = [
            f"{row.work}/{row.code}"
            for kind, table in rows().items()
            if kind in NAMES or kind == "choux"
            for row in table
            if not all(_said_of(f"{row.work}/{row.code}", row.code))
        ]
        # The panade is cooked by its own guide on the stove.
        self.assertEqual(silent, ["choux/boil_liquid_fat", "choux/cool_paste_beat"])

    def test_a_caramel_with_cream_is_let_down_and_lines_no_mould(self):
        sauce = guide("caramel", sugar=200, cream_35=200, butter_82=60, salt_flaky=3)
        keys = [s.key for s in sauce.steps]
        self.assertEqual(keys[1:], ["cook", "let_down", "melt", "butter", "cool", "clean"])
        self.assertEqual({p.ingredient.key for p in sauce.finish.portions},
                         {"cream_35", "butter_82"})  # fmt: skip
        self.assertNotIn("cold water", " ".join([*sauce.checks, *sauce.warnings]))
        plain = guide("caramel", sugar=200, water=60)
        self.assertIn("pour", [s.key for s in plain.steps])

    def test_what_is_no_custard_is_read_as_what_it_is(self):
        for kind, name, lines in (
            ("crust", "almond", ("125 g butter", "125 g sugar", "2 eggs", "125 g ground almonds")),
            ("crust", "sponge", ("4 eggs", "120 g sugar", "120 g flour", "40 g butter")),
            ("garnish", "fruit", ("4 pears", "500 g water", "200 g sugar")),
        ):
            with self.subTest(name):
                found = other_than_custard(ask(*lines).mix)
                self.assertEqual(found.kind, kind)
                self.assertIn(name, found.name)
        for lines in (
            ("500 g cherries", "4 eggs", "100 g sugar", "80 g flour", "300 ml milk"),
            ("300 g raspberries", "5 g gelatine", "60 g sugar"),
            ("200 ml lemon juice", "4 eggs", "220 g sugar", "150 g butter"),
        ):
            self.assertIsNone(other_than_custard(ask(*lines).mix), lines)

    def test_what_is_missing_is_said(self):
        for kind, grams in (
            ("caramel", dict(water=100)),
            ("italian", dict(sugar=100, water=30)),
            ("swiss", dict(egg_white=100)),
            ("ganache", dict(choc_dark_65=100)),
            ("mirror", dict(choc_white=100, gelatine=3)),
        ):
            with self.subTest(kind), self.assertRaises(CraftError):
                guide(kind, **grams)

    def test_the_caramel_is_pulled_before_its_colour_and_told_on_the_way(self):
        step = next(s for s in guide("caramel", **self.ALL["caramel"]).steps if s.key == "cook")

        def said(temp):
            rising = [(float(n), temp - 10 + n * 0.5) for n in range(21)]
            return follow(step, rising, 0.0, 20.0)

        self.assertEqual(said(106).headline, "the slow stretch")
        self.assertEqual(said(152).headline, "colour comes")
        self.assertLess(step.low_c, 172)
        self.assertIn("runs on", said(step.low_c + 1).next_move)
        self.assertEqual((said(189).headline, said(189).urgency), ("bitter", "wrong"))

    def test_the_whites_start_in_time_for_the_syrup(self):
        step = next(s for s in guide("italian", **self.ALL["italian"]).steps if s.key == "cook")
        cue = next(c for c in step.cues if c.headline == "start the whites")
        self.assertTrue(106 < cue.from_c < 118)
        curve = [(float(n), cue.from_c - 5 + n * 0.25) for n in range(22)]
        self.assertEqual(follow(step, curve, 0.0, 21.0).urgency, "now")

    def test_a_timed_step_counts_down_and_calls(self):
        step = next(s for s in guide("swiss", **self.ALL["swiss"]).steps if s.key == "whip")
        running = follow(step, [], 100.0, 130.0)
        self.assertEqual((running.figure, running.done), (450, False))
        over = follow(step, [], 100.0, 600.0)
        self.assertEqual((over.headline, over.urgency), ("time is up", "now"))

    def test_a_hold_left_out_is_caught_in_a_later_step(self):
        a = ask("1 l milk", "10 yolks", "200 g sugar", "80 g corn starch", "50 g butter")
        made = plan(a.mix, a.family, MEDIUM_GAS)
        cook = next(s for s in made.steps if s.key == "cook")
        entered = [("ready", 0.0, 1.0), ("heat", 1.0, 50.0), ("cook", 50.0, 300.0),
                   ("finish", 300.0, 330.0)]  # fmt: skip
        tepid = [(float(t), 70 + 0.08 * (t - 50)) for t in range(50, 300, 2)]
        self.assertEqual(missed(made.steps, entered, tepid)[:2], ("cook", "never boiled"))
        short = [(float(t), min(100.0, 80 + 0.1 * (t - 50))) for t in range(50, 242, 2)]
        self.assertEqual(missed(made.steps, entered, short)[1], "held too short")
        full = [(float(t), min(100.5, 60 + 0.4 * (t - 50))) for t in range(50, 300, 2)]
        self.assertGreater(cook.hold_s, 30)
        self.assertIsNone(missed(made.steps, entered, full))
        self.assertIsNone(missed(made.steps, entered, []), "without a curve nothing is claimed")

    def test_what_is_folded_in_waits_until_it_is_cool_enough(self):
        a = ask("1 l milk", "10 yolks", "200 g sugar", "80 g corn starch", "8 g gelatine",
                "600 g cream 35%", family="diplomat")  # fmt: skip
        made = plan(a.mix, a.family, MEDIUM_GAS)
        fold = next(s for s in made.steps if s.kind == "cool" and "cream" in s.title.lower())
        self.assertEqual((fold.low_c, fold.high_c), (16, 25))
        self.assertEqual(made.split.finish.grams_of("cream"), 600)

    def test_whipped_whites_are_never_cooked_and_never_sieved(self):
        base = ["500 ml milk", "6 yolks", "120 g sugar", "10 g gelatine"]
        for kin, more in (("bavarian_cream", ["400 g cream 35%, whipped"]), ("anglaise", []),
                          ("chiboust", ["40 g corn starch"])):  # fmt: skip
            with self.subTest(kin):
                made = compute("plan", {"lines": [*base, *more, "4 egg whites, whipped"],
                                        "family": kin})  # fmt: skip
                self.assertNotIn("egg_white", [p["ingredient"] for p in made["bowl"]])
                titles = [s["title"].lower() for s in made["steps"]]
                fold = next(n for n, t in enumerate(titles) if "whites in" in t)
                self.assertTrue(any("sieve" in t for t in titles[:fold]))
                self.assertFalse(any("sieve" in t for t in titles[fold:]), titles)

    def test_a_chiboust_whose_whites_are_a_part_of_their_own_asks_for_them_while_it_is_warm(self):
        made = compute("plan", {"lines": ["1 l milk", "13 yolks", "100 g sugar", "80 g corn starch",
                                          "16 g gelatine"], "family": "chiboust"})  # fmt: skip
        codes = [s["code"] for s in made["steps"]]
        self.assertEqual(codes[-3:], ["sieve", "meringue", "chill"])
        self.assertEqual([made["steps"][-2][k] for k in ("low_c", "high_c")], [45, 70])

    def test_only_what_burns_is_kept_from_the_flame(self):
        said = {}
        for late in ("20 g rum", "50 g butter"):
            a = ask("1 l milk", "9 yolks", "150 g sugar", "85 g corn starch", late,
                    family="pastry_cream")  # fmt: skip
            steps = plan(a.mix, a.family, MEDIUM_GAS).steps
            said[late] = [s for s in steps if "flammable" in s.caution]
        self.assertEqual(([s.key for s in said["20 g rum"]], said["50 g butter"]), (["finish"], []))


class CurveFileTest(unittest.TestCase):
    def test_columns_and_units_are_found_in_files_of_many_loggers(self):
        want = [(0.0, 20.0), (60.0, 50.0), (120.0, 80.0)]
        for text in (
            "t_s,temp_c\n0,20\n60,50\n120,80\n",
            "Time (min);Temperature °C\n0;20,0\n1;50,0\n2;80,0\n",
            "Logger 7\nserial;9\n\nElapsed;Core °F;Air °F\n"
            "0:00;68;300\n1:00;122;300\n2:00;176;300\n",
            "2026-11-01T10:00:00+00:00\t20 C\n2026-11-01T10:01:00+00:00\t50 C\n"
            "2026-11-01T10:02:00+00:00\t80 C\n",
            "time,temp\n00:00:00,68\n00:01:00,122\n00:02:00,176\n",
        ):
            with self.subTest(text[:24]):
                found = read_curve(text)
                for (t, c), (wt, wc) in zip(found.points, want, strict=True):
                    self.assertAlmostEqual(t, wt)
                    self.assertAlmostEqual(c, wc, places=6)

    def test_what_cannot_be_a_reading_is_left_out_and_said(self):
        found = read_curve("s,temp_c\n0,20\n10,oops\n20,9999\n40,22\n30,21\n")
        self.assertEqual(found.points, [(0, 20), (30, 21), (40, 22)])
        self.assertEqual(len(found.said), 2)
        for text in ("", "a,b\nx,y\n", "temp\n20\n"):
            with self.assertRaises(CraftError):
                read_curve(text)
