"""The one clock of the server. Tests drive it; nothing else does."""

from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime, timedelta


class _Clock:
    stands_at: datetime | None = None


_clock = _Clock()


def now() -> datetime:
    """The moment it is, with its zone."""
    return _clock.stands_at or datetime.now(UTC)


class Driven:
    """A clock that stands still until it is moved on."""

    def forward(self, seconds: float) -> None:
        """Let time pass."""
        _clock.stands_at = now() + timedelta(seconds=seconds)


@contextmanager
def driven(at: datetime | None = None) -> Iterator[Driven]:
    """Stop the server's clock (of this process) and drive it by hand inside."""
    _clock.stands_at = at or datetime.now(UTC)
    try:
        yield Driven()
    finally:
        _clock.stands_at = None
