"""A trip as lines of JSON: what it started with, then an event a line; and their schema."""

from __future__ import annotations

import json
from collections.abc import Iterator
from functools import cache
from typing import Any, Final

from coldwake_core.record.events import EVENT_TYPES
from coldwake_core.record.trip import Trip as CoreTrip
from common.json_schema import schema_of

from .models import Trip

FORMAT: Final = 1


def lines_of(trip: Trip) -> Iterator[str]:
    """Yield the lines, each a JSON object with its end."""
    yield json.dumps({"format": FORMAT, "trip": trip.document()}) + "\n"
    for event in trip.events.order_by("at_s", "pk").iterator(chunk_size=2000):
        yield json.dumps({"event": event.document()}) + "\n"


@cache
def line_schema() -> dict[str, Any]:
    """Return the JSON Schema of one line."""
    defs: dict[str, Any] = {}
    trip = schema_of(CoreTrip, defs)
    events = [
        {
            "type": "object", "additionalProperties": False,
            "required": ["id", "at_s", "type", "payload"],
            "properties": {
                "id": {"type": "string", "format": "uuid"}, "at_s": {"type": "number"},
                "type": {"const": name}, "payload": schema_of(payload, defs),
            },
        }
        for name, payload in EVENT_TYPES.items()
    ]
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Cold Wake, a trip as lines of JSON: one line",
        "description": (
            "The first line is the trip as it began, each other line one event. SI units; times in "
            "seconds since 1970-01-01 UTC by the trip's own clock."
        ),
        "oneOf": [
            {
                "type": "object", "additionalProperties": False, "required": ["format", "trip"],
                "properties": {"format": {"const": FORMAT}, "trip": trip},
            },
            {
                "type": "object", "additionalProperties": False, "required": ["event"],
                "properties": {"event": {"oneOf": events}},
            },
        ],
        "$defs": defs,
    }
