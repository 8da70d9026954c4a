"""What is somebody else's, what is there already, what came twice, and what is more than a kitchen
means: each is answered with a sentence, and nothing is changed."""

from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import timezone

from days.models import UsualDay
from formulas.models import Dessert, Part, Version
from kitchen import words
from kitchen.models import OwnWeight, OwnWord, PantryItem, Price, Vessel
from tests.server.base import PASTRY, KitchenCase, new_id

VESSEL = {"name": "well", "top_mm": 200, "bottom_mm": 180, "depth_mm": 60}
PANTRY = {"name": "spelt malt", "sugars_pct": 40}
PRICE = {"line": "1 kg sugar", "price": 1.2}
DAY = {"name": "Sunday", "file": {
    "begins": "2026-11-28T06:00:00",
    "services": [
        {"at": "2026-11-28T19:00:00", "items": [{"dessert": "Quince cream", "portions": 8}]}
    ],
    "people": [{"name": "Early cook", "from_min": 360, "to_min": 1140}],
}}  # fmt: skip


class LimitsTest(KitchenCase):
    def test_an_id_of_another_kitchen_is_not_there_and_stays_as_it_is(self):
        theirs = self.kitchens["mill"]
        rows = {
            "vessels": Vessel.objects.create(kitchen=theirs, name="v", top_dmm=900,
                                             bottom_dmm=900, depth_dmm=400),
            "pantry": PantryItem.objects.create(kitchen=theirs, name="malt", fat_pct=1,
                                                sugars_pct=40, protein_pct=1, starch_pct=1),
            "prices": Price.objects.create(kitchen=theirs, line="1 kg flour", cents=90,
                                           ingredient="flour", grams=1000),
            "day/usual": UsualDay.objects.create(kitchen=theirs, name="Monday", file={}),
        }  # fmt: skip
        bodies = {"vessels": VESSEL, "pantry": PANTRY, "prices": PRICE, "day/usual": DAY}
        for place, row in rows.items():
            with self.subTest(place):
                status, body = self.k("PUT", f"/{place}/{row.pk}", bodies[place])
                self.assertEqual(status, 404, body)
                self.assertTrue(body["message"].endswith("."))
                kept = type(row).objects.values().get(pk=row.pk)
                self.assertEqual(kept, {field: getattr(row, field) for field in kept})

    def test_a_name_that_is_taken_is_said(self):
        for place, given in (("vessels", VESSEL), ("pantry", PANTRY), ("day/usual", DAY)):
            with self.subTest(place):
                self.assertEqual(self.k("PUT", f"/{place}/{new_id()}", given)[0], 200)
                status, body = self.k("PUT", f"/{place}/{new_id()}", given)
                self.assertEqual(status, 422)
                self.assertIn(given["name"], body["message"])
        self.assertEqual(Vessel.objects.filter(kitchen=self.kid, name="well").count(), 1)

    def test_no_more_words_and_weights_than_are_ever_looked_through(self):
        kitchen = self.kitchens["weir"]
        OwnWord.objects.bulk_create(
            OwnWord(kitchen=kitchen, said=f"word {n}", ingredient="milk_whole")
            for n in range(words.MOST)
        )
        OwnWeight.objects.bulk_create(
            OwnWeight(kitchen=kitchen, ingredient=f"thing_{n}", unit="can", grams=5)
            for n in range(words.MOST)
        )
        word = {"said": "moo juice", "ingredient": "milk_whole"}
        weight = {"ingredient": "jam_apricot", "unit": "pack", "grams": 340}
        for place, given in (("words", word), ("weights", weight)):
            status, body = self.k("PUT", f"/{place}", given)
            self.assertEqual(status, 422)
            self.assertIn(f"{words.MOST}", body["message"])
        # One that is there already can still be corrected.
        again = {"said": "word 3", "ingredient": "sugar"}
        self.assertEqual(self.k("PUT", "/words", again)[0], 200)

    def test_what_comes_twice_is_one_and_another_thing_with_its_id_is_refused(self):
        part = {"id": new_id(), "version_id": new_id(), "kind": "cream", "name": "top",
                "content": self.content()}  # fmt: skip
        path = f"/desserts/{self.dessert.id}/parts"
        for _ in range(2):
            self.assertEqual(self.k("POST", path, part)[0], 200)
        self.assertEqual(self.dessert.parts.count(), 2)
        other = Dessert.objects.create(kitchen=self.kitchens["weir"], name="Other")
        status, body = self.k("POST", f"/desserts/{other.id}/parts", part)
        self.assertEqual(status, 422)
        self.assertIn("taken", body["message"])
        batch = new_id()
        for _ in range(2):
            status, found = self.k(
                "POST", "/batches", {"id": batch, "version_id": str(self.version.id)}
            )
            self.assertEqual((status, found["id"]), (200, batch))

    def test_the_only_part_stays_and_so_does_one_that_was_cooked(self):
        status, body = self.k("DELETE", f"/parts/{self.part.id}")
        self.assertEqual(status, 422)
        self.assertIn("at least one", body["message"])
        second = Part.objects.create(dessert=self.dessert, kind="cream", position=1)
        Version.objects.create(part=second, number=1, lines_text=PASTRY,
                               cooked_at=timezone.now())  # fmt: skip
        status, body = self.k("DELETE", f"/parts/{second.id}")
        self.assertIn("has been cooked", body["message"])
        self.assertEqual(self.dessert.parts.count(), 2)

    def test_a_file_of_another_alphabet_is_read_and_what_is_no_text_is_not(self):
        lines = "Crème brûlée\n\n500 g cream\n6 yolks\n".encode("cp1252")
        status, body = self.k("POST", "/import/read", SimpleUploadedFile("old.txt", lines))
        self.assertEqual((status, body["desserts"][0]["name"]), (200, "Crème brûlée"))
        for name, raw in (
            ("zip", b"PK\x03\x04rest"), ("utf16", "500 g cream".encode("utf-16")),
            ("noise", bytes(range(1, 9)) * 50),
        ):  # fmt: skip
            with self.subTest(name):
                status, body = self.k("POST", "/import/read", SimpleUploadedFile("f.txt", raw))
                self.assertEqual((status, body["field"]), (422, "file"))

    def test_no_dessert_to_write_out_is_said(self):
        Dessert.objects.update(archived=True)
        status, body = self.k("GET", "/export")
        self.assertEqual((status, body["message"][-1]), (404, "."))
