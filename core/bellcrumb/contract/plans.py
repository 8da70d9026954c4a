"""The guide of a part at the front door: its steps, what goes where, and what to mind."""

from bellcrumb.asked.lines import answered, mix_asked
from bellcrumb.dessert.guided import Guided, HowCooked, guided
from bellcrumb.heat.pot import MEDIUM_GAS, SETTINGS
from bellcrumb.mix.composition import Mix
from bellcrumb.shapes import guide as shapes
from bellcrumb.texture.no_custard import part_kind_of

_DRAWS = "infuse"  # it draws by itself
# Minutes of hands for steps whose length nothing here works out: ready, finish, cool. Estimates.
_HANDS_MIN = {"ready": 5.0, "finish": 4.0, "cool": 3.0}


def planned(given: shapes.GuideIn) -> shapes.GuideOut:
    """The guide of a part as the stove page has it. Raises CraftError for what is not cooked."""
    mix, said = mix_asked(given, "")
    found, _ = answered(given, None)
    how = HowCooked(
        style=given.method, school=given.school, setting=SETTINGS[given.ring],
        ladle_ml=given.ladle_ml, hot_c=given.hot_c, eggs_c=given.eggs_c,
        held_back_ml=given.held_back_ml, target_c=given.target_c, altitude_m=given.altitude_m,
    )  # fmt: skip
    made = guided(part_kind_of(given.part_kind, mix), mix, found.family, MEDIUM_GAS, how,
                   chosen=given.family is not None)  # fmt: skip
    warnings = [*said, *made.warnings, *(found.warnings if made.cream else [])]
    return _out(made, warnings)


def _out(made: Guided, warnings: list[str]) -> shapes.GuideOut:
    def place(mix: Mix) -> list[shapes.PlacedOut]:
        return [shapes.PlacedOut(ingredient=p.ingredient.key, grams=p.grams) for p in mix.portions]

    return shapes.GuideOut(
        guide=made.bench or (made.work.kind if made.work else "custard"),
        steps=[
            shapes.GuideStepOut(
                code=s.key, title=s.title, sign=s.sign, avoid=s.avoid, low_c=s.low_c,
                high_c=s.high_c, never_c=s.never_c, hold_s=s.hold_s,
                minutes=made.minutes.get(s.key, _HANDS_MIN.get(s.kind, 0.0)) + s.hold_s / 60,
                hands=s.kind != "bake" and s.key != _DRAWS,
            )
            for s in made.steps
        ],
        pot=place(made.pot), bowl=place(made.bowl), finish=place(made.finish), checks=made.checks,
        warnings=warnings,
    )  # fmt: skip
