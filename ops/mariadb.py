"""A MariaDB of our own: own data directory, loopback only, started and stopped by us."""

import hashlib
import os
import pwd
import shutil
import socket
import subprocess
import tempfile
import time
from dataclasses import dataclass
from pathlib import Path

from ops.base import PATIENCE_S, Stop, say
from ops.processes import Process, command_line

_FAST = [
    "--innodb-flush-log-at-trx-commit=0",
    "--innodb-flush-method=nosync",
    "--innodb-doublewrite=0",
    "--performance-schema=OFF",
]
COLLATION = "utf8mb4_uca1400_as_ci"


def free_port() -> int:
    """A loopback port nobody listens on."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


@dataclass
class MariaDB:
    """One server instance below ``home``. ``throwaway`` trades durability for speed."""

    home: Path
    throwaway: bool = False

    @property
    def socket(self) -> Path:
        """The socket; moved to a short path when the home's is too long for the system."""
        path = self.home / "run" / "db.sock"
        if len(str(path)) < 100:
            return path
        short = hashlib.sha256(str(self.home).encode()).hexdigest()[:12]
        return Path(tempfile.gettempdir()) / f"crumb-{short}.sock"

    @property
    def pid_file(self) -> Path:
        """Where the server writes its pid."""
        return self.home / "db" / "pid"

    @property
    def process(self) -> Process | None:
        """The server that runs on this home now: its pid file and its own command line agree."""
        try:
            pid = int(self.pid_file.read_text().split()[0])
        except (OSError, ValueError, IndexError):
            return None
        ours = f"--pid-file={self.pid_file}" in command_line(pid)
        return Process.of(pid) if ours else None

    def _as_mysql(self) -> list[str]:
        if os.geteuid() != 0:
            return []
        try:
            pwd.getpwnam("mysql")
        except KeyError:
            subprocess.run(
                [
                    "useradd",
                    "--system",
                    "--no-create-home",
                    "--shell",
                    "/usr/sbin/nologin",
                    "mysql",
                ],
                check=True,
            )
        return ["--user=mysql"]

    def _prepare(self) -> list[str]:
        as_user = self._as_mysql()
        for name in ("db", "run"):
            (self.home / name).mkdir(parents=True, exist_ok=True)
        (self.home / "db" / "tmp").mkdir(exist_ok=True)
        if as_user:
            for path in (self.home / "db", self.home / "db" / "tmp", self.home / "run"):
                shutil.chown(path, "mysql")
            reach = subprocess.run(
                ["runuser", "-u", "mysql", "--", "test", "-x", str(self.home / "db")], check=False
            )
            if reach.returncode:
                raise Stop(
                    f"The store's own user cannot reach {self.home}: a folder above it is closed "
                    "to others. Set CRUMB_HOME to a folder it can reach, for example "
                    "CRUMB_HOME=/var/lib/bell-crumb."
                )
        if not (self.home / "db" / "data" / "mysql").is_dir():
            shutil.rmtree(self.home / "db" / "data", ignore_errors=True)
            me = pwd.getpwuid(os.geteuid()).pw_name
            done = subprocess.run(
                [
                    "mariadb-install-db",
                    "--no-defaults",
                    *as_user,
                    f"--datadir={self.home / 'db' / 'data'}",
                    # A server that starts clears its folder of temporary tables: never a shared
                    # one, where those of another server stand.
                    f"--tmpdir={self.home / 'db' / 'tmp'}",
                    "--auth-root-authentication-method=socket",
                    f"--auth-root-socket-user={me}",
                    "--skip-test-db",
                ],
                capture_output=True,
                text=True,
                check=False,
            )
            if done.returncode:
                if "No space" in done.stderr + done.stdout:
                    raise Stop("The disk is full. Free some space and run this again.")
                raise Stop(f"The store could not be set up: {done.stderr.strip()[-300:]}")
        return as_user

    def start(self, password: str) -> bool:
        """Start and wait until it answers; make the application's user. False: it was running."""
        if self.process and self._answers():
            return False
        as_user = self._prepare()
        self.socket.unlink(missing_ok=True)
        if self.process is None:  # what a dead one left may not be ours to write over
            self.pid_file.unlink(missing_ok=True)
        db = self.home / "db"
        command = [
            shutil.which("mariadbd", path=os.environ["PATH"] + ":/usr/sbin") or "mariadbd",
            "--no-defaults",
            *as_user,
            f"--datadir={db / 'data'}",
            f"--socket={self.socket}",
            f"--port={free_port()}",
            "--bind-address=127.0.0.1",
            f"--pid-file={self.pid_file}",
            f"--log-error={db / 'log'}",
            f"--tmpdir={db / 'tmp'}",
            "--skip-name-resolve",
            "--skip-log-bin",
            "--character-set-server=utf8mb4",
            f"--collation-server={COLLATION}",
            "--transaction-isolation=READ-COMMITTED",
            "--innodb-buffer-pool-size=64M",
            *(_FAST if self.throwaway else []),
        ]
        server = subprocess.Popen(
            command,
            stdin=subprocess.DEVNULL,
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
            start_new_session=True,
        )
        until = time.monotonic() + PATIENCE_S
        while time.monotonic() < until:
            if self._answers():
                break
            if server.poll() is not None:
                log = (db / "log").read_text(errors="replace") if (db / "log").exists() else ""
                if "No space left" in log[-4000:] or "Disk is full" in log[-4000:]:
                    raise Stop("The disk is full. Free some space and run this again.")
                raise Stop(f"The store does not start; its log is {db / 'log'}.")
            time.sleep(0.1)
        else:
            raise Stop(f"The store does not answer; its log is {db / 'log'}.")
        self._grant(password)
        return True

    def _answers(self) -> bool:
        if not self.socket.exists():
            return False
        with socket.socket(socket.AF_UNIX) as probe:
            try:
                probe.connect(str(self.socket))
            except OSError:
                return False
        return True

    def sql(self, text: str, *flags: str) -> str:
        """Run SQL as the store's root (the socket says who we are)."""
        me = pwd.getpwuid(os.geteuid()).pw_name
        for _ in range(50):
            done = subprocess.run(
                ["mariadb", "--no-defaults", f"--socket={self.socket}", f"--user={me}", *flags],
                input=text,
                capture_output=True,
                text=True,
                check=False,
            )
            if done.returncode == 0:
                return done.stdout
            if "Can't connect" not in done.stderr:
                break
            time.sleep(0.1)
        raise Stop(f"The store refused: {done.stderr.strip()[-300:]}")

    def _grant(self, password: str) -> None:
        scope = "*.*" if self.throwaway else "bellcrumb.*"
        self.sql(
            f"CREATE DATABASE IF NOT EXISTS bellcrumb CHARACTER SET utf8mb4 COLLATE {COLLATION};"
            f"CREATE USER IF NOT EXISTS bellcrumb@localhost IDENTIFIED BY '{password}';"
            f"ALTER USER bellcrumb@localhost IDENTIFIED BY '{password}';"
            f"GRANT ALL ON {scope} TO bellcrumb@localhost;"
        )

    def stop(self) -> None:
        """Stop cleanly and wait for it."""
        running = self.process
        if running and not running.end(patience_s=60.0):
            say("The store takes long to stop; leaving it to finish.")
