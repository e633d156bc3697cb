"""Listen to the instruments of every boat, and record what says something new."""

from __future__ import annotations

import asyncio
import os
from argparse import ArgumentParser
from typing import Any

from asgiref.sync import sync_to_async
from django.core.management.base import BaseCommand

from coldwake_core.boat.instruments import Sources
from coldwake_core.decode import decode
from coldwake_core.errors import CoreError
from common.faults import write_down

from ...actions.record_news import RecordNews
from ...hub import Hub
from ...live import log_path, write
from ...models import Listening

EVERY_S = 0.25
AFTER_FAULT_S = 5.0
LOOK_EVERY = 12
"""Every so many turns it is looked whether the sources have been changed."""
TOLD_EVERY = 8
"""Every so many turns it is looked which trip is under way, though nothing was new."""


class Command(BaseCommand):
    """Listen until stopped."""

    help = "Listen to the instruments that were set up, and record what says something new."

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take the options."""
        parser.add_argument("--with-parent", action="store_true", help="end when its starter ends")

    def handle(self, *args: Any, **options: Any) -> None:
        """Listen."""
        asyncio.run(listen(os.getppid() if options["with_parent"] else None))


async def listen(parent: int | None = None) -> None:
    """Listen for every boat; ends when its parent process has ended."""
    boats: dict[int, Boat] = {}
    turn = 0
    while parent is None or os.getppid() == parent:
        if turn % LOOK_EVERY == 0:
            await _look(boats)
        for boat in list(boats.values()):
            try:
                await sync_to_async(boat.tell)(anyway=turn % TOLD_EVERY == 0)
            except Exception as error:
                # Whatever happens to one boat's record, the others are listened to; not so often
                # that the log is full of it.
                write_down(error, "listening")
                await asyncio.sleep(AFTER_FAULT_S)
        turn += 1
        await asyncio.sleep(EVERY_S)


class Boat:
    """One boat's instruments, and what became of what they told."""

    def __init__(self, owner_pk: int, sources: Any) -> None:
        self.owner_pk, self.sources = owner_pk, sources
        self.hub = Hub(decode(Sources, {"sources": sources}), log_path(owner_pk))
        self.told: dict[str, Any] = {"trip": None, "refused": ""}
        self.recorded = 0

    def tell(self, *, anyway: bool) -> None:
        """Record what is new and write what is heard."""
        news = self.hub.take()
        if news or anyway:
            told = RecordNews(owner_pk=self.owner_pk, news=news).execute()
            self.recorded += told.pop("taken")
            self.told = told
        write(self.owner_pk, {**self.hub.state(), **self.told, "recorded": self.recorded})


async def _look(boats: dict[int, Boat]) -> None:
    now = await sync_to_async(_wanted)()
    for owner_pk in [pk for pk, boat in boats.items() if now.get(pk) != boat.sources]:
        await boats.pop(owner_pk).hub.stop()
    for owner_pk, sources in now.items():
        if owner_pk in boats:
            continue
        try:
            boats[owner_pk] = Boat(owner_pk, sources)
        except CoreError as error:
            write_down(error, "listening")
        else:
            boats[owner_pk].hub.start()


def _wanted() -> dict[int, Any]:
    return dict(Listening.objects.exclude(sources=[]).values_list("owner_id", "sources"))
