"""Backup and restore of the kitchen's data, as plain SQL between a head and an end mark.

A backup is written beside its name and renamed when it is whole. A restore is loaded into a second
database by a user who may touch nothing else, looked over there, and only then put in the place of
what is there, table by table in one statement; what was there before stays until the next restore.
"""

import contextlib
import gzip
import json
import os
import pwd
import re
import secrets
import subprocess
import threading
from collections.abc import Callable, Iterator
from datetime import UTC, datetime
from pathlib import Path
from typing import IO

from ops.base import HOME, ROOT, RUN, Stop, say
from ops.mariadb import COLLATION, MariaDB
from ops.processes import Lock
from ops.ring import BackupLimits, is_due, name_at, ring, too_many

FOLDER = "backups"
LIVE, INCOMING, BEFORE = "bellcrumb", "bellcrumb_incoming", "bellcrumb_before"
HEAD = "-- Bell Crumb backup "
END = "-- Bell Crumb backup ends here"
FORMAT = 1
# What is no kitchen's data: who is signed in, what was worked out, who knocked.
_WITHOUT = ("django_session", "cache", "formulas_brief", "axes_accessattempt",
            "axes_accessattemptexpiration", "axes_accessfailurelog", "axes_accesslog")  # fmt: skip
_COUNTED = (
    ("kitchen_kitchen", "kitchen", "kitchens"),
    ("accounts_user", "person", "people"),
    ("formulas_dessert", "dessert", "desserts"),
    ("batches_batch", "batch", "batches"),
    ("batches_reading", "reading", "readings"),
)
_NEEDED = {table for table, _, _ in _COUNTED} | {"django_migrations", "formulas_version"}
_CHUNK = 1 << 20
# Unpacked, and by far more than a kitchen of twenty years holds.
MOST_BYTES = 50_000_000_000


def _me() -> str:
    return pwd.getpwuid(os.geteuid()).pw_name


def _store() -> tuple[MariaDB, bool]:
    from ops.serve import secrets_file

    store = MariaDB(HOME)
    return store, store.start(secrets_file()["db"])


def write_backup(
    store: MariaDB, path: Path, told: Callable[[int], None] = lambda size: None
) -> int:
    """Write the store to ``path`` for its owner alone; returns its size in bytes.

    ``told`` hears how many bytes of SQL have been read so far. Raises Stop; leaves no half file.
    """
    beside = path.with_name(f".{path.name}.part")
    command = [
        "mariadb-dump", "--no-defaults", f"--socket={store.socket}", f"--user={_me()}",
        "--single-transaction", "--quick", "--hex-blob", "--skip-triggers",
        *(f"--ignore-table-data={LIVE}.{table}" for table in _WITHOUT), LIVE,
    ]  # fmt: skip
    head = {"format": FORMAT, "made_at": datetime.now(UTC).isoformat(timespec="seconds")}
    try:
        raw = os.fdopen(os.open(beside, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600), "wb")
        os.fchmod(raw.fileno(), 0o600)
        with (
            raw,
            subprocess.Popen(
                command, stdout=subprocess.PIPE, stderr=subprocess.PIPE, stdin=subprocess.DEVNULL
            ) as dump,
        ):
            assert dump.stdout and dump.stderr
            size = 0
            with gzip.GzipFile(fileobj=raw, mode="wb", compresslevel=5) as out:
                out.write(f"{HEAD}{json.dumps(head)}\n".encode())
                while chunk := dump.stdout.read(_CHUNK):
                    out.write(chunk)
                    size += len(chunk)
                    told(size)
                out.write(f"\n{END}\n".encode())
            said = dump.stderr.read().decode()
            if dump.wait():
                raise Stop(f"The store could not be read: {said.strip()[-300:]}")
            raw.flush()
            os.fsync(raw.fileno())
        beside.replace(path)
    finally:
        beside.unlink(missing_ok=True)
    return path.stat().st_size


def backup(name: str) -> int:
    """Write everything to a gzipped SQL file; works while the application runs. Ctrl-C stops it."""
    path = Path(name).resolve()
    if path.exists():
        raise Stop(f"{path.name} is already there. Choose another name.", 2)
    if not path.parent.is_dir():
        raise Stop(f"There is no folder {path.parent}.", 2)
    store, started = _store()
    shown = {"at": 0}

    def told(size: int) -> None:
        if size - shown["at"] >= 20 * _CHUNK:
            shown["at"] = size
            say(f"  {size // 1_000_000} MB read ...")

    try:
        if _lacks(store, LIVE):
            raise Stop("There is nothing to keep yet: ./crumb start makes a kitchen first.")
        size = write_backup(store, path, told)
    finally:
        if started:
            store.stop()
    say(f"Kept in {path.name}, {size // 1024} kB, for you alone to read.")
    return 0


class BackupSchedule:
    """Backups of the running application by themselves: a dated ring in the home."""

    def __init__(self, home: Path, store: MariaDB, limits: BackupLimits | None = None) -> None:
        self.folder = home / FOLDER
        self.store = store
        self.limits = limits or BackupLimits.from_env()
        self.tried_at: datetime | None = None
        self.working: threading.Thread | None = None

    def look(self, now: datetime) -> bool:
        """Begin one when it is due; True when one was begun."""
        if self.working and self.working.is_alive():
            return False
        if not is_due(ring(self.folder), self.limits, now, self.tried_at):
            return False
        self.tried_at = now
        self.working = threading.Thread(target=self._make, args=(now,), daemon=True)
        self.working.start()
        return True

    def _make(self, now: datetime) -> None:
        try:
            self.folder.mkdir(mode=0o700, exist_ok=True)
            write_backup(self.store, self.folder / name_at(now))
            for old in too_many(ring(self.folder), self.limits):
                old.path.unlink(missing_ok=True)
        except (Stop, OSError) as error:
            say(f"The backup of today did not work: {error}")


def _known_migrations() -> set[tuple[str, str]]:
    """Every migration of ours that this program brings."""
    return {
        (path.parents[1].name, path.stem) for path in (ROOT / "server").glob("*/migrations/0*.py")
    }


def _lines(path: Path) -> Iterator[bytes]:
    """A backup's lines, read a piece at a time. Raises Stop for what is no gzip file."""
    size = 0
    try:
        with gzip.open(path, "rb") as packed:
            for line in packed:
                size += len(line)
                if size > MOST_BYTES:
                    raise Stop("This unpacks to more than any kitchen holds.", 2)
                yield line
    except (OSError, EOFError, ValueError):
        raise Stop(f"{path.name} is no whole backup made by ./crumb backup.", 2) from None


def look_over(path: Path) -> dict[str, object]:
    """The head of a backup whose end is there too. Raises Stop for anything else."""
    no_backup = f"{path.name} is no backup made by ./crumb backup."
    head: dict[str, object] | None = None
    last = b""
    for number, line in enumerate(_lines(path)):
        if number == 0:
            if not line.startswith(HEAD.encode()):
                raise Stop(no_backup, 2)
            try:
                head = dict(json.loads(line[len(HEAD) :]))
            except (ValueError, TypeError):
                raise Stop(no_backup, 2) from None
        if line.strip():
            last = line
    if head is None:
        raise Stop(f"{path.name} is empty.", 2)
    if head.get("format") != FORMAT:
        raise Stop("This backup was made by a later Bell Crumb than this one.", 2)
    if last.strip() != END.encode():
        raise Stop(f"{path.name} is cut off: its end is missing.", 2)
    return head


def _load(store: MariaDB, path: Path) -> None:
    """Load into the second database, as a user who may touch nothing else."""
    password = secrets.token_urlsafe(24)
    store.sql(
        f"DROP DATABASE IF EXISTS {INCOMING}; "
        f"CREATE DATABASE {INCOMING} CHARACTER SET utf8mb4 COLLATE {COLLATION}; "
        f"CREATE OR REPLACE USER {INCOMING}@localhost IDENTIFIED BY '{password}'; "
        f"GRANT ALL ON {INCOMING}.* TO {INCOMING}@localhost;"
    )
    command = [
        "mariadb", "--no-defaults", "--sandbox", "--batch", f"--socket={store.socket}",
        f"--user={INCOMING}", INCOMING,
    ]  # fmt: skip
    with subprocess.Popen(
        command,
        stdin=subprocess.PIPE,
        stdout=subprocess.DEVNULL,
        stderr=subprocess.PIPE,
        env={**os.environ, "MYSQL_PWD": password},
    ) as client:
        assert client.stdin and client.stderr
        with contextlib.suppress(BrokenPipeError):  # what it did not like is said below
            _pour(path, client.stdin)
        said = client.stderr.read().decode(errors="replace")
        if client.wait():
            raise Stop(f"The backup could not be read in: {said.strip()[-300:]}", 2)


def _pour(path: Path, into: IO[bytes]) -> None:
    with into:
        for line in _lines(path):
            into.write(line)


def _tables(store: MariaDB, database: str) -> list[str]:
    return store.sql("SHOW TABLES;", "--skip-column-names", database).split()


def _lacks(store: MariaDB, database: str) -> list[str]:
    """The tables of a kitchen that are not in a database."""
    return sorted(_NEEDED - set(_tables(store, database)))


def _came_in(store: MariaDB) -> str:
    """What the second database holds, in words. Raises Stop when it is no whole kitchen."""
    if missing := _lacks(store, INCOMING):
        raise Stop(f"This is no backup of a kitchen: {missing[0]} is not in it.", 2)
    rows = store.sql(
        "SELECT app, name FROM django_migrations;", "--skip-column-names", INCOMING
    ).splitlines()
    applied = {tuple(row.split("\t")) for row in rows}
    ours = {app for app, _ in _known_migrations()}
    later = sorted(f"{a}.{n}" for a, n in applied - _known_migrations() if a in ours)
    if later:
        raise Stop(f"This backup was made by a later Bell Crumb than this one ({later[0]}).", 2)
    counts = []
    for table, one, many in _COUNTED:
        n = int(store.sql(f"SELECT COUNT(*) FROM {table};", "--skip-column-names", INCOMING))
        counts.append(f"{n:,} {one if n == 1 else many}".replace(",", " "))
    return ", ".join(counts)


def _swap(store: MariaDB) -> None:
    """Put the second database's tables in the place of the first's, in one statement."""
    out = [f"{LIVE}.`{t}` TO {BEFORE}.`{t}`" for t in _tables(store, LIVE)]
    into = [f"{INCOMING}.`{t}` TO {LIVE}.`{t}`" for t in _tables(store, INCOMING)]
    store.sql(
        f"DROP DATABASE IF EXISTS {BEFORE}; "
        f"CREATE DATABASE {BEFORE} CHARACTER SET utf8mb4 COLLATE {COLLATION};"
    )
    store.sql(f"RENAME TABLE {', '.join(out + into)};")


def restore(name: str) -> int:
    """Put a backup in the place of what is there. The application must be stopped."""
    path = Path(name)
    if not path.is_file():
        raise Stop(f"There is no file {name}.", 2)
    if Lock(RUN / "start.lock").holder():
        raise Stop("Stop Bell Crumb first: ./crumb stop")
    head = look_over(path)
    store, started = _store()
    try:
        try:
            _load(store, path)
            came = _came_in(store)
            _swap(store)
        finally:
            store.sql(
                f"DROP DATABASE IF EXISTS {INCOMING}; DROP USER IF EXISTS {INCOMING}@localhost;"
            )
        _note(store, path, head)
    finally:
        if started:
            store.stop()
    made = re.sub(r"T(\d\d:\d\d).*", r" \1 UTC", str(head.get("made_at")))
    say(f"Restored what was kept on {made}: {came}.")
    say(f"What was there before is in the database {BEFORE} until the next restore.")
    return 0


def _note(store: MariaDB, path: Path, head: dict[str, object]) -> None:
    """A line in the security log of what has just come in; an older backup has none yet."""
    if "accounts_securityevent" not in store.sql("SHOW TABLES;", "--skip-column-names", LIVE):
        return
    detail = re.sub(r"[^\w .:+-]", "_", f"{path.name} of {head.get('made_at')}")[:200]
    store.sql(
        "INSERT INTO accounts_securityevent (at, kind, who, address, detail) "
        f"VALUES (UTC_TIMESTAMP(6), 'restored', '', '', '{detail}');",
        LIVE,
    )
