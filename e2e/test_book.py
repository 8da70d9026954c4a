"""The book read: side by side, a picture of the cut face, the record of a food-safety plan."""

import io

from PIL import Image
from playwright.sync_api import expect

from e2e.base import BrowserCase


class BookTest(BrowserCase):
    expected_errors = ("422", "Failed to load resource")

    def test_a_batch_has_its_picture_stands_beside_another_and_is_in_the_record(self):
        self.sign_in()
        page = self.page
        page.get_by_role("link", name="Book", exact=True).click()
        expect(page.get_by_role("heading", name="The book")).to_be_visible()
        self.choose("Family", "Pastry cream")
        page.get_by_role("link", name="Bay leaf pastry cream").first.click()
        expect(page.get_by_test_id("beside")).to_contain_text("cooked or baked")
        out = io.BytesIO()
        Image.new("RGB", (600, 400), (210, 180, 90)).save(out, "PNG")
        picture = {"name": "cut.png", "mimeType": "image/png", "buffer": out.getvalue()}
        chooser = page.get_by_label("A picture of the cut face")
        chooser.set_input_files(picture)
        shown = page.get_by_role("img", name="Picture 1 of Bay leaf pastry cream")
        expect(shown).to_be_visible()
        expect(shown).to_have_js_property("naturalWidth", 600)
        expect(page.get_by_test_id("as-predicted")).to_contain_text("predicted: Pipes")
        chooser.set_input_files({**picture, "buffer": b"not a picture"})
        expect(page.get_by_text("This is no picture")).to_be_visible()
        self.check("a batch with its picture")
        page.get_by_role("link", name="Book", exact=True).first.click()
        page.get_by_role("link", name="The record for the food-safety plan").click()
        expect(page.get_by_test_id("record")).to_contain_text("Bay leaf pastry cream")
        self.check("the record")
        page.set_viewport_size({"width": 390, "height": 844})
        self.check("the record on a phone")
