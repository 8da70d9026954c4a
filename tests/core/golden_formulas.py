"""What is said of each formula of the corpus: family, set, how it sets, where to stop."""

import csv
from collections.abc import Iterator
from pathlib import Path

from tests.core.golden_cases import Row
from tests.core.kitchen import ask

_CORPUS = Path(__file__).with_name("formulas.csv")
_BEATEN = {"yes": True, "no": False, "": None}


def formulas() -> Iterator[Row]:
    """A row for each formula, its set with the band and the cut it may pass."""
    with _CORPUS.open(newline="") as file:
        corpus = list(csv.DictReader(file, delimiter=";"))
    for row in corpus:
        found = ask(*row["lines"].split(" / "), beaten=_BEATEN[row["beaten"]])
        stop = found.endpoint
        yield {
            "name": row["name"],
            "family": found.family.key if found.family else "",
            "distance": found.guesses[0].distance if found.guesses else "",
            "set": found.set.index if found.set else "",
            "low": found.set.low if found.set else "",
            "unmoulds_at": found.set.cuts[-1] if found.set else "",
            "beaten": found.beaten.index if found.beaten else "",
            "still": found.style.still,
            "stop": stop.mode if stop else "",
            "stop_c": stop.temp_c if stop else "",
            "hold_s": stop.hold_s if stop else "",
            "egg_c": found.coagulation.ideal_c if found.coagulation else "",
            "cautions": " ".join(c.code for c in found.cautions),
        }  # fmt: skip
