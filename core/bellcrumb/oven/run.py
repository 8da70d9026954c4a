"""One bake, stepped: the field in the mould, the set of the egg, the chamber around it."""

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from bellcrumb.heat import air
from bellcrumb.heat.field import Field
from bellcrumb.heat.materials import Food
from bellcrumb.oven import chamber as rooms
from bellcrumb.oven.chamber import Chamber, Place
from bellcrumb.oven.scene import Bath, Body, Cells, Mould, Oven, body_of
from bellcrumb.oven.setting import LIQUID, WEEPS, WOBBLES, Setting

Array = NDArray[np.float64]

# The first minutes are quick: door, water and walls find each other. Then a minute is short enough.
STEP_S, LATER_S, LATER_STEP_S = 30.0, 600.0, 60.0
REFRESH_S = 120.0  # conductivities and film coefficients change slowly
SKIN = 0.27  # share of a wet surface that gives off water; fitted
# How many times better than still a liquid custard carries heat. Fitted for thin mixes; batters of
# cheese, puree or starch hardly move. Confidence: medium.
STIRS, STIRS_THICK = 2.4, 1.0
THIN_TOP_M = 0.003  # a loose film on a set custard does not wobble


@dataclass(frozen=True)
class Job:
    """What is baked, in ``count`` moulds: its heat, how many times better than still it carries it
    while liquid (``stirs``), and how much hotter than an egg custard it may get."""

    food: Food
    stirs: float
    mould: Mould
    count: int
    oven: Oven
    bath: Bath | None
    tolerates_k: float = 0.0


@dataclass(frozen=True)
class Cases:
    """What differs between the cases of one run (arrays of one value a case): start temperature,
    what the oven is above its dial, depth as a factor, set temperature."""

    start_c: Array
    offset_k: Array
    depth: Array
    set_c: Array

    @classmethod
    def one(cls, start_c: float, offset_k: float, set_c: float) -> "Cases":
        """A single case."""
        return cls(*(np.array([float(v)]) for v in (start_c, offset_k, 1.0, set_c)))


# A moment of one case: seconds, temperatures of all cells, the two integrals, the chamber.
State = tuple[float, Array, Array, Array, tuple[Array, ...]]


class Trace:
    """What was seen, a row a step. Quantities are (steps, cases)."""

    def __init__(self, body: Body, deep: int) -> None:
        self._body, self.deep = body, deep
        self._rows: list[tuple[float, Array, Array, Array, Array, Array]] = []
        self.states: list[State] = []

    def add(self, bake: "Bake") -> None:
        """Write down a moment."""
        c = bake.chamber
        bath = c.bath_c if c.bath is not None else np.full_like(c.air_c, np.nan)
        done, spoilt = bake.setting.done.copy(), bake.setting.spoilt.copy()
        self._rows.append((bake.t_s, bake.custard_c.copy(), done, spoilt, bath, c.air_c))
        self.states.append((bake.t_s, bake.field.temp_c[:1], done[:1], spoilt[:1], c.state()))

    @cached_property
    def t_s(self) -> Array:
        """When, s."""
        return np.array([row[0] for row in self._rows])

    @cached_property
    def temp_c(self) -> Array:
        """Custard cells (steps, cases, rows, columns), degC."""
        return np.array([row[1] for row in self._rows])

    @cached_property
    def set_share(self) -> Array:
        """The set share of the custard cells."""
        found: Array = 1 - np.exp(-np.array([row[2] for row in self._rows]))
        return found

    def spoilt_share(self, case: int = 0) -> Array:
        """How far the custard cells of a case were overdone (steps, rows, columns)."""
        found: Array = 1 - np.exp(-np.array([row[3][case] for row in self._rows]))
        return found

    @cached_property
    def bath_c(self) -> Array:
        """The water, degC (nan without)."""
        return np.array([row[4] for row in self._rows])

    @cached_property
    def air_c(self) -> Array:
        """The air around the moulds, degC."""
        return np.array([row[5] for row in self._rows])

    @cached_property
    def centre_c(self) -> Array:
        """On the axis at half the depth, where a probe is held."""
        middle = self.temp_c.shape[2] // 2
        found: Array = (self.temp_c[:, :, middle, 0] + self.temp_c[:, :, middle - 1, 0]) / 2
        return found

    @cached_property
    def edge_c(self) -> Array:
        """Near the wall at half the depth."""
        found: Array = self.temp_c[:, :, self.temp_c.shape[2] // 2, -2]
        return found

    @cached_property
    def hottest_c(self) -> Array:
        """The hottest custard."""
        found: Array = self.temp_c.max((2, 3))
        return found

    @cached_property
    def columns(self) -> Array:
        """The least set cell of each column (steps, cases, columns): what is loose there moves,
        also under a set top."""
        found: Array = self.set_share[:, :, : self.deep, :].min(2)
        return found

    @cached_property
    def least_set(self) -> Array:
        """The least set cell."""
        found: Array = self.columns.min(2)
        return found

    @cached_property
    def rim_set(self) -> Array:
        """How set it is three quarters of the way out."""
        found: Array = self.columns[:, :, int(0.75 * self.columns.shape[2])]
        return found

    def weeping(self, case: int = 0) -> Array:
        """The share of the custard of a case that is overdone (steps,)."""
        volume = self._body.mesh.volume[case, self._body.floor :, : self._body.columns]
        gone = (self.spoilt_share(case) > WEEPS) * volume
        found: Array = gone.sum((1, 2)) / volume.sum()
        return found

    @cached_property
    def disc_mm(self) -> Array:
        """Width of the part that still wobbles, seen from above, by a line between columns."""
        faces = self._body.mesh.r[0, : self._body.columns + 1]
        middle = (faces[1:] + faces[:-1]) / 2
        loose = self.columns < WOBBLES
        most = loose.shape[2] - 1
        last = np.where(loose.any(2), most - loose[:, :, ::-1].argmax(2), -1)
        inner = np.maximum(last, 0)
        outer = np.minimum(inner + 1, most)
        low = np.take_along_axis(self.columns, inner[:, :, None], 2)[:, :, 0]
        high = np.take_along_axis(self.columns, outer[:, :, None], 2)[:, :, 0]
        part = np.clip((WOBBLES - low) / np.maximum(high - low, 1e-9), 0, 1)
        edge = middle[inner] + part * (middle[outer] - middle[inner])
        edge = np.where(last == most, faces[-1], edge)
        # Inside the first column the disc shrinks to nothing with what is left to set.
        left = 1 - np.clip(self.columns[:, :, 0] / WOBBLES, 0, 1)
        edge = np.where(last == 0, np.minimum(edge, middle[1] * left), edge)
        found: Array = np.where(last < 0, 0.0, 2000 * edge)
        return found


class Bake:
    """A bake that can be stepped, looked at, and taken out."""

    def __init__(
        self, job: Job, cases: Cases, cells: Cells | None = None, step_s: float = STEP_S
    ) -> None:
        self.job, self.step_s = job, step_s
        # A fan ties water and steam too closely for a longer step.
        longer = step_s == STEP_S and job.oven.kind == "static"
        self.later_step_s = LATER_STEP_S if longer else step_s
        self.later_s = LATER_S
        self.cells = cells or Cells()
        self.body: Body = body_of(job.mould, job.mould.fill_mm * cases.depth, self.cells)
        mesh = self.body.mesh
        shape = mesh.volume.shape
        rho_cp = np.broadcast_to(self.body.rho_cp_solid, shape).copy()
        self._custard = (slice(None), slice(self.body.floor, None), slice(0, self.body.columns))
        rho_cp[self._custard] = job.food.rho * job.food.cp
        temp = np.broadcast_to(cases.start_c[:, None, None], shape).copy()
        if job.mould.crust is None:
            solids = np.ones(shape, bool)
            solids[self._custard] = False
            temp[solids] = np.broadcast_to(
                np.minimum(cases.start_c, rooms.ROOM_C)[:, None, None], shape
            )[solids]
        self.field = Field(mesh, rho_cp, temp, step_s)
        self.setting = Setting.start(cases.set_c, temp[self._custard], job.tolerates_k)
        moulds = job.count * job.mould.times
        foot = job.mould.foot_m2 / job.mould.times
        self.chamber = Chamber(job.oven, job.bath, cases.offset_k, moulds, foot)
        self.t_s = self._began_s = 0.0
        depth = job.mould.fill_mm / 1000
        self.deep = max(2, round(self.cells.rows * (1 - THIN_TOP_M / depth)))
        # The wall and crust beside the custard are dry.
        self._moist = np.where(np.arange(shape[2]) < self.body.columns, SKIN, 0.0)
        self.trace = Trace(self.body, self.deep)
        self._taken_w = np.zeros(len(cases.start_c))
        self._since_refresh = REFRESH_S
        self._surface: Array | None = None
        self.setting.pass_by(self.custard_c, 0.0)
        self.trace.add(self)

    @property
    def custard_c(self) -> Array:
        """Temperatures of the custard cells (cases, rows, columns)."""
        return self.field.temp_c[self._custard]

    def move(self, place: Place) -> None:
        """Take it somewhere else."""
        self.chamber.place = place
        if place.kind == "rack":
            self.chamber.air_c = np.full_like(self.chamber.air_c, rooms.ROOM_C)
            self.chamber.wall_c = self.chamber.air_c.copy()
        self._since_refresh = REFRESH_S

    def step(self) -> None:
        """One step of time."""
        if self.t_s - self._began_s >= self.later_s and self.step_s != self.later_step_s:
            self.step_s = self.later_step_s
            self.field.pace(self.step_s)
            self._since_refresh = REFRESH_S
        c, dt = self.chamber, self.step_s
        if self._since_refresh >= REFRESH_S:
            self._couple()
            self._since_refresh = 0.0
        self._since_refresh += dt
        top_c, steam = self._top()
        floor_c, side_c = self._below()
        self.field.step(floor_c, side_c, top_c)
        taken = self._taken(floor_c, side_c)
        before = self._taken_w if self.t_s else taken
        self._taken_w = taken
        c.advance((self.t_s + dt / 2) / 60, dt, (before + taken) / 2, steam)
        self.t_s += dt
        self.setting.pass_by(self.custard_c, dt)
        self.trace.add(self)

    def _couple(self) -> None:
        """Conductivities and film coefficients from where things are now."""
        c, job = self.chamber, self.job
        mesh = self.body.mesh
        shape = mesh.volume.shape
        k = np.broadcast_to(self.body.k_solid, shape).copy()
        liquid = np.where(self.setting.share < LIQUID, job.stirs, 1.0)
        k[self._custard] = job.food.k(self.custard_c) * liquid
        temp = self.field.temp_c
        metal = c.place.h_c + air.radiation_h(
            temp[:, :, -1], c.wall_c[:, None], self._wall_emissivity
        )
        deck = job.oven.stand == "deck" and c.place.kind == "oven" and job.bath is None
        floor = (
            np.full(temp[:, 0, :].shape, rooms.DECK_H)
            if deck
            else c.place.h_c
            + air.radiation_h(temp[:, 0, :], c.wall_c[:, None], self._wall_emissivity)
        )
        share = np.zeros(metal.shape)
        if job.bath is not None and c.place.kind != "rack":
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
        _, over_wall, vapour, h_c = c.over_custard()
        surface = self._surface if self._surface is not None else temp[:, -1, :]
        rate = h_c + air.radiation_h(surface, over_wall[:, None], air.FOOD_EMISSIVITY)
        _, slope = air.evaporation_kg_m2s(surface, vapour[:, None], h_c, c.pressure)
        self._top_h = rate + SKIN * slope * air.latent_j_per_kg(surface)
        self._top_rate = rate
        self.field.couple(k, floor, self._side_h, self._top_h)

    @property
    def _wall_emissivity(self) -> float:
        return air.METAL_EMISSIVITY if self.job.mould.wall.k > 5 else air.FOOD_EMISSIVITY

    def _top(self) -> tuple[Array, Array]:
        """What the top sees as one temperature (cases, columns), and the steam of all moulds."""
        c = self.chamber
        over_air, over_wall, vapour, h_c = c.over_custard()
        surface = self._surface if self._surface is not None else self.field.temp_c[:, -1, :]
        lost = self._moist * air.evaporation_kg_m2s(surface, vapour[:, None], h_c, c.pressure)[0]
        flux = (
            h_c * (over_air[:, None] - surface)
            + (self._top_rate - h_c) * (over_wall[:, None] - surface)
            - lost * air.latent_j_per_kg(surface)
        )
        top_c = surface + flux / self._top_h
        after = self.field.top_surface_c(top_c)
        # Half a step ahead, so that the step sees its middle.
        self._surface = after + (after - surface) / 2 if self._surface is not None else after
        steam: Array = (lost * self.body.mesh.plan).sum(1) * c.moulds
        if self.job.bath is not None and self.job.bath.covered and c.place.kind == "oven":
            steam = np.zeros_like(steam)
        return top_c, steam

    def _below(self) -> tuple[Array, Array]:
        """What floor and side see as one temperature each."""
        c = self.chamber
        around = (
            c.place.h_c * c.air_c[:, None] + (self._air_h - c.place.h_c) * c.wall_c[:, None]
        ) / self._air_h
        water = c.bath_c[:, None] if self.job.bath is not None else around
        side = (self._wet_h * water + self._dry_h * around) / self._side_h
        columns = self.field.temp_c.shape[2]
        air_floor = np.repeat(around[:, :1], columns, axis=1)
        if self.job.oven.stand == "deck" and c.place.kind == "oven" and self.job.bath is None:
            air_floor = np.repeat(c.wall_c[:, None], columns, axis=1)
        floor = np.where(self._wet_floor, water[:, :1], air_floor)
        return floor, side

    def _taken(self, floor_c: Array, side_c: Array) -> Array:
        """Heat one mould takes from the water now, W."""
        if self.job.bath is None:
            return np.zeros(len(self.chamber.air_c))
        f, m = self.field, self.body.mesh
        flux = f.side_g * (side_c - f.temp_c[:, :, -1])
        surface = side_c - flux / (self._side_h * m.side[:, :, -1])
        water = self.chamber.bath_c[:, None]
        side = self._wet_h * m.side[:, :, -1] * (water - surface)
        floor = np.where(self._wet_floor, f.floor_g * (floor_c - f.temp_c[:, 0, :]), 0.0)
        taken: Array = side.sum(1) + floor.sum(1)
        return taken

    def resume(self, state: State) -> None:
        """Go on from a moment of another run of the same job (its first case)."""
        self.t_s, temp, done, spoilt, chamber = state
        self._began_s = self.t_s
        self.field.temp_c = temp.copy()
        self.setting.done, self.setting.spoilt = done.copy(), spoilt.copy()
        self.chamber.restore(chamber)
        self._since_refresh, self._surface = REFRESH_S, None
        self.trace = Trace(self.body, self.deep)
        self.trace.add(self)

    @property
    def least_set(self) -> Array:
        """The least set cell of each case now."""
        found: Array = 1 - np.exp(-self.setting.done[:, : self.deep, :].min((1, 2)))
        return found
