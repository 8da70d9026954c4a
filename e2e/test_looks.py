"""Readable by everybody: no accessibility violations, phone width, both unit systems, empty."""

from playwright.sync_api import expect

from batches.models import Batch
from e2e.base import BrowserCase
from formulas.models import Dessert, Part, Version


class LooksTest(BrowserCase):
    def visit(self, suffix):
        page, base = self.page, f"/k/{self.kitchen.id}"
        dessert = Dessert.objects.get(name="Bay leaf pastry cream").id
        batch = Batch.objects.latest("started_at").id
        tart = Dessert.objects.get(name="Quince and rye tart").id
        flan = Dessert.objects.get(name="Barley caramel flan").id
        pie = Dessert.objects.get(name="Chestnut custard pie").id
        shell = Part.objects.get(dessert=pie, kind="crust").id
        tea = Version.objects.filter(part__dessert__name="Smoked tea pastry cream")
        first, last = (version.id for version in tea)
        for where, path, sign in (
            ("shelf", "", page.get_by_role("heading", name="Weir House")),
            ("formula", f"/d/{dessert}", page.get_by_test_id("set-class")),
            ("stove", f"/d/{dessert}/stove", page.get_by_test_id("ladder-words")),
            ("book", "/book", page.get_by_role("heading", name="The book")),
            ("batch", f"/book/{batch}", page.get_by_role("heading", name="What the curve shows")),
            ("kitchen", "/kitchen", page.get_by_role("heading", name="Probes")),
            ("parts and bath", f"/d/{tart}", page.get_by_test_id("whole")),
            ("side by side", f"/compare?left={first}&right={last}", page.get_by_test_id("pairs")),
            ("whole", f"/d/{tart}/whole", page.get_by_test_id("shortest")),
            ("day", "/day", page.get_by_role("button", name="Work it out")),
            ("card", f"/d/{tart}/card", page.get_by_role("article")),
            ("eggs", "/eggs", page.get_by_role("heading", name="Nothing is made")),
            ("caramel", f"/d/{flan}/stove", page.get_by_test_id("work-facts")),
            ("oven", f"/d/{pie}/oven", page.get_by_test_id("pull")),
            ("crust", f"/d/{pie}/oven?part={shell}", page.get_by_test_id("soggy")),
            ("cold", f"/d/{pie}/cold", page.get_by_test_id("passes")),
            ("exercises", "/rehearse", page.get_by_role("heading", name="Rehearse")),
            ("files", "/files", page.get_by_role("heading", name="Take formulas in")),
        ):
            page.goto(f"{base}{path}")
            expect(sign).to_be_visible()
            self.check(f"{where} {suffix}")
            if where == "whole" and suffix == "on a phone":  # which reads in cups and °F
                self.assertNotIn("°C", page.locator("main").inner_text())

    def test_sign_in_and_every_page_by_day(self):
        self.page.goto("/")
        expect(self.page.get_by_role("button", name="Sign in")).to_be_visible()
        self.check("sign-in")
        self.sign_in()
        self.visit("by day")

    def test_every_page_on_a_phone_in_cups_and_dim(self):
        self.page = self.new_page(390, 844)
        self.sign_in()
        self.page.get_by_role("radio", name="cups °F").click()
        self.page.get_by_role("button", name="dim light").click()
        expect(self.page.get_by_role("radio", name="cups °F")).to_have_attribute("data-state", "on")
        self.visit("on a phone")

    def test_the_cook_on_a_phone_in_fahrenheit(self):
        self.page = self.new_page(390, 844)
        # A tablet reads the page over plain HTTP, where browsers hide some functions.
        self.page.add_init_script("delete Crypto.prototype.randomUUID")
        self.sign_in()
        self.page.get_by_role("radio", name="cups °F").click()
        self.open("Elderflower anglaise")
        self.start_cook()
        self.check("ready")
        self.page.keyboard.press("Space")
        expect(self.page.get_by_text("°F").first).to_be_visible()
        self.check("heat")
        self.page.keyboard.press("Space")
        expect(self.page.get_by_role("img", name="Temper ladder")).to_be_visible()
        self.check("ladder")
        self.assertNotIn("°C", self.page.locator("main").inner_text())

    def test_an_empty_kitchen_teaches(self):
        Dessert.objects.all().update(archived=True)
        self.sign_in()
        expect(self.page.get_by_role("heading", name="The shelf is empty.")).to_be_visible()
        self.check("empty shelf")

    def test_a_ridiculous_formula_is_answered_line_by_line(self):
        self.sign_in()
        self.page.get_by_role("button", name="Start a dessert").click()
        self.page.get_by_label("Name of the dessert").fill("W" * 120)
        self.page.get_by_role("button", name="Write the formula").click()
        self.lines().fill("1 l milk\n3 cups\n400 kg yolk\n-2 eggs\n0 g sugar\n200 g blorp")
        doubts = self.page.get_by_label("Lines in doubt")
        for words in ("3 cups of what?", "did you mean 400 g?", "more than nothing", "its label"):
            expect(doubts).to_contain_text(words)
        expect(self.page.get_by_test_id("warning").last).to_contain_text("Check the amounts")
        expect(self.page.get_by_test_id("contains")).to_contain_text("incomplete")
        self.check("ridiculous")
        self.page.get_by_role("button", name="describe it").click()
        dialog = self.page.get_by_role("dialog")
        dialog.get_by_label("Fat, g").fill("80")
        dialog.get_by_label("Protein, g").fill("70")
        dialog.get_by_role("button", name="Into the pantry").click()
        expect(dialog.get_by_role("alert")).to_contain_text("more than the whole")
        dialog.get_by_label("Protein, g").fill("7")
        dialog.get_by_role("checkbox", name="sesame").click()
        dialog.get_by_role("button", name="Into the pantry").click()
        expect(dialog).to_have_count(0)
        expect(doubts).not_to_contain_text("blorp")
        expect(self.page.get_by_test_id("contains")).to_contain_text("sesame")
        # What a jar holds is asked once; the next formula knows it.
        self.lines().fill("1 l milk\n2 jars apricot jam")
        doubts.get_by_label("One pack weighs, g").fill("340")
        self.check("a jar is asked about")
        doubts.get_by_role("button", name="Remember it").click()
        expect(self.page.get_by_label("What was understood")).to_contain_text("680")
        expect(self.page.get_by_test_id("contains")).to_have_text("contains milk")
        self.page.get_by_role("link", name="Kitchen", exact=True).click()
        own = self.page.get_by_label("Own words and weights")
        expect(own).to_contain_text("one pack of apricot jam is 340")

    expected_errors = ("422",)
