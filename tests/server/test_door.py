"""The devices' door under what real devices do: nonsense, being behind, many starts at once."""

import json
import threading
from datetime import UTC, datetime, timedelta

from django.core.cache import cache
from django.db import connection
from django.test import TransactionTestCase, override_settings
from django.test.utils import CaptureQueriesContext
from ninja.errors import HttpError

from batches.holding import cook_at
from batches.models import Batch, Reading
from devices.models import Device
from ops.mariadb import free_port
from shared import heavy
from tests.server.base import KitchenCase, KitchenSetUp, new_id


class DoorTest(KitchenCase):
    def setUp(self):
        super().setUp()
        cache.clear()
        self.batch = self.start(device_id=str(self.device.id))

    def reading(self, **more):
        return {"id": new_id(), "at": self.now(), "temp_c": 61.0, **more}

    def raw(self, text):
        answer = self.client.post(
            "/api/device/readings", text, content_type="application/json",
            headers={"Authorization": f"Bearer {self.token}"},
        )  # fmt: skip
        return answer.status_code, answer.json()

    def test_one_bad_reading_is_refused_by_name_and_the_rest_is_taken(self):
        bad = (
            {"at": "0001-01-01T00:00:00+14:00"}, {"at": "9999-12-31T23:59:59-14:00"},
            {"temp_c": 10**400}, {"temp_c": None}, {"channel": 0}, {"channel": [1]},
            {"channel": {"a": 1}}, {"channel": True}, {"channel": 1.5}, {"channel": "1"},
            {"grams": 10**400}, {"grams": "much"}, {"id": None}, {"id": {"a": 1}}, {"at": 5},
        )  # fmt: skip
        for odd in bad:
            with self.subTest(str(odd)[:40]):
                body = {"readings": [self.reading(**odd), self.reading()]}
                status, said = self.device_call("POST", "/readings", body)
                self.assertEqual((status, said["kept"], len(said["refused"])), (200, 1, 1), said)
                self.assertGreater(len(said["refused"][0]["message"]), 10)

    def test_a_shared_cache_that_is_away_keeps_no_reading_out(self):
        nobody = {"BACKEND": "shared.cache.SharedCache",
                  "LOCATION": f"redis://127.0.0.1:{free_port()}/0"}  # fmt: skip
        with self.settings(CACHES={"default": nobody}), self.assertLogs("shared.cache"):
            status, said = self.device_call("POST", "/readings", {"readings": [self.reading()]})
        self.assertEqual((status, said["kept"]), (200, 1))

    def test_numbers_no_json_reader_likes_spoil_only_their_own_reading(self):
        for number in ("9" * 6000, "1e400", "NaN", "-Infinity"):
            good = self.reading()
            text = (
                f'{{"readings": [{{"id": "{new_id()}", "at": "{self.now()}", "temp_c": {number}}},'
                f'{{"id": "{good["id"]}", "at": "{good["at"]}", "temp_c": 60}}]}}'
            )
            status, said = self.raw(text)
            self.assertEqual((status, said["kept"], len(said["refused"])), (200, 1, 1), number[:9])

    def test_what_is_no_post_of_readings_is_refused_whole(self):
        for text in ("[" * 5000, "{}", "null", '{"readings": 5}', "\xff"):
            self.assertEqual(self.raw(text)[0], 422, text[:9])

    def test_a_device_that_is_behind_catches_up(self):
        """Two hours of readings in posts of 500; the rate is in the bench, here that it is bulk."""
        began = datetime.now(UTC) - timedelta(hours=2)
        Batch.objects.filter(pk=self.batch).update(started_at=began)
        posts = [
            [self.reading(at=(began + timedelta(seconds=p * 500 + n)).isoformat(), temp_c=40 + p)
             for n in range(500)]
            for p in range(6)
        ]  # fmt: skip
        with CaptureQueriesContext(connection) as asked:
            self.device_call("POST", "/readings", {"readings": posts[0]})
        self.assertLess(len(asked), 16, "as many questions to the store as for one reading")
        for post in posts[1:]:
            self.assertEqual(self.device_call("POST", "/readings", {"readings": post})[0], 200)
        self.assertEqual(Reading.objects.filter(batch=self.batch).count(), 3000)
        self.assertEqual(Batch.objects.get(pk=self.batch).peak_cc, 4500)
        again = self.device_call("POST", "/readings", {"readings": posts[3]})[1]
        self.assertEqual((again["kept"], again["already_there"]), (0, 500))

    def test_what_was_measured_belongs_to_the_cook_that_was_going_then(self):
        began = datetime.now(UTC) - timedelta(hours=3)
        first = Batch(started_at=began, ended_at=began + timedelta(hours=1))
        second = Batch(started_at=began + timedelta(hours=2))
        for minute, cook in ((-1, None), (30, first), (60, first), (61, None), (121, second)):
            at = began + timedelta(minutes=minute)
            self.assertIs(cook_at([second, first], at), cook, minute)

    def test_a_cook_nobody_ended_gives_its_probe_free_after_a_day(self):
        old = datetime.now(UTC) - timedelta(hours=25)
        Batch.objects.filter(pk=self.batch).update(started_at=old)
        self.start(device_id=str(self.device.id))
        ended = Batch.objects.get(pk=self.batch).ended_at
        self.assertEqual(ended, old)  # nothing was measured in it: over when it began


@override_settings(PASSWORD_HASHERS=["django.contrib.auth.hashers.MD5PasswordHasher"])
class AtOnceTest(KitchenSetUp, TransactionTestCase):
    """What only shows when several come at the same moment, each with its own connection."""

    def at_once(self, jobs):
        gate, answers = threading.Barrier(len(jobs)), []

        def run(job):
            try:
                gate.wait(120)
                answers.append(job())
            finally:
                connection.close()

        threads = [threading.Thread(target=run, args=(job,)) for job in jobs]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        return answers

    def post(self, path, body, method="POST"):
        client = self.signed_in("weir chef")
        return lambda: client.generic(
            method, f"/api/k/{self.kid}{path}", body, content_type="application/json"
        )

    def test_six_starts_at_once_give_one_probe_one_cook_and_one_scale_one(self):
        scale = Device.objects.create(
            kitchen=self.kitchens["weir"], name="scale", kind="scale", token_hash="x"
        )
        for field, device in (("device_id", self.device), ("scale_id", scale)):
            bodies = [
                json.dumps(
                    {"id": new_id(), "version_id": str(self.version.id), field: str(device.id)}
                )
                for _ in range(6)
            ]
            codes = sorted(
                a.status_code for a in self.at_once([self.post("/batches", b) for b in bodies])
            )
            self.assertEqual(codes, [200, 422, 422, 422, 422, 422], field)

    def test_the_same_call_twice_at_once_counts_once_and_fails_for_nobody(self):
        content = '{"lines_text": "1 l milk"}'
        batch, device = self.start(), new_id()
        dessert, part, version = new_id(), new_id(), new_id()
        keep = (
            f'{{"desserts": [{{"id": "{new_id()}", "name": "Hay", "parts": '
            f'[{{"kind": "cream", "name": "c", "versions": [{content}]}}]}}]}}'
        )
        event = f'{{"events": [{{"id": "{new_id()}", "kind": "pause", "at": "{self.now()}"}}]}}'
        verdict = '{"texture": "pipe", "faults": [], "note": "a"}'
        calls = (
            ("/desserts", f'{{"id": "{dessert}", "part_id": "{part}", "version_id": "{version}", '
                          '"name": "Bay"}', "POST"),
            (f"/parts/{self.part.id}/versions", f'{{"id": "{new_id()}", "content": {content}}}',
             "POST"),
            ("/import/keep", keep, "POST"),
            (f"/prices/{new_id()}", '{"line": "1 kg sugar", "price": 2}', "PUT"),
            (f"/batches/{batch}/events", event, "POST"),
            (f"/batches/{batch}/verdict", verdict, "PUT"),
            ("/devices", f'{{"id": "{device}", "name": "second"}}', "POST"),
        )  # fmt: skip
        for path, body, method in calls:
            with self.subTest(path):
                answers = self.at_once([self.post(path, body, method) for _ in range(4)])
                self.assertEqual([a.status_code for a in answers], [200] * 4,
                                 [a.content[:200] for a in answers])  # fmt: skip
        self.assertEqual(self.part.versions.count(), 2)

    def test_a_turn_at_heavy_work_comes_one_at_a_time_and_nobody_queues_for_ever(self):
        busy, most, done, refused, lock = [0], [0], [], [], threading.Lock()

        def ask(who):
            try:
                with heavy.turn(who):
                    with lock:
                        busy[0] += 1
                        most[0] = max(most[0], busy[0])
                    with lock:
                        busy[0] -= 1
                    done.append(who)
            except HttpError:
                refused.append(who)

        self.at_once([lambda w=w: ask(w) for w in "abcdef"])
        self.assertEqual((sorted(done), most[0]), (list("abcdef"), 1))
        with heavy.turn("a"):
            with self.assertRaises(HttpError) as caught, heavy.turn("b", patience_s=0.01):
                pass
            self.assertEqual(caught.exception.status_code, 429)
            with heavy._counting:
                heavy._waiting["a"] = heavy.EACH
            ask("a")
            with heavy._counting:
                heavy._waiting["a"] = 1
        self.assertEqual(refused, ["a"])
        ask("a")
        self.assertEqual(done[-1], "a")
