"""Two kitchens and their people, made once for each test class."""

import json
import uuid
from datetime import UTC, datetime, timedelta

from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client, TestCase, override_settings

from accounts.models import User
from devices.models import Device
from formulas.models import Dessert, Part, Version
from kitchen.models import Kitchen, Member, Oven, Ring

PASSWORD = "barley and hay"
PASTRY = "1 l whole milk\n9 yolks\n150 g sugar\n85 g corn starch"
ANGLAISE = "750 g whole milk\n250 g cream 35%\n200 g yolk\n180 g sugar"


def new_id():
    return str(uuid.uuid4())


class KitchenSetUp:
    """Rows of two kitchens, and how a test speaks to the API."""

    @classmethod
    def fill(cls):
        cls.kitchens, cls.people = {}, {}
        for name in ("weir", "mill"):
            kitchen = Kitchen.objects.create(name=name)
            cls.kitchens[name] = kitchen
            for role in ("chef", "cook", "viewer"):
                user = User.objects.create_user(
                    f"{role}@{name}.example", PASSWORD, f"{name} {role}"
                )
                Member.objects.create(kitchen=kitchen, user=user, role=role)
                cls.people[f"{name} {role}"] = user
            Ring.objects.create(kitchen=kitchen, name="ring", fuel="gas", rated_w=1900)
        cls.kid = cls.kitchens["weir"].id
        cls.oven = Oven.objects.create(kitchen=cls.kitchens["weir"], name="oven", kind="static")
        cls.dessert = Dessert.objects.create(kitchen=cls.kitchens["weir"], name="Quince cream")
        cls.part = Part.objects.create(dessert=cls.dessert, kind="cream")
        cls.version = Version.objects.create(
            part=cls.part, number=1, lines_text=PASTRY, beaten="yes"
        )
        cls.token = Device.new_token()
        cls.device = Device.objects.create(
            kitchen=cls.kitchens["weir"],
            name="probe",
            simulated=True,
            token_hash=Device.hash_of(cls.token),
        )

    @classmethod
    def signed_in(cls, who):
        client = Client()
        client.force_login(cls.people[who], backend="django.contrib.auth.backends.ModelBackend")
        return client

    def setUp(self):
        super().setUp()
        if not issubclass(type(self), TestCase):
            self.fill()
        self.sign_in("weir chef")

    def sign_in(self, who):
        self.client = self.signed_in(who)

    def call(self, method, path, body=None, **headers):
        if isinstance(body, SimpleUploadedFile):
            answer = self.client.post(f"/api{path}", {"file": body})
            return answer.status_code, answer.json()
        answer = self.client.generic(
            method,
            f"/api{path}",
            json.dumps(body) if body is not None else "",
            content_type="application/json",
            headers=headers,
        )
        raw = answer.getvalue()
        spoken = "json" in answer.headers.get("Content-Type", "")
        return answer.status_code, (json.loads(raw) if raw and spoken else None)

    def k(self, method, path, body=None):
        return self.call(method, f"/k/{self.kid}{path}", body)

    def device_call(self, method, path, body=None, token=None):
        return self.call(
            method, f"/device{path}", body, Authorization=f"Bearer {token or self.token}"
        )

    def content(self, **changes):
        return {"lines_text": PASTRY, "beaten": "yes", "ring_id": None, **changes}

    def start(self, **more):
        batch_id = new_id()
        status, body = self.k(
            "POST", "/batches", {"id": batch_id, "version_id": str(self.version.id), **more}
        )
        self.assertEqual(status, 200, body)
        return batch_id

    @staticmethod
    def now(seconds=0.0):
        return (datetime.now(UTC) + timedelta(seconds=seconds)).isoformat()


@override_settings(PASSWORD_HASHERS=["django.contrib.auth.hashers.MD5PasswordHasher"])
class KitchenCase(KitchenSetUp, TestCase):
    """Each test in a transaction that is taken back."""

    @classmethod
    def setUpTestData(cls):
        cls.fill()
