"""One current picture of each main view, from the demo kitchen, into docs/screenshots."""

from playwright.sync_api import Browser, Page, Playwright, sync_playwright

from ops import needs
from ops.base import HOME, PATIENCE_S, ROOT, say
from ops.demo_server import DemoServer, demo_server
from ops.serve import stand_in

OUT = ROOT / "docs" / "screenshots"


class Camera:
    """A signed-in page of one size that saves what it sees."""

    def __init__(
        self, browser: Browser, server: DemoServer, width: int = 1280, height: int = 800
    ) -> None:
        self.server = server
        self.page: Page = browser.new_page(
            viewport={"width": width, "height": height},
            reduced_motion="reduce",
            base_url=server.url,
        )
        self.page.goto("/")

    def sign_in(self) -> None:
        """Into the demo kitchen."""
        self.page.get_by_label("E-mail address").fill(self.server.email)
        self.page.get_by_label("Password").fill(self.server.password)
        self.page.get_by_role("button", name="Sign in").click()
        self.page.get_by_role("heading", name=self.server.kitchen).wait_for()

    def take(self, name: str) -> None:
        """Save the picture when fonts and figures are there."""
        self.page.evaluate("document.fonts.ready")
        self.page.wait_for_timeout(500)
        self.page.screenshot(path=OUT / f"{name}.png")
        say(f"  {name}.png")

    def open(self, name: str) -> None:
        """A dessert from the shelf."""
        self.page.get_by_role("link", name="Bell Crumb, the shelf").click()
        self.page.get_by_role("link", name=name).click()
        self.page.get_by_test_id("set-class").wait_for()

    def until(self, headline: str) -> None:
        """Wait until the guide says this."""
        self.page.get_by_test_id("headline").get_by_text(headline, exact=True).wait_for(
            timeout=120_000
        )


def cook(camera: Camera, prefix: str) -> None:
    """A cook at 20 times the clock, pictured while tempering (phone) or while holding."""
    page = camera.page
    page.get_by_role("link", name="To the stove").click()
    page.get_by_label("Its clock").select_option("20")
    page.get_by_role("button", name="Cook it").click()
    camera.until("before the heat")
    page.keyboard.press("Space")
    camera.until("there")
    page.keyboard.press("Space")
    onward = page.get_by_test_id("onward")
    poured = 0
    while "Ladle" in onward.inner_text():
        page.keyboard.press("Space")
        poured += 1
        page.wait_for_timeout(700)
        if poured == 4:
            page.wait_for_timeout(1200)
            if prefix == "phone":
                camera.take("phone-cook")
    page.keyboard.press("Space")
    camera.until("boil reached")
    if prefix == "cook":
        camera.take("cook-hold")
    camera.until("held")
    for _ in range(3):
        page.keyboard.press("Space")
        page.wait_for_timeout(900)
    page.get_by_role("heading", name="How did it come out?").wait_for()


def bench(camera: Camera) -> None:
    """The bench's other views: the dessert whole, the day, eggs."""
    page = camera.page
    page.get_by_role("link", name="Bell Crumb, the shelf").click()
    page.get_by_role("link", name="Quince and rye tart").click()
    page.get_by_role("link", name="The dessert whole").click()
    page.get_by_test_id("shortest").wait_for()
    camera.take("dessert")
    page.get_by_role("link", name="Bell Crumb, the shelf").click()
    page.get_by_role("link", name="The day", exact=True).click()
    for name in ("Quince and rye tart", "Barley caramel flan", "Malt cheesecake", "Plum and malt"):
        page.get_by_role("button", name="Add a dessert").click()
        page.get_by_role("dialog").get_by_role("searchbox").fill(name)
        page.get_by_role("dialog").get_by_role("button", name=name).click()
    page.get_by_role("button", name="Work it out").click()
    page.get_by_test_id("plan-words").wait_for()
    page.get_by_test_id("plan-words").scroll_into_view_if_needed()
    page.evaluate("document.querySelector('[data-testid=plan-words]').scrollIntoView()")
    page.get_by_role("button", name="Begin this day").click()
    page.get_by_role("heading", name="The day, as it happens").wait_for()
    page.get_by_role("button", name="Done:").first.click()
    page.get_by_role("button", name="Begin:").first.click()
    page.get_by_test_id("day-done").get_by_text("1 of").wait_for()
    camera.take("day")
    page.get_by_role("button", name="End the day").click()
    page.get_by_role("heading", name="A day that was").wait_for()
    page.get_by_role("link", name="Bell Crumb, the shelf").click()
    page.get_by_role("link", name="Eggs of the day").click()
    for name in ("Bay leaf", "Quince and rye"):
        page.get_by_role("button", name="Add a dessert").click()
        page.get_by_role("dialog").get_by_role("searchbox").fill(name)
        page.get_by_role("dialog").get_by_role("button", name=name).click()
    page.get_by_test_id("eggs-words").get_by_text("18").wait_for()
    camera.take("eggs-of-the-day")


def stove_and_practice(camera: Camera) -> None:
    """The sugar screen, and a rehearsal spoiled with its reason."""
    page = camera.page
    page.get_by_role("link", name="Bell Crumb, the shelf").click()
    page.get_by_role("link", name="Barley caramel flan").click()
    page.get_by_role("link", name="To the stove").click()
    page.get_by_test_id("work-facts").wait_for()
    camera.take("sugar")
    page.get_by_role("link", name="Bell Crumb, the shelf").click()
    page.get_by_role("link", name="Rehearse").click()
    page.get_by_label("Its clock").select_option("20")
    page.get_by_role("button", name="Begin: To the boil and held").click()
    for heat in range(1, 7):
        page.get_by_role("button", name="More heat").click()
        page.get_by_test_id("heat").get_by_text(str(heat)).wait_for()
    camera.until("thickening")
    page.wait_for_timeout(2500)
    camera.take("rehearsal")
    camera.until("boil reached")
    page.get_by_role("button", name="That is it").click()
    page.get_by_test_id("result").wait_for()
    camera.take("debrief")


def oven_and_cold(camera: Camera) -> None:
    """The mould cut open with a second case beside it, a crust, the cold, and a bake going on."""
    page = camera.page
    camera.open("Toasted hay pots")
    page.get_by_role("link", name="Oven", exact=True).click()
    page.get_by_test_id("pull").wait_for()
    page.get_by_label("Beside it").select_option("bath")
    page.get_by_test_id("ghost-words").get_by_text("min, the edge").wait_for()
    page.get_by_role("slider", name="Minute of the bake").fill("34")
    camera.take("oven")
    page.get_by_label("Beside it").select_option("")
    page.get_by_label("Its clock").select_option("60")
    page.get_by_role("button", name="Bake it").click()
    camera.until("before the heat")
    for _ in range(2):
        page.get_by_test_id("onward").click()
        page.wait_for_timeout(900)
    page.get_by_test_id("refit").get_by_text("cooler than thought").wait_for(timeout=60_000)
    page.wait_for_timeout(6000)
    camera.take("bake")
    camera.until("pull it")
    for _ in range(3):
        page.get_by_test_id("onward").click()
        page.wait_for_timeout(900)
    page.get_by_role("heading", name="How did it come out?").wait_for()
    page.get_by_role("link", name="Bell Crumb, the shelf").click()
    page.get_by_role("link", name="Chestnut custard pie").click()
    page.get_by_role("heading", name="Chestnut custard pie").wait_for()
    page.get_by_role("link", name="Oven", exact=True).click()
    page.get_by_test_id("pull").wait_for()
    page.get_by_label("Part", exact=True).select_option(label="Rye crust")
    page.get_by_test_id("soggy").wait_for()
    camera.take("crust")
    camera.open("Bay leaf pastry cream")
    page.get_by_role("link", name="Cold", exact=True).click()
    page.get_by_test_id("passes").wait_for()
    camera.take("cold")


def main() -> None:
    """Take them all."""
    OUT.mkdir(parents=True, exist_ok=True)
    needs.front_end()  # what is seen is what stands in the source
    with demo_server() as server:
        from demo.weeks import load_weeks
        from kitchen.models import Kitchen, Lesson

        load_weeks(Kitchen.objects.get(name=server.kitchen))
        # The picture of a bake shows an oven that is found out while it bakes.
        Lesson.objects.filter(kind="oven").update(on=False)
        with sync_playwright() as playwright:
            _all(server, playwright)


def _all(server: DemoServer, playwright: Playwright) -> None:
    simulated = stand_in(server.url, server.token, HOME / "probe.log")
    browser = playwright.chromium.launch(executable_path=needs.CHROMIUM, args=needs.CHROMIUM_FLAGS)
    try:
        camera = Camera(browser, server)
        camera.sign_in()
        camera.take("shelf")
        camera.open("Bay leaf pastry cream")
        camera.take("formula")
        camera.page.get_by_role("link", name="To the stove").click()
        camera.page.get_by_test_id("ladder-words").wait_for()
        camera.take("stove")
        bench(camera)
        stove_and_practice(camera)
        oven_and_cold(camera)
        for name in ("Book", "Kitchen"):
            camera.page.get_by_role("link", name=name, exact=True).click()
            camera.page.get_by_role("heading", level=2).first.wait_for()
            camera.take(name.lower())
        camera.open("Bay leaf pastry cream")
        cook(camera, "cook")
        camera.take("batch")
        phone = Camera(browser, server, 390, 844)
        phone.sign_in()
        phone.open("Malted barley pastry cream")
        cook(phone, "phone")
        camera.page.get_by_role("radio", name="cups °F").click()
        camera.page.get_by_role("button", name="dim light").click()
        camera.open("Elderflower anglaise")
        camera.take("formula-us-dim")
    finally:
        browser.close()
        simulated.terminate()
        simulated.wait(PATIENCE_S)


if __name__ == "__main__":
    main()
