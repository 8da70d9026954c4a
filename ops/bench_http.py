"""Measured through the application server: formulas, bakes, a long cook, a long shelf."""

import json
import statistics
import time
import urllib.request
import uuid
from datetime import UTC, datetime, timedelta
from itertools import count
from typing import Any

from ops.asker import Asker
from ops.bench_table import PASTRY, RAMEKINS, one, row, times_ms
from ops.demo_server import DemoServer


def over_http(server: DemoServer, in_core: dict[str, float]) -> None:
    """The same through the application server."""
    client = Asker(server.url, server.email, server.password)
    kid = client.kid
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


def behind(client: Asker, kid: str) -> None:
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


def baking(client: Asker, kid: str, in_core: dict[str, float]) -> None:
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


def long_cook(client: Asker, kid: str, server: DemoServer) -> None:
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


def long_shelf(client: Asker, kid: str) -> None:
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
