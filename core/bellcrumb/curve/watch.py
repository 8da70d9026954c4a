"""A curve folded reading by reading into what a guide asks of it.

Nothing is read twice: a reading that comes in order costs the same however long the cook has been.
One that comes late is put in its place by whoever keeps the readings, and the curve folded again.
"""

from __future__ import annotations

import heapq
from collections import deque
from collections.abc import Iterable, Sequence
from copy import copy
from dataclasses import dataclass
from statistics import median

from bellcrumb.words import say

Reading = tuple[float, float]
"""(seconds on the cook's clock, degC)."""

STALE_S = 20.0  # a silence longer than this is one
RECENT_S = 300.0  # as far back as any slope is asked for
NOISE_S = 10.0  # a dip this short does not end a hold
NEAR_K = 1.0  # and a reading this far under does not begin one
JUMP_K = 4.0  # a pot cannot move this far and back between three readings
STUCK_S, STUCK_READINGS = 180.0, 10
_HOTTEST = 5  # so many readings must agree on how hot it was


class Hold:
    """Seconds at or above a temperature, without a break longer than the noise: ``total_s`` of the
    stretch that goes on, ``longest_s`` of the longest there was."""

    def __init__(self, above_c: float) -> None:
        self.above_c, self.total_s, self.longest_s = above_c, 0.0, 0.0
        self._inside = False
        self._out_since: float | None = None
        self._before: Reading | None = None

    def add(self, reading: Reading) -> None:
        """One reading on, in order."""
        before, self._before = self._before, reading
        if before is not None:
            self._pair(before, reading)

    def _pair(self, before: Reading, reading: Reading) -> None:
        (t0, c0), (t1, c1) = before, reading
        if c1 >= self.above_c and c0 >= self.above_c - NEAR_K:
            if self._inside or c0 >= self.above_c:
                self.total_s += min(t1 - t0, STALE_S)
                self.longest_s = max(self.longest_s, self.total_s)
            self._inside, self._out_since = True, None
        elif self._inside:
            self._out_since = t0 if self._out_since is None else self._out_since
            if t1 - self._out_since > NOISE_S:
                self._inside, self.total_s = False, 0.0

    def with_(self, reading: Reading) -> Hold:
        """The hold if this reading came next."""
        ahead = copy(self)
        ahead.add(reading)
        return ahead


@dataclass
class Stuck:
    """The first time the same figure stood for minutes."""

    value_c: float
    from_s: float
    to_s: float


class Watch:
    """What the readings of one stretch of a cook have told so far.

    ``above_c`` is what a hold counts from (None: no hold asked for), ``boil_c`` where the pot boils
    (None: it has no one boiling point), ``stale_s`` the longest silence that is none. Single spikes
    are taken out by the median of three, so a reading is settled when the next one has come.
    """

    def __init__(
        self, above_c: float | None = None, boil_c: float | None = None, stale_s: float = STALE_S
    ) -> None:
        self.boil_c, self.stale_s, self.count = boil_c, stale_s, 0
        self._hold = None if above_c is None else Hold(above_c)
        self._raw: deque[Reading] = deque(maxlen=3)
        self._settled: deque[Reading] = deque()
        self._peak_c: float | None = None
        self._hottest: list[float] = []
        self.gaps, self.longest_gap_s = 0, 0.0
        self.jumps, self.last_jump_s = 0, 0.0
        self._run_from_s, self._run = 0.0, 0
        self.stuck: Stuck | None = None

    @classmethod
    def of(
        cls,
        readings: Iterable[Reading],
        above_c: float | None = None,
        boil_c: float | None = None,
        stale_s: float = STALE_S,
    ) -> Watch:
        """A watch that has seen all of these, in order."""
        watch = cls(above_c, boil_c, stale_s)
        for reading in readings:
            watch.add(reading)
        return watch

    def add(self, reading: Reading) -> None:
        """One reading on. Raises ValueError for one that is older than the last."""
        before = self._raw[-1] if self._raw else None
        if before is not None and reading[0] < before[0]:
            raise ValueError(say("curve.readings_come_in_the_order_of"))
        self._raw.append(reading)
        self.count += 1
        self._count_run(before, reading)
        if before is None:
            return
        silent_s = reading[0] - before[0]
        if silent_s > self.stale_s:
            self.gaps, self.longest_gap_s = self.gaps + 1, max(self.longest_gap_s, silent_s)
        clean = median(c for _, c in self._raw)
        if self.count > 2 and abs(before[1] - clean) > JUMP_K:
            self.jumps, self.last_jump_s = self.jumps + 1, before[0]
        self._settle((before[0], clean))

    def _settle(self, reading: Reading) -> None:
        self._settled.append(reading)
        while self._settled[0][0] < reading[0] - RECENT_S:
            self._settled.popleft()
        if self._hold:
            self._hold.add(reading)
        self._peak_c = reading[1] if self._peak_c is None else max(self._peak_c, reading[1])
        if len(self._hottest) < _HOTTEST:
            heapq.heappush(self._hottest, reading[1])
        else:
            heapq.heappushpop(self._hottest, reading[1])

    def _count_run(self, before: Reading | None, reading: Reading) -> None:
        if before is None or before[1] != reading[1]:
            self._run_from_s, self._run = reading[0], 0
        self._run += 1
        if self.boil_c is not None and reading[1] > self.boil_c - 8:
            return  # where standing still is what water does
        same = self.stuck is not None and self.stuck.from_s == self._run_from_s
        long = reading[0] - self._run_from_s >= STUCK_S and self._run > STUCK_READINGS
        if long and (self.stuck is None or same):
            self.stuck = Stuck(reading[1], self._run_from_s, reading[0])

    @property
    def last_s(self) -> float | None:
        """When the last reading came."""
        return self._raw[-1][0] if self._raw else None

    @property
    def last(self) -> Reading | None:
        """The last reading, with what is known of its spike."""
        if not self._raw:
            return None
        last = list(self._raw)[-2:]
        return last[-1][0], median(c for _, c in last)

    @property
    def recent(self) -> list[Reading]:
        """The readings of the last five minutes, spikes out."""
        last = self.last
        return [*self._settled, last] if last else []

    @property
    def held_s(self) -> float:
        """Seconds held at or above the temperature asked for, in the stretch that goes on."""
        last = self.last
        return self._hold.with_(last).total_s if self._hold and last else 0.0

    @property
    def longest_hold_s(self) -> float:
        """Seconds of the longest stretch: what was held stays held when the pot is taken off."""
        last = self.last
        return self._hold.with_(last).longest_s if self._hold and last else 0.0

    @property
    def peak_c(self) -> float | None:
        """The hottest it was, spikes out."""
        last = self.last
        if last is None:
            return None
        return last[1] if self._peak_c is None else max(self._peak_c, last[1])

    @property
    def hottest_c(self) -> float | None:
        """The temperature that its five hottest readings reached."""
        last = self.last
        return min(heapq.nlargest(_HOTTEST, [*self._hottest, last[1]])) if last else None


def smoothed(readings: Sequence[Reading]) -> list[Reading]:
    """Readings with single spikes taken out (median of three)."""
    return [
        (t, median(r[1] for r in readings[max(0, i - 1) : i + 2]))
        for i, (t, _) in enumerate(readings)
    ]


def rate_k_per_min(readings: Sequence[Reading], over_s: float = 25.0) -> float | None:
    """Slope of the last ``over_s`` seconds by least squares; None with too little to say."""
    if len(readings) < 4:
        return None
    end = readings[-1][0]
    last = [r for r in readings if r[0] >= end - over_s]
    if len(last) < 4 or last[-1][0] - last[0][0] < 4:
        return None
    n = len(last)
    mean_t = sum(r[0] for r in last) / n
    mean_c = sum(r[1] for r in last) / n
    spread = sum((r[0] - mean_t) ** 2 for r in last)
    return 60 * sum((r[0] - mean_t) * (r[1] - mean_c) for r in last) / spread


def held_s(readings: Iterable[Reading], above_c: float) -> float:
    """The longest stretch at or above ``above_c``, in seconds, without a break longer than the
    noise (10 s). A curve that goes on into the cold was held all the same."""
    hold = Hold(above_c)
    for reading in readings:
        hold.add(reading)
    return hold.longest_s
