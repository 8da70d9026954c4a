"""Minutes of a dessert's steps from the models that exist: its bakes, its colds, its pots.

Remembered by what they were asked: a key typed on the dessert's page works out only what it moved.
"""

import math
from functools import lru_cache

from bellcrumb.dessert.layers import Lain
from bellcrumb.dessert.steps import Timed
from bellcrumb.dessert.tables import rows
from bellcrumb.dessert.works import PartWork
from bellcrumb.errors import CraftError
from bellcrumb.heat.pot import MEDIUM_GAS, SETTINGS
from bellcrumb.mix.composition import Mix
from bellcrumb.planner.build_parts import PartBuilt, Understood
from bellcrumb.shapes import oven as oven_shapes
from bellcrumb.shapes.base import MixIn
from bellcrumb.stove.plan import plan
from bellcrumb.texture.families import family
from bellcrumb.vessels.geometry import Vessel
from bellcrumb.words import say

# The step in which a kind of part is baked in its stand, and the one in which it gets cold.
_BAKES: dict[PartWork, str] = {
    "bath": "bake_bath", "pie": "bake_hot_then", "cheesecake": "bake", "citrus": "bake",
    "batter": "bake_dry",
}  # fmt: skip
_CHILLS: dict[PartWork, str] = {
    "bath": "chill", "pie": "chill", "flan": "chill", "cheesecake": "chill", "citrus": "cool_chill",
    "gelatine": "set", "cold_cheese": "set", "mascarpone": "set", "cremeux": "set",
}  # fmt: skip
_USUAL_OVEN_C = 150.0
_COLD_C = 6.0  # cold enough to cut and to unmould
_FROM_C: dict[PartWork, float] = {
    "gelatine": 25.0,
    "cold_cheese": 18.0,
    "mascarpone": 18.0,
    "cremeux": 40.0,
}
_CHILLED_FROM_C = 35.0  # what a rack leaves
_POURED_C: dict[PartWork, float] = {"bath": 55.0, "pie": 25.0, "cheesecake": 20.0, "citrus": 20.0,
                            "batter": 20.0}  # fmt: skip


def timed_steps(
    found: Understood, lain: list[Lain], vessel: Vessel, count: int
) -> dict[str, Timed]:  # fmt: skip
    """Minutes by step key, for the steps that a model speaks of."""
    out: dict[str, Timed] = {}
    for layer in lain:
        part = found.laid(layer.name)
        if part.bought or layer.name in out:
            continue
        out |= _of_layer(layer, part, vessel, count)
    for name, part in found.parts.items():
        if part.made.kind in ("stirred", "folded", "flan") and part.family and not part.bought:
            minutes = _boil_min(part.mix, part.family.key)
            if minutes:
                said = say("planner.min_to_the_boil_and_held", minutes=minutes)
                out[f"{name}/cook_boil_hold"] = Timed(
                    minutes, None, None, wait_high_min=None, source=said
                )
    return out


def _of_layer(
    layer: Lain, part: PartBuilt, vessel: Vessel, count: int
) -> dict[str, Timed]:  # fmt: skip
    kind: PartWork = part.made.kind
    out: dict[str, Timed] = {}
    mm = round(min(layer.mm, vessel.depth_mm), 1)
    if mm < 3:
        return {}
    bake, chill = _BAKES.get(kind), _CHILLS.get(kind)
    if bake and part.family:
        row = next(r for r in rows()[kind] if r.code == bake)
        times = _bake_min(
            part.mix, part.family.key, vessel, mm, count, kind, row.oven_c or _USUAL_OVEN_C
        )
        if times:
            said = say(
                "planner.the_ovens_model_mm_in_at", mm=mm, vessel=vessel.name, oven_c=row.oven_c
            )
            middle = (times[0] + times[1]) / 2
            out[f"{layer.name}/{bake}"] = Timed(
                None, middle, times[0], wait_high_min=times[1], source=said
            )
    if chill:
        row = next(r for r in rows()[kind] if r.code == chill)
        needs = _chill_min(part.mix, vessel, mm, _FROM_C.get(kind, _CHILLED_FROM_C))
        if needs and needs > row.wait_min:
            said = say("planner.mm_in_are_at_c_then", mm=mm, vessel=vessel.name, cold_c=_COLD_C)
            out[f"{layer.name}/{chill}"] = Timed(
                None, needs, needs, wait_high_min=1.5 * needs, source=said
            )
    return out


@lru_cache(maxsize=512)
def _bake_min(
    mix: Mix, family: str, vessel: Vessel, mm: float, count: int, kind: PartWork, set_c: float
) -> tuple[float, float] | None:
    # The solver's libraries are loaded for those who bake something.
    from bellcrumb.asked.bakes import predicted

    asked = oven_shapes.BakeIn(
        mix=MixIn(lines=[], temp_c=_POURED_C[kind]), family=family,
        vessel="stand", fill=mm / vessel.depth_mm, count=min(count, 200),
        oven=oven_shapes.OvenIn(set_c=set_c), bath=oven_shapes.BathIn() if kind == "bath" else None,
        crust=oven_shapes.UnderIn() if kind == "pie" else None,
    )  # fmt: skip
    try:
        window = predicted(mix, asked, {"stand": vessel})[0].window
    except CraftError:
        return None
    if window.from_min is None or window.to_min is None:
        return None
    return window.from_min, window.to_min


@lru_cache(maxsize=512)
def _chill_min(mix: Mix, vessel: Vessel, mm: float, from_c: float) -> float | None:
    from bellcrumb.cold.cooling import minutes_to
    from bellcrumb.heat.materials import food
    from bellcrumb.oven.scene import mould_of

    found = minutes_to(food(mix), mould_of(vessel, mm), from_c, _COLD_C)
    return found if math.isfinite(found) else None


@lru_cache(maxsize=512)
def _boil_min(mix: Mix, family_key: str) -> float | None:
    """Minutes at the ring: from the tempered mix to the boil, with its hold."""
    try:
        made = plan(mix, family(family_key), MEDIUM_GAS, setting=SETTINGS["medium"])
    except CraftError:
        return None
    run = made.cook_run or made.heat_run
    hold = max((s.hold_s for s in made.steps if s.kind in ("cook", "heat")), default=0)
    return (run.reaches_s + hold) / 60 if run.reaches_s else None
