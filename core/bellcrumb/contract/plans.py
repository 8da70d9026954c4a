"""The guide of a part at the front door: its steps, what goes where, and what to mind."""

from bellcrumb.contract.formulas import answered, mix_asked
from bellcrumb.contract.shapes import guide as shapes
from bellcrumb.dessert.bench import after_choux, bench_kind, bench_steps
from bellcrumb.errors import CraftError
from bellcrumb.heat.pot import MEDIUM_GAS, SETTINGS
from bellcrumb.mix.composition import Mix
from bellcrumb.stove.plan import Plan, plan
from bellcrumb.stove.steps import Step, checks
from bellcrumb.stove.works import work, work_kind
from bellcrumb.texture.families import family
from bellcrumb.texture.no_custard import part_kind_of

# Minutes of hands for steps whose length nothing here works out: ready, finish, cool. Estimates.
_HANDS_MIN = {"ready": 5.0, "finish": 4.0, "cool": 3.0}


def planned(given: shapes.GuideIn) -> shapes.GuideOut:
    """The guide of a part as the stove page has it. Raises CraftError for what is not cooked."""
    mix, said = mix_asked(given, "")
    found, _ = answered(given, None)
    kind = part_kind_of(given.part_kind, mix)
    bench = bench_kind(kind, mix, found.family, given.method)
    if bench:
        steps = bench_steps(bench, mix)
        return _out(bench, steps, {}, (Mix(()), mix, Mix(())), said, checks(mix, None))
    which = work_kind(kind, mix, given.method, found.family)
    setting = SETTINGS[given.ring]
    if which:
        made = work(
            which, mix, MEDIUM_GAS, setting, altitude_m=given.altitude_m,
            target_c=given.target_c, family=found.family,
        )  # fmt: skip
        times = {made.curve_step: (made.reaches_s or 0.0) / 60}
        steps = [*made.steps, *(after_choux(mix) if which == "choux" else [])]
        return _out(made.kind, steps, times, (made.pot, made.bowl, made.finish),
                    [*said, *made.warnings], made.checks)  # fmt: skip
    if found.family is None:
        raise CraftError("lines", "Nothing here that is cooked on the stove or made on the bench.")
    cream = plan(
        mix, family(found.family.key), MEDIUM_GAS, school=given.school, setting=setting,
        ladle_ml=given.ladle_ml, hot_c=given.hot_c, eggs_c=given.eggs_c,
        held_back_ml=given.held_back_ml, altitude_m=given.altitude_m,
    )  # fmt: skip
    places = (cream.split.pot, cream.split.bowl, cream.split.finish)
    warnings = [*said, *cream.warnings, *found.warnings]
    return _out("custard", cream.steps, _times(cream), places, warnings, cream.checks)


def _times(cream: Plan) -> dict[str, float]:
    """Minutes of the steps that are simulated."""
    found = {"heat": (cream.heat_run.reaches_s or 0.0) / 60, "temper": cream.temper_s / 60}
    if cream.cook_run:
        found["cook"] = (cream.cook_run.reaches_s or 0.0) / 60
    return found


def _out(
    guide: str, steps: list[Step], times: dict[str, float], places: tuple[Mix, Mix, Mix],
    warnings: list[str], checks: list[str],
) -> shapes.GuideOut:  # fmt: skip
    def place(mix: Mix) -> list[shapes.PlacedOut]:
        return [shapes.PlacedOut(ingredient=p.ingredient.key, grams=p.grams) for p in mix.portions]

    return shapes.GuideOut(
        guide=guide,
        steps=[
            shapes.GuideStepOut(
                code=s.key, title=s.title, sign=s.sign, avoid=s.avoid, low_c=s.low_c,
                high_c=s.high_c, never_c=s.never_c, hold_s=s.hold_s,
                minutes=times.get(s.key, _HANDS_MIN.get(s.kind, 0.0)) + s.hold_s / 60,
                hands=s.kind != "bake",
            )
            for s in steps
        ],
        pot=place(places[0]), bowl=place(places[1]), finish=place(places[2]), checks=checks,
        warnings=warnings,
    )  # fmt: skip
