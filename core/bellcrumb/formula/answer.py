"""Everything the numbers of a formula decide before an egg is cracked."""

import math
from dataclasses import dataclass, replace

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


@dataclass(frozen=True)
class Ratios:
    """Grams per 1000 g of liquid."""

    yolk_g: float
    whole_egg_g: float
    starch_g: float
    corn_starch_equivalent_g: float
    sugar_g: float


@dataclass(frozen=True)
class Answer:
    """What is known of a formula. Fields are None where the formula has too little to say."""

    lines: list[Line | None]
    mix: Mix
    family: Family | None
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
        alone = Case(mix, tuple(x for x in lines if x), None, style, None, _pourable_g(mix))
        found = cautions(alone, chosen=False) if is_whipped_cream(mix) else []
        warnings += [c.text for c in found]
        return Answer(
            lines,
            mix,
            fam,
            guesses,
            liquid,
            None,
            style,
            None,
            None,
            None,
            None,
            whites,
            yolks,
            warnings,
            found,
            {},
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
        warnings.append(
            "Whites stand beside yolks and are counted as they are: whipped and folded in, say so "
            "in their line and it sets lighter."
        )
    worked = None
    if beaten is None and beating_matters(mix, style):
        worked = set_strength(mix, replace(style, beaten=True), spread)
    stop = endpoint(mix, fam, altitude_m)
    egg = coagulation(mix, fam)
    if outside:
        warnings.append(
            f"Outside what we know of {fam.name.lower()}: the set is shown twice as unsure."
        )
    case = Case(mix, tuple(x for x in lines if x), fam, style, stop, _pourable_g(mix))
    found = cautions(case, chosen=family_key is not None)
    warnings += [c.text for c in found]
    result = Answer(
        lines,
        mix,
        fam,
        guesses,
        liquid,
        ratios,
        style,
        strength,
        worked,
        stop,
        egg,
        whites,
        yolks,
        warnings,
        found,
        {},
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
        return f"Only {share:.1f} % of this is liquid: no custard is. Check the amounts."
    basis = fam.liquid_basis if fam else "milk, cream or another liquid"
    return f"No liquid yet: add {basis} and the ratios can be worked out."


def _line_warnings(lines: list[Line | None]) -> list[str]:
    left_out = [f"“{line.text.strip()}”" for line in lines if line and not line.counted]
    return [f"Not counted: {', '.join(left_out)}."] if left_out else []


def _ratios(mix: Mix, liquid_g: float) -> Ratios:
    per = 1000 / liquid_g
    return Ratios(
        mix.yolk_g * per,
        mix.whole_egg_g * per,
        mix.starch_g * per,
        mix.corn_equivalent_g * per,
        mix.added_sugar_g * per,
    )


def _how(style: Style) -> str:
    """How the egg and the starch were taken to set, in words."""
    if style.still >= 1:
        return "set still in the oven"
    if style.still > 0:
        return f"with {100 * style.still:.0f} % of a chance that it is baked, not stirred"
    return "beaten after it set" if style.beaten else "cooked on the stove and left to set"


def _reasons(a: Answer, grade: EggGrade) -> dict[str, Reason]:
    assert a.family and a.set and a.endpoint
    found = {
        "set": Reason(
            f"S = {a.set.index:.2f}, between {a.set.low:.2f} and {a.set.high:.2f}, "
            f"{_how(a.style)}.",
            "S adds starch, egg, milk protein, gelatine and crystal fat per 100 g of mix; sugar "
            "softens, beating and stirring weaken. Cuts: 1.25, 2.65, 4.10, 4.90, 7.05.",
            "Set index calibrated on 31 family centres and 11 anchors (docs/science.md)",
            "±0.6 S inside the family's windows, twice that outside, more with measured cups",
        ),
        "cook": Reason(
            a.endpoint.why,
            "20 g of corn starch (38 g flour) per 1000 g liquid protects egg at the boil",
            "McGee; craft practice",
            "high",
        ),
        "whites": Reason(
            f"{a.mix.grams_of_key('egg_yolk') / grade.yolk_g:.1f} yolks come from as many "
            f"{grade.label} eggs, each with {grade.white_g:g} g of white.",
            "whites left = eggs cracked × white per egg - whites used",
            grade.source,
            f"±{100 * grade.spread:.0f} % within the grade",
        ),
    }
    if a.coagulation:
        found["coagulation"] = Reason(
            f"Thickens from {a.coagulation.onset_c:.0f} °C, best near "
            f"{a.coagulation.ideal_c:.0f} °C.",
            "77 + 3 ln(12.5/P) + 0.15 sugar - 2 (6.6 - pH) - 6 Y - 3 C, P egg protein and sugar in "
            "% of water plus sugar, Y the yolk's share, C protein of curd that has its fat around "
            "it in % of all; stirred creams are taken 4.5 K further, and each is held to its "
            "family's window; a bake with raw starch waits up to 10 K for it, a pie that acid sets "
            "is only warmed",
            "Fitted to the baked families; windows from McGee and craft",
            "±3 K",
        )
    if a.ratios:
        found["ratios"] = Reason(
            f"{a.liquid_g:.0f} g counts as liquid ({a.family.liquid_basis}).",
            "grams × 1000 / grams of liquid; starch also as corn starch that thickens as much",
            "Composition table; corn equivalents from craft practice",
            "as sure as the line amounts",
        )
    return found
