"""Asks that take real work: nobody may make the others wait for them.

A process works at one at a time, so that a keystroke shares its processor with one other thing at
most; the rest wait a moment, then are told so. Work above two seconds of the processor (more on a
slow machine, by its environment) ends with a sentence.
"""

import functools
import threading
import time
from collections import Counter
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import Any, TypeVar

from django.conf import settings
from django.http import HttpRequest
from ninja.errors import HttpError

from bellcrumb.errors import CraftError
from bellcrumb.words import say
from bellcrumb.work import guarded

BUSY = say("shared.the_kitchen_is_working_on_other")

_turn = threading.Lock()
_waiting: Counter[object] = Counter()
_counting = threading.Lock()
EACH = 6  # of one person, working and waiting together


@contextmanager
def turn(who: object, patience_s: float | None = None) -> Iterator[None]:
    """Wait for the process's one turn at heavy work, as long as the settings' ``PATIENCE_S``.

    Raises HttpError 429 for somebody who has six asks there already, or when it takes too long.
    """
    with _counting:
        if _waiting[who] >= EACH:
            raise HttpError(429, BUSY)
        _waiting[who] += 1
    try:
        wait_s: float = settings.PATIENCE_S if patience_s is None else patience_s
        if not _turn.acquire(timeout=wait_s):
            raise HttpError(429, BUSY)
        try:
            yield
        finally:
            _turn.release()
    finally:
        with _counting:
            _waiting[who] -= 1
            if not _waiting[who]:
                del _waiting[who]


def stop_after(most_s: float, clock: Callable[[], float] = time.thread_time) -> Callable[[], None]:
    """A checkpoint that raises CraftError once the clock has gone on by ``most_s`` seconds.

    The clock is the thread's own processor time: a busy machine makes nothing too much."""
    began = clock()

    def ask() -> None:
        if clock() - began > most_s:
            raise CraftError("", say("shared.this_is_more_work_than", most_s=most_s))

    return ask


Ask = TypeVar("Ask", bound=Callable[..., Any])


def heavy(view: Ask) -> Ask:
    """Make an operation wait its turn and end when it is too much work."""

    @functools.wraps(view)
    def waited(request: HttpRequest, *args: Any, **more: Any) -> Any:
        with turn(getattr(request.user, "pk", None)), guarded(stop_after(settings.MOST_WORK_S)):
            return view(request, *args, **more)

    return waited  # type: ignore[return-value]
