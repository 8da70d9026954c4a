"""Backups: whole or not at all, for their owner alone, put back without risk to what is there."""

import gzip
import shutil
import tempfile
import unittest
from datetime import UTC, datetime, timedelta
from pathlib import Path
from unittest import mock

from ops import keep
from ops.base import Stop
from ops.mariadb import MariaDB
from ops.ring import Backup, BackupLimits, is_due, name_at, ring, too_many

TABLES = """
CREATE TABLE kitchen_kitchen (id INT PRIMARY KEY, name VARCHAR(80)) ENGINE=InnoDB;
CREATE TABLE accounts_user (id INT PRIMARY KEY);
CREATE TABLE formulas_dessert (id INT PRIMARY KEY, kitchen_id INT,
  CONSTRAINT of_kitchen FOREIGN KEY (kitchen_id) REFERENCES kitchen_kitchen (id)) ENGINE=InnoDB;
CREATE TABLE formulas_version (id INT PRIMARY KEY);
CREATE TABLE batches_batch (id INT PRIMARY KEY);
CREATE TABLE batches_reading (id INT PRIMARY KEY);
CREATE TABLE django_migrations (app VARCHAR(40), name VARCHAR(80));
CREATE TABLE django_session (session_key VARCHAR(40));
CREATE TABLE accounts_securityevent (id INT AUTO_INCREMENT PRIMARY KEY, at DATETIME(6),
  kind VARCHAR(12), who VARCHAR(254), address VARCHAR(45), detail VARCHAR(200));
INSERT INTO kitchen_kitchen VALUES (1, 'crème brûlée');
INSERT INTO formulas_dessert VALUES (7, 1), (8, 1);
INSERT INTO django_migrations VALUES ('kitchen', '0001_initial'), ('auth', '0099_of_django');
INSERT INTO django_session VALUES ('somebody signed in');
"""


class RestoreTest(unittest.TestCase):
    """A real store of its own: written, kept, lost, restored."""

    @classmethod
    def setUpClass(cls):
        cls.home = Path(tempfile.mkdtemp(prefix="crumb-keep-"))
        cls.addClassCleanup(shutil.rmtree, cls.home, ignore_errors=True)
        cls.home.chmod(0o755)
        shared = cls.home / "shared"
        shared.mkdir()
        shared.chmod(0o777)
        cls.strangers = shared / "#sql-temptable-1-1-1.MAI"
        cls.strangers.write_text("a temporary table of another server")
        cls.store = MariaDB(cls.home, throwaway=True)
        with mock.patch.dict("os.environ", TMPDIR=str(shared)):
            cls.store.start("pw")
        cls.addClassCleanup(cls.store.stop)

    def test_a_store_that_is_set_up_leaves_the_temporary_tables_of_others(self):
        self.assertTrue(self.strangers.exists())

    def setUp(self):
        self.said = []
        self.enterContext(mock.patch.object(keep, "_store", return_value=(self.store, False)))
        self.enterContext(mock.patch.object(keep, "RUN", self.home))
        self.enterContext(mock.patch.object(keep, "say", self.said.append))
        self.store.sql("DROP DATABASE bellcrumb; CREATE DATABASE bellcrumb;")
        self.store.sql(TABLES, "bellcrumb")
        self.file = self.home / f"{self.id()}.gz"
        self.addCleanup(self.file.unlink, missing_ok=True)

    def desserts(self, database="bellcrumb"):
        return self.store.sql(
            "SELECT COUNT(*) FROM formulas_dessert;", "--skip-column-names", database
        ).strip()

    def text(self):
        return gzip.decompress(self.file.read_bytes()).decode()

    def write(self, text):
        self.file.write_bytes(gzip.compress(text.encode()))

    def refused(self, word):
        with self.assertRaises(Stop) as caught:
            keep.restore(str(self.file))
        self.assertIn(word, str(caught.exception))
        self.assertEqual(self.desserts(), "2", "what was there is gone")
        left = self.store.sql("SHOW DATABASES;")
        self.assertNotIn(keep.INCOMING, left)

    def test_a_backup_brings_the_kitchen_back_and_says_what_came_in(self):
        keep.backup(str(self.file))
        self.assertEqual(self.file.stat().st_mode & 0o777, 0o600)
        self.assertNotIn("somebody signed in", self.text())
        with self.assertRaises(Stop):
            keep.backup(str(self.file))
        self.store.sql("DELETE FROM formulas_dessert; INSERT INTO formulas_dessert VALUES (9, 1);",
                       "bellcrumb")  # fmt: skip
        self.assertEqual(keep.restore(str(self.file)), 0)
        self.assertEqual((self.desserts(), self.desserts(keep.BEFORE)), ("2", "1"))
        self.assertIn("crème", self.store.sql("SELECT name FROM kitchen_kitchen;", "bellcrumb"))
        self.assertIn("1 kitchen, 0 people, 2 desserts, 0 batches", "\n".join(self.said))
        log = self.store.sql("SELECT kind FROM accounts_securityevent;", "bellcrumb")
        self.assertIn("restored", log)
        # Its tables still hold each other: a dessert of no kitchen is refused.
        with self.assertRaises(Stop):
            self.store.sql("INSERT INTO formulas_dessert VALUES (10, 5);", "bellcrumb")
        self.assertEqual(keep.restore(str(self.file)), 0)  # and again over that

    def test_what_is_no_backup_of_ours_changes_nothing(self):
        self.write("")
        self.refused("is empty")
        self.write("-- MariaDB dump 10.19\nCREATE TABLE t (a INT);\n-- Dump completed\n")
        self.refused("no backup made by")
        self.file.write_bytes(b"junk")
        self.refused("no whole backup")
        self.file.write_bytes(b"")
        self.refused("is empty")

    def test_a_backup_that_is_cut_off_changes_nothing(self):
        keep.backup(str(self.file))
        whole, text = self.file.read_bytes(), self.text()
        self.file.write_bytes(whole[: len(whole) * 2 // 3])
        self.refused("no whole backup")
        self.write(text[: len(text) // 2])
        self.refused("cut off")

    def test_one_of_a_later_program_or_of_half_a_kitchen_changes_nothing(self):
        keep.backup(str(self.file))
        text = self.text()
        self.write(text.replace("0001_initial", "0999_of_tomorrow"))
        self.refused("later Bell Crumb")
        self.write(text.replace("formulas_dessert", "somebodys_table"))
        self.refused("formulas_dessert is not in it")
        self.write(text.replace('"format": 1', '"format": 2'))
        self.refused("later Bell Crumb")

    def test_sql_that_reaches_for_more_than_its_own_place_changes_nothing(self):
        keep.backup(str(self.file))
        text = self.text()
        for evil in ("DROP DATABASE bellcrumb;", "USE bellcrumb; DELETE FROM formulas_dessert;",
                     "DELETE FROM bellcrumb.formulas_dessert;", "THIS IS NO SQL;",
                     "\\! touch /tmp/crumb-was-here"):  # fmt: skip
            self.write(text.replace("CREATE TABLE `accounts_user`",
                                    f"{evil}\nCREATE TABLE `accounts_user`", 1))  # fmt: skip
            self.refused("could not be read in")
        self.assertFalse(Path("/tmp/crumb-was-here").exists())

    def test_of_a_store_nobody_has_filled_none_is_made(self):
        self.store.sql("DROP DATABASE bellcrumb; CREATE DATABASE bellcrumb;")
        with self.assertRaises(Stop) as caught:
            keep.backup(str(self.file))
        self.assertIn("nothing to keep yet", str(caught.exception))
        self.assertFalse(self.file.exists())

    def test_a_dump_that_fails_leaves_no_half_file(self):
        self.store.sql("DROP DATABASE bellcrumb;")
        with self.assertRaises(Stop):
            keep.backup(str(self.file))
        self.assertEqual(list(self.home.glob("*.gz*")) + list(self.home.glob(".*.part")), [])
        self.store.sql("CREATE DATABASE bellcrumb;")

    def test_the_schedule_makes_one_when_it_is_due_and_keeps_its_ring(self):
        schedule = keep.BackupSchedule(
            self.home, self.store, BackupLimits(timedelta(hours=24), most=2)
        )
        begin = datetime(2026, 11, 25, 3, tzinfo=UTC)
        made = []
        for hours in (0, 1, 24, 25, 48, 72):
            if schedule.look(begin + timedelta(hours=hours)):
                made.append(hours)
                schedule.working.join(60)
        self.assertEqual(made, [0, 24, 48, 72])
        left = ring(self.home / keep.FOLDER)
        self.assertEqual([k.made_at - begin for k in left], [timedelta(days=3), timedelta(days=2)])
        self.assertEqual(left[0].path.stat().st_mode & 0o777, 0o600)
        # The newest of the ring is a backup like any other: it brings the kitchen back.
        self.assertEqual(keep.restore(str(left[0].path)), 0)
        self.assertEqual(self.desserts(), "2")


class RingTest(unittest.TestCase):
    now = datetime(2026, 11, 25, 12, tzinfo=UTC)

    def kept(self, *sizes):
        return [
            Backup(Path(f"{n}"), self.now - timedelta(days=n), size) for n, size in enumerate(sizes)
        ]

    def test_it_is_due_by_age_and_a_failure_is_tried_again_after_a_while(self):
        limits = BackupLimits(timedelta(hours=24))
        self.assertTrue(is_due([], limits, self.now))
        self.assertFalse(is_due([], limits, self.now, self.now - timedelta(minutes=29)))
        self.assertTrue(is_due([], limits, self.now, self.now - timedelta(minutes=31)))
        self.assertFalse(is_due(self.kept(1), limits, self.now + timedelta(hours=23)))
        self.assertTrue(is_due(self.kept(1), limits, self.now + timedelta(hours=24)))
        self.assertFalse(is_due([], BackupLimits(timedelta(0)), self.now))

    def test_the_oldest_go_by_number_and_by_weight_and_the_newest_always_stays(self):
        names = lambda left: [k.path.name for k in left]  # noqa: E731
        self.assertEqual(names(too_many(self.kept(1, 1, 1, 1), BackupLimits(most=2))), ["3", "2"])
        self.assertEqual(names(too_many(self.kept(5, 5, 5), BackupLimits(most_bytes=10))), ["2"])
        self.assertEqual(
            names(too_many(self.kept(50, 5, 5), BackupLimits(most_bytes=10))), ["2", "1"]
        )
        self.assertEqual(too_many(self.kept(50), BackupLimits(most_bytes=10)), [])
        self.assertEqual(too_many(self.kept(1, 1), BackupLimits()), [])

    def test_only_files_named_as_ours_are_of_the_ring(self):
        with tempfile.TemporaryDirectory() as folder:
            for name in (name_at(self.now), "bell-crumb-mine.sql.gz", "other.gz"):
                (Path(folder) / name).write_bytes(b"x")
            (only,) = ring(Path(folder))
        self.assertEqual((only.made_at, only.size_bytes), (self.now, 1))
