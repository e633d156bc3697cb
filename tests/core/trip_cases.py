"""A trip to fold: the demo's outfit, and events made on the spot."""

from __future__ import annotations

import uuid
from typing import Any

from tackle import demo_outfit, demo_rigged_events

from coldwake_core.decode import decode
from coldwake_core.fish.session import FishSession
from coldwake_core.record.events import decode_event
from coldwake_core.record.trip import Trip

START_S = 1_776_171_600.0  # 2026-04-14 06:00 at UTC-7


def trip_document(**changes: Any) -> dict[str, Any]:
    return {
        "id": str(uuid.UUID(int=1)),
        "name": "Test",
        "water_name": "Made-up Tarn",
        "species": "trout",
        "started_at_s": START_S,
        "utc_offset_min": -420,
        "bottom_m": 20.0,
        "outfit": demo_outfit(),
        "sun": {
            "first_light_s": START_S,
            "sunrise_s": START_S + 1800,
            "sunset_s": START_S + 46000,
            "dark_s": START_S + 48000,
        },
        **changes,
    }


def event(kind: str, minute: float, /, **payload: Any) -> dict[str, Any]:
    return {
        "id": str(uuid.uuid4()),
        "at_s": START_S + 60.0 * minute,
        "type": kind,
        "payload": payload,
    }


def rigged(minute: float = 0.0) -> list[dict[str, Any]]:
    return [event("rod_rigged", minute, **document["payload"]) for document in demo_rigged_events()]


def session(*documents: dict[str, Any], **changes: Any) -> FishSession:
    trip = decode(Trip, trip_document(**changes))
    opened = FishSession(trip, [decode_event(document) for document in rigged()])
    for document in documents:
        opened.add(document)
    return opened


def at(minute: float) -> float:
    return START_S + 60.0 * minute
