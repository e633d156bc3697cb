"""An account out of its archive."""

from __future__ import annotations

from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.contrib.auth import get_user_model
from django.core.management.base import BaseCommand, CommandError

from ...unpack import ArchiveError, unpack


class Command(BaseCommand):
    """Put an archive into an account that has nothing yet."""

    help = "Put an archive into an account that has nothing yet: all of it or none."

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take the options."""
        parser.add_argument("account")
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, **options: Any) -> None:
        """Put it there."""
        owner = get_user_model().objects.filter(username=options["account"]).first()
        if owner is None:
            raise CommandError(f"There is no account {options['account']}: make it first.")
        try:
            unpack(owner, options["file"], self.stdout.write)
        except ArchiveError as error:
            raise CommandError(str(error)) from None
