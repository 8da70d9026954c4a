"""What stands in the oven: the custard in its mould, its bath, the oven and its settings."""

import math
from dataclasses import KW_ONLY, dataclass
from itertools import accumulate
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from bellcrumb.errors import CraftError
from bellcrumb.heat.field import Mesh, Section
from bellcrumb.heat.materials import Solid, solid
from bellcrumb.vessels.geometry import Vessel
from bellcrumb.words import say

Array = NDArray[np.float64]
OvenKind = Literal["static", "fan"]
Stand = Literal["rack", "deck"]

# First zero of the Bessel function J0, twice: the width of a round disc that cools at the rate of
# a wide slab of width pi.
_DISC = 4.8097
_LONG = 2.2  # a tin longer than this many widths is a straight trough
DEEPEST_MM = 200.0


@dataclass(frozen=True)
class DialStage:
    """A dial setting and for how long; None is to the end."""

    set_c: float
    minutes: float | None = None


# How far ovens of a kind differ, as logarithms: film a third, vent two, recovery near a half (a
# full or a poor oven comes back half as fast as a good one). Our estimates.
FIGURE_PRIORS = {"film": 0.3, "vent": 0.7, "recovers": 0.45}


@dataclass(frozen=True)
class Oven:
    """An oven: ``offset_k`` is what it really is above its dial; ``film`` and ``vent`` are how hard
    its air blows and how fast its steam leaves, as factors of an ordinary one, and ``recovers`` how
    fast its air comes back to the dial; ``door_min`` is when its door is opened for a look."""

    kind: OvenKind
    stages: tuple[DialStage, ...]
    offset_k: float = 0.0
    _: KW_ONLY
    altitude_m: float = 0.0
    stand: Stand = "rack"
    preheated: bool = True
    film: float = 1.0
    vent: float = 1.0
    door_min: tuple[float, ...] = ()
    recovers: float = 1.0

    @property
    def turns(self) -> list[float]:
        """The minutes at which the dial is turned or the door opened."""
        ends = accumulate(stage.minutes for stage in self.stages if stage.minutes is not None)
        return sorted({*ends, *self.door_min})

    def set_c(self, minute: float) -> float:
        """The dial at a minute."""
        for stage in self.stages:
            if stage.minutes is None or minute < stage.minutes:
                return stage.set_c
            minute -= stage.minutes
        return self.stages[-1].set_c


@dataclass(frozen=True)
class Bath:
    """Water around the moulds: ``level_mm`` from the floor of the pan, which is ``pan_mm`` long and
    wide. ``beside``: in a tray of its own, which makes the air moist and touches nothing."""

    level_mm: float
    water_c: float
    covered: bool
    _: KW_ONLY
    water_kg: float
    pan_mm: tuple[float, float]
    beside: bool = False


@dataclass(frozen=True)
class Mould:
    """A custard as the field sees it: a disc or trough of ``fill_mm`` deep and ``half_mm`` from its
    middle to the inside of its wall (or crust). ``times`` is how many such sections one vessel is:
    a trough is one metre long, and a square tin a little more than its disc."""

    section: Section
    half_mm: float
    fill_mm: float
    _: KW_ONLY
    wall: Solid
    wall_mm: float
    crust: Solid | None = None
    crust_mm: float = 0.0
    crust_side: bool = True
    times: float = 1.0

    @property
    def outside_mm(self) -> float:
        """From the middle to the outside of the wall."""
        return self.half_mm + self.wall_mm + (self.crust_mm if self.crust_side else 0.0)

    @property
    def foot_m2(self) -> float:
        """What the whole vessel covers of a pan."""
        half = self.outside_mm / 1000
        return self.times * (math.pi * half * half if self.section == "round" else 2 * half)


def mould_of(
    vessel: Vessel,
    fill_mm: float,
    *,
    crust: str | None = None,
    crust_mm: float | None = None,
) -> Mould:
    """A vessel filled to ``fill_mm`` as the field sees it.

    Straight walls stand for tapering ones at the same volume and depth. A square or oval becomes
    the disc that cools at its rate (equal first eigenvalue: its middle within 0.1 K of the full
    solution for a square, 1 K for one twice as long as wide); a long tin or a ring becomes a
    trough. Raises CraftError for a fill that does not go in.
    """
    if not 3 <= fill_mm <= min(vessel.depth_mm + 1e-6, DEEPEST_MM):
        raise CraftError(
            "fill_mm",
            say("oven.the_custard_stands_3_mm_deep", depth_mm=min(vessel.depth_mm, DEEPEST_MM)),
        )
    area_m2 = vessel.holds_ml(fill_mm / vessel.depth_mm) / fill_mm / 1000
    length, width = vessel.across(fill_mm / vessel.depth_mm / 2)
    wall = solid(vessel.material)
    base = solid(crust) if crust else None
    thick = 0.0 if base is None else (base.mm if crust_mm is None else crust_mm)
    side = crust == "pastry"
    section: Section = "round"
    times = 1.0
    if vessel.shape == "round":
        half = math.sqrt(area_m2 / math.pi) * 1000
    elif vessel.shape == "ring":
        # Brim volume and outer width give the trough: pi (R^2 - r^2) = area.
        outer = vessel.top_mm / 2000
        inner = math.sqrt(max(0.0, outer**2 - area_m2 / math.pi))
        section, half, times = "straight", (outer - inner) * 500, math.pi * (outer + inner)
    else:
        long, short = max(length, width), min(length, width)
        if long > _LONG * short and vessel.shape == "rect":
            section, half, times = "straight", short / 2, long / 1000
        else:
            across = _DISC / math.pi if vessel.shape == "rect" else math.sqrt(2)
            half = across / math.sqrt(1 / long**2 + 1 / short**2) / 2
            times = area_m2 / (math.pi * (half / 1000) ** 2)
    if thick >= half or (side and thick >= 0.8 * half):
        raise CraftError("crust.mm", say("oven.this_crust_leaves_no_room_for"))
    return Mould(
        section, half - (thick if side else 0.0), fill_mm, wall=wall,
        wall_mm=vessel.wall_mm or wall.mm, crust=base, crust_mm=thick, crust_side=side, times=times,
    )  # fmt: skip


@dataclass(frozen=True)
class Cells:
    """How a mould is cut into cells: custard rows and columns, then crust and wall around them."""

    rows: int = 16
    columns: int = 12


@dataclass(frozen=True)
class Body:
    """A mould cut into cells for several depths: the mesh, which cells are custard (rows from
    ``floor``, columns up to ``columns``), and the solids around them."""

    mesh: Mesh
    floor: int
    columns: int
    _: KW_ONLY
    k_solid: Array
    rho_cp_solid: Array
    outside_m: float


def body_of(mould: Mould, depths_mm: Array, cells: Cells) -> Body:
    """Cut a mould into cells at each of ``depths_mm`` (cases,)."""
    cases = len(depths_mm)
    half = mould.half_mm / 1000
    faces_r = list(np.linspace(0, half, cells.columns + 1))
    floors = [mould.wall_mm / 1000]
    solids_r, solids_z = [], [mould.wall]
    if mould.crust is not None and mould.crust_mm > 0:
        floors.append(mould.crust_mm / 1000)
        solids_z.append(mould.crust)
        if mould.crust_side:
            faces_r.append(faces_r[-1] + mould.crust_mm / 1000)
            solids_r.append(mould.crust)
    faces_r.append(faces_r[-1] + mould.wall_mm / 1000)
    solids_r.append(mould.wall)
    base = np.concatenate(([0.0], np.cumsum(floors)))
    r = np.tile(np.array(faces_r), (cases, 1))
    z = np.stack(
        [
            np.concatenate((base, base[-1] + np.linspace(0, d / 1000, cells.rows + 1)[1:]))
            for d in depths_mm
        ]
    )
    mesh = Mesh(mould.section, r, z)
    rows, columns = z.shape[1] - 1, r.shape[1] - 1
    k, rho_cp = np.zeros((rows, columns)), np.zeros((rows, columns))
    for n, material in enumerate(solids_z):
        k[n, :], rho_cp[n, :] = material.k, material.rho * material.cp
    for n, material in enumerate(solids_r):
        # The wall goes down to the floor; the crust only to its own base.
        low = 0 if material is mould.wall else 1
        at = cells.columns + n
        k[low:, at] = material.k
        rho_cp[low:, at] = material.rho * material.cp
    return Body(
        mesh,
        len(solids_z),
        cells.columns,
        k_solid=k,
        rho_cp_solid=rho_cp,
        outside_m=float(faces_r[-1]),
    )
