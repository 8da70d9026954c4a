from datetime import UTC, datetime, timedelta

from django.core.cache import cache

from batches.models import Batch, Event, Reading
from batches.teaching import teach
from bellcrumb.oven.scene import Cells
from kitchen.models import Lesson
from tests.server.base import KitchenCase, new_id

FLAN = "1 l whole milk\n5 eggs\n3 yolks\n180 g sugar"


class OvenTest(KitchenCase):
    def asked(self, baking=None, **more):
        content = {"lines_text": FLAN, "vessel_key": "ramekin_180", "vessel_count": 6,
                   "fill_pct": 95, "bath_level": "half", "family": "creme_caramel"}  # fmt: skip
        return {"content": content | more | {"baking": baking or {}}}

    def test_a_bake_answers_for_this_kitchens_oven(self):
        status, plain = self.k("POST", "/bake", self.asked())
        self.assertEqual(status, 200, plain)
        found = plain["found"]
        self.assertTrue(25 < found["pull_from_min"] < found["pull_to_min"] < 50)
        self.assertEqual(len(found["frames"][0]["temp_c"]), Cells().rows)
        self.sign_in("weir chef")
        _, kitchen = self.k(
            "POST", "/ovens", {"name": "Deck", "dial_error_k": -12, "measured": True}
        )
        oven = kitchen["ovens"][-1]
        status, cool = self.k("POST", "/bake", self.asked({"oven_id": oven["id"]}))
        self.assertEqual(cool["oven"], "Deck")
        self.assertGreater(cool["found"]["pull_from_min"], found["pull_from_min"] + 2)

    def test_what_cannot_be_baked_is_said_at_its_field(self):
        for field, asked in (
            ("baking.set_c", self.asked({"set_c": 70})),
            ("vessel_key", self.asked(vessel_key="")),
            ("lines_text", self.asked(lines_text="1 l milk\n80 g sugar", family="")),
        ):
            status, body = self.k("POST", "/bake", asked)
            self.assertEqual((status, body["field"]), (422, field))

    def test_a_setting_for_the_oven_is_kept_with_the_version(self):
        self.sign_in("weir chef")
        _, version = self.k("GET", f"/desserts/{self.dessert.id}")
        version = version["parts"][0]["versions"][-1]
        content = self.content(baking={"set_c": 150, "doneness": "domed", "film": False})
        status, saved = self.k(
            "PUT",
            f"/versions/{version['id']}",
            {"revision": version["revision"], "content": content},
        )
        self.assertEqual(status, 200, saved)
        self.version.refresh_from_db()
        self.assertEqual(
            [self.version.baking[k] for k in ("set_c", "doneness", "film")], [150, "domed", False]
        )

    def test_the_cold_follows_the_refrigerator(self):
        status, plain = self.k("POST", "/cool", self.asked())
        self.assertEqual((status, plain["found"]["complies"]), (200, True))
        self.sign_in("weir chef")
        _, kitchen = self.k("POST", "/colds", {"name": "Tired", "kind": "still_fridge", "air_c": 7})
        tired = self.k("POST", "/cool", self.asked({"cold_id": kitchen["colds"][-1]["id"]}))[1]
        self.assertIsNone(tired["found"]["to_5_min"])
        self.assertFalse(tired["found"]["complies"])

    def test_a_walk_with_a_pan_of_water_makes_the_oven_known(self):
        # an open litre in half a gastronorm in an oven 9 K under its dial of 170 (computed once)
        water = [
            (0, 20),
            (300, 31.6),
            (600, 45.6),
            (900, 55.9),
            (1200, 63.2),
            (1500, 68.4),
            (1800, 72.1),
        ]
        body = {
            "set_c": 170,
            "readings": [{"t_s": t, "temp_c": c} for t, c in water],
            "shelf_c": 161,
        }
        status, out = self.k("POST", f"/ovens/{self.oven.id}/walk", body)
        self.assertEqual(status, 200, out)
        self.oven.refresh_from_db()
        self.assertTrue(self.oven.measured)
        self.assertAlmostEqual(float(self.oven.dial_error_k), out["found"]["offset_k"], delta=0.06)
        status, out = self.k("POST", f"/ovens/{self.oven.id}/walk", body | {"readings": []})
        self.assertEqual((status, out["field"]), (422, "readings"))

    def test_the_kitchens_own_cooling_rule_counts(self):
        self.sign_in("weir chef")
        strict = {"from_c": 60, "mid_c": 10, "mid_min": 45, "end_c": 5, "end_min": 90}
        status, kitchen = self.k("PATCH", "", {"cool_rule": strict})
        self.assertEqual((status, kitchen["cool_rule"]["mid_min"]), (200, 45))
        self.assertFalse(self.k("POST", "/cool", self.asked())[1]["found"]["complies"])

    def test_choosing_and_converting_store_nothing_and_answer(self):
        status, found = self.k("POST", "/bake/choose", self.asked() | {"within_min": 70})
        self.assertEqual((status, found["choices"][0]["chosen"]), (200, True))
        status, found = self.k("POST", "/bake/convert", self.asked())
        self.assertEqual((status, found["kind"]), (200, "fan"))
        self.assertTrue(115 < found["set_c"] < 160)


class LiveBakeTest(KitchenCase):
    def setUp(self):
        super().setUp()
        cache.clear()
        self.version.lines_text, self.version.family = FLAN, "creme_caramel"
        self.version.vessel_key, self.version.vessel_count = "ramekin_180", 6
        self.version.bath_level, self.version.fill_pct = "half", 95
        self.version.save()
        self.batch = self.start(place="oven")
        _, whole = self.k("GET", f"/batches/{self.batch}")
        self.plan = whole["plan"]

    def into_the_oven(self, minutes_ago):
        began = datetime.now(UTC) - timedelta(minutes=minutes_ago)
        Batch.objects.filter(pk=self.batch).update(started_at=began)
        self.event("step", began, step="cook")
        return began

    def pulled_at(self, out_s):
        """The bake, pulled so many seconds after it went in and ended a minute later."""
        batch = Batch.objects.get(pk=self.batch)
        for step, at_s in (("cook", 0), ("out", out_s)):
            Event.objects.create(
                id=new_id(), batch=batch, kind="step", step=step, cook_ms=round(1000 * at_s)
            )
        batch.ended_at = batch.started_at + timedelta(seconds=out_s + 60)
        batch.save()
        return batch

    def event(self, kind, at, **more):
        event = {"id": new_id(), "kind": kind, "at": at.isoformat(), **more}
        status, live = self.k("POST", f"/batches/{self.batch}/events", {"events": [event]})
        self.assertEqual(status, 200, live)
        return live

    def live(self):
        return self.k("GET", f"/batches/{self.batch}/live")[1]

    def test_what_is_drawn_is_ready_strained_and_made_up_before_it_is_poured(self):
        self.assertNotIn("strained:", " ".join(self.plan["checks"]))
        self.version.lines_text = f"{FLAN}\n14 g earl grey tea"
        self.version.save()
        _, whole = self.k("GET", f"/batches/{self.start(place='oven')}")
        self.assertEqual(
            whole["plan"]["checks"][0],
            "Drawn 4 to 6 min, lid on, and strained: tea. The liquid made up to 1031\u202fg: "
            "about 49\u202fg stay behind",
        )

    def test_a_cooler_oven_moves_the_window_while_it_bakes(self):
        began = self.into_the_oven(22)
        scene = next(s for s in self.plan["scenes"] if s["step"] == "cook")
        for point in scene["points"]:
            if point["t_s"] <= 22 * 60:
                at = began + timedelta(seconds=point["t_s"])
                self.event("typed", at, value=round(point["temp_c"], 1))
        step = next(s for s in self.plan["steps"] if s["key"] == "cook")
        live = self.live()
        self.assertAlmostEqual(live["refit"]["offset_k"], -6, delta=2)
        self.assertAlmostEqual(live["refit"]["start_c"], 18, delta=1)
        self.assertGreater(live["refit"]["from_s"], step["from_s"] + 60)
        self.assertLess(live["refit"]["after_rms_k"], live["refit"]["before_rms_k"])
        self.assertEqual(live["moment"]["headline"], "baking")

    def test_a_bake_pulled_in_its_window_teaches_by_its_minutes_without_any_probe(self):
        step = next(s for s in self.plan["steps"] if s["key"] == "cook")
        batch = self.pulled_at(step["to_s"])
        teach(batch)
        batch.refresh_from_db()
        self.assertAlmostEqual(batch.taught["bake_took_min"], step["to_s"] / 60, delta=0.1)
        middle = (step["from_s"] + step["to_s"]) / 120
        self.assertAlmostEqual(batch.taught["bake_predicted_min"], middle, delta=0.1)

    def test_a_forgotten_bake_teaches_what_its_probe_saw_and_not_how_late_it_was_pulled(self):
        scene = next(s for s in self.plan["scenes"] if s["step"] == "cook")  # 6 K too cool
        late = 2 * next(s["to_s"] for s in self.plan["steps"] if s["key"] == "cook")
        batch = self.pulled_at(late)
        teach(batch)
        batch.refresh_from_db()
        # Without a probe its time tells nothing: nobody pulled it by its sign.
        self.assertEqual(
            (batch.taught["bake_took_min"], batch.taught["offset_seen_k"]), (None, None)
        )
        Reading.objects.bulk_create(
            Reading(batch=batch, client_id=new_id(), at=batch.started_at, channel=1,
                    cook_ms=round(1000 * p["t_s"]), temp_cc=round(100 * p["temp_c"]))
            for p in scene["points"][:-1:2]
        )  # fmt: skip
        teach(batch)
        batch.refresh_from_db()
        self.assertAlmostEqual(batch.taught["offset_seen_k"], -6, delta=2)
        lesson = Lesson.objects.get(kind="oven")
        self.assertEqual(lesson.n, 1)
        self.assertAlmostEqual(lesson.mean, -6, delta=2)
        self.assertLess(lesson.sd, 4)

    def test_an_oven_whose_air_is_right_and_whose_custard_is_late_is_learned_to_blow_less(self):
        scene = next(s for s in self.plan["scenes"] if s["step"] == "cook")  # late: 6 K too cool
        step = next(s for s in self.plan["steps"] if s["key"] == "cook")
        batch = self.pulled_at(step["to_s"])
        inside = [p for p in scene["points"] if p["t_s"] < step["to_s"]]
        Reading.objects.bulk_create(
            Reading(batch=batch, client_id=new_id(), at=batch.started_at, channel=channel,
                    cook_ms=round(1000 * p["t_s"]) + channel, temp_cc=round(100 * c))
            for p in inside for channel, c in ((1, p["temp_c"]), (3, 160.0)) if p["t_s"] > 400
        )  # fmt: skip
        teach(batch)
        lessons = {x.kind: x for x in Lesson.objects.all()}
        self.assertLess(lessons["film"].mean, 0.97)
        self.assertEqual((lessons["film"].n, len(lessons["film"].seen)), (1, 1))
        self.assertAlmostEqual(lessons["oven"].mean, 0, delta=3)
        Lesson.objects.exclude(kind="film").delete()
        begun = Batch.objects.get(pk=self.start(place="oven")).prediction["plan"]
        later = next(s for s in begun["steps"] if s["key"] == "cook")
        self.assertGreater(later["from_s"], step["from_s"] + 30)
        self.assertEqual([x["kind"] for x in begun["learned"]], ["film"])

    def test_a_probe_in_the_ovens_air_tells_of_the_oven(self):
        began = self.into_the_oven(25)
        for n in range(12):
            Reading.objects.create(
                batch_id=self.batch, client_id=new_id(), at=began, temp_cc=14_900, channel=3,
                cook_ms=(14 + 0.5 * n) * 60_000,
            )  # fmt: skip
        self.assertAlmostEqual(self.live()["refit"]["offset_k"], 149 - 160, delta=1)

    def test_without_a_probe_a_look_at_the_wobble_moves_it_too(self):
        step = next(s for s in self.plan["steps"] if s["key"] == "cook")
        minutes = step["to_s"] / 60
        self.into_the_oven(minutes)
        before = self.live()
        self.assertEqual((before["refit"], before["moment"]["headline"]), (None, "pull it"))
        live = self.event("mark", datetime.now(UTC), step="disc_100")
        self.assertGreater(live["refit"]["from_s"], step["from_s"] + 60)
        self.assertIn(live["moment"]["headline"], ("soon", "baking"))

    def test_the_alarm_comes_before_the_window_and_grows_after_it(self):
        step = next(s for s in self.plan["steps"] if s["key"] == "cook")
        seen = []
        for minutes in (step["from_s"] / 60 - 10, step["from_s"] / 60 - 2, step["from_s"] / 60 + 1,
                        step["to_s"] / 60 + 5):  # fmt: skip
            Batch.objects.filter(pk=self.batch).update(
                started_at=datetime.now(UTC) - timedelta(minutes=minutes)
            )
            if not seen:
                self.event("step", Batch.objects.get(pk=self.batch).started_at, step="cook")
            seen.append(self.live()["moment"]["urgency"])
        self.assertEqual(seen, ["calm", "soon", "now", "wrong"])
