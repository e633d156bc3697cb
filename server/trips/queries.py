"""Reading trips: from rows to the core and back."""

from __future__ import annotations

import csv
import io
import json
import threading
import time
from collections import OrderedDict
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from datetime import UTC, datetime
from typing import Any, Final
from uuid import UUID

from django.db.models import TextField
from django.db.models.functions import Cast

from coldwake_core.decode import encode
from coldwake_core.gear.tackle import OUTFIT_LISTS
from coldwake_core.record.history import History
from coldwake_core.record.old import Unread, read_events, read_trip
from coldwake_core.record.trip import Trip as CoreTrip
from coldwake_core.trip.now import Now
from coldwake_core.trip.open_trip import OpenTrip
from coldwake_core.trip.solutions import Solutions
from common.csv import guard

from .models import Trip


def trip_now_s(trip: Trip) -> float:
    """Return the present moment by the trip's own clock, seconds since 1970-01-01 UTC.

    The clock of a trip that rests stands still some time after its latest event.
    """
    wall_s = time.time()
    now_s = wall_s - trip.clock_shift_s + (wall_s - trip.clock_set_s) * (trip.clock_pace - 1.0)
    if trip.rest_after_s is None:
        return now_s
    last_s = trip.events.order_by("-at_s").values_list("at_s", flat=True).first()
    return now_s if last_s is None else min(now_s, last_s + trip.rest_after_s)


def event_documents(trip: Trip) -> list[dict[str, Any]]:
    """Return the trip's events as JSON, in order of time."""
    return [event.document() for event in trip.events.all()]


def last_seq(trip: Trip) -> int:
    """Return the number of the event that came in last; 0 when none has."""
    return trip.events.order_by("-seq").values_list("seq", flat=True).first() or 0


def events_json(trip: Trip, *, after: int) -> str:
    """Return the events that came in after a number as JSON text, with the number to ask from next.

    Payloads are handed through as they are kept: reading and writing them again would be most of
    the work for a day of thousands.
    """
    rows = (
        trip.events.filter(seq__gt=after).order_by("seq")
        .annotate(text=Cast("payload", TextField()))
        .values_list("seq", "pk", "at_s", "type", "text")
    )
    parts, last = [], after
    for last, key, at_s, kind, text in rows:  # noqa: B007 (the last one is what is wanted)
        parts.append(f'{{"id":"{key}","at_s":{at_s!r},"type":{json.dumps(kind)},"payload":{text}}}')
    return f'{{"events":[{",".join(parts)}],"after":{last}}}'


@dataclass
class KeptTrip:
    """A trip that was read, kept from one request to the next and brought up to date.

    ``last`` is number and id of the latest event that it holds. The record is never changed, only
    replaced: whoever reads it goes on undisturbed.
    """

    trip: CoreTrip
    unread_trip: tuple[Unread, ...]
    history: History
    last: tuple[int, UUID | None] = (0, None)
    unread: tuple[Unread, ...] = ()
    solutions: Solutions = field(default_factory=Solutions)
    lock: threading.RLock = field(default_factory=threading.RLock)

    def now(self) -> Now:
        """Return the trip as it stands."""
        return OpenTrip(
            self.trip, self.history, solutions=self.solutions,
            unread=self.unread_trip + self.unread,
        ).now

    def refresh(self, trip: Trip) -> None:
        """Take what other processes have added; begin anew where rows are gone."""
        seq, key = self.last
        newest = trip.events.order_by("-seq").values_list("seq", "pk").first() or (0, None)
        if newest == self.last:
            return
        if key is not None and not trip.events.filter(seq=seq, pk=key).exists():
            self.last, self.history, self.unread = (0, None), History(self.trip), ()
            seq = 0
        rows = trip.events.filter(seq__gt=seq).order_by("seq")
        events, unread = read_events(event.document() for event in rows)
        history = self.history.fork()
        history.insert(events)
        # Folded now, under the lock, so that reading never changes what several threads hold.
        assert history.state is not None
        self.history, self.last, self.unread = history, newest, self.unread + unread


_MOST_KEPT: Final = 16
_shelf: OrderedDict[UUID, KeptTrip] = OrderedDict()
_shelf_lock = threading.Lock()


def _kept(trip: Trip) -> KeptTrip:
    with _shelf_lock:
        kept = _shelf.get(trip.pk)
        if kept is not None:
            _shelf.move_to_end(trip.pk)
            return kept
    # A trip's start never changes; checking a chart's every cell takes longer than all of a tap.
    core, unread = read_trip(trip.document())
    with _shelf_lock:
        kept = _shelf.setdefault(trip.pk, KeptTrip(core, unread, History(core)))
        while len(_shelf) > _MOST_KEPT:
            _shelf.popitem(last=False)
        return kept


def forget_trips() -> None:
    """Forget all trips that were kept: the database has been replaced."""
    with _shelf_lock:
        _shelf.clear()


@contextmanager
def keeping(trip: Trip) -> Iterator[KeptTrip]:
    """Give the kept trip, up to date, to one at a time: for those who add to it."""
    kept = _kept(trip)
    with kept.lock:
        kept.refresh(trip)
        yield kept


def trip_now(trip: Trip) -> Now:
    """Return the trip as it stands with all its events."""
    with keeping(trip) as kept:
        return kept.now()


def trip_at(trip: Trip, at_s: float) -> Now:
    """Return the trip as it stood at a moment, by all that is known of it now."""
    with keeping(trip) as kept:
        return OpenTrip(
            kept.trip, kept.history.until(at_s), solutions=kept.solutions, unread=kept.unread_trip,
        ).now


def aboard_news(trip: Trip) -> dict[str, list[Any]]:
    """Return what is aboard this boat by the locker and new, or other, to the trip.

    What a trip has is never taken off it: a lure that is no longer aboard stays in what happened.
    """
    if trip.boat is None:
        return {name: [] for name in OUTFIT_LISTS}
    now, here = trip.boat.core(), trip_now(trip).state.outfit
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
