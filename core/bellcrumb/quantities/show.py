"""Amounts as they are shown: grams for one cook, cups and spoons for the other."""

from fractions import Fraction

from bellcrumb.quantities.units import US_CUP_ML, Measures, unit
from bellcrumb.words import say

GLYPHS = {
    Fraction(1, 8): "⅛", Fraction(1, 4): "¼", Fraction(1, 3): "⅓", Fraction(3, 8): "⅜",
    Fraction(1, 2): "½", Fraction(5, 8): "⅝", Fraction(2, 3): "⅔", Fraction(3, 4): "¾",
    Fraction(7, 8): "⅞",
}  # fmt: skip


_SAME_MARK = 0.3  # of a tablespoon: nearer than a cup's mark is read


def grams_text(grams: float) -> str:
    """``grams`` as a scale would be read: tenths below 10 g, whole grams above."""
    if grams < 10:
        return f"{grams:.1f} g"
    return f"{round(grams):,} g".replace(",", "\u202f")


def _mixed(value: float, steps: tuple[int, ...]) -> str:
    whole = int(value)
    best = min(
        (Fraction(n, d) for d in steps for n in range(d + 1)),
        key=lambda f: abs(value - whole - float(f)),
    )
    if best == 1:
        whole, best = whole + 1, Fraction(0)
    glyph = GLYPHS.get(best, "")
    return f"{whole}{' ' if glyph else ''}{glyph}".strip() if whole else glyph or "0"


def _cups_and_spoons(ml: float, cup_ml: float, tbsp_ml: float) -> str:
    """Cups to the quarter or third, the rest in whole spoons: what a cook really measures."""
    near = range(max(0, int(ml / cup_ml) - 1), int(ml / cup_ml) + 2)
    cups = [w + f for w in near for f in (0, 0.25, 1 / 3, 0.5, 2 / 3, 0.75)]
    below = max((c for c in cups if c * cup_ml <= 1.01 * ml + 2.5), default=0.0)
    spoons = round((ml - below * cup_ml) / tbsp_ml)
    # Spoons that fill up to the next mark are that mark: ¾ c + 4 tbsp is a cup.
    filled = below * cup_ml + spoons * tbsp_ml
    mark = min(cups, key=lambda c: abs(c * cup_ml - filled))
    if abs(mark * cup_ml - filled) < _SAME_MARK * tbsp_ml:
        below, spoons = mark, 0
    cups_text = _mixed(below, (3, 4))
    if spoons >= 1:
        return f"{cups_text} c + {spoons} tbsp"
    return f"{cups_text} cup{'s' if below > 1 else ''}"


def cups_text(
    grams: float, grams_per_us_cup: float | None, measures: Measures = "us", *, stick: bool = False
) -> str:
    """``grams`` in the country's cups and spoons, US sticks, or (without a cup weight) ounces."""
    cup_ml, tbsp_ml, tsp_ml = (unit(u, measures).size for u in ("cup", "tbsp", "tsp"))
    if stick and measures == "us" and grams >= 14:
        sticks = grams / 113.4
        if sticks < 0.45:
            return f"{_mixed(grams / 14.2, (2,))} tbsp"
        return f"{_mixed(sticks, (4, 8))} stick{'s' if sticks > 1 else ''}"
    if not grams_per_us_cup:
        return f"{grams / 28.35:.2f} oz" if grams < 28 else f"{grams / 28.35:.1f} oz"
    ml = grams / grams_per_us_cup * US_CUP_ML
    if ml >= cup_ml * 0.24:
        return _cups_and_spoons(ml, cup_ml, tbsp_ml)
    if ml >= tbsp_ml * 0.95:
        return f"{_mixed(ml / tbsp_ml, (2,))} tbsp"
    if ml >= tsp_ml * 0.12:
        return f"{_mixed(ml / tsp_ml, (4, 8))} tsp"
    return say("quantities.a_pinch")
