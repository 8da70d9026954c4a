"""A browser against the running application."""

import multiprocessing.util
import os
from pathlib import Path

from django.contrib.staticfiles.testing import StaticLiveServerTestCase
from django.core.cache import cache
from django.test import Client, override_settings
from playwright.sync_api import Browser, Page, expect, sync_playwright

from accounts.models import User
from batches.models import Batch
from demo import kitchen as demo
from devices.models import Device
from e2e.laid import demo_kitchen
from ops.needs import CHROMIUM, CHROMIUM_FLAGS
from shared.now import driven, now
from standins.gateway import Gateway
from standins.probe import Probe
from standins.scale import Scale

ROOT = Path(__file__).resolve().parents[1]
TOKEN = "a-token-for-the-probe-of-the-tests"
FLAGS = [
    *CHROMIUM_FLAGS,
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1, EXCLUDE localhost",
]
# A machine under load is no failure.
PATIENCE_MS = 240_000
expect.set_options(timeout=PATIENCE_MS)
_BROWSERS: dict[int, Browser] = {}


def browser() -> Browser:
    """One Chromium for each process, made when first needed."""
    pid = os.getpid()
    if pid not in _BROWSERS:
        playwright = sync_playwright().start()
        chromium = playwright.chromium.launch(
            executable_path=CHROMIUM, args=FLAGS, timeout=PATIENCE_MS
        )
        _BROWSERS[pid] = chromium
        multiprocessing.util.Finalize(
            None, lambda: (chromium.close(), playwright.stop()), exitpriority=10
        )
    return _BROWSERS[pid]


AXE = (ROOT / "web" / "node_modules" / "axe-core" / "axe.min.js").read_text()


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
        self.kitchen = demo_kitchen(TOKEN)
        self.errors = []
        self.clock = None
        self.page = self.new_page()

    def tearDown(self):
        for context in browser().contexts:
            context.close()
        self.assertEqual(self.errors, [])

    def url(self):
        return self.live_server_url

    def new_page(self, width=1280, height=800, *, workers=False) -> Page:
        context = browser().new_context(
            viewport={"width": width, "height": height},
            reduced_motion="reduce",
            base_url=self.url(),
            service_workers="allow" if workers else "block",  # one would answer for a test's routes
        )
        page = context.new_page()
        page.set_default_timeout(PATIENCE_MS)
        page.on("pageerror", lambda error: self.errors.append(str(error)))
        page.on("console", self._console)
        return page

    def _console(self, message):
        if message.type == "error" and not any(e in message.text for e in self.expected_errors):
            self.errors.append(message.text)

    def sign_in(self, page=None, who=demo.CHEF):
        """Come in with a session that is open already, as on most mornings."""
        page = page or self.page
        client = self.client_of(who)
        page.context.add_cookies(
            [{"name": m.key, "value": m.value, "url": self.url()} for m in client.cookies.values()]
        )
        page.goto("/")
        expect(page.get_by_role("heading", name="Weir House")).to_be_visible()

    def client_of(self, who=demo.CHEF):
        client = Client()
        user = User.objects.get(email=who)
        client.force_login(user, backend="django.contrib.auth.backends.ModelBackend")
        return client

    def sign_in_by_hand(self, page=None, who=demo.CHEF):
        page = page or self.page
        page.goto("/")
        page.get_by_label("E-mail address").fill(who)
        page.get_by_label("Password").fill(demo.PASSWORD)
        page.get_by_role("button", name="Sign in").click()
        expect(page.get_by_role("heading", name="Weir House")).to_be_visible()

    def choose(self, label, option, within=None):
        """One of a long list, found by typing the name of it."""
        scope = within or self.page
        scope.get_by_label(label, exact=True).click()
        box = scope.page if within else self.page
        box.get_by_role("combobox", name=f"{label}: a word of it").fill(option)
        box.get_by_role("option", name=option, exact=True).click()

    def open(self, name, page=None):
        page = page or self.page
        page.get_by_role("link", name=name).click()
        expect(page.get_by_test_id("set-class")).to_be_visible()

    def check(self, where):
        """No axe violation, and nothing wider than the screen."""
        page = self.page
        page.evaluate("document.fonts.ready")
        page.evaluate(AXE)
        found = page.evaluate(
            "async () => (await axe.run(document, {runOnly: ['wcag2a', 'wcag2aa', 'wcag21aa', "
            "'wcag22aa', 'best-practice']})).violations"
            ".map(v => v.id + ': ' + v.nodes.slice(0, 3).map(n => n.target).join(' | '))"
        )
        self.assertEqual(found, [], where)
        wide = page.evaluate("document.documentElement.scrollWidth - innerWidth")
        self.assertLessEqual(wide, 0, f"{where} is wider than the screen")

    def lines(self, page=None):
        return (page or self.page).get_by_label("Formula, one line for each ingredient")

    def start_cook(self, *, probe=None, speed="60", page=None):
        page = page or self.page
        if self.clock is None:
            self.drive()
        page.get_by_role("link", name="To the stove").click()
        choice = page.get_by_label("Probe", exact=True)
        expect(choice).to_be_visible()
        choice.select_option(label=probe or "none: typed readings or the clock")
        if probe:
            page.get_by_label("Its clock").select_option(speed)
        # By the key: what is still drawn above it can move it away under a click.
        page.get_by_role("button", name="Cook it").press("Enter")
        expect(page.get_by_role("heading", name="Everything within reach")).to_be_visible()

    def drive(self):
        """Stop the server's clock: from here on time passes only when the test says so, and no
        cook is further on because the machine is slow."""
        self.clock = self.enterContext(driven())
        return self.clock

    def rehearse(self, name, speed="20"):
        """Begin an exercise. The page's clock stands still like the server's: what is done is
        done at the moment the page last heard of."""
        page = self.page
        self.drive()
        page.clock.set_fixed_time(now())
        page.get_by_role("link", name="Rehearse").click()
        page.get_by_label("Its clock").select_option(speed)
        page.get_by_role("button", name=f"Begin: {name}").click()

    def probe(self):
        """The real stand-in, speaking HTTP to the live server, on the server's clock; it measures
        when the test says so, and keeps a pan at the mark that its step wants."""
        Device.objects.filter(name=demo.PROBE).update(token_hash=Device.hash_of(TOKEN))
        return Probe(self.gateway(TOKEN), 5, careful=True, clock=now)

    def gateway(self, token):
        """The door a device knocks at, with the patience of a busy machine."""
        return Gateway(self.url(), token, None, patience_s=PATIENCE_MS / 1000)

    def scale(self):
        """The scale's stand-in, likewise."""
        Device.objects.filter(name=demo.SCALE).update(token_hash=Device.hash_of("scale-token"))
        return Scale(self.gateway("scale-token"), 2, clock=now)

    def live(self):
        """How the latest cook stands, as the server says it."""
        batch = Batch.objects.latest("started_at")
        answer = self.client_of().get(f"/api/k/{batch.kitchen_id}/batches/{batch.pk}/live")
        return answer.json()

    def in_step(self, key):
        """Wait until the server has heard that the cook is in this step: only then time goes on."""
        for _ in range(10_000):
            if self.live()["step"] == key:
                return
            self.page.wait_for_timeout(20)
        self.fail(f"the cook never came to “{key}”; it is in “{self.live()['step']}”")

    def cook_until(self, headline, *devices, step_s=1.0, most=150):
        """Let time pass, devices measuring, until the guide says this; then the page does too."""
        for _ in range(most):
            said = self.live()["moment"]["headline"]
            if said == headline:
                break
            self.clock.forward(step_s)
            for device in devices:
                device.tick()
        else:
            self.fail(f"it never said “{headline}”; at the end it said “{said}”")
        expect(self.page.get_by_test_id("headline")).to_have_text(headline)

    def pour_all(self, page=None):
        page = page or self.page
        onward = page.get_by_test_id("onward")
        expect(onward).to_contain_text("Ladle")
        for _ in range(40):
            said = onward.inner_text()
            if "Ladle" not in said:
                return
            page.keyboard.press("Space")
            expect(onward).not_to_have_text(said, use_inner_text=True)
        self.fail("the ladder never ends")
