"""Crusts: blind baking by its schools, and how long a filled one stays crisp."""

import itertools
import math
from dataclasses import KW_ONLY, dataclass
from typing import Literal

import numpy as np

from bellcrumb.errors import CraftError
from bellcrumb.laws.water import GAS_J_PER_MOLK
from bellcrumb.words import say

CrustSchool = Literal[
    "weights", "frozen", "hot_start", "crumb", "choux", "puff", "sponge", "frangipane"
]
# The way a dough is baked that leaves no choice of school.
OWN_SCHOOL: dict[str, CrustSchool] = {
    "crumb": "crumb", "choux": "choux", "puff": "puff", "sponge": "sponge",
    "frangipane": "frangipane",
}  # fmt: skip
Goes = Literal["baked_in", "cold_filling", "hot_filling"]
Barrier = Literal["none", "egg_wash", "butter", "chocolate"]


@dataclass(frozen=True)
class BlindStage:
    """A stage of a blind bake: minutes from and to, the oven, what to do and the sign."""

    title: str
    oven_c: float
    from_min: float
    _: KW_ONLY
    to_min: float
    sign: str


# Minutes at the usual thickness (``usual_mm``) in a tin at the temperature beside them. Source:
# craft practice; confidence high for the order, medium for the minutes.
_STAGES: dict[CrustSchool, tuple[tuple[str, float, float, float, str], ...]] = {
    "weights": (
        (say("oven.paper_or_foil_in_filled_to"), 195, 15, 20, say("oven.the_rim_is_set_and_dry")),
        (
            say("oven.weights_out_heat_down"),
            175,
            10,
            15,
            say("oven.brown_right_across_the_bottom_no"),
        ),
    ),
    "frozen": (
        (
            say("oven.docked_and_frozen_hard_straight_in"),
            190,
            12,
            15,
            say("oven.set_and_matt_a_blister_prick"),
        ),
        (say("oven.heat_down"), 175, 10, 14, say("oven.brown_right_across_the_bottom")),
    ),
    "hot_start": (
        (
            say("oven.hot_first_on_the_floor_or"),
            220,
            8,
            10,
            say("oven.the_rim_stands_and_does_not"),
        ),
        (say("oven.weights_out_heat_down"), 170, 12, 16, say("oven.brown_right_across_the_bottom")),
    ),
    "crumb": (
        (
            say("oven.crumbs_pressed_hard_with_a_flat"),
            170,
            8,
            10,
            say("oven.smells_of_toast_firm_when_cold"),
        ),
    ),
    "choux": (
        (
            say("oven.piped_with_room_between_the_door"),
            180,
            25,
            32,
            say("oven.high_brown_in_the_cracks_too"),
        ),
        (
            say("oven.a_hole_in_each_oven_off"),
            90,
            15,
            30,
            say("oven.light_dry_walls_hollow_inside"),
        ),
    ),
    "puff": (
        (say("oven.docked_on_paper_free"), 190, 8, 12, say("oven.risen_and_pale_a_third_of")),
        (say("oven.a_tray_on_top"), 180, 12, 18, say("oven.flat_straw_all_through")),
        (say("oven.uncovered"), 170, 8, 16, say("oven.brown_to_the_middle_layer")),
    ),
    "sponge": (
        (say("oven.spread_even_on_paper"), 200, 8, 14, say("oven.it_springs_back_the_edge_just")),
    ),
    "frangipane": (
        (say("oven.spread_in_its_shell"), 170, 28, 45, say("oven.brown_firm_in_the_middle_under")),
    ),
}
_FINISH: dict[Goes, tuple[float, str]] = {
    "baked_in": (
        0.7,
        say("oven.it_bakes_again_with_its_filling"),
    ),
    "cold_filling": (1.0, say("oven.it_is_baked_through_now_golden")),
    "hot_filling": (1.1, say("oven.a_hot_filling_soaks_it_a")),
}
_BAKED_THROUGH = say("oven.it_is_baked_through_by_itself")
_DOUGH_MM = 3.0
# How thick what is no rolled dough usually lies, mm; the stages are written for it. Source: craft.
_USUAL_MM: dict[CrustSchool, float] = {"crumb": 6.0, "sponge": 8.0, "frangipane": 15.0}
THICK_MM = (1.0, 30.0)
COOL_TO_C = 25.0
_RATE_K = 35.0  # a stage takes half as long this much hotter; estimate


@dataclass(frozen=True)
class BlindBake:
    """The stages at this oven and dough, how far to bake, and how long to cool before filling."""

    stages: list[BlindStage]
    how_far: str
    cool_min: float
    _: KW_ONLY
    shield: str


def usual_mm(school: CrustSchool) -> float:
    """How thick the dough of a school usually lies, mm."""
    return _USUAL_MM.get(school, _DOUGH_MM)


def blind_bake(
    school: CrustSchool,
    goes: Goes,
    dough_mm: float | None,
    offset_k: float,
    fan: bool,
    width_mm: float,
) -> BlindBake:
    """The stages of a school for what goes in. ``offset_k`` is the oven above its dial;
    ``dough_mm`` None takes the usual thickness, and choux, which is piped, has none.

    Raises CraftError for a dough thinner than 1 or thicker than 30 mm.
    """
    usual = usual_mm(school)
    mm = usual if dough_mm is None or school == "choux" else dough_mm
    low_mm, high_mm = THICK_MM
    if not low_mm <= mm <= high_mm:
        raise CraftError(
            "dough_mm", say("oven.a_dough_lies_to_mm_thick", low_mm=low_mm, high_mm=high_mm)
        )
    share, how_far = _FINISH[goes]
    if school in ("choux", "puff", "sponge", "frangipane"):
        share, how_far = 1.0, _BAKED_THROUGH
    stages = []
    for n, (title, oven_c, low, high, sign) in enumerate(_STAGES[school]):
        dial = oven_c - (20 if fan else 0)
        # Thicker dough takes longer as its water has further to go; the last stage is what is cut.
        times = (mm / usual) ** 0.8 * 2 ** (-offset_k / _RATE_K)
        last = n == len(_STAGES[school]) - 1
        times *= share if last else 1.0
        stages.append(BlindStage(title, dial, low * times, to_min=high * times, sign=sign))
    # A shell of pastry on a rack loses half of what it is above the room in about 6 min for 3 mm.
    hot = stages[-1].oven_c * 0.6
    half_min = 6.0 * mm / _DOUGH_MM
    cool_min = half_min * math.log2(max(2.0, (hot - 22) / (COOL_TO_C - 22)))
    shell = school in ("weights", "frozen", "hot_start")
    rim = say("oven.shield_the_rim_with_foil_from") if width_mm >= 180 and shell else ""
    return BlindBake(stages, how_far, cool_min, shield=rim)


@dataclass(frozen=True)
class Soggy:
    """Hours a crust stays crisp and until it is soft, each from low to high."""

    crisp_h: tuple[float, float]
    soft_h: tuple[float, float]
    says: str


# Water into a crust of which the far face is sealed by the tin: starts at 4 %, saturates at 22 %,
# is crisp to 8 % and soft at 12 %. Diffusivity 3e-11 to 3e-10 m2/s at 5 degC. Source: section k of
# the reference; only the order of the barriers is sure, the hours within three times.
START, FULL, CRISP, SOFT = 0.04, 0.22, 0.08, 0.12
DIFFUSIVITY = (3e-10, 1e-10, 3e-11)
BARRIER_M_S: dict[Barrier, float] = {
    "none": math.inf, "egg_wash": 1e-7, "butter": 5e-9, "chocolate": 6e-10,
}  # fmt: skip
WETNESS = {"wet": 1.0, "set": 0.75, "dry": 0.5}  # poured, spooned cold, a nut paste or jam
_ACTIVATION_J = 40_000.0
LONGEST_H = 96.0


def soggy_clock(
    barrier: Barrier,
    wetness: str,
    filled_at_c: float,
    crust_mm: float = 3.0,
    kept_at_c: float = 5.0,
) -> Soggy:
    """How long a filled crust stays crisp: one-dimensional diffusion from the filling's face.

    A filling put in warm counts as the hours its warmth is worth (it cools with half an hour's
    half-life). Raises CraftError for an unknown wetness.
    """
    if wetness not in WETNESS:
        raise CraftError("wetness", say("oven.one_of", wetness=", ".join(WETNESS)))
    ahead = _head_start_h(filled_at_c, kept_at_c)
    crisp, soft = [], []
    for d in DIFFUSIVITY:
        hours = _hours(d * _faster(kept_at_c), BARRIER_M_S[barrier], WETNESS[wetness], crust_mm)
        crisp.append(max(0.0, hours[0] - ahead))
        soft.append(max(0.0, hours[1] - ahead))
    words = {
        "none": say("oven.bare"),
        "egg_wash": say("oven.sealed_with_egg"),
        "butter": say("oven.brushed_with_butter"),
        "chocolate": say("oven.under_a_coat_of_chocolate"),
    }[barrier]
    if crisp[2] < 0.5:
        said = say("oven.it_is_soft_at_once", words=words.capitalize())
    elif crisp[0] >= 40:
        said = say("oven.it_stays_crisp_for_days", words=words.capitalize())
    else:
        longest = (
            say("oven.more_than_four_days") if crisp[2] >= LONGEST_H else say("oven.h", h=crisp[2])
        )
        said = say(
            "oven.it_stays_crisp_for_to", words=words.capitalize(), crisp=crisp[0], longest=longest
        )
    if ahead > 0.5:
        lost = "oven.its_warmth_is_worth" if crisp[2] < 0.5 else "oven.filled_at_c_it_has_lost"
        said += say(lost, filled_at_c=filled_at_c, ahead=ahead)
    return Soggy((crisp[0], crisp[2]), (soft[0], soft[2]), said + ".")


def _faster(temp_c: float) -> float:
    """How much faster water moves than at 5 degC (40 kJ/mol; assumed)."""
    return math.exp(_ACTIVATION_J / GAS_J_PER_MOLK * (1 / 278.15 - 1 / (273.15 + temp_c)))


def _head_start_h(filled_at_c: float, kept_at_c: float) -> float:
    if filled_at_c <= kept_at_c:
        return 0.0
    worth, step_h = 0.0, 0.05
    base = _faster(kept_at_c)
    for n in itertools.count():
        temp = kept_at_c + (filled_at_c - kept_at_c) * 0.5 ** (n * step_h / 0.5)
        if temp - kept_at_c < 0.5:
            return worth
        worth += (_faster(temp) / base - 1) * step_h
    return worth


def _hours(d: float, film: float, wet: float, crust_mm: float) -> tuple[float, float]:
    """Hours until the mean is past crisp and soft, by the series-free explicit scheme in numpy."""
    cells = 24
    dx = crust_mm / 1000 / cells
    step = 0.4 * dx * dx / d
    w = np.full(cells, START)
    face = START + (FULL - START) * wet
    enter = 1 / (dx / (2 * d) + (0.0 if math.isinf(film) else 1 / film))
    t, crisp = 0.0, None
    longest = LONGEST_H * 3600
    while t < longest:
        flow = np.empty(cells + 1)
        flow[0], flow[-1] = enter * (face - w[0]), 0.0
        flow[1:-1] = d * (w[:-1] - w[1:]) / dx
        w = w + step * (flow[:-1] - flow[1:]) / dx
        t += step
        mean = float(w.mean())
        if crisp is None and mean >= CRISP:
            crisp = t
        if mean >= SOFT:
            return (crisp or t) / 3600, t / 3600
    return (crisp or longest) / 3600, LONGEST_H
