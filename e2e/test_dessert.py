"""The dessert whole: three pasted lists, built, scaled, timed."""

import re

from playwright.sync_api import expect

from batches.models import Batch
from demo import kitchen as demo
from e2e.base import BrowserCase
from formulas.models import Dessert, Version

SHELL = "300 g flour\n180 g butter\n1 egg\n40 g water"
CREAM = "1 l whole milk\n9 yolks\n180 g sugar\n80 g corn starch"
TOP = "400 g cream 35%\n30 g icing sugar"


class DessertTest(BrowserCase):
    def add_part(self, kind, name, lines):
        page = self.page
        page.get_by_role("button", name="Add a part").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("It is a").select_option(kind)
        dialog.get_by_label("Name of the part").fill(name)
        dialog.get_by_role("button", name="Write its formula").click()
        expect(self.lines()).to_have_value("")
        self.lines().fill(lines)
        expect(page.get_by_test_id("save-note")).to_have_text("saved")

    def test_from_three_pasted_lists_to_a_dessert_that_is_built_scaled_and_timed(self):
        self.sign_in()
        page = self.page
        page.get_by_role("button", name="Start a dessert").click()
        page.get_by_label("Name of the dessert").fill("Hay cream tart")
        page.get_by_role("button", name="Write the formula").click()
        self.lines().fill(CREAM)
        expect(page.get_by_test_id("save-note")).to_have_text("saved")
        self.add_part("crust", "Shell", SHELL)
        self.add_part("cream", "Topping", TOP)
        page.get_by_role("link", name="The dessert whole").click()
        self.choose("Built in", "Springform 23 cm x 70 mm")
        page.get_by_label("Portions of each").fill("8")
        page.get_by_label("Cut", exact=True).select_option("wedges")

        layers = page.get_by_label("Layers, from the top")
        # A crust lies at the bottom by itself; what does not is moved.
        drawing = page.get_by_role("img", name="A slice cut open")
        expect(drawing).to_have_attribute("aria-label", self.starts_with("Shell"))
        layers.get_by_role("button", name="Shell").click()
        layers.get_by_role("button", name="Up", exact=True).click()
        expect(drawing).to_have_attribute("aria-label", self.starts_with("Filling"))
        layers.get_by_role("button", name="Down", exact=True).click()
        expect(drawing).to_have_attribute("aria-label", self.starts_with("Shell"))
        layers.get_by_role("button", name="Topping").click()
        layers.get_by_label("How it lies").select_option("swirls")
        expect(layers.get_by_role("button", name="Topping piped in swirls")).to_be_visible()
        self.check("a topping in swirls")
        layers.get_by_label("How it lies").select_option("mm")
        layers.get_by_label("Measure, mm").fill("30")
        expect(page.get_by_test_id("warning")).to_contain_text("Topping as written gives 430 g")
        layers.get_by_label("Measure, mm").fill("0")
        expect(layers.get_by_role("alert")).to_contain_text("makes no layer")
        layers.get_by_label("Measure, mm").fill("30")
        page.get_by_role("button", name="Save the build").click()
        expect(page.get_by_text("not saved yet")).to_have_count(0)

        page.get_by_role("button", name="Write every part at this size").click()
        expect(page.get_by_test_id("warning")).to_have_count(0)
        dessert = Dessert.objects.get(name="Hay cream tart")
        self.assertEqual(dessert.build["portions_each"], 8)
        lines = {v.part.name: v.lines_text for v in Version.objects.filter(part__dessert=dessert)}
        self.assertEqual(lines["Shell"], SHELL)  # its one egg stays whole
        self.assertNotEqual(lines["Topping"], TOP)

        expect(page.get_by_test_id("shortest")).to_contain_text("from nothing to the plate")
        page.get_by_label("Filling goes in").select_option("hot")
        thread = page.get_by_role("region", name="The thread")
        expect(thread).to_contain_text("chill until it is set")
        # Two parts are folded together, and taken apart again.
        page.get_by_role("button", name="Fold two parts together").click()
        folds = page.get_by_role("region", name="Folded together")
        folds.get_by_label("What is lightened").select_option(index=1)
        folds.get_by_label("With").select_option(label="Topping")
        folds.get_by_role("button", name="Fold them").click()
        expect(page.get_by_test_id("fold")).to_contain_text("g/ml")
        expect(drawing).to_have_attribute("aria-label", self.has("Light cream"))
        folds.get_by_role("button", name="Take it apart").click()
        expect(page.get_by_test_id("fold")).to_have_count(0)
        # Nothing of it is lost when the page is left before it is saved.
        page.reload()
        expect(page.get_by_text("not saved yet")).to_be_visible()
        expect(page.get_by_label("Filling goes in")).to_have_value("hot")

    def test_a_dough_pasted_as_a_cream_is_said_and_made_a_crust(self):
        self.sign_in()
        page = self.page
        page.get_by_role("button", name="Start a dessert").click()
        page.get_by_label("Name of the dessert").fill("Hay buns")
        page.get_by_role("button", name="Write the formula").click()
        self.lines().fill("250 g water\n100 g butter\n150 g plain flour\n5 eggs")
        expect(page.get_by_test_id("reads-as")).to_contain_text("a choux dough")
        expect(page.get_by_test_id("save-note")).to_have_text("saved")
        self.check("a dough among the creams")
        page.get_by_role("button", name="Make it a crust").click()
        expect(page.get_by_test_id("reads-as")).to_be_hidden()
        page.get_by_role("link", name="To the stove").click()
        expect(page.get_by_text("dry the panade").first).to_be_visible()

    def test_a_dessert_is_built_with_scale_and_probe_and_lands_in_the_book(self):
        self.drive()
        scale, probe = self.scale(), self.probe()
        self.sign_in()
        page = self.page
        page.get_by_role("link", name="Quince and rye tart").click()
        page.get_by_role("link", name="The dessert whole").click()
        expect(page.get_by_test_id("assembly")).to_contain_text("Line it with the Rye crust")
        self.check("the dessert whole")
        page.get_by_label("Probe", exact=True).select_option(label=f"{demo.PROBE} (simulated)")
        page.get_by_label("Its clock").select_option("20")
        page.get_by_label("Scale under the mould").select_option(label=f"{demo.SCALE} (simulated)")
        page.get_by_role("button", name="Build it").press("Enter")
        expect(page.get_by_test_id("headline")).to_have_text("before it is built")
        self.clock.forward(5)
        scale.tick()
        step = page.get_by_test_id("onward")
        seen = []
        for planned in Batch.objects.latest("started_at").prediction["plan"]["steps"][1:]:
            step.click()
            self.in_step(planned["key"])
            seen.append(planned["kind"])
            # A layer is weighed as the stand-in lays it; a part is probed before it goes on.
            if planned["kind"] == "lay":
                self.cook_until("enough", scale, probe)
                expect(page.get_by_role("img", name="A slice cut open")).to_be_visible()
            elif planned["kind"] == "check":
                self.cook_until("as it should be", probe)
            if seen.count(planned["kind"]) == 1:
                self.check(f"building, {planned['kind']}")
        self.assertEqual(set(seen), {"lay", "check", "finish"})
        page.set_viewport_size({"width": 390, "height": 844})
        self.check("building on a phone")
        page.set_viewport_size({"width": 1280, "height": 800})
        step.click()
        expect(page.get_by_test_id("laid")).to_contain_text("Quince cream")
        expect(page.get_by_test_id("laid")).not_to_contain_text("not weighed")
        expect(page.get_by_role("heading", name="What it is made of")).to_be_visible()
        self.check("a built dessert in the book")

    def has(self, name):
        return re.compile(name)

    def starts_with(self, name):
        return re.compile(f"from the bottom: {name}")


class DayTest(BrowserCase):
    expected_errors = ("Failed to load resource", "ERR_FAILED")

    def add(self, name):
        page = self.page
        page.get_by_role("button", name="Add a dessert").first.click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_role("searchbox").fill(name)
        dialog.get_by_role("button", name=name).click()
        expect(dialog).to_have_count(0)

    def test_a_day_is_worked_out_and_one_that_cannot_be_says_what_frees_it(self):
        self.sign_in()
        page = self.page
        page.get_by_role("link", name="The day", exact=True).click()
        self.add("Quince and rye tart")
        self.add("Barley caramel flan")
        page.get_by_role("button", name="Work it out").click()
        expect(page.get_by_test_id("plan-words")).to_contain_text("It can be done")
        expect(page.get_by_role("group", name="The day from")).to_be_visible()
        expect(page.get_by_role("heading", name="Pastry chef")).to_be_visible()
        # Three strokes of an arrow are a quarter of an hour, however long a plan takes.
        step = page.get_by_role("button", name="Arrow keys move it").first
        was = re.search(r", (\d\d?):(\d\d)", step.get_attribute("aria-label"))
        step.focus()
        for _ in range(3):
            page.keyboard.press("ArrowLeft")
        minute = (int(was[1]) * 60 + int(was[2]) - 15) % 1440
        then = f", {minute // 60}:{minute % 60:02d}, pinned"
        expect(page.get_by_role("button", name=then)).to_have_count(1)
        # Nobody bakes a tart in an hour and a half.
        page.get_by_label("Work may begin").select_option("0")
        page.get_by_label("Service 1, at").fill("07:30")
        page.get_by_role("button", name="Work it out").click()
        expect(page.get_by_role("heading", name="It cannot be done so.")).to_be_visible()
        expect(page.get_by_text("Begin a day earlier")).to_be_visible()
        # What was asked is there again.
        page.reload()
        expect(page.get_by_text("Barley caramel flan")).to_be_visible()

    def test_the_saturday_does_not_fit_until_it_begins_a_day_earlier(self):
        self.sign_in()
        page = self.page
        page.get_by_role("link", name="The day", exact=True).click()
        page.get_by_role("button", name="A Saturday", exact=True).click()
        expect(page.get_by_text("Malt cheesecake with elderflower")).to_be_visible()
        page.get_by_role("button", name="Work it out").click()
        why = page.get_by_role("alert", name="Why it cannot be done")
        expect(why).to_contain_text("Malt cheesecake with elderflower")
        expect(why.get_by_text("Begin a day earlier")).to_contain_text("does it")
        page.get_by_label("Work may begin").select_option("1")
        late = page.get_by_role("group", name="What Late cook may do")
        late.get_by_label("at the stove").click()
        page.get_by_role("button", name="Work it out").click()
        expect(page.get_by_test_id("plan-words")).to_contain_text("It can be done")
        expect(page.get_by_test_id("buy")).to_contain_text("Eggs")
        expect(page.get_by_test_id("mise")).to_contain_text("for Malt cheesecake")
        expect(page.get_by_test_id("moulds")).to_contain_text("Island pot of 40")
        self.check("a planned Saturday")
        page.set_viewport_size({"width": 390, "height": 844})
        self.check("a planned Saturday on a phone")
        page.set_viewport_size({"width": 1280, "height": 800})
        with page.expect_download() as got:
            page.get_by_role("button", name="To a file").click()
        page.get_by_label("Break").first.fill("0")
        late.get_by_label("at the stove").click()
        page.keyboard.press("Tab")
        page.get_by_label("A day from a file").set_input_files(got.value.path())
        expect(page.get_by_label("Break").first).to_have_value("30")
        expect(late.get_by_label("at the stove")).not_to_be_checked()

    def test_a_step_of_a_day_opens_its_guide_and_is_ticked_by_its_cook(self):
        self.sign_in()
        page = self.page
        page.get_by_role("link", name="The day", exact=True).click()
        self.add("Bay leaf pastry cream")
        page.get_by_role("button", name="Work it out").click()
        expect(page.get_by_test_id("plan-words")).to_contain_text("It can be done")
        page.get_by_role("button", name="Begin this day").click()
        expect(page.get_by_test_id("day-done")).to_contain_text("0 of")
        day = page.url
        page.get_by_role("link", name="to its guide").first.click()
        expect(page.get_by_test_id("of-day")).to_be_visible()
        none = "none: typed readings or the clock"
        page.get_by_label("Probe", exact=True).select_option(label=none)
        page.get_by_role("button", name="Cook it").press("Enter")
        expect(page.get_by_role("heading", name="Everything within reach")).to_be_visible()
        second = self.new_page()
        self.sign_in(second)
        second.goto(day)
        expect(second.get_by_text("until")).to_have_count(1)
        onward = page.get_by_test_id("onward")
        while "End, and judge it" not in onward.inner_text():
            said = onward.inner_text()
            onward.click()
            expect(onward).not_to_have_text(said, use_inner_text=True)
        onward.click()
        expect(page.get_by_role("heading", name="How did it come out?")).to_be_visible()
        expect(second.get_by_test_id("day-done")).to_contain_text("1 of")

    def test_a_day_is_begun_ticked_by_two_pinned_and_planned_again(self):
        self.sign_in()
        page = self.page
        page.get_by_role("link", name="The day", exact=True).click()
        self.add("Barley caramel flan")
        page.get_by_role("button", name="Work it out").click()
        expect(page.get_by_test_id("plan-words")).to_contain_text("It can be done")
        page.get_by_role("button", name="Begin this day").click()
        expect(page.get_by_role("heading", name="The day, as it happens")).to_be_visible()
        expect(page.get_by_test_id("day-done")).to_contain_text("0 of")
        # A step moved by the arrow keys is pinned, and the rest answers around it.
        step = page.get_by_role("button", name="Arrow keys move it").last
        was = step.get_attribute("aria-label")
        step.focus()
        page.keyboard.press("ArrowLeft")
        expect(page.get_by_role("button", name=", pinned")).to_have_count(1)
        expect(page.get_by_test_id("moved")).to_be_visible()
        # Taken back, everything is where it was.
        page.get_by_role("button", name="Take the pin back").click()
        expect(page.get_by_role("button", name=", pinned")).to_have_count(0)
        expect(page.get_by_role("button", name=was, exact=True)).to_have_count(1)
        # Another tablet, on the same day.
        second = self.new_page()
        self.sign_in(second)
        second.goto(page.url)
        page.get_by_role("button", name="Done:").first.click()
        expect(page.get_by_test_id("day-done")).to_contain_text("1 of")
        expect(second.get_by_test_id("day-done")).to_contain_text("1 of")
        expect(second.get_by_role("link", name="Barley caramel flan").first).to_be_visible()
        self.check("a running day")
        page.set_viewport_size({"width": 390, "height": 844})
        self.check("a running day on a phone")
        # Away from the server, a tick waits here and is sent when it is back.
        page.route("**/api/k/*/days/**", lambda route: route.abort())
        page.get_by_role("button", name="Done:").first.click()
        expect(page.get_by_test_id("day-done")).to_contain_text("1 waiting here")
        page.unroute("**/api/k/*/days/**")
        expect(page.get_by_test_id("day-done")).not_to_contain_text("waiting")
        expect(second.get_by_test_id("day-done")).to_contain_text("2 of")
        page.get_by_role("button", name="End the day").click()
        expect(page.get_by_role("heading", name="Planned against real")).to_be_visible()
