"""A trip to fold: the demo's outfit, and events made on the spot."""

from __future__ import annotations

import uuid
from functools import partial
from typing import Any

from tackle import demo_outfit, demo_rigged_events

from coldwake_core.decode import decode
from coldwake_core.places.above.asked import manoeuvre, orders, plan, tightest
from coldwake_core.places.fish.page import fish_view
from coldwake_core.places.fish.rods import lines_tried, rod_views, speed_at_depth
from coldwake_core.record.events import decode_event
from coldwake_core.record.trip import Trip
from coldwake_core.trip.open_trip import OpenTrip

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


class Held(OpenTrip):
    """An open trip in a test's hand: asked as the bridge asks."""

    @property
    def state(self) -> Any:
        return self.now.state

    def __getattr__(self, name: str) -> Any:
        if name in ASKED:
            return partial(ASKED[name], self.now)
        return getattr(self.now.lines, name)


ASKED = {
    "view": fish_view, "rod_views": rod_views, "lines_tried": lines_tried,
    "speed_at_depth": speed_at_depth, "plan": plan, "manoeuvre": manoeuvre, "tightest": tightest,
    "orders": orders,
}


def session(*documents: dict[str, Any], **changes: Any) -> Held:
    trip = decode(Trip, trip_document(**changes))
    opened = Held(trip, [decode_event(document) for document in rigged()])
    for document in documents:
        opened.add(document)
    return opened


def at(minute: float) -> float:
    return START_S + 60.0 * minute
