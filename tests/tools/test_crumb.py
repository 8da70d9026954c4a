"""The one command: what it says when something stands in its way."""

import os
import socket
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path
from unittest import mock

from ops import base, needs, serve
from ops.base import ROOT, Stop
from ops.mariadb import MariaDB


class CrumbTest(unittest.TestCase):
    def crumb(self, *args, given=None, **more):
        env = {**os.environ, **more}
        done = subprocess.run(
            [sys.executable, str(ROOT / "crumb"), *args],
            input=given,
            capture_output=True,
            text=True,
            check=False,
            env=env,
        )
        return done.returncode, done.stdout, done.stderr

    def test_a_busy_port_is_one_clear_sentence(self):
        with socket.socket() as taken, tempfile.TemporaryDirectory() as home:
            taken.bind(("127.0.0.1", 0))
            taken.listen()
            port = taken.getsockname()[1]
            code, out, err = self.crumb("start", "--port", str(port), CRUMB_HOME=home)
        self.assertEqual((code, out), (1, ""))
        self.assertEqual(
            err.strip(),
            f"Port {port} is taken by another program. Choose another: "
            f"./crumb start --port {port + 1}",
        )

    def test_stopping_what_does_not_run_says_so(self):
        with tempfile.TemporaryDirectory() as home:
            code, out, _ = self.crumb("stop", CRUMB_HOME=home)
        self.assertEqual((code, out.strip()), (0, "Bell Crumb was not running."))

    def test_compute_reads_and_writes_json(self):
        code, out, _ = self.crumb("compute", "formula", given='{"lines": ["1 l milk"]}')
        self.assertEqual((code, '"mass_g": 1031' in out), (0, True))
        code, out, _ = self.crumb("compute", "formula", given="not json")
        self.assertEqual((code, '"field": "input"' in out), (2, True))

    def test_without_root_or_sudo_the_line_for_an_administrator_is_said(self):
        with (
            mock.patch.object(needs, "_which", lambda name: name != "mariadbd"),
            mock.patch("os.geteuid", return_value=1000),
            mock.patch("shutil.which", return_value=None),
            self.assertRaises(Stop) as caught,
        ):
            needs.debian()
        self.assertIn(
            "apt-get install -y --no-install-recommends mariadb-server-core", str(caught.exception)
        )
        self.assertEqual(caught.exception.code, 3)

    def test_a_full_disk_is_said_before_anything_starts(self):
        full = mock.Mock(free=1024)
        with (
            tempfile.TemporaryDirectory() as home,
            mock.patch.object(serve, "HOME", Path(home)),
            mock.patch.object(serve, "RUN", Path(home) / "run"),
            mock.patch("shutil.disk_usage", return_value=full),
            self.assertRaises(Stop) as caught,
        ):
            serve.start(empty=True, port=base_port(), lan=False)
        self.assertIn("nearly full", str(caught.exception))

    def test_secrets_are_made_once_and_for_the_owner_alone(self):
        with tempfile.TemporaryDirectory() as home, mock.patch.object(serve, "HOME", Path(home)):
            first, second = serve.secrets_file(), serve.secrets_file()
            mode = (Path(home) / "secrets.json").stat().st_mode & 0o777
        self.assertEqual((first, mode), (second, 0o600))
        self.assertGreater(min(len(s) for s in first.values()), 40)

    def test_a_child_that_died_is_not_taken_for_alive(self):
        child = subprocess.Popen(["true"])
        with tempfile.NamedTemporaryFile("w") as pid_file:
            pid_file.write(str(child.pid))
            pid_file.flush()
            for _ in range(200):
                if base.alive(Path(pid_file.name)) is None:
                    break
            self.assertIsNone(base.alive(Path(pid_file.name)))
            child.wait()

    def test_a_long_home_still_gets_a_socket_the_system_allows(self):
        store = MariaDB(Path("/srv") / ("a" * 120))
        self.assertLess(len(str(store.socket)), 100)


def base_port():
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return probe.getsockname()[1]


class KeepTest(unittest.TestCase):
    def test_a_backup_brings_the_kitchen_back(self):
        """A real store of its own: written, kept, lost, restored."""
        from ops import keep

        home = Path(tempfile.mkdtemp(prefix="crumb-keep-"))
        home.chmod(0o755)
        store = MariaDB(home, throwaway=True)
        store.start("pw")
        self.addCleanup(store.stop)
        store.sql(
            "CREATE TABLE bellcrumb.t (name VARCHAR(40)); "
            "INSERT INTO bellcrumb.t VALUES ('crème brûlée');"
        )
        with (
            mock.patch.object(keep, "_store", return_value=(store, False)),
            mock.patch.object(keep, "RUN", home),
            mock.patch.object(keep, "say"),
        ):
            self.assertEqual(keep.backup(str(home / "kept.gz")), 0)
            with self.assertRaises(Stop):
                keep.backup(str(home / "kept.gz"))
            store.sql("DROP TABLE bellcrumb.t")
            (home / "junk").write_text("junk")
            with self.assertRaises(Stop):
                keep.restore(str(home / "junk"))
            self.assertEqual(keep.restore(str(home / "kept.gz")), 0)
        self.assertIn("crème brûlée", store.sql("SELECT name FROM bellcrumb.t"))
