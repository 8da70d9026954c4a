"""Causes of every fault: before anything is known, and as what is known moves them."""

from collections.abc import Iterator

from bellcrumb.book.causes import causes, fault_of, rows
from bellcrumb.book.signals import Signals
from bellcrumb.texture.families import families

_PASTRY: Signals = {"starch_ce_g_l:window_lo": 60.0, "starch_ce_g_l:window_hi": 95.0,
                    "yolk_g_l:window_lo": 90.0, "yolk_g_l:window_hi": 180.0,
                    "egg_g_l:window_lo": 300.0, "egg_g_l:window_hi": 420.0}  # fmt: skip
_KNOWN: dict[str, Signals] = {
    "nothing": {},
    "hot and long": {"peak_c": 100.0, "hold_boil_s": 75.0, "beaten_smooth": False},
    "never boiled": {"peak_c": 84.0, "hold_boil_s": 0.0, "stopped_at_first_bubble": True},
    "short of everything": {
        **_PASTRY, "starch_ce_g_l": 40.0, "yolk_g_l": 40.0, "egg_g_l": 200.0, "S": 0.8,
        "S:target_cut": 1.8, "S:next_cut": 3.0, "by_cup": True, "acid_g_100": 0.0,
    },
    "too much of it": {
        **_PASTRY, "starch_ce_g_l": 120.0, "yolk_g_l": 220.0, "egg_g_l": 520.0, "S": 6.0,
        "S:target_cut": 1.8, "S:next_cut": 3.0, "by_cup": False, "acid_g_100": 6.0,
        "sugar_water_pct": 40.0, "cheese_share": 0.4,
    },
    "baked too hot": {"t_set": 80.0, "t_curdle": 87.0, "centre_peak_c": 90.0, "centre_end_c": 88.0,
                      "core_c": 88.0, "bake_ratio": 1.3, "late_pull": True, "yield_low": True},
    "pulled early": {"t_set": 80.0, "t_curdle": 87.0, "centre_peak_c": 74.0, "centre_end_c": 73.0,
                     "core_c": 73.0, "bake_ratio": 0.75, "late_pull": False, "yield_low": False},
}  # fmt: skip


def ranked() -> Iterator[dict[str, object]]:
    """Every fault under each of them, the likeliest first, and which fault a cook's word means."""
    for fault in dict.fromkeys(row.fault for row in rows()):
        for known, signals in _KNOWN.items():
            for n, c in enumerate(causes(fault, signals)):
                if known != "nothing" and not (c.speaks_for or c.speaks_against):
                    continue
                yield {"fault": fault, "known": known, "rank": n, "cause": c.key,
                       "probability": c.probability, "for": " / ".join(c.speaks_for),
                       "against": " / ".join(c.speaks_against)}  # fmt: skip
    for word in [*dict.fromkeys(row.app_key for row in rows()), "no such fault"]:
        meant: dict[str, list[str]] = {}
        for family in [*families(), "no such family"]:
            meant.setdefault(fault_of(word, family) or "none", []).append(family)
        for fault, those in meant.items():
            yield {"fault": word, "cause": fault, "for": " ".join(those)}
