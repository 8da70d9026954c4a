"""Whose process is whose, and keeping those of ours alive."""

import os
import signal
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path
from unittest import mock

from ops import supervise
from ops.base import ROOT
from ops.mariadb import MariaDB
from ops.processes import Lock, Process, Register
from ops.supervise import Supervisor, wait_before


def sleeper():
    return subprocess.Popen(["sleep", "600"], start_new_session=True)


def served_from(home):
    """The processes that name a folder in their command."""
    found = []
    for file in Path("/proc").glob("[0-9]*/cmdline"):
        try:
            if home.encode() in file.read_bytes():
                found.append(int(file.parent.name))
        except OSError:
            pass  # it ended meanwhile
    return found


class IdentityTest(unittest.TestCase):
    def setUp(self):
        self.folder = Path(self.enterContext(tempfile.TemporaryDirectory()))

    def child(self):
        child = sleeper()
        self.addCleanup(child.wait)
        self.addCleanup(child.kill)
        return child

    def test_a_pid_given_out_again_is_a_stranger_and_is_left_alone(self):
        stranger = self.child()
        (self.folder / "children").write_text(f"{stranger.pid} 12345\nnonsense\n{stranger.pid}")
        self.assertEqual(Register(self.folder / "children").end_all(), 0)
        self.assertIsNone(stranger.poll())

    def test_what_a_killed_starter_left_is_found_and_ended(self):
        child = self.child()
        register = Register(self.folder / "children")
        register.write([child.pid, 2**22 - 1])
        self.assertEqual([p.pid for p in register.read()], [child.pid])
        self.assertEqual(register.end_all(), 1)
        self.assertEqual(child.wait(), -signal.SIGTERM)
        self.assertEqual(register.read(), [])

    def test_one_that_does_not_listen_is_made_to_stop(self):
        deaf = subprocess.Popen(
            [sys.executable, "-c", "import signal; signal.signal(15, signal.SIG_IGN);"
             "print(flush=True); signal.pause()"], stdout=subprocess.PIPE,
        )  # fmt: skip
        self.addCleanup(deaf.stdout.close)
        deaf.stdout.readline()
        self.assertTrue(Process.of(deaf.pid).end(patience_s=0.05))
        self.assertEqual(deaf.wait(), -signal.SIGKILL)

    def test_a_child_that_died_is_not_taken_for_alive(self):
        child = subprocess.Popen(["true"])
        os.waitid(os.P_PID, child.pid, os.WEXITED | os.WNOWAIT)
        self.assertIsNone(Process.of(child.pid))
        child.wait()

    def test_a_stores_pid_file_that_names_a_stranger_names_nobody(self):
        store = MariaDB(self.folder)
        store.pid_file.parent.mkdir()
        stranger = self.child()
        store.pid_file.write_text(f"{stranger.pid}\n")
        self.assertIsNone(store.process)
        store.stop()
        self.assertIsNone(stranger.poll())

    def test_a_lock_lasts_as_long_as_its_holder_however_it_dies(self):
        path = self.folder / "start.lock"
        holder = subprocess.Popen(
            [sys.executable, "-c", "import sys, signal; from pathlib import Path;"
             "from ops.processes import Lock; mine = Lock(Path(sys.argv[1]));"
             "print(mine.take(), flush=True); signal.pause()", str(path)],
            stdout=subprocess.PIPE, text=True, cwd=Path(__file__).parents[2],
        )  # fmt: skip
        self.addCleanup(holder.stdout.close)
        self.assertEqual(holder.stdout.readline().strip(), "True")
        self.assertEqual(Lock(path).holder().pid, holder.pid)
        self.assertFalse(Lock(path).take())
        holder.kill()
        holder.wait()
        self.assertIsNone(Lock(path).holder())
        mine = Lock(path)
        self.assertTrue(mine.take())
        self.assertFalse(Lock(path).take())
        self.assertEqual(Lock(path).holder().pid, os.getpid())
        mine.give_back()
        self.assertTrue(Lock(path).take())


#: A command that has a store to itself and is not done with it.
_AT_WORK = """
import signal, sys
from ops import checks, cli

def golden():
    with checks.throwaway() as env:
        print(env["CRUMB_HOME"], flush=True)
        signal.pause()

checks.golden = golden
sys.exit(cli.main(["golden"]))
"""


class EndedTest(unittest.TestCase):
    def test_a_command_ended_from_outside_puts_its_own_store_away(self):
        command = subprocess.Popen([sys.executable, "-c", _AT_WORK], cwd=ROOT, text=True,
                                   stdout=subprocess.PIPE)  # fmt: skip
        self.addCleanup(command.kill)
        home = command.stdout.readline().strip()
        self.assertTrue(Path(home, "db").is_dir())
        self.assertTrue(served_from(home))
        command.terminate()
        command.communicate()
        self.assertEqual(command.returncode, 128 + signal.SIGTERM)
        self.assertFalse(Path(home).exists())
        self.assertEqual(served_from(home), [])


class SupervisorTest(unittest.TestCase):
    """On a driven clock: nothing here waits."""

    def setUp(self):
        self.now = 0.0
        self.enterContext(mock.patch.object(supervise, "say"))
        self.names = []
        self.kept = Supervisor(clock=lambda: self.now, changed=self.names.append)
        self.addCleanup(self.kept.stop)
        self.one = self.kept.keep("one", self.spawn)
        self.spawned = 1

    def spawn(self):
        self.spawned = getattr(self, "spawned", 0) + 1
        return sleeper()

    def kill(self):
        process = self.one.process
        process.kill()
        os.waitid(os.P_PID, process.pid, os.WEXITED | os.WNOWAIT)

    def test_one_that_dies_is_started_again_each_time_later(self):
        waits = []
        for _ in range(5):
            self.kill()
            self.kept.look()
            self.assertIsNone(self.one.process)
            waits.append(self.one.again_at_s - self.now)
            self.now = self.one.again_at_s - 0.01
            self.kept.look()
            self.assertIsNone(self.one.process, "too early")
            self.now += 0.02
            self.kept.look()
            self.assertEqual(self.names[-1], [self.one.process.pid])
        self.assertEqual([round(w, 6) for w in waits], [0.2, 0.8, 3.2, 12.8, 30.0])
        self.assertEqual(wait_before(50), 30.0)

    def test_one_that_ran_well_begins_again_at_once(self):
        self.kill()
        self.kept.look()
        self.now += 1
        self.kept.look()
        self.now += 61
        self.kill()
        self.kept.look()
        self.assertEqual(self.one.deaths, 1)

    def test_what_a_dead_process_left_of_its_group_goes_with_it(self):
        process = subprocess.Popen(
            ["sh", "-c", "sleep 600 & echo $!; wait"], stdout=subprocess.PIPE, text=True,
            start_new_session=True,
        )  # fmt: skip
        self.addCleanup(process.stdout.close)
        worker = int(process.stdout.readline())
        two = self.kept.keep("two", lambda: process)
        process.kill()
        os.waitid(os.P_PID, process.pid, os.WEXITED | os.WNOWAIT)
        self.kept.look()
        self.assertIsNone(two.process)
        known = Process.of(worker)
        self.assertTrue(known is None or known.end())
