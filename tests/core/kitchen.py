"""Shared ways to make mixes in tests."""

from bellcrumb.formula.answer import Answer, answer
from bellcrumb.mix.composition import Mix
from bellcrumb.mix.lines import understand_all
from bellcrumb.pantry.eggs import egg_grade
from bellcrumb.pantry.pantry import shipped

US_LARGE = egg_grade("US large")


def mix(**grams: float) -> Mix:
    return Mix.of((shipped().key(key), g) for key, g in grams.items())


def ask(*lines: str, family: str | None = None, beaten: bool | None = None) -> Answer:
    read = understand_all(list(lines), None, US_LARGE)
    return answer(read, US_LARGE, family, beaten=beaten)
