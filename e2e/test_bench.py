"""The formula bench: parts, baths, planes, side by side, eggs of the day, files in and out."""

import json

from playwright.sync_api import expect

from e2e.base import BrowserCase
from formulas.models import Dessert

PASTED = "1 l whole milk\n9 yolks\n3/4 cup sugar\n62 g corn starch\n40 g butter"


class BenchTest(BrowserCase):
    def test_from_a_pasted_list_to_whole_eggs_in_fourteen_glasses(self):
        self.sign_in()
        page = self.page
        page.get_by_role("button", name="Start a dessert").click()
        page.get_by_label("Name of the dessert").fill("Gooseberry hatch cream")
        page.get_by_role("button", name="Write the formula").click()
        self.lines().fill(PASTED)
        expect(page.get_by_test_id("set-class")).to_contain_text("Slices")
        expect(page.get_by_test_id("cook-endpoint")).to_contain_text("Boil and hold")
        self.choose("Into", "Ramekin 120 ml (4 oz)")
        page.get_by_label("How many").fill("14")
        expect(page.get_by_test_id("fit")).to_contain_text("Fills all 14")
        page.get_by_label("Filled", exact=True).select_option(label="to a share")
        expect(page.get_by_test_id("fit")).to_contain_text("of 14")
        page.get_by_role("button", name="More or less of it").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_role("button", name="11 eggs").click()
        expect(dialog.get_by_test_id("scale-words")).to_contain_text("11 eggs")
        dialog.get_by_role("button", name="Write it so").click()
        expect(page.get_by_test_id("eggs")).to_contain_text("crack 11 eggs, have 12 ready")
        expect(page.get_by_test_id("fit")).to_contain_text("Fills all 14")
        expect(page.get_by_test_id("set-class")).to_contain_text("Slices")

    def test_a_dessert_of_parts_is_added_up(self):
        self.sign_in()
        self.open("Burnt butter pudding")
        page = self.page
        page.get_by_role("button", name="Add a part").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("It is a").select_option("meringue")
        dialog.get_by_label("Name of the part").fill("Swiss meringue")
        dialog.get_by_role("button", name="Write its formula").click()
        expect(page.get_by_text("Write or paste the lines of the meringue")).to_be_visible()
        self.lines().fill("3 whites\n150 g sugar")
        expect(page.get_by_role("img", name="Made of")).to_be_visible()
        whole = page.get_by_test_id("whole")
        expect(whole).to_contain_text("Part 3 eggs")
        expect(whole).to_contain_text("Nothing is left over")
        page.get_by_role("button", name="Filling", exact=True).click()
        expect(page.get_by_test_id("set-class")).to_be_visible()
        page.get_by_role("button", name="Swiss meringue").click()
        page.get_by_role("button", name="Change this part").click()
        page.get_by_role("dialog").get_by_role("button", name="Take it out").click()
        expect(whole).to_have_count(0)

    def test_a_bath_is_poured_and_a_tray_too_low_is_said_at_its_field(self):
        self.sign_in()
        self.open("Toasted hay pots")
        page = self.page
        tray = page.get_by_test_id("tray")
        expect(tray).to_contain_text("to a Deck pan")
        half = tray.inner_text()
        page.get_by_label("Water", exact=True).select_option("rim")
        expect(tray).not_to_have_text(half)
        self.choose("Standing in", "Half sheet pan")
        expect(page.get_by_text("too shallow")).to_be_visible()
        page.get_by_label("Filled", exact=True).select_option("weight")
        page.get_by_label("In each", exact=True).fill("900")
        expect(page.get_by_text("to the brim, no more")).to_be_visible()
        page.get_by_label("In each", exact=True).fill("140")
        expect(page.get_by_test_id("fit")).to_contain_text("Fills all 12")

    def test_the_map_shows_other_planes_and_the_family(self):
        self.sign_in()
        self.open("Smoked tea pastry cream")
        page = self.page
        expect(page.get_by_role("img", name="Set map")).to_contain_text("starch, g")
        page.get_by_role("button", name="others of the family").click()
        expect(page.get_by_role("img", name="Bay leaf pastry cream:")).to_be_visible()
        page.get_by_role("radio", name="sugar and fat").click()
        expect(page.get_by_role("img", name="Set map")).to_contain_text("milk fat")
        expect(page.get_by_role("button", name="Move the point")).to_have_count(0)

    def test_two_versions_side_by_side_then_another_dessert(self):
        self.sign_in()
        self.open("Smoked tea pastry cream")
        page = self.page
        page.get_by_role("link", name="Compare").click()
        pairs = page.get_by_test_id("pairs")
        expect(pairs).to_contain_text("68 g corn starch")
        expect(pairs).to_contain_text("+24 %")
        expect(page.get_by_test_id("compare-says")).to_contain_text("sets firmer")
        expect(page.get_by_text("Too soft for the rings")).to_be_visible()
        page.get_by_role("button", name="another dessert").first.click()
        page.get_by_role("dialog").get_by_role("searchbox").fill("bay")
        page.get_by_role("dialog").get_by_role("button", name="Bay leaf pastry cream").click()
        page.get_by_label("which version").select_option(label="version 1, cooked")
        expect(page.get_by_text("Pipes clean, no starch taste.")).to_be_visible()

    def test_the_eggs_of_the_day_meet_the_whites_that_are_wanted(self):
        self.sign_in()
        page = self.page
        page.get_by_role("link", name="Eggs of the day").click()
        expect(page.get_by_role("heading", name="Nothing is made today")).to_be_visible()
        for name in ("Bay leaf", "Quince and rye"):
            page.get_by_role("button", name="Add a dessert").click()
            page.get_by_role("dialog").get_by_role("searchbox").fill(name)
            page.get_by_role("dialog").get_by_role("button", name=name).click()
        words = page.get_by_test_id("eggs-words")
        expect(words).to_contain_text("Part 18, crack 1 whole")
        expect(page.get_by_text("6 eggs fewer")).to_be_visible()
        page.get_by_label("batches").first.fill("2")
        expect(words).to_contain_text("Part 28")
        page.reload()
        expect(words).to_contain_text("Part 28")

    def test_a_recipe_is_pasted_as_it_stands_and_opened_with_its_parts(self):
        self.sign_in()
        page = self.page
        page.get_by_role("link", name="In and out").click()
        page.get_by_label("or paste a recipe as it stands").fill(
            "Hatch tart\nServes 8\nIngredients\nFor the pastry\n▢ 150 g flour\n▢ 75 g butter\n"
            "For the custard\n▢ 1 and 1/2 cups heavy cream\n▢ 6 yolks\n▢ a handful of sloes\n"
            "Instructions\n1. Bake it blind."
        )
        page.get_by_role("button", name="Read it").click()
        report = page.get_by_test_id("import-report")
        expect(report).to_contain_text("1 dessert, 5 lines: 4 understood, 1 in doubt")
        expect(report).to_contain_text("Pastry (crust) 2 lines · Custard (cream) 3 lines")
        expect(report).to_contain_text("a handful of sloes")
        report.get_by_role("button", name="Keep it, doubts and all").click()
        report.get_by_role("link", name="Open Hatch tart").click()
        expect(page.get_by_role("heading", name="Hatch tart")).to_be_visible()
        self.assertEqual(Dessert.objects.get(name="Hatch tart").parts.count(), 2)

    def test_a_file_comes_in_is_found_and_goes_out_again(self):
        self.sign_in()
        page = self.page
        page.get_by_role("link", name="In and out").click()
        recipes = [
            {"@type": "Recipe", "name": f"Barley pot {n}",
             "recipeIngredient": ["1 l whole milk", "8 yolks", "a handful of sloes"]}
            for n in range(45)
        ]  # fmt: skip
        page.get_by_label("File of formulas").set_input_files(
            {"name": "book.json", "mimeType": "application/json",
             "buffer": json.dumps(recipes).encode()}
        )  # fmt: skip
        report = page.get_by_test_id("import-report")
        expect(report).to_contain_text("45 desserts, 135 lines: 90 understood, 45 in doubt")
        report.get_by_role("button", name="Keep them all").click()
        expect(report).to_contain_text("All 45 are on the shelf")
        self.assertEqual(Dessert.objects.filter(name__startswith="Barley pot").count(), 45)
        page.get_by_role("link", name="Shelf", exact=True).click()
        page.get_by_role("searchbox").fill("sloes")
        expect(page.get_by_text("45 desserts")).to_be_visible()
        page.get_by_role("searchbox").fill("pot 31")
        expect(page.get_by_text("1 dessert", exact=True)).to_be_visible()
        page.get_by_role("link", name="Barley pot 31").click()
        page.get_by_role("link", name="Bench card").click()
        expect(page.get_by_role("article")).to_contain_text("1 031 g")
        with page.expect_download() as sent:
            page.get_by_role("link", name="schema.org").click()
        graph = json.loads(sent.value.path().read_text("utf8"))["@graph"]
        self.assertEqual(graph[0]["recipeIngredient"], recipes[31]["recipeIngredient"])
