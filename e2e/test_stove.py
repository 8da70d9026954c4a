"""The stove beyond custards: caramel, the safety gauge, two pots, the scale, rehearsal."""

from playwright.sync_api import expect

from batches.models import Batch
from demo import kitchen as demo
from e2e.base import BrowserCase
from rehearsals.models import Rehearsal


class StoveTest(BrowserCase):
    def write(self, name, kind, lines):
        """A dessert of one part of a kind, written as a chef would."""
        page = self.page
        page.get_by_role("button", name="Start a dessert").click()
        page.get_by_label("Name of the dessert").fill(name)
        page.get_by_role("button", name="Write the formula").click()
        page.get_by_role("button", name="Kind: cream").click()
        page.get_by_role("dialog").get_by_label("It is a").select_option(kind)
        page.get_by_role("dialog").get_by_role("button", name="Done").click()
        self.lines().fill(lines)
        expect(page.get_by_role("img", name="Made of")).to_be_visible()
        expect(page.get_by_test_id("save-note")).to_have_text("saved")
        page.get_by_role("link", name="To the stove").click()

    def test_a_caramel_is_planned_cooked_with_a_probe_and_pulled(self):
        self.drive()
        probe = self.probe()
        self.sign_in()
        page = self.page
        self.write("Burnt sugar lining", "caramel", "300 g sugar\n90 g water")
        expect(page.get_by_test_id("guide-steps")).to_contain_text("Stand the pan in cold water")
        expect(page.get_by_test_id("pot-words")).to_contain_text("There in")
        page.get_by_label("Colour at").fill("175")
        page.get_by_label("Probe", exact=True).select_option(label=f"{demo.PROBE} (simulated)")
        page.get_by_label("Its clock").select_option("60")
        page.get_by_role("button", name="Cook it").press("Enter")
        page.get_by_text("Bowl of cold water ready").click()
        expect(page.get_by_text("1 of 3")).to_be_visible()
        page.get_by_test_id("onward").click()
        self.in_step("cook")
        self.cook_until("the slow stretch", probe, step_s=0.5)
        expect(page.get_by_text("burns deeply").first).to_be_visible()
        self.cook_until("there", probe, step_s=0.25)
        expect(page.get_by_test_id("next-move")).to_contain_text("runs on")
        page.get_by_test_id("onward").click()
        expect(page.get_by_text("Stand the pan in cold water").first).to_be_visible()

    def test_what_has_no_egg_shows_its_steps_and_no_school_of_tempering(self):
        self.sign_in()
        page = self.page
        page.get_by_role("button", name="Start a dessert").click()
        page.get_by_label("Name of the dessert").fill("Apple jelly")
        page.get_by_role("button", name="Write the formula").click()
        self.lines().fill("500 ml apple juice\n80 g sugar\n5 leaves gelatine")
        expect(page.get_by_test_id("save-note")).to_have_text("saved")
        page.get_by_role("link", name="To the stove").click()
        expect(page.get_by_test_id("guide-steps")).to_contain_text("gelatine in")
        expect(page.get_by_role("radiogroup", name="School of tempering")).to_have_count(0)
        expect(page.get_by_label("Eggs at")).to_have_count(0)
        expect(page.get_by_test_id("pot-words")).not_to_contain_text("Thickens")
        self.check("a jelly at the stove")

    def test_the_gauge_pause_and_the_other_pot(self):
        self.sign_in()
        page = self.page
        self.open("Elderflower anglaise")
        self.start_cook()
        page.get_by_role("button", name="Sugar is on the yolks").click()
        expect(page.get_by_test_id("sugar-clock")).to_contain_text("Whisk within")
        first = page.url
        page.get_by_test_id("onward").click()
        self.in_step("heat")
        page.get_by_test_id("onward").click()
        self.in_step("temper")
        self.pour_all()
        page.get_by_test_id("onward").click()
        for temp in ("60", "72", "78"):
            page.get_by_role("button", name="Type a reading").click()
            page.get_by_label("Temperature, °C").fill(temp)
            page.get_by_role("button", name="Into the curve").click()
        gauge = page.get_by_test_id("safety")
        expect(gauge).to_contain_text("egg made safe")
        page.get_by_role("button", name="Pause").click()
        expect(page.get_by_role("button", name="Go on")).to_be_visible()
        page.goto(f"/k/{self.kitchen.id}")
        self.open("Bay leaf pastry cream")
        self.start_cook()
        other = page.get_by_label("Other pots").get_by_role("link", name="Elderflower anglaise")
        expect(other).to_be_visible()
        other.click()
        expect(page).to_have_url(first)

    def test_ladles_on_the_scale_climb_the_ladder_by_themselves(self):
        self.drive()
        scale, probe = self.scale(), self.probe()
        self.sign_in()
        page = self.page
        self.open("Elderflower anglaise")
        page.get_by_role("link", name="To the stove").click()
        page.get_by_label("Probe", exact=True).select_option(label=f"{demo.PROBE} (simulated)")
        page.get_by_label("Its clock").select_option("20")
        page.get_by_label("Scale under the bowl").select_option(label=f"{demo.SCALE} (simulated)")
        page.get_by_role("button", name="Cook it").press("Enter")
        page.get_by_test_id("onward").click()
        self.in_step("heat")
        self.clock.forward(10)  # the scale weighs the bowl before anything is poured
        scale.tick()
        page.get_by_test_id("onward").click()
        self.in_step("temper")
        for _ in range(60):
            self.clock.forward(1)
            scale.tick()
            probe.tick()
        expect(page.get_by_test_id("poured")).to_be_visible()
        expect(page.get_by_test_id("onward")).to_contain_text("Next: Gentle heat")
        self.assertGreaterEqual(Batch.objects.latest("started_at").weights.count(), 2)

    def test_a_loggers_file_becomes_the_curve(self):
        self.sign_in()
        page = self.page
        page.get_by_role("link", name="Book", exact=True).click()
        # The shelf has a link of that name too: it has to be gone first.
        expect(page.get_by_role("heading", name="The book")).to_be_visible()
        page.get_by_role("link", name="Bay leaf pastry cream").first.click()
        rows = "Elapsed;Core °F\n" + "\n".join(f"0:{n:02d};{150 + n}" for n in range(30))
        page.get_by_label("File of a logger").set_input_files(
            {"name": "log.csv", "mimeType": "text/csv", "buffer": rows.encode()}
        )
        expect(page.get_by_test_id("curve-read")).to_contain_text(
            "30 readings from “Core °F” in °F"
        )


class RehearsalTest(BrowserCase):
    def begin(self, name, speed="20"):
        self.sign_in(who="early@weirhouse.example")
        self.rehearse(name, speed)
        expect(self.page.get_by_test_id("practice-pot")).to_be_visible()

    def pot(self):
        """The pretended pot, as the server says it."""
        run = Rehearsal.objects.latest("started_at")
        path = f"/api/k/{run.kitchen_id}/rehearsals/{run.pk}"
        return self.client_of(run.user.email).get(path).json()

    def test_milk_forgotten_on_the_heat_goes_into_the_bin_with_a_reason(self):
        self.begin("Warm the milk")
        page = self.page
        heat = page.get_by_test_id("heat")
        for n in range(1, 10):
            page.keyboard.press("ArrowUp")
            expect(heat).to_contain_text(str(n))
        expect(heat).to_have_attribute("aria-busy", "false")  # the server has it
        for _ in range(120):
            if self.pot()["moment"]["headline"] == "boiling up":
                break
            self.clock.forward(0.5)
        expect(page.get_by_test_id("headline")).to_have_text("boiling up")
        self.clock.forward(2)
        minutes, seconds = divmod(round(self.pot()["now_s"]), 60)
        # The page has heard that it boils on.
        expect(page.get_by_test_id("pot-clock")).to_have_text(f"{minutes}:{seconds:02d}")
        page.get_by_role("button", name="That is it").click()
        expect(page.get_by_test_id("result")).to_have_text("Into the bin.")
        expect(page.get_by_test_id("why")).to_contain_text("boiled over")
        page.get_by_role("button", name="The same pot again").click()
        expect(page.get_by_test_id("practice-pot")).to_be_visible()

    def test_the_first_ladle_small_then_more_comes_out(self):
        self.begin("The first ladle", "1")
        page = self.page
        page.get_by_role("button", name="Whisk").click()
        for grams, times in (("40", 4), ("100", 4), ("250", 1)):
            for _ in range(times):
                before = page.get_by_text("of milk still to pour").inner_text()
                page.get_by_role("button", name=f"Pour {grams}").click()
                expect(page.get_by_text("of milk still to pour")).not_to_have_text(before)
        page.get_by_role("button", name="All of it").click()
        expect(page.get_by_text("All in: back to the pot")).to_be_visible()
        page.get_by_role("button", name="That is it").click()
        expect(page.get_by_test_id("result")).to_have_text("It came out.")
