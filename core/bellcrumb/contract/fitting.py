"""What a batch fills, and the tray it stands in, from the asked vessels to the output shapes."""

from bellcrumb import shapes
from bellcrumb.asked.vessels import filling_of, vessel_of
from bellcrumb.vessels.geometry import Filling, Vessel, fit
from bellcrumb.vessels.tray import bath
from bellcrumb.words import say


def fit_out(
    given: shapes.FormulaIn, volume_ml: float, mass_g: float, own: dict[str, Vessel] | None
) -> shapes.FitOut | None:
    """How the batch goes into the vessels asked for; None when none was.

    Raises CraftError for a vessel or tray that is unknown or does not take it.
    """
    if given.vessel is None or volume_ml <= 0:
        return None
    vessel = vessel_of(given.vessel, own)
    density = mass_g / volume_ml
    filling = filling_of(given, volume_ml)
    share = filling.share_of(vessel, density)
    result = fit(volume_ml, vessel, share, given.count)
    rest = None
    if given.rest_vessel is not None and result.left_over_ml > 1:
        other = vessel_of(given.rest_vessel, own, "rest_vessel")
        more = fit(result.left_over_ml, other, _rest_share(filling, other, density), 1)
        rest = shapes.RestOut(
            vessel=other.name,
            vessel_key=other.key,
            per_vessel_ml=more.per_vessel_ml,
            fills=more.fills,
            left_over_ml=result.left_over_ml - more.fills * more.per_vessel_ml,
        )
    return shapes.FitOut(
        vessel=vessel.name,
        vessel_key=vessel.key,
        shape=vessel.shape,
        top_mm=vessel.across(1.0)[0],
        bottom_mm=vessel.across(0.0)[0],
        width_mm=vessel.across(1.0)[1],
        depth_mm=vessel.depth_mm,
        per_vessel_ml=result.per_vessel_ml,
        per_vessel_g=result.per_vessel_ml * density,
        brim_ml=vessel.brim_ml,
        fill=share,
        count=given.count,
        fills=result.fills,
        left_over_ml=result.left_over_ml,
        short_ml=result.short_ml,
        factor=result.factor,
        advice=_advice(result.left_over_ml, result.per_vessel_ml, vessel, rest),
        rest=rest,
        tray=_tray_out(given, vessel, own) if given.tray is not None else None,
    )


def _rest_share(filling: Filling, vessel: Vessel, density: float) -> float:
    """How full the vessels for the rest are: as the first, or nearly full where all went in."""
    return 0.9 if filling.by == "all" else filling.share_of(vessel, density)


def _advice(over_ml: float, each_ml: float, vessel: Vessel, rest: shapes.RestOut | None) -> str:
    """What to do with what is left over."""
    if rest:
        over_ml = rest.left_over_ml
        each_ml = rest.per_vessel_ml
    if over_ml <= 1:
        return ""
    if over_ml >= each_ml:
        more = int(over_ml / each_ml + 1e-9)
        name = rest.vessel if rest else vessel.name
        return say("contract.enough_for_more", more=more, name=name)
    if over_ml < 0.12 * each_ml:
        return say("contract.a_spoonful_the_cooks_taste_cooked")
    highest = vessel.brim_ml if not rest else 0.0
    if highest and each_ml + over_ml <= highest and over_ml < 0.3 * each_ml:
        return say("contract.not_enough_for_one_more_a")
    return say("contract.not_enough_for_one_more_cook")


def _tray_out(
    given: shapes.FormulaIn, vessel: Vessel, own: dict[str, Vessel] | None
) -> shapes.TrayOut:
    assert given.tray is not None
    pan = vessel_of(given.tray, own, "tray")
    around = given.bath_level
    level = None if around == "none" or around == "beside" else around  # noqa: PLR1714 (narrows)
    stood = bath(pan, vessel, given.count, level)
    length, width = ((a + b) / 2 for a, b in zip(pan.across(0.0), pan.across(1.0), strict=True))
    return shapes.TrayOut(
        **vars(stood),
        pan=pan.name,
        pan_key=pan.key,
        length_mm=length,
        width_mm=width,
        depth_mm=pan.depth_mm,
        round=vessel.shape != "rect",
    )
