"""A day understood: which batches are made, of what they are joined, and the tasks they come to."""

import math
from dataclasses import KW_ONLY, dataclass, replace
from datetime import datetime

from bellcrumb.day.tasks import (
    Day,
    KitchenOfDay,
    MouldUse,
    OvenOfDay,
    Person,
    StandSpace,
    Station,
    Task,
    tasks_of,
)
from bellcrumb.dessert.works import PartWork
from bellcrumb.errors import CraftError
from bellcrumb.pantry.pantry import Pantry
from bellcrumb.planner.builds import whole
from bellcrumb.planner.day_joined import DayBatch, Joined, Wanted, join_parts
from bellcrumb.shapes import plan as shapes
from bellcrumb.shapes.build import BuildIn
from bellcrumb.vessels.geometry import Vessel
from bellcrumb.vessels.tray import most_in
from bellcrumb.words import say

DAY_MIN = 1440
_TRAY_MM = (530.0, 325.0)  # of the cold
_BOILED: tuple[PartWork, ...] = ("stirred", "roux")
_WHIPPED: tuple[PartWork, ...] = ("whipped", "italian", "swiss", "french", "cheesecake", "folded")
_BOWL_FULL = 2 / 3  # of a mixer's bowl, once it is whipped; practice
_BREAK_FROM_MIN, _BREAK_TO_MIN, _LONG_MIN = 150, 330, 360  # of somebody's hours; practice
_LEAST_SHARE = 0.5  # a learned step is never less than this of what is planned, nor over twice it


@dataclass(frozen=True)
class Asked:
    """A day as it is asked: batches, joined parts, and the tasks of all of it."""

    batches: list[DayBatch]
    joined: list[Joined]
    day: Day
    _: KW_ONLY
    seen: dict[str, tuple[int, float]]


def minutes(given: shapes.DayIn, at: datetime, field: str) -> int:
    """Minutes from where the plan begins. Raises CraftError where only one has a zone."""
    if (at.tzinfo is None) != (given.now.tzinfo is None):
        raise CraftError(field, say("planner.give_every_time_with_its_zone"))
    return round((at - given.now).total_seconds() / 60)


def wanted_of(given: shapes.DayIn) -> tuple[list[Wanted], list[str]]:
    """What is still to be made, with stock taken off, and what is said of it."""
    left: dict[str, int] = {}
    for stock in given.stock:
        left[stock.name] = left.get(stock.name, 0) + stock.portions
    found: list[Wanted] = []
    warnings: list[str] = []
    for s, service in enumerate(given.services):
        by = minutes(given, service.at, f"services[{s}].at")
        if by <= 0:
            raise CraftError(f"services[{s}].at", say("planner.this_service_is_over_already"))
        if by > 7 * DAY_MIN:
            raise CraftError(f"services[{s}].at", say("planner.a_plan_reaches_a_week_ahead"))
        for item in service.items:
            name = item.name or item.build.parts[0].name
            from_stock = min(item.portions, left.get(name, 0))
            left[name] = left.get(name, 0) - from_stock
            if from_stock:
                warnings.append(
                    say(
                        "planner.of_are_there_already",
                        name=name,
                        from_stock=from_stock,
                        portions=item.portions,
                    )
                )
            if item.portions > from_stock:
                again = sum(w.dessert == name for w in found)
                shown = f"{name} · {again + 1}" if again else name
                found.append(
                    Wanted(shown, name, item.build, portions=item.portions - from_stock, by=by)
                )
    if len(found) > 120:
        raise CraftError("services", say("planner.at_most_120_desserts_make_a"))
    return found, warnings


def sized(wanted: Wanted) -> BuildIn:
    """The build made for the portions wanted: more vessels, as deep as before."""
    stand = wanted.build.stand
    return wanted.build.model_copy(
        update={
            "stand": stand.model_copy(update={"count": wanted.count}),
            "batches": wanted.build.batches * wanted.count / stand.count,
        }
    )


def asked_of(
    given: shapes.DayIn, wanted: list[Wanted], pantry: Pantry | None,
    vessels: dict[str, Vessel] | None, *, join: bool,
) -> tuple[Asked, list[str]]:  # fmt: skip
    """The day to be planned, and what is said of it. Raises CraftError."""
    batches: list[DayBatch] = []
    warnings: list[str] = []
    for want in wanted:
        for part in _split(given, want, pantry, vessels, warnings):
            made = whole(sized(part), pantry, vessels)
            batches.append(DayBatch(part, made, sized(part), steps=made.steps.steps))
    joined: list[Joined] = []
    if join:
        batches, joined = join_parts(batches)
    day, seen = _day(given, batches, joined)
    return Asked(batches, joined, day, seen=seen), warnings


def _split(
    given: shapes.DayIn, want: Wanted, pantry: Pantry | None, vessels: dict[str, Vessel] | None,
    warnings: list[str],
) -> list[Wanted]:  # fmt: skip
    """As many batches as moulds, oven, pot and bowl ask for."""
    made = whole(sized(want), pantry, vessels)
    times, why = 1, ""
    have = _moulds(given).get(_mould_of(want, made.vessel))
    if have is not None and want.count > have:
        times, why = (
            math.ceil(want.count / have),
            say("planner.there_are", have=have, vessel=made.vessel.name),
        )
    shelves = _shelves(given, made.vessel, want.count)
    most = max((oven.shelves for oven in given.ovens), default=shelves)
    bakes = any(step.oven_c for step in made.steps.steps)
    if bakes and math.ceil(shelves / most) > times:
        times, why = math.ceil(shelves / most), say("planner.the_oven_takes_no_more_at")
    for name, part in made.found.parts.items():
        need = made.needs[name].need_g
        if part.made.kind in _BOILED and need > given.pot_g * times:
            times, why = (
                math.ceil(need / given.pot_g),
                say("planner.is_more_than_one_pot", name=name),
            )
        whipped_ml = need / part.made.density
        if part.made.kind in _WHIPPED and whipped_ml > _BOWL_FULL * given.bowl_ml * times:
            times = math.ceil(whipped_ml / (_BOWL_FULL * given.bowl_ml))
            why = say("planner.is_more_than_one_bowl", name=name)
    times = min(times, want.count, 12)
    if times == 1:
        return [want]
    warnings.append(say("planner.is_made_in_batches", want=want.name, times=times, why=why))
    each = want.build.stand.portions_each
    counts = [want.count // times + (n < want.count % times) for n in range(times)]
    return [
        replace(want, name=say("planner.batch_of", want=want.name, n=n + 1), portions=count * each)
        for n, count in enumerate(counts)
    ]


def _moulds(given: shapes.DayIn) -> dict[str, int]:
    return {m.vessel: m.count for m in given.moulds}


def _mould_of(want: Wanted, vessel: Vessel) -> str:
    """What a vessel is counted as: its key, or its name."""
    asked = want.build.stand.vessel
    return asked if isinstance(asked, str) else vessel.name


def _shelves(given: shapes.DayIn, vessel: Vessel, count: int) -> int:
    """Shelves that so many vessels stand on, of the largest there are."""
    sizes = [(o.shelf_length_mm, o.shelf_width_mm) for o in given.ovens] or [(600.0, 400.0)]
    return math.ceil(count / max(1, *(most_in(vessel, size) for size in sizes)))


def _day(
    given: shapes.DayIn, batches: list[DayBatch], joined: list[Joined]
) -> tuple[Day, dict[str, tuple[int, float]]]:
    tasks: list[Task] = []
    outside: dict[int, dict[str, int]] = {n: {} for n in range(len(batches))}
    for j, share in enumerate(joined):
        item = len(batches) + j
        made = tasks_of(item, share.name, share.steps, None, len(tasks))
        at = {key: len(tasks) + n for n, task in enumerate(made) for key in task.steps}
        for n, key in share.stands_for:
            own = f"{share.name}/{share.part}/{key.split('/', 1)[1]}"
            outside[n][key] = at.get(own, len(tasks) + len(made) - 1)
        tasks += made
    holds: list[MouldUse] = []
    have = _moulds(given)
    kinds = sorted({_mould_of(b.wanted, b.made.vessel) for b in batches} & set(have))
    for n, batch in enumerate(batches):
        want, vessel = batch.wanted, batch.made.vessel
        at_laying = batch.made.steps.laid[0] if batch.made.steps.laid else None
        order = [s.key for s in batch.steps]
        lain = frozenset(order[order.index(at_laying) :]) if at_laying in order else frozenset()
        trays = math.ceil(want.count / max(1, most_in(vessel, _TRAY_MM)))
        room = StandSpace(_shelves(given, vessel, want.count), trays, lain)
        mine = tasks_of(n, want.name, batch.steps, want.by, len(tasks), outside[n], room)
        mould = _mould_of(want, vessel)
        if mould in kinds and at_laying is not None:
            first = next(k for k, t in enumerate(mine) if f"{want.name}/{at_laying}" in t.steps)
            freed = _freed_by(batch, order[order.index(at_laying) :])
            last = next(
                k for k, t in enumerate(mine)
                if t.by is not None or f"{want.name}/{freed}" in t.steps
            )  # fmt: skip
            holds.append(
                MouldUse(kinds.index(mould), want.count, len(tasks) + first, last=len(tasks) + last)
            )
        tasks += mine
    people, breaks = _people(given, max((b.wanted.by for b in batches), default=1))
    tasks += breaks
    if any(task.oven_c is not None for task in tasks) and not given.ovens:
        raise CraftError("ovens", say("planner.something_is_baked_which_ovens_are"))
    fridges = [c.trays for c in given.cold if not c.blast]
    trays_have = sum(fridges) if fridges else 12
    kitchen = KitchenOfDay(
        people, len(given.rings),
        tuple(
            OvenOfDay(o.name, o.shelves, o.heats_k_min, cools_k_min=o.cools_k_min)
            for o in given.ovens
        ),
        mixers=len(given.mixers), trays=max(trays_have, max((t.trays for t in tasks), default=0)),
        moulds=tuple(have[kind] for kind in kinds),
        blast=sum(c.trays for c in given.cold if c.blast),
    )  # fmt: skip
    tasks, seen = _as_here(given, tasks)
    horizon = max((b.wanted.by for b in batches), default=1)
    return Day(tuple(tasks), kitchen, horizon, holds=tuple(holds)), seen


def _freed_by(batch: DayBatch, keys: list[str]) -> str:
    """The step after which its mould can be used again: let out of it, or, of a shell that stands
    by itself, baked and cool; else the plate."""
    after = {s.key: s for s in batch.steps if s.key in keys}
    out = [k for k, s in after.items() if s.code in ("free_from_tin", "unmould")]
    if out:
        return out[-1]
    stands = any(x.kind in ("flaky", "sweet", "puff") for x in batch.made.stack.layers)
    baked = [n for n, k in enumerate(keys) if after[k].oven_c is not None]
    if not stands or not baked:
        return "plate"
    cools = [k for k in keys[baked[-1] :] if after[k].code.startswith("cool")]
    return cools[0] if cools else keys[baked[-1]]


def _people(given: shapes.DayIn, horizon: int) -> tuple[tuple[Person, ...], list[Task]]:
    """Everybody with their hours, and the breaks of those who have one."""
    spans: dict[str, list[tuple[int, int]]] = {}
    may: dict[str, frozenset[Station]] = {}
    rests: list[tuple[str, int, int, int]] = []
    for p, person in enumerate(given.people):
        begin = minutes(given, person.from_, f"people[{p}].from")
        end = minutes(given, person.to, f"people[{p}].to")
        if end <= begin:
            raise CraftError(
                f"people[{p}].to", say("planner.ends_before_they_begin", person=person.name)
            )
        may.setdefault(person.name, frozenset(person.may))
        if end > 0:
            spans.setdefault(person.name, []).append((max(0, begin), min(end, horizon)))
        to = min(begin + _BREAK_TO_MIN, end, horizon)
        fits = to - person.break_min >= begin + _BREAK_FROM_MIN
        if person.break_min and end - begin >= _LONG_MIN and begin >= 0 and fits:
            rests.append((person.name, person.break_min, begin + _BREAK_FROM_MIN, to))
    people = tuple(
        Person(name, tuple((a, b) for a, b in sorted(each) if b > a), may[name])
        for name, each in spans.items()
    )
    names = [person.name for person in people]
    breaks = [
        Task(
            f"break/{name}/{n}",
            -1 - n,
            say("planner.break", name=name),
            hands=long,
            wait=0,
            rings=0,
            mixers=0,
            trays=0,
            oven_c=None,
            shelves=0,
            after=(),
            steps=(),
            not_before=early,
            until=late,
            only=names.index(name),
        )
        for n, (name, long, early, late) in enumerate(rests)
    ]
    return people, breaks


def _as_here(
    given: shapes.DayIn, tasks: list[Task]
) -> tuple[list[Task], dict[str, tuple[int, float]]]:
    """Minutes as this kitchen takes them, where it was seen: how often, and by what factor."""
    own = {o.key: o for o in given.own_minutes}
    seen: dict[str, tuple[int, float]] = {}
    out = []
    for task in tasks:
        known = own.get(plain_key(task.key))
        if known is None:
            out.append(task)
            continue
        factor = min(1 / _LEAST_SHARE, max(_LEAST_SHARE, known.factor))
        seen[task.key] = known.seen, factor
        if task.wait:
            out.append(replace(task, wait=max(1, round(factor * task.minutes) - task.hands)))
        else:
            out.append(replace(task, hands=max(1, round(factor * task.hands))))
    return out, seen


def plain_key(key: str) -> str:
    """A step's key without which service or batch it is of: what its minutes are learned under."""
    name, _, rest = key.partition("/")
    return f"{name.split(' · ')[0]}/{rest}"
