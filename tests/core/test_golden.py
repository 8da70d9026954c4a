"""What every law says is what its golden table says; ``./crumb golden`` makes the tables again."""

import unittest

from tests.core.golden import TABLES, kept, made

# Sums in another order differ in the last figures; a law that has changed differs in the first.
RELATIVE, ABSOLUTE = 2e-4, 2e-4


def same(before: str, now: str) -> bool:
    if before == now:
        return True
    try:
        a, b = float(before), float(now)
    except ValueError:
        return False
    return abs(a - b) <= max(ABSOLUTE, RELATIVE * abs(a))


class GoldenTest(unittest.TestCase):
    def test_every_law_says_what_it_said(self):
        for name in TABLES:
            rows, now = kept(name), made(name)
            with self.subTest(name):
                self.assertEqual(len(now), len(rows))
            for before, after in zip(rows, now, strict=False):
                changed = {
                    key: (value, after.get(key, ""))
                    for key, value in before.items()
                    if not same(value, after.get(key, ""))
                }
                with self.subTest(name, row=list(before.values())[:4]):
                    self.assertEqual(changed, {})

    def test_the_comparison_itself_can_fail(self):
        self.assertTrue(same("1.00001", "1.00002"))
        for before, now in (("1.001", "1.002"), ("", "0.1"), ("pipe", "slice"), ("True", "False")):
            self.assertFalse(same(before, now))
