"""From the formula into the oven, out at the wobble, and through the cold."""

import re

from playwright.sync_api import expect

from batches.models import Batch
from demo import kitchen as demo
from e2e.base import BrowserCase
from formulas.models import Version


class OvenTest(BrowserCase):
    expected_errors = ("422",)

    def pull_minutes(self):
        """The window on the screen as two numbers."""
        text = self.page.get_by_test_id("pull").inner_text()
        return tuple(int(n) for n in re.findall(r"\d+", text)[:2])

    def to_the_oven(self, name="Toasted hay pots"):
        self.sign_in()
        self.open(name)
        self.page.get_by_role("link", name="Oven", exact=True).click()
        expect(self.page.get_by_test_id("pull")).to_be_visible()

    def test_the_dial_moves_the_window_and_a_ghost_stands_beside(self):
        self.to_the_oven()
        page = self.page
        before = self.pull_minutes()
        dial = page.get_by_label("Dial", exact=True)
        dial.fill("180")
        expect(page.get_by_test_id("pull")).not_to_have_text(f"{before[0]}–{before[1]}min")
        self.assertLess(self.pull_minutes()[0], before[0])
        dial.fill("40")
        expect(page.get_by_text("Dial: from 60 to 320")).to_be_visible()
        dial.fill("70")
        expect(page.get_by_role("alert").first).to_contain_text("too cool")
        dial.fill("150")
        page.get_by_label("Beside it").select_option(label="poured warm, 50 °C")
        expect(page.get_by_test_id("ghost-words")).to_contain_text("min, the edge")
        slider = page.get_by_role("slider", name="Minute of the bake")
        slider.focus()
        page.keyboard.press("Home")
        expect(page.get_by_test_id("cut-words")).to_contain_text("0 min: middle 20")
        page.keyboard.press("End")
        expect(page.get_by_test_id("cut-words")).to_contain_text("after the pull")
        page.get_by_text("On another dial").click()
        expect(page.get_by_text("gas mark")).to_be_visible()
        page.get_by_text("Choose oven and bath for me").click()
        page.get_by_role("button", name="Try them").click()
        expect(page.get_by_text("min to pull it.")).to_be_visible()
        expect(page.get_by_test_id("save-note")).to_have_text("saved")
        self.assertEqual(
            Version.objects.get(part__dessert__name="Toasted hay pots").baking["set_c"], 150
        )

    def test_a_bake_with_a_probe_moves_its_window_and_is_pulled_in_time(self):
        self.drive()
        probe = self.probe()
        self.to_the_oven()
        page = self.page
        page.get_by_label("Probe", exact=True).select_option(label=f"{demo.PROBE} (simulated)")
        page.get_by_label("Its clock").select_option("60")
        page.get_by_role("button", name="Bake it").press("Enter")
        page.get_by_text("Kettle:").click()
        page.get_by_test_id("onward").click()
        expect(page.get_by_test_id("onward")).to_contain_text("In the oven")
        page.keyboard.press("Space")
        self.in_step("cook")
        refit = page.get_by_test_id("refit")
        for _ in range(30):
            self.clock.forward(1)  # a minute of baking
            probe.tick()
            with page.expect_response(re.compile("/live")):
                pass
            if refit.count() and "cooler than thought" in refit.inner_text():
                break
        expect(refit).to_contain_text("cooler than thought")
        self.cook_until("soon", probe, step_s=0.5)
        self.cook_until("pull it", probe, step_s=0.5)
        page.keyboard.press("Space")
        expect(page.get_by_text("moulds out first").first).to_be_visible()
        page.keyboard.press("Space")
        expect(page.get_by_test_id("onward")).to_contain_text("End")
        page.keyboard.press("Space")
        expect(page.get_by_role("heading", name="How did it come out?")).to_be_visible()
        expect(page.get_by_text("Pulled at")).to_be_visible()
        expect(page.get_by_text("bubbles in the side")).to_be_visible()
        self.assertEqual(Batch.objects.latest("started_at").prediction["plan"]["guide"], "bake")

    def test_a_look_at_the_wobble_moves_a_bake_without_a_probe(self):
        self.to_the_oven()
        page = self.page
        page.get_by_label("Probe", exact=True).select_option(
            label="none: typed readings or the clock"
        )
        page.get_by_role("button", name="Bake it").press("Enter")
        expect(page.get_by_test_id("onward")).to_contain_text("Next")
        page.keyboard.press("Space")
        page.keyboard.press("Space")
        expect(page.get_by_test_id("headline")).to_have_text("baking")
        page.get_by_role("button", name="a coin").click()
        expect(page.get_by_test_id("refit")).to_contain_text("from 1 readings")
        expect(page.get_by_test_id("headline")).not_to_have_text("pull it late")
        first = page.url
        page.goto(f"/k/{self.kitchen.id}")
        page.get_by_role("link", name="Chestnut custard pie").click()
        page.get_by_role("link", name="Oven", exact=True).click()
        page.get_by_label("on the floor of the oven").check()
        page.get_by_role("button", name="Bake it").press("Enter")
        expect(page.get_by_test_id("onward")).to_contain_text("Next: On the oven floor")
        other = page.get_by_label("Other pots").get_by_role("link", name="Toasted hay pots")
        expect(other).to_contain_text("to go")
        other.click()
        expect(page).to_have_url(first)

    def test_the_cold_says_what_passes_and_prints_a_label(self):
        self.sign_in()
        self.open("Bay leaf pastry cream")
        page = self.page
        page.get_by_role("link", name="Cold", exact=True).click()
        expect(page.get_by_test_id("passes")).to_be_visible()
        page.get_by_label("Refrigerator", exact=True).select_option(index=1)
        expect(page.get_by_test_id("passes")).to_have_text(re.compile("^Passes"))
        expect(page.get_by_test_id("keep-until")).to_be_visible()
        page.get_by_label("Keeps").fill("1")
        made = page.get_by_role("article", name="Date-mark label")
        today = made.locator("dd").first.inner_text().split(",")[0]
        expect(page.get_by_test_id("keep-until")).to_have_text(today)

    def test_the_kitchens_own_rule_is_judged_by_at_once(self):
        self.sign_in()
        self.open("Bay leaf pastry cream")
        page = self.page
        page.get_by_role("link", name="Cold", exact=True).click()
        expect(page.get_by_test_id("passes")).to_have_text(re.compile("^Passes"))
        page.get_by_role("link", name="Kitchen", exact=True).click()
        page.get_by_text("Cooling rule").click()
        stored = []
        page.on("request", lambda r: stored.append(r.url) if r.method == "PATCH" else None)
        within = page.get_by_label("Within", exact=True)
        within.fill("")
        within.press_sequentially("0.5")
        within.press("Enter")
        expect(page.get_by_text("in 0.5 h")).to_be_visible()
        self.assertEqual(
            len(stored), 1, "what is stored is stored when it is whole, not key by key"
        )
        page.get_by_role("link", name="Cold", exact=True).click()
        expect(page.get_by_test_id("passes")).to_have_text(re.compile("^Too slow"))

    def test_an_oven_is_known_from_a_pan_of_water(self):
        self.sign_in()
        page = self.page
        page.get_by_role("link", name="Kitchen", exact=True).click()
        page.get_by_role("button", name="Change or measure Deck oven").click()
        page.get_by_label("in the water").fill("0 20\n5 31")
        page.get_by_role("button", name="Fit this oven").click()
        expect(page.get_by_role("alert")).to_contain_text("25 min at least")
        page.get_by_label("in the water").fill("0 20\n5 28\n10 39\n15 48,5\n20 55\n25 60\n30 64")
        page.get_by_role("button", name="Fit this oven").click()
        expect(page.get_by_test_id("walked")).to_contain_text("its air blows")
        expect(page.get_by_text("static, ").first).to_contain_text("measured")

    def test_a_rehearsed_oven_shows_only_the_wobble(self):
        self.sign_in()
        page = self.page
        self.rehearse("Out of the oven in time")
        oven = page.get_by_test_id("practice-oven")
        expect(oven).to_have_accessible_name("The oven door is shut.")
        self.clock.forward(30)
        expect(page.get_by_test_id("pot-clock")).to_have_text("10:00")
        page.get_by_role("button", name="Open the door").click()
        expect(oven).to_have_accessible_name(re.compile("wobbles"))
        page.get_by_role("button", name="Pull them").click()
        expect(page.get_by_test_id("why")).to_contain_text("Runny in the middle")
