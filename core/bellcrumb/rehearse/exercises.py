"""The exercises, from warming milk to a meringue whose parts must be ready together."""

from dataclasses import KW_ONLY, dataclass
from functools import cache
from typing import Literal

from bellcrumb.errors import CraftError
from bellcrumb.heat.pot import Ring
from bellcrumb.mix.composition import Mix
from bellcrumb.oven.school import SIGNS
from bellcrumb.pantry.pantry import shipped
from bellcrumb.rehearse.world import ActKind
from bellcrumb.stove.plan import Plan, plan
from bellcrumb.stove.steps import Step
from bellcrumb.stove.work import Work
from bellcrumb.stove.works import work
from bellcrumb.texture.families import family
from bellcrumb.words import say

Stage = Literal["pot", "bowl", "syrup", "mixer", "oven"]
RING = Ring(say("rehearse.practice_ring"), "gas", 2700.0)


@dataclass(frozen=True)
class Exercise:
    """One exercise: what is on the stove, which acts there are, and what it teaches."""

    key: str
    level: int
    name: str
    _: KW_ONLY
    stage: Stage
    task: str
    teaches: str
    grams: dict[str, float]
    acts: tuple[ActKind, ...]
    from_c: float = 20.0
    goal_c: tuple[float, float] = (0.0, 0.0)
    family_key: str = ""
    egg_c: float = 18.0

    @property
    def mix(self) -> Mix:
        """What is in the pot (or, for the bowl, the hot liquid)."""
        return _mix(tuple(self.grams.items()))


def _mix(items: tuple[tuple[str, float], ...]) -> Mix:
    pantry = shipped()
    return Mix.of((pantry.key(k), g) for k, g in items)


EXERCISES: tuple[Exercise, ...] = (
    Exercise(
        "scald",
        1,
        say("rehearse.warm_the_milk"),
        stage="pot",
        task=say("rehearse.bring_a_litre_of_milk_to"),
        teaches=say("rehearse.milk_looks_quiet_until_it_climbs"),
        grams={"milk_whole": 1030},
        acts=("heat", "stir", "lift", "end"),
        from_c=6.0,
        goal_c=(82.0, 92.0),
    ),
    Exercise(
        "temper",
        2,
        say("rehearse.the_first_ladle"),
        stage="bowl",
        task=say("rehearse.pour_a_litre_of_hot_milk"),
        teaches=say("rehearse.little_first_whisk_moving_then_more"),
        grams={"milk_whole": 1030},
        acts=("stir", "ladle", "end"),
        from_c=90.0,
        goal_c=(60.0, 82.0),
        egg_c=6.0,
    ),
    Exercise(
        "anglaise",
        3,
        say("rehearse.anglaise_by_the_degree"),
        stage="pot",
        task=say("rehearse.cook_the_custard_until_it_coats"),
        teaches=say("rehearse.it_runs_on_after_the_heat"),
        grams={"milk_whole": 750, "cream_35": 250, "egg_yolk": 200, "sugar": 180},
        acts=("heat", "stir", "lift", "end"),
        from_c=66.0,
        goal_c=(81.0, 84.5),
        family_key="anglaise",
    ),
    Exercise(
        "pastry_cream",
        4,
        say("rehearse.to_the_boil_and_held"),
        stage="pot",
        task=say("rehearse.boil_the_cream_and_hold_it"),
        teaches=say("rehearse.thick_is_not_done_it_must"),
        grams={"milk_whole": 1000, "egg_yolk": 170, "sugar": 190, "corn_starch": 80},
        acts=("heat", "stir", "lift", "end"),
        from_c=60.0,
        goal_c=(97.5, 102.0),
        family_key="pastry_cream",
    ),
    Exercise(
        "syrup",
        5,
        say("rehearse.syrup_to_soft_ball"),
        stage="syrup",
        task=say("rehearse.cook_the_syrup_to_118_and"),
        teaches=say("rehearse.from_104_it_climbs_slowest_most"),
        grams={"sugar": 300, "water": 100},
        acts=("heat", "stir", "pour", "end"),
        from_c=20.0,
        goal_c=(116.0, 121.0),
    ),
    Exercise(
        "caramel",
        6,
        say("rehearse.caramel_to_amber"),
        stage="syrup",
        task=say("rehearse.cook_it_to_a_chestnut_colour"),
        teaches=say("rehearse.colour_comes_fast_and_runs_on"),
        grams={"sugar": 250, "water": 75},
        acts=("heat", "stir", "lift", "cold_water", "pour", "end"),
        from_c=20.0,
        goal_c=(165.0, 180.0),
    ),
    Exercise(
        "italian",
        7,
        say("rehearse.both_ready_together"),
        stage="syrup",
        task=say("rehearse.start_the_whites_so_that_they"),
        teaches=say("rehearse.whites_wait_badly_and_syrup_does"),
        grams={"sugar": 400, "water": 120, "egg_white": 200},
        acts=("heat", "stir", "whites", "pour", "end"),
        from_c=20.0,
        goal_c=(116.0, 121.0),
    ),
    Exercise(
        "cream",
        8,
        say("rehearse.whipped_not_buttered"),
        stage="mixer",
        task=say("rehearse.whip_half_a_litre_of_cream"),
        teaches=say("rehearse.the_last_twenty_seconds_decide_slow"),
        grams={"cream_35": 500},
        acts=("heat", "end"),
        from_c=5.0,
    ),
    Exercise(
        "oven",
        9,
        say("rehearse.out_of_the_oven_in_time"),
        stage="oven",
        task=say("rehearse.six_flans_in_their_bath_at"),
        teaches=say("rehearse.the_disc_closes_in_a_few"),
        grams={"milk_whole": 1030, "egg_whole": 300, "egg_yolk": 51, "sugar": 180},
        acts=("look", "end"),
        from_c=20.0,
        family_key="creme_caramel",
    ),
)


def exercise(key: str) -> Exercise:
    """The exercise with this key. Raises CraftError."""
    for found in EXERCISES:
        if found.key == key:
            return found
    raise CraftError(
        "exercise", say("rehearse.one_of", exercises=", ".join(e.key for e in EXERCISES))
    )


@cache
def guide_step(key: str) -> Step:
    """The step of the real guide that an exercise rehearses."""
    ex = exercise(key)
    if ex.key == "scald":
        return Step(
            "heat",
            "heat",
            ex.task,
            sign=say("rehearse.small_bubbles_round_the_edge_steam"),
            avoid=say("rehearse.a_moment_too_long_and_it"),
            low_c=82.0,
            high_c=92.0,
            never_c=97.0,
            there=say("rehearse.hot_enough_off_the_heat"),
            over=say("rehearse.boiling_up"),
        )
    if ex.stage == "oven":
        return Step(
            "cook",
            "bake",
            ex.task,
            sign=SIGNS["wobble"],
            avoid=say("rehearse.a_door_open_long_costs_30"),
        )
    if ex.stage == "syrup":
        kind: Literal["caramel", "italian"] = "italian" if ex.key == "italian" else "caramel"
        grams = ex.grams
        if ex.key == "syrup":
            kind, grams = "italian", {**ex.grams, "egg_white": 150}
        made: Work = work(kind, _mix(tuple(grams.items())), RING, 0.4)
        return next(s for s in made.steps if s.key == "cook")
    if ex.family_key:
        planned: Plan = plan(ex.mix, family(ex.family_key), RING, setting=0.4)
        return next(s for s in planned.steps if s.key == "cook")
    return Step("do", "finish", ex.task, sign=ex.teaches, avoid=say("rehearse.too_much_at_once"))
