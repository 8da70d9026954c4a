"""The set-strength index S and its classes.

S is in grams of corn starch per 100 g of finished mix, equivalent, eaten at 4-8 degC. It ranks
and warns; it does not predict pascals. Coefficients, cuts and their basis are in docs/science.md
(calibrated on craft ratios of 31 families and 11 anchors; stated uncertainty +-0.6 S).
"""

from dataclasses import KW_ONLY, dataclass
from functools import cache
from typing import Any, Literal, get_args

import numpy as np
from numpy.typing import NDArray

from bellcrumb.laws.egg import WHITE_PROTEIN, YOLK_PROTEIN
from bellcrumb.mix.composition import Mix
from bellcrumb.pantry.ingredients import JUICE_EQUIVALENT, Ingredient

Array = NDArray[np.float64]

SetClass = Literal["pour", "nappe", "spoon", "pipe", "slice", "unmould"]
CLASSES: tuple[SetClass, ...] = get_args(SetClass)
CUTS = (1.25, 2.65, 4.10, 4.90, 7.05)
MODEL_SPREAD = 0.6
BORDER = 0.35
_BEATEN = 0.66
_STIRRED_EGG = 0.46
# Raw starch stays half cooked in a still bake that stops below about 80 degC, which is what a bake
# of this much fresh cheese does, in % of the mix: none of it below the first, all above the second.
_HALF_COOKED = (10.0, 30.0)
# S per % of a setter in the mix. Gelatine: fitted to panna cotta; the gums: from the doses at
# which a milk gel unmoulds (agar 0.4 %, kappa 0.3 %, iota 0.6 %, pectin 0.9 %), good to a third.
SETTER_S = {
    "gelatine": 6.5, "gelatine_gold": 6.5, "gelatine_silver": 5.6, "gelatine_bronze": 5.0,
    "gelatine_titanium": 4.0, "agar": 15.0, "agar_flakes": 15.0, "carrageenan_kappa": 20.0,
    "carrageenan_iota": 10.0, "pectin": 6.5, "gelatine_mass": 6.5 / 6,
}  # fmt: skip

# Bread that soaks up its custard and is baked in it; S per % of the mix, our estimate.
SOAKS = ("bread_white", "bread_roll", "brioche", "croissant", "panettone", "zwieback", "breadcrumb")
_SOAKED_S = 10.0

# S per % of what is neither sugar nor starch in a cooked pulp: the walls of a squash hold water as
# a gum does, mashed roots and bananas less. Source: craft ratios of pumpkin pies; our estimate.
_PULP_S = {"pumpkin_puree": 1.2, "sweet_potato": 0.9, "banana": 0.9}
# However sweet, egg that is heated until it sets keeps this much of its strength: sugar delays it
# more than it weakens it (pies of egg and syrup cut). Our estimate.
_SOFTEST_EGG = 0.85
# Milk protein beyond what milk brings (condensed, evaporated, powder), in % of the mix, sets with
# the egg of a still bake. Source: flans of ten yolks to a tin of each milk unmould; our estimate.
_MILK_PROTEIN_PCT, _CONDENSED = 3.5, 0.45
# Beyond so much of a mix yolk left still sets to more than its share: from there its grains touch.
# Source: sweets of yolk and syrup unmould at a third of yolk; our estimate.
_MUCH_YOLK_PCT, _DENSE_YOLK = 20.0, 0.012
# Whole or ground nuts lie in the gel without diluting it: what sets is as strong as without them.
# Source: filled gels with inactive filler; that they do not stiffen it is our estimate.
_PASTES = ("_paste", "_butter", "_puree", "marzipan", "tahini", "chestnut_sweet", "_milk")

FACTORS = (
    "mass",
    "starch",
    "yolk_protein",
    "white_protein",
    "milk_fat",
    "cocoa_butter",
    "cocoa_nonfat",
    "sweet_milk_protein",
    "acid_milk_protein",
    "sugar",
    "gelatine",
    "pulp",
    "acid",
    "fresh_cheese",
    "filler",
)
_AT = {name: i for i, name in enumerate(FACTORS)}


@dataclass(frozen=True)
class Foam:
    """Air folded in: ``mass_g`` of foam, its own S, and millilitres of air per gram of it."""

    mass_g: float
    strength: float
    air_ml_per_g: float


@dataclass(frozen=True)
class Style:
    """How a mix is set.

    ``still`` is 1 for egg that sets undisturbed in the oven, 0 for egg that is stirred or boiled,
    and the chance of the first where nobody said. ``beaten`` is a cream worked smooth after it set.
    ``foam_keys`` are ingredients that go in as foam, ``foam_strength`` its S (None: baked in, so
    only the air counts).
    """

    still: float = 0.0
    beaten: bool = False
    foam_keys: frozenset[str] = frozenset()
    _: KW_ONLY
    foam_strength: float | None = None
    air_ml_per_g: float = 0.0


def _lies_in(ingredient: Ingredient) -> bool:
    pieces = ingredient.category == "nut" or ingredient.key in ("coconut_desiccated",
                                                                "coconut_sweet")  # fmt: skip
    return pieces and not ingredient.key.endswith(_PASTES)


@cache
def factors_of(ingredient: Ingredient) -> Array:
    """What one gram of an ingredient brings to the set, as a vector over ``FACTORS``."""
    i = ingredient
    milk_protein = i.protein_pct if i.category in ("milk", "cream", "fat") and i.milk_fat_pct else 0
    if i.category == "milk":
        milk_protein = i.protein_pct
    acid_protein = 0.0
    if i.category in ("cultured", "fresh_cheese"):
        acid_protein = i.protein_pct * (0.30 if i.key.startswith("ricotta") else 1.0)
    if i.key.startswith("buttermilk"):  # already clotted, too thin to gel on baking
        acid_protein = 0.0
    milk_fat = i.milk_fat_pct if not i.key.startswith("coconut") else 0.7 * i.fat_pct
    cocoa_butter = max(0.0, i.cocoa_solids_pct - i.cocoa_nonfat_pct)
    pulp = 0.0
    if i.key in _PULP_S:
        pulp = _PULP_S[i.key] * i.other_carb_pct
    if i.key in SOAKS:
        pulp = _SOAKED_S
    return np.array(
        [
            1.0,
            i.corn_equivalent,
            i.yolk_pct * YOLK_PROTEIN / 100,
            i.white_pct * WHITE_PROTEIN / 100,
            milk_fat / 100,
            cocoa_butter / 100,
            i.cocoa_nonfat_pct / 100,
            milk_protein / 100,
            acid_protein / 100,
            i.sugars_pct / 100,
            SETTER_S.get(i.key, 0.0) / SETTER_S["gelatine"],
            pulp / 100,
            JUICE_EQUIVALENT.get(i.key, 0.0),
            1.0 if i.category == "fresh_cheese" else 0.0,
            1.0 if _lies_in(i) else 0.0,
        ]
    )


def totals(mix: Mix) -> Array:
    """Grams of each of ``FACTORS`` in a mix, shape (15,)."""
    total = np.zeros(len(FACTORS))
    for portion in mix.portions:
        total += portion.grams * factors_of(portion.ingredient)
    return total


def _base(total: Array, style: Style) -> tuple[Array, Array]:
    """S and the share of it carried by elastic gels, for totals of shape (..., 15)."""
    gel = total[..., :1] - total[..., _AT["filler"], None]
    per = 100 * total / np.maximum(gel, 1e-9)
    v: dict[str, Any] = {name: per[..., i] for name, i in _AT.items()}
    sweet_by = 1 - 0.006 * np.maximum(0, v["sugar"] - 12)
    soft, soft_egg = np.maximum(0.55, sweet_by), np.maximum(_SOFTEST_EGG, sweet_by)
    low, high = _HALF_COOKED
    raw = style.still * np.clip((v["fresh_cheese"] - low) / (high - low), 0, 1)
    cooked = 1 - 0.5 * raw
    boiled_together = 1 - np.minimum(0.30, 0.003 * v["acid"])
    starch = cooked * v["starch"] * boiled_together
    network = style.still + (1 - style.still) * _STIRRED_EGG
    yolk_pct = v["yolk_protein"] / YOLK_PROTEIN
    dense = _DENSE_YOLK * style.still * np.maximum(0, yolk_pct - _MUCH_YOLK_PCT)
    egg = 2.8 * (v["white_protein"] + (0.36 + dense) * v["yolk_protein"]) * network
    sweet = v["sweet_milk_protein"]
    clotted = np.where((sweet > 0.5) & (v["acid"] > 0), v["acid"] / np.maximum(2 * sweet, 1e-9), 0)
    clotted = np.minimum(1, clotted)
    condensed = _CONDENSED * style.still * np.maximum(0, sweet - _MILK_PROTEIN_PCT)
    milk = (0.06 * sweet + condensed) * (1 - clotted) + 0.59 * (
        sweet * clotted + v["acid_milk_protein"]
    )
    gelatine = 6.5 * v["gelatine"]
    fat = 0.06 * v["milk_fat"] + 0.12 * v["cocoa_butter"] + 0.13 * v["cocoa_nonfat"]
    beaten = _BEATEN if style.beaten else 1.0
    strength = (
        (starch * soft + egg * soft_egg) * beaten + milk + gelatine * beaten + v["pulp"] + fat
    )
    elastic = style.still * egg * soft_egg + gelatine * beaten
    return strength, elastic / np.maximum(strength, 1e-9)


def strength(total: Array, style: Style, foam: Foam | None = None) -> tuple[Array, Array]:
    """S and the slice/unmould cut for totals of shape (..., 15).

    ``total`` is everything but a folded-in ``foam`` (None: nothing folded in). Elastic gels
    release earlier than starch or cheese gels, which is why the top cut moves.
    """
    if foam and foam.strength >= 0:
        rigid = total.copy()
        rigid[..., _AT["gelatine"]] = 0
        s, _ = _base(rigid, style)
        mass = total[..., 0]
        whole = mass + foam.mass_g
        s = (s * mass + foam.strength * foam.mass_g) / np.maximum(whole, 1e-9)
        gelatine = 6.5 * 100 * total[..., _AT["gelatine"]] / np.maximum(whole, 1e-9)
        gelatine = gelatine * (_BEATEN if style.beaten else 1.0)
        s = s + gelatine
        elastic = gelatine / np.maximum(s, 1e-9)
    else:
        s, elastic = _base(total, style)
        whole = total[..., 0]
    if foam:
        air = foam.air_ml_per_g * foam.mass_g
        s = s * (1 - air / (air + whole / 1.12)) ** 0.8
    top = np.maximum(CUTS[3] + 0.6, CUTS[4] - 1.5 * np.maximum(0, elastic - 0.5) / 0.5)
    return s, top


# Foams by what is whipped: S of the foam, ml of air per gram after folding. Source: overrun of
# 35 % cream (about 90 %) and of Italian meringue, less what folding costs; our estimate.
WHIPPED = {"cream": (3.4, 0.7), "egg": (3.2, 2.0)}


def split_foam(mix: Mix, style: Style) -> tuple[Array, Foam | None]:
    """The totals a style sets as one mass, and what it folds in as foam."""
    foam = [p for p in mix.portions if p.whipped or p.ingredient.key in style.foam_keys]
    mass = sum(p.grams for p in foam)
    if not mass:
        return totals(mix), None
    baked_in = style.still > 0.5
    told = style.foam_strength, style.air_ml_per_g
    each = [
        WHIPPED.get(p.ingredient.category, WHIPPED["cream"]) if p.whipped and not style.foam_keys
        else (told[0] or 0.0, told[1])
        for p in foam
    ]  # fmt: skip
    air = sum(p.grams * a for p, (_, a) in zip(foam, each, strict=True)) / mass
    if baked_in:
        return totals(mix), Foam(mass, -1.0, air)
    own = sum(p.grams * s for p, (s, _) in zip(foam, each, strict=True)) / mass
    return totals(Mix(tuple(p for p in mix.portions if p not in foam))), Foam(mass, own, air)


@dataclass(frozen=True)
class SetStrength:
    """S with its band and the classes it spans; ``position`` is 0 (pour) to 6 (top of unmould)."""

    index: float
    low: float
    high: float
    _: KW_ONLY
    cuts: tuple[float, ...]
    beaten: bool

    def class_at(self, s: float) -> SetClass:
        """The class of a strength; a beaten cream is never called more than pipe."""
        number = sum(s >= cut for cut in self.cuts)
        return CLASSES[min(number, 3) if self.beaten else number]

    @property
    def klass(self) -> SetClass:
        """The class of the middle of the band."""
        return self.class_at(self.index)

    @property
    def borderline(self) -> SetClass | None:
        """The neighbouring class when S is within 0.35 of a cut, else None."""
        for cut in self.cuts:
            if abs(self.index - cut) <= BORDER:
                other = self.class_at(cut - 0.01 if self.index >= cut else cut + 0.01)
                if other != self.klass:
                    return other
        return None

    @property
    def position(self) -> float:
        """Class number plus the fraction of the way across the class (0-6)."""
        edges = (0.0, *self.cuts, self.cuts[-1] + 1.6)
        return float(np.interp(self.index, edges, range(len(edges))))


def set_strength(mix: Mix, style: Style, spread: float = 0.0) -> SetStrength:
    """How firmly a mix sets. ``spread`` is the +-S that its measures add to the model's own."""
    total, foam = split_foam(mix, style)
    s, top = strength(total, style, foam)
    half = float(np.hypot(MODEL_SPREAD, spread))
    index = float(s)
    return SetStrength(
        index,
        max(0.0, index - half),
        index + half,
        cuts=(*CUTS[:4], float(top)),
        beaten=style.beaten,
    )
