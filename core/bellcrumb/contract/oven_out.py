"""What a bake answers, from the run to the output shapes."""

import numpy as np
from numpy.typing import NDArray

from bellcrumb.oven.crack import Risk, crack_risk
from bellcrumb.oven.pull import Baked
from bellcrumb.oven.school import AFTERS, sign_of
from bellcrumb.oven.trace import Trace
from bellcrumb.reasons import Reason
from bellcrumb.shapes import oven as shapes
from bellcrumb.texture.families import Family
from bellcrumb.words import say

Array = NDArray[np.float64]

_FRAME_EVERY_MIN = 2.0
_MOST_FRAMES = 24


def _at(trace: Trace, series: Array, minute: float) -> float:
    return float(np.interp(60 * minute, trace.t_s, series[:, 0]))


def _curve(trace: Trace, until_min: float | None, every_s: float) -> list[shapes.BakePoint]:
    last = trace.t_s[-1] if until_min is None else min(trace.t_s[-1], 60 * until_min)
    first = trace.t_s[0]
    times = np.append(np.arange(first, last, every_s), last)

    def on(series: Array) -> Array:
        found: Array = np.interp(times, trace.t_s, series[:, 0])
        return found

    bath = on(trace.bath_c)
    rows = zip(
        times, on(trace.centre_c), on(trace.edge_c), on(trace.disc_mm), on(trace.least_set),
        bath, on(trace.air_c), strict=True,
    )  # fmt: skip
    return [
        shapes.BakePoint(
            t_min=round(float(t) / 60, 2), centre_c=round(float(c), 2), edge_c=round(float(e), 2),
            unset_diameter_mm=round(float(d), 1), least_set=round(float(s), 3),
            bath_c=None if np.isnan(b) else round(float(b), 1), oven_c=round(float(o), 1),
        )
        for t, c, e, d, s, b, o in rows
    ]  # fmt: skip


def _frames(trace: Trace, until_min: float | None, out: bool) -> list[shapes.FrameOut]:
    last = trace.t_s[-1] if until_min is None else 60 * until_min + 1
    apart = max(60 * _FRAME_EVERY_MIN, (last - trace.t_s[0]) / _MOST_FRAMES)
    shown: list[int] = []
    for n, t in enumerate(trace.t_s):
        if t <= last and (not shown or t >= trace.t_s[shown[-1]] + apart - 1):
            shown.append(n)
    spoilt = trace.spoilt_share()
    return [
        shapes.FrameOut(
            t_min=float(trace.t_s[n]) / 60,
            out=out,
            temp_c=np.rint(trace.temp_c[n, 0]).astype(int).tolist(),
            set_pct=np.rint(100 * trace.set_share[n, 0]).astype(int).tolist(),
            over_pct=np.rint(100 * spoilt[n]).astype(int).tolist()
            if spoilt[n].max() > 0.01
            else [],
            unset_diameter_mm=float(trace.disc_mm[n, 0]),
        )
        for n in shown
    ]


def bake_out(
    found: Baked, given: shapes.BakeIn, poured: float | None, set_c: float, kin: Family,
    said: list[str], solve_ms: float,
) -> shapes.BakeOut:  # fmt: skip
    """Everything a bake answers; ``poured`` is the water in ml, ``said`` what was doubtful."""
    spoilt = found.trace.weeping()[:, None]
    window, trace, after, mould = found.window, found.trace, found.after, found.job.mould
    pull = found.pull_min

    def at(series: Array) -> float | None:
        return None if pull is None else _at(trace, series, pull)

    centre = at(trace.centre_c)
    edge = at(trace.edge_c)
    peak = None if after is None else float(after.centre_c.max())
    late = None
    late_over = None
    if pull is not None and centre is not None:
        late = _at(trace, trace.centre_c, pull + 1) - centre
        late_over = 100 * (_at(trace, spoilt, pull + 5) - _at(trace, spoilt, pull))
    ends = [window.from_min, window.to_min]
    probe = [None if e is None else _at(trace, trace.centre_c, e) for e in ends]
    left = None
    if found.job.bath is not None and pull is not None:
        water_kg = [state[4][4][0] for state in trace.states]
        left = 1000 * float(np.interp(60 * pull, trace.t_s, water_kg))
    crack, crack_why = _crack(
        kin, peak, None if edge is None or centre is None else edge - centre, after
    )
    last = None if window.to_min is None else window.to_min + 5
    return shapes.BakeOut(
        doneness=found.doneness,
        pull_from_min=window.from_min,
        pull_to_min=window.to_min,
        pull_low_min=window.from_band[0] if window.from_band else None,
        pull_high_min=window.to_band[1] if window.to_band else None,
        pull_min=pull,
        windows=[
            shapes.PullOut(
                doneness=w.doneness, from_min=w.from_min, to_min=w.to_min,
                from_low_min=w.from_band[0] if w.from_band else None,
                from_high_min=w.from_band[1] if w.from_band else None,
                to_low_min=w.to_band[0] if w.to_band else None,
                to_high_min=w.to_band[1] if w.to_band else None,
                sign=sign_of(kin, w.doneness),
            )
            for w in found.windows.values()
        ],
        centre_c_at_pull=centre,
        probe_from_c=probe[0],
        probe_to_c=probe[1],
        peak_centre_c=peak,
        carry_over_k=None if peak is None or centre is None else max(0.0, peak - centre),
        edge_minus_centre_k=None if edge is None or centre is None else edge - centre,
        overdone_pct=None if pull is None else 100 * _at(trace, spoilt, pull),
        late_minute_k=late,
        late_overdone_pct=late_over,
        set_after_pct=None if after is None else 100 * float(after.least_set[-1, 0]),
        crack=crack,
        crack_why=crack_why,
        bath_c_at_pull=at(trace.bath_c) if given.bath else None,
        water_ml=poured,
        water_left_ml=left,
        set_c=set_c,
        fill_mm=mould.fill_mm,
        width_mm=2 * mould.half_mm,
        wall_mm=mould.wall_mm,
        crust_mm=mould.crust_mm,
        level_mm=found.job.bath.level_mm if found.job.bath else None,
        curve=_curve(trace, last, 60.0),
        after=[] if after is None else _curve(after, None, 60.0),
        frames=(
            [*_frames(trace, pull, False), *([] if after is None else _frames(after, None, True))]
            if given.frames else []
        ),
        drivers=[
            shapes.DriverOut(what=what, minutes=round(m, 1) if np.isfinite(m) else 240.0)
            for what, m in found.drivers_min.items()
        ],
        reasons=_reasons(found, given, set_c, kin),
        solve_ms=round(solve_ms, 1),
        warnings=[*said, *_warnings(found, given, kin, centre, peak, left)],
    )  # fmt: skip


def _crack(
    kin: Family, peak: float | None, ahead: float | None, after: Trace | None
) -> tuple[Risk | None, str]:
    """The risk of a crack, for what can crack."""
    cheese = kin.group == "cheesecake"
    if (not cheese and kin.key != "pumpkin_pie") or peak is None or ahead is None or after is None:
        return None, ""
    return crack_risk(
        "cheesecake" if cheese else "pie", peak, ahead, after.t_s, after.centre_c[:, 0]
    )


def _reasons(found: Baked, given: shapes.BakeIn, set_c: float, kin: Family) -> list[Reason]:
    f = found.job.food
    water = say("contract.no_bath")
    if given.bath:
        water = say("contract.water_poured_at_c", water_c=given.bath.water_c)
        water += say("contract.covered") if given.bath.covered else ""
    return [
        Reason(
            say(
                "contract.mm_of_conducts_w_mk_holds",
                fill_mm=found.job.mould.fill_mm,
                kin=kin.name.lower(),
                k0=f.k0 + f.k1 * 50 + f.k2 * 2500,
                cp=f.cp / 1000,
                kind=given.oven.kind,
                water=water,
            ),
            say("contract.conduction_in_the_cut_open_mould"),
            say("contract.choi_okos_1986_peaceman_rachford_1955"),
            sure=say("contract.the_band_start_temperature_oven_depth"),
        ),
        Reason(
            say("contract.it_stops_wobbling_at_about_c", set_c=set_c),
            say("contract.set_share_1_exp_integral_of"),
            say("contract.calibrated_to_77_80_c_for"),
            sure=say("contract.1_5_k_for_a_formula"),
        ),
    ]


def _warnings(
    found: Baked, given: shapes.BakeIn, kin: Family, centre: float | None, peak: float | None,
    left: float | None,
) -> list[str]:  # fmt: skip
    said: list[str] = []
    window, trace = found.window, found.trace
    spoilt = trace.weeping()[:, None]
    if window.from_min is None:
        return [say("contract.at_this_heat_it_does_not")]
    assert window.to_min is not None and found.pull_min is not None
    band = (window.to_band or (0, 0))[1] - (window.from_band or (0, 0))[0]
    if band > 0.7 * found.pull_min:
        said.append(say("contract.near_the_heat_where_it_hardly"))
    over = _at(trace, spoilt, found.pull_min)
    if over > 0.3:
        said.append(say("contract.of_it_near_the_wall_is", over=100 * over))
    if found.job.bath is not None:
        if _at(trace, trace.bath_c, found.pull_min) > 95:
            said.append(say("contract.the_water_boils_bubbles_in_the"))
        if left is not None and left < 100:
            said.append(say("contract.the_pan_runs_dry_before_the"))
        said.append(say("contract.a_tray_of_hot_water_lifted"))
    if given.after == "in_bath" and given.bath is None:
        said.append(say("contract.there_is_no_bath_to_leave"))
    elif given.after == "ice" and given.bath is None:
        said.append(say("contract.ice_water_is_for_moulds_that"))
    if found.carry_over is not None and found.carry_over > 4:
        said.append(
            say(
                "contract.it_goes_on_by_k_pull",
                carry_over=found.carry_over,
                afters=AFTERS[given.after],
            )
        )
    if given.altitude_m > 1000:
        said.append(say("contract.up_here_water_boils_cooler_the"))
    return said
