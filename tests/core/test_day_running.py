import random
import unittest
from dataclasses import replace

from bellcrumb.day.running import Fact, from_now, later
from bellcrumb.day.solve import planned
from bellcrumb.day.tasks import (
    Day,
    Placed,
)
from tests.core.days import a_day, chain, faults, kitchen


class RunningTest(unittest.TestCase):
    def begun(self, day, placed, now, late):
        """What had begun by a moment of a plan, each step as much longer as ``late`` says."""
        facts = {}
        for task, at in zip(day.tasks, placed, strict=True):
            if at.start > now:
                continue
            end = at.start + task.minutes + late
            ended = end if end <= now else None
            facts[task.key] = Fact(at.start, ended, at.person, oven=at.oven)
        return facts

    def test_what_has_begun_stays_and_the_rest_keeps_every_rule(self):
        rng = random.Random(11)
        seen = moved = 0
        for n in range(80):
            day = a_day(rng, rng.randint(2, 5))
            plan = planned(day, 0.02)
            if plan is None:
                continue
            now = rng.randint(30, 400)
            rest = from_now(day, now, self.begun(day, plan.placed, now, 0), {})
            again = planned(rest, 0.02)
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
            plan = planned(day, 0.02)
            if plan is None:
                continue
            ends = [p.start + t.minutes for t, p in zip(day.tasks, plan.placed, strict=True)]
            now = rng.choice([rng.randint(60, 400), max(60, rng.choice(ends))])
            late = rng.choice([0, 5, 15])
            # What went on a while ago goes on still, and nothing has begun since.
            facts = self.begun(day, plan.placed, now - late, 0)
            before = {t.key: p for t, p in zip(day.tasks, plan.placed, strict=True)}
            rest = from_now(day, now, facts, {}, before)
            again = planned(rest, 0.02)
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
            plan = planned(day, 0.02)
            if plan is None:
                continue
            n = rng.randrange(len(day.tasks))
            wish = max(0, plan.placed[n].start - 10)
            pinned = from_now(day, 0, {}, {day.tasks[n].key: wish})
            again = planned(pinned, 0.02)
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
        in_one = {f"{n}/0": Fact(10 * n, None, None, oven=1) for n in range(3)}
        rest = from_now(day, 40, in_one, {})
        self.assertEqual([o.shelves for o in rest.kitchen.ovens], [2, 3])
        ended = {"0/0": Fact(0, 105, 0, oven=0)}
        for now, most in ((130, 30), (136, None)):
            link = from_now(day, now, ended, {}).tasks[1].after[0]
            self.assertEqual(link.most, most, now)

    def test_running_late_slips_the_service_by_no_more_than_it_must(self):
        day = Day(tuple(chain(0, 300, (20, 100, 180.0, 30), (10, 0, "", None))), kitchen(1), 600)
        late = from_now(day, 250, {"0/0": Fact(240, None, 0, oven=0)}, {})
        self.assertIsNone(planned(late))
        self.assertIsNotNone(planned(later(late, 90)))
        self.assertIsNone(planned(later(late, 60)))
