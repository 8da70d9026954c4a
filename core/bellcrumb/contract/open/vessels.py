"""Moulds, tins, trays: what the server may know of them."""

from bellcrumb.asked.vessels import filling_of, vessel_of
from bellcrumb.vessels.geometry import Vessel, library, vessel_from_measures
from bellcrumb.vessels.materials import Material
from bellcrumb.vessels.tray import BATH_WATER_C

__all__ = [
    "BATH_WATER_C", "Material", "Vessel", "filling_of", "library", "vessel_from_measures",
    "vessel_of",
]  # fmt: skip
