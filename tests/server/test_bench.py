import json

from django.core.files.uploadedfile import SimpleUploadedFile

from formulas.models import Dessert, Part, Version
from tests.server.base import ANGLAISE, PASTRY, KitchenCase, new_id

MERINGUE = "6 whites\n300 g sugar"


class PartsTest(KitchenCase):
    def add(self, name, kind, lines, **content):
        body = {
            "id": new_id(),
            "version_id": new_id(),
            "kind": kind,
            "name": name,
            "content": self.content(lines_text=lines, **content),
        }
        for _ in range(2):  # sending it twice makes one
            status, dessert = self.k("POST", f"/desserts/{self.dessert.id}/parts", body)
            self.assertEqual(status, 200, dessert)
        return body["id"], dessert

    def test_parts_are_added_named_moved_and_taken_out(self):
        crust, _ = self.add("Rye crust", "crust", "300 g flour\n200 g butter")
        _, dessert = self.add("Meringue", "meringue", MERINGUE)
        self.assertEqual([p["kind"] for p in dessert["parts"]], ["cream", "crust", "meringue"])
        status, dessert = self.k(
            "PATCH", f"/parts/{crust}", {"position": 0, "name": "Barley crust"}
        )
        self.assertEqual(
            [p["name"] for p in dessert["parts"]], ["Barley crust", "Filling", "Meringue"]
        )
        status, dessert = self.k("DELETE", f"/parts/{crust}")
        self.assertEqual((status, len(dessert["parts"])), (200, 2))
        self.start()
        status, body = self.k("DELETE", f"/parts/{self.part.id}")
        self.assertEqual(status, 422)
        self.assertIn("has been cooked", body["message"])

    def test_the_total_is_of_all_parts_and_the_whites_go_into_the_meringue(self):
        self.add("Meringue", "meringue", MERINGUE)
        Version.objects.update(vessel_key="ramekin_120", vessel_count=10)
        self.k("PUT", f"/prices/{new_id()}", {"line": "1 kg sugar", "price": 1.1})
        status, found = self.k("GET", f"/desserts/{self.dessert.id}/total")
        self.assertEqual((status, found["eggs_separate"], found["portions"]), (200, 9, 10))
        self.assertAlmostEqual(found["whites_left_g"], 3 * 33)
        self.assertAlmostEqual(found["cost"]["batch"], 0.45 * 1.1, places=2)
        ledger = self.k("POST", "/ledger", {"desserts": [{"dessert_id": str(self.dessert.id)}]})[1]
        self.assertEqual([e["name"] for e in ledger["entries"]],
                         ["Quince cream, filling", "Quince cream, meringue"])  # fmt: skip
        self.assertEqual((ledger["separate"], ledger["alone_eggs"]), (9, 15))


class ShelfTest(KitchenCase):
    @classmethod
    def setUpTestData(cls):
        super().setUpTestData()
        for n in range(75):
            dessert = Dessert.objects.create(kitchen_id=cls.kid, name=f"Malt pot {n:02}")
            part = Part.objects.create(dessert=dessert, kind="cream")
            lines = f"{PASTRY}\n{n} g hay" if n % 2 else ANGLAISE
            Version.objects.create(part=part, number=1, lines_text=lines)

    def test_words_are_found_in_names_and_in_lines_a_stretch_at_a_time(self):
        first = self.k("GET", "/desserts")[1]
        self.assertEqual((len(first["cards"]), first["total"]), (24, 76))
        rest = self.k("GET", "/desserts?skip=24&take=60")[1]
        self.assertEqual(len(rest["cards"]), 52)
        self.assertFalse({c["id"] for c in first["cards"]} & {c["id"] for c in rest["cards"]})
        self.assertEqual(self.k("GET", "/desserts?search=malt+hay")[1]["total"], 37)
        self.assertEqual(self.k("GET", "/desserts?search=quince")[1]["total"], 1)

    def test_siblings_are_of_the_same_family_and_never_the_dessert_itself(self):
        path = f"/desserts/{self.dessert.id}/siblings"
        found = self.k("GET", f"{path}?family=anglaise")[1]
        self.assertEqual(len(found), 12)
        self.assertAlmostEqual(found[0]["points"]["starch_egg"]["y"], 200)
        names = {s["name"] for s in self.k("GET", f"{path}?family=pastry_cream")[1]}
        self.assertNotIn("Quince cream", names)


class CompareTest(KitchenCase):
    def test_two_versions_lie_side_by_side_with_their_verdicts(self):
        batch = self.start()
        self.k("POST", f"/batches/{batch}/events",
               {"events": [{"id": new_id(), "kind": "end", "at": self.now()}]})  # fmt: skip
        verdict = {"texture": "spoon", "faults": ["thinned_overnight"], "note": "Ran by noon."}
        self.assertEqual(self.k("PUT", f"/batches/{batch}/verdict", verdict)[0], 200)
        text = "1 l whole milk\n11 yolks\n150 g sugar\n95 g corn starch\n1 vanilla pod"
        body = {"id": new_id(), "content": self.content(lines_text=text, note="firmer")}
        self.k("POST", f"/parts/{self.part.id}/versions", body)
        status, found = self.k(
            "POST", "/compare", {"left": str(self.version.id), "right": body["id"]}
        )
        self.assertEqual(status, 200, found)
        self.assertEqual(found["left"]["cooked"][0]["note"], "Ran by noon.")
        self.assertEqual((found["right"]["cooked"], found["right"]["note"]), ([], "firmer"))
        pairs = {p["ingredient"].split(",")[0]: p for p in found["found"]["pairs"]}
        starch = next(p for name, p in pairs.items() if name.startswith("Corn starch"))
        self.assertAlmostEqual(starch["change_pct"], 100 * (95 / 85 - 1), places=3)
        self.assertIsNone(next(p for n, p in pairs.items() if n.startswith("Vanilla"))["left"])
        self.assertIn("sets firmer", found["found"]["says"][0])


class TravelTest(KitchenCase):
    def read(self, text, name="f.txt"):
        name, _, query = name.partition("?")
        raw = text if isinstance(text, bytes) else text.encode()
        return self.k("POST", f"/import/read?{query}", SimpleUploadedFile(name, raw))

    def keep(self, desserts):
        ids = [new_id() for _ in desserts]
        body = {
            "desserts": [
                {"id": i, "name": d["name"], "parts": d["parts"]}
                for i, d in zip(ids, desserts, strict=True)
            ]
        }
        for _ in range(2):  # a stretch that arrives twice is kept once
            status, kept = self.k("POST", "/import/keep", body)
            self.assertEqual((status, kept), (200, {"kept": len(ids)}))
        return ids

    def export(self, form, dessert=""):
        query = f"?form={form}" + (f"&dessert={dessert}" if dessert else "")
        return self.client.get(f"/api/k/{self.kid}/export{query}")

    def test_everything_goes_out_and_comes_back_in_each_format(self):
        vessel = {"name": "Weir glass", "top_mm": 70, "bottom_mm": 60, "depth_mm": 60}
        vessel_id = new_id()
        self.k("PUT", f"/vessels/{vessel_id}", vessel)
        Version.objects.filter(pk=self.version.pk).update(vessel_key=vessel_id, vessel_count=14)
        crust = Part.objects.create(dessert=self.dessert, position=1, kind="crust", name="Rye")
        Version.objects.create(part=crust, number=1, lines_text="300 g flour\n200 g butter")
        Version.objects.create(part=self.part, number=2, lines_text=ANGLAISE, note="no starch")
        for form in ("json", "jsonld", "text", "csv"):
            with self.subTest(form):
                sent = self.export(form, self.dessert.id)
                self.assertIn("quince-cream", sent.headers["Content-Disposition"])
                status, found = self.read(sent.getvalue().decode())
                self.assertEqual(status, 200, found)
                (dessert,) = found["desserts"]
                self.assertEqual((dessert["name"], dessert["problems"]), ("Quince cream", []))
                texts = [p["versions"][-1]["lines_text"] for p in dessert["parts"]]
                self.assertEqual(texts, [ANGLAISE, "300 g flour\n200 g butter"])
                (made,) = self.keep([dessert])
                kept = Dessert.objects.get(pk=made)
                self.assertEqual(kept.kitchen_id, self.kid)
                first = kept.parts.first().versions.first()
                if form == "json":  # our own keeps history and settings
                    self.assertEqual((first.lines_text, first.vessel_count), (PASTRY, 14))
                    self.assertEqual(first.vessel_key, vessel_id)

    def test_two_hundred_recipes_are_read_kept_and_reported_without_losing_a_row(self):
        rows = ["name,line"]
        for n in range(200):
            odd = "a handful of sloes" if n % 20 == 0 else "3 yolks"
            rows += [f"Pot {n},{text}" for text in ("1 l whole milk", odd, f"{100 + n} g sugar")]
        found = {"desserts": []}
        for skip in (0, 100):
            status, stretch = self.read("\n".join(rows), f"book.csv?skip={skip}")
            self.assertEqual((status, stretch["total"]), (200, 200))
            found["desserts"] += stretch["desserts"]
        self.assertEqual(len({d["name"] for d in found["desserts"]}), 200)
        doubted = [d for d in found["desserts"] if d["doubts"]]
        self.assertEqual(len(doubted), 10)
        self.assertTrue(all(d["doubts"][0]["unknown"] for d in doubted))
        self.assertEqual(sum(d["lines"] for d in found["desserts"]), 600)
        for start in range(0, 200, 50):
            self.keep(found["desserts"][start : start + 50])
        kept = Version.objects.filter(part__dessert__name__startswith="Pot ")
        self.assertEqual(kept.count(), 200)
        self.assertEqual(sum(len(v.lines_text.split("\n")) for v in kept), 600)

    def test_a_file_that_says_what_we_do_not_have_is_taken_with_a_word(self):
        own = {
            "bell_crumb_formulas": 1,
            "desserts": [
                {"name": "x", "parts": [{"kind": "soup", "versions": [
                    {"lines": ["1 l milk"], "egg_grade": "huge", "vessel_count": -3,
                     "vessel_key": "bucket", "colour": "red"}]}]}
            ],
        }  # fmt: skip
        status, found = self.read(json.dumps(own))
        self.assertEqual(status, 200, found)
        (dessert,) = found["desserts"]
        self.assertEqual(dessert["parts"][0]["versions"][0]["vessel_count"], 8)
        self.assertEqual(len(dessert["problems"]), 3)
        # Lines under a name that is not ours are not lost without a word.
        own["desserts"][0]["parts"][0]["versions"][0] = {"lines_text": "1 l milk"}
        (dessert,) = self.read(json.dumps(own))[1]["desserts"]
        self.assertIn("it would be kept empty", str(dessert["problems"]))
        status, body = self.read("   ")
        self.assertEqual((status, body["field"]), (422, "file"))


class EquipmentTest(KitchenCase):
    def test_a_price_is_paid_for_a_line_and_the_last_one_counts(self):
        for price in (5, 7.5):
            body = {"line": "30 eggs", "price": price}
            status, kitchen = self.k("PUT", f"/prices/{new_id()}", body)
            self.assertEqual(status, 200, kitchen)
        (kept,) = kitchen["prices"]
        self.assertAlmostEqual(kept["per_kg"], 7.5 / (30 * 50) * 1000, places=2)
        status, body = self.k("PUT", f"/prices/{new_id()}", {"line": "sugar", "price": 1})
        self.assertEqual((status, body["field"]), (422, "line"))
        self.assertEqual(self.k("DELETE", f"/prices/{kept['id']}")[1]["prices"], [])

    def test_a_tin_with_corners_and_a_fluted_ring_hold_their_geometry(self):
        tin = {"name": "Tin", "kind": "pan", "shape": "rect", "top_mm": 300, "bottom_mm": 300,
               "width_mm": 200, "depth_mm": 40}  # fmt: skip
        ring = {"name": "Ring", "kind": "ring", "top_mm": 100, "bottom_mm": 100, "depth_mm": 20,
                "flute_mm": 4}  # fmt: skip
        for body in (tin, ring):
            status, kitchen = self.k("PUT", f"/vessels/{new_id()}", body)
            self.assertEqual(status, 200, kitchen)
        held = {v["name"]: v["brim_ml"] for v in kitchen["vessels"]}
        self.assertAlmostEqual(held["Tin"], 2400)
        self.assertTrue(140 < held["Ring"] < 157)
        status, body = self.k("PUT", f"/vessels/{new_id()}", {**tin, "name": "T", "width_mm": 0})
        self.assertEqual((status, body["field"]), (422, "length_mm"))

    def test_a_vessel_is_of_what_the_kitchen_says(self):
        tin = {"name": "Tin", "top_mm": 200, "bottom_mm": 200, "depth_mm": 50, "wall_mm": 0}
        for material in ("steel", ""):
            body = {**tin, "name": f"Of {material}", "material": material}
            status, kitchen = self.k("PUT", f"/vessels/{new_id()}", body)
            self.assertEqual(status, 200, kitchen)
        of = {v["name"]: v["material"] for v in kitchen["vessels"]}
        self.assertEqual((of["Of steel"], of["Of "]), ("steel", ""))
        status, body = self.k("PUT", f"/vessels/{new_id()}", {**tin, "material": "driftwood"})
        self.assertEqual((status, body["field"]), (422, "material"))

    def test_what_a_word_means_and_a_jar_weighs_is_said_once_and_stays_this_kitchens_own(self):
        def read(user=None):
            body = {"content": self.content(lines_text="2 jars apricot jam\n500 g moo juice")}
            found = self.k("POST", "/answer", body)[1]["lines"]
            return [(x["grams"], x["ingredient"], x["asks"]) for x in found]

        self.assertEqual(read(), [(None, "jam_apricot", "pack"), (500, None, "name")])
        status, kitchen = self.k(
            "PUT", "/weights", {"ingredient": "jam_apricot", "unit": "pack", "grams": 340}
        )
        self.assertEqual((status, kitchen["weights"][0]["grams"]), (200, 340))
        status, kitchen = self.k("PUT", "/words", {"said": "Moo juice", "ingredient": "Whole milk"})
        self.assertEqual(status, 200, kitchen)
        self.assertEqual(read(), [(680, "jam_apricot", ""), (500, "milk_whole", "")])
        status, _ = self.k("PUT", "/words", {"said": "x juice", "ingredient": "unobtainium"})
        self.assertEqual(status, 422)
        self.k("DELETE", f"/words/{kitchen['words'][0]['id']}")
        self.k("DELETE", f"/weights/{kitchen['weights'][0]['id']}")
        self.assertEqual(read(), [(None, "jam_apricot", "pack"), (500, None, "name")])

    def test_cups_follow_the_kitchens_country(self):
        ask = {"content": self.content(lines_text="1 l milk\n1 cup sugar")}
        grams = []
        for country in ("us", "au"):
            self.k("PATCH", "", {"measures": country})
            grams.append(self.k("POST", "/answer", ask)[1]["lines"][1]["grams"])
        self.assertAlmostEqual(grams[1] / grams[0], 250 / 236.588, places=3)
