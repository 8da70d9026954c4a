"""What a food code says in numbers: the two stages of cooling, the keeping, the house line.

The local code and the kitchen's licensed plan come before anything said here.
"""

from dataclasses import KW_ONLY, dataclass


@dataclass(frozen=True)
class CoolingRule:
    """Two stages: ``mid_c`` within ``mid_min`` and ``end_c`` within ``end_min``, both counted from
    passing ``from_c``."""

    from_c: float
    mid_c: float
    mid_min: float
    _: KW_ONLY
    end_c: float
    end_min: float


# Source: FDA Food Code 3-501.14 (135 degF to 70 degF in 2 h, to 41 degF in 4 h more).
COOLING = CoolingRule(from_c=57.0, mid_c=21.0, mid_min=120.0, end_c=5.0, end_min=360.0)
DATE_MARK_DAYS = 7.0  # at 5 degC or below, the day of making first; FDA Food Code 3-501.17
NO_CREDIT_C = 55.0  # below it no kill is counted; our choice, on the safe side
HOUSE_LINE_C = 71.1  # treated as instantaneous; USDA FSIS, egg dishes (160 degF)
NEEDED_LOG = 7.0  # of Salmonella; USDA FSIS lethality performance standard for egg products


def cools_in_time(to_mid_min: float, to_end_min: float, rule: CoolingRule = COOLING) -> bool:
    """Whether the minutes from ``from_c`` to the two marks keep a rule (inf: never reached).

    >>> cools_in_time(90.0, 300.0), cools_in_time(130.0, 200.0), cools_in_time(90.0, float("inf"))
    (True, False, False)
    """
    return to_mid_min <= rule.mid_min and to_end_min <= rule.end_min
