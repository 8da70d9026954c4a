"""Measure: run inside a throwaway MariaDB with the demo kitchen; print a table of medians.

Ratios first: they hold on any machine. Times are medians on this one.
"""

import gzip
import http.cookiejar
import json
import os
import statistics
import subprocess
import sys
import time
import urllib.request
import uuid
from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from itertools import count
from pathlib import Path
from typing import Any

from ops import bench_whole
from ops.base import ROOT
from ops.demo_server import DemoServer, demo_server

PASTRY = ["1 l whole milk", "9 yolks", "3/4 cup sugar", "85 g corn starch", "1 vanilla pod"]


def times_ms(job: Callable[[], object], runs: int = 40) -> list[float]:
    """Milliseconds of ``runs`` runs after a few to warm up."""
    for _ in range(3):
        job()
    found = []
    for _ in range(runs):
        began = time.perf_counter()
        job()
        found.append((time.perf_counter() - began) * 1000)
    return found


def row(name: str, found: list[float], unit: str = "ms", aim: str = "") -> None:
    """One line of the table: median and 95th percentile."""
    ordered = sorted(found)
    p95 = ordered[min(len(ordered) - 1, int(0.95 * len(ordered)))]
    print(
        f"| {name:<46} | {statistics.median(found):>8.1f} | {p95:>8.1f} | {unit:<5} | {aim:<16} |"
    )


def one(name: str, value: float, unit: str, aim: str = "") -> None:
    """One line of the table with a single figure."""
    print(f"| {name:<46} | {value:>8.1f} | {'':>8} | {unit:<5} | {aim:<16} |", flush=True)


def core() -> dict[str, float]:
    """The core alone, in this process."""
    from bellcrumb.contract import compute

    grams = count(1000)

    def fresh() -> object:
        lines = [f"{next(grams)} g whole milk", *PASTRY[1:]]
        return compute("formula", {"lines": lines, "vessel": "ramekin_150", "count": 8})

    found = {"formula": times_ms(fresh, 100)}
    found["temper"] = times_ms(
        lambda: compute(
            "temper",
            {
                "hot": {"lines": ["1 l whole milk"], "temp_c": 90},
                "eggs": {"lines": ["9 yolks", "150 g sugar"], "temp_c": 18},
                "ladle_ml": 100,
            },
        )
    )
    found["pot"] = times_ms(lambda: compute("pot", {"lines": PASTRY, "temp_c": 60, "hold_s": 60}))
    row("formula answer with set map, in the core", found["formula"], aim="100 ms a key")
    row("temper ladder, in the core", found["temper"])
    row(
        "bend a pudding until it slices, in the core",
        times_ms(
            lambda: compute(
                "solve",
                {"lines": PASTRY, "family": "starch_pudding", "wishes": {"set_class": "slice"}},
            )
        ),
        aim="300 ms",
    )
    row("pot to the boil and hold, in the core", found["pot"])
    found["bake"] = oven()
    return {name: statistics.median(t) for name, t in found.items()}


RAMEKINS = {
    "mix": {"lines": ["1 l whole milk", "5 eggs", "3 yolks", "180 g sugar"]},
    "vessel": {"shape": "round", "top_diameter_mm": 83, "bottom_diameter_mm": 78, "depth_mm": 44,
               "wall_mm": 4.5, "material": "porcelain", "fill_mm": 38},
    "count": 6, "oven": {"set_c": 163}, "bath": {"level": "half", "water_c": 100},
}  # fmt: skip


def oven() -> list[float]:
    """The bake in the core, and its field against an independent library of finite elements."""
    from bellcrumb.contract import compute
    from tests.core.independent import ours, theirs
    from tests.core.practice import met, table

    bake = times_ms(lambda: compute("bake", RAMEKINS), 30)
    row("bake with its band and carry-over, in the core", bake, aim="60 ms")
    row("choose oven and bath (20 settings), in the core", times_ms(
        lambda: compute("choose", {**RAMEKINS, "oven": {}, "within_min": 75}), 6))  # fmt: skip
    pan = {"shape": "rect", "length_mm": 500, "width_mm": 300, "depth_mm": 65, "fill_mm": 25}
    row("cooling with its deepest depth, in the core", times_ms(
        lambda: compute("cool", {"mix": {"lines": PASTRY}, "vessel": pan}), 10))  # fmt: skip
    each = {}
    for columns, rows in ((16, 20), (32, 40), (64, 80)):
        mine = times_ms(lambda c=columns, r=rows: ours(c, r, 5.0, 600.0), 5)  # type: ignore[misc]
        fem = times_ms(lambda c=columns, r=rows: theirs(c, r, 5.0, 600.0), 3)  # type: ignore[misc]
        each[columns * rows] = statistics.median(mine)
        one(
            f"  field of {columns} × {rows}: finite elements against ours",
            statistics.median(fem) / statistics.median(mine), "ratio",
        )  # fmt: skip
    one("  16 times the cells take so many times as long", each[5120] / each[320], "ratio")
    for name, n, ratio, spread, meets in table(met()):
        one(f"ordinary bakes, {name}: ours / practice, of {n}", ratio, "ratio", "0.95-1.05")
        one(f"  spread of its logarithm; {meets} windows meet", spread, "", "0.15")
    return bake


class Client:
    """A signed-in browser's worth of HTTP."""

    def __init__(self, base: str) -> None:
        self.base = base
        jar = http.cookiejar.CookieJar()
        self.open = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(jar)).open
        self.csrf = self.call("GET", "/session")["csrf"]

    def upload(self, path: str, text: str) -> Any:
        """One file, as a form sends it."""
        mark = uuid.uuid4().hex
        head = 'Content-Disposition: form-data; name="file"; filename="f.csv"'
        request = urllib.request.Request(
            f"{self.base}/api{path}",
            method="POST",
            data=f"--{mark}\r\n{head}\r\n\r\n{text}\r\n--{mark}--\r\n".encode(),
            headers={
                "Content-Type": f"multipart/form-data; boundary={mark}",
                "X-CSRFToken": self.csrf,
            },
        )
        with self.open(request, timeout=60) as answer:
            return json.loads(answer.read())

    def call(self, method: str, path: str, body: object = None) -> Any:
        """One call of the API."""
        request = urllib.request.Request(
            f"{self.base}/api{path}",
            method=method,
            data=None if body is None else json.dumps(body).encode(),
            headers={"Content-Type": "application/json", "X-CSRFToken": getattr(self, "csrf", "")},
        )
        with self.open(request, timeout=20) as answer:
            return json.loads(answer.read())


def over_http(server: DemoServer, in_core: dict[str, float]) -> None:
    """The same through the application server."""
    client = Client(server.url)
    signed = client.call("POST", "/session", {"email": server.email, "password": server.password})
    client.csrf = signed["csrf"]
    kid = signed["kitchens"][0]["id"]
    grams = count(1000)

    def ask() -> object:
        lines = [f"{next(grams)} g whole milk", *PASTRY[1:]]
        return client.call(
            "POST", f"/k/{kid}/answer", {"content": {"lines_text": "\n".join(lines)}}
        )

    answer = times_ms(ask, 100)
    row("formula answer over HTTP (one keystroke)", answer, aim="100 ms p95")
    one("  HTTP against core", statistics.median(answer) / in_core["formula"], "ratio")
    dessert = client.call("GET", f"/k/{kid}/desserts?search=Bay")["cards"][0]
    content = client.call("GET", f"/k/{kid}/desserts/{dessert['id']}")["parts"][0]["versions"][-1]
    fields = {k: v for k, v in content.items() if k not in (
        "id", "part_id", "number", "revision", "cooked", "saved_by", "batches")}  # fmt: skip
    row(
        "stove plan over HTTP (ladder, two curves)",
        times_ms(lambda: client.call("POST", f"/k/{kid}/plan", {"content": fields})),
    )
    long_shelf(client, kid)
    baking(client, kid, in_core)
    long_cook(client, kid, server)
    path = f"/k/{kid}/batches/{client.call('GET', f'/k/{kid}/batches')[0]['id']}/live"
    last = client.call("GET", path)["last_ms"]
    row(
        "live poll of a cook of 850 readings",
        times_ms(lambda: client.call("GET", f"{path}?after_ms={last - 2000}")),
    )
    row("the same, every reading again", times_ms(lambda: client.call("GET", path)))
    behind(client, kid)


def behind(client: Client, kid: str) -> None:
    """A device that has two hours to catch up with: posts of 500, one after the other."""
    device = client.call("POST", f"/k/{kid}/devices", {"id": str(uuid.uuid4()), "name": "behind"})
    card = client.call("GET", f"/k/{kid}/desserts?search=Bay")["cards"][0]
    dessert = client.call("GET", f"/k/{kid}/desserts/{card['id']}")
    version = dessert["parts"][0]["versions"][-1]
    start = {"id": str(uuid.uuid4()), "version_id": version["id"], "device_id": device["id"]}
    client.call("POST", f"/k/{kid}/batches", start)
    begin = datetime.now(UTC)

    def post() -> object:
        readings = [
            {"id": str(uuid.uuid4()), "at": (begin + timedelta(milliseconds=n)).isoformat(),
             "temp_c": 60.0 + n / 1000}
            for n in range(500)
        ]  # fmt: skip
        request = urllib.request.Request(
            f"{client.base}/api/device/readings",
            method="POST",
            data=json.dumps({"readings": readings}).encode(),
            headers={
                "Content-Type": "application/json",
                "Authorization": f"Bearer {device['token']}",
            },
        )
        with urllib.request.urlopen(request, timeout=20) as answer:
            return json.loads(answer.read())

    found = times_ms(post, 30)
    one("readings a device behind delivers, one process", 500_000 / statistics.median(found),
        "a s", "5 000")  # fmt: skip


def baking(client: Client, kid: str, in_core: dict[str, float]) -> None:
    """A bake as the oven's screen asks for it, with the mould cut open through time."""
    dials = count(120)
    content = {
        "lines_text": "\n".join(RAMEKINS["mix"]["lines"]),  # type: ignore[index]
        "vessel_key": "ramekin_180", "vessel_count": 6, "bath_level": "half",
    }  # fmt: skip

    def ask() -> object:
        baking = {"set_c": 150 + next(dials) % 40}
        return client.call("POST", f"/k/{kid}/bake", {"content": content | {"baking": baking}})

    found = times_ms(ask, 30)
    row("bake over HTTP (one step of the dial)", found, aim="120 ms p95")
    one("  HTTP against core", statistics.median(found) / in_core["bake"], "ratio")


def long_cook(client: Client, kid: str, server: DemoServer) -> None:
    """Two hours at a reading a second on four channels, then one more: how soon it is seen."""
    shelf = client.call("GET", f"/k/{kid}/desserts?search=Elderflower")["cards"]
    dessert = client.call("GET", f"/k/{kid}/desserts/{shelf[0]['id']}")
    probe = client.call("POST", f"/k/{kid}/devices", {"id": str(uuid.uuid4()), "name": "bench"})
    batch = client.call("POST", f"/k/{kid}/batches", {
        "id": str(uuid.uuid4()), "device_id": probe["id"],
        "version_id": dessert["parts"][0]["versions"][-1]["id"],
    })["id"]  # fmt: skip
    rows = "\n".join(f"{t},{20 + 60 * t / 7200:.2f}" for t in range(7200))
    client.upload(f"/k/{kid}/batches/{batch}/curve", f"time s,temp C\n{rows}")
    path = f"/k/{kid}/batches/{batch}/live"
    last = client.call("GET", path)["last_ms"]
    row(
        "live poll of a cook of two hours at 1 Hz",
        times_ms(lambda: client.call("GET", f"{path}?after_ms={last - 2000}"), 20),
        aim="500 ms",
    )
    door = urllib.request.Request(
        f"{server.url}/api/device/readings", method="POST",
        headers={"Authorization": f"Bearer {probe['token']}", "Content-Type": "application/json"},
    )  # fmt: skip

    def seen() -> object:
        at = datetime.now(UTC).isoformat()
        door.data = json.dumps({"readings": [
            {"id": str(uuid.uuid4()), "at": at, "temp_c": 60 + n, "channel": n}
            for n in (1, 2, 3, 4)
        ]}).encode()  # fmt: skip
        with urllib.request.urlopen(door) as answer:
            answer.read()
        return client.call("GET", f"{path}?after_ms={last - 2000}")

    posted = times_ms(seen, 20)
    row("a reading of four channels posted and polled", posted)
    one("  and on the screen, with the poll's own wait", statistics.median(posted) + 300, "ms",
        "500 ms")  # fmt: skip


def long_shelf(client: Client, kid: str) -> None:
    """Take in recipes from a file, then search a shelf of five thousand."""
    began = time.perf_counter()
    read: list[dict[str, Any]] = []
    for stretch in range(25):
        rows = ["name,line"]
        for n in range(200):
            name = f"Pot {stretch * 200 + n}"
            rows += [f"{name},{text}" for text in (
                f"{1000 + n} g whole milk", "9 yolks", "3/4 cup sugar",
                f"{60 + stretch} g corn starch",
                "a handful of sloes" if n % 10 == 0 else "1 vanilla pod",
            )]  # fmt: skip
        began = time.perf_counter()
        read = client.upload(f"/k/{kid}/import/read", "\n".join(rows))["desserts"]
        for start in range(0, len(read), 20):
            body = [
                {"id": str(uuid.uuid4()), "name": d["name"], "parts": d["parts"]}
                for d in read[start : start + 20]
            ]
            client.call("POST", f"/k/{kid}/import/keep", {"desserts": body})
    one(
        "read and keep 200 recipes of a file",
        (time.perf_counter() - began) * 1000,
        "ms",
        "10 000 ms",
    )
    number = count()
    row(
        "search a shelf of 5 000, words not asked before",
        times_ms(lambda: client.call("GET", f"/k/{kid}/desserts?search=pot+{next(number)}"), 20),
        aim="100 ms",
    )
    row("first page of the same", times_ms(lambda: client.call("GET", f"/k/{kid}/desserts"), 20))


def in_browser(server: DemoServer) -> None:
    """Page load and keystroke to picture, in Chromium."""
    from playwright.sync_api import sync_playwright

    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path="/usr/bin/chromium",
            args=["--headless", "--no-sandbox", "--disable-gpu"],
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


def memory(server: subprocess.Popen[bytes]) -> None:
    """Resident memory of each worker, from /proc."""
    found = []
    for status in Path("/proc").glob("[0-9]*/status"):
        try:
            text = status.read_text()
        except OSError:
            continue
        fields = dict(line.split(":", 1) for line in text.splitlines() if ":" in line)
        if fields.get("PPid", "").strip() == str(server.pid):
            found.append(int(fields["VmRSS"].split()[0]) / 1000)
    row("memory of a worker", found or [0.0], "MB")


def cold_command() -> None:
    """``./crumb compute``: start-up plus answer."""
    given = json.dumps({"lines": PASTRY})
    found = times_ms(
        lambda: subprocess.run(
            [sys.executable, "-m", "bellcrumb.contract", "formula"],
            cwd=ROOT / "core",
            input=given,
            capture_output=True,
            text=True,
            check=True,
        ),
        6,
    )
    row("./crumb compute formula, start-up and answer", found, aim="1500 ms")


def main() -> None:
    """Print the table."""
    print(f"| {'what':<46} | {'median':>8} | {'p95':>8} | unit  | {'aim':<16} |")
    print(f"|{'-' * 48}|{'-' * 9}:|{'-' * 9}:|{'-' * 7}|{'-' * 18}|")
    in_core = core()
    cold_command()
    bench_whole.dessert_and_day(row, one)
    bench_whole.formulas(one)
    bench_whole.learning(one)
    bench_whole.planted(one)
    with demo_server() as server:
        over_http(server, in_core)
        in_browser(server)
        memory(server.process)
    first_load()


if __name__ == "__main__":
    main()
