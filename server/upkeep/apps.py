"""Upkeep: copies of the data, and putting them back."""

from pathlib import Path
from typing import Any

from django.apps import AppConfig


class UpkeepConfig(AppConfig):
    name = "upkeep"

    def ready(self) -> None:
        """Let nobody else read a database that an earlier version left readable."""
        from django.db.backends.signals import connection_created

        connection_created.connect(close_to_others, dispatch_uid="close-to-others")


def close_to_others(sender: Any, connection: Any, **_: Any) -> None:
    """Take the rights of all others off the database's files."""
    name = str(connection.settings_dict["NAME"])
    for path in (Path(name), Path(f"{name}-wal"), Path(f"{name}-shm")):
        try:
            if path.is_file() and path.stat().st_mode & 0o077:
                path.chmod(0o600)
        except OSError:
            continue  # not ours to change; it is served all the same
