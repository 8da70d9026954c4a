"""Sugar and water on a ring: concentration, stages, time, and caramel's colour.

One pan, one temperature: below its boil a syrup warms; at the boil the ring's heat drives water
off and the boil climbs with the concentration; when next to no water is left the sugar itself
heats and colours. Constants are estimates, tuned once to a table of times (docs/science.md).
"""

import math
from dataclasses import KW_ONLY, dataclass, field
from typing import Literal

from bellcrumb.errors import CraftError
from bellcrumb.heat.materials import SOLIDS
from bellcrumb.heat.pot import pot_for
from bellcrumb.laws.air import ROOM_C
from bellcrumb.laws.food import heat_capacity_j_per_gk
from bellcrumb.laws.water import (
    CP_J_PER_GK,
    GAS_J_PER_MOLK,
    boils_c,
    latent_j_per_kg,
    sucrose_boils_c,
    sucrose_pct_at,
)
from bellcrumb.words import say
from bellcrumb.work import checkpoint

SugarStage = Literal[
    "thread", "soft_ball", "firm_ball", "hard_ball", "soft_crack", "hard_crack",
    "pale", "amber", "deep_amber", "dark", "burnt",
]  # fmt: skip
# From which degC at sea level. Source: craft, boundaries differ 1-3 K by book.
STAGES: dict[SugarStage, float] = {
    "thread": 102.0, "soft_ball": 112.0, "firm_ball": 118.0, "hard_ball": 121.0,
    "soft_crack": 132.0, "hard_crack": 146.0, "pale": 160.0, "amber": 170.0,
    "deep_amber": 177.0, "dark": 185.0, "burnt": 200.0,
}  # fmt: skip
SIGNS: dict[SugarStage, str] = {
    "thread": say("stove.runs_off_the_spoon_in_a"),
    "soft_ball": say("stove.a_drop_in_cold_water_rolls"),
    "firm_ball": say("stove.the_ball_holds_its_shape_between"),
    "hard_ball": say("stove.the_ball_is_hard_but_still"),
    "soft_crack": say("stove.threads_bend_before_they_break"),
    "hard_crack": say("stove.threads_break_like_glass"),
    "pale": say("stove.straw_at_the_edge_still_clear"),
    "amber": say("stove.the_colour_of_a_chestnut_held"),
    "deep_amber": say("stove.dark_amber_first_wisps_of_smoke"),
    "dark": say("stove.brown_and_bitter"),
    "burnt": say("stove.black_smoke_let_it_go_cold"),
}
# Where colour is: share of amber (1 = amber). Arrhenius 135 kJ/mol about 170 degC, amber after
# 2 min there. Source: sugar prototype, estimates.
COLOURS: tuple[tuple[float, str], ...] = (
    (0.15, say("stove.clear")),
    (0.6, say("stove.pale")),
    (1.5, say("stove.amber")),
    (2.6, say("stove.deep_amber")),
    (5.0, say("stove.dark")),
)
_COLOUR_J_MOL, _COLOUR_REF_C, _AMBER_S = 135_000.0, 170.0, 120.0
_LOSS_W_K = 0.8  # a pan of 160 mm to a kitchen of 22 degC; fitted to the prototype's times
_PAN_J_GK = SOLIDS["steel"].cp / 1000
SUGAR_J_GK = heat_capacity_j_per_gk({"sugars": 1.0}, 115.0)  # as hot as a syrup is
_DRY_PCT = 99.6  # no more water than this boils off
_FILM_W_M2K = 900.0  # pan to syrup; fitted to a run-on of 3-8 K
_COLOURS = ("pale", "amber", "deep_amber", "dark", "burnt")
SLOW_FROM_C, SLOW_TO_C = 104.0, 115.0
HOT_SUGAR = say("stove.sugar_above_110_c_burns_deeply")


@dataclass
class Pan:
    """The state of a pan of sugar: degC, water and sugar in g, colour (1 = amber), seconds."""

    sugar_g: float
    water_g: float
    temp_c: float
    _: KW_ONLY
    diameter_mm: float
    pan_g: float
    altitude_m: float = 0.0
    colour: float = 0.0
    t_s: float = 0.0

    @property
    def solids_pct(self) -> float:
        """Sugar in % of the syrup."""
        return 100 * self.sugar_g / (self.sugar_g + self.water_g)

    @property
    def point(self) -> "SyrupPoint":
        """Where it stands on its curve."""
        return SyrupPoint(self.t_s, self.temp_c, self.solids_pct, colour=self.colour)

    @property
    def boil_c(self) -> float:
        """Where this syrup boils."""
        return sucrose_boils_c(self.solids_pct, self.altitude_m)

    @property
    def base_m2(self) -> float:
        """The base of the pan."""
        return math.pi * (self.diameter_mm / 2000) ** 2

    @property
    def heat_j_k(self) -> float:
        """Heat held by pan and syrup per kelvin."""
        return self.pan_g * _PAN_J_GK + self.sugar_g * SUGAR_J_GK + self.water_g * CP_J_PER_GK

    def run_on_k(self, power_w: float) -> float:
        """How far the syrup runs on when the heat is cut: the base is hotter than what is in it."""
        excess = power_w / (_FILM_W_M2K * self.base_m2)
        base = 0.4 * self.pan_g * _PAN_J_GK
        return excess * base / (base + self.sugar_g * SUGAR_J_GK + self.water_g * CP_J_PER_GK)

    def step(self, power_w: float, dt_s: float, room_c: float = ROOM_C) -> None:
        """Move on ``dt_s`` with ``power_w`` reaching the pan; energy in = warmth + steam + loss."""
        loss = _LOSS_W_K * (self.diameter_mm / 160) ** 2 * (self.temp_c - room_c)
        joules = (power_w - loss) * dt_s
        latent = latent_j_per_kg(min(self.temp_c, 140.0)) / 1000
        if self.solids_pct >= _DRY_PCT or self.temp_c < self.boil_c - 0.02 or joules < 0:
            after = self.temp_c + joules / self.heat_j_k
            if self.solids_pct < _DRY_PCT and after > self.boil_c and joules > 0:
                rest = (after - self.boil_c) * self.heat_j_k
                self.temp_c = self.boil_c
                self._boil(rest, latent)
            else:
                self.temp_c = after
        else:
            self._boil(joules, latent)
        kelvin = self.temp_c + 273.15
        rate = math.exp(
            -_COLOUR_J_MOL / GAS_J_PER_MOLK * (1 / kelvin - 1 / (_COLOUR_REF_C + 273.15))
        )
        if self.temp_c > 130:
            self.colour += rate * dt_s / _AMBER_S
        self.t_s += dt_s

    def _boil(self, joules: float, latent: float) -> None:
        """Spend heat on steam and on the climb of the boil together, a little at a time."""
        for _ in range(4):
            rise = (
                sucrose_boils_c(
                    100 * self.sugar_g / (self.sugar_g + max(1e-9, self.water_g - 0.05)),
                    self.altitude_m,
                )
                - self.boil_c
            )
            per_g = latent + self.heat_j_k * max(0.0, rise) / 0.05
            least = self.sugar_g * (100 / _DRY_PCT - 1)
            gone = min(joules / 4 / per_g, max(0.0, self.water_g - least))
            self.water_g -= gone
            left = joules / 4 - gone * per_g
            self.temp_c = self.boil_c if self.solids_pct < _DRY_PCT else self.temp_c
            if left > 1e-9:
                self.temp_c += left / self.heat_j_k


def stage_of(temp_c: float, altitude_m: float = 0.0) -> SugarStage | None:
    """The stage a temperature stands for at an altitude; None below thread."""
    shift = 100.0 - boils_c(altitude_m)
    found: SugarStage | None = None
    for stage, from_c in STAGES.items():
        # Above the crack stages it is the sugar itself that counts, not its boil.
        low = from_c - (shift if from_c < 150 else 0.0)
        if temp_c >= low - 1e-9:
            found = stage
    return found


def colour_word(colour: float) -> str:
    """What a colour is called."""
    return next((word for limit, word in COLOURS if colour < limit), "burnt")


@dataclass(frozen=True)
class SyrupPoint:
    """A point of a syrup's curve; ``colour`` 1 is amber."""

    t_s: float
    temp_c: float
    solids_pct: float
    _: KW_ONLY
    colour: float


@dataclass(frozen=True)
class StageMark:
    """When a stage begins, and its sign."""

    stage: SugarStage
    t_s: float
    sign: str


@dataclass(frozen=True)
class SyrupRun:
    """A syrup cooked to a target: its curve, when each stage is reached, and what it is at the
    target. ``time_s`` None: this ring does not get there."""

    target_c: float
    stage: SugarStage | None
    time_s: float | None
    _: KW_ONLY
    water_left_g: float
    solids_pct: float
    colour: float
    run_on_k: float
    pull_c: float
    curve: list[SyrupPoint]
    marks: list[StageMark]
    boils_from_c: float
    slow_104_to_115_s: float | None
    warnings: list[str] = field(default_factory=list)


def cook_syrup(
    sugar_g: float,
    water_g: float,
    target_c: float,
    power_w: float,
    altitude_m: float = 0.0,
    from_c: float = 20.0,
    longest_s: float = 7200.0,
    dt_s: float = 1.0,
) -> SyrupRun:
    """Cook sugar and water to ``target_c`` with ``power_w`` reaching the pan.

    ``water_g`` 0 is dry caramel. Raises CraftError for a target no syrup has.
    """
    if not from_c < target_c <= 230:
        raise CraftError("target_c", say("stove.more_than_c_and_at_most", from_c=from_c))
    pot = pot_for(sugar_g / 1.59 + water_g)
    pan = Pan(
        sugar_g,
        water_g,
        from_c,
        diameter_mm=pot.diameter_mm,
        pan_g=pot.mass_g,
        altitude_m=altitude_m,
    )
    if water_g <= 0:
        pan.water_g = sugar_g * (100 / _DRY_PCT - 1)
    starts = pan.boil_c
    curve = [pan.point]
    marks: list[StageMark] = []
    slow: dict[float, float] = {}
    while pan.temp_c < target_c - 1e-6 and pan.t_s < longest_s:
        checkpoint()
        pan.step(power_w, dt_s)
        curve.append(pan.point)
        now = stage_of(pan.temp_c, altitude_m)
        if now and (not marks or marks[-1].stage != now):
            marks.append(StageMark(now, pan.t_s, SIGNS[now]))
        for edge in (SLOW_FROM_C, SLOW_TO_C):
            if edge not in slow and pan.temp_c >= edge:
                slow[edge] = pan.t_s
    if water_g <= 0:  # melting sugar is no syrup: it has colours, but no ball and no slow stretch
        marks = [mark for mark in marks if mark.stage in _COLOURS]
        slow = {}
    there = pan.temp_c >= target_c - 1e-6
    run_on = pan.run_on_k(power_w)
    left = pan.water_g if there else min(pan.water_g, _water_at(sugar_g, target_c, altitude_m))
    return SyrupRun(
        target_c=target_c,
        stage=stage_of(target_c, altitude_m),
        time_s=pan.t_s if there else None,
        water_left_g=left,
        solids_pct=100 * sugar_g / (sugar_g + left),
        colour=pan.colour,
        run_on_k=run_on,
        pull_c=target_c - run_on,
        curve=curve,
        marks=marks,
        boils_from_c=starts,
        slow_104_to_115_s=slow[SLOW_TO_C] - slow[SLOW_FROM_C] if len(slow) == 2 else None,
        warnings=_warnings(target_c, water_g, sugar_g, there, power_w, altitude_m, run_on),
    )


def _water_at(sugar_g: float, temp_c: float, altitude_m: float) -> float:
    """Water in a syrup that boils at ``temp_c``."""
    pct = sucrose_pct_at(temp_c, altitude_m)
    return sugar_g * (100 / pct - 1)


def stopped_in_water(run_on_k: float, pull_c: float) -> str:
    """What a sugar that runs on wants, unless something else stops it."""
    return say("stove.it_runs_on_by_about_k", run_on_k=run_on_k, target_c=pull_c)


def _warnings(
    target_c: float, water_g: float, sugar_g: float, there: bool, power_w: float,
    altitude_m: float, run_on_k: float,
) -> list[str]:  # fmt: skip
    said: list[str] = []
    if not there:
        said.append(say("stove.on_this_ring_it_stalls_w", power_w=power_w))
    if target_c >= 110:
        said.append(HOT_SUGAR)
    if target_c >= 160:
        said.append(stopped_in_water(run_on_k, target_c - run_on_k))
    if target_c >= 185:
        said.append(say("stove.past_185_c_it_is_bitter"))
    if 0 < water_g < 0.2 * sugar_g:
        said.append(say("stove.little_water_it_may_not_dissolve"))
    if altitude_m >= 300:
        drop = 100 - boils_c(altitude_m)
        said.append(say("stove.at_this_height_every_syrup_stage", drop=drop))
    return said


def seconds_in_cold_water(pan: Pan, to_c: float = 150.0, water_c: float = 15.0) -> float:
    """How long the base stands in cold water until colouring stops (150 degC)."""
    if pan.temp_c <= to_c:
        return 0.0
    tau = pan.heat_j_k / (400.0 * pan.base_m2)
    return tau * math.log((pan.temp_c - water_c) / (to_c - water_c))


def pour_window_s(pan: Pan, stiff_c: float = 140.0, room_c: float = ROOM_C) -> float:
    """How long caramel stays thin enough to pour in its pan, off the heat."""
    if pan.temp_c <= stiff_c:
        return 0.0
    tau = pan.heat_j_k / (_LOSS_W_K * (pan.diameter_mm / 160) ** 2)
    return tau * math.log((pan.temp_c - room_c) / (stiff_c - room_c))


CARAMEL_G_ML = 1.45
CARAMEL_YIELD = 0.96  # grams of amber from a gram of sugar; craft, medium


def lining_g(area_mm2: float, thickness_mm: float) -> float:
    """Caramel that lines an area: area times thickness times 1.45 g/ml."""
    return CARAMEL_G_ML * area_mm2 * thickness_mm / 1000
