"""Why a day cannot be done, in kitchen words, and what would free it, each tried."""

from collections.abc import Callable
from dataclasses import replace

from bellcrumb.day.clash import Clashing, clashes, everybody_may
from bellcrumb.day.solve import can_be_done
from bellcrumb.day.tasks import STATIONS, Day, KitchenOfDay, Person
from bellcrumb.pantry.pantry import Pantry
from bellcrumb.planner.day_asked import DAY_MIN, Asked, asked_of
from bellcrumb.planner.day_joined import Wanted
from bellcrumb.shapes import plan as shapes
from bellcrumb.vessels.geometry import Vessel
from bellcrumb.words import say

NO_DAY = Day((), KitchenOfDay((), 0, (), mixers=0, trays=0), 1)
_LIMITS = {
    "people": say("planner.hands_in_their_hours"),
    "may": say("planner.who_may_do_what"),
    "rings": say("planner.rings"),
    "mixers": say("planner.mixers"),
    "trays": say("planner.room_in_the_cold"),
    "ovens": say("planner.ovens_at_their_temperatures"),
    "moulds": say("planner.moulds"),
}


def impossible(
    given: shapes.DayIn, asked: Day, whole: Asked, wanted: list[Wanted], pantry: Pantry | None,
    vessels: dict[str, Vessel] | None, warnings: list[str],
) -> shapes.DayOut:  # fmt: skip
    """Why it cannot be done, and what would free it, each tried."""
    every = clashes(asked)
    found = Clashing(tuple(n for one in every for n in one.items), ())
    names = [batch.wanted.name for batch in whole.batches]
    clashing = {whole.batches[k].wanted.dessert for k in found.items}
    of = [n for n, want in enumerate(wanted) if want.dessert in clashing]
    return shapes.DayOut(
        feasible=False, steps=[], oven_lines=[], gap=None, early_min=0, turns=0,
        chef_early_min=None, clash=[row for one in every for row in _clash_out(one, names)],
        remedies=_remedies(given, asked, wanted, of, pantry, vessels),
        eggs=0.0,
        warnings=warnings,
    )  # fmt: skip


def _clash_out(found: Clashing, every: list[str]) -> list[shapes.ClashOut]:
    names = [every[n] for n in found.items]
    limits = say("planner.and").join(_LIMITS[name] for name in found.limits) or say(
        "planner.the_time_there_is"
    )
    verb = say("planner.wants") if len(names) == 1 else say("planner.want")
    said = say(
        "planner.more_than_there_is",
        names=say("planner.and").join(names),
        verb=verb,
        limits=limits,
    )
    return [
        *(shapes.ClashOut(kind="dessert", name=name, words=said) for name in names),
        *(shapes.ClashOut(kind="limit", name=n, words=_LIMITS[n]) for n in found.limits),
    ]


def _remedies(
    given: shapes.DayIn, asked: Day, wanted: list[Wanted], items: list[int],
    pantry: Pantry | None, vessels: dict[str, Vessel] | None,
) -> list[shapes.RemedyOut]:  # fmt: skip
    """Ways out in kitchen words, the ones that work first."""

    def with_changed(item: int, changed: Wanted) -> Day:
        row = [changed if n == item else w for n, w in enumerate(wanted)]
        return asked_of(given, row, pantry, vessels, join=given.join)[0].day

    def without(item: int) -> Day:
        row = [w for n, w in enumerate(wanted) if n != item]
        return asked_of(given, row, pantry, vessels, join=given.join)[0].day if row else NO_DAY

    tries: list[tuple[str, str, Callable[[], Day]]] = [
        ("day_before", say("planner.begin_a_day_earlier_with_the"), lambda: _earlier(asked)),
        ("one_more", say("planner.one_more_pair_of_hands_for"), lambda: _one_more(asked)),
    ]
    if any(len(p.may) < len(STATIONS) for p in asked.kitchen.people):
        tries.append(
            ("all_may", say("planner.everybody_does_everything"), lambda: everybody_may(asked))
        )
    if asked.kitchen.ovens:
        tries.append(("second_oven", say("planner.one_more_oven"), lambda: _more_ovens(asked)))
    for n in items[:4]:
        want = wanted[n]
        fewer = replace(want, portions=max(1, want.portions * 2 // 3))
        tries.append(
            (
                "fewer",
                say(
                    "planner.instead_of_of",
                    portions=fewer.portions,
                    portions_2=want.portions,
                    want=want.name,
                ),
                lambda n=n, fewer=fewer: with_changed(n, fewer),  # type: ignore[misc]
            )
        )
        if want.build.schools.filling == "cold":
            hot = want.build.schools.model_copy(update={"filling": "hot"})
            warm = replace(want, build=want.build.model_copy(update={"schools": hot}))
            tries.append(
                (
                    "hot_filling",
                    say("planner.with_its_filling_poured_hot", want=want.name),
                    lambda n=n, warm=warm: with_changed(n, warm),  # type: ignore[misc]
                )
            )
        tries.append(
            (
                "left_out",
                say("planner.without_2", want=want.name),
                lambda n=n: without(n),  # type: ignore[misc]
            )
        )
    out = [
        shapes.RemedyOut(code=code, words=words, feasible=can_be_done(make()))
        for code, words, make in tries
    ]
    return sorted(out, key=lambda r: not r.feasible)


def _earlier(asked: Day) -> Day:
    """The same day with one more before it: everybody's first hours again."""
    tasks = tuple(replace(t, by=None if t.by is None else t.by + DAY_MIN) for t in asked.tasks)
    people = []
    for person in asked.kitchen.people:
        later = tuple((a + DAY_MIN, b + DAY_MIN) for a, b in person.spans)
        first = person.spans[:1]
        people.append(replace(person, spans=(*first, *later)))
    kitchen = replace(asked.kitchen, people=tuple(people))
    return replace(asked, tasks=tasks, kitchen=kitchen, horizon=asked.horizon + DAY_MIN)


def _one_more(asked: Day) -> Day:
    spans = tuple(sorted({span for p in asked.kitchen.people for span in p.spans}))
    more = Person(say("planner.one_more"), spans[:1] if len(spans) == 1 else _joined(spans))
    kitchen = replace(asked.kitchen, people=(*asked.kitchen.people, more))
    return replace(asked, kitchen=kitchen)


def _joined(spans: tuple[tuple[int, int], ...]) -> tuple[tuple[int, int], ...]:
    """Spans run together where they touch."""
    out: list[tuple[int, int]] = []
    for a, b in spans:
        if out and a <= out[-1][1]:
            out[-1] = (out[-1][0], max(b, out[-1][1]))
        else:
            out.append((a, b))
    return tuple(out)


def _more_ovens(asked: Day) -> Day:
    ovens = asked.kitchen.ovens
    return replace(
        asked, kitchen=replace(asked.kitchen, ovens=(*ovens, replace(ovens[0], name="one more")))
    )
