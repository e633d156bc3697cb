"""Make what the own network is served with."""

from __future__ import annotations

from argparse import ArgumentParser
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand

from ...certificates import addresses_here, make_identity


class Command(BaseCommand):
    """Make authority and certificate, and say by which names this machine is reached."""

    help = "Make the own authority once, and a certificate for this machine; print its names."

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take the options."""
        parser.add_argument("--name", action="append", default=[], help="another name of its own")

    def handle(self, *args: Any, **options: Any) -> None:
        """Make them; the names go to the terminal, one line, parted by commas."""
        names, addresses = addresses_here()
        names += options["name"]
        make_identity(settings.TLS, names, addresses)
        self.stdout.write(",".join([*names, *addresses]))
