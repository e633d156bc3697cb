"""Append events to a trip: all of a batch or none, each exactly once."""

from __future__ import annotations

import time
import uuid
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from typing import Any, Final

from django.db import IntegrityError, transaction

from coldwake_core.checks import require_number
from coldwake_core.errors import CoreError, InvalidInputError
from coldwake_core.record.events import Event as CoreEvent
from coldwake_core.record.events import decode_event, encode_event
from coldwake_core.record.history import History
from coldwake_core.record.order import when
from coldwake_core.record.payloads import check_uuid
from common.errors import ConflictError
from common.faults import write_down
from locker.actions.keep_own_ranges import keep_own_ranges

from ..models import Event, Trip
from ..queries import KeptTrip, keeping, trip_now_s

MOST_EVENTS: Final = 500
CLOCK_SLACK_S: Final = 120.0
"""How far a phone's clock may be ahead of the server's."""
_TRIES: Final = 4
_RANGES: Final = frozenset({"auditioned", "beat_counted", "undone"})


class ClockError(InvalidInputError):
    """A time that cannot be, by the server's clock: the device's is wrong, and can be mended."""

    code = "clock"


class AnotherEventError(Exception):
    """An id that stands for another event already."""


class UntakenError(InvalidInputError):
    """An event that the program failed on: it is not lost, and the fault is written down."""

    code = "untaken"


@dataclass(frozen=True)
class Appended:
    """Which events are new, and which were here already."""

    added: list[str]
    known: list[str]


class AppendEvents:
    """Append a batch of events to a trip.

    The batch is thought through on a copy of the record, outside the transaction; the write lock is
    held for the rows alone. Should another process have added meanwhile, it is thought through
    once more.
    """

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
        documents, now_s = self.check(), trip_now_s(self.trip)
        for _ in range(_TRIES):
            with keeping(self.trip) as kept:
                fresh, known, history = self._admitted(kept, documents, now_s)
                if not fresh or self._write(kept, fresh, history, now_s):
                    return Appended(added=[event.id for event in fresh], known=known)
        raise ConflictError("Too much is being added at once: send it again.")

    def _admitted(
        self, kept: KeptTrip, documents: list[Any], now_s: float
    ) -> tuple[list[CoreEvent], list[str], History]:
        """Return new events in the order of the batch, those known, and the record with both."""
        history = kept.history.fork()
        unread = {item.id for item in kept.unread}
        fresh: dict[str, tuple[int, CoreEvent]] = {}
        known: list[str] = []
        for index, document in enumerate(documents):
            with _naming(index):
                event_id = self._id(document)
                same = history.events.get(event_id) or fresh.get(event_id, (0, None))[1]
                if same is not None and _timed(document, same) != same:
                    raise AnotherEventError(f"{event_id} is another event: make a new UUID.")
                if same is not None or event_id in unread:
                    known.append(event_id)
                    continue
                self._check_time(document, now_s)
                fresh[event_id] = index, decode_event(document)
        # As they happened, whatever their order in the batch.
        for index, event in sorted(fresh.values(), key=lambda item: when(item[1])):
            with _naming(index):
                history.admit(event)
        return [event for _, event in fresh.values()], known, history

    def _write(
        self, kept: KeptTrip, fresh: list[CoreEvent], history: History, now_s: float
    ) -> bool:
        """Write the rows; say whether nothing came between, for then their numbers are taken."""
        try:
            self._insert(kept, fresh, history, now_s)
        except IntegrityError:
            self._refuse_others(fresh)
            return False
        kept.history = history
        kept.last = (kept.last[0] + len(fresh), uuid.UUID(fresh[-1].id))
        return True

    def _insert(
        self, kept: KeptTrip, fresh: list[CoreEvent], history: History, now_s: float
    ) -> None:
        state, first = history.state, kept.last[0] + 1
        with transaction.atomic():
            Event.objects.bulk_create(
                Event(
                    id=event.id, trip=self.trip, seq=first + index, at_s=event.at_s,
                    type=event.type, payload=encode_event(event)["payload"],
                )
                for index, event in enumerate(fresh)
            )
            if any(event.type in _RANGES for event in fresh):
                keep_own_ranges(self.trip.owner_id, state.outfit, {
                    event.at_s for event in history.events.values() if event.type == "auditioned"
                })
            self._keep_trip(state.ended, now_s)

    def _keep_trip(self, ended: bool, now_s: float) -> None:
        """Keep whether it is over; a clock that rested goes on from where it stood."""
        changed = []
        if ended != self.trip.is_ended:
            self.trip.is_ended = ended
            changed.append("is_ended")
        shift = time.time() - now_s
        if self.trip.rest_after_s is not None and shift - self.trip.clock_shift_s > 1.0:
            self.trip.clock_shift_s = shift
            changed.append("clock_shift_s")
        if changed:
            self.trip.save(update_fields=changed)

    @staticmethod
    def _id(document: Any) -> str:
        if not isinstance(document, dict):
            raise InvalidInputError("", document, "an object with id, at_s, type and payload")
        return check_uuid("id", document.get("id"))

    def _check_time(self, document: dict[str, Any], now_s: float) -> None:
        at_s = require_number("at_s", document.get("at_s"))
        if at_s > now_s + CLOCK_SLACK_S:
            raise ClockError(
                "at_s", at_s, "a time that has come: check the clock of this device"
            )
        if at_s < self.trip.started_at.timestamp() - 86400.0:
            raise ClockError("at_s", at_s, "no earlier than a day before the trip began")

    def _refuse_others(self, fresh: list[CoreEvent]) -> None:
        """An id that stands on another trip cannot be taken; say no more than that."""
        others = Event.objects.filter(pk__in=[event.id for event in fresh])
        taken = others.exclude(trip=self.trip).values_list("pk", flat=True).first()
        if taken is not None:
            index = [self._id(document) for document in self.check()].index(str(taken))
            raise ConflictError({f"events[{index}].id": [
                f"{taken} must be new: make another UUID for this event."
            ]})


def _timed(document: dict[str, Any], same: CoreEvent) -> CoreEvent:
    """An event that is sent again; its time may have been mended meanwhile."""
    return decode_event({**document, "at_s": same.at_s})


@contextmanager
def _naming(index: int) -> Iterator[None]:
    """Name the event of the batch that an error is about; a fault of the program counts as one."""
    place = f"events[{index}]"
    try:
        yield
    except CoreError as error:
        error.field = f"{place}.{error.field}"
        raise
    except AnotherEventError as error:
        raise ConflictError({f"{place}.id": [str(error)]}) from None
    except Exception as error:
        fault = write_down(error, "an event could not be taken")
        raise UntakenError(
            f"{place}.", "", f"one that this program understands (fault {fault})"
        ) from error
