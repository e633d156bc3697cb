"""Reading trips: from rows to the core and back."""

from __future__ import annotations

import csv
import io
import json
import time
from datetime import UTC, datetime
from typing import Any

from coldwake_core.decode import decode, encode
from coldwake_core.fish.session import FishSession
from coldwake_core.gear.tackle import OUTFIT_LISTS
from coldwake_core.record.events import decode_event
from coldwake_core.record.trip import Trip as CoreTrip
from locker.csv_io import guard
from locker.models import Outfit

from .models import Trip


def trip_now_s(trip: Trip) -> float:
    """Return the present moment by the trip's own clock, seconds since 1970-01-01 UTC."""
    return time.time() - trip.clock_shift_s


def event_documents(trip: Trip) -> list[dict[str, Any]]:
    """Return the trip's events as JSON, in order of time."""
    return [event.document() for event in trip.events.all()]


_MOST_KEPT = 16
_kept: dict[tuple[object, float], CoreTrip] = {}


def core_trip(trip: Trip) -> CoreTrip:
    """Return what a trip started with, as the core knows it.

    Kept from one request to the next: apart from its clock it never changes, and checking a
    chart's every cell anew takes longer than all the rest of a tap.
    """
    key = (trip.pk, trip.clock_shift_s)
    if key not in _kept:
        if len(_kept) >= _MOST_KEPT:
            _kept.pop(next(iter(_kept)))
        _kept[key] = decode(CoreTrip, trip.document(), field="trip")
    return _kept[key]


def open_session(trip: Trip) -> FishSession:
    """Return the trip with its events as the core fishes it."""
    return FishSession(
        core_trip(trip),
        [decode_event(document) for document in event_documents(trip)],
    )


def aboard_news(trip: Trip) -> dict[str, list[Any]]:
    """Return what is aboard this boat by the locker and new, or other, to the trip.

    What a trip has is never taken off it: a lure that is no longer aboard stays in what happened.
    """
    outfit = Outfit.objects.filter(owner_id=trip.owner_id, name=trip.outfit["boat_name"]).first()
    if outfit is None:
        return {name: [] for name in OUTFIT_LISTS}
    now, here = outfit.core(), open_session(trip).state.outfit
    return {
        name: [
            encode(item) for item in getattr(now, name) if item not in getattr(here, name)
        ]
        for name in OUTFIT_LISTS
    }


CSV_COLUMNS = ("id", "time_utc", "at_s", "type", "rod_id", "payload_json")


def events_csv(trip: Trip) -> str:
    """Return the trip's events as CSV (RFC 4180); the payload stands in one column as JSON."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(CSV_COLUMNS)
    for document in event_documents(trip):
        payload = document["payload"]
        writer.writerow([
            document["id"], datetime.fromtimestamp(document["at_s"], UTC).isoformat(),
            document["at_s"], document["type"], guard(str(payload.get("rod_id") or "")),
            json.dumps(payload, sort_keys=True),
        ])
    return out.getvalue()

