"""Put a copy of the database back."""

from __future__ import annotations

from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError

from ...copies import CopyError, copies, put_back


class Command(BaseCommand):
    """Put a copy back, and bring it up to date. Stop the server first."""

    help = "Put a copy of the database back; what stood there is copied first."

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take the options."""
        parser.add_argument("copy", nargs="?", help="the file; the latest copy when left out")

    def handle(self, *args: Any, **options: Any) -> None:
        """Put it back."""
        found = copies()
        if options["copy"] is None and not found:
            raise CommandError("There is no copy: make one with manage.py backup.")
        chosen = Path(options["copy"]) if options["copy"] else found[0]
        try:
            before = put_back(chosen)
        except CopyError as error:
            raise CommandError(str(error)) from None
        call_command("migrate", verbosity=0)
        self.stdout.write(f"Put back {chosen}. What stood there is kept as {before}.")
