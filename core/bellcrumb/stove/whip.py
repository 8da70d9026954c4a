"""Whipped cream: whether it whips, how far, how long it stands, and how much a pie takes."""

import math
from dataclasses import KW_ONLY, dataclass
from itertools import pairwise
from typing import Literal

from bellcrumb.errors import CraftError
from bellcrumb.laws.air import WHIPS_FROM_FAT_PCT, cream_whips, whipped_stands_h
from bellcrumb.mix.composition import Mix
from bellcrumb.texture.how_set import cream_to_whip
from bellcrumb.words import say

Use = Literal["fold", "top", "pipe"]
# fat % -> overrun % at soft, and at stiff. Source: cream table (medium); between lines straight.
_OVERRUN = ((30.0, 110.0, 130.0), (35.5, 90.0, 110.0), (40.0, 75.0, 90.0), (48.0, 50.0, 70.0))
PIPE_FAT = 35.0
WARMEST_C = 11.0
_COLD_C = 4.0
TOPPING_G_ML = 0.50
PEAKS: dict[Use, str] = {
    "fold": say("stove.soft_the_trail_of_the_whisk"),
    "top": say("stove.firm_a_peak_that_bends_over"),
    "pipe": say("stove.stiff_a_peak_that_stands_still"),
}


@dataclass(frozen=True)
class Whipped:
    """What comes of a cream; ``time_s`` is None for one that does not whip. ``stands_h`` is how
    long it keeps its shape in this room, ``stands_cold_h`` in the refrigerator; ``topping_g`` is
    what a pie takes of it, where one is asked for."""

    fat_pct: float
    whips: bool
    overrun_pct: float
    _: KW_ONLY
    volume_ml: float
    mass_g: float
    peak: str
    time_s: float | None
    stands_h: float
    stands_cold_h: float
    warnings: list[str]
    topping_g: float | None = None


def whip(
    cream_g: float,
    fat_pct: float,
    use: Use = "top",
    *,
    cream_c: float = 4.0,
    room_c: float = 20.0,
    icing_sugar_g: float = 0.0,
    sugar_g: float = 0.0,
    stabiliser_pct: float = 0.0,
) -> Whipped:
    """Judge a cream to be whipped. Raises CraftError for no cream, or fat no cream has.

    Time: about 3 min for 500 g by machine (craft, low). Standing: ``whipped_stands_h``;
    ``stabiliser_pct`` of the cream is gelatine (up to 2), else mascarpone and the like.
    """
    if cream_g <= 0:
        raise CraftError("cream_g", say("stove.there_is_no_cream_to_whip"))
    if not 0 <= fat_pct <= 60:
        raise CraftError("fat_pct", say("stove.cream_has_between_0_and_60"))
    mass = cream_g + icing_sugar_g + sugar_g
    warnings: list[str] = []
    whips = cream_whips(fat_pct, stabilised=stabiliser_pct > 0)
    if not cream_whips(fat_pct):
        values = {"fat_pct": fat_pct, "least_fat": WHIPS_FROM_FAT_PCT}
        warnings.append(
            say("stove.whips_only_with_its_stabiliser", **values)
            if whips
            else say("stove.of_fat_does_not_whip_take", **values)
        )
    elif use == "pipe" and fat_pct < PIPE_FAT:
        warnings.append(say("stove.under_it_whips_but_does_not", pipe_fat=PIPE_FAT))
    if cream_c > WARMEST_C:
        whips = False
        warnings.append(say("stove.at_c_the_fat_is_too", cream_c=cream_c))
    elif cream_c > 7:
        warnings.append(say("stove.colder_is_surer_2_to_6"))
    if room_c > 26:
        warnings.append(say("stove.in_this_heat_it_will_not"))
    if fat_pct >= 45:
        warnings.append(say("stove.so_rich_a_cream_turns_to"))
    share = (icing_sugar_g + sugar_g) / cream_g
    if share > 0.15:
        warnings.append(say("stove.more_than_15_of_sugar_weighs"))
    if sugar_g > 0 and icing_sugar_g == 0:
        warnings.append(say("stove.icing_sugar_brings_a_little_starch"))
    overrun = _overrun(fat_pct, use) * (1 - 0.4 * min(0.5, share)) if whips else 0.0
    litres = mass / 1.01 * (1 + overrun / 100)
    held = _stabilised(stabiliser_pct) * (1.1 if icing_sugar_g else 1.0)
    stands, cold = (
        whipped_stands_h(fat_pct, temp_c, 100 * share, held) for temp_c in (room_c, _COLD_C)
    )
    if not whips:
        runs = say("stove.none_it_stays_a_liquid")
        return Whipped(
            fat_pct,
            False,
            0.0,
            volume_ml=litres,
            mass_g=mass,
            peak=runs,
            time_s=None,
            stands_h=0.0,
            stands_cold_h=0.0,
            warnings=warnings,
        )
    takes_s = (60 + 0.24 * cream_g) * {"fold": 0.7, "top": 0.9, "pipe": 1.0}[use]
    return Whipped(
        fat_pct,
        True,
        overrun,
        volume_ml=litres,
        mass_g=mass,
        peak=PEAKS[use],
        time_s=takes_s,
        stands_h=stands,
        stands_cold_h=cold,
        warnings=warnings,
    )


def _stabilised(pct: float) -> float:
    """How many times longer it stands: gelatine from 0.6 %, mascarpone or another cheese at 20 %.
    Our estimate after practice."""
    if pct <= 2:
        return 1 + 2 * min(1.0, pct / 0.6)
    return 1 + min(1.5, pct / 20)


def whip_of(mix: Mix, use: Use = "top") -> Whipped:
    """``whip`` of a mix. Raises CraftError where there is no cream in it."""
    cream, fat, steadied = cream_to_whip(mix)
    icing = mix.grams_of_key("sugar_icing")
    return whip(
        cream, min(60.0, fat), use, icing_sugar_g=icing, sugar_g=mix.added_sugar_g - icing,
        stabiliser_pct=min(30.0, steadied),
    )  # fmt: skip


def _overrun(fat_pct: float, use: Use) -> float:
    way = {"fold": 0.0, "top": 0.6, "pipe": 1.0}[use]
    rows = [(fat, soft + way * (stiff - soft)) for fat, soft, stiff in _OVERRUN]
    if fat_pct <= rows[0][0]:
        return rows[0][1]
    for (f0, o0), (f1, o1) in pairwise(rows):
        if fat_pct <= f1:
            return o0 + (o1 - o0) * (fat_pct - f0) / (f1 - f0)
    return rows[-1][1]


def topping_g(diameter_mm: float, thickness_mm: float) -> float:
    """Whipped cream for a round pie: V = pi/4 d2 t at 0.50 g/ml (0.45-0.55)."""
    return math.pi / 4 * diameter_mm**2 * thickness_mm / 1000 * TOPPING_G_ML
