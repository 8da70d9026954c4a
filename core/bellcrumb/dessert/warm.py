"""What of a dessert stands warm: food that spoils, between its heat and its cold.

A part that spoils is warm from its first ring, oven or mixer on until it is put in the cold, and
again once it is worked or plated. What comes hot from a ring or an oven has the first stage of
cooling for it; anything else costs a plan what it waits.
"""

from collections.abc import Collection, Sequence
from dataclasses import KW_ONLY, dataclass, replace

from bellcrumb.dessert.steps import AT_ONCE_MIN, BuildStep, Gap
from bellcrumb.laws.safety import COOLING

_COLD = frozenset({"cold", "freezer"})
_HEATS = frozenset({"ring", "oven"})
_LITTLE = frozenset({"melt_stir_gelatine"})  # a spoonful of heat that makes nothing hot


@dataclass
class _Food:
    """A part by itself, or all that is laid together: whether it spoils, was worked and is hot, and
    the step that was last done to it."""

    spoils: bool = False
    worked: bool = False
    hot: bool = False
    _: KW_ONLY
    warm: bool = False
    last: str = ""
    stood_min: float = 0.0


def said_warm(steps: Sequence[BuildStep], laid: Collection[str]) -> list[BuildStep]:
    """The steps with what comes hot into the cold, and which gaps are waits in the warm zone.

    ``laid`` are the keys of the steps with which a part is laid on the others: from then on they
    are one. A gap to a step that was not the last done to its food is a term, not a wait.
    """
    parts: dict[str, _Food] = {}
    whole = _Food()
    together: set[str] = set()
    out = []
    for step in steps:
        lies = step.key in laid or any(gap.key in together for gap in step.after)
        mine = whole if lies else parts.setdefault(step.part, _Food())
        waited = {f.last: f for f in (parts.get(step.part), mine) if f is not None}
        gaps = tuple(_gap(g, waited[g.key]) if g.key in waited else g for g in step.after)
        if lies:
            together.add(step.key)
            part = parts.pop(step.part, mine)
            mine.hot, mine.spoils = mine.hot or part.hot, mine.spoils or part.spoils
        cold = bool(_COLD & set(step.holds))
        used = {*step.uses, *step.holds}
        mine.spoils |= step.spoils
        mine.hot |= mine.spoils and bool(used & _HEATS) and step.code not in _LITTLE
        mine.worked |= lies or bool(used & {*_HEATS, "mixer"})
        out.append(replace(step, after=gaps, comes_hot=cold and mine.hot))
        mine.hot &= not cold
        mine.warm = mine.spoils and mine.worked and not cold
        mine.last, mine.stood_min = step.key, step.wait_min if "bench" in step.holds else 0.0
    return out


def _gap(gap: Gap, food: _Food) -> Gap:
    if not (food.warm and food.hot):
        return replace(gap, warm=food.warm)
    most = max(COOLING.mid_min - food.stood_min, AT_ONCE_MIN, gap.at_least_min)
    least_of = most if gap.at_most_min is None else min(gap.at_most_min, most)
    return replace(gap, warm=True, at_most_min=least_of)
