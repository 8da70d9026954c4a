"""Moulds, tins, trays: what the server may know of them."""

from bellcrumb.vessels.geometry import Vessel, library, vessel_from_measures
from bellcrumb.vessels.tray import BATH_WATER_C

__all__ = ["BATH_WATER_C", "Vessel", "library", "vessel_from_measures"]
