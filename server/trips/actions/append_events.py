"""Append events to a trip: all of a batch or none, each exactly once."""

from __future__ import annotations

import uuid
from dataclasses import dataclass
from typing import Any

from django.db import transaction

from coldwake_core.checks import require_number
from coldwake_core.errors import CoreError, InvalidInputError
from coldwake_core.record.events import Event as CoreEvent
from coldwake_core.record.events import encode_event
from coldwake_core.record.payloads import check_uuid
from config.errors import ConflictError
from locker.actions.keep_own_ranges import keep_own_ranges

from ..models import Event, Trip
from ..queries import open_session, trip_now_s

MOST_EVENTS = 500
CLOCK_SLACK_S = 120.0
"""How far a phone's clock may be ahead of the server's."""


@dataclass(frozen=True)
class Appended:
    """Which events are new, and which were here already."""

    added: list[str]
    known: list[str]


class AppendEvents:
    """Append a batch of events to a trip."""

    def __init__(self, trip: Trip, documents: object) -> None:
        self.trip = trip
        self.documents = documents

    def check(self) -> list[Any]:
        """Return the batch when it is a list of a sensible length."""
        if not isinstance(self.documents, list) or not 1 <= len(self.documents) <= MOST_EVENTS:
            raise InvalidInputError("events", self.documents, f"a list of 1 to {MOST_EVENTS}")
        return self.documents

    def execute(self) -> Appended:
        """Append them; raises CoreError naming the event and field, with nothing kept."""
        documents = self.check()
        added: list[str] = []
        known: list[str] = []
        with transaction.atomic():
            session = open_session(self.trip)
            fresh: list[CoreEvent] = []
            for index, document in enumerate(documents):
                try:
                    event_id = self._id(document)
                    if event_id in session.events:
                        known.append(event_id)
                        continue
                    self._check_time(document)
                    fresh.append(session.add(document))
                    added.append(event_id)
                except CoreError as error:
                    error.field = f"events[{index}].{error.field}"
                    raise
            self._refuse_others(fresh)
            Event.objects.bulk_create(
                Event(
                    id=event.id, trip=self.trip, at_s=event.at_s, type=event.type,
                    payload=encode_event(event)["payload"],
                )
                for event in fresh
            )
            if any(event.type in ("auditioned", "beat_counted", "undone") for event in fresh):
                keep_own_ranges(self.trip.owner_id, session.state.outfit, {
                    event.at_s for event in session.events.values() if event.type == "auditioned"
                })
            if session.state.ended != self.trip.is_ended:
                self.trip.is_ended = session.state.ended
                self.trip.save(update_fields=["is_ended"])
        return Appended(added=added, known=known)

    @staticmethod
    def _id(document: Any) -> str:
        if not isinstance(document, dict):
            raise InvalidInputError("", document, "an object with id, at_s, type and payload")
        return check_uuid("id", document.get("id"))

    def _check_time(self, document: dict[str, Any]) -> None:
        at_s = require_number("at_s", document.get("at_s"))
        now_s = trip_now_s(self.trip)
        if at_s > now_s + CLOCK_SLACK_S:
            raise InvalidInputError(
                "at_s", at_s, "a time that has come: check the clock of this device"
            )
        if at_s < self.trip.started_at.timestamp() - 86400.0:
            raise InvalidInputError("at_s", at_s, "no earlier than a day before the trip began")

    def _refuse_others(self, fresh: list[CoreEvent]) -> None:
        """An id that stands on another trip cannot be taken; say no more than that."""
        ids = [uuid.UUID(event.id) for event in fresh]
        taken = Event.objects.filter(pk__in=ids).values_list("pk", flat=True).first()
        if taken is not None:
            raise ConflictError(f"id ({taken}) must be new: make another UUID for this event.")
