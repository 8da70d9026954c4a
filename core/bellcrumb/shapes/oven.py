"""Bakes and coolings."""

from dataclasses import KW_ONLY, dataclass
from typing import Annotated, Literal

from pydantic import Field

from bellcrumb.laws.safety import COOLING
from bellcrumb.oven.crust import BlindBake, CrustSchool
from bellcrumb.oven.fitted import OvenCalibration, Refit
from bellcrumb.oven.school import After
from bellcrumb.reasons import Reason
from bellcrumb.shapes.base import LineIn, MixIn, Shape, Strict
from bellcrumb.shapes.fit import VesselIn
from bellcrumb.texture.families import Doneness
from bellcrumb.vessels.tray import BATH_WATER_C

OvenCelsius = Annotated[float, Field(ge=60, le=320)]


class FilledIn(VesselIn):
    """A vessel and how far the custard stands in it: one of the two, or all of it."""

    fill_mm: float | None = Field(None, gt=0, le=400)
    fill_ml: float | None = Field(None, gt=0, le=100_000)


class StageIn(Strict):
    """A dial setting, and for how long (the last one to the end)."""

    set_c: OvenCelsius
    minutes: float | None = Field(None, gt=0, le=600)


class OvenIn(Strict):
    """An oven; ``offset_k`` is what it really is above its dial (negative: cooler), ``known`` that
    this was measured."""

    kind: Literal["static", "fan"] = "static"
    set_c: OvenCelsius | None = None
    stages: list[StageIn] = Field(default_factory=list, max_length=6)
    offset_k: float = Field(0, ge=-80, le=80)
    known: bool = False
    film: float = Field(1, ge=0.2, le=5, description="how hard its air blows, of an ordinary one")
    vent: float = Field(1, ge=0.1, le=10, description="how fast its steam leaves, likewise")
    recovers: float = Field(
        1, ge=0.2, le=5, description="how fast its air comes back to the dial, likewise"
    )
    stand: Literal["rack", "deck"] = "rack"
    preheated: bool = True
    door_min: list[Annotated[float, Field(ge=0, le=600)]] = Field(
        default_factory=list, max_length=30, description="minutes at which the door is opened"
    )


class BathIn(Strict):
    """The water: level from the pan's floor, as poured, and whether foil covers the whole pan.
    ``beside``: in a tray of its own, for moist air; it touches no mould."""

    level: Literal["half", "rim", "beside"] | Annotated[float, Field(gt=0, le=300)] = "half"
    water_c: float = Field(BATH_WATER_C, ge=0, le=100)
    covered: bool = False


class UnderIn(Strict):
    """A crust under (and for pastry around) the custard, baked already."""

    mm: float | None = Field(None, gt=0, le=30)
    kind: Literal["pastry", "crumb"] = "pastry"


class BakeIn(Strict):
    """Ask for a bake. ``mix.temp_c`` is the temperature it is poured at; left out it is taken as 20
    and the answer is less sure."""

    mix: MixIn
    family: str | None = None
    vessel: FilledIn | str
    fill: float | None = Field(
        None, gt=0, le=1, description="share of the depth, for a vessel by key; null: all of it"
    )
    count: int = Field(1, ge=1, le=200)
    oven: OvenIn
    bath: BathIn | None = None
    tray: str | VesselIn | None = Field(None, description="the pan of the bath")
    crust: UnderIn | None = None
    doneness: Doneness | None = Field(
        None, description="the sign it is pulled by; null: as its family is usually judged"
    )
    after: After = "rack"
    altitude_m: float = Field(0, ge=-400, le=5000)
    frames: bool = Field(False, description="also the cut-open mould through time")


class BakePoint(Shape):
    """A minute of the bake."""

    t_min: float
    centre_c: float
    edge_c: float
    unset_diameter_mm: float
    least_set: float
    bath_c: float | None
    oven_c: float


class PullOut(Shape):
    """When a school's sign shows; null when it does not within four hours, or for a firmer school
    than the one asked for, which is not followed so far."""

    doneness: Doneness
    from_min: float | None
    to_min: float | None
    from_low_min: float | None
    from_high_min: float | None
    to_low_min: float | None
    to_high_min: float | None
    sign: str


class FrameOut(Shape):
    """The cut-open mould at a moment: rows from the floor up, columns from the axis out. degC and
    set and overdone shares in hundredths, whole numbers; no rows where nothing is overdone."""

    t_min: float
    out: bool
    temp_c: list[list[int]]
    set_pct: list[list[int]]
    over_pct: list[list[int]]
    unset_diameter_mm: float


class DriverOut(Shape):
    """What moves the answer, and by how many minutes."""

    what: str
    minutes: float


class BakeOut(Shape):
    """The bake. ``pull_from_min`` to ``pull_to_min`` is the window of the doneness asked for, the
    rest at its middle."""

    doneness: Doneness = Field(description="the sign it is pulled by, as asked or as usual")
    pull_from_min: float | None
    pull_to_min: float | None
    pull_low_min: float | None
    pull_high_min: float | None
    pull_min: float | None
    windows: list[PullOut]
    centre_c_at_pull: float | None
    probe_from_c: float | None
    probe_to_c: float | None
    peak_centre_c: float | None
    carry_over_k: float | None
    edge_minus_centre_k: float | None
    overdone_pct: float | None
    late_minute_k: float | None
    late_overdone_pct: float | None
    set_after_pct: float | None
    crack: Literal["low", "middling", "high"] | None
    crack_why: str
    bath_c_at_pull: float | None
    water_ml: float | None
    water_left_ml: float | None
    set_c: float
    fill_mm: float
    width_mm: float
    wall_mm: float
    crust_mm: float
    level_mm: float | None
    curve: list[BakePoint]
    after: list[BakePoint]
    frames: list[FrameOut]
    drivers: list[DriverOut]
    reasons: list[Reason]
    solve_ms: float
    warnings: list[str]


@dataclass(frozen=True)
class RefitOut(Refit):
    """What a bake has told of itself while it bakes, and the window it comes to now, s in the oven.
    ``before_rms_k`` and ``after_rms_k`` are how far the curve was and is from its prediction."""

    _: KW_ONLY
    from_s: float | None
    to_s: float | None
    low_s: float | None
    high_s: float | None
    says: str


class ChooseIn(BakeIn):
    """Ask which oven and bath: even within ``within_min``, or the longest window."""

    wish: Literal["even", "long_window"] = "even"
    within_min: float = Field(90, ge=5, le=240)


class ChoiceOut(Shape):
    """One setting tried."""

    set_c: float
    bath: bool
    pull_min: float
    window_min: float
    edge_minus_centre_k: float
    overdone_pct: float
    chosen: bool


class ChooseOut(Shape):
    """The settings tried, best first, and why the first is."""

    choices: list[ChoiceOut]
    says: str


class ConvertOut(Shape):
    """The same bake in the other kind of oven, and on other dials."""

    kind: Literal["static", "fan"]
    set_c: float | None
    rule_c: float
    fahrenheit: float
    gas_mark: str
    says: str


class CrustIn(Strict):
    """Ask how a crust is baked blind and how long it stays crisp."""

    school: CrustSchool = "weights"
    lines: list[LineIn] = Field(
        default_factory=list, max_length=200,
        description="the dough: choux, puff, crumbs and sponge have a school of their own",
    )  # fmt: skip
    egg_grade: str = Field("US large", max_length=40)
    goes: Literal["baked_in", "cold_filling", "hot_filling"] = "cold_filling"
    dough_mm: float | None = Field(
        None, ge=1, le=30, description="null: the usual of its dough; choux is piped and has none"
    )
    offset_k: float = Field(0, ge=-80, le=80)
    fan: bool = False
    width_mm: float = Field(230, ge=20, le=900)
    barrier: Literal["none", "egg_wash", "butter", "chocolate"] = "none"
    wetness: Literal["wet", "set", "dry"] = "set"
    filled_at_c: float = Field(5, ge=-5, le=100)


@dataclass(frozen=True, kw_only=True)
class CrustOut(BlindBake):
    """The stages, how far, the cooling, and the soggy clock in hours from low to high. ``dough`` is
    told from the lines, ``school`` the one that was followed."""

    dough: str | None
    school: CrustSchool
    dough_mm: float
    crisp_h: list[float]
    soft_h: list[float]
    soggy: str
    reasons: list[Reason]


class ReadingIn(Strict):
    """A reading of the water."""

    t_s: float = Field(ge=0, le=20_000)
    temp_c: float = Field(ge=0, le=101)


class WalkSeen(Strict):
    """A walk with an oven: dial, pan of water, what its probe showed."""

    set_c: OvenCelsius
    water_ml: float = Field(1000, gt=0, le=20_000)
    pan_length_mm: float = Field(325, gt=0, le=900)
    pan_width_mm: float = Field(265, gt=0, le=900)
    readings: list[ReadingIn] = Field(max_length=5000)
    shelf_c: float | None = Field(None, ge=0, le=350)


class WalkIn(WalkSeen):
    """Ask what an oven is like, from an open pan of water in it."""

    kind: Literal["static", "fan"] = "static"
    altitude_m: float = Field(0, ge=-400, le=5000)


@dataclass(frozen=True)
class WalkOut(OvenCalibration):
    """The three figures, each with its spread."""

    _: KW_ONLY
    says: str


class RuleIn(Strict):
    """A two-stage cooling rule: from, through, to; minutes counted from passing ``from_c``."""

    from_c: float = Field(COOLING.from_c, ge=20, le=90)
    mid_c: float = Field(COOLING.mid_c, ge=0, le=60)
    mid_min: float = Field(COOLING.mid_min, gt=0, le=1440)
    end_c: float = Field(COOLING.end_c, ge=-5, le=20)
    end_min: float = Field(COOLING.end_min, gt=0, le=2880)


class CoolIn(Strict):
    """Ask for a cooling. ``mix.temp_c`` is what it is put away at; left out it is the rule's 57."""

    mix: MixIn
    vessel: FilledIn | str
    fill: float | None = Field(
        None, gt=0, le=1, description="share of the depth, for a vessel by key; null: all of it"
    )
    method: Literal["bench", "fridge", "still_fridge", "ice_bath", "stirred_ice_bath", "blast"] = (
        "fridge"
    )
    covered: bool = True
    rule: RuleIn = Field(default_factory=RuleIn)
    air_c: float | None = Field(None, ge=-40, le=40, description="of this refrigerator")
    family: str | None = None
    keep_days: float | None = Field(None, gt=0, le=30)


class CoolPoint(Shape):
    """A moment of the cooling: the warmest place and the mean."""

    t_min: float
    warmest_c: float
    mean_c: float


class CoolOut(Shape):
    """The cooling; minutes are from passing the rule's first temperature, null when never within a
    day."""

    to_21_min: float | None
    to_5_min: float | None
    complies: bool
    max_depth_mm: float
    split_into: int | None
    depth_mm: float
    curve: list[CoolPoint]
    cold_enough_min: float | None
    chill_h: list[float]
    keep_days: float
    ice_kg: float | None
    can_be_stirred: bool
    release_s: float | None
    says: str
    reasons: list[Reason]
    warnings: list[str]
