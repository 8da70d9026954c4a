"""People of a kitchen: invited, given roles, removed; passwords, sessions and the security log."""

import json
from datetime import UTC, datetime, timedelta

from django.core.cache import cache
from django.test import Client

from accounts.models import SecurityEvent, SignedIn, User
from batches.models import Batch
from kitchen.models import Invite, Member
from tests.server.base import PASSWORD, KitchenCase, new_id

NEW = "a longer password than most"


class Browser:
    """A browser of its own, signed in or not."""

    def __init__(self, agent="tablet"):
        self.client = Client(headers={"user-agent": agent})

    def call(self, method, path, body=None):
        answer = self.client.generic(
            method, f"/api{path}", json.dumps(body or {}), content_type="application/json"
        )
        return answer.status_code, answer.json()

    def sign_in(self, email, password):
        return self.call("POST", "/session", {"email": email, "password": password})


class InviteTest(KitchenCase):
    def invite(self, **more):
        status, made = self.k("POST", "/invites", {"id": new_id(), "name": "Late cook", **more})
        self.assertEqual(status, 200, made)
        return made

    def join(self, secret, **more):
        body = {"email": "Late@weir.example", "name": "Late cook", "password": NEW, **more}
        return Browser().call("POST", f"/join/{secret}", body)

    def test_a_link_lets_one_person_in_once_with_the_role_it_says(self):
        made = self.invite(role="cook")
        status, said = Browser().call("GET", f"/join/{made['secret']}")
        self.assertEqual((status, said["kitchen"], said["role"]), (200, "weir", "cook"))
        lasts = datetime.fromisoformat(said["ends_at"]) - datetime.now(UTC)
        self.assertAlmostEqual(lasts.total_seconds() / 86_400, 7, delta=0.01)
        self.assertEqual(len(made["secret"]), 32)  # 24 random bytes
        status, session = self.join(made["secret"])
        self.assertEqual((status, session["kitchens"][0]["role"]), (200, "cook"))
        status, said = self.join(made["secret"], email="other@weir.example")
        self.assertEqual((status, "has ended or was used" in said["message"]), (404, True))
        self.assertNotIn(made["secret"], str(self.k("GET", "/invites")))

    def test_a_link_ends_by_itself_or_when_it_is_taken_back(self):
        old, gone = self.invite(), self.invite()
        Invite.objects.filter(pk=old["id"]).update(ends_at=datetime.now(UTC) - timedelta(seconds=1))
        self.k("DELETE", f"/invites/{gone['id']}")
        self.assertEqual([self.join(i["secret"])[0] for i in (old, gone)], [404, 404])
        self.assertEqual(self.k("GET", "/invites")[1], [])

    def test_sent_again_it_is_the_same_invitation_by_its_newest_link(self):
        once = new_id()
        lost, kept = self.invite(id=once), self.invite(id=once)
        self.assertEqual([i["id"] for i in self.k("GET", "/invites")[1]], [once])
        self.assertEqual(self.join(lost["secret"])[0], 404)
        self.assertEqual(self.join(kept["secret"])[0], 200)
        status, said = self.k("POST", "/invites", {"id": once, "name": "Late cook"})
        self.assertEqual((status, "made already" in said["message"]), (422, True))
        self.assertEqual(SecurityEvent.objects.filter(kind="invited").count(), 1)

    def test_a_kitchen_has_at_most_fifty_open_at_once(self):
        for n in range(50):
            Invite.objects.create(
                kitchen=self.kitchens["weir"], role="cook", name="x", secret_hash=str(n),
                ends_at=datetime.now(UTC) + timedelta(days=1),
            )  # fmt: skip
        status, said = self.k("POST", "/invites", {"id": new_id(), "name": "one more"})
        self.assertEqual((status, "50" in said["message"]), (422, True))
        Invite.objects.update(ends_at=datetime.now(UTC) - timedelta(days=1))
        self.invite()

    def test_bad_input_is_said_at_its_field_and_the_link_stays_good(self):
        secret = self.invite()["secret"]
        for field, more in (
            ("password", {"password": "short"}),
            ("password", {"password": "x" * 201}),
            ("name", {"name": ""}),
            ("name", {"name": "x" * 81}),
            ("password", {"password": "password1234"}),
            ("password", {"password": "123456789012"}),
            ("password", {"password": "passwordpassword"}),
            ("password", {"password": "Late@weir.example1"}),  # one's own address
            ("password", {"password": "weir-Late-2026!"}),  # and its parts, the other way round
            ("email", {"email": "nobody"}),
            ("password", {"email": "cook@mill.example"}),  # an account whose password this is not
        ):
            status, said = self.join(secret, **more)
            self.assertEqual((status, said["field"]), (422, field), more)
        self.assertEqual(self.join(secret, email="cook@mill.example", password=PASSWORD)[0], 200)
        self.assertEqual(Member.objects.filter(user__email="cook@mill.example").count(), 2)

    def test_an_invitation_is_no_way_to_guess_somebodys_password(self):
        secret = self.invite()["secret"]
        codes = [self.join(secret, email="cook@mill.example")[0] for _ in range(7)]
        self.assertEqual((codes[:5], codes[-1]), ([422] * 5, 429))
        self.assertEqual(self.join(secret, email="cook@mill.example", password=PASSWORD)[0], 429)
        refused = SecurityEvent.objects.filter(kind="refused", who="cook@mill.example")
        self.assertGreaterEqual(refused.count(), 5)


class RolesTest(KitchenCase):
    def place(self, who):
        return Member.objects.get(user=self.people[who])

    def test_a_chef_gives_and_takes_roles_and_a_kitchen_keeps_one_chef(self):
        cook, chef = self.place("weir cook"), self.place("weir chef")
        status, people = self.k("PATCH", f"/people/{cook.id}", {"role": "chef"})
        roles = {p["email"]: p["role"] for p in people}
        self.assertEqual((status, roles["cook@weir.example"]), (200, "chef"))
        self.assertEqual(self.k("PATCH", f"/people/{chef.id}", {"role": "viewer"})[0], 200)
        self.sign_in("weir cook")
        for method, body in (("PATCH", {"role": "cook"}), ("DELETE", None)):
            status, said = self.k(method, f"/people/{cook.id}", body)
            self.assertEqual((status, "at least one chef" in said["message"]), (422, True))

    def test_who_is_no_chef_any_more_lets_nobody_in(self):
        cook = self.place("weir cook")
        for takes in (lambda: self.k("PATCH", f"/people/{cook.id}", {"role": "viewer"}),
                      lambda: self.k("DELETE", f"/people/{cook.id}")):  # fmt: skip
            self.sign_in("weir chef")
            self.k("PATCH", f"/people/{cook.id}", {"role": "chef"})
            kept = self.k("POST", "/invites", {"id": new_id(), "name": "by the chef"})[1]
            self.sign_in("weir cook")
            made = self.k("POST", "/invites", {"id": new_id(), "name": "by the cook"})[1]
            self.sign_in("weir chef")
            self.assertEqual(takes()[0], 200)
            read = [Browser().call("GET", f"/join/{i['secret']}")[0] for i in (made, kept)]
            self.assertEqual(read, [404, 200])

    def test_what_only_the_chef_sees_is_not_said_to_be_changed(self):
        self.sign_in("weir cook")
        status, said = self.k("GET", "/security")
        self.assertEqual((status, said["message"]), (403, "Only the pastry chef sees this."))

    def test_a_person_of_another_kitchen_is_nobody_here(self):
        foreign = self.place("mill cook")
        self.assertEqual(self.k("DELETE", f"/people/{foreign.id}")[0], 404)
        self.assertTrue(Member.objects.filter(pk=foreign.pk).exists())

    def test_removing_a_person_keeps_their_batches_under_their_name(self):
        self.sign_in("weir cook")
        batch = self.start()
        self.sign_in("weir chef")
        self.assertEqual(self.k("DELETE", f"/people/{self.place('weir cook').id}")[0], 200)
        self.assertFalse(User.objects.filter(email="cook@weir.example").exists())
        self.assertIsNone(Batch.objects.get(pk=batch).cook_id)
        self.assertEqual(self.k("GET", f"/batches/{batch}")[1]["cook"], "weir cook")


class SelfTest(KitchenCase):
    email = "cook@weir.example"

    def setUp(self):
        super().setUp()
        cache.clear()

    def test_a_changed_password_signs_out_everywhere_else(self):
        here, there = Browser("tablet"), Browser("phone")
        for browser in (here, there):
            self.assertEqual(browser.sign_in(self.email, PASSWORD)[0], 200)
        for field, old, new in (
            ("old", "wrong", NEW), ("new", PASSWORD, "short"), ("new", PASSWORD, PASSWORD)
        ):  # fmt: skip
            status, said = here.call("POST", "/session/password", {"old": old, "new": new})
            self.assertEqual((status, said["field"]), (422, field))
        self.assertEqual(
            here.call("POST", "/session/password", {"old": PASSWORD, "new": NEW})[0], 200
        )
        self.assertEqual(here.call("GET", "/session")[1]["email"], self.email)
        self.assertIsNone(there.call("GET", "/session")[1]["email"])
        self.assertEqual(len(here.call("GET", "/session/all")[1]), 1)
        self.assertEqual(Browser().sign_in(self.email, PASSWORD)[0], 401)
        self.assertEqual(Browser().sign_in(self.email, NEW)[0], 200)

    def test_a_made_up_password_has_to_be_changed_first(self):
        User.objects.create_user("new@weir.example", PASSWORD, "New", must_change=True)
        browser = Browser()
        self.assertTrue(browser.sign_in("new@weir.example", PASSWORD)[1]["must_change"])
        _, session = browser.call("POST", "/session/password", {"old": PASSWORD, "new": NEW})
        self.assertFalse(session["must_change"])

    def test_i_see_where_i_am_signed_in_and_end_it_there_but_not_somebody_elses(self):
        here, there, other = Browser("tablet"), Browser("phone"), Browser()
        here.sign_in(self.email, PASSWORD)
        there.sign_in(self.email, PASSWORD)
        other.sign_in("chef@weir.example", PASSWORD)
        rows = here.call("GET", "/session/all")[1]
        self.assertEqual([(r["browser"], r["here"]) for r in rows],
                         [("phone", False), ("tablet", True)])  # fmt: skip
        theirs = SignedIn.objects.get(user__email="chef@weir.example")
        self.assertEqual(here.call("DELETE", f"/session/all/{theirs.id}")[0], 404)
        left = here.call("DELETE", f"/session/all/{rows[0]['id']}")[1]
        self.assertEqual([r["browser"] for r in left], ["tablet"])
        self.assertIsNone(there.call("GET", "/session")[1]["email"])

    def test_trying_many_accounts_from_one_address_is_slowed(self):
        browser = Browser()
        codes = [browser.sign_in(f"guess{n}@weir.example", "guess")[0] for n in range(9)]
        self.assertEqual(codes, [401] * 8 + [429])
        self.assertEqual(browser.sign_in(self.email, PASSWORD)[0], 429)
        elsewhere = Client(REMOTE_ADDR="10.1.2.3")
        answer = elsewhere.post(
            "/api/session", {"email": self.email, "password": PASSWORD},
            content_type="application/json",
        )  # fmt: skip
        self.assertEqual(answer.status_code, 200)

    def test_the_security_log_says_what_a_chef_wants_to_know_and_nothing_of_other_kitchens(self):
        Browser().sign_in(self.email, "wrong")
        Browser().sign_in(self.email, PASSWORD)
        Browser().sign_in("cook@mill.example", PASSWORD)
        self.k("POST", "/invites", {"id": new_id(), "name": "Late cook"})
        SecurityEvent.objects.create(kind="restored", detail="of yesterday")
        place = Member.objects.get(user=self.people["weir viewer"])
        self.k("PATCH", f"/people/{place.id}", {"role": "cook"})
        status, lines = self.k("GET", "/security")
        self.assertEqual(status, 200)
        self.assertEqual(
            [line["kind"] for line in lines],
            ["role", "restored", "invited", "signed_in", "refused"],
        )
        self.assertIn("viewer to cook", lines[0]["detail"])
        self.assertEqual(len(self.k("GET", "/security?take=2")[1]), 2)
        self.assertEqual(self.k("GET", "/security?take=501")[0], 422)
        self.assertNotIn("mill", str(lines))
