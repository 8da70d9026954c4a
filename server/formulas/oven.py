"""What the oven and the cold do with a formula: the core's input from a version's content."""

from collections.abc import Sequence
from typing import Literal

from ninja import Schema
from pydantic import Field

from bellcrumb.contract.colds import cool_mix
from bellcrumb.contract.fitting import fit_out
from bellcrumb.contract.open.books import unlearned_min
from bellcrumb.contract.open.cooking import Observations
from bellcrumb.contract.open.food import Mix, understood
from bellcrumb.contract.open.vessels import Vessel, filling_of, vessel_of
from bellcrumb.contract.ovens import bake_mix, choose_mix, convert_mix
from bellcrumb.contract.refits import figures_mix, refit_mix
from bellcrumb.errors import CraftError
from bellcrumb.shapes import FormulaIn, TrayOut
from bellcrumb.shapes.base import MixIn
from bellcrumb.shapes.explain import OvenTold
from bellcrumb.shapes.oven import (
    BakeIn,
    BakeOut,
    BathIn,
    ChooseIn,
    ChooseOut,
    ConvertOut,
    CoolIn,
    CoolOut,
    CrustIn,
    OvenIn,
    RefitOut,
    RuleIn,
    StageIn,
    UnderIn,
)
from bellcrumb.words import say
from formulas.content import Baking, Content, given_of
from kitchen.access import pantry_of, vessels_of
from kitchen.lessons import OF_AN_OVEN, Used, lessons_of
from kitchen.models import Cold, Kitchen, Oven

# The core's fields by the names a version has for them.
_FIELDS = {
    "oven.set_c": "baking.set_c", "oven.stages": "baking.first_c", "mix.temp_c": "baking.poured_c",
    "lines": "lines_text", "mix.lines": "lines_text", "vessel.fill_mm": "fill_pct",
    "fill_mm": "fill_pct", "bath.level": "bath_level", "crust.mm": "baking.crust_mm",
    "within_min": "within_min",
}  # fmt: skip


class StandsIn(Schema):
    """The vessel the custard stands in, for drawing it, mm."""

    name: str
    round: bool
    top_mm: float
    bottom_mm: float
    depth_mm: float
    material: str


class BakePlanOut(Schema):
    """A bake as this kitchen would do it."""

    found: BakeOut
    oven: str
    oven_kind: Literal["static", "fan"]
    offset_k: float
    measured: bool
    vessel: StandsIn
    count: int
    tray: TrayOut | None
    learned: list[Used] = Field(default_factory=list)


class CoolPlanOut(Schema):
    """A cooling as this kitchen would do it."""

    found: CoolOut
    cold: str
    air_c: float
    vessel: StandsIn
    count: int


_KNOWN_SD_K = 4.0  # an oven learned this well is known as one that was walked


def oven_of(kitchen: Kitchen, baking: Baking) -> Oven:
    """The oven chosen, else the kitchen's first, else an ordinary one."""
    ovens = list(Oven.objects.filter(kitchen=kitchen))
    chosen = [oven for oven in ovens if oven.pk == baking.oven_id]
    return [*chosen, *ovens, Oven(name=say("formulas.an_ordinary_oven"), kind="static")][0]


def cold_of(kitchen: Kitchen, baking: Baking) -> Cold:
    """The refrigerator chosen, else the kitchen's first, else an ordinary one."""
    colds = list(Cold.objects.filter(kitchen=kitchen))
    chosen = [cold for cold in colds if cold.pk == baking.cold_id]
    return [*chosen, *colds, Cold(name=say("formulas.a_refrigerator"), kind="fridge")][0]


def filled_of(
    kitchen: Kitchen, content: Content, kind: str | None, own: dict[str, Vessel]
) -> tuple[Mix, Vessel, float, FormulaIn]:
    """The mix, the vessel (of the library or the kitchen's ``own``), its share filled, and the
    whole ask."""
    given = FormulaIn(**given_of(kitchen, content, kind, own))
    mix = understood(given, pantry_of(kitchen))
    if not mix.mass_g:
        raise CraftError("lines_text", say("formulas.there_is_nothing_in_this_formula"))
    if given.vessel is None:
        raise CraftError("vessel_key", say("formulas.choose_what_it_stands_in"))
    vessel = vessel_of(given.vessel, own)
    density = mix.mass_g / mix.volume_ml
    return mix, vessel, filling_of(given, mix.volume_ml).share_of(vessel, density), given


def _stands(vessel: Vessel) -> StandsIn:
    top, bottom = vessel.across(1.0), vessel.across(0.0)
    return StandsIn(
        name=vessel.name, round=vessel.shape in ("round", "ring"), top_mm=top[0],
        bottom_mm=bottom[0], depth_mm=vessel.depth_mm, material=vessel.material,
    )  # fmt: skip


def bake_in(
    kitchen: Kitchen,
    content: Content,
    oven: Oven,
    filled: float,
    given: FormulaIn,
    frames: bool,
    lessons: Sequence[Used] = (),
) -> BakeIn:
    """A bake as the core is asked for it; with ``lessons``, by what was learned of the oven."""
    b = content.baking
    known = {lesson.kind: lesson for lesson in lessons}
    dial = known.get("oven")

    def share(kind: str) -> float:
        return known[kind].value if kind in known else 1.0

    stages = []
    if b.first_c is not None:
        stages = [StageIn(set_c=b.first_c, minutes=b.first_min), StageIn(set_c=b.set_c)]
    bath = None
    if content.bath_level != "none":
        level = float(content.bath_mm) if content.bath_level == "mm" else content.bath_level
        bath = BathIn(level=level, water_c=b.water_c, covered=b.covered)
    assert given.vessel is not None
    return BakeIn(
        mix=MixIn(lines=[], temp_c=b.poured_c),
        family=content.family or None,
        vessel=given.vessel,
        fill=filled,
        count=min(content.vessel_count, 200),
        oven=OvenIn(
            kind=oven.kind,
            set_c=None if stages else b.set_c,
            stages=stages,
            offset_k=float(oven.dial_error_k) + (dial.value if dial else 0.0),
            known=oven.measured or bool(dial and dial.sd < _KNOWN_SD_K),
            film=min(5.0, max(0.2, float(oven.film) * share("film"))),
            vent=min(10.0, max(0.1, float(oven.vent) * share("vent"))),
            recovers=min(5.0, max(0.2, share("recovers"))),
            stand=b.stand,
            preheated=b.preheated,
            door_min=b.door_min,
        ),
        bath=bath,
        tray=given.tray if bath else None,
        crust=UnderIn(mm=b.crust_mm, kind=b.crust) if b.crust else None,
        doneness=b.doneness,
        after=b.after,
        altitude_m=kitchen.altitude_m,
        frames=frames,
    )


def renamed(error: CraftError) -> CraftError:
    """A refusal of the core at the field that a version has for it."""
    return CraftError(_FIELDS.get(error.field, error.field), error.message)


def said_of(lessons: list[Used], asked: BakeIn, found: BakeOut) -> list[Used]:
    """What was learned of the oven, its dial with the minutes before and after it."""
    return [_with_minutes(u, asked, found) if u.kind == "oven" else u for u in lessons]


def _with_minutes(lesson: Used, asked: BakeIn, found: BakeOut) -> Used:
    if found.pull_from_min is None or found.pull_to_min is None or asked.oven.set_c is None:
        return lesson
    here = (found.pull_from_min + found.pull_to_min) / 2
    air = asked.oven.set_c + asked.oven.offset_k
    books = unlearned_min(air, found.set_c, here, lesson.value)
    return lesson.model_copy(update={"here_min": here, "books_min": books})


def bake_of(kitchen: Kitchen, content: Content, kind: str | None, *, frames: bool) -> BakePlanOut:
    """A version's bake. Raises CraftError at a field of the content."""
    oven = oven_of(kitchen, content.baking)
    lessons = lessons_of(kitchen, OF_AN_OVEN, oven.name)
    own = vessels_of(kitchen)
    mix, vessel, share, given = filled_of(kitchen, content, kind, own)
    try:
        asked = bake_in(kitchen, content, oven, share, given, frames, lessons)
        found = bake_mix(mix, asked, [], own)
        fit = fit_out(given, mix.volume_ml, mix.mass_g, own)
    except CraftError as error:
        raise renamed(error) from error
    return BakePlanOut(
        found=found,
        oven=oven.name,
        oven_kind="fan" if oven.kind == "fan" else "static",
        offset_k=asked.oven.offset_k,
        measured=asked.oven.known,
        learned=said_of(lessons, asked, found),
        vessel=_stands(vessel),
        count=content.vessel_count,
        tray=fit.tray if fit else None,
    )


def choose_of(
    kitchen: Kitchen, content: Content, kind: str | None, wish: Literal["even", "long_window"],
    within_min: float,
) -> ChooseOut:  # fmt: skip
    """Which oven and bath for a version. Raises CraftError at a field of the content."""
    oven = oven_of(kitchen, content.baking)
    own = vessels_of(kitchen)
    mix, _, share, given = filled_of(kitchen, content, kind, own)
    lessons = lessons_of(kitchen, OF_AN_OVEN, oven.name)
    asked = bake_in(kitchen, content, oven, share, given, False, lessons)
    try:
        return choose_mix(
            mix,
            ChooseIn(**asked.model_dump(), wish=wish, within_min=within_min),
            own,
        )
    except CraftError as error:
        raise renamed(error) from error


def convert_of(kitchen: Kitchen, content: Content, kind: str | None) -> ConvertOut:
    """A version's bake in the other kind of oven. Raises CraftError at a field of the content."""
    oven = oven_of(kitchen, content.baking)
    own = vessels_of(kitchen)
    mix, _, share, given = filled_of(kitchen, content, kind, own)
    lessons = lessons_of(kitchen, OF_AN_OVEN, oven.name)
    try:
        asked = bake_in(kitchen, content, oven, share, given, False, lessons)
        return convert_mix(mix, asked, own)
    except CraftError as error:
        raise renamed(error) from error


def crust_in(kitchen: Kitchen, content: Content) -> CrustIn:
    """How a crust is asked for."""
    b = content.baking
    oven = oven_of(kitchen, b)
    own = vessels_of(kitchen)
    width = vessel_of(content.vessel_key, own).across(1.0)[0] if content.vessel_key else 230.0
    wet: Literal["wet", "set"] = "wet" if b.goes == "baked_in" else "set"
    return CrustIn(
        lines=[line for line in content.lines_text.split("\n") if line.strip()][:200],
        egg_grade=content.egg_grade, school=b.blind, goes=b.goes, dough_mm=b.dough_mm,
        offset_k=float(oven.dial_error_k), fan=oven.kind == "fan", width_mm=width,
        barrier=b.barrier, wetness=wet, filled_at_c=b.filled_c,
    )  # fmt: skip


def cool_of(kitchen: Kitchen, content: Content, kind: str | None) -> CoolPlanOut:
    """A version put away to get cold. Raises CraftError at a field of the content."""
    b = content.baking
    cold = cold_of(kitchen, b)
    own = vessels_of(kitchen)
    mix, vessel, share, given = filled_of(kitchen, content, kind, own)
    method = {"still": "ice_bath", "stirred": "stirred_ice_bath"}.get(b.ice, cold.kind)
    assert given.vessel is not None
    try:
        found = cool_mix(
            mix,
            CoolIn(
                mix=MixIn(lines=[], temp_c=b.put_away_c),
                vessel=given.vessel,
                fill=share,
                method=method,
                covered=b.film,
                air_c=float(cold.air_c),
                family=content.family or None,
                rule=RuleIn.model_validate(kitchen.cool_rule),
            ),
            [],
            own,
        )
    except CraftError as error:
        raise renamed(error) from error
    return CoolPlanOut(
        found=found, cold=cold.name, air_c=float(cold.air_c), vessel=_stands(vessel),
        count=content.vessel_count,
    )  # fmt: skip


def refit_of(
    kitchen: Kitchen, content: Content, kind: str, told: Observations, *, fresh: bool = False
) -> RefitOut | None:
    """What a bake tells of itself; None while it is too little. ``fresh`` leaves out what was
    learned of the dial, so that it is not learned twice; how the oven blows was learned of other
    bakes, with a probe in the air."""
    oven = oven_of(kitchen, content.baking)
    own = vessels_of(kitchen)
    mix, _, share, given = filled_of(kitchen, content, kind, own)
    kinds = OF_AN_OVEN[1:] if fresh else OF_AN_OVEN
    lessons = lessons_of(kitchen, kinds, oven.name)
    asked = bake_in(kitchen, content, oven, share, given, False, lessons)
    return refit_mix(mix, asked, told, own)


def figures_of(
    kitchen: Kitchen, content: Content, kind: str, told: Observations
) -> OvenTold | None:
    """What a whole bake tells of its oven beside what is written down of it."""
    oven = oven_of(kitchen, content.baking)
    own = vessels_of(kitchen)
    mix, _, share, given = filled_of(kitchen, content, kind, own)
    return figures_mix(mix, bake_in(kitchen, content, oven, share, given, False), told, own)
