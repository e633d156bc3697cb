"""Everything of an account into one file."""

from __future__ import annotations

from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.contrib.auth import get_user_model
from django.core.management.base import BaseCommand, CommandError

from ...pack import pack


class Command(BaseCommand):
    """Write an account's archive, while the server runs."""

    help = "Write everything of an account into one file."

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take the options."""
        parser.add_argument("account")
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, **options: Any) -> None:
        """Write it."""
        owner = get_user_model().objects.filter(username=options["account"]).first()
        if owner is None:
            raise CommandError(f"There is no account {options['account']}.")
        pack(owner, options["file"], self.stdout.write)
