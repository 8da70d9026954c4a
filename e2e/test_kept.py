"""Nothing typed or done is lost: reloads, outages, expired sessions, two people, restarts."""

import os
import re
import socket
from pathlib import Path

from django.contrib.sessions.models import Session
from django.core.management import call_command
from django.db import connection
from playwright.sync_api import expect

from batches.models import Batch, Event, Reading
from demo import kitchen as demo
from devices.models import Device
from e2e.base import TOKEN, BrowserCase
from formulas.models import Version
from ops.serve import await_served, gunicorn
from standins.probe import Probe


class KeptTest(BrowserCase):
    expected_errors = ("503", "401", "409", "Failed to load resource", "ERR_FAILED")

    def test_what_is_typed_while_the_store_is_away_survives_a_reload_and_is_saved_later(self):
        self.sign_in_by_hand()
        self.open("Burnt butter pudding")
        page = self.page
        page.route(
            "**/api/k/*/versions/*",
            lambda route: route.fulfill(
                status=503, json={"message": "The kitchen's store is not answering.", "field": None}
            ),
        )
        self.lines().press("Control+End")
        page.keyboard.type("\n20 g rum")
        expect(page.get_by_test_id("save-note")).to_contain_text("kept here")
        page.reload()
        expect(self.lines()).to_have_value(self.ending("20 g rum"))
        page.unroute("**/api/k/*/versions/*")
        expect(page.get_by_test_id("save-note")).to_have_text("saved")
        self.assertTrue(
            Version.objects.get(lines_text__contains="rum").lines_text.endswith("20 g rum")
        )

    def ending(self, text):
        return re.compile(re.escape(text) + "$")

    def test_two_people_on_one_formula_both_keep_their_text(self):
        self.sign_in_by_hand()
        other = self.new_page()
        self.sign_in_by_hand(other)
        for page in (self.page, other):
            self.open("Burnt butter pudding", page)
        self.lines(other).press("Control+End")
        other.keyboard.type("\n5 g honey")
        expect(other.get_by_test_id("save-note")).to_have_text("saved")
        self.lines().press("Control+End")
        self.page.keyboard.type("\n20 g rum")
        dialog = self.page.get_by_role("dialog")
        expect(dialog).to_contain_text("5 g honey")
        expect(dialog).to_contain_text("20 g rum")
        dialog.get_by_role("button", name="Keep mine").click()
        expect(self.page.get_by_test_id("save-note")).to_have_text("saved")
        self.assertTrue(Version.objects.filter(lines_text__contains="rum").exists())

    def test_a_session_that_ends_in_the_middle_of_a_cook_loses_no_move(self):
        self.sign_in_by_hand()
        self.open("Burnt butter pudding")
        self.start_cook()
        page = self.page

        def end_it_first(route):
            # Ended as the move sets out: a poll that heard of it before would take the key.
            Session.objects.all().delete()
            route.continue_()

        page.route("**/events", end_it_first, times=1)
        page.keyboard.press("Space")
        dialog = page.get_by_role("dialog")
        expect(dialog).to_contain_text("Please sign in again")
        expect(page.get_by_test_id("delivery")).to_contain_text("1 move is kept here")
        dialog.get_by_label("Password").fill("quince and hay")
        dialog.get_by_role("button", name="Sign in").click()
        expect(page.get_by_test_id("delivery")).to_have_count(0)
        batch = Batch.objects.latest("started_at")
        self.assertEqual([(e.kind, e.step) for e in batch.events.all()], [("step", "heat")])


class RestartTest(BrowserCase):
    """The server as it is really run, stopped and started while something is on the ring."""

    expected_errors = (
        "Failed to load resource",
        "ERR_CONNECTION_REFUSED",
        "ERR_EMPTY_RESPONSE",
        "ERR_CONNECTION_RESET",
        "502",
        "503",
    )

    def url(self):
        return f"http://127.0.0.1:{self.port}"

    def setUp(self):
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = probe.getsockname()[1]
        call_command("collectstatic", verbosity=0, interactive=False)
        self.server = self.serve()
        self.addCleanup(self.stop_last)
        super().setUp()

    def serve(self):
        env = {**os.environ, "CRUMB_DB_NAME": str(connection.settings_dict["NAME"])}
        log = Path(os.environ["CRUMB_HOME"]) / "restart.log"
        server = gunicorn(env, f"127.0.0.1:{self.port}", log, workers=1)
        await_served(f"{self.url()}/api/session", server, None, log)
        return server

    def stop_last(self):
        self.stop()

    def stop(self):
        self.server.terminate()
        self.server.wait()

    def test_readings_and_moves_made_while_the_server_was_down_arrive_once(self):
        probe = Probe(self.gateway(TOKEN), 5)
        Device.objects.filter(name=demo.PROBE).update(token_hash=Device.hash_of(TOKEN))
        self.sign_in()
        self.open("Bay leaf pastry cream")
        self.start_cook(probe="Stove probe (simulated)", speed="1")
        page = self.page
        page.keyboard.press("Space")
        probe.tick()
        expect(page.get_by_test_id("headline")).to_have_text("warming")
        self.stop()
        for _ in range(3):  # it measures on while nobody listens
            probe.tick()
        expect(page.get_by_test_id("delivery")).to_contain_text("not answering")
        page.keyboard.press("Space")  # on to the bowl, while nobody listens
        page.keyboard.press("Space")
        page.keyboard.press("Space")
        expect(page.get_by_test_id("delivery")).to_contain_text("3 moves are kept here")
        expect(page.get_by_test_id("onward")).to_contain_text("Ladle 3")
        probe.tick()
        waited = {reading["id"] for reading in probe.gateway.spool.waiting}
        self.assertGreater(len(waited), 3)
        self.server = self.serve()
        while probe.gateway.spool.waiting:
            probe.tick()
        expect(page.get_by_test_id("delivery")).to_have_count(0)
        page.reload()
        expect(page.get_by_test_id("onward")).to_contain_text("Ladle 3")
        batch = Batch.objects.latest("started_at")
        self.assertEqual(
            [(e.kind, e.step, int(e.value or 0)) for e in Event.objects.filter(batch=batch)],
            [
                ("step", "heat", 0),
                ("step", "temper", 0),
                ("ladle", "temper", 1),
                ("ladle", "temper", 2),
            ],
        )
        there = {
            str(pk)
            for pk in Reading.objects.filter(batch=batch).values_list("client_id", flat=True)
        }
        self.assertEqual(waited - there, set(), "readings of the outage are missing")
