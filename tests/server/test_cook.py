import random
from datetime import UTC, datetime, timedelta
from unittest.mock import patch

from django.core.cache import cache

from batches.clock import course_of, curve_of, moment_of, safety_now, safety_of
from batches.models import Batch, Event, Reading
from batches.state import CookState, state_of
from devices.token import DeviceThrottle
from formulas.models import Version
from tests.server.base import KitchenCase, new_id


class CookTest(KitchenCase):
    def events(self, batch, *events):
        return self.k("POST", f"/batches/{batch}/events", {"events": list(events)})

    def event(self, kind, at=0.0, **more):
        return {"id": new_id(), "kind": kind, "at": self.now(at), **more}

    def test_a_cook_from_start_to_the_book(self):
        batch = self.start()
        step = self.event("step", step="cook")
        for _ in range(2):  # the same event again is the same event
            status, live = self.events(batch, step)
        self.assertEqual((status, live["step"]), (200, "cook"))
        self.assertEqual(Event.objects.filter(batch_id=batch).count(), 1)
        self.events(batch, self.event("typed", value=84.2))
        status, live = self.k("GET", f"/batches/{batch}/live")
        self.assertEqual(live["readings"][-1]["temp_c"], 84.2)
        self.assertEqual(live["moment"]["headline"], "thickening")
        self.events(batch, self.event("end"))
        status, done = self.k(
            "PUT",
            f"/batches/{batch}/verdict",
            {"texture": "pipe", "faults": ["lumps"], "note": "sieve it"},
        )
        self.assertEqual((status, done["verdict"]["texture"]), (200, "pipe"))
        status, book = self.k("GET", "/batches")
        self.assertEqual((book[0]["id"], book[0]["verdict"]["faults"]), (batch, ["lumps"]))
        self.assertEqual(book[0]["predicted_class"], "pipe")

    def test_the_prediction_is_frozen_when_the_cook_starts(self):
        batch = self.start()
        Version.objects.filter(pk=self.version.pk).update(lines_text="1 l milk")
        _, shown = self.k("GET", f"/batches/{batch}")
        self.assertEqual(shown["plan"]["steps"][-2]["key"], "cook")

    def test_eggs_from_the_fridge_today_are_no_new_version(self):
        self.sign_in("weir cook")
        warm = self.k("GET", f"/batches/{self.start()}")[1]["plan"]["ladder"]
        cold = self.k("GET", f"/batches/{self.start(today={'eggs_c': 3})}")[1]["plan"]["ladder"]
        self.assertEqual((warm["bowl_temp_c"], cold["bowl_temp_c"]), (18, 3))
        self.assertGreater(cold["first_safe_g"], warm["first_safe_g"])
        self.version.refresh_from_db()
        self.assertEqual((float(self.version.eggs_c), self.part.versions.count()), (18, 1))
        status, body = self.k(
            "POST",
            "/batches",
            {"id": new_id(), "version_id": str(self.version.id), "today": {"ring_id": 999_999}},
        )
        self.assertEqual((status, body["field"]), (422, "ring_id"))

    def test_readings_late_and_out_of_order_leave_the_cook_as_a_fresh_look_finds_it(self):
        batch = Batch.objects.get(pk=self.start())
        self.events(batch.pk, self.event("step", step="cook"))
        rng = random.Random(4)
        order = list(range(240))
        rng.shuffle(order)
        for chunk in (order[:90], order[90:95], order[95:]):
            Reading.objects.bulk_create(
                Reading(batch=batch, client_id=new_id(), at=batch.started_at, cook_ms=1000 * n,
                        temp_cc=round(100 * min(99.6, 60 + n / 3)) + rng.randint(-20, 20))
                for n in chunk
            )  # fmt: skip
            course = course_of(batch, batch.started_at + timedelta(seconds=240))
            kept, fresh = state_of(batch.pk), CookState(batch.pk)
            fresh.refresh()
            self.assertEqual(kept.curve, fresh.curve)
            self.assertEqual(kept.curve, curve_of(batch))
            self.assertEqual(moment_of(course, kept), moment_of(course, fresh))
            self.assertEqual(safety_now(course, kept), safety_of(course, curve_of(batch)))
        self.assertGreater(moment_of(course, kept).figure, 95)

    def test_a_row_numbered_before_those_already_seen_is_found_when_it_can_be(self):
        batch = Batch.objects.get(pk=self.start())

        def keep(number, second):
            Reading.objects.create(
                id=number, batch=batch, client_id=new_id(), at=batch.started_at,
                cook_ms=1000 * second, temp_cc=6000 + second,
            )  # fmt: skip

        with patch("batches.state.SETTLED_S", 1e9):  # however long this machine takes over it
            keep(5_000_002, 2)
            self.assertEqual(len(state_of(batch.pk).curve), 1)
            keep(5_000_001, 1)  # another connection had taken its number, and finished later
            self.assertEqual([t for t, _ in state_of(batch.pk).curve], [1, 2])

    def test_cooks_are_remembered_until_they_are_too_many_the_latest_asked_for_last(self):
        one, two = (Batch.objects.get(pk=self.start()) for _ in range(2))
        for n, batch in enumerate((one, two)):
            Reading.objects.create(batch=batch, client_id=new_id(), at=batch.started_at,
                                   cook_ms=n, temp_cc=6000)  # fmt: skip
        known = state_of(one.pk), state_of(two.pk)
        self.assertEqual((state_of(one.pk), state_of(two.pk)), known)
        with patch("batches.state.MOST_READINGS", 1):
            self.assertIs(state_of(two.pk), known[1])
        self.assertIsNot(state_of(one.pk), known[0])

    def test_two_verdicts_at_once_are_both_kept(self):
        batch = self.start()
        path, first = f"/batches/{batch}/verdict", {"texture": "pipe", "faults": [], "note": "a"}
        self.assertEqual(self.k("PUT", path, first)[0], 200)
        self.assertEqual(self.k("PUT", path, first)[0], 200)  # the same again
        status, conflict = self.k("PUT", path, {**first, "note": "b"})
        self.assertEqual((status, conflict["theirs"]["note"]), (409, "a"))
        self.assertEqual(self.k("PUT", path, {**first, "note": "b", "revision": 1})[0], 200)

    def test_events_kept_back_while_the_server_was_away_land_at_their_own_time(self):
        batch = self.start()
        Batch.objects.filter(pk=batch).update(started_at=datetime.now(UTC) - timedelta(minutes=10))
        self.events(
            batch, self.event("step", at=-120, step="heat"), self.event("step", step="cook")
        )
        _, shown = self.k("GET", f"/batches/{batch}")
        heat = next(t for t in shown["timings"] if t["key"] == "heat")
        self.assertAlmostEqual(heat["left_s"] - heat["entered_s"], 120, delta=2)

    def test_moves_at_one_moment_keep_the_order_they_were_made_in(self):
        batch = self.start()
        keys = ("heat", "temper", "cook") * 4
        ahead = datetime.now(UTC) + timedelta(minutes=9)  # a tablet whose clock runs ahead
        for at in (ahead, ahead - timedelta(minutes=2)):
            for key in keys:
                move = {"id": new_id(), "kind": "step", "at": at.isoformat(), "step": key}
                _, live = self.events(batch, move)
                self.assertEqual(live["step"], key)

    def test_nonsense_events_are_refused_with_a_sentence(self):
        batch = self.start()
        bad = (
            self.event("step", step="flambé"),
            self.event("step", at=90_000, step="heat"),
            {"id": new_id(), "kind": "step", "step": "heat", "at": "2026-11-25T10:00:00"},
            self.event("typed", value=900),
            self.event("flambé"),
            {"kind": "pause"},
            "text",
        )
        good = self.event("step", step="heat")
        status, live = self.events(batch, *bad, good)
        self.assertEqual((status, live["step"], len(live["refused"])), (200, "heat", len(bad)))
        self.assertEqual([r["id"] for r in live["refused"][:2]], [bad[0]["id"], bad[1]["id"]])
        self.assertIn("flambé", live["refused"][0]["message"])
        self.assertIn("clock", live["refused"][1]["message"])
        self.assertEqual(
            self.k("PUT", f"/batches/{batch}/verdict", {"texture": "pipe", "faults": ["haunted"]})[
                0
            ],
            422,
        )

    def test_one_probe_is_in_one_pot_and_only_a_simulated_one_runs_fast(self):
        probe = str(self.device.id)
        self.start(device_id=probe, time_scale=20)
        status, body = self.k(
            "POST",
            "/batches",
            {"id": new_id(), "version_id": str(self.version.id), "device_id": probe},
        )
        self.assertEqual(status, 422)
        self.assertIn("in another pot", body["message"])
        status, body = self.k(
            "POST",
            "/batches",
            {"id": new_id(), "version_id": str(self.version.id), "time_scale": 20},
        )
        self.assertEqual(status, 422)


class IngestTest(KitchenCase):
    def setUp(self):
        super().setUp()
        cache.clear()
        self.batch = self.start(device_id=str(self.device.id))

    def send(self, *readings, token=None):
        return self.device_call("POST", "/readings", {"readings": list(readings)}, token)

    def reading(self, temp_c=60.0, at=0.0, **more):
        return {"id": new_id(), "at": self.now(at), "temp_c": temp_c, **more}

    def test_readings_arrive_once_however_often_they_are_sent(self):
        readings = [self.reading(60 + n) for n in range(5)]
        self.assertEqual(self.send(*readings)[1]["kept"], 5)
        self.assertEqual(
            self.send(*readings)[1], {"kept": 0, "already_there": 5, "on_no_cook": 0, "refused": []}
        )
        self.assertEqual(Reading.objects.filter(batch_id=self.batch).count(), 5)

    def test_nonsense_is_refused_by_name_and_spoils_nothing_else(self):
        bad = [
            self.reading("hot"),
            self.reading(float("nan")),
            self.reading(9000),
            self.reading(at=3600),
            {"at": self.now(), "temp_c": 60},
            "text",
            {"id": new_id(), "at": "yesterday", "temp_c": 60},
            {"id": new_id(), "at": "2026-11-25T10:00:00", "temp_c": 60},
            self.reading(True),
        ]
        status, body = self.send(*bad, self.reading(61))
        self.assertEqual((status, body["kept"], len(body["refused"])), (200, 1, len(bad)))
        said = [r["message"] for r in body["refused"]]
        self.device.refresh_from_db()
        self.assertEqual(self.device.refused, said[-1])
        self.assertIn("future", said[3])
        self.assertIn("no temperature", said[1])
        self.assertEqual(Reading.objects.filter(batch_id=self.batch).count(), 1)

    def test_only_a_known_token_gets_in(self):
        self.assertEqual(self.send(self.reading(), token="guess")[0], 401)
        self.assertEqual(self.device_call("GET", "", token=self.device.token_hash)[0], 401)

    def test_too_much_at_once_is_refused_with_the_limit(self):
        status, body = self.send(*[self.reading() for _ in range(501)])
        self.assertEqual(status, 413)
        status, body = self.device_call("POST", "/readings", {"readings": ["x" * 70_000]})
        self.assertEqual((status, "64 kB" in body["message"]), (413, True))
        self.assertEqual(self.device_call("POST", "/readings", {"r": 1})[0], 422)

    def test_a_device_that_floods_is_slowed_down(self):
        # All in one minute of the throttle's clock, however long a machine takes over them.
        with patch.object(DeviceThrottle, "timer", lambda _: 1000.0):
            codes = [self.device_call("GET", "")[0] for _ in range(380)]
        self.assertEqual(codes, [200] * 360 + [429] * 20)
        with patch.object(DeviceThrottle, "timer", lambda _: 1061.0):
            self.assertEqual(self.device_call("GET", "")[0], 200)

    def test_late_readings_find_the_cook_they_were_taken_in(self):
        late = self.reading(70)
        self.k(
            "POST",
            f"/batches/{self.batch}/events",
            {"events": [{"id": new_id(), "kind": "end", "at": self.now(1)}]},
        )
        after = self.reading(20, at=10)
        _, body = self.send(late, after)
        self.assertEqual((body["kept"], body["on_no_cook"]), (1, 1))

    def test_a_cook_nobody_ended_takes_no_readings_after_a_day(self):
        Batch.objects.filter(pk=self.batch).update(
            started_at=datetime.now(UTC) - timedelta(hours=25)
        )
        self.assertEqual(self.send(self.reading(30))[1]["on_no_cook"], 1)
        self.assertIsNone(self.device_call("GET", "")[1]["batch_id"])
        # Ten times as fast a day is over ten times as soon.
        Batch.objects.filter(pk=self.batch).update(
            started_at=datetime.now(UTC) - timedelta(hours=3), time_scale=10
        )
        self.assertEqual(self.send(self.reading(30))[1]["on_no_cook"], 1)

    def test_a_device_learns_its_cook_and_a_real_one_no_pretence(self):
        _, where = self.device_call("GET", "")
        self.assertEqual((where["batch_id"], where["step"]), (self.batch, "ready"))
        self.k(
            "POST",
            f"/batches/{self.batch}/events",
            {"events": [{"id": new_id(), "kind": "step", "step": "heat", "at": self.now()}]},
        )
        self.assertIsNotNone(self.device_call("GET", "")[1]["scene"])
        self.device.simulated = False
        self.device.save()
        self.assertIsNone(self.device_call("GET", "")[1]["scene"])

    def test_a_token_is_shown_once_and_never_stored(self):
        device = {"id": new_id(), "name": "second probe"}
        _, first = self.k("POST", "/devices", device)
        _, again = self.k("POST", "/devices", device)
        self.assertEqual((len(first["token"]) > 40, again["token"]), (True, None))
        self.assertEqual(self.device_call("GET", "", token=first["token"])[0], 200)
        _, listed = self.k("GET", "/devices")
        self.assertNotIn(first["token"], str(listed))


class WhyTest(KitchenCase):
    def test_a_judged_batch_gets_its_causes_and_one_left_in_peace_none(self):
        batch = self.start()
        moves = [
            {"id": new_id(), "kind": "step", "step": "cook", "at": self.now(0)},
            *(
                {"id": new_id(), "kind": "typed", "value": 80 + n, "at": self.now(10 * n)}
                for n in range(1, 12)
            ),
            {"id": new_id(), "kind": "end", "at": self.now(130)},
        ]
        self.k("POST", f"/batches/{batch}/events", {"events": moves})
        status, none = self.k("GET", f"/batches/{batch}/why")
        self.assertEqual((status, none["causes"]), (200, []))
        self.k(
            "PUT",
            f"/batches/{batch}/verdict",
            {"texture": "spoon", "faults": ["too_thin"], "note": ""},
        )
        status, why = self.k("GET", f"/batches/{batch}/why")
        self.assertEqual(status, 200)
        first = why["causes"][0]
        self.assertEqual(first["cause"], "boil_not_reached_or_hold")
        self.assertIn("it stayed under 92\u202f°C, or was held less than 30 s", first["for"])
        self.assertGreater(first["probability"], 0.5)

    def test_eggs_of_another_grade_and_a_ring_that_is_another_one_are_said(self):
        batch = Batch.objects.get(pk=self.start(today={"egg_grade": "US small"}))
        heat = batch.prediction["plan"]["heat"]["points"]
        for step, at in (("heat", 0), ("temper", 3 * heat[-1]["t_s"])):
            Event.objects.create(
                id=new_id(), batch=batch, kind="step", step=step, cook_ms=round(1000 * at)
            )
        Reading.objects.bulk_create(
            Reading(batch=batch, client_id=new_id(), at=batch.started_at, channel=1,
                    cook_ms=round(3000 * p["t_s"]), temp_cc=round(100 * p["temp_c"]))
            for p in heat
        )  # fmt: skip
        happened = self.k("GET", f"/batches/{batch.pk}/why")[1]["happened"]
        told = {h["code"]: h["words"] for h in happened}
        self.assertIn("less egg", told["other_eggs"])
        self.assertIn("another ring", told["other_ring"])
        weights = [h["weight"] for h in happened]
        self.assertEqual(weights, sorted(weights, reverse=True))
