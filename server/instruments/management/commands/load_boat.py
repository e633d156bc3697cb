"""Let the demo listen to the stand-in boat."""

from __future__ import annotations

from argparse import ArgumentParser
from typing import Any

from django.contrib.auth import get_user_model
from django.core.management.base import BaseCommand

from coldwake_core.boat.instruments import Source
from coldwake_core.decode import encode

from ...models import Listening


class Command(BaseCommand):
    """Put the stand-in boats among what the demo listens to; the rest stays as it is."""

    help = "Let the demo listen to the stand-in boat on a port."

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take the options."""
        parser.add_argument("--port", type=int, required=True)
        parser.add_argument("--river-port", type=int, help="of the one on the river")

    def handle(self, *args: Any, **options: Any) -> None:
        """Put it there."""
        demo = get_user_model().objects.get(username="demo")
        kept, _ = Listening.objects.get_or_create(owner=demo)
        # The open trip is on the lake: the river's boat waits until somebody switches it on.
        boats = [("stand-in", "Stand-in boat", options["port"], True)]
        if options["river_port"]:
            boats.append(("river", "Stand-in boat, river", options["river_port"], False))
        before = {source["id"]: source for source in kept.sources}
        kept.sources = [
            encode(Source(
                id=key, name=name, kind="tcp", host="127.0.0.1", port=port,
                # What somebody switched on or off stays so.
                is_on=before[key]["is_on"] if key in before else is_on,
            ))
            for key, name, port, is_on in boats
        ] + [one for one in kept.sources if one["id"] not in [key for key, *_ in boats]]
        kept.save()
