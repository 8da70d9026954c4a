"""Keeping the application's processes alive: one that dies is started again, later each time."""

import contextlib
import os
import signal
import subprocess
import time
from collections.abc import Callable
from dataclasses import KW_ONLY, dataclass, field

from ops.base import say
from ops.processes import Process

FIRST_S, LONGEST_S = 0.2, 30.0
# A process that ran this long was well: its next death is a first one again.
WELL_AFTER_S = 60.0


def wait_before(deaths: int) -> float:
    """Seconds before a process that has died ``deaths`` times in a row is started again."""
    return min(LONGEST_S, FIRST_S * 4.0 ** max(0, deaths - 1)) if deaths else 0.0


@dataclass
class Child:
    """One process that is kept running. ``spawn`` starts it."""

    name: str
    spawn: Callable[[], subprocess.Popen[bytes]]
    process: subprocess.Popen[bytes] | None = None
    _: KW_ONLY
    since_s: float = 0.0
    deaths: int = 0
    again_at_s: float = 0.0


@dataclass
class Supervisor:
    """Processes kept running. ``clock`` is monotonic seconds."""

    clock: Callable[[], float] = time.monotonic
    changed: Callable[[list[int]], None] = lambda pids: None
    kept: list[Child] = field(default_factory=list)

    def keep(self, name: str, spawn: Callable[[], subprocess.Popen[bytes]]) -> Child:
        """Start a process and keep it running from now on."""
        one = Child(name, spawn)
        self.kept.append(one)
        self._start(one)
        return one

    def look(self) -> None:
        """One round: start again what has died and has waited long enough."""
        now = self.clock()
        for one in self.kept:
            if one.process is None:
                if now >= one.again_at_s:
                    self._start(one)
            elif Process.of(one.process.pid) is None:
                _end_group(one.process)
                one.deaths = 1 if now - one.since_s > WELL_AFTER_S else one.deaths + 1
                one.again_at_s = now + wait_before(one.deaths)
                one.process = None
                say(f"{one.name} has stopped. Starting it again ...")

    def stop(self) -> None:
        """Stop everything, the last started first."""
        running = [one.process for one in self.kept if one.process]
        for process in reversed(running):
            if process.poll() is None:
                process.terminate()
        for process in running:
            try:
                process.wait(10)
            except subprocess.TimeoutExpired:
                process.kill()
        self.kept.clear()
        self.changed([])

    def _start(self, one: Child) -> None:
        one.process = one.spawn()
        one.since_s = self.clock()
        self.changed([k.process.pid for k in self.kept if k.process])


def _end_group(process: subprocess.Popen[bytes]) -> None:
    """End what a dead process has left of its group (a server's workers hold its port).

    It is not waited for before: until then its number is nobody else's.
    """
    with contextlib.suppress(ProcessLookupError, PermissionError):
        os.killpg(process.pid, signal.SIGKILL)
    process.wait()
