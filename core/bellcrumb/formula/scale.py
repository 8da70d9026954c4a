"""Scaling a formula as text: more or less of it, in the cook's own units and words.

A line keeps its unit while the new amount can be measured in it to 2 % (a third of a cup, half a
stick, a whole egg); else it is given in grams. Nothing but the amount is touched.
"""

import math
import re
from dataclasses import dataclass, replace
from fractions import Fraction

from bellcrumb.errors import CraftError
from bellcrumb.mix.composition import Mix
from bellcrumb.mix.lines import TWO_THINGS, Line
from bellcrumb.pantry.eggs import EggGrade
from bellcrumb.quantities.amount import Amount, plain_text, read_amount
from bellcrumb.quantities.show import GLYPHS
from bellcrumb.quantities.units import Measures
from bellcrumb.quantities.units import unit as measure
from bellcrumb.words import say

FINE = 0.02
# Fractions a measure comes in: cups have thirds, tablespoons halves, teaspoons quarters.
_STEPS: dict[str, tuple[int, ...]] = {
    "cup": (2, 3, 4), "tbsp": (2,), "tsp": (2, 4), "stick": (2, 4, 8), "pint": (2,),
    "quart": (2, 4), "fl oz": (2,),
}  # fmt: skip
# The number a counted line begins with ("2 leaves", "1 1/2 lemons").
_COUNT = re.compile(r"\s*[\d.,/½¼¾⅓⅔⅛]+(?:\s+\d+/\d+)?(?:\s*[-–]\s*\d+)?")
_COUNT_ANYWHERE = re.compile(
    r"(?:\d+(?:[.,]\d+)?(?:\s+\d+/\d+|/\d+|[½¼¾⅓⅔⅛])?|[½¼¾⅓⅔⅛])(?:\s*[-–]\s*\d+)?"
)
SMALLEST, LARGEST = 0.01, 1000.0


@dataclass(frozen=True)
class EggChoice:
    """A batch that cracks whole eggs: by what to multiply, and how many eggs that is."""

    factor: float
    eggs: int


def scale_line(text: str, line: Line | None, factor: float, measures: Measures = "us") -> str:
    """The line ``factor`` times as much; a line without weight comes back as it is."""
    if line is None or line.grams is None or line.ingredient is None:
        return text
    two = TWO_THINGS.match(text) if line.also else None
    if two and line.also[-1].ingredient is not line.ingredient:
        at = max(0, len(line.also) - _things(two.group("two")))
        halves = (
            replace(line, also=line.also[:at]),
            replace(line.also[at], also=line.also[at + 1 :]),
        )
        one, other = (
            scale_line(two.group(k), half, factor, measures)
            for k, half in zip(("one", "two"), halves, strict=True)
        )
        return f"{one}{two.group('and')}{other}"
    amount, name = read_amount(plain_text(text), measures)
    if line.also:  # "2 lemons, juice and zest", "¼ tsp each cinnamon and nutmeg"
        found = _COUNT_ANYWHERE.search(text)
        count = read_amount(plain_text(found.group()), measures)[0] if found else None
        if found and count:
            scaled = _trim(count.value * factor, 2)
            return f"{text[: found.start()]}{scaled}{text[found.end() :]}"
        if amount is None:
            return text
        # "two lemons, juice and zest", "two cups each cream and milk"
        unit = amount.unit.name if amount.unit else ""
        scaled_to = _in_unit(amount, factor, measures) or (_trim(amount.value * factor, 2), unit)
        return " ".join(word for word in (*scaled_to, _as_typed(text, name)) if word)
    if amount is None:
        return _inner_count(text, line.ingredient.name, line.grams, factor)
    rest = _as_typed(text, name)
    counted = amount.unit is None or amount.unit.kind == "count"
    if counted and amount.stated_g is None:
        whole = (1,) if line.ingredient.category == "egg" else (2, 4)
        many = _fraction(amount.value * factor, whole, "")
        if many:
            head = _COUNT.match(text)
            return f"{many[0]}{text[head.end() :]}" if head else f"{many[0]} {rest}"
    measured = _in_unit(amount, factor, measures) if amount.stated_g is None else None
    if measured is None:
        return f"{_grams(line.grams * factor)} {rest}"
    number, word = measured
    return f"{number} {word} {rest}" if word else f"{number} {rest}"


def _things(text: str) -> int:
    """How many things a line names, one after the other ("1 yolk plus 20 g sugar": two)."""
    two = TWO_THINGS.match(text)
    return 1 + _things(two.group("two")) if two else 1


def scale_text(
    text: str, lines: list[Line | None], factor: float, measures: Measures = "us"
) -> str:
    """A whole formula scaled. Raises CraftError for a factor no kitchen means."""
    if not SMALLEST <= factor <= LARGEST or not math.isfinite(factor):
        raise CraftError(
            "factor", say("formula.from_to_times_please", smallest=SMALLEST, largest=LARGEST)
        )
    rows = text.split("\n")
    return "\n".join(
        scale_line(row, line, factor, measures) for row, line in zip(rows, lines, strict=True)
    )


def _inner_count(text: str, name: str, grams: float, factor: float) -> str:
    """A line whose count stands inside ("Zest of 1 lemon"); in grams when it is no whole count."""
    found = re.search(r"\d+(?:[.,]\d+)?", text)
    many = _fraction(float(found.group().replace(",", ".")) * factor, (2,), "") if found else None
    if found and many:
        return text[: found.start()] + many[0] + text[found.end() :]
    return f"{_grams(grams * factor)} {name.split(',', maxsplit=1)[0].lower()}"


def _as_typed(text: str, name: str) -> str:
    """The name of a line with the capitals it was typed with."""
    at = text.lower().rfind(name)
    return text[at : at + len(name)] if at >= 0 else name


def _grams(grams: float) -> str:
    if grams < 10:
        return f"{grams:.1f}".rstrip("0").rstrip(".") + " g"
    if grams < 10_000:
        return f"{grams:.0f} g"
    return f"{grams / 1000:.2f}".rstrip("0").rstrip(".") + " kg"


def _trim(value: float, digits: int) -> str:
    text = f"{value:.{digits}f}"
    return text.rstrip("0").rstrip(".") if "." in text else text


def _in_unit(amount: Amount, factor: float, measures: Measures) -> tuple[str, str] | None:
    """The new amount and its unit when it can be measured so, else None (grams)."""
    value = amount.value * factor
    unit = amount.unit
    if unit is None or unit.kind == "count":
        return None
    if unit.name in ("pinch", "dash", "drop", "knob"):
        many = max(1, round(value))
        return str(many), unit.name if many == 1 else _plural(unit.name)
    if unit.kind == "mass" and unit.name in ("g", "kg", "mg"):
        number, word = _grams(value * unit.size).split(" ")
        return number, word
    if unit.name in ("ml", "cl", "dl", "l"):
        ml = value * unit.size
        return (_trim(ml / 1000, 3), "l") if ml >= 1000 else (_trim(ml, 0 if ml >= 10 else 1), "ml")
    if unit.name in ("oz", "lb"):
        ounces = value * unit.size / 28.349523125
        return (_trim(ounces / 16, 2), "lb") if ounces >= 32 else (_trim(ounces, 2), "oz")
    if unit.name in ("tbsp", "tsp", "cup"):
        return _spoons_and_cups(value * unit.size, measures)
    return _fraction(value, _STEPS.get(unit.name, (1,)), unit.name)


def _spoons_and_cups(ml: float, measures: Measures) -> tuple[str, str] | None:
    """Cups, tablespoons or teaspoons, whichever measures it; None when none does."""
    for word, least in (("cup", 0.25), ("tbsp", 0.5), ("tsp", 0.25)):
        size = measure(word, measures).size
        value = ml / size
        if value < least * (1 - FINE) or (word != "cup" and value > 6):
            continue
        found = _fraction(value, _STEPS[word], word)
        if found:
            return found
    return None


def _fraction(value: float, steps: tuple[int, ...], word: str) -> tuple[str, str] | None:
    """``value`` as a whole number and a fraction with one of these denominators, to 2 %."""
    options = (Fraction(round(value * d), d) for d in (1, *steps))
    best = min(options, key=lambda option: abs(option - value))
    if best <= 0 or abs(best - value) > FINE * value:
        return None
    whole = int(best)
    number = f"{whole or ''}{GLYPHS[best - whole] if best != whole else ''}"
    return number, _plural(word) if word and best > 1 else word


def _plural(word: str) -> str:
    if word in ("tbsp", "tsp", "fl oz", ""):
        return word
    return word + ("es" if word.endswith(("ch", "sh")) else "s")


def eggs_cracked(mix: Mix, grade: EggGrade) -> float:
    """How many shell eggs a mix takes: yolks and whites share shells, whole eggs come on top."""
    parted = max(
        mix.grams_of_key("egg_yolk") / grade.yolk_g, mix.grams_of_key("egg_white") / grade.white_g
    )
    return parted + mix.grams_of_key("egg_whole") / grade.content_g


def whole_egg_choices(mix: Mix, grade: EggGrade, factor: float = 1.0) -> list[EggChoice]:
    """The batches just below and above ``factor`` that crack whole eggs, keeping every ratio.

    Empty when the mix has no shell egg.
    """
    one = eggs_cracked(mix, grade)
    if one <= 0:
        return []
    wanted = one * factor
    counts = {math.floor(wanted + 1e-6), math.ceil(wanted - 1e-6)} - {0}
    return [EggChoice(count / one, count) for count in sorted(counts)]
