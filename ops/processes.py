"""Whose process a pid is: a number alone is nobody's, because the system gives it out again."""

import fcntl
import os
import signal
import time
from dataclasses import dataclass
from pathlib import Path
from typing import TextIO


def _stat(pid: int) -> list[str] | None:
    """The fields of /proc/PID/stat after the command's name; None when there is no such process.

    A child that has died but was not waited for still has its pid: it counts as gone.
    """
    try:
        fields = Path(f"/proc/{pid}/stat").read_text().rsplit(")", 1)[1].split()
    except (OSError, IndexError):
        return None
    return None if fields[0] == "Z" else fields


@dataclass(frozen=True)
class Process:
    """A process by its pid and when it was started (clock ticks since boot)."""

    pid: int
    started: int

    @classmethod
    def of(cls, pid: int) -> "Process | None":
        """The process that has this pid now."""
        fields = _stat(pid)
        return cls(pid, int(fields[19])) if fields else None

    @property
    def alive(self) -> bool:
        """Whether this very process still runs."""
        return Process.of(self.pid) == self

    def end(self, patience_s: float = 15.0) -> bool:
        """Ask it to stop, then make it stop. True when it is gone."""
        for number, wait_s in ((signal.SIGTERM, patience_s), (signal.SIGKILL, 5.0)):
            if not self.alive:
                return True
            try:
                os.kill(self.pid, number)
            except ProcessLookupError:
                return True
            until = time.monotonic() + wait_s
            while time.monotonic() < until:
                if not self.alive:
                    return True
                time.sleep(0.02)
        return not self.alive


def command_line(pid: int) -> list[str]:
    """What a process was started with; empty for one that is gone."""
    try:
        return Path(f"/proc/{pid}/cmdline").read_bytes().decode(errors="replace").split("\0")
    except OSError:
        return []


@dataclass(frozen=True)
class Register:
    """The processes of a home, in a file: what a starter that was killed has left behind."""

    path: Path

    def read(self) -> list[Process]:
        """Those that still run."""
        found = []
        try:
            lines = self.path.read_text().splitlines()
        except OSError:
            return []
        for line in lines:
            try:
                pid, started = (int(word) for word in line.split()[:2])
            except ValueError:
                continue  # a line that was cut off names nobody
            found.append(Process(pid, started))
        return [process for process in found if process.alive]

    def write(self, pids: list[int]) -> None:
        """Keep these instead, beside and renamed: a reader never sees half of it."""
        known = [process for pid in pids if (process := Process.of(pid))]
        beside = self.path.with_suffix(".new")
        beside.write_text("".join(f"{p.pid} {p.started}\n" for p in known))
        beside.replace(self.path)

    def end_all(self) -> int:
        """End everything in it; returns how many there were."""
        left = self.read()
        for process in left:
            process.end()
        self.path.unlink(missing_ok=True)
        return len(left)


class Lock:
    """Held by the one starter of a home for as long as it lives, however it dies."""

    def __init__(self, path: Path) -> None:
        self.path = path
        self._file: TextIO | None = None

    def take(self) -> bool:
        """Take it; False when somebody has it."""
        self.path.parent.mkdir(parents=True, exist_ok=True)
        file = self.path.open("a+")
        try:
            fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            file.close()
            return False
        file.truncate(0)
        file.write(str(os.getpid()))
        file.flush()
        self._file = file
        return True

    def give_back(self) -> None:
        """Let it go."""
        if self._file:
            self._file.close()
            self._file = None

    def holder(self) -> Process | None:
        """Who has it now; None when nobody does."""
        try:
            with self.path.open("r") as file:
                try:
                    fcntl.flock(file, fcntl.LOCK_SH | fcntl.LOCK_NB)
                except BlockingIOError:
                    return Process.of(int(file.read() or 0))
        except (OSError, ValueError):
            pass
        return None
