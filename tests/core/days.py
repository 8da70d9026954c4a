"""Days to plan for in tests: small kitchens, chains of steps, days made up; and what keeps every
rule in view."""

from dataclasses import replace

from bellcrumb.day.tasks import (
    SAME_OVEN_K,
    STATIONS,
    Day,
    KitchenOfDay,
    Link,
    MouldUse,
    OvenOfDay,
    Person,
    Task,
)

SHIFT = ((0, 600),)
OVEN = OvenOfDay("deck", 2, 8, cools_k_min=3)


def kitchen(people=2, rings=2, ovens=1, mixers=1, trays=8, spans=SHIFT):
    return KitchenOfDay(
        tuple(Person(f"cook {n}", spans) for n in range(people)), rings, (OVEN,) * ovens,
        mixers=mixers, trays=trays,
    )  # fmt: skip


def chain(item, by, *rows):
    """Tasks in a row: (hands, wait, what it holds, at most to the next)."""
    tasks, first = [], item * 10
    for n, (hands, wait, holds, _) in enumerate(rows):
        before = rows[n - 1][3] if n else None
        tasks.append(
            Task(
                f"{item}/{n}", item, f"{item}/{n}", hands=hands, wait=wait,
                rings=int(holds == "ring"), mixers=int(holds == "mixer"),
                trays=int(holds == "cold"), oven_c=holds if isinstance(holds, float) else None,
                shelves=int(isinstance(holds, float)),
                after=(Link(first + n - 1, 0, before),) if n else (),
                by=by if n == len(rows) - 1 else None,
            )
        )  # fmt: skip
    return tasks


def a_day(rng, items):
    """A day made at random: chains of two to four tasks with gaps, ovens and pools."""
    tasks, holds = [], []
    for item in range(items):
        rows = []
        for _ in range(rng.randint(2, 4)):
            uses = rng.choice(["ring", "mixer", "cold", "", 150.0, 160.0, 190.0, 220.0])
            wait = rng.choice([0, 0, 20, 45, 90])
            rows.append((rng.randint(2, 25), wait, uses, rng.choice([None, 15, 60, 240])))
        first = len(tasks)
        made = chain(0, rng.choice([300, 450, 600]), *rows)
        for n, task in enumerate(made):
            warm = rng.random() < 0.4
            after = tuple(Link(first + n - 1, x.least, x.most, warm=warm) for x in task.after)
            hot = bool(task.trays) and rng.random() < 0.6
            tasks.append(
                replace(task, item=item, key=f"{item}/{n}", after=after, comes_hot=hot, spoils=warm)
            )
        if rng.random() < 0.6:
            holds.append(MouldUse(rng.randint(0, 1), rng.randint(1, 6), first, last=len(tasks) - 1))
    people = rng.randint(1, 3)
    for n in range(people):
        if rng.random() < 0.3:
            tasks.append(
                Task(f"break/{n}", -1 - n, "break", hands=30, wait=0, rings=0, mixers=0, trays=0,
                     oven_c=None, shelves=0, after=(), not_before=150, until=330, only=n)
            )  # fmt: skip
    most = [max((h.need for h in holds if h.mould == m), default=1) for m in (0, 1)]
    there = replace(
        kitchen(people=people), moulds=tuple(m + rng.randint(0, 3) for m in most),
        trays=rng.randint(1, 4), blast=rng.randint(0, 2),
    )  # fmt: skip
    if people > 1 and rng.random() < 0.4:  # somebody new
        may = frozenset(rng.sample(STATIONS, rng.randint(1, 3)))
        first, *others = there.people
        there = replace(there, people=(first, *(replace(p, may=may) for p in others)))
    return Day(tuple(tasks), there, 600, holds=tuple(holds))


def a_full_day(rng):
    """More desserts than are planned at once, for which ten people and seven ovens just do."""
    tasks = []
    for item in range(68):
        uses = ["ring", "mixer", "", 150.0, 160.0, 190.0]
        rows = [
            (rng.randint(2, 25), rng.choice([0, 20, 45]), rng.choice(uses),
             rng.choice([None, 60, 240]))
            for _ in range(3)
        ]  # fmt: skip
        first = len(tasks)
        for n, task in enumerate(chain(0, rng.choice([400, 500, 600]), *rows)):
            after = tuple(replace(x, before=first + n - 1) for x in task.after)
            tasks.append(replace(task, item=item, key=f"{item}/{n}", after=after))
    return Day(tuple(tasks), kitchen(10, 5, 7, 3), 600)


def faults(day, placed):
    """What a plan does that it may not, found minute by minute: nothing here is the solver's."""
    found = []
    for task, at in zip(day.tasks, placed, strict=True):
        end = at.start + task.hands + task.wait
        if at.start < 0 or end > (day.horizon if task.by is None else task.by):
            found.append(f"{task.key} ends at {end}")
        for link in task.after:
            other = day.tasks[link.before]
            gap = at.start - placed[link.before].start - other.hands - other.wait
            if gap < link.least or (link.most is not None and gap > link.most):
                found.append(f"{task.key} comes {gap} after {other.key}")
        if task.hands:
            spans = day.kitchen.people[at.person].spans
            if not any(a <= at.start and at.start + task.hands <= b for a, b in spans):
                found.append(f"{task.key} out of hours")
        rest = task.begun is None
        if rest and task.only is not None and task.only != at.person:
            found.append(f"{task.key} is somebody else's")
        if rest and task.hands and task.only is None:
            who = day.kitchen.people[at.person]
            mine = "plate" if task.by is not None else "stove" if task.rings else (
                "oven" if task.oven_c is not None else "bench")  # fmt: skip
            if mine not in who.may:
                found.append(f"{task.key} is nothing for {who.name}")
        if rest and task.until is not None and end > task.until:
            found.append(f"{task.key} is too late")
        if (task.oven_c is None) != (at.oven is None):
            found.append(f"{task.key} in a wrong oven")
        if at.chilled and not task.comes_hot:
            found.append(f"{task.key} is chilled cold")
    for minute in range(day.horizon):
        busy, rings, mixers, trays, blast = [], 0, 0, 0, 0
        shelves, dials = {}, {}
        for task, at in zip(day.tasks, placed, strict=True):
            age = minute - at.start
            if 0 <= age < task.hands:
                busy.append(at.person)
            if not 0 <= age < task.hands + task.wait:
                continue
            whole = task.oven_c is None and not task.trays
            rings += task.rings * (whole or age < task.hands)
            mixers += task.mixers * (whole or age < task.hands)
            cooling = at.chilled and 0 <= age - task.hands < 90
            trays += task.trays * (age >= task.hands and not cooling)
            blast += task.trays * cooling
            if at.oven is not None:
                shelves[at.oven] = shelves.get(at.oven, 0) + task.shelves
                dials.setdefault(at.oven, set()).add(task.oven_c)
        for mould, have in enumerate(day.kitchen.moulds):
            used = sum(
                h.need for h in day.holds if h.mould == mould and placed[h.first].start <= minute
                < placed[h.last].start + day.tasks[h.last].hands + day.tasks[h.last].wait
            )  # fmt: skip
            if used > have:
                found.append(f"{used} of {have} moulds at {minute}")
        if len(busy) != len(set(busy)):
            found.append(f"two things by one person at {minute}")
        over = rings > day.kitchen.rings or mixers > day.kitchen.mixers
        if over or trays > day.kitchen.trays or blast > day.kitchen.blast:
            found.append(f"too much at {minute}")
        for oven, load in shelves.items():
            if load > day.kitchen.ovens[oven].shelves:
                found.append(f"oven too full at {minute}")
            if max(dials[oven]) - min(dials[oven]) > SAME_OVEN_K:
                found.append(f"two dials in one oven at {minute}")
    return found
