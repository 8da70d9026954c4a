"""Cooling: how long a container takes through the warm zone, and the deepest one that passes.

The rule kept here is the usual two-stage one (Food Code 3-501.14); a kitchen's own can replace it,
and the local code comes first.
"""

import math
from dataclasses import KW_ONLY, dataclass, replace
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from bellcrumb.heat.field import Field
from bellcrumb.heat.materials import Food
from bellcrumb.laws import air
from bellcrumb.laws.safety import CoolingRule, cools_in_time
from bellcrumb.laws.water import LATENT_ICE_J_PER_G, STANDARD_PA, latent_j_per_kg, saturation_pa
from bellcrumb.oven.scene import Body, Cells, Mould, body_of
from bellcrumb.work import checkpoint

Array = NDArray[np.float64]
Method = Literal["bench", "fridge", "still_fridge", "ice_bath", "stirred_ice_bath", "blast"]

CELLS = Cells(16, 8)
STEP_S, LATER_S, LATER_STEP_S = 60.0, 3 * 3600.0, 240.0
LONGEST_S = 24 * 3600.0
DEPTHS_MM = (8.0, 12.0, 16.0, 20.0, 25.0, 30.0, 35.0, 40.0, 50.0, 60.0, 75.0, 100.0)
ICE_C = 1.0
# Melting ice standing still around a wall, and the same while the cream is stirred (which also
# carries heat inside it many times faster than conduction). Estimates: medium to low confidence.
ICE_H, STIRRED_H, STIRRED_TIMES = 150.0, 300.0, 15.0


@dataclass(frozen=True)
class Air:
    """Moving air with its radiation as one film coefficient (W/m2K), and its humidity."""

    temp_c: float
    h: float
    humidity: float


# A reach-in refrigerator has a fan; "still" is a household one, or one that is crammed.
AIRS: dict[Method, Air] = {
    "bench": Air(air.ROOM_C, 9.0, 0.5),
    "fridge": Air(3.0, 14.0, 0.85),
    "still_fridge": Air(3.0, 7.0, 0.85),
    "ice_bath": Air(3.0, 14.0, 0.85),
    "stirred_ice_bath": Air(3.0, 14.0, 0.85),
    "blast": Air(-5.0, 30.0, 0.8),
}


@dataclass(frozen=True)
class Cooling:
    """A cooling: ``curve`` of (min, warmest degC, mean degC) from putting it away; minutes to the
    two temperatures count from passing the rule's first (inf: not within a day)."""

    curve: list[tuple[float, float, float]]
    to_mid_min: float
    to_end_min: float
    _: KW_ONLY
    complies: bool
    deepest_mm: float
    ice_kg: float | None


def cool(
    food: Food, mould: Mould, start_c: float, method: Method, covered: bool, rule: CoolingRule,
    air_c: float | None = None,
) -> Cooling:  # fmt: skip
    """Cool a container, and others like it of other depths, until all are cold or a day is over.

    In an ice bath it stands until the warmest place is at the rule's middle temperature and goes
    into the refrigerator then. ``air_c`` is what this kitchen's refrigerator really has.
    """
    blow = AIRS[method] if air_c is None else replace(AIRS[method], temp_c=air_c)
    depths = np.array([mould.fill_mm, *DEPTHS_MM])
    t_s, warmest, mean = _run(food, mould, depths, start_c, method, blow, covered, rule)
    times = [_times(t_s, warmest[:, n], rule) for n in range(len(depths))]
    mid, end = times[0]
    late = [max(m / rule.mid_min, e / rule.end_min) for m, e in times[1:]]
    iced = method in ("ice_bath", "stirred_ice_bath")
    litre_kg = food.rho * mould.fill_mm / 1000 * _floor_m2(mould)
    taken_kj = litre_kg * food.cp / 1000 * max(0.0, start_c - rule.mid_c)
    return Cooling(
        curve=[
            (float(t) / 60, float(w), float(m))
            for t, w, m in zip(t_s, warmest[:, 0], mean[:, 0], strict=True)
        ],
        to_mid_min=mid,
        to_end_min=end,
        complies=cools_in_time(mid, end, rule),
        deepest_mm=_deepest(late),
        # A tenth more melts from the room's side.
        ice_kg=1.1 * taken_kj / LATENT_ICE_J_PER_G if iced else None,
    )


def minutes_to(food: Food, mould: Mould, start_c: float, end_c: float) -> float:
    """Minutes until the warmest place of one container in the refrigerator is at ``end_c``, covered
    (inf: not within a day)."""
    rule = CoolingRule(max(start_c, end_c), end_c, 1.0, end_c=end_c, end_min=1.0)
    t_s, warmest, _ = _run(
        food, mould, np.array([mould.fill_mm]), start_c, "fridge", AIRS["fridge"], True, rule
    )
    return _first_under(t_s, warmest[:, 0], end_c) / 60


def _floor_m2(mould: Mould) -> float:
    half = mould.half_mm / 1000
    return mould.times * (math.pi * half * half if mould.section == "round" else 2 * half)


def _deepest(late: list[float]) -> float:
    """Where the share of the allowed time passes one, by a line between the depths tried."""
    if late[0] > 1:
        return 0.0
    for n in range(1, len(late)):
        if late[n] > 1:
            low, high = DEPTHS_MM[n - 1], DEPTHS_MM[n]
            if not math.isfinite(late[n]):
                return low
            return low + (high - low) * (1 - late[n - 1]) / (late[n] - late[n - 1])
    return DEPTHS_MM[-1]


def _times(t_s: Array, warmest: Array, rule: CoolingRule) -> tuple[float, float]:
    """Minutes from passing the first temperature to the middle and the end one."""
    at = [_first_under(t_s, warmest, c) for c in (rule.from_c, rule.mid_c, rule.end_c)]
    return (at[1] - at[0]) / 60, (at[2] - at[0]) / 60


def _first_under(t_s: Array, value: Array, line: float) -> float:
    under = value <= line
    if not under.any():
        return math.inf
    n = int(under.argmax())
    if n == 0:
        return 0.0
    high, low = value[n - 1], value[n]
    return float(t_s[n - 1] + (t_s[n] - t_s[n - 1]) * (high - line) / (high - low))


def _run(
    food: Food, mould: Mould, depths: Array, start_c: float, method: Method, blow: Air,
    covered: bool, rule: CoolingRule,
) -> tuple[Array, Array, Array]:  # fmt: skip
    """Step all depths: times, and the warmest and mean temperature (steps, cases)."""
    body = body_of(mould, depths, CELLS)
    shape = body.mesh.volume.shape
    custard = (slice(None), slice(body.floor, None), slice(0, body.columns))
    rho_cp = np.broadcast_to(body.rho_cp_solid, shape).copy()
    rho_cp[custard] = food.rho * food.cp
    temp = np.full(shape, start_c, dtype=float)
    volume = body.mesh.volume[custard]
    total = volume.sum((1, 2))
    field = Field(body.mesh, rho_cp, temp, STEP_S)
    iced = np.full(len(depths), method in ("ice_bath", "stirred_ice_bath"))
    seen: list[tuple[float, Array, Array]] = []
    t, couple_at = 0.0, 0.0
    while True:
        checkpoint()
        now = field.temp_c[custard]
        warmest = now.max((1, 2))
        seen.append((t, warmest, (now * volume).sum((1, 2)) / total))
        if t >= LONGEST_S or bool((warmest <= rule.end_c).all()):
            break
        still_iced = iced & (warmest > rule.mid_c)
        if t >= couple_at or bool((still_iced != iced).any()):
            iced = still_iced
            step = STEP_S if t < LATER_S else LATER_STEP_S
            if step != field.step_s:
                field = Field(body.mesh, rho_cp, field.temp_c, step)
            _couple(field, body, food, blow, iced, method, covered)
            couple_at = t + 5 * step
        outside = np.where(iced, ICE_C, blow.temp_c)[:, None]
        top = np.full(shape[::2], blow.temp_c) - _dried(field, blow, covered)
        field.step(np.repeat(outside, shape[2], 1), np.repeat(outside, shape[1], 1), top)
        t += field.step_s
    return (
        np.array([row[0] for row in seen]),
        np.array([row[1] for row in seen]),
        np.array([row[2] for row in seen]),
    )


def _couple(
    field: Field, body: Body, food: Food, blow: Air, iced: Array, method: Method, covered: bool
) -> None:
    shape = field.temp_c.shape
    k = np.broadcast_to(body.k_solid, shape).copy()
    stirred = iced if method == "stirred_ice_bath" else np.zeros_like(iced)
    times = np.where(stirred, STIRRED_TIMES, 1.0)[:, None, None]
    inside = field.temp_c[:, body.floor :, : body.columns]
    k[:, body.floor :, : body.columns] = food.k(inside) * times
    around = np.where(stirred, STIRRED_H, np.where(iced, ICE_H, blow.h))
    # Film on the surface keeps the air off only a little; a lid with air under it halves it.
    over = blow.h * (0.9 if covered else 1.0)
    field.couple(
        k,
        np.repeat(around[:, None], shape[2], 1),
        np.repeat(around[:, None], shape[1], 1),
        np.full((shape[0], shape[2]), over),
    )


def _dried(field: Field, blow: Air, covered: bool) -> Array:
    """How much colder than the air an open wet top finds it, K: what evaporation takes."""
    surface = field.temp_c[:, -1, :]
    if covered:
        return np.zeros_like(surface)
    vapour = blow.humidity * saturation_pa(np.full_like(surface, blow.temp_c))
    convective = blow.h * 0.6  # the rest of the film is radiation
    lost = 0.3 * air.evaporation_kg_m2s(surface, vapour, convective, STANDARD_PA)[0]
    found: Array = lost * latent_j_per_kg(surface) / blow.h
    return found


def split_into(mould: Mould, deepest_mm: float) -> int | None:
    """Into how many containers like this one it must be split to pass; None when none is shallow
    enough."""
    if deepest_mm < 5:
        return None
    return math.ceil(mould.fill_mm / deepest_mm - 1e-9)


def release_s(food: Food, mould: Mould, water_c: float = 60.0, from_c: float = 4.0) -> float:
    """Seconds in hot water until the outer half millimetre is at 30 degC and lets go; 120 at most.

    A slab of wall and custard, warmed from outside.
    """
    thin = replace(
        mould, section="straight", half_mm=1000.0, fill_mm=12.0, crust=None, crust_mm=0.0
    )
    body = body_of(thin, np.array([12.0]), Cells(24, 2))
    shape = body.mesh.volume.shape
    rho_cp = np.broadcast_to(body.rho_cp_solid, shape).copy()
    rho_cp[:, body.floor :, : body.columns] = food.rho * food.cp
    field = Field(body.mesh, rho_cp, np.full(shape, from_c), 0.5)
    k = np.broadcast_to(body.k_solid, shape).copy()
    k[:, body.floor :, : body.columns] = food.k(field.temp_c[:, body.floor :, : body.columns])
    none = np.zeros((1, shape[2]))
    field.couple(k, np.full((1, shape[2]), 350.0), np.zeros((1, shape[1])), none)
    t = 0.0
    while t < 120 and field.temp_c[0, body.floor, 0] < 30:
        field.step(np.full((1, shape[2]), water_c), np.zeros((1, shape[1])), none)
        t += 0.5
    return t
