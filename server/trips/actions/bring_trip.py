"""A trip out of its lines of JSON: all of it or none."""

from __future__ import annotations

import json
import uuid
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any, Final

from django.db import IntegrityError, transaction

from coldwake_core.decode import decode, encode
from coldwake_core.errors import InvalidInputError
from coldwake_core.record.payloads import check_uuid
from coldwake_core.record.trip import Trip as CoreTrip
from common.errors import ConflictError

from ..lines_out import FORMAT
from ..models import Event, Trip
from .append_events import MOST_EVENTS, AppendEvents

MOST_BYTES: Final = 40_000_000
MOST_LINES: Final = 50_000
"""A day of years ago with all its instruments is a few thousand."""


@dataclass(frozen=True, kw_only=True)
class BringTrip:
    """A trip that was written as lines of JSON, here or by another server."""

    owner: Any
    data: bytes

    def execute(self) -> Trip:
        """Keep it; raises CoreError naming the line and field, with nothing kept.

        It has the ids that it had. Where they stand for somebody else's trip here it gets new ones,
        the same each time.
        """
        first, events = self._lines()
        core = self._started(first)
        key = uuid.UUID(check_uuid("line 1: trip.id", core.id))
        before = Trip.objects.filter(pk=key).first()
        if before is not None and before.owner_id == self.owner.pk:
            raise ConflictError({"id": [f"You have this trip already: “{before.name}”."]})
        taken = before is not None or Event.objects.filter(
            pk__in=[event["id"] for event in events[:MOST_EVENTS]]
        ).exists()
        if taken:
            key = uuid.uuid5(key, str(self.owner.pk))
            if Trip.objects.filter(pk=key).exists():
                raise ConflictError({"id": ["You have this trip already."]})
            events = _renamed(events, key)
        try:
            with transaction.atomic():
                trip = self._kept(core, key)
                self._append(trip, events)
        except IntegrityError:
            raise ConflictError({"id": ["It is being brought already: look again."]}) from None
        return trip

    def _lines(self) -> tuple[dict[str, Any], list[dict[str, Any]]]:
        if len(self.data) > MOST_BYTES:
            raise InvalidInputError("trip", f"over {MOST_BYTES} bytes", "at most 40 MB")
        rows = self.data.split(b"\n")
        if len(rows) > MOST_LINES:
            raise InvalidInputError("trip", f"{len(rows)} lines", f"at most {MOST_LINES}")
        found: list[dict[str, Any]] = []
        for number, row in enumerate(rows, 1):
            if not row.strip():
                continue
            try:
                line = json.loads(row)
            except (ValueError, RecursionError):
                line = None
            wanted = {"event"} if found else {"format", "trip"}
            if not isinstance(line, dict) or set(line) != wanted:
                raise InvalidInputError(
                    f"line {number}", row[:60].decode("utf-8", "replace"),
                    "an object with " + " and ".join(sorted(wanted)),
                )
            found.append(line)
        if not found:
            raise InvalidInputError("trip", "nothing", "a trip as it was written out")
        if found[0]["format"] != FORMAT:
            raise InvalidInputError(
                "line 1: format", found[0]["format"], f"{FORMAT}: it was written by another version"
            )
        events = [line["event"] for line in found[1:]]
        for number, event in enumerate(events, 2):
            check_uuid(f"line {number}: id", event.get("id") if isinstance(event, dict) else None)
        return found[0], events

    def _started(self, first: dict[str, Any]) -> CoreTrip:
        return decode(CoreTrip, first["trip"], field="line 1: trip")

    def _kept(self, core: CoreTrip, key: uuid.UUID) -> Trip:
        document = encode(core)
        for name in ("id", "started_at_s"):
            document.pop(name)
        rods = core.outfit.rods
        boat = next((one for one in self.owner.outfits.all() if one.core().rods == rods), None)
        water = self.owner.waters.filter(name=core.water_name).first()
        return Trip.objects.create(
            id=key, owner_id=self.owner.pk, boat=boat, water=water,
            started_at=datetime.fromtimestamp(core.started_at_s, UTC), **document,
        )

    def _append(self, trip: Trip, events: list[dict[str, Any]]) -> None:
        for begin in range(0, len(events), MOST_EVENTS):
            try:
                AppendEvents(trip, events[begin:begin + MOST_EVENTS]).execute()
            except InvalidInputError as error:
                # "events[3].payload.depth_m" stands on the line 3 + 2 further on.
                head, _, rest = error.field.removeprefix("events[").partition("]")
                if head.isdigit():
                    error.field = f"line {begin + int(head) + 2}: {rest.lstrip('.')}"
                raise


def _renamed(events: list[dict[str, Any]], key: uuid.UUID) -> list[dict[str, Any]]:
    """The same events under other ids, and so everything in them that points to one."""
    other = {event["id"]: str(uuid.uuid5(key, event["id"])) for event in events}

    def change(value: Any) -> Any:
        if isinstance(value, dict):
            return {name: change(item) for name, item in value.items()}
        if isinstance(value, list):
            return [change(item) for item in value]
        return other.get(value, value) if isinstance(value, str) else value

    changed: list[dict[str, Any]] = change(events)
    return changed
