import unittest

from bellcrumb.day.aim import Tally, crews_of, schedule, there_min
from bellcrumb.day.pools import CHILLER_MIN, chilling, held, ring_free_min
from bellcrumb.day.tasks import Day, KitchenOfDay, Link, OvenOfDay, Person, Placed, Task


def task(key, hands=10, wait=0, **how):
    given = {"rings": 0, "mixers": 0, "trays": 0, "oven_c": None, "shelves": 0, "after": ()}
    return Task(key, 0, key, hands=hands, wait=wait, **(given | how))


def kitchen(*people, ovens=1, blast=0):
    deck = OvenOfDay("deck", 2, 4.0, cools_k_min=2.0)
    return KitchenOfDay(
        people or (Person("A", ((0, 600),)),),
        2,
        (deck,) * ovens,
        mixers=1,
        trays=20,
        moulds=(),
        blast=blast,
    )


def holds(found):
    return {h.pool: (h.after, h.minutes, h.need) for h in found}


class HeldTest(unittest.TestCase):
    def test_a_ring_is_held_through_a_wait_on_it_and_let_go_for_the_cold_and_the_oven(self):
        simmers = task("simmer", 10, 30, rings=1)
        self.assertEqual(holds(held(simmers)), {"rings": (0, 40, 1)})
        chills = task("chill", 10, 30, rings=1, trays=3)
        self.assertEqual(holds(held(chills)), {"rings": (0, 10, 1), "trays": (10, 30, 3)})
        bakes = task("bake", 10, 30, rings=1, oven_c=160.0)
        self.assertEqual((holds(held(bakes)), ring_free_min(bakes)), ({"rings": (0, 10, 1)}, 10))

    def test_the_chiller_has_what_is_hot_first_and_the_refrigerator_after_it(self):
        cools = task("cool", 5, 240, trays=2, comes_hot=True)
        self.assertEqual(holds(held(cools)), {"trays": (5, 240, 2)})
        both = {"blast": (5, CHILLER_MIN, 2), "trays": (95, 150, 2)}
        self.assertEqual(holds(held(cools, chilled=True)), both)
        short = task("cool", 5, 60, trays=2, comes_hot=True)
        self.assertEqual(holds(held(short, chilled=True)), {"blast": (5, 60, 2)})

    def test_what_is_hot_may_go_into_a_chiller_it_fits_and_a_fact_stays_where_it_is(self):
        hot = task("cool", 5, 240, trays=2, comes_hot=True)
        self.assertEqual((chilling(hot, 2), chilling(hot, 1)), ((True, False), (False,)))
        self.assertEqual(chilling(task("cool", 5, 240, trays=2), 9), (False,))
        begun = task("cool", 5, 240, trays=2, comes_hot=True, begun=0, chilled=True)
        self.assertEqual(chilling(begun, 9), (True,))


class TallyTest(unittest.TestCase):
    def told(self, tasks, placed, **how):
        return schedule(Day(tuple(tasks), kitchen(**how), 600), placed).tally

    def test_waits_are_counted_beyond_what_they_must_and_twice_where_food_stands_warm(self):
        boil = task("boil", 10, 0)
        for warm in (False, True):
            fold = task("fold", 10, 0, after=(Link(0, 15, None, warm=warm),))
            found = self.told([boil, fold], [Placed(0, 0, None), Placed(40, 0, None)])
            self.assertEqual((found.early_min, found.warm_min), (15, 15 * warm))
        tight = task("fold", 10, 0, after=(Link(0, 40, None),))
        found = self.told([boil, tight], [Placed(0, 0, None), Placed(40, 0, None)])
        self.assertEqual(found.early_min, 0)

    def test_what_is_plated_early_waits_for_its_service(self):
        for spoils in (False, True):
            plate = task("plate", 10, 0, by=100, spoils=spoils)
            found = self.told([plate], [Placed(60, 0, None)])
            self.assertEqual((found.early_min, found.warm_min), (30, 30 * spoils))

    def test_an_oven_is_turned_when_dials_are_too_far_apart_and_only_that_oven(self):
        bakes = [task(f"b{c}", 5, 20, oven_c=float(c)) for c in (150, 158, 190, 152)]
        row = [Placed(40 * n, 0, 0) for n in range(4)]
        self.assertEqual(self.told(bakes, row).turns, 2)
        apart = [Placed(40 * n, 0, int(n == 2)) for n in range(4)]
        self.assertEqual(self.told(bakes, apart, ovens=2).turns, 0)

    def test_hot_things_that_pass_the_chiller_by_are_slow(self):
        cools = task("cool", 5, 240, trays=2, comes_hot=True)
        for chilled, blast, slow in ((False, 4, 1), (True, 4, 0), (False, 1, 0)):
            found = self.told([cools], [Placed(0, 0, None, chilled=chilled)], blast=blast)
            self.assertEqual(found.slow, slow, (chilled, blast))

    def test_the_busiest_are_those_who_work_the_largest_share_of_their_hours(self):
        two = (Person("A", ((0, 100),)), Person("B", ((0, 100),)))
        late = Person("C", ((0, 50), (60, 110)), frozenset({"bench"}))
        day = Day((task("a", 30), task("b", 30), task("c", 45)), kitchen(*two, late), 600)
        placed = [Placed(0, 0, None), Placed(0, 1, None), Placed(0, 2, None)]
        self.assertEqual(list(crews_of(day).values()), [[0, 1], [2]])
        self.assertEqual(there_min(day, [0, 1]), 200)
        self.assertEqual(schedule(day, placed).tally.busiest_pct, 45)
        # Whoever has a break of their own is by themselves.
        own = Day((task("break", 15, only=0),), kitchen(*two), 600)
        self.assertEqual(list(crews_of(own).values()), [[0], [1]])

    def test_all_of_it_is_weighed_in_minutes(self):
        self.assertEqual(
            Tally(10, 5, 2, turns=3, busiest_pct=70).cost, 10 + 4 * 5 + 90 * 2 + 15 * 3 + 70
        )
        with_gap = schedule(Day((), kitchen(), 600), [], 0.25)
        self.assertEqual((with_gap.gap, with_gap.tally.cost), (0.25, 0))
