"""What in a formula would spoil the batch: said before an egg is cracked, each with what to do.

A rule looks at the mix, the lines and how it is cooked, and is quiet unless it is sure enough that
a sound formula trips none of them. Limits are craft unless a source is named.
"""

import re
from collections.abc import Callable, Iterator
from dataclasses import KW_ONLY, dataclass

from bellcrumb.laws.air import cream_whips
from bellcrumb.mix.composition import Mix
from bellcrumb.mix.lines import Line
from bellcrumb.texture.endpoint import Endpoint
from bellcrumb.texture.families import Family
from bellcrumb.texture.how_set import cream_to_whip, is_whipped_cream
from bellcrumb.texture.set_index import SETTER_S, Style
from bellcrumb.words import say


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
    _: KW_ONLY
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
            what = (
                say("formula.gelatine")
                if c.gelatine_g > 0.5
                else say("formula.egg_and_milk_protein")
            )
            yield Caution(
                "enzyme",
                say("formula.raw_cuts_it_never_sets_or", word=word, what=what),
                say("formula.boil_the_first_or_take_it", word=word),
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
                say("formula.of_juice_clots_milk_as_it", share=100 * share),
                say("formula.cream_bears_it_or_cook_the"),
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
            say("formula.g_of_juice_for_g_of", acid_g=c.acid_g, condensed=condensed),
            say("formula.it_wants_to_g", condensed=0.25 * condensed, condensed_2=0.4 * condensed),
        )
    elif ratio > 0.48:
        yield Caution(
            "too_much_juice",
            say("formula.g_of_juice_for_g_of_2", acid_g=c.acid_g, condensed=condensed),
            say("formula.it_wants_to_g", condensed=0.25 * condensed, condensed_2=0.4 * condensed),
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
            say("formula.eggs_in_plain_water_hardly_set"),
            say("formula.take_milk_for_the_water_or"),
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
    (say("formula.bitter_almond"), ("almond_extract",), 1.5),
    (say("formula.coffee_powder"), ("coffee_instant",), 4.0),
)
# What a honeycomb or a syrup may hold more of, but no custard.
_MOST_IN_CUSTARD = (
    (say("formula.baking_soda"), ("baking_soda",), 0.6),
    (say("formula.baking_powder"), ("baking_powder",), 3.0),
    ("spirits", ("rum", "whisky", "kirsch"), 15.0),
)


def _overdone(c: Case) -> Iterator[Caution]:
    for word, keys, most in (*_MOST, *(_MOST_IN_CUSTARD if c.family else ())):
        grams = c.mix.grams_of_key(*keys)
        if c.pct(grams) > most:
            yield Caution(
                "too_much_flavour",
                say(
                    "formula.g_of_in_g_is_beyond",
                    grams=grams,
                    word=word,
                    mass_g=c.mix.mass_g,
                    most=most * c.mix.mass_g / 100,
                ),
                say("formula.a_slip_of_the_amount_or"),
            )
    if c.pct(c.gelatine_g) > 2.2:
        yield Caution(
            "too_much_setter",
            say("formula.of_setter_as_gelatine_makes_rubber", gelatine_g=c.pct(c.gelatine_g)),
            say("formula.0_6_to_1_2_stands"),
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
            say("formula.g_of_starch_in_g_of", starch_g=c.mix.starch_g, liquid=liquid),
            say("formula.ten_times_too_much_g_would", starch_g=c.mix.starch_g / 10),
        )
    elif liquid and poured and starch > (240 if _batter(c) else 125) * (liquid + eggs) / 1000:
        yield Caution(
            "pasty",
            say("formula.g_of_starch_as_corn_per", starch_per_1000=c.starch_per_1000),
            say("formula.70_to_100_g_makes_the"),
        )
    held = starch > 0.012 * c.mix.mass_g or c.gelatine_g > 1 or c.mix.grams_of("fresh_cheese")
    if 0 < 1000 * c.egg_g < 30 * liquid and not held and not c.mix.grams_of("chocolate"):
        yield Caution(
            "ten_times_less_egg",
            say("formula.g_of_egg_in_g_of", egg_g=c.egg_g, liquid=liquid),
            say("formula.a_piece_or_a_nought_left", egg_g=10 * c.egg_g),
        )
    sugar = c.pct(c.mix.parts_g["sugars"])
    if sugar > 55:
        yield Caution(
            "ten_times_sugar",
            say("formula.sugar_a_syrup_no_custard_it", sugar=sugar),
            say("formula.look_at_the_sugar_line_again"),
        )


def _cocoa(c: Case) -> Iterator[Caution]:
    dry = c.pct(sum(p.grams * p.ingredient.cocoa_nonfat_pct / 100 for p in c.mix.portions))
    most = 7.0 if c.style.still > 0.5 else 8.5
    if dry > most:
        yield Caution(
            "cocoa_dry",
            say("formula.of_dry_cocoa_solids_chewy_and", dry=dry, most=most),
            say("formula.less_cocoa_or_a_chocolate_of"),
        )


def _foam(c: Case) -> Iterator[Caution]:
    if is_whipped_cream(c.mix):
        _, fat, steadied = cream_to_whip(c.mix)
    else:  # what sets the whole is stirred in after the whisk
        creams = [p for p in c.mix.portions if p.whipped and p.ingredient.category == "cream"]
        if not creams:
            return
        mass = sum(p.grams for p in creams)
        fat = sum(p.grams * p.ingredient.fat_pct for p in creams) / mass
        steadied = 0.0
    if not cream_whips(fat, stabilised=steadied > 0):
        yield Caution(
            "cream_too_lean",
            say("formula.cream_of_fat_does_not_whip", fat=fat),
            say("formula.take_35_and_more_cold"),
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
            say("formula.starch_with_yolk_that_stays_below"),
            say("formula.from_20_g_of_corn_starch"),
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
            say(
                "formula.nothing_in_it_sets_no_egg",
                baked=say("formula.in_the_oven") if baked else "",
                baked_2="" if baked else say("formula.no_gelatine"),
            ),
            say("formula.add_eggs_or_set_it_with"),
        )


def _freezes(c: Case) -> Iterator[Caution]:
    if c.family is None or c.family.key != "ice_cream_base":
        return
    sugar = c.pct(c.mix.parts_g["sugars"])
    if c.family and sugar < 13:
        yield Caution(
            "hard_as_ice",
            say("formula.sugar_in_all_frozen_it_is", sugar=sugar),
            say("formula.16_to_22_keeps_it_soft"),
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
            say("formula.the_egg_in_it_stays_raw"),
            say("formula.take_pasteurised_egg_or_warm_it"),
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
            say("formula.raw_milk_may_carry_listeria_which"),
            say("formula.heat_it_to_c_for_15", kills_listeria_c=_KILLS_LISTERIA_C),
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
