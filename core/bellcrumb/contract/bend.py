"""Solving at the front door: from typed lines and wishes to bent lines."""

from collections.abc import Callable

from bellcrumb import shapes
from bellcrumb.asked.lines import read_lines, shift_of
from bellcrumb.errors import CraftError
from bellcrumb.formula.answer import answer, mix_of
from bellcrumb.formula.scale import FINE, eggs_cracked, scale_line
from bellcrumb.formula.solve import Wishes, solve
from bellcrumb.mix.composition import Mix
from bellcrumb.mix.lines import Line, understand
from bellcrumb.pantry.eggs import EggGrade, egg_grade
from bellcrumb.pantry.ingredients import Ingredient
from bellcrumb.pantry.pantry import Pantry, shipped
from bellcrumb.quantities.amount import plain_text, read_amount
from bellcrumb.quantities.units import Measures
from bellcrumb.texture.families import Family
from bellcrumb.texture.how_set import how_set
from bellcrumb.texture.set_index import Style, set_strength
from bellcrumb.words import say


def bend(given: shapes.SolveIn, pantry: Pantry | None = None) -> shapes.SolveOut:
    """Bend a formula to wishes. Raises CraftError for what makes no sense to wish."""
    grade = egg_grade(given.egg_grade)
    bought = egg_grade(given.wishes.eggs_bought_as) if given.wishes.eggs_bought_as else grade
    store = pantry or shipped()
    texts = [t if isinstance(t, str) else f"{t.grams:g} g {t.ingredient}" for t in given.lines]
    lines = read_lines(given.lines, grade, pantry, "lines", given.measures)
    result = answer(lines, grade, given.family, given.altitude_m, beaten=given.beaten)
    if not result.family or not result.mix.mass_g:
        raise CraftError("lines", say("contract.there_is_nothing_to_bend_yet"))
    wish = given.wishes
    wishes = Wishes(
        set_class=wish.set_class,
        starch_g=wish.starch_per_1000,
        egg_g=wish.egg_per_1000,
        less_eggy=wish.less_eggy,
        whole_eggs=wish.whole_eggs,
        swaps=tuple((s.old, s.new) for s in wish.swaps),
        without=tuple(wish.without),
        shift=shift_of(given, result),
    )  # fmt: skip
    chosen = result.family if given.family else None

    def style_of(mix: Mix) -> Style:
        return how_set(mix, chosen, given.beaten)

    found = solve(result.mix, result.family, style_of, wishes, store)
    factor = 1.0
    if wish.have:
        have = understand(wish.have, store, bought, given.measures)
        factor = _use_up(have, found.mix, found.unmet)
    elif bought is not grade:
        cracked = eggs_cracked(found.mix, bought)
        factor = max(1, round(cracked)) / cracked if cracked else 1.0
    whole = (
        say("contract.the_whole_batch")
        if bought is grade
        else say("contract.eggs_are", bought=bought.name)
    )
    out: list[str] = []
    changes: list[shapes.ChangeOut] = []
    portions = iter(zip(found.portions, found.why, strict=True))
    for text, line in zip(texts, lines, strict=True):
        if not (line and line.ingredient and line.grams):
            out.append(text)
            continue
        portion, why = next(portions)
        for _ in line.also:
            next(portions)
        now = portion.ingredient
        after = ""
        if bought is not grade and now.key == line.ingredient.key:
            after = _recounted(text, line, portion.grams * factor, bought, given.measures)
        after = after or _line(text, line, now, portion.grams * factor, store, given.measures)
        if after:
            out.append(after)
        if after != text:
            changes.append(shapes.ChangeOut(before=text, after=after, why=why or whole))
    for portion, why in portions:
        added = f"{portion.grams * factor:.0f} g {_called(portion.ingredient, store)}"
        out.append(added)
        changes.append(shapes.ChangeOut(before="", after=added, why=why))
    bent = mix_of(read_lines(list(out), bought, pantry, "lines", given.measures))
    was, now_is = (_cost(mix, result.family, style_of, wishes.shift) for mix in (result.mix, bent))
    return shapes.SolveOut(
        lines=out, egg_grade=bought.label, changes=changes, before=was, after=now_is,
        unmet=found.unmet,
    )  # fmt: skip


def _recounted(text: str, line: Line, grams: float, bought: EggGrade, measures: Measures) -> str:
    """A line of counted eggs in eggs of another size; empty when it counts none."""
    assert line.ingredient
    each = {"egg_yolk": bought.yolk_g, "egg_white": bought.white_g, "egg_whole": bought.content_g}
    amount, _ = read_amount(plain_text(text), measures)
    if line.ingredient.key not in each or not amount or amount.stated_g is not None:
        return ""
    if amount.unit and amount.unit.kind != "count":
        return ""
    count = grams / each[line.ingredient.key]
    if round(count) < 1 or abs(count - round(count)) > FINE * count:
        return f"{grams:.0f} g {_called(line.ingredient, shipped())}"
    return scale_line(text, line, round(count) / amount.value, measures)


def _line(
    text: str, line: Line, now: Ingredient, grams: float, store: Pantry, measures: Measures
) -> str:
    """The line with its new weight or ingredient; empty when nothing of it is left."""
    assert line.ingredient and line.grams
    if grams < 0.05:
        return ""
    if now.key != line.ingredient.key:
        return f"{grams:.0f} g {_called(now, store)}"
    factor = grams / line.grams
    return text if abs(factor - 1) <= 0.01 else scale_line(text, line, factor, measures)


def _called(ingredient: Ingredient, store: Pantry) -> str:
    """A name that is understood as this ingredient again."""
    for name in (*ingredient.aliases, ingredient.name):
        match = store.find(name)
        if match and match.ingredient.key == ingredient.key and match.sureness == "sure":
            return name.lower()
    return ingredient.key.replace("_", " ")


def _use_up(have: Line | None, mix: Mix, unmet: list[str]) -> float:
    if not have or not have.ingredient or not have.grams:
        said = have.message if have else say("contract.say_what_you_have_as_a")
        raise CraftError("wishes.have", say("contract.not_understood", said=said))
    there = mix.grams_of_key(have.ingredient.key)
    if there <= 0:
        unmet.append(say("contract.there_is_no_in_it_to", ingredient=have.ingredient.name.lower()))
        return 1.0
    return have.grams / there


def _cost(
    mix: Mix, family: Family, style_of: Callable[[Mix], Style], shift: float
) -> shapes.CostOut:
    strength = set_strength(mix, style_of(mix))
    index = max(0.0, strength.index + shift)
    liquid = family.liquid_g(mix)
    return shapes.CostOut.model_validate({
        "index": index, "class": strength.class_at(index), "sugar_pct": 100 * mix.share("sugars"),
        "fat_pct": 100 * mix.share("fat"),
        "yolk_per_1000": 1000 * mix.yolk_g / liquid if liquid else 0.0,
    })  # fmt: skip
