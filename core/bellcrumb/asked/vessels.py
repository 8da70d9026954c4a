"""Vessels as they are asked, and how full."""

from bellcrumb import shapes
from bellcrumb.errors import CraftError
from bellcrumb.vessels.geometry import Filling, Vessel, library, vessel_from_measures
from bellcrumb.words import say


def vessel_of(
    given: "str | shapes.VesselIn", own: dict[str, Vessel] | None = None, field: str = "vessel"
) -> Vessel:
    """A vessel by key or by measures. Raises CraftError for one that is unknown or impossible."""
    if isinstance(given, str):
        found = (own or {}).get(given) or library().get(given)
        if not found:
            raise CraftError(field, say("asked.is_no_vessel_of_the_library", given=given))
        return found
    try:
        return vessel_from_measures(
            given.shape,
            given.depth_mm,
            top_mm=given.top_diameter_mm,
            bottom_mm=given.bottom_diameter_mm,
            length_mm=given.length_mm,
            width_mm=given.width_mm,
            flute_mm=given.flute_mm,
            brim_ml=given.brim_ml,
            name=given.name,
            material=given.material,
            wall_mm=given.wall_mm,
        )
    except CraftError as error:
        raise CraftError(f"{field}.{error.field}", error.message) from error


def filling_of(given: shapes.FormulaIn, volume_ml: float) -> Filling:
    """How full the vessels are asked to be; ``volume_ml`` is the batch, for all of it."""
    value = {
        "all": volume_ml / given.count, "share": given.fill, "below_rim": given.below_rim_mm,
        "weight": given.portion_g,
    }  # fmt: skip
    return Filling(given.fill_by, value[given.fill_by])
