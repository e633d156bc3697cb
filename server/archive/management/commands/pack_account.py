"""Everything of an account into one file."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from ...on_account import OnAccount
from ...pack import pack


class Command(OnAccount):
    """Write an account's archive, while the server runs."""

    help = "Write everything of an account into one file."

    def act(self, owner: Any, file: Path) -> None:
        """Write it."""
        pack(owner, file, self.stdout.write)
