"""The room inside a stand: what a millimetre of height holds, with what lines it taken off."""

import math
from dataclasses import dataclass, replace

from bellcrumb.vessels.geometry import Vessel


@dataclass(frozen=True)
class Room:
    """What is free in a vessel: ``wall_mm`` and ``floor_mm`` are taken by what lines it.

    Heights are mm above the vessel's own floor. Above the rim it goes straight up, which is how a
    cream stands over it.
    """

    vessel: Vessel
    wall_mm: float = 0.0
    floor_mm: float = 0.0

    def area_mm2(self, height_mm: float) -> float:
        """The free section at a height."""
        vessel = self.vessel
        share = min(1.0, max(0.0, height_mm / vessel.depth_mm))
        a, b = (max(0.0, each - 2 * self.wall_mm) for each in vessel.across(share))
        return a * b * _roundness(vessel)

    def volume_ml(self, from_mm: float, to_mm: float) -> float:
        """What lies between two heights; exact below the rim, for a section is a square of the
        height (Simpson's rule)."""
        rim = self.vessel.depth_mm
        if from_mm < rim < to_mm:
            return self.volume_ml(from_mm, rim) + self.volume_ml(rim, to_mm)
        sections = [self.area_mm2(h) for h in (from_mm, (from_mm + to_mm) / 2, to_mm)]
        return (to_mm - from_mm) * (sections[0] + 4 * sections[1] + sections[2]) / 6000

    def reaches_mm(self, from_mm: float, ml: float) -> float:
        """The height ``ml`` comes to from a height on."""
        if ml <= 0:
            return from_mm
        low, high = from_mm, from_mm + 1.0
        while self.volume_ml(from_mm, high) < ml and high < 10_000:
            high = from_mm + 2 * (high - from_mm)
        for _ in range(50):
            middle = (low + high) / 2
            low, high = (middle, high) if self.volume_ml(from_mm, middle) < ml else (low, middle)
        return high

    def side_mm2(self, from_mm: float, to_mm: float) -> float:
        """The wall's area between two heights (a cone's or a pyramid's slant counted)."""
        around = []
        for h in (from_mm, to_mm):
            a, b = (
                each - 2 * self.wall_mm for each in self.vessel.across(h / self.vessel.depth_mm)
            )
            around.append(2 * (a + b) if self.vessel.shape == "rect" else math.pi * (a + b) / 2)
        out = abs(self.vessel.across(1.0)[0] - self.vessel.across(0.0)[0]) / 2
        slant = math.hypot(to_mm - from_mm, out * (to_mm - from_mm) / self.vessel.depth_mm)
        return slant * sum(around) / 2

    def lined(self, mm: float, *, walls: bool) -> "Room":
        """The room left with ``mm`` on its floor, and on its walls where ``walls``."""
        return replace(
            self, wall_mm=self.wall_mm + (mm if walls else 0.0), floor_mm=self.floor_mm + mm
        )


def _roundness(vessel: Vessel) -> float:
    """What the product of length and width comes to in area, so that the brim is what it holds."""
    box = vessel.depth_mm * sum(
        w * math.prod(vessel.across(h)) for h, w in ((0.0, 1), (0.5, 4), (1.0, 1))
    )
    return 6000 * vessel.brim_ml / box
