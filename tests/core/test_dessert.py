import unittest

from hypothesis import given
from hypothesis import strategies as st

from bellcrumb.contract import compute
from bellcrumb.dessert.layers import Layer, Made, stack
from bellcrumb.dessert.stand import Room
from bellcrumb.dessert.steps import BuildStep, Gap
from bellcrumb.dessert.tables import Schools, meeting
from bellcrumb.dessert.thread import thread
from bellcrumb.errors import CraftError
from bellcrumb.vessels.geometry import library, vessel_from_measures

TIN = {"shape": "round", "top_diameter_mm": 240, "bottom_diameter_mm": 230, "depth_mm": 40}
DOUGH = ["500 g flour", "300 g butter", "1 egg", "60 g water"]
CREAM = ["1 l whole milk", "9 yolks", "200 g sugar", "80 g corn starch"]
TOPPING = ["600 g cream 35%", "50 g icing sugar"]


def round_tin(mm, depth):
    return {"shape": "round", "top_diameter_mm": mm, "bottom_diameter_mm": mm, "depth_mm": depth}


def part(name, kind, *lines, **more):
    return {"name": name, "kind": kind, "lines": list(lines), **more}


def build(vessel, parts, layers=(), **more):
    count = more.pop("count", 1)
    stand = {"vessel": vessel, "count": count, "portions_each": more.pop("portions_each", 1)}
    return compute("build", {"stand": stand, "parts": parts, "layers": list(layers), **more})


def tart(**more):
    parts = [
        part("Shell", "crust", *DOUGH),
        part("Cream", "cream", *CREAM, beaten=False),
        part("Topping", "cream", *TOPPING),
    ]
    layers = [{"part": "Shell"}, {"part": "Cream"},
              {"part": "Topping", "lies": "mm", "value": more.pop("topping_mm", 10)}]  # fmt: skip
    return build(TIN, parts, layers, count=2, portions_each=8, **more)


DESSERTS = {
    "tart": tart,
    "flan": lambda: build(round_tin(75, 65), [
        part("Caramel", "caramel", "200 g sugar", "60 g water"),
        part("Flan", "filling", "1 l whole milk", "8 eggs", "200 g sugar")], count=10),
    "pie": lambda: build(TIN, [part("Shell", "crust", *DOUGH), part(
        "Squash", "filling", "425 g pumpkin puree", "3 eggs", "340 g evaporated milk",
        "150 g brown sugar")]),
    "cheesecake": lambda: build(round_tin(200, 70), [
        part("Base", "crust", "150 g digestive biscuits", "70 g butter"),
        part("Cheese", "filling", "450 g cream cheese", "120 g sugar", "2 eggs"),
        part("Glaze", "glaze", "100 g dark chocolate 60%", "100 g cream 35%")]),
    "choux": lambda: build(round_tin(80, 60), [
        part("Ring", "crust", "250 g water", "110 g butter", "140 g flour", "5 eggs"),
        part("Nut cream", "cream", *CREAM, "200 g praline paste", "150 g butter", beaten=True)],
        [{"part": "Ring", "lies": "grams", "value": 35},
         {"part": "Nut cream", "lies": "grams", "value": 60}], count=12),
    "puff": lambda: build({"shape": "rect", "length_mm": 380, "width_mm": 280, "depth_mm": 80}, [
        part("Puff", "crust", "500 g flour", "400 g butter", "250 g water"),
        part("Cream", "cream", *CREAM, beaten=True)],
        [{"part": "Puff"}, {"part": "Cream", "lies": "share", "value": 0.5}, {"part": "Puff"},
         {"part": "Cream", "lies": "share", "value": 0.5}, {"part": "Puff"}], portions_each=20),
    "glass": lambda: build(round_tin(75, 90), [
        part("Pudding", "filling", "1 l whole milk", "6 yolks", "150 g sugar", "45 g corn starch"),
        part("Meringue", "meringue", "120 g egg white", "240 g sugar", "80 g water")],
        [{"item": "160 g ladyfingers", "lies": "grams", "value": 20}, {"part": "Pudding"},
         {"part": "Meringue", "lies": "dome", "value": 25}],
        count=8, schools={"filling": "hot", "meringue": "hot"}),
    "pots": lambda: build(round_tin(110, 30), [
        part("Custard", "filling", "600 g cream 35%", "200 g whole milk", "8 yolks", "110 g sugar"),
        part("Sugar", "garnish", "80 g sugar")], count=8),
    "jar": lambda: build("jar_250", [
        part("Cream", "filling", "600 g cream 35%", "80 g sugar", "6 g gelatine"),
        part("Coulis", "glaze", "300 g raspberry puree", "60 g sugar")],
        [{"part": "Cream", "lies": "share", "value": 0.5}, {"part": "Coulis", "lies": "mm",
                                                            "value": 8}], count=6),
}  # fmt: skip
KINDS = {
    "tart": ["flaky", "stirred", "whipped"], "flan": ["caramel", "bath"], "pie": ["flaky", "pie"],
    "cheesecake": ["crumb", "cheesecake", "ganache"], "choux": ["choux", "stirred"],
    "puff": ["puff", "stirred", "puff", "stirred", "puff"],
    "glass": ["biscuit", "stirred", "italian"], "pots": ["bath", "torched"],
    "jar": ["gelatine", "coulis"],
}  # fmt: skip


class PouredTest(unittest.TestCase):
    def test_a_share_nobody_named_is_half(self):
        cup = vessel_from_measures("round", 100, top_mm=90)
        parts = {"Cream": Made("Cream", "stirred", 1500, density=1.1, lost=0.05)}
        said, told = (stack(cup, 4, parts, [Layer("Cream", "share", v)]) for v in (None, 0.5))
        self.assertEqual(said.layers, told.layers)

    @given(bottom=st.floats(40, 90), mm=st.floats(3, 20), swirls=st.floats(10, 30))
    def test_what_is_poured_is_all_that_its_other_layers_leave_in_any_shape(
        self, bottom, mm, swirls
    ):
        cup = vessel_from_measures("round", 200, top_mm=90, bottom_mm=bottom)
        parts = {"Cream": Made("Cream", "stirred", 1500, density=1.1, lost=0.05)}
        layers = [Layer("Cream", "mm", mm), Layer("Cream"), Layer("Cream", "swirls", swirls)]
        found = stack(cup, 4, parts, layers)
        lain_g = 4 * sum(layer.g_each for layer in found.layers)
        self.assertAlmostEqual(lain_g, parts["Cream"].gives_g, delta=0.5)


class HandsTest(unittest.TestCase):
    def test_a_small_piece_takes_less_of_a_hand_than_a_large_one_and_a_mould_is_a_mould(self):
        def hands(mm, count):
            made = build(round_tin(mm, 40), [part("Shell", "crust", *DOUGH),
                         part("Cream", "cream", *CREAM, beaten=False)], count=count)  # fmt: skip
            return {s["key"]: s["hands_min"] for s in made["steps"]}

        large, small = hands(230, 1), hands(80, 1)
        for key, each in (("Shell/roll_line", 5), ("Shell/crimp_trim_rim", 3), ("plate", 2)):
            saved = large[key] - small[key]
            self.assertAlmostEqual(saved, each * (1 - 80 / 230), delta=0.02 * each, msg=key)
        self.assertEqual(large["Cream/lay_on"], small["Cream/lay_on"])
        # 24 tartlets are lined in under an hour, not in two.
        self.assertLess(hands(80, 24)["Shell/roll_line"], 60)


class RoomTest(unittest.TestCase):
    @given(key=st.sampled_from(sorted(library())), share=st.floats(0.02, 1))
    def test_what_lies_below_a_height_is_what_the_vessel_holds_to_it(self, key, share):
        vessel = library()[key]
        ml = Room(vessel).volume_ml(0, share * vessel.depth_mm)
        self.assertAlmostEqual(ml / vessel.holds_ml(share), 1, places=6)
        self.assertAlmostEqual(Room(vessel).reaches_mm(0, ml), share * vessel.depth_mm, places=3)

    def test_a_shell_takes_the_room_of_its_walls(self):
        vessel = vessel_from_measures("round", 38, top_mm=230, bottom_mm=200)
        inside = Room(vessel).lined(4.5, walls=True)
        share = inside.volume_ml(4.5, 38) / vessel.brim_ml
        # A flaky shell in a 23 cm pie tin leaves 0.78 of the brim (trade).
        self.assertAlmostEqual(share, 0.80, delta=0.03)

    def test_no_layer_ends_below_where_it_begins(self):
        """Dusted over a dome that stands above the rim: it lies on it, and does not run over."""
        cap = part("Cap", "meringue", "120 g egg white", "240 g sugar")
        top = {"Sugar": ("20 g icing sugar", "dusted", 0.8), "Nuts": ("40 g almonds", "grams", 20)}
        for name, (item, lies, value) in top.items():
            made = build(round_tin(160, 60), [part("Cream", "filling", *CREAM), cap], [
                {"part": "Cream", "lies": "below_rim", "value": 15},
                {"part": "Cap", "lies": "dome", "value": 40},
                {"item": item, "lies": lies, "value": value}])  # fmt: skip
            last = made["layers"][-1]
            self.assertGreaterEqual(last["from_mm"], 85, name)
            self.assertGreaterEqual(last["mm"], 0, name)
        self.assertFalse(any("icing sugar" in w.lower() for w in made["warnings"]))


class StackTest(unittest.TestCase):
    def test_every_kind_of_dessert_is_known_by_its_parts(self):
        for name, make in DESSERTS.items():
            with self.subTest(name):
                found = make()
                self.assertEqual([x["kind"] for x in found["layers"]], KINDS[name])
                self.assertEqual(found["critical"][-1], "plate")

    def test_a_batter_stands_in_no_bath_and_a_sauce_lines_no_mould(self):
        def codes(vessel, **parts):
            found = compute("build", {
                "stand": {"vessel": vessel},
                "parts": [{"name": n, "kind": k, "lines": x} for n, (k, x) in parts.items()],
            })  # fmt: skip
            return [step["code"] for step in found["steps"]]

        cherry = ["500 g cherries", "4 eggs", "100 g sugar", "80 g flour", "300 ml milk"]
        bread = ["330 g brioche", "700 g milk", "300 g cream", "5 eggs", "140 g sugar"]
        for batter in (cherry, bread):
            steps = codes("springform_23_70", pudding=("filling", batter))
            self.assertIn("bake_dry", steps)
            self.assertNotIn("set_pan_fill", steps)
        sauce = ["200 g sugar", "200 g cream 35%", "60 g butter"]
        panna = ["600 g cream 35%", "400 g milk", "110 g sugar", "8 g gelatine"]
        steps = codes("springform_23_70", panna=("filling", panna), over=("caramel", sauce))
        self.assertIn("let_down_sauce", steps)
        self.assertNotIn("have_moulds_ice", steps)
        self.assertLess(steps.index("portion"), steps.index("pour_sauce"))

    def test_the_thread_says_what_this_formula_needs_and_nothing_else(self):
        def words(family, *lines):
            found = compute("build", {
                "stand": {"vessel": "springform_23_70"},
                "parts": [{"name": "p", "lines": list(lines), "family": family}],
            })  # fmt: skip
            return {step["code"]: step["words"] for step in found["steps"]}

        rice = words(None, "1 l milk", "120 g pudding rice", "90 g sugar")
        self.assertFalse({"temper", "mix_eggs_sugar"} & set(rice))
        self.assertIn("simmer", rice["cook_boil_hold"])
        self.assertNotIn("strain", rice["strain_film_spread"])
        bavarian = words("bavarian_cream", "500 g milk", "6 yolks", "110 g sugar", "9 g gelatine",
                         "400 g whipped cream 35%")  # fmt: skip
        self.assertIn("coats the spoon", bavarian["cook_boil_hold"])
        self.assertIn("melt_stir_gelatine", bavarian)
        cold = words("cheesecake_cold", "600 g cream cheese", "120 g sugar",
                     "360 g whipped cream 35%")  # fmt: skip
        self.assertFalse({"bloom_gelatine", "melt_into_cheese"} & set(cold))
        flan = words("flan_tart", "700 g milk", "300 g cream 35%", "7 yolks", "200 g sugar",
                     "92 g corn starch")  # fmt: skip
        self.assertTrue({"cook_boil_hold", "sieve_into_shell", "bake_brown"} <= set(flan))

    def test_layers_lie_on_each_other_and_add_up_to_the_batch(self):
        for name, make in DESSERTS.items():
            found = make()
            with self.subTest(name):
                for below, above in zip(found["layers"], found["layers"][1:], strict=False):
                    self.assertAlmostEqual(below["to_mm"], above["from_mm"])
                for p in found["parts"]:
                    each = sum(x["g_each"] for x in found["layers"] if x["name"] == p["name"])
                    need = found["stand"]["count"] * each / (1 - p["lost_pct"] / 100)
                    self.assertAlmostEqual(p["need_g"], need, places=6)
                    self.assertAlmostEqual(p["need_g"] + p["left_g"], p["written_g"], places=6)
                g = sum(x["g"] for x in found["portion"]["layers"])
                self.assertAlmostEqual(g, found["portion"]["g"])

    def test_a_coat_follows_the_dome_under_it_and_swirls_take_less_than_a_flat_layer(self):
        parts = [part("Meringue", "meringue", "300 g egg white", "600 g sugar", "180 g water"),
                 part("Glaze", "glaze", "300 g dark chocolate 60%", "300 g cream 35%"),
                 part("Cream", "cream", "1 l cream 35%", "80 g icing sugar")]  # fmt: skip

        def grams(under, over):
            lies = {"flat": {"lies": "mm", "value": 40}, "dome": {"lies": "dome", "value": 40}}
            found = build(round_tin(160, 60), parts, [{"part": "Meringue", **lies[under]}, over])
            top = found["layers"][1]
            return top["g_each"], top["over_mm"]

        glaze = {"part": "Glaze", "lies": "mm", "value": 2}
        (flat, none), (domed, over) = grams("flat", glaze), grams("dome", glaze)
        # A cap of a sphere: pi (r2 + h2) for pi r2.
        self.assertAlmostEqual(domed / flat, (80**2 + 40**2) / 80**2, places=3)
        self.assertEqual((none, over), (0, 40))
        piped, _ = grams("flat", {"part": "Cream", "lies": "swirls", "value": 30})
        spread, _ = grams("flat", {"part": "Cream", "lies": "mm", "value": 30})
        self.assertTrue(0.3 * spread < piped < 0.5 * spread)

    def test_all_of_it_lies_as_deep_as_the_batch_reaches(self):
        cake = DESSERTS["cheesecake"]()
        cheese = cake["layers"][1]
        # 690 g of cheese mix in a 20 cm tin: nobody's 63 mm.
        self.assertAlmostEqual(cheese["mm"], 0.97 * 690 / 1.04 / 31.416, delta=1)
        self.assertEqual(cake["parts"][1]["times"], 1)

    @given(mm=st.floats(3, 40), more=st.floats(1, 30))
    def test_a_deeper_layer_never_needs_less(self, mm, more):
        vessel = vessel_from_measures("round", 90, top_mm=240, bottom_mm=200)
        cream = {"Cream": Made("Cream", "stirred", 3000, density=1.1, lost=0.05)}
        low, high = (
            stack(vessel, 2, cream, [Layer("Cream", "mm", d)]).needs[0].need_g
            for d in (mm, mm + more)
        )
        self.assertGreater(high, low)

    def test_too_much_is_said_and_not_poured(self):
        found = build(round_tin(75, 40), [part("Flan", "filling", "1 l whole milk", "8 eggs")])
        self.assertEqual(found["layers"][0]["to_mm"], 40)
        self.assertIn("runs over", found["warnings"][0])
        short = tart(topping_mm=40)
        self.assertIn("Topping as written gives 650 g", " ".join(short["warnings"]))

    def test_scaling_keeps_whole_eggs(self):
        half = build(round_tin(75, 40), [part("Flan", "filling", "1 l whole milk", "8 eggs")],
                     [{"part": "Flan", "lies": "mm", "value": 35}], count=4)  # fmt: skip
        half = half["parts"][0]
        eggs = half["scaled_times"] * 8
        self.assertAlmostEqual(eggs, round(eggs))
        self.assertGreaterEqual(half["scaled_times"], half["times"] - 0.01)
        self.assertIn(f"{eggs:.0f} eggs", " ".join(half["scaled_lines"]))

    def test_bad_input_gets_a_sentence_at_its_field(self):
        flan = [part("Flan", "filling", "1 l whole milk", "8 eggs")]
        for layers, field in (
            ([{"part": "Cream"}], "layers[0].part"),
            ([{"part": "Flan", "item": "200 g plums"}], "layers[0]"),
            ([{"item": "plums"}], "layers[0].item"),
            ([{"part": "Flan", "lies": "grams", "value": 0}], "layers[0].value"),
            ([{"part": "Flan", "lies": "lining", "value": 60}], "layers[0].value"),
            ([{"part": "Flan", "lies": "mm", "value": 20},
              {"part": "Flan", "lies": "below_rim", "value": 30}], "layers[1].value"),
        ):  # fmt: skip
            with self.subTest(field), self.assertRaises(CraftError) as caught:
                build(round_tin(75, 40), flan, layers)
            self.assertEqual(caught.exception.field, field)
        with self.assertRaises(CraftError) as caught:
            build(round_tin(75, 40), [part("Flan", "filling", "1 l of", "x")])
        self.assertEqual(caught.exception.field, "parts[0].lines")


def step(key, minutes, *after):
    return BuildStep(
        key,
        "P",
        key,
        words=key,
        hands_min=minutes,
        wait_min=0,
        wait_low_min=0,
        wait_high_min=0,
        uses=(),
        attention=False,
        oven_c=None,
        source="",
        after=tuple(after),
    )


class ThreadTest(unittest.TestCase):
    def test_the_longest_chain_decides_and_the_rest_has_time(self):
        steps = [step("a", 60), step("b", 20), step("c", 10, Gap("a", 5, 600), Gap("b", 0, 30))]
        found = thread(steps)
        when = {w.key: w for w in found.whens}
        self.assertEqual(found.shortest_min, 75)
        self.assertEqual(found.critical, ["a", "c"])
        self.assertEqual(when["b"].latest_min, 30)  # 20 of its own and 10 of c
        self.assertEqual(when["b"].earliest_min, 60)  # and 30 that it may wait
        self.assertEqual(when["a"].earliest_min, 670)

    def test_a_circle_and_a_gap_that_cannot_be_are_named(self):
        with self.assertRaises(CraftError):
            thread([step("a", 1, Gap("b")), step("b", 1, Gap("a"))])
        found = thread([step("a", 1), step("b", 1, Gap("a", 60, 30))])
        self.assertIn("must wait 60 min and may wait 30", found.clashes[0])

    def test_no_dessert_of_ours_clashes_and_none_begins_too_late(self):
        for name, make in DESSERTS.items():
            found = make()
            with self.subTest(name):
                self.assertEqual([w for w in found["warnings"] if "may wait" in w], [])
                for s in found["steps"]:
                    self.assertGreaterEqual(s["earliest_min"], s["latest_min"] - 1e-6)
                    self.assertTrue(s["source"])

    def test_hot_school_is_shorter_and_a_kitchens_minutes_count(self):
        cold, hot = tart(), tart(schools={"filling": "hot"})
        self.assertNotIn("Cream/chill", [s["key"] for s in hot["steps"]])
        self.assertIn("Cream/chill", cold["critical"])
        own = tart(overrules=[{"key": "Cream/chill", "wait_min": 60}])
        chill = next(s for s in own["steps"] if s["key"] == "Cream/chill")
        self.assertEqual((chill["wait_min"], chill["own"]), (60, True))
        self.assertLess(own["shortest_min"], cold["shortest_min"])
        for more in ({"wait_min": 300}, {"hands_min": 2}):
            whole = tart(schools={"filling": "hot"}, overrules=[{"key": "set_cold", **more}])
            said = {s["key"]: s["source"] for s in whole["steps"] if s["own"]}
            self.assertEqual(said, {"set_cold": "this kitchen's own"})
        self.assertEqual([s["key"] for s in hot["steps"] if s["own"]], [])
        gone = tart(overrules=[{"key": "Cream/cook it", "wait_min": 60}])["warnings"]
        self.assertIn("no step “Cream/cook it” any more", " ".join(gone))

    def test_almond_cream_bakes_in_a_case_as_a_batter_does_and_whipped_cream_does_not(self):
        self.assertEqual(meeting("flaky", "frangipane", Schools("hot")).upper, "batter")
        self.assertEqual(meeting("caramel", "flan", Schools()).upper, "batter")
        self.assertIsNone(meeting("caramel", "whipped", Schools()))
        self.assertEqual(meeting("frangipane", "curd", Schools()).upper, "cold_cream")

    def test_crisp_things_are_the_at_most_of_the_whole(self):
        plate = tart()["steps"][-1]
        soggy = next(g for g in plate["after"] if g["key"] == "Cream/lay_on")
        self.assertEqual(soggy["at_most_min"], 360)
        self.assertIn("damp", soggy["why"])
        soft = DESSERTS["glass"]()["steps"][-1]["after"]
        self.assertTrue(any(g["at_least_min"] >= 360 for g in soft))
