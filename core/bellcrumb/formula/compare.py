"""Two formulas side by side: lines that answer each other, and what each difference does."""

from dataclasses import KW_ONLY, dataclass

from bellcrumb.mix.lines import Line


@dataclass(frozen=True)
class Pair:
    """The lines of one ingredient in both formulas; None where one has it not.

    ``change_pct`` compares grams per 1000 g of liquid, so that a bigger batch is no change.
    """

    ingredient: str
    left: str | None
    right: str | None
    _: KW_ONLY
    left_g: float | None
    right_g: float | None
    change_pct: float | None


def _by_ingredient(lines: list[Line | None]) -> dict[str, tuple[str, str, float | None]]:
    found: dict[str, tuple[str, str, float | None]] = {}
    for line in lines:
        if not line:
            continue
        key = line.ingredient.key if line.ingredient else line.text.strip().lower()
        name = line.ingredient.name if line.ingredient else line.text.strip()
        before = found.get(key)
        if before:
            grams = (before[2] or 0) + (line.grams or 0)
            found[key] = (name, f"{before[1]} + {line.text.strip()}", grams or None)
        else:
            found[key] = (name, line.text.strip(), line.grams)
    return found


def pair_up(
    left: list[Line | None], right: list[Line | None], left_liquid_g: float, right_liquid_g: float
) -> list[Pair]:
    """Pair the lines of two formulas by ingredient, in the order of the left one, then the rest.

    Without a liquid on both sides grams are compared as they are.
    """
    a, b = _by_ingredient(left), _by_ingredient(right)
    both = left_liquid_g > 0 and right_liquid_g > 0
    per = right_liquid_g / left_liquid_g if both else 1.0
    rows = []
    for key in [*a, *(k for k in b if k not in a)]:
        one, other = a.get(key), b.get(key)
        left_g, right_g = one[2] if one else None, other[2] if other else None
        change = None
        if left_g and right_g:
            change = 100 * (right_g / per / left_g - 1)
        name = (one or other or ("", "", None))[0]
        rows.append(
            Pair(
                name, one[1] if one else None, other[1] if other else None, left_g=left_g,
                right_g=right_g, change_pct=change,
            )
        )  # fmt: skip
    return rows
