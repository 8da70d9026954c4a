import json
import uuid
from datetime import timedelta
from pathlib import Path

from django.core.files.uploadedfile import SimpleUploadedFile

from batches.clock import plan_of_batch
from batches.models import Batch, Reading
from devices.models import Device
from formulas.models import Part, Version
from tests.server.base import KitchenCase, new_id

# Plans as a release of November 2026 stored them, one of each kind, their curves cut short.
KEPT = Path(__file__).with_name("plans_kept.jsonl")


class StoveCase(KitchenCase):
    def events(self, batch, *events):
        body = {
            "events": [
                {"id": new_id(), "kind": kind, "step": step, "at": self.now(), "value": value}
                for kind, step, value in events
            ]
        }
        status, live = self.k("POST", f"/batches/{batch}/events", body)
        self.assertEqual(status, 200, live)
        return live

    def back_in_time(self, batch, seconds):
        Batch.objects.filter(pk=batch).update(
            started_at=Batch.objects.get(pk=batch).started_at - timedelta(seconds=seconds)
        )


class GuideTest(StoveCase):
    def plan(self, kind, lines, **content):
        ask = {"content": self.content(lines_text=lines, **content), "kind": kind}
        return self.k("POST", "/plan", ask)

    def test_every_kind_of_part_gets_its_guide(self):
        for kind, lines, guide in (
            ("caramel", "300 g sugar\n90 g water", "caramel"),
            ("meringue", "6 whites\n400 g sugar\n120 g water", "italian"),
            ("meringue", "6 whites\n380 g sugar", "swiss"),
            ("cream", "500 g cream 35%\n40 g icing sugar", "whipped"),
            ("glaze", "300 g cream 35%\n300 g dark chocolate 65%", "ganache"),
            ("filling", "400 g condensed milk\n110 g lime juice\n3 yolks", "citrus_mix"),
            ("filling", "1 l whole milk\n9 yolks\n150 g sugar\n85 g corn starch", "custard"),
        ):
            with self.subTest(guide):
                status, plan = self.plan(kind, lines)
                self.assertEqual((status, plan.get("guide")), (200, guide), plan)
                self.assertTrue(plan["checks"])
                aim = plan["aim"]  # what a cook may ask for, the usual one in it
                self.assertEqual(bool(aim), guide in ("caramel", "italian", "swiss"))
                if aim:
                    self.assertTrue(aim["low_c"] < aim["usual_c"] < aim["high_c"])
                    for c in (aim["low_c"], aim["high_c"]):
                        self.assertEqual(self.plan(kind, lines, target_c=c)[0], 200, c)
        status, plan = self.plan("meringue", "6 whites\n380 g sugar", method="french")
        self.assertEqual(plan["guide"], "french")
        status, body = self.plan("caramel", "100 g water")
        self.assertEqual((status, body["field"]), (422, "lines_text"))

    def test_a_caramel_is_cooked_and_kept_like_any_batch(self):
        part = Part.objects.create(dessert=self.dessert, position=1, kind="caramel", name="Caramel")
        version = Version.objects.create(part=part, number=1, lines_text="300 g sugar\n90 g water")
        batch = self.start(version_id=str(version.id))
        live = self.events(batch, ("step", "cook", None), ("typed", "", 108))
        self.assertIsNone(live["safe"])
        live = self.events(batch, ("step", "stop", None))
        self.assertEqual(live["moment"]["figure_unit"], "s")


class KeptPlansTest(StoveCase):
    def test_a_batch_begun_with_an_earlier_release_is_read_as_it_was_planned(self):
        # A batch keeps its plan for good: a field that it must have may not be added to its shape.
        for line in KEPT.read_text("utf8").splitlines():
            row = json.loads(line)
            with self.subTest(row["of"]):
                batch = self.start()
                Batch.objects.filter(pk=batch).update(prediction={"plan": row["plan"]})
                plan_of_batch.cache_clear()
                status, page = self.k("GET", f"/batches/{batch}")
                self.assertEqual(status, 200, page)
                keys = [step["key"] for step in row["plan"]["steps"]]
                self.assertEqual([step["key"] for step in page["plan"]["steps"]], keys)
                self.assertEqual(self.k("GET", f"/batches/{batch}/live")[0], 200)


class SafetyGaugeTest(StoveCase):
    def readings(self, row, *seen):
        for t, temp in seen:
            Reading.objects.create(
                batch=row, client_id=uuid.uuid4(), at=row.started_at,
                cook_ms=1000 * t, temp_cc=100 * temp,
            )  # fmt: skip

    def test_the_gauge_fills_with_the_heat_the_egg_has_had_and_is_kept(self):
        batch = self.start()
        self.back_in_time(batch, 600)
        row = Batch.objects.get(pk=batch)
        self.events(batch, ("step", "temper", None), ("step", "cook", None))
        row.events.filter(step="temper").update(cook_ms=60_000)
        row.events.filter(step="cook").update(cook_ms=65_000)
        self.assertEqual(self.k("GET", f"/batches/{batch}/live")[1]["safe"]["share"], 0)
        self.readings(row, (70, 60), (90, 68), (110, 72), (130, 75), (150, 78))
        safe = self.k("GET", f"/batches/{batch}/live")[1]["safe"]
        self.assertTrue(safe["meets"])
        self.assertIn("local food code", safe["rule"])
        self.events(batch, ("end", "", None))
        self.assertTrue(self.k("GET", f"/batches/{batch}")[1]["safe"]["meets"])

    def test_what_the_probe_reads_in_the_hot_milk_is_no_heat_of_the_egg(self):
        batch = self.start()
        self.back_in_time(batch, 600)
        row = Batch.objects.get(pk=batch)

        def safe():
            live = self.k("GET", f"/batches/{batch}/live")[1]["safe"]
            self.assertEqual(self.k("GET", f"/batches/{batch}")[1]["safe"], live)
            return live

        self.readings(row, (50, 86), (55, 87), (58, 87))
        self.events(batch, ("step", "temper", None))
        row.events.filter(step="temper").update(cook_ms=60_000)
        self.assertIn("milk", safe()["warnings"][0])
        self.readings(row, (62, 87), (66, 87), (70, 24), (90, 40), (120, 61))
        self.assertEqual((safe()["share"], safe()["meets"]), (0, False))
        # The cook goes on before the bowl is back in the pot, where milk is left at the bottom.
        self.readings(row, (131, 84), (135, 84), (140, 62))
        self.events(batch, ("step", "cook", None))
        row.events.filter(step="cook").update(cook_ms=130_000)
        self.assertLess(safe()["share"], 0.1)
        self.readings(row, (160, 66), (200, 76))
        self.assertTrue(safe()["meets"])
        self.events(batch, ("step", "temper", None), ("end", "", None))  # never left again
        self.assertFalse(safe()["meets"])

    def test_a_cook_is_paused_and_a_moment_marked(self):
        batch = self.start()
        live = self.events(batch, ("mark", "sugar_on_yolks", None), ("pause", "", None))
        self.assertTrue(live["paused"])
        self.assertIn("sugar_on_yolks", live["marks"])
        self.assertEqual(live["moment"]["urgency"], "calm")
        self.assertFalse(self.events(batch, ("resume", "", None))["paused"])

    def test_a_boil_left_out_is_caught_when_the_butter_goes_in(self):
        self.version.lines_text += "\n50 g butter"
        self.version.save()
        batch = self.start()
        self.back_in_time(batch, 400)
        row = Batch.objects.get(pk=batch)
        self.events(batch, ("step", "cook", None))
        row.events.filter(step="cook").update(cook_ms=10_000)
        for n in range(30):
            Reading.objects.create(
                batch=row, client_id=uuid.uuid4(), at=row.started_at,
                cook_ms=20_000 + 10_000 * n, temp_cc=8000,
            )  # fmt: skip
        live = self.events(batch, ("step", "finish", None))
        self.assertEqual(live["moment"]["headline"], "never boiled")
        self.assertEqual(live["moment"]["urgency"], "wrong")


class DevicesTest(StoveCase):
    def send(self, token, *items):
        body = {"readings": [{"id": new_id(), "at": self.now(), **item} for item in items]}
        return self.device_call("POST", "/readings", body, token)[1]

    def test_four_channels_are_kept_apart_and_the_first_leads(self):
        batch = self.start(device_id=str(self.device.id))
        out = self.send(self.token, {"temp_c": 40}, {"temp_c": 80, "channel": 2},
                        {"temp_c": 22, "channel": 4}, {"temp_c": 30, "channel": 7})  # fmt: skip
        self.assertEqual((out["kept"], len(out["refused"])), (3, 1))
        live = self.k("GET", f"/batches/{batch}/live")[1]
        self.assertEqual([r["temp_c"] for r in live["readings"]], [40])
        self.assertEqual([(o["channel"], o["temp_c"]) for o in live["others"]], [(2, 80), (4, 22)])

    def test_ladles_weighed_into_the_bowl_climb_the_ladder(self):
        token = Device.new_token()
        scale = Device.objects.create(
            kitchen_id=self.kid, name="scale", kind="scale", token_hash=Device.hash_of(token)
        )
        batch = self.start(scale_id=str(scale.id))
        self.send(token, {"grams": 300.0})
        self.events(batch, ("step", "temper", None))
        rungs = Batch.objects.get(pk=batch).prediction["plan"]["ladder"]["rungs"]
        self.send(token, {"grams": 300 + rungs[0]["added_g"] + 1})
        live = self.k("GET", f"/batches/{batch}/live")[1]
        self.assertEqual(live["rungs"], 1)
        self.assertAlmostEqual(live["poured_g"], rungs[0]["added_g"] + 1, delta=0.2)
        # A ladle is in from nine tenths of it on.
        for share, up in ((0.12, 2), (0.08, 3)):
            short = 300 + rungs[2]["added_g"] - share * rungs[0]["added_g"]
            self.send(token, {"grams": round(short, 1)}, {"grams": "heavy"})
            self.assertEqual(self.k("GET", f"/batches/{batch}/live")[1]["rungs"], up)
        assignment = self.device_call("GET", "", token=token)[1]
        self.assertEqual(len(assignment["rungs_g"]), len(rungs))

    def test_a_loggers_file_is_laid_into_the_batch_once(self):
        batch = self.start()
        rows = "Time (s);Probe °F\n" + "\n".join(f"{10 * n};{100 + n}" for n in range(30))
        for kept in (30, 0):
            file = SimpleUploadedFile("log.csv", rows.encode())
            status, out = self.k("POST", f"/batches/{batch}/curve", file)
            self.assertEqual((status, out["kept"], out["unit"]), (200, kept, "F"), out)
        curve = self.k("GET", f"/batches/{batch}")[1]["readings"]
        self.assertAlmostEqual(curve[0]["temp_c"], 37.8, delta=0.05)
        bad = SimpleUploadedFile("log.csv", b"nothing here")
        status, body = self.k("POST", f"/batches/{batch}/curve", bad)
        self.assertEqual((status, body["field"]), (422, "file"))
