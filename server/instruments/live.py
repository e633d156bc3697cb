"""What was heard last, handed from the process that listens to those that answer."""

from __future__ import annotations

import json
import os
import time
from pathlib import Path
from typing import Any, Final

from django.conf import settings

RUNS_S: Final = 5.0
"""A listener writes every second; one that has not for so long does not run."""


def _path(owner_pk: int) -> Path:
    return Path(settings.INSTRUMENTS) / f"{owner_pk}.json"


def log_path(owner_pk: int) -> Path:
    """Return where the log that somebody brought is kept, whether there is one or not."""
    return Path(settings.INSTRUMENTS) / f"{owner_pk}.log"


def write(owner_pk: int, state: dict[str, Any]) -> None:
    """Write a boat's state, whole or not at all, readable by the server's own user alone."""
    path = _path(owner_pk)
    path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
    half = path.with_suffix(".half")
    with open(os.open(half, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600), "w") as out:
        json.dump(state, out)
    half.replace(path)


def read(owner_pk: int) -> dict[str, Any] | None:
    """Return a boat's state; None where nobody listens."""
    try:
        state: dict[str, Any] = json.loads(_path(owner_pk).read_text("utf-8"))
    except (FileNotFoundError, ValueError):
        return None
    return state if time.time() - state["at_s"] <= RUNS_S else None


def drop(sender: Any, instance: Any, **_: Any) -> None:
    """Forget what was heard for somebody, and their log."""
    _path(instance.owner_id).unlink(missing_ok=True)
    log_path(instance.owner_id).unlink(missing_ok=True)
