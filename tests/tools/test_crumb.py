"""The one command: what it says when something stands in its way."""

import os
import socket
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path
from unittest import mock

from ops import needs, serve
from ops.base import PYTHON, ROOT, Stop, django_env
from ops.mariadb import MariaDB, free_port
from ops.processes import Lock


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
            serve.start(empty=True, port=free_port(), lan=False)
        self.assertIn("nearly full", str(caught.exception))

    def test_a_second_start_is_told_of_the_first_one(self):
        with tempfile.TemporaryDirectory() as home:
            lock = Lock(Path(home) / "run" / "start.lock")
            self.assertTrue(lock.take())
            code, _, err = self.crumb("start", CRUMB_HOME=home)
            lock.give_back()
        self.assertEqual((code, "already running" in err), (1, True))

    def test_only_start_and_test_install_anything(self):
        with (
            mock.patch.object(needs, "is_done", return_value=False),
            self.assertRaises(Stop) as said,
        ):
            needs.must_be_there()
        self.assertEqual((said.exception.code, "./crumb test" in str(said.exception)), (3, True))

    def test_a_store_that_was_not_brought_up_to_date_is_not_served(self):
        waiting, ready = os.pipe()
        os.close(ready)  # who should have said so has gone
        with tempfile.TemporaryDirectory() as home:
            log = Path(home) / "web.log"
            address = f"127.0.0.1:{free_port()}"
            server = serve.gunicorn(django_env(), address, log, workers=1, prepared=waiting)
            os.close(waiting)
            self.assertNotEqual(server.wait(), 0)
            said = log.read_text()
        self.assertIn("not brought up to date", said)
        self.assertNotIn("Listening", said)

    def test_scripts_collected_while_it_loads_are_served(self):
        """As at a first start: they are put in their place while the application waits."""
        code = (
            "import os, pathlib\n"
            "place = pathlib.Path(os.environ['CRUMB_STATIC'])\n"
            "def waits(fd, n):\n"
            "    place.mkdir()\n"
            "    (place / 'late.js').write_text('here')\n"
            "    return b'1'\n"
            "os.read = waits\n"
            "os.environ['CRUMB_PREPARED_FD'] = '0'\n"
            "from config.wsgi import application\n"
            "from wsgiref.util import setup_testing_defaults as filled\n"
            "asked = {'PATH_INFO': '/static/late.js'}\n"
            "filled(asked)\n"
            "print(b''.join(application(asked, lambda *said: print(said[0]))).decode())\n"
        )
        with tempfile.TemporaryDirectory() as home:
            env = django_env(CRUMB_STATIC=str(Path(home) / "static"), CRUMB_HOSTS="127.0.0.1")
            done = subprocess.run(
                [str(PYTHON), "-c", code], env=env, capture_output=True, text=True, check=False
            )
        self.assertEqual(done.stdout.split("\n")[:2], ["200 OK", "here"], done.stderr[-500:])

    def test_secrets_are_made_once_and_for_the_owner_alone(self):
        with tempfile.TemporaryDirectory() as home, mock.patch.object(serve, "HOME", Path(home)):
            first, second = serve.secrets_file(), serve.secrets_file()
            mode = (Path(home) / "secrets.json").stat().st_mode & 0o777
        self.assertEqual((first, mode), (second, 0o600))
        self.assertGreater(min(len(s) for s in first.values()), 40)

    def test_a_long_home_still_gets_a_socket_the_system_allows(self):
        store = MariaDB(Path("/srv") / ("a" * 120))
        self.assertLess(len(str(store.socket)), 100)
