from datetime import timedelta

from batches.models import Batch, Reading, Weight
from devices.models import Device
from formulas.models import Dessert, Part, Version
from tests.server.base import KitchenCase, new_id


class BuildTest(KitchenCase):
    def setUp(self):
        super().setUp()
        self.shell = Part.objects.create(
            dessert=self.dessert, position=5, kind="crust", name="Shell"
        )
        Version.objects.create(
            part=self.shell, number=1, lines_text="500 g flour\n300 g butter\n1 egg\n60 g water"
        )

    def path(self, tail=""):
        return f"/desserts/{self.dessert.id}/build{tail}"

    def build(self, **change):
        return {
            "vessel_key": "springform_23_70",
            "count": 2,
            "portions_each": 10,
            "cut": "wedges",
            "layers": [
                {"part_id": str(self.shell.id)},
                {"part_id": str(self.part.id), "lies": "mm", "value": 30},
            ],
            **change,
        }

    def test_a_dessert_begins_with_its_crust_below_and_is_saved_as_built(self):
        status, page = self.k("GET", self.path())
        self.assertEqual((status, page["revision"], page["problem"]), (200, 0, None))
        self.assertEqual([x["name"] for x in page["found"]["layers"]], ["Shell", self.part.name])
        status, saved = self.k("PUT", self.path(), {"revision": 0, "content": self.build()})
        self.assertEqual((status, saved["revision"]), (200, 1))
        self.assertEqual(saved["found"]["layers"][1]["mm"], 30)
        self.assertEqual(saved["found"]["stand"]["portions"], 20)
        status, again = self.k("GET", self.path())
        self.assertEqual(again["content"], saved["content"])

    def test_a_stale_save_is_refused_with_both_and_the_same_twice_counts_once(self):
        ours = {"revision": 0, "content": self.build()}
        for _ in range(2):
            self.assertEqual(self.k("PUT", self.path(), ours)[0], 200)
        theirs = {"revision": 0, "content": self.build(count=3)}
        status, body = self.k("PUT", self.path(), theirs)
        self.assertEqual(
            (status, body["mine"]["count"], body["theirs"]["content"]["count"]), (409, 3, 2)
        )

    def test_what_is_tried_is_answered_and_not_kept_and_bad_input_has_its_field(self):
        status, page = self.k("POST", self.path(), self.build(filling="hot"))
        self.assertEqual((status, page["revision"]), (200, 0))
        self.assertEqual(Dessert.objects.get(pk=self.dessert.id).build, {})
        deep = [{"part_id": str(self.part.id), "lies": "lining", "value": 300}]
        status, page = self.k("POST", self.path(), self.build(layers=deep))
        self.assertEqual((status, page["found"]), (200, None))
        self.assertEqual(page["problem"]["field"], "layers[0].value")
        status, body = self.k(
            "PUT", self.path(), {"revision": 0, "content": self.build(layers=deep)}
        )
        self.assertEqual((status, body["field"]), (422, "layers[0].value"))
        gone = [{"part_id": new_id()}]
        status, page = self.k("POST", self.path(), self.build(layers=gone))
        self.assertIn("not in the dessert", page["problem"]["message"])

    def test_one_action_scales_the_parts_and_a_cooked_version_stays(self):
        self.start()
        cooked = Version.objects.get(pk=self.version.id)
        self.assertIsNotNone(cooked.cooked_at)
        status, page = self.k("POST", self.path("/scale"), self.build())
        self.assertEqual(status, 200)
        cooked.refresh_from_db()
        self.assertEqual(cooked.lines_text, self.version.lines_text)
        self.assertEqual(self.part.versions.count(), 2)
        self.assertEqual(self.shell.versions.count(), 1)
        for part in page["found"]["parts"]:
            self.assertGreaterEqual(part["left_g"], -0.01 * part["need_g"])
            self.assertLess(part["left_g"], 0.35 * part["need_g"])

    def test_a_part_that_is_taken_out_leaves_the_build_and_a_new_one_joins_it(self):
        self.k("PUT", self.path(), {"revision": 0, "content": self.build()})
        self.assertEqual(self.k("DELETE", f"/parts/{self.shell.id}")[0], 200)
        _, page = self.k("GET", self.path())
        self.assertEqual([x["part_id"] for x in page["content"]["layers"]], [str(self.part.id)])
        for place, kind in enumerate(("glaze", "caramel"), 8):
            new = Part.objects.create(dessert=self.dessert, position=place, kind=kind, name=kind)
            Version.objects.create(part=new, number=1, lines_text="100 g sugar")
        _, page = self.k("GET", self.path())
        there = [Part.objects.get(pk=x["part_id"]).kind for x in page["content"]["layers"]]
        self.assertEqual(there, ["caramel", self.part.kind, "glaze"])
        Version.objects.filter(part__kind="caramel").update(
            lines_text="200 g sugar\n200 g cream 35%"
        )
        _, page = self.k("GET", self.path())
        there = [Part.objects.get(pk=x["part_id"]).kind for x in page["content"]["layers"]]
        self.assertEqual(there, [self.part.kind, "glaze", "caramel"], "a sauce is poured over")

    def test_a_fold_a_loss_and_own_minutes_are_saved_with_the_build(self):
        foam = Part.objects.create(dessert=self.dessert, position=6, kind="cream", name="Foam")
        Version.objects.create(part=foam, number=1, lines_text="300 g cream 35%")
        fold = {"name": "Light", "base_id": str(self.part.id), "light_id": str(foam.id)}
        layers = [{"part_id": str(self.shell.id)}, {"fold": "Light"}]
        content = self.build(
            layers=layers, folds=[fold], losses=[{"part_id": str(self.shell.id), "lost_pct": 30}],
            overrules=[{"key": "Shell/first_rest", "wait_min": 200}],
        )  # fmt: skip
        status, page = self.k("PUT", self.path(), {"revision": 0, "content": content})
        self.assertEqual((status, page["problem"]), (200, None))
        found = page["found"]
        self.assertEqual([x["name"] for x in found["layers"]], ["Shell", "Light"])
        self.assertEqual(found["folds"][0]["set_class"], "spoon")
        lost = {p["name"]: p["lost_pct"] for p in found["parts"]}
        self.assertEqual(lost["Shell"], 30)
        rest = next(s for s in found["steps"] if s["key"] == "Shell/first_rest")
        self.assertEqual((rest["wait_min"], rest["own"]), (200, True))
        # A part that is taken away takes its fold with it, and says which minutes are of no use.
        foam.delete()
        status, page = self.k("GET", self.path())
        self.assertEqual((page["content"]["folds"], page["problem"]), ([], None))

    def test_a_dessert_is_built_by_scale_and_probe_and_knows_what_it_is_made_of(self):
        cook = self.start()
        self.k("POST", f"/batches/{cook}/events", {"events": [self.event("end")]})
        self.k("PUT", self.path(), {"revision": 0, "content": self.build(count=1)})
        token = Device.new_token()
        scale = Device.objects.create(
            kitchen=self.kitchens["weir"], name="scale", kind="scale", simulated=True,
            token_hash=Device.hash_of(token),
        )  # fmt: skip
        made = self.start(
            place="build", device_id=str(self.device.id), scale_id=str(scale.id), time_scale=20
        )
        batch = self.k("GET", f"/batches/{made}")[1]
        self.assertEqual((batch["whole"], batch["plan"]["guide"]), (True, "build"))
        self.assertEqual([b["id"] for b in batch["made_of"]], [cook])
        keys = [s["key"] for s in batch["plan"]["steps"]]
        self.assertEqual((keys[0], keys[-1]), ("ready", "label"))
        lay = next(s for s in batch["plan"]["steps"] if s["kind"] == "lay" and s["key"] == "lay_1")
        self.k("POST", f"/batches/{made}/events", {"events": [self.event("step", "warm_1")]})
        row = Batch.objects.get(pk=made)
        Batch.objects.filter(pk=made).update(started_at=row.started_at - timedelta(seconds=10))
        self.k("POST", f"/batches/{made}/events", {"events": [self.event("step", "warm_1")]})
        now = self.k("GET", f"/batches/{made}/live")[1]
        at = row.started_at
        for n, temp in enumerate((1800, 700, 700, 700)):
            Reading.objects.create(
                batch=row, client_id=new_id(), at=at, temp_cc=temp,
                cook_ms=round(1000 * now["now_s"]) + 100 + 10 * n,
            )  # fmt: skip
        said = self.k("GET", f"/batches/{made}/live")[1]["moment"]
        self.assertEqual((said["headline"], said["done"]), ("as it should be", True))
        self.k("POST", f"/batches/{made}/events", {"events": [self.event("step", "lay_1")]})
        entered = self.k("GET", f"/batches/{made}/live")[1]["timings"][-1]["entered_s"]
        place = self.device_call("GET", "", token=token)[1]
        self.assertAlmostEqual(place["lay_g"], lay["grams"])
        for n, share in enumerate((0.0, 0.5, 1.0)):
            Weight.objects.create(
                batch=row, client_id=new_id(), cook_ms=round(1000 * entered) + 1 + n,
                dg=round(10 * (place["laid_g"] + share * place["lay_g"])),
            )  # fmt: skip
        said = self.k("GET", f"/batches/{made}/live")[1]["moment"]
        self.assertEqual((said["headline"], said["figure_unit"]), ("enough", "g"))
        self.k("POST", f"/batches/{made}/events", {"events": [self.event("end")]})
        batch = self.k("GET", f"/batches/{made}")[1]
        laid = {x["step"]: x for x in batch["laid"]}["lay_1"]
        self.assertTrue(laid["enough"])
        self.assertEqual(laid["checked_c"], 7)
        self.assertEqual(self.k("GET", f"/batches/{cook}")[1]["built_into"], [made])
        # It teaches nothing, and stands in no control chart; the book has it.
        self.assertIsNone(Batch.objects.get(pk=made).taught)
        chart = self.k("GET", f"/desserts/{self.dessert.id}/chart")[1]
        self.assertEqual([p["id"] for p in chart["points"]], [cook])
        self.assertCountEqual([b["whole"] for b in self.k("GET", "/batches")[1]], [True, False])

    def event(self, kind, step=""):
        return {"id": new_id(), "kind": kind, "step": step, "at": self.now()}


class DayTest(KitchenCase):
    def ask(self, hour, portions, **more):
        return self.k(
            "POST",
            "/day/plan",
            {
                "begins": "2026-11-28T06:00:00",
                "services": [
                    {
                        "at": f"2026-11-28T{hour}:00:00",
                        "items": [{"dessert_id": str(self.dessert.id), "portions": portions}],
                    }
                ],
                "people": [{"name": "Early cook", "from_min": 360, "to_min": 1140}],
                **more,
            },
        )

    def test_a_day_of_the_shelf_is_planned_on_the_kitchens_own_things(self):
        status, plan = self.ask("19", 16)
        self.assertEqual((status, plan["feasible"]), (200, True))
        self.assertEqual({s["who"] for s in plan["steps"]}, {"Early cook"})
        self.assertTrue(all(s["end"] <= "2026-11-28T19:00:00" for s in plan["steps"]))

    def test_what_cannot_be_is_explained_and_bad_input_has_its_field(self):
        status, plan = self.ask("07", 400)
        self.assertEqual((status, plan["feasible"]), (200, False))
        self.assertTrue(plan["clash"])
        self.assertTrue(plan["remedies"])
        status, body = self.ask("19", 8, people=[{"name": "x", "from_min": 9, "to_min": 9}])
        self.assertEqual((status, body["field"]), (422, "people"))
        for begins, field in (
            ("2026-01-01T06:00:00", "begins"),
            ("0001-01-01T06:00:00", "begins"),
            ("2026-11-28T06:00:00Z", "begins"),
        ):
            status, body = self.ask("19", 8, begins=begins)
            self.assertEqual(status, 422, body)
            self.assertTrue(body["field"].endswith(field), body)
        status, body = self.ask("05", 8)
        self.assertEqual((status, body["field"]), (422, "services[0].at"))
