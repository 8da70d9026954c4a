from playwright.sync_api import expect

from batches.models import Batch, Reading
from e2e.base import BrowserCase
from formulas.models import Dessert

# A quarter of a litre: the same path, quickly.
SMALL = "1/4 l whole milk\n2 yolks\n3 tbsp sugar\n20 g corn starch\n3 g salt"


class WholePathTest(BrowserCase):
    def tab_to(self, name, most=60):
        """Press Tab until the focused thing has this accessible name: what a keyboard cook does."""
        for _ in range(most):
            self.page.keyboard.press("Tab")
            found = self.page.evaluate(
                "() => { const e = document.activeElement; if (e === document.body) return ''; "
                "return e.getAttribute('aria-label') || "
                "(e.labels && e.labels[0] && e.labels[0].innerText) || e.innerText || '' }"
            )
            if name in found:
                return
        self.fail(f"Tab never reached “{name}”")

    def test_from_a_formula_through_the_stove_into_the_book_by_keyboard(self):
        page = self.page
        self.drive()
        probe = self.probe()
        page.goto("/")
        self.tab_to("E-mail address")
        page.keyboard.type("chef@weirhouse.example")
        self.tab_to("Password")
        page.keyboard.type("quince and hay")
        page.keyboard.press("Enter")
        expect(page.get_by_role("heading", name="Weir House")).to_be_visible()
        self.tab_to("Start a dessert")
        page.keyboard.press("Enter")
        page.keyboard.type("Hay and quince cream")
        page.keyboard.press("Enter")

        self.tab_to("Formula, one line")
        page.keyboard.type(SMALL)
        expect(page.get_by_test_id("set-class")).to_contain_text("Slices")
        expect(page.get_by_test_id("beaten")).to_contain_text("pipes")
        page.get_by_label("beaten smooth after").focus()
        page.keyboard.press("Space")
        expect(page.get_by_test_id("set-class")).to_contain_text("Pipes")
        expect(page.get_by_test_id("cook-endpoint")).to_contain_text("Boil and hold 60 s")
        expect(page.get_by_test_id("whites")).to_contain_text("2 whites")
        expect(page.get_by_label("What was understood")).to_contain_text("258 g")
        self.tab_to("Into")
        page.keyboard.press("T")
        expect(page.get_by_role("combobox", name="Into: a word of it")).to_have_value("T")
        page.keyboard.type("ea ring")
        page.keyboard.press("Enter")
        expect(page.get_by_test_id("fit")).to_contain_text("Fills all 8")
        expect(page.get_by_test_id("save-note")).to_have_text("saved")

        page.keyboard.press("Shift+Tab")
        page.get_by_role("link", name="To the stove").focus()
        page.keyboard.press("Enter")
        expect(page.get_by_test_id("ladder-words")).to_contain_text("First ladle")
        self.tab_to("Its clock")
        page.keyboard.type("20")
        self.tab_to("Cook it")
        page.keyboard.press("Enter")

        expect(page.get_by_test_id("headline")).to_have_text("before the heat")
        page.keyboard.press("Space")
        self.in_step("heat")
        self.cook_until("there", probe)
        page.keyboard.press("ArrowRight")
        self.pour_all()
        page.keyboard.press("Enter")
        self.in_step("cook")
        self.cook_until("held", probe)
        expect(page.get_by_test_id("next-move")).to_have_text("Off the heat now")
        self.assertGreaterEqual(self.figure_px(), 96)
        page.keyboard.press("Space")
        expect(page.get_by_test_id("onward")).to_contain_text("End, and judge it")
        page.keyboard.press("Space")

        expect(page.get_by_role("heading", name="How did it come out?")).to_be_visible()
        expect(page.get_by_text("Reached the boil and held it")).to_be_visible()
        self.tab_to("Pours")
        for texture in ("Coats a spoon", "Spoons", "Pipes"):
            page.keyboard.press("ArrowRight", delay=80)  # as long as a finger stays
            expect(page.get_by_role("radio", name=texture)).to_be_checked()
        self.tab_to("Note")
        page.keyboard.type("Clean ridge.")
        self.tab_to("Into the book")
        page.keyboard.press("Enter")
        expect(page.get_by_role("button", name="Change the verdict")).to_be_visible()
        page.get_by_role("link", name="Book", exact=True).first.focus()
        page.keyboard.press("Enter")
        expect(page.get_by_role("link", name="Hay and quince cream")).to_contain_text(
            "Clean ridge."
        )

        batch = Batch.objects.latest("started_at")
        self.assertEqual(batch.verdict.texture, "pipe")
        self.assertGreater(Reading.objects.filter(batch=batch).count(), 100)

    def figure_px(self):
        return self.page.get_by_test_id("figure").evaluate(
            "e => parseFloat(getComputedStyle(e).fontSize)"
        )

    def test_cooking_the_same_formula_again_lays_the_two_side_by_side(self):
        self.sign_in_by_hand()
        self.page.get_by_role("link", name="Book", exact=True).click()
        self.page.get_by_role("link", name="Held by the clock").click()
        table = self.page.get_by_role("table")
        expect(table).to_contain_text("Reached the boil")
        expect(table).to_contain_text("Held 14 s of 60 s")
        expect(table).to_contain_text("thinned overnight")

    def test_an_anglaise_taken_too_far_is_said_in_words_and_without_a_probe(self):
        self.sign_in()
        self.open("Elderflower anglaise")
        self.start_cook()
        page = self.page
        page.keyboard.press("Space")
        page.keyboard.press("Space")
        self.pour_all()
        page.keyboard.press("Space")
        for temp, words in (
            ("83", "Coats the spoon: off the heat"),
            ("85", "Too hot: off the heat"),
            ("88", "sieve it"),
        ):
            page.get_by_role("button", name="Type a reading").click()
            page.get_by_label("Temperature, °C").fill(temp)
            page.keyboard.press("Enter")
            expect(page.get_by_test_id("next-move")).to_contain_text(words)

    def test_a_cooked_formula_is_not_changed_by_an_edit(self):
        self.sign_in()
        self.open("Bay leaf pastry cream")
        self.lines().press("Control+End")
        self.page.keyboard.type("\n10 g hay, toasted")
        expect(self.page.get_by_role("combobox", name="version")).to_have_value(self.newest())
        expect(self.page.get_by_test_id("save-note")).to_have_text("saved")
        versions = Dessert.objects.get(name="Bay leaf pastry cream").parts.get().versions.all()
        self.assertEqual([("hay" in v.lines_text) for v in versions], [False, True])
        # typing went on in the same box
        self.assertTrue(self.lines().input_value().endswith("10 g hay, toasted"))

    def newest(self):
        expect(self.page.get_by_role("combobox", name="version")).to_contain_text("2")
        part = Dessert.objects.get(name="Bay leaf pastry cream").parts.get()
        return str(part.versions.latest("number").id)

    def test_a_batch_is_scaled_to_whole_eggs_and_taken_back_with_one_key(self):
        self.sign_in()
        self.open("Burnt butter pudding")
        page = self.page
        before = self.lines().input_value()
        page.get_by_role("button", name="More or less of it").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("of what").select_option("batch")
        dialog.get_by_label("How much").fill("3000")
        expect(dialog.get_by_test_id("scale-words")).to_contain_text("eggs")
        dialog.get_by_role("button", name="7 eggs").click()
        expect(dialog.get_by_role("table")).to_contain_text("7 yolks")
        expect(dialog).to_contain_text("scorches easier")
        dialog.get_by_role("button", name="Write it so").click()
        expect(dialog).to_have_count(0)
        self.assertIn("7 yolks", self.lines().input_value())
        expect(page.get_by_test_id("whites")).to_contain_text("7 whites")
        page.keyboard.press("Control+z")
        expect(self.lines()).to_have_value(before)
        expect(page.get_by_test_id("save-note")).to_have_text("saved")

    def test_a_pudding_is_bent_until_it_slices(self):
        self.sign_in()
        self.open("Burnt butter pudding")
        page = self.page
        page.get_by_role("button", name="Bend it to a wish").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_role("radio", name="Slices").click()
        expect(dialog.get_by_test_id("bend-words")).to_contain_text("Slices")
        expect(dialog.get_by_role("table")).to_contain_text("more to slice")
        dialog.get_by_label("no starch").click()
        expect(dialog.get_by_test_id("unmet").first).to_contain_text("stands in the way")
        dialog.get_by_label("no starch").click()
        dialog.get_by_label("I have only").fill("6 yolks")
        expect(dialog.get_by_role("table")).to_contain_text("6 yolks")
        dialog.get_by_role("button", name="Write it so").click()
        expect(page.get_by_test_id("set-class")).to_contain_text("Slices")
        self.assertIn("6 yolks", self.lines().input_value())

    def test_the_point_on_the_map_is_dragged_and_the_lines_follow(self):
        self.sign_in()
        self.open("Burnt butter pudding")
        page = self.page
        before = self.lines().input_value()
        handle = page.get_by_role("button", name="Move the point")
        page.evaluate("document.fonts.ready")
        handle.hover()  # waits until the page has settled
        box = handle.bounding_box()
        middle = box["y"] + box["height"] / 2
        page.mouse.down()
        page.mouse.move(box["x"] + box["width"] / 2 + 136, middle, steps=8)
        page.mouse.up()
        expect(page.get_by_test_id("set-class")).to_contain_text("Slices")
        text = self.lines().input_value()
        self.assertNotIn("42 g corn starch", text)
        expect(page.get_by_label("judged as", exact=True)).to_contain_text("Starch pudding")
        for kept in ("1 l whole milk", "3 yolks", "60 g butter"):
            self.assertIn(kept, text)
        page.keyboard.press("Control+z")
        expect(self.lines()).to_have_value(before)
        handle.focus()
        page.keyboard.press("ArrowRight")
        expect(self.lines()).to_have_value(before.replace("42 g corn", "43 g corn"))

    def test_a_cook_takes_eggs_from_the_fridge_without_touching_the_formula(self):
        self.sign_in(who="early@weirhouse.example")
        self.open("Elderflower anglaise")
        page = self.page
        page.get_by_role("link", name="To the stove").click()
        words = page.get_by_test_id("ladder-words")
        expect(words).to_contain_text("First ladle")
        before = words.inner_text()
        page.get_by_label("Eggs at").fill("3")
        expect(page.get_by_text("Changed for this cook only")).to_be_visible()
        expect(words).not_to_have_text(before)
        page.get_by_label("Probe", exact=True).select_option(index=1)
        page.get_by_role("button", name="Cook it").press("Enter")
        expect(page.get_by_role("heading", name="Everything within reach")).to_be_visible()
        batch = Batch.objects.latest("started_at")
        self.assertEqual(batch.prediction["plan"]["ladder"]["bowl_temp_c"], 3)
        self.assertEqual(float(batch.version.eggs_c), 18)
        self.assertEqual(batch.cook.name, "Early cook")
