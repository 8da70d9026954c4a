"""What a cook's readings have told, folded as they come and kept from poll to poll.

The store has the truth; this is memory of one process beside it, asked for what is new at every
look. A reading that comes late is put in its place and what was folded is folded again.
"""

import bisect
import threading
import time
from collections import OrderedDict, deque
from collections.abc import Callable
from typing import Protocol, TypeVar
from uuid import UUID

from batches.models import Reading as Row
from bellcrumb.contract.open.cooking import Pasteurising, Product, Reading, Watch

MOST_READINGS = 250_000  # kept in one process, over all cooks: some 30 MB
# The store hands out numbers before rows can be seen: what was numbered this long ago is all there.
SETTLED_S = 15.0
SETTLED_ROWS = 1_000  # or this many numbers back: two of the largest posts


class Accumulator(Protocol):
    """Anything that readings are added to in order."""

    def add(self, reading: Reading) -> None:
        """One reading on."""


F = TypeVar("F", bound=Accumulator)
K = TypeVar("K")


class CookState:
    """The readings of one batch by channel, and what has been folded of the first channel."""

    def __init__(self, batch_id: UUID) -> None:
        self.batch_id = batch_id
        self.lock = threading.RLock()
        self.curves: dict[int, list[Reading]] = {}
        self._folds: dict[object, tuple[Accumulator, int]] = {}
        self._once: dict[object, object] = {}
        self._settled_id = 0
        self._tops: deque[tuple[float, int]] = deque()
        self._late_ids: set[int] = set()

    def refresh(self) -> None:
        """Take in what the store has that was not there before."""
        now, top = time.monotonic(), max(self._late_ids, default=self._settled_id)
        self._tops.append((now, top))
        while self._tops and self._tops[0][0] < now - SETTLED_S:
            self._settled_id = max(self._settled_id, self._tops.popleft()[1])
        self._late_ids = {i for i in self._late_ids if i > self._settled_id}
        rows = (
            Row.objects.filter(batch=self.batch_id, id__gt=self._settled_id)
            .order_by("id")
            .values_list("id", "cook_ms", "temp_cc", "channel")
        )
        new = [row for row in rows if row[0] not in self._late_ids]
        self._late_ids |= {row[0] for row in new}
        self._settled_id = max(self._settled_id, max(self._late_ids, default=0) - SETTLED_ROWS)
        for _, ms, cc, channel in sorted(new, key=lambda row: (row[1], row[0])):
            self.take(channel, (ms / 1000, cc / 100))

    def take(self, channel: int, reading: Reading) -> None:
        """One reading into its place."""
        curve = self.curves.setdefault(channel, [])
        if not curve or reading[0] >= curve[-1][0]:
            curve.append(reading)
            return
        curve.insert(bisect.bisect_right(curve, reading[0], key=lambda r: r[0]), reading)
        if channel == 1:
            self._folds.clear()
            self._once.clear()

    @property
    def size(self) -> int:
        """How many readings it keeps."""
        return sum(len(curve) for curve in self.curves.values())

    @property
    def curve(self) -> list[Reading]:
        """The first channel, in order of time."""
        return self.curves.get(1, [])

    def since(self, seconds: float, channel: int = 1) -> list[Reading]:
        """The readings of a channel from a moment on."""
        curve = self.curves.get(channel, [])
        return curve[bisect.bisect_left(curve, seconds, key=lambda r: r[0]) :]

    def between(self, from_s: float, to_s: float) -> list[Reading]:
        """The readings of the first channel in a stretch, both ends in it."""
        at = bisect.bisect_left(self.curve, from_s, key=lambda r: r[0])
        return self.curve[at : bisect.bisect_right(self.curve, to_s, key=lambda r: r[0])]

    def folded(self, key: object, since_s: float, begin: Callable[[], F]) -> F:
        """A fold of the first channel from a moment on, brought up to now. ``key`` names it."""
        known = self._folds.get(key)
        fold: F
        if known is None:
            fold, at = begin(), bisect.bisect_left(self.curve, since_s, key=lambda r: r[0])
        else:
            fold, at = known  # type: ignore[assignment]
        for reading in self.curve[at:]:
            fold.add(reading)
        self._folds[key] = (fold, len(self.curve))
        return fold

    def kept(self, key: object, find: Callable[[], K]) -> K:
        """Something found once of stretches that are over; found again when a reading came late."""
        if key not in self._once:
            self._once[key] = find()
        return self._once[key]  # type: ignore[return-value]

    def watch(
        self, since_s: float, above_c: float | None, boil_c: float | None, stale_s: float
    ) -> Watch:
        """A watch from a moment on."""
        key = ("watch", since_s, above_c, boil_c, stale_s)
        return self.folded(key, since_s, lambda: Watch(above_c, boil_c, stale_s))

    def pasteurising(self, product: Product, since_s: float) -> Pasteurising:
        """The kill from a moment on."""
        return self.folded(("kill", product, since_s), since_s, lambda: Pasteurising(product))


_known: "OrderedDict[UUID, CookState]" = OrderedDict()
_lock = threading.Lock()


def state_of(batch_id: UUID) -> CookState:
    """The state of a cook with everything the store has of it now. Hold its ``lock`` while asking
    it: another look may bring it on."""
    with _lock:
        state = _known.setdefault(batch_id, CookState(batch_id))
        _known.move_to_end(batch_id)
        while len(_known) > 1 and sum(s.size for s in _known.values()) > MOST_READINGS:
            _known.popitem(last=False)
    with state.lock:
        state.refresh()
    return state
