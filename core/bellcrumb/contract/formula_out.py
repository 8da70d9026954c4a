"""Turning core results into output shapes."""

from typing import Any

from bellcrumb import shapes
from bellcrumb.asked.lines import priced
from bellcrumb.contract.fitting import fit_out
from bellcrumb.errors import CraftError
from bellcrumb.formula.answer import Answer
from bellcrumb.formula.worth import cost, eggs_to_have, nutrition
from bellcrumb.laws.egg import SET_SPREAD_K
from bellcrumb.mix.called import called
from bellcrumb.mix.composition import Mix
from bellcrumb.mix.lines import Line
from bellcrumb.pantry.eggs import EggGrade
from bellcrumb.pantry.pantry import Pantry
from bellcrumb.reasons import Reason
from bellcrumb.stove.whip import Whipped, whip_of
from bellcrumb.texture.how_set import is_whipped_cream
from bellcrumb.texture.set_index import CLASSES, split_foam
from bellcrumb.texture.set_map import Plane, SetMap, point, set_map
from bellcrumb.vessels.geometry import Vessel
from bellcrumb.words import say


def line_out(text: str, line: Line | None) -> shapes.LineOut:
    """One line; None is a blank line or a heading."""
    if line is None:
        return shapes.LineOut(
            text=text,
            called=text.strip(),
            ingredient=None,
            name=None,
            grams=None,
            spread_g=0,
            confidence="sure",
            message="",
            suggestions=[],
            asks="",
            said="",
            impossible=False,
            blank=True,
            metric="",
            us="",
        )
    return shapes.LineOut(
        text=line.text,
        called=called(line.text),
        ingredient=line.ingredient.key if line.ingredient else None,
        name=line.ingredient.name if line.ingredient else None,
        grams=line.grams,
        spread_g=line.spread_g,
        confidence=line.confidence,
        message=line.message,
        suggestions=list(line.suggestions),
        asks=line.asks,
        said=line.said,
        impossible=line.impossible,
        blank=False,
        metric=line.metric,
        us=line.us,
    )


def _composition(mix: Mix) -> shapes.CompositionOut:
    pct = {part: 100 * mix.share(part) for part in mix.parts_g}
    return shapes.CompositionOut(
        water=pct["water"],
        fat=pct["fat"],
        protein=pct["protein"],
        sugars=pct["sugars"],
        starch=pct["starch"],
        other=pct["other_carb"] + pct["ash"],
        alcohol=pct["alcohol"],
    )


def _taste(mix: Mix) -> shapes.TasteOut:
    mass = mix.mass_g or 1.0
    dry = mix.mass_g - mix.parts_g["water"] - mix.parts_g["alcohol"]
    return shapes.TasteOut(
        dry_matter=100 * dry / mass,
        sweetness=100 * mix.sweetness_g / mass,
        cocoa=100 * mix.cocoa_g / mass,
    )


def map_out(a: Answer, plane: Plane) -> SetMap | None:
    """The set map of an answer in a plane; None where there is nothing to draw."""
    if not (a.family and a.set):
        return None
    return set_map(a.mix, a.family, a.style, a.set.low, a.set.high, plane, a.set_shift)


def points_out(a: Answer) -> shapes.PointsOut | None:
    """Where an answer's mix stands in every plane; None without a liquid."""
    mix, family = a.mix, a.family
    if family is None or family.liquid_g(mix) <= 0:
        return None
    planes: tuple[Plane, ...] = ("starch_egg", "sugar_fat", "egg_fat")
    at = {plane: point(mix, family, a.style, plane) or (0.0, 0.0) for plane in planes}
    return shapes.PointsOut.model_validate({p: {"x": x, "y": y} for p, (x, y) in at.items()})


def worth_out(
    given: shapes.FormulaIn, a: Answer, grade: EggGrade, fit: shapes.FitOut | None, pantry: Pantry
) -> dict[str, Any]:
    """Portions, nutrition, cost and eggs, with their reasons."""
    mix = a.mix
    if not mix.mass_g:
        return {"eggs": None, "portions": None, "nutrition": None, "cost": None, "reasons": {}}
    portions = fit.count * float(given.portions_per_vessel) if fit else None
    each = fit.per_vessel_g / given.portions_per_vessel if fit else 100.0
    reasons = {
        "nutrition": Reason(
            say("contract.one_portion_is_g_of_the", each=each)
            if fit
            else say("contract.no_vessel_is_chosen_of_100"),
            say("contract.fat_9_protein_and_carbohydrate_4"),
            say("contract.composition_table_energy_factors_of_eu"),
            sure=say("contract.10_what_boils_away_and_sticks"),
        ),
        "sweetness": Reason(
            say("contract.g_as_sucrose_in_g", sweetness_g=mix.sweetness_g, mass_g=mix.mass_g),
            say("contract.each_sugar_times_its_sweetness_lactose"),
            say("contract.usual_relative_sweetness_craft"),
            sure=say("contract.10_cold_and_fat_dull_it"),
        ),
    }
    crack, have = eggs_to_have(mix, grade, given.egg_spare_pct / 100)
    money = None
    if given.prices:
        found = cost(mix, priced(given.prices, pantry), grade)
        share = each / mix.mass_g
        money = shapes.MoneyOut(
            batch=found.batch, portion=found.batch * share, without_price=found.without_price
        )
        reasons["cost"] = Reason(
            say("contract.for_the_batch_of_g_g", batch=found.batch, mass_g=mix.mass_g, each=each),
            say("contract.grams_of_each_ingredient_times_its"),
            say("contract.the_kitchens_own_prices"),
            sure=say("contract.without", without_price=", ".join(found.without_price))
            if found.without_price
            else say("contract.all_counted"),
        )
    return {
        "eggs": shapes.EggsOut(grade=grade.name, crack=crack, have=have) if crack else None,
        "portions": portions,
        "nutrition": nutrition(mix, each),
        "cost": money,
        "reasons": reasons,
    }


def air_ml(a: Answer, volume_ml: float, overrun_pct: float) -> float:
    """Air folded in by the family's foam, and whipped in besides, in millilitres."""
    _, foam = split_foam(a.mix, a.style) if a.family else (None, None)
    folded = foam.air_ml_per_g * foam.mass_g if foam else 0.0
    return folded + volume_ml * overrun_pct / 100


def formula_out(
    given: shapes.FormulaIn,
    a: Answer,
    grade: EggGrade,
    pantry: Pantry,
    vessels: dict[str, Vessel] | None,
) -> shapes.FormulaOut:
    """The whole answer as it leaves the core; vessels that do not do are said, not raised."""
    texts = [t if isinstance(t, str) else f"{t.grams:g} g {t.ingredient}" for t in given.lines]
    mix = a.mix
    family = None
    if a.family:
        distance = next((s.distance for s in a.guesses if s.family is a.family), 99.0)
        family = shapes.FamilyOut(
            key=a.family.key,
            name=a.family.name,
            guessed=given.family is None,
            distance=distance,
            on_the_stove=a.family.on_the_stove,
            keep_days=list(a.family.keep_days),
            chill_h=list(a.family.chill_h),
            doneness=a.family.doneness,
        )
    strength = None
    if a.set:
        s = a.set
        softest = s.class_at(s.low)
        beaten = a.beaten.klass if a.beaten else softest
        strength = shapes.SetOut.model_validate(
            {
                "index": s.index,
                "low": s.low,
                "high": s.high,
                "class": s.klass,
                "low_class": min(softest, beaten, key=CLASSES.index),
                "high_class": s.class_at(s.high),
                "borderline": s.borderline,
                "position": s.position,
                "beaten": None if a.beaten else s.beaten,
                "beaten_class": a.beaten.klass if a.beaten else None,
                "shift": a.set_shift,
            }
        )
    air = air_ml(a, mix.volume_ml, given.overrun_pct)
    volume = mix.volume_ml + air
    fit, problem = None, None
    try:
        fit = fit_out(given, volume, mix.mass_g, vessels)
    except CraftError as error:
        problem = shapes.ProblemOut(field=error.field, message=error.message)
    worth = worth_out(given, a, grade, fit, pantry)
    whipped = None
    if a.family is None and given.part_kind != "garnish" and is_whipped_cream(mix):
        whipped = whip_of(mix)
    reasons = dict(a.reasons)
    if a.family:
        low, high = a.family.keep_days
        reasons["keeps"] = Reason(
            say(
                "contract.to_days_at_5_c_covered", low=low, high=high, family=a.family.name.lower()
            ),
            say("contract.quality_first_the_date_mark_of"),
            a.family.source,
            sure=a.family.confidence,
        )
    return shapes.FormulaOut(
        mass_g=mix.mass_g,
        volume_ml=volume,
        density_g_per_ml=mix.mass_g / volume if volume else 1.0,
        liquid_g=a.liquid_g,
        lines=[line_out(t, line) for t, line in zip(texts, a.lines, strict=True)],
        family=family,
        families_near=[s.family.key for s in a.guesses[:4]],
        per_1000_liquid=a.ratios,
        composition_pct=_composition(mix),
        taste_pct=_taste(mix),
        set=strength,
        map=map_out(a, given.plane),
        points=points_out(a),
        cook=a.endpoint,
        coagulation=shapes.CoagulationOut(**vars(a.coagulation), spread_k=SET_SPREAD_K)
        if a.coagulation
        else None,
        whites_left_g=a.whites_left_g,
        yolks_left_g=a.yolks_left_g,
        whites_left_eggs=a.whites_left_g / grade.white_g,
        allergens=list(mix.allergens),
        allergens_untold=list(mix.allergens_untold),
        complete=a.complete,
        fit=fit,
        fit_problem=problem,
        eggs=worth["eggs"],
        air_ml=air,
        whipped=whipped,
        reads_as=a.other,
        portions=worth["portions"],
        nutrition=worth["nutrition"],
        cost=worth["cost"],
        reasons=reasons | worth["reasons"],
        cautions=list(a.cautions),
        warnings=[*a.warnings, *_of_whipping(a, whipped)],
    )


def _of_whipping(a: Answer, whipped: Whipped | None) -> list[str]:
    """What is said of how it whips; too lean to comes first, and may be a caution already."""
    if whipped is None:
        return []
    told = any(c.code == "cream_too_lean" for c in a.cautions)
    return whipped.warnings[1:] if told else whipped.warnings
