"""Two people of one kitchen read what is kept, each in their own units; a file is nobody's."""

import json
import re

from batches.models import Batch
from kitchen.models import Member
from tests.server.base import KitchenCase, new_id

OPEN = "[\ue0c0-\ue0c5]"


class ReaderTest(KitchenCase):
    def setUp(self):
        super().setUp()
        Member.objects.filter(user=self.people["weir cook"]).update(units="us")

    def read_by(self, who, path):
        answer = self.signed_in(who).get(f"/api/k/{self.kid}{path}")
        self.assertEqual(answer.status_code, 200)
        text = answer.getvalue().decode()
        self.assertNotRegex(text, OPEN)
        return text

    def test_a_batch_that_is_kept_is_read_by_each_in_their_own_degrees(self):
        batch = self.start()
        kept = json.dumps(Batch.objects.get(pk=batch).prediction, ensure_ascii=False)
        self.assertRegex(kept, OPEN)
        self.assertNotIn("°C", kept)
        lumps = "dry lumps seal at {}"
        for who, degrees in (("weir chef", "62\u202f°C"), ("weir cook", "144\u202f°F")):
            text = self.read_by(who, f"/batches/{batch}")
            self.assertIn(lumps.format(degrees), text)
            self.assertEqual({"°C", "°F"} & set(re.findall("°[CF]", text)), {degrees[-2:]})

    def test_a_file_that_is_taken_away_is_metric_whoever_asks_for_it(self):
        batch = self.start()
        for path in (f"/batches/{batch}/file", "/book/file"):
            text = self.read_by("weir cook", path)
            self.assertIn("dry lumps seal at 62 °C", text)
            self.assertNotIn("°F", text)

    def test_what_is_refused_is_said_in_the_asker_s_units_too(self):
        deep = {"name": "well", "top_mm": 200, "bottom_mm": 200, "depth_mm": 5000}
        for who, words in (
            ("weir chef", "At most 400\u202fmm, please."),
            ("weir cook", "At most 15.7\u202fin, please."),
        ):
            Member.objects.filter(user=self.people[who]).update(role="chef")
            self.sign_in(who)
            status, body = self.k("PUT", f"/vessels/{new_id()}", deep)
            self.assertEqual((status, body["message"]), (422, words))

    def test_the_calendar_of_a_day_is_in_the_units_of_whose_it_is(self):
        ask = {
            "begins": "2026-11-28T06:00:00",
            "services": [{
                "at": "2026-11-28T19:00:00",
                "items": [{"dessert_id": str(self.dessert.id), "portions": 16}],
            }],
            "people": [{"name": "Early cook", "from_min": 360, "to_min": 1140}],
        }  # fmt: skip
        self.version.lines_text = "500 g cream 35%\n250 g whole milk\n80 g sugar\n7 g gelatine"
        self.version.save(update_fields=["lines_text"])
        day = new_id()
        self.k("POST", "/days", {"id": day, "ask": ask})
        for who, degrees in (("weir chef", "20 °C"), ("weir cook", "68 °F")):
            text = self.read_by(who, f"/days/{day}/calendar").replace("\r\n ", "")
            self.assertIn(f"cool to {degrees}", text)
            self.assertLess(max(map(len, text.encode().split(b"\r\n"))), 200)
