"""Measured in the browser: from a page's address, and from a key, to its picture."""

import gzip
import os
import time

from ops import needs
from ops.base import ROOT
from ops.bench_table import one, row
from ops.demo_server import DemoServer


def in_browser(server: DemoServer) -> None:
    """Page load and keystroke to picture, in Chromium."""
    from playwright.sync_api import sync_playwright

    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path=needs.CHROMIUM, args=[*needs.CHROMIUM_FLAGS, "--disable-gpu"]
        )
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(server.url)
        page.get_by_label("E-mail address").fill(server.email)
        page.get_by_label("Password").fill(server.password)
        page.get_by_role("button", name="Sign in").click()
        page.get_by_role("searchbox").fill("burnt butter")
        page.get_by_role("link", name="Burnt butter pudding").click()
        page.get_by_test_id("set-class").wait_for()
        url = page.url
        loads = []
        for _ in range(8):
            began = time.perf_counter()
            page.goto(url)
            page.get_by_test_id("set-class").wait_for()
            loads.append((time.perf_counter() - began) * 1000)
        row("formula page, load to picture, warm cache", loads)
        row(
            "keystroke to new picture in the browser",
            [
                page.evaluate(
                    KEYSTROKE, f"{1000 + n} g whole milk\n3 yolks\n{40 + n} g corn starch"
                )
                for n in range(30)
            ],
            aim="100 ms p95",
        )
        browser.close()


# Types one change into the textarea and waits until the point on the map has moved.
KEYSTROKE = """(text) => new Promise((done) => {
  const area = document.querySelector("textarea");
  const at = () => document.querySelector("[data-testid=set-point]")?.getAttribute("cx");
  const before = at();
  const began = performance.now();
  const set = Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, "value").set;
  set.call(area, text);
  area.dispatchEvent(new Event("input", { bubbles: true }));
  const look = () => {
    if (at() !== before) done(performance.now() - began);
    else requestAnimationFrame(look);
  };
  requestAnimationFrame(look);
})"""


def first_load() -> None:
    """Script bytes the first page needs, gzipped: what index.html and its imports pull in."""
    dist = ROOT / "web" / "dist"
    html = (dist / "index.html").read_text()
    wanted = [name for name in os.listdir(dist / "assets") if name.endswith(".js") and name in html]
    size = sum(len(gzip.compress((dist / "assets" / name).read_bytes())) for name in wanted)
    one("first load, script, gzip", size / 1000, "kB", "250 kB")
    every = [p for p in (dist / "assets").iterdir() if p.suffix == ".js"]
    one("all script, gzip", sum(len(gzip.compress(p.read_bytes())) for p in every) / 1000, "kB")
