from unittest import mock

from django.db import IntegrityError, OperationalError, connection, transaction

from formulas import cards
from formulas.models import Dessert, Version
from kitchen.models import Member
from tests.server.base import ANGLAISE, KitchenCase, new_id


class VersionTest(KitchenCase):
    def save(self, revision, text):
        return self.k(
            "PUT",
            f"/versions/{self.version.id}",
            {"revision": revision, "content": self.content(lines_text=text)},
        )

    def test_an_edit_is_saved_and_a_stale_one_gets_both_texts(self):
        status, saved = self.save(1, "1 l milk")
        self.assertEqual((status, saved["revision"]), (200, 2))
        status, conflict = self.save(1, "2 l cream")
        self.assertEqual(status, 409)
        self.assertEqual(conflict["mine"]["lines_text"], "2 l cream")
        self.assertEqual(conflict["theirs"]["lines_text"], "1 l milk")
        self.assertIn("weir chef", conflict["message"])
        self.version.refresh_from_db()
        self.assertEqual(self.version.lines_text, "1 l milk")

    def test_the_same_save_arriving_twice_counts_once(self):
        self.save(1, "1 l milk")
        status, again = self.save(1, "1 l milk")
        self.assertEqual((status, again["revision"]), (200, 2))

    def test_a_cooked_version_never_changes_and_an_edit_makes_the_next(self):
        self.start()
        status, conflict = self.save(1, "1 l milk")
        self.assertEqual((status, conflict["theirs"]["cooked"]), (409, True))
        body = {"id": new_id(), "content": self.content(lines_text="1 l milk")}
        for _ in range(2):
            status, made = self.k("POST", f"/parts/{self.part.id}/versions", body)
            self.assertEqual((status, made["number"]), (200, 2))
        self.assertEqual(Version.objects.filter(part=self.part).count(), 2)
        self.version.refresh_from_db()
        self.assertIn("9 yolks", self.version.lines_text)

    def test_starting_a_dessert_twice_makes_one(self):
        body = {"id": new_id(), "part_id": new_id(), "version_id": new_id(), "name": "Rye flan"}
        for _ in range(2):
            self.assertEqual(self.k("POST", "/desserts", body)[0], 200)
        self.assertEqual(Dessert.objects.filter(name="Rye flan").count(), 1)

    def test_what_the_kitchen_does_not_have_is_said_at_its_field(self):
        for change, field in (
            ({"family": "soup"}, "family"),
            ({"vessel_key": "bucket"}, "vessel_key"),
            ({"egg_grade": "huge"}, "egg_grade"),
            ({"ring_id": 999_999}, "ring_id"),
            ({"fill_pct": 0}, "fill_pct"),
        ):
            status, body = self.k(
                "PUT",
                f"/versions/{self.version.id}",
                {"revision": 1, "content": self.content(**change)},
            )
            self.assertEqual(status, 422)
            self.assertTrue(body["field"].endswith(field), body)

    def test_the_shelf_and_the_answer_agree(self):
        status, shelf = self.k("GET", "/desserts")
        cards = shelf["cards"]
        self.assertEqual((status, cards[0]["klass"], cards[0]["cook"]), (200, "pipe", "boil_hold"))
        status, answer = self.k("POST", "/answer", {"content": self.content()})
        self.assertEqual(answer["set"]["class"], "pipe")
        self.assertAlmostEqual(answer["per_1000_liquid"]["yolk_g"], cards[0]["yolk_g"], places=3)

    def test_a_described_ingredient_is_understood_at_once(self):
        ask = {"content": self.content(lines_text="45 g malted barley powder")}
        self.assertEqual(self.k("POST", "/answer", ask)[1]["lines"][0]["confidence"], "unknown")
        label = {
            "name": "malted barley powder", "fat_pct": 2, "sugars_pct": 58, "protein_pct": 10,
            "allergens": ["gluten", "sulphites"],
        }  # fmt: skip
        status, kitchen = self.k("PUT", f"/pantry/{new_id()}", label)
        self.assertEqual(status, 200)
        self.assertEqual([a["name"] for a in kitchen["pantry"][0]["allergens"]],
                         ["gluten", "sulphites"])  # fmt: skip
        found = self.k("POST", "/answer", ask)[1]
        self.assertEqual(found["lines"][0]["confidence"], "sure")
        self.assertEqual(found["allergens"], ["gluten", "sulphites"])
        self.assertEqual(found["allergens_untold"], [])
        status, body = self.k("PUT", f"/pantry/{new_id()}", label | {"allergens": ["bad luck"]})
        self.assertEqual((status, body["field"]), (422, "allergens.0"))
        status, body = self.k(
            "PUT", f"/pantry/{new_id()}", {"name": "lead", "fat_pct": 90, "sugars_pct": 90}
        )
        self.assertEqual((status, body["field"]), (422, "fat_pct"))

    def test_allergens_nobody_has_told_are_no_promise_of_none(self):
        """Null is "nobody has said", an empty list is "none": only one of them may be silent."""
        rye, ask = new_id(), {"content": self.content(lines_text="45 g malted rye\n500 g milk")}
        label = {"name": "malted rye", "sugars_pct": 58, "protein_pct": 10, "category": "starch"}

        def told(**allergens: list[str]):
            kitchen = self.k("PUT", f"/pantry/{rye}", label | allergens)[1]
            found = self.k("POST", "/answer", ask)[1]
            free = self.k("POST", "/solve", ask | {"wishes": {"without": ["gluten"]}})[1]
            return (kitchen["pantry"][0]["allergens"], found["allergens"],
                    found["allergens_untold"], free["unmet"])  # fmt: skip

        unsure = ["malted rye: nobody has said whether it has gluten."]
        self.assertEqual(told(), (None, ["milk"], ["malted rye"], unsure))
        self.assertEqual(told(allergens=[]), ([], ["milk"], [], []))
        self.assertEqual(told(allergens=["nuts"])[1:3], (["milk", "nuts"], []))

    def test_the_stove_plan_says_what_stands_in_its_way(self):
        self.assertEqual(
            self.k("POST", "/plan", {"content": self.content(lines_text=ANGLAISE)})[0], 200
        )
        status, body = self.k("POST", "/plan", {"content": self.content(lines_text="")})
        self.assertEqual((status, body["field"]), (422, "lines_text"))
        status, body = self.k("POST", "/plan", {"content": self.content(eggs_c=60, hot_c=40)})
        self.assertEqual((status, body["field"]), (422, "hot.temp_c"))


class CardTest(KitchenCase):
    def test_a_card_is_worked_out_once_and_again_by_the_next_program(self):
        def worked_out():
            with mock.patch("formulas.cards._glance", side_effect=cards._glance) as asked:
                self.assertEqual(self.k("GET", "/desserts")[0], 200)
            return asked.call_count

        self.assertEqual([worked_out(), worked_out()], [1, 0])
        with mock.patch("formulas.cards.program", return_value="the next one"):
            self.assertEqual([worked_out(), worked_out()], [1, 0])


class StoreTest(KitchenCase):
    def test_the_store_itself_refuses_what_makes_no_sense(self):
        for broken in (
            lambda: Version.objects.create(part=self.part, number=1),
            lambda: Version.objects.create(part=self.part, number=2, fill_pct=0),
            lambda: Version.objects.create(part=self.part, number=2, school="none"),
            lambda: Member.objects.create(
                kitchen_id=self.kid, user=self.people["weir chef"], role="cook"
            ),
            lambda: Member.objects.create(
                kitchen_id=self.kid, user=self.people["mill chef"], role="owner"
            ),
        ):
            with self.assertRaises((IntegrityError, OperationalError)), transaction.atomic():
                broken()

    def test_the_store_is_strict_utf8mb4_and_in_utc(self):
        with connection.cursor() as cursor:
            cursor.execute(
                "SELECT @@sql_mode, @@character_set_connection, @@time_zone, "
                "@@tx_isolation, @@version"
            )
            mode, charset, zone, isolation, version = cursor.fetchone()
        self.assertIn("STRICT_TRANS_TABLES", mode)
        self.assertEqual((charset, zone, isolation), ("utf8mb4", "+00:00", "READ-COMMITTED"))
        self.assertIn("MariaDB", version)
        Dessert.objects.create(kitchen_id=self.kid, name="Crème brûlée 🍮")
        self.assertFalse(Dessert.objects.filter(name="Creme brulee 🍮").exists())

    def test_a_store_that_is_away_is_said_in_one_sentence(self):
        with mock.patch(
            "kitchen.access.Member.objects",
            **{"select_related.side_effect": OperationalError(2002, "gone")},
        ):
            status, body = self.k("GET", "/desserts")
        self.assertEqual(status, 503)
        self.assertIn("Nothing you typed is lost", body["message"])
