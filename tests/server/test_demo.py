from datetime import UTC, datetime
from io import StringIO
from unittest.mock import patch

from django.core.management import call_command
from django.db.models import Count
from django.test import TestCase, override_settings

from accounts.models import User
from batches.models import Batch
from demo import kitchen as demo
from demo.management.commands.prepare import Command
from demo.weeks import FILM, LOSS_W_M2K, OVEN_K, RING, SOFTER_S, load_weeks
from formulas.bake_plan import bake_plan_of
from formulas.builds import page_of
from formulas.content import content_of, formula_of
from formulas.models import Dessert, Version
from formulas.stove import plan_of
from kitchen.models import Lesson
from ops import long_book


@override_settings(PASSWORD_HASHERS=["django.contrib.auth.hashers.MD5PasswordHasher"])
class EmptyKitchenTest(TestCase):
    def start(self):
        said = StringIO()
        with patch.object(Command, "_static"):
            call_command("prepare", "--empty", stdout=said)
        return said.getvalue()

    def test_each_start_says_with_which_password_to_sign_in(self):
        chef = "chef@kitchen.example"
        first = self.start()
        self.assertEqual(first.count(chef), 2)
        password = first.partition(f"Sign in as {chef} with ")[2].partition("\n")[0]
        self.assertTrue(User.objects.get().check_password(password))
        self.assertIn(f"Sign in as {chef} with the password that was made up", self.start())
        User.objects.update(must_change=False)
        said = self.start()
        self.assertIn(f"Sign in as {chef} with your own password.", said)
        self.assertNotIn("made up", said)


@override_settings(PASSWORD_HASHERS=["django.contrib.auth.hashers.MD5PasswordHasher"])
class DemoKitchenTest(TestCase):
    def test_every_demo_formula_is_understood_whole_and_can_be_cooked(self):
        kitchen = demo.load("token")
        versions = Version.objects.filter(part__dessert__kitchen=kitchen)
        families = set()
        for version in versions.select_related("part"):
            content = content_of(version)
            found = formula_of(kitchen, content, version.part.kind)
            self.assertEqual(found.warnings, [], version.lines_text)
            self.assertTrue(all(line.ingredient for line in found.lines))
            self.assertIsNone(found.fit_problem)
            self.assertGreater(found.cost.portion, 0)
            if found.family:
                self.assertIsNotNone(found.fit)
                families.add(found.family.key)
                if found.family.on_the_stove:
                    self.assertTrue(plan_of(kitchen, content).steps)
                else:
                    self.assertTrue(bake_plan_of(kitchen, content, version.part.kind).steps)
        wanted = {"pastry_cream", "anglaise", "starch_pudding", "pot_de_creme", "cream_pie"}
        wanted |= {"creme_caramel", "pumpkin_pie", "brulee_yolk", "cheesecake_tall"}
        wanted |= {"layered_pudding", "mousseline"}
        self.assertEqual(families, wanted)

    def test_every_whole_dessert_is_drawn_and_timed(self):
        kitchen = demo.load("token")
        desserts = Dessert.objects.filter(kitchen=kitchen).exclude(build={})
        self.assertGreaterEqual(desserts.count(), 8)
        for dessert in desserts:
            page = page_of(kitchen, dessert)
            with self.subTest(dessert.name):
                self.assertIsNone(page.problem)
                self.assertEqual(page.found.warnings, [])
                self.assertGreater(page.found.shortest_min, 60)
                self.assertTrue(sum(x.to_mm for x in page.found.layers) > 0.5)

    def test_the_demo_book_tells_the_short_hold_from_the_good_one(self):
        from batches.api import batch_out

        demo.load("token")
        found = [batch_out(b).findings[0].key for b in Batch.objects.order_by("started_at")]
        self.assertEqual(found, ["short_hold", "boil_held"])
        # Its rows stand in the book as those of a cook at the stove do.
        for batch in Batch.objects.all():
            self.assertEqual((batch.cook_name, batch.predicted_class), (batch.cook.name, "pipe"))
            self.assertAlmostEqual(batch.peak_cc / 100, 99.5, delta=2)

    def test_the_book_teaches_the_demo_its_ring_and_its_set(self):
        from batches.teaching import batches_seen
        from bellcrumb.contract.explains import learned
        from bellcrumb.shapes.explain import LearnIn

        kitchen = demo.load("token")
        found = learned(LearnIn(batches=batches_seen(kitchen)))
        self.assertEqual([(r.name, r.n) for r in found.rings], [("Gas, back right", 2)])
        self.assertAlmostEqual(found.rings[0].mean, 1.05, delta=0.06)
        (shift,) = found.set_shift
        self.assertEqual((shift.name, shift.n), ("Pastry cream", 2))
        self.assertLess(shift.sd, 0.6)

    def test_a_long_book_to_measure_on_is_filled_whatever_a_batch_holds_by_now(self):
        demo.load("token")
        there = Batch.objects.count()
        long_book.fill(40, 3)
        new = Batch.objects.annotate(n=Count("readings")).filter(n=3)
        self.assertEqual(Batch.objects.count() - there, new.count())
        self.assertEqual(new.count(), 40)
        self.assertTrue(0 < new.filter(verdict__isnull=False).count() < 40)

    def test_six_weeks_of_the_house_are_the_same_each_time_and_teach_what_is_true(self):
        kitchen = demo.load("token")
        now = datetime(2026, 11, 20, 12, tzinfo=UTC)
        made = load_weeks(kitchen, now)
        self.assertGreaterEqual(made, 90)
        new = Batch.objects.filter(kitchen=kitchen, started_at__lt=now)
        self.assertGreaterEqual(len({b.version.part.dessert_id for b in new}), 10)
        learned = {(x.kind, x.name): x for x in Lesson.objects.filter(kitchen=kitchen)}
        self.assertAlmostEqual(learned["oven", "Deck oven"].mean, OVEN_K, delta=4)
        self.assertAlmostEqual(learned["ring", "Gas, back right"].mean, RING, delta=0.06)
        self.assertAlmostEqual(learned["loss", "Gas, back right"].mean, LOSS_W_M2K, delta=12)
        self.assertAlmostEqual(learned["film", "Deck oven"].mean, FILM, delta=0.12)
        shifts = [x.mean for (kind, _), x in learned.items() if kind == "set" and x.n >= 8]
        self.assertTrue(shifts)
        self.assertAlmostEqual(sum(shifts) / len(shifts), SOFTER_S, delta=0.35)
        notes = set(new.values_list("verdict__note", flat=True))
        self.assertIn("Forgotten while plating.", notes)
        # The same book again.
        told = list(new.order_by("started_at").values_list("peak_cc", "verdict__texture"))
        Batch.objects.filter(kitchen=kitchen).delete()
        Lesson.objects.filter(kitchen=kitchen).delete()
        load_weeks(kitchen, now)
        again = Batch.objects.filter(kitchen=kitchen).order_by("started_at")
        self.assertEqual(list(again.values_list("peak_cc", "verdict__texture")), told[-made:])
