"""Put what a recorded log tells into the trip that it was recorded on."""

from __future__ import annotations

import hashlib
import uuid
from dataclasses import dataclass
from typing import Any

from coldwake_core.boat.instruments import Source
from coldwake_core.errors import CoreError, InvalidInputError
from trips.actions.append_events import MOST_EVENTS, AppendEvents
from trips.models import Trip
from trips.queries import trip_now_s

from ..live import log_path
from ..logs import news


@dataclass(frozen=True, kw_only=True)
class LogTaken:
    """How much went into the record; how much was there already, or of another time."""

    taken: int
    known: int
    outside: int
    refused: str


@dataclass(frozen=True, kw_only=True)
class RecordLog:
    """What says something new in somebody's log, as late entries of one trip."""

    owner: Any
    trip: Trip
    source: Source

    def execute(self) -> LogTaken:
        """Take it; the same log a second time changes nothing.

        Raises InvalidInputError where there is no log, or nothing in it is of the trip's time.
        """
        try:
            data = log_path(self.owner.pk).read_bytes()
        except FileNotFoundError:
            raise InvalidInputError("log", "none", "a log that was brought here first") from None
        space = uuid.uuid5(self.trip.pk, hashlib.sha256(data).hexdigest())
        begin_s, end_s = self._span()
        events, outside = [], 0
        for index, (at_s, one) in enumerate(news(data, self.source)):
            if not begin_s <= at_s <= end_s:
                outside += 1
                continue
            events.append({
                "id": str(uuid.uuid5(space, str(index))), "at_s": at_s, "type": one.type,
                "payload": one.payload,
            })
        if not events:
            raise InvalidInputError(
                "log", "nothing of this trip's time", "the log of this trip's own day"
            )
        return self._append(events, outside)

    def _span(self) -> tuple[float, float]:
        """From when to when the trip lasted; what is later is another day's."""
        begun_s = self.trip.started_at.timestamp() - 3600.0
        if not self.trip.is_ended:
            return begun_s, trip_now_s(self.trip)
        last_s = self.trip.events.order_by("-at_s").values_list("at_s", flat=True).first()
        return begun_s, begun_s if last_s is None else last_s

    def _append(self, events: list[dict[str, Any]], outside: int) -> LogTaken:
        taken, known, refused = 0, 0, ""
        for begin in range(0, len(events), MOST_EVENTS):
            batch = events[begin:begin + MOST_EVENTS]
            try:
                done = AppendEvents(self.trip, batch).execute()
                taken, known = taken + len(done.added), known + len(done.known)
            except CoreError:
                # One that this trip does not take stops no other.
                for event in batch:
                    try:
                        done = AppendEvents(self.trip, [event]).execute()
                        taken, known = taken + len(done.added), known + len(done.known)
                    except CoreError as error:
                        refused = str(error)
        return LogTaken(taken=taken, known=known, outside=outside, refused=refused)
