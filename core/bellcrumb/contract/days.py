"""The day at the front door: from services and builds to a plan, or to what stands in its way."""

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from typing import Literal

from bellcrumb.contract.builds import built
from bellcrumb.contract.shapes import plan as shapes
from bellcrumb.contract.shapes.build import BuildIn, BuildOut
from bellcrumb.day.clash import Clashing, clash
from bellcrumb.day.greedy import backwards
from bellcrumb.day.running import LATENESS_MIN, Fact, from_now, later
from bellcrumb.day.solve import Schedule, can_be_done, early_min, planned
from bellcrumb.day.tasks import (
    Day,
    KitchenOfDay,
    OvenOfDay,
    Person,
    Task,
    tasks_of,
    without_item,
)
from bellcrumb.dessert.steps import BuildStep, Gap
from bellcrumb.errors import CraftError
from bellcrumb.formula.answer import mix_of
from bellcrumb.formula.scale import eggs_cracked
from bellcrumb.mix.lines import understand_all
from bellcrumb.pantry.eggs import egg_grade
from bellcrumb.pantry.ingredients import Pantry
from bellcrumb.vessels.geometry import Vessel

_DAY = 1440
_LIMITS = {
    "people": "hands in their hours", "rings": "rings", "mixers": "mixers",
    "trays": "room in the cold", "ovens": "ovens at their temperatures",
}  # fmt: skip


@dataclass(frozen=True)
class _Wanted:
    """One dessert of a service: its name, build, portions still to make and minute it is due."""

    name: str
    build: BuildIn
    portions: int
    by: int


def day(
    given: shapes.DayIn, pantry: Pantry | None = None, vessels: dict[str, Vessel] | None = None
) -> shapes.DayOut:
    """Plan a day. Raises CraftError at the field that makes no sense."""
    wanted, warnings = _wanted(given)
    made = [_steps(w, pantry, vessels) for w in wanted]
    asked = _day(given, wanted, [steps for steps, _ in made])
    plan, late = planned(asked), 0
    if plan is None and given.ticks:  # a day that runs late is served late, as little as may be
        for late in LATENESS_MIN[1:]:
            slipped = later(asked, late)
            plan = planned(slipped)
            if plan is not None:
                asked = slipped
                break
    if plan is None:
        return _impossible(given, asked, wanted, pantry, vessels, warnings)
    chef = [place for place in backwards(asked) if place is not None]
    return shapes.DayOut(
        feasible=True,
        steps=_steps_out(given, asked, plan),
        oven_lines=_oven_lines(given, asked, plan),
        late_min=late,
        gap=plan.gap,
        early_min=plan.early_min,
        turns=plan.turns,
        chef_early_min=early_min(asked, chef) if len(chef) == len(asked.tasks) else None,
        clash=[],
        remedies=[],
        eggs=sum(_eggs(out, w.build) for (_, out), w in zip(made, wanted, strict=True)),
        warnings=warnings,
    )


def _minutes(given: shapes.DayIn, at: datetime, field: str) -> int:
    if (at.tzinfo is None) != (given.now.tzinfo is None):
        raise CraftError(field, "Give every time with its zone, or none.")
    return round((at - given.now).total_seconds() / 60)


def _wanted(given: shapes.DayIn) -> tuple[list[_Wanted], list[str]]:
    """What is still to be made, with stock taken off, and what is said of it."""
    left: dict[str, int] = {}
    for stock in given.stock:
        left[stock.name] = left.get(stock.name, 0) + stock.portions
    found: list[_Wanted] = []
    warnings: list[str] = []
    for s, service in enumerate(given.services):
        by = _minutes(given, service.at, f"services[{s}].at")
        if by <= 0:
            raise CraftError(f"services[{s}].at", "This service is over already.")
        if by > 7 * _DAY:
            raise CraftError(f"services[{s}].at", "A plan reaches a week ahead at most.")
        for item in service.items:
            name = item.name or item.build.parts[0].name
            from_stock = min(item.portions, left.get(name, 0))
            left[name] = left.get(name, 0) - from_stock
            if from_stock:
                warnings.append(f"{name}: {from_stock} of {item.portions} are there already.")
            if item.portions > from_stock:
                again = sum(w.name.split(" · ")[0] == name for w in found)
                shown = f"{name} · {again + 1}" if again else name
                found.append(_Wanted(shown, item.build, item.portions - from_stock, by))
    if len(found) > 120:
        raise CraftError("services", "At most 120 desserts make a day.")
    return found, warnings


def _sized(wanted: _Wanted) -> BuildIn:
    """The build made for the portions wanted: more vessels, as deep as before."""
    stand = wanted.build.stand
    count = math.ceil(wanted.portions / stand.portions_each)
    return wanted.build.model_copy(
        update={
            "stand": stand.model_copy(update={"count": count}),
            "batches": wanted.build.batches * count / stand.count,
        }
    )


def _steps(
    wanted: _Wanted, pantry: Pantry | None, vessels: dict[str, Vessel] | None
) -> tuple[list[BuildStep], BuildOut]:
    out = built(_sized(wanted), pantry, vessels)
    steps = [
        BuildStep(
            s.key, s.part, s.code, s.words, s.hands_min, s.wait_min, s.wait_low_min,
            s.wait_high_min, tuple(u for u in s.uses if u not in s.holds), s.attention, s.oven_c,
            s.source, tuple(Gap(g.key, g.at_least_min, g.at_most_min, g.why) for g in s.after),
            s.own, tuple(s.holds),
        )
        for s in out.steps
    ]  # fmt: skip
    return steps, out


def _day(given: shapes.DayIn, wanted: list[_Wanted], steps: list[list[BuildStep]]) -> Day:
    tasks: list[Task] = []
    for n, (want, each) in enumerate(zip(wanted, steps, strict=True)):
        tasks += tasks_of(n, want.name, each, want.by, len(tasks))
    horizon = max((w.by for w in wanted), default=1)
    spans: dict[str, list[tuple[int, int]]] = {}
    for p, person in enumerate(given.people):
        begin = _minutes(given, person.from_, f"people[{p}].from")
        end = _minutes(given, person.to, f"people[{p}].to")
        if end <= begin:
            raise CraftError(f"people[{p}].to", f"{person.name} ends before they begin.")
        if end > 0:
            spans.setdefault(person.name, []).append((max(0, begin), min(end, horizon)))
    people = tuple(
        Person(name, tuple((a, b) for a, b in sorted(each) if b > a))
        for name, each in spans.items()
    )
    bakes = any(task.oven_c is not None for task in tasks)
    if bakes and not given.ovens:
        raise CraftError("ovens", "Something is baked: which ovens are there?")
    kitchen = KitchenOfDay(
        people, len(given.rings),
        tuple(OvenOfDay(o.name, o.shelves, o.heats_k_min, o.cools_k_min) for o in given.ovens),
        len(given.mixers), sum(c.trays for c in given.cold) if given.cold else 12,
    )  # fmt: skip
    return _begun(given, Day(tuple(tasks), kitchen, horizon))


def _begun(given: shapes.DayIn, asked: Day) -> Day:
    """The day with what has happened and what is pinned. Raises CraftError for what is past."""
    if not (given.ticks or given.pins or given.at):
        return asked
    now = 0 if given.at is None else max(0, _minutes(given, given.at, "at"))
    names = [p.name for p in asked.kitchen.people]
    ovens = [o.name for o in asked.kitchen.ovens]
    keys = {task.key for task in asked.tasks}
    facts = {}
    for n, tick in enumerate(given.ticks):
        # What was done before the plan begins counts as done at its beginning.
        began, ended = max(0, _minutes(given, tick.began, f"ticks[{n}].began")), None
        if tick.ended is not None:
            ended = max(began, _minutes(given, tick.ended, f"ticks[{n}].ended"))
            if tick.ended < tick.began:
                raise CraftError(f"ticks[{n}].ended", "It is over before it began.")
        facts[tick.key] = Fact(
            began, ended, names.index(tick.who) if tick.who in names else None,
            ovens.index(tick.oven) if tick.oven in ovens else None,
        )  # fmt: skip
    pins = {}
    for n, pin in enumerate(given.pins):
        minute = _minutes(given, pin.at, f"pins[{n}].at")
        if pin.key not in keys:
            continue  # of a dessert that was taken out since
        if minute < now and pin.key not in facts:
            raise CraftError(f"pins[{n}].at", "That moment is over.")
        pins[pin.key] = minute
    before = {
        b.key: (_minutes(given, b.at, f"before[{n}].at"),
                names.index(b.who) if b.who in names else None)
        for n, b in enumerate(given.before)
    }  # fmt: skip
    return from_now(asked, now, facts, pins, before)


def _at(given: shapes.DayIn, minute: int) -> datetime:
    return given.now + timedelta(minutes=minute)


def _steps_out(given: shapes.DayIn, asked: Day, plan: Schedule) -> list[shapes.DayStepOut]:
    found = []
    done = {tick.key for tick in given.ticks if tick.ended is not None}
    told = {tick.key: tick for tick in given.ticks}
    for task, place in zip(asked.tasks, plan.placed, strict=True):
        where = ["ring"] * task.rings + ["mixer"] * task.mixers + ["cold"] * task.trays
        if place.oven is not None:
            where.append(asked.kitchen.ovens[place.oven].name)
        found.append(
            shapes.DayStepOut(
                key=task.key, what=task.what, start=_at(given, place.start),
                hands_end=_at(given, place.start + task.hands),
                end=_at(given, place.start + task.minutes),
                who=told[task.key].who if task.key in told and told[task.key].who else
                None if place.person is None else asked.kitchen.people[place.person].name,
                where=where, oven_c=task.oven_c,
                after=[asked.tasks[link.before].key for link in task.after],
                state=_state(task, done),
            )
        )  # fmt: skip
    return sorted(found, key=lambda step: (step.start, step.key))


def _state(task: Task, done: set[str]) -> Literal["to_do", "pinned", "begun", "done"]:
    if task.key in done:
        return "done"
    if task.begun is not None:
        return "begun"
    return "to_do" if task.pinned is None else "pinned"


def _oven_lines(given: shapes.DayIn, asked: Day, plan: Schedule) -> list[shapes.OvenLineOut]:
    lines = []
    for o, oven in enumerate(asked.kitchen.ovens):
        dials = sorted(
            (place.start, task.oven_c)
            for task, place in zip(asked.tasks, plan.placed, strict=True)
            if place.oven == o and task.oven_c is not None
        )
        points = [shapes.OvenPointOut(at=_at(given, at), set_c=c) for at, c in dials]
        lines.append(shapes.OvenLineOut(oven=oven.name, points=points))
    return lines


def _eggs(out: BuildOut, build: BuildIn) -> float:
    """Shell eggs cracked for the lines as they are scaled."""
    eggs = 0.0
    for part, asked in zip(out.parts, build.parts, strict=False):
        grade = egg_grade(asked.egg_grade)
        lines = understand_all(part.scaled_lines, None, grade, build.measures)
        eggs += eggs_cracked(mix_of(lines), grade)
    return eggs


def _impossible(
    given: shapes.DayIn, asked: Day, wanted: list[_Wanted], pantry: Pantry | None,
    vessels: dict[str, Vessel] | None, warnings: list[str],
) -> shapes.DayOut:  # fmt: skip
    """Why it cannot be done, and what would free it, each tried."""
    found = clash(asked)
    return shapes.DayOut(
        feasible=False, steps=[], oven_lines=[], gap=None, early_min=0, turns=0,
        chef_early_min=None, clash=_clash_out(found, wanted),
        remedies=_remedies(given, asked, wanted, found, pantry, vessels), eggs=0.0,
        warnings=warnings,
    )  # fmt: skip


def _clash_out(found: Clashing, wanted: list[_Wanted]) -> list[shapes.ClashOut]:
    names = [wanted[n].name for n in found.items]
    limits = " and ".join(_LIMITS[name] for name in found.limits) or "the time there is"
    said = f"{' and '.join(names)} want more than there is: {limits}."
    return [
        *(shapes.ClashOut(kind="dessert", name=name, words=said) for name in names),
        *(shapes.ClashOut(kind="limit", name=n, words=_LIMITS[n]) for n in found.limits),
    ]


def _remedies(
    given: shapes.DayIn, asked: Day, wanted: list[_Wanted], found: Clashing,
    pantry: Pantry | None, vessels: dict[str, Vessel] | None,
) -> list[shapes.RemedyOut]:  # fmt: skip
    """Ways out in kitchen words, the ones that work first."""

    def with_changed(item: int, changed: _Wanted) -> Day:
        row = [changed if n == item else w for n, w in enumerate(wanted)]
        return _day(given, row, [_steps(w, pantry, vessels)[0] for w in row])

    tries: list[tuple[str, str, Callable[[], Day]]] = [
        ("day_before", "Begin a day earlier, with the same hours.", lambda: _earlier(asked)),
        ("one_more", "One more pair of hands for the whole time.", lambda: _one_more(asked)),
    ]
    if asked.kitchen.ovens:
        tries.append(("second_oven", "One more oven.", lambda: _more_ovens(asked)))
    for n in found.items[:4]:
        want = wanted[n]
        fewer = replace(want, portions=max(1, want.portions * 2 // 3))
        tries.append((
            "fewer", f"{fewer.portions} instead of {want.portions} of {want.name}.",
            lambda n=n, fewer=fewer: with_changed(n, fewer),  # type: ignore[misc]
        ))  # fmt: skip
        if want.build.schools.filling == "cold":
            hot = want.build.schools.model_copy(update={"filling": "hot"})
            warm = replace(want, build=want.build.model_copy(update={"schools": hot}))
            tries.append((
                "hot_filling", f"{want.name} with its filling poured hot.",
                lambda n=n, warm=warm: with_changed(n, warm),  # type: ignore[misc]
            ))  # fmt: skip
        tries.append((
            "left_out", f"Without {want.name}.",
            lambda n=n: without_item(asked, n),  # type: ignore[misc]
        ))  # fmt: skip
    out = [
        shapes.RemedyOut(code=code, words=words, feasible=can_be_done(make()))
        for code, words, make in tries
    ]
    return sorted(out, key=lambda r: not r.feasible)


def _earlier(asked: Day) -> Day:
    """The same day with one more before it: everybody's first hours again."""
    tasks = tuple(replace(t, by=None if t.by is None else t.by + _DAY) for t in asked.tasks)
    people = []
    for person in asked.kitchen.people:
        later = tuple((a + _DAY, b + _DAY) for a, b in person.spans)
        first = person.spans[:1]
        people.append(replace(person, spans=(*first, *later)))
    kitchen = replace(asked.kitchen, people=tuple(people))
    return Day(tasks, kitchen, asked.horizon + _DAY)


def _one_more(asked: Day) -> Day:
    spans = tuple(sorted({span for p in asked.kitchen.people for span in p.spans}))
    more = Person("one more", spans[:1] if len(spans) == 1 else _joined(spans))
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
