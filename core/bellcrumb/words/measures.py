"""Quantities of a sentence in the units of who reads it.

A message marks its quantities with their unit: ``at <c>{low_c,number,0} to {high_c,number,0}</c>``.
``say`` leaves them open, as numbers between marks, so that what is kept or shared belongs to no
unit; ``closed`` writes them out for one reader, at the edge: the command line, the server's answer.

Sources: the inch is 25.4 mm, the pound 453.592 g and the US gallon 3785.41 ml by definition
(NIST Handbook 44, appendix C).
"""

import re
from collections.abc import Mapping
from functools import cache
from typing import Literal

from icu4py.messageformat import MessageFormat

Units = Literal["metric", "us"]

# Private characters, which no keyboard types: a span's beginning, what parts its unit from its
# words, its end; and the same for a number, which is followed by the pattern it is shown with.
OPEN, _PART, _END, _NUMBER, _SHOWN, _DONE = "\ue0c0\ue0c1\ue0c2\ue0c3\ue0c4\ue0c5"
TAGS = ("c", "k", "mm", "cm", "cm2", "g", "kg", "ml", "l")
US = ("f", "in", "sq_in", "oz", "lb", "fl_oz", "cups", "qt")
_TAGGED = re.compile(rf"<({'|'.join(TAGS)})>(.*?)</\1>")
_IN_MESSAGE = re.compile(r"\{(\w+),number,([^{}]+)\}|(\d+(?:\.(\d+))?)")
_SPAN = re.compile(rf"{OPEN}(\w+){_PART}([^{OPEN}{_END}]*){_END}")
_IN_SPAN = re.compile(rf"{_NUMBER}([-+.e\d]+){_SHOWN}([#,0.]+){_DONE}")

AS_IT_IS = "0.######"

MM_IN = 25.4
G_OZ = 28.3495
ML_FL_OZ = 29.5735
ML_CUP = 8 * ML_FL_OZ
ML_QT = 32 * ML_FL_OZ
_POUNDS_FROM_OZ = 32


def opened(message: str) -> str:
    """A message of the catalogue with its tags as open quantities: ``{x}`` in one of them is filled
    with the bare number (see ``bare``)."""

    def number(found: re.Match[str]) -> str:
        name, pattern, literal, decimals = found.groups()
        if name:
            return f"{_NUMBER}{{bare_{name}}}{_SHOWN}{pattern}{_DONE}"
        shown = "0." + "0" * len(decimals) if decimals else "0"
        return f"{_NUMBER}{literal}{_SHOWN}{shown}{_DONE}"

    def span(found: re.Match[str]) -> str:
        return f"{OPEN}{found[1]}{_PART}{_IN_MESSAGE.sub(number, found[2])}{_END}"

    return _TAGGED.sub(span, message)


def quantity(value: float, unit: str) -> str:
    """A quantity that stands in no message, left open like those that do."""
    return f"{OPEN}{unit}{_PART}{_NUMBER}{float(value)!r}{_SHOWN}{AS_IT_IS}{_DONE}{_END}"


def bare(message: str) -> frozenset[str]:
    """The values an opened message takes as bare numbers."""
    return frozenset(re.findall(r"\{bare_(\w+)\}", message))


def closed(text: str, units: Units, language: str, symbols: Mapping[str, str], gap: str) -> str:
    """The text with its quantities written out, their units called as ``symbols`` has them and
    ``gap`` before them."""
    if OPEN not in text:
        return text

    def span(found: re.Match[str]) -> str:
        kind, words = found.groups()
        if kind not in TAGS:
            return found.group()
        numbers = [(float(value), shown) for value, shown in _IN_SPAN.findall(words)]
        us = _us(kind, numbers, language) if units == "us" else None
        write, unit = us or ([_shown(v, shown, language) for v, shown in numbers], kind)
        if len(write) > 1 == len(set(write)):  # a range too fine for this unit
            return f"{write[0]}{gap}{symbols[unit]}"
        written = iter(write)
        return f"{_IN_SPAN.sub(lambda _: next(written), words)}{gap}{symbols[unit]}"

    return _SPAN.sub(span, text)


def _us(kind: str, numbers: list[tuple[float, str]], language: str) -> tuple[list[str], str] | None:
    """The numbers and their unit as a US kitchen has them; None where it has no such measure."""

    def times(factor: float, shown: str = "0") -> list[str]:
        return [_shown(v * factor, shown, language) for v, _ in numbers]

    largest = max((abs(v) for v, _ in numbers), default=0.0)
    match kind:
        case "c":
            return [_shown(v * 1.8 + 32, "0", language) for v, _ in numbers], "f"
        case "k":
            exact = any(shown != "0" for _, shown in numbers)
            return times(1.8, "0.#" if exact else "0"), "f"
        case "mm":
            inches = [inch(v) for v, _ in numbers]
            whole = [i for i in inches if i is not None]
            return (whole, "in") if len(whole) == len(numbers) else None
        case "cm":
            return [_fraction(round(v * 10 / MM_IN * 4), 4) for v, _ in numbers], "in"
        case "cm2":
            return times(100 / MM_IN**2), "sq_in"
        case "g" | "kg":
            ounces = (1000 if kind == "kg" else 1) / G_OZ
            if largest * ounces >= _POUNDS_FROM_OZ:
                return times(ounces / 16, "0.0"), "lb"
            return times(ounces, "0.0" if largest * ounces >= 1 else "0.00"), "oz"
        case "ml":
            if largest >= ML_CUP:
                return times(1 / ML_CUP, "0.0"), "cups"
            return times(1 / ML_FL_OZ, "0.0"), "fl_oz"
        case _:
            return times(1000 / ML_QT, "0.0"), "qt"


def inch(mm: float) -> str | None:
    """A thickness as an inch rule has it, in sixteenths: “1 9/16”; None under a thirty-second,
    which no rule shows.

    >>> inch(40), inch(0.5)
    ('1 9/16', None)
    """
    sixteenths = round(mm / MM_IN * 16)
    if mm < MM_IN / 32 or not sixteenths:
        return None
    return f"{mm / MM_IN:.1f}" if sixteenths >= 32 else _fraction(sixteenths, 16)


def _fraction(parts: int, of: int) -> str:
    whole, top = divmod(parts, of)
    while top and top % 2 == 0:
        top, of = top // 2, of // 2
    return " ".join(
        [*([str(whole)] if whole or not top else []), *([f"{top}/{of}"] if top else [])]
    )


@cache
def _format(shown: str, language: str) -> MessageFormat:
    return MessageFormat(f"{{x,number,{shown}}}", language)


def _shown(value: float, shown: str, language: str) -> str:
    return str(_format(shown, language).format({"x": value}))
