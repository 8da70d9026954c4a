"""Italian, Swiss and French meringue: ratios, temperatures reached, water left, what it does."""

from dataclasses import KW_ONLY, dataclass
from typing import Literal

from bellcrumb.errors import CraftError
from bellcrumb.laws.safety import HOUSE_LINE_C
from bellcrumb.laws.water import CP_J_PER_GK
from bellcrumb.safety.pasteurise import LAWS
from bellcrumb.stove.syrup import HOT_SUGAR, SUGAR_J_GK, SyrupRun, cook_syrup
from bellcrumb.stove.usual import SWISS_C, SYRUP_C, SYRUP_WATER, WHITES_C
from bellcrumb.words import say

MeringueKind = Literal["italian", "swiss", "french"]
# Sugar for one part of white: usual range. Source: meringue reference (italian and swiss high).
RATIOS: dict[MeringueKind, tuple[float, float]] = {
    "italian": (1.5, 2.2), "swiss": (1.5, 2.0), "french": (1.0, 2.0),
}  # fmt: skip
_WHITE_WATER, _WHITE_CP = 0.876, 3.91
# Millilitres of foam per gram of meringue, ready to fold. Source: foam table, assumed (low).
FOAM_ML_G: dict[MeringueKind, float] = {"italian": 2.9, "swiss": 2.6, "french": 3.4}
SOFT_BALL_C = (115.0, 121.0)
_WEEPS_AT = 0.10  # more water than a 118 degC syrup leaves, as a share, that shows


@dataclass(frozen=True)
class Meringue:
    """What comes of it. Times in s, ``start_whites_c`` the syrup temperature at which to start."""

    kind: MeringueKind
    ratio: float
    whip_s: float
    _: KW_ONLY
    start_whites_c: float | None
    start_whites_s: float | None
    syrup_time_s: float | None
    water_pct: float
    extra_water_pct: float
    foam_c: float
    pasteurised: Literal["yes", "hold", "no"]
    volume_ml: float
    mass_g: float
    weeps: Literal["low", "middling", "high"]
    signs: list[str]
    warnings: list[str]


@dataclass(frozen=True)
class ItalianMeringue(Meringue):
    """One with the syrup that is poured into it."""

    _: KW_ONLY
    syrup: SyrupRun


def whip_s(whites_g: float) -> float:
    """Seconds to soft peaks in a planetary mixer: about 3 min for 100 g, a minute more for every
    200 g (craft, low confidence)."""
    return 180.0 + 60.0 * max(0.0, whites_g - 100) / 200


def meringue(
    kind: MeringueKind,
    whites_g: float,
    sugar_g: float,
    *,
    water_g: float | None = None,
    syrup_c: float = SYRUP_C,
    power_w: float = 359.0,
    swiss_c: float = SWISS_C,
    whites_c: float = WHITES_C,
    altitude_m: float = 0.0,
    acid: bool = False,
) -> Meringue:
    """Judge a meringue. ``water_g`` defaults to 0.3 of the sugar for the syrup of an Italian one.

    Raises CraftError for amounts or temperatures that make none.
    """
    if whites_g <= 0 or sugar_g <= 0:
        raise CraftError("whites_g", say("stove.a_meringue_needs_whites_and_sugar"))
    ratio = sugar_g / whites_g
    warnings: list[str] = []
    syrup = None
    start_c = start_s = None
    left = 0.0
    seconds = whip_s(whites_g)
    if kind == "italian":
        if not 100 < syrup_c <= 130:
            raise CraftError("syrup_c", say("stove.the_syrup_is_poured_between_101"))
        water = SYRUP_WATER * sugar_g if water_g is None else water_g
        if water <= 0:
            raise CraftError("water_g", say("stove.the_syrup_needs_water_about_a"))
        syrup = cook_syrup(sugar_g, water, syrup_c, power_w, altitude_m)
        left = syrup.water_left_g
        if syrup.time_s is not None:
            start_s = max(0.0, syrup.time_s - seconds)
            start_c = next(p.temp_c for p in syrup.curve if p.t_s >= start_s)
        hot = sugar_g * SUGAR_J_GK + left * CP_J_PER_GK
        cold = whites_g * _WHITE_CP
        # A fifth of the heat goes into bowl, whisk and steam (craft: the bowl is hot to the hand).
        foam_c = whites_c + 0.8 * (hot * (syrup_c - whites_c)) / (hot + cold)
        if syrup_c < SOFT_BALL_C[0]:
            warnings.append(say("stove.at_c_the_syrup_still_holds", syrup_c=syrup_c, left=left))
        warnings += [HOT_SUGAR] + [w for w in syrup.warnings if w != HOT_SUGAR]
    elif kind == "swiss":
        if not 40 <= swiss_c <= 85:
            raise CraftError("swiss_c", say("stove.whites_and_sugar_are_warmed_to"))
        foam_c = swiss_c
        seconds = 480.0
        if swiss_c < HOUSE_LINE_C:
            warnings.append(say("stove.take_it_to_c_or_more", house_line_c=HOUSE_LINE_C))
        if swiss_c > 77:
            warnings.append(say("stove.past_77_c_the_white_sets"))
    else:
        foam_c = whites_c
        warnings.append(say("stove.raw_white_pasteurised_whites_or_bake"))
    low = RATIOS[kind][0]
    warnings += _ratio_words(kind, ratio)
    total = whites_g + sugar_g + left
    water_all = whites_g * _WHITE_WATER + left
    proper = whites_g * _WHITE_WATER + (sugar_g * (100 / 85.5 - 1) if kind == "italian" else 0.0)
    extra = water_all / proper - 1
    weeps: Literal["low", "middling", "high"] = "low"
    if kind == "french" or extra > _WEEPS_AT or ratio < low:
        weeps = "high" if extra > 0.2 or ratio < 0.8 * low else "middling"
    if not acid:
        warnings.append(say("stove.a_few_drops_of_acid_or"))
    found = Meringue(
        kind, ratio, seconds, start_whites_c=start_c, start_whites_s=start_s,
        syrup_time_s=syrup.time_s if syrup else None,
        water_pct=100 * water_all / total, extra_water_pct=100 * extra, foam_c=foam_c,
        pasteurised=_safe(kind, foam_c), volume_ml=total * FOAM_ML_G[kind],
        mass_g=total, weeps=weeps, signs=_signs(kind), warnings=warnings,
    )  # fmt: skip
    return ItalianMeringue(**vars(found), syrup=syrup) if syrup else found


def _ratio_words(kind: MeringueKind, ratio: float) -> list[str]:
    low, high = RATIOS[kind]
    if ratio < low:
        return [say("stove.of_sugar_to_one_of_white", ratio=ratio, low=low, high=high)]
    if ratio > high:
        return [say("stove.of_sugar_to_one_of_white_2", ratio=ratio, low=low, high=high)]
    return []


def _safe(kind: MeringueKind, foam_c: float) -> Literal["yes", "hold", "no"]:
    """Whether the white has been made safe: at the house line, or warm enough to be if held."""
    if foam_c >= HOUSE_LINE_C and kind == "swiss":
        return "yes"
    return "hold" if foam_c >= LAWS["white"].temp_c else "no"


def _signs(kind: MeringueKind) -> list[str]:
    if kind == "italian":
        return [
            say("stove.whites_at_soft_peaks_when_the"),
            say("stove.syrup_in_a_thin_stream_between"),
            say("stove.whip_until_the_bowl_is_only"),
        ]
    if kind == "swiss":
        return [
            say("stove.whisk_without_stopping_over_simmering_water"),
            say("stove.then_about_eight_minutes_at_speed"),
        ]
    return [
        say("stove.sugar_in_by_the_spoon_from"),
        say("stove.stiff_glossy_no_grain_between_fingers"),
    ]
