"""Fifty tablets and eight probes of four channels on one kitchen, then beside attackers.

Run inside ``checks.throwaway``; prints latencies and errors. It asks the loopback only.
"""

import json
import random
import sys
import threading
import time
import uuid
from collections import defaultdict
from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from pathlib import Path

from ops.asker import Asker
from ops.base import say
from ops.demo_server import DemoServer, demo_server

TABLETS, PROBES, CHANNELS, ATTACKERS = 50, 8, 4, 8
DASHES = "-" * 19_900


class LoadTally:
    """Milliseconds by what was asked, and what went wrong."""

    def __init__(self) -> None:
        self.took: dict[str, list[float]] = defaultdict(list)
        self.wrong: dict[str, int] = defaultdict(int)

    def ask(self, what: str, job: Callable[[], object]) -> None:
        """Do one thing and keep how long it took."""
        began = time.perf_counter()
        try:
            job()
        except OSError as error:
            self.wrong[f"{what}: {getattr(error, 'code', type(error).__name__)}"] += 1
        self.took[what].append((time.perf_counter() - began) * 1000)

    def show(self, title: str) -> None:
        """The table of it."""
        say(f"\n{title}\n")
        say("| what | asked | p50 ms | p95 ms | p99 ms | longest |")
        say("|---|---:|---:|---:|---:|---:|")
        for what, unsorted in sorted(self.took.items()):
            took = sorted(unsorted)
            at = [took[min(len(took) - 1, int(share * len(took)))] for share in (0.5, 0.95, 0.99)]
            figures = " | ".join(f"{ms:.0f}" for ms in (*at, took[-1]))
            say(f"| {what} | {len(took)} | {figures} |")
        say(f"\nwrong: {dict(self.wrong) or 'nothing'}")


def _every(seconds: float, stop: threading.Event, job: Callable[[], object]) -> threading.Thread:
    def go() -> None:
        time.sleep(random.uniform(0, seconds))
        while not stop.is_set():
            began = time.monotonic()
            job()
            stop.wait(max(0.0, seconds - (time.monotonic() - began)))

    thread = threading.Thread(target=go, daemon=True)
    thread.start()
    return thread


def _cooks(server: DemoServer, chef: Asker) -> list[tuple[str, str]]:
    """Eight probes, each in a cook of its own: (batch id, token)."""
    k = f"/k/{chef.kid}"
    card = chef.call("GET", f"{k}/desserts?search=Bay")["cards"][0]
    version = chef.call("GET", f"{k}/desserts/{card['id']}")["parts"][0]["versions"][-1]["id"]
    found = []
    for n in range(PROBES):
        device = chef.call("POST", f"{k}/devices", {"id": str(uuid.uuid4()), "name": f"load {n}"})
        batch = str(uuid.uuid4())
        chef.call("POST", f"{k}/batches", {
            "id": batch, "version_id": version, "device_id": device["id"]})  # fmt: skip
        found.append((batch, device["token"]))
    return found


def _tablet(
    who: Asker, cooks: list[tuple[str, str]], tally: LoadTally, n: int
) -> Callable[[], object]:
    """What a tablet does: most watch a cook, some write, some leaf through the book."""
    k, turn = f"/k/{who.kid}", {"n": 0}

    def go() -> None:
        turn["n"] += 1
        if n % 10 < 6:
            batch = cooks[n % len(cooks)][0]
            tally.ask(
                "watch a cook", lambda: who.call("GET", f"{k}/batches/{batch}/live?after_ms=0")
            )
        elif n % 10 < 9:
            lines = (
                f"{1000 + turn['n'] + 100 * n} g whole milk\n9 yolks\n150 g sugar\n85 g corn starch"
            )
            tally.ask("a keystroke", lambda: who.call(
                "POST", f"{k}/answer", {"content": {"lines_text": lines}}))  # fmt: skip
        else:
            tally.ask("the book", lambda: who.call("GET", f"{k}/batches?take=60"))

    return go


def _probe(server: DemoServer, token: str, tally: LoadTally) -> Callable[[], object]:
    import urllib.request

    def go() -> None:
        now = datetime.now(UTC)
        readings = [
            {"id": str(uuid.uuid4()), "at": (now - timedelta(milliseconds=500 * half)).isoformat(),
             "temp_c": 60 + random.random(), "channel": channel}
            for channel in range(1, CHANNELS + 1) for half in (0, 1)
        ]  # fmt: skip
        request = urllib.request.Request(
            f"{server.url}/api/device/readings", method="POST",
            data=json.dumps({"readings": readings}).encode(),
            headers={"Content-Type": "application/json", "Authorization": f"Bearer {token}"},
        )  # fmt: skip
        tally.ask("readings", lambda: urllib.request.urlopen(request, timeout=20).read())

    return go


def _worst(reader: Asker) -> list[tuple[str, Callable[[], object]]]:
    """The heaviest a reader can ask for."""
    k = f"/k/{reader.kid}"
    sugars = "\n".join(f"{n + 1} g sugar" for n in range(58)) + "\n1 l milk\n9 yolks"
    many = "\n".join("½-" * 140 for _ in range(60))
    hay = "1 l whole milk\n5 eggs\n3 yolks\n180 g sugar"
    baked = {"lines_text": hay, "vessel_key": "ramekin_180",
             "vessel_count": 2000}  # fmt: skip

    def post(path: str, body: object) -> Callable[[], object]:
        return lambda: reader.call("POST", f"{k}{path}", body)

    return [
        ("dashes", post("/plan", {"content": {"lines_text": DASHES}})),
        ("fractions", post("/answer", {"content": {"lines_text": many}})),
        ("a sea of milk", post("/plan", {"content": {"lines_text": "1000000 l milk\n9 yolks"}})),
        ("sixty lines bent", post("/solve", {"content": {"lines_text": sugars},
                                             "wishes": {"set_class": "slice"}})),
        ("twenty ovens tried", post("/bake/choose", {"content": baked, "within_min": 240})),
        ("a long bake", post("/bake", {"content": {**baked, "baking": {"set_c": 60}}})),
        ("a deep pan cooled", post("/cool", {"content": {**baked, "vessel_key": "gn_1_1_100"}})),
        ("everything out", lambda: reader.open(
            f"{reader.base}/api{k}/export?form=json", timeout=30).read()),
    ]  # fmt: skip


def _memory_mb(pid: int) -> float:
    total = 0.0
    for status in Path("/proc").glob("[0-9]*/status"):
        try:
            text = status.read_text()
            fields = dict(line.split(":", 1) for line in text.splitlines() if ":" in line)
        except OSError:
            continue
        if fields.get("PPid", "").strip() == str(pid):
            total += int(fields["VmRSS"].split()[0]) / 1000
    return total


def main() -> None:
    """Load, then load beside attackers."""
    seconds = float(sys.argv[1]) if len(sys.argv) > 1 else 60.0
    with demo_server() as server:
        from demo import kitchen as demo

        chef = Asker(server.url, demo.CHEF, demo.PASSWORD)
        cooks = _cooks(server, chef)
        readers = [Asker(server.url, "desk@weirhouse.example", demo.PASSWORD) for _ in range(2)]
        idle = _memory_mb(server.process.pid)
        for title, attackers in (
            ("Fifty tablets, eight probes", 0),
            ("… and eight attackers", ATTACKERS),
        ):
            tally, attack, stop = LoadTally(), LoadTally(), threading.Event()
            threads = [_every(1.0, stop, _tablet(chef, cooks, tally, n)) for n in range(TABLETS)]
            threads += [_every(1.0, stop, _probe(server, token, tally)) for _, token in cooks]
            for n in range(attackers):
                name, job = _worst(readers[n % 2])[n]
                threads.append(_every(0.05, stop, lambda t=attack, w=name, j=job: t.ask(w, j)))  # type: ignore[misc]
            peak, until = 0.0, time.monotonic() + seconds
            while time.monotonic() < until:
                peak = max(peak, _memory_mb(server.process.pid))
                time.sleep(0.5)
            stop.set()
            for thread in threads:
                thread.join(30)
            tally.show(title)
            if attackers:
                attack.show("What the attackers got (422 and 429 are refusals)")
            say(f"memory of the workers: {idle:.0f} MB idle, {peak:.0f} MB at most")
        typing, attack, stop = LoadTally(), LoadTally(), threading.Event()
        threads = [
            _every(0.05, stop, lambda w=name, j=job: attack.ask(w, j))  # type: ignore[misc]
            for name, job in _worst(readers[0])
        ]
        until, n = time.monotonic() + seconds, 0
        while time.monotonic() < until:
            n += 1
            lines = f"{2000 + n} g whole milk\n9 yolks\n150 g sugar\n85 g corn starch"
            typing.ask("a keystroke", lambda body={"content": {"lines_text": lines}}: chef.call(  # type: ignore[misc]
                "POST", f"/k/{chef.kid}/answer", body))  # fmt: skip
            time.sleep(0.2)
        stop.set()
        for thread in threads:
            thread.join(30)
        typing.show("One person typing beside eight attackers")
        alone = LoadTally()
        for name, job in _worst(readers[0]):
            for _ in range(3):
                alone.ask(name, job)
        alone.show("Each of the worst alone")
        say(f"the longest of them: {max(max(t) for t in alone.took.values()):.0f} ms")


if __name__ == "__main__":
    main()
