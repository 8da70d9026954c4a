"""The book, the day and files that travel: what the server may use of them."""

from bellcrumb.book.control import Limits, limits
from bellcrumb.book.curve_file import read_curve
from bellcrumb.book.heating import Curve, heating_s, loss_told, share_per_loss
from bellcrumb.book.learn import timed_by_its_sign, unlearned_min
from bellcrumb.book.record import cooled
from bellcrumb.book.review import (
    BAKED_ONLY,
    FAULTS,
    STOVE_ONLY,
    Deviation,
    Finding,
    Timing,
    deviation,
    longest,
    review,
    step_readings,
)
from bellcrumb.day.tasks import STATIONS, Station
from bellcrumb.laws.safety import CoolingRule
from bellcrumb.travel.cells import safe_cell
from bellcrumb.travel.reading import read
from bellcrumb.travel.writing import Format, pieces
from bellcrumb.travel.written import Written, WrittenPart

__all__ = [
    "BAKED_ONLY",
    "FAULTS",
    "STATIONS",
    "STOVE_ONLY",
    "CoolingRule",
    "Curve",
    "Deviation",
    "Finding",
    "Format",
    "Limits",
    "Station",
    "Timing",
    "Written",
    "WrittenPart",
    "cooled",
    "deviation",
    "heating_s",
    "limits",
    "longest",
    "loss_told",
    "pieces",
    "read",
    "read_curve",
    "review",
    "safe_cell",
    "share_per_loss",
    "step_readings",
    "timed_by_its_sign",
    "unlearned_min",
]
