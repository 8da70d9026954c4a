"""Who comes in and what they may: a first hour, an invitation, a reader, a cook."""

import re

from django.core.cache import cache
from playwright.sync_api import expect

from accounts.models import User
from batches.models import Batch, Reading
from e2e.base import BrowserCase
from formulas.models import Dessert
from kitchen.models import Kitchen, Member, Ring

NEW = "three words nobody expects"


class FirstHourTest(BrowserCase):
    expected_errors = ("422", "Failed to load resource")

    def setUp(self):
        super().setUp()
        Kitchen.objects.exclude(pk=self.kitchen.pk).delete()
        kitchen = Kitchen.objects.create(name="Our kitchen")
        user = User.objects.create_user("chef@our.example", "made-up-by-it", "Chef",
                                        must_change=True)  # fmt: skip
        Member.objects.create(kitchen=kitchen, user=user, role="chef")
        Ring.objects.create(kitchen=kitchen, name="Gas ring", fuel="gas", rated_w=1900)

    def test_from_a_made_up_password_to_a_first_dessert_out_of_a_family(self):
        page = self.page
        page.goto("/")
        page.get_by_label("E-mail address").fill("chef@our.example")
        page.get_by_label("Password").fill("made-up-by-it")
        page.get_by_role("button", name="Sign in").click()
        expect(page.get_by_role("heading", name="a password of your own")).to_be_visible()
        page.get_by_label("Password now").fill("made-up-by-it")
        page.get_by_label("Password from now on").fill("short")
        page.get_by_role("button", name="Into the kitchen").click()
        expect(page.get_by_role("alert")).to_contain_text("too short")
        page.get_by_label("Password from now on").fill(NEW)
        page.get_by_role("button", name="Into the kitchen").click()
        expect(page.get_by_role("heading", name="The shelf is empty.")).to_be_visible()
        page.get_by_role("button", name="A first dessert").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("Name of the dessert").fill("Sunday custard")
        self.choose("Begin with", "Crème caramel / flan", dialog)
        expect(dialog.get_by_test_id("starter")).to_contain_text("6 eggs")
        dialog.get_by_role("button", name="Write the formula").click()
        expect(page.get_by_test_id("set-class")).to_contain_text("Slices")
        expect(self.lines()).to_have_value(re.compile("1 l whole milk"))
        self.assertEqual(Dessert.objects.get(name="Sunday custard").kitchen.name, "Our kitchen")


class PeopleTest(BrowserCase):
    expected_errors = ("401", "403", "Failed to load resource")

    def test_a_chef_asks_somebody_in_who_comes_reads_and_is_made_a_cook(self):
        cache.clear()
        self.sign_in_by_hand()
        page = self.page
        page.get_by_role("link", name="Kitchen", exact=True).click()
        page.get_by_role("link", name="People and backups").click()
        page.get_by_label("Their name").fill("Weekend cook")
        page.get_by_label("They will be").select_option("viewer")
        page.get_by_role("button", name="Make a link").click()
        link = page.locator("code", has_text="/join/").inner_text()

        guest = self.new_page()
        guest.goto(link)
        expect(guest.get_by_role("heading", name="Into Weir House")).to_be_visible()
        guest.get_by_label("E-mail address").fill("weekend@weirhouse.example")
        guest.get_by_label("Password").fill(NEW)
        guest.get_by_role("button", name="Come in").click()
        expect(guest.get_by_role("heading", name="Weir House")).to_be_visible()
        # A reader reads and asks, and has nothing to press that would be refused.
        expect(guest.get_by_role("button", name="Start a dessert")).to_have_count(0)
        self.open("Bay leaf pastry cream", guest)
        expect(self.lines(guest)).to_have_attribute("readonly", "")
        guest.get_by_role("link", name="Stove", exact=True).click()
        expect(guest.get_by_test_id("ladder-words")).to_contain_text("First ladle")
        expect(guest.get_by_role("button", name="Cook it")).to_have_count(0)

        row = page.get_by_role("listitem").filter(has_text="weekend@weirhouse.example")
        page.reload()
        row.get_by_label("What Weekend cook does").select_option("cook")
        expect(page.get_by_label("Security log")).to_contain_text("viewer to cook")
        guest.reload()
        guest.get_by_label("Probe", exact=True).select_option(
            label="none: typed readings or the clock"
        )
        guest.get_by_role("button", name="Cook it").press("Enter")
        expect(guest.get_by_role("heading", name="Everything within reach")).to_be_visible()
        self.assertEqual(Batch.objects.latest("started_at").cook_name, "Weekend cook")

        row.get_by_role("button", name="Take Weekend cook out").click()
        row.get_by_role("button", name="Yes, take out").click()
        expect(page.get_by_label("What Weekend cook does")).to_have_count(0)
        guest.goto("/")
        expect(guest.get_by_role("button", name="Sign in")).to_be_visible()
        self.assertEqual(Batch.objects.latest("started_at").cook_name, "Weekend cook")

    def test_a_cook_types_a_reading_in_fahrenheit_and_judges(self):
        self.sign_in_by_hand(who="late@weirhouse.example")
        self.open("Elderflower anglaise")
        page = self.page
        page.get_by_role("radio", name="cups °F").click()
        expect(page.get_by_role("button", name="Save")).to_have_count(0)
        self.start_cook()
        for _ in range(2):
            page.keyboard.press("Space")
        self.pour_all()
        page.keyboard.press("Space")
        page.get_by_role("button", name="Type a reading").click()
        page.get_by_label("Temperature, °F").fill("181")
        page.keyboard.press("Enter")
        expect(page.get_by_test_id("figure")).to_contain_text("181")
        self.assertAlmostEqual(Reading.objects.latest("id").temp_cc, 8278, delta=5)

    def test_i_see_where_i_am_signed_in_and_end_it_there(self):
        self.sign_in_by_hand()
        other = self.new_page()
        self.sign_in_by_hand(other)
        page = self.page
        page.get_by_role("link", name="Kitchen", exact=True).click()
        page.get_by_role("link", name="You: password, sign out").click()
        page.get_by_role("button", name="sign out there").first.click()
        expect(page.get_by_role("button", name="sign out there")).to_have_count(0)
        other.reload()
        expect(other.get_by_role("button", name="Sign in")).to_be_visible()
