"""A browser against the running application."""

import multiprocessing.util
import os
import subprocess
import sys
import uuid
from pathlib import Path

from django.contrib.staticfiles.testing import StaticLiveServerTestCase
from django.core.cache import cache
from django.test import override_settings
from playwright.sync_api import Browser, Page, expect, sync_playwright

from devices.models import Device
from kitchen import demo

ROOT = Path(__file__).resolve().parents[1]
TOKEN = "a-token-for-the-probe-of-the-tests"
FLAGS = [
    "--headless",
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1, EXCLUDE localhost",
]
# A machine under load is no failure.
expect.set_options(timeout=20_000)
_BROWSERS: dict[int, Browser] = {}


def browser() -> Browser:
    """One Chromium for each process, made when first needed."""
    pid = os.getpid()
    if pid not in _BROWSERS:
        playwright = sync_playwright().start()
        chromium = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        _BROWSERS[pid] = chromium
        multiprocessing.util.Finalize(
            None, lambda: (chromium.close(), playwright.stop()), exitpriority=10
        )
    return _BROWSERS[pid]


@override_settings(PASSWORD_HASHERS=["django.contrib.auth.hashers.MD5PasswordHasher"])
class BrowserCase(StaticLiveServerTestCase):
    """Each test has the demo kitchen, fresh, and fails on any error the page reports."""

    # Console lines a test provokes on purpose (a refused request is logged by the browser).
    expected_errors: tuple[str, ...] = ()

    @classmethod
    def setUpClass(cls):
        os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "true"
        super().setUpClass()

    def setUp(self):
        cache.clear()
        self.kitchen = demo.load(TOKEN)
        self.errors = []
        self.page = self.new_page()

    def tearDown(self):
        for context in browser().contexts:
            context.close()
        self.assertEqual(self.errors, [])

    def url(self):
        return self.live_server_url

    def new_page(self, width=1280, height=800) -> Page:
        context = browser().new_context(
            viewport={"width": width, "height": height},
            reduced_motion="reduce",
            base_url=self.url(),
        )
        page = context.new_page()
        page.set_default_timeout(20_000)
        page.on("pageerror", lambda error: self.errors.append(str(error)))
        page.on("console", self._console)
        return page

    def _console(self, message):
        if message.type == "error" and not any(e in message.text for e in self.expected_errors):
            self.errors.append(message.text)

    def sign_in(self, page=None, who=demo.CHEF):
        page = page or self.page
        page.goto("/")
        page.get_by_label("E-mail address").fill(who)
        page.get_by_label("Password").fill(demo.PASSWORD)
        page.get_by_role("button", name="Sign in").click()
        expect(page.get_by_role("heading", name="Weir House")).to_be_visible()

    def open(self, name, page=None):
        page = page or self.page
        page.get_by_role("link", name=name).click()
        expect(page.get_by_test_id("set-class")).to_be_visible()

    def lines(self, page=None):
        return (page or self.page).get_by_label("Formula, one line for each ingredient")

    def start_cook(self, *, probe=None, speed="60", page=None):
        page = page or self.page
        page.get_by_role("link", name="To the stove").click()
        choice = page.get_by_label("Probe", exact=True)
        expect(choice).to_be_visible()
        choice.select_option(label=probe or "none: typed readings or the clock")
        if probe:
            page.get_by_label("Its clock").select_option(speed)
        page.get_by_role("button", name="Cook it").click()
        expect(page.get_by_role("heading", name="Everything within reach")).to_be_visible()

    def run_probe(self):
        """The real stand-in, as its own process, speaking HTTP to the live server.

        It is careful: a pan that stays at the mark is seen there by a slow machine too."""
        Device.objects.filter(name=demo.PROBE).update(token_hash=Device.hash_of(TOKEN))
        spool = Path(os.environ["CRUMB_HOME"]) / f"spool-{uuid.uuid4()}.jsonl"
        probe = subprocess.Popen(
            [
                sys.executable,
                "-m",
                "standins.probe",
                "--url",
                self.url(),
                "--spool",
                str(spool),
                "--seed",
                "5",
                "--careful",
            ],
            cwd=ROOT,
            env={**os.environ, "CRUMB_PROBE_TOKEN": TOKEN},
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
        )
        self.addCleanup(lambda: (probe.terminate(), probe.wait(5)))
        return probe

    def pour_all(self, page=None):
        page = page or self.page
        onward = page.get_by_test_id("onward")
        for _ in range(40):
            if "Ladle" not in onward.inner_text():
                return
            page.keyboard.press("Space")
        self.fail("the ladder never ends")
