"""The book goes out, keeps pictures, and is the record a food-safety plan asks for."""

import io
import json
from datetime import timedelta
from unittest.mock import patch

from django.core.files.uploadedfile import SimpleUploadedFile
from PIL import Image

from batches.clock import course_of, plan_of_batch
from batches.models import Batch, Photo, Reading
from tests.server.base import KitchenCase, new_id


def picture(kind="JPEG", size=(2400, 1200), **more):
    out = io.BytesIO()
    Image.new("RGB", size, (200, 170, 90)).save(out, kind, **more)
    return SimpleUploadedFile("cut.jpg", out.getvalue())


class PhotoTest(KitchenCase):
    def add(self, batch, photo, file):
        return self.k("POST", f"/batches/{batch}/photos/{photo}", file)

    def test_a_picture_is_made_anew_small_and_without_where_and_what_took_it(self):
        batch, photo = self.start(), new_id()
        exif = Image.Exif()
        exif[0x010F], exif[0x0112] = "A camera", 6  # its maker, and that it lies on its side
        for _ in range(2):
            status, photos = self.add(batch, photo, picture(exif=exif))
        self.assertEqual((status, len(photos), Photo.objects.count()), (200, 1, 1))
        self.assertEqual((photos[0]["width"], photos[0]["height"]), (800, 1600))
        answer = self.client.get(f"/api/k/{self.kid}/batches/{batch}/photos/{photo}")
        self.assertEqual(answer["Content-Type"], "image/jpeg")
        shown = Image.open(io.BytesIO(answer.content))
        self.assertEqual((shown.size, len(shown.getexif())), ((800, 1600), 0))
        self.assertNotIn(b"A camera", answer.content)
        self.assertEqual(self.k("GET", f"/batches/{batch}")[1]["photos"], photos)
        self.assertEqual(self.k("DELETE", f"/batches/{batch}/photos/{photo}")[1], [])

    def test_what_is_no_picture_is_refused_at_its_field(self):
        batch = self.start()
        half = picture().read()[:900]
        for name, raw in (("text", b"1 l milk"), ("half", half), ("nothing", b""),
                          ("svg", b"<svg xmlns='http://www.w3.org/2000/svg'/>")):  # fmt: skip
            with self.subTest(name):
                file = SimpleUploadedFile("cut.jpg", raw)
                status, body = self.add(batch, new_id(), file)
                self.assertEqual((status, body["field"]), (422, "file"))
        for _ in range(7):
            status, body = self.add(batch, new_id(), picture(size=(20, 20)))
        self.assertEqual((status, body["field"]), (422, "file"))

    def test_a_picture_is_this_kitchens_own(self):
        batch, photo = self.start(), new_id()
        self.add(batch, photo, picture(size=(30, 30)))
        self.sign_in("mill chef")
        for kid in (self.kid, self.kitchens["mill"].id):
            path = f"/api/k/{kid}/batches/{batch}/photos/{photo}"
            self.assertEqual(self.client.get(path).status_code, 404)


class RecordTest(KitchenCase):
    def cooked(self, hot_c, down_min, taps=("temper", "cook")):
        """A cook with egg that came to ``hot_c``, and went down to 4 degC in ``down_min``."""
        batch = Batch.objects.get(pk=self.start())
        events = [{"id": new_id(), "kind": "step", "step": step, "at": self.now()} for step in taps]
        self.k("POST", f"/batches/{batch.pk}/events", {"events": events})
        Batch.objects.filter(pk=batch.pk).update(started_at=batch.started_at - timedelta(hours=9))
        for n, step in enumerate(taps):
            batch.events.filter(step=step).update(cook_ms=n)
        rows = []
        for minute in range(0, 540, 3):
            up = min(hot_c, 20 + 8 * minute)
            falls = (minute - 20) / down_min * (hot_c - 4)
            temp = up if minute < 20 else max(4.0, hot_c - falls)
            rows.append(
                Reading(batch=batch, client_id=new_id(), at=batch.started_at,
                        cook_ms=60_000 * minute + 10, temp_cc=round(100 * temp))
            )  # fmt: skip
        Reading.objects.bulk_create(rows)
        Batch.objects.filter(pk=batch.pk).update(peak_cc=round(100 * hot_c))
        event = {"id": new_id(), "kind": "end", "at": self.now()}
        self.k("POST", f"/batches/{batch.pk}/events", {"events": [event]})
        return str(batch.pk)

    def test_the_record_says_what_was_hot_enough_and_cold_in_time(self):
        good, slow = self.cooked(98, 200), self.cooked(98, 500)
        rows = {r["id"]: r for r in self.k("GET", "/record")[1]}
        self.assertEqual((rows[good]["pasteurised"], rows[good]["cooled_in_time"]), (True, True))
        self.assertFalse(rows[good]["missed"])
        self.assertEqual((rows[slow]["cooled_in_time"], rows[slow]["missed"]), (False, True))
        # 36 K of 94 in 200 min: 77 min from 57 to 21 degC, 111 to 5.
        self.assertAlmostEqual(rows[good]["cooled_mid_min"], 36 / 94 * 200, delta=3)
        self.assertAlmostEqual(rows[good]["cooled_end_min"], 52 / 94 * 200, delta=3)
        said = {"words": "=thrown away"}
        status, row = self.k("PUT", f"/batches/{slow}/mended", said)
        self.assertEqual((status, row["mended"]), (200, "=thrown away"))
        file = self.client.get(f"/api/k/{self.kid}/record/file")
        self.assertEqual(file["Content-Type"], "text/csv; charset=utf-8")  # it holds degrees
        table = file.content.decode()
        self.assertIn("'=thrown away", table)
        self.assertEqual(len(table.strip().splitlines()), 3)
        self.assertEqual(self.k("GET", "/record?until=2020-01-01T00:00:00Z")[1], [])

    def test_the_record_judges_no_egg_whose_tempering_nobody_ended(self):
        left = self.cooked(98, 200, taps=("temper",))
        row = self.k("GET", "/record")[1][0]
        self.assertEqual((row["id"], row["pasteurised"], row["missed"]), (left, None, False))
        self.assertTrue(self.k("GET", f"/batches/{left}")[1]["safe"]["warnings"])

    def test_the_record_goes_by_the_kitchens_own_cooling_rule_and_says_which(self):
        own = {"from_c": 63, "mid_c": 21, "mid_min": 60, "end_c": 8, "end_min": 90}
        usual = self.cooked(98, 200)
        self.k("PATCH", "", {"cool_rule": own})
        strict = self.cooked(98, 200)  # 42 K of 94 in 200 min: 89 min, and 60 are allowed
        rows = {r["id"]: r for r in self.k("GET", "/record")[1]}
        self.assertEqual((rows[strict]["cooled_in_time"], rows[strict]["missed"]), (False, True))
        self.assertAlmostEqual(rows[strict]["cooled_mid_min"], 42 / 94 * 200, delta=3)
        self.assertAlmostEqual(rows[strict]["cooled_end_min"], 55 / 94 * 200, delta=3)
        self.assertEqual(rows[strict]["cool_rule"], own)
        # What was judged before stays judged by the rule of its day.
        self.assertTrue(rows[usual]["cooled_in_time"])
        self.assertEqual(rows[usual]["cool_rule"]["end_c"], 5)
        table = self.client.get(f"/api/k/{self.kid}/record/file").content.decode()
        self.assertIn("63/21/8 degC, 60/90 min", table)
        self.assertIn("57/21/5 degC, 120/360 min", table)
        # What an earlier program kept, which knew no rule but the usual, is judged again.
        kept = Batch.objects.get(pk=usual).record
        Batch.objects.filter(pk=usual).update(record={k: kept[k] for k in kept if k != "cool_rule"})
        again = next(r for r in self.k("GET", "/record")[1] if r["id"] == usual)
        self.assertEqual((again["cooled_in_time"], again["cool_rule"]), (False, own))

    def test_a_batch_and_the_whole_book_go_out_as_files(self):
        one = self.cooked(98, 300)
        path = f"/api/k/{self.kid}/batches/{one}/file"
        whole = json.loads(self.client.get(f"{path}?form=json").content)
        self.assertEqual((whole["id"], len(whole["readings"])), (one, 180))
        self.assertIn("end", [e["kind"] for e in whole["events"]])
        rows = self.client.get(f"{path}?form=csv").content.decode().strip().splitlines()
        self.assertEqual((rows[0], len(rows)), ("seconds,channel,degC", 181))
        answer = self.client.get(f"/api/k/{self.kid}/book/file")
        book = b"".join(answer.streaming_content).decode().strip().splitlines()
        self.assertEqual([json.loads(line)["id"] for line in book], [one])

    def test_curves_lie_over_each_other_and_the_best_is_told(self):
        good, bad = self.cooked(98, 300), self.cooked(98, 300)
        self.judge(good, [])
        self.judge(bad, ["lumps"])
        curves = self.k("GET", f"/desserts/{self.dessert.id}/curves")[1]
        self.assertEqual({c["id"]: c["best"] for c in curves}, {good: True, bad: False})

    def test_a_batch_removed_while_it_is_read_is_said_to_be_gone_and_is_no_failure_of_ours(self):
        self.cooked(98, 300)
        plan_of_batch.cache_clear()

        def goes_first(batch):
            Batch.objects.filter(pk=batch.pk).delete()
            return course_of(batch)

        with patch("batches.listing.course_of", goes_first):
            status, body = self.k("GET", f"/desserts/{self.dessert.id}/curves")
        self.assertEqual((status, body["reference"]), (404, None))
        self.assertIn("removed meanwhile", body["message"])

    def judge(self, batch, faults):
        body = {"revision": 0, "texture": "pipe", "faults": faults, "note": ""}
        self.assertEqual(self.k("PUT", f"/batches/{batch}/verdict", body)[0], 200)

    def test_the_book_is_found_by_place_family_and_date(self):
        one = self.cooked(98, 300)
        family = Batch.objects.get(pk=one).family_name
        for query, found in ((f"family={family}", 1), ("family=Flan", 0), ("oven=ring", 1),
                             ("oven=deck", 0), ("since=2020-01-01T00:00:00Z", 1),
                             ("until=2020-01-01T00:00:00Z", 0), ("cook=Nobody", 0)):  # fmt: skip
            with self.subTest(query):
                self.assertEqual(len(self.k("GET", f"/batches?{query}")[1]), found)
