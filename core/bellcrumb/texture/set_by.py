"""Which lines of a formula set it: each starch, the eggs, each gelling agent and cheese."""

from bellcrumb.mix.composition import Mix
from bellcrumb.texture.set_index import Style, set_strength

EGGS = "egg"  # all of a formula's eggs are one: a kitchen buys one kind
_SETS = ("starch", "egg", "setter", "fresh_cheese")
_LEAST = 0.1  # what carries less of the set is left out


def set_by(mix: Mix, style: Style) -> dict[str, float]:
    """The share of the set each setting ingredient (by key; ``EGGS`` for all eggs) carries: what is
    lost without it, over the sum of what is lost without each; between 0 and 1, 1 in all."""
    lines: dict[str, str] = {}
    for portion in mix.portions:
        if portion.ingredient.category in _SETS:
            egg = portion.ingredient.category == "egg"
            lines[portion.ingredient.key] = EGGS if egg else portion.ingredient.key
    whole = set_strength(mix, style).index
    lost = {}
    for line in dict.fromkeys(lines.values()):
        rest = Mix(tuple(p for p in mix.portions if lines.get(p.ingredient.key) != line))
        lost[line] = max(0.0, whole - (set_strength(rest, style).index if rest.mass_g else 0.0))
    total = sum(lost.values())
    shares = {line: part / total for line, part in lost.items()} if total else {}
    kept = {line: share for line, share in shares.items() if share >= _LEAST}
    return {line: share / sum(kept.values()) for line, share in kept.items()}
