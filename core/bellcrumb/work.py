"""Long computations ask now and then whether they may go on.

The core has no clock: whoever calls it may lend it one that stops it.
"""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar

_asked: ContextVar[Callable[[], None] | None] = ContextVar("may_go_on", default=None)


def checkpoint() -> None:
    """Called by loops that may be long; raises whatever the guard raises."""
    ask = _asked.get()
    if ask is not None:
        ask()


@contextmanager
def guarded(ask: Callable[[], None]) -> Iterator[None]:
    """Have ``ask`` called at every checkpoint of what runs inside."""
    token = _asked.set(ask)
    try:
        yield
    finally:
        _asked.reset(token)
