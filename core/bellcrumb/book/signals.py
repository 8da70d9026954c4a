"""Evidence in words of the causal table, read against what is known of a batch.

``peak_c<92 or hold_boil_s<30``, ``not beaten_smooth``, ``bath_cover=full``: names with a unit are
numbers, bare names are yes or no. What is not known makes the answer not known, never no.
"""

import re
from collections.abc import Mapping

from bellcrumb.errors import CraftError
from bellcrumb.words import say

Value = float | bool | str
Signals = Mapping[str, Value]
_TOKEN = re.compile(r"\s*(>=|<=|=|<|>|\+|-|[A-Za-z_][\w/]*|\d+(?:\.\d+)?)")
# Windows and cuts are those of the quantity they are compared with.
_WINDOWS = ("window_lo", "window_hi", "target_cut", "next_cut")


def holds(said: str, signals: Signals) -> bool | None:
    """Whether the evidence holds; None when it is not known. Raises CraftError for a bad row."""
    any_known = False
    unknown = False
    for either in re.split(r"\bor\b", said):
        found = _all_of(either, signals)
        if found:
            return True
        unknown |= found is None
        any_known = True
    return None if unknown or not any_known else False


def _all_of(said: str, signals: Signals) -> bool | None:
    unknown = False
    for each in re.split(r"\band\b", said):
        found = _one(each.strip(), signals)
        if found is False:
            return False
        unknown |= found is None
    return None if unknown else True


def _one(said: str, signals: Signals) -> bool | None:
    if said.startswith("not "):
        found = _one(said[4:].strip(), signals)
        return None if found is None else not found
    parts = re.split(r"(>=|<=|=|<|>)", said, maxsplit=1)
    if len(parts) == 1:
        value = signals.get(said)
        return None if value is None else bool(value)
    left, sign, right = (p.strip() for p in parts)
    a = _value(left, signals, left)
    if sign == "=" and isinstance(a, str):
        return a == right
    b = _value(right, signals, left)
    if a is None or b is None or isinstance(a, str) or isinstance(b, str):
        return None
    return {"<": a < b, ">": a > b, "<=": a <= b, ">=": a >= b, "=": a == b}[sign]


def _value(said: str, signals: Signals, of: str) -> Value | None:
    """A number, a signal, or one with a number added or taken off."""
    tokens = _TOKEN.findall(said)
    if not tokens or "".join(tokens) != said.replace(" ", ""):
        raise CraftError("cause", say("book.cannot_be_read_as_evidence", said=said))
    total: float = 0.0
    sign = 1.0
    for token in tokens:
        if token in "+-":
            sign = 1.0 if token == "+" else -1.0
            continue
        name = f"{of}:{token}" if token in _WINDOWS else token
        value: Value | None = float(token) if token[0].isdigit() else signals.get(name)
        if value is None or isinstance(value, str):
            return value
        total += sign * float(value)
    return total
