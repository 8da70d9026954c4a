"""Knowing an oven: a pan of water with a probe in it, and a thermometer on the shelf.

Three figures are fitted: what the oven is above its dial, how hard its air blows, and how fast its
steam leaves. An empty oven tells the first alone; the water tells the others by how fast it warms
and where it comes to rest.
"""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import least_squares

from bellcrumb.errors import CraftError
from bellcrumb.oven.chamber import Chamber
from bellcrumb.oven.fitted import OvenCalibration
from bellcrumb.oven.scene import FIGURE_PRIORS, Bath, DialStage, Oven, OvenKind
from bellcrumb.words import say
from bellcrumb.work import checkpoint

Array = NDArray[np.float64]

STEP_S = 60.0
PROBE_K, SHELF_K = 0.7, 4.0  # spread of the water's probe, and of a shelf thermometer
PRIOR_OFFSET_K = 8.0  # what is thought of a dial before
LEAST_MIN = 25.0


def calibrate(
    kind: OvenKind,
    set_c: float,
    water_kg: float,
    pan_mm: tuple[float, float],
    water: Sequence[tuple[float, float]],
    shelf_c: float | None,
    altitude_m: float = 0.0,
) -> OvenCalibration:
    """Fit an oven to ``water`` ((s in the oven, degC) of an open pan of ``water_kg``) and to what a
    thermometer on the shelf showed once it had settled (None: none there).

    Raises CraftError for too short a walk or readings that no oven gives.
    """
    points = [p for p in water if p[0] >= 0]
    if len(points) < 6 or points[-1][0] - points[0][0] < LEAST_MIN * 60:
        raise CraftError("readings", say("oven.leave_the_water_in_for_min", least_min=LEAST_MIN))
    if max(c for _, c in points) < points[0][1] + 15:
        raise CraftError("readings", say("oven.the_water_hardly_warmed_was_the"))
    t = np.array([p[0] for p in points])
    seen = np.array([p[1] for p in points])
    depth = water_kg / (pan_mm[0] * pan_mm[1] / 1e6)

    def off(at: Array) -> Array:
        curve = pan_of_water(
            kind, set_c, float(seen[0]), water_kg, pan_mm, depth, at, float(t[-1]), altitude_m
        )
        wrong = (np.interp(t, *curve) - seen) / PROBE_K / np.sqrt(len(t) / 12)
        prior = [
            at[0] / PRIOR_OFFSET_K,
            at[1] / FIGURE_PRIORS["film"],
            at[2] / FIGURE_PRIORS["vent"],
        ]
        shelf = [] if shelf_c is None else [(set_c + at[0] - shelf_c) / SHELF_K]
        return np.concatenate((wrong, prior, shelf))

    found = least_squares(off, np.zeros(3), diff_step=1e-2, x_scale=[5.0, 0.3, 0.5])
    cover = np.linalg.inv(found.jac.T @ found.jac)
    spread = np.sqrt(np.diag(cover))
    curve = pan_of_water(
        kind, set_c, float(seen[0]), water_kg, pan_mm, depth, found.x, float(t[-1]), altitude_m
    )
    rms = float(np.sqrt(((np.interp(t, *curve) - seen) ** 2).mean()))
    film, vent = float(np.exp(found.x[1])), float(np.exp(found.x[2]))
    return OvenCalibration(
        float(found.x[0]), float(spread[0]), film, film_spread=film * float(spread[1]), vent=vent,
        vent_spread=vent * float(spread[2]), rms_k=rms,
    )  # fmt: skip


def pan_of_water(
    kind: OvenKind, set_c: float, start_c: float, kg: float, pan_mm: tuple[float, float],
    depth_mm: float, at: Array, until_s: float, altitude_m: float,
) -> tuple[Array, Array]:  # fmt: skip
    """The water of an open pan alone in the oven: times and temperatures."""
    oven = Oven(
        kind, (DialStage(set_c),), 0.0, altitude_m=altitude_m,
        film=float(np.exp(at[1])), vent=float(np.exp(at[2])),
    )  # fmt: skip
    bath = Bath(depth_mm, start_c, False, water_kg=kg, pan_mm=pan_mm)
    room = Chamber(oven, bath, np.array([float(at[0])]), 0.0, 0.0, pan_c=start_c)
    times, temps, t = [0.0], [start_c], 0.0
    none = np.zeros(1)
    while t < until_s:
        checkpoint()
        middle = (t + STEP_S / 2) / 60
        room.advance(middle, STEP_S, room.ahead(middle, STEP_S / 2), none, none)
        t += STEP_S
        times.append(t)
        temps.append(float(room.bath_c[0]))
    return np.array(times), np.array(temps)
