"""Which line goes into the pot, which into the bowl and which in at the end."""

from dataclasses import dataclass

from bellcrumb.mix.composition import Mix, Portion
from bellcrumb.stove.temper import School
from bellcrumb.texture.endpoint import BOILED_SETTERS_S
from bellcrumb.texture.families import COARSE, Family

_FINISH = ("fat", "chocolate", "alcohol", "nut", "setter")
_POWDERED = ("cocoa_natural", "cocoa_dutch")  # boiled with the starch: off the heat it lumps
_FINISH_KEYS = {"vanilla_extract", "vanilla_paste", "lemon_juice", "lime_juice"}


@dataclass(frozen=True)
class Split:
    """The three places of a stirred cream."""

    pot: Mix
    bowl: Mix
    finish: Mix


def split(mix: Mix, family: Family, school: School) -> Split:
    """Divide a mix by school.

    hot_into_eggs and held_back_liquid: eggs, starch and sugar in the bowl. eggs_after_boil, or a
    mix without egg: starch and sugar boil in the pot. Grains and what dissolves at the boil only
    go in the pot with either. Butter, chocolate, nut paste, gelatine,
    spirits and extracts go in off the heat, and so does what is folded in as foam.
    """
    pot: list[Portion] = []
    bowl: list[Portion] = []
    finish: list[Portion] = []
    in_the_pot = school == "eggs_after_boil" or not mix.grams_of("egg")
    for p in mix.portions:
        i = p.ingredient
        foam = i.key in family.style.foam_keys and family.style.foam_strength is not None
        if foam or (p.whipped and i.category in ("cream", "egg")):
            finish.append(p)  # whipped cream or whites, folded in late
        elif i.category == "egg":
            bowl.append(p)
        elif i.key in COARSE or i.key in BOILED_SETTERS_S:
            pot.append(p)
        elif i.category in ("starch", "sugar") or i.key in _POWDERED:
            (pot if in_the_pot else bowl).append(p)
        elif (i.category in _FINISH or i.key in _FINISH_KEYS) and family.group != "curd":
            finish.append(p)
        else:
            pot.append(p)
    return Split(Mix(tuple(pot)), Mix(tuple(bowl)), Mix(tuple(finish)))
