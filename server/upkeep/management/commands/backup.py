"""Copy the database."""

from __future__ import annotations

from argparse import ArgumentParser
from typing import Any

from django.core.management.base import BaseCommand, CommandError
from django.db import connection
from django.db.migrations.executor import MigrationExecutor

from ...copies import KEEP, CopyError, database, make


class Command(BaseCommand):
    """Copy the database while the server runs."""

    help = "Copy the database into the backups folder beside it, and drop the oldest copies."

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take the options."""
        parser.add_argument("--keep", type=int, default=KEEP, help="how many copies to keep")
        parser.add_argument(
            "--if-upgrading", action="store_true",
            help="only when a migration is about to change it",
        )

    def handle(self, *args: Any, **options: Any) -> None:
        """Copy it."""
        if options["if_upgrading"] and not (database().exists() and self._is_upgrade()):
            return
        try:
            self.stdout.write(f"Copied to {make(keep=options['keep'])}")
        except CopyError as error:
            raise CommandError(str(error)) from None

    @staticmethod
    def _is_upgrade() -> bool:
        executor = MigrationExecutor(connection)
        planned = executor.migration_plan(executor.loader.graph.leaf_nodes())
        # An empty database is set up, not upgraded.
        return bool(planned) and bool(executor.loader.applied_migrations)
