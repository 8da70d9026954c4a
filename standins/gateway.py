"""What every stand-in shares: asking which cook it is in, and delivering what it measured.

When the server is away a device goes on measuring and keeps its readings in a spool file until they
are delivered; every reading has an id of its own, so none counts twice.
"""

import argparse
import json
import os
import signal
import ssl
import time
import uuid
from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import datetime
from pathlib import Path
from typing import Any

import httpx

EVERY_S = 1.0
MOST_IN_ONE_POST, FEWEST_IN_ONE_POST, MOST_POSTS = 400, 10, 3


@dataclass
class Spool:
    """Readings not delivered yet, kept in a file so that nothing measured is lost."""

    path: Path | None
    waiting: list[dict[str, Any]] = field(default_factory=list)

    def load(self) -> None:
        """Take up what a former run could not deliver. A line that was cut off when its writer died
        is nobody's reading any more: it is skipped."""
        if not (self.path and self.path.exists()):
            return
        for line in self.path.read_text(errors="replace").splitlines():
            try:
                reading = json.loads(line)
            except ValueError:
                continue
            if isinstance(reading, dict) and "id" in reading and "at" in reading:
                self.waiting.append(reading)
        self._write()

    def add(self, reading: dict[str, Any]) -> None:
        """Keep a reading until it is delivered."""
        self.waiting.append(reading)
        if self.path:
            with self.path.open("a") as out:
                out.write(json.dumps(reading) + "\n")

    def delivered(self, count: int) -> None:
        """Forget the first ``count``."""
        del self.waiting[:count]
        self._write()

    def _write(self) -> None:
        """Written beside and renamed: whoever dies in between leaves the old file whole."""
        if self.path:
            beside = self.path.with_suffix(".new")
            beside.write_text("".join(json.dumps(r) + "\n" for r in self.waiting))
            beside.replace(self.path)


class Gateway:
    """A device at the kitchen's door."""

    def __init__(
        self,
        url: str,
        token: str,
        spool: Path | None,
        ca: Path | None = None,
        *,
        patience_s: float = 4.0,
    ) -> None:
        trust = ssl.create_default_context(cafile=str(ca)) if ca else True
        self.http = httpx.Client(
            base_url=url, headers={"Authorization": f"Bearer {token}"}, timeout=patience_s,
            trust_env=False, verify=trust,
        )  # fmt: skip
        self.spool = Spool(spool)
        self.spool.load()
        self.scene: dict[str, Any] | None = None
        self.in_one_post = MOST_IN_ONE_POST

    def ask(self) -> dict[str, Any] | None:
        """Which cook this device is in; the last one known while the server is away."""
        try:
            answer = self.http.get("/api/device")
            if answer.status_code == 200:
                self.scene = answer.json()
            elif answer.status_code == 401:
                raise SystemExit("This token is not known to the kitchen (any more).")
        except (httpx.HTTPError, ValueError):
            pass
        return self.scene if self.scene and self.scene["batch_id"] else None

    def keep(self, at: datetime, **reading: float) -> None:
        """Keep one reading to be delivered."""
        self.spool.add({"id": str(uuid.uuid4()), "at": at.isoformat(), **reading})

    def deliver(self) -> None:
        """Post what waits, some posts of it at most; what the server took (or refused with a
        reason) is forgotten. After a post that found no end in time the next is half as large."""
        for _ in range(MOST_POSTS):
            part = self.spool.waiting[: self.in_one_post]
            if not part:
                return
            try:
                answer = self.http.post("/api/device/readings", json={"readings": part})
            except httpx.TimeoutException:
                self.in_one_post = max(FEWEST_IN_ONE_POST, self.in_one_post // 2)
                return
            except httpx.HTTPError:
                return
            if answer.status_code == 413:
                self.in_one_post = max(FEWEST_IN_ONE_POST, self.in_one_post // 2)
                return
            if answer.status_code != 200:
                return
            self.in_one_post = min(MOST_IN_ONE_POST, self.in_one_post * 2)
            self.spool.delivered(len(part))


def run(what: str, make: Callable[[argparse.Namespace, str], Callable[[], None]]) -> None:
    """Run a stand-in until it is stopped: ``make`` gives the round it does every second."""
    parser = argparse.ArgumentParser(description=what)
    parser.add_argument("--url", default="http://127.0.0.1:8642")
    parser.add_argument("--ca", type=Path, help="the certificate a kitchen made for itself")
    parser.add_argument("--spool", type=Path)
    parser.add_argument("--seed", type=int, default=int(time.time()))
    parser.add_argument("--channels", type=int, default=1, choices=(1, 2, 3, 4))
    parser.add_argument("--careful", action="store_true", help="off the heat at the mark")
    options = parser.parse_args()
    signal.signal(signal.SIGTERM, lambda *_: (_ for _ in ()).throw(SystemExit(0)))
    tick = make(options, os.environ["CRUMB_PROBE_TOKEN"])
    while True:
        began = time.monotonic()
        tick()
        time.sleep(max(0.05, EVERY_S - (time.monotonic() - began)))
