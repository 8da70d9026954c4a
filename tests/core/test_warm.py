import unittest

from bellcrumb.dessert.steps import BuildStep, Gap
from bellcrumb.dessert.warm import said_warm


def step(key, part="Cream", *, uses=(), holds=(), wait=0.0, after=(), spoils=False, code=""):
    gaps = tuple(g if isinstance(g, Gap) else Gap(g) for g in after)
    return BuildStep(
        key, part, code or key, words=key, hands_min=5.0, wait_min=wait, wait_low_min=wait,
        wait_high_min=wait, uses=tuple(uses), attention=False, oven_c=None, source="",
        after=gaps, holds=tuple(holds), spoils=spoils,
    )  # fmt: skip


BOIL = step("boil", uses=("ring",), spoils=True)
CHILL = step("chill", holds=("cold",), wait=120, after=("boil",))
PIPE = step("pipe", uses=("bench",), after=("chill",))


def told(*steps, laid=()):
    return {s.key: s for s in said_warm(steps, laid)}


class WarmTest(unittest.TestCase):
    def gap(self, found, key, n=0):
        gap = found[key].after[n]
        return gap.warm, gap.at_most_min

    def test_what_is_boiled_waits_warm_for_two_hours_at_most_and_comes_hot_into_the_cold(self):
        found = told(BOIL, CHILL, PIPE)
        self.assertEqual(self.gap(found, "chill"), (True, 120))
        self.assertEqual([k for k, s in found.items() if s.comes_hot], ["chill"])
        # Once it is cold it waits as long as it likes.
        self.assertEqual(self.gap(found, "pipe"), (False, None))

    def test_what_does_not_spoil_or_was_never_warm_does_not_wait_warm(self):
        syrup = step("boil", uses=("ring",))
        found = told(syrup, CHILL)
        self.assertEqual(
            (self.gap(found, "chill"), found["chill"].comes_hot), ((False, None), False)
        )
        weighed = step("boil", uses=("scale",), spoils=True)
        self.assertEqual(self.gap(told(weighed, CHILL), "chill"), (False, None))

    def test_what_is_whipped_waits_warm_without_a_term_and_comes_cold(self):
        whip = step("boil", uses=("mixer",), spoils=True)
        found = told(whip, CHILL)
        self.assertEqual(
            (self.gap(found, "chill"), found["chill"].comes_hot), ((True, None), False)
        )
        melted = step("boil", uses=("ring",), spoils=True, code="melt_stir_gelatine")
        self.assertFalse(told(melted, CHILL)["chill"].comes_hot)

    def test_what_stood_on_the_bench_has_that_much_less_and_a_shorter_term_stays(self):
        rested = step("rest", holds=("bench",), wait=50, after=("boil",))
        later = step("chill", holds=("cold",), wait=120, after=("rest",))
        self.assertEqual(self.gap(told(BOIL, rested, later), "chill"), (True, 70))
        soon = step("chill", holds=("cold",), after=(Gap("boil", at_most_min=30),))
        self.assertEqual(self.gap(told(BOIL, soon), "chill"), (True, 30))
        long_rest = step("rest", holds=("bench",), wait=300, after=("boil",))
        self.assertEqual(self.gap(told(BOIL, long_rest, later), "chill"), (True, 10))

    def test_parts_are_apart_until_they_are_laid_together(self):
        dough = step("roll", "Dough", uses=("bench",))
        baked = step("bake", "Dough", uses=("oven",), after=("roll",))
        self.assertFalse(told(BOIL, dough, baked)["bake"].after[0].warm)
        lay = step("lay", "Cream", uses=("bench",), after=("boil", "bake"))
        set_it = step("set", "Dessert", holds=("cold",), wait=240, after=("lay",))
        eat = step("cut", "Dessert", after=("set",))
        found = told(BOIL, dough, baked, lay, set_it, eat, laid={"lay"})
        # The cream is waited for, the shell is not; what is laid is one, and hot.
        self.assertEqual([g.warm for g in found["lay"].after], [True, False])
        self.assertEqual((self.gap(found, "set"), found["set"].comes_hot), ((True, 120), True))
        self.assertEqual(self.gap(found, "cut"), (False, None))

    def test_a_gap_to_a_step_that_was_not_the_last_is_a_term_and_no_wait(self):
        sieve = step("sieve", uses=("bench",), after=("boil",))
        late = step("chill", holds=("cold",), after=("sieve", "boil"))
        found = told(BOIL, sieve, late)
        self.assertEqual([g.warm for g in found["chill"].after], [True, False])
