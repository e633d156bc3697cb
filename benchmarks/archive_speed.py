"""A season of 200 trips and 200 000 events into one file, and back: seconds against the pace."""

from __future__ import annotations

import hashlib
import time
import uuid
from pathlib import Path
from typing import Any

from fresh import FOLDER  # isort: skip

from django.contrib.auth import get_user_model
from django.core.management import call_command
from pace import pace

from archive.pack import pack
from archive.unpack import unpack
from trips.models import Event, Trip

TRIPS, EVENTS = 200, 1000


def season(owner: Any) -> None:
    first = Trip.objects.filter(owner=owner).latest("started_at")
    boat, water = first.boat, first.water
    for i in range(TRIPS - Trip.objects.filter(owner=owner).count()):
        trip = Trip.objects.get(pk=first.pk)
        trip.pk, trip.name, trip.boat, trip.water = uuid.uuid4(), f"Trip {i}", boat, water
        trip._state.adding = True
        trip.save()
        start = trip.started_at.timestamp()
        Event.objects.bulk_create([
            Event(
                id=uuid.uuid4(), trip=trip, seq=n + 1, at_s=start + 30.0 * n, type="sounded",
                payload={"bottom_m": 10.0 + n % 7},
            )
            for n in range(EVENTS)
        ])


def digest(owner: Any) -> str:
    found = hashlib.sha256()
    for trip in Trip.objects.filter(owner=owner).order_by("pk").iterator(chunk_size=20):
        found.update(repr(trip.document()).encode())
        for event in trip.events.order_by("seq").iterator():
            found.update(repr(event.document()).encode())
    return found.hexdigest()


def main() -> None:
    call_command("migrate", verbosity=0)
    call_command("load_demo", verbosity=0)
    owner = get_user_model().objects.get(username="demo")
    season(owner)
    before, path = digest(owner), Path(FOLDER) / "season.zip"
    at, begun = pace(), time.perf_counter()
    pack(owner, path)
    out_s = time.perf_counter() - begun
    at = 0.5 * (at + pace())
    print(f"out: {out_s:.1f} s at pace {at:.2f}, {out_s / (30.0 * at):.2f} of 30 s; "
          f"{path.stat().st_size / 1e6:.0f} MB, {Event.objects.count()} events")
    owner.delete()
    other = get_user_model().objects.create_user("other")
    begun = time.perf_counter()
    unpack(other, path)
    print(f"back: {time.perf_counter() - begun:.1f} s; the same: {digest(other) == before}")


if __name__ == "__main__":
    main()
