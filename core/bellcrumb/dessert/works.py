"""What kind of work a part of a dessert is: which steps make it, how heavy a millilitre of it is.

Densities are as it lies in the dessert. Source: trade values (pastry cream 1.10, whipped cream
0.45-0.55, Italian meringue 0.25-0.30, raw dough 1.18-1.22, pressed crumb 0.95-1.05); medium.
"""

from dataclasses import KW_ONLY, dataclass
from typing import Literal

from bellcrumb.mix.composition import Mix
from bellcrumb.stove.caramel import is_sauce
from bellcrumb.stove.works import work_kind
from bellcrumb.texture.families import Family
from bellcrumb.texture.no_custard import is_choux, part_kind_of

PartWork = Literal[
    "flaky", "sweet", "crumb", "choux", "puff", "sponge", "caramel", "stirred", "folded", "butter",
    "roux", "curd", "citrus", "bath", "pie", "cheesecake", "french", "italian", "swiss", "whipped",
    "cremeux", "ganache", "jam", "nut", "fruit", "poached_fruit", "biscuit", "torched",
    "frangipane", "gelatine", "cold_cheese", "mascarpone", "chocolate_coat", "garnish", "batter",
    "sauce", "flan", "coulis",
]  # fmt: skip
Lies = Literal[
    "lining", "poured", "mm", "below_rim", "share", "grams", "dome", "swirls", "dusted", "sheet",
]  # fmt: skip


@dataclass(frozen=True)
class WorkFacts:
    """How a kind of part lies: ``density`` in g/ml (None: of the mix itself), the lining's raw
    thickness, what its wall swells to in the oven, the share lost on the way, and whether it
    spoils: dairy and egg that are not dry, sugared or fermented enough to keep warm."""

    lies: Lies
    density: float | None
    lining_mm: float = 0.0
    _: KW_ONLY
    swells: float = 1.0
    walls: bool = False
    lost: float = 0.03
    spoils: bool = False


FACTS: dict[PartWork, WorkFacts] = {
    "flaky": WorkFacts("lining", 1.2, 3.0, swells=1.5, walls=True, lost=0.12),
    "sweet": WorkFacts("lining", 1.2, 3.0, swells=1.1, walls=True, lost=0.15),
    "crumb": WorkFacts("lining", 1.0, 6.0, lost=0.02),
    "choux": WorkFacts("grams", 0.35, lost=0.05),
    "puff": WorkFacts("sheet", 0.25, lost=0.15),
    "sponge": WorkFacts("sheet", 0.35, lost=0.06),
    "caramel": WorkFacts("lining", 1.45, 2.0, lost=0.08),
    "stirred": WorkFacts("poured", None, lost=0.05, spoils=True),
    "folded": WorkFacts("poured", 0.75, lost=0.06, spoils=True),
    "butter": WorkFacts("poured", 0.90, lost=0.06, spoils=True),
    "roux": WorkFacts("poured", None, lost=0.05, spoils=True),
    "curd": WorkFacts("poured", None, lost=0.05, spoils=True),
    "citrus": WorkFacts("poured", None, lost=0.03, spoils=True),
    "bath": WorkFacts("poured", None, lost=0.03, spoils=True),
    "pie": WorkFacts("poured", None, lost=0.03, spoils=True),
    "cheesecake": WorkFacts("poured", 1.04, lost=0.03, spoils=True),
    "batter": WorkFacts("poured", None, lost=0.03, spoils=True),
    "sauce": WorkFacts("mm", 1.2, 3.0, lost=0.06),
    "flan": WorkFacts("poured", None, lost=0.05, spoils=True),
    "french": WorkFacts("poured", 0.30, lost=0.05, spoils=True),
    "italian": WorkFacts("poured", 0.28, lost=0.08),
    "swiss": WorkFacts("poured", 0.30, lost=0.05),
    "whipped": WorkFacts("poured", 0.50, lost=0.04, spoils=True),
    "cremeux": WorkFacts("poured", 1.08, lost=0.05, spoils=True),
    "ganache": WorkFacts("mm", 1.18, 2.0, lost=0.10),
    "jam": WorkFacts("mm", 1.30, 1.0, lost=0.06),
    "coulis": WorkFacts("mm", None, 3.0, lost=0.10),  # what stays in the sieve
    "nut": WorkFacts("poured", 1.15, lost=0.05),
    "fruit": WorkFacts("grams", 0.95, lost=0.05),
    "poached_fruit": WorkFacts("grams", 0.95, lost=0.08),
    "biscuit": WorkFacts("grams", 0.55, lost=0.02),
    "torched": WorkFacts("dusted", 0.85, lost=0.10),
    "frangipane": WorkFacts("poured", 0.95, lost=0.04),
    "gelatine": WorkFacts("poured", None, lost=0.04, spoils=True),
    "cold_cheese": WorkFacts("poured", 0.85, lost=0.05, spoils=True),
    "mascarpone": WorkFacts("poured", 0.80, lost=0.05, spoils=True),
    "chocolate_coat": WorkFacts("dusted", 1.3, lost=0.10),
    "garnish": WorkFacts("dusted", 0.5, lost=0.05),
}
_FOLDED = ("diplomat", "chiboust", "bavarian_cream", "fruit_mousse")
TOPPINGS = ("whipped", "italian", "swiss", "french")
_BATTERS = ("clafoutis", "bread_pudding")
_CITRUS_BAKED = ("citrus_tart", "buttermilk_pie", "baked_custard_pie", "pumpkin_pie", "clafoutis",
                 "flan_tart")  # fmt: skip


def kind_of_dough(mix: Mix) -> PartWork:
    """Which dough a crust is, from what is in it."""
    flour = mix.grams_of("starch")
    crumbs = sum(
        p.grams
        for p in mix.portions
        if p.ingredient.category == "crumb_dough" and not p.ingredient.key.endswith("_raw")
    )
    if crumbs > 0.35 * mix.mass_g:
        return "crumb"
    if mix.grams_of_key("puff_raw"):
        return "puff"
    if mix.grams_of_key("shortcrust_raw", "pie_crust_ready"):
        return "flaky"
    if mix.grams_of_key("sweet_paste_raw", "tart_shell_ready"):
        return "sweet"
    eggs = mix.whole_egg_g + mix.yolk_g + mix.white_g
    if is_choux(mix):
        return "choux"
    wet = mix.grams_of("milk", "basic", "water")
    butter, sugar = mix.grams_of("fat"), mix.added_sugar_g
    if flour and eggs > flour and sugar > 0.5 * flour and butter < 0.6 * flour:
        return "sponge"
    if mix.grams_of_key("almond_ground", "hazelnut_ground") > 0.6 * max(flour, 1) and eggs:
        return "frangipane"
    if flour and butter > 0.75 * flour and sugar < 0.05 * flour and wet > 0.3 * flour:
        return "puff"
    return "sweet" if flour and sugar > 0.12 * flour else "flaky"


def kind_of_part(
    part_kind: str, mix: Mix, family: Family | None, *, method: str = "",
    beaten: bool | None = None, baked: bool | None = None, in_shell: bool = False,
) -> PartWork:  # fmt: skip
    """What work a part is, from its kind, what is in it and how it is set.

    ``family`` is that of the bench; ``baked`` overrules whether it goes into the oven in its stand;
    ``in_shell`` is whether dough lies under it (then it bakes as a pie, without a bath).
    """
    part_kind = part_kind_of(part_kind, mix)
    told = work_kind(part_kind, mix, method, family)
    simple: dict[str, PartWork] = {
        "caramel": "caramel", "italian": "italian", "swiss": "swiss", "french": "french",
        "whipped": "whipped", "ganache": "ganache", "mirror": "ganache", "choux": "choux",
        "curd": "curd", "roux": "roux", "citrus_mix": "citrus",
    }  # fmt: skip
    if part_kind == "crust":
        return kind_of_dough(mix)
    if told == "caramel" and is_sauce(mix):
        return "sauce"
    if told in simple and not (told == "curd" and baked):
        return simple[told]
    if part_kind == "glaze":
        return "coulis" if _is_coulis(mix) else "jam"
    if part_kind == "garnish":
        return _kind_of_garnish(mix)
    nuts = mix.grams_of("nut")
    if nuts > 0.35 * mix.mass_g and not mix.grams_of("egg"):
        return "nut"
    if family is None:
        return "stirred"
    if family.group == "cheesecake":
        return "cheesecake"
    if family.key == "cheesecake_cold":
        return "cold_cheese"
    if family.key == "mascarpone_cream":
        return "mascarpone"
    if family.key in ("panna_cotta", "jelly"):
        return "gelatine"
    if family.key == "cremeux":
        return "cremeux"
    if family.key == "citrus_condensed_pie":
        return "citrus"
    if any(p.whipped for p in mix.portions) or family.key in _FOLDED:
        return "folded"
    if family.key == "mousseline" and beaten is not False:
        return "butter"
    if family.texture_mode == "boiled_baked" and baked is not False:
        return "flan"
    goes_in = baked if baked is not None else not family.on_the_stove
    if goes_in and family.key in _BATTERS and not in_shell:
        return "batter"
    if goes_in:
        return "pie" if in_shell or family.key in _CITRUS_BAKED else "bath"
    return "stirred"


def _is_coulis(mix: Mix) -> bool:
    """Whether a glaze is fruit blended and sieved, that runs: nothing in it sets, no jam melts."""
    jam = mix.grams_of_key("jam_apricot", "jam_red", "jam_dark")
    sets = mix.grams_of("setter") + mix.grams_of_key("sugar_jam") + mix.corn_equivalent_g
    return mix.grams_of("fruit") - jam > 0.5 * mix.mass_g and not sets


def _kind_of_garnish(mix: Mix) -> PartWork:
    """Fruit, biscuits, sugar to torch, or something strewn."""
    if mix.grams_of("crumb_dough") > 0.6 * mix.mass_g:
        return "biscuit"
    if mix.grams_of("nut") > 0.35 * mix.mass_g and mix.added_sugar_g > 0.2 * mix.mass_g:
        return "nut"
    if mix.grams_of("sugar") > 0.9 * mix.mass_g:
        return "torched"
    if mix.grams_of("fruit") > 0.4 * mix.mass_g:
        return "poached_fruit" if mix.added_sugar_g and mix.grams_of_key("water") else "fruit"
    if mix.grams_of("chocolate") > 0.9 * mix.mass_g:
        return "garnish"
    return "garnish"
