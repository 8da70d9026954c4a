"""How many moulds stand in a pan, and how much water the bath takes to the wanted level."""

import math
from dataclasses import KW_ONLY, dataclass
from typing import Literal

from bellcrumb.errors import CraftError
from bellcrumb.vessels.geometry import Vessel
from bellcrumb.words import say

GAP_MM = 10.0  # between moulds, so that water and air reach every wall
BATH_WATER_C = 70.0  # as it stands in the pan after kettle and cold steel; our estimate
RIM_MM = 8.0  # "just under the rim"
LEAST_UNDER_RIM_MM = 4.0  # higher, a step of the carrier floods the moulds; our estimate
_WALL_MM = 3.0  # where no wall is known
_SLOSH_MM = 8.0  # what a pan keeps free above the water, to be carried
Level = Literal["half", "rim"] | float


@dataclass(frozen=True)
class Centre:
    """Where a mould stands, mm from a corner of the pan."""

    x: float
    y: float


@dataclass(frozen=True)
class PanOfMoulds:
    """Moulds in pans. ``centres`` are those of one full pan, lengths and widths a mould's
    outside at its rim."""

    per_pan: int
    pans: int
    last_pan: int
    _: KW_ONLY
    centres: list[Centre]
    turned: bool
    mould_length_mm: float
    mould_width_mm: float
    level_mm: float
    water_ml: float
    warnings: list[str]


def footprint(mould: Vessel) -> tuple[float, float]:
    """The outside length and width of a mould at its rim, mm."""
    wall = 2 * (mould.wall_mm or _WALL_MM)
    length, width = mould.across(1.0)
    return length + wall, width + wall


def displaced_ml(mould: Vessel, level_mm: float) -> float:
    """Water a standing mould pushes aside up to a level: its outside, wall and floor included."""
    wall = mould.wall_mm or _WALL_MM
    height = min(level_mm, mould.depth_mm + wall)

    def section(at_mm: float) -> float:
        length, width = mould.across(min(1.0, max(0.0, (at_mm - wall) / mould.depth_mm)))
        full = (length + 2 * wall) * (width + 2 * wall)
        return full if mould.shape == "rect" else full * math.pi / 4

    return height * (section(0) + 4 * section(height / 2) + section(height)) / 6 / 1000


def _rows(length: float, width: float, l_mm: float, w_mm: float) -> list[tuple[float, float]]:
    """Straight rows of moulds of l by w, spread evenly over a floor of length by width."""
    across = int((length + 1e-6) // (l_mm + GAP_MM)) if length >= l_mm else 0
    along = int((width + 1e-6) // (w_mm + GAP_MM)) if width >= w_mm else 0
    across, along = max(across, int(length >= l_mm)), max(along, int(width >= w_mm))
    return [
        ((i + 0.5) * length / across, (j + 0.5) * width / along)
        for j in range(along)
        for i in range(across)
    ]


def _staggered(length: float, width: float, size: float) -> list[tuple[float, float]]:
    """Round moulds in rows set off by half a step, as many as stand."""
    step, rise = size + GAP_MM, (size + GAP_MM) * math.sqrt(3) / 2
    found, y, odd = [], size / 2, False
    while y + size / 2 <= width + 1e-6:
        x = size / 2 + (step / 2 if odd else 0)
        while x + size / 2 <= length + 1e-6:
            found.append((x, y))
            x += step
        y, odd = y + rise, not odd
    return found


def pack(pan: Vessel, mould: Vessel) -> tuple[list[tuple[float, float]], bool]:
    """Where the moulds stand on the floor of a pan, and whether they are turned across it.

    Round moulds in straight or staggered rows, whichever takes more; those with corners in rows
    along or across. Positions are in mm from a corner of the pan.
    """
    floor = pan.across(0.0)
    rim = pan.across(1.0)
    length, width = ((a + b) / 2 for a, b in zip(floor, rim, strict=True))
    l_mm, w_mm = footprint(mould)
    options = [(_rows(length, width, l_mm, w_mm), False), (_rows(length, width, w_mm, l_mm), True)]
    if mould.shape in ("round", "ring"):
        options.append((_staggered(length, width, l_mm), False))
        options.append(([(y, x) for x, y in _staggered(width, length, l_mm)], False))
    return max(options, key=lambda option: len(option[0]))


def most_in(mould: Vessel, floor_mm: tuple[float, float]) -> int:
    """How many moulds stand on a sheet of this length and width (0: none does)."""
    length, width = floor_mm
    sheet = Vessel(
        "",
        "sheet",
        "rect",
        top_mm=0,
        bottom_mm=0,
        depth_mm=10,
        brim_ml=length * width / 100,
        length_mm=length,
        width_mm=width,
    )
    return len(pack(sheet, mould)[0])


def bath(pan: Vessel, mould: Vessel, count: int, level: Level | None) -> PanOfMoulds:
    """``count`` moulds in as many pans as they need, with water to ``level``.

    ``level`` is half or just under the rim of the mould, or millimetres; None: no water. Water is
    for one full pan: what the pan holds up to the level less what the moulds push aside. Raises
    CraftError for a pan without corners or a mould that does not go in.
    """
    if pan.shape != "rect":
        raise CraftError("tray", say("vessels.moulds_are_set_in_a_pan"))
    centres, turned = pack(pan, mould)
    if not centres:
        raise CraftError("tray", say("vessels.does_not_go_into", mould=mould.name, pan=pan.name))
    per = len(centres)
    pans = math.ceil(count / per)
    last = count - (pans - 1) * per
    centres = centres[: min(per, count)]
    outside = mould.depth_mm + (mould.wall_mm or _WALL_MM)
    warnings: list[str] = []
    level_mm = water = 0.0
    if level is not None:
        named = {"half": outside / 2, "rim": outside - RIM_MM}
        level_mm = named[level] if isinstance(level, str) else float(level)
        if level_mm > outside - LEAST_UNDER_RIM_MM:
            warnings.append(say("vessels.the_water_would_run_into_the"))
            level_mm = outside - LEAST_UNDER_RIM_MM
        highest = pan.depth_mm - _SLOSH_MM
        if level_mm > highest:
            warnings.append(
                say("vessels.is_too_shallow_water_stands_at", pan=pan.name, highest=highest)
            )
            level_mm = highest
        pushed = len(centres) * displaced_ml(mould, level_mm)
        water = max(0.0, pan.holds_ml(level_mm / pan.depth_mm) - pushed)
    length_mm, width_mm = footprint(mould)
    return PanOfMoulds(
        per,
        pans,
        last,
        centres=[Centre(x, y) for x, y in centres],
        turned=turned,
        mould_length_mm=length_mm,
        mould_width_mm=width_mm,
        level_mm=level_mm,
        water_ml=water,
        warnings=warnings,
    )
