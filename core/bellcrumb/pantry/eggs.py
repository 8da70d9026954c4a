"""Egg grades: what an egg bought under a grade holds once cracked."""

import csv
from dataclasses import KW_ONLY, dataclass
from functools import cache
from importlib.resources import files

from bellcrumb.errors import CraftError
from bellcrumb.words import say


@dataclass(frozen=True)
class EggGrade:
    """Contents of one egg of a grade in grams; ``spread`` is the relative half-width."""

    system: str
    grade: str
    name: str
    _: KW_ONLY
    shell_g: float
    content_g: float
    yolk_g: float
    white_g: float
    spread: float
    source: str

    @property
    def label(self) -> str:
        """What a formula keeps and a request says, in any language: "US large", "EU/UK M"."""
        return f"{self.system} {self.grade.replace('_', ' ')}"


@cache
def grades() -> dict[str, EggGrade]:
    """Every grade by its lower-case label ("us large")."""
    text = files("bellcrumb.pantry").joinpath("data/eggs.csv").read_text("utf8")
    found: dict[str, EggGrade] = {}
    for row in csv.DictReader(text.splitlines()):
        shell = float(row["shell_typical_g"])
        low = float(row["shell_min_g"] or shell - 4)
        high = float(row["shell_max_g"] or shell + 4)
        grade = EggGrade(
            row["system"],
            row["grade"],
            say(row["name"]),
            shell_g=shell,
            content_g=float(row["content_g"]),
            yolk_g=float(row["yolk_g"]),
            white_g=float(row["white_g"]),
            spread=min(0.12, (high - low) / 2 / shell),
            source=row["source"],
        )
        found[grade.label.lower()] = grade
    return found


def egg_grade(label: str) -> EggGrade:
    """The grade called ``label``: "US large", "EU M", "uk l". Raises CraftError if unknown."""
    wanted = " ".join(label.lower().replace("_", " ").split())
    table = grades()
    if wanted in table:
        return table[wanted]
    first, _, rest = wanted.partition(" ")
    if first in ("eu", "uk") and f"eu/uk {rest}" in table:
        return table[f"eu/uk {rest}"]
    known = ", ".join(g.label for g in table.values() if g.system in ("US", "EU/UK", "AU"))
    raise CraftError("egg_grade", say("pantry.is_no_egg_grade_we_know", label=label, known=known))


# The grades of the EU and the UK by the words people use for them.
_LETTERS = {"small": "s", "medium": "m", "large": "l", "extra large": "xl", "jumbo": "xl"}


def grade_of_size(size: str, base: EggGrade) -> EggGrade:
    """The grade of the same system as ``base`` with this size word, or ``base`` itself."""
    letter = _LETTERS.get(size, size) if base.system == "EU/UK" else size
    return grades().get(f"{base.system.lower()} {letter}", base)
