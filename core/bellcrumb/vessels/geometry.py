"""Vessel geometry: capacity at a fill, and how many of them a mix fills."""

import csv
import math
from dataclasses import KW_ONLY, dataclass
from functools import cache
from importlib.resources import files
from typing import Literal

from bellcrumb.errors import CraftError
from bellcrumb.vessels.materials import MATERIALS, Material, material_named
from bellcrumb.words import say

VesselShape = Literal["round", "rect", "oval", "ring"]


@dataclass(frozen=True)
class Vessel:
    """A vessel by its inside measures in mm. ``brim_ml`` is the authority on what it holds.

    Vessels with corners have ``length_mm``/``width_mm`` at the top and the same at the bottom.
    ``kind`` is the sort of vessel it is looked for under.
    """

    key: str
    name: str
    shape: VesselShape
    _: KW_ONLY
    top_mm: float
    bottom_mm: float
    depth_mm: float
    brim_ml: float
    length_mm: float = 0.0
    width_mm: float = 0.0
    material: Literal[Material, ""] = ""
    bottom_length_mm: float = 0.0
    bottom_width_mm: float = 0.0
    wall_mm: float = 0.0
    kind: str = ""

    def across(self, height: float) -> tuple[float, float]:
        """Inside length and width (mm) at a share of the depth, 0 the floor and 1 the rim."""
        if self.top_mm:
            at = self.bottom_mm + (self.top_mm - self.bottom_mm) * height
            return at, at
        low = (self.bottom_length_mm or self.length_mm, self.bottom_width_mm or self.width_mm)
        return (
            low[0] + (self.length_mm - low[0]) * height,
            low[1] + (self.width_mm - low[1]) * height,
        )

    def _below(self, height: float) -> float:
        """Volume below a height in arbitrary units: the section is a square of the height, so
        that Simpson's rule over floor, middle and top is exact."""
        sections = (math.prod(self.across(h)) for h in (0.0, height / 2, height))
        floor, middle, top = sections
        return height * (floor + 4 * middle + top) / 6

    def holds_ml(self, fill: float) -> float:
        """Millilitres when filled to a fraction (0-1] of its depth; the walls' taper counts.

        Raises CraftError for a fill outside (0, 1].
        """
        if not 0 < fill <= 1:
            raise CraftError("fill", say("vessels.fill_is_a_share_of_the"))
        return self.brim_ml * self._below(fill) / self._below(1.0)

    def level_of(self, ml: float) -> float:
        """The share of the depth that ``ml`` reaches. Raises CraftError when it runs over."""
        if not 0 < ml <= self.brim_ml * (1 + 1e-9):
            raise CraftError(
                "fill", say("vessels.it_runs_over_holds_ml", self=self.name, brim_ml=self.brim_ml)
            )
        low, high = 0.0, 1.0
        for _ in range(40):
            middle = (low + high) / 2
            low, high = (middle, high) if self.holds_ml(middle) < ml else (low, middle)
        return high


@dataclass(frozen=True)
class Filling:
    """How full: ``all`` of the batch (``value`` ml in each), a ``share`` of the depth, mm
    ``below_rim``, or a ``weight`` in grams in each."""

    by: Literal["all", "share", "below_rim", "weight"]
    value: float

    def share_of(self, vessel: Vessel, density_g_per_ml: float) -> float:
        """The share of the depth it comes to in a vessel. Raises CraftError where it cannot."""
        if self.by == "all":
            return 1.0 if self.value >= vessel.brim_ml else vessel.level_of(max(self.value, 1e-6))
        if self.by == "share":
            return self.value
        if self.by == "below_rim":
            if not 0 <= self.value < vessel.depth_mm:
                raise CraftError(
                    "below_rim_mm",
                    say("vessels.is_only_mm_deep", vessel=vessel.name, depth_mm=vessel.depth_mm),
                )
            return 1 - self.value / vessel.depth_mm
        brim_g = vessel.brim_ml * density_g_per_ml
        if self.value > brim_g:
            raise CraftError(
                "portion_g",
                say("vessels.holds_g_of_this_to_the", vessel=vessel.name, brim_g=brim_g),
            )
        return vessel.level_of(self.value / density_g_per_ml)


def vessel_from_measures(
    shape: VesselShape,
    depth_mm: float,
    *,
    top_mm: float = 0.0,
    bottom_mm: float = 0.0,
    length_mm: float = 0.0,
    width_mm: float = 0.0,
    flute_mm: float = 0.0,
    brim_ml: float | None = None,
    key: str = "own",
    name: str = say("vessels.own_vessel"),
    material: str = "",
    wall_mm: float = 0.0,
) -> Vessel:
    """A vessel from its measures; the brim follows from geometry unless it was measured.

    ``material`` is what a kitchen calls it; of one nobody said, walls count as porcelain.
    ``flute_mm`` is how deep the flutes of a round wall cut in: a wave of that depth around a mean
    radius, whose area is pi (r^2 + a^2/2) with amplitude a. Raises CraftError for a missing or
    impossible measure.
    """
    made_of = material_named(material) if material else ""
    if made_of is None:
        known = ", ".join(MATERIALS)
        raise CraftError(
            "material", say("vessels.no_wall_is_known_of", material=material, known=known)
        )
    if not 1 <= depth_mm <= 400:
        raise CraftError("depth_mm", say("vessels.a_vessel_is_between_1_and"))
    if shape in ("round", "ring"):
        if not 10 <= top_mm <= 900:
            raise CraftError("top_diameter_mm", say("vessels.a_round_vessel_is_10_to"))
        bottom_mm = bottom_mm or top_mm
        if bottom_mm > 1.5 * top_mm:
            raise CraftError("bottom_diameter_mm", say("vessels.the_bottom_is_much_wider_than"))
        if not 0 <= flute_mm <= min(top_mm, bottom_mm) / 4:
            raise CraftError("flute_mm", say("vessels.flutes_cut_in_less_than_a"))
        ideal = math.pi * depth_mm / 12 * (top_mm**2 + top_mm * bottom_mm + bottom_mm**2) / 1000
        middle = (top_mm + bottom_mm) / 4
        wave = flute_mm / 2
        ideal *= ((middle - wave) ** 2 + wave**2 / 2) / middle**2
        length_mm = width_mm = 0.0
    else:
        if length_mm <= 0 or width_mm <= 0:
            raise CraftError("length_mm", say("vessels.a_tin_with_corners_needs_its"))
        if max(length_mm, width_mm) > 900:
            raise CraftError("length_mm", say("vessels.a_tin_is_at_most_900"))
        ideal = length_mm * width_mm * depth_mm / 1000
        if shape == "oval":
            ideal *= math.pi / 4
        top_mm = bottom_mm = 0.0
    return Vessel(
        key, name, shape, top_mm=top_mm, bottom_mm=bottom_mm, depth_mm=depth_mm,
        brim_ml=brim_ml or ideal, length_mm=length_mm, width_mm=width_mm,
        material=made_of, wall_mm=wall_mm,
    )  # fmt: skip


@cache
def library() -> dict[str, Vessel]:
    """Every vessel that ships, by key."""
    text = files("bellcrumb.vessels").joinpath("data/vessels.csv").read_text("utf8")
    found = {}
    for row in csv.DictReader(text.splitlines()):
        size = {
            field: float(row[field] or 0)
            for field in (
                "depth_mm", "brim_ml", "length_mm", "width_mm", "bottom_length_mm",
                "bottom_width_mm", "wall_mm",
            )
        }  # fmt: skip
        top = float(row["top_diameter_mm"] or 0)
        found[row["key"]] = Vessel(
            key=row["key"],
            name=say(row["name"]),
            shape=row["shape"],  # type: ignore[arg-type]
            top_mm=top,
            bottom_mm=float(row["bottom_diameter_mm"] or top),
            material=material_named(row["material"]) or "",
            kind=row["kind"],
            **size,
        )
    return found


@dataclass(frozen=True)
class Fit:
    """What a batch fills: each vessel's share, how many full ones, and what is over or short."""

    per_vessel_ml: float
    fills: int
    wanted: int
    _: KW_ONLY
    left_over_ml: float
    short_ml: float

    @property
    def factor(self) -> float:
        """What to multiply the batch by to fill exactly the wanted number."""
        have = self.wanted * self.per_vessel_ml + self.left_over_ml - self.short_ml
        return self.wanted * self.per_vessel_ml / have if have > 0 else 0.0


def fit(volume_ml: float, vessel: Vessel, fill: float, count: int) -> Fit:
    """How ``volume_ml`` goes into ``count`` vessels filled to ``fill`` of their depth.

    Raises CraftError for a count below 1.
    """
    if count < 1:
        raise CraftError("count", say("vessels.how_many_at_least_one_vessel"))
    each = vessel.holds_ml(fill)
    wanted = each * count
    return Fit(
        each,
        int(volume_ml / each + 1e-9),
        count,
        left_over_ml=max(0.0, volume_ml - wanted),
        short_ml=max(0.0, wanted - volume_ml),
    )
