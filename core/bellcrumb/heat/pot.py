"""A pot on a ring: three nodes (element, wall, cream) stepped with backward Euler.

An explicit step blows up on induction, where the wall is light and the power large. Constants are
the prototype's (docs/science.md) and tuned once to its table of times; every one is an estimate
until the kitchen's own rings are learned.
"""

import math
from dataclasses import KW_ONLY, dataclass
from typing import Literal

from bellcrumb.errors import CraftError
from bellcrumb.heat.materials import SOLIDS
from bellcrumb.laws.air import KG_PER_J_K, ROOM_C
from bellcrumb.laws.water import STANDARD_PA, latent_j_per_kg, saturation_pa
from bellcrumb.mix.composition import Mix
from bellcrumb.words import say
from bellcrumb.work import checkpoint

Fuel = Literal["gas", "induction", "ceramic"]
Stirring = Literal["whisk", "spatula", "none"]
Scorch = Literal["low", "middling", "high"]

# Share of the rating that reaches the pot, heat held by the element (J/K), its coupling to the
# wall (W/K), share of the power that passes through it. Source: pot prototype, estimates.
_FUELS: dict[Fuel, tuple[float, float, float, float]] = {
    "gas": (0.42, 180.0, 6.0, 0.25),
    "induction": (0.85, 350.0, 5.0, 0.0),
    "ceramic": (0.70, 900.0, 18.0, 1.0),
}
# Wall-to-cream film, W/m2K, thin mix. Our estimate from practice: a stirred litre of milk on a
# medium ring does not catch (wall 20 to 30 K above it at 600 W), one left alone does.
_FILM = {"whisk": 1100.0, "spatula": 800.0, "none": 260.0}
_THICK_FILM = 0.6  # share of the film left once the cream has thickened
_EVAPORATION = 0.38  # share of free-water evaporation; fitted to the prototype's times to boil
_STEEL_J_PER_GK = SOLIDS["steel"].cp / 1000
# The surface to the kitchen: convection alone for the vapour, with radiation for the heat (W/m2K),
# and the vapour already in the kitchen's air. Handbook ranges.
_SURFACE_H, _DRY_H, _ROOM_PA = 6.0, 11.0, 1_300.0
_LID = 0.15  # what still leaves under a lid; estimate
# What cooks call low, medium and high, as shares of the rating. Our estimate: a litre of milk from
# the refrigerator boils on "medium" in 8 to 14 minutes.
SETTINGS = {"low": 0.3, "medium": 0.8, "high": 1.0}


@dataclass(frozen=True)
class Ring:
    """A ring by its fuel and rating in watts, and what a pot on it loses beyond an ordinary one
    (W/m2K of its base, from cream to room): a draught, a wide flame, a hood that draws."""

    name: str
    fuel: Fuel
    rated_w: float
    _: KW_ONLY
    loss_w_m2k: float = 0.0

    def reaches_pot_w(self, setting: float) -> float:
        """Watts that reach the pot at a setting 0-1."""
        return self.rated_w * setting * _FUELS[self.fuel][0]


MEDIUM_GAS = Ring(say("heat.medium_gas_ring"), "gas", 1900.0)


@dataclass(frozen=True)
class Pot:
    """A pot by diameter (mm) and empty mass (g)."""

    diameter_mm: float
    mass_g: float

    @property
    def base_m2(self) -> float:
        """Area of the base."""
        radius_m = self.diameter_mm / 2000
        return math.pi * radius_m * radius_m


def pot_for(volume_ml: float) -> Pot:
    """The pot a cook takes for this much cream: about two to three times its volume."""
    for limit, diameter, mass in (
        (700, 160, 850),
        (1800, 180, 1100),
        (3500, 200, 1500),
        (6000, 240, 2200),
        (12000, 280, 3200),
    ):
        if volume_ml <= limit:
            return Pot(diameter, mass)
    return Pot(360, 5200)


def pot_name(volume_ml: float) -> str:
    """What a cook calls the pot for this much cream."""
    return say("heat.pot_of_cm", diameter_mm=pot_for(volume_ml).diameter_mm / 10)


NEVER_C = 200.0  # above any boil: where a cream thickens that does not


@dataclass(frozen=True)
class Cream:
    """What the pot model needs of a mix: mass (g), J/(g K), its boil and where it thickens."""

    mass_g: float
    cp_j_per_gk: float
    boil_c: float
    _: KW_ONLY
    thickens_c: float

    @classmethod
    def of(cls, mix: Mix, thickens_c: float | None, altitude_m: float = 0.0) -> "Cream":
        """The thermal view of a mix; ``thickens_c`` None: it never does. Raises CraftError for an
        empty one."""
        if mix.mass_g <= 0:
            raise CraftError("lines", say("heat.nothing_in_the_pot_there_is"))
        thickens = NEVER_C if thickens_c is None else thickens_c
        boil_c = mix.boils_c(altitude_m)
        return cls(mix.mass_g, mix.heat_capacity_j_per_gk, boil_c, thickens_c=thickens)


@dataclass(frozen=True)
class PotState:
    """Temperatures (degC) of element, wall and cream, the cream's mass (g) and if it thickened."""

    element_c: float
    wall_c: float
    cream_c: float
    _: KW_ONLY
    mass_g: float
    thickened: bool = False


def start(cream: Cream, temp_c: float) -> PotState:
    """A pot with cream, all at one temperature."""
    return PotState(temp_c, temp_c, temp_c, mass_g=cream.mass_g)


def step(
    state: PotState,
    cream: Cream,
    pot: Pot,
    fuel: Fuel,
    power_w: float,
    stirring: Stirring,
    dt_s: float,
    room_c: float = ROOM_C,
    *,
    loss_w_m2k: float = 0.0,
    lid: bool = False,
) -> PotState:
    """The state ``dt_s`` later with ``power_w`` reaching the pot and ``loss_w_m2k`` (of its base)
    leaving it beyond what an ordinary pot loses.

    Heat above the boil leaves as steam, so the cream never passes its boiling point.
    """
    _, element_j_k, coupling, through = _FUELS[fuel]
    film = _FILM[stirring] * (_THICK_FILM if state.thickened else 1.0) * pot.base_m2
    # What the wall gives to the room is in the share of the rating that reaches the pot: a burner's
    # efficiency is measured by boiling water in a pot that loses too. Off the heat it counts.
    wall_loss = 9.0 * pot.base_m2 * 2.0 * (1.0 if power_w <= 0 else 0.0)
    wall_j_k = pot.mass_g * _STEEL_J_PER_GK
    cream_j_k = state.mass_g * cream.cp_j_per_gk
    loss = max(loss_w_m2k, -_DRY_H) * pot.base_m2
    steam_w = surface_w(state.cream_c, pot, state.thickened) * (_LID if lid else 1.0)
    # Backward Euler: (C/dt + sums) T+ = C/dt T + sources, eliminated from element to cream.
    e0, w0, c0 = element_j_k / dt_s, wall_j_k / dt_s, cream_j_k / dt_s
    e_diag = e0 + coupling
    e_rhs = e0 * state.element_c + through * power_w
    w_diag = w0 + coupling + film + wall_loss - coupling * coupling / e_diag
    w_rhs = (
        w0 * state.wall_c + (1 - through) * power_w + wall_loss * room_c + coupling * e_rhs / e_diag
    )
    c_diag = c0 + film + loss - film * film / w_diag
    c_rhs = c0 * state.cream_c - steam_w + loss * room_c + film * w_rhs / w_diag
    cream_c = c_rhs / c_diag
    extra_j = 0.0
    if cream_c > cream.boil_c:
        extra_j = c_diag * (cream_c - cream.boil_c) * dt_s
        cream_c = cream.boil_c
    wall_c = (w_rhs + film * cream_c) / w_diag
    element_c = (e_rhs + coupling * wall_c) / e_diag
    latent = latent_j_per_kg(cream_c) / 1000
    mass = max(0.3 * cream.mass_g, state.mass_g - (steam_w * dt_s + extra_j) / latent)
    return PotState(
        element_c,
        wall_c,
        cream_c,
        mass_g=mass,
        thickened=state.thickened or cream_c >= cream.thickens_c,
    )


def stored_j_per_k(cream: Cream, pot: Pot, fuel: Fuel) -> float:
    """What cream, pot and element take up for each kelvin they rise together."""
    element = _FUELS[fuel][1]
    return cream.mass_g * cream.cp_j_per_gk + pot.mass_g * _STEEL_J_PER_GK + element


def surface_w(temp_c: float, pot: Pot, thickened: bool) -> float:
    """Heat leaving the surface: evaporation (Chilton-Colburn), convection and radiation."""
    temp_c = min(temp_c, 99.0)
    vapour = saturation_pa(temp_c)
    stefan = math.log((STANDARD_PA - _ROOM_PA) / max(STANDARD_PA - vapour, 8_000))
    kg_m2s = _SURFACE_H * KG_PER_J_K * stefan
    share = _EVAPORATION * (0.6 if thickened else 1.0)
    dry = _DRY_H * (temp_c - ROOM_C)
    steam_w_m2: float = share * kg_m2s * latent_j_per_kg(temp_c)
    return pot.base_m2 * (steam_w_m2 + dry)


@dataclass(frozen=True)
class PotRun:
    """A heating: ``curve`` of (seconds, degC), when it thickens and reaches its target (None:
    never), the overshoot after the heat is cut, and the wall's largest excess over the cream."""

    curve: list[tuple[float, float]]
    thickens_s: float | None
    reaches_s: float | None
    _: KW_ONLY
    overshoot_k: float
    wall_excess_k: float
    evaporated_g: float = 0.0


def heat_to(
    cream: Cream,
    pot: Pot,
    fuel: Fuel,
    power_w: float,
    from_c: float,
    target_c: float,
    hold_s: float = 0.0,
    stirring: Stirring = "spatula",
    longest_s: float = 5400.0,
    dt_s: float = 2.0,
    *,
    loss_w_m2k: float = 0.0,
    lid: bool = False,
) -> PotRun:
    """Heat from ``from_c`` to ``target_c``, hold, cut the heat and follow it to its peak.

    Stops at ``longest_s`` when the ring cannot get there. The stove is off after the hold, which
    is where the overshoot comes from.
    """
    state = start(cream, from_c)
    curve = [(0.0, from_c)]
    thickens = reaches = None
    t = excess = 0.0
    while t < longest_s:
        checkpoint()
        state = step(
            state, cream, pot, fuel, power_w, stirring, dt_s, loss_w_m2k=loss_w_m2k, lid=lid
        )
        t += dt_s
        curve.append((t, state.cream_c))
        excess = max(excess, state.wall_c - state.cream_c)
        if thickens is None and state.thickened:
            thickens = t
        if reaches is None and state.cream_c >= target_c - 0.05:
            reaches = t
        if reaches is not None and t >= reaches + hold_s:
            break
    at_cut = state.cream_c
    peak = at_cut
    if reaches is not None:
        for _ in range(int(90 / dt_s)):
            state = step(state, cream, pot, fuel, 0.0, stirring, dt_s, loss_w_m2k=loss_w_m2k)
            t += dt_s
            curve.append((t, state.cream_c))
            peak = max(peak, state.cream_c)
    return PotRun(
        curve,
        thickens,
        reaches,
        overshoot_k=peak - at_cut,
        wall_excess_k=excess,
        evaporated_g=max(0.0, cream.mass_g - state.mass_g),
    )


def scorch_band(wall_excess_k: float) -> Scorch:
    """Scorch risk in three bands from how far the wall is above the cream."""
    if wall_excess_k < 30:
        return "low"
    return "middling" if wall_excess_k < 60 else "high"
