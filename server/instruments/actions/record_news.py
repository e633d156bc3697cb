"""Put what the instruments tell into the trip that is under way."""

from __future__ import annotations

import uuid
from dataclasses import dataclass
from typing import Any

from coldwake_core.boat.instruments import News
from coldwake_core.errors import CoreError
from trips.actions.append_events import AppendEvents
from trips.models import Trip
from trips.queries import trip_now_s


@dataclass(frozen=True, kw_only=True)
class RecordNews:
    """What says something new, as events of the latest trip that is not over."""

    owner_pk: int
    news: tuple[News, ...]

    def execute(self) -> dict[str, Any]:
        """Append it; return the trip, how many were taken, and what was refused, in words."""
        trip = Trip.objects.filter(
            owner_id=self.owner_pk, is_ended=False, is_practice=False
        ).first()
        if trip is None:
            return {"trip": None, "taken": 0, "refused": ""}
        taken, refused = 0, ""
        now_s = trip_now_s(trip)
        if trip.rest_after_s is not None and now_s > trip.sun["dark_s"]:
            # The demo's boat would sail on for weeks.
            return {"trip": trip.name, "taken": 0, "refused": "The demo's day is over."}
        for news in self.news:
            event = {
                "id": str(uuid.uuid4()), "at_s": now_s, "type": news.type, "payload": news.payload
            }
            try:
                AppendEvents(trip, [event]).execute()
                taken += 1
            except CoreError as error:
                # One value that this trip does not take stops no other.
                refused = str(error)
        return {"trip": trip.name, "taken": taken, "refused": refused}
