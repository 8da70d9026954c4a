from datetime import timedelta
from unittest.mock import patch
from urllib.parse import quote

from batches.models import Batch, Event
from batches.teaching import _losses_taken, batches_seen, by_the_books, relearn, teach
from formulas.content import content_of
from formulas.models import Version
from formulas.oven import bake_of
from formulas.stove import plan_of
from kitchen.models import Lesson
from tests.server.base import KitchenCase, new_id


class LearnedTest(KitchenCase):
    def heated(self, share):
        """A cook whose boil took as long as a ring of ``share`` of its rating makes it."""
        batch = Batch.objects.get(pk=self.start())
        heat = Batch.objects.get(pk=batch.pk).prediction["plan"]["heat"]["points"]
        used = {x["kind"]: x["value"] for x in batch.prediction["plan"]["learned"]}
        stretch = used.get("ring", 1.0) / share
        Event.objects.create(id=new_id(), batch=batch, kind="step", step="heat", cook_ms=0)
        last = 0
        for n, point in enumerate(heat):
            last = round(1000 * point["t_s"] * stretch)
            batch.readings.create(
                client_id=new_id(), at=batch.started_at, cook_ms=last,
                temp_cc=round(100 * point["temp_c"]) + n % 3,
            )  # fmt: skip
        Event.objects.create(id=new_id(), batch=batch, kind="step", step="cook", cook_ms=last + 1)
        batch.ended_at = batch.started_at + timedelta(milliseconds=last + 2)
        batch.save(update_fields=["ended_at"])
        teach(batch)
        return batch

    def boils_in(self):
        return plan_of(self.kitchens["weir"], content_of(self.version), "cream").heat.reaches_s

    def test_the_books_are_asked_in_the_kitchens_own_cups(self):
        kitchen, content = self.kitchens["weir"], content_of(self.version)
        content.lines_text = "4 cups milk\n9 yolks\n85 g corn starch"
        for measures, milk_g in (("us", 976), ("au", 1031)):
            kitchen.measures = measures
            asked = by_the_books(kitchen, content)
            self.assertAlmostEqual(asked.mix.grams_of("milk"), milk_g, delta=5, msg=measures)

    def test_a_weak_ring_is_learned_used_and_not_learned_twice(self):
        before = self.boils_in()
        for _ in range(6):
            self.heated(0.8)
        lesson = Lesson.objects.get(kind="ring", name="ring")
        self.assertEqual(lesson.n, 6)
        # With the correction already in its predictions the estimate stays where the truth is.
        self.assertAlmostEqual(lesson.mean, 0.83, delta=0.04)
        after = self.boils_in()
        self.assertGreater(after, 1.12 * before)
        plan = plan_of(self.kitchens["weir"], content_of(self.version), "cream")
        told = [(x.kind, x.name, x.n) for x in plan.learned]
        self.assertEqual(told, [("ring", "ring", 6), ("loss", "ring", 6)])
        # What the books would have said is near to what they did say.
        self.assertAlmostEqual(60 * plan.learned[0].books_min, before, delta=0.12 * before)
        self.assertAlmostEqual(60 * plan.learned[0].here_min, after, delta=1)

    def test_what_a_sugar_comes_to_is_reckoned_on_the_ring_as_learned_like_its_guide(self):
        kitchen = self.kitchens["weir"]
        Lesson.objects.create(kitchen=kitchen, kind="ring", name="ring", mean=0.75, sd=0.05, n=5)
        for pct in (45, 60, 100):
            content = content_of(self.version).model_copy(
                update={"lines_text": "300 g sugar\n90 g water", "cook_setting_pct": pct}
            )
            plan = plan_of(kitchen, content, "caramel")
            cook = next(step for step in plan.steps if step.key == "cook")
            self.assertAlmostEqual(cook.low_c, plan.syrup.pull_c, msg=pct)
            self.assertEqual(plan.cook.reaches_s, plan.syrup.time_s, pct)
            self.assertLessEqual(set(plan.warnings), set(plan.syrup.warnings), pct)
            content.lines_text = "6 whites\n400 g sugar\n120 g water"
            plan = plan_of(kitchen, content, "meringue")
            self.assertEqual(
                {plan.cook.reaches_s}, {plan.syrup.time_s, plan.foam.syrup_time_s}, pct
            )

    def test_what_boils_away_is_learned_from_what_came_out_and_used(self):
        def plan():
            return plan_of(self.kitchens["weir"], content_of(self.version), "cream")

        before = plan()
        for n in range(4):
            batch = self.heated(1.0)
            told = Batch.objects.get(pk=batch.pk).prediction["plan"]
            gone = 1.6 * before.boils_off_g
            body = {"texture": "pipe", "faults": [], "note": "",
                    "weighs_g": before.went_in_g - gone}  # fmt: skip
            if not n:
                pot_and_all = {**body, "weighs_g": before.went_in_g + 1100}
                path = f"/batches/{batch.pk}/verdict"
                status, refused = self.k("PUT", path, pot_and_all)
                self.assertEqual((status, refused["field"]), (422, "weighs_g"))
            self.assertEqual(self.k("PUT", f"/batches/{batch.pk}/verdict", body)[0], 200)
            self.assertAlmostEqual(told["pot"]["grams"], before.pot.grams)
        lesson = Lesson.objects.get(kind="pot")
        self.assertEqual((lesson.name, lesson.n), (before.pot_name, 4))
        # The correction is in the later predictions and not learned twice.
        self.assertTrue(1.35 < lesson.mean < 1.65, lesson.mean)
        after = plan()
        self.assertAlmostEqual(after.boils_off_g / before.boils_off_g, lesson.mean, delta=0.05)
        self.assertIn("pot", [used.kind for used in after.learned])
        _, told = self.k("GET", f"/batches/{batch.pk}")
        self.assertAlmostEqual(told["verdict"]["weighs_g"], body["weighs_g"])

    def test_batches_an_older_program_kept_are_worked_out_a_few_at_a_time(self):
        kitchen = self.kitchens["weir"]
        first = self.heated(0.9)
        for _ in range(2):
            self.heated(0.9)
        Batch.objects.exclude(pk=first.pk).update(taught=None)
        with patch("batches.teaching._AT_ONCE", 1):
            self.assertEqual(len(batches_seen(kitchen)), 2)
            self.assertEqual(Batch.objects.filter(taught__isnull=True).count(), 1)
            self.assertEqual(len(batches_seen(kitchen)), 3)
        self.assertEqual(len(batches_seen(kitchen, since=first.started_at)), 3)

    def test_a_simulated_probe_teaches_only_where_no_real_one_has(self):
        kitchen = self.kitchens["weir"]
        batch = self.heated(0.9)
        Batch.objects.filter(pk=batch.pk).update(device=self.device)  # of the demo: simulated
        self.assertEqual(len(batches_seen(kitchen)), 1)
        self.heated(0.9)  # of no probe: typed
        self.assertEqual(len(batches_seen(kitchen)), 1)

    def test_a_loss_of_somebodys_choice_holds_for_every_ring_after_it(self):
        for row, taken in (
            ({"by_hand": None}, {}),
            ({"by_hand": 0.5}, {"ring": 0.5}),
            ({"on": False}, {"ring": 0}),
        ):
            lesson = Lesson(kind="loss", name="ring", mean=1.2, sd=0.2, n=3, **row)
            self.assertEqual(_losses_taken([lesson]), taken)
        self.assertEqual(_losses_taken([Lesson(kind="ring", name="ring", by_hand=0.5)]), {})

    def test_a_batch_that_cannot_be_read_any_more_teaches_nothing_and_can_still_be_judged(self):
        batch = self.heated(0.9)
        Version.objects.filter(pk=self.version.pk).update(family="a family of another program")
        body = {"texture": "pipe", "faults": [], "note": ""}
        self.assertEqual(self.k("PUT", f"/batches/{batch.pk}/verdict", body)[0], 200)
        batch.refresh_from_db()
        self.assertIsNone(batch.taught["judged"])

    def test_a_lesson_is_switched_off_corrected_by_hand_and_begun_again(self):
        before = self.boils_in()
        self.heated(0.8)
        change = {"kind": "ring", "name": "ring"}
        self.assertNotEqual(self.boils_in(), before)
        with_both = self.boils_in()
        self.k("PATCH", "/learned", {**change, "kind": "loss", "on": False})
        # The power is then all there is to the time it took.
        self.assertAlmostEqual(self.boils_in() / with_both, 1, delta=0.02)
        self.k("PATCH", "/learned", {**change, "on": False})
        self.assertEqual(self.boils_in(), before)
        self.k("PATCH", "/learned", {**change, "kind": "loss", "on": True})
        _, rows = self.k("PATCH", "/learned", {**change, "on": True, "by_hand": 0.7})
        self.assertEqual({x["kind"]: x["value"] for x in rows}["ring"], 0.7)
        self.assertGreater(self.boils_in(), 1.25 * before)
        relearn(self.kitchens["weir"])
        self.assertEqual(Lesson.objects.get(kind="ring").by_hand, 0.7)
        self.k("PATCH", "/learned", {**change, "begin_again": True})
        self.assertEqual(self.boils_in(), before)
        # Another ring also loses otherwise.
        self.assertEqual({x["kind"]: x["n"] for x in self.k("GET", "/learned")[1]}["loss"], 0)
        self.assertEqual({x["kind"]: x["n"] for x in self.k("GET", "/learned")[1]}["ring"], 0)
        status, body = self.k("PATCH", "/learned", {**change, "by_hand": 9})
        self.assertEqual((status, "fifth" in body["message"]), (422, True))

    def test_an_oven_learned_moves_its_bakes_and_a_shift_of_the_set_is_said(self):
        kitchen = self.kitchens["weir"]
        content = content_of(self.version).model_copy(
            update={"lines_text": "1 l whole milk\n5 eggs\n180 g sugar",
                    "vessel_key": "ramekin_180", "vessel_count": 6, "beaten": ""}
        )  # fmt: skip
        cold = bake_of(kitchen, content, "filling", frames=False)
        Lesson.objects.create(kitchen=kitchen, kind="oven", name="oven", mean=-9, sd=2, n=14)
        learned = bake_of(kitchen, content, "filling", frames=False)
        self.assertGreater(learned.found.pull_from_min, cold.found.pull_from_min + 1)
        self.assertEqual((learned.offset_k, learned.measured), (-9, True))
        self.assertEqual(learned.learned[0].n, 14)
        books = (cold.found.pull_from_min + cold.found.pull_to_min) / 2
        self.assertAlmostEqual(learned.learned[0].books_min, books, delta=0.05 * books)
        ask = {"content": self.content()}
        plain = self.k("POST", "/answer", ask)[1]["set"]
        Lesson.objects.create(
            kitchen=kitchen, kind="set", name="Pastry cream", mean=-0.4, sd=0.2, n=9
        )
        softer = self.k("POST", "/answer", ask)[1]["set"]
        self.assertAlmostEqual(softer["index"], plain["index"] - 0.4)
        self.assertEqual((plain["shift"], softer["shift"]), (0, -0.4))


class ListingTest(KitchenCase):
    def judged(self, texture, faults=(), note="", days=0):
        batch = Batch.objects.get(pk=self.start())
        at = batch.started_at - timedelta(days=days)
        Batch.objects.filter(pk=batch.pk).update(started_at=at, ended_at=at, peak_cc=9000 + days)
        body = {"texture": texture, "faults": list(faults), "note": note}
        self.assertEqual(self.k("PUT", f"/batches/{batch.pk}/verdict", body)[0], 200)
        return str(batch.pk)

    def found(self, query):
        return [b["id"] for b in self.k("GET", f"/batches?{query}")[1]]

    def test_the_book_is_found_by_words_by_what_came_out_by_fault_and_by_date(self):
        lumpy = self.judged("pipe", ["lumps"], "sieve it", days=1)
        soft = self.judged("spoon", [], "too soft for the ring", days=9)
        open_one = str(self.start())
        self.assertEqual(self.found("search=sieve"), [lumpy])
        self.assertEqual(set(self.found("search=quince")), {lumpy, soft, open_one})
        self.assertEqual(self.found("search=quince ring"), [soft])
        self.assertEqual(self.found("texture=spoon"), [soft])
        self.assertEqual(self.found("fault=lumps"), [lumpy])
        self.assertEqual(self.found("judged=no"), [open_one])
        since = (Batch.objects.get(pk=soft).started_at + timedelta(days=1)).isoformat()
        self.assertEqual(set(self.found(f"since={quote(since)}")), {lumpy, open_one})
        self.assertEqual(self.k("GET", "/batches?texture=rock")[0], 422)

    def test_a_desserts_batches_are_charted_with_their_ordinary_spread(self):
        for n, texture in enumerate(("pipe", "pipe", "spoon", "pipe", "pipe")):
            self.judged(texture, ["lumps"] if texture == "spoon" else [], days=30 - n)
        _, chart = self.k("GET", f"/desserts/{self.dessert.id}/chart")
        self.assertEqual([p["texture"] for p in chart["points"]][2], "spoon")
        self.assertLess(chart["set_limits"]["low"], chart["set_limits"]["mean"])
        self.assertAlmostEqual(chart["peak_limits"]["mean"], 90.28)
        self.assertEqual([(f["fault"], f["count"]) for f in chart["faults"]], [("lumps", 1)])
