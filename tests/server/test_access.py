import json
import re
from unittest import mock

from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import transaction
from django.test import Client

from kitchen.access import prices_of
from kitchen.models import Lesson, Member
from kitchen.roles import NEEDS, RANK
from tests.server.base import PASSWORD, KitchenCase, new_id

SCHEMA_PATH = "/api/openapi.json"


class AccessTest(KitchenCase):
    def operations(self):
        """Every kitchen operation of the API with ids of the weir's own rows filled in."""
        schema = self.client.get(SCHEMA_PATH).json()
        batch = self.start()
        ids = {
            "dessert_id": self.dessert.id,
            "version_id": self.version.id,
            "part_id": self.part.id,
            "batch_id": batch,
            "device_id": self.device.id,
            "item_id": new_id(),
            "vessel_id": new_id(),
            "price_id": new_id(),
            "oven_id": self.oven.id,
            "rehearsal_id": self.rehearsal(),
            "person_id": Member.objects.get(user=self.people["weir viewer"]).id,
            "invite_id": new_id(),
            "day_id": self.a_day(),
            "usual_id": new_id(),
            "photo_id": new_id(),
            "word_id": 1,
            "weight_id": 1,
            **self.lesson(),
        }
        for path, methods in schema["paths"].items():
            if not path.startswith("/api/k/{kid}"):
                continue
            tail = re.sub(r"\{(\w+)\}", lambda m: str(ids[m.group(1)]), path[len("/api/k/{kid}") :])
            for method, operation in methods.items():
                name = f"{method.upper()} {path[len('/api') :]}"
                yield name, method.upper(), tail, self.example(schema, operation)

    def day_asked(self):
        items = [{"dessert_id": str(self.dessert.id), "portions": 8}]
        return {
            "begins": "2026-11-28T06:00:00",
            "services": [{"at": "2026-11-28T19:00:00", "items": items}],
            "people": [{"name": "Early cook", "from_min": 360, "to_min": 1140}],
        }

    def lesson(self):
        Lesson.objects.get_or_create(
            kitchen=self.kitchens["weir"], kind="ring", name="ring",
            defaults={"mean": 0.9, "sd": 0.05, "n": 3},
        )  # fmt: skip
        return {}

    def day_file(self):
        asked = self.day_asked()
        service = {**asked["services"][0], "items": [{"dessert": "Quince cream", "portions": 8}]}
        return {**asked, "services": [service]}

    def a_day(self):
        body = {"id": new_id(), "ask": self.day_asked()}
        self.assertEqual(self.k("POST", "/days", body)[0], 200)
        return body["id"]

    def rehearsal(self):
        body = {"id": new_id(), "exercise": "scald"}
        self.assertEqual(self.k("POST", "/rehearsals", body)[0], 200)
        return body["id"]

    def example(self, schema, operation):
        body = operation.get("requestBody")
        if not body:
            return None
        if "application/json" not in body["content"]:
            return SimpleUploadedFile("formulas.txt", b"Hay cream\n\n1 l milk")
        name = body["content"]["application/json"]["schema"]["$ref"].rsplit("/", 1)[1]
        return {
            "AnswerAsk": {"content": self.content()},
            "LedgerAsk": {"desserts": [{"dessert_id": str(self.dessert.id)}]},
            "CompareAsk": {"left": str(self.version.id), "right": str(self.version.id)},
            "NewPart": {"id": new_id(), "version_id": new_id(), "kind": "crust", "name": "mine"},
            "PartChange": {"name": "stolen"},
            "RehearsalIn": {"id": new_id(), "exercise": "scald"},
            "ActsIn": {"acts": []},
            "DayBegin": {"id": new_id(), "ask": self.day_asked()},
            "Ticks": {
                "ticks": [{"id": new_id(), "key": "x", "kind": "done", "at": "2026-11-28T07:00:00"}]
            },
            "LessonChange": {"kind": "ring", "name": "ring"},
            "Again": {"at": "2026-11-28T06:00:00"},
            "PriceIn": {"line": "1 kg sugar", "price": 1},
            "KeepIn": {
                "desserts": [
                    {
                        "id": new_id(),
                        "name": "mine",
                        "parts": [{"kind": "crust", "name": "c", "versions": [self.content()]}],
                    }
                ]
            },
            "KitchenChange": {"name": "stolen"},
            "MyChange": {"units": "us"},
            "PantryIn": {"name": "malt"},
            "WordIn": {"said": "moo juice", "ingredient": "milk_whole"},
            "WeightIn": {"ingredient": "jam_apricot", "unit": "pack", "grams": 340},
            "VesselChange": {"name": "v", "top_mm": 50, "bottom_mm": 50, "depth_mm": 50},
            "RingIn": {"name": "r", "fuel": "gas", "rated_w": 1000},
            "NewDessert": {
                "id": new_id(),
                "part_id": new_id(),
                "version_id": new_id(),
                "name": "mine",
            },
            "DessertChange": {"name": "stolen"},
            "Save": {"revision": 1, "content": self.content(lines_text="stolen")},
            "BuildContent": {"vessel_key": "springform_23_70"},
            "DayAsk": {
                "begins": "2026-11-28T06:00:00",
                "services": [
                    {
                        "at": "2026-11-28T19:00:00",
                        "items": [{"dessert_id": str(self.dessert.id), "portions": 8}],
                    }
                ],
                "people": [{"name": "cook", "from_min": 360, "to_min": 1140}],
            },
            "DayFile": self.day_file(),
            "UsualIn": {"name": "A Friday", "file": self.day_file()},
            "BuildSave": {"revision": 0, "content": {"vessel_key": "springform_23_70"}},
            "NextVersion": {"id": new_id(), "content": self.content()},
            "PlanAsk": {"content": self.content()},
            **{
                ask: {"content": self.content(vessel_key="ramekin_180")}
                for ask in ("BakeAsk", "ChooseAsk", "PartAsk")
            },
            "OvenChange": {"name": "o"},
            "WalkSeen": {"set_c": 160, "readings": []},
            "ColdIn": {"name": "c"},
            "SolveAsk": {"content": self.content(), "wishes": {"set_class": "spoon"}},
            "ScaleAsk": {"content": self.content(), "by": "factor", "value": 2},
            "Start": {"id": new_id(), "version_id": str(self.version.id)},
            "Events": {"events": []},
            "Mended": {"words": "stolen"},
            "VerdictIn": {"texture": "pour", "faults": [], "note": "stolen"},
            "DeviceIn": {"id": new_id(), "name": "spy"},
            "InviteIn": {"id": new_id(), "name": "spy"},
            "RoleChange": {"role": "viewer"},
        }[name]

    def test_no_operation_reaches_into_another_kitchen(self):
        operations = list(self.operations())
        self.assertGreater(len(operations), 20)
        mill = self.kitchens["mill"].id
        for _, method, tail, body in operations:
            with self.subTest(f"{method} {tail}"):
                self.sign_in("mill chef")
                status, _ = self.call(method, f"/k/{self.kid}{tail}", body)
                self.assertEqual(status, 404, "a foreign kitchen")
                if any(str(i) in tail for i in (self.dessert.id, self.version.id, self.part.id)):
                    status, _ = self.call(method, f"/k/{mill}{tail}", body)
                    self.assertEqual(status, 404, "a foreign row through the own kitchen")
        self.sign_in("mill chef")
        status, answer = self.call(
            "POST", f"/k/{mill}/batches", {"id": new_id(), "version_id": str(self.version.id)}
        )
        self.assertEqual(status, 404, answer)
        self.dessert.refresh_from_db()
        self.version.refresh_from_db()
        self.assertEqual(self.dessert.name, "Quince cream")
        self.assertNotIn("stolen", self.version.lines_text)

    def test_every_operation_is_allowed_to_exactly_the_roles_the_table_says(self):
        operations = list(self.operations())
        self.assertEqual({name for name, *_ in operations}, set(NEEDS), "table and API differ")
        for name, method, tail, body in operations:
            for role in ("viewer", "cook", "chef"):
                with self.subTest(f"{role}: {name}"), transaction.atomic():
                    self.sign_in(f"weir {role}")
                    status, said = self.k(method, tail, body)
                    if RANK[role] < RANK[NEEDS[name]]:
                        self.assertEqual(status, 403, said)
                    elif role != "chef" and "/rehearsals/" in tail:
                        self.assertEqual(status, 404, "somebody else's rehearsal")
                    else:
                        self.assertNotIn(status, (401, 403, 500), said)
                    transaction.set_rollback(True)

    def test_a_price_is_paid_by_the_kilogram(self):
        self.k("PUT", f"/prices/{new_id()}", {"line": "2 kg sugar", "price": 5})
        self.assertEqual(prices_of(self.kitchens["weir"]), {"sugar": 2.5})

    def test_an_operation_nobody_wrote_into_the_table_is_refused_to_all(self):
        with mock.patch.dict(NEEDS, clear=True):
            self.assertEqual(self.k("GET", "")[0], 403)

    def test_nothing_is_read_without_signing_in(self):
        self.client = Client()
        for path in (f"/k/{self.kid}", f"/k/{self.kid}/desserts", "/craft"):
            status, body = self.call("GET", path)
            self.assertEqual((status, body["message"][:20]), (401, "Please sign in again"))


class SessionTest(KitchenCase):
    def post(self, client, password, token=None):
        return client.post(
            "/api/session",
            json.dumps({"email": "CHEF@weir.example", "password": password}),
            content_type="application/json",
            headers={"X-CSRFToken": token} if token else {},
        )

    def test_a_sign_in_needs_our_own_page_and_the_right_password(self):
        client = Client(enforce_csrf_checks=True)
        self.assertEqual(self.post(client, PASSWORD).status_code, 403)
        token = client.get("/api/session").json()["csrf"]
        wrong = self.post(client, "guess", token)
        self.assertEqual(wrong.status_code, 401)
        right = self.post(client, PASSWORD, token)
        self.assertEqual(right.status_code, 200)
        self.assertEqual(right.json()["kitchens"][0]["role"], "chef")
        # a write without the token is refused even with the cookie
        path = f"/api/k/{self.kid}/me"
        body = json.dumps({"units": "us"})
        refused = client.patch(path, body, content_type="application/json")
        self.assertEqual(refused.status_code, 403)
        done = client.patch(
            path,
            body,
            content_type="application/json",
            headers={"X-CSRFToken": right.json()["csrf"]},
        )
        self.assertEqual(done.status_code, 200)
        self.assertEqual(Member.objects.get(user__email="chef@weir.example").units, "us")

    def test_guessing_is_throttled(self):
        client = Client()
        codes = [self.post(client, f"guess {n}").status_code for n in range(8)]
        self.assertEqual(codes[0], 401)
        self.assertEqual(codes[-1], 429)
        locked = self.post(client, PASSWORD)
        self.assertEqual((locked.status_code, locked.json()["message"][:8]), (429, "Too many"))

    def test_pages_carry_a_policy_without_inline_script(self):
        page = self.client.get("/k/anything")
        policy = page.headers["Content-Security-Policy"]
        scripts = next(p for p in policy.split(";") if p.strip().startswith("script-src"))
        self.assertEqual(scripts.strip(), "script-src 'self'")
        self.assertNotIn(b"<script>", page.content)
        self.assertEqual(page.headers["X-Frame-Options"], "DENY")
