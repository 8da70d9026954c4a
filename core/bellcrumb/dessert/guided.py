"""The guide of a part, whatever it is: made on the bench, a work of sugar, foam or dough, or a
cream cooked on a ring. Every front door asks here."""

from dataclasses import KW_ONLY, dataclass

from bellcrumb.dessert.bench import NAMES, after_choux, bench_kind, bench_steps
from bellcrumb.dessert.works import PartWork
from bellcrumb.errors import CraftError
from bellcrumb.heat.pot import Ring
from bellcrumb.mix.composition import Mix
from bellcrumb.stove.plan import Plan, plan
from bellcrumb.stove.steps import Step, checks
from bellcrumb.stove.temper import School
from bellcrumb.stove.usual import COOK_SETTING, EGGS_C, HEAT_SETTING, HOT_C, LADLE_ML, MILK_C
from bellcrumb.stove.work import Work
from bellcrumb.stove.works import work, work_kind
from bellcrumb.texture.families import Family, family, nearest_on_the_stove
from bellcrumb.words import say


@dataclass(frozen=True)
class HowCooked:
    """How somebody cooks a part: ``style`` of a meringue, settings of the ring (0-1), and the
    temperatures (degC) and amounts (ml) of the temper. ``target_c`` of a syrup, 0: the usual."""

    style: str = ""
    school: School = "hot_into_eggs"
    heat_setting: float = HEAT_SETTING
    _: KW_ONLY
    setting: float = COOK_SETTING
    ladle_ml: float = LADLE_ML
    milk_c: float = MILK_C
    hot_c: float = HOT_C
    eggs_c: float = EGGS_C
    held_back_ml: float = 0.0
    target_c: float = 0.0
    altitude_m: float = 0.0


@dataclass(frozen=True)
class Guided:
    """A guide: its steps, what goes into the pot, the bowl and in at the end, and the minutes of
    the steps that are simulated. One of ``bench``, ``work`` and ``cream`` says what it is of."""

    name: str
    steps: list[Step]
    checks: list[str]
    _: KW_ONLY
    warnings: list[str]
    pot: Mix
    bowl: Mix
    finish: Mix
    minutes: dict[str, float]
    bench: PartWork | None = None
    work: Work | None = None
    cream: Plan | None = None


def guided(
    part_kind: str, mix: Mix, found: Family | None, ring: Ring, how: HowCooked, *, chosen: bool
) -> Guided:
    """The guide of a part of a kind; ``chosen`` says that a cook named the family. One that was
    guessed and is baked gives way to one of the stove, where the mix lies in its windows too: half
    milk and half cream with yolks is a crème anglaise as well. Raises CraftError for what is
    neither cooked on the stove nor made on the bench."""
    bench = bench_kind(part_kind, mix, found, how.style)
    if bench:
        return Guided(
            NAMES[bench], bench_steps(bench, mix), checks(mix, None), warnings=[],
            pot=Mix(()), bowl=mix, finish=Mix(()), minutes={}, bench=bench,
        )  # fmt: skip
    which = work_kind(part_kind, mix, how.style, found)
    if which:
        made = work(
            which, mix, ring, how.setting, altitude_m=how.altitude_m, target_c=how.target_c,
            family=found,
        )  # fmt: skip
        after = after_choux(mix) if which == "choux" else []
        return Guided(
            made.name, [*made.steps, *after], made.checks, warnings=made.warnings, pot=made.pot,
            bowl=made.bowl, finish=made.finish,
            minutes={made.curve_step: (made.reaches_s or 0.0) / 60}, work=made,
        )  # fmt: skip
    if found is None:
        raise CraftError("lines", say("dessert.nothing_here_that_is_cooked_on"))
    kin = found if chosen or found.on_the_stove else nearest_on_the_stove(mix) or found
    cream = plan(
        mix, family(kin.key), ring, school=how.school, heat_setting=how.heat_setting,
        setting=how.setting, ladle_ml=how.ladle_ml, milk_c=how.milk_c, hot_c=how.hot_c,
        eggs_c=how.eggs_c, held_back_ml=how.held_back_ml, altitude_m=how.altitude_m,
    )  # fmt: skip
    minutes = {"heat": (cream.heat_run.reaches_s or 0.0) / 60, "temper": cream.temper_s / 60}
    if cream.cook_run:
        minutes["cook"] = (cream.cook_run.reaches_s or 0.0) / 60
    reads = say("dessert.it_reads_as_on_the_stove", found=found.name, kin=kin.name)
    return Guided(
        kin.name, cream.steps, cream.checks,
        warnings=cream.warnings if kin.key == found.key else [reads, *cream.warnings],
        pot=cream.split.pot, bowl=cream.split.bowl, finish=cream.split.finish, minutes=minutes,
        cream=cream,
    )  # fmt: skip
