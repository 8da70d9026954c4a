"""Everything the numbers of a formula decide before an egg is cracked."""

import math
from dataclasses import KW_ONLY, dataclass, replace

from bellcrumb.formula.cautions import Case, Caution, cautions
from bellcrumb.mix.composition import Mix, Portion
from bellcrumb.mix.lines import Line
from bellcrumb.pantry.eggs import EggGrade
from bellcrumb.reasons import Reason
from bellcrumb.texture.coagulation import Coagulation, coagulation
from bellcrumb.texture.endpoint import Endpoint, endpoint
from bellcrumb.texture.families import WHITES, Family, Standing, family, is_juice, standings
from bellcrumb.texture.how_set import beating_matters, how_set, is_whipped_cream
from bellcrumb.texture.no_custard import Other, other_than_custard
from bellcrumb.texture.set_index import MODEL_SPREAD, WHIPPED, SetStrength, Style, set_strength
from bellcrumb.words import say


@dataclass(frozen=True)
class Ratios:
    """Grams per 1000 g of liquid."""

    yolk_g: float
    whole_egg_g: float
    starch_g: float
    _: KW_ONLY
    corn_starch_equivalent_g: float
    sugar_g: float


@dataclass(frozen=True)
class Answer:
    """What is known of a formula. Fields are None where the formula has too little to say."""

    lines: list[Line | None]
    mix: Mix
    family: Family | None
    _: KW_ONLY
    guesses: list[Standing]
    liquid_g: float
    ratios: Ratios | None
    style: Style
    set: SetStrength | None
    beaten: SetStrength | None
    endpoint: Endpoint | None
    coagulation: Coagulation | None
    whites_left_g: float
    yolks_left_g: float
    warnings: list[str]
    cautions: list[Caution]
    reasons: dict[str, Reason]
    set_shift: float = 0.0
    other: Other | None = None

    @property
    def complete(self) -> bool:
        """Whether every line is counted: else what it contains is not all it contains."""
        return all(line.counted for line in self.lines if line)


# Half-widths of a family's windows beyond which nothing is known of a mix: ordinary formulas of
# strangers lie up to two from the nearest centre.
FAR = 2.2
_PARTED = 0.06  # of the mix, from which whites beside yolks are asked about; our estimate
# How much further a family is that is not usually beaten, where this one is. Our estimate.
_OTHERWISE_WORKED = 0.6


def mix_of(lines: list[Line | None]) -> Mix:
    """The mix of the lines that have an ingredient and a weight."""
    return Mix(
        tuple(
            Portion(each.ingredient, each.grams, each.whipped)
            for line in lines
            if line
            for each in (line, *line.also)
            if each.ingredient and each.grams
        )
    )


def eggs_left(mix: Mix, grade: EggGrade) -> tuple[float, float]:
    """Grams of white and of yolk left over when shell eggs are separated for this mix.

    Only separated shell eggs leave anything; liquid and dried egg do not.
    """
    yolks = mix.grams_of_key("egg_yolk") / grade.yolk_g
    whites = mix.grams_of_key("egg_white") / grade.white_g
    cracked = max(yolks, whites)
    return (cracked - whites) * grade.white_g, (cracked - yolks) * grade.yolk_g


def measure_spread(lines: list[Line | None], style: Style) -> float:
    """How much S could move because the amounts are only so sure (root sum of squares)."""
    mix = mix_of(lines)
    if not mix.mass_g:
        return 0.0
    at = set_strength(mix, style).index
    total = 0.0
    for line in lines:
        if not (line and line.ingredient and line.grams and line.spread_g > 0.02 * line.grams):
            continue
        more = mix + Mix((Portion(line.ingredient, line.spread_g),))
        total += (set_strength(more, style).index - at) ** 2
    return float(total**0.5)


def _chance_spread(mix: Mix, style: Style) -> float:
    """How far S may lie off because nobody said whether the egg is baked or stirred: the standard
    deviation of the two sets at the chance of each."""
    chance = style.still
    if chance in (0.0, 1.0):
        return 0.0
    apart = _apart(mix, replace(style, still=1.0), replace(style, still=0.0))
    return apart * math.sqrt(chance * (1 - chance))


def _apart(mix: Mix, one: Style, other: Style) -> float:
    """How far apart S is in two styles."""
    return abs(set_strength(mix, one).index - set_strength(mix, other).index)


def _whites_beside_yolks(mix: Mix) -> bool:
    """Whether whites were parted from yolks and both are in it, which one does to whip them."""
    whipped = any(p.whipped and p.ingredient.key in WHITES for p in mix.portions)
    return mix.white_g > _PARTED * mix.mass_g and mix.yolk_g > 0 and not whipped


def shifted(found: Answer, by: float) -> Answer:
    """The answer in a kitchen whose creams come out ``by`` S firmer than the books'."""

    def moved(strength: SetStrength | None) -> SetStrength | None:
        if strength is None:
            return None
        low, index, high = (max(0.0, s + by) for s in (strength.low, strength.index, strength.high))
        return replace(strength, low=low, index=index, high=high)

    return replace(found, set=moved(found.set), beaten=moved(found.beaten), set_shift=by)


def answer(
    lines: list[Line | None],
    grade: EggGrade,
    family_key: str | None = None,
    altitude_m: float = 0.0,
    *,
    custard: bool = True,
    beaten: bool | None = None,
) -> Answer:
    """The whole answer for understood lines; ``family_key`` None guesses the family.

    ``beaten`` says whether a starch cream is worked smooth after it set; None is not known: both
    sets are answered. The family guessed gives windows and words, never the strength.

    ``custard`` False is for a crust, a caramel, a meringue: no family is guessed.

    Raises CraftError for an unknown family.
    """
    mix = mix_of(lines)
    warnings = _line_warnings(lines)
    other = other_than_custard(mix) if custard and family_key is None else None
    guess = (custard and not other and not is_whipped_cream(mix)) or family_key is not None
    guesses = _guesses(mix, beaten) if mix.mass_g and guess else []
    fam = family(family_key) if family_key else (guesses[0].family if guesses else None)
    style = how_set(mix, fam if family_key else None, beaten)
    whites, yolks = eggs_left(mix, grade)
    liquid = fam.liquid_g(mix) if fam else 0.0
    if mix.mass_g and not liquid and guess:
        warnings.append(_too_little_liquid(mix, fam))
    if not fam or not mix.mass_g:
        alone = Case(
            mix,
            tuple(x for x in lines if x),
            None,
            style=style,
            endpoint=None,
            liquid_g=_pourable_g(mix),
        )
        found = cautions(alone, chosen=False) if is_whipped_cream(mix) else []
        warnings += [c.text for c in found]
        return Answer(
            lines,
            mix,
            fam,
            guesses=guesses,
            liquid_g=liquid,
            ratios=None,
            style=style,
            set=None,
            beaten=None,
            endpoint=None,
            coagulation=None,
            whites_left_g=whites,
            yolks_left_g=yolks,
            warnings=warnings,
            cautions=found,
            reasons={},
            other=other,
        )
    ratios = _ratios(mix, liquid) if liquid else None
    spread = measure_spread(lines, style)
    distance = next((s.distance for s in guesses if s.family is fam), 99.0)
    outside = bool(liquid) and distance > FAR
    # Twice the spread of the model; it never saw a mix that is half sugar, nor a syrup boiled down.
    unsure = outside or fam.liquid_basis in ("egg", "water")
    doubt = math.sqrt(3) * MODEL_SPREAD if unsure else 0.0
    parted = not style.foam_keys and _whites_beside_yolks(mix)
    if parted:
        foam = replace(style, foam_keys=WHITES, foam_strength=WHIPPED["egg"][0],
                       air_ml_per_g=WHIPPED["egg"][1])  # fmt: skip
        doubt = math.hypot(doubt, _apart(mix, style, foam))
    spread = math.hypot(spread, doubt, _chance_spread(mix, style))
    strength = set_strength(mix, style, spread)
    if parted:
        warnings.append(say("formula.whites_stand_beside_yolks_and_are"))
    worked = None
    if beaten is None and beating_matters(mix, style):
        worked = set_strength(mix, replace(style, beaten=True), spread)
    stop = endpoint(mix, fam, altitude_m)
    egg = coagulation(mix, fam)
    if outside:
        warnings.append(say("formula.outside_what_we_know_of_the", fam=fam.name.lower()))
    case = Case(
        mix,
        tuple(x for x in lines if x),
        fam,
        style=style,
        endpoint=stop,
        liquid_g=_pourable_g(mix),
    )
    found = cautions(case, chosen=family_key is not None)
    warnings += [c.text for c in found]
    result = Answer(
        lines,
        mix,
        fam,
        guesses=guesses,
        liquid_g=liquid,
        ratios=ratios,
        style=style,
        set=strength,
        beaten=worked,
        endpoint=stop,
        coagulation=egg,
        whites_left_g=whites,
        yolks_left_g=yolks,
        warnings=warnings,
        cautions=found,
        reasons={},
    )
    result.reasons.update(_reasons(result, grade))
    return result


def _guesses(mix: Mix, beaten: bool | None) -> list[Standing]:
    """The families a mix may be of, nearest first; what is worked smooth is rather one of those
    that usually are."""
    near = [s for s in standings(mix) if s.distance < 90]
    if not beaten:
        return near

    def how_far(one: Standing) -> float:
        return one.distance + _OTHERWISE_WORKED * (not one.family.usually_beaten)

    return sorted(near, key=how_far)


def _pourable_g(mix: Mix) -> float:
    """Grams of milk, cream, water, plant drinks, juice and wine, whatever the family counts."""
    juice = sum(p.grams for p in mix.portions if is_juice(p.ingredient.key, p.ingredient.category))
    return family("anglaise").liquid_g(mix) + juice + mix.grams_of("alcohol")


def _too_little_liquid(mix: Mix, fam: Family | None) -> str:
    pourable = family("anglaise").liquid_g(mix)
    if fam is None and pourable:
        share = 100 * pourable / mix.mass_g
        return say("formula.only_of_this_is_liquid_no", share=share)
    basis = fam.liquid_basis if fam else say("formula.milk_cream_or_another_liquid")
    return say("formula.no_liquid_yet_add_and_the", basis=basis)


def _line_warnings(lines: list[Line | None]) -> list[str]:
    left_out = [f"“{line.text.strip()}”" for line in lines if line and not line.counted]
    return [say("formula.not_counted", left_out=", ".join(left_out))] if left_out else []


def _ratios(mix: Mix, liquid_g: float) -> Ratios:
    per = 1000 / liquid_g
    return Ratios(
        mix.yolk_g * per,
        mix.whole_egg_g * per,
        mix.starch_g * per,
        corn_starch_equivalent_g=mix.corn_equivalent_g * per,
        sugar_g=mix.added_sugar_g * per,
    )


def _how(style: Style) -> str:
    """How the egg and the starch were taken to set, in words."""
    if style.still >= 1:
        return say("formula.set_still_in_the_oven")
    if style.still > 0:
        return say("formula.with_of_a_chance_that_it", still=100 * style.still)
    return (
        say("formula.beaten_after_it_set")
        if style.beaten
        else say("formula.cooked_on_the_stove_and_left")
    )


def _reasons(a: Answer, grade: EggGrade) -> dict[str, Reason]:
    assert a.family and a.set and a.endpoint
    found = {
        "set": Reason(
            say(
                "formula.s_between_and",
                index=a.set.index,
                low=a.set.low,
                high=a.set.high,
                style=_how(a.style),
            ),
            say("formula.s_adds_starch_egg_milk_protein"),
            say("formula.set_index_calibrated_on_31_family"),
            sure=say("formula.0_6_s_inside_the_familys"),
        ),
        "cook": Reason(
            a.endpoint.why,
            say("formula.20_g_of_corn_starch_38"),
            say("formula.mcgee_craft_practice"),
            sure="high",
        ),
        "whites": Reason(
            say(
                "formula.yolks_come_from_as_many_eggs",
                grams_of_key=a.mix.grams_of_key("egg_yolk") / grade.yolk_g,
                grade=grade.name,
                white_g=grade.white_g,
            ),
            say("formula.whites_left_eggs_cracked_white_per"),
            grade.source,
            sure=say("formula.within_the_grade", spread=100 * grade.spread),
        ),
    }
    if a.coagulation:
        found["coagulation"] = Reason(
            say(
                "formula.thickens_from_c_best_near_c",
                onset_c=a.coagulation.onset_c,
                ideal_c=a.coagulation.ideal_c,
            ),
            say("formula.77_3_ln_12_5_p"),
            say("formula.fitted_to_the_baked_families_windows"),
            sure=say("formula.within_3_k"),
        )
    if a.ratios:
        found["ratios"] = Reason(
            say(
                "formula.g_counts_as_liquid",
                liquid_g=a.liquid_g,
                liquid_basis=a.family.liquid_basis,
            ),
            say("formula.grams_1000_grams_of_liquid_starch"),
            say("formula.composition_table_corn_equivalents_from_craft"),
            sure=say("formula.as_sure_as_the_line_amounts"),
        )
    return found
