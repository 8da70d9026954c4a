"""A dessert whole: what its parts come to together, and for one portion of each."""

from dataclasses import KW_ONLY, dataclass

from bellcrumb.formula.ledger import Entry, Ledger, ledger
from bellcrumb.formula.worth import Cost, Nutrition, cost, nutrition
from bellcrumb.mix.composition import Mix
from bellcrumb.pantry.eggs import EggGrade
from bellcrumb.words import say


@dataclass(frozen=True)
class PartMade:
    """One part as its formula makes it; ``portions`` None where no vessel says how many."""

    name: str
    kind: str
    mix: Mix
    _: KW_ONLY
    grade: EggGrade
    portions: float | None


@dataclass(frozen=True)
class PartShare:
    """What a part gives to one portion of the dessert."""

    name: str
    kind: str
    mass_g: float
    _: KW_ONLY
    portions: float
    portion_g: float
    said: bool


@dataclass(frozen=True)
class Total:
    """The dessert's totals; ``mass_g`` and ``cost.batch`` are of all parts as written."""

    portions: float
    mass_g: float
    portion_g: float
    _: KW_ONLY
    parts: list[PartShare]
    nutrition: Nutrition
    cost: Cost | None
    portion_cost: float
    allergens: tuple[str, ...]
    allergens_untold: tuple[str, ...]
    eggs: Ledger | None
    warnings: list[str]


def total(parts: list[PartMade], per_kg: dict[str, float]) -> Total:
    """Sum the parts of a dessert.

    A part without vessels is shared out among as many portions as the part that makes fewest; a
    dessert of such parts only is one portion. ``per_kg`` are prices by ingredient key.
    """
    said = [p.portions for p in parts if p.portions]
    portions = min(said) if said else 1.0
    shares = [
        PartShare(
            p.name, p.kind, p.mix.mass_g, portions=p.portions or portions,
            portion_g=p.mix.mass_g / (p.portions or portions), said=bool(p.portions),
        )
        for p in parts
    ]  # fmt: skip
    portion = sum((p.mix.scaled(1 / (p.portions or portions)) for p in parts), Mix(()))
    costs = [cost(p.mix, per_kg, p.grade) for p in parts] if per_kg else []
    money = Cost(
        sum(c.batch for c in costs), sorted({name for c in costs for name in c.without_price})
    )
    share_cost = sum(c.batch / s.portions for c, s in zip(costs, shares, strict=False))
    warnings = [
        say(
            "formula.makes_portions_the_dessert_are_over",
            s=s.name,
            portions=s.portions,
            portions_2=portions,
            portions_3=s.portions - portions,
        )
        for s in shares
        if s.said and s.portions > portions * 1.05
    ]
    grades = {p.grade for p in parts}
    entries = [Entry.of(p.name, p.mix) for p in parts]
    return Total(
        portions, sum(p.mix.mass_g for p in parts), portion.mass_g, parts=shares,
        nutrition=nutrition(portion, portion.mass_g), cost=money if per_kg else None,
        portion_cost=share_cost,
        allergens=portion.allergens, allergens_untold=portion.allergens_untold,
        eggs=ledger(entries, grades.pop()) if len(grades) == 1 else None, warnings=warnings,
    )  # fmt: skip
