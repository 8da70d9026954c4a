"""What a version says: its lines, where it goes and how it is cooked, in and out."""

from typing import Annotated, Any, Literal, cast
from uuid import UUID

from ninja import Schema
from pydantic import Field

from bellcrumb.contract.bend import bend
from bellcrumb.contract.formulas import formula, scale
from bellcrumb.contract.open.cooking import After, School, usual
from bellcrumb.contract.open.food import (
    COOLING,
    MOST_LINES,
    Doneness,
    Line,
    Measures,
    Plane,
    egg_grade,
    family,
    understand_all,
)
from bellcrumb.contract.open.vessels import BATH_WATER_C, Vessel, library, vessel_of
from bellcrumb.errors import CraftError
from bellcrumb.shapes import (
    FormulaIn,
    FormulaOut,
    ScaleBy,
    ScaleIn,
    ScaleOut,
    SolveIn,
    SolveOut,
    WishesIn,
)
from bellcrumb.words import say
from formulas.models import Version
from kitchen.access import pantry_of, prices_of, vessels_of
from kitchen.lessons import line_shifts, set_shifts
from kitchen.models import Kitchen, Ring

RowId = Annotated[int, Field(ge=0, le=2**62)]


class Baking(Schema):
    """How it is baked and cooled: the oven and its dial, the water, what is looked for, and where
    it goes to get cold."""

    oven_id: RowId | None = Field(default=None, description="null: the kitchen's first")
    set_c: float = Field(default=160, ge=60, le=320)
    first_c: float | None = Field(default=None, ge=60, le=320, description="hot at first")
    first_min: float = Field(default=15, ge=1, le=240)
    water_c: float = Field(default=BATH_WATER_C, ge=0, le=100)
    covered: bool = False
    stand: Literal["rack", "deck"] = "rack"
    preheated: bool = True
    poured_c: float | None = Field(default=None, ge=0, le=75, description="null: not measured")
    door_min: list[float] = Field(default_factory=list, max_length=30)
    doneness: Doneness | None = None  # as its family is usually judged
    after: After = "rack"
    crust: Literal["", "pastry", "crumb"] = ""
    crust_mm: float = Field(default=5, ge=1, le=20)
    dough_mm: float | None = Field(
        default=None, ge=1, le=30, description="as it is rolled; null: the usual of its dough"
    )
    blind: Literal["weights", "frozen", "hot_start", "crumb"] = "weights"
    goes: Literal["baked_in", "cold_filling", "hot_filling"] = "cold_filling"
    barrier: Literal["none", "egg_wash", "butter", "chocolate"] = "none"
    filled_c: float = Field(default=5, ge=-5, le=100)
    cold_id: RowId | None = Field(default=None, description="null: the kitchen's first")
    ice: Literal["", "still", "stirred"] = ""
    film: bool = True
    put_away_c: float = Field(default=COOLING.from_c, ge=5, le=100)


class Content(Schema):
    """Everything a cook can change about a version."""

    lines_text: str = Field(default="", max_length=20_000)
    egg_grade: str = Field(default="US large", max_length=40)
    family: str = Field(default="", max_length=40, description="empty: guessed from the lines")
    beaten: Literal["", "yes", "no"] = Field(
        default="", description="worked smooth after it set; empty: not said"
    )
    vessel_key: str = Field(default="", max_length=60, description="empty: no vessel chosen")
    vessel_count: int = Field(default=8, ge=1, le=2000)
    fill_by: Literal["all", "share", "below_rim", "weight"] = "share"
    fill_pct: int = Field(default=90, ge=1, le=100)
    below_rim_mm: int = Field(default=5, ge=0, le=400)
    portion_g: int = Field(default=100, ge=1, le=100_000)
    rest_vessel_key: str = Field(default="", max_length=60, description="empty: no second vessel")
    portions_per_vessel: int = Field(default=1, ge=1, le=500)
    overrun_pct: int = Field(default=0, ge=0, le=500)
    tray_key: str = Field(default="", max_length=60, description="empty: no tray")
    bath_level: Literal["none", "half", "rim", "mm", "beside"] = "none"
    bath_mm: int = Field(default=20, ge=1, le=400)
    school: School = "hot_into_eggs"
    ring_id: RowId | None = None
    heat_setting_pct: int = Field(default=round(100 * usual.HEAT_SETTING), ge=1, le=100)
    cook_setting_pct: int = Field(default=round(100 * usual.COOK_SETTING), ge=1, le=100)
    ladle_ml: int = Field(default=round(usual.LADLE_ML), ge=5, le=2000)
    hot_c: float = Field(default=usual.HOT_C, ge=20, le=105)
    eggs_c: float = Field(default=usual.EGGS_C, ge=-2, le=60)
    held_back_ml: int = Field(default=round(usual.HELD_BACK_ML), ge=0, le=20_000)
    method: Literal["", "italian", "swiss", "french"] = Field(
        default="", description="of a meringue"
    )
    target_c: float = Field(default=0, ge=0, le=200, description="of a syrup; 0: the usual one")
    baking: Baking = Field(default_factory=Baking)
    note: str = Field(default="", max_length=8_000)


class Conditions(Schema):
    """What differs at the stove today and is no change of the formula; null: as written."""

    ring_id: RowId | None = None
    heat_setting_pct: int | None = Field(default=None, ge=1, le=100)
    cook_setting_pct: int | None = Field(default=None, ge=1, le=100)
    ladle_ml: int | None = Field(default=None, ge=5, le=2000)
    hot_c: float | None = Field(default=None, ge=20, le=105)
    eggs_c: float | None = Field(default=None, ge=-2, le=60)
    held_back_ml: int | None = Field(default=None, ge=0, le=20_000)
    egg_grade: str | None = Field(default=None, max_length=40, description="the eggs there are")
    baking: Baking | None = None


VESSEL_FIELDS = ("vessel_key", "rest_vessel_key", "tray_key")
FIELDS = tuple(Content.model_fields)


def understood(kitchen: Kitchen, saved: Content | Version) -> list[Line | None]:
    """Its lines as this kitchen reads them: its pantry, its cups, the eggs it was written for."""
    return understand_all(
        saved.lines_text.split("\n"),
        pantry_of(kitchen),
        egg_grade(saved.egg_grade),
        cast(Measures, kitchen.measures),
    )


def content_of(version: Version) -> Content:
    """The content of a stored version."""
    return Content(
        **{f: getattr(version, f) for f in FIELDS if f not in ("hot_c", "eggs_c", "target_c")},
        target_c=float(version.target_c),
        hot_c=float(version.hot_c),
        eggs_c=float(version.eggs_c),
    )


def check(kitchen: Kitchen, content: Content) -> None:
    """Raise CraftError at the field that names something this kitchen does not have."""
    content.egg_grade = egg_grade(content.egg_grade).label
    if content.family:
        family(content.family)
    own = vessels_of(kitchen)
    for field in VESSEL_FIELDS:
        if key := getattr(content, field):
            vessel_of(key, own, field)
    if content.ring_id is not None:
        ring_of(kitchen, content)


def ring_of(kitchen: Kitchen, content: Content) -> Ring:
    """The ring chosen, or the kitchen's first. Raises CraftError when there is none."""
    rings = Ring.objects.filter(kitchen=kitchen)
    ring = rings.first() if content.ring_id is None else rings.filter(pk=content.ring_id).first()
    if ring is None:
        raise CraftError("ring_id", say("formulas.this_ring_is_not_in_the"))
    return ring


def beaten_of(content: Content) -> bool | None:
    """Whether it is beaten after it set; None where nobody said."""
    return {"yes": True, "no": False}.get(content.beaten)


def lines_of(kitchen: Kitchen, content: Content) -> dict[str, Any]:
    """The lines of a version and how its eggs and cups are meant, as the core's input."""
    lines = content.lines_text.split("\n")
    if len(lines) > MOST_LINES:
        raise CraftError(
            "lines_text",
            say("formulas.at_most_lines_these_are", most_lines=MOST_LINES, lines=len(lines)),
        )
    return {
        "lines": lines,
        "egg_grade": content.egg_grade,
        "measures": kitchen.measures,
    }


def given_of(
    kitchen: Kitchen, content: Content, kind: str | None = None,
    own: dict[str, Vessel] | None = None,
) -> dict[str, Any]:  # fmt: skip
    """A version's content as the core's input; a vessel that is gone is left out. ``own`` are the
    kitchen's vessels, where they are at hand already."""
    own = vessels_of(kitchen) if own is None else own
    there = {f: key for f in VESSEL_FIELDS if (key := getattr(content, f)) in own | library()}
    return {
        **lines_of(kitchen, content),
        "family": content.family or None,
        "beaten": beaten_of(content),
        "vessel": there.get("vessel_key"),
        "count": content.vessel_count,
        "fill_by": content.fill_by,
        "fill": content.fill_pct / 100,
        "below_rim_mm": content.below_rim_mm,
        "portion_g": content.portion_g,
        "rest_vessel": there.get("rest_vessel_key"),
        "portions_per_vessel": content.portions_per_vessel,
        "overrun_pct": content.overrun_pct,
        "tray": there.get("tray_key"),
        "bath_level": content.bath_mm if content.bath_level == "mm" else content.bath_level,
        "part_kind": kind,
        "prices": prices_of(kitchen),
        "egg_spare_pct": kitchen.egg_spare_pct,
        "altitude_m": kitchen.altitude_m,
        "set_shifts": set_shifts(kitchen),
        "line_shifts": line_shifts(kitchen),
    }


def formula_of(
    kitchen: Kitchen, content: Content, kind: str | None = None, plane: Plane = "starch_egg"
) -> FormulaOut:
    """The whole answer for a version's content. Raises CraftError at a field of the content."""
    given = FormulaIn(**given_of(kitchen, content, kind), plane=plane)
    return formula(given, pantry_of(kitchen), vessels_of(kitchen))


def scale_of(kitchen: Kitchen, content: Content, by: ScaleBy, value: float) -> ScaleOut:
    """More or less of a version. Raises CraftError where it cannot be scaled as asked."""
    given = ScaleIn(**given_of(kitchen, content), by=by, value=value)
    return scale(given, pantry_of(kitchen), vessels_of(kitchen))


def solve_of(kitchen: Kitchen, content: Content, wishes: WishesIn) -> SolveOut:
    """A version bent to wishes. Raises CraftError for what makes no sense to wish."""
    given = SolveIn(**given_of(kitchen, content), wishes=wishes)
    return bend(given, pantry_of(kitchen))


class VersionOut(Content):
    """A stored version."""

    id: UUID
    part_id: UUID
    number: int
    revision: int
    cooked: bool
    saved_by: str | None
    batches: int


def version_out(version: Version, batches: int | None = None) -> VersionOut:
    """A version as the front end sees it."""
    return VersionOut(
        **content_of(version).dict(),
        id=version.id,
        part_id=version.part_id,
        number=version.number,
        revision=version.revision,
        cooked=version.cooked_at is not None,
        saved_by=version.saved_by.name if version.saved_by else None,
        batches=version.batches.count() if batches is None else batches,
    )
