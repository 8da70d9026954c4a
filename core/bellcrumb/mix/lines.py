"""Understanding one line of a formula: what it is, how many grams, how surely.

A line is never dropped: what cannot be understood comes back with a sentence that says so and the
nearest ingredients.
"""

import re
from dataclasses import KW_ONLY, dataclass, replace
from functools import lru_cache
from typing import Literal

from bellcrumb.errors import CraftError
from bellcrumb.mix.doubts import OF, doubts, is_a_measure
from bellcrumb.mix.egg_sizes import LARGE_EGGS, grade_in, of_size, whole_and_part
from bellcrumb.mix.forms import (
    PART,
    mixed_with,
    plainly,
    shared_amount,
    spoons_in_capitals,
)
from bellcrumb.mix.weights import Asks, each_of, grams_of
from bellcrumb.pantry.eggs import EggGrade
from bellcrumb.pantry.ingredients import Ingredient
from bellcrumb.pantry.pantry import Match, Pantry, shipped
from bellcrumb.quantities.amount import Amount, plain_text, read_amount
from bellcrumb.quantities.show import cups_text, grams_text
from bellcrumb.quantities.units import Measures
from bellcrumb.words import say

Confidence = Literal["sure", "likely", "doubtful", "unknown"]
# Longer is no line but a text; more of them is no formula.
LONGEST_LINE, MOST_LINES = 300, 200
_OR = re.compile(r"\b(?:or|ou|oder|oppure|o)\b")
_COUNTED = ("egg", "flavour", "fruit", "setter", "spice")  # what is bought by the piece
_HALF_AND_HALF = re.compile(r"\bhalf\s*(?:&|and|-and-|-n-)\s*half\b", re.IGNORECASE)
# "zest and juice of 2 lemons", "succo e scorza di un limone", "Saft und Abrieb einer Zitrone"
_BOTH_OF_FRUIT = re.compile(
    r"^(?:the |le |il )?(?:(?:finely |freshly )?(?:grated|squeezed) )?"
    rf"(?P<one>{'|'.join(PART)}) (?:and|&|et|e|y|und) (?:the |le |la )?"
    rf"(?P<two>{'|'.join(PART)}) (?:of |de |d['’]|di |von )?"
    r"(?P<n>\d\S*(?:\s\d+/\d+)?|one|two|three|an?|une?|deux|trois|un[oa]?|un['’]|due|tre|dos|tres"
    r"|eine[rs]?|zwei|drei)\s*(?P<fruit>\D.*)$"
)
_FRUIT_PART = re.compile(
    rf"^(.+?)[,\s(]+(juiced?|zested|{'|'.join(sorted(PART, key=len, reverse=True))})\)?$"
)
_PART_OF = PART | {"juiced": "juice", "zested": "zest"}
# "lemons, juice and zest", "citron (jus et zeste)", "Zitrone, Saft und Schale"
_ANY_PART = "|".join(sorted(PART, key=len, reverse=True))
_BOTH_PARTS = re.compile(
    rf"^(.+?)[,;:\s]+(?:the )?(?P<one>{_ANY_PART})(?:d|ed)? (?:and|&|\+|et|e|y|und) "
    rf"(?P<two>{_ANY_PART})(?:d|ed)?$"
)


# "whipped", "beaten stiff", "to soft peaks"; montée, fouettée, en neige; montata, a neve; montada,
# a punto de nieve; geschlagen, steif
_WHIPPED = re.compile(
    r"\b(whipped|whisked|(?:beaten|whipped) stiff|(?:soft|firm|stiff) peaks?|mont[ée]e?s?"
    r"|fouett[ée]e?s?|en neige|montat[aei]|a neve|montad[ao]s?|punto de nieve|geschlagene?n?"
    r"|aufgeschlagene?n?|steif)\b"
)


@dataclass(frozen=True)
class Line:
    """One understood line.

    ``grams`` None when no weight could be given; ``spread_g`` the half-width of what it may really
    weigh; ``message`` what was understood or what to do about it; ``impossible`` marks an amount
    no kitchen means (nothing, negative); ``also`` holds what else the line brings ("2 lemons, juice
    and zest"). ``asks`` is what a kitchen may say once for all: what ``said`` is, or what one can,
    pack or piece of it weighs.
    """

    text: str
    ingredient: Ingredient | None
    grams: float | None
    _: KW_ONLY
    spread_g: float = 0.0
    confidence: Confidence = "unknown"
    message: str = ""
    suggestions: tuple[str, ...] = ()
    impossible: bool = False
    us: str = ""
    asks: Asks = ""
    said: str = ""
    also: tuple["Line", ...] = ()

    @property
    def counted(self) -> bool:
        """Whether it is in the mix: what is not understood, or without a weight, is left out."""
        return bool(self.ingredient and self.grams)

    @property
    def whipped(self) -> bool:
        """Whether it goes in as foam: cream or whites that the line says are whipped."""
        foams = self.ingredient is not None and (
            self.ingredient.category == "cream" or self.ingredient.key.startswith("egg_white")
        )
        return foams and bool(_WHIPPED.search(self.text.lower()))

    @property
    def metric(self) -> str:
        """Grams as a scale shows them."""
        return grams_text(self.grams) if self.grams is not None else ""


def _us(
    ingredient: Ingredient, grams: float, grade: EggGrade, counted: bool, measures: Measures
) -> str:
    """Cups, spoons, sticks or pieces for a cook who does not weigh."""
    eggs = {"egg_yolk": ("yolk", grade.yolk_g), "egg_white": ("white", grade.white_g),
            "egg_whole": ("egg", grade.content_g)}  # fmt: skip
    if ingredient.key in eggs:
        word, each = eggs[ingredient.key]
        count = round(2 * grams / each) / 2
        return f"{count:g} {word}{'' if count == 1 else 's'}"
    if counted and ingredient.g_per_piece:
        return f"{grams / ingredient.g_per_piece:g}"
    return cups_text(
        grams, ingredient.g_per_us_cup, measures, stick=ingredient.key.startswith("butter_")
    )


def _worse(a: Confidence, b: Confidence) -> Confidence:
    order: tuple[Confidence, ...] = ("sure", "likely", "doubtful", "unknown")
    return order[max(order.index(a), order.index(b))]


def understand(
    text: str, pantry: Pantry, grade: EggGrade, measures: Measures = "us"
) -> Line | None:
    """Understand one typed line; None for a blank line or a heading ("For the cream:")."""
    plain = plain_text(spoons_in_capitals(text)) if len(text) <= LONGEST_LINE else text
    if len(plain) > LONGEST_LINE:  # fractions spelled out count too
        said = say("mix.at_most_characters_make_a_line", longest_line=LONGEST_LINE)
        return Line(text, None, None, message=said, impossible=True)
    if not plain or plain.endswith(":") or plain.startswith("#"):
        return None
    plain = _HALF_AND_HALF.sub("half_and_half", plain)
    plain = mixed_with(whole_and_part(plain))
    large = LARGE_EGGS.match(plain)
    if large:  # four eggs of the grade L, no litres
        plain = f"{large.group(1)} large {large.group(2)}"
    both = _BOTH_OF_FRUIT.match(plain)
    if both and PART[both["one"]] != PART[both["two"]]:
        count = "1" if both["n"].startswith(("ein", "un")) else both["n"]
        plain = f"{count} {both['fruit']}, juice and zest"
    two = _two_things(text, shared_amount(plain), pantry, grade, measures)
    if two:
        return two
    form = plainly(plain)
    try:
        amount, name = read_amount(form.text, measures)
    except (ValueError, ZeroDivisionError):
        said = say("mix.this_amount_cannot_be_read_as")
        return Line(text, None, None, message=said, impossible=True)
    if amount is None:
        return _without_amount(text, name, pantry)
    if amount.low <= 0:
        said = say("mix.an_amount_has_to_be_more")
        return Line(text, None, None, message=said, impossible=True)
    if not name:
        if amount.unit and amount.unit.name not in ("piece", "can", "pack"):
            plural = "s" if amount.value > 1 and amount.unit.name == "cup" else ""
            what = f"{amount.value:g} {amount.unit.name}{plural}"
        else:
            what = f"{amount.value:g}"
        said = say("mix.of_what_write_the_ingredient_after", what=what)
        return Line(text, None, None, message=said)
    if form.times != 1.0 and amount.unit and amount.unit.kind == "volume":
        amount = replace(
            amount, low=amount.low * form.times, high=amount.high * form.times,
            doubt=amount.doubt or form.note,
        )  # fmt: skip
    return _weigh(text, amount, name, pantry, grade, measures)


# "3 egg yolks plus 1 whole egg", "250 ml de lait et 2 œufs"
TWO_THINGS = re.compile(
    r"^(?P<one>.*?[^\W\d].*?)(?P<and>,? (?:plus|\+|and|&|et|e|y|und|más|più) )"
    r"(?P<two>(?:\d|(?:an?|one|two|three|four|six|une?|deux|trois|quatre|un[oa]|due|tre|quattro|dos"
    r"|tres|cuatro|eine?|zwei|drei|vier)\s).*)$",
    re.IGNORECASE,
)


_BRACKETS_BEHIND = re.compile(r"\s*\([^()]*\)$")
_BOTH_SHARE = 0.25  # so far from what two things weigh a weight in brackets may be and mean both


def _two_things(
    text: str, plain: str, pantry: Pantry, grade: EggGrade, measures: Measures
) -> Line | None:
    """Two ingredients or more in one line; None where it is not sure that there are."""
    found = TWO_THINGS.match(plain)
    if not found:
        return None
    one, two = (understand(found.group(k), pantry, grade, measures) for k in ("one", "two"))
    for line in (one, two):
        if not (line and line.ingredient and line.grams and line.confidence != "unknown"):
            return None
    assert one and two and one.ingredient and two.ingredient and one.grams and two.grams
    if one.ingredient.key == two.ingredient.key:
        return None
    second = two.ingredient.name.lower()
    said_of_it = _BRACKETS_BEHIND.sub("", found.group("two"))
    bare = understand(said_of_it, pantry, grade, measures)
    if bare and bare.grams and bare.grams != two.grams and bare.ingredient == two.ingredient:
        both_g = one.grams + bare.grams
        if abs(both_g - two.grams) < _BOTH_SHARE * both_g:
            # "2 whole eggs + 1 yolk (about 120 g)" says it of both
            two = replace(two, grams=bare.grams, spread_g=bare.spread_g, us=bare.us)
    said = say(
        "mix.and", metric=one.metric, ingredient=one.ingredient.name.lower(), metric_2=two.metric
    )
    more = "".join(
        say("mix.and_more", metric=each.metric, ingredient=each.ingredient.name.lower())
        for each in two.also
        if each.ingredient
    )
    return replace(
        one, text=text, also=(*one.also, replace(two, also=()), *two.also),
        confidence=_worse(one.confidence, two.confidence),
        message=f"{said}{second}{more}",
    )  # fmt: skip


def _without_amount(text: str, name: str, pantry: Pantry) -> Line:
    match = pantry.find(name)
    if match and match.ingredient.key in ("salt_fine", "salt_kosher", "nutmeg", "vanilla_pod"):
        grams = match.ingredient.g_per_piece or 1.0
        said = say("mix.no_amount_counted_as", grams=grams_text(grams))
        return Line(
            text, match.ingredient, grams, spread_g=grams, confidence="doubtful", message=said
        )
    if match:
        said = say("mix.how_much", ingredient=match.ingredient.name.lower())
        return Line(text, match.ingredient, None, message=said)
    said = say("mix.no_amount_found_write_it_as")
    near = tuple(i.name for i in pantry.suggest(name))
    return Line(text, None, None, message=said, suggestions=near)


def _weigh(
    text: str, amount: Amount, name: str, pantry: Pantry, grade: EggGrade, measures: Measures
) -> Line:
    name, grade = of_size(name, grade)
    bare = re.sub(r"\(.*?\)", " ", name)
    both = _BOTH_PARTS.match(re.sub(r"[()]", " ", name).strip())
    if both and amount.unit is None and PART[both["one"]] != PART[both["two"]]:
        juice, zest = (
            _weigh(text, amount, f"{both.group(1)} {part}", pantry, grade, measures)
            for part in ("juice", "zest")
        )
        if juice.grams and zest.grams:
            said = say("mix.of_juice_and_of_zest", metric=juice.metric, metric_2=zest.metric)
            return replace(juice, also=(zest,), message=f"{said}; {juice.message}")
    part = _FRUIT_PART.match(name.strip()) or _FRUIT_PART.match(bare.strip())
    if part:
        bare = f"{part.group(1)} {_PART_OF.get(part.group(2), part.group(2))}"
    match = _matched(name, bare, pantry)
    if not match:
        grams, spread, _ = grams_of(amount, None, grade)
        near = pantry.suggest(bare)
        hint = (
            say("mix.did_you_mean_or_describe_it", near=near[0].name.lower())
            if near
            else say("mix.describe_it")
        )
        return Line(
            text,
            None,
            grams,
            spread_g=spread,
            message=say("mix.is_not_in_the_pantry_from", bare=bare.strip(), hint=hint),
            suggestions=tuple(i.name for i in near),
            asks="name",
            said=bare.strip(),
        )
    ingredient = match.ingredient
    if ingredient.key == "vanilla_pod" and amount.unit and amount.unit.kind == "volume":
        # Nobody measures a pod by the spoon.
        ingredient = pantry.key("vanilla_extract")
        match = replace(
            match,
            ingredient=ingredient,
            note=say("mix.taken_as_extract"),
            sureness="likely",
        )
    elif ingredient.key == "vanilla_pod" and amount.unit and amount.unit.name == "piece":
        match = replace(match, note="", sureness="sure")  # "1 gousse de vanille"
    if ingredient.key == "cinnamon" and (amount.unit is None or amount.unit.kind == "count"):
        ingredient = pantry.key("cinnamon_stick")
    grade = grade_in(name, ingredient, grade)
    grams, spread, how = grams_of(amount, ingredient, grade, pantry)
    if (
        grams
        and amount.unit is None
        and not amount.stated_g
        and is_a_measure(match.before, ingredient)
    ):
        measure = OF.sub("", match.before).strip()
        said = say("mix.how_much_is_a_give_in", sub=measure, ingredient=ingredient.name.lower())
        return Line(text, ingredient, None, message=said)
    confidence: Confidence = match.sureness
    notes = [n for n in (match.note, amount.doubt, how) if n]
    if grams is None:
        called = ingredient.name.lower()
        said = (
            say("mix.how_much_is_in_the_give", unit=amount.unit.name, ingredient=called)
            if amount.unit and amount.unit.name in ("can", "pack")
            else say("mix.no_weight_known_for_one_give", ingredient=called)
        )
        return Line(text, ingredient, None, message=said, asks=each_of(amount))
    if amount.high > amount.low:
        spread = max(spread, grams * (amount.high - amount.low) / (2 * amount.value))
        notes.append(say("mix.middle_of_to", low=amount.low, high=amount.high))
        confidence = _worse(confidence, "likely")
    if amount.doubt or (amount.stated_g is not None and how):
        confidence = _worse(confidence, "doubtful")
    if amount.unit is None and ingredient.category not in _COUNTED:
        confidence = _worse(confidence, "doubtful")
        notes.append(say("mix.no_unit_counted_as_pieces", amount=amount.value))
    if spread > 0.2 * grams:
        confidence = _worse(confidence, "likely")
    for doubt in doubts(amount, ingredient, grams, name, grade, pantry):
        confidence = _worse(confidence, "doubtful")
        notes.insert(0, doubt)
    counted = amount.unit is None or amount.unit.kind == "count"
    return Line(
        text,
        ingredient,
        grams,
        spread_g=spread,
        confidence=confidence,
        message="; ".join(notes),
        us=_us(ingredient, grams, grade, counted, measures),
    )


def _matched(name: str, bare: str, pantry: Pantry) -> Match | None:
    """What a line names: surely with its brackets ("harina de maíz (maicena)"), else without."""
    glossed = pantry.called(re.sub(r"[()]", " ", name)) if "(" in name else None
    if glossed:
        return Match(glossed, "sure")
    found = pantry.find(bare) or pantry.find(re.split(r",|;| - ", bare)[0])
    either = [said.strip() for said in _OR.split(bare) if said.strip()]
    if (found and not found.in_part) or len(either) < 2:
        return found
    return _first_of(either, pantry) or found


def _first_of(either: list[str], pantry: Pantry) -> Match | None:
    """The first that is known of what a line gives the choice of ("cajeta or dulce de leche"); its
    last word may be that of all ("orange or lemon zest")."""
    shared = either[-1].rpartition(" ")[2]
    for said in either:
        both = pantry.find(f"{said} {shared}") if said != either[-1] else None
        match = both if both and both.sureness == "sure" else pantry.find(said)
        if match and not match.in_part:
            note = say("pantry.taken_as", best=match.ingredient.name.lower())
            likely = match.sureness != "doubtful"
            return Match(match.ingredient, "likely", note) if likely else match
    return None


@lru_cache(maxsize=16_384)
def _remembered(text: str, pantry: Pantry, grade: EggGrade, measures: Measures) -> Line | None:
    return understand(text, pantry, grade, measures)


def understand_all(
    texts: list[str], pantry: Pantry | None, grade: EggGrade, measures: Measures = "us"
) -> list[Line | None]:
    """Understand many lines; blank lines and headings stay in place as None.

    ``pantry`` None uses the shipped table. Lines seen before are remembered. Raises CraftError for
    more lines than a formula has.
    """
    store = pantry or shipped()
    if len(texts) > MOST_LINES:
        raise CraftError(
            "lines_text",
            say("mix.at_most_lines_these_are", most_lines=MOST_LINES, texts=len(texts)),
        )
    return [_remembered(text, store, grade, measures) for text in texts]


def weighed(text: str, ingredient: Ingredient, grams: float) -> Line:
    """A line given as an ingredient and its weight."""
    us = cups_text(grams, ingredient.g_per_us_cup, stick=ingredient.key.startswith("butter_"))
    return Line(text, ingredient, grams, spread_g=0.003 * grams, confidence="sure", us=us)
