"""The air around the moulds, its vapour, and the water of the bath: three nodes that answer to what
the moulds take and give."""

import math
from dataclasses import KW_ONLY, dataclass

import numpy as np
from numpy.typing import NDArray

from bellcrumb.laws import air
from bellcrumb.laws.air import ROOM_C
from bellcrumb.laws.water import (
    CP_J_PER_GK,
    GAS_J_PER_MOLK,
    KG_PER_MOL,
    boils_c,
    latent_j_per_kg,
    pressure_pa,
    saturation_pa,
)
from bellcrumb.oven.scene import Bath, Oven

Array = NDArray[np.float64]

# Film coefficients of moving air, W/m2K: fitted to practice in the usual ranges.
AIR_H = {"static": 8.5, "fan": 25.0}
DECK_H = 45.0  # a tin standing on the hot floor; estimate
ROOM_H = 5.0  # still air of a kitchen
# Bath water to a wall and to a floor; insensitive, so fixed.
WATER_SIDE_H, WATER_FLOOR_H = 350.0, 245.0
DOOR_DROP_K = 30.0  # after the door was open to load
# After it stood open for the minute or more in which water is poured into a pan on the shelf: twice
# as long, twice as much. Our estimate.
FILLED_DROP_K = 60.0
DOOR_MIN = 0.02  # as near as a step begins to it
AIR_TAU_S = 240.0
WALL_TAU_S = 900.0  # the walls follow a turned dial slowly; estimate
OFF_TAU_S = 900.0  # oven off, door ajar; estimate
# What an oven of that size can give, what it loses for each kelvin, and what its air, racks and
# inner skin hold: a heavy load holds it down, and a cold oven climbs no faster. Estimates.
POWER_W, LOSES_W_K, AIR_J_K = 2500.0, 3.5, 15_000.0
CAVITY_M3 = 0.065
VENT_M3_S = 0.9e-3  # fitted; what lets the steam of a bath out
ROOM_HUMIDITY = 0.5
UNDER_FOIL_H = 2.5  # from the water to the air and from the air to the custard: two films in a row
UNDER_FOIL_SHARE = 0.3  # how far the air under the foil is from the water towards the oven
FOIL_H = 8.0
FOIL_LEAKS = 0.3  # share of the open water's steam that gets out where foil meets pan; our estimate
WATER_CP = 1000 * CP_J_PER_GK
PAN_J_M2K = 3100.0  # 0.8 mm of steel
ICE_C = 0.5
# Half a step ahead, steam and bath go on as they went, but never by more than this: the first
# minute of boiling water under a fan has no pace to go on.
MOST_AHEAD, MOST_AHEAD_K = 0.5, 5.0


@dataclass(frozen=True)
class Surroundings:
    """Where the moulds are now: air that goes to ``goal_c`` within ``tau_s``, and how it blows."""

    kind: str
    h_c: float
    tau_s: float
    _: KW_ONLY
    vented: bool  # whether the steam stays in a cavity
    iced: bool = False


def in_oven(oven: Oven) -> Surroundings:
    """In the closed oven."""
    tau_s = AIR_TAU_S / oven.recovers
    return Surroundings("oven", AIR_H[oven.kind] * oven.film, tau_s, vented=True)


AFTER: dict[str, Surroundings] = {
    "rack": Surroundings("rack", ROOM_H, 1.0, vented=False),
    "in_bath": Surroundings("in_bath", ROOM_H, 1.0, vented=False),
    "ice": Surroundings("ice", ROOM_H, 1.0, vented=False, iced=True),
    "oven_off": Surroundings("oven_off", ROOM_H, OFF_TAU_S, vented=False),
}


@dataclass(frozen=True)
class Around:
    """What is around the moulds at a moment: degC, and the vapour's density (kg/m3) and partial
    pressure (Pa)."""

    air_c: Array
    wall_c: Array
    bath_c: Array
    _: KW_ONLY
    density: Array
    vapour: Array


class Chamber:
    """Air, walls, vapour and bath of several cases (arrays of one value a case)."""

    def __init__(
        self, oven: Oven, bath: Bath | None, offset_k: Array, moulds: float, foot_m2: float,
        wet_m2: float = 0.0, pan_c: float | None = None,
    ) -> None:  # fmt: skip
        """``pan_c`` is a pan whose water is in it already, at that temperature (None: it is poured
        in the oven, into a pan from the room)."""
        self.oven, self.bath, self.offset_k = oven, bath, offset_k
        self.pressure = pressure_pa(oven.altitude_m)
        self.boils_c = boils_c(oven.altitude_m)
        start = np.full_like(offset_k, oven.set_c(0)) + offset_k
        cold = ROOM_C if not oven.preheated else None
        self.wall_c = start.copy() if cold is None else np.full_like(start, cold)
        drop_k = DOOR_DROP_K if bath is None or pan_c is not None else FILLED_DROP_K
        self.air_c = np.maximum(self.wall_c - drop_k, ROOM_C)
        room = ROOM_HUMIDITY * saturation_pa(np.full_like(start, ROOM_C))
        self.room_pa = room
        kg = KG_PER_MOL / (GAS_J_PER_MOLK * (ROOM_C + 273.15))
        self.room_density = room * kg
        self.density = self.room_density.copy()
        self.place = in_oven(oven)
        self.moulds = moulds
        # What gives off water: the wet tops of all moulds together, and the open water.
        self.wet_m2 = wet_m2
        if bath is not None:
            length, width = (mm / 1000 for mm in bath.pan_mm)
            self.bath_kg = np.full_like(start, bath.water_kg)
            self.pan_m2 = length * width
            taken = 0.0 if bath.beside else moulds * foot_m2
            self.free_m2 = max(0.15 * self.pan_m2, self.pan_m2 - taken)
            self.wet_m2 = 0.0 if bath.covered else wet_m2 + self.free_m2
            self.around_m2 = 2 * (length + width) * bath.level_mm / 1000
            self.deck_m2 = self.pan_m2 if oven.stand == "deck" else 0.0
            self.around_m2 += self.pan_m2 - self.deck_m2
            # The pan takes its share of what is poured into it.
            self.pan_j_k = PAN_J_M2K * (self.around_m2 + self.deck_m2)
            water = bath.water_kg * WATER_CP
            pan = ROOM_C if pan_c is None else pan_c
            poured = (water * bath.water_c + self.pan_j_k * pan) / (water + self.pan_j_k)
            self.bath_c = np.full_like(start, poured)
        else:
            self.bath_c = self.bath_kg = np.zeros_like(start)
        self._forget()

    def _forget(self) -> None:
        """Nothing is known of how it changes: the next step starts from what is."""
        none = np.zeros_like(self.air_c)
        self._bath_rate, self._gives_rate, self._load_w = none, none, none
        self._gives, self._half_s = self._holds_m3_s(self.air_c) * self.density, 0.0

    def move(self, place: Surroundings) -> None:
        """Go somewhere else."""
        self.place = place
        self._forget()
        if place.kind == "rack":
            self.air_c = self.wall_c = np.full_like(self.air_c, ROOM_C)
        if place.iced:
            self.bath_c = np.full_like(self.bath_c, ICE_C)

    def state(self) -> tuple[Array, ...]:
        """The first case's nodes, to go on from."""
        nodes = (self.air_c, self.wall_c, self.density, self.bath_c, self.bath_kg)
        return tuple(node[:1] for node in nodes)

    def restore(self, state: tuple[Array, ...]) -> None:
        """Go on from a state."""
        self.air_c, self.wall_c, self.density, self.bath_c, self.bath_kg = state
        self._forget()

    def goal_c(self, minute: float) -> Array:
        """Where the air is heading."""
        if self.place.kind == "oven":
            return self.oven.set_c(minute) + self.offset_k
        return np.full_like(self.air_c, ROOM_C)

    def ahead(self, minute: float, s: float) -> Around:
        """What will be around in ``s`` seconds while heading for the goal of ``minute``: air and
        walls as they go, vapour with the steam of the last step, the water at its last pace."""
        air_c, wall_c = self._heading(self.goal_c(minute), s)
        more = _within(self._gives_rate * (self._half_s + s), MOST_AHEAD)
        gives = self._gives * (1 + more)
        density = self._density_in(s, air_c, gives)
        vapour = np.minimum(air.vapour_pa(density, air_c), 0.94 * self.pressure)
        warmer = _within(s * self._bath_rate, MOST_AHEAD_K)
        return Around(air_c, wall_c, self.bath_c + warmer, density=density, vapour=vapour)

    def _heading(self, goal: Array, s: float) -> tuple[Array, Array]:
        """Air and walls in ``s`` seconds: towards the goal, as far as there is power for it."""
        air_c = goal + (self.air_c - goal) * math.exp(-s / self.place.tau_s)
        if self.place.kind != "oven":
            return air_c, goal + (self.wall_c - goal) * math.exp(-s / self.place.tau_s)
        spare_w = POWER_W * self.oven.recovers - LOSES_W_K * (self.air_c - ROOM_C) - self._load_w
        most_c = np.maximum(self.air_c + s / AIR_J_K * spare_w, ROOM_C)
        short = most_c < air_c
        air_c = np.where(short, most_c, air_c)
        towards = np.where(short, air_c, goal)
        return air_c, towards + (self.wall_c - towards) * math.exp(-s / WALL_TAU_S)

    def _density_in(self, s: float, air_c: Array, gives_kg_s: Array) -> Array:
        """Vapour in the cavity after ``s`` seconds, kg/m3, of surfaces that would give off
        ``gives_kg_s`` into dry air: thicker vapour holds them back, and the vent lets it out."""
        if not self.place.vented:
            return self.room_density
        vent, holds = VENT_M3_S * self.oven.vent, self._holds_m3_s(air_c)
        # Steam pushes out as much as it takes up.
        steam_kg_s = np.maximum(gives_kg_s - holds * self.density, 0.0)
        out = vent + holds + steam_kg_s * air.m3_per_kg(air_c, self.pressure)
        goal = (gives_kg_s + vent * self.room_density) / out
        gone = np.exp(-s * out / CAVITY_M3)
        found: Array = np.maximum(goal + (self.density - goal) * gone, 1e-4)
        return found

    def _holds_m3_s(self, air_c: Array) -> Array:
        return self.wet_m2 * air.vapour_m_s(air_c, self.place.h_c, self.pressure)

    def over_custard(self, around: Around) -> tuple[Array, Array, Array, float]:
        """What the top sees: air (degC), walls (degC), vapour (Pa), film coefficient (W/m2K)."""
        if self.bath is not None and self.bath.covered and self.place.kind == "oven":
            water = around.bath_c
            inside = water + UNDER_FOIL_SHARE * (around.air_c - water)
            vapour = np.minimum(saturation_pa(water), 0.94 * self.pressure)
            return inside, inside, vapour, UNDER_FOIL_H
        return around.air_c, around.wall_c, around.vapour, self.place.h_c

    def open_door(self, minute: float) -> None:
        """Open the door if it is to be opened now."""
        opened = sum(abs(minute - at) < DOOR_MIN for at in self.oven.door_min)
        if opened and self.place.kind == "oven":
            self.air_c = np.maximum(ROOM_C, self.air_c - opened * DOOR_DROP_K)
            # The steam goes out with the heat.
            self.density = (self.density + self.room_density) / 2

    def advance(
        self, minute: float, step_s: float, around: Around, taken_w: Array, steam_kg_s: Array,
        load_w: Array | float = 0.0,
    ) -> None:  # fmt: skip
        """Advance by ``step_s`` with what is ``around`` in the middle of it: one mould takes
        ``taken_w`` from the water; all moulds together give off ``steam_kg_s`` and take ``load_w``
        from air and walls. ``minute`` is the middle of the step on the oven's clock."""
        self._load_w = load_w + np.zeros_like(self.air_c)
        if self.bath is not None:
            before = self.bath_c
            steam_kg_s = steam_kg_s + self._bath(step_s, around, taken_w)
            self._bath_rate = (self.bath_c - before) / step_s
        gives = steam_kg_s + self._holds_m3_s(around.air_c) * around.density
        if self._half_s:
            change = (gives - self._gives) / np.maximum(gives, 1e-9)
            self._gives_rate = change / (self._half_s + step_s / 2)
        self._gives, self._half_s = gives, step_s / 2
        self.air_c, self.wall_c = self._heading(self.goal_c(minute), step_s)
        self.density = self._density_in(step_s, around.air_c, gives)

    def _bath(self, step_s: float, around: Around, taken_w: Array) -> Array:
        """Advance the water; returns what it evaporates, kg/s."""
        bath = self.bath
        assert bath is not None
        if self.place.iced or self.place.kind == "rack":
            return np.zeros_like(self.bath_c)
        t, air_c = self.bath_c, around.air_c
        metal = self.place.h_c + air.radiation_h(t, around.wall_c, air.METAL_EMISSIVITY)
        floor = DECK_H * (self.deck_m2 if self.place.kind == "oven" else 0.0)
        pan_w = self.around_m2 * metal * (air_c - t) + floor * (around.wall_c - t)
        slope = self.around_m2 * metal + floor
        if bath.covered and self.place.kind == "oven":
            through = self.pan_m2 / (1 / metal + 1 / FOIL_H)
            off, off_slope = air.evaporation_kg_m2s(t, around.vapour, self.place.h_c, self.pressure)
            gone, grows = (FOIL_LEAKS * self.free_m2 * rate for rate in (off, off_slope))
            dry_w = through * (air_c - t)
            slope = slope + through + latent_j_per_kg(t) * grows
        else:
            off, off_slope = air.evaporation_kg_m2s(t, around.vapour, self.place.h_c, self.pressure)
            gone, grows = self.free_m2 * off, self.free_m2 * off_slope
            rate = self.place.h_c + air.radiation_h(t, around.wall_c, 0.95)
            dry_w = self.free_m2 * rate * (air_c - t)
            slope = slope + self.free_m2 * rate + latent_j_per_kg(t) * grows
        heat = np.maximum(self.bath_kg, 0.05) * WATER_CP + self.pan_j_k
        given_w = pan_w + dry_w
        self._load_w = self._load_w + given_w
        given_w = given_w - gone * latent_j_per_kg(t) - self.moulds * taken_w
        change = step_s * given_w / (heat + step_s * slope / 2)
        warmer = t + change
        boils = self.boils_c - 0.3
        over_j = np.maximum(0.0, warmer - boils) * heat
        gone = gone + over_j / latent_j_per_kg(warmer) / step_s
        gone = gone + grows * change / 2
        self.bath_c = np.minimum(warmer, boils)
        self.bath_kg = np.maximum(0.0, self.bath_kg - gone * step_s)
        return gone


def _within(value: Array, most: float) -> Array:
    found: Array = np.minimum(np.maximum(value, -most), most)
    return found
