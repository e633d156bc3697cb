"""Copies of the database, made while it is in use by SQLite's own backup."""

from __future__ import annotations

import os
import sqlite3
from contextlib import closing
from datetime import UTC, datetime
from pathlib import Path
from typing import Final

from django.conf import settings

KEEP: Final = 14


class CopyError(Exception):
    """A copy that cannot be made or put back; the text says why and what to do."""


def database() -> Path:
    """Return where the data live."""
    return Path(settings.DATABASES["default"]["NAME"])


def folder() -> Path:
    """Return where copies are kept."""
    return settings.VAR / "backups"


def copies() -> list[Path]:
    """Return the copies that are kept, the latest first."""
    return sorted(folder().glob("coldwake-*.sqlite3"), reverse=True)


def make(*, keep: int = KEEP) -> Path:
    """Copy the database and drop the oldest copies beyond ``keep``; return the new one.

    It appears under its name only once it is whole, on the disk and found sound.
    """
    if not database().exists():
        raise CopyError(f"There is no database at {database()}: nothing to copy yet.")
    folder().mkdir(parents=True, exist_ok=True, mode=0o700)
    name = datetime.now(UTC).strftime("coldwake-%Y%m%d-%H%M%S-%f.sqlite3")
    part = folder() / f"{name}.part"
    _copy(database(), part)
    check(part)
    with part.open("rb") as file:
        os.fsync(file.fileno())
    part.chmod(0o600)
    whole = part.rename(folder() / name)
    for old in copies()[max(keep, 1):]:
        old.unlink()
    return whole


def put_back(copy: Path) -> Path:
    """Put a copy in the database's place; return the copy that was made of what stood there."""
    check(copy)
    before = make(keep=10_000) if database().exists() else copy
    _copy(copy, database())
    return before


def check(copy: Path) -> None:
    """Raise CopyError unless a file is a sound database of this program."""
    if not copy.exists():
        raise CopyError(f"There is no copy at {copy}: the copies are in {folder()}.")
    try:
        with closing(sqlite3.connect(f"file:{copy}?mode=ro", uri=True)) as found:
            sound = found.execute("PRAGMA integrity_check").fetchone()[0]
            found.execute("SELECT count(*) FROM trips_event")
    except sqlite3.DatabaseError as error:
        raise CopyError(f"{copy} is no database of Cold Wake ({error}).") from None
    if sound != "ok":
        raise CopyError(f"{copy} is damaged ({sound}).")


def _copy(source: Path, target: Path) -> None:
    with closing(sqlite3.connect(source)) as one, closing(sqlite3.connect(target)) as other:
        one.backup(other)
