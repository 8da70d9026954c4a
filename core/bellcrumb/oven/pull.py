"""When to pull it: the window of each doneness school, what it does afterwards, and how sure."""

import math
from dataclasses import KW_ONLY, dataclass

import numpy as np
from numpy.typing import NDArray

from bellcrumb.laws.egg import SET_THROUGH, WOBBLES
from bellcrumb.oven.chamber import AFTER
from bellcrumb.oven.run import Bake, Cases, Job
from bellcrumb.oven.scene import Cells
from bellcrumb.oven.school import SCHOOLS, After
from bellcrumb.oven.setting import SPREAD_K
from bellcrumb.oven.trace import Trace
from bellcrumb.texture.families import Doneness
from bellcrumb.words import say
from bellcrumb.work import checkpoint

Array = NDArray[np.float64]

LONGEST_S = 4 * 3600.0
AFTER_S = {"rack": 2400.0, "in_bath": 2400.0, "ice": 1500.0, "oven_off": 3600.0}
# What is not known unless the kitchen says: start temperature, the oven's dial, the depth.
START_SPREAD_K, START_KNOWN_K = 5.0, 2.0
OVEN_SPREAD_K, OVEN_KNOWN_K = 8.0, 3.0
DEPTH_SPREAD = 0.05


@dataclass(frozen=True)
class PullWindow:
    """From when to when a school's sign shows, min (None: not within four hours, or a firmer school
    than the one asked for, which is not followed so far), each with its band of what is unknown."""

    doneness: Doneness
    from_min: float | None
    to_min: float | None
    _: KW_ONLY
    from_band: tuple[float, float] | None
    to_band: tuple[float, float] | None


@dataclass(frozen=True)
class Known:
    """What the kitchen has measured: the start temperature, the oven."""

    start: bool = False
    oven: bool = False


@dataclass(frozen=True)
class Baked:
    """A bake as predicted: ``trace`` in the oven, ``after`` from the pull on."""

    job: Job
    windows: dict[Doneness, PullWindow]
    doneness: Doneness
    _: KW_ONLY
    pull_min: float | None
    trace: Trace
    after: Trace | None
    drivers_min: dict[str, float]

    @property
    def window(self) -> PullWindow:
        """The window of the school asked for."""
        return self.windows[self.doneness]

    @property
    def carry_over(self) -> float | None:
        """How far the middle goes on rising after the pull, K."""
        if self.pull_min is None or self.after is None:
            return None
        return float(self.after.centre_c.max() - self.after.centre_c[0, 0])


def cases_of(start_c: float, oven_offset_k: float, set_c: float, known: Known) -> Cases:
    """The case asked for, and one for each thing that is not known: start, oven (both ways, for a
    slow oven has a cliff), depth, set temperature."""
    start = START_KNOWN_K if known.start else START_SPREAD_K
    oven = OVEN_KNOWN_K if known.oven else OVEN_SPREAD_K
    rows = np.array(
        [
            [start_c, oven_offset_k, 1.0, set_c],
            [start_c + start, oven_offset_k, 1.0, set_c],
            [start_c, oven_offset_k + oven, 1.0, set_c],
            [start_c, oven_offset_k - oven, 1.0, set_c],
            [start_c, oven_offset_k, 1.0 + DEPTH_SPREAD, set_c],
            [start_c, oven_offset_k, 1.0, set_c + SPREAD_K],
        ]
    )
    return Cases.of(rows)


def first_past(t_s: Array, done: Array, share: float) -> Array:
    """When each series of the integral of setting (steps, ...) first reaches a set share, s; inf
    when it never does. Between two steps it grows by a factor, so its logarithm is interpolated."""
    line = -math.log1p(-share)
    above = done >= line
    n = above.argmax(0)
    before = np.maximum(n - 1, 0)
    low, high = (
        np.log(np.maximum(np.take_along_axis(done, at[None], 0)[0], 1e-9)) for at in (before, n)
    )
    part = (math.log(line) - low) / np.where(n > 0, np.maximum(high - low, 1e-12), 1.0)
    when = t_s[before] + (t_s[n] - t_s[before]) * np.clip(part, 0.0, 1.0)
    found: Array = np.where(above.any(0), when, math.inf)
    return found


def signs(trace: Trace, width_mm: float) -> dict[Doneness, Array]:
    """When each school's sign begins and ends in every case (2, cases), s.

    wobble: from the loose disc being 45 % of the width until it has closed. domed: the outer
    quarter set through and the disc 45 %, until the middle is well set. just_set: from the disc
    closing until two thirds set. clean_knife: from nearly set through to past it.
    """
    t, done, middles = trace.t_s, trace.done, trace.middles_m
    columns = first_past(t, done, WOBBLES)
    edge = 0.225e-3 * width_mm
    at_edge = np.array([np.interp(edge, middles, case) for case in columns])
    disc = np.maximum(at_edge, columns[:, middles > edge].max(1))
    closed = columns.max(1)
    rim = first_past(t, done[:, :, int(0.75 * len(middles))], 0.85)
    domed = np.maximum(disc, rim)
    least = done.min(2)
    well, set_, nearly, past = (first_past(t, least, share) for share in (0.60, 0.65, 0.88, 0.97))
    return {
        "wobble": np.array([np.minimum(disc, closed), closed]),
        "domed": np.array([domed, np.maximum(domed, well)]),
        "just_set": np.array([closed, set_]),
        "clean_knife": np.array([nearly, past]),
    }


def bake(
    job: Job,
    cases: Cases,
    doneness: Doneness,
    after: After,
    cells: Cells | None = None,
    look_on_s: float = 300.0,
) -> Baked:
    """Bake until the sign asked for is past in every case (and ``look_on_s`` more), then take the
    first case out in the middle of its window. Four hours at most."""
    run = Bake(job, cases, cells)
    enough = {"wobble": WOBBLES, "domed": 0.60, "just_set": 0.65, "clean_knife": 0.97}[doneness]
    # The first case is followed until two thirds set, which the softer schools need too.
    through = max(enough, 0.65)
    asked_s = past_s = math.inf
    while run.t_s < LONGEST_S:
        checkpoint()
        run.step()
        least = run.least_set
        if least[0] >= enough:
            asked_s = min(asked_s, run.t_s)
        if least[0] >= through:
            past_s = min(past_s, run.t_s)
        slow = run.t_s > 2 * asked_s + look_on_s
        done = run.t_s >= past_s and run.t_s >= asked_s + look_on_s
        # A slow case is followed twice as long as the first one took, hardly further.
        if slow or (done and bool((least[1:] >= enough).all())):
            break
    trace = run.trace
    shown = signs(trace, 2 * job.mould.half_mm)
    # Only the school asked for is followed until the slowest case is there.
    windows = {d: _window(d, shown[d] if d == doneness else shown[d][:, :1]) for d in SCHOOLS}
    window = windows[doneness]
    if window.from_min is None or window.to_min is None:
        return Baked(job, windows, doneness, pull_min=None, trace=trace, after=None, drivers_min={})
    pull = (window.from_min + window.to_min) / 2
    names = (
        "start",
        say("oven.oven_hotter"),
        say("oven.oven_cooler"),
        "deeper",
        say("oven.sets_later"),
    )
    middles = shown[doneness].sum(0)
    moved = (middles[1:] - middles[0]) / 120
    drivers = dict(zip(names, moved.tolist(), strict=False))
    return Baked(
        job,
        windows,
        doneness,
        pull_min=pull,
        trace=trace,
        after=taken_out(job, cases, trace, pull, after, cells),
        drivers_min=drivers,
    )


def stepped(job: Job, cases: Cases, until_s: float) -> Trace:
    """Bake all cases until all have set through, or for ``until_s``."""
    run = Bake(job, cases)
    while run.t_s < until_s and run.least_set.min() < SET_THROUGH:
        run.step()
    return run.trace


def _window(doneness: Doneness, shown_s: Array) -> PullWindow:
    """From when to when (2, cases), the first case as asked and the others one thing moved."""
    if not np.isfinite(shown_s[:, 0]).all():
        return PullWindow(doneness, None, None, from_band=None, to_band=None)
    bands = []
    for end in (0, 1):
        at = float(shown_s[end, 0])
        off = (shown_s[end, 1:] - at).tolist()
        if len(off) < 5:
            bands.append((at / 60, at / 60))
            continue
        start, hotter, cooler, deeper, later = off
        # Start, depth and set temperature are taken as alike both ways; the oven is not.
        alike = start**2 + deeper**2 + later**2
        alike = alike if math.isfinite(alike) else (LONGEST_S - at) ** 2
        cooler = cooler if math.isfinite(cooler) else LONGEST_S - at
        early = at - math.sqrt(alike + hotter**2)
        bands.append((max(0.0, early) / 60, (at + math.sqrt(alike + cooler**2)) / 60))
    return PullWindow(
        doneness,
        float(shown_s[0, 0]) / 60,
        float(shown_s[1, 0]) / 60,
        from_band=bands[0],
        to_band=bands[1],
    )


def taken_out(
    job: Job, cases: Cases, trace: Trace, pull_min: float, after: After, cells: Cells | None
) -> Trace:
    """What the first case does after the pull."""
    last = int((trace.t_s <= 60 * pull_min).sum()) - 1
    one = Cases(cases.start_c[:1], cases.offset_k[:1], cases.depth[:1], set_c=cases.set_c[:1])
    rest = Bake(job, one, cells)
    rest.resume(trace.states[last])
    if 60 * pull_min > rest.t_s + 1:
        rest.step(60 * pull_min - rest.t_s)
    place = AFTER[after if job.bath is not None or after not in ("in_bath", "ice") else "rack"]
    rest.move(place)
    until_s = rest.t_s + AFTER_S[after]
    while rest.t_s < until_s:
        rest.step()
    return rest.trace
