"""One bake, stepped: the field in the mould, the set of the egg, the chamber around it."""

import math
from dataclasses import KW_ONLY, dataclass

import numpy as np
from numpy.typing import NDArray

from bellcrumb.heat.field import Field
from bellcrumb.heat.materials import Food
from bellcrumb.laws import air
from bellcrumb.laws.water import latent_j_per_kg
from bellcrumb.oven import chamber as rooms
from bellcrumb.oven.chamber import Around, Chamber, Surroundings
from bellcrumb.oven.scene import Bath, Body, Cells, Mould, Oven, body_of
from bellcrumb.oven.setting import SetKinetics
from bellcrumb.oven.trace import State, Trace

Array = NDArray[np.float64]

# How long a step is until when, s. The first minutes are quick: boiling water into a hot pan, the
# door, water and walls finding each other.
Strides = tuple[tuple[float, float], ...]
STRIDES: Strides = ((30.0, 10.0), (120.0, 30.0), (480.0, 60.0), (math.inf, 180.0))
AFTER_STRIDES: Strides = ((120.0, 60.0), (600.0, 120.0), (math.inf, 300.0))
REFRESH_S = 120.0  # conductivities and film coefficients change slowly
SKIN = 0.39  # share of a wet surface that gives off water, where half of the mix is water; fitted
# A surface dries to a skin: after so much water it gives off half as freely (falling-rate drying).
# Chosen with SKIN on the first list of ordinary bakes and on custards baked dry; medium.
_DRIES_KG_M2 = 1.5
_SKIN_POWER = 0.5  # how it rises with the water of the mix; our estimate
LATENT_J_PER_KG = latent_j_per_kg(70.0)  # where most of it leaves
_BOIL_GAIN = 0.8  # share of what is over the boil that the next step's bubbles take
THIN_TOP_M = 0.003  # a loose film on a set custard does not wobble


@dataclass(frozen=True)
class Job:
    """What is baked, in ``count`` moulds: its heat, how many times better than still it carries it
    while liquid (``stirs``), how much hotter than an egg custard it may get, where its water
    boils and how much of it is water (0 to 1)."""

    food: Food
    stirs: float
    mould: Mould
    _: KW_ONLY
    count: int
    oven: Oven
    bath: Bath | None
    tolerates_k: float = 0.0
    boils_c: float = 100.5
    water: float = 0.5

    @property
    def skin(self) -> float:
        """Share of its surface that gives off water as a free one would."""
        return float(min(1.0, SKIN * (self.water / 0.5) ** _SKIN_POWER))


@dataclass(frozen=True)
class Cases:
    """What differs between the cases of one run (arrays of one value a case): start temperature,
    what the oven is above its dial, depth as a factor, set temperature."""

    start_c: Array
    offset_k: Array
    depth: Array
    _: KW_ONLY
    set_c: Array

    @classmethod
    def one(cls, start_c: float, offset_k: float, set_c: float) -> "Cases":
        """A single case."""
        return cls.of(np.array([[start_c, offset_k, 1.0, set_c]]))

    @classmethod
    def of(cls, rows: Array) -> "Cases":
        """Cases from rows of start, offset, depth and set temperature."""
        start_c, offset_k, depth, set_c = rows.T
        return cls(start_c, offset_k, depth, set_c=set_c)


@dataclass(frozen=True)
class _Top:
    """The top of the moulds: its surface (degC), the heat it takes (W/m2) and the water it loses
    (kg/m2s), and how much less and more for each kelvin hotter."""

    surface_c: Array
    flux: Array
    slope_h: Array
    _: KW_ONLY
    lost: Array
    lost_per_k: Array


class Bake:
    """A bake that can be stepped, looked at, and taken out."""

    def __init__(
        self, job: Job, cases: Cases, cells: Cells | None = None, strides: Strides = STRIDES
    ) -> None:
        self.job, self._strides, self._began_s = job, strides, 0.0
        self._marks = [60 * minute for minute in job.oven.turns]
        self.cells = cells or Cells()
        self.body: Body = body_of(job.mould, job.mould.fill_mm * cases.depth, self.cells)
        mesh = self.body.mesh
        shape = mesh.volume.shape
        rho_cp = np.broadcast_to(self.body.rho_cp_solid, shape).copy()
        self._custard = (slice(None), slice(self.body.floor, None), slice(0, self.body.columns))
        rho_cp[self._custard] = job.food.rho * job.food.cp
        temp = np.broadcast_to(cases.start_c[:, None, None], shape).copy()
        # Mould and shell come from the bench, whatever is poured into them.
        solids = np.ones(shape, bool)
        solids[self._custard] = False
        bench = np.broadcast_to(np.minimum(cases.start_c, air.ROOM_C)[:, None, None], shape)
        temp[solids] = bench[solids]
        self.field = Field(mesh, rho_cp, temp, strides[0][1])
        self.setting = SetKinetics.start(cases.set_c, temp[self._custard], job.tolerates_k)
        moulds = job.count * job.mould.times
        foot = job.mould.foot_m2 / job.mould.times
        top = job.mould.times * float(mesh.plan[0, : self.body.columns].sum())
        wet = job.skin * job.count * top
        self.chamber = Chamber(job.oven, job.bath, cases.offset_k, moulds, foot, wet)
        self.t_s = 0.0
        depth = job.mould.fill_mm / 1000
        self.deep = max(2, round(self.cells.rows * (1 - THIN_TOP_M / depth)))
        # The wall and crust beside the custard are dry.
        self._wet = np.where(np.arange(shape[2]) < self.body.columns, job.skin, 0.0)
        self._dried_kg_m2 = np.zeros((len(temp), shape[2]))
        self._dries_kg_m2s = np.zeros_like(self._dried_kg_m2)
        self.trace = Trace(self.body, self.deep)
        self._k = np.broadcast_to(self.body.k_solid, shape).copy()
        self._since_refresh = REFRESH_S
        self._skin_c: Array | None = None
        self._boiling_w = np.zeros_like(temp)
        self.setting.advance(self.custard_c, 0.0)
        self._write_down()

    @property
    def custard_c(self) -> Array:
        """Temperatures of the custard cells (cases, rows, columns)."""
        return self.field.temp_c[self._custard]

    def move(self, place: Surroundings) -> None:
        """Take it somewhere else, on a new trace, with quick steps again at first."""
        self.chamber.move(place)
        self._began_s = self.t_s
        if len(self._strides) > 1:
            self._strides = AFTER_STRIDES
        self._afresh()

    def _afresh(self) -> None:
        self._since_refresh, self._skin_c = REFRESH_S, None
        self.trace = Trace(self.body, self.deep)
        self._write_down()

    def _write_down(self) -> None:
        self.trace.add(
            self.t_s, self.custard_c, self.field.temp_c, self.setting, self.chamber,
            self._dried_kg_m2,
        )  # fmt: skip

    def step(self, dt: float | None = None) -> None:
        """One step of time, as long as it likes or ``dt``, s."""
        if dt is None:
            dt = self._stride_s()
        if dt != self.field.step_s:
            self.field.pace(dt)
            self._since_refresh = REFRESH_S
        c = self.chamber
        middle = (self.t_s + dt / 2) / 60
        c.open_door(self.t_s / 60)
        around = c.ahead(middle, dt / 2)
        top = self._top(around, dt / 2)
        if self._since_refresh >= REFRESH_S:
            self._couple(around, top.slope_h, max(dt, REFRESH_S) / 2)
            self._since_refresh = 0.0
        self._since_refresh += dt
        top_c = top.surface_c + top.flux / self._top_h
        floor_c, side_c = self._below(around)
        floor, wall = self.field.temp_c[:, 0, :], self.field.temp_c[:, :, -1]
        skin_c = self.field.top_surface_c(top_c)
        self.field.step(floor_c, side_c, top_c, self._boiling_w)
        self._skin_c = self.field.top_surface_c(top_c)
        steam = self._steam(top, (skin_c + self._skin_c) / 2)
        grows = top.lost_per_k * ((skin_c + self._skin_c) / 2 - top.surface_c)
        self._dries_kg_m2s = np.maximum(top.lost + (self._wet > 0) * grows, 0.0)
        self._dried_kg_m2 = self._dried_kg_m2 + self._dries_kg_m2s * dt
        boiled = self._boil_off(dt)
        floor = (floor + self.field.temp_c[:, 0, :]) / 2
        wall = (wall + self.field.temp_c[:, :, -1]) / 2
        taken = self._taken(around, floor_c - floor, side_c, wall)
        load = c.moulds * (self.field.inflow_w(floor_c, side_c, top_c) - taken)
        heat = load + LATENT_J_PER_KG * steam
        c.advance(middle, dt, around, taken, steam + boiled, heat)
        self.t_s += dt
        self.setting.advance(self.custard_c, dt)
        self._write_down()

    def _boil_off(self, dt: float) -> Array:
        """The steam of all moulds from inside the custard, kg/s.

        A wet custard at a bare wall cannot pass its boil: what comes in beyond it leaves as
        bubbles. The heat they take is found step by step, so that the stepper is not shaken.
        """
        over = self.custard_c - self.job.boils_c
        held = self._boiling_w[self._custard]
        if not (over > 0).any() and not held.any():
            return np.zeros(len(over))
        heat = self.field.heat[self._custard]
        held = np.maximum(0.0, held + _BOIL_GAIN * over * heat / dt)
        held[:, -1, :] = 0.0  # the surface gives its steam off by itself
        self._boiling_w[self._custard] = held
        gone: Array = held.sum((1, 2)) * self.chamber.moulds / LATENT_J_PER_KG
        return gone

    def _stride_s(self) -> float:
        """How long the next step is: short at first, never past a turn of the dial or a door."""
        at = self.t_s - self._began_s
        until, dt = next(stride for stride in self._strides if at < stride[0] - 1)
        dt = min(dt, until - at)
        marks = [mark - self.t_s for mark in self._marks if mark > self.t_s + 1]
        return min([dt, *marks])

    def _couple(self, around: Around, top_h: Array, ahead_s: float) -> None:
        """Conductivities and film coefficients from where things are now."""
        c, job = self.chamber, self.job
        mesh = self.body.mesh
        liquid = np.where(self.setting.liquid_in(ahead_s), job.stirs, 1.0)
        self._k[self._custard] = job.food.k(self.custard_c) * liquid
        temp = self.field.temp_c
        metal = c.place.h_c + air.radiation_h(
            temp[:, :, -1], around.wall_c[:, None], self._wall_emissivity
        )
        deck = job.oven.stand == "deck" and c.place.kind == "oven" and job.bath is None
        floor = (
            np.full(temp[:, 0, :].shape, rooms.DECK_H)
            if deck
            else c.place.h_c
            + air.radiation_h(temp[:, 0, :], around.wall_c[:, None], self._wall_emissivity)
        )
        share = np.zeros(metal.shape)
        if job.bath is not None and not job.bath.beside and c.place.kind != "rack":
            level = np.inf if c.place.iced else job.bath.level_mm / 1000
            low, high = mesh.z[:, :-1], mesh.z[:, 1:]
            share = np.clip((level - low) / (high - low), 0.0, 1.0)
            dry = (c.bath_kg <= 0.02)[:, None] & (not c.place.iced)
            share = np.where(dry, 0.0, share)
            floor = np.where(dry, floor, rooms.WATER_FLOOR_H)
        self._wet_floor = floor == rooms.WATER_FLOOR_H
        self._air_h = metal
        self._wet_h, self._dry_h = share * rooms.WATER_SIDE_H, (1 - share) * metal
        self._side_h = self._wet_h + self._dry_h
        self._top_h = top_h
        self.field.couple(self._k, floor, self._side_h, self._top_h)

    @property
    def _wall_emissivity(self) -> float:
        return air.METAL_EMISSIVITY if self.job.mould.wall.k > 5 else air.FOOD_EMISSIVITY

    def _top(self, around: Around, ahead_s: float) -> "_Top":
        """What happens at the top with its surface as it was, in the middle of the step: so far
        ahead it has dried on as it did."""
        c = self.chamber
        over_air, over_wall, vapour, h_c = c.over_custard(around)
        surface = self.field.temp_c[:, -1, :] if self._skin_c is None else self._skin_c
        seen = air.radiation_h(surface, over_wall[:, None], air.FOOD_EMISSIVITY)
        lost, slope = air.evaporation_kg_m2s(surface, vapour[:, None], h_c, c.pressure)
        dried = self._dried_kg_m2 + ahead_s * self._dries_kg_m2s
        skin = 1 / (1 + dried / _DRIES_KG_M2)
        lost, slope, latent = (
            self._wet * skin * lost,
            self.job.skin * skin * slope,
            latent_j_per_kg(surface),
        )
        flux = (
            h_c * (over_air[:, None] - surface)
            + seen * (over_wall[:, None] - surface)
            - lost * latent
        )
        return _Top(surface, flux, h_c + seen + slope * latent, lost=lost, lost_per_k=slope)

    def _steam(self, top: "_Top", surface_c: Array) -> Array:
        """The steam of all moulds, kg/s, at the surface it came to."""
        c = self.chamber
        if self.job.bath is not None and self.job.bath.covered and c.place.kind == "oven":
            return np.zeros(len(surface_c))
        wet = self._wet > 0
        lost = top.lost + wet * top.lost_per_k * (surface_c - top.surface_c)
        steam: Array = (lost * self.body.mesh.plan).sum(1) * c.moulds
        return steam

    def _below(self, around: Around) -> tuple[Array, Array]:
        """What floor and side see as one temperature each."""
        c = self.chamber
        air_side = (
            c.place.h_c * around.air_c[:, None]
            + (self._air_h - c.place.h_c) * around.wall_c[:, None]
        ) / self._air_h
        water = around.bath_c[:, None] if self.job.bath is not None else air_side
        side = (self._wet_h * water + self._dry_h * air_side) / self._side_h
        columns = self.field.temp_c.shape[2]
        air_floor = np.repeat(air_side[:, :1], columns, axis=1)
        if self.job.oven.stand == "deck" and c.place.kind == "oven" and self.job.bath is None:
            air_floor = np.repeat(around.wall_c[:, None], columns, axis=1)
        floor = np.where(self._wet_floor, water[:, :1], air_floor)
        return floor, side

    def _taken(self, around: Around, floor_k: Array, side_c: Array, wall_c: Array) -> Array:
        """Heat one mould takes from the water, W, while the floor is ``floor_k`` under what it sees
        and the cells of the wall are at ``wall_c``."""
        if self.job.bath is None:
            return np.zeros(len(around.air_c))
        f, m = self.field, self.body.mesh
        area = m.side[:, :, -1]
        surface = side_c - f.side_g * (side_c - wall_c) / (self._side_h * area)
        side = self._wet_h * area * (around.bath_c[:, None] - surface)
        floor = np.where(self._wet_floor, f.floor_g * floor_k, 0.0)
        taken: Array = side.sum(1) + floor.sum(1)
        return taken

    def resume(self, state: State) -> None:
        """Go on from a moment of another run of the same job (its first case)."""
        self.t_s, temp, done, spoilt, chamber, self._dried_kg_m2 = state
        self.field.temp_c = temp.copy()
        self._boiling_w = np.zeros_like(temp)
        self._dries_kg_m2s = np.zeros_like(self._dried_kg_m2)
        self.setting.resume(done, spoilt, self.custard_c)
        self.chamber.restore(chamber)
        self._afresh()

    @property
    def least_set(self) -> Array:
        """The least set cell of each case now."""
        found: Array = 1 - np.exp(-self.setting.done[:, : self.deep, :].min((1, 2)))
        return found
