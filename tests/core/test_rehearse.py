import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from bellcrumb.errors import CraftError
from bellcrumb.rehearse.exercises import EXERCISES, exercise
from bellcrumb.rehearse.replay import replay
from bellcrumb.rehearse.world import Act
from bellcrumb.words import say

LADLES = [Act(5 + 8 * n, "ladle", 40 if n < 4 else 100 if n < 8 else 250) for n in range(10)]


def run(key, acts, until=3600, seed=3):
    return replay(exercise(key), seed, acts, until)


def when(key, acts, temp, seed=3, after=0.0):
    """The second at which the pot of a run reaches a temperature."""
    curve = run(key, acts, 3000, seed).curve
    return next(t for t, c in curve if c >= temp and t >= after)


class GoodCookTest(unittest.TestCase):
    """What a good cook does comes out well, with any seed."""

    def off_at(self, key, acts, temp, last, seed):
        at = when(key, acts, temp, seed)
        return run(key, [*acts, Act(at, last, 1), Act(at + 1, "end")], seed=seed)

    def test_each_exercise_can_be_done_well(self):
        stirred = [Act(0, "heat", 4), Act(0, "stir", 1)]
        for seed in (1, 2, 3):
            with self.subTest(seed):
                scald = self.off_at("scald", stirred, 86, "lift", seed)
                self.assertEqual(scald.result, "good", scald.says)
                ladles = [Act(0, "stir", 1), *LADLES, Act(99, "end")]
                temper = run("temper", ladles, seed=seed)
                self.assertEqual(temper.result, "good", temper.says)
                gentle = [Act(0, "heat", 2), Act(0, "stir", 1)]
                anglaise = self.off_at("anglaise", gentle, 82.3, "lift", seed)
                self.assertEqual(anglaise.result, "good", anglaise.says)
                slow = [Act(0, "heat", 3), Act(0, "stir", 1)]
                boil = when("pastry_cream", slow, 98.4, seed)
                held = [*slow, Act(boil + 65, "lift", 1), Act(boil + 66, "end")]
                pastry = run("pastry_cream", held, seed=seed)
                self.assertEqual(pastry.result, "good", pastry.says)
                syrup = self.off_at("syrup", [Act(0, "heat", 4)], 117, "pour", seed)
                self.assertEqual(syrup.result, "good", syrup.says)

    def test_caramel_pulled_early_and_stopped_in_water_is_amber(self):
        heat = [Act(0, "heat", 4)]
        at = when("caramel", heat, 176)
        out = run("caramel", [*heat, Act(at, "cold_water"), Act(at + 1, "pour")])
        self.assertEqual(out.result, "good", out.says)

    def test_whites_started_in_time_meet_the_syrup(self):
        heat = [Act(0, "heat", 4)]
        poured = when("italian", heat, 118)
        ready = [*heat, Act(poured - 210, "whites"), Act(poured, "pour")]
        self.assertEqual(run("italian", ready).result, "good")
        late = run("italian", [*heat, Act(poured - 20, "whites"), Act(poured, "pour")])
        self.assertIn("soft peaks", late.says[-1])


class SpoiledTest(unittest.TestCase):
    """Each mistake spoils what it spoils in a kitchen, and says when and why."""

    def test_every_mistake_has_its_moment_and_its_reason(self):
        for key, acts, what in (
            ("scald", [Act(0, "heat", 9)], "boiled over"),
            ("temper", [Act(5, "ladle", 1030)], "scrambled"),
            ("anglaise", [Act(0, "heat", 6), Act(0, "stir", 1)], "curdled"),
            ("pastry_cream", [Act(0, "heat", 5)], "Lumps"),
            ("syrup", [Act(0, "heat", 5), Act(600, "stir", 1)], "grained"),
            ("caramel", [Act(0, "heat", 9)], "burnt"),
            ("cream", [Act(0, "heat", 9)], "butter"),
        ):
            with self.subTest(key):
                out = run(key, [*acts, Act(1500, "end")])
                self.assertEqual(out.result, "spoiled")
                slip = next(s for s in out.slips if what in s.what)
                self.assertTrue(0 < slip.at_s <= 1590 and slip.why)

    def test_sugar_that_smokes_ends_the_run_and_cream_gone_over_is_called_butter(self):
        forgotten = run("caramel", [Act(0, "heat", 9)])
        self.assertEqual(forgotten.result, "spoiled")
        self.assertLess(max(c for _, c in forgotten.curve), 260)
        over = run("cream", [Act(0, "heat", 9)], until=200)
        self.assertEqual(over.moment.headline, say("rehearse.whips_butter"))

    def test_stopping_early_is_no_better(self):
        heat = [Act(0, "heat", 4), Act(0, "stir", 1)]
        self.assertIn("never boiled", run("pastry_cream", [*heat, Act(200, "end")]).says[-1])
        early = when("syrup", [Act(0, "heat", 4)], 106)
        out = run("syrup", [Act(0, "heat", 4), Act(early, "pour")])
        self.assertEqual(out.result, "spoiled")
        self.assertIn("weeps", out.says[-1])

    def test_what_was_left_out_is_usable_and_said(self):
        stirred = [Act(0, "heat", 4), Act(0, "stir", 1)]
        warm = when("scald", stirred, 60)
        gentle = [Act(0, "heat", 2), Act(0, "stir", 1)]
        thin = when("anglaise", gentle, 70)
        syrup = when("italian", [Act(0, "heat", 4)], 118)
        for key, acts, words in (
            ("scald", [*stirred, Act(warm, "lift", 1), Act(warm + 1, "end")], "not hot enough"),
            ("temper", [Act(0, "stir", 1), *LADLES[:6], Act(99, "end")], "of the milk is not in"),
            ("anglaise", [*gentle, Act(thin, "lift", 1), Act(thin + 1, "end")], "thin as milk"),
            ("cream", [Act(0, "heat", 3), Act(80, "end")], "Still soft"),
        ):
            with self.subTest(key):
                out = run(key, acts)
                self.assertEqual(out.result, "usable", out.says)
                self.assertIn(words, out.says[-1])
        never = run("italian", [Act(0, "heat", 4), Act(syrup, "pour")])
        self.assertEqual(never.result, "spoiled")
        self.assertIn("never started", never.says[-1])


class ReplayTest(unittest.TestCase):
    @settings(max_examples=12)
    @given(
        st.sampled_from([e.key for e in EXERCISES]),
        st.integers(0, 99),
        st.lists(st.tuples(st.integers(0, 300), st.sampled_from(["heat", "stir", "lift", "ladle"]),
                           st.integers(0, 9)), max_size=6),
    )  # fmt: skip
    def test_the_same_seed_and_acts_give_the_same_pot_and_damage_never_heals(self, key, seed, raw):
        acts = [Act(float(t), kind, float(v)) for t, kind, v in sorted(raw)]
        first, again = (replay(exercise(key), seed, acts, 300) for _ in range(2))
        self.assertEqual(first.curve, again.curve)
        before = replay(exercise(key), seed, acts, 200)
        for what, share in before.world.damage.items():
            self.assertGreaterEqual(first.world.damage[what], share)

    def test_another_seed_is_another_ring(self):
        heat = [Act(0, "heat", 5), Act(0, "stir", 1)]
        self.assertNotEqual(run("scald", heat, 300, 1).curve, run("scald", heat, 300, 2).curve)
        with self.assertRaises(CraftError):
            run("scald", [Act(9, "heat", 5), Act(1, "stir", 1)])
        with self.assertRaises(CraftError):
            exercise("soufflé")


class OvenTest(unittest.TestCase):
    def test_pulled_at_the_wobble_it_sets_and_early_or_late_it_does_not(self):
        for seed in (1, 2):
            pulls = [run("oven", [Act(60 * m, "end")], seed=seed) for m in range(24, 60, 4)]
            found = [r.result for r in pulls]
            self.assertIn("good", found)
            self.assertIn("Runny", pulls[0].says[0])
            self.assertIn("late", pulls[-1].says[0])
            self.assertEqual((found[0], found[-1]), ("spoiled", "spoiled"))

    def test_only_a_look_shows_the_wobble_and_it_costs_heat(self):
        blind, looked = run("oven", [], 1500), run("oven", [Act(1400, "look")], 1500)
        self.assertIsNone(blind.world.glimpse)
        self.assertGreater(looked.world.glimpse.disc_share, 0.5)
        often = run("oven", [Act(300 + 60 * n, "look") for n in range(15)], 1800)
        self.assertLess(often.world.temp_c, run("oven", [], 1800).world.temp_c - 0.5)
