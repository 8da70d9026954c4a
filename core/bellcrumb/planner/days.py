"""The day at the front door: from services and builds to a plan, or to what stands in its way."""

from datetime import datetime, timedelta
from typing import Any, Literal

from bellcrumb.day.aim import Schedule
from bellcrumb.day.pools import CHILLER_MIN, ring_free_min
from bellcrumb.day.running import LATENESS_MIN, Fact, from_now, later, waits_on
from bellcrumb.day.solve import planned
from bellcrumb.day.tasks import Day, Placed, Task, windows
from bellcrumb.errors import CraftError
from bellcrumb.pantry.pantry import Pantry
from bellcrumb.planner.day_asked import Asked, asked_of, minutes, wanted_of
from bellcrumb.planner.day_lists import buy_out, eggs_of, joined_out, mise_out, moulds_out
from bellcrumb.planner.day_remedies import impossible
from bellcrumb.shapes import plan as shapes
from bellcrumb.vessels.geometry import Vessel
from bellcrumb.words import say

CHILLER = say("planner.blast_chiller")


def day(
    given: shapes.DayIn, pantry: Pantry | None = None, vessels: dict[str, Vessel] | None = None
) -> shapes.DayOut:
    """Plan a day. Raises CraftError at the field that makes no sense."""
    wanted, warnings = wanted_of(given)
    if not wanted:
        return _nothing(warnings)
    asked, said = asked_of(given, wanted, pantry, vessels, join=given.join)
    warnings += said
    now = _begun(given, asked.day)
    plan, late = planned(now), 0
    if plan is None and asked.joined and not given.ticks:
        # What is made once may be what cannot wait for all of them: each for itself, then.
        asked, _ = asked_of(given, wanted, pantry, vessels, join=False)
        now = _begun(given, asked.day)
        plan = planned(now)
    if plan is None and given.ticks:
        asked_now = now
        now, plan, late = _mended(now)
        warnings += _too_early(asked_now, plan)
    if plan is None:
        return impossible(given, now, asked, wanted, pantry, vessels, warnings)
    return _planned(given, asked, now, plan, late, pantry, warnings)


def _mended(now: Day) -> tuple[Day, Schedule | None, int]:
    """A day that began otherwise than planned: what was done early waits, and what is late is
    served late, as little as may be."""
    for late in LATENESS_MIN:
        slips = later(now, late)
        for slipped in (slips, waits_on(slips)) if late else (waits_on(now),):
            plan = planned(slipped)
            if plan is not None:
                return slipped, plan, late
    return now, None, 0


def _too_early(asked: Day, plan: Schedule | None) -> list[str]:
    """What was done so early that it waits longer than it keeps."""
    found = []
    for task, place in zip(asked.tasks, plan.placed if plan else (), strict=plan is not None):
        for link in task.after:
            before = asked.tasks[link.before]
            if before.begun is None or link.most is None:
                continue
            over = place.start - before.begun - before.minutes - link.most
            if over > 0:
                early = say("planner.h_min", over=over // 60, over_2=over % 60)
                found.append(
                    say("planner.done_earlier_than_it_keeps_put", what=before.what, early=early)
                )
    return found


def _nothing(warnings: list[str]) -> shapes.DayOut:
    """Everything is there already."""
    return shapes.DayOut(
        feasible=True, steps=[], oven_lines=[], gap=0.0, early_min=0, turns=0, chef_early_min=0,
        clash=[], remedies=[], eggs=0.0, warnings=warnings,
    )  # fmt: skip


def _planned(
    given: shapes.DayIn, asked: Asked, now: Day, plan: Schedule, late: int,
    pantry: Pantry | None, warnings: list[str],
) -> shapes.DayOut:  # fmt: skip
    starts = {t.key: p.start for t, p in zip(now.tasks, plan.placed, strict=True)}
    begins = {
        key: _at(given, starts[task.key]) for task in now.tasks for key in task.steps or (task.key,)
    }
    return shapes.DayOut(
        feasible=True,
        steps=_steps_out(given, asked, now, plan),
        oven_lines=_oven_lines(given, asked, now, plan),
        late_min=late,
        gap=plan.gap,
        early_min=plan.tally.early_min,
        warm_min=plan.tally.warm_min,
        turns=plan.tally.turns,
        busiest_pct=plan.tally.busiest_pct,
        chef_early_min=plan.chef_early_min,
        clash=[],
        remedies=[],
        eggs=eggs_of(asked, pantry),
        buy=buy_out(given, asked, pantry),
        mise=mise_out(asked, begins),
        moulds=moulds_out(given, asked, starts),
        joined=joined_out(asked),
        warnings=warnings,
    )


def _begun(given: shapes.DayIn, asked: Day) -> Day:
    """The day with what has happened and what is pinned. Raises CraftError for what is past."""
    if not (given.ticks or given.pins or given.at or given.before):
        return asked
    now = 0 if given.at is None else max(0, minutes(given, given.at, "at"))
    names = [p.name for p in asked.kitchen.people]
    ovens = [o.name for o in asked.kitchen.ovens]
    keys = {task.key for task in asked.tasks}
    facts = {}
    for n, tick in enumerate(given.ticks):
        # What was done before the plan begins counts as done at its beginning.
        began, ended = max(0, minutes(given, tick.began, f"ticks[{n}].began")), None
        if tick.ended is not None:
            ended = max(began, minutes(given, tick.ended, f"ticks[{n}].ended"))
            if tick.ended < tick.began:
                raise CraftError(f"ticks[{n}].ended", say("planner.it_is_over_before_it_began"))
        facts[tick.key] = Fact(
            began, ended, names.index(tick.who) if tick.who in names else None,
            oven=ovens.index(tick.oven) if tick.oven in ovens else None, chilled=tick.chilled,
        )  # fmt: skip
    pins = {}
    for n, pin in enumerate(given.pins):
        minute = minutes(given, pin.at, f"pins[{n}].at")
        if pin.key not in keys:
            continue  # of a dessert that was taken out since
        if minute < now and pin.key not in facts:
            raise CraftError(f"pins[{n}].at", say("planner.that_moment_is_over"))
        pins[pin.key] = minute
    before = {
        b.key: Placed(
            minutes(given, b.at, f"before[{n}].at"), names.index(b.who) if b.who in names else None,
            ovens.index(b.oven) if b.oven in ovens else None, chilled=b.chilled,
        )
        for n, b in enumerate(given.before)
    }  # fmt: skip
    return from_now(asked, now, facts, pins, before)


def _at(given: shapes.DayIn, minute: int) -> datetime:
    return given.now + timedelta(minutes=minute)


def _steps_out(
    given: shapes.DayIn, whole: Asked, asked: Day, plan: Schedule
) -> list[shapes.DayStepOut]:
    found = []
    done = {tick.key for tick in given.ticks if tick.ended is not None}
    told = {tick.key: tick for tick in given.ticks}
    bounds = windows(asked)
    rows = zip(asked.tasks, whole.day.tasks, plan.placed, bounds, strict=True)
    for task, was, place, (low, high) in rows:
        # What is over holds nothing any more; where it was done is still so.
        where = ["ring"] * was.rings + ["mixer"] * was.mixers
        where += [CHILLER] * place.chilled + ["cold"] * was.trays
        oven = _oven_of(given, asked, task, place)
        if oven is not None:
            where.append(oven)
        found.append(
            shapes.DayStepOut(
                key=task.key, what=task.what, start=_at(given, place.start), **_of(whole, was),
                hands_end=_at(given, place.start + task.hands),
                end=_at(given, place.start + task.minutes),
                who=told[task.key].who if task.key in told and told[task.key].who else
                None if place.person is None else asked.kitchen.people[place.person].name,
                where=where, oven_c=was.oven_c,
                earliest=_at(given, min(low, place.start)),
                latest=_at(given, max(high, place.start)),
                held_until=_at(given, place.start + ring_free_min(was)),
                chilled_until=_at(given, place.start + was.hands + min(was.wait, CHILLER_MIN))
                if place.chilled else None,
                after=[asked.tasks[link.before].key for link in task.after],
                own_seen=whole.seen.get(task.key, (0, 1.0))[0],
                own_factor=whole.seen.get(task.key, (0, 1.0))[1], state=_state(task, done),
            )
        )  # fmt: skip
    return sorted(found, key=lambda step: (step.start, step.key))


def _of(whole: Asked, task: Task) -> dict[str, Any]:
    """What a task is for: the desserts as they were asked for, and the part."""
    if task.only is not None:  # a break
        return {}
    alone = task.item < len(whole.batches)
    share = None if alone else whole.joined[task.item - len(whole.batches)]
    items = share.items if share else (task.item,)
    name = share.name if share else whole.batches[task.item].wanted.name
    part, inner, _ = task.key.removeprefix(f"{name}/").partition("/")
    return {
        "desserts": list(dict.fromkeys(whole.batches[n].wanted.dessert for n in items)),
        "part": part if inner else "",
    }


def _oven_of(given: shapes.DayIn, asked: Day, task: Task, place: Placed) -> str | None:
    """The oven a step is in, or was while it went on."""
    if place.oven is not None:
        return asked.kitchen.ovens[place.oven].name
    return next((t.oven for t in given.ticks if t.key == task.key and t.ended), None)


def _state(task: Task, done: set[str]) -> Literal["to_do", "pinned", "begun", "done"]:
    if task.key in done:
        return "done"
    if task.begun is not None:
        return "begun"
    return "to_do" if task.pinned is None else "pinned"


def _oven_lines(
    given: shapes.DayIn, whole: Asked, asked: Day, plan: Schedule
) -> list[shapes.OvenLineOut]:
    lines = []
    for oven in asked.kitchen.ovens:
        dials = sorted(
            (place.start, was.oven_c)
            for task, was, place in zip(asked.tasks, whole.day.tasks, plan.placed, strict=True)
            if was.oven_c is not None and _oven_of(given, asked, task, place) == oven.name
        )
        points = [shapes.OvenPointOut(at=_at(given, at), set_c=c) for at, c in dials]
        lines.append(shapes.OvenLineOut(oven=oven.name, points=points))
    return lines
