"""Formulas to begin from."""

import csv
from dataclasses import dataclass
from functools import cache
from importlib.resources import files

from bellcrumb.words import say


@dataclass(frozen=True)
class Starter:
    """A formula to begin a family with: the middle of its windows in round amounts. Our own."""

    family: str
    kind: str
    lines: tuple[str, ...]


@cache
def starters() -> dict[str, Starter]:
    """A starting formula for every family, by its key."""
    text = files("bellcrumb.formula").joinpath("data/starters.csv").read_text("utf8")
    return {
        row["family"]: Starter(row["family"], row["kind"], tuple(say(row["lines"]).split("\n")))
        for row in csv.DictReader(text.splitlines())
    }
