"""Keep a log of the instruments that somebody brought, in place of the one before."""

from __future__ import annotations

import os
from dataclasses import dataclass
from typing import Any, Final

from coldwake_core.errors import InvalidInputError

from ..live import log_path
from ..logs import LogTold, look
from ..models import Listening

MOST_BYTES: Final = 40_000_000
"""A day of a talkative network; a whole season is brought day by day."""


@dataclass(frozen=True, kw_only=True)
class KeepLog:
    """Keep it if anything in it is understood."""

    owner: Any
    data: bytes

    def execute(self) -> LogTold:
        """Keep it and say what is in it; raises InvalidInputError with the old one kept."""
        if len(self.data) > MOST_BYTES:
            raise InvalidInputError(
                "log", f"over {len(self.data)} bytes", f"at most {MOST_BYTES // 1_000_000} MB"
            )
        told = look(self.data)
        if not told.good:
            raise InvalidInputError(
                "log", f"{told.lines} lines, none of them understood",
                "a text file of NMEA 0183 sentences, such as a plotter or sounder writes",
            )
        Listening.objects.get_or_create(owner_id=self.owner.pk)
        path = log_path(self.owner.pk)
        path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
        half = path.with_suffix(".log-half")
        with open(os.open(half, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600), "wb") as out:
            out.write(self.data)
        half.replace(path)
        return told
