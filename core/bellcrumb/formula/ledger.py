"""The whites ledger: yolks and whites of a day's formulas, matched before a shell is opened."""

import math
from dataclasses import KW_ONLY, dataclass

from bellcrumb.mix.composition import Mix
from bellcrumb.pantry.eggs import EggGrade
from bellcrumb.words import say

# Days at 5 degC in a closed jar. Source: craft; yolk under a film of water. Local code first.
YOLK_KEEPS_DAYS, WHITE_KEEPS_DAYS = 2, 4
_LITTLE_G = 15.0  # less than this is a spoonful, not a surplus

_NOTHING = 1e-6  # of an egg


@dataclass(frozen=True)
class Entry:
    """One formula of the day: grams of yolk, white and whole egg it takes from shells."""

    name: str
    yolk_g: float
    white_g: float
    _: KW_ONLY
    whole_g: float

    @classmethod
    def of(cls, name: str, mix: Mix, times: float = 1.0) -> "Entry":
        """What ``times`` a mix takes; liquid, pasteurised and dried egg come from no shell."""
        keys = ("egg_yolk", "egg_white", "egg_whole")
        yolk_g, white_g, whole_g = (times * mix.grams_of_key(key) for key in keys)
        return cls(name, yolk_g, white_g, whole_g=whole_g)


@dataclass(frozen=True)
class Ledger:
    """Eggs of a grade to open for the day and what they leave.

    ``separate`` eggs are parted, ``whole`` go in whole; the surplus of one side is what the other
    side's need leaves. ``alone_*`` is what would be left if every formula opened its own eggs.
    """

    egg_grade: str
    yolk_each_g: float
    white_each_g: float
    _: KW_ONLY
    entries: list[Entry]
    separate: int
    whole: int
    yolk_need_g: float
    white_need_g: float
    yolk_left_g: float
    white_left_g: float
    alone_eggs: int
    says: list[str]


def ledger(entries: list[Entry], grade: EggGrade) -> Ledger:
    """Match yolks with whites over a day. Source: yolk and white weights of the grade."""
    yolk = sum(e.yolk_g for e in entries)
    white = sum(e.white_g for e in entries)
    # What is too little to open an egg for in each may not open one in all.
    nothing = _NOTHING * len(entries)
    separate = math.ceil(max(yolk / grade.yolk_g, white / grade.white_g) - nothing)
    whole = math.ceil(sum(e.whole_g for e in entries) / grade.content_g - nothing)
    alone = sum(
        math.ceil(max(e.yolk_g / grade.yolk_g, e.white_g / grade.white_g) - _NOTHING)
        + math.ceil(e.whole_g / grade.content_g - _NOTHING)
        for e in entries
    )
    yolk_left, white_left = separate * grade.yolk_g - yolk, separate * grade.white_g - white
    return Ledger(
        grade.name, grade.yolk_g, grade.white_g, entries=entries,
        separate=separate, whole=whole, yolk_need_g=yolk, white_need_g=white,
        yolk_left_g=yolk_left, white_left_g=white_left, alone_eggs=alone,
        says=_says(yolk, white, yolk_left, white_left, alone - separate - whole, grade),
    )  # fmt: skip


def _says(
    yolk: float, white: float, yolk_left: float, white_left: float, saved: int, grade: EggGrade
) -> list[str]:
    says: list[str] = []
    if saved > 0:
        says.append(say("formula.opened_together_they_take_eggs_fewer", saved=saved))
    short = yolk / grade.yolk_g - white / grade.white_g
    if white and short < -0.5:
        says.append(
            say(
                "formula.the_whites_ask_for_eggs_more", short=-short, short_2=-short * grade.white_g
            )
        )
    if white_left > _LITTLE_G:
        says.append(
            say(
                "formula.g_of_white_over_enough_for",
                white_left=white_left,
                white_left_2=white_left / grade.white_g,
                white_left_3=2 * white_left,
                white_left_4=white_left / 165,
                white_keeps_days=WHITE_KEEPS_DAYS,
            )
        )
    if yolk_left > _LITTLE_G:
        says.append(
            say(
                "formula.g_of_yolk_over_enough_for",
                yolk_left=yolk_left,
                yolk_left_2=yolk_left / grade.yolk_g,
                yolk_left_3=yolk_left / 0.2,
                yolk_keeps_days=YOLK_KEEPS_DAYS,
            )
        )
    if (yolk or white) and not (white_left > _LITTLE_G or yolk_left > _LITTLE_G):
        says.append(say("formula.nothing_is_left_over"))
    return says
