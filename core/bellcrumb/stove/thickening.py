"""How thick a cream is in the pot, from starch swollen and egg set so far, and the sign of it.

Viscosity is an estimate for choosing words: it ranks, it predicts no rheometer. Starch swells from
its onset to its full pasting temperature, later with sugar; egg thickens from its onset to its
best; held too long or boiled hard, roots and waxy starches thin again.
"""

import math
from dataclasses import KW_ONLY, dataclass

from bellcrumb.laws.starch import pasting
from bellcrumb.laws.water import BOILS_FROM_C
from bellcrumb.mix.composition import Mix
from bellcrumb.texture.coagulation import coagulation
from bellcrumb.texture.families import Family
from bellcrumb.words import say

_SIGNS = (
    (0.03, say("stove.runs_like_milk")),
    (0.12, say("stove.like_cream_clings_to_the_whisk")),
    (0.6, say("stove.coats_the_spoon_a_fingers_trail")),
    (2.0, say("stove.a_trail_behind_the_whisk_closes")),
    (5.0, say("stove.falls_in_a_ribbon_that_lies")),
    (math.inf, say("stove.slow_bubbles_that_plop_and_leave")),
)


@dataclass(frozen=True)
class Thickener:
    """What a mix thickens by: per cent of the mix as corn starch with its window (sugar's delay in
    it), and the yolk's share with its own."""

    starch_pct: float
    onset_c: float
    full_c: float
    _: KW_ONLY
    loss: float
    egg_pct: float
    egg_onset_c: float
    egg_full_c: float

    @classmethod
    def of(cls, mix: Mix, family: Family) -> "Thickener":
        """The thickener of a mix of a family."""
        mass = mix.mass_g or 1.0
        window = pasting(mix.main_starch, mix.sugar_pct_of_water_phase)
        egg = coagulation(mix, family)
        yolk = mix.yolk_g + 0.6 * mix.whole_egg_g
        return cls(
            100 * mix.corn_equivalent_g / mass, window.from_c, window.full_c,
            loss=window.loss, egg_pct=100 * yolk / mass,
            egg_onset_c=egg.onset_c if egg else 80.0, egg_full_c=egg.ideal_c if egg else 84.0,
        )  # fmt: skip

    def pa_s(self, temp_c: float, peak_c: float | None = None, boiled_s: float = 0.0) -> float:
        """Viscosity (Pa s, an estimate) at a temperature, having been as hot as ``peak_c``.

        What has swollen stays swollen; everything is thinner hot than cold.
        """
        top = max(temp_c, peak_c if peak_c is not None else temp_c)
        swollen = _ramp(top, self.onset_c, self.full_c) * (1 - self.loss * min(1.0, boiled_s / 300))
        set_egg = _ramp(top, self.egg_onset_c, self.egg_full_c)
        k = self.starch_pct * swollen + 0.13 * self.egg_pct * set_egg
        return (0.003 + 0.06 * k**3) * math.exp(0.02 * (85 - temp_c))


def _ramp(temp_c: float, low: float, high: float) -> float:
    """0 below, 1 above, and a smooth rise between."""
    x = min(1.0, max(0.0, (temp_c - low) / max(high - low, 1.0)))
    return x * x * (3 - 2 * x)


def sign_of(pa_s: float) -> str:
    """What a cook sees at a viscosity."""
    return next(words for limit, words in _SIGNS if pa_s < limit)


def signs_along(
    thickener: Thickener, curve: list[tuple[float, float]]
) -> list[tuple[float, float, str]]:
    """(s, degC, sign) whenever the sign changes along a heating curve."""
    found: list[tuple[float, float, str]] = []
    peak, boiled, before = -50.0, 0.0, 0.0
    for t, temp in curve:
        peak = max(peak, temp)
        boiled += (t - before) if temp > BOILS_FROM_C else 0.0
        before = t
        sign = sign_of(thickener.pa_s(temp, peak, boiled))
        if not found or found[-1][2] != sign:
            found.append((t, temp, sign))
    return found


# What milk and cream show on the way up. Source: craft.
_LIQUID = (
    (60.0, say("stove.steam_rises")),
    (82.0, say("stove.scalded_small_bubbles_round_the_edge")),
)


def signs_of(
    thickener: Thickener, curve: list[tuple[float, float]], boil_c: float
) -> list[tuple[float, float, str]]:
    """(s, degC, sign) of steam, scald and boil, and of the thickening, along a heating curve."""
    found = signs_along(thickener, curve)[1:]
    for from_c, sign in (*_LIQUID, (boil_c - 0.3, say("stove.it_boils_bubbles_break_in_the"))):
        first = next(((t, c) for t, c in curve if c >= from_c), None)
        thin = from_c > 90 or thickener.pa_s(from_c) < 0.12
        if first and thin and curve[0][1] < from_c:
            found.append((*first, sign))
    return sorted(found)
