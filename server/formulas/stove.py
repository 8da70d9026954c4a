"""The stove plan of a version: ladder, predicted curves and steps."""

from collections.abc import Sequence
from dataclasses import replace
from typing import Any, cast

from bellcrumb.contract.open.books import share_per_loss
from bellcrumb.contract.open.cooking import (
    AIMS,
    BATH_W_K,
    NEVER_C,
    Cream,
    Guided,
    HowCooked,
    Plan,
    Pot,
    PotRun,
    Ring,
    Step,
    Work,
    WorkKind,
    guided,
    pot_for,
    pot_name,
    usual,
    whip_of,
)
from bellcrumb.contract.open.food import (
    Answer,
    Measures,
    Mix,
    answer,
    boils_c,
    cups_text,
    egg_grade,
    grams_text,
    refuse_huge,
)
from bellcrumb.contract.open.vessels import library
from bellcrumb.contract.sugars import foam, syrup
from bellcrumb.errors import CraftError
from bellcrumb.shapes import (
    CurvePoint,
    MeringueIn,
    SignOut,
    SyrupIn,
)
from bellcrumb.words import say
from formulas.content import Content, beaten_of, ring_of, understood
from formulas.guide_shapes import CurveOut, PlaceOut, PlanOut, Scene
from formulas.oven import renamed
from kitchen.access import vessels_of
from kitchen.lessons import OF_A_RING, Used, lesson_of, lessons_of
from kitchen.models import Kitchen
from kitchen.models import Ring as KitchenRing

# Works in which the probe stands in egg, and those that are judged cold.
_OVER_EGG, _SET_COLD = ("swiss", "curd", "sabayon"), ("curd", "roux")


def _place(mix: Mix, measures: Measures) -> PlaceOut:
    names = [p.ingredient.short for p in mix.portions]
    weights = [grams_text(p.grams) for p in mix.portions]
    cups = [
        cups_text(
            p.grams, p.ingredient.g_per_us_cup, measures,
            stick=p.ingredient.key.startswith("butter_"),
        )
        for p in mix.portions
    ]  # fmt: skip
    return PlaceOut(
        grams=mix.mass_g,
        words=[f"{w} {n}" for w, n in zip(weights, names, strict=True)],
        us_words=[f"{c} {n}" for c, n in zip(cups, names, strict=True)],
    )


def _thin(points: list[tuple[float, float]], most: int = 160) -> list[CurvePoint]:
    stride = max(1, len(points) // most)
    kept = [*points[::stride], points[-1]]
    return [CurvePoint(t_s=round(t, 1), temp_c=round(c, 2)) for t, c in kept]


def plan_of(kitchen: Kitchen, content: Content, kind: str = "filling") -> PlanOut:
    """Plan the cook of a version of a part of this kind.

    Raises CraftError at the field that stands in the way.
    """
    grade = egg_grade(content.egg_grade)
    measures = cast(Measures, kitchen.measures)
    lines = understood(kitchen, content)
    result = answer(
        lines, grade, content.family or None, kitchen.altitude_m, beaten=beaten_of(content)
    )
    ring = ring_of(kitchen, content)
    if not result.mix.mass_g:
        raise CraftError("lines_text", say("formulas.nothing_to_cook_yet_write_the"))
    refuse_huge(result.mix, "lines_text")
    lessons = lessons_of(kitchen, OF_A_RING, ring.name)
    try:
        made = guided(
            kind, result.mix, result.family, as_learned(ring, lessons), _how(kitchen, content),
            chosen=bool(content.family),
        )  # fmt: skip
    except CraftError as error:
        raise renamed(error) from error
    if made.bench:
        return _bench_out(made, measures)
    if made.work:
        return _work_out(made, made.work, result, ring, lessons, content, kitchen)
    assert made.cream
    return _cream_out(made, made.cream, result, ring, lessons, content, kitchen)


def _how(kitchen: Kitchen, content: Content) -> HowCooked:
    return HowCooked(
        style=content.method, school=content.school,
        heat_setting=content.heat_setting_pct / 100, setting=content.cook_setting_pct / 100,
        ladle_ml=content.ladle_ml, milk_c=usual.MILK_C, hot_c=content.hot_c, eggs_c=content.eggs_c,
        held_back_ml=content.held_back_ml, target_c=content.target_c,
        altitude_m=kitchen.altitude_m,
    )  # fmt: skip


def _places(made: Guided, measures: Measures) -> dict[str, Any]:
    """What every guide says of itself."""
    return {
        "family": made.name, "pot": _place(made.pot, measures),
        "bowl": _place(made.bowl, measures), "finish": _place(made.finish, measures),
        "steps": made.steps, "checks": made.checks,
        "warnings": made.warnings,
    }  # fmt: skip


def _cream_out(
    made: Guided, cream: Plan, result: Answer, ring: KitchenRing, lessons: list[Used],
    content: Content, kitchen: Kitchen,
) -> PlanOut:  # fmt: skip
    """The guide of a stirred cream, with its ladder, its curves and its simulated pot."""
    pot = pot_name(result.mix.volume_ml)
    pot_lesson = lesson_of(kitchen, "pot", pot)
    scenes = _scenes(cream, result.mix, content, ring.core(), kitchen)
    heat = cream.heat_run
    boil = Cream.of(made.pot + made.bowl, cream.thickens_c, kitchen.altitude_m).boil_c
    return PlanOut(
        **_places(made, cast(Measures, kitchen.measures)),
        ring=ring.name,
        boil_c=boil,
        thickens_c=cream.thickens_c,
        ladder=cream.ladder,
        heat=_curve(heat),
        cook=_curve(cream.cook_run) if cream.cook_run else None,
        cook_from_c=cream.cook_from_c,
        temper_s=cream.temper_s,
        scorch=cream.scorch,
        scenes=scenes,
        learned=[
            *_said_of(lessons, heat.curve, heat.reaches_s, scenes[0]),
            *([pot_lesson] if pot_lesson else []),
        ],
        pot_name=pot,
        boils_off_g=cream.boils_off_g * (pot_lesson.value if pot_lesson else 1.0),
        additions=cream.additions,
        signs=[SignOut(t_s=t, temp_c=c, sign=sign) for t, c, sign in cream.signs],
        egg_from=_egg_from(result.mix, cream.steps),
        cold_class=result.set.klass if result.set else None,
        content=content.dict(),
    )


def _said_of(
    lessons: list[Used], curve: Sequence[tuple[float, float]], reaches_s: float | None, scene: Scene
) -> list[Used]:
    """What was learned of the ring, with the minutes of the heating before and after all of it."""
    if not lessons or not reaches_s:
        return lessons
    known = {lesson.kind: lesson.value for lesson in lessons}
    share = known.get("ring", 1.0)
    if "loss" in known and scene.kind == "pot":
        heating = [(t, c) for t, c in curve if t <= reaches_s]
        per = share_per_loss(heating, Pot(scene.pot_mm, scene.pot_g), scene.power_w)
        share = max(share / 2, share - known["loss"] * per)
    here = reaches_s / 60
    minutes = {"here_min": here, "books_min": here * share}
    return [lessons[0].model_copy(update=minutes), *lessons[1:]]


def _bench_out(made: Guided, measures: Measures) -> PlanOut:
    """The guide of what is made on the bench: nothing of it is cooked by a probe."""
    return PlanOut(
        **_places(made, measures), guide="bench", ring="", boil_c=200, thickens_c=None, ladder=None,
        heat=None, cook=None, cook_from_c=20, temper_s=0, scorch="low", scenes=[],
    )  # fmt: skip


def as_learned(ring: KitchenRing, lessons: Sequence[Used]) -> Ring:
    """A ring with the power and the loss that this kitchen's boils have taught."""
    core, known = ring.core(), {lesson.kind: lesson.value for lesson in lessons}
    return replace(
        core, rated_w=core.rated_w * known.get("ring", 1.0), loss_w_m2k=known.get("loss", 0.0)
    )


def _egg_from(mix: Mix, steps: list[Step]) -> str | None:
    """The step from which there is egg where the probe is; None without egg."""
    if not (mix.yolk_g or mix.whole_egg_g or mix.white_g):
        return None
    keys = [s.key for s in steps]
    return "temper" if "temper" in keys else next((k for k in keys if k != "ready"), None)


def _work_out(
    guide: Guided, made: Work, result: Answer, ring: KitchenRing, lessons: list[Used],
    content: Content, kitchen: Kitchen,
) -> PlanOut:  # fmt: skip
    """The guide of what is no stirred custard, in the same shape."""
    curve = None
    if made.curve:
        curve = CurveOut(
            points=_thin(made.curve), thickens_s=None, reaches_s=made.reaches_s, overshoot_k=0
        )
    hot = made.curve_step == "heat"
    pot = pot_for(max(result.mix.volume_ml, 1))
    boil = boils_c(kitchen.altitude_m)
    scenes = [
        Scene(
            step=s.step,
            mass_g=s.mass_g,
            cp_j_per_gk=s.cp_j_per_gk,
            boil_c=boil,
            thickens_c=NEVER_C,
            from_c=s.from_c,
            power_w=s.power_w,
            fuel=ring.core().fuel,
            stirring="whisk",
            pot_mm=pot.diameter_mm,
            pot_g=pot.mass_g,
            kind=s.kind,
            sugar_g=s.sugar_g,
            water_g=s.water_g,
            bath_w_k=BATH_W_K,
        )
        for s in made.scenes
    ]
    return PlanOut(
        **_places(guide, cast(Measures, kitchen.measures)),
        guide=made.kind,
        aim=AIMS.get(made.kind),
        ring=ring.name,
        learned=_said_of(lessons, made.curve, made.reaches_s, scenes[0]) if scenes else lessons,
        boil_c=boil,
        thickens_c=None,
        ladder=None,
        heat=curve if hot else None,
        cook=None if hot else curve,
        cook_from_c=made.curve[0][1] if made.curve else 20,
        temper_s=0,
        scorch="low",
        scenes=scenes,
        egg_from=_egg_from(result.mix, made.steps) if made.kind in _OVER_EGG else None,
        cold_class=result.set.klass if made.kind in _SET_COLD and result.set else None,
        **_sugar_facts(made.kind, result.mix, as_learned(ring, lessons), content, kitchen),
    )


def _sugar_facts(
    which: WorkKind, mix: Mix, ring: Ring, content: Content, kitchen: Kitchen
) -> dict[str, Any]:
    """What a syrup, a meringue or a whipped cream comes to, beside its steps."""
    power = ring.reaches_pot_w(content.cook_setting_pct / 100)
    sugar, water, whites = mix.added_sugar_g, mix.grams_of_key("water"), mix.white_g
    facts: dict[str, Any] = {}
    if which in ("caramel", "italian"):
        own = vessels_of(kitchen)
        line = content.vessel_key if which == "caramel" else ""
        facts["syrup"] = syrup(
            SyrupIn(
                sugar_g=sugar,
                water_g=water,
                target_c=content.target_c or AIMS[which].usual_c,
                ring=power,
                altitude_m=kitchen.altitude_m,
                lining_vessel=line if line in own | library() else None,
                lining_count=content.vessel_count,
            ),
            own,
        )
    if which in ("italian", "swiss", "french"):
        facts["foam"] = foam(
            MeringueIn(
                kind=which,
                whites_g=whites,
                sugar_g=sugar,
                water_g=water or None,
                ring=power,
                altitude_m=kitchen.altitude_m,
                **{f"{'syrup' if which == 'italian' else 'swiss'}_c": content.target_c}
                if content.target_c and which != "french"
                else {},
            )
        )
    if which == "whipped":
        facts["whipped"] = whip_of(mix)
    return facts


def _curve(run: PotRun) -> CurveOut:
    return CurveOut(
        points=_thin(run.curve),
        thickens_s=run.thickens_s,
        reaches_s=run.reaches_s,
        overshoot_k=run.overshoot_k,
    )


def _scenes(made: Plan, mix: Mix, content: Content, ring: Ring, kitchen: Kitchen) -> list[Scene]:
    pot = pot_for(mix.volume_ml)
    first = made.split.pot
    boils = made.heat_run.thickens_s is not None
    thick = made.thickens_c if boils else None
    scenes: list[Scene] = []
    for key, part, from_c, setting, thickens in (
        (
            "heat",
            first,
            usual.MILK_C,
            content.cook_setting_pct if boils else content.heat_setting_pct,
            thick,
        ),
        (
            "cook",
            first + made.split.bowl,
            made.cook_from_c,
            content.cook_setting_pct,
            made.thickens_c,
        ),
    ):
        cream = Cream.of(part, thickens, kitchen.altitude_m)
        scenes.append(
            Scene(
                step=key,
                mass_g=cream.mass_g,
                cp_j_per_gk=cream.cp_j_per_gk,
                boil_c=cream.boil_c,
                thickens_c=cream.thickens_c,
                from_c=from_c,
                power_w=ring.reaches_pot_w(setting / 100),
                fuel=ring.fuel,
                stirring="whisk" if key == "heat" else "spatula",
                pot_mm=pot.diameter_mm,
                pot_g=pot.mass_g,
            )
        )
    return scenes
