"""The air around the moulds, its vapour, and the water of the bath: three nodes that answer to what
the moulds take and give."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bellcrumb.heat import air
from bellcrumb.heat.properties import water_boils_c
from bellcrumb.oven.scene import Bath, Oven

Array = NDArray[np.float64]

# Film coefficients of moving air, W/m2K: fitted to practice in the usual ranges.
AIR_H = {"static": 8.5, "fan": 25.0}
DECK_H = 45.0  # a tin standing on the hot floor; estimate
ROOM_H = 5.0  # still air of a kitchen
# Bath water to a wall and to a floor; insensitive, so fixed.
WATER_SIDE_H, WATER_FLOOR_H = 350.0, 245.0
DOOR_DROP_K = 30.0  # after the door was open to load
AIR_TAU_S = 240.0
WALL_TAU_S = 900.0  # the walls follow a turned dial slowly; estimate
OFF_TAU_S = 900.0  # oven off, door ajar; estimate
CAVITY_M3 = 0.065
VENT_M3_S = 1.1e-3  # fitted; what lets the steam of a bath out
ROOM_C, ROOM_HUMIDITY = 22.0, 0.5
UNDER_FOIL_H = 5.0
UNDER_FOIL_SHARE = 0.3  # how far the air under the foil is from the water towards the oven
FOIL_H = 8.0
WATER_CP = 4190.0
ICE_C = 0.5


@dataclass(frozen=True)
class Place:
    """Where the moulds are now: air that goes to ``goal_c`` within ``tau_s``, and how it blows."""

    kind: str
    h_c: float
    tau_s: float
    vented: bool  # whether the steam stays in a cavity
    iced: bool = False


def in_oven(oven: Oven) -> Place:
    """In the closed oven."""
    return Place("oven", AIR_H[oven.kind] * oven.film, AIR_TAU_S, vented=True)


AFTER: dict[str, Place] = {
    "rack": Place("rack", ROOM_H, 1.0, vented=False),
    "in_bath": Place("in_bath", ROOM_H, 1.0, vented=False),
    "ice": Place("ice", ROOM_H, 1.0, vented=False, iced=True),
    "oven_off": Place("oven_off", ROOM_H, OFF_TAU_S, vented=False),
}


class Chamber:
    """Air, walls, vapour and bath of several cases (arrays of one value a case)."""

    def __init__(
        self, oven: Oven, bath: Bath | None, offset_k: Array, moulds: float, foot_m2: float
    ) -> None:
        self.oven, self.bath, self.offset_k = oven, bath, offset_k
        self.pressure = air.pressure_pa(oven.altitude_m)
        self.boils_c = water_boils_c(oven.altitude_m)
        start = np.full_like(offset_k, oven.set_c(0)) + offset_k
        cold = ROOM_C if not oven.preheated else None
        self.wall_c = start.copy() if cold is None else np.full_like(start, cold)
        self.air_c = np.maximum(self.wall_c - DOOR_DROP_K, ROOM_C)
        room = ROOM_HUMIDITY * air.saturation_pa(np.full_like(start, ROOM_C))
        self.room_pa = room
        kg = air.WATER_KG_PER_MOL / (air.GAS_J_PER_MOLK * (ROOM_C + 273.15))
        self.room_density = room * kg
        self.density = self.room_density.copy()
        self.place = in_oven(oven)
        self.moulds = moulds
        if bath is not None:
            length, width = (mm / 1000 for mm in bath.pan_mm)
            self.bath_c = np.full_like(start, bath.water_c)
            self.bath_kg = np.full_like(start, bath.water_kg)
            self.pan_m2 = length * width
            self.free_m2 = max(0.15 * self.pan_m2, self.pan_m2 - moulds * foot_m2)
            self.around_m2 = self.pan_m2 + 2 * (length + width) * bath.level_mm / 1000
        else:
            self.bath_c = self.bath_kg = np.zeros_like(start)

    def state(self) -> tuple[Array, ...]:
        """The first case's nodes, to go on from."""
        nodes = (self.air_c, self.wall_c, self.density, self.bath_c, self.bath_kg)
        return tuple(node[:1] for node in nodes)

    def restore(self, state: tuple[Array, ...]) -> None:
        """Go on from a state."""
        self.air_c, self.wall_c, self.density, self.bath_c, self.bath_kg = state

    @property
    def vapour(self) -> Array:
        """Partial pressure of vapour around the moulds, Pa."""
        if not self.place.vented:
            return self.room_pa
        return np.minimum(air.vapour_pa(self.density, self.air_c), 0.94 * self.pressure)

    def goal_c(self, minute: float) -> Array:
        """Where the air is heading."""
        if self.place.kind == "oven":
            return self.oven.set_c(minute) + self.offset_k
        return np.full_like(self.air_c, ROOM_C)

    def over_custard(self) -> tuple[Array, Array, Array, float]:
        """What the top sees: air (degC), walls (degC), vapour (Pa), film coefficient (W/m2K)."""
        if self.bath is not None and self.bath.covered and self.place.kind == "oven":
            inside = self.bath_c + UNDER_FOIL_SHARE * (self.air_c - self.bath_c)
            vapour = np.minimum(air.saturation_pa(self.bath_c), 0.94 * self.pressure)
            return inside, inside, vapour, UNDER_FOIL_H
        return self.air_c, self.wall_c, self.vapour, self.place.h_c

    def advance(self, minute: float, step_s: float, taken_w: Array, steam_kg_s: Array) -> None:
        """Advance by ``step_s``: one mould takes ``taken_w`` from the water, all moulds together
        give off ``steam_kg_s``. ``minute`` is the middle of the step on the oven's clock."""
        goal = self.goal_c(minute)
        keep = np.exp(-step_s / self.place.tau_s)
        wall_tau = WALL_TAU_S if self.place.kind == "oven" else self.place.tau_s
        before = self.air_c
        self.wall_c = goal + (self.wall_c - goal) * np.exp(-step_s / wall_tau)
        self.air_c = goal + (self.air_c - goal) * keep
        if self.place.kind == "oven":
            half = step_s / 120
            opened = sum(minute - half <= at < minute + half for at in self.oven.door_min)
            if opened:
                self.air_c = np.maximum(ROOM_C, self.air_c - opened * DOOR_DROP_K)
                # The steam goes out with the heat.
                self.density = (self.density + self.room_density) / 2
        steam = steam_kg_s
        if self.bath is not None:
            steam = steam + self._bath(step_s, (before + self.air_c) / 2, taken_w)
        if self.place.vented:
            grow = step_s / CAVITY_M3
            vent = VENT_M3_S * self.oven.vent
            self.density = (self.density + grow * (steam + vent * self.room_density)) / (
                1 + grow * vent
            )
            self.density = np.maximum(self.density, 1e-4)

    def _bath(self, step_s: float, air_c: Array, taken_w: Array) -> Array:
        """Advance the water; returns what it evaporates, kg/s."""
        bath = self.bath
        assert bath is not None
        if self.place.iced:
            self.bath_c = np.full_like(self.bath_c, ICE_C)
            return np.zeros_like(self.bath_c)
        if self.place.kind == "rack":
            return np.zeros_like(self.bath_c)
        t = self.bath_c
        metal = self.place.h_c + air.radiation_h(t, self.wall_c, air.METAL_EMISSIVITY)
        pan_w = self.around_m2 * metal * (air_c - t)
        slope = self.around_m2 * metal
        if bath.covered and self.place.kind == "oven":
            through = self.pan_m2 / (1 / metal + 1 / FOIL_H)
            top_w, gone = through * (air_c - t), np.zeros_like(t)
            slope = slope + through
        else:
            off, off_slope = air.evaporation_kg_m2s(t, self.vapour, self.place.h_c, self.pressure)
            gone = self.free_m2 * off
            rate = self.place.h_c + air.radiation_h(t, self.wall_c, 0.95)
            latent = air.latent_j_per_kg(t)
            top_w = self.free_m2 * rate * (air_c - t) - gone * latent
            slope = slope + self.free_m2 * (rate + latent * off_slope)
        heat = np.maximum(self.bath_kg, 0.05) * WATER_CP
        change = step_s * (pan_w + top_w - self.moulds * taken_w) / (heat + step_s * slope / 2)
        warmer = t + change
        boils = self.boils_c - 0.3
        over_j = np.maximum(0.0, warmer - boils) * heat
        gone = gone + over_j / air.latent_j_per_kg(warmer) / step_s
        self.bath_c = np.minimum(warmer, boils)
        self.bath_kg = np.maximum(0.0, self.bath_kg - gone * step_s)
        return gone
