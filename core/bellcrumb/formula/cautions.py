"""What in a formula would spoil the batch: said before an egg is cracked, each with what to do.

A rule looks at the mix, the lines and how it is cooked, and is quiet unless it is sure enough that
a sound formula trips none of them. Limits are craft unless a source is named.
"""

import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass

from bellcrumb.mix.composition import Mix
from bellcrumb.mix.lines import Line
from bellcrumb.texture.endpoint import Endpoint
from bellcrumb.texture.families import Family
from bellcrumb.texture.set_index import SETTER_S, Style


@dataclass(frozen=True)
class Caution:
    """One thing that would go wrong: ``says`` what and why, ``do`` what helps."""

    code: str
    says: str
    do: str

    @property
    def text(self) -> str:
        """Both as one line."""
        return f"{self.says} {self.do}"


@dataclass(frozen=True)
class Case:
    """What the rules look at; ``liquid_g`` is what milk, cream, water and juice come to."""

    mix: Mix
    lines: tuple[Line, ...]
    family: Family | None
    style: Style
    endpoint: Endpoint | None
    liquid_g: float

    def pct(self, grams: float) -> float:
        """Per cent of the whole."""
        return 100 * grams / self.mix.mass_g

    @property
    def egg_g(self) -> float:
        """Egg as fresh weight."""
        return self.mix.yolk_g + self.mix.whole_egg_g + self.mix.white_g

    @property
    def starch_per_1000(self) -> float:
        """Corn starch (equivalent) per 1000 g of liquid."""
        return 1000 * self.mix.corn_equivalent_g / self.liquid_g if self.liquid_g else 0.0

    @property
    def gelatine_g(self) -> float:
        """Setters as gelatine of 200 bloom."""
        return sum(
            p.grams * SETTER_S.get(p.ingredient.key, 0) / SETTER_S["gelatine"]
            for p in self.mix.portions
        )

    @property
    def acid_g(self) -> float:
        """Juice as lemon juice."""
        return self.mix.lemon_juice_g


# Raw, these hold enzymes that cut protein (bromelain, actinidain, papain, ficin, zingibain); boiled
# or tinned they do not. Source: McGee, On Food and Cooking; high.
_CUTS_PROTEIN = {"pineapple": "pineapple", "kiwi": "kiwi", "papaya": "papaya", "fig": "fig",
                 "ginger_fresh": "ginger", "pineapple_puree": "pineapple"}  # fmt: skip
_COOKED = re.compile(
    r"\b(cooked|boiled|poached|roasted|tinned|canned|stewed|blanched|caramelised|candied|scalded"
    r"|cuite?s?|pochée?s?|en conserve|cott[oaie]|sciroppat[oaie]|cocid[oa]s?|en almíbar"
    r"|gekocht\w*|gedünstet\w*|aus der dose|pasteuri[sz]ed|pasteurisée?s?|pastorizzat[oaie]"
    r"|pasteurizad[oa]s?|pasteurisiert\w*)\b"
)


def _enzyme(c: Case) -> Iterator[Caution]:
    protein = c.gelatine_g > 0.5 or c.egg_g or c.mix.grams_of("milk", "cream", "cultured")
    for line in c.lines:
        key = line.ingredient.key if line.ingredient else ""
        if key in _CUTS_PROTEIN and protein and not _COOKED.search(line.text.lower()):
            word = _CUTS_PROTEIN[key]
            what = "gelatine" if c.gelatine_g > 0.5 else "egg and milk protein"
            yield Caution(
                "enzyme",
                f"Raw {word} cuts {what}: it never sets, or turns bitter and thin.",
                f"Boil the {word} first, or take it tinned.",
            )


_STARCH_HOLDS = 30.0  # g of corn starch per 1000 g that hold milk with juice; our estimate


def _clots(c: Case) -> Iterator[Caution]:
    lean = sum(
        p.grams
        for p in c.mix.portions
        if p.ingredient.category == "milk" and p.ingredient.fat_pct < 8 and
        p.ingredient.key not in ("condensed_milk", "condensed_milk_skim")
    )  # fmt: skip
    dairy = lean + c.mix.grams_of("cream")
    sets_by_acid = c.mix.grams_of_key("condensed_milk") > 0.25 * c.mix.mass_g
    cultured = c.mix.grams_of("cultured", "fresh_cheese")
    stiff = c.starch_per_1000 > _STARCH_HOLDS  # such creams take their juice at the end
    if stiff or sets_by_acid or cultured >= 0.3 * dairy:
        return
    if dairy and lean > 0.5 * dairy and c.egg_g:
        share = c.acid_g / dairy
        if share > 0.05:
            yield Caution(
                "acid_in_milk",
                f"{100 * share:.0f} % of juice clots milk as it warms.",
                "Cream bears it; or cook the milk with starch and beat the juice in at the end.",
            )


def _condensed(c: Case) -> Iterator[Caution]:
    condensed = c.mix.grams_of_key("condensed_milk")
    other = c.mix.grams_of("milk", "cream", "fresh_cheese") - condensed
    if c.pct(condensed) < 35 or other > 0.5 * condensed or not c.acid_g:
        return
    ratio = c.acid_g / condensed
    if ratio < 0.2:
        yield Caution(
            "too_little_juice",
            f"{c.acid_g:.0f} g of juice for {condensed:.0f} g of condensed milk is too little: "
            "the protein does not clot and it stays runny and too sweet.",
            f"It wants {0.25 * condensed:.0f} to {0.4 * condensed:.0f} g.",
        )
    elif ratio > 0.48:
        yield Caution(
            "too_much_juice",
            f"{c.acid_g:.0f} g of juice for {condensed:.0f} g of condensed milk is too much: "
            "it thins what it clots.",
            f"It wants {0.25 * condensed:.0f} to {0.4 * condensed:.0f} g.",
        )


def _plain_water(c: Case) -> Iterator[Caution]:
    water = c.mix.grams_of_key("water", "ice")
    rest = c.mix.grams_of("milk", "cream", "cultured", "fresh_cheese", "plant", "coconut")
    if (
        c.egg_g > 0.06 * c.mix.mass_g
        and c.mix.yolk_g < 0.2 * c.mix.mass_g  # so much yolk in syrup sets by itself
        and water > 3 * rest
        and water > 0.3 * c.mix.mass_g
        and c.acid_g < 0.06 * c.mix.mass_g
        and c.starch_per_1000 < 20
        and c.gelatine_g < 2
    ):
        yield Caution(
            "no_salts",
            "Eggs in plain water hardly set: milk brings the salts that draw their protein "
            "together.",
            "Take milk for the water, or a pinch of salt and some juice at the least.",
        )


# Most that any custard is seasoned with, in % of the mix. Craft; about three times the usual.
_MOST = (
    ("salt", ("salt_fine", "salt_kosher", "salt_flaky"), 0.9),
    ("vanilla", ("vanilla_extract", "vanilla_paste"), 4.0),
    ("nutmeg", ("nutmeg",), 0.6),
    ("clove", ("clove",), 0.5),
    ("cinnamon", ("cinnamon",), 1.6),
    ("spice", ("pumpkin_spice", "allspice", "ginger_ground", "cardamom"), 1.8),
    ("saffron", ("saffron",), 0.1),
    ("tonka", ("tonka",), 0.4),
    ("bitter almond", ("almond_extract",), 1.5),
    ("coffee powder", ("coffee_instant",), 4.0),
)
# What a honeycomb or a syrup may hold more of, but no custard.
_MOST_IN_CUSTARD = (
    ("baking soda", ("baking_soda",), 0.6),
    ("baking powder", ("baking_powder",), 3.0),
    ("spirits", ("rum", "whisky", "kirsch"), 15.0),
)


def _overdone(c: Case) -> Iterator[Caution]:
    for word, keys, most in (*_MOST, *(_MOST_IN_CUSTARD if c.family else ())):
        grams = c.mix.grams_of_key(*keys)
        if c.pct(grams) > most:
            yield Caution(
                "too_much_flavour",
                f"{grams:.0f} g of {word} in {c.mix.mass_g:.0f} g is beyond any use "
                f"(at most about {most * c.mix.mass_g / 100:.1f} g).",
                "A slip of the amount or of the unit?",
            )
    if c.pct(c.gelatine_g) > 2.2:
        yield Caution(
            "too_much_setter",
            f"{c.pct(c.gelatine_g):.1f} % of setter as gelatine makes rubber.",
            "0.6 to 1.2 % stands unmoulded.",
        )


_EGG_WATER = 0.75  # of a whole egg


def _batter(c: Case) -> bool:
    """Whether it is baked as a batter: a far or a clafoutis of much flour is no mistake."""
    return c.family is not None and c.family.key == "clafoutis"


def _tenfold(c: Case) -> Iterator[Caution]:
    if c.family is not None and c.family.liquid_basis == "egg":
        return  # a pie of eggs and sugar: it has neither milk to be thin nor to be pasty by
    starch, liquid, eggs = c.mix.corn_equivalent_g, c.liquid_g, _EGG_WATER * c.egg_g
    poured = c.mix.grams_of("fresh_cheese", "cultured") < 0.2 * c.mix.mass_g
    if liquid and poured and c.starch_per_1000 > 250:
        yield Caution(
            "ten_times_starch",
            f"{c.mix.starch_g:.0f} g of starch in {liquid:.0f} g of liquid is a dough.",
            f"Ten times too much? {c.mix.starch_g / 10:.0f} g would be usual.",
        )
    elif liquid and poured and starch > (240 if _batter(c) else 125) * (liquid + eggs) / 1000:
        yield Caution(
            "pasty",
            f"{c.starch_per_1000:.0f} g of starch (as corn) per 1000 g of liquid: more than any of "
            "these creams carry, it will be pasty.",
            "70 to 100 g makes the firmest that still eat well.",
        )
    held = starch > 0.012 * c.mix.mass_g or c.gelatine_g > 1 or c.mix.grams_of("fresh_cheese")
    if 0 < 1000 * c.egg_g < 30 * liquid and not held and not c.mix.grams_of("chocolate"):
        yield Caution(
            "ten_times_less_egg",
            f"{c.egg_g:.0f} g of egg in {liquid:.0f} g of liquid sets nothing.",
            f"A piece or a nought left out? {10 * c.egg_g:.0f} g would be usual.",
        )
    sugar = c.pct(c.mix.parts_g["sugars"])
    if sugar > 55:
        yield Caution(
            "ten_times_sugar",
            f"{sugar:.0f} % sugar: a syrup, no custard. It will not set.",
            "Look at the sugar line again.",
        )


def _cocoa(c: Case) -> Iterator[Caution]:
    dry = c.pct(sum(p.grams * p.ingredient.cocoa_nonfat_pct / 100 for p in c.mix.portions))
    most = 7.0 if c.style.still > 0.5 else 8.5
    if dry > most:
        yield Caution(
            "cocoa_dry",
            f"{dry:.1f} % of dry cocoa solids: chewy and dusty instead of tender "
            f"(up to {most:g} % stays tender).",
            "Less cocoa, or a chocolate of 55 % for a darker one.",
        )


def _foam(c: Case) -> Iterator[Caution]:
    creams = [p for p in c.mix.portions if p.whipped and p.ingredient.category == "cream"]
    mass = sum(p.grams for p in creams)
    fat = sum(p.grams * p.ingredient.fat_pct for p in creams) / mass if mass else 99
    if fat < 29.5:
        yield Caution(
            "cream_too_lean",
            f"Cream of {fat:.0f} % fat does not whip: under 30 % the bubbles find no walls.",
            "Take 35 % and more, cold.",
        )


_MATTERS = 9.0  # g of corn starch per 1000 g; less steadies a sauce and sets nothing. Our estimate


def _enzyme_of_yolk(c: Case) -> Iterator[Caution]:
    if (
        c.endpoint is not None
        and c.endpoint.mode == "nappe"
        and c.starch_per_1000 > _MATTERS
        and c.mix.yolk_g + c.mix.whole_egg_g > 0
    ):
        yield Caution(
            "yolk_thins_starch",
            "Starch with yolk that stays below 85 °C thins overnight: the yolk's enzyme lives.",
            "From 20 g of corn starch per 1000 g it can be boiled and held; or leave starch out.",
        )


# What steadies an ice without egg.
_CHURNED = ("milk_powder_skim", "milk_powder_whole", "locust_bean", "guar")
_RICH = ("condensed_milk", "condensed_milk_skim", "dulce_de_leche")  # such are sauces and soaks


def _nothing_sets(c: Case) -> Iterator[Caution]:
    if c.family is None or c.egg_g > 0.02 * c.mix.mass_g:
        return
    baked = not c.family.on_the_stove
    if c.mix.grams_of_key(*_CHURNED):
        return
    sauce = c.mix.grams_of("chocolate", "alcohol", "fat") or c.mix.grams_of_key(*_RICH)
    if not baked and (sauce or any(p.whipped for p in c.mix.portions)):
        return
    held = (
        c.starch_per_1000 > 15
        or c.gelatine_g > 1
        or c.mix.grams_of("fresh_cheese", "cultured") > 0.2 * c.mix.mass_g
        or c.acid_g > 0.03 * c.mix.mass_g
    )
    if not held:
        yield Caution(
            "nothing_sets",
            f"Nothing in it sets{' in the oven' if baked else ''}: no egg, no starch"
            f"{'' if baked else ', no gelatine'}.",
            "Add eggs, or set it with gelatine in the cold.",
        )


def _freezes(c: Case) -> Iterator[Caution]:
    if c.family is None or c.family.key != "ice_cream_base":
        return
    sugar = c.pct(c.mix.parts_g["sugars"])
    if c.family and sugar < 13:
        yield Caution(
            "hard_as_ice",
            f"{sugar:.0f} % sugar in all: frozen, it is hard as stone.",
            "16 to 22 % keeps it soft enough to scoop.",
        )


_SHELL_EGGS = ("egg_whole", "egg_yolk", "egg_white", "egg_duck", "egg_goose", "egg_quail")


def _raw_egg(c: Case) -> Iterator[Caution]:
    """Egg from the shell that nothing cooks: whipped and folded in, or beaten into mascarpone."""
    shell = [p for p in c.mix.portions if p.ingredient.key in _SHELL_EGGS]
    cold = c.mix.grams_of_key("mascarpone") > 0.3 * c.mix.mass_g and c.mix.corn_equivalent_g == 0
    folded = any(p.whipped for p in shell)
    if shell and (folded or cold) and (cold or c.style.still < 0.5):
        yield Caution(
            "raw_egg",
            "The egg in it stays raw unless it is baked.",
            "Take pasteurised egg, or warm it over water to 71 °C. Raw it is not for the very "
            "young, old, pregnant or ill.",
        )


_RAW_MILK = re.compile(
    r"\b(raw|unpasteuri[sz]ed) (whole )?(milk|cream)\b|\blait cru\b|\bcrème crue\b|\blatte crudo\b"
    r"|\bleche cruda\b|\bnata cruda\b|\brohmilch|\brohrahm"
)
_KILLS_LISTERIA_C = 72.0  # for 15 s. Source: Codex code of hygienic practice for milk; high.


def _raw_milk(c: Case) -> Iterator[Caution]:
    """Raw milk in what is set cold: nothing in it kills what it may carry."""
    raw = [line for line in c.lines if _RAW_MILK.search(line.text.lower())]
    cooked = c.family is not None and c.family.group != "cold_set"
    if raw and not cooked:
        yield Caution(
            "raw_milk",
            "Raw milk may carry listeria, which lives on in the cold.",
            f"Heat it to {_KILLS_LISTERIA_C:.0f} °C for 15 s first; else it is not for the "
            "pregnant, the very young, old or ill.",
        )


_ON_WHAT_IS_CHOSEN: tuple[Callable[[Case], Iterator[Caution]], ...] = (_freezes,)
_RULES: tuple[Callable[[Case], Iterator[Caution]], ...] = (
    _enzyme, _clots, _condensed, _plain_water, _overdone, _tenfold, _cocoa, _foam,
    _enzyme_of_yolk, _nothing_sets, _raw_egg, _raw_milk,
)  # fmt: skip


def cautions(case: Case, *, chosen: bool) -> list[Caution]:
    """What would spoil this mix; ``chosen`` is whether a cook named the family."""
    if not case.mix.mass_g:
        return []
    rules = (*_RULES, *(_ON_WHAT_IS_CHOSEN if chosen else ()))
    return [found for rule in rules for found in rule(case)]
