"""Asks that take real work: nobody may make the others wait for them.

One person has at most two at a time in a process, and a process works at three; the rest wait a
moment, then are told so. Work above two seconds of the processor ends with a sentence.
"""

import functools
import threading
import time
from collections import Counter
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import Any, TypeVar

from django.http import HttpRequest
from ninja.errors import HttpError

from bellcrumb.errors import CraftError
from bellcrumb.work import guarded

EACH, TOGETHER = 2, 3
PATIENCE_S = 6.0
MOST_WORK_S = 2.0
BUSY = "The kitchen is working on other things. Ask again in a moment."
TOO_MUCH = "This is more work than two seconds: ask for less at once."

_room = threading.Condition()
_working: Counter[object] = Counter()


@contextmanager
def _turn(who: object) -> Iterator[None]:
    until = time.monotonic() + PATIENCE_S
    with _room:
        while _working[who] >= EACH or _working.total() >= TOGETHER:
            left = until - time.monotonic()
            if left <= 0:
                raise HttpError(429, BUSY)
            _room.wait(left)
        _working[who] += 1
    try:
        yield
    finally:
        with _room:
            _working[who] -= 1
            if not _working[who]:
                del _working[who]
            _room.notify_all()


def stop_after(most_s: float, clock: Callable[[], float] = time.thread_time) -> Callable[[], None]:
    """A checkpoint that raises CraftError once the clock has gone on by ``most_s`` seconds.

    The clock is the thread's own processor time: a busy machine makes nothing too much."""
    began = clock()

    def ask() -> None:
        if clock() - began > most_s:
            raise CraftError("", TOO_MUCH)

    return ask


Ask = TypeVar("Ask", bound=Callable[..., Any])


def heavy(view: Ask) -> Ask:
    """Make an operation wait its turn and end when it is too much work."""

    @functools.wraps(view)
    def waited(request: HttpRequest, *args: Any, **more: Any) -> Any:
        with _turn(getattr(request.user, "pk", None)), guarded(stop_after(MOST_WORK_S)):
            return view(request, *args, **more)

    return waited  # type: ignore[return-value]
