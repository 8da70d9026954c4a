"""A curve folded reading by reading says what the whole curve read at once would."""

import itertools
import unittest

from hypothesis import given
from hypothesis import strategies as st

from bellcrumb.curve.watch import Watch, rate_k_per_min, smoothed

TEMPS = st.one_of(st.floats(90, 101), st.sampled_from([60.0, 99.0, 20.0]))
READINGS = st.lists(st.tuples(st.integers(0, 40), TEMPS), min_size=1, max_size=80)


def held_all_at_once(curve, above):
    """The hold as it was first written, over the whole curve: the last stretch, the longest."""
    total, longest, inside, out_since = 0.0, 0.0, False, None
    for (t0, c0), (t1, c1) in itertools.pairwise(curve):
        if c1 >= above and c0 >= above - 1.0:
            total += min(t1 - t0, 20.0) if inside or c0 >= above else 0.0
            longest = max(longest, total)
            inside, out_since = True, None
        elif inside:
            out_since = t0 if out_since is None else out_since
            if t1 - out_since > 10:
                inside, total = False, 0.0
    return total, longest


class WatchTest(unittest.TestCase):
    def test_a_slope_is_that_of_the_last_seconds_and_none_of_too_few(self):
        climb = [(float(t), 20 + 0.1 * t) for t in range(0, 200, 2)]
        self.assertAlmostEqual(rate_k_per_min(climb), 6)
        turned = [*climb, *[(float(t), 40.0) for t in range(200, 240, 2)]]
        self.assertAlmostEqual(rate_k_per_min(turned), 0)
        self.assertIsNone(rate_k_per_min([(100.0 + n, 50.0 + n) for n in (0, 1, 2, 3.9)]))
        self.assertIsNotNone(rate_k_per_min([(100.0 + n, 50.0 + n) for n in (0, 1, 2, 4)]))

    @given(READINGS, st.integers(0, 80))
    def test_looking_in_between_changes_nothing(self, steps, look):
        times = itertools.accumulate(s for s, _ in steps)
        curve = [(float(t), c) for t, (_, c) in zip(times, steps, strict=True)]
        watch = Watch(98.0, 100.0)
        for n, reading in enumerate(curve):
            watch.add(reading)
            if n == look:
                _ = (
                    watch.held_s,
                    watch.longest_hold_s,
                    watch.peak_c,
                    watch.hottest_c,
                    watch.recent,
                )
        clean = smoothed(curve)
        self.assertEqual(watch.last, clean[-1])
        last, longest = held_all_at_once(clean, 98.0)
        self.assertAlmostEqual(watch.held_s, last)
        self.assertAlmostEqual(watch.longest_hold_s, longest)
        self.assertEqual(watch.peak_c, max(c for _, c in clean))
        self.assertEqual(watch.hottest_c, sorted(c for _, c in clean)[-min(5, len(clean))])
        recent = [r for r in clean if r[0] >= clean[-1][0] - 250]
        self.assertEqual([r for r in watch.recent if r[0] >= clean[-1][0] - 250], recent)
        self.assertEqual(rate_k_per_min(watch.recent), rate_k_per_min(clean))
        gaps = [b - a for (a, _), (b, _) in itertools.pairwise(curve) if b - a > 20]
        self.assertEqual((watch.gaps, watch.longest_gap_s), (len(gaps), max(gaps, default=0)))
        pairs = list(zip(curve, clean, strict=True))[1:-1]
        self.assertEqual(watch.jumps, sum(abs(raw[1] - c[1]) > 4 for raw, c in pairs))

    def test_a_reading_out_of_order_is_refused(self):
        watch = Watch.of([(1.0, 50.0), (2.0, 51.0)])
        with self.assertRaises(ValueError):
            watch.add((1.5, 50.5))
