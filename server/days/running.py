"""Where a day stands: facts from its ticks, and its plan with them in it."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any

from ninja import Schema

from bellcrumb.contract.shapes.plan import BeforeIn, DayOut, DayStepOut, PinIn, TickIn
from days.models import RunningDay


@dataclass
class Fact:
    """A step begun, and over or not; ISO times on the kitchen's clock."""

    began: str
    ended: str | None = None


def facts_of(day: RunningDay) -> dict[str, Fact]:
    """What has begun and what is over, by key, from the ticks in order of their time."""
    planned = {s["key"]: s for s in day.plan["steps"]}
    found: dict[str, Fact] = {}
    for tick in day.ticks.all():
        if tick.kind == "undo":
            found.pop(tick.key, None)
        elif tick.kind == "begin":
            found[tick.key] = Fact(tick.at)
        else:  # over without a word of its beginning: it began as planned, if that is past
            start = planned.get(tick.key, {}).get("start", tick.at)
            fact = found.setdefault(tick.key, Fact(min(start, tick.at)))
            fact.ended = max(tick.at, fact.began)
    return found


def ticks_of(day: RunningDay) -> list[TickIn]:
    """The facts as the core takes them, with who and which oven as they were planned."""
    planned = {s["key"]: s for s in day.plan["steps"]}
    ovens = {line["oven"] for line in day.plan["oven_lines"]}
    out = []
    for key, fact in facts_of(day).items():
        step = planned.get(key, {})
        out.append(
            TickIn(
                key=key, began=datetime.fromisoformat(fact.began),
                ended=datetime.fromisoformat(fact.ended) if fact.ended else None,
                who=step.get("who"),
                oven=next((w for w in step.get("where", []) if w in ovens), None),
            )
        )  # fmt: skip
    return out


def before_of(day: RunningDay) -> list[BeforeIn]:
    """The plan as people know it."""
    return [
        BeforeIn(key=s["key"], at=datetime.fromisoformat(s["start"]), who=s["who"])
        for s in day.plan["steps"]
    ]


def pins_of(day: RunningDay) -> list[PinIn]:
    """Pins of steps that have not begun."""
    facts = facts_of(day)
    return [PinIn.model_validate(pin) for pin in day.pins if pin["key"] not in facts]


def shown(day: RunningDay) -> DayOut:
    """The plan with what has happened in it."""
    plan = DayOut.model_validate(day.plan)
    facts = facts_of(day)
    for step in plan.steps:
        fact = facts.get(step.key)
        if fact is None:
            step.state = "pinned" if step.state == "pinned" else "to_do"
            continue
        began = datetime.fromisoformat(fact.began)
        hands, whole = step.hands_end - step.start, step.end - step.start
        step.start, step.hands_end, step.end = began, began + hands, began + whole
        step.state = "begun"
        if fact.ended:
            step.end = datetime.fromisoformat(fact.ended)
            step.hands_end, step.state = min(step.hands_end, step.end), "done"
    plan.steps.sort(key=lambda s: (s.start, s.key))
    return plan


class MovedOut(Schema):
    """A step that moved, or changed hands, when the day was planned again."""

    key: str
    what: str
    who: str | None
    was: datetime
    now: datetime
    was_who: str | None


def changes(before: DayOut, after: DayOut) -> list[MovedOut]:
    """What is different for whom, of the steps still to be done; a few minutes are no change."""
    old: dict[str, DayStepOut] = {s.key: s for s in before.steps}
    found = []
    for step in after.steps:
        was = old.get(step.key)
        if was is None or step.state in ("begun", "done"):
            continue
        moved = abs((step.start - was.start).total_seconds()) >= 300
        if moved or step.who != was.who:
            found.append(
                MovedOut(
                    key=step.key, what=step.what, who=step.who, was=was.start, now=step.start,
                    was_who=was.who,
                )
            )  # fmt: skip
    return found


def dumped(plan: DayOut) -> dict[str, Any]:
    """A plan as the store keeps it."""
    return plan.model_dump(mode="json")
