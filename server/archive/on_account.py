"""A command on an account and a file."""

from __future__ import annotations

from abc import abstractmethod
from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.contrib.auth import get_user_model
from django.core.management.base import BaseCommand, CommandError


class OnAccount(BaseCommand):
    """What packing and unpacking share: whose account, and which file."""

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take the options."""
        parser.add_argument("account")
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, **options: Any) -> None:
        """Find the account, then act."""
        owner = get_user_model().objects.filter(username=options["account"]).first()
        if owner is None:
            raise CommandError(f"There is no account {options['account']}: make it first.")
        self.act(owner, options["file"])

    @abstractmethod
    def act(self, owner: Any, file: Path) -> None:
        """Do what the command is for."""
