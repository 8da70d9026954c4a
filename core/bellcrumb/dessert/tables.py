"""The tables a dessert's thread is made from: steps of each kind of work, and what lies on what.

Recalled craft: minutes good to a third, hours of keeping to a factor of two.
"""

import csv
from dataclasses import KW_ONLY, dataclass
from functools import cache
from importlib.resources import files

from bellcrumb.dessert.works import PartWork
from bellcrumb.mix.composition import Mix
from bellcrumb.words import say


@dataclass(frozen=True)
class StepRow:
    """A step of a kind of work as the table has it. Minutes for each piece are those of a piece
    ``piece_mm`` wide; None: of a mould, a glass, a bun or a sheet, whatever its size."""

    work: str
    code: str
    stage: str
    _: KW_ONLY
    words: str
    hands_min: float
    hands_min_per_kg: float
    hands_min_per_piece: float
    piece_mm: float | None
    wait_low_min: float
    wait_min: float
    wait_high_min: float
    uses: tuple[str, ...]
    holds: tuple[str, ...]
    oven_c: float | None
    attention: bool
    keeps_h: float
    source: str

    def hands(self, kilos: float, pieces: int, wide_mm: float) -> float:
        """Minutes of hands for so much of it in so many pieces, each so wide. A small piece takes
        less, with its width, as rims and rolling do; our estimate."""
        size = min(1.5, max(0.2, wide_mm / self.piece_mm)) if self.piece_mm and wide_mm else 1.0
        each = self.hands_min_per_piece * size
        return self.hands_min + self.hands_min_per_kg * kilos + each * pieces


@dataclass(frozen=True)
class Meeting:
    """What may lie on what: the least minutes between, the most hours after, and what goes wrong.
    ``school`` is hot or cold where both are done."""

    lower: str
    upper: str
    school: str
    _: KW_ONLY
    least_min: float
    most_h: float | None
    lower_max_c: float | None
    upper_min_c: float | None
    upper_max_c: float | None
    best_from_h: float
    too_late: str
    too_soon: str
    source: str


@dataclass(frozen=True)
class Schools:
    """How it is done where schools differ: filling and meringue ``hot`` or ``cold``."""

    filling: str = "cold"
    meringue: str = "cold"


def _number(text: str) -> float | None:
    return float(text) if text else None


@cache
def rows() -> dict[str, list[StepRow]]:
    """The steps of every kind of work, in order."""
    text = files("bellcrumb.dessert").joinpath("data/steps.csv").read_text("utf8")
    found: dict[str, list[StepRow]] = {}
    for r in csv.DictReader(text.splitlines()):
        uses, holds = (tuple(u for u in r[f"uses_{k}"].split(";") if u) for k in ("hands", "wait"))
        found.setdefault(r["work"], []).append(
            StepRow(
                r["work"], r["code"], r["stage"], words=say(r["words"]),
                hands_min=float(r["hands_min"]), hands_min_per_kg=float(r["hands_min_per_kg"]),
                hands_min_per_piece=float(r["hands_min_per_piece"]),
                piece_mm=_number(r["piece_mm"]), wait_low_min=float(r["wait_low_min"]),
                wait_min=float(r["wait_min"]), wait_high_min=float(r["wait_high_min"]), uses=uses,
                holds=holds, oven_c=_number(r["oven_c"]), attention=r["attention"] == "y",
                keeps_h=float(r["keeps_high_h"] or 0), source=say(r["source"]),
            )
        )  # fmt: skip
    return found


@cache
def meetings() -> tuple[Meeting, ...]:
    """What may lie on what."""
    text = files("bellcrumb.dessert").joinpath("data/meets.csv").read_text("utf8")
    return tuple(
        Meeting(
            r["lower"], r["upper"], r["school"], least_min=float(r["least_min"]),
            most_h=_number(r["most_high_h"]), lower_max_c=_number(r["lower_max_c"]),
            upper_min_c=_number(r["upper_min_c"]), upper_max_c=_number(r["upper_max_c"]),
            best_from_h=float(r["best_from_h"] or 0), too_late=say(r["too_late"]),
            too_soon=say(r["too_soon"]), source=say(r["source"]),
        )
        for r in csv.DictReader(text.splitlines())
    )  # fmt: skip


def _classes(kind: PartWork, schools: Schools, *, upper: bool) -> tuple[str, ...]:
    """The names under which a kind stands in the table of meetings, the closest first."""
    hot = schools.filling == "hot" and kind in ("stirred", "curd", "roux")
    names: list[str] = [kind]
    if kind in (
        "stirred",
        "folded",
        "butter",
        "curd",
        "nut",
        "cremeux",
        "gelatine",
        "cold_cheese",
        "mascarpone",
        "whipped",
    ):
        names.append("hot_cream" if hot else "cold_cream")
    if kind in ("bath", "pie", "citrus", "batter", "flan"):
        names.append("batter")
    if kind == "frangipane" and upper:
        names.append("batter")
    if (
        not upper
        and not hot
        and kind not in ("flaky", "sweet", "crumb", "puff", "choux", "caramel")
    ):
        names.append("set")
    return tuple(names)


def needless(kind: PartWork, mix: Mix) -> frozenset[str]:
    """Codes of the steps a part has no need of, by what is not in its mix: gelatine, egg, cream to
    fold in, whites beside yolks."""
    out: set[str] = set()
    if not any(p.ingredient.key.startswith("gelatine") for p in mix.portions):
        out |= {"melt_stir_gelatine", "bloom_gelatine", "melt_into_cheese"}
    if not mix.grams_of("egg"):
        out |= {"mix_eggs_sugar", "temper", "warm_yolks"}
    whites = mix.white_g and mix.yolk_g
    if not whites:
        out.add("whip_whites")
    if kind in ("cold_cheese", "mascarpone") and not mix.grams_of("cream"):
        out |= {"whip_cream"} if whites else {"whip_cream", "fold"}
    return frozenset(out)


def meeting(
    lower: PartWork, upper: PartWork, schools: Schools, *, coated: bool = False
) -> Meeting | None:
    """The row for ``upper`` laid on ``lower``; ``coated`` when a film of chocolate lies between."""
    lowers = [f"{lower}+chocolate"] if coated else []
    lowers += _classes(lower, schools, upper=False)
    if lower == "biscuit":  # cream on biscuits softens them as biscuits in cream do
        lowers, upper = [*_classes(upper, schools, upper=False)], "biscuit"
    for low in lowers:
        for up in _classes(upper, schools, upper=True):
            school = (
                schools.meringue if upper in ("italian", "swiss", "french") else schools.filling
            )
            for row in meetings():
                if (row.lower, row.upper) == (low, up) and row.school in ("", school):
                    return row
    return None
