"""An account out of its archive."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from django.core.management.base import CommandError

from ...on_account import OnAccount
from ...unpack import ArchiveError, unpack


class Command(OnAccount):
    """Put an archive into an account that has nothing yet."""

    help = "Put an archive into an account that has nothing yet: all of it or none."

    def act(self, owner: Any, file: Path) -> None:
        """Put it there."""
        try:
            unpack(owner, file, self.stdout.write)
        except ArchiveError as error:
            raise CommandError(str(error)) from None
