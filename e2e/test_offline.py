"""A tablet at the stove that loses its server, its page or its life: nothing done is lost."""

import os
import re
import signal
import tempfile
from pathlib import Path

from django.core.management import call_command
from playwright.sync_api import expect

from batches.models import Batch
from e2e.base import FLAGS, BrowserCase, browser
from ops.needs import CHROMIUM


def processes_with(word):
    """Pids of processes started with a word."""
    for folder in Path("/proc").glob("[0-9]*"):
        try:
            if word in (folder / "cmdline").read_bytes().decode(errors="replace"):
                yield int(folder.name)
        except OSError:
            continue


class OfflineTest(BrowserCase):
    expected_errors = ("Failed to load resource", "ERR_", "503", "TypeError", "fetch")

    def persistent(self, folder):
        context = browser().browser_type.launch_persistent_context(
            folder, executable_path=CHROMIUM, args=FLAGS, base_url=self.url(),
            viewport={"width": 1280, "height": 800}, reduced_motion="reduce",
            service_workers="block",
        )  # fmt: skip
        return context, context.pages[0]

    def test_a_move_made_offline_survives_a_browser_killed_in_the_next_moment(self):
        with tempfile.TemporaryDirectory(ignore_cleanup_errors=True) as folder:
            context, page = self.persistent(folder)
            self.sign_in_by_hand(page)
            self.open("Burnt butter pudding", page)
            self.start_cook(page=page)
            url = page.url
            context.set_offline(True)
            page.keyboard.press("Space")
            expect(page.get_by_test_id("delivery")).to_contain_text("1 move is kept here")
            for pid in processes_with(folder):
                os.kill(pid, signal.SIGKILL)
            batch = Batch.objects.latest("started_at")
            self.assertEqual(batch.events.count(), 0)
            context, page = self.persistent(folder)
            # Not even the cook's own page: whatever is opened delivers what waits.
            page.goto(url.rsplit("/cook/", 1)[0])
            password = page.get_by_label("Password")
            expect(password.or_(page.get_by_role("heading", name="Weir House"))).to_be_visible()
            if password.count():
                self.sign_in_by_hand(page)
            page.goto(url)
            expect(page.get_by_test_id("headline")).to_be_visible()
            expect(page.get_by_test_id("delivery")).to_have_count(0)
            self.assertEqual([(e.kind, e.step) for e in batch.events.all()], [("step", "heat")])
            context.close()

    def test_the_program_opens_without_its_server_and_says_what_waits(self):
        call_command("collectstatic", verbosity=0, interactive=False)
        page = self.new_page(workers=True)
        self.sign_in_by_hand(page)
        self.open("Burnt butter pudding", page)
        page.evaluate("navigator.serviceWorker.ready")
        page.wait_for_function("navigator.serviceWorker.controller !== null")
        page.wait_for_function("caches.keys().then(names => names.length > 0)")
        page.context.set_offline(True)
        self.lines(page).press("Control+End")
        page.keyboard.type("\n20 g rum")
        expect(page.get_by_test_id("save-note")).to_contain_text("kept here")
        page.reload()
        expect(page.get_by_role("status")).to_contain_text("not answering")
        expect(page.get_by_test_id("kept-here")).to_contain_text("1 formula being written")
        page.get_by_role("button", name="Ask again now").click()
        expect(page.get_by_role("status")).to_contain_text("not answering")
        page.context.set_offline(False)  # from here on it asks by itself
        expect(self.lines(page)).to_have_value(re.compile("20 g rum$"))
        expect(page.get_by_test_id("save-note")).to_have_text("saved")

    def test_a_page_that_does_not_arrive_is_tried_again_and_the_cook_goes_on(self):
        self.sign_in_by_hand()
        self.open("Burnt butter pudding")
        page = self.page
        page.route("**/static/assets/book-*.js", lambda route: route.abort())
        page.get_by_role("link", name="Book", exact=True).click()
        expect(page.get_by_role("alert")).to_contain_text("did not arrive")
        page.unroute("**/static/assets/book-*.js")
        page.get_by_role("button", name="Try again").click()
        expect(page.get_by_role("heading", name="The book")).to_be_visible()

    def test_a_page_that_cannot_be_drawn_fails_alone_and_keeps_the_moves(self):
        self.sign_in_by_hand()
        self.open("Burnt butter pudding")
        self.start_cook()
        page = self.page
        onward = page.get_by_test_id("onward")
        first = onward.inner_text()
        page.keyboard.press("Space")
        expect(onward).not_to_have_text(first)
        expect(page.get_by_test_id("delivery")).to_have_count(0)
        second = onward.inner_text()

        def spoil(route):
            route.fulfill(json={**route.fetch().json(), "moment": None})

        page.route("**/live*", spoil)
        expect(page.get_by_role("alert")).to_contain_text("This page failed")
        page.unroute("**/live*", spoil)
        page.get_by_role("button", name="Try again").click()
        expect(onward).to_have_text(second)
        self.errors.clear()  # what was thrown on purpose
        batch = Batch.objects.latest("started_at")
        self.assertEqual([(e.kind, e.step) for e in batch.events.all()], [("step", "heat")])
