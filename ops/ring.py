"""The dated ring of backups in the home: when the next is due and which old ones go.

Standard library only: the server reads it too, to show it under Kitchen.
"""

import os
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

_STAMP = "bell-crumb-%Y-%m-%dT%H-%M-%S.sql.gz"
# A day that was tried and did not work is tried again after this long.
RETRY = timedelta(minutes=30)


@dataclass(frozen=True)
class BackupLimits:
    """How often a backup is made, how many are kept, and how much they may weigh together."""

    every: timedelta = timedelta(hours=24)
    most: int = 14
    most_bytes: int = 2_000_000_000

    @classmethod
    def from_env(cls) -> "BackupLimits":
        """CRUMB_BACKUP_HOURS (0: never), CRUMB_BACKUP_KEEP, CRUMB_BACKUP_MB."""
        return cls(
            timedelta(hours=float(os.environ.get("CRUMB_BACKUP_HOURS", "24"))),
            max(1, int(os.environ.get("CRUMB_BACKUP_KEEP", "14"))),
            int(float(os.environ.get("CRUMB_BACKUP_MB", "2000")) * 1e6),
        )


@dataclass(frozen=True)
class Backup:
    """One backup of the ring."""

    path: Path
    made_at: datetime
    size_bytes: int


def name_at(now: datetime) -> str:
    """The file name of a backup made now."""
    return now.astimezone(UTC).strftime(_STAMP)


def ring(folder: Path) -> list[Backup]:
    """The backups there are, newest first. A file of another name is nobody's and is left alone."""
    found = []
    for path in folder.glob("bell-crumb-*.sql.gz") if folder.is_dir() else ():
        try:
            made = datetime.strptime(path.name, _STAMP).replace(tzinfo=UTC)
            found.append(Backup(path, made, path.stat().st_size))
        except (ValueError, OSError):
            continue
    return sorted(found, key=lambda kept: kept.made_at, reverse=True)


def is_due(
    there: list[Backup], limits: BackupLimits, now: datetime, tried_at: datetime | None = None
) -> bool:
    """Whether a backup has to be made now."""
    if not limits.every or (tried_at and now - tried_at < RETRY):
        return False
    return not there or now - there[0].made_at >= limits.every


def too_many(there: list[Backup], limits: BackupLimits) -> list[Backup]:
    """Those that go, oldest first: past the number, then past the weight. The newest stays."""
    stay = there[: limits.most]
    while len(stay) > 1 and sum(kept.size_bytes for kept in stay) > limits.most_bytes:
        stay = stay[:-1]
    return there[: len(stay) - 1 : -1] if len(stay) < len(there) else []
