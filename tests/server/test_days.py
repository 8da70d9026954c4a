from datetime import datetime, timedelta

from days.models import RunningDay, Tick
from tests.server.base import KitchenCase, new_id


class DaysTest(KitchenCase):
    def begun(self, **more):
        day = new_id()
        ask = {
            "begins": "2026-11-28T06:00:00",
            "services": [{
                "at": "2026-11-28T19:00:00",
                "items": [{"dessert_id": str(self.dessert.id), "portions": 16}],
            }],
            "people": [{"name": "Early cook", "from_min": 360, "to_min": 1140}],
        }  # fmt: skip
        status, made = self.k("POST", "/days", {"id": day, "ask": ask, **more})
        self.assertEqual(status, 200, made)
        return day, made

    def tick(self, day, key, kind, at, tick_id=None):
        tick = {"id": tick_id or new_id(), "key": key, "kind": kind, "at": at}
        return self.k("POST", f"/days/{day}/ticks", {"ticks": [tick]})

    def test_a_day_is_begun_ticked_and_planned_again_without_moving_what_has_begun(self):
        day, made = self.begun()
        first = made["plan"]["steps"][0]
        again = self.k("POST", "/days", {"id": day, "ask": made["ask"]})[1]
        self.assertEqual((again["id"], RunningDay.objects.count()), (day, 1))
        late = datetime.fromisoformat(first["start"]) + timedelta(minutes=40)
        twice = new_id()
        for _ in range(2):
            status, now = self.tick(day, first["key"], "begin", late.isoformat(), twice)
        self.assertEqual((status, Tick.objects.count()), (200, 1))
        begun = next(s for s in now["plan"]["steps"] if s["key"] == first["key"])
        self.assertEqual((begun["state"], begun["start"]), ("begun", late.isoformat()))
        status, moved = self.k("POST", f"/days/{day}/again", {"at": late.isoformat()})
        self.assertEqual((status, moved["revision"]), (200, 2))
        steps = {s["key"]: s for s in moved["plan"]["steps"]}
        self.assertEqual(steps[first["key"]]["start"], late.isoformat())
        rest = [s for s in steps.values() if s["state"] == "to_do"]
        self.assertTrue(rest)
        self.assertTrue(all(s["start"] >= late.isoformat() for s in rest))
        done = late + timedelta(minutes=9)
        self.tick(day, first["key"], "done", done.isoformat())
        _, times = self.k("GET", f"/days/{day}/times")
        real = next(t for t in times if t["key"] == first["key"])
        self.assertEqual((real["real_min"], real["planned_start"]), (9, first["start"]))
        _, shown = self.tick(day, first["key"], "undo", done.isoformat())
        state = next(s["state"] for s in shown["plan"]["steps"] if s["key"] == first["key"])
        self.assertEqual(state, "to_do")

    def test_a_pin_is_kept_and_a_pin_in_the_past_is_refused_at_its_field(self):
        day, made = self.begun()
        step = made["plan"]["steps"][0]
        earlier = datetime.fromisoformat(step["start"]) - timedelta(minutes=15)
        pin = {"key": step["key"], "at": earlier.isoformat()}
        at = made["ask"]["begins"]
        status, moved = self.k("POST", f"/days/{day}/again", {"at": at, "pins": [pin]})
        pinned = next(s for s in moved["plan"]["steps"] if s["key"] == step["key"])
        self.assertEqual((status, pinned["state"]), (200, "pinned"))
        self.assertEqual(pinned["start"], earlier.isoformat())
        self.assertIn(step["key"], {c["key"] for c in moved["changes"]})
        noon = "2026-11-28T18:30:00"
        status, body = self.k("POST", f"/days/{day}/again", {"at": noon, "pins": [pin]})
        self.assertEqual((status, body["field"]), (422, "pins[0].at"))

    def test_the_calendar_has_every_step_still_to_do_and_the_list_the_next_three(self):
        day, made = self.begun()
        keys = [s["key"] for s in made["plan"]["steps"]]
        self.tick(day, keys[0], "done", made["plan"]["steps"][0]["end"])
        answer = self.client.get(f"/api/k/{self.kid}/days/{day}/calendar")
        text = answer.content.decode()
        self.assertEqual(answer["Content-Type"], "text/calendar")
        self.assertEqual(text.count("BEGIN:VEVENT"), len(keys) - 1)
        self.assertEqual(text.count("BEGIN:VALARM"), len(keys) - 1)
        card = self.k("GET", "/days?running=true")[1][0]
        self.assertEqual((card["steps"], card["done"]), (len(keys), 1))
        self.assertEqual([n["key"] for n in card["next"]], keys[1:4])
        self.k("POST", f"/days/{day}/end")
        self.assertEqual(self.k("GET", "/days?running=true")[1], [])
        status, body = self.k("POST", f"/days/{day}/again", {"at": made["ask"]["begins"]})
        self.assertEqual((status, body["message"]), (422, "This day is over."))
