import json
import math
import random
import re
import unittest
from dataclasses import replace
from datetime import datetime, timedelta

from bellcrumb.contract import compute
from bellcrumb.day.aim import tally
from bellcrumb.day.clash import clash
from bellcrumb.day.greedy import backwards
from bellcrumb.day.running import Fact, from_now, later
from bellcrumb.day.solve import planned, solve
from bellcrumb.day.tasks import (
    SAME_OVEN_K,
    WORKS,
    Day,
    Hold,
    KitchenOfDay,
    Link,
    OvenOfDay,
    Person,
    Placed,
    Task,
    tasks_of,
    without_item,
)
from bellcrumb.dessert.steps import BuildStep
from bellcrumb.errors import CraftError
from tests.core.test_dessert import CREAM, DOUGH, TOPPING, part, round_tin

SHIFT = ((0, 600),)
OVEN = OvenOfDay("deck", 2, 8, 3)


def kitchen(people=2, rings=2, ovens=1, mixers=1, trays=8, spans=SHIFT):
    return KitchenOfDay(
        tuple(Person(f"cook {n}", spans) for n in range(people)), rings, (OVEN,) * ovens, mixers,
        trays,
    )  # fmt: skip


def chain(item, by, *rows):
    """Tasks in a row: (hands, wait, what it holds, at most to the next)."""
    tasks, first = [], item * 10
    for n, (hands, wait, holds, _) in enumerate(rows):
        before = rows[n - 1][3] if n else None
        tasks.append(
            Task(
                f"{item}/{n}", item, f"{item}/{n}", hands, wait, int(holds == "ring"),
                int(holds == "mixer"), int(holds == "cold"),
                holds if isinstance(holds, float) else None, int(isinstance(holds, float)),
                (Link(first + n - 1, 0, before),) if n else (), by if n == len(rows) - 1 else None,
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
            after = tuple(Link(first + n - 1, x.least, x.most, warm) for x in task.after)
            hot = bool(task.trays) and rng.random() < 0.6
            tasks.append(
                replace(task, item=item, key=f"{item}/{n}", after=after, comes_hot=hot, spoils=warm)
            )
        if rng.random() < 0.6:
            holds.append(Hold(rng.randint(0, 1), rng.randint(1, 6), first, len(tasks) - 1))
    people = rng.randint(1, 3)
    for n in range(people):
        if rng.random() < 0.3:
            tasks.append(
                Task(f"break/{n}", -1 - n, "break", 30, 0, 0, 0, 0, None, 0, (),
                     not_before=150, until=330, only=n)
            )  # fmt: skip
    most = [max((h.need for h in holds if h.mould == m), default=1) for m in (0, 1)]
    there = replace(
        kitchen(people=people), moulds=tuple(m + rng.randint(0, 3) for m in most),
        trays=rng.randint(1, 4), blast=rng.randint(0, 2),
    )  # fmt: skip
    if people > 1 and rng.random() < 0.4:  # somebody new
        may = frozenset(rng.sample(WORKS, rng.randint(1, 3)))
        first, *others = there.people
        there = replace(there, people=(first, *(replace(p, may=may) for p in others)))
    return Day(tuple(tasks), there, 600, tuple(holds))


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


class RunningTest(unittest.TestCase):
    def begun(self, day, placed, now, late):
        """What had begun by a moment of a plan, each step as much longer as ``late`` says."""
        facts = {}
        for task, at in zip(day.tasks, placed, strict=True):
            if at.start > now:
                continue
            end = at.start + task.minutes + late
            ended = end if end <= now else None
            facts[task.key] = Fact(at.start, ended, at.person, at.oven)
        return facts

    def test_what_has_begun_stays_and_the_rest_keeps_every_rule(self):
        rng = random.Random(11)
        seen = moved = 0
        for n in range(80):
            day = a_day(rng, rng.randint(2, 5))
            plan = planned(day, 0.05)
            if plan is None:
                continue
            now = rng.randint(30, 400)
            rest = from_now(day, now, self.begun(day, plan.placed, now, 0), {})
            again = planned(rest, 0.05)
            with self.subTest(day=n):
                self.assertIsNotNone(again, "a plan that is kept can go on as it was")
                for task, old, new in zip(rest.tasks, plan.placed, again.placed, strict=True):
                    if task.begun is not None:
                        self.assertEqual(new.start, old.start)
                    else:
                        self.assertGreaterEqual(new.start, now)
                        moved += new.start != old.start
                told = [
                    p if t.hands == 0 or t.does is None else Placed(p.start, t.does, p.oven)
                    for t, p in zip(rest.tasks, again.placed, strict=True)
                ]
                self.assertEqual(faults(rest, told), [])
            seen += 1
        self.assertGreater(seen, 40)

    def test_a_late_day_is_mended_by_the_rules_and_moves_little(self):
        rng = random.Random(17)
        seen = moved = 0
        for n in range(60):
            day = a_day(rng, rng.randint(3, 6))
            plan = planned(day, 0.05)
            if plan is None:
                continue
            ends = [p.start + t.minutes for t, p in zip(day.tasks, plan.placed, strict=True)]
            now = rng.choice([rng.randint(60, 400), max(60, rng.choice(ends))])
            late = rng.choice([0, 5, 15])
            # What went on a while ago goes on still, and nothing has begun since.
            facts = self.begun(day, plan.placed, now - late, 0)
            before = {t.key: p for t, p in zip(day.tasks, plan.placed, strict=True)}
            rest = from_now(day, now, facts, {}, before)
            again = planned(rest, 0.05)
            if again is None:  # too late for its service
                continue
            with self.subTest(day=n):
                told = [
                    p if t.hands == 0 or t.does is None else Placed(p.start, t.does, p.oven)
                    for t, p in zip(rest.tasks, again.placed, strict=True)
                ]
                free = [t.begun is None for t in rest.tasks]
                self.assertEqual(faults(rest, told), [])
                moved += sum(a.start != b.start for a, b, ours in
                             zip(again.placed, plan.placed, free, strict=True) if ours)  # fmt: skip
                seen += sum(free)
                if not late:
                    self.assertEqual([p.start for p, ours in zip(again.placed, free, strict=True)
                                      if ours],
                                     [p.start for p, ours in zip(plan.placed, free, strict=True)
                                      if ours])  # fmt: skip
        self.assertGreater(seen, 150)
        self.assertLess(moved / seen, 0.5)

    def test_a_pin_is_kept_and_the_rest_answers_around_it(self):
        rng = random.Random(3)
        kept = 0
        for _ in range(60):
            day = a_day(rng, 3)
            plan = planned(day, 0.05)
            if plan is None:
                continue
            n = rng.randrange(len(day.tasks))
            wish = max(0, plan.placed[n].start - 10)
            pinned = from_now(day, 0, {}, {day.tasks[n].key: wish})
            again = planned(pinned, 0.05)
            if again is None:
                continue
            kept += 1
            self.assertEqual(again.placed[n].start, wish)
            self.assertEqual(faults(pinned, again.placed), [])
        self.assertGreater(kept, 15)

    def test_facts_make_room_where_they_are_and_waits_that_last_too_long_are_let_go(self):
        bake = chain(0, 300, (5, 100, 180.0, 30), (10, 0, "", None))
        other = [
            replace(
                t,
                item=1,
                key=f"1/{n}",
                after=tuple(replace(x, before=x.before + 2) for x in t.after),
            )
            for n, t in enumerate(bake)
        ]
        third = [
            replace(
                t,
                item=2,
                key=f"2/{n}",
                after=tuple(replace(x, before=x.before + 4) for x in t.after),
            )
            for n, t in enumerate(bake)
        ]
        day = Day((*bake, *other, *third), kitchen(ovens=2), 600)
        in_one = {f"{n}/0": Fact(10 * n, None, None, 1) for n in range(3)}
        rest = from_now(day, 40, in_one, {})
        self.assertEqual([o.shelves for o in rest.kitchen.ovens], [2, 3])
        ended = {"0/0": Fact(0, 105, 0, 0)}
        for now, most in ((130, 30), (136, None)):
            link = from_now(day, now, ended, {}).tasks[1].after[0]
            self.assertEqual(link.most, most, now)

    def test_running_late_slips_the_service_by_no_more_than_it_must(self):
        day = Day(tuple(chain(0, 300, (20, 100, 180.0, 30), (10, 0, "", None))), kitchen(1), 600)
        late = from_now(day, 250, {"0/0": Fact(240, None, 0, 0)}, {})
        self.assertIsNone(planned(late))
        self.assertIsNotNone(planned(later(late, 90)))
        self.assertIsNone(planned(later(late, 60)))


class AttentionTest(unittest.TestCase):
    def step(self, holds, attention):
        return BuildStep("c", "", "cook", "cook", 2, 12, 10, 15, (), attention, None, "", (), False,
                         holds)  # fmt: skip

    def test_nobody_leaves_a_boil_and_anybody_a_bake(self):
        for holds, attention, hands in (
            (("ring",), True, 14), (("ring",), False, 2), (("oven",), True, 2),
            (("mixer",), True, 14), (("bench",), True, 2),
        ):  # fmt: skip
            (task,) = tasks_of(0, "flan", [self.step(holds, attention)], 60, 0)
            self.assertEqual((task.hands, task.minutes), (hands, 14), holds)


class PlanTest(unittest.TestCase):
    def test_every_plan_of_two_hundred_days_keeps_every_rule(self):
        rng = random.Random(5)
        planned_days = 0
        for n in range(200):
            day = a_day(rng, rng.randint(1, 6))
            chef = backwards(day)
            if None not in chef:
                self.assertEqual(faults(day, chef), [], f"chef, day {n}")
            plan = solve(day, 0.05)
            if plan is not None:
                planned_days += 1
                self.assertEqual(faults(day, plan.placed), [], f"solver, day {n}")
        self.assertGreater(planned_days, 120)

    def test_nobody_does_what_they_may_not_and_that_is_said_where_it_is_the_clash(self):
        cook = Day(tuple(chain(0, 100, (10, 0, "ring", 30), (10, 0, "", None))), kitchen(1), 100)
        new = replace(cook.kitchen.people[0], may=frozenset({"bench", "plate"}))
        alone = replace(cook, kitchen=replace(cook.kitchen, people=(new,)))
        self.assertIsNotNone(planned(cook))
        self.assertIsNone(planned(alone))
        self.assertEqual(set(clash(alone).limits), {"people", "may"})
        both = replace(cook, kitchen=replace(cook.kitchen, people=(new, *cook.kitchen.people)))
        self.assertEqual([p.person for p in planned(both).placed], [1, 0])

    def test_hands_that_share_their_hours_share_the_work(self):
        tasks = []
        for item in range(6):
            (one,) = chain(0, 400, (20, 0, "", None))
            tasks.append(replace(one, item=item, key=f"{item}"))
        day = Day(tuple(tasks), kitchen(2), 600)
        for placed in (backwards(day), planned(day).placed):
            worked = [sum(20 for p in placed if p.person == n) for n in (0, 1)]
            self.assertEqual(worked, [60, 60])

    def test_food_that_spoils_waits_in_the_cold_rather_than_out_of_it(self):
        def boiled_chilled_plated():
            # One pair of hands: what is boiled, chilled and plated for the same minute must wait
            # somewhere for the others.
            rows = (30, 0, "ring", None), (2, 60, "cold", None), (40, 0, "", None)
            tasks = []
            for item in range(3):
                for n, task in enumerate(chain(0, 400, *rows)):
                    after = tuple(Link(item * 3 + n - 1, 0, None, n == 1)
                                  for _ in task.after)  # fmt: skip
                    tasks.append(replace(task, item=item, key=f"{item}/{n}", after=after))
            return Day(tuple(tasks), kitchen(1), 600)

        day = boiled_chilled_plated()
        plan = planned(day)
        self.assertEqual(faults(day, plan.placed), [])
        self.assertEqual(plan.tally.warm_min, 0)
        # What then waits in the cold, chilled ten minutes later, is as early in all, but warm.
        late, moved = list(plan.placed), 0
        for n, task in enumerate(day.tasks):
            at = plan.placed[n]
            if task.trays and plan.placed[n + 1].start - at.start - task.minutes >= 10:
                late[n], moved = replace(at, start=at.start + 10), moved + 1
        self.assertGreater(moved, 0)
        was, warm = plan.tally, tally(day, late)
        self.assertEqual((warm.early_min, warm.warm_min), (was.early_min, 10 * moved))
        self.assertGreater(warm.cost, was.cost + 10 * moved)

    def test_no_plan_is_better_than_what_is_said_of_the_best(self):
        rng = random.Random(23)
        shown = 0
        for n in range(30):
            day = a_day(rng, rng.randint(2, 4))
            plan = planned(day)
            if plan is None:
                continue
            with self.subTest(day=n):
                # Another search, with all the time it wants, finds nothing under the bound.
                bound = plan.tally.cost * (1 - plan.gap)
                other = solve(day, 1.0, [*plan.placed])
                self.assertGreaterEqual(other.tally.cost, bound - 1)
                shown += plan.gap < 0.5
        self.assertGreater(shown, 10)

    def test_what_comes_hot_goes_through_the_chiller_where_there_is_room(self):
        tasks = []
        for item in range(3):
            made = chain(0, 500, (10, 0, "ring", 10), (2, 120, "cold", None), (5, 0, "", None))
            for n, task in enumerate(made):
                after = tuple(Link(item * 3 + n - 1, 0, x.most) for x in task.after)
                hot = n == 1
                tasks.append(
                    replace(task, item=item, key=f"{item}/{n}", after=after, comes_hot=hot)
                )

        def chilled(blast):
            day = Day(tuple(tasks), replace(kitchen(2), blast=blast), 600)
            plan = planned(day)
            self.assertEqual(faults(day, plan.placed), [])
            return sum(p.chilled for p in plan.placed), plan.tally.slow

        self.assertEqual(chilled(0), (0, 0))  # no chiller, nothing missed
        self.assertEqual(chilled(3), (3, 0))
        # One tray of it for ninety minutes each: earlier is dearer than the refrigerator for one.
        through, missed = chilled(1)
        self.assertEqual(through + missed, 3)
        self.assertGreaterEqual(through, 2)

    def test_who_is_there_for_half_the_hours_is_given_half_the_work(self):
        tasks = []
        for item in range(9):
            (one,) = chain(0, 590 if item % 3 else 290 - 20 * item // 3, (20, 0, "", None))
            tasks.append(replace(one, item=item, key=f"{item}"))
        there = replace(kitchen(2), people=(Person("a", ((0, 600),)), Person("b", ((0, 300),))))
        day = Day(tuple(tasks), there, 600)
        plan = planned(day)
        self.assertEqual(plan.tally, tally(day, plan.placed))
        # 180 minutes, 900 there: nobody is asked for much more than the fifth of their time.
        self.assertLessEqual(plan.tally.busiest_pct, 21)
        lazy = [replace(p, person=0) for p in plan.placed]
        self.assertEqual(tally(day, lazy).busiest_pct, 30)

    def test_the_checker_sees_what_is_wrong(self):
        day = Day(tuple(chain(0, 100, (10, 0, "ring", 30), (10, 0, "", None))), kitchen(), 100)
        good = [Placed(70, 0, None), Placed(90, 0, None)]
        self.assertEqual(faults(day, good), [])
        for bad in (
            [Placed(30, 0, None), Placed(90, 0, None)],  # waits too long
            [Placed(85, 0, None), Placed(90, 0, None)],  # overlaps itself and one person
            [Placed(75, 0, None), Placed(95, 0, None)],  # late
        ):
            self.assertNotEqual(faults(day, bad), [])

    def test_the_solver_is_never_worse_than_the_careful_chef(self):
        rng = random.Random(11)
        for _ in range(25):
            day = a_day(rng, 4)
            chef = backwards(day)
            plan = planned(day, 0.1)
            if None in chef or plan is None:
                continue
            self.assertLessEqual(plan.tally.cost, tally(day, chef).cost)
            self.assertEqual(faults(day, plan.placed), [])

    def test_the_same_day_gives_the_same_plan(self):
        day = a_day(random.Random(3), 5)
        self.assertEqual(planned(day, 0.1), planned(day, 0.1))

    def test_bakes_that_disagree_wait_for_the_oven_and_those_that_agree_share_it(self):
        def bake(second_c):
            tasks = chain(0, 200, (2, 40, 150.0, None))
            tasks += chain(1, 200, (2, 40, second_c, None))
            plan = solve(Day(tuple(tasks), kitchen(), 200), 0.3)
            return abs(plan.placed[0].start - plan.placed[1].start)

        self.assertLess(bake(155.0), 42)
        self.assertGreaterEqual(bake(190.0), 42 + 5)  # 40 K up at 8 K a minute

    def test_what_clashes_is_minimal(self):
        tasks = [
            *chain(0, 60, (5, 40, 150.0, None)),
            *[Task(**{**vars(t), "key": "1/0", "item": 1}) for t in
              chain(1, 60, (5, 40, 220.0, None))],
            *[Task(**{**vars(t), "key": "2/0", "item": 2}) for t in
              chain(2, 60, (5, 0, "ring", None))],
        ]  # fmt: skip
        day = Day(tuple(tasks), kitchen(), 60)
        self.assertIsNone(planned(day, 0.2))
        found = clash(day)
        self.assertEqual((found.items, found.limits), ((0, 1), ("ovens",)))
        for item in found.items:
            self.assertIsNotNone(planned(without_item(day, item), 0.2))


NOW = datetime(2026, 11, 28, 6, 0)
TART = {
    "stand": {"vessel": round_tin(230, 40), "count": 1, "portions_each": 8, "cut": "wedges"},
    "parts": [
        part("Shell", "crust", *DOUGH),
        part("Cream", "cream", *CREAM, beaten=False),
        part("Topping", "cream", *TOPPING),
    ],
    "layers": [{"part": "Shell"}, {"part": "Cream"},
               {"part": "Topping", "lies": "mm", "value": 15}],
}  # fmt: skip


def ask(*at, people=2, hours=(0, 14), **more):
    cooks = people if isinstance(people, list) else [
        {"name": f"cook {n}", "from": (NOW + timedelta(hours=hours[0])).isoformat(),
         "to": (NOW + timedelta(hours=hours[1])).isoformat()} for n in range(people)
    ]  # fmt: skip
    return compute("day", {
        "now": NOW.isoformat(), "people": cooks, "rings": ["a", "b"],
        "ovens": [{"name": "deck"}], "cold": [{"name": "reach-in", "trays": 10}],
        "services": [
            {"at": (NOW + timedelta(hours=h)).isoformat(),
             "items": [{"build": TART, "portions": n, "name": "Tart"}]} for h, n in at
        ], **more,
    })  # fmt: skip


def long(step):
    return (
        datetime.fromisoformat(step["end"]) - datetime.fromisoformat(step["start"])
    ).total_seconds() / 60


def hands(out):
    return sum(long({"start": s["start"], "end": s["hands_end"]}) for s in out["steps"])


class DayTest(unittest.TestCase):
    def test_a_day_is_planned_back_from_its_services(self):
        out = ask((12, 16), (14, 8))
        self.assertTrue(out["feasible"])
        plates = [s for s in out["steps"] if s["key"].endswith("plate")]
        self.assertEqual(len(plates), 2)
        for plate, hours in zip(plates, (12, 14), strict=True):
            self.assertLessEqual(plate["end"], (NOW + timedelta(hours=hours)).isoformat())
        self.assertTrue(all(s["who"] for s in out["steps"]))
        self.assertEqual({p["set_c"] for p in out["oven_lines"][0]["points"]}, {195.0})
        self.assertGreater(out["eggs"], 20)

    def test_a_step_says_until_when_its_ring_is_held(self):
        for step in ask((12, 16))["steps"]:
            waits = step["oven_c"] is None and "cold" not in step["where"]
            self.assertEqual(step["held_until"], step["end" if waits else "hands_end"], step["key"])

    def test_stock_is_taken_off_first(self):
        out = ask((12, 16), stock=[{"name": "Tart", "portions": 16}])
        self.assertEqual((out["feasible"], out["steps"]), (True, []))
        self.assertIn("16 of 16 are there already", out["warnings"][0])

    def test_a_part_that_two_desserts_share_is_made_once_for_both(self):
        each, both = (ask((12, 16), (13, 16), join=join) for join in (False, True))
        self.assertEqual(each["joined"], [])
        parts = {j["part"]: j for j in both["joined"]}
        self.assertIn("Cream", parts)
        self.assertEqual(parts["Cream"]["desserts"], ["Tart", "Tart · 2"])
        keys = {s["key"]: s for s in both["steps"]}
        cream = [k for k in keys if k.endswith("/Cream/chill")]
        self.assertEqual(cream, ["Cream for 2/Cream/chill"])
        boil = next(s for s in both["steps"] if s["key"].startswith("Cream for 2/"))
        pours = [s for k, s in keys.items() if k.endswith("Cream/lay_on")]
        self.assertEqual(len(pours), 2)
        self.assertTrue(all(s["start"] >= boil["end"] for s in pours))
        # It is as much to buy, and fewer minutes of hands.
        self.assertEqual([b["need_g"] for b in each["buy"]], [b["need_g"] for b in both["buy"]])
        self.assertLess(hands(both), hands(each))

    def test_one_cream_by_two_names_and_at_two_sizes_is_still_one(self):
        def other(name, *lines):
            build = json.loads(json.dumps(TART))
            cream = next(p for p in build["parts"] if p["name"] == "Cream")
            cream.update(name=name, lines=list(lines))
            for layer in build["layers"]:
                if layer["part"] == "Cream":
                    layer["part"] = name
            at = (NOW + timedelta(hours=12)).isoformat()
            items = [{"build": b, "portions": 16, "name": n}
                     for b, n in ((TART, "Tart"), (build, "Other"))]  # fmt: skip
            return ask(services=[{"at": at, "items": items}], pot_g=20_000)

        twice = [re.sub(r"^[0-9]+", lambda m: str(2 * int(m[0])), line) for line in CREAM]
        out = other("Filling", *twice)
        self.assertEqual([j["desserts"] for j in out["joined"] if j["part"] == "Cream"],
                         [["Tart", "Other"]])  # fmt: skip
        weighed = [m for m in out["mise"] if m["part"] in ("Cream", "Filling")]
        self.assertEqual(len(weighed), 1, "it is weighed once")
        thicker = other("Filling", *CREAM, "60 g corn starch")
        self.assertNotIn("Cream", [j["part"] for j in thicker["joined"]])

    def test_who_may_not_stand_at_the_stove_is_not_put_there_and_it_is_said(self):
        end = (NOW + timedelta(hours=14)).isoformat()
        new = {"name": "New", "from": NOW.isoformat(), "to": end, "may": ["bench", "plate"]}
        out = ask((12, 16), people=[new])
        self.assertFalse(out["feasible"])
        self.assertIn("who may do what", {c["words"] for c in out["clash"]})
        freed = {r["code"]: r["feasible"] for r in out["remedies"]}
        self.assertTrue(freed["all_may"])
        both = ask((12, 16), people=[new, {**new, "name": "Chef", "may": ["stove", "oven"]}])
        self.assertTrue(both["feasible"])
        boils = [s["who"] for s in both["steps"] if s["key"].endswith("/Cream/chill")]
        self.assertEqual(set(boils), {"Chef"})
        self.assertEqual({s["who"] for s in both["steps"] if s["key"].endswith("plate")}, {"New"})

    def test_what_is_too_much_for_tins_oven_or_pot_is_made_in_batches(self):
        for more, word in (
            ({"moulds": [{"vessel": "own vessel", "count": 2}]}, "there are 2"),
            ({"ovens": [{"name": "deck", "shelves": 1, "shelf_length_mm": 500,
                         "shelf_width_mm": 300}]}, "the oven takes no more"),
            ({"pot_g": 2500}, "Cream is more than one pot"),
        ):  # fmt: skip
            with self.subTest(word):
                out = ask((13, 32), **more)
                self.assertIn(word, " ".join(out["warnings"]))
                plates = [s for s in out["steps"] if s["key"].endswith("plate")]
                self.assertGreaterEqual(len(plates), 2)
        moulds = ask((13, 32), moulds=[{"vessel": "own vessel", "count": 2}])["moulds"]
        self.assertEqual((moulds[0]["used"], moulds[0]["have"]), (2, 2))

    def test_what_is_bought_and_weighed_comes_in_packs_and_in_the_order_of_need(self):
        out = ask((12, 16), packs={"whole milk": 1030}, house=["200 g butter", "12 eggs"])
        buy = {b["ingredient"]: b for b in out["buy"]}
        milk = buy["milk_whole"]
        self.assertEqual(milk["packs"], math.ceil(milk["need_g"] / 1030))
        butter = next(b for k, b in buy.items() if k.startswith("butter"))
        self.assertAlmostEqual(butter["need_g"] - butter["buy_g"], 200)
        self.assertEqual(buy["egg_whole"]["pieces"], math.ceil(out["eggs"]) - 12)
        times = [m["at"] for m in out["mise"]]
        self.assertEqual(times, sorted(times))
        first = {m["part"]: m["at"] for m in out["mise"]}
        starts = [s["start"] for s in out["steps"] if "/Shell/" in s["key"]]
        self.assertEqual(first["Shell"], min(starts))
        self.assertIn("flour", " ".join(line for m in out["mise"] for line in m["lines"]))

    def test_a_break_is_kept_for_whoever_has_one(self):
        cooks = [{"name": "Early", "from": NOW.isoformat(), "break_min": 30,
                  "to": (NOW + timedelta(hours=10)).isoformat()}]  # fmt: skip
        out = ask((10, 16), people=cooks)
        rest = next(s for s in out["steps"] if s["key"].startswith("break/"))
        self.assertEqual(rest["who"], "Early")
        for step in out["steps"]:
            apart = step["hands_end"] <= rest["start"] or step["start"] >= rest["hands_end"]
            self.assertTrue(step is rest or apart, step["key"])

    def test_a_bake_that_is_over_keeps_its_oven_and_its_dial_in_the_plan_made_again(self):
        first = ask((12, 16))
        bake = next(s for s in first["steps"] if s["oven_c"])
        before = [s for s in first["steps"] if s["start"] < bake["start"]]
        ticks = [{"key": s["key"], "began": s["start"], "ended": s["end"], "who": s["who"],
                  **({"oven": "deck"} if s is bake else {})} for s in [*before, bake]]  # fmt: skip
        again = ask((12, 16), ticks=ticks, at=bake["end"])
        step = next(s for s in again["steps"] if s["key"] == bake["key"])
        self.assertEqual((step["state"], step["oven_c"]), ("done", bake["oven_c"]))
        self.assertIn("deck", step["where"])
        line = next(x for x in again["oven_lines"] if x["oven"] == "deck")
        self.assertEqual(line["points"][0], {"at": bake["start"], "set_c": bake["oven_c"]})

    def test_minutes_seen_here_go_before_the_tables_and_say_how_often(self):
        plain = ask((12, 8))
        key = next(s["key"] for s in plain["steps"] if s["key"].endswith("/Cream/chill"))
        own = ask((12, 8), own_minutes=[{"key": key, "factor": 0.7, "seen": 4}])
        was, now = (next(s for s in out["steps"] if s["key"] == key) for out in (plain, own))
        self.assertEqual((was["own_seen"], now["own_seen"]), (0, 4))
        self.assertAlmostEqual(long(now) / long(was), 0.7, delta=0.02)

    def test_what_is_done_long_before_it_keeps_is_planned_on_and_said(self):
        # Infused at the very beginning, and nobody is there for five hours.
        first = ask((14, 8), hours=(5, 14))
        infused = next(s for s in first["steps"] if s["key"].endswith("/Cream/heat_dairy_infuse"))
        tick = {"key": infused["key"], "began": NOW.isoformat(), "ended": NOW.isoformat()}
        again = ask((14, 8), hours=(5, 14), ticks=[tick], at=NOW.isoformat())
        self.assertEqual((again["feasible"], again["late_min"]), (True, 0))
        (said,) = [w for w in again["warnings"] if "earlier than it keeps" in w]
        self.assertIn("heat the dairy and infuse", said)

    def test_what_is_hot_is_in_the_chiller_first(self):
        cold = [{"name": "walk-in", "trays": 12}, {"name": "blast", "trays": 4, "blast": True}]
        for given, chilled in ((cold, True), (cold[:1], False)):
            chill = next(s for s in ask((12, 8), cold=given)["steps"]
                         if s["key"].endswith("/Cream/chill"))  # fmt: skip
            self.assertEqual("blast chiller" in chill["where"], chilled)
            if chilled:
                until, free = (datetime.fromisoformat(chill[k])
                               for k in ("chilled_until", "hands_end"))  # fmt: skip
                self.assertEqual(until - free, timedelta(minutes=90))

    def test_a_day_that_is_too_short_says_why_and_what_frees_it(self):
        out = ask((3, 8))
        self.assertFalse(out["feasible"])
        self.assertEqual([c["name"] for c in out["clash"] if c["kind"] == "dessert"], ["Tart"])
        self.assertIn("Tart", out["clash"][0]["words"])
        works = {r["code"]: r["feasible"] for r in out["remedies"]}
        self.assertTrue(works["day_before"])
        self.assertFalse(works["second_oven"])

    def test_bad_input_gets_a_sentence_at_its_field(self):
        for change, field in (
            ({"now": (NOW + timedelta(days=2)).isoformat()}, "services[0].at"),
            ({"ovens": []}, "ovens"),
            ({"now": NOW.isoformat() + "+00:00"}, "services[0].at"),
        ):
            with self.subTest(field), self.assertRaises(CraftError) as caught:
                ask((12, 8), **change)
            self.assertEqual(caught.exception.field, field)
