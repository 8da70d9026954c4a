"""Where a day stands: facts from its ticks, and its plan with them in it."""

from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from typing import Any, Literal
from uuid import UUID

from ninja import Schema

from batches.models import Batch
from bellcrumb.shapes.plan import BeforeIn, DayOut, DayStepOut, PinIn, TickIn
from days.models import RunningDay
from formulas.models import Part


@dataclass
class StoredFact:
    """A step begun, and over or not; ISO times on the kitchen's clock."""

    began: str
    ended: str | None = None
    cooked: bool = False  # a cook, a bake or a build was followed: its clock is true


def _cooked(day: RunningDay) -> dict[str, StoredFact]:
    """The steps that were cooked, baked or built under a guide: begun and over as that was."""
    rows = Batch.objects.filter(kitchen=day.kitchen_id, for_day=day.pk).order_by("started_at")

    def local(at: datetime, ahead_s: int) -> str:
        return (at.astimezone(UTC) + timedelta(seconds=ahead_s)).isoformat()[:19]

    return {
        key: StoredFact(local(began, ahead), local(ended, ahead) if ended else None, cooked=True)
        for key, began, ended, ahead in rows.values_list(
            "for_step", "started_at", "ended_at", "day_ahead_s"
        )
    }


def facts_of(day: RunningDay) -> dict[str, StoredFact]:
    """What has begun and what is over, by key: what was cooked, then the ticks in order of their
    time, which overrule it."""
    planned = {s["key"]: s for s in day.plan["steps"]}
    found = {key: fact for key, fact in _cooked(day).items() if key in planned}
    for tick in day.ticks.all():
        if tick.kind == "undo":
            found.pop(tick.key, None)
        elif tick.kind == "begin":
            found[tick.key] = StoredFact(tick.at)
        else:  # over without a word of its beginning: it began as planned, if that is past
            start = planned.get(tick.key, {}).get("start", tick.at)
            fact = found.setdefault(tick.key, StoredFact(min(start, tick.at)))
            fact.ended = max(tick.at, fact.began)
    return found


def ticks_of(day: RunningDay) -> list[TickIn]:
    """The facts as the core takes them, with who and which oven as they were planned."""
    planned = {s["key"]: s for s in day.plan["steps"]}
    ovens = _ovens(day)
    out = []
    for key, fact in facts_of(day).items():
        step = planned.get(key, {})
        out.append(
            TickIn(
                key=key, began=datetime.fromisoformat(fact.began),
                ended=datetime.fromisoformat(fact.ended) if fact.ended else None,
                who=step.get("who"),
                oven=next((w for w in step.get("where", []) if w in ovens), None),
                chilled=bool(step.get("chilled_until")),
            )
        )  # fmt: skip
    return out


def before_of(day: RunningDay) -> list[BeforeIn]:
    """The plan as people know it."""
    ovens = _ovens(day)
    return [
        BeforeIn(
            key=s["key"], at=datetime.fromisoformat(s["start"]), who=s["who"],
            oven=next((w for w in s["where"] if w in ovens), None),
            chilled=bool(s.get("chilled_until")),
        )
        for s in day.plan["steps"]
    ]  # fmt: skip


def _ovens(day: RunningDay) -> set[str]:
    return {line["oven"] for line in day.plan["oven_lines"]}


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


class OpensOut(Schema):
    """Where a step is done: its dessert and part, and the page with its guide."""

    dessert_id: UUID
    part_id: UUID | None
    place: Literal["stove", "oven", "cold", "whole"]


def opens_of(day: RunningDay, plan: DayOut) -> dict[str, OpensOut]:
    """For each step the page it opens."""
    parts = {
        (p.dessert_id, p.name): p.pk
        for p in Part.objects.filter(dessert__in=[UUID(pk) for pk in day.desserts.values()])
    }
    ovens = {line.oven for line in plan.oven_lines}
    found = {}
    for step in plan.steps:
        pk = next((day.desserts[name] for name in step.desserts if name in day.desserts), None)
        if pk is None:
            continue
        part = parts.get((UUID(pk), step.part))
        place: Literal["stove", "oven", "cold", "whole"] = "whole"
        if part and any(w in ovens for w in step.where):
            place = "oven"
        elif part and "cold" in step.where and "ring" not in step.where:
            place = "cold"
        elif part and not step.key.endswith(("lay_on", "portion", "pipe_spread", "brush", "lay")):
            place = "stove"
        found[step.key] = OpensOut(dessert_id=UUID(pk), part_id=part, place=place)
    return found


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
