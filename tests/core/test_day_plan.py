import random
import unittest
from dataclasses import replace

from bellcrumb.day.aim import tally
from bellcrumb.day.clash import clash
from bellcrumb.day.greedy import backwards
from bellcrumb.day.polish import polished
from bellcrumb.day.solve import _stays, planned, search, solve
from bellcrumb.day.tasks import (
    Day,
    Link,
    Person,
    Placed,
    Task,
    tasks_of,
    windows,
    without_item,
)
from bellcrumb.dessert.steps import BuildStep
from tests.core.days import OVEN, a_day, a_full_day, chain, faults, kitchen


class AttentionTest(unittest.TestCase):
    def step(self, holds, attention):
        return BuildStep("c", "", "cook", words="cook", hands_min=2, wait_min=12, wait_low_min=10,
        wait_high_min=15, uses=(), attention=attention, oven_c=None, source="", after=(), own=False,
                         holds=holds)  # fmt: skip

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
            plan = solve(day, 0.01)
            if plan is not None:
                planned_days += 1
                self.assertEqual(faults(day, plan.placed), [], f"solver, day {n}")
        self.assertGreater(planned_days, 120)

    def test_in_a_full_day_room_is_made_for_what_the_careful_chef_found_no_place_for(self):
        day = a_full_day(random.Random(9))
        self.assertIn(None, backwards(day))
        plan = planned(day)
        self.assertIsNotNone(plan)
        self.assertEqual(faults(day, plan.placed), [])

    def test_what_another_dessert_makes_is_waited_for_from_its_end(self):
        maker = chain(0, 400, (30, 120, "", None), (30, 0, "", None))
        taker = replace(chain(1, 500, (10, 0, "", None))[0], after=(Link(1, 0, 10),))
        day = Day((*maker, taker), kitchen(), 600)
        chef = backwards(day)
        self.assertEqual(faults(day, chef), [])
        self.assertTrue(chef[1].start + 30 <= chef[2].start <= chef[1].start + 40)

    def test_after_what_has_begun_nothing_is_looked_for_before_its_end(self):
        first, second = chain(0, 500, (30, 60, "", None), (10, 0, "", None))
        second = replace(second, after=(Link(0, 5, None),), by=None)
        day = Day((replace(first, begun=100), second), kitchen(), 600)
        self.assertEqual(windows(day), [(100, 100), (195, 590)])

    def test_what_can_stay_where_it_was_is_not_moved_and_what_cannot_is(self):
        first, second = chain(0, 500, (30, 60, 150.0, 20), (10, 0, "", None))
        was = Placed(100, 0, 0), Placed(200, 0, None)

        def stay(*, one=first, two=second, at=was):
            tasks = (replace(one, was=at[0]), replace(two, was=at[1]))
            return [_stays(task, Day(tasks, kitchen(), 600)) for task in tasks]

        self.assertEqual(stay(), [True, True])
        self.assertEqual(stay(at=(Placed(100, 0, None), was[1])), [False, True])  # without oven
        whenever = replace(second, after=(Link(0, 0, None),))
        self.assertEqual(stay(at=(None, was[1]), two=whenever), [False, False])  # after what?
        self.assertEqual(stay(one=replace(first, begun=105)), [True, True])
        self.assertEqual(stay(one=replace(first, begun=80)), [True, False])  # it waits too long
        self.assertEqual(stay(two=replace(second, not_before=210)), [True, False])

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
                    after = tuple(Link(item * 3 + n - 1, 0, None, warm=n == 1)
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

    def test_what_the_solver_finds_is_taken_where_it_is_better_than_the_polished_plan(self):
        better, rng = 0, random.Random(8)
        for _ in range(25):
            day = a_day(rng, 8)
            chef = backwards(day)
            if None in chef:
                continue
            plan, own = planned(day), polished(day, chef, search)
            self.assertLessEqual(plan.tally.cost, own.tally.cost)
            better += plan.tally.cost < own.tally.cost
        self.assertGreater(better, 1)

    def test_what_one_oven_has_no_shelves_for_goes_into_the_other(self):
        bake, rest = chain(0, 200, (10, 40, 150.0, None), (10, 0, "", None))
        two = replace(kitchen(1, ovens=2), ovens=(replace(OVEN, name="small", shelves=1), OVEN))
        day = Day((replace(bake, shelves=2), rest), two, 200)
        for placed in (backwards(day), solve(day, 0.1).placed):
            self.assertEqual(placed[0].oven, 1)
            self.assertEqual(faults(day, placed), [])

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
