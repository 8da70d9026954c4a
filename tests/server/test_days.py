from datetime import UTC, datetime, timedelta

from days.models import RunningDay, Tick
from kitchen.models import Vessel
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
        for edge in ("hands_end", "end"):  # forty minutes late with all it has
            slid = datetime.fromisoformat(begun[edge]) - datetime.fromisoformat(first[edge])
            self.assertEqual(slid, timedelta(minutes=40), edge)
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

    def test_a_step_opens_its_dessert_whatever_that_is_called(self):
        self.dessert.name = "Half · half / tart"
        self.dessert.save()
        made = self.begun()[1]
        self.assertTrue(made["plan"]["steps"])
        for step in made["plan"]["steps"]:
            self.assertEqual(step["desserts"], ["Half · half / tart"])
            self.assertEqual(made["opens"][step["key"]]["dessert_id"], str(self.dessert.id))
        ring = next(s for s in made["plan"]["steps"] if "ring" in s["where"])
        self.assertEqual(made["opens"][ring["key"]]["part_id"], str(self.part.id))

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

    def finish(self, day, steps, factor):
        """Tick every step: begun as planned, over after so many times what was planned."""
        for step in steps:
            start = datetime.fromisoformat(step["start"])
            long = factor * (datetime.fromisoformat(step["end"]) - start)
            self.tick(day, step["key"], "begin", start.isoformat())
            self.tick(day, step["key"], "done", (start + long).isoformat()[:19])
        self.k("POST", f"/days/{day}/end")

    def test_what_steps_really_took_is_how_the_next_day_is_planned(self):
        day, made = self.begun()
        self.finish(day, made["plan"]["steps"], 1.5)
        status, plan = self.k("POST", "/day/plan", made["ask"])
        self.assertEqual((status, plan["feasible"]), (200, True))
        was = {s["key"]: s for s in made["plan"]["steps"]}
        now = {s["key"]: s for s in plan["steps"]}
        long = {k for k, s in was.items() if minutes(s) >= 10}
        for key in long:
            self.assertEqual(now[key]["own_seen"], 1)
            # One day seen, and the table as one more: half way, by the geometric mean.
            self.assertAlmostEqual(minutes(now[key]) / minutes(was[key]), 1.5**0.5, delta=0.15)
        # The same again moves it by less, and to the truth: what is learned is of the table.
        day, made = self.begun()
        self.finish(day, made["plan"]["steps"], 1.5 / 1.5**0.5)
        _, plan = self.k("POST", "/day/plan", made["ask"])
        key = max(long, key=lambda k: minutes(was[k]))
        again = next(s for s in plan["steps"] if s["key"] == key)
        self.assertEqual(again["own_seen"], 2)
        self.assertAlmostEqual(minutes(again) / minutes(was[key]), 1.5 ** (2 / 3), delta=0.1)

    def test_a_cook_of_a_days_step_ticks_it_when_it_begins_and_when_it_ends(self):
        day, made = self.begun()
        step = next(s for s in made["plan"]["steps"] if "ring" in s["where"])
        opens = made["opens"][step["key"]]
        self.assertEqual((opens["place"], opens["part_id"]), ("stove", str(self.part.id)))
        local = (datetime.now(UTC) + timedelta(hours=2)).replace(tzinfo=None)
        batch = self.start(for_day={"id": day, "step": step["key"], "at": local.isoformat()})
        state = self.states(day)
        self.assertEqual(state[step["key"]], "begun")
        event = {"id": new_id(), "kind": "end", "at": self.now()}
        self.k("POST", f"/batches/{batch}/events", {"events": [event]})
        self.assertEqual(self.states(day)[step["key"]], "done")
        _, times = self.k("GET", f"/days/{day}/times")
        real = next(t for t in times if t["key"] == step["key"])
        began = datetime.fromisoformat(real["real_start"])
        self.assertLess(abs((began - local).total_seconds()), 60)
        # Taken back by hand it is to be done again.
        self.tick(day, step["key"], "undo", (local + timedelta(minutes=1)).isoformat()[:19])
        self.assertEqual(self.states(day)[step["key"]], "to_do")

    def states(self, day):
        return {s["key"]: s["state"] for s in self.k("GET", f"/days/{day}")[1]["plan"]["steps"]}

    def test_a_day_goes_out_as_a_file_and_comes_in_by_the_names_of_its_desserts(self):
        day, made = self.begun()
        status, file = self.k("GET", f"/days/{day}/file")
        self.assertEqual((status, file["format"]), (200, "bell-crumb-day"))
        self.assertEqual(file["services"][0]["items"][0]["dessert"], self.dessert.name)
        self.assertEqual(len(file["plan"]["steps"]), len(made["plan"]["steps"]))
        status, read = self.k("POST", "/day/read", file)
        self.assertEqual((status, read["missing"]), (200, []))
        self.assertEqual(read["ask"]["services"], made["ask"]["services"])
        file["services"][0]["items"].append({"dessert": "Nobody's pie", "portions": 4})
        self.assertEqual(self.k("POST", "/day/read", file)[1]["missing"], ["Nobody's pie"])
        file["format"] = "another"
        self.assertEqual(self.k("POST", "/day/read", file)[0], 422)

    def test_a_usual_day_is_written_down_once_and_is_this_kitchens_own(self):
        _, made = self.begun()
        file = self.k("POST", "/day/file", made["ask"])[1]
        usual = new_id()
        for _ in range(2):
            path = f"/day/usual/{usual}"
            status, days = self.k("PUT", path, {"name": "A Friday", "file": file})
        self.assertEqual((status, [d["name"] for d in days]), (200, ["A Friday"]))
        status, body = self.k("PUT", f"/day/usual/{new_id()}", {"name": "A Friday", "file": file})
        self.assertEqual((status, body["field"]), (422, "name"))
        self.assertEqual(self.k("GET", "/day/usual")[1], days)
        self.assertEqual(self.k("DELETE", f"/day/usual/{usual}")[1], [])

    def test_moulds_that_were_counted_and_what_is_in_the_house_count(self):
        vessel = Vessel.objects.create(
            kitchen=self.kitchens["weir"], name="Cup", top_dmm=700, bottom_dmm=700, depth_dmm=600,
            count=20,
        )  # fmt: skip
        self.dessert.build = {"vessel_key": str(vessel.id), "count": 12, "portions_each": 1}
        self.dessert.save()
        _, made = self.begun()
        ask = {**made["ask"], "house": "12 eggs\n10 l whole milk"}
        ask["services"][0]["items"][0]["portions"] = 12
        plan = self.k("POST", "/day/plan", ask)[1]
        self.assertEqual([(m["used"], m["have"]) for m in plan["moulds"]], [(12, 20)])
        milk = next(b for b in plan["buy"] if b["ingredient"] == "milk_whole")
        self.assertEqual(milk["buy_g"], 0)
        ask["house"] = "12 something nobody knows"
        self.assertEqual(self.k("POST", "/day/plan", ask)[0], 200)


def minutes(step):
    start, end = (datetime.fromisoformat(step[k]) for k in ("start", "end"))
    return (end - start).total_seconds() / 60
