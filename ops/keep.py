"""Backup and restore of the kitchen's data, as plain SQL."""

import gzip
import os
import pwd
import subprocess
from pathlib import Path

from ops.base import HOME, RUN, Stop, alive, say
from ops.mariadb import MariaDB
from ops.serve import secrets_file


def _store() -> tuple[MariaDB, bool]:
    store = MariaDB(HOME)
    return store, store.start(secrets_file()["db"])


def backup(name: str) -> int:
    """Write everything to a gzipped SQL file; works while the application runs."""
    path = Path(name).resolve()
    if path.exists():
        raise Stop(f"{path.name} is already there. Choose another name.", 2)
    store, started = _store()
    try:
        me = pwd.getpwuid(os.geteuid()).pw_name
        done = subprocess.run(
            [
                "mariadb-dump",
                "--no-defaults",
                f"--socket={store.socket}",
                f"--user={me}",
                "--single-transaction",
                "--hex-blob",
                "bellcrumb",
            ],
            capture_output=True,
            check=False,
        )
        if done.returncode:
            raise Stop(f"The store could not be read: {done.stderr.decode()[-300:]}")
        path.write_bytes(gzip.compress(done.stdout))
    finally:
        if started:
            store.stop()
    say(f"Kept in {path.name}, {path.stat().st_size // 1024} kB.")
    return 0


def restore(name: str) -> int:
    """Put a backup in the place of what is there. The application must be stopped."""
    path = Path(name)
    if not path.exists():
        raise Stop(f"There is no file {name}.", 2)
    if alive(RUN / "start.pid"):
        raise Stop("Stop Bell Crumb first: ./crumb stop")
    try:
        text = gzip.decompress(path.read_bytes()).decode()
    except (OSError, EOFError, UnicodeDecodeError):
        raise Stop(f"{path.name} is no backup made by ./crumb backup.", 2) from None
    store, started = _store()
    try:
        store.sql(
            "DROP DATABASE bellcrumb; CREATE DATABASE bellcrumb CHARACTER SET utf8mb4 "
            "COLLATE utf8mb4_uca1400_as_ci;"
        )
        store.sql(text, "bellcrumb")
    finally:
        if started:
            store.stop()
    say("Restored.")
    return 0
