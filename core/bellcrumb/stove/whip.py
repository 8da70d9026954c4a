"""Whipped cream: whether it whips, how far, how long it stands, and how much a pie takes."""

import math
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from bellcrumb.errors import CraftError
from bellcrumb.laws.air import whipped_stands_h
from bellcrumb.mix.composition import Mix

Use = Literal["fold", "top", "pipe"]
# fat % -> overrun % at soft, and at stiff. Source: cream table (medium); between lines straight.
_OVERRUN = ((30.0, 110.0, 130.0), (35.5, 90.0, 110.0), (40.0, 75.0, 90.0), (48.0, 50.0, 70.0))
LEAST_FAT, PIPE_FAT = 30.0, 35.0
WARMEST_C = 11.0
_COLD_C = 4.0
TOPPING_G_ML = 0.50
PEAKS: dict[Use, str] = {
    "fold": "soft: the trail of the whisk just stays",
    "top": "firm: a peak that bends over",
    "pipe": "stiff: a peak that stands, still shining",
}


@dataclass(frozen=True)
class Whipped:
    """What comes of a cream. ``stands_h`` is how long it keeps its shape in this room,
    ``stands_cold_h`` in the refrigerator."""

    fat_pct: float
    whips: bool
    overrun_pct: float
    volume_ml: float
    mass_g: float
    peak: str
    time_s: float
    stands_h: float
    stands_cold_h: float
    warnings: list[str]


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
        raise CraftError("cream_g", "There is no cream to whip.")
    if not 0 <= fat_pct <= 60:
        raise CraftError("fat_pct", "Cream has between 0 and 60 % of fat.")
    mass = cream_g + icing_sugar_g + sugar_g
    warnings: list[str] = []
    whips = True
    if fat_pct < LEAST_FAT:
        whips = stabiliser_pct > 0 and fat_pct >= 28
        warnings.append(
            f"{fat_pct:.0f} % of fat does not whip: take cream of {LEAST_FAT:.0f} % or more"
            + (", the stabiliser carries it just." if whips else ".")
        )
    elif use == "pipe" and fat_pct < PIPE_FAT:
        warnings.append(f"Under {PIPE_FAT:.0f} % it whips but does not hold a piped edge.")
    if cream_c > WARMEST_C:
        whips = False
        warnings.append(
            f"At {cream_c:.0f} °C the fat is too soft to catch air: cream and bowl to 2-6 °C first."
        )
    elif cream_c > 7:
        warnings.append("Colder is surer: 2 to 6 °C, bowl and whisk too.")
    if room_c > 26:
        warnings.append("In this heat it will not stand: whip at the last moment, serve at once.")
    if fat_pct >= 45:
        warnings.append("So rich a cream turns to butter within seconds: stop early, by hand.")
    share = (icing_sugar_g + sugar_g) / cream_g
    if share > 0.15:
        warnings.append("More than 15 % of sugar weighs it down.")
    if sugar_g > 0 and icing_sugar_g == 0:
        warnings.append("Icing sugar brings a little starch and dissolves at once; add it late.")
    overrun = _overrun(fat_pct, use) * (1 - 0.4 * min(0.5, share)) if whips else 0.0
    litres = mass / 1.01 * (1 + overrun / 100)
    held = _stabilised(stabiliser_pct) * (1.1 if icing_sugar_g else 1.0)
    stands, cold = (
        whipped_stands_h(fat_pct, temp_c, 100 * share, held) for temp_c in (room_c, _COLD_C)
    )
    return Whipped(
        fat_pct, whips, overrun, litres, mass, PEAKS[use],
        (60 + 0.24 * cream_g) * {"fold": 0.7, "top": 0.9, "pipe": 1.0}[use],
        stands if whips else 0.0, cold if whips else 0.0, warnings,
    )  # fmt: skip


def _stabilised(pct: float) -> float:
    """How many times longer it stands: gelatine from 0.6 %, mascarpone or another cheese at 20 %.
    Our estimate after practice."""
    if pct <= 2:
        return 1 + 2 * min(1.0, pct / 0.6)
    return 1 + min(1.5, pct / 20)


def whip_of(mix: Mix, use: Use = "top") -> Whipped:
    """``whip`` of a mix. Raises CraftError where there is no cream in it."""
    cream = mix.grams_of("cream") + mix.grams_of_key("mascarpone")
    fat = 100 * mix.parts_g["fat"] / max(cream, 1.0)
    icing = mix.grams_of_key("sugar_icing")
    setters = mix.grams_of("setter") or mix.grams_of_key("mascarpone")
    return whip(
        cream, min(60.0, fat), use, icing_sugar_g=icing, sugar_g=mix.added_sugar_g - icing,
        stabiliser_pct=min(30.0, 100 * setters / max(cream, 1.0)),
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
