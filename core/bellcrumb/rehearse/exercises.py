"""The exercises, from warming milk to a meringue whose parts must be ready together."""

from dataclasses import dataclass
from functools import cache
from typing import Literal

from bellcrumb.errors import CraftError
from bellcrumb.heat.pot import Ring
from bellcrumb.mix.composition import Mix
from bellcrumb.oven.school import SIGNS
from bellcrumb.pantry.ingredients import shipped
from bellcrumb.stove.plan import Plan, plan
from bellcrumb.stove.steps import Step
from bellcrumb.stove.work import Work
from bellcrumb.stove.works import work
from bellcrumb.texture.families import family

Stage = Literal["pot", "bowl", "syrup", "mixer", "oven"]
Act = Literal["heat", "stir", "lift", "ladle", "whites", "cold_water", "pour", "look", "end"]
RING = Ring("practice ring", "gas", 2700.0)


@dataclass(frozen=True)
class Exercise:
    """One exercise: what is on the stove, which acts there are, and what it teaches."""

    key: str
    level: int
    name: str
    stage: Stage
    task: str
    teaches: str
    grams: dict[str, float]
    acts: tuple[Act, ...]
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
        "scald", 1, "Warm the milk", "pot",
        "Bring a litre of milk to just under the simmer, then take it off.",
        "Milk looks quiet until it climbs the wall: off before it boils.",
        {"milk_whole": 1030}, ("heat", "stir", "lift", "end"), 6.0, (82.0, 92.0),
    ),
    Exercise(
        "temper", 2, "The first ladle", "bowl",
        "Pour a litre of hot milk onto the yolks without scrambling one.",
        "Little first, whisk moving; then more and more at a time.",
        {"milk_whole": 1030}, ("stir", "ladle", "end"), 90.0, (60.0, 82.0), egg_c=6.0,
    ),
    Exercise(
        "anglaise", 3, "Anglaise by the degree", "pot",
        "Cook the custard until it coats the spoon, and not a degree further.",
        "It runs on after the heat: off a moment early.",
        {"milk_whole": 750, "cream_35": 250, "egg_yolk": 200, "sugar": 180},
        ("heat", "stir", "lift", "end"), 66.0, (81.0, 84.5), "anglaise",
    ),
    Exercise(
        "pastry_cream", 4, "To the boil and held", "pot",
        "Boil the cream and hold it a minute, without a lump and without catching.",
        "Thick is not done: it must boil and be held, or it thins overnight.",
        {"milk_whole": 1000, "egg_yolk": 170, "sugar": 190, "corn_starch": 80},
        ("heat", "stir", "lift", "end"), 60.0, (97.5, 102.0), "pastry_cream",
    ),
    Exercise(
        "syrup", 5, "Syrup to soft ball", "syrup",
        "Cook the syrup to 118 and pour it.",
        "From 104 it climbs slowest: most people stop too early. Stirring makes crystals.",
        {"sugar": 300, "water": 100}, ("heat", "stir", "pour", "end"), 20.0, (116.0, 121.0),
    ),
    Exercise(
        "caramel", 6, "Caramel to amber", "syrup",
        "Cook it to a chestnut colour and stop it there.",
        "Colour comes fast and runs on: pull it early, then cold water.",
        {"sugar": 250, "water": 75}, ("heat", "stir", "lift", "cold_water", "pour", "end"), 20.0,
        (165.0, 180.0),
    ),
    Exercise(
        "italian", 7, "Both ready together", "syrup",
        "Start the whites so that they and the syrup are ready in the same moment, then pour.",
        "Whites wait badly and syrup does not wait at all.",
        {"sugar": 400, "water": 120, "egg_white": 200},
        ("heat", "stir", "whites", "pour", "end"), 20.0, (116.0, 121.0),
    ),
    Exercise(
        "cream", 8, "Whipped, not buttered", "mixer",
        "Whip half a litre of cream to firm peaks and stop.",
        "The last twenty seconds decide: slow down near the end.",
        {"cream_35": 500}, ("heat", "end"), 5.0,
    ),
    Exercise(
        "oven", 9, "Out of the oven in time", "oven",
        "Six flans in their bath at 160 °C, in an oven you do not know. Pull them at the wobble.",
        "The disc closes in a few minutes: look often near the end, but the door costs heat.",
        {"milk_whole": 1030, "egg_whole": 300, "egg_yolk": 51, "sugar": 180},
        ("look", "end"), 20.0, family_key="creme_caramel",
    ),
)  # fmt: skip


def exercise(key: str) -> Exercise:
    """The exercise with this key. Raises CraftError."""
    for found in EXERCISES:
        if found.key == key:
            return found
    raise CraftError("exercise", f"One of: {', '.join(e.key for e in EXERCISES)}.")


@cache
def guide_step(key: str) -> Step:
    """The step of the real guide that an exercise rehearses."""
    ex = exercise(key)
    if ex.key == "scald":
        return Step("heat", "heat", ex.task, "Small bubbles round the edge, steam.",
                    "A moment too long and it boils over.", 82.0, 92.0, 97.0,
                    there="Hot enough: off the heat", over="boiling up")  # fmt: skip
    if ex.stage == "oven":
        return Step("cook", "bake", ex.task, SIGNS["wobble"], "A door open long costs 30 K.")
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
    return Step("do", "finish", ex.task, ex.teaches, "Too much at once.")
